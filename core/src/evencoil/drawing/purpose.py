"""What each wire number does, in words: through what it comes live, and what it feeds.

A wire of the control part is told by the shortest way from the hot rail through contacts, and by
the outputs that lie further on; one behind an output by its way to the common rail. A wire of the
power part is told by its line and what the line passes. Where no way is found it says so.

Source: trade practice of reading a ladder and a power diagram.
"""

from __future__ import annotations

from collections import defaultdict, deque
from collections.abc import Callable, Iterable, Iterator, Sequence
from itertools import permutations

from evencoil.base import Message, line_said
from evencoil.circuit import CONTACTS, DRIVE_OUTPUT, Circuit, Device, Numbered, links_of
from evencoil.drawing.rungs import Element, Rails, control_elements, find_rails

__all__ = ["purposes"]

#: what a line passes on its way to a motor
_PASSES = frozenset({"pole", "fuse", "heat", "resistor"})
#: what is told by its own terminal
_ENDS = frozenset({"secondary", "source", "primary", "winding", "sensor"})


def purposes(circuit: Circuit, numbered: Numbered) -> dict[str, Message]:
    """Return what every wired net does, by net id.

    Parameters
    ----------
    circuit : Circuit
        Devices and wires.
    numbered : Numbered
        Nets and their ids.
    """
    wired = {end for wire in circuit.netlist.wires for end in (wire.start, wire.end)}
    nets = {numbered.net_of[end] for end in wired}
    rails = find_rails(circuit, numbered.net_of)
    found = _Control(circuit, numbered, rails).said() if rails else {}
    for part in (_grounds, _lines, _sources, _drives, _leads, _behind):
        for net, said in part(circuit, numbered):
            found.setdefault(net, said)
    return {numbered.id_of[net]: found.get(net, Message("net.unreached")) for net in nets}


class _Control:
    """The ladder as ways through contacts between two rails, with outputs hanging in them."""

    def __init__(self, circuit: Circuit, numbered: Numbered, rails: Rails) -> None:
        self.circuit, self.rails = circuit, rails
        self.ways: dict[int, list[Element]] = defaultdict(list)
        self.outputs: dict[int, list[Element]] = defaultdict(list)
        for element in control_elements(circuit, numbered.net_of):
            for net in (element.a, element.b):
                (self.outputs if element.is_output else self.ways)[net].append(element)
        self.live = _spread(rails.hot, self._contacts({rails.common}))
        self.back = _spread(rails.common, self._contacts({rails.hot}))

    def _contacts(self, beyond: set[int]) -> Callable[[int], Iterator[tuple[str, int]]]:
        def joined(net: int) -> Iterator[tuple[str, int]]:
            for element in self.ways[net]:
                if element.beyond(net) not in beyond:
                    yield self._said(element), element.beyond(net)

        return joined

    def _said(self, element: Element) -> str:
        return f"{self.circuit.named(element.device.id)} {element.link.a}-{element.link.b}"

    def _tags(self, nets: Iterable[int]) -> str:
        found = {self.circuit.named(one.device.id) for net in nets for one in self.outputs[net]}
        return ", ".join(sorted(found))

    def _further(self, start: int) -> set[int]:
        """Return the nets that lie further from the hot rail than one, and that one."""
        seen, waiting = {start}, [start]
        rails = {self.rails.hot, self.rails.common}
        while waiting:
            net = waiting.pop()
            for element in self.ways[net]:
                beyond = element.beyond(net)
                is_on = beyond in self.live and len(self.live[beyond]) >= len(self.live[net])
                if is_on and beyond not in seen | rails:
                    seen.add(beyond)
                    waiting.append(beyond)
        return seen

    def said(self) -> dict[int, Message]:
        """Return what each net of the ladder does."""
        found = {
            net: self._message("net.control", path, self._tags(self._further(net)))
            for net, path in self.live.items()
        }
        for net, path in self.back.items():
            said = self._message("net.return", path[::-1], self._tags([net]))
            found.setdefault(net, said)
        found[self.rails.hot] = Message("net.hot")
        found[self.rails.common] = Message("net.common")
        return found

    @staticmethod
    def _message(code: str, path: Sequence[str], outputs: str) -> Message:
        values = {"path": ", ".join(path), "outputs": outputs}
        return Message(code if outputs else f"{code}.idle", values)


