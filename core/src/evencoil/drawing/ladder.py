"""The ladder: rungs laid out between two rails, with tags, numbers and uses.

Nets of one group of rungs stand in columns by the longest way from the hot
rail; outputs stand at the right. A net that meets several rows is a vertical
line with dots. Source: NEMA ICS 19, trade practice of ladder drawing.
"""

from __future__ import annotations

from collections import defaultdict
from dataclasses import dataclass
from itertools import pairwise

from evencoil.circuit import Circuit, Numbered, links_of
from evencoil.drawing.geometry import Pen, Picture, Shape, Touch, at
from evencoil.drawing.rungs import Element, Rails, Rung, control_elements, find_rails, find_rungs
from evencoil.drawing.symbols import LENGTH, Style, symbol

__all__ = ["Ladder", "draw_ladder"]

COLUMN, ROW, LEFT, TOP = 96.0, 64.0, 56.0, 48.0
LANE, APART = 14.0, 16.0


@dataclass(frozen=True, slots=True)
class Ladder:
    """A drawn ladder, the row of every element for cross references, and the rungs in order."""

    picture: Picture
    row_of: dict[str, int]
    rungs: tuple[Rung, ...] = ()


def _groups(rungs: tuple[Rung, ...], rails: Rails) -> list[list[Rung]]:
    owner: dict[int, int] = {}
    groups: dict[int, list[Rung]] = {}
    for place, rung in enumerate(rungs):
        inner = [net for net in rung.nets if net not in {rails.hot, rails.common}]
        met = sorted({owner[net] for net in inner if net in owner})
        home = met[0] if met else place
        groups.setdefault(home, []).append(rung)
        for other in met[1:]:
            groups[home] += groups.pop(other)
            owner = {net: home if at_ == other else at_ for net, at_ in owner.items()}
        for net in inner:
            owner[net] = home
    return [_near_their_nets(groups[key]) for key in sorted(groups)]


def _near_their_nets(rungs: list[Rung]) -> list[Rung]:
    """Put a branch right below the last rung that it hangs on."""
    order: list[Rung] = []
    for rung in rungs:
        ends = {rung.nets[0], rung.nets[-1]}
        best = None
        for place, other in enumerate(order):
            if len(ends & set(other.nets)) == 2:
                best = place
                break
        if best is None:
            order.append(rung)
            continue
        best += 1
        while (
            best < len(order)
            and {order[best].nets[0], order[best].nets[-1]} <= set(order[best - 1].nets) | ends
            and len(order[best].elements) < len(order[0].elements)
        ):
            best += 1
        order.insert(best, rung)
    return order


class _Order:
    """Which net stands left of which, without a circle."""

    def __init__(self) -> None:
        self.after: dict[int, set[int]] = defaultdict(set)

    def reaches(self, start: int, goal: int) -> bool:
        seen, ring = set(), [start]
        while ring:
            here = ring.pop()
            if here == goal:
                return True
            if here not in seen:
                seen.add(here)
                ring += list(self.after[here])
        return False

    def put(self, nets: tuple[int, ...]) -> None:
        for one, other in pairwise(nets):
            if one != other and not self.reaches(other, one):
                self.after[one].add(other)

    def columns(self, first: int) -> dict[int, int]:
        """Return the column of each net: the longest way from the first."""
        order: list[int] = []
        seen: set[int] = set()

        def visit(net: int) -> None:
            if net not in seen:
                seen.add(net)
                for other in sorted(self.after[net]):
                    visit(other)
                order.append(net)

        for net in [first, *list(self.after)]:
            visit(net)
        column = {first: 0}
        for net in reversed(order):
            column.setdefault(net, 0)
            for other in self.after[net]:
                column[other] = max(column.get(other, 0), column[net] + 1)
        return column


def _columns(rungs: list[Rung], rails: Rails) -> tuple[dict[int, int], list[Rung]]:
    """Return the column of each net, and the rungs turned the way they are drawn."""
    order = _Order()
    kept: list[Rung] = []
    for rung in rungs:
        nets, elements = rung.nets, rung.elements
        is_inside = nets[0] != rails.hot and nets[-1] != rails.common
        if is_inside and order.reaches(nets[-1], nets[0]):
            nets, elements = nets[::-1], elements[::-1]
        order.put(nets)
        kept.append(Rung(nets, elements))
    column = order.columns(rails.hot)
    if all(rails.hot not in rung.nets for rung in kept):
        # what hangs on no rail stands apart from both
        column = {net: place + 1 for net, place in column.items()}
    return column, kept


def _tails(rungs: list[Rung], rails: Rails) -> dict[int, int]:
    """Return for each net right of an output how many elements follow to the common rail."""
    tail: dict[int, int] = {}
    for rung in rungs:
        if rung.nets[-1] != rails.common:
            continue
        outputs = [place for place, item in enumerate(rung.elements) if item.is_output]
        if not outputs:
            continue
        for place in range(outputs[0], len(rung.elements)):
            net = rung.nets[place]
            if place > outputs[0]:
                tail[net] = max(tail.get(net, 0), len(rung.elements) - place)
    return tail


