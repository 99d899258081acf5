"""The panel laid out: what sits where, terminals at their sides, and the terminal strip.

Three places: the panel itself, its door, and the field. A wire from one place to another
passes the terminal strip. Rows on the panel follow the work: what isolates and protects on
top, then transformers, contactors with their overloads below them, relays and timers, and
the strip at the foot.

Units: lengths [px]. Source: trade practice (power from top to bottom, control apart).
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Literal

from evencoil.base import line_said
from evencoil.circuit import Circuit, Device, Numbered
from evencoil.drawing.geometry import Pen, Picture, Shape, Touch

__all__ = ["StripRow", "Where", "draw_panel", "draw_strip", "strip_rows", "where_of"]

Where = Literal["panel", "door", "field"]
_DOOR = {"pb", "estop", "sel", "lamp", "horn"}
_FIELD = {
    "pilot",
    "zss",
    "thermostat",
    "ptc",
    "rtd",
    "solenoid",
    "heater",
    "isolator",
    "supply",
    "source",
    "joint",
    "unknown_end",
}
_ROWS: tuple[tuple[str, ...], ...] = (
    ("cb3", "fdisc", "mms", "manual", "drum"),
    ("fuse", "xfmr", "psu", "rect"),
    ("contactor",),
    ("olr",),
    ("relay", "latch", "timer", "sdtimer", "ptcrelay", "rtdmon", "phasemon", "gfr"),
    ("drive",),
    ("autox", "resistor", "tb"),
)
_GAP, _PITCH, _HEIGHT, _TOP, _LEFT = 26.0, 30.0, 74.0, 56.0, 20.0
_LEAST, _SHEET = 92.0, 860.0
#: terminals that have no odd or even number: where a device is fed, and where it returns
_FIRST = {"A1", "B1", "X1", "H1", "H2", "H3", "H4", "L", "+", "~1", "L1", "L2", "L3"}
_LAST = {"A2", "B2", "X2", "N", "-", "~2"}


def where_of(item: Device) -> Where:
    """Return where a device sits, by its type.

    Parameters
    ----------
    item : Device
        A motor, what it drives and what senses are in the field.
    """
    if item.type in _DOOR:
        return "door"
    if item.type in _FIELD or item.type.startswith("motor"):
        return "field"
    return "panel"


@dataclass(frozen=True, slots=True, kw_only=True)
class StripRow:
    """One terminal of the strip: a wire number, what comes from inside, what goes out.

    ``net`` is the net's id; ``inside`` and ``outside`` are terminals as people read them;
    ``to`` is where it goes; ``ends`` are the first terminal inside, if any, and outside.
    """

    net: str
    number: str
    inside: tuple[str, ...]
    outside: tuple[str, ...]
    to: tuple[Where, ...]
    ends: tuple[str, str]


def strip_rows(circuit: Circuit, numbered: Numbered) -> tuple[StripRow, ...]:
    """Return the terminal strip: one terminal for each net that leaves the panel.

    Parameters
    ----------
    circuit : Circuit
        Devices and wires.
    numbered : Numbered
        Wire numbers of the nets.
    """
    kinds = {item.id: item for item in circuit.netlist.devices}
    wired = {end for wire in circuit.netlist.wires for end in (wire.start, wire.end)}
    at: dict[int, dict[Where, list[str]]] = {}
    for terminal, net in numbered.net_of.items():
        owner = terminal.rpartition(".")[0]
        if terminal in wired and kinds[owner].type not in {"supply", "unknown_end"}:
            at.setdefault(net, {}).setdefault(where_of(kinds[owner]), []).append(terminal)
    rows = []
    for net, places in at.items():
        out = [place for place in ("door", "field") if place in places]
        if not out or ("panel" not in places and len(out) < 2):
            continue
        rows.append(
            StripRow(
                net=numbered.id_of[net],
                number=numbered.number_of.get(net, ""),
                inside=tuple(map(circuit.said, places.get("panel", []))),
                outside=tuple(circuit.said(end) for place in out for end in places[place]),
                to=tuple(out),
                ends=(next(iter(places.get("panel", [])), ""), places[out[-1]][0]),
            )
        )

    def order(row: StripRow) -> tuple[int, int, str]:
        is_number = row.number.isdigit()
        power = is_number and int(row.number) > 100
        return (0 if power else 1, int(row.number) if is_number else 9999, row.number)

    return tuple(sorted(rows, key=order))


def _sides(item: Device) -> tuple[list[str], list[str]]:
    """Return the terminals at the upper and the lower side of a device."""
    upper: list[str] = []
    lower: list[str] = []
    for end in item.terminals:
        # of 1L1 and 2T1 the first figure counts, of 13 and 14 the last
        digits = [sign for sign in end if sign.isdigit()]
        figure = digits[0 if end[0].isdigit() and not end.isdigit() else -1] if digits else "0"
        is_up = end in _FIRST or (end not in _LAST and int(figure) % 2 == 1)
        (upper if is_up else lower).append(end)
    return upper, lower


def _width(item: Device) -> float:
    return max(_LEAST, _PITCH * max(map(len, _sides(item))) + 12)


def draw_panel(circuit: Circuit, numbered: Numbered, *, with_field: bool = False) -> Picture:
    """Return the layout of panel and door, terminals with their wire numbers.

    Every terminal is a circle of role ``terminal`` whose words are ``device.terminal``.

    Parameters
    ----------
    circuit : Circuit
        Devices and wires.
    numbered : Numbered
        Wire numbers of the nets.
    with_field : bool
        True draws what stands in the field as well: the board to trace a panel on.
    """
    pen = Pen()
    twin: list[str] = []
    wired = {end for wire in circuit.netlist.wires for end in (wire.start, wire.end)}
    inside = [one for one in circuit.netlist.devices if where_of(one) == "panel"]
    door = [one for one in circuit.netlist.devices if where_of(one) == "door"]
    known = {name for row in _ROWS for name in row}
    field = [one for one in circuit.netlist.devices if where_of(one) == "field" and one.terminals]
    sheet = _needed(inside, door)
    y = _TOP
    for title, rows in (
        (
            "panel",
            [[one for one in inside if one.type in row] for row in _ROWS]
            + [[one for one in inside if one.type not in known]],
        ),
        ("door", [door]),
        ("field", [field] if with_field else []),
    ):
        if not any(rows):
            continue
        top = y - 22
        pen.device = pen.net = ""
        for row in rows:
            y = _row(pen, row, y, sheet, circuit, numbered, wired, twin)
        pen.device = pen.net = ""
        pen.rect((8, top), (sheet + 12, y - 4))
        pen.text((16, top + 14), title.upper(), "start", "use")
        y += 34
    touches = tuple(
        Touch(shape.text, *shape.points[0]) for shape in pen.shapes if shape.role == "terminal"
    )
    return Picture(sheet + 20, max(y - 20, 60), tuple(pen.shapes), tuple(twin), touches)


def _needed(inside: list[Device], door: list[Device]) -> float:
    """Return how wide the longest row is, within a sheet."""
    rows = [[one for one in inside if one.type in row] for row in _ROWS]
    widths = [sum(_width(one) + _GAP for one in row) for row in (*rows, door)]
    return min(_SHEET, max(_LEAST * 4, _LEFT + max(widths, default=0)))


def _row(
    pen: Pen,
    row: list[Device],
    y: float,
    sheet: float,
    circuit: Circuit,
    numbered: Numbered,
    wired: set[str],
    twin: list[str],
) -> float:
    """Draw devices side by side, on as many lines as they need; return where the next begins."""
    x = _LEFT
    if not row:
        return y
    for item in row:
        width = _width(item)
        if x > _LEFT and x + width > sheet:
            x, y = _LEFT, y + _HEIGHT + 2 * _GAP
        _device(pen, item, (x, y), width, circuit, numbered, wired)
        ends = ", ".join(
            f"{end}={numbered.at(f'{item.id}.{end}') or 'free'}" for end in item.terminals
        )
        twin.append(f"{circuit.tags.get(item.id, item.id)}: {ends}")
        x += width + _GAP
    return y + _HEIGHT + 2 * _GAP


def _device(
    pen: Pen,
    item: Device,
    place: tuple[float, float],
    width: float,
    circuit: Circuit,
    numbered: Numbered,
    wired: set[str],
) -> None:
    x, y = place
    pen.device, pen.net = item.id, ""
    pen.rect((x, y + 16), (x + width, y + 16 + _HEIGHT))
    legend = item.parameters.get("legend", "")
    middle = y + 16 + _HEIGHT / 2
    pen.text(
        (x + width / 2, middle - (2 if legend else -4)),
        circuit.tags.get(item.id, item.id),
        role="tag",
    )
    if legend:
        pen.text((x + width / 2, middle + 10), legend, role="use")
    for ends, at, out in zip(_sides(item), (y + 16, y + 16 + _HEIGHT), (-1, 1), strict=True):
        step = width / (len(ends) + 1)
        for count, end in enumerate(ends, start=1):
            terminal = f"{item.id}.{end}"
            across = x + step * count
            pen.device, pen.net = item.id, ""
            pen.circle((across, at - out * 8), 3, role="terminal", words=terminal)
            said = line_said(end) if item.type == "supply" else end
            pen.text((across, at - out * 16 + 3), said, role="ends")
            if terminal in wired:
                pen.device, pen.net = "", numbered.id_at(terminal)
                pen.line((across, at - out * 5), (across, at + out * 8))
                pen.text((across, at + out * 15 + 4), numbered.at(terminal), role="lead")
    pen.device = pen.net = ""


def draw_strip(circuit: Circuit, numbered: Numbered) -> Picture:
    """Return the terminal strip: number in the middle, inside on the left, outside on the right.

    Parameters
    ----------
    circuit : Circuit
        Devices and wires.
    numbered : Numbered
        Wire numbers of the nets.
    """
    pen = Pen()
    rows = strip_rows(circuit, numbered)
    twin = []
    touches: list[Touch] = []
    height, left, right = 26.0, 380.0, 480.0
    y = 40.0
    pen.text((left - 14, 22), "FROM THE PANEL", "end", "use")
    pen.text((right + 14, 22), "TO DOOR AND FIELD", "start", "use")
    for place, row in enumerate(rows, start=1):
        pen.net = row.net
        pen.rect((left, y), (right, y + height))
        pen.text(((left + right) / 2, y + 18), row.number, role="number")
        pen.text((left - 14, y + 18), "  ".join(row.inside), "end", "row")
        pen.text((right + 14, y + 18), "  ".join(row.outside), "start", "row")
        pen.line((left - 10, y + height / 2), (left, y + height / 2))
        pen.line((right, y + height / 2), (right + 10, y + height / 2))
        touches += [
            Touch(end, across, y + height / 2)
            for end, across in zip(row.ends, (left - 5, right + 5), strict=True)
            if end
        ]
        twin.append(
            f"{place}: {row.number}, {', '.join(row.inside) or 'nothing'} – "
            f"{', '.join(row.outside)} ({' and '.join(row.to)})"
        )
        y += height
    pen.net = ""
    said = ["  ".join(side) for row in rows for side in (row.inside, row.outside)]
    longest = max(map(len, said), default=20)
    width = max(860.0, 2 * (longest * 7.4 + 80))
    shift = width / 2 - (left + right) / 2
    shapes = tuple(_moved(shape, shift) for shape in pen.shapes)
    moved = tuple(replace(touch, x=touch.x + shift) for touch in touches)
    return Picture(width, y + 12, shapes, tuple(twin), moved)


def _moved(shape: Shape, by: float) -> Shape:
    return replace(shape, points=tuple((x + by, y) for x, y in shape.points))
