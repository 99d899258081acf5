"""Exchanging two incoming line conductors, or moving all three on by one.

Two, because the shaft turned the other way; all three, to tell an unbalance of the supply from
one of the motor.

Where the motor has a joint for each line, they are exchanged there; else at the output of a drive,
for lines exchanged ahead of one turn nothing; else on the load side of the first switch. Motor
leads are never exchanged: star and delta, or two halves, would come apart.

Source: trade practice; the plant says which two.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from evencoil.base import Message
from evencoil.checks import Graph
from evencoil.circuit import DRIVE_OUTPUT, Circuit, Device, Edit, move_ends

__all__ = ["PanelSwap", "roll_of", "swap_of"]


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
    found = _line_ends(circuit, switch, (one, other))
    if found is None:
        return None
    first, second = found[one], found[other]
    edits = move_ends(circuit, {first: second, second: first}, prefix)
    params = {
        "one": circuit.said(first),
        "other": circuit.said(second),
        "lines": f"{one} and {other}",
    }
    return _moved(circuit, "panel.swap", params, edits)


def roll_of(circuit: Circuit, switch: Device | None, prefix: str) -> PanelSwap | None:
    """Return how to move three lines on by one lead; None where there are no three.

    Parameters
    ----------
    circuit : Circuit
        As drawn.
    switch : Device or None
        The first one.
    prefix : str
        Start of the ids of its edits.
    """
    found = _line_ends(circuit, switch, _LINES)
    if found is None:
        return None
    ends = [found[line] for line in _LINES]
    edits = move_ends(circuit, dict(zip(ends, [*ends[1:], ends[0]], strict=True)), prefix)
    steps = ", ".join(
        str(Message("panel.roll.step", {"start": circuit.said(one), "end": circuit.said(other)}))
        for one, other in zip(ends, [*ends[1:], ends[0]], strict=True)
    )
    return _moved(circuit, "panel.roll", {"steps": steps}, edits)


_LINES = ("L1", "L2", "L3")


def _moved(
    circuit: Circuit, name: str, params: Mapping[str, str], edits: tuple[Edit, ...]
) -> PanelSwap:
    wires = tuple(dict.fromkeys(edit.wire for edit in edits))
    numbers = ", ".join(
        f"{circuit.said(wire.start)} – {circuit.said(wire.end)}"
        for wire in circuit.netlist.wires
        if wire.id in wires
    )
    said = str(Message(name, {**params, "wires": numbers}))
    return PanelSwap(said=said, wires=wires, edits=edits)


def _line_ends(
    circuit: Circuit, switch: Device | None, lines: tuple[str, ...]
) -> dict[str, str] | None:
    """Return where the lines end: the motor's joints, a drive's output, a switch's load side."""
    if any(item.type == "drive" for item in circuit.netlist.devices):
        return _at_joints(circuit, lines) or _at_drive(circuit, lines)
    return _at_joints(circuit, lines) or _at_switch(circuit, switch, lines)


def _at_drive(circuit: Circuit, lines: tuple[str, ...]) -> dict[str, str] | None:
    """Return the output terminals of the one drive, each by the line that it stands for."""
    drives = [item for item in circuit.netlist.devices if item.type == "drive"]
    if len(drives) != 1 or not set(lines) <= set(_LINES):
        return None
    ends = dict(zip(_LINES, DRIVE_OUTPUT, strict=True))
    return {line: f"{drives[0].id}.{ends[line]}" for line in lines}


def _at_joints(circuit: Circuit, lines: tuple[str, ...]) -> dict[str, str] | None:
    """Return the line ends of the motor's joints, of a motor that has just these three."""
    found = {
        end: f"{item.id}.{end}"
        for item in circuit.netlist.devices
        if item.type == "joint"
        for end in item.terminals
        if end in _LINES
    }
    return found if len(found) == 3 and set(lines) <= set(found) else None


def _at_switch(
    circuit: Circuit, switch: Device | None, lines: tuple[str, ...]
) -> dict[str, str] | None:
    """Return the load terminals of the first switch that these lines come out of."""
    if switch is None:
        return None
    graph = Graph(circuit)
    supply = next((item for item in circuit.netlist.devices if item.type == "supply"), None)
    if supply is None or not set(lines) <= set(supply.terminals):
        return None
    found: dict[str, str] = {}
    for edge in graph.edges:
        if edge.device.id != switch.id or edge.link.kind != "pole":
            continue
        for line in lines:
            net = graph.net(supply.id, line)
            for near, far in ((edge.link.a, edge.link.b), (edge.link.b, edge.link.a)):
                if graph.net(switch.id, near) == net:
                    found[line] = f"{switch.id}.{far}"
    return found if len(found) == len(lines) else None