def _spread(
    start: int, joined: Callable[[int], Iterable[tuple[str, int]]]
) -> dict[int, tuple[str, ...]]:
    """Return every net that is reached, with what lies on the shortest way to it."""
    reached: dict[int, tuple[str, ...]] = {start: ()}
    waiting = deque([start])
    while waiting:
        net = waiting.popleft()
        for said, beyond in joined(net):
            if beyond not in reached:
                reached[beyond] = (*reached[net], said)
                waiting.append(beyond)
    return reached


def _supplies(circuit: Circuit) -> Iterator[tuple[Device, str]]:
    for device in circuit.netlist.devices:
        if device.type == "supply":
            yield from ((device, end) for end in device.terminals)


def _grounds(circuit: Circuit, numbered: Numbered) -> Iterator[tuple[int, Message]]:
    for device, end in _supplies(circuit):
        if end == "PE":
            yield numbered.net_of[f"{device.id}.{end}"], Message("net.ground")


def _passed(device: Device) -> Iterator[tuple[str, str]]:
    """Return the pairs of terminals that a line passes inside a device, both ways."""
    if device.type == "joint":
        yield from permutations(device.terminals, 2)
    for link in links_of(device):
        if link.kind in _PASSES:
            yield from permutations((link.a, link.b))


def _behind(circuit: Circuit, numbered: Numbered) -> Iterator[tuple[int, Message]]:
    """Tell what a contactor joins, as the star point behind one."""
    for device in circuit.netlist.devices:
        said = Message("net.behind", {"tag": circuit.named(device.id)})
        poles = [link for link in links_of(device) if link.kind == "pole"]
        for end in (end for link in poles for end in (link.a, link.b)):
            yield numbered.net_of[f"{device.id}.{end}"], said


def _lines(circuit: Circuit, numbered: Numbered) -> Iterator[tuple[int, Message]]:
    joins: dict[int, list[tuple[str, int]]] = defaultdict(list)
    for device in circuit.netlist.devices:
        for one, other in _passed(device):
            first, second = (numbered.net_of[f"{device.id}.{name}"] for name in (one, other))
            joins[first].append((circuit.named(device.id), second))
    for device, end in _supplies(circuit):
        if end == "PE":
            continue
        start = numbered.net_of[f"{device.id}.{end}"]
        for net, path in _spread(start, lambda here: joins.get(here, [])).items():
            code = "net.line" if path else "net.line.direct"
            yield net, Message(code, {"line": line_said(end), "path": ", ".join(path)})


def _sources(circuit: Circuit, numbered: Numbered) -> Iterator[tuple[int, Message]]:
    for device in circuit.netlist.devices:
        if device.type.startswith("motor"):
            continue
        ends = [link for link in links_of(device) if link.kind in _ENDS]
        for end in (end for link in ends for end in (link.a, link.b)):
            said = Message("net.source", {"tag": circuit.named(device.id), "end": end})
            yield numbered.net_of[f"{device.id}.{end}"], said


def _drives(circuit: Circuit, numbered: Numbered) -> Iterator[tuple[int, Message]]:
    """Tell which contacts feed the inputs of a drive, and what is on its output."""
    joins: dict[int, list[tuple[str, int]]] = defaultdict(list)
    for device in circuit.netlist.devices:
        for link in links_of(device):
            if link.kind in CONTACTS:
                said = f"{circuit.named(device.id)} {link.a}-{link.b}"
                for one, other in permutations((link.a, link.b)):
                    ends = [numbered.net_of[f"{device.id}.{name}"] for name in (one, other)]
                    joins[ends[0]].append((said, ends[1]))
    for device in circuit.netlist.devices:
        if device.type != "drive":
            continue
        tag = circuit.named(device.id)
        for net, path in _spread(
            numbered.net_of[f"{device.id}.+"], lambda here: joins.get(here, [])
        ).items():
            if path:
                values = {"tag": tag, "path": ", ".join(path)}
                yield net, Message("net.drive_input", values)
        for end in DRIVE_OUTPUT:
            yield numbered.net_of[f"{device.id}.{end}"], Message("net.drive_output", {"tag": tag})


def _leads(circuit: Circuit, numbered: Numbered) -> Iterator[tuple[int, Message]]:
    for device in circuit.netlist.devices:
        if device.type.startswith("motor"):
            for end in device.terminals:
                yield numbered.net_of[f"{device.id}.{end}"], Message("net.leads")
