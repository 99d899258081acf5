"""The contact states of each way to start: what is joined to what, and when.

A gap of an open transition lasts as long as one contactor needs to open, its arc
to go out and the next one to close; autotransformer and resistor are usual ones,
not this job's. Source: CIRCUITS of star-delta, part-winding, autotransformer and
primary-resistor starters; Korndorfer closed transition (textbook motor starting).

Units: [s], [V], [ohm].
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from math import sqrt
from typing import Literal

from evencoil.leads import Derived
from evencoil.run_up.facts import Facts
from evencoil.run_up.single import single_sources
from evencoil.solver import constants
from evencoil.solver.motor import Element, Group, Port, Row, Step, Wiring, three_phase
from evencoil.winding import LINES, Connection, Joint, joinings

__all__ = ["TAPS", "Method", "Plan", "method_plan", "open_gap_s", "run_port", "wiring_of"]

Method = Literal[
    "as_joined",
    "full_voltage",
    "wye_delta",
    "part_winding",
    "autotransformer_80",
    "autotransformer_65",
    "autotransformer_50",
    "resistor_65",
    "speed_low",
    "speed_high",
    "speed_low_high",
    "rotor_resistor",
    "single_phase",
]

#: taps of an autotransformer, percent of the line's volts
TAPS: Mapping[Method, int] = {
    "autotransformer_80": 80,
    "autotransformer_65": 65,
    "autotransformer_50": 50,
}
#: judgment: magnetizing current of a starting autotransformer over the motor's rated one
_MAGNETIZING = 0.09
_LEAK, _COPPER = 0.0091, 0.0023
#: the middle step of a closed transition: star point open, the upper part a reactor
_CLOSED_STEP_S = 0.06
_RESISTOR_PART = 0.65
#: judgment: resistors of a closed wye-delta transition, of the rated impedance of a coil
_CLOSED_PART = 0.67


def open_gap_s() -> float:
    """Return how long an open transition leaves the motor without supply [s]."""
    known = constants()
    return (known["contactor_out_us"] + known["arc_us"] + known["contactor_in_us"]) / 1e6


@dataclass(frozen=True, slots=True)
class Plan:
    """A start in steps: how to make them for a time of the first one.

    Attributes
    ----------
    has_timer : bool
        Whether a timer ends the first state.
    states : tuple of (str, Port, float)
        Name, network, and how long it lasts; the first lasts as the timer says.
    legs : tuple of tuple of str
        Leads that each heater of the relay feeds; empty where the heaters are in the lines.
    leg_part : float
        Rated current behind a heater, as a part of the motor's.
    from_rad_s : mapping
        Speed at which a state begins, by its name, where no timer decides it. [rad/s]
    full_rad_s : float or None
        Rated speed of the last state, where it is not the motor's. [rad/s]
    leg_times : mapping
        What a heater's current counts for in a state, by its name: a relay of its own, set lower.
    halfway_rad_s : float or None
        Below this speed the first state did not do its work; None is half the rated one. [rad/s]
    """

    method: Method
    has_timer: bool
    states: tuple[tuple[str, Port, float], ...]
    legs: tuple[tuple[str, ...], ...] = ()
    leg_part: float = 1.0
    from_rad_s: Mapping[str, float] = field(default_factory=dict)
    full_rad_s: float | None = None
    halfway_rad_s: float | None = None
    leg_times: Mapping[str, float] = field(default_factory=dict)

    def steps(self, first_s: float) -> tuple[Step, ...]:
        """Return the steps when the first state lasts so long.

        The time of every state after the first is counted from the end of the one before.
        """
        at, made = 0.0, []
        for place, (name, port, lasting) in enumerate(self.states):
            rows = _legs(port, self.legs)
            times = self.leg_times.get(name, 1.0)
            if times != 1.0:
                rows = tuple((one * times, tuple(k * times for k in more)) for one, more in rows)
            made.append(Step(at, name, port, rows, self.from_rad_s.get(name)))
            at += first_s if place == 0 else lasting
        return tuple(made)


def _legs(port: Port, legs: Sequence[Sequence[str]]) -> tuple[Row, ...]:
    """Return the rows of the currents through the relay's heaters."""
    if not legs:
        return tuple(port.line_row(line) for line in LINES if line in port.sources)
    rows = []
    for leads in legs:
        constant, factors = 0j, [0j] * len(port.drive)
        for place, coil in enumerate(port.machine.coils):
            sign = (coil.start in leads) - (coil.end in leads)
            if sign:
                own, by_gap = port.coil_row(place)
                constant += sign * own
                factors = [one + sign * other for one, other in zip(factors, by_gap, strict=True)]
        rows.append((constant, tuple(factors)))
    return tuple(rows)


