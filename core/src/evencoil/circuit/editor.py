"""A circuit being changed: devices added, wires run, contacts put into a net.

Ids of wires that the editor makes are their two ends as first drawn, so that the same
options give the same ids again.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

from evencoil.circuit.library import device
from evencoil.circuit.netlist import Device, Netlist, Wire
from evencoil.circuit.numbering import number_nets
from evencoil.circuit.text import Circuit, wire_id

__all__ = ["CircuitEditor"]


class CircuitEditor:
    """A circuit that can be changed; `done` gives the finished one."""

    def __init__(self, circuit: Circuit) -> None:
        self.devices: dict[str, Device] = {item.id: item for item in circuit.netlist.devices}
        self.wires: dict[str, Wire] = {wire.id: wire for wire in circuit.netlist.wires}
        self.tags = dict(circuit.tags)
        self.numbers = dict(circuit.numbers)
        self.never_together = list(circuit.never_together)
        self.makers = set(circuit.makers)

    def circuit(self) -> Circuit:
        """Return the circuit as it stands, with every label as it was given."""
        return Circuit(
            Netlist(tuple(self.devices.values()), tuple(self.wires.values())),
            dict(self.tags),
            dict(self.numbers),
            tuple(self.never_together),
            frozenset(self.makers & self.wires.keys()),
        )

    def done(self) -> Circuit:
        """Return the finished circuit; a number that an option left on two nets stays with one."""
        made = self.circuit()
        numbered = number_nets(made)
        kept = {
            wire.id: self.numbers[wire.id]
            for wire in made.netlist.wires
            if self.numbers.get(wire.id) == numbered.at(wire.start)
        }
        return replace(made, numbers=kept)

    def add(self, device_id: str, tag: str, kind: str, before: str = "", **given: str) -> None:
        """Put a device in, before another one in the order or at the end."""
        made = device(kind, device_id, given)
        self.tags[device_id] = tag
        if before not in self.devices:
            self.devices[device_id] = made
            return
        kept = {}
        for name, item in self.devices.items():
            if name == before:
                kept[device_id] = made
            kept[name] = item
        self.devices = kept

    def change(self, device_id: str, **given: str) -> None:
        """Set parameters of a device."""
        item = self.devices[device_id]
        self.devices[device_id] = device(item.type, item.id, {**item.parameters, **given})

    def swap_type(self, device_id: str, kind: str, given: Mapping[str, str]) -> None:
        """Make a device another type with the same terminals."""
        self.devices[device_id] = device(kind, device_id, given)

    def remove(self, device_id: str) -> None:
        """Take a device out with every wire on it."""
        start = f"{device_id}."
        for wire in list(self.wires.values()):
            if wire.start.startswith(start) or wire.end.startswith(start):
                self.cut(wire.id)
        self.devices.pop(device_id, None)
        self.tags.pop(device_id, None)

    def wire(self, start: str, end: str, number: str = "") -> None:
        """Lead a wire between two terminals."""
        name = wire_id(start, end)
        self.wires[name] = Wire(name, start, end)
        if number:
            self.numbers[name] = number

    def cut(self, name: str) -> None:
        """Take a wire out."""
        self.wires.pop(name, None)
        self.numbers.pop(name, None)

    def at(self, terminal: str) -> list[Wire]:
        """Return the wires at a terminal."""
        return [wire for wire in self.wires.values() if terminal in {wire.start, wire.end}]

    def shift(self, name: str, here: str, there: str) -> None:
        """Move one end of a wire; it keeps its number and gets a new id for its new ends."""
        wire = self.wires.pop(name)
        number = self.numbers.pop(name, "")
        moved = replace(
            wire,
            start=there if wire.start == here else wire.start,
            end=there if wire.end == here else wire.end,
        )
        self.wire(moved.start, moved.end, number)

    def insert(self, terminal: str, near: str, far: str, number: str = "") -> None:
        """Set a two-ended element between a terminal and all that is wired to it."""
        for wire in self.at(terminal):
            self.shift(wire.id, terminal, far)
        self.wire(terminal, near, number)

    def merge(self, gone: str, kept: str) -> None:
        """Lead what was on one terminal to another."""
        for wire in self.at(gone):
            if {wire.start, wire.end} == {gone, kept}:
                self.cut(wire.id)
            else:
                self.shift(wire.id, gone, kept)

    def free_tag(self, letters: str) -> str:
        """Return the next tag of a letter that is not taken."""
        taken = set(self.tags.values())
        place = 1
        while f"{letters}{place}" in taken:
            place += 1
        return f"{letters}{place}"

    def free_aux(self, device_id: str, digits: str) -> tuple[str, str]:
        """Add an auxiliary contact of a kind to a device: ``34`` closes, ``12`` opens."""
        item = self.devices[device_id]
        name = "aux" if "aux" in item.parameters or item.type == "contactor" else "c"
        listed = [part for part in item.parameters.get(name, "").split(",") if part]
        used = {part[0] for part in listed}
        place = next(str(number) for number in range(1, 9) if str(number) not in used)
        ends = (f"{place}{digits[0]}", f"{place}{digits[1]}")
        self.change(device_id, **{name: ",".join([*listed, "-".join(ends)])})
        return ends
