"""What depends on the program of a programmable relay, and what must not: hard-wired first.

The outputs count as free: whatever a program may do, an emergency stop, an overload contact and
an interlock have to act by wire. Unexpected starts are played, because only the program tells
them.

Source: NFPA 79 and IEC 60204-1 (emergency stop, stop functions, unexpected start), trade
practice; codes of docs/logic.md.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Literal

from evencoil.checks.dead_time import dead_time_problems
from evencoil.checks.model import Problem, problem
from evencoil.checks.power import exclusive_pairs, moving_of
from evencoil.checks.reach import Graph, Place
from evencoil.checks.reset_step import reset_step
from evencoil.checks.ways import OPENS, contacts_of, fed_with, stops_opened
from evencoil.circuit import (
    Circuit,
    Device,
    Link,
    links_of,
    netlist_fingerprint,
    program_of,
    turns_of,
)
from evencoil.logic import advice_of, compared_ways, edge_inputs
from evencoil.rehearsal import ScenarioAct, Stage, act_at, gaps_of, opening_of, starts_of

__all__ = [
    "Restart",
    "by_program",
    "has_program",
    "inputs_of",
    "played_program_problems",
    "played_restarts",
    "program_problems",
]

#: a start that no one asked for
Restart = Literal["power_back", "overload_reset", "estop_release", "isolator_back"]
_SECOND = 1_000_000
#: words of what moves a motor: a contactor that is in, a drive that gives out volts
_MOVES = ("1", "run")
#: what takes a motor off, and what gives it back, by the kind of device
_BACK: tuple[tuple[str, Restart, str, str], ...] = (
    ("supply", "power_back", "", ""),
    ("olr", "overload_reset", "trip", "reset"),
    ("estop", "estop_release", "press", "twist"),
)


def has_program(circuit: Circuit) -> bool:
    """Tell whether a circuit holds a programmable relay.

    Parameters
    ----------
    circuit : Circuit
        As drawn or as found.
    """
    return any(item.type == "plc" for item in circuit.netlist.devices)


def needs_play(circuit: Circuit) -> bool:
    """Tell whether unexpected starts are found by playing only: a program or a drive decides.

    Parameters
    ----------
    circuit : Circuit
        As drawn or as found.
    """
    return any(item.type in {"plc", "drive"} for item in circuit.netlist.devices)


def _outputs(graph: Graph) -> set[Place]:
    return {
        (item.id, link.name)
        for item in graph.of_type("plc")
        for link in links_of(item)
        if link.kind == "no"
    }


#: what was played of netlists looked at lately: the same answer for the same netlist
_PLAYED: dict[str, tuple[Restart, ...]] = {}
_MOST_PLAYED = 64


def by_program(graph: Graph) -> frozenset[str]:
    """Return the coils that pull in through an output of a programmable relay only.

    Parameters
    ----------
    graph : Graph
        The circuit.
    """
    outputs = _outputs(graph)
    if not outputs:
        return frozenset()
    return graph.reached().coils - graph.reached(outputs).coils


def inputs_of(graph: Graph, item: Device) -> list[tuple[str, str, Link]]:
    """Return the inputs that a contact of a device is wired to: relay, point, contact.

    Parameters
    ----------
    graph : Graph
        The circuit.
    item : Device
        Whose contacts.
    """
    at = {
        graph.net(relay.id, link.a): (relay.id, link.name)
        for relay in graph.of_type("plc")
        for link in links_of(relay)
        if link.kind == "input" and graph.is_wired(f"{relay.id}.{link.a}")
    }
    return [
        (*at[graph.net(item.id, end)], link)
        for link in contacts_of(graph, item)
        for end in (link.a, link.b)
        if graph.net(item.id, end) in at
    ]


def program_problems(graph: Graph) -> Iterator[Problem]:
    """Go through L01 to L07, L09 to L15 and L17; L16 is played, by `played_program_problems`.

    Parameters
    ----------
    graph : Graph
        The circuit.
    """
    if not graph.of_type("plc"):
        return
    yield from _stops(graph)
    yield from _overloads(graph)
    yield from _exclusive(graph)
    yield from _by_closing(graph)
    yield from _feedback(graph)
    yield from _texts(graph)
    yield from _lamps(graph)


def played_program_problems(
    graph: Graph, stage: Stage, starts: Sequence[Sequence[ScenarioAct]]
) -> Iterator[Problem]:
    """Go through what only playing tells of a program: L08 by the emergency stop, and L16.

    Parameters
    ----------
    graph : Graph
        The circuit.
    stage : Stage
        The same, ready to be played.
    starts : sequence of sequence of ScenarioAct
        What gets a motor to run.
    """
    if has_program(graph.circuit):
        driven = by_program(graph)
        needed = {coil: frozenset(_needed(graph, coil)) for coil in driven}
        yield from dead_time_problems(graph, stage, starts, driven, needed)
        if _starts_by_release(graph.circuit):
            relay, stop = graph.of_type("plc")[0], graph.of_type("estop")[0]
            edits = reset_step(graph, needed, _starts_by_release)
            name = "estop_restarts" if edits else "estop_restarts_bare"
            yield problem(graph.circuit, "L08", "error", name, relay.id, stop.id, edits=edits)


def _starts_by_release(circuit: Circuit) -> bool:
    return "estop_release" in played_restarts(circuit)


def _opening(graph: Graph, item: Device) -> set[Place]:
    return {(item.id, link.name) for link in contacts_of(graph, item, OPENS)}


def _stops(graph: Graph) -> Iterator[Problem]:
    """L01, L02: with every emergency stop pressed no output may feed what moves."""
    stops = graph.of_type("estop")
    if not stops:
        return
    opened = stops_opened(graph)
    left = sorted(fed_with(graph, opened, {}) & by_program(graph) & moving_of(graph))
    if not left:
        return
    read = [item.id for item in stops if inputs_of(graph, item)]
    if read:
        yield problem(graph.circuit, "L02", "error", "estop_by_program", read[0], *left)
    else:
        yield problem(graph.circuit, "L01", "error", "estop_not_ahead", stops[0].id, *left)


def _overloads(graph: Graph) -> Iterator[Problem]:
    """L03: an overload contact that only tells the program leaves the coil in."""
    for item in graph.of_type("olr"):
        read = inputs_of(graph, item)
        left = sorted(fed_with(graph, _opening(graph, item), {}) & by_program(graph))
        opening = [link for link in contacts_of(graph, item) if link.kind == "nc"]
        if read and not _drops_any(graph, item) and left:
            yield problem(graph.circuit, "L03", "error", "overload_by_program", item.id, *left)
        elif not opening and not read and left:
            yield problem(graph.circuit, "L03", "error", "overload_nowhere", item.id, *left)


def _drops_any(graph: Graph, item: Device) -> bool:
    """Tell whether a device's opening contact takes a coil out by wire."""
    before = graph.reached().coils
    return bool(before - graph.reached(_opening(graph, item)).coils)


