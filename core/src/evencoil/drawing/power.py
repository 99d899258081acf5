"""The power diagram: supply at the top, motors at the bottom, one track for each net.

Devices stand in layers by how far they are from the supply. Between two layers
lies a channel in which every net has its own horizontal track; a net that
passes a layer goes down a lane at the side. Works for any netlist.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Mapping
from dataclasses import dataclass, field

from evencoil.circuit.library import Link, links_of, types
from evencoil.circuit.netlist import MERGED, Device
from evencoil.circuit.numbering import Numbered
from evencoil.circuit.text import Circuit
from evencoil.drawing.geometry import Pen, Picture, Shape, at
from evencoil.drawing.symbols import LENGTH, Style, symbol

__all__ = ["draw_power"]

PITCH, GAP, TRACK, LEFT, TOP = 30.0, 74.0, 11.0, 40.0, 34.0
_VERTICAL = ("pole", "heat", "fuse", "resistor")


@dataclass(slots=True)
class _Block:
    """A device on the sheet: its terminals above and below, and where it stands."""

    device: Device
    above: list[str]
    below: list[str]
    links: list[tuple[Link, int]] = field(default_factory=list)
    layer: int = 0
    x: float = 0.0

    @property
    def width(self) -> float:
        return max(len(self.above), len(self.below), 1) * PITCH

    def x_of(self, terminal: str) -> float:
        """Return where a terminal stands."""
        row = self.above if terminal in self.above else self.below
        shift = (max(len(self.above), len(self.below)) - len(row)) * PITCH / 2
        return self.x + shift + row.index(terminal) * PITCH


def _block(device: Device, wired: set[str]) -> _Block | None:
    kind = types().get(device.type)
    ends = [name for name in device.terminals if f"{device.id}.{name}" in wired]
    if device.type == "supply":
        return _Block(device, [], [name for name in ends if name != "PE"])
    if device.type.startswith("motor"):
        return _Block(device, ends, [])
    if device.type in MERGED:
        return _Block(device, [], ends)
    if device.type == "xfmr":
        tops = [name for name in ("H1", "H3", "H2", "H4") if name in ends]
        return _Block(device, tops, [name for name in ("X1", "X2") if name in ends])
    if device.type == "autox":
        return _Block(
            device,
            [name for name in ends if not name.endswith("0") or name.endswith("00")],
            [name for name in ends if name[1:] in {"0", "50", "80"}],
        )
    if device.type in {"rect", "psu"}:
        sides = device.terminals
        return _Block(
            device,
            [name for name in sides[:2] if name in ends],
            [name for name in sides[2:] if name in ends],
        )
    if kind is None or kind.ways == "control":
        return None
    links = [link for link in links_of(device) if link.kind in _VERTICAL]
    links = [
        link for link in links if {f"{device.id}.{link.a}", f"{device.id}.{link.b}"} & wired
    ]
    if not links:
        return None
    made = _Block(device, [link.a for link in links], [link.b for link in links])
    made.links = [(link, place) for place, link in enumerate(links)]
    return made


def draw_power(circuit: Circuit, numbered: Numbered, style: Style = "nema") -> Picture:
    """Return the power diagram of a circuit.

    Parameters
    ----------
    circuit : Circuit
        Any netlist, right or wrong.
    numbered : Numbered
        Wire numbers.
    style : str
        ``nema`` or ``iec`` symbols.
    """
    wired = {end for wire in circuit.netlist.wires for end in (wire.start, wire.end)}
    blocks = [
        block
        for device in circuit.netlist.devices
        if (block := _block(device, wired)) is not None and not _is_control_fuse(device)
    ]
    return _Sheet(circuit, numbered, style, blocks).draw()


def _is_control_fuse(device: Device) -> bool:
    return device.type == "fuse" and device.id == "control_fuse"


class _Sheet:
    def __init__(
        self, circuit: Circuit, numbered: Numbered, style: Style, blocks: list[_Block]
    ) -> None:
        self.circuit = circuit
        self.numbered = numbered
        self.style = style
        self.blocks = blocks
        self.shapes: list[Shape] = []
        self.net_of: Mapping[str, int] = numbered.net_of

    def net(self, block: _Block, terminal: str) -> int:
        return self.net_of[f"{block.device.id}.{terminal}"]

    def layers(self) -> list[list[_Block]]:
        """Put each block below what feeds it."""
        feeds: dict[int, int] = {}
        todo = list(self.blocks)
        for block in self.blocks:
            if block.device.type == "supply":
                block.layer = 0
                for name in block.below:
                    feeds[self.net(block, name)] = 0
                todo.remove(block)
        layer = 0
        while todo:
            layer += 1
            here = [
                block
                for block in todo
                if any(feeds.get(self.net(block, name), layer) < layer for name in block.above)
            ] or todo
            for block in here:
                block.layer = layer
                todo.remove(block)
            for block in here:
                for name in block.below:
                    feeds.setdefault(self.net(block, name), layer)
        last = max((block.layer for block in self.blocks), default=0)
        for block in self.blocks:
            if block.device.type.startswith("motor"):
                # below everything that reaches its leads
                nets = {self.net(block, name) for name in block.above}
                feeding = [
                    other.layer
                    for other in self.blocks
                    if other is not block and nets & {self.net(other, name) for name in other.below}
                ]
                block.layer = max([*feeding, 0]) + 1
                last = max(last, block.layer)
        return [[block for block in self.blocks if block.layer == number]
                for number in range(last + 1)]  # fmt: skip

    def place(self, layers: list[list[_Block]]) -> float:
        """Stand the blocks of a layer side by side, each near what feeds it."""
        widest = 0.0
        home: dict[int, float] = {}
        for listed in layers:
            def wish(block: _Block) -> float:
                places = [home[net] for name in block.above if (net := self.net(block, name)) in home]
                return min(places) if places else 1e6

            x = LEFT
            for block in sorted(listed, key=lambda item: (wish(item), self.blocks.index(item))):
                block.x = max(x, min(wish(block), 1e5) if wish(block) < 1e5 else x)
                x = block.x + block.width + GAP
                for name in block.below:
                    home.setdefault(self.net(block, name), block.x_of(name))
            widest = max(widest, x)
        return widest

    def draw(self) -> Picture:
        layers = self.layers()
        width = self.place(layers)
        # a channel lies below each layer: which nets have a track in it
        tops: dict[int, list[tuple[int, float, _Block, str]]] = defaultdict(list)
        for block in self.blocks:
            for name in block.below:
                tops[self.net(block, name)].append((block.layer, block.x_of(name), block, name))
            for name in block.above:
                tops[self.net(block, name)].append((block.layer - 1, block.x_of(name), block, name))
        lanes = self._lanes(tops, width)
        tracks, heights = self._tracks(tops, lanes, len(layers))
        y = TOP
        row_y = []
        for number in range(len(layers)):
            row_y.append(y)
            y += LENGTH + 30 + heights[number]
        twin = []
        for number, listed in enumerate(layers):
            for block in listed:
                self._draw_block(block, row_y[number])
                twin.append(self._said(block))
        for net, ends in tops.items():
            self._draw_net(net, ends, tracks, row_y, lanes.get(net))
        far = max((shape.points[0][0] for shape in self.shapes), default=0.0)
        return Picture(max(width, far + 30), y + 4, tuple(self.shapes), tuple(twin))

    def _lanes(
        self, tops: dict[int, list[tuple[int, float, _Block, str]]], width: float
    ) -> dict[int, float]:
        found = {}
        for net, ends in tops.items():
            if len({channel for channel, *_ in ends}) > 1:
                found[net] = width - GAP / 2 + len(found) * TRACK
        return found

    def _tracks(
        self,
        tops: dict[int, list[tuple[int, float, _Block, str]]],
        lanes: dict[int, float],
        count: int,
    ) -> tuple[dict[tuple[int, int], int], list[float]]:
        """Give each net its track in each channel: the lowest that is free along its way."""
        spans: dict[int, list[tuple[float, float, int]]] = defaultdict(list)
        for net, ends in tops.items():
            by_channel: dict[int, list[float]] = defaultdict(list)
            for channel, x, *_ in ends:
                by_channel[channel].append(x)
            for channel, places in by_channel.items():
                if net in lanes:
                    places = [*places, lanes[net]]
                spans[channel].append((min(places), max(places), net))
        tracks: dict[tuple[int, int], int] = {}
        heights = [0.0] * count
        for channel in range(count):
            used: list[list[tuple[float, float]]] = []
            for low, high, net in sorted(spans[channel]):
                number = 0
                while number < len(used) and any(
                    low <= there_high + 4 and there_low - 4 <= high for there_low, there_high in used[number]
                ):
                    number += 1
                if number == len(used):
                    used.append([])
                used[number].append((low, high))
                tracks[(net, channel)] = number
            heights[channel] = 22 + len(used) * TRACK if used else 8
        return tracks, heights

    def _draw_net(
        self,
        net: int,
        ends: list[tuple[int, float, _Block, str]],
        tracks: dict[tuple[int, int], int],
        row_y: list[float],
        lane: float | None,
    ) -> None:
        name = self.numbered.number_of.get(net, "")
        if not name:
            return
        pen = Pen(net=name)
        by_channel: dict[int, list[tuple[float, float]]] = defaultdict(list)
        for channel, x, block, terminal in ends:
            is_below = terminal in block.below
            y = row_y[block.layer] + (LENGTH if is_below else 0)
            by_channel[channel].append((x, y))
        ways = []
        for channel, points in sorted(by_channel.items()):
            base = row_y[max(channel, 0)] + LENGTH + 16
            track_y = base + tracks[(net, channel)] * TRACK
            places = [x for x, _ in points] + ([lane] if lane is not None else [])
            for x, y in points:
                pen.line((x, y), (x, track_y))
            for x in sorted(set(places)):
                ways_here = len({y < track_y for other, y in points if other == x})
                ways_here += 2 * (x == lane and len(by_channel) > 2) + (x == lane)
                ways_here += sum((min(places) < x, max(places) > x))
                if ways_here > 2:
                    pen.dot((x, track_y))
            if max(places) > min(places):
                pen.line((min(places), track_y), (max(places), track_y))
            ways.append(track_y)
        if lane is not None:
            pen.line((lane, min(ways)), (lane, max(ways)))
        first_channel, first_x, block, terminal = min(ends, key=lambda item: (item[0], item[1]))
        del first_channel
        down = terminal in block.below
        label_y = row_y[block.layer] + (LENGTH + 11 if down else -5)
        pen.text((first_x + 3, label_y), name, "start", role="number")
        self.shapes += pen.shapes

    def _draw_block(self, block: _Block, y: float) -> None:
        device = block.device
        tag = self.circuit.tags.get(device.id, device.id)
        pen = Pen(device=device.id)
        if block.links:
            for link, place in block.links:
                x = block.x + place * PITCH
                shapes = symbol(device, link, self.style)
                self.shapes += at((x, y), is_upright=True, shapes=shapes)
            for link, place in block.links:
                x = block.x + place * PITCH
                ends = Pen(link=f"{device.id}:{link.name}", device=device.id)
                ends.text((x - 4, y + 9), link.a, "end", role="lead")
                ends.text((x - 4, y + LENGTH - 2), link.b, "end", role="lead")
                self.shapes += ends.shapes
            if len(block.links) > 1 and device.type != "olr":
                last = block.x + (len(block.links) - 1) * PITCH
                pen.line((block.x + 4, y + LENGTH / 2), (last - 4, y + LENGTH / 2), weight="thin")
            pen.text((block.x + block.width - PITCH + 16, y + LENGTH / 2 + 5), tag, "start", role="tag")
        elif device.type == "supply":
            pen.line((block.x - 12, y + 18), (block.x + block.width - PITCH + 12, y + 18), weight="heavy")
            for name in block.below:
                pen.line((block.x_of(name), y + 18), (block.x_of(name), y + LENGTH))
                pen.text((block.x_of(name), y + 10), name, role="lead")
            volts = device.parameters.get("v", "")
            pen.text((block.x + block.width, y + 22), f"{volts} V", "start", role="tag")
        elif device.type.startswith("motor"):
            self._motor(pen, block, y, tag)
        else:
            self._box(pen, block, y, tag)
        self.shapes += pen.shapes

    def _motor(self, pen: Pen, block: _Block, y: float, tag: str) -> None:
        middle = block.x + (block.width - PITCH) / 2
        radius = 21.0
        centre = (middle, y + 20 + radius)
        for name in block.above:
            x = block.x_of(name)
            pen.line((x, y), (x, y + 12), (middle + (x - middle) * 0.35, y + 23))
            pen.text((x - 3, y + 11), name, "end", role="lead")
        pen.circle(centre, radius)
        pen.text((middle, y + 47), tag, role="tag")

    def _box(self, pen: Pen, block: _Block, y: float, tag: str) -> None:
        left, right = block.x - 12, block.x + block.width - PITCH + 12
        for name in block.above:
            pen.line((block.x_of(name), y), (block.x_of(name), y + 8))
            pen.text((block.x_of(name), y + 17), name, role="lead")
        for name in block.below:
            pen.line((block.x_of(name), y + LENGTH - 8), (block.x_of(name), y + LENGTH))
            pen.text((block.x_of(name), y + LENGTH - 11), name, role="lead")
        pen.rect((left, y + 8), (right, y + LENGTH - 8))
        pen.text((right + 4, y + LENGTH / 2 + 5), tag, "start", role="tag")

    def _said(self, block: _Block) -> str:
        tag = self.circuit.tags.get(block.device.id, block.device.id)

        def ends(names: list[str]) -> str:
            parts = []
            for name in names:
                number = self.numbered.number_of.get(self.net(block, name), "")
                parts.append(f"{name}={number}" if number else name)
            return " ".join(parts)

        above, below = ends(block.above), ends(block.below)
        return f"{tag}: " + " → ".join(part for part in (above, below) if part)
