"""A run-up on paper: torque over the load's, and what is followed in time.

The load is dashed. Every curve stands in the twin too, as figures.

Units: [rpm], [lb ft], [A], [s], [C]; lengths [px].
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from itertools import pairwise
from math import ceil, log10

from evencoil.base import LB_FT_PER_NM
from evencoil.drawing.geometry import Pen, Picture
from evencoil.run_up import CurvePoint, MethodSheet
from evencoil.solver.motor import rpm

__all__ = ["draw_run_up_torque", "draw_run_up_traces"]

_WIDE, _HIGH, _LEFT, _BOTTOM, _TOP, _RIGHT = 620, 330, 60, 36, 20, 14
_BAND = 92
_TWIN = 12

Axis = Callable[[float], float]


def _marks(low: float, high: float, about: int = 4) -> list[float]:
    """Return round figures from a low to a high one, about as many as asked."""
    if high <= low:
        return [low]
    rough = (high - low) / about
    ten = 10 ** float(ceil(log10(rough)) - 1)
    step = next(ten * times for times in (1, 2, 5, 10) if ten * times >= rough * (1 - 1e-9))
    found, at = [], ceil(low / step - 1e-9)
    while at * step <= high * (1 + 1e-9):
        found.append(round(at * step, 9))
        at += 1
    return found


def _curve(
    pen: Pen, points: Sequence[tuple[float, float]], x: Axis, y: Axis, *, is_dashed: bool = False
) -> None:
    """Draw straight lines between points, or every other of them."""
    placed = [(x(one), y(other)) for one, other in points]
    if not is_dashed:
        pen.line(*placed, weight="heavy")
        return
    for number, (start, end) in enumerate(pairwise(placed)):
        if number % 2 == 0:
            pen.line(start, end)


def _torques(points: Sequence[CurvePoint]) -> list[tuple[float, float]]:
    return [(point.speed_rpm, point.torque_nm * LB_FT_PER_NM) for point in points]


def _told(points: Sequence[tuple[float, float]], unit: str) -> str:
    """Return about a dozen points of a curve in words."""
    few = points[:: max(len(points) // _TWIN, 1)]
    places = 1 if unit == "s" else 0
    return ", ".join(f"{one:.{places}f} {unit} {other:.0f}" for one, other in few)


def draw_run_up_torque(way: MethodSheet, load: Sequence[CurvePoint]) -> Picture:
    """Draw torque against speed of each step of a start over that of the load.

    Parameters
    ----------
    way : MethodSheet
        The way to start.
    load : sequence of CurvePoint
        What the driven machine asks.
    """
    curves = [(name, _torques(points)) for name, points in way.curves]
    asked = _torques(load)
    torques = [torque for _, points in curves for _, torque in points]
    torques += [torque for _, torque in asked]
    high, low = max(*torques, 1.0) * 1.08, min(*torques, 0.0)
    top = asked[-1][0]

    def x(speed: float) -> float:
        return _LEFT + speed / top * (_WIDE - _LEFT - _RIGHT)

    def y(torque: float) -> float:
        return _TOP + (1 - (torque - low) / (high - low)) * (_HIGH - _TOP - _BOTTOM)

    pen = Pen()
    for torque in _marks(low, high):
        pen.line((_LEFT, y(torque)), (_WIDE - _RIGHT, y(torque)), weight="thin")
        pen.text((_LEFT - 8, y(torque) + 4), f"{torque:g}", "end", "row")
    for speed in _marks(0, top):
        pen.line((x(speed), _TOP), (x(speed), _HIGH - _BOTTOM), weight="thin")
        pen.text((x(speed), _HIGH - _BOTTOM + 18), f"{speed:g}", "middle", "row")
    for name, points in curves:
        _curve(pen, points, x, y)
        # named over its highest point
        speed, torque = max(points, key=lambda point: point[1])
        pen.text((x(min(speed, 0.8 * top)), y(torque) - 6), name, "middle", "tag")
    _curve(pen, asked, x, y, is_dashed=True)
    pen.text((x(0.5 * top), y(asked[len(asked) // 2][1]) - 6), "load", "middle", "tag")
    pen.text((_LEFT, 12), "lb ft", "start", "row")
    pen.text((_WIDE - _RIGHT, _HIGH - 2), "rpm", "end", "row")
    twin = [f"{name}, lb ft: {_told(points, 'rpm')}" for name, points in (*curves, ("load", asked))]
    return Picture(_WIDE, _HIGH, tuple(pen.shapes), tuple(twin))


def draw_run_up_traces(way: MethodSheet, ambient_c: float) -> Picture:
    """Draw speed, current, relay and winding heat on one time axis.

    Parameters
    ----------
    way : MethodSheet
        The way to start.
    ambient_c : float
        Of the air around the motor. [C]
    """
    samples = way.run.samples
    end = samples[-1].time_s or 1.0
    rows: tuple[tuple[str, list[float]], ...] = (
        ("speed, rpm", [rpm(one.speed_rad_s) for one in samples]),
        ("line current, A", [max(one.line_a) for one in samples]),
        ("relay heat, % of trip", [100 * one.relay for one in samples]),
        ("hottest coil, C", [max(one.rise_k) + ambient_c for one in samples]),
    )
    high = len(rows) * _BAND + _BOTTOM

    def x(time: float) -> float:
        return _LEFT + time / end * (_WIDE - _LEFT - _RIGHT)

    pen = Pen()
    for time in _marks(0, end, 6):
        pen.line((x(time), 4), (x(time), high - _BOTTOM), weight="thin")
        pen.text((x(time), high - _BOTTOM + 18), f"{time:g} s", "middle", "row")
    for place, (name, values) in enumerate(rows):
        most, least = max(*values, 1.0) * 1.06, min(*values, 0.0)

        def y(value: float, place: int = place, most: float = most, least: float = least) -> float:
            return place * _BAND + 24 + (1 - (value - least) / (most - least)) * (_BAND - 32)

        for value in _marks(least, most, 2):
            pen.line((_LEFT, y(value)), (_WIDE - _RIGHT, y(value)), weight="thin")
            pen.text((_LEFT - 8, y(value) + 4), f"{value:g}", "end", "row")
        pen.text((_LEFT + 4, place * _BAND + 16), name, "start", "row")
        points = list(zip([one.time_s for one in samples], values, strict=True))
        _curve(pen, points, x, y)
    times = [one.time_s for one in samples]
    twin = [f"{name}: {_told(list(zip(times, values, strict=True)), 's')}" for name, values in rows]
    return Picture(_WIDE, high, tuple(pen.shapes), tuple(twin))
