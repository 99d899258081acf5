"""One rung at a time, from the hot rail at the top to the common one at the foot.

For a narrow screen: a rung is read downwards at full size, never shrunk. What else hangs
on each of its nets is said beside it by the number of its rung.

Units: lengths [px].
"""

from __future__ import annotations

from collections.abc import Sequence

from evencoil.circuit import Circuit, Numbered
from evencoil.drawing.geometry import Pen, Picture, Shape, Touch, at
from evencoil.drawing.ladder import Ladder
from evencoil.drawing.symbols import LENGTH, Style, symbol

__all__ = ["draw_rungs"]

_WIDTH, _AXIS, _TOP, _STEP = 300.0, 110.0, 26.0, 96.0
#: a net that hangs on more rungs is a rail, and says nothing by naming them
_MOST_NAMED = 3


def draw_rungs(
    ladder: Ladder, circuit: Circuit, numbered: Numbered, style: Style = "nema"
) -> tuple[Picture, ...]:
    """Return each rung of a ladder by itself, upright.

    Parameters
    ----------
    ladder : Ladder
        As drawn; its rungs keep their numbers.
    circuit : Circuit
        For the tags.
    numbered : Numbered
        Wire numbers of the nets.
    style : str
        ``nema`` or ``iec`` symbols.
    """
    rows: dict[int, list[int]] = {}
    for row, rung in enumerate(ladder.rungs, start=1):
        for net in rung.nets:
            rows.setdefault(net, []).append(row)
    return tuple(
        _one(ladder, circuit, numbered, style, row, rows) for row in range(1, len(ladder.rungs) + 1)
    )


def _one(
    ladder: Ladder,
    circuit: Circuit,
    numbered: Numbered,
    style: Style,
    row: int,
    rows: dict[int, list[int]],
) -> Picture:
    rung = ladder.rungs[row - 1]
    shapes: list[Shape] = []
    touches: list[Touch] = []
    y = _TOP
    for place, net in enumerate(rung.nets):
        number = numbered.number_of.get(net, "")
        is_end = place in {0, len(rung.nets) - 1}
        pen = Pen(net=numbered.id_if_wired(net))
        pen.line((_AXIS - 34, y), (_AXIS + 34, y), weight="heavy" if is_end else "normal")
        pen.text((_AXIS - 42, y + 5), number, "end", "number")
        others = [other for other in rows.get(net, []) if other != row]
        if 0 < len(others) <= _MOST_NAMED:
            pen.text((_AXIS + 44, y + 5), f"also rung {_listed(others)}", "start", "use")
        shapes += pen.shapes
        if place == len(rung.elements):
            break
        element = rung.elements[place]
        start = y + (_STEP - LENGTH) / 2
        for one, other, wire in (
            (y, start, net),
            (start + LENGTH, y + _STEP, rung.nets[place + 1]),
        ):
            line = Pen(net=numbered.id_if_wired(wire))
            line.line((_AXIS, one), (_AXIS, other))
            shapes += line.shapes
        drawn = symbol(element.device, element.link, style)
        shapes += at((_AXIS, start), is_upright=True, shapes=drawn)
        link = element.link
        ends = (link.a, link.b) if element.a == net else (link.b, link.a)
        touches += [
            Touch(f"{element.device.id}.{end}", _AXIS, down)
            for end, down in zip(ends, (start, start + LENGTH), strict=True)
        ]
        name = Pen(link=element.key, device=element.device.id)
        tag = circuit.tags.get(element.device.id, element.device.id)
        name.text((_AXIS + 36, start + LENGTH / 2), tag, "start", "tag")
        name.text((_AXIS + 36, start + LENGTH / 2 + 15), element.link.name, "start", "ends")
        shapes += name.shapes
        y += _STEP
    twin = ladder.picture.twin[row - 1 : row]
    return Picture(_WIDTH, y + 22, tuple(shapes), twin, tuple(touches))


def _listed(rows: Sequence[int]) -> str:
    return ", ".join(map(str, dict.fromkeys(rows)))
