"""What hangs on a machine besides motors, when its supply changes: lamps, coils, rectifiers.

Units: volts [V], percent.
Rules: textbook topics: a load's own volts within 10 % are kept; power of a lamp goes
with the square of the volts, direct current behind a rectifier with the volts.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from decimal import Decimal
from typing import Literal

from pydantic import BaseModel, ConfigDict, Field

from evencoil.base import DecimalText, Message, Text, plain, show

__all__ = ["ConvertedLoad", "LoadKind", "MachineLoad", "convert_load"]

LoadKind = Literal[
    "lamp",
    "coil",
    "solenoid",
    "brake",
    "rectifier",
    "dc_drive",
    "timer",
    "phase_monitor",
    "capacitor",
    "heater",
]
_WITHIN = Decimal("0.10")


class MachineLoad(BaseModel):
    """A load of a machine: what it is, its own volts, and what feeds it.

    ``fed_from`` is the tag of a control transformer, or empty for the line itself.
    """

    model_config = ConfigDict(extra="forbid", frozen=True)
    tag: Text = Field(min_length=1)
    kind: LoadKind
    rated_v: DecimalText = Field(gt=0, le=15000)
    fed_from: Text = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class ConvertedLoad:
    """What becomes of a load, and the volts [V] it would see."""

    tag: str
    action: Literal["keep", "refeed", "replace", "open"]
    volts_after_v: Decimal | None
    message: Message


def convert_load(
    load: MachineLoad, to_v: Decimal, secondaries_v: Mapping[str, Decimal | None]
) -> ConvertedLoad:
    """Return what becomes of a load on another supply.

    Parameters
    ----------
    load : MachineLoad
        What it is and what feeds it.
    to_v : Decimal
        Line volts of the new supply. [V]
    secondaries_v : mapping
        Secondary volts of each control transformer after the change; None for one
        that is replaced and may be ordered to fit. [V]
    """
    kind = str(Message(f"load.{load.kind}"))
    params = {
        "tag": load.tag,
        "kind": kind,
        "rated": plain(load.rated_v),
        "from": load.fed_from,
        "line": plain(to_v),
    }
    if load.fed_from and load.fed_from not in secondaries_v:
        return ConvertedLoad(
            tag=load.tag,
            action="open",
            volts_after_v=None,
            message=Message("load.unknown", params),
        )
    after = secondaries_v[load.fed_from] if load.fed_from else to_v
    if after is None:
        return ConvertedLoad(
            tag=load.tag,
            action="keep",
            volts_after_v=load.rated_v,
            message=Message("load.ordered", params),
        )
    ratio = after / load.rated_v
    params |= {
        "after": show(after),
        "ratio": show(ratio),
        "power": show(ratio * ratio * 100),
        "percent": show((ratio - 1) * 100),
    }
    if abs(ratio - 1) <= _WITHIN:
        action: Literal["keep", "refeed", "replace"] = "keep"
        said = "load.keep"
    elif load.fed_from:
        action, said = "replace", "load.replace"
    elif load.kind in {"phase_monitor", "capacitor", "dc_drive", "rectifier"}:
        # what stands on the line by its nature is exchanged, not fed from somewhere else
        action, said = "replace", "load.line_replace"
    else:
        action, said = "refeed", "load.refeed"
    return ConvertedLoad(
        tag=load.tag, action=action, volts_after_v=after, message=Message(said, params)
    )
