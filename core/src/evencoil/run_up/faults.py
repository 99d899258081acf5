"""One thing wrong, running and before the start: who carries what, and what it comes to.

A motor that runs with a line lost goes on with the other two and props up the dead
one, so a reading of volts at the motor misleads. At standstill it only hums. Each
fault here is the same motor on the same network with one thing changed, solved
like a sound one. Steady states only: what changes in the first instants is not told.

Units: [A], [V], [rpm], [s], [percent of rated torque].
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from math import log

from evencoil.base import Message
from evencoil.run_up.facts import Facts
from evencoil.run_up.fault_cases import Cause, FaultCase, case_of, causes_of, loose_ohm
from evencoil.solver.motor import (
    WINDING_TAU_S,
    OverloadRelay,
    Port,
    WindingHeat,
    rpm,
)

__all__ = ["FaultSheet", "FaultState", "fault_sheet"]

#: an overload relay that resets by itself does so at this part of its trip level
_RESETS = 0.7
_MOST_TRIPS = 200
_LONGEST_S = 3600.0
_HELD = 0.01
#: above synchronous speed by more than a generating motor's slip at breakdown
_TOP = 1.25


@dataclass(frozen=True, slots=True)
class FaultState:
    """One state of the motor with one thing wrong.

    Attributes
    ----------
    is_running : bool
        Whether the fault came while it ran; else it was there before the start.
    speed_rpm : float
        Where it settles; 0 where it stalls or does not start.
    torque_percent : float
        At standstill, of rated torque; below zero it pulls backward.
    line_a, coil_a : mapping
        By line and by coil. [A]
    hottest_times : float
        Current of the coil that carries most, over its rated one.
    motor_v : mapping
        What a meter shows between the motor's ends of two lines. [V]
    trips_s, burns_s : float or None
        When the relay trips, and the winding passes its class, if it stays so; from the
        heat of rated load where it ran, cold before the start. None: not within an hour. [s]
    """

    cause: Cause
    is_running: bool
    speed_rpm: float
    torque_percent: float
    line_a: Mapping[str, float]
    coil_a: Mapping[str, float]
    hottest: str
    hottest_times: float
    motor_v: Mapping[str, float]
    trips_s: float | None
    burns_s: float | None
    said: Message


@dataclass(frozen=True, slots=True)
class FaultSheet:
    """All states: the sound one first, a lost line and coil next."""

    states: tuple[FaultState, ...]
    findings: tuple[Message, ...]


def _settled(facts: Facts, case: FaultCase) -> float | None:
    """Return the speed at which torque and load meet, coming from above; None if nowhere."""
    machine = facts.machine

    def spare(speed: float) -> float:
        against = case.load.at(speed) + machine.friction_nm(speed)
        return case.at(speed).fields(speed).torque_nm - against

    step = machine.synchronous_rad_s * 0.005
    high = machine.synchronous_rad_s * _TOP
    if spare(high) > 0:
        # driven on, above all that the motor holds
        return None
    low = high
    while spare(low) <= 0:
        high = low
        low -= step
        if low < 0.5 * machine.synchronous_rad_s:
            return None
    for _ in range(50):
        middle = (low + high) / 2
        low, high = (middle, high) if spare(middle) > 0 else (low, middle)
    return low


def _starts(facts: Facts, case: FaultCase, speed: float | None) -> bool:
    """Tell whether it gets from rest to a speed: torque over the load all the way."""
    at_rest = case.at(0.0).fields(0.0).torque_nm
    # friction alone holds what is less than a hundredth of the rated torque
    least = _HELD * facts.machine.rated_nm
    if speed is None or at_rest < least or case.load.holds(at_rest):
        return False
    return all(
        case.at(speed * part / 40).fields(speed * part / 40).torque_nm
        > case.load.at(speed * part / 40)
        for part in range(1, 39)
    )


def _trip(facts: Facts, amps: list[float], *, is_hot: bool) -> float | None:
    """Return when the relay trips on steady currents [s]; None if not within an hour."""
    start = 1.0 if is_hot else 0.0

    def after(lasting_s: float) -> float:
        heat = [start] * len(amps)
        relay = OverloadRelay(facts.amps_a, facts.relay_class, facts.relay_kind, heat)
        relay.warm(amps, lasting_s)
        return relay.level

    if after(_LONGEST_S) < 1:
        return None
    low, high = 0.0, _LONGEST_S
    for _ in range(45):
        middle = (low + high) / 2
        low, high = (low, middle) if after(middle) >= 1 else (middle, high)
    return high


def _burn(facts: Facts, times: float, *, is_hot: bool) -> float | None:
    """Return when a coil at some multiple of its rated current passes its class [s]."""
    aim, begins = facts.rated_rise_k * times**2, facts.rated_rise_k if is_hot else 0.0
    if aim <= facts.limit_k:
        return None
    found = WINDING_TAU_S * log((aim - begins) / (aim - facts.limit_k))
    return found if found <= _LONGEST_S else None


def _state(
    facts: Facts, case: FaultCase, cause: Cause, speed: float, *, was_running: bool, starts: bool
) -> FaultState:
    port = case.at(speed)
    fields = port.fields(speed)
    rated = _rated(facts, port)
    coils = {
        coil.name: abs(amps)
        for coil, amps in zip(port.machine.coils, port.coil_amps(fields.gap), strict=True)
    }
    hottest = max(coils, key=lambda name: coils[name] / rated[name])
    times = coils[hottest] / rated[hottest]
    told = port.line_amps(fields.gap)
    lines = told if facts.single is None else {line: told[line] for line in ("L1", "L2")}
    volts = port.volts(fields.gap)
    ends = {line: _at_motor(volts, line) for line in lines}
    pairs = [("L1", "L2"), ("L2", "L3"), ("L3", "L1")][: 1 if facts.single else 3]
    torque = 100 * case.at(0.0).fields(0.0).torque_nm / facts.machine.rated_nm
    goes = starts and not was_running
    return FaultState(
        cause=cause,
        is_running=was_running,
        speed_rpm=rpm(speed),
        torque_percent=torque,
        line_a=lines,
        coil_a=coils,
        hottest=hottest,
        hottest_times=times,
        motor_v={f"{one}-{two}": abs(ends[one] - ends[two]) for one, two in pairs},
        # a motor that starts does not stay at rest long enough for either
        trips_s=None if goes else _trip(facts, list(lines.values()), is_hot=was_running),
        burns_s=None if goes else _burn(facts, times, is_hot=was_running),
        said=Message(
            f"run_up.fault.{_ending(case, speed, torque, was_running=was_running, starts=starts)}",
            {
                "what": str(Message(f"run_up.cause.{cause}")),
                "amps": f"{max(lines.values()):.0f}",
                "coil": hottest,
                "times": f"{times:.1f}",
                "rpm": f"{rpm(speed):.0f}",
                "percent": f"{abs(torque):.0f}",
            },
        ),
    )


def _at_motor(volts: Mapping[str, complex], line: str) -> complex:
    """Return the volts of a line at the motor's end of it, behind what is open or loose [V]."""
    for name in (f"behind {line}", line, f"{line} open"):
        if name in volts:
            return volts[name]
    return 0j


