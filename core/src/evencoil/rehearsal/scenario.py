"""Scenario files, and a trace as plain values: what goes in and out as JSON.

A scenario is ``{"constants": "catalogue", "until_s": "12", "actions": [{"at_s":
"1.0", "do": "push", "on": "S2"}]}``. Times are text or whole numbers, so that no
float comes near them.
"""

from __future__ import annotations

from decimal import Decimal
from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field, StringConstraints, ValidationError

from evencoil.base import DecimalText, FileFormatError, Message, Text, say
from evencoil.circuit import Circuit
from evencoil.rehearsal.stage import ScenarioAct, Stage, seconds
from evencoil.rehearsal.trace import Frame, Trace

__all__ = [
    "ActInput",
    "Scenario",
    "frame_as_json",
    "read_scenario",
    "rehearse",
    "trace_as_json",
]

Word = Annotated[Text, StringConstraints(max_length=60)]
MOST_BYTES = 200_000


class _Model(BaseModel):
    model_config = ConfigDict(extra="forbid", frozen=True)


class ActInput(_Model):
    """One act: when, what, on which device, with which word."""

    at_s: DecimalText = Field(ge=0, le=Decimal(14400))
    do: Word
    on: Word = ""
    word: Word = ""

    def as_core(self) -> ScenarioAct:
        """Return it as the rehearsal takes it."""
        return ScenarioAct(at_us=seconds(self.at_s), do=self.do, on=self.on, word=self.word)


class Scenario(_Model):
    """A whole scenario."""

    constants: Literal["catalogue"] = "catalogue"
    until_s: DecimalText | None = Field(default=None, ge=0, le=Decimal(14400))
    actions: tuple[ActInput, ...] = Field(default=(), max_length=400)

    def acts(self) -> tuple[ScenarioAct, ...]:
        """Return the acts as the rehearsal takes them."""
        return tuple(action.as_core() for action in self.actions)

    def until_us(self) -> int | None:
        """Return how far it goes [us], None for ten seconds beyond the last act."""
        return None if self.until_s is None else seconds(self.until_s)


def read_scenario(data: bytes) -> Scenario:
    """Read a scenario file.

    Raises
    ------
    FileFormatError
        Naming the field that is wrong.
    """
    if len(data) > MOST_BYTES:
        raise FileFormatError(
            Message("file.too_large", {"size": str(len(data)), "most": str(MOST_BYTES)}),
            field="file",
            hint=Message("file.too_large.hint"),
        )
    try:
        return Scenario.model_validate_json(data)
    except ValidationError as wrong:
        first = wrong.errors()[0]
        raise FileFormatError(
            Message(
                "file.field",
                {
                    "reason": str(first["msg"]).removeprefix("Value error, ")[:200],
                    "more": str(len(wrong.errors()) - 1),
                },
            ),
            field="scenario." + ".".join(str(part) for part in first["loc"])[:120],
            hint=Message("file.field.hint"),
        ) from wrong


def rehearse(circuit: Circuit, scenario: Scenario) -> Trace:
    """Run a circuit through a scenario, from open disconnects.

    Parameters
    ----------
    circuit : Circuit
        Devices and wires, from the supply to the coils.
    scenario : Scenario
        Its actions, and the constants to use.

    Returns
    -------
    Trace
        Every event with its time [us], the frames, the hazards with their chain of causes.

    Raises
    ------
    OutOfRangeError
        Actions that this circuit cannot take, or too many.
    """
    stage = Stage(circuit, scenario.constants)
    return stage.play(scenario.acts(), until_us=scenario.until_us())


def frame_as_json(frame: Frame) -> dict[str, Any]:
    """Return a frame as plain values.

    Parameters
    ----------
    frame : Frame
        Full or light.
    """
    said: dict[str, Any] = {
        "t": frame.time_us,
        "motors": {
            name: {
                "word": motor.word,
                "v": motor.volts_percent,
                "n": motor.speed_percent,
                "a": motor.coil_amps_a,
                "field": motor.field,
            }
            for name, motor in frame.motors.items()
        },
        "heats": dict(frame.heats),
    }
    if frame.words is not None:
        said |= {
            "words": dict(frame.words),
            "closed": list(frame.closed or ()),
            "nets": dict(frame.nets or {}),
            "live": list(frame.live or ()),
            "snapshot": frame.snapshot,
        }
    return said


def trace_as_json(trace: Trace, circuit: Circuit) -> dict[str, Any]:
    """Return a trace as plain values, without the snapshots.

    Parameters
    ----------
    trace : Trace
        From `evencoil.rehearsal.Stage.play`.
    circuit : Circuit
        For the tags.
    """
    return {
        "constants": trace.set_name,
        "fingerprint": trace.fingerprint,
        "start_us": trace.start_us,
        "until_us": trace.until_us,
        "never_settles": trace.never_settles,
        "frames": [frame_as_json(frame) for frame in trace.frames],
        "events": [
            {
                "n": event.n,
                "t": event.time,
                "device": event.device,
                "tag": circuit.named(event.device),
                "what": event.aspect,
                "value": event.value,
                "cause": event.cause,
            }
            for event in trace.events
        ],
        "hazards": [
            {
                "code": hazard.code,
                "name": say(Message(f"hazard.{hazard.code}")),
                "t": hazard.time_us,
                "device": hazard.device,
                "sentence": hazard.sentence,
                "chain": [say(part) for part in hazard.chain],
            }
            for hazard in trace.hazards
        ],
    }
