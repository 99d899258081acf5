"""Checks of the wires themselves: too many, loose, misnumbered, of no use.

Source: trade practice (two wires under a screw, one number for one net).
"""

from __future__ import annotations

from collections import Counter, defaultdict
from collections.abc import Iterator

from evencoil.checks.model import Problem, problem
from evencoil.checks.reach import COILED, Graph
from evencoil.circuit import Edit, crowded, loose_ends, type_of, types

__all__ = ["wiring_problems"]


def wiring_problems(graph: Graph) -> Iterator[Problem]:
    """Go through H11, H46, H47 and two devices of one tag.

    Parameters
    ----------
    graph : Graph
        The circuit.
    """
    yield from _crowded(graph)
    yield from _loose(graph)
    yield from _numbers(graph)
    yield from _tags(graph)


def _crowded(graph: Graph) -> Iterator[Problem]:
    circuit = graph.circuit
    for item in crowded(circuit):
        wires = circuit.netlist.wires_at(item.terminal)
        room = _with_room(graph, item.terminal)
        edits: tuple[Edit, ...] = ()
        if room:
            last = wires[-1]
            edits = (
                Edit(
                    id=f"fix.{last.id}",
                    kind="move_end",
                    wire=last.id,
                    start=item.terminal,
                    end=room,
                ),
            )
        yield problem(
            circuit,
            "H11",
            "error",
            "crowded",
            item.terminal,
            edits=edits,
            wires=str(item.wires),
            most=str(item.most),
            to=circuit.said(room) if room else "a terminal block of its number",
        )


def _with_room(graph: Graph, terminal: str) -> str:
    """Return a terminal of the same net with room for one more wire, reached without this one.

    Never one of the supply, of the motor, or of the grounding: a control wire on the grounding
    terminal would put its return on the frame (250.6), whatever bond joins the two.
    """
    circuit = graph.circuit
    counted = Counter(end for wire in circuit.netlist.wires for end in (wire.start, wire.end))
    last = circuit.netlist.wires_at(terminal)[-1]
    far = last.end if last.start == terminal else last.start
    for item in circuit.netlist.devices:
        if item.type in {"supply", "source"} or item.type.startswith("motor"):
            continue
        most = type_of(item.type).most_wires if item.type in types() else 0
        for name in item.terminals:
            if name == "PE":
                continue
            other = f"{item.id}.{name}"
            if other in {terminal, far} or graph.nets[other] != graph.nets[terminal]:
                continue
            if 0 < counted[other] < most and not _hangs_on(graph, other, last.id, terminal):
                return other
    return ""


def _hangs_on(graph: Graph, place: str, wire: str, terminal: str) -> bool:
    """Tell whether a terminal would lose the net if one wire were taken off."""
    wires = [one for one in graph.circuit.netlist.wires if one.id != wire]
    ring, found = [terminal], {terminal}
    for here in ring:
        for one in wires:
            if here in {one.start, one.end}:
                other = one.end if one.start == here else one.start
                if other not in found:
                    found.add(other)
                    ring.append(other)
    return place not in found


def _loose(graph: Graph) -> Iterator[Problem]:
    circuit = graph.circuit
    for item in graph.of_type("unknown_end"):
        for wire in circuit.netlist.wires_at(f"{item.id}.?"):
            known = wire.end if wire.start.startswith(f"{item.id}.") else wire.start
            yield problem(circuit, "H46", "error", "unknown_end", known)
    for terminal in loose_ends(circuit):
        yield problem(circuit, "H46", "error", "loose", terminal)
    for item in graph.of_type(*COILED, "lamp"):
        ends = ("X1", "X2") if item.type == "lamp" else ("A1", "A2")
        if not any(graph.is_wired(f"{item.id}.{end}") for end in ends):
            yield problem(circuit, "H46", "doubt", "idle", item.id)
        elif graph.net(item.id, ends[0]) == graph.net(item.id, ends[1]):
            yield problem(
                circuit, "H45", "error", "bridged", f"{item.id}.{ends[0]}", f"{item.id}.{ends[1]}"
            )


def _numbers(graph: Graph) -> Iterator[Problem]:
    circuit = graph.circuit
    of_number: dict[str, set[int]] = defaultdict(set)
    of_net: dict[int, set[str]] = defaultdict(set)
    at: dict[tuple[str, int], str] = {}
    for wire in circuit.netlist.wires:
        number = circuit.numbers.get(wire.id)
        if number:
            net = graph.nets[wire.start]
            of_number[number].add(net)
            of_net[net].add(number)
            at.setdefault((number, net), wire.start)
    for number, nets in of_number.items():
        if len(nets) > 1:
            places = [at[number, net] for net in sorted(nets)]
            yield problem(circuit, "H47", "error", "number_twice", *places, number=number)
    for net, numbers in of_net.items():
        if len(numbers) > 1:
            places = [at[number, net] for number in sorted(numbers)]
            yield problem(
                circuit, "H47", "error", "two_numbers", *places, numbers=", ".join(sorted(numbers))
            )


def _tags(graph: Graph) -> Iterator[Problem]:
    taken: dict[str, str] = {}
    for item in graph.circuit.netlist.devices:
        tag = graph.circuit.tags.get(item.id, item.id)
        if tag in taken:
            yield problem(graph.circuit, "H47", "error", "tag_twice", item.id, taken[tag], tag=tag)
        taken.setdefault(tag, item.id)
