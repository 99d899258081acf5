"""Checks of the control circuit by its graph: what must be in series with what.

Each asks what can pull in from rest, or stay in, with some contact open: a coil that
still can is the fault. Selectors are tried in every position.

Source: NEC 430.32, 430.43, 430.74 (overload contact, automatic reset, grounded side);
NFPA 79 and IEC 60204-1 (emergency stop, stop by opening); textbook ladder practice.
"""

from __future__ import annotations

from collections.abc import Iterator

from evencoil.checks.model import Problem, problem
from evencoil.checks.power import feeds_of, motion_of, moving_of
from evencoil.checks.reach import COILED, LINE_ENDS, Graph, Place, positions_of
from evencoil.checks.ways import CLOSES, HOT, OPENS, closing_buttons, contacts_of, fed_with, ways_to
from evencoil.circuit import CONTACTS, Edit, primary_taps

__all__ = ["control_problems"]

_GUARDS = {"thermostat", "ptcrelay", "rtdmon", "phasemon", "gfr"}


def control_problems(graph: Graph) -> Iterator[Problem]:
    """Go through H05 to H07, H10, H12, H14 to H17, H20, H37, H39 to H41, H49 and E03.

    Parameters
    ----------
    graph : Graph
        The circuit.
    """
    yield from _emergency(graph)
    yield from _between_lines(graph)
    yield from _overloads(graph)
    yield from _stops(graph)
    yield from _grounded_side(graph)
    yield from _maintained(graph)
    yield from _cut_outs(graph)
    yield from _monitors(graph)
    yield from _grounding(graph)
    yield from _unwatched(graph)


def _emergency(graph: Graph) -> Iterator[Problem]:
    stops = graph.of_type("estop")
    if not stops:
        return
    moving = sorted(moving_of(graph))
    for stop in stops:
        used = contacts_of(graph, stop, OPENS)
        if not used:
            yield problem(graph.circuit, "H05", "error", "estop_idle", stop.id)
            continue
        opened = {(stop.id, link.name) for link in used}
        for turned in positions_of(graph.circuit):
            left = fed_with(graph, opened, turned)
            still = [coil for coil in moving if coil in left]
            if still:
                yield problem(graph.circuit, "H05", "error", "estop", stop.id, *still)
                break


def _between_lines(graph: Graph) -> Iterator[Problem]:
    known = graph.reached(holds=True)
    for item in graph.of_type(*COILED):
        one, other = (known.lines.get(graph.net(item.id, end), frozenset()) for end in ("A1", "A2"))
        if one and other and (len(one | other) > 1):
            yield problem(
                graph.circuit,
                "H06",
                "note",
                "two_lines",
                item.id,
                lines=" and ".join(sorted(one | other)),
            )


def _overloads(graph: Graph) -> Iterator[Problem]:
    for motor in graph.circuit.netlist.devices:
        if not motor.type.startswith("motor"):
            continue
        contactors, overloads = feeds_of(graph, motor.id)
        if not overloads and contactors and not graph.of_type("mms", "manual"):
            yield problem(graph.circuit, "H07", "error", "no_overload", motor.id)
        for relay in sorted(overloads):
            opened = {(relay, "95-96")}
            for turned in positions_of(graph.circuit):
                left = fed_with(graph, opened, turned)
                still = [coil for coil in sorted(contactors) if coil in left]
                if still and _carries(graph, relay, still):
                    fix = _to_contact(graph, still[0], relay)
                    yield problem(
                        graph.circuit,
                        "H07",
                        "error",
                        "overload",
                        relay,
                        *still,
                        edits=fix,
                        motor=graph.circuit.tags.get(motor.id, motor.id),
                    )
                    break


