"""Checks of the power circuit by its graph: what feeds a motor, and what must never meet.

Source: NEC 430.37 (overload units in each conductor), NEMA ICS 2 (interlocks between
contactors that would short the lines), textbook starter practice.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import replace
from itertools import combinations

from evencoil.base import Message, say
from evencoil.checks.model import Problem, problem
from evencoil.checks.reach import LINE_ENDS, SWITCHES, Graph, Place, once, positions_of
from evencoil.circuit import DRIVE_OUTPUT, Edit, Netlist, has_two_speeds

__all__ = [
    "bridges_of",
    "exclusive_pairs",
    "feeds_of",
    "lines_behind_drive",
    "motion_of",
    "moving_of",
    "power_problems",
]

_WAY = {"pole", "heat", "fuse", "resistor"}
#: leads of the low speed, or of the first winding (NEMA MG 1 part 2)
_LOW_LEADS = {"T1", "T2", "T3"}


@once
def feeds_of(graph: Graph, motor: str) -> tuple[frozenset[str], frozenset[str]]:
    """Return the contactors and the overload relays between a motor and the supply.

    Parameters
    ----------
    graph : Graph
        The circuit.
    motor : str
        Id of the motor.
    """
    lines = graph.line_nets()
    contactors: set[str] = set()
    overloads: set[str] = set()
    bridged = bridges_of(graph)
    for end in graph.kinds[motor].terminals:
        start = graph.net(motor, end)
        for way in graph.paths(
            start,
            lines,
            lambda edge: edge.link.kind in _WAY or edge.device.type == "autox",
        ):
            if any(edge.device.id in bridged for edge in way):
                continue
            contactors |= {edge.device.id for edge in way if edge.device.type == "contactor"}
            overloads |= {edge.device.id for edge in way if edge.device.type == "olr"}
    return frozenset(contactors), frozenset(overloads)


@once
def motion_of(graph: Graph) -> Mapping[str, frozenset[str]]:
    """Return the contactors that feed each motor.

    Parameters
    ----------
    graph : Graph
        The circuit.
    """
    return {
        item.id: feeds_of(graph, item.id)[0]
        for item in graph.circuit.netlist.devices
        if item.type.startswith("motor")
    }


def moving_of(graph: Graph) -> frozenset[str]:
    """Return every contactor that feeds a motor.

    Parameters
    ----------
    graph : Graph
        The circuit.
    """
    return frozenset().union(*motion_of(graph).values())


@once
def bridges_of(graph: Graph) -> frozenset[str]:
    """Return the contactors of which one side's poles are joined: they make a star point.

    Parameters
    ----------
    graph : Graph
        The circuit.
    """
    found = set()
    for item in graph.of_type("contactor"):
        for side in (("1L1", "3L2", "5L3"), ("2T1", "4T2", "6T3")):
            nets = [graph.net(item.id, end) for end in side]
            wired = [graph.is_wired(f"{item.id}.{end}") for end in side]
            if all(wired) and len(set(nets)) == 1:
                found.add(item.id)
    return frozenset(found)


def _lines_at(
    graph: Graph, closed: set[str], turned: Mapping[str, str] | None = None
) -> dict[int, set[str]]:
    """Return the lines at each net with some contactors in and every switch closed."""
    turned = turned or {}
    found: dict[int, set[str]] = {}
    # direct current on a winding that a line feeds is a short as well
    for item in graph.of_type("supply", "rect"):
        for line in (*LINE_ENDS, "+", "-"):
            if line not in item.terminals:
                continue
            for net in graph.spread(
                {graph.net(item.id, line)},
                lambda edge: (
                    edge.link.kind in {"heat", "fuse"}
                    or (
                        edge.link.kind == "pole"
                        and (
                            edge.device.id in closed
                            or edge.device.type in SWITCHES
                            or turned.get(edge.device.id, "?") in edge.link.closes_at.split("+")
                        )
                    )
                ),
            ):
                found.setdefault(net, set()).add(line)
    return found


@once
def exclusive_pairs(graph: Graph) -> tuple[frozenset[str], ...]:
    """Return the pairs of contactors that must never be closed together.

    They short two lines, bridge an autotransformer, feed a motor for two speeds at once, or
    lead the lines to the output of a drive.

    Parameters
    ----------
    graph : Graph
        The circuit.
    """
    graph = _unbarred(graph)
    contactors = [item.id for item in graph.of_type("contactor")]

    def shorts(closed: set[str]) -> bool:
        return any(len(lines) > 1 for lines in _lines_at(graph, closed).values())

    if shorts(set()):
        return ()
    right = [name for name in contactors if not shorts({name})]
    found = [frozenset(pair) for pair in combinations(right, 2) if shorts(set(pair))]
    live = _lines_at(graph, set())
    feeders = {
        edge.device.id
        for edge in graph.edges
        if edge.device.type == "contactor"
        and edge.link.kind == "pole"
        and {edge.one, edge.other} & live.keys()
    }
    # the lines may come to both through a third one, as behind a direction pair
    found += [
        frozenset(pair)
        for pair in combinations([name for name in right if name not in feeders], 2)
        if any(shorts({*pair, third}) for third in right if third in feeders)
    ]
    found += [*_autotransformer_pairs(graph, right), *_speed_pairs(graph, right)]
    found += _drive_pairs(graph, right)
    return tuple(dict.fromkeys(found))


def _unbarred(graph: Graph) -> Graph:
    """Return a circuit without the bars of a box whose leads its starter switches.

    A bar that was left in makes two contactors short the lines that belong in together: the bar
    is at fault then, and no interlock would help. Each conductor ``C1`` stays with its lead.
    """
    circuit = graph.circuit
    devices, ends = [], {}
    for item in circuit.netlist.devices:
        arrivals = [end for end in item.terminals if end.startswith("C") and end[1:].isdigit()]
        if item.type != "joint" or len(arrivals) < 2:
            devices.append(item)
            continue
        for end in item.terminals:
            name = f"{item.id}.{end[1:]}"
            ends[f"{item.id}.{end}"] = f"{name}.{end}"
            if not any(one.id == name for one in devices):
                own = tuple(one for one in item.terminals if one[1:] == end[1:])
                devices.append(replace(item, id=name, terminals=own))
    if not ends:
        return graph
    wires = tuple(
        replace(wire, start=ends.get(wire.start, wire.start), end=ends.get(wire.end, wire.end))
        for wire in circuit.netlist.wires
    )
    return Graph(replace(circuit, netlist=Netlist(tuple(devices), wires)))


def _fed_by(graph: Graph, contactor: str, device: str) -> frozenset[str]:
    """Return the terminals of a device that have a line with one contactor in."""
    at = _lines_at(graph, {contactor})
    return frozenset(
        end
        for end in graph.kinds[device].terminals
        if end != "PE" and at.get(graph.net(device, end))
    )


def _autotransformer_pairs(graph: Graph, contactors: list[str]) -> Iterator[frozenset[str]]:
    """Return star point with run: the line on a tap while the star point is made.

    The section above the tap is bridged, and the one below gets far more than its volts.
    """
    for item in graph.of_type("autox"):
        ends = [end for end in item.terminals if end[1:] == "0"]
        stars = []
        for name in contactors:
            joined = graph.spread(
                {graph.net(item.id, ends[0])},
                lambda edge, name=name: edge.link.kind == "pole" and edge.device.id == name,  # type: ignore[misc]  # mypy does not infer a lambda with a default
            )
            if len(ends) > 1 and all(graph.net(item.id, end) in joined for end in ends[1:]):
                stars.append(name)
        runs = [
            name
            for name in contactors
            if any(end[1:] not in {"0", "100"} for end in _fed_by(graph, name, item.id))
        ]
        yield from (frozenset({star, run}) for star in stars for run in runs if star != run)


def _speed_pairs(graph: Graph, contactors: list[str]) -> Iterator[frozenset[str]]:
    """Return the contactors that feed one motor for two pole numbers at once."""
    for item in graph.circuit.netlist.devices:
        if not has_two_speeds(item):
            continue
        fed = {name: _fed_by(graph, name, item.id) for name in contactors}
        low = [name for name, ends in fed.items() if ends and ends <= _LOW_LEADS]
        high = [name for name, ends in fed.items() if ends and not ends & _LOW_LEADS]
        yield from (frozenset({one, other}) for one in low for other in high)


def lines_behind_drive(graph: Graph, closed: set[str]) -> tuple[str, ...]:
    """Return the drives whose output the lines reach with some contactors in.

    Parameters
    ----------
    graph : Graph
        The circuit.
    closed : set of str
        Ids of contactors that are in; every switch is closed.
    """
    drives = graph.of_type("drive")
    at = _lines_at(graph, closed) if drives else {}
    return tuple(
        item.id for item in drives if any(at.get(graph.net(item.id, end)) for end in DRIVE_OUTPUT)
    )


def _drive_pairs(graph: Graph, contactors: list[str]) -> Iterator[frozenset[str]]:
    """Return the contactors that lead the lines to the output of a drive together."""
    alone = [name for name in contactors if not lines_behind_drive(graph, {name})]
    for pair in combinations(alone, 2):
        if lines_behind_drive(graph, set(pair)):
            yield frozenset(pair)


def power_problems(graph: Graph) -> Iterator[Problem]:
    """Go through H08, H09, H27, H28 and H45 as far as the graph tells them.

    Parameters
    ----------
    graph : Graph
        The circuit.
    """
    yield from _shorts(graph)
    yield from _unlocked(graph)
    yield from _heaters(graph)
    yield from _taps(graph)


def _shorts(graph: Graph) -> Iterator[Problem]:
    """Find two lines on one net: at rest, or with one contactor in."""
    circuit = graph.circuit
    at = {net: terminal for terminal, net in reversed(list(graph.nets.items()))}
    resting = [(net, lines) for net, lines in _lines_at(graph, set()).items() if len(lines) > 1]
    if resting:
        net, lines = resting[0]
        said = " and ".join(sorted(lines))
        yield problem(circuit, "H45", "error", "short_rest", at[net], lines=said)
        return
    for turned in positions_of(circuit):
        for net, lines in _lines_at(graph, set(), turned).items():
            if len(lines) > 1:
                said = " and ".join(sorted(lines))
                yield problem(circuit, "H45", "error", "short_in", *turned, at[net], lines=said)
                break
    for item in graph.of_type("contactor"):
        for net, lines in _lines_at(graph, {item.id}).items():
            if len(lines) > 1:
                yield problem(
                    circuit,
                    "H45",
                    "error",
                    "short_in",
                    item.id,
                    at[net],
                    lines=" and ".join(sorted(lines)),
                )
                break


def _unlocked(graph: Graph) -> Iterator[Problem]:
    """Find pairs that short the lines together and that no contact keeps apart."""
    circuit = graph.circuit
    for pair in exclusive_pairs(graph):
        one, other = sorted(pair)
        open_: list[str] = []
        for first, second in ((one, other), (other, one)):
            if not _is_locked(graph, first, second):
                open_.append(first)
        mechanical = any(
            {one, other} - {name} <= set(graph.kinds[name].parameters.get("mech", "").split("+"))
            for name in pair
        )
        if open_:
            is_bare = len(open_) == 2 and not mechanical
            yield problem(
                circuit,
                "H08",
                "error" if is_bare else "doubt",
                "no_interlock" if len(open_) == 2 else "half_interlock",
                *open_,
                *(name for name in (one, other) if name not in open_),
                mechanical="with" if mechanical else "without",
                harm=say(Message(f"check.harm.{_harm(graph, pair)}")),
            )


def _harm(graph: Graph, pair: frozenset[str]) -> str:
    """Return what two contactors do together: short lines, bridge a section, or two speeds."""
    both = sorted(pair)
    if pair in set(_autotransformer_pairs(graph, both)):
        return "section"
    if lines_behind_drive(graph, set(pair)):
        return "drive"
    return "speeds" if pair in set(_speed_pairs(graph, both)) else "lines"


def _is_locked(graph: Graph, first: str, second: str) -> bool:
    """Tell whether a coil cannot be fed while another contactor's opening contacts are open."""
    opened: set[Place] = {
        (second, edge.link.name)
        for edge in graph.edges
        if edge.device.id == second and edge.link.kind in {"nc", "nc_late"}
    }
    return bool(opened) and first not in graph.reached(opened, holds=True).coils


