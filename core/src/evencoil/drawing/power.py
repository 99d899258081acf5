"""The power diagram: supply at the top, motors at the bottom, one track for each net.

Devices stand in layers by how far they are from the supply. Between two layers
lies a channel in which every net has its own horizontal track; a net that
passes a layer goes down a lane at the side. Works for any netlist.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field

from evencoil.base import line_said
from evencoil.circuit import Circuit, Device, Link, Numbered, links_of, types
from evencoil.drawing.geometry import Pen, Picture, Shape, Touch, at
from evencoil.drawing.symbols import LENGTH, Style, symbol

__all__ = ["draw_power"]

PITCH, GAP, TRACK, LEFT, TOP = 30.0, 74.0, 11.0, 40.0, 34.0
FAR = 1e6
_VERTICAL = ("pole", "heat", "fuse", "resistor", "drive")


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


_GROUND = "PE"
_ABOVE: dict[str, Callable[[Device, str], bool]] = {
    "supply": lambda device, name: False,
    "joint": lambda device, name: name.startswith("L"),
    "xfmr": lambda device, name: name.startswith("H"),
    "autox": lambda device, name: name[1:] not in {"0", "50", "80"},
    "rect": lambda device, name: name in device.terminals[:2],
    "psu": lambda device, name: name in device.terminals[:2],
}


def _rows(device: Device, ends: list[str]) -> tuple[list[str], list[str]] | None:
    """Return the terminals above and below of a device that is no row of poles."""
    if device.type.startswith("motor"):
        return [name for name in ends if name != _GROUND], []
    is_above = _ABOVE.get(device.type)
    if is_above is None:
        return None
    names = [name for name in ends if name != _GROUND]
    if device.type == "xfmr":
        # windings side by side, taps in their order
        first = ("H1", "H3", "H2", "H4") if not device.parameters.get("taps") else ()
        names.sort(key=lambda name: (name[0], first.index(name) if name in first else 9, name))
    above = [name for name in names if is_above(device, name)]
    return above, [name for name in names if name not in above]


def _block(device: Device, wired: set[str]) -> _Block | None:
    ends = [name for name in device.terminals if f"{device.id}.{name}" in wired]
    rows = _rows(device, ends)
    if rows is not None:
        return _Block(device, *rows) if ends else None
    kind = types().get(device.type)
    links = [] if kind is None or kind.ways == "control" else list(links_of(device))
    used = [link for link in links if link.kind in _VERTICAL and {link.a, link.b} & set(ends)]
    if not used:
        return None
    made = _Block(device, [link.a for link in used], [link.b for link in used])
    made.links = [(link, place) for place, link in enumerate(used)]
    return made


def draw_power(
    circuit: Circuit, numbered: Numbered, style: Style = "nema", *, with_volts: bool = True
) -> Picture:
    """Return the power diagram of a circuit.

    Parameters
    ----------
    circuit : Circuit
        Any netlist, right or wrong.
    numbered : Numbered
        Wire numbers.
    style : str
        ``nema`` or ``iec`` symbols.
    with_volts : bool
        False where the supply is no job's: its volts are then not written.
    """
    wired = {end for wire in circuit.netlist.wires for end in (wire.start, wire.end)}
    blocks = [
        block
        for device in circuit.netlist.devices
        if (block := _block(device, wired)) is not None and not _is_control_fuse(device)
    ]
    return _Sheet(circuit, numbered, style, blocks, with_volts=with_volts).draw()


def _is_control_fuse(device: Device) -> bool:
    return device.type == "fuse" and device.id == "control_fuse"


class _Sheet:
    def __init__(
        self,
        circuit: Circuit,
        numbered: Numbered,
        style: Style,
        blocks: list[_Block],
        *,
        with_volts: bool,
    ) -> None:
        self.with_volts = with_volts
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
        self._by_feed()
        joints = [block for block in self.blocks if block.device.type == "joint"]
        fed = max((block.layer for block in joints if block.above), default=0)
        for block in joints:
            # joints without a line stand beside those with one
            block.layer = fed or block.layer
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
        last = max((block.layer for block in self.blocks), default=0)
        return [
            [block for block in self.blocks if block.layer == number] for number in range(last + 1)
        ]

    def _by_feed(self) -> None:
        """Give each block its distance from the supply."""
        feeds: dict[int, int] = {}
        todo = [block for block in self.blocks if block.device.type != "supply"]
        for block in self.blocks:
            if block.device.type == "supply":
                feeds |= {self.net(block, name): 0 for name in block.below}
        layer = 0
        while todo:
            layer += 1
            here = [
                block
                for block in todo
                if any(feeds.get(self.net(block, name), layer) < layer for name in block.above)
            ] or todo
            todo = [block for block in todo if block not in here]
            for block in here:
                block.layer = layer
                for name in block.below:
                    feeds.setdefault(self.net(block, name), layer)

    def place(self, layers: list[list[_Block]]) -> float:
        """Stand the blocks of a layer side by side, each near what feeds it."""
        widest = 0.0
        home: dict[int, float] = {}
        hanging: list[tuple[float, int]] = []
        spine = self._spine()
        for listed in layers:
            wishes = {id(block): self._wish(block, home) for block in listed}
            x = LEFT
            order = sorted(
                listed,
                key=lambda item: (
                    wishes[id(item)],
                    id(item) not in spine,
                    self.blocks.index(item),
                ),
            )
            for block in order:
                wish = wishes[id(block)]
                block.x = max(x, wish) if wish < FAR else x
                while self._meets(block, hanging):
                    block.x += TRACK - 1
                x = block.x + block.width + GAP
                for name in block.below:
                    home.setdefault(self.net(block, name), block.x_of(name))
            hanging = [
                (block.x_of(name), self.net(block, name)) for block in order for name in block.below
            ]
            widest = max(widest, x)
        return widest

    def _spine(self) -> set[int]:
        """Return the blocks on the way to a motor: they stand straight below each other."""
        found = {id(block) for block in self.blocks if block.device.type.startswith("motor")}
        while True:
            fed = {
                self.net(block, name)
                for block in self.blocks
                if id(block) in found
                for name in block.above
            }
            more = {
                id(block)
                for block in self.blocks
                if any(self.net(block, name) in fed for name in block.below)
            }
            if more <= found:
                return found
            found |= more

    def _wish(self, block: _Block, home: Mapping[int, float]) -> float:
        """Return where a block would stand to hang straight below what feeds it."""
        places = [home[net] for name in block.above if (net := self.net(block, name)) in home]
        return min(places) if places else FAR

    def _meets(self, block: _Block, hanging: list[tuple[float, int]]) -> bool:
        """Tell whether a line into it would lie on the line of another net from above."""
        return any(
            abs(block.x_of(name) - x) < TRACK / 2 and net != self.net(block, name)
            for name in block.above
            for x, net in hanging
        )

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
        touches = [
            Touch(f"{block.device.id}.{name}", block.x_of(name), row_y[block.layer] + down)
            for block in self.blocks
            for names, down in ((block.above, 4.0), (block.below, LENGTH - 4.0))
            for name in names
        ]
        return Picture(max(width, far + 30), y + 4, tuple(self.shapes), tuple(twin), tuple(touches))

    def _lanes(
        self, tops: dict[int, list[tuple[int, float, _Block, str]]], width: float
    ) -> dict[int, float]:
        found: dict[int, float] = {}
        for net, ends in tops.items():
            channels = {channel for channel, *_ in ends}
            # a joint with ends above and below carries its net across by itself
            joins = any(
                block.device.type == "joint" and block.above and block.below
                for _, _, block, _ in ends
            )
            if len(channels) > 1 and not (joins and len(channels) == 2):
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
            for channel, ends_here in by_channel.items():
                places = [*ends_here, lanes[net]] if net in lanes else ends_here
                spans[channel].append((min(places), max(places), net))
        tracks: dict[tuple[int, int], int] = {}
        heights = [0.0] * count
        for channel in range(count):
            used: list[list[tuple[float, float]]] = []
            for low, high, net in sorted(spans[channel]):
                number = 0
                while number < len(used) and any(
                    low <= there_high + 4 and there_low - 4 <= high
                    for there_low, there_high in used[number]
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
        pen = Pen(net=self.numbered.id_if_wired(net))
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
                aside = 8 if device.type == "fdisc" else 4
                ends.text((x - 4, y + 9), link.a, "end", role="lead")
                ends.text((x - aside, y + LENGTH - 2), link.b, "end", role="lead")
                self.shapes += ends.shapes
            if len(block.links) > 1 and device.type != "olr":
                last = block.x + (len(block.links) - 1) * PITCH
                pen.line((block.x + 4, y + LENGTH / 2), (last - 4, y + LENGTH / 2), weight="thin")
            pen.text(
                (block.x + block.width - PITCH + 16, y + LENGTH / 2 + 5), tag, "start", role="tag"
            )
        elif device.type == "supply":
            pen.line(
                (block.x - 12, y + 18), (block.x + block.width - PITCH + 12, y + 18), weight="heavy"
            )
            for name in block.below:
                pen.line((block.x_of(name), y + 18), (block.x_of(name), y + LENGTH))
                pen.text((block.x_of(name), y + 10), line_said(name), role="lead")
            volts = device.parameters.get("v", "")
            if self.with_volts:
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
        if self._is_grounded(block.device):
            # the frame, by the conductor of its own that the wire list has
            edge, below = middle + radius, y + 20 + radius
            pen.line((edge, below), (edge + 18, below), (edge + 18, below + 10))
            for wide, down in ((9, 10), (6, 14), (3, 18)):
                pen.line((edge + 18 - wide, below + down), (edge + 18 + wide, below + down))
            pen.text((edge + 30, below + 17), _GROUND, "start", role="lead")

    def _is_grounded(self, motor: Device) -> bool:
        ground = f"{motor.id}.{_GROUND}"
        return any(ground in (wire.start, wire.end) for wire in self.circuit.netlist.wires)

    def _box(self, pen: Pen, block: _Block, y: float, tag: str) -> None:
        left, right = block.x - 12, block.x + block.width - PITCH + 12
        for name in block.above:
            pen.line((block.x_of(name), y), (block.x_of(name), y + 8))
            said = line_said(name) if block.device.type == "joint" else name
            pen.text((block.x_of(name), y + 17), said, role="lead")
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
        if block.device.type.startswith("motor") and self._is_grounded(block.device):
            below = "frame grounded (PE)"
        return f"{tag}: " + " → ".join(part for part in (above, below) if part)
