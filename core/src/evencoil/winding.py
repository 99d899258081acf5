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

__all__ = [
    "KINDS",
    "LINES",
    "OTHER_KINDS",
    "Coil",
    "OtherKind",
    "Winding",
    "WindingKind",
    "winding_of",
]

WindingKind = Literal["3-wye", "3-delta", "9-wye", "9-delta"]
OtherKind = Literal[
    "6",
    "12",
    "part-winding",
    "2-speed-ct",
    "2-speed-vt",
    "2-speed-cp",
    "2-speed-2-winding",
    "1-phase",
]
Field = Literal["one", "both", "low", "high"]
LINES = ("L1", "L2", "L3")


@dataclass(frozen=True, slots=True)
class Coil:
    """One stator coil: a whole phase, or half of one.

    ``field`` tells which revolving fields it makes: of the one speed, of both
    speeds (consequent poles, with another axis at the low one), or of one only.
    """

    name: str
    start: str
    end: str
    axis_deg: int
    turns: float
    low_axis_deg: int | None = None
    field: Field = "one"

    @property
    def phase(self) -> str:
        """Return the phase letter."""
        return self.name[0]


@dataclass(frozen=True, slots=True)
class Winding:
    """All stator coils of a motor, and the leads that come out."""

    kind: WindingKind | OtherKind
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


def _two_speed(kind: OtherKind, ends: str, axes: str, low_axes: str, *, is_wye: bool) -> Winding:
    """Six half-coils of one winding; axes at the high and at the low speed."""
    names = ("A1", "A2", "B1", "B2", "C1", "C2")
    rows = zip(names, ends.split(","), axes.split(), low_axes.split(), strict=True)
    coils = []
    for name, pair, axis, low in rows:
        start, end = pair.split()
        coils.append(Coil(name, start, end, int(axis), 0.5, int(low), "both"))
    return Winding(kind, tuple(coils), _leads(6), is_wye=is_wye)


def _separate(kind: OtherKind, sets: Mapping[str, tuple[Field, float]]) -> Winding:
    """Several stars inside one motor, each on its own leads."""
    coils, leads = [], []
    for place, (tags, (which, turns)) in enumerate(sets.items(), start=1):
        for letter, axis, lead in zip("ABC", (0, 120, 240), tags.split(), strict=True):
            low = axis if which == "low" else None
            coils.append(Coil(f"{letter}{place}", lead, f"S{place}", axis, turns, low, which))
            leads.append(lead)
    return Winding(kind, tuple(coils), tuple(leads), is_wye=True)


_PLACES = "0 180 240 60 120 300"
_PAIRS = "0 0 120 120 240 240"
OTHER_KINDS: Mapping[OtherKind, Winding] = {
    "6": Winding("6", _coils("A T1 T4,B T2 T5,C T3 T6", 1.0), _leads(6), is_wye=False),
    "12": Winding(
        "12",
        _coils("A1 T1 T4,B1 T2 T5,C1 T3 T6,A2 T7 T10,B2 T8 T11,C2 T9 T12", 0.5),
        _leads(12),
        is_wye=True,
    ),
    "part-winding": _separate("part-winding", {"T1 T2 T3": ("one", 0.5), "T7 T8 T9": ("one", 0.5)}),
    "2-speed-ct": _two_speed(
        "2-speed-ct", "T1 T6,T6 T2,T2 T5,T5 T3,T3 T4,T4 T1", _PLACES, _PAIRS, is_wye=False
    ),
    "2-speed-vt": _two_speed(
        "2-speed-vt", "T1 T6,T6 S,T2 T5,T5 S,T3 T4,T4 S", _PLACES, _PAIRS, is_wye=True
    ),
    "2-speed-cp": _two_speed(
        "2-speed-cp", "T6 T1,T1 T4,T4 T3,T3 T5,T5 T2,T2 T6", _PAIRS, _PLACES, is_wye=False
    ),
    "2-speed-2-winding": _separate(
        "2-speed-2-winding", {"T1 T2 T3": ("low", 1.0), "T11 T12 T13": ("high", 1.0)}
    ),
    "1-phase": Winding("1-phase", (Coil("M", "T1", "T4", 0, 1.0),), ("T1", "T4"), is_wye=False),
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
    for other in get_args(OtherKind):
        if other == kind:
            return OTHER_KINDS[other]
    raise OutOfRangeError(
        Message("winding.unknown", {"kind": kind[:20]}),
        field="leads.winding",
        hint=Message("winding.unknown.hint", {"kinds": ", ".join(KINDS)}),
    )
