"""The start circuit of a single-phase motor as a picture: what is in series with what.

Units: lengths [px].
"""

from __future__ import annotations

from collections.abc import Sequence

from evencoil.base import Message, line_said
from evencoil.drawing.geometry import Pen, Picture, turned
from evencoil.winding import StartBranch

__all__ = ["draw_start_branch"]

_TOP, _BOTTOM = 54.0, 154.0
_STEP = 126.0


def _coil(pen: Pen, x: float, y: float, turns: int = 5) -> None:
    for turn in range(turns):
        pen.line(*turned((x - 8 * turns + 16 * turn + 8, y), 8, 8))


def _part(pen: Pen, part: str, x: float, y: float) -> None:
    """Draw a part centred on a point of a level line that is open there by 2 x 14 px."""
    if part.endswith("capacitor"):
        pen.line((x - 14, y), (x - 4, y))
        pen.line((x + 4, y), (x + 14, y))
        pen.line((x - 4, y - 13), (x - 4, y + 13), weight="heavy")
        pen.line((x + 4, y - 13), (x + 4, y + 13), weight="heavy")
    elif part.startswith("protector"):
        pen.line(*turned((x, y), 12))
        pen.dot((x - 14, y), 2.5)
        pen.dot((x + 14, y), 2.5)
    else:
        pen.dot((x - 14, y), 2.5)
        pen.dot((x + 14, y), 2.5)
        pen.line((x - 14, y), (x + 10, y - 11))


def _level(
    pen: Pen, y: float, start: float, stop: float, gaps: Sequence[tuple[float, float]]
) -> None:
    x = start
    for middle, half in gaps:
        pen.line((x, y), (middle - half, y))
        x = middle + half
    pen.line((x, y), (stop, y))


def _named(pen: Pen, part: str, x: float, y: float, below: float = 28) -> None:
    _part(pen, part, x, y)
    pen.text((x, y + below), _name(part), role="lead")


def _name(part: str) -> str:
    return str(Message(f"single.part.{part}"))


def _start_row(pen: Pen, branch: StartBranch, drop: float) -> None:
    """Draw switch, capacitors and start winding in a row; a run capacitor under the others."""
    first = branch.switched or branch.steady
    places = [230 + _STEP * place for place in range(len(first))]
    _level(pen, _BOTTOM, drop, 600, [*((x, 14.0) for x in places), (500.0, 40.0)])
    for part, x in zip(first, places, strict=True):
        _named(pen, part, x, _BOTTOM)
    if branch.switched and branch.steady:
        low = _BOTTOM + 56
        for x in (drop, 440.0):
            pen.dot((x, _BOTTOM))
            pen.line((x, _BOTTOM), (x, low))
        _level(pen, low, drop, 440, [(300, 14)])
        _named(pen, branch.steady[0], 300, low)
    _coil(pen, 500, _BOTTOM)
    pen.text((500, _BOTTOM + 22), _name("start_winding"), role="lead")


def _twin(branch: StartBranch) -> tuple[str, ...]:
    series = " - ".join(_name(part) for part in branch.switched)
    ways = [way for way in (series, *(_name(part) for part in branch.steady)) if way]
    through = " in parallel with ".join(ways)
    lines = (line_said("L1"), line_said("L2"))
    path = [part for part in (lines[0], through, _name("start_winding"), lines[1]) if part]
    ahead = [f"{lines[0]} - {_name(branch.protector)} - both windings"] if branch.protector else []
    return (
        *ahead,
        f"{_name('main_winding')}: L1 - L2",
        f"{_name('start_winding')}: {' - '.join(path)}",
    )


def draw_start_branch(branch: StartBranch) -> Picture:
    """Return the start circuit as geometry: L1 at the left, L2 at the right.

    Parameters
    ----------
    branch : StartBranch
        Parts in order.
    """
    pen = Pen()
    pen.text((28, _TOP + 4), line_said("L1"), role="tag")
    pen.text((632, _TOP + 4), line_said("L2"), role="tag")
    ahead = [] if branch.protector is None else [(100.0, 14.0)]
    _level(pen, _TOP, 40, 620, [*ahead, (500.0, 40.0)])
    if branch.protector is not None:
        _named(pen, branch.protector, 100, _TOP, -20)
    _coil(pen, 500, _TOP)
    pen.text((500, _TOP - 20), _name("main_winding"), role="lead")
    drop = 160.0
    for x in (drop, 600.0):
        pen.dot((x, _TOP))
        pen.line((x, _TOP), (x, _BOTTOM))
    _start_row(pen, branch, drop)
    height = 254 if branch.switched and branch.steady else 200
    return Picture(660, height, tuple(pen.shapes), _twin(branch))