def draw_ladder(circuit: Circuit, numbered: Numbered, style: Style = "nema") -> Ladder:
    """Return the ladder of a circuit's control part.

    Parameters
    ----------
    circuit : Circuit
        Any netlist, right or wrong.
    numbered : Numbered
        Wire numbers.
    style : str
        ``nema`` or ``iec`` symbols.

    Returns
    -------
    Ladder
        An empty picture where there is no control circuit.
    """
    rails = find_rails(circuit, numbered.net_of)
    elements = control_elements(circuit, numbered.net_of)
    if rails is None or not elements:
        return Ladder(Picture(0, 0, (), ()), {})
    rungs = find_rungs(elements, rails)
    groups = []
    width = 4
    for listed in _groups(rungs, rails):
        column, kept = _columns(listed, rails)
        tail = _tails(kept, rails)
        groups.append((kept, column, tail))
        need = max(
            (column.get(net, 0) + tail.get(net, 0) for rung in kept for net in rung.nets),
            default=0,
        )
        longest = max(
            (column.get(rung.nets[0], 0) + len(rung.elements) for rung in kept), default=0
        )
        width = max(width, need, longest)
    return _Drawer(circuit, numbered, rails, style, width).draw(groups)


class _Drawer:
    def __init__(
        self, circuit: Circuit, numbered: Numbered, rails: Rails, style: Style, width: int
    ) -> None:
        self.circuit = circuit
        self.numbered = numbered
        self.rails = rails
        self.style = style
        self.right = LEFT + width * COLUMN
        self.width = width
        self.shapes: list[Shape] = []
        self.twin: list[str] = []
        self.row_of: dict[str, int] = {}
        self.touches: dict[str, Touch] = {}
        #: where each row lies; rungs that hang together stand apart from the others [px]
        self.rows: list[float] = []

    def name(self, net: int) -> str:
        return self.numbered.number_of.get(net, "")

    def pen(self, net: int) -> Pen:
        """Return a pen that draws for a net."""
        return Pen(net=self.numbered.id_if_wired(net))

    def _earthed(self) -> set[int]:
        """Return the nets that are bonded to ground."""
        return {
            self.numbered.net_of[f"{item.id}.{end}"]
            for item in self.circuit.netlist.devices
            for end in item.terminals
            if (item.type == "supply" and end in {"PE", "N"})
            or (item.type, end) in {("source", "N"), ("psu", "-"), ("drive", "-")}
        }

    def draw(self, groups: list[tuple[list[Rung], dict[int, int], dict[int, int]]]) -> Ladder:
        y = TOP
        for rungs, _, _ in groups:
            self.rows += [y + place * ROW for place in range(len(rungs))]
            y = self.rows[-1] + ROW + APART
        row = 0
        for rungs, column, tail in groups:
            self._group(rungs, column, tail, row)
            row += len(rungs)
        bottom = y - APART
        for net, x in ((self.rails.hot, LEFT), (self.rails.common, self.right)):
            pen = self.pen(net)
            pen.line((x, TOP - 22), (x, bottom - ROW + 26), weight="heavy")
            pen.text((x, TOP - 30), self.name(net), role="number")
            if net in self._earthed():
                for step, half in enumerate((10, 6, 2)):
                    y = bottom - ROW + 26 + step * 4
                    pen.line((x - half, y), (x + half, y))
            self.shapes += pen.shapes
        self._uses()
        picture = Picture(
            self.right + 132,
            bottom + 8,
            tuple(self.shapes),
            tuple(self.twin),
            tuple(self.touches.values()),
        )
        drawn = tuple(rung for rungs, _, _ in groups for rung in rungs)
        return Ladder(picture, self.row_of, drawn)

    def _group(
        self, rungs: list[Rung], column: dict[int, int], tail: dict[int, int], first: int
    ) -> None:
        place = {
            net: self.right - tail[net] * COLUMN
            if net in tail
            else LEFT + column.get(net, 0) * COLUMN
            for rung in rungs
            for net in rung.nets
        }
        place |= {self.rails.hot: LEFT, self.rails.common: self.right}
        spans: dict[int, list[float]] = defaultdict(list)
        for offset, rung in enumerate(rungs):
            y = self.rows[first + offset]
            for net in rung.nets:
                spans[net].append(y)
        self._lanes(place, spans)
        for offset, rung in enumerate(rungs):
            self._rung(rung, place, first + offset)
        for net, rows in spans.items():
            if net in {self.rails.hot, self.rails.common} or len(rows) < 2:
                continue
            pen = self.pen(net)
            pen.line((place[net], min(rows)), (place[net], max(rows)))
            for y in rows:
                pen.dot((place[net], y))
            self.shapes += pen.shapes

    def _lanes(self, place: dict[int, float], spans: dict[int, list[float]]) -> None:
        """Part vertical lines that would lie on each other."""
        taken: list[tuple[float, float, float]] = []
        for net in sorted(place, key=lambda item: (place[item], item)):
            rows = spans[net]
            if net in {self.rails.hot, self.rails.common} or len(rows) < 2:
                continue
            x = place[net]
            while any(
                (abs(x - other) < LANE - 1 and min(rows) <= low and high <= max(rows))
                or (abs(x - other) < LANE - 1 and low <= max(rows) and min(rows) <= high)
                for other, high, low in taken
            ):
                x += LANE
            place[net] = x
            taken.append((x, min(rows), max(rows)))

    def _rung(self, rung: Rung, place: dict[int, float], row: int) -> None:
        y = self.rows[row]
        pen = Pen()
        pen.text((LEFT - 34, y + 5), str(row + 1), role="row")
        self.shapes += pen.shapes
        words = [self.name(rung.nets[0])]
        edges = [place[net] for net in rung.nets]
        for number, element in enumerate(rung.elements):
            left, right = edges[number], edges[number + 1]
            net_left, net_right = rung.nets[number], rung.nets[number + 1]
            if right < left:
                left, right, net_left, net_right = right, left, net_right, net_left
            # an output stands at the right end of its stretch, a contact in the middle
            is_last = element.is_output or (number > 0 and rung.elements[number - 1].is_output)
            start = right - LENGTH - 26 if is_last else (left + right - LENGTH) / 2
            start = max(start, left + 6)
            self._element(element, start, y, row)
            self._touchable(element, net_left, (start, y))
            for net, one, other in ((net_left, left, start), (net_right, start + LENGTH, right)):
                line = self.pen(net)
                line.line((one, y), (other, y))
                self.shapes += line.shapes
            words += [self._said(element), self.name(rung.nets[number + 1])]
            if number + 1 < len(rung.elements) or rung.nets[-1] != self.rails.common:
                net = rung.nets[number + 1]
                if net not in {self.rails.hot, self.rails.common}:
                    label = self.pen(net)
                    x = edges[number + 1]
                    label.text((x + 4, y - 5), self.name(net), "start", role="number")
                    self.shapes += label.shapes
        self.twin.append(f"{row + 1}: " + " – ".join(words))

    def _element(self, element: Element, x: float, y: float, row: int) -> None:
        self.row_of[element.key] = row + 1
        shapes = symbol(element.device, element.link, self.style)
        self.shapes += at((x, y), is_upright=False, shapes=shapes)
        pen = Pen(link=element.key, device=element.device.id)
        tag = self.circuit.tags.get(element.device.id, element.device.id)
        # a mushroom or a plunger stands higher than a contact
        lift = 22 if element.device.type in {"estop", "pb", "sel"} else 18
        pen.text((x + LENGTH / 2, y - lift), tag, role="tag")
        ends = element.link.name or f"{element.link.a}-{element.link.b}"
        if element.link.closes_at:
            ends = f"{ends} {element.link.closes_at}"
        pen.text((x + LENGTH / 2, y + 24), ends, role="ends")
        self.shapes += pen.shapes

    def _touchable(self, element: Element, net_left: int, place: tuple[float, float]) -> None:
        """Note where both ends of an element can be touched."""
        link, (x, y) = element.link, place
        ends = (link.a, link.b) if element.a == net_left else (link.b, link.a)
        for end, across in zip(ends, (x + 4, x + LENGTH - 4), strict=True):
            terminal = f"{element.device.id}.{end}"
            self.touches.setdefault(terminal, Touch(terminal, across, y))

    def _said(self, element: Element) -> str:
        tag = self.circuit.tags.get(element.device.id, element.device.id)
        return f"[{tag} {element.link.name} {element.link.kind}]"

    def _uses(self) -> None:
        """Write beside each coil in which rows its contacts stand, opening ones underlined."""
        for device in self.circuit.netlist.devices:
            coil = next((link for link in links_of(device) if link.kind == "coil"), None)
            row = self.row_of.get(f"{device.id}:{coil.name}") if coil else None
            if row is None:
                continue
            pen = Pen(device=device.id)
            x = self.right + 16
            for link in links_of(device):
                used = self.row_of.get(f"{device.id}:{link.name}")
                if used is None or link.kind == "coil":
                    continue
                y = self.rows[row - 1]
                pen.text((x, y + 5), str(used), "start", role="use")
                if link.kind in {"nc", "nc_late", "timed_nc"}:
                    pen.line((x, y + 9), (x + 9 * len(str(used)), y + 9), weight="thin")
                x += 14 + 8 * len(str(used))
            self.shapes += pen.shapes