def _rated(facts: Facts, port: Port) -> dict[str, float]:
    """Return the rated current of every coil, of those that a fault divides too [A]."""
    known = dict(zip((coil.name for coil in facts.machine.coils), facts.coil_rated_a, strict=True))
    found = {}
    for coil in port.machine.coils:
        whole = coil.name.partition(" ")[0]
        found[coil.name] = known[whole]
    return found


def _ending(
    case: FaultCase, speed: float, torque: float, *, was_running: bool, starts: bool
) -> str:
    if was_running:
        is_driven = case.load.shape == "overhauling"
        return "running" if speed else "runs_away" if is_driven else "stalls"
    if torque < -1:
        return "backward"
    return "starts" if starts else "no_start"


def _states_of(facts: Facts, cause: Cause) -> list[FaultState]:
    case = case_of(facts, cause)
    if cause == "jam":
        return [_state(facts, case, cause, 0.0, was_running=True, starts=False)]
    speed = _settled(facts, case)
    starts = _starts(facts, case, speed)
    found = []
    single = facts.single
    is_for_start = cause == "exchanged" or (
        single is not None
        and (
            (cause == "start_open" and single.opens_rad_s is not None)
            or (cause == "capacitor_weak" and single.run_f is None)
        )
    )
    if not is_for_start:
        found.append(_state(facts, case, cause, speed or 0.0, was_running=True, starts=starts))
    # broken bars weaken a start in a way that a cage of equal bars cannot show
    if cause not in {"sound", "bars"}:
        found.append(_state(facts, case, cause, 0.0, was_running=False, starts=starts))
    return found


def _cycling(facts: Facts, states: list[FaultState]) -> Message:
    """Say what an overload relay that resets by itself does with a rotor that is held."""
    held = next(one for one in states if one.cause == "jam")
    lines, times = list(held.line_a.values()), held.hottest_times
    relay = OverloadRelay(facts.amps_a, facts.relay_class, facts.relay_kind, [0.0] * len(lines))
    winding = WindingHeat((1.0,), facts.rated_rise_k, [0.0])
    spent, step = 0.0, 0.25
    trips, is_on = 0, True
    while spent < _LONGEST_S and trips < _MOST_TRIPS:
        relay.warm(lines if is_on else [0.0] * len(lines), step)
        winding.warm([times if is_on else 0.0], step)
        spent += step
        if winding.rise_k[0] >= facts.limit_k:
            return Message(
                "run_up.cycling.burns",
                {"trips": str(trips), "minutes": f"{spent / 60:.1f}"},
            )
        if is_on and relay.level >= 1:
            is_on, trips = False, trips + 1
        elif not is_on and relay.level <= _RESETS:
            is_on = True
    return Message("run_up.cycling.holds", {"trips": str(trips)})


def fault_sheet(facts: Facts) -> FaultSheet:
    """Return what each fault does while the motor runs, and before it starts.

    Parameters
    ----------
    facts : Facts
        Motor, load and relay. The relay is taken in the lines, as one for the whole motor.
    """
    states = [state for cause in causes_of(facts) for state in _states_of(facts, cause)]
    findings = []
    if facts.single is None:
        findings += [Message("run_up.lost.meter"), Message("run_up.lost.caution")]
    else:
        findings.append(Message("run_up.single.caution"))
    loose = next((one for one in states if one.cause == "loose" and one.is_running), None)
    if loose is not None:
        watts = loose_ohm(facts) * loose.line_a["L2"] ** 2
        findings.append(Message("run_up.loose", {"watts": f"{watts:.0f}"}))
    findings.append(_cycling(facts, states))
    if facts.single is None and not facts.is_grounded:
        findings.append(Message("run_up.no_ground_fault"))
    if facts.load.has_backstop:
        findings.insert(0, Message("run_up.backward_forbidden"))
    return FaultSheet(tuple(states), tuple(findings))
