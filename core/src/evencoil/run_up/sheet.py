"""The run-up sheet: every way to start this motor on this load, side by side.

Each is run from rest to its end, whatever that is: at speed, stalled, tripped, burnt.
A timer's setting is found by letting the first step last until its current has
fallen; then the change-over is run at half to twice that.

Units: [s], [rpm], [A], [N m], [V]. Limits: fundamental field, linear leakage, average
torque; nothing was measured on this motor.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
from itertools import pairwise
from math import ceil
from typing import get_args

from evencoil.base import CoreError, Message
from evencoil.leads import Derived
from evencoil.run_up.facts import Facts
from evencoil.run_up.starts import Method, Plan, method_plan, open_gap_s, other_jumpers
from evencoil.solver import constants
from evencoil.solver.motor import OverloadRelay, Port, RunUp, WindingHeat, rpm, run_up

__all__ = [
    "METHODS",
    "Change",
    "CurvePoint",
    "MethodSheet",
    "Refused",
    "RunUpSheet",
    "TimerAdvice",
    "advise",
    "go",
    "load_curve",
    "method_sheet",
    "methods_of",
    "relay_of",
    "run_up_sheet",
    "winding_of",
]

#: in the order they are shown
METHODS: tuple[Method, ...] = get_args(Method)
#: settings tried, as multiples of the one advised
_TRIED = (0.5, 1.0, 1.5, 2.0)
#: the first step is over when the speed has come so near to where it settles
_SETTLED, _MARGIN = 0.98, 1.1
_LONGEST_S = 120.0
#: a first step that ends below this part of rated speed is too weak
_HALFWAY = 0.5
_AFTER_S = 20.0
#: timer setting used where the first step is too weak and none was entered
_WEAK_S = 10.0
_CURVE_POINTS = 73
_ROUND_S = 0.5
#: from here dry friction is whole [rad/s]
_MOVING = 1.5
#: a run that fails with less spare torque than this part of the rated one, fails for it
_SPARE = 0.1
#: autotransformers and resistors for medium duty take three times rated current for 15 s in a
#: start; recalled from NEMA ICS 2
_DUTY_TIMES, _DUTY_S = 3.0, 15.0
_WITH_GEAR = {"autotransformer_80", "autotransformer_65", "autotransformer_50", "resistor_65"}
#: contactor coils must hold above this part of their volts; source: IEC 60947-4-1
_SAG_LIMIT = 0.85


@dataclass(frozen=True, slots=True)
class CurvePoint:
    """Torque [N m] and line current [A] at a speed [rpm]."""

    speed_rpm: float
    torque_nm: float
    line_a: float


@dataclass(frozen=True, slots=True)
class Change:
    """A change-over: the timer's setting, and what it meets.

    Attributes
    ----------
    peak_a : float
        Largest RMS line current just after; within 15 % of a full transient. [A]
    """

    setting_s: float
    speed_rpm: float
    before_a: float
    peak_a: float
    ending: str


@dataclass(frozen=True, slots=True)
class TimerAdvice:
    """A setting for the timer of the first step.

    Attributes
    ----------
    setting_s : float or None
        Advised; None where the first step never brings the motor near its speed. [s]
    settles_rpm : float
        Where the first step would leave it. [rpm]
    changes : tuple of Change
        At half to twice the setting.
    other_jumpers_a : float or None
        Current right after the change with the other set of delta jumpers. [A]
    never_ends : Message or None
        What becomes of it if the first step never ends.
    findings : tuple of Message
        How to find the setting at the panel, or why there is none.
    """

    setting_s: float | None
    settles_rpm: float
    changes: tuple[Change, ...]
    other_jumpers_a: float | None
    never_ends: Message | None
    findings: tuple[Message, ...]


@dataclass(frozen=True, slots=True)
class MethodSheet:
    """One way to start: its curve, its run, its verdict.

    ``duty_percent`` is the heat of the first step in autotransformer or resistor, of what one
    for medium duty takes in a start.
    """

    method: Method
    run: RunUp
    curves: tuple[tuple[str, tuple[CurvePoint, ...]], ...]
    first_s: float
    start_a: float
    start_torque_percent: float
    sag_percent: float | None
    hottest_k: float
    duty_percent: float | None
    verdict: Message
    is_good: bool
    findings: tuple[Message, ...]


@dataclass(frozen=True, slots=True)
class Refused:
    """A way to start that this motor does not have, and why."""

    method: Method
    error: CoreError


@dataclass(frozen=True, slots=True)
class RunUpSheet:
    """All ways to start one motor on one load."""

    facts: Facts
    load_curve: tuple[CurvePoint, ...]
    methods: tuple[MethodSheet, ...]
    refused: tuple[Refused, ...]


def relay_of(facts: Facts, plan: Plan, *, is_hot: bool) -> OverloadRelay:
    """Return the relay of a way to start, cold or as after a day at its setting.

    Parameters
    ----------
    facts : Facts
        Class, kind, setting.
    plan : Plan
        Where its heaters lie.
    is_hot : bool
        Hot.
    """
    count = 3 if facts.single is None else 2
    heat = [1.0] * count if is_hot else [0.0] * count
    return OverloadRelay(facts.amps_a * plan.leg_part, facts.relay_class, facts.relay_kind, heat)


def winding_of(facts: Facts, *, is_hot: bool) -> WindingHeat:
    """Return the winding, cold or as hot as after a day at rated load.

    Parameters
    ----------
    facts : Facts
        Coils and rises.
    is_hot : bool
        Hot.
    """
    count = len(facts.machine.coils)
    rise_k = facts.rated_rise_k if is_hot else 0.0
    return WindingHeat(facts.coil_rated_a, facts.rated_rise_k, [rise_k] * count)


def _curve(port: Port, facts: Facts) -> tuple[CurvePoint, ...]:
    top = facts.machine.synchronous_rad_s
    found = []
    for place in range(_CURVE_POINTS):
        # closer together near synchronous speed, where the curve falls
        part = 1 - (1 - place / (_CURVE_POINTS - 1)) ** 1.7
        fields = port.fields(part * top)
        amps = max(port.line_amps(fields.gap).values())
        found.append(CurvePoint(rpm(part * top), fields.torque_nm, amps))
    return tuple(found)


def go(
    facts: Facts,
    plan: Plan,
    first_s: float,
    *,
    until_s: float = _LONGEST_S,
    relay: OverloadRelay | None = None,
    winding: WindingHeat | None = None,
) -> RunUp:
    """Run one way to start to its end.

    Parameters
    ----------
    facts : Facts
        The motor and its load.
    plan : Plan
        The way to start.
    first_s : float
        How long its first step lasts. [s]
    until_s : float
        Longest time calculated. [s]
    relay : OverloadRelay or None
        As something before left it; it is warmed further. As the job says if omitted.
    winding : WindingHeat or None
        Likewise.
    """
    is_hot = facts.is_hot
    return run_up(
        facts.machine,
        plan.steps(first_s),
        facts.load,
        relay=relay_of(facts, plan, is_hot=is_hot) if relay is None else relay,
        winding=winding_of(facts, is_hot=is_hot) if winding is None else winding,
        limit_k=facts.limit_k,
        device=None if facts.device is None else replace(facts.device, spent=[0.0] * 3),
        full_rad_s=plan.full_rad_s,
        until_s=until_s,
        # others are followed in their steady states: their fluxes would be those of another rotor
        follows_flux=facts.kind == "cage",
    )


def _settling(facts: Facts, plan: Plan) -> tuple[RunUp, float, float | None]:
    """Run the first step alone; return the run, the speed it ends at, and a timer's setting.

    The setting is None where the step never brings the motor halfway to its speed.
    """
    alone = replace(plan, has_timer=False, states=plan.states[:1])
    run = run_up(
        facts.machine,
        alone.steps(0.0),
        facts.load,
        relay=None,
        winding=winding_of(facts, is_hot=facts.is_hot),
        limit_k=facts.limit_k,
        until_s=_LONGEST_S,
        follows_flux=False,
    )
    last = run.last.speed_rad_s
    halfway = plan.halfway_rad_s or _HALFWAY * facts.machine.rated_rad_s
    if last < halfway:
        return run, rpm(last), None
    near = next(one.time_s for one in run.samples if one.speed_rad_s >= _SETTLED * last)
    return run, rpm(last), ceil(near * _MARGIN / _ROUND_S) * _ROUND_S


def advise(facts: Facts, method: Method, states: Derived) -> TimerAdvice | None:
    """Return the setting of a timer, what shorter and longer ones meet, and what none does.

    Parameters
    ----------
    facts : Facts
        The motor and its load.
    method : str
        Which way to start.
    states : Derived
        Of this way.

    Returns
    -------
    TimerAdvice or None
        None where no timer ends a first step.
    """
    plan = method_plan(facts, method, states)
    if not plan.has_timer:
        return None
    alone, settles, setting = _settling(facts, plan)
    endless = go(facts, plan, 2 * _LONGEST_S)
    never: Message | None = None
    if endless.ending == "tripped" and endless.tripped_s is not None:
        never = Message("run_up.never.tripped", {"seconds": f"{endless.tripped_s:.0f}"})
    elif alone.burnt_s is not None:
        never = Message("run_up.never.burnt", {"seconds": f"{alone.burnt_s:.0f}"})
    if setting is None:
        weak = Message("run_up.too_weak", {"rpm": f"{settles:.0f}"})
        return TimerAdvice(None, settles, (), None, never, (weak,))
    once = go(facts, plan, setting, until_s=setting + _AFTER_S)
    if "run" not in once.changed_at:
        early = Message(
            "run_up.burns_before" if once.ending == "burnt" else "run_up.trips_before",
            {"seconds": f"{once.last.time_s:.0f}"},
        )
        return TimerAdvice(None, settles, (), None, never, (early,))
    changes = []
    for times in _TRIED:
        first_s = setting * times
        run = once if times == 1 else go(facts, plan, first_s, until_s=first_s + _AFTER_S)
        if "run" not in run.changed_at:
            continue
        speed, amps = run.changed_at[plan.states[1][0]]
        peak = max(run.peak_a.get(name, 0.0) for name, _, _ in plan.states[1:])
        changes.append(Change(first_s, rpm(speed), amps, peak, run.ending))
    crossed = _crossed(facts, states, setting) if method == "wye_delta" else None
    field_method: tuple[Message, ...] = (Message("run_up.field_method"),)
    transition = _other_transition(facts, method, states, setting)
    field_method = (*field_method, *transition)
    if method == "speed_low_high":
        field_method = (*field_method, Message("run_up.two_speed_surge"))
    return TimerAdvice(setting, settles, tuple(changes), crossed, never, field_method)


def _other_transition(
    facts: Facts, method: Method, states: Derived, setting: float
) -> tuple[Message, ...]:
    """Say what the other kind of transition comes to, and how long an open one pauses."""
    found: list[Message] = []
    known = constants()
    if method == "wye_delta" or method.startswith("autotransformer"):
        plan = method_plan(facts, method, states, has_other_transition=True)
        done = go(facts, plan, setting, until_s=setting + 0.5)
        peak = max((done.peak_a.get(name, 0.0) for name, _, _ in plan.states[1:]), default=0.0)
        name = "closed" if method == "wye_delta" else "open"
        if peak:
            found.append(Message(f"run_up.transition.{name}", {"amps": f"{peak:.0f}"}))
    if method in {"wye_delta", "speed_low_high"}:
        found.append(
            Message(
                "run_up.pause",
                {
                    "gap": f"{open_gap_s() * 1000:.0f}",
                    "out": f"{known['contactor_out_us'] / 1000:.0f}",
                    "arc": f"{known['arc_us'] / 1000:.0f}",
                },
            )
        )
    return tuple(found)


def _crossed(facts: Facts, states: Derived, setting: float) -> float | None:
    run = states.states.get("run")
    other = None if run is None else other_jumpers(facts, run)
    if other is None:
        return None
    plan = method_plan(facts, "wye_delta", states, jumpers=other)
    done = go(facts, plan, setting, until_s=setting + 0.5)
    return done.peak_a.get("run")


def method_sheet(facts: Facts, method: Method, states: Derived) -> MethodSheet:
    """Return the sheet of one way to start.

    Parameters
    ----------
    facts : Facts
        The motor and its load.
    method : str
        Which way.
    states : Derived
        Of this way.
    """
    plan = method_plan(facts, method, states)
    first_s, weak_rpm = 0.0, None
    if plan.has_timer:
        _, settles, setting = _settling(facts, plan)
        weak_rpm = settles if setting is None else None
        first_s = facts.first_step_s or setting or _WEAK_S
    run = go(facts, plan, first_s)
    first = plan.states[0][1]
    start = first.fields(0.0)
    start_a = max(first.line_amps(start.gap).values())
    sag = None
    if facts.is_sag_known:
        # samples lie apart; the first instants of each step were all looked at
        seen = [one.supply_v for one in run.samples if one.supply_v > 0]
        least = min([*seen, *([run.least_supply_v] if run.least_supply_v else [])])
        sag = 100 * (1 - least / facts.line_v)
    hottest = max(max(sample.rise_k) for sample in run.samples)
    curves = tuple(
        (name, _curve(port, facts))
        for name, port, _ in plan.states
        if port.sources and name != "reactor"
    )
    duty = _duty(facts, plan, run, first_s)
    findings = list(_findings(facts, plan, run, sag))
    if duty is not None and duty > 100:
        findings.append(Message("run_up.duty", {"percent": f"{duty:.0f}"}))
    if weak_rpm is not None:
        findings.insert(0, Message("run_up.too_weak", {"rpm": f"{weak_rpm:.0f}"}))
    return MethodSheet(
        method=method,
        run=run,
        curves=curves,
        first_s=first_s,
        start_a=start_a,
        start_torque_percent=100 * start.torque_nm / facts.machine.rated_nm,
        sag_percent=sag,
        hottest_k=hottest,
        duty_percent=duty,
        verdict=_verdict(facts, run, sag),
        is_good=run.ending == "running"
        and method != "as_joined"
        and weak_rpm is None
        and (sag is None or sag <= 100 * (1 - _SAG_LIMIT)),
        findings=tuple(findings),
    )


def _duty(facts: Facts, plan: Plan, run: RunUp, first_s: float) -> float | None:
    """Return what the first step puts into autotransformer or resistor, of its duty [%]."""
    if plan.method not in _WITH_GEAR:
        return None
    spent = sum(
        (max(one.coil_a) / facts.coil_a) ** 2 * (two.time_s - one.time_s)
        for one, two in pairwise(run.samples)
        if one.time_s < first_s
    )
    return 100 * spent / (_DUTY_TIMES**2 * _DUTY_S)


def _verdict(facts: Facts, run: RunUp, sag: float | None) -> Message:
    speed = f"{rpm(run.last.speed_rad_s):.0f}"
    dips = "" if sag is None else f"; supply dips {sag:.0f} %"
    params = {
        "rpm": speed,
        "class": facts.relay_class,
        "dips": dips,
        "seconds": f"{(run.at_speed_s or run.last.time_s):.1f}",
        "limit": f"{facts.limit_k + facts.ambient_c:.0f}",
        "device": "" if facts.device is None else facts.trail["device_curve"].shown,
    }
    return Message(f"run_up.ends.{run.ending}", params)


def _least_spare(facts: Facts, plan: Plan, run: RunUp) -> tuple[float, float]:
    """Return the least torque over the load's on the way that was gone, and at which speed."""
    came_to = max(
        (place for place, one in enumerate(plan.states) if one[0] in run.changed_at), default=0
    )
    port = plan.states[came_to][1]
    top = max([_MOVING, *(one.speed_rad_s for one in run.samples)])
    found = []
    for place in range(33):
        speed = max(top * place / 32, _MOVING)
        found.append((port.fields(speed).torque_nm - facts.load.at(speed), speed))
    return min(found)


