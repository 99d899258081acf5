"""The winding and its box as a picture: coils, leads, joints, volts.

A wye as a star of three arms, a delta as a triangle; joints as arcs between
the leads they hold. The same places serve screen and paper.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from math import atan2, cos, hypot, pi, sin

from evencoil.base import line_said
from evencoil.drawing.geometry import Pen, Picture
from evencoil.leads import CoilState
from evencoil.winding import LINES, Joint, Winding

__all__ = ["draw_winding", "winding_points"]

Point = tuple[float, float]
_ARMS: tuple[Point, ...] = ((0.0, -1.0), (0.93, 0.56), (-0.93, 0.56))
_SIZE = 190.0
CENTRE: Point = (330.0, 262.0)


def _at(arm: Point, part: float) -> Point:
    return (CENTRE[0] + arm[0] * _SIZE * part, CENTRE[1] + arm[1] * _SIZE * part)


def _between(one: Point, other: Point, part: float) -> Point:
    return (one[0] + (other[0] - one[0]) * part, one[1] + (other[1] - one[1]) * part)


def _star(
    centre: Point, size: float, parts: Sequence[tuple[tuple[str, ...], float]], inner: str = ""
) -> dict[str, Point]:
    """Place rings of leads on three arms around a center, outermost first."""
    found: dict[str, Point] = {inner: centre} if inner else {}
    for leads, part in parts:
        for lead, arm in zip(leads, _ARMS, strict=True):
            found[lead] = (centre[0] + arm[0] * size * part, centre[1] + arm[1] * size * part)
    return found


def _triangle(sides: Sequence[tuple[tuple[str, ...], float]]) -> dict[str, Point]:
    """Place the corners T1, T2, T3 and leads along the sides 1-2, 2-3, 3-1."""
    corners = [_at(arm, 1) for arm in _ARMS]
    found = dict(zip(("T1", "T2", "T3"), corners, strict=True))
    for leads, part in sides:
        for place, lead in enumerate(leads):
            found[lead] = _between(corners[place], corners[(place + 1) % 3], part)
    return found


def _numbers(*firsts: int) -> tuple[tuple[str, ...], ...]:
    return tuple(tuple(f"T{first + step}" for step in range(3)) for first in firsts)


_ONE, _FOUR, _SEVEN, _TEN = _numbers(1, 4, 7, 10)
_MIDDLE = ("T6", "T5", "T4")
_LEFT, _RIGHT, _SMALL = (180.0, 232.0), (480.0, 232.0), 128.0
_LINES_OUT = dict(zip(LINES, (_at(arm, 1.3) for arm in _ARMS), strict=True))
_LINES_BETWEEN = {line: (330.0, 60.0 + 120.0 * place) for place, line in enumerate(LINES)}
_LINES_SINGLE: dict[str, Point] = {"L1": (330.0, 40.0), "L2": (330.0, 380.0)}
_LEFT_COLUMN, _RIGHT_COLUMN = 230.0, 450.0


def _pair(second: tuple[str, ...]) -> dict[str, Point]:
    """Place two separate stars side by side, the lines between them."""
    return {
        **_star(_LEFT, _SMALL, ((_ONE, 1.0),), "S1"),
        **_star(_RIGHT, _SMALL, ((second, 1.0),), "S2"),
        **_LINES_BETWEEN,
    }


def _single(main: Sequence[str], *, has_start: bool) -> dict[str, Point]:
    """Place the main winding in a column, the start winding beside it, lines above and below."""
    heights = (84.0, 336.0) if len(main) == 2 else (84.0, 190.0, 230.0, 336.0)
    found: dict[str, Point] = {
        lead: (_LEFT_COLUMN, height) for lead, height in zip(main, heights, strict=True)
    }
    if has_start:
        found |= {"T5": (_RIGHT_COLUMN, 130.0), "T8": (_RIGHT_COLUMN, 290.0)}
    return {**found, **_LINES_SINGLE}


def winding_points(winding: Winding) -> dict[str, Point]:
    """Return where every lead, every line and the star points inside stand [px].

    Parameters
    ----------
    winding : Winding
        Of any kind.
    """
    kind = winding.kind
    if winding.phases == 1:
        main = ("T1", "T2", "T3", "T4") if winding.halves == 2 else ("T1", "T4")
        return _single(main, has_start="T5" in winding.leads)
    if kind in {"part-winding", "2-speed-2-winding"}:
        return _pair(_SEVEN if kind == "part-winding" else ("T11", "T12", "T13"))
    star: dict[str, Sequence[tuple[tuple[str, ...], float]]] = {
        "3-wye": ((_ONE, 1.0),),
        "6": ((_ONE, 1.0), (_FOUR, 0.36)),
        "9-wye": ((_ONE, 1.0), (_FOUR, 0.62), (_SEVEN, 0.44)),
        "12": ((_ONE, 1.0), (_FOUR, 0.66), (_SEVEN, 0.5), (_TEN, 0.18)),
        "2-speed-vt": ((_ONE, 1.0), (_MIDDLE, 0.52)),
    }
    if kind in star:
        inner = "S" if any(coil.end == "S" for coil in winding.coils) else ""
        return {**_star(CENTRE, _SIZE, star[kind], inner), **_LINES_OUT}
    if kind == "9-delta":
        return {**_triangle(((_FOUR, 0.42), (_SEVEN, 0.58))), **_LINES_OUT}
    if kind in {"2-speed-ct", "2-speed-cp"}:
        return {**_triangle(((_MIDDLE, 0.5),)), **_LINES_OUT}
    return {**_triangle(()), **_LINES_OUT}


def _coil(pen: Pen, one: Point, other: Point) -> None:
    """Draw a coil's arches along its straight way."""
    length = hypot(other[0] - one[0], other[1] - one[1]) or 1.0
    ux, uy = (other[0] - one[0]) / length, (other[1] - one[1]) / length
    start, stop = 16.0, length - 16.0
    turns = max(3, round((stop - start) / 17))
    step = (stop - start) / turns
    heading = atan2(uy, ux)
    points: list[Point] = []
    for turn in range(turns):
        middle = start + step * (turn + 0.5)
        x, y = one[0] + ux * middle, one[1] + uy * middle
        points += [
            (
                x + step / 2 * cos(heading + pi + pi * part / 6),
                y + step / 2 * sin(heading + pi + pi * part / 6),
            )
            for part in range(7)
        ]
    pen.line(*points)


