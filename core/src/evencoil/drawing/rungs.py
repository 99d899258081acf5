"""Rungs: the control part of a netlist as paths between the two rails.

Every output (coil, lamp, load) gets a path from the hot rail or a net already
drawn to the common rail or a net already drawn; what is left are branches
between drawn nets. Works for any netlist, right or wrong.
"""

from __future__ import annotations

from collections import defaultdict, deque
from collections.abc import Mapping
from dataclasses import dataclass

from evencoil.circuit import Circuit, Device, Link, links_of, types

__all__ = ["Element", "Rails", "Rung", "control_elements", "find_rails", "find_rungs"]

_OUTPUTS = ("coil", "lamp", "load", "rectifier", "input")
_SKIPPED = (
    "primary",
    "secondary",
    "winding",
    "heat",
    "pole",
    "resistor",
    "source",
    "drive",
)


@dataclass(frozen=True, slots=True)
class Element:
    """A link of a device in the control part, between two nets."""

    device: Device
    link: Link
    a: int
    b: int

    @property
    def key(self) -> str:
        """Return the link's name across the netlist."""
        return f"{self.device.id}:{self.link.name}"

    @property
    def is_output(self) -> bool:
        """Tell whether it does something: a coil, a lamp, a load."""
        return self.link.kind in _OUTPUTS

    def beyond(self, net: int) -> int:
        """Return the net at its other end."""
        return self.b if net == self.a else self.a


@dataclass(frozen=True, slots=True)
class Rails:
    """The two rails as nets."""

    hot: int
    common: int


@dataclass(frozen=True, slots=True)
class Rung:
    """A path: nets and the elements between them, from left to right."""

    nets: tuple[int, ...]
    elements: tuple[Element, ...]


def control_elements(circuit: Circuit, net_of: Mapping[str, int]) -> list[Element]:
    """Return every control link that has a wire on both ends.

    Parameters
    ----------
    circuit : Circuit
        The netlist.
    net_of : mapping
        Terminal to net.
    """
    wired = {end for wire in circuit.netlist.wires for end in (wire.start, wire.end)}
    found = []
    for device in circuit.netlist.devices:
        kind = types().get(device.type)
        if kind is None or device.type.startswith("motor"):
            continue
        for link in links_of(device):
            if link.kind in _SKIPPED or (link.kind == "fuse"):
                continue
            ends = [f"{device.id}.{end}" for end in (link.a, link.b)]
            # an input of a drive works on the drive's own common, which needs no wire
            is_inside = link.kind == "input" and device.type == "drive"
            if all(end in wired for end in (ends[:1] if is_inside else ends)):
                found.append(Element(device, link, net_of[ends[0]], net_of[ends[1]]))
    return found


def find_rails(circuit: Circuit, net_of: Mapping[str, int]) -> Rails | None:
    """Return the rails: behind the control fuse, and the grounded or second side.

    Parameters
    ----------
    circuit : Circuit
        The netlist.
    net_of : mapping
        Terminal to net.

    Returns
    -------
    Rails or None
        None where there is no control source.
    """
    fuses = {
        net_of[f"{item.id}.1"]: net_of[f"{item.id}.2"]
        for item in circuit.netlist.devices
        if item.type == "fuse"
    }

    def behind(net: int) -> int:
        seen = set()
        while net in fuses and net not in seen:
            seen.add(net)
            net = fuses[net]
        return net

    ends = {"xfmr": ("X1", "X2"), "source": ("L", "N"), "psu": ("+", "-"), "drive": ("+", "-")}
    chosen = [item for item in circuit.netlist.devices if item.type in ends]
    chosen.sort(
        key=lambda item: (
            item.type == "drive",
            item.type != "psu",
            item.id != "control_transformer",
        )
    )
    for item in chosen:
        hot, common = ends[item.type]
        first = behind(net_of[f"{item.id}.{hot}"])
        if any(
            element
            for element in control_elements(circuit, net_of)
            if first in {element.a, element.b}
        ):
            return Rails(first, behind(net_of[f"{item.id}.{common}"]))
    known = {item.id for item in circuit.netlist.devices}
    if "control_fuse_1" in known:
        first = behind(net_of["control_fuse_1.1"])
        if "control_fuse_2" in known:
            return Rails(first, behind(net_of["control_fuse_2.1"]))
        supply = next((item for item in circuit.netlist.devices if item.type == "supply"), None)
        if supply is not None:
            return Rails(first, net_of[f"{supply.id}.N"])
    return None


