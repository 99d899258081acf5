"""A reset step for a program that starts again when an emergency stop is released (L08).

A button of its own at a free input sets a flag; the flag falls with the input that loses its
feed when the emergency stop is pressed; every output that moves something waits for the flag. It
is offered only where playing the changed circuit shows that nothing starts by the release any
more, and that a start with the button before it still works.

Source: ISO 13850 and IEC 60204-1 in their sense: releasing an emergency stop must not start.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping

from evencoil.checks.power import moving_of
from evencoil.checks.reach import Graph, Place
from evencoil.checks.ways import OPENS, contacts_of, stops_opened
from evencoil.circuit import Circuit, Device, Edit, links_of, program_of, replay
from evencoil.logic import LogicError, Machine, program_text, read_program, with_reset_step
from evencoil.rehearsal import Stage, starts_of

__all__ = ["reset_step"]

_BUTTON = "reset_step"


def reset_step(
    graph: Graph, needed: Mapping[str, frozenset[Place]], restarts: Callable[[Circuit], bool]
) -> tuple[Edit, ...]:
    """Return the edits that put a reset step in front; none where that cannot be shown to help.

    Parameters
    ----------
    graph : Graph
        A circuit with one programmable relay.
    needed : mapping
        For each coil that pulls in through an output only, the outputs it needs.
    restarts : callable
        Tells whether a circuit starts when an emergency stop is released.
    """
    relays = graph.of_type("plc")
    if len(relays) != 1 or any(item.id == _BUTTON for item in graph.circuit.netlist.devices):
        return ()
    (relay,) = relays
    outputs = {
        name
        for coil in moving_of(graph) & needed.keys()
        for owner, name in needed[coil]
        if owner == relay.id
    }
    free = _free_input(graph, relay)
    for watched, feed in _lost_with_stop(graph, relay) if free and outputs else ():
        program = with_reset_step(program_of(relay).program, outputs, free, watched)
        try:
            text = program_text(program)
            read_program(text, program_of(relay).points)
        except LogicError:
            return ()
        edits = (
            Edit(id=_BUTTON, kind="add_device", type="pb", parameters={"c": "13-14"}, tag="S9"),
            Edit(id=f"{_BUTTON}_feed", kind="add_wire", start=feed, end=f"{_BUTTON}.13"),
            Edit(
                id=f"{_BUTTON}_input",
                kind="add_wire",
                start=f"{_BUTTON}.14",
                end=f"{relay.id}.{free}",
            ),
            Edit(id=f"{_BUTTON}_text", kind="set", device=relay.id, parameters={"program": text}),
        )
        done = replay(graph.circuit, list(edits))
        if not done.stale and not restarts(done.circuit) and starts_of(Stage(done.circuit)):
            return edits
    return ()


def _free_input(graph: Graph, relay: Device) -> str:
    """Return the first input that nothing is wired to and the program does not name."""
    used = Machine(program_of(relay)).used()
    free = (
        link.name
        for link in links_of(relay)
        if link.kind == "input"
        and not link.name.startswith("AI")
        and link.name not in used
        and not graph.is_wired(f"{relay.id}.{link.a}")
    )
    return next(free, "")


def _lost_with_stop(graph: Graph, relay: Device) -> Iterator[tuple[str, str]]:
    """Go through inputs that lose their feed with the emergency stop, and where they get it.

    The feed is a terminal that is live as long as no emergency stop is pressed, whatever a
    contactor does: an input behind a contact of a contactor would wait for itself.
    """
    opened = stops_opened(graph)
    coils = {
        (item.id, link.name)
        for item in graph.of_type("contactor", "relay")
        for link in contacts_of(graph, item)
    }
    held, pressed = graph.reached(coils).hot, graph.reached(opened).hot
    feeds = [
        terminal
        for item in graph.of_type("estop")
        for link in contacts_of(graph, item, OPENS)
        for terminal in (f"{item.id}.{link.a}", f"{item.id}.{link.b}")
        if graph.nets[terminal] in held and graph.nets[terminal] not in pressed
    ]
    for link in links_of(relay):
        if link.kind != "input" or not feeds:
            continue
        net = graph.net(relay.id, link.a)
        if graph.is_wired(f"{relay.id}.{link.a}") and net in held and net not in pressed:
            yield link.name, feeds[0]