def _carries(graph: Graph, relay: str, contactors: list[str]) -> bool:
    """Tell whether any of some contactors leads current through the heaters of a relay."""
    heats = {
        edge.one for edge in graph.edges if edge.device.id == relay and edge.link.kind == "heat"
    }
    heats |= {
        edge.other for edge in graph.edges if edge.device.id == relay and edge.link.kind == "heat"
    }
    poles = graph.spread(
        heats,
        lambda edge: edge.link.kind in {"pole", "heat"} and edge.device.type in {"olr", "isolator"},
    )
    ends = {
        edge.one
        for edge in graph.edges
        if edge.device.id in contactors and edge.link.kind == "pole"
    }
    ends |= {
        edge.other
        for edge in graph.edges
        if edge.device.id in contactors and edge.link.kind == "pole"
    }
    return bool(poles & ends)


def _to_contact(graph: Graph, coil: str, relay: str) -> tuple[Edit, ...]:
    """Return the edit that leads a coil's common side to the overload's near end."""
    common = graph.returns()
    for end in ("A2", "A1"):
        terminal = f"{coil}.{end}"
        if graph.nets[terminal] in common and graph.net(relay, "96") in common:
            near = f"{relay}.95"
            return tuple(
                Edit(
                    id=f"fix.{place}.{wire.id}",
                    kind="move_end",
                    wire=wire.id,
                    start=wire.end if wire.start == terminal else wire.start,
                    end=near,
                )
                for place, wire in enumerate(graph.circuit.netlist.wires_at(terminal)[:1])
            )
    return ()


def _stops(graph: Graph) -> Iterator[Problem]:
    """Open each stop contact; a coil that it is in series with must drop."""
    coils = sorted(moving_of(graph))
    buttons = graph.of_type("pb")
    held = closing_buttons(graph)
    told: set[tuple[str, str]] = set()
    for turned in positions_of(graph.circuit):
        ways = {coil: ways_to(graph, coil, turned) for coil in coils}
        for item in buttons:
            for link in contacts_of(graph, item, OPENS):
                place = (item.id, link.name)
                left = graph.reached({place, *held}, turned, holds=True).coils
                for coil in coils:
                    if place in ways[coil] and coil in left and (item.id, coil) not in told:
                        told.add((item.id, coil))
                        is_jog = bool(contacts_of(graph, item, CLOSES))
                        yield problem(
                            graph.circuit,
                            "H17" if is_jog else "H16",
                            "error",
                            "jog_seals" if is_jog else "seal_ahead",
                            item.id,
                            coil,
                        )
    yield from _jogs(graph, coils)
    yield from _closing_stops(graph)


def _jogs(graph: Graph, coils: list[str]) -> Iterator[Problem]:
    """Find a button whose opening contact is in series with the seal its other side is across."""
    for item in graph.of_type("pb"):
        opens, closes = contacts_of(graph, item, OPENS), contacts_of(graph, item, CLOSES)
        for coil in coils:
            for seal in contacts_of(graph, graph.kinds[coil], CLOSES):
                ends = {graph.net(coil, seal.a), graph.net(coil, seal.b)}
                for one in opens:
                    joined = {graph.net(item.id, one.a), graph.net(item.id, one.b)}
                    if len(ends & joined) != 1:
                        continue
                    outer = (ends | joined) - (ends & joined)
                    across = [
                        link
                        for link in closes
                        if {graph.net(item.id, link.a), graph.net(item.id, link.b)} == outer
                    ]
                    if across:
                        yield problem(graph.circuit, "H17", "error", "jog_races", item.id, coil)


def _closing_stops(graph: Graph) -> Iterator[Problem]:
    """Find what is called a stop and closes to stop: its broken wire would not be noticed."""
    for item in graph.of_type("pb", "estop"):
        legend = item.parameters.get("legend", "").upper()
        is_stop = item.type == "estop" or item.id.startswith("stop") or "STOP" in legend
        if not is_stop or contacts_of(graph, item, OPENS):
            continue
        closing = contacts_of(graph, item, CLOSES)
        if closing:
            yield problem(graph.circuit, "H10", "error", "stop_closes", f"{item.id}.{closing[0].a}")