def draw_winding(
    winding: Winding,
    joints: Sequence[Joint],
    coils: Sequence[CoilState] = (),
    marks: Mapping[str, str] | None = None,
) -> Picture:
    """Return winding and box as geometry.

    Parameters
    ----------
    winding : Winding
        Its coils and leads.
    joints : sequence of Joint
        Leads that are joined, and the line on them if any.
    coils : sequence of CoilState
        What each coil sees, if that is known.
    marks : mapping or None
        The mark of each lead, by T number.
    """
    called = marks or {}
    points = winding_points(winding)
    seen: Mapping[str, CoilState] = {coil.name: coil for coil in coils}
    pen = Pen()
    twin = []
    for joint in joints:
        pen.net = joint.id
        ends = [points[name] for name in (*joint.lines, *joint.leads) if name in points]
        for end in ends[1:]:
            pen.line(ends[0], end, weight="heavy")
        names = " ".join((*joint.lines, *(lead for lead in joint.leads if lead not in LINES)))
        twin.append(f"{names}: {joint.conductors} conductors")
    pen.net = ""
    for coil in winding.coils:
        one, other = points[coil.start], points[coil.end]
        _coil(pen, one, other)
        state = seen.get(coil.name)
        if state is not None:
            x, y = _between(one, other, 0.5)
            away = 30 if x >= CENTRE[0] - 1 else -30
            pen.text((x + away, y + 4), f"{state.volts_v:.0f} V", role="tag")
            seen_v = f"{state.volts_v:.0f} V"
            if f"{state.running_v:.0f}" != f"{state.volts_v:.0f}":
                seen_v = f"{seen_v} at standstill, {state.running_v:.0f} V at full speed"
            twin.append(f"{coil.start}-{coil.end}: {seen_v} of {state.rated_v:.0f} V")
    for inner in ("S", "S1", "S2"):
        if inner in points:
            pen.dot(points[inner], 5)
    for name in (*(line for line in LINES if line in points), *winding.leads):
        x, y = points[name]
        if name in LINES:
            pen.rect((x - 15, y - 12), (x + 15, y + 12))
        else:
            pen.circle((x, y), 13)
        said = line_said(called.get(name, name))
        pen.text((x, y + 4), said.removeprefix("T"), role="tag")
    return Picture(660, 420, tuple(pen.shapes), tuple(twin))
