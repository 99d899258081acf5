"""Checks of what a device is for by its own words: OFF, JOG, alarm and trip.

A selector at OFF must let no coil in that it decides about; a jog must not seal in; what
warns must not stand where what trips belongs.

Source: NFPA 79 and IEC 60204-1 (stop and jog functions, in their subject), trade practice.
"""

from __future__ import annotations

from collections.abc import Iterator

from evencoil.checks.model import Level, Problem, problem
from evencoil.checks.power import moving_of
from evencoil.checks.programs import by_program, inputs_of
from evencoil.checks.reach import Graph, Place, positions_of
from evencoil.checks.ways import CLOSES, contacts_of, ways_to
from evencoil.circuit import TURNED, Device, is_jog, is_jog_word, is_off_word

__all__ = ["intent_problems"]


def intent_problems(graph: Graph) -> Iterator[Problem]:
    """Go through H16 (OFF), H17 (jog) and H40 (alarm and trip).

    Parameters
    ----------
    graph : Graph
        The circuit.
    """
    yield from _off(graph)
    yield from _jogging(graph)
    yield from _alarms(graph)


def _off(graph: Graph) -> Iterator[Problem]:
    """Turn each selector to OFF: the coils that it decides about must drop."""
    coils = sorted(moving_of(graph))
    places = positions_of(graph.circuit)
    for item in graph.of_type(*TURNED):
        if not any(is_off_word(turned[item.id]) for turned in places):
            continue
        decided = {
            coil
            for turned in places
            if not is_off_word(turned[item.id])
            for coil in coils
            if any(device == item.id for device, _ in ways_to(graph, coil, turned))
        }
        # a wire past the selector leaves it on no way at all
        decided |= set(coils) if len(graph.of_type(*TURNED)) == 1 and item.type == "sel" else set()
        for turned in places:
            if not is_off_word(turned[item.id]):
                continue
            # what the program decides by this selector is the program's to drop
            asked = by_program(graph) if inputs_of(graph, item) else frozenset()
            left = graph.reached((), turned, holds=True).coils - asked
            still = sorted(decided & (left | (graph.reached((), turned).coils - asked)))
            if still:
                yield problem(graph.circuit, "H16", "error", "off_runs", item.id, *still)
                break


def _jogging(graph: Graph) -> Iterator[Problem]:
    """Press and let go each button that jogs, or every one at a selector's JOG."""
    buttons = graph.of_type("pb")
    closing = {
        item.id: {(item.id, link.name) for link in contacts_of(graph, item, CLOSES)}
        for item in buttons
    }
    told: set[tuple[str, str]] = set()
    for turned in positions_of(graph.circuit):
        at_jog = any(is_jog_word(word) for word in turned.values())
        for item in buttons:
            if not closing[item.id] or not (at_jog or is_jog(item)):
                continue
            for coil in _sealed(graph, item, closing, turned):
                if (item.id, coil) not in told:
                    told.add((item.id, coil))
                    name = "jog_stays" if is_jog(item) else "at_jog_stays"
                    yield problem(graph.circuit, "H17", "error", name, item.id, coil)


def _sealed(
    graph: Graph, item: Device, closing: dict[str, set[Place]], turned: dict[str, str]
) -> list[str]:
    """Return the moving coils that a button pulls in and that stay in when it is let go."""
    others: set[Place] = set().union(*(own for name, own in closing.items() if name != item.id))
    opening = {(item.id, link.name) for link in contacts_of(graph, item) if link.kind not in CLOSES}
    released = others | closing[item.id]
    without = graph.reached(released, turned).coils
    pressed = graph.reached(others | opening, turned).coils
    # let go slowly its closing contact opens first: a race is another finding
    between = graph.reached(released | opening, turned, holds=True, inside=pressed).coils
    left = graph.reached(released, turned, holds=True, inside=between).coils
    return sorted((moving_of(graph) & pressed & left) - without)


def _alarms(graph: Graph) -> Iterator[Problem]:
    """Find an alarm contact that stops the motor while the trip contact does not."""
    if not graph.of_type("rtdmon", "thermostat"):
        return
    coils = sorted(moving_of(graph))
    ways: set[Place] = set()
    for turned in positions_of(graph.circuit):
        for coil in coils:
            ways |= ways_to(graph, coil, turned)
    for item in graph.of_type("rtdmon"):
        stopping = {name[0] for device, name in ways if device == item.id}
        if "1" in stopping:
            name = "alarm_stops" if "2" in stopping else "alarm_for_trip"
            level: Level = "doubt" if "2" in stopping else "error"
            yield problem(graph.circuit, "H40", level, name, item.id)
    yield from _hotter_alarms(graph, {device for device, _ in ways})


def _hotter_alarms(graph: Graph, stopping: set[str]) -> Iterator[Problem]:
    """Find a thermostat that warns at a higher temperature than the one that stops."""
    guards = graph.of_type("thermostat")
    for trip in guards:
        for alarm in guards:
            if trip.id not in stopping or alarm.id in stopping:
                continue
            if trip.parameters.get("motor") != alarm.parameters.get("motor"):
                continue
            low, high = (float(one.parameters.get("t") or 0) for one in (trip, alarm))
            if low < high and contacts_of(graph, alarm):
                yield problem(
                    graph.circuit,
                    "H40",
                    "error",
                    "alarm_hotter",
                    trip.id,
                    alarm.id,
                    trip=f"{low:g}",
                    alarm=f"{high:g}",
                )