def _exclusive(graph: Graph) -> Iterator[Problem]:
    """L04: outputs forced on together must not close contactors that exclude each other."""
    driven = by_program(graph)
    for pair in exclusive_pairs(graph):
        if not pair <= driven:
            continue
        if any(_both_close(graph, order) for order in (sorted(pair), sorted(pair)[::-1])):
            yield problem(graph.circuit, "L04", "error", "outputs_together", *sorted(pair))


def _both_close(graph: Graph, order: Sequence[str]) -> bool:
    """Force the outputs that the first one needs, then every output, and watch both contactors."""
    outputs = sorted(_outputs(graph))
    first = _needed(graph, order[0])
    acts = opening_of(graph.circuit)
    for item in graph.of_type("sel"):
        # to the last position: off is the first one
        for word in turns_of(item)[-1:]:
            acts.append(ScenarioAct(at_us=_SECOND, do="turn", on=item.id, word=word))
    for second, places in ((2, first or outputs), (3, outputs)):
        acts += [
            ScenarioAct(at_us=second * _SECOND, do="force", on=relay, word=f"{name} closed")
            for relay, name in places
        ]
    trace = Stage(graph.circuit).play(acts, until_us=6 * _SECOND)
    # one that pulls in takes the other out too late: their poles conduct together for a moment
    is_short = any(one.code in {"both_ways", "short"} for one in trace.hazards)
    return is_short or any(
        frame.words is not None and all(frame.words.get(name) == "1" for name in order)
        for frame in trace.frames
    )


def _by_closing(graph: Graph) -> Iterator[Problem]:
    """L05: what stops has to open: a broken wire is then a stop."""
    for item in graph.of_type("pb", "olr", "estop"):
        if item.type == "pb" and not item.id.startswith("stop"):
            continue
        for relay, point, link in inputs_of(graph, item):
            if link.kind != "no":
                continue
            if item.type == "olr" and _drops_any(graph, item):
                # the coil drops by wire all the same: only the program does not know
                yield problem(
                    graph.circuit, "L05", "note", "trip_unseen", item.id, relay, point=point
                )
            else:
                yield problem(
                    graph.circuit, "L05", "doubt", "stops_by_closing", item.id, relay, point=point
                )


