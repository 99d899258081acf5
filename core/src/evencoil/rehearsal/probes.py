"""Probes of a circuit: what could start it, hold it or cross it without being asked.

Each family plays many short scenarios on the circuit as it is drawn, right or wrong,
and looks for hazards. It says how many were played, so that "none found" is never
more than it is, and gives the shortest that breaks the circuit.

Rules (own words): no start when power comes back, an overload is reset or an
emergency stop is let go; a stop stops, also when its own wire breaks; two
directions never conduct together, not even with one contactor welded; a ground
fault neither starts nor holds the motor. Units: time [us] inside, none outside.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import permutations, product
from typing import Literal

from evencoil.base import CoreError, Message
from evencoil.circuit import TURNED, Circuit, is_jog, is_jog_word, is_off_word, links_of, turns_of
from evencoil.rehearsal.hazards import Hazard
from evencoil.rehearsal.stage import ScenarioAct, Stage
from evencoil.rehearsal.trace import Trace

__all__ = [
    "FAMILIES",
    "Family",
    "Probe",
    "act_at",
    "gaps_of",
    "opening_of",
    "probes",
    "single_acts",
    "starts_of",
    "stops_of",
]

Family = Literal[
    "power_back",
    "overload_reset",
    "estop_release",
    "isolator_back",
    "stop",
    "stop_wire",
    "interlock",
    "ground",
]
FAMILIES: tuple[Family, ...] = (
    "power_back",
    "overload_reset",
    "estop_release",
    "isolator_back",
    "stop",
    "stop_wire",
    "interlock",
    "ground",
)
_SECOND = 1_000_000
_STILL = {"off", "coast", "hum"}
#: longer than every timer of the catalogue
_WAIT = 40 * _SECOND
#: until an overload that resets itself has cooled
_COOLS = 150 * _SECOND
_MOST_STARTS = 6
#: seconds between what takes a motor off and what gives it back: longer than what a program
#: needs to notice a fault and keep it, and shorter
GAPS_S = (4.0, 0.3)
#: a drive does not catch a machine that still turns: until it has coasted to rest
_REST_S = 12.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Probe:
    """What one family found.

    Attributes
    ----------
    family : str
        What was tried.
    holds : bool
        Nothing was found; it says nothing where nothing was tried.
    searched : int
        Scenarios that were played.
    acts : tuple of Message
        The shortest sequence that breaks it; empty if nothing does.
    hazard : Hazard or None
        What happens then, with its chain of causes.
    """

    family: Family
    holds: bool
    searched: int
    acts: tuple[Message, ...]
    hazard: Hazard | None

    @property
    def is_tried(self) -> bool:
        """Tell whether there was anything to try: else nothing is known."""
        return self.searched > 0


def act_at(second: float, do: str, on: str = "", word: str = "") -> ScenarioAct:
    """Return an act at a second of a scenario.

    Parameters
    ----------
    second : float
        From the start. [s]
    do : str
        press, push, turn, dip ...
    on : str
        Device id or tag; empty for the supply.
    word : str
        What the verb needs besides.
    """
    return ScenarioAct(at_us=round(second * _SECOND), do=do, on=on, word=word)


def opening_of(circuit: Circuit) -> list[ScenarioAct]:
    """Return every main device closed, as before anybody starts anything.

    Parameters
    ----------
    circuit : Circuit
        As drawn or as found.
    """
    kinds = {"cb3", "fdisc", "mms"}
    return [act_at(0, "close", item.id) for item in circuit.netlist.devices if item.type in kinds]


def gaps_of(circuit: Circuit) -> tuple[float, ...]:
    """Return how long what takes a motor off is left, before it is given back [s].

    Parameters
    ----------
    circuit : Circuit
        As drawn or as found.
    """
    has_drive = any(item.type == "drive" for item in circuit.netlist.devices)
    return (*GAPS_S, _REST_S) if has_drive else GAPS_S


def single_acts(circuit: Circuit) -> list[ScenarioAct]:
    """Return each thing that one hand or one sensor can do to start something.

    Parameters
    ----------
    circuit : Circuit
        As drawn or as found.
    """
    found = []
    for item in circuit.netlist.devices:
        if item.type == "pb":
            found.append(act_at(2, "push", item.id))
        elif item.type == "pilot":
            found.append(act_at(2, "on", item.id))
        elif item.type in TURNED:
            found += [act_at(1, "turn", item.id, word) for word in turns_of(item)]
    return found


def _later(act: ScenarioAct, by: float = 2.0) -> ScenarioAct:
    return replace(act, at_us=act.at_us + round(by * _SECOND))


def _runs(trace: Trace) -> bool:
    last = trace.frames[-1]
    return any(motor.word not in _STILL for motor in last.motors.values())


def starts_of(stage: Stage) -> tuple[tuple[ScenarioAct, ...], ...]:
    """Return the one or two actions that get a motor to run and stay running.

    Parameters
    ----------
    stage : Stage
        The circuit, ready to be rehearsed.
    """
    circuit = stage.circuit
    opening, single = opening_of(circuit), single_acts(circuit)
    turned = [act for act in single if act.do == "turn"]
    others = [act for act in single if act.do != "turn"]
    tries = [
        (),
        *((act,) for act in single),
        *((one, two) for one in turned for two in others),
        *((one, _later(two)) for one, two in permutations(others, 2)),
        # a selector, a sensor, and the reset of a master relay
        *(
            (one, two, _later(three, 0.5))
            for one in turned
            for two in others
            for three in others
            if two.do == "on" and three.do == "push"
        ),
        # a selector, and two levels one above the other
        *(
            (one, two, _later(three, 0.5))
            for one in turned
            for two, three in permutations(others, 2)
            if two.do == "on" and three.do == "on"
        ),
    ]
    found: list[tuple[ScenarioAct, ...]] = []
    for acts in tries:
        if any({act.on for act in known} <= {act.on for act in acts} for known in found):
            continue
        # a delay of five seconds may lie between the last act and the motor
        trace = stage.play([*opening, *acts], until_us=round(7.9 * _SECOND))
        if _runs(trace):
            found.append(acts)
        if len(found) >= _MOST_STARTS:
            break
    return tuple(found)


def stops_of(circuit: Circuit) -> list[str]:
    """Return the buttons that break something: their used contacts are normally closed.

    Parameters
    ----------
    circuit : Circuit
        As drawn or as found.
    """
    wired = {end for wire in circuit.netlist.wires for end in (wire.start, wire.end)}
    found = []
    for item in circuit.netlist.devices:
        if item.type != "pb":
            continue
        used = [link for link in links_of(item) if f"{item.id}.{link.a}" in wired]
        if used and all(link.kind.startswith("nc") for link in used):
            found.append(item.id)
    return found


def _of_type(circuit: Circuit, kind: str) -> list[str]:
    return [item.id for item in circuit.netlist.devices if item.type == kind]


#: how long a family is played on after its last act, where that is not eight seconds
_AFTER: Mapping[Family, int] = {"power_back": _WAIT, "overload_reset": _COOLS}
Starts = Sequence[tuple[ScenarioAct, ...]]
Scenarios = Iterator[tuple[Circuit, list[ScenarioAct]]]


def _after(circuit: Circuit, starts: Starts, kind: str, first: str, then: str) -> Scenarios:
    """Start, then do two things to each device of a kind: with time to be noticed, and at once."""
    for start, device in product(starts, _of_type(circuit, kind)):
        begun = [*opening_of(circuit), *start, act_at(8, first, device)]
        for later_s in gaps_of(circuit):
            yield circuit, [*begun, act_at(8 + later_s, then, device)]


def _stopped(circuit: Circuit, starts: Starts) -> Scenarios:
    """Start, then stop by each stop, limit, OFF, hot winding and trip; and jog from rest."""
    for start in starts:
        for act in _stopping(circuit):
            yield circuit, [*opening_of(circuit), *start, act]
    turns = [[act] for act in single_acts(circuit) if act.do == "turn"]
    turned: list[list[ScenarioAct]] = [[], *turns]
    for item in circuit.netlist.devices:
        for first in turned:
            at_jog = any(is_jog_word(act.word) for act in first)
            if item.type == "pb" and (at_jog or is_jog(item)):
                yield circuit, [*opening_of(circuit), *first, act_at(8, "push", item.id)]


def _isolated(circuit: Circuit, starts: Starts) -> Scenarios:
    """Open an isolator, start, close it; and the same with the motor running before."""
    contactors = _of_type(circuit, "contactor")
    stage = Stage(circuit)
    for item in circuit.netlist.devices:
        if item.type not in {"cb3", "fdisc", "isolator"}:
            continue
        for start, second in product(starts, (0.5, 8)):
            acts = [*opening_of(circuit), *start, act_at(second, "open", item.id)]
            frames = stage.play(acts, until_us=11 * _SECOND).frames
            words = next((frame.words for frame in reversed(frames) if frame.words), {})
            # what no contactor waits for is the start on the power coming back
            waits = any(words.get(name) == "1" for name in contactors)
            yield circuit, [*acts, act_at(12, "close", item.id)] if waits else acts
        for start, (selector, word) in product(starts, _other_supplies(circuit)):
            yield (
                circuit,
                [
                    *opening_of(circuit),
                    act_at(0.4, "open", item.id),
                    act_at(0.5, "turn", selector, word),
                    *start,
                    act_at(12, "close", item.id),
                ],
            )


def _other_supplies(circuit: Circuit) -> list[tuple[str, str]]:
    """Return the selectors, with a position each, that put the controls on another source."""
    nets, devices = circuit.netlist.nets(), circuit.netlist.devices
    live = {nets[f"{item.id}.L"] for item in devices if item.type == "source"}
    for item in devices:
        ends = (
            {nets[f"{item.id}.{end}"] for end in item.terminals} if item.type == "fuse" else set()
        )
        if ends & live:  # its own fuse stands between
            live |= ends
    return [
        (item.id, word)
        for item in devices
        if item.type == "sel"
        for link in links_of(item)
        if {nets[f"{item.id}.{link.a}"], nets[f"{item.id}.{link.b}"]} & live
        for word in link.closes_at.split("+")
    ]


def _stopping(circuit: Circuit) -> list[ScenarioAct]:
    """Return each act after which something must drop out."""
    found = [act_at(8, "push", button) for button in stops_of(circuit)]
    guards = {device for device, _ in circuit.drops}
    for item in circuit.netlist.devices:
        if item.type in TURNED:
            words = {*item.parameters.get("pos", "").split(","), *turns_of(item)}
            found += [
                act_at(8, "turn", item.id, word) for word in sorted(words) if is_off_word(word)
            ]
        if item.type == "pilot" and item.id in guards:
            found.append(act_at(8, "on", item.id))
        if item.type == "estop":
            found.append(act_at(8, "press", item.id))
        if item.type == "olr":
            found.append(act_at(8, "trip", item.id))
        if item.type.startswith("motor") and _watches_heat(circuit):
            found.append(act_at(8, "temp", item.id, "250"))
    return found


def _watches_heat(circuit: Circuit) -> bool:
    kinds = {"thermostat", "ptc", "rtdmon"}
    return any(item.type in kinds for item in circuit.netlist.devices)


def _scenarios(family: Family, circuit: Circuit, starts: Starts) -> Scenarios:
    """Return the scenarios of a family, the shortest first."""
    if family == "power_back":
        opening = opening_of(circuit)
        return iter(
            (circuit, [*opening, *start, act_at(8, "dip", "", f"{gap_s:g}")])
            for start, gap_s in product(starts, gaps_of(circuit))
        )
    if family == "overload_reset":
        return _after(circuit, starts, "olr", "trip", "reset")
    if family == "estop_release":
        return _after(circuit, starts, "estop", "press", "twist")
    return _OTHERS[family](circuit, starts)


def _cut(circuit: Circuit, starts: Starts) -> Scenarios:
    """Break each wire of each stop button, then start and stop."""
    for start, button in product(starts, stops_of(circuit)):
        begun = [*opening_of(circuit), *start]
        links = links_of(circuit.netlist.device(button))
        ends = {f"{button}.{end}" for link in links for end in (link.a, link.b)}
        for wire in circuit.netlist.wires:
            if not {wire.start, wire.end} & ends:
                continue
            rest = tuple(one for one in circuit.netlist.wires if one.id != wire.id)
            broken = replace(circuit, netlist=replace(circuit.netlist, wires=rest))
            yield broken, [*begun, act_at(8, "push", button)]


def _crossed(circuit: Circuit, starts: Starts) -> Scenarios:
    """Start one way and then the other, also with the contactor that is in welded."""
    if not circuit.never_together:
        return
    opening = opening_of(circuit)
    exclusive = {device for pair in circuit.never_together for device in pair}
    stage = Stage(circuit)

    def closed_at(acts: tuple[ScenarioAct, ...], second: float) -> list[str]:
        frames = stage.play([*opening, *acts], until_us=round(second * _SECOND)).frames
        words = next((frame.words for frame in reversed(frames) if frame.words), {})
        return sorted(name for name in exclusive if words.get(name) == "1")

    for one, two in permutations(starts, 2):
        later = [act_at(8, act.do, act.on, act.word) for act in two]
        yield circuit, [*opening, *one, *later]
        both = [act_at(2.05, act.do, act.on, act.word) for act in two]
        yield circuit, [*opening, *one, *both]
        for contactor in closed_at(one, 6):
            yield circuit, [*opening, *one, act_at(6, "weld", contactor), *later]
    for one, second in product(starts, (3, 12)):
        # what closes one after the other by itself: star and delta, bridge and run
        again = [act_at(30, act.do, act.on, act.word) for act in one]
        for contactor in closed_at(one, second):
            weld = act_at(second, "weld", contactor)
            stops = [act_at(24, "push", button) for button in stops_of(circuit)]
            yield circuit, [*opening, *one, weld, *stops, *again]


def _grounded(circuit: Circuit, starts: Starts) -> Scenarios:
    """Ground one terminal of each control net, stopped and running, then stop."""
    opening, stops = opening_of(circuit), stops_of(circuit)
    seen: set[int] = set()
    nets = circuit.netlist.nets()
    kinds = {"pb", "sel", "pilot", "estop"}
    places = []
    for item in circuit.netlist.devices:
        ends = [f"{item.id}.{end}" for end in item.terminals]
        if item.type in {"contactor", "relay", "timer"}:
            ends = [end for end in ends if end.endswith((".A1", ".A2"))]
        elif item.type not in kinds:
            continue
        for end in ends:
            if nets[end] not in seen and len(circuit.netlist.wires_at(end)):
                seen.add(nets[end])
                places.append(end)
    for standing, place in product(_standing_faults(circuit), places):
        yield circuit, [*opening, *standing, act_at(2, "ground", place)]
        for start, button in product(starts[:1], stops):
            yield (
                circuit,
                [
                    *opening,
                    *standing,
                    *start,
                    act_at(8, "ground", place),
                    act_at(12, "push", button),
                ],
            )


def _standing_faults(circuit: Circuit) -> list[list[ScenarioAct]]:
    """Return no fault, and on a system that no one grounded one unseen fault on each line."""
    found: list[list[ScenarioAct]] = [[]]
    for item in circuit.netlist.devices:
        if item.type == "supply" and item.parameters.get("system") in {"delta", "ungrounded"}:
            lines = [end for end in item.terminals if end.startswith("L")]
            found += [[act_at(0.5, "ground", f"{item.id}.{line}")] for line in lines]
    return found


_OTHERS: Mapping[str, Callable[[Circuit, Starts], Scenarios]] = {
    "stop": _stopped,
    "stop_wire": _cut,
    "interlock": _crossed,
    "ground": _grounded,
    "isolator_back": _isolated,
}
_COUNTS = {
    "power_back": {"springs_to_life"},
    "overload_reset": {"springs_to_life"},
    "estop_release": {"springs_to_life"},
    "isolator_back": {"springs_to_life"},
    "stop": {"does_not_stop"},
    "stop_wire": {"does_not_stop"},
    "interlock": {"both_ways", "short"},
    "ground": {"springs_to_life", "does_not_stop"},
}


def probes(circuit: Circuit, families: Sequence[Family] = FAMILIES) -> tuple[Probe, ...]:
    """Return what families of scenarios find on a circuit.

    Parameters
    ----------
    circuit : Circuit
        As drawn or as found.
    families : sequence of str
        Which of `FAMILIES`; all of them unless said.
    """
    stage = Stage(circuit)
    starts = starts_of(stage)
    return tuple(_probe(stage, starts, family) for family in families)


def _probe(stage: Stage, starts: Starts, family: Family) -> Probe:
    circuit = stage.circuit
    searched = 0
    for wiring, acts in _scenarios(family, circuit, starts):
        at = stage if wiring is circuit else Stage(wiring)
        end = max(act.at_us for act in acts) + _AFTER.get(family, 8 * _SECOND)
        try:
            trace = at.play(acts, until_us=end)
        except CoreError:
            continue  # a device that has not this act: nothing was tried
        searched += 1
        for hazard in trace.hazards:
            # opened with nothing waiting behind it, an isolator is not closed again
            is_back = family != "isolator_back" or acts[-1].do == "close"
            if hazard.code in _COUNTS[family] and is_back:
                return Probe(
                    family=family,
                    holds=False,
                    searched=searched,
                    acts=tuple(
                        _said(circuit, act)
                        for act in acts
                        if (act.do != "close" or act.at_us) and act.at_us <= hazard.time_us
                    ),
                    hazard=hazard,
                )
    return Probe(family=family, holds=True, searched=searched, acts=(), hazard=None)


def _said(circuit: Circuit, act: ScenarioAct) -> Message:
    on = circuit.named(act.on)
    return Message(f"probe.act.{act.do}", {"on": on, "word": act.word})
