"""Wire numbers: one for each net, exactly.

A number that a standard circuit or a frozen issue gave stays with its net; new nets take
the next free one. Power nets carry their phase in the hundreds: 101 and on for
L1, 201 for L2, 301 for L3, 401 for those between windings. A number that would
stand on two nets stays with the larger part; two numbers on one net leave the
lower.

Source: trade practice (one number for all points that a wire alone joins).
"""

from __future__ import annotations

from collections import Counter, defaultdict
from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from evencoil.base import line_said
from evencoil.circuit.library import links_of, types
from evencoil.circuit.text import Circuit

__all__ = ["Numbered", "number_nets"]

_POWER = ("pole", "heat", "fuse", "winding", "resistor")
_LINES = {"L1": 1, "L2": 2, "L3": 3}


@dataclass(frozen=True, slots=True)
class Numbered:
    """The wire number of every net.

    Attributes
    ----------
    net_of : mapping
        Terminal to net.
    number_of : mapping
        Net to its number; a net of one lone terminal has none.
    renumbered : tuple of (str, str)
        Numbers that were given and could not stay, with what the net has now.
    id_of : mapping
        Net to its lasting id, by which drawings and frames are joined.
    """

    net_of: Mapping[str, int]
    number_of: Mapping[int, str]
    renumbered: tuple[tuple[str, str], ...]
    id_of: Mapping[int, str]

    def at(self, terminal: str) -> str:
        """Return the number at a terminal, empty if nothing is wired there."""
        return self.number_of.get(self.net_of[terminal], "")

    def id_at(self, terminal: str) -> str:
        """Return the id of the net at a terminal, empty if nothing is wired there."""
        net = self.net_of[terminal]
        return self.id_of[net] if net in self.number_of else ""

    def ids_at(self, terminals: Iterable[str]) -> list[str]:
        """Return the ids of the nets at some terminals; what is not wired has none."""
        found = (self.id_at(end) for end in terminals if end in self.net_of)
        return [net for net in found if net]

    def id_if_wired(self, net: int) -> str:
        """Return the id of a net, empty if nothing is wired to it."""
        return self.id_of[net] if net in self.number_of else ""


def _key(number: str) -> tuple[int, int, str]:
    return (0, int(number), "") if number.isdigit() else (1, 0, number)


def _phases(circuit: Circuit, net_of: Mapping[str, int]) -> dict[int, int]:
    """Return the line that each power net hangs on, by poles, fuses and heaters only."""
    beside: dict[int, list[int]] = defaultdict(list)
    for device in circuit.netlist.devices:
        for link in links_of(device):
            if link.kind in _POWER and link.kind != "winding":
                one, other = (net_of[f"{device.id}.{end}"] for end in (link.a, link.b))
                beside[one].append(other)
                beside[other].append(one)
    found: dict[int, int] = {}
    for device in circuit.netlist.devices:
        if device.type != "supply":
            continue
        ring = [
            (net_of[f"{device.id}.{line}"], place)
            for line, place in _LINES.items()
            if line in device.terminals
        ]
        for net, place in ring:
            if net in found:
                continue
            found[net] = place
            ring += [(other, place) for other in beside[net] if other not in found]
    return found


def _is_power(circuit: Circuit, net_of: Mapping[str, int]) -> set[int]:
    """Return the nets that belong in the power diagram."""
    found = set()
    for device in circuit.netlist.devices:
        kind = types().get(device.type)
        if device.type == "supply":
            found |= {net_of[f"{device.id}.{end}"] for end in device.terminals if end in _LINES}
        if kind is None or kind.ways == "control" or device.type == "xfmr":
            continue
        for link in links_of(device):
            if link.kind in {*_POWER, "rectifier"} and not (
                link.kind == "fuse" and device.id == "control_fuse"
            ):
                ends = (f"{device.id}.{end}" for end in (link.a, link.b))
                # a star point inside a motor is no terminal
                found |= {net_of[end] for end in ends if end in net_of}
    return found


def number_nets(circuit: Circuit, frozen: Mapping[str, str] | None = None) -> Numbered:
    """Return a wire number for every net that has a wire.

    Parameters
    ----------
    circuit : Circuit
        Netlist, and the numbers that its wires were given.
    frozen : mapping, optional
        Terminal to number, from an issue for wiring: these go before all others.

    Returns
    -------
    Numbered
        No number stands on two nets, no net has two.
    """
    netlist = circuit.netlist
    net_of = netlist.nets()
    wired = {net_of[end] for wire in netlist.wires for end in (wire.start, wire.end)}
    votes: dict[int, Counter[str]] = defaultdict(Counter)
    for wire in netlist.wires:
        if wire.id in circuit.numbers:
            votes[net_of[wire.start]][circuit.numbers[wire.id]] += 1
    firm: dict[int, Counter[str]] = defaultdict(Counter)
    for terminal, number in (frozen or {}).items():
        if terminal in net_of and net_of[terminal] in wired:
            firm[net_of[terminal]][number] += 1
    found: dict[int, str] = {}
    for given in (firm, votes):
        _keep(given, found)
    _fill(circuit, net_of, wired, found)
    renumbered = [
        (number, found[net])
        for given in (firm, votes)
        for net, counted in given.items()
        for number in sorted(counted, key=_key)
        if number != found[net]
    ]
    return Numbered(net_of, found, tuple(dict.fromkeys(renumbered)), netlist.net_ids())


def _keep(given: Mapping[int, Counter[str]], found: dict[int, str]) -> None:
    """Let each given number stay with the net that has most of its wires."""
    wanted: dict[str, list[tuple[int, int]]] = defaultdict(list)
    for net, counted in given.items():
        if net not in found:
            wanted[min(counted, key=_key)].append((-sum(counted.values()), net))
    for number, nets in wanted.items():
        if number not in found.values():
            found[min(nets)[1]] = number


def _fill(
    circuit: Circuit, net_of: Mapping[str, int], wired: set[int], found: dict[int, str]
) -> None:
    """Give every other wired net the next free number of its kind."""
    taken = set(found.values())
    phases, power = _phases(circuit, net_of), _is_power(circuit, net_of)
    supplies = {device.id for device in circuit.netlist.devices if device.type == "supply"}
    for terminal, net in net_of.items():
        if net not in wired or net in found:
            continue
        owner, _, end = terminal.rpartition(".")
        if owner in supplies and line_said(end) not in taken:
            found[net] = line_said(end)
            taken.add(found[net])
            continue
        base = 100 * phases.get(net, 4) + 1 if net in power else 1
        number = base
        while str(number) in taken:
            number += 1
        found[net] = str(number)
        taken.add(str(number))