def _findings(facts: Facts, plan: Plan, run: RunUp, sag: float | None) -> Iterator[Message]:
    if sag is not None and sag > 100 * (1 - _SAG_LIMIT):
        yield Message("run_up.sags", {"percent": f"{sag:.0f}"})
    if facts.rotor is not None and plan.method == "rotor_resistor":
        yield from _rotor_times(facts, plan, run)
    if facts.load.has_backstop and run.last.torque_nm < 0:
        yield Message("run_up.backstop")
    if facts.load.is_harmed_backward and min(one.speed_rad_s for one in run.samples) < -_MOVING:
        yield Message("run_up.harmed_backward")
    if plan.method == "part_winding":
        yield Message("run_up.half_winding")
    if plan.method == "as_joined":
        yield Message("run_up.joined_wrong")
    elif run.ending != "running":
        yield from _why_not(facts, plan, run)


def _rotor_times(facts: Facts, plan: Plan, run: RunUp) -> Iterator[Message]:
    """Say when each part of the rotor's resistor went, and how many ohms the steps have."""
    rotor = facts.rotor
    if rotor is None:
        return
    last, told = 0.0, []
    for name, _, _ in plan.states[1:]:
        if name not in run.changed_s:
            break
        told.append(f"{run.changed_s[name] - last:.1f}")
        last = run.changed_s[name]
    if told:
        yield Message("run_up.rotor_times", {"times": " + ".join(told)})
    if rotor.own_ohm is not None:
        ohms = [f"{(times - 1) * rotor.own_ohm:.2g}" for times in rotor.times[:-1]]
        yield Message("run_up.rotor_ohms", {"ohms": ", ".join(ohms)})
    else:
        yield Message("run_up.rotor_no_ohms")