class _Finder:
    def __init__(self, elements: list[Element], rails: Rails) -> None:
        self.left = {element.key: element for element in elements if element.a != element.b}
        self.placed = {rails.hot, rails.common}
        self.rails = rails
        self.rungs: list[Rung] = []
        self.beside: dict[int, list[Element]] = defaultdict(list)
        for element in elements:
            self.beside[element.a].append(element)
            self.beside[element.b].append(element)

    def way(self, start: int, avoid: set[int], *, through_outputs: bool) -> list[Element] | None:
        """Return the shortest way over unplaced elements from a net to a placed one."""
        if start in self.placed:
            return []
        before: dict[int, tuple[int, Element]] = {}
        ring = deque([start])
        seen = {start} | avoid
        while ring:
            here = ring.popleft()
            for element in self.beside[here]:
                if element.key not in self.left or (element.is_output and not through_outputs):
                    continue
                there = element.beyond(here)
                if there in seen or there == here:
                    continue
                before[there] = (here, element)
                if there in self.placed:
                    found = []
                    while there != start:
                        there, passed = before[there]
                        found.append(passed)
                    return found[::-1]
                seen.add(there)
                ring.append(there)
        return None

    def lay(self, start: int, path: list[Element]) -> None:
        """Place a path that begins at a net."""
        nets = [start]
        for element in path:
            nets.append(element.beyond(nets[-1]))
            self.left.pop(element.key, None)
        self.placed |= set(nets)
        if nets[0] == self.rails.common or (
            nets[-1] == self.rails.hot and nets[0] != self.rails.hot
        ):
            nets, path = nets[::-1], path[::-1]
        self.rungs.append(Rung(tuple(nets), tuple(path)))

    def output(self, element: Element) -> None:
        """Give an output its rung."""
        if element.key not in self.left:
            return
        for through in (False, True):
            del_key = self.left.pop(element.key)
            first = self.way(element.a, {element.b} - self.placed, through_outputs=through)
            avoid = {element.a} | {net for one in first or [] for net in (one.a, one.b)}
            second = self.way(element.b, avoid - self.placed, through_outputs=through)
            self.left[element.key] = del_key
            if first is not None and second is not None:
                start = element.a
                for one in first:
                    start = one.beyond(start)
                self.lay(start, [*first[::-1], element, *second])
                return

    def branches(self) -> None:
        """Place what is left as branches between placed nets."""
        again = True
        while again and self.left:
            again = False
            for element in list(self.left.values()):
                if element.key not in self.left:
                    continue
                for end, start in ((element.b, element.a), (element.a, element.b)):
                    if start not in self.placed:
                        continue
                    kept = self.left.pop(element.key)
                    rest = self.way(end, set(), through_outputs=True)
                    self.left[kept.key] = kept
                    if rest is not None:
                        self.lay(start, [element, *rest])
                        again = True
                        break

    def stubs(self) -> None:
        """Draw what hangs on one placed net only, or on none, as it is."""
        for element in list(self.left.values()):
            if element.key in self.left:
                start = element.a if element.a in self.placed else element.b
                if start not in self.placed:
                    start = element.a
                self.lay(start, [element])


def find_rungs(elements: list[Element], rails: Rails) -> tuple[Rung, ...]:
    """Return the rungs in the order in which they are drawn.

    Parameters
    ----------
    elements : list of Element
        From `control_elements`.
    rails : Rails
        From `find_rails`.

    Returns
    -------
    tuple of Rung
        Every element once.
    """
    finder = _Finder(elements, rails)
    outputs = [element for element in elements if element.is_output]
    order = {"coil": 0, "load": 1, "rectifier": 1, "lamp": 2, "input": 3}
    for element in sorted(outputs, key=lambda item: order[item.link.kind]):
        finder.output(element)
    finder.branches()
    finder.stubs()
    return tuple(finder.rungs)