def _feedback(graph: Graph) -> Iterator[Problem]:
    """L06, L07: a feedback is a contact of the contactor, compared in both directions."""
    circuit = graph.circuit
    coils = {graph.net(item.id, "A1"): item.id for item in graph.of_type("contactor")}
    for relay in graph.of_type("plc"):
        for link in links_of(relay):
            if link.kind != "input" or not graph.is_wired(f"{relay.id}.{link.a}"):
                continue
            contactor = coils.get(graph.net(relay.id, link.a))
            if contactor is not None:
                yield problem(
                    circuit,
                    "L06",
                    "doubt",
                    "feedback_of_coil",
                    relay.id,
                    contactor,
                    point=link.name,
                )
    for item in graph.of_type("contactor"):
        for relay_id, point, link in inputs_of(graph, item):
            if link.kind not in {"no", "no_early"}:
                continue
            outputs = [name for owner, name in _needed(graph, item.id) if owner == relay_id]
            if len(outputs) != 1:
                continue
            output = outputs[0]
            ways = compared_ways(program_of(graph.kinds[relay_id]), output, point)
            if ways == (True, False):
                yield problem(
                    circuit,
                    "L07",
                    "note",
                    "feedback_one_way",
                    relay_id,
                    item.id,
                    point=point,
                    output=output,
                )


def _needed(graph: Graph, coil: str) -> list[Place]:
    """Return the outputs without which a coil cannot pull in."""
    return [place for place in sorted(_outputs(graph)) if coil not in graph.reached({place}).coils]


def _texts(graph: Graph) -> Iterator[Problem]:
    """L09 to L15: what the program's own text lets doubt."""
    for relay in graph.of_type("plc"):
        checked = program_of(relay)
        scan = round(float(relay.parameters.get("scan") or 10))
        for one in advice_of(checked, scan):
            yield problem(
                graph.circuit,
                one.code,
                "note" if one.code == "L12" else "doubt",
                one.code.lower(),
                relay.id,
                line=str(one.place[0]),
                what=one.name,
                figure=one.figure,
            )
        stops = graph.of_type("estop")
        for block, point, place in edge_inputs(checked):
            fed = graph.is_wired(f"{relay.id}.{point}")
            if not fed:
                continue
            yield problem(
                graph.circuit,
                "L09",
                "doubt",
                "edge_on_return" if stops else "edge_first_scan",
                relay.id,
                line=str(place[0]),
                what=block,
                point=point,
            )


def _lamps(graph: Graph) -> Iterator[Problem]:
    """L17: a lamp whose feed goes with what it reports; say when it cannot light."""
    outputs = _outputs(graph)
    for lamp in graph.of_type("lamp"):
        net = graph.net(lamp.id, "X1")
        feeds = {edge.place for edge in graph.beside[net]} & outputs
        if not feeds:
            continue
        for item in graph.of_type("estop"):
            reached = graph.reached(_opening(graph, item))
            if net in graph.reached().hot and net not in reached.hot:
                yield problem(graph.circuit, "L17", "note", "lamp_dark", lamp.id, item.id)


def played_restarts(circuit: Circuit) -> tuple[Restart, ...]:
    """Return the starts that no one asks for, found by playing a program or a drive.

    Each way to start is played; then power goes and comes, an overload trips and is reset, an
    emergency stop is pressed and released, a fault is let pass, with no other act.

    Parameters
    ----------
    circuit : Circuit
        With a programmable relay or a drive.
    """
    known = netlist_fingerprint(circuit)
    if known not in _PLAYED:
        if len(_PLAYED) >= _MOST_PLAYED:
            _PLAYED.clear()
        _PLAYED[known] = _played(circuit)
    return _PLAYED[known]


def _played(circuit: Circuit) -> tuple[Restart, ...]:
    graph, stage = Graph(circuit), Stage(circuit)
    moving = moving_of(graph) | {item.id for item in graph.of_type("drive")}
    opening = opening_of(circuit)
    found: list[Restart] = []
    starts = starts_of(stage)
    if any(not start for start in starts):
        found.append("power_back")
    for start in starts:
        for kind, name, first, then in _BACK:
            for item in circuit.netlist.devices:
                if item.type != kind or name in found:
                    continue
                for later_s in gaps_of(circuit):
                    acts = [*opening, *start, *_back(item, first, then, later_s)]
                    if _starts_again(stage, acts, moving, later_s):
                        found.append(name)
                        break
    return tuple(found)


def _back(item: Device, first: str, then: str, later_s: float) -> list[ScenarioAct]:
    """Return what takes a motor off and gives it back, a little or a while later."""
    if item.type == "supply":
        return [act_at(9, "dip", word=f"{later_s:g}")]
    return [act_at(9, first, item.id), act_at(9 + later_s, then, item.id)]


def _starts_again(
    stage: Stage, acts: Sequence[ScenarioAct], moving: frozenset[str], later_s: float
) -> bool:
    """Tell whether something runs again after acts that ask for no start."""
    # behind it a delay of five seconds may lie, and levels that hold
    until = round((9 + max(later_s, 4.0) + 9) * _SECOND)
    trace = stage.play(acts, until_us=until)
    before = trace.words_at(9 * _SECOND - 1)
    gone = trace.words_at(round((9 + later_s) * _SECOND) - 1)
    last = trace.words_at(until)
    return any(
        before.get(name) in _MOVES and gone.get(name) not in _MOVES and last.get(name) in _MOVES
        for name in moving
    )