def wiring_of(
    facts: Facts,
    joints: Sequence[Joint],
    *,
    open_lines: Sequence[str] = (),
    is_dead: bool = False,
) -> Wiring:
    """Return the wiring of some joints on the supply of the job.

    Parameters
    ----------
    facts : Facts
        Volts and fault current.
    joints : sequence of Joint
        Leads together, and the lines on them.
    open_lines : sequence of str
        Lines without supply.
    is_dead : bool
        All lines are open.
    """
    lost = LINES if is_dead else tuple(open_lines)
    if facts.single is None:
        sources = three_phase(facts.line_v, facts.fault_a, open_lines=lost)
    else:
        sources = tuple(
            one for one in single_sources(facts.line_v, facts.fault_a) if one[0] not in lost
        )
    return Wiring(
        sources=sources,
        joined=tuple(
            (
                *(line if line not in lost else f"{line} open" for line in joint.lines),
                *(lead for lead in joint.leads if lead not in joint.lines),
            )
            for joint in joints
        ),
    )


def run_port(facts: Facts) -> Port:
    """Return the motor as it runs.

    Parameters
    ----------
    facts : Facts
        The motor and its supply.
    """
    return Port(facts.machine, wiring_of(facts, facts.connection.joints))


def method_plan(
    facts: Facts,
    method: Method,
    states: Derived,
    *,
    jumpers: Connection | None = None,
    has_other_transition: bool = False,
) -> Plan:
    """Return the states of one way to start.

    Parameters
    ----------
    facts : Facts
        The motor.
    method : str
        Which way.
    states : Derived
        Of this way: ``start`` and ``run`` of a start in two steps.
    jumpers : Connection or None
        Another delta to go over to than the derived one.
    has_other_transition : bool
        Closed instead of open for wye-delta, open instead of closed for an autotransformer.
    """
    if facts.kind == "two_speed":
        return _two_speed(facts, method, states)
    run = jumpers or states.states.get("run") or states.connection
    if facts.single is not None:
        return _single(facts, method, run)
    if method == "rotor_resistor":
        return _rotor(facts, run)
    last = ("run", Port(facts.machine, wiring_of(facts, run.joints)), 0.0)
    if method in {"as_joined", "full_voltage"}:
        return Plan(method, has_timer=False, states=(last,))
    if method in {"wye_delta", "part_winding"}:
        return _by_leads(facts, method, states, last, is_closed=has_other_transition)
    return _by_gear(facts, method, run, last, is_open=has_other_transition)


def _by_leads(
    facts: Facts,
    method: Method,
    states: Derived,
    last: tuple[str, Port, float],
    *,
    is_closed: bool,
) -> Plan:
    """Return a start in which the starter switches the motor's leads."""
    start = states.states["start"]
    first = ("start", Port(facts.machine, wiring_of(facts, start.joints)), 0.0)
    fed = [joint for joint in start.joints if joint.lines]
    legs = tuple(tuple(lead for lead in joint.leads if lead not in joint.lines) for joint in fed)
    if facts.heaters == "line":
        # one relay in the lines, ahead of all contactors
        legs = ()
    if method == "part_winding":
        return Plan(
            method,
            has_timer=True,
            states=(first, last),
            legs=legs,
            leg_part=0.5 if legs else 1.0,
        )
    star = _star([joint for joint in start.joints if not joint.lines])
    kept = [joint for joint in start.joints if joint is not star]
    gap = ("gap", Port(facts.machine, wiring_of(facts, kept, is_dead=True)), open_gap_s())
    if is_closed:
        gap = ("resistor", Port(facts.machine, _through_resistors(facts, states)), _CLOSED_STEP_S)
    part = 1 / sqrt(3) if legs else 1.0
    return Plan(method, has_timer=True, states=(first, gap, last), legs=legs, leg_part=part)