def _why_not(facts: Facts, plan: Plan, run: RunUp) -> Iterator[Message]:
    """Say why a run that does not end at speed does not."""
    if facts.load.jams_at_s is not None:
        yield Message("run_up.jammed", {"seconds": f"{facts.load.jams_at_s:g}"})
        return
    if run.at_speed_s is not None:
        return
    spare, speed = _least_spare(facts, plan, run)
    if spare < _SPARE * facts.machine.rated_nm:
        yield Message("run_up.no_torque", {"rpm": f"{rpm(speed):.0f}"})
    elif run.ending == "opened":
        yield Message("run_up.device_small")
    elif run.ending == "tripped":
        yield Message("run_up.too_slow", {"class": facts.relay_class})


def methods_of(facts: Facts) -> tuple[Method, ...]:
    """Return the ways to start that a kind of motor may have, the usual one first.

    Parameters
    ----------
    facts : Facts
        The motor.
    """
    if facts.kind == "single":
        return ("single_phase",)
    if facts.kind == "two_speed":
        return ("speed_low", "speed_high", "speed_low_high")
    if facts.kind == "wound":
        return ("rotor_resistor", "full_voltage")
    return (
        "full_voltage",
        "wye_delta",
        "part_winding",
        "autotransformer_80",
        "autotransformer_65",
        "autotransformer_50",
        "resistor_65",
    )


def run_up_sheet(facts: Facts, states_of: dict[Method, Derived | CoreError]) -> RunUpSheet:
    """Return every way to start that this motor has, and why it has not the others.

    Parameters
    ----------
    facts : Facts
        The motor and its load.
    states_of : dict
        By method: the states of the connection, or why there are none.
    """
    made, refused = [], []
    for method, states in states_of.items():
        if isinstance(states, CoreError):
            refused.append(Refused(method, states))
        else:
            made.append(method_sheet(facts, method, states))
    return RunUpSheet(facts, load_curve(facts), tuple(made), tuple(refused))


def load_curve(facts: Facts) -> tuple[CurvePoint, ...]:
    """Return the load's torque from rest to synchronous speed.

    Parameters
    ----------
    facts : Facts
        The motor and its load.
    """
    top = facts.machine.synchronous_rad_s
    speeds = [top * place / 48 for place in range(49)]
    # at rest dry friction has no sign; what it asks as soon as the shaft moves is shown
    return tuple(
        CurvePoint(rpm(speed), facts.load.at(max(speed, _MOVING)), 0.0) for speed in speeds
    )
