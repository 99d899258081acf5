"""Stator windings as coils with named ends.

A coil goes from its start to its end; ``S`` is a star point inside the motor,
which no lead reaches. Axes are electrical degrees in the sense 1-2-3; turns are
parts of a whole phase. Source: NEMA MG 1 part 2 terminal marking; the coil
tables of rotating-field theory.

Units: axis [deg].
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal, get_args

from evencoil.errors import OutOfRangeError
from evencoil.words import Message

__all__ = ["KINDS", "LINES", "Coil", "Winding", "WindingKind", "winding_of"]

WindingKind = Literal["3-wye", "3-delta", "9-wye", "9-delta"]
LINES = ("L1", "L2", "L3")


@dataclass(frozen=True, slots=True)
class Coil:
    """One stator coil: a whole phase, or half of one."""

    name: str
    start: str
    end: str
    axis_deg: int
    turns: float

    @property
    def phase(self) -> str:
        """Return the phase letter."""
        return self.name[0]


@dataclass(frozen=True, slots=True)
class Winding:
    """All stator coils of a motor, and the leads that come out."""

    kind: WindingKind
    coils: tuple[Coil, ...]
    leads: tuple[str, ...]
    is_wye: bool

    @property
    def halves(self) -> int:
        """Return how many coils make a phase."""
        return len(self.coils) // 3


def _coils(text: str, turns: float) -> tuple[Coil, ...]:
    axes = {"A": 0, "B": 120, "C": 240}
    found = []
    for part in text.split(","):
        name, start, end = part.split()
        found.append(Coil(name, start, end, axes[name[0]], turns))
    return tuple(found)


def _leads(count: int) -> tuple[str, ...]:
    return tuple(f"T{number}" for number in range(1, count + 1))


KINDS: Mapping[WindingKind, Winding] = {
    "3-wye": Winding("3-wye", _coils("A T1 S,B T2 S,C T3 S", 1.0), _leads(3), is_wye=True),
    "3-delta": Winding("3-delta", _coils("A T1 T2,B T2 T3,C T3 T1", 1.0), _leads(3), is_wye=False),
    "9-wye": Winding(
        "9-wye",
        _coils("A1 T1 T4,B1 T2 T5,C1 T3 T6,A2 T7 S,B2 T8 S,C2 T9 S", 0.5),
        _leads(9),
        is_wye=True,
    ),
    "9-delta": Winding(
        "9-delta",
        _coils("A1 T1 T4,B1 T2 T5,C1 T3 T6,A2 T7 T2,B2 T8 T3,C2 T9 T1", 0.5),
        _leads(9),
        is_wye=False,
    ),
}


def winding_of(kind: str) -> Winding:
    """Return the winding of a kind.

    Raises
    ------
    OutOfRangeError
        If the kind is not among those known so far.
    """
    for known in get_args(WindingKind):
        if known == kind:
            return KINDS[known]
    raise OutOfRangeError(
        Message("winding.unknown", {"kind": kind[:20]}),
        field="leads.winding",
        hint=Message("winding.unknown.hint", {"kinds": ", ".join(KINDS)}),
    )
