"""Stator windings as coils with named ends.

A coil goes from its start to its end; ``S`` is a star point inside the motor,
which no lead reaches. Axes are electrical degrees in the sense 1-2-3; turns are
parts of a whole phase. Source: NEMA MG 1 part 2 terminal marking; the coil
tables of rotating-field theory. The placing of T4, T5 and T6 of the two-speed
windings follows from the usual connections turning the same way at both speeds;
that of single-phase leads is recalled: compare with the motor's own diagram.

Units: axis [deg].
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal, get_args

from evencoil.base import Message, OutOfRangeError

__all__ = ["HIGH_SPEED_TURNS", "KINDS", "LINES", "Coil", "Winding", "WindingKind", "winding_of"]

WindingKind = Literal[
    "3-wye",
    "3-delta",
    "6",
    "9-wye",
    "9-delta",
    "12",
    "part-winding",
    "2-speed-ct",
    "2-speed-vt",
    "2-speed-cp",
    "2-speed-2-winding",
    "1-phase",
    "1-phase-reversible",
    "1-phase-dual",
    "1-phase-dual-fixed",
]
Field = Literal["one", "both", "low", "high"]
LINES = ("L1", "L2", "L3")
#: winding factor at the high speed over that at the low one, half pitch and
#: 60 degree belts against full pitch and 120; real windings differ
HIGH_SPEED_TURNS = 0.675 / 0.827


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

    @property
    def fields(self) -> tuple[tuple[str, float, int], ...]:
        """Return the fields it makes: which, with what turns, on what axis [deg]."""
        if self.field == "both":
            low = self.axis_deg if self.low_axis_deg is None else self.low_axis_deg
            return (
                ("low", self.turns, low),
                ("high", self.turns * HIGH_SPEED_TURNS, self.axis_deg),
            )
        return ((self.field, self.turns, self.axis_deg),)


@dataclass(frozen=True, slots=True)
class Winding:
    """All stator coils of a motor, and the leads that come out."""

    kind: WindingKind
    coils: tuple[Coil, ...]
    leads: tuple[str, ...]
    is_wye: bool

    @property
    def phases(self) -> int:
        """Return 1 or 3."""
        return 1 if self.kind.startswith("1-phase") else 3

    @property
    def is_two_speed(self) -> bool:
        """Tell whether it has two speeds."""
        return self.kind.startswith("2-speed")

    @property
    def halves(self) -> int:
        """Return how many coils make a phase."""
        return len([coil for coil in self.coils if coil.phase == self.coils[0].phase])


def _coils(text: str, turns: float) -> tuple[Coil, ...]:
    axes = {"A": 0, "B": 120, "C": 240, "M": 0, "X": 90}
    found = []
    for part in text.split(","):
        name, start, end = part.split()
        found.append(Coil(name, start, end, axes[name[0]], turns))
    return tuple(found)


def _leads(count: int) -> tuple[str, ...]:
    return tuple(f"T{number}" for number in range(1, count + 1))


def _plain(kind: WindingKind, ends: str, turns: float, *, is_wye: bool) -> Winding:
    coils = _coils(ends, turns)
    count = len({end for coil in coils for end in (coil.start, coil.end)} - {"S"})
    return Winding(kind, coils, _leads(count), is_wye=is_wye)


def _two_speed(kind: WindingKind, ends: str, axes: str, low_axes: str, *, is_wye: bool) -> Winding:
    """Six half-coils of one winding; axes at the high and at the low speed."""
    names = ("A1", "A2", "B1", "B2", "C1", "C2")
    rows = zip(names, ends.split(","), axes.split(), low_axes.split(), strict=True)
    coils = []
    for name, pair, axis, low in rows:
        start, end = pair.split()
        coils.append(Coil(name, start, end, int(axis), 0.5, int(low), "both"))
    return Winding(kind, tuple(coils), _leads(6), is_wye=is_wye)


def _separate(kind: WindingKind, sets: Mapping[str, tuple[Field, float]]) -> Winding:
    """Several stars inside one motor, each on its own leads."""
    coils, leads = [], []
    for place, (tags, (which, turns)) in enumerate(sets.items(), start=1):
        for letter, axis, lead in zip("ABC", (0, 120, 240), tags.split(), strict=True):
            low = axis if which == "low" else None
            coils.append(Coil(f"{letter}{place}", lead, f"S{place}", axis, turns, low, which))
            leads.append(lead)
    return Winding(kind, tuple(coils), tuple(leads), is_wye=True)


def _single(kind: WindingKind, ends: str, leads: str) -> Winding:
    """Place the main winding on axis 0, the start winding with its capacitor on axis 90."""
    coils = _coils(ends, 0.5 if "M2" in ends else 1.0)
    return Winding(kind, coils, tuple(leads.split()), is_wye=False)


_PLACES = "0 180 240 60 120 300"
_PAIRS = "0 0 120 120 240 240"
KINDS: Mapping[WindingKind, Winding] = {
    winding.kind: winding
    for winding in (
        _plain("3-wye", "A T1 S,B T2 S,C T3 S", 1.0, is_wye=True),
        _plain("3-delta", "A T1 T2,B T2 T3,C T3 T1", 1.0, is_wye=False),
        _plain("6", "A T1 T4,B T2 T5,C T3 T6", 1.0, is_wye=False),
        _plain("9-wye", "A1 T1 T4,B1 T2 T5,C1 T3 T6,A2 T7 S,B2 T8 S,C2 T9 S", 0.5, is_wye=True),
        _plain(
            "9-delta", "A1 T1 T4,B1 T2 T5,C1 T3 T6,A2 T7 T2,B2 T8 T3,C2 T9 T1", 0.5, is_wye=False
        ),
        _plain("12", "A1 T1 T4,B1 T2 T5,C1 T3 T6,A2 T7 T10,B2 T8 T11,C2 T9 T12", 0.5, is_wye=True),
        _separate("part-winding", {"T1 T2 T3": ("one", 0.5), "T7 T8 T9": ("one", 0.5)}),
        _two_speed(
            "2-speed-ct", "T1 T6,T6 T2,T2 T5,T5 T3,T3 T4,T4 T1", _PLACES, _PAIRS, is_wye=False
        ),
        _two_speed("2-speed-vt", "T1 T6,T6 S,T2 T5,T5 S,T3 T4,T4 S", _PLACES, _PAIRS, is_wye=True),
        _two_speed(
            "2-speed-cp", "T6 T1,T1 T4,T4 T3,T3 T5,T5 T2,T2 T6", _PAIRS, _PLACES, is_wye=False
        ),
        _separate("2-speed-2-winding", {"T1 T2 T3": ("low", 1.0), "T11 T12 T13": ("high", 1.0)}),
        _single("1-phase", "M T1 T4", "T1 T4"),
        _single("1-phase-reversible", "M T1 T4,X T5 T8", "T1 T4 T5 T8"),
        _single("1-phase-dual", "M1 T1 T2,M2 T3 T4,X T5 T8", "T1 T2 T3 T4 T5 T8"),
        _single("1-phase-dual-fixed", "M1 T1 T2,M2 T3 T4", "T1 T2 T3 T4"),
    )
}


def winding_of(kind: str) -> Winding:
    """Return the winding of a kind.

    Raises
    ------
    OutOfRangeError
        If the kind is not among those known.
    """
    for known in get_args(WindingKind):
        if known == kind:
            return KINDS[known]
    raise OutOfRangeError(
        Message("winding.unknown", {"kind": kind[:20]}),
        field="leads.winding",
        hint=Message("winding.unknown.hint", {"kinds": ", ".join(KINDS)}),
    )
