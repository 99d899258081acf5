"""Time against current: motor, overload, device and conductor on one log-log sheet.

Units: current [A], time [s].
Rules: textbook topics. Overload: a first-order thermal model whose class is its trip time
at six times the setting, cold; hot from full load. Fuses and breakers: typical shapes
of their kind, not a maker's curve, marked as typical. Conductor damage: the heat that
takes insulation from 75 C to its short-time limit (150 C up to 90 C insulations)
without letting any out: (I/A)^2 t = 0.0297 log10((T2+234)/(T1+234)) for copper,
0.0125 and 228 for aluminum, A in circular mils.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Literal

from evencoil.base import Message

__all__ = [
    "Curve",
    "CurveFacts",
    "TimeCurrentSheet",
    "class_time_s",
    "damage_time_s",
    "sheet",
    "typical_points",
]

CurveId = Literal["motor", "overload_cold", "overload_hot", "device_fast", "device_slow", "damage"]
_ULTIMATE = 1.15
#: typical multiples of rating and seconds; a band of 25 % in current around each
_SHAPES: dict[str, tuple[tuple[float, float], ...]] = {
    "dual_element_fuse": (
        (1.35, 1000),
        (2, 120),
        (3, 35),
        (5, 11),
        (7, 3),
        (9, 0.5),
        (12, 0.08),
        (20, 0.012),
    ),
    "class_cc_fuse": (
        (1.35, 1000),
        (1.8, 100),
        (2.3, 14),
        (3.5, 2),
        (5, 0.4),
        (8, 0.05),
        (12, 0.01),
    ),
    "nontime_delay_fuse": (
        (1.35, 1000),
        (1.7, 100),
        (2.2, 10),
        (3, 1.2),
        (4, 0.2),
        (6, 0.03),
        (10, 0.01),
    ),
    "inverse_time_breaker": (
        (1.35, 1500),
        (2, 180),
        (3, 60),
        (4, 32),
        (6, 13),
        (7.5, 8),
        (7.6, 0.02),
        (40, 0.016),
    ),
    "instantaneous_breaker": ((1.0, 1000), (1.001, 0.016), (20, 0.012)),
}
_BAND = 1.25
_METAL = {"cu": (0.0297, 234.0), "al": (0.0125, 228.0)}
_HOT_C, _LIMIT_C = 75.0, 150.0
#: longer than this the wire gives heat away and the equation says too little
_NO_HEAT_OUT_S = 10.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Curve:
    """One line of the sheet: current [A] and time [s], from small to large current."""

    id: CurveId
    points: tuple[tuple[float, float], ...]
    is_typical: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class CurveFacts:
    """What the sheet is drawn from.

    What was not given is assumed and told as such.
    ``locked_a`` for ``accelerates_s`` and then ``plate_a``; ``setting_a`` is the
    overload's, ``trip_class`` its class; ``cmil`` the conductor's cross-section.
    """

    plate_a: float
    locked_a: float
    accelerates_s: float
    setting_a: float
    trip_class: int
    device_kind: str
    device_a: float
    cmil: float
    metal: Literal["cu", "al"]
    is_start_assumed: bool = False
    is_class_assumed: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class TimeCurrentSheet:
    """Every line, and what can be read off where lines meet."""

    curves: tuple[Curve, ...]
    findings: tuple[Message, ...]
    rides_through: bool
    overload_first_below_a: float | None


def _constant(trip_class: int) -> float:
    """Return the time constant that trips in `trip_class` seconds at six times, cold [s]."""
    return trip_class / math.log(36 / (36 - _ULTIMATE**2))


def class_time_s(multiple: float, trip_class: int, *, is_hot: bool) -> float:
    """Return when an overload of a class trips [s]; infinite below its ultimate current.

    Parameters
    ----------
    multiple : float
        Current in multiples of the setting's full-load current.
    trip_class : int
        5, 10, 20 or 30: seconds at six times, from cold.
    is_hot : bool
        It carried full load before.
    """
    if multiple <= _ULTIMATE:
        return math.inf
    before = 1.0 if is_hot else 0.0
    square = multiple * multiple
    return _constant(trip_class) * math.log((square - before) / (square - _ULTIMATE**2))


def damage_time_s(amps_a: float, cmil: float, metal: Literal["cu", "al"]) -> float:
    """Return how long a conductor stands a current before its insulation is hurt [s].

    Parameters
    ----------
    amps_a : float
        Current in each conductor. [A]
    cmil : float
        Cross-section. [circular mils]
    metal : str
        ``cu`` or ``al``.
    """
    factor, zero = _METAL[metal]
    heat = factor * math.log10((_LIMIT_C + zero) / (_HOT_C + zero))
    return heat * (cmil / amps_a) ** 2


def _spread(low: float, high: float, count: int = 40) -> list[float]:
    step = (math.log(high) - math.log(low)) / (count - 1)
    return [math.exp(math.log(low) + step * place) for place in range(count)]


def _shape_time(kind: str, multiple: float) -> float:
    """Return the typical time of a device by straight lines on log-log paper [s]."""
    points = _SHAPES[kind]
    if multiple < points[0][0]:
        return math.inf
    for (low, slow), (high, fast) in pairwise(points):
        if multiple <= high:
            part = math.log(multiple / low) / math.log(high / low)
            return math.exp(math.log(slow) + part * (math.log(fast) - math.log(slow)))
    return points[-1][1]


def typical_points(kind: str) -> tuple[tuple[float, float], ...]:
    """Return multiples of the rating and seconds of a typical device of a kind.

    Parameters
    ----------
    kind : str
        Of fuse or breaker.

    Returns
    -------
    tuple of (float, float)
        From small to large current; straight lines between them on log-log paper. Empty for a
        kind without such a curve.
    """
    return _SHAPES.get(kind, ())


def sheet(facts: CurveFacts) -> TimeCurrentSheet:
    """Return the time-current sheet of one branch circuit.

    Parameters
    ----------
    facts : CurveFacts
        Motor, overload, device, conductor.
    """
    top = max(facts.device_a * 20, facts.locked_a * 4)
    currents = _spread(facts.plate_a * 1.01, top, 90)
    full_load = facts.setting_a / 1.25

    def line(name: CurveId, times: Sequence[tuple[float, float]], *, typical: bool) -> Curve:
        seen = [(amps, time) for amps, time in times if 0.005 <= time <= 2000]
        return Curve(id=name, points=tuple(seen), is_typical=typical)

    def overload(name: CurveId, *, is_hot: bool) -> Curve:
        times = [
            (amps, class_time_s(amps / full_load, facts.trip_class, is_hot=is_hot))
            for amps in currents
        ]
        return line(name, times, typical=True)

    def device(name: CurveId, wider: float) -> Curve:
        times = [
            (amps, _shape_time(facts.device_kind, amps / facts.device_a / wider))
            for amps in currents
        ]
        return line(name, times, typical=True)

    motor = Curve(
        id="motor",
        points=(
            (facts.locked_a * 1.0, 0.01),
            (facts.locked_a, facts.accelerates_s),
            (facts.plate_a, facts.accelerates_s * 1.05),
            (facts.plate_a, 1000.0),
        ),
        is_typical=False,
    )
    hurt = [(amps, damage_time_s(amps, facts.cmil, facts.metal)) for amps in currents]
    damage = line("damage", [at for at in hurt if at[1] <= _NO_HEAT_OUT_S], typical=False)
    cold, hot = overload("overload_cold", is_hot=False), overload("overload_hot", is_hot=True)
    fast, slow = device("device_fast", 1 / _BAND), device("device_slow", _BAND)
    said, through, first = _read_off(facts, full_load, currents)
    return TimeCurrentSheet(
        curves=(motor, cold, hot, fast, slow, damage),
        findings=said,
        rides_through=through,
        overload_first_below_a=first,
    )


def _read_off(
    facts: CurveFacts, full_load: float, currents: Sequence[float]
) -> tuple[tuple[Message, ...], bool, float | None]:
    """Read off what matters: the start, who acts first, and whether the wire is safe."""
    said = []
    trips = class_time_s(facts.locked_a / full_load, facts.trip_class, is_hot=False)
    opens = _shape_time(facts.device_kind, facts.locked_a / facts.device_a * _BAND)
    through = facts.accelerates_s < trips and facts.accelerates_s < opens
    params = {
        "locked": f"{facts.locked_a:.0f}",
        "start": f"{facts.accelerates_s:.1f}",
        "trips": f"{trips:.1f}",
        "opens": "never" if math.isinf(opens) else f"{opens:.1f} s",
    }
    said.append(Message("curves.through" if through else "curves.not_through", params))
    first: float | None = None
    for amps in currents:
        overload = class_time_s(amps / full_load, facts.trip_class, is_hot=False)
        if _shape_time(facts.device_kind, amps / facts.device_a) < overload:
            first = amps
            break
    if first is not None:
        said.append(Message("curves.first", {"amps": f"{first:.0f}"}))
    hurt = next(
        (
            amps
            for amps in currents
            if damage_time_s(amps, facts.cmil, facts.metal) <= _NO_HEAT_OUT_S
            and min(
                class_time_s(amps / full_load, facts.trip_class, is_hot=False),
                _shape_time(facts.device_kind, amps / facts.device_a / _BAND),
            )
            > damage_time_s(amps, facts.cmil, facts.metal)
        ),
        None,
    )
    said.append(
        Message("curves.safe") if hurt is None else Message("curves.hurt", {"amps": f"{hurt:.0f}"})
    )
    if facts.is_start_assumed:
        said.append(Message("curves.start_assumed", {"start": f"{facts.accelerates_s:.1f}"}))
    if facts.is_class_assumed:
        said.append(Message("curves.class_assumed", {"class": str(facts.trip_class)}))
    return tuple(said), through, first