def _by_gear(
    facts: Facts,
    method: Method,
    run: Connection,
    last: tuple[str, Port, float],
    *,
    is_open: bool,
) -> Plan:
    """Return a start on taps of an autotransformer or behind resistors."""
    # the overload relay lies next to the motor, behind resistors and taps
    behind = tuple(
        tuple(lead for lead in joint.leads if lead not in joint.lines)
        for joint in run.joints
        if joint.lines
    )
    if method == "resistor_65":
        first = ("start", Port(facts.machine, _with_resistor(facts, run)), 0.0)
        return Plan(method, has_timer=True, states=(first, last), legs=behind)
    tap = TAPS[method] / 100
    first = ("start", Port(facts.machine, _on_tap(facts, run, tap, is_star_closed=True)), 0.0)
    if is_open:
        dead = Port(facts.machine, wiring_of(facts, run.joints, is_dead=True))
        gap = ("gap", dead, open_gap_s())
        return Plan(method, has_timer=True, states=(first, gap, last), legs=behind)
    opened = Port(facts.machine, _on_tap(facts, run, tap, is_star_closed=False))
    middle = ("reactor", opened, _CLOSED_STEP_S)
    return Plan(method, has_timer=True, states=(first, middle, last), legs=behind)


def _two_speed(facts: Facts, method: Method, states: Derived) -> Plan:
    """Return a start at one of two speeds, or at the low one and then over to the high one."""
    low = facts.low
    if low is None:
        raise RuntimeError("a two-speed motor has a low speed")
    slow = Port(facts.machine, wiring_of(facts, states.states["low"].joints))
    fast = Port(facts.machine, wiring_of(facts, states.states["high"].joints))
    # each speed has its relay, set to its own amps
    times = facts.amps_a / low.amps_a
    if method == "speed_low":
        return Plan(
            method,
            has_timer=False,
            states=(("run", slow, 0.0),),
            leg_times={"run": times},
            full_rad_s=low.rated_rad_s,
        )
    if method == "speed_high":
        return Plan(method, has_timer=False, states=(("run", fast, 0.0),))
    gap = Port(facts.machine, wiring_of(facts, states.states["low"].joints, is_dead=True))
    return Plan(
        method,
        has_timer=True,
        states=(("start", slow, 0.0), ("gap", gap, open_gap_s()), ("run", fast, 0.0)),
        leg_times={"start": times, "gap": times},
        halfway_rad_s=0.5 * low.rated_rad_s,
    )


def _single(facts: Facts, method: Method, run: Connection) -> Plan:
    """Return the start of a single-phase motor: its start circuit opens by speed, if it does."""
    start = facts.single
    if start is None:
        raise RuntimeError("a single-phase motor has a start circuit")
    wiring = wiring_of(facts, run.joints)
    first = ("start", Port(start.machine, wiring), 0.0)
    if start.opens_rad_s is None:
        return Plan(method, has_timer=False, states=(("run", first[1], 0.0),))
    last = ("run", Port(facts.machine, wiring), 0.0)
    return Plan(
        method, has_timer=False, states=(first, last), from_rad_s={"run": start.opens_rad_s}
    )


def _rotor(facts: Facts, run: Connection) -> Plan:
    """Return the start of a wound rotor: its resistor is cut out step by step."""
    rotor = facts.rotor
    if rotor is None:
        raise RuntimeError("a wound-rotor motor has a rotor circuit")
    wiring = wiring_of(facts, run.joints)
    states, speeds = [], {}
    for place, (times, from_rad_s) in enumerate(
        zip(rotor.times, rotor.from_rad_s, strict=True), start=1
    ):
        is_last = place == len(rotor.times)
        name = "run" if is_last else f"resistor {place}"
        gaps = tuple(replace(gap, ri=gap.ri * times) for gap in facts.machine.gaps)
        machine = facts.machine if is_last else replace(facts.machine, gaps=gaps)
        states.append((name, Port(machine, wiring), 0.0))
        if place > 1:
            speeds[name] = from_rad_s
    return Plan("rotor_resistor", has_timer=False, states=tuple(states), from_rad_s=speeds)