def _heaters(graph: Graph) -> Iterator[Problem]:
    """Find motor leads that reach a line past the heaters of their own relay."""
    circuit = graph.circuit
    lines = graph.line_nets()
    for motor in circuit.netlist.devices:
        if not motor.type.startswith("motor"):
            continue
        _, overloads = feeds_of(graph, motor.id)
        if not overloads or graph.of_type("autox"):
            continue
        bridged = bridges_of(graph)
        past, behind = [], False
        for end in motor.terminals:
            start = graph.net(motor.id, end)
            ways = [
                way
                for way in graph.paths(start, lines, lambda edge: edge.link.kind in _WAY)
                if not any(edge.device.id in bridged for edge in way)
            ]
            bare = [
                way
                for way in ways
                if not any(edge.device.type == "olr" and edge.link.kind == "heat" for edge in way)
            ]
            behind = behind or len(bare) < len(ways)
            if bare:
                past.append(f"{motor.id}.{end}")
        # the far ends of six leads go to the delta contactor without heaters, by purpose
        most = 3 if len(motor.terminals) > 4 else 0
        two = any(graph.kinds[relay].parameters.get("heaters") == "2" for relay in overloads)
        if behind and len(past) > most and not two:
            yield problem(circuit, "H09", "error", "past_heaters", *past, *sorted(overloads))
        elif behind and two:
            yield problem(circuit, "H09", "doubt", "two_heaters", *sorted(overloads), motor.id)


def _taps(graph: Graph) -> Iterator[Problem]:
    circuit = graph.circuit
    for item in graph.of_type("autox"):
        used: dict[str, str] = {}
        for end in item.terminals:
            if end[1:] in {"0", "100"} or not graph.is_wired(f"{item.id}.{end}"):
                continue
            used[end[0]] = end[1:]
        if len(set(used.values())) > 1:
            places = [f"{item.id}.{leg}{tap}" for leg, tap in sorted(used.items())]
            common = max(set(used.values()), key=list(used.values()).count)
            edits = []
            for leg, tap in used.items():
                here = f"{item.id}.{leg}{tap}"
                if tap != common:
                    edits += [
                        Edit(
                            id=f"fix.{wire.id}",
                            kind="move_end",
                            wire=wire.id,
                            start=here,
                            end=f"{item.id}.{leg}{common}",
                        )
                        for wire in circuit.netlist.wires_at(here)
                    ]
            yield problem(
                circuit, "H27", "error", "taps", *places, edits=tuple(edits), tap=f"{common} %"
            )
    for item in graph.of_type("autox"):
        yield problem(circuit, "H28", "note", "taps_live", item.id)
