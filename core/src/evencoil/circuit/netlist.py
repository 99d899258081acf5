"""Devices and wires with ids that never change, and the nets they make.

A terminal is written ``device.terminal``. A wire joins exactly two terminals.
Everything that wires join is one net. Ids from a standard circuit are roles
(``motor``, ``joint.line_1``); ids from a person are UUIDs. Tags and numbers
are labels and stand elsewhere.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import cached_property

__all__ = ["MERGED", "Device", "Netlist", "Wire"]

MERGED = ("joint",)


@dataclass(frozen=True, slots=True)
class Device:
    """A device: its lasting id, its type, its terminals.

    All terminals of a ``joint`` are one point; those of a motor or a supply
    are apart.
    """

    id: str
    type: str
    terminals: tuple[str, ...]
    parameters: Mapping[str, str] = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class Wire:
    """One conductor between two terminals."""

    id: str
    start: str
    end: str


@dataclass(frozen=True)
class Netlist:
    """Devices and wires of one job and motor. It never changes, so its nets are found once."""

    devices: tuple[Device, ...]
    wires: tuple[Wire, ...]

    def terminals(self) -> tuple[str, ...]:
        """Return every terminal as ``device.terminal``, in order."""
        return tuple(
            f"{device.id}.{terminal}" for device in self.devices for terminal in device.terminals
        )

    def device(self, device_id: str) -> Device:
        """Return a device by its id.

        Raises
        ------
        KeyError
            If there is none.
        """
        for item in self.devices:
            if item.id == device_id:
                return item
        raise KeyError(device_id)

    def wires_at(self, terminal: str) -> tuple[Wire, ...]:
        """Return the wires that end at a terminal."""
        return tuple(wire for wire in self.wires if terminal in {wire.start, wire.end})

    def nets(self) -> Mapping[str, int]:
        """Return the net of every terminal, numbered from 0 in order.

        Raises
        ------
        KeyError
            If a wire ends at a terminal that no device has: a bug.
        """
        return self._nets

    @cached_property
    def _nets(self) -> Mapping[str, int]:
        parent = {terminal: terminal for terminal in self.terminals()}

        def root(terminal: str) -> str:
            while parent[terminal] != terminal:
                parent[terminal] = parent[parent[terminal]]
                terminal = parent[terminal]
            return terminal

        for wire in self.wires:
            parent[root(wire.start)] = root(wire.end)
        for device in self.devices:
            if device.type in MERGED:
                names = [f"{device.id}.{terminal}" for terminal in device.terminals]
                for name in names[1:]:
                    parent[root(name)] = root(names[0])
        numbers: dict[str, int] = {}
        return {terminal: numbers.setdefault(root(terminal), len(numbers)) for terminal in parent}

    def net_ids(self) -> Mapping[int, str]:
        """Return the id of every net: the first of its terminals in the order of the devices.

        Drawings, frames and lists are joined by it. A wire number is a label that may change
        or be frozen; the id follows the terminals alone.
        """
        found: dict[int, str] = {}
        for terminal, net in self.nets().items():
            found.setdefault(net, terminal)
        return found