def _grounded_side(graph: Graph) -> Iterator[Problem]:
    common = graph.returns()
    hot = graph.reached(holds=True).hot
    for item in graph.of_type(*COILED):
        for end in ("A1", "A2"):
            start = graph.net(item.id, end)
            if start in common:
                break
        else:
            for end in ("A2", "A1"):
                way = next(
                    graph.paths(
                        graph.net(item.id, end),
                        common,
                        lambda edge: edge.link.kind in CONTACTS,
                    ),
                    None,
                )
                start = graph.net(item.id, end)
                if way is None or (start in hot and _is_fed_side(graph, start)):
                    continue
                for edge in way:
                    is_own = edge.device.type == "olr"
                    yield problem(
                        graph.circuit,
                        "H12",
                        "note" if is_own else "error",
                        "grounded_own" if is_own else "grounded_side",
                        f"{edge.device.id}.{edge.link.a}",
                        item.id,
                    )
                break


def _is_fed_side(graph: Graph, start: int) -> bool:
    """Tell whether a net is reached from the hot side by contacts that are no coil's."""
    lines = graph.spread({start}, lambda edge: edge.link.kind in {*CONTACTS, "fuse"})
    seeds = {
        graph.net(item.id, end)
        for item in graph.circuit.netlist.devices
        if item.type not in {"rect", "supply"}
        for end in HOT.get(item.type, ())
    }
    return bool(lines & seeds)


def _maintained(graph: Graph) -> Iterator[Problem]:
    """Find self-resetting protection where no hand has to start again."""
    held = closing_buttons(graph)
    free: set[str] = set()
    for turned in positions_of(graph.circuit):
        free |= graph.reached(held, turned).coils
    for motor, contactors in motion_of(graph).items():
        by_itself = sorted(contactors & free)
        if not by_itself:
            continue
        for relay in graph.of_type("olr"):
            if relay.parameters.get("reset") == "auto" and relay.id in feeds_of(graph, motor)[1]:
                edit = Edit(
                    id=f"fix.{relay.id}.reset",
                    kind="set",
                    device=relay.id,
                    parameters={"reset": "manual"},
                )
                yield problem(
                    graph.circuit, "H14", "error", "auto_reset", relay.id, *by_itself, edits=(edit,)
                )
        for guard in graph.of_type("thermostat", "ptcrelay"):
            is_auto = guard.type == "thermostat" or guard.parameters.get("reset") == "auto"
            is_trip = guard.parameters.get("fn", "nc") == "nc"
            if is_auto and is_trip and contacts_of(graph, guard):
                yield problem(graph.circuit, "H37", "doubt", "self_reset", guard.id, *by_itself)


def _cut_outs(graph: Graph) -> Iterator[Problem]:
    """Open each cut-out; where it stands in one way to a coil it must stand in all."""
    told: set[tuple[str, str]] = set()
    for item in graph.of_type("pilot", *_GUARDS):
        links = contacts_of(graph, item, OPENS if item.type == "pilot" else ("nc", "no"))
        if item.type == "thermostat" and item.parameters.get("fn") == "no":
            continue
        for link in links:
            free, held = _passed(graph, (item.id, link.name))
            for coil in sorted(free | held):
                if (item.id, coil) in told:
                    continue
                told.add((item.id, coil))
                if coil in free:
                    yield problem(graph.circuit, "H15", "error", "cut_out", item.id, coil)
                else:
                    yield problem(graph.circuit, "H16", "error", "seal_ahead", item.id, coil)


def _passed(graph: Graph, place: Place) -> tuple[set[str], set[str]]:
    """Return the coils on whose way a contact stands and that start, or stay in, with it open."""
    guarded: set[str] = set()
    free: set[str] = set()
    held: set[str] = set()
    coils = sorted(moving_of(graph))
    for turned in positions_of(graph.circuit):
        left = graph.reached({place}, turned).coils
        inside = graph.reached((), turned).coils
        stays = graph.reached({place}, turned, holds=True, inside=inside).coils
        guarded |= {coil for coil in coils if place in ways_to(graph, coil, turned)}
        free |= left
        held |= stays
    return guarded & free, (guarded & held) - free


