"""The inputs of the starter step: circuit, options, edits, accepted hazards, dead readings."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, StringConstraints

from evencoil.base import DecimalText, HugeText, Inputs, ShortText, Text
from evencoil.circuit import Edit, EditKind
from evencoil.codebook import DeviceNames
from evencoil.logic import MOST_CHARACTERS

__all__ = ["AcceptedInput", "DeadReadingInput", "EditInput", "HandInput", "StarterInputs"]


#: a program of a programmable relay
ProgramText = Annotated[HugeText, StringConstraints(max_length=MOST_CHARACTERS)]


class EditInput(Inputs):
    """One change of the drawn circuit: what, by whom, when and why; and who changed it since."""

    id: ShortText = Field(min_length=1)
    kind: EditKind
    wire: Text = ""
    start: ShortText = ""
    end: ShortText = ""
    device: ShortText = ""
    type: ShortText = ""
    parameters: dict[ShortText, ShortText] = Field(default={}, max_length=24)
    tag: ShortText = ""
    by: ShortText = ""
    at: ShortText = ""
    why: Text = ""
    changed_by: ShortText = ""
    changed_at: ShortText = ""

    def as_core(self) -> Edit:
        """Return it as the core takes it."""
        return Edit(**self.model_dump(exclude={"changed_by", "changed_at"}))


class AcceptedInput(Inputs):
    """A hazard of the chosen circuit that someone accepts, by name and with a reason."""

    hazard: Literal["power_back", "overload_reset", "isolator_back", "plugged"]
    why: Text = Field(min_length=3)
    by: ShortText = ""
    at: ShortText = ""


class HandInput(Inputs):
    """What is held or set while a reading is taken."""

    verb: Literal[
        "press", "trip", "on", "turn", "push_in", "open", "close", "pull", "lift", "unplug"
    ]
    device: ShortText = Field(min_length=1)
    word: ShortText = ""


class DeadReadingInput(Inputs):
    """A reading on the dead circuit, by whom and when; ``ohms`` is empty where it was open."""

    start: ShortText = Field(min_length=1)
    end: ShortText = Field(min_length=1)
    hands: tuple[HandInput, ...] = Field(default=(), max_length=60)
    ohms: DecimalText | None = None
    by: ShortText = ""
    at: ShortText = ""


class StarterInputs(Inputs):
    """Which starter, with which options, and what was changed on its drawing.

    ``frozen`` holds the wire numbers of the last issue for wiring, by terminal:
    later changes add numbers and never renumber. The standard circuit ``found`` is an empty panel:
    the edits are what was traced in it. ``load`` is how the machine starts. ``programs`` are those
    of this job's programmable relays, by device; a relay that is not named runs as drawn.
    """

    standard_circuit: ShortText = ""
    options: dict[ShortText, ShortText] = Field(default={}, max_length=40)
    naming: DeviceNames | None = None
    symbols: Literal["nema", "iec"] | None = None
    edits: tuple[EditInput, ...] = Field(default=(), max_length=500)
    frozen: dict[ShortText, ShortText] = Field(default={}, max_length=4000)
    programs: dict[ShortText, ProgramText] = Field(default={}, max_length=8)
    readings: tuple[DeadReadingInput, ...] = Field(default=(), max_length=400)
    load: Literal["unknown", "empty", "loaded"] = "unknown"
    accepted: tuple[AcceptedInput, ...] = Field(default=(), max_length=12)
