"""Exchanging two incoming line conductors, because the shaft turned the other way.

Where the motor has a joint for each line, they are exchanged there; else on the load side of the
first switch. Motor leads are never exchanged: star and delta, or two halves, would come apart.

Source: trade practice; the plant says which two.
"""

from __future__ import annotations

from dataclasses import dataclass

from evencoil.base import Message
from evencoil.checks import Graph
from evencoil.circuit import Circuit, Device, Edit, swap_ends

__all__ = ["PanelSwap", "swap_of"]


@dataclass(frozen=True, slots=True, kw_only=True)
class PanelSwap:
    """Which conductors change places, in words and as edits of the drawing."""

    said: str
    wires: tuple[str, ...]
    edits: tuple[Edit, ...]


def swap_of(circuit: Circuit, switch: Device | None, lines: str, prefix: str) -> PanelSwap | None:
    """Return what to exchange; None where there are no two lines to exchange.

    Parameters
    ----------
    circuit : Circuit
        As drawn.
    switch : Device or None
        The first one.
    lines : str
        The plant's two, as ``L1-L3``.
    prefix : str
        Start of the ids of its edits.
    """
    one, _, other = lines.partition("-")
    ends = _at_joints(circuit, one, other) or _at_switch(circuit, switch, one, other)
    if ends is None:
        return None
    edits = swap_ends(circuit, *ends, prefix)
    wires = tuple(dict.fromkeys(edit.wire for edit in edits))
    numbers = ", ".join(
        f"{circuit.said(wire.start)} – {circuit.said(wire.end)}"
        for wire in circuit.netlist.wires
        if wire.id in wires
    )
    return PanelSwap(
        said=str(
            Message(
                "panel.swap",
                {
                    "one": circuit.said(ends[0]),
                    "other": circuit.said(ends[1]),
                    "lines": f"{one} and {other}",
                    "wires": numbers,
                },
            )
        ),
        wires=wires,
        edits=edits,
    )


def _at_joints(circuit: Circuit, one: str, other: str) -> tuple[str, str] | None:
    """Return the line ends of the motor's joints, of a motor that has just these three."""
    found = {
        end: f"{item.id}.{end}"
        for item in circuit.netlist.devices
        if item.type == "joint"
        for end in item.terminals
        if end in {"L1", "L2", "L3"}
    }
    return (found[one], found[other]) if len(found) == 3 and {one, other} <= set(found) else None


def _at_switch(
    circuit: Circuit, switch: Device | None, one: str, other: str
) -> tuple[str, str] | None:
    """Return the load terminals of the first switch that two lines come out of."""
    if switch is None:
        return None
    graph = Graph(circuit)
    supply = next((item for item in circuit.netlist.devices if item.type == "supply"), None)
    if supply is None or not {one, other} <= set(supply.terminals):
        return None
    found: dict[str, str] = {}
    for edge in graph.edges:
        if edge.device.id != switch.id or edge.link.kind != "pole":
            continue
        for line in (one, other):
            net = graph.net(supply.id, line)
            for near, far in ((edge.link.a, edge.link.b), (edge.link.b, edge.link.a)):
                if graph.net(switch.id, near) == net:
                    found[line] = f"{switch.id}.{far}"
    return (found[one], found[other]) if len(found) == 2 else None