def _star(between: Sequence[Joint]) -> Joint | None:
    """Return the joint that makes the star: the largest one without a line."""
    return max(between, key=lambda joint: len(joint.leads), default=None)


def _through_resistors(facts: Facts, states: Derived) -> Wiring:
    """Return the motor between wye and delta: its ends on the lines through resistors."""
    run, start = states.states["run"], states.states["start"]
    fed = {lead for joint in start.joints if joint.lines for lead in joint.leads}
    joined, elements = [], []
    for joint in run.joints:
        leads = [lead for lead in joint.leads if lead not in joint.lines]
        near = [lead for lead in leads if lead in fed]
        far = [lead for lead in leads if lead not in fed]
        joined += [(*joint.lines, *near)] + ([tuple(far)] if far else [])
        if joint.lines and far:
            ohm = _CLOSED_PART * facts.line_v / facts.coil_a
            elements.append(Element(joint.lines[0], far[0], complex(ohm)))
    return Wiring(
        sources=three_phase(facts.line_v, facts.fault_a),
        joined=tuple(joined),
        elements=tuple(elements),
    )


def _behind(run: Connection) -> tuple[tuple[str, ...], ...]:
    """Return the joints of the running motor, its lines at the far side of something."""
    found = []
    for joint in run.joints:
        leads = [lead for lead in joint.leads if lead not in joint.lines]
        found.append((*(f"motor {line}" for line in joint.lines), *leads))
    return tuple(found)


def _with_resistor(facts: Facts, run: Connection) -> Wiring:
    """Return the motor behind resistors that leave it 65 % of its volts at standstill."""
    if facts.fitted is None:
        raise RuntimeError("only a three-phase motor starts behind resistors in its lines")
    circuit = facts.fitted.circuit
    locked = circuit.line_v / sqrt(3) / circuit.at(1.0).line_a
    # |z + r| = |z| / part, for a resistance in front of the motor
    real, whole = locked.real, abs(locked) / _RESISTOR_PART
    ohm = -real + sqrt(whole**2 - locked.imag**2)
    return Wiring(
        sources=three_phase(facts.line_v, facts.fault_a),
        joined=_behind(run),
        elements=tuple(Element(line, f"motor {line}", complex(ohm)) for line in LINES),
    )


def _on_tap(facts: Facts, run: Connection, tap: float, *, is_star_closed: bool) -> Wiring:
    """Return the motor on the taps of a three-leg autotransformer, or behind its upper part."""
    base = facts.line_v / sqrt(3) / facts.amps_a
    turns = (tap, 1 - tap)
    main = base / _MAGNETIZING
    ohm = tuple(
        tuple(
            1j * main * one * other + (complex(_COPPER, _LEAK) * base * one if place == at else 0)
            for at, other in enumerate(turns)
        )
        for place, one in enumerate(turns)
    )
    groups = []
    for line in LINES:
        low = "star" if is_star_closed else f"star {line}"
        groups.append(Group(((f"motor {line}", low), (line, f"motor {line}")), ohm))
    return Wiring(
        sources=three_phase(facts.line_v, facts.fault_a),
        joined=_behind(run),
        groups=tuple(groups),
    )


def other_jumpers(facts: Facts, run: Connection) -> Connection | None:
    """Return the delta of the other jumper set, where the winding has one.

    Parameters
    ----------
    facts : Facts
        The motor.
    run : Connection
        The delta of this job.
    """
    named = {known.name: known for known in joinings(facts.winding.kind)}
    if run.name.endswith("_crossed"):
        return named.get(run.name.removesuffix("_crossed"))
    return named.get(f"{run.name}_crossed")