def _monitors(graph: Graph) -> Iterator[Problem]:
    for item in graph.of_type("phasemon"):
        opened = {
            (edge.device.id, edge.link.name)
            for edge in graph.edges
            if edge.device.type == "contactor" and edge.link.kind == "pole"
        }
        fixed = graph.reached(opened)
        if any(not fixed.lines.get(graph.net(item.id, line)) for line in LINE_ENDS):
            yield problem(graph.circuit, "H41", "error", "monitor_behind", item.id)
        if not contacts_of(graph, item):
            yield problem(graph.circuit, "H20", "error", "monitor_idle", item.id)
    for item in graph.of_type("rtdmon"):
        alarm, trip = (float(item.parameters.get(name) or 0) for name in ("alarm", "trip"))
        if alarm >= trip:
            yield problem(
                graph.circuit,
                "H40",
                "error",
                "alarm_late",
                item.id,
                alarm=f"{alarm:g}",
                trip=f"{trip:g}",
            )
    limits = [item for item in graph.of_type("pilot") if contacts_of(graph, item, OPENS)]
    pairs = [pair for pair in graph.circuit.never_together if _is_reversing(graph, pair)]
    if limits and pairs and not graph.of_type("phasemon"):
        yield problem(graph.circuit, "H20", "doubt", "sequence", *(item.id for item in limits))
    yield from _sensors(graph)


#: relay to the sensor it measures, with the leads of it that its T1 may meet
_PROBES = {"ptcrelay": ("ptc", ("TP1", "TP2")), "rtdmon": ("rtd", ("R1", "R2", "R3"))}


def _sensors(graph: Graph) -> Iterator[Problem]:
    """Find relays that measure no sensor; an RTD monitor may have its own, which is not drawn."""
    for relay in graph.of_type(*_PROBES):
        kind, leads = _PROBES[relay.type]
        at = {graph.net(relay.id, "T1")}
        if at & {graph.net(one.id, end) for one in graph.of_type(kind) for end in leads}:
            continue
        if relay.type == "ptcrelay":
            yield problem(graph.circuit, "H39", "error", "no_sensor", relay.id)
        elif graph.of_type(kind):
            yield problem(graph.circuit, "H39", "error", "no_rtd", relay.id)
        else:
            yield problem(graph.circuit, "H39", "note", "rtd_undrawn", relay.id)


def _grounding(graph: Graph) -> Iterator[Problem]:
    """Find a control transformer whose common side is not bonded, or bonded on the hot side."""
    earth = {graph.net(item.id, "PE") for item in graph.of_type("supply")}
    for item in graph.of_type("xfmr"):
        if graph.net(item.id, "X1") in earth:
            yield problem(graph.circuit, "E03", "error", "bond_hot", f"{item.id}.X1")
        elif graph.net(item.id, "X2") not in earth and _feeds_a_coil(graph, item.id):
            yield problem(graph.circuit, "E03", "doubt", "no_bond", f"{item.id}.X2")
        far = list(primary_taps(item.parameters)) or ["H4"]
        if graph.net(item.id, "H1") in {graph.net(item.id, end) for end in far}:
            yield problem(graph.circuit, "H45", "error", "primary_short", f"{item.id}.H1")


def _unwatched(graph: Graph) -> Iterator[Problem]:
    """Find contactors of which no opening contact, lamp or feedback tells that they stuck."""
    for name in sorted(moving_of(graph)):
        if not contacts_of(graph, graph.kinds[name], OPENS):
            yield problem(graph.circuit, "H49", "note", "weld_unseen", name)


def _feeds_a_coil(graph: Graph, transformer: str) -> bool:
    side = graph.spread(
        {graph.net(transformer, "X1")}, lambda edge: edge.link.kind in {*CONTACTS, "fuse"}
    )
    return any(
        graph.net(item.id, end) in side for item in graph.of_type(*COILED) for end in ("A1", "A2")
    )


def _is_reversing(graph: Graph, pair: frozenset[str]) -> bool:
    """Tell whether two contactors feed the same motor leads from the lines."""
    sides = []
    for device in sorted(pair):
        if device not in graph.kinds or graph.kinds[device].type != "contactor":
            return False
        sides.append({graph.net(device, end) for end in ("2T1", "4T2", "6T3")})
    return len(sides) == 2 and sides[0] == sides[1] and len(sides[0]) == 3
