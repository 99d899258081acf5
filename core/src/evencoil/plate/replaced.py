"""A motor replaced: old and new plate line by line, and what the change takes down.

The disconnect record is made before a wire is moved. The work ends with the
rotation proven equal, seen from the same side.

Units: as in `nameplate`.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from evencoil.base import Message, plain
from evencoil.plate.inputs import ReplaceInputs
from evencoil.plate.model import Band, Nameplate, PlateReading
from evencoil.plate.reader import read

__all__ = ["PlateLine", "Replaced", "compare_plates"]

#: fields compared, and the steps that a change in each takes down
TAKES_DOWN: Mapping[str, tuple[str, ...]] = {
    "power_hp": ("size", "starter"),
    "power_kw": ("size", "starter"),
    "volts_v": ("supply", "leads", "size", "starter"),
    "amps_a": ("size",),
    "speed_rpm": ("size", "machine"),
    "frequency_hz": ("supply",),
    "phases": ("supply", "leads", "size", "starter"),
    "service_factor": ("size",),
    "code_letter": ("size",),
    "design_letter": ("size",),
    "leads": ("leads", "joints", "starter"),
    "connection_signs": ("leads",),
    "temperature_rise_c": ("size",),
    "efficiency_percent": (),
    "power_factor_percent": (),
    "duty": ("size",),
    "is_thermally_protected": ("starter",),
    "accessories": ("starter",),
}


@dataclass(frozen=True, slots=True)
class PlateLine:
    """One field of both nameplates, and the steps that its change takes down."""

    field: str
    old: str
    new: str
    takes_down: tuple[str, ...]

    @property
    def is_same(self) -> bool:
        """Tell whether both nameplates say the same."""
        return self.old == self.new


@dataclass(frozen=True, slots=True, kw_only=True)
class Replaced:
    """What a replacement changes, and what is still to be proven.

    ``rotation`` is ``equal``, ``different`` or ``unproven``.
    """

    old: PlateReading
    lines: tuple[PlateLine, ...]
    takes_down: tuple[str, ...]
    rotation: Literal["equal", "different", "unproven"]
    open_points: tuple[Message, ...]


def _text(value: object) -> str:
    if value in (None, (), False):
        return ""
    if value is True:
        return "yes"
    if isinstance(value, tuple):
        return "/".join(
            f"{item}{item.sign}"
            if isinstance(item, Band)
            else str(item)
            if isinstance(item, str)
            else plain(item)
            for item in value
        )
    return str(value)


def compare_plates(given: ReplaceInputs, new: Nameplate) -> Replaced:
    """Hold the old motor's plate and record against the new plate.

    Parameters
    ----------
    given : ReplaceInputs
        The disconnect record.
    new : Nameplate
        The nameplate of the motor that goes in.

    Returns
    -------
    Replaced
        Every field that either plate gives, what the differences take down,
        and what the record still lacks.

    Raises
    ------
    CoreError
        If the old nameplate's text is no text.
    """
    old = read(given.old_plate)
    lines = []
    for field, takes in TAKES_DOWN.items():
        one, other = _text(getattr(old.plate, field)), _text(getattr(new, field))
        if one or other:
            lines.append(PlateLine(field, one, other, () if one == other else takes))
    order = ("supply", "leads", "joints", "size", "starter", "machine")
    down = {step for line in lines for step in line.takes_down}
    before, after = given.rotation, given.rotation_after
    rotation: Literal["equal", "different", "unproven"] = "unproven"
    if "unknown" not in (before, after) and given.seen_from and given.seen_from_after:
        same_side = given.seen_from == given.seen_from_after
        rotation = "equal" if (before == after) == same_side else "different"
    return Replaced(
        old=old,
        lines=tuple(lines),
        takes_down=tuple(step for step in order if step in down),
        rotation=rotation,
        open_points=_open(given, rotation),
    )


def _open(given: ReplaceInputs, rotation: str) -> tuple[Message, ...]:
    found = []
    if not given.old_plate.strip():
        found.append(Message("replaced.no_plate"))
    if not given.conductors:
        found.append(Message("replaced.no_conductors"))
    missing = [item.conductor for item in given.conductors if not item.terminal.strip()]
    if missing:
        found.append(Message("replaced.no_terminal", {"conductors": ", ".join(missing)}))
    twice = [item.conductor for item in given.conductors]
    again = sorted({name for name in twice if twice.count(name) > 1})
    if again:
        found.append(Message("replaced.twice", {"conductors": ", ".join(again)}))
    if given.rotation == "unknown" or not given.seen_from:
        found.append(Message("replaced.no_rotation"))
    if rotation == "unproven":
        found.append(Message("replaced.unproven"))
    elif rotation == "different":
        found.append(Message("replaced.different"))
    return tuple(found)
