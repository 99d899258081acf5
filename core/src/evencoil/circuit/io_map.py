"""Where the points of a programmable relay are wired, read off the netlist."""

from __future__ import annotations

from collections.abc import Iterator

from evencoil.circuit.devices.logic import program_of
from evencoil.circuit.library import links_of
from evencoil.circuit.netlist import Device
from evencoil.circuit.numbering import number_nets
from evencoil.circuit.text import Circuit
from evencoil.logic import IoLine, io_list

__all__ = ["io_map"]

_MOST_NAMED = 4


def io_map(circuit: Circuit, item: Device) -> tuple[IoLine, ...]:
    """Return the wired points of a programmable relay: terminal, wire number, what is wired there.

    Parameters
    ----------
    circuit : Circuit
        As drawn or as found.
    item : Device
        The relay.
    """
    return io_list(program_of(item), tuple(_lines(circuit, item)))


def _lines(circuit: Circuit, item: Device) -> Iterator[IoLine]:
    nets = circuit.netlist.nets()
    wired = {end for wire in circuit.netlist.wires for end in (wire.start, wire.end)}
    numbered = number_nets(circuit)
    for link in links_of(item):
        if link.kind not in {"input", "no"}:
            continue
        own = f"{item.id}.{link.a if link.kind == 'input' else link.b}"
        if own not in wired:
            continue
        beside = [
            circuit.said(end)
            for end, net in nets.items()
            if net == nets[own] and end in wired and not end.startswith(f"{item.id}.")
        ]
        yield IoLine(
            point=link.name,
            terminal=circuit.said(own),
            wire=numbered.at(own),
            device=", ".join(beside[:_MOST_NAMED]),
        )
