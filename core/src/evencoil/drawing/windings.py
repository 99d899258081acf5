"""The winding and its box as a picture: coils, leads, joints, volts.

A wye as a star of three arms, a delta as a triangle; joints as arcs between
the leads they hold. The same places serve screen and paper.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from math import atan2, cos, hypot, pi, sin

from evencoil.connection import CoilState, Joint
from evencoil.drawing.geometry import Pen, Picture
from evencoil.winding import LINES, Winding

__all__ = ["draw_winding", "winding_points"]

Point = tuple[float, float]
_ARMS: tuple[Point, ...] = ((0.0, -1.0), (0.93, 0.56), (-0.93, 0.56))
_SIZE = 190.0
CENTRE: Point = (330.0, 262.0)


def _at(arm: Point, part: float) -> Point:
    return (CENTRE[0] + arm[0] * _SIZE * part, CENTRE[1] + arm[1] * _SIZE * part)


def _between(one: Point, other: Point, part: float) -> Point:
    return (one[0] + (other[0] - one[0]) * part, one[1] + (other[1] - one[1]) * part)


def winding_points(winding: Winding) -> dict[str, Point]:
    """Return where every lead, every line and the star point inside stand [px].

    Parameters
    ----------
    winding : Winding
        Of three or nine leads.
    """
    found: dict[str, Point] = {"S": CENTRE}
    is_nine = len(winding.leads) == 9
    for place, arm in enumerate(_ARMS):
        after = _ARMS[(place + 1) % 3]
        first, second, third = (f"T{place + step}" for step in (1, 4, 7))
        found[first] = _at(arm, 1)
        if is_nine and winding.is_wye:
            found[second], found[third] = _at(arm, 0.62), _at(arm, 0.44)
        elif is_nine:
            ends = _at(arm, 1), _at(after, 1)
            found[second], found[third] = _between(*ends, 0.42), _between(*ends, 0.58)
    found |= {line: _at(arm, 1.3) for line, arm in zip(LINES, _ARMS, strict=True)}
    return found


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
    winding: Winding, joints: Sequence[Joint], coils: Sequence[CoilState] = ()
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
    """
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
            twin.append(f"{coil.start}-{coil.end}: {state.volts_v:.0f} V of {state.rated_v:.0f} V")
    if winding.is_wye:
        pen.dot(points["S"], 5)
    for name in (*LINES, *winding.leads):
        x, y = points[name]
        if name in LINES:
            pen.rect((x - 15, y - 12), (x + 15, y + 12))
        else:
            pen.circle((x, y), 13)
        pen.text((x, y + 4), name.removeprefix("T"), role="tag")
    return Picture(660, 420, tuple(pen.shapes), tuple(twin))
