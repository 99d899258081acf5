"""The run-up sheet as it is sent: curves, traces, verdicts, timer, lost phase."""

from __future__ import annotations

from typing import Annotated

from pydantic import BeforeValidator, Field

from answers.schemas.base import Answer, Refused, Sentence
from answers.schemas.parts import StepOut
from evencoil.base import LB_FT_PER_NM, Message, say
from evencoil.job import JobRunUp
from evencoil.run_up import (
    CurvePoint,
    MethodSheet,
    Restart,
    TimerAdvice,
    expected_readings,
)
from evencoil.solver.motor import Sample, rpm

__all__ = ["AdviceOut", "RunUpOut", "StartsInARowOut", "advice_out", "restart_out", "run_up_out"]

#: most points of a trace that are sent
_POINTS = 220


WayName = Annotated[str, BeforeValidator(lambda way: say(Message(f"run_up.way.{way}")))]
CauseName = Annotated[str, BeforeValidator(lambda cause: say(Message(f"run_up.cause.{cause}")))]


class TorqueCurveOut(Answer):
    """Torque [lb ft] and line current [A] against speed [rpm] in one contact state."""

    name: str
    speed_rpm: list[float]
    torque_lb_ft: list[float]
    line_a: list[float]


class RunTraceOut(Answer):
    """What is followed in time; every list is as long as the times.

    ``hottest_c`` is the hottest coil with the ambient on the nameplate or 40 C; ``relay`` of 1
    trips; ``supply_percent`` is empty where the fault current is not known.
    """

    time_s: list[float]
    speed_rpm: list[float]
    line_a: list[float]
    torque_lb_ft: list[float]
    load_lb_ft: list[float]
    relay: list[float]
    hottest_c: list[float]
    supply_percent: list[float]


class WayOut(Answer):
    """One way to start."""

    method: str
    name: WayName = Field(validation_alias="method")
    verdict: Sentence
    is_good: bool
    has_timer: bool
    first_s: float
    start_a: float
    start_torque_percent: float
    sag_percent: float | None
    at_speed_s: float | None
    hottest_c: float
    duty_percent: float | None
    ending: str
    findings: list[Sentence]
    curves: list[TorqueCurveOut]
    trace: RunTraceOut


class NoWayOut(Answer):
    """A way to start that this motor does not have."""

    method: str
    name: WayName = Field(validation_alias="method")
    refusal: Refused = Field(validation_alias="error")


class FaultOut(Answer):
    """One state with one thing wrong: [A], volts at the motor [V], relay and winding [s]."""

    cause: str
    what: CauseName = Field(validation_alias="cause")
    is_running: bool
    said: Sentence
    speed_rpm: float
    torque_percent: float
    line_a: dict[str, float]
    coil_a: dict[str, float]
    hottest: str
    hottest_times: float
    motor_v: dict[str, float]
    trips_s: float | None
    burns_s: float | None


class ExpectedOut(Answer):
    """A reading to come."""

    id: str
    value: float
    unit: str
    percent: int


class RunUpOut(Answer):
    """The sheet, or why there is none."""

    refusal: Refused
    kind: str
    facts: list[StepOut]
    low_facts: list[StepOut]
    is_guessed: bool
    is_poor: bool
    rated_lb_ft: float
    limit_c: float
    load: TorqueCurveOut | None
    own: str
    ways: list[WayOut]
    others: list[NoWayOut]
    faults: list[FaultOut]
    fault_says: list[Sentence]
    expected: list[ExpectedOut]


class ChangeOverOut(Answer):
    """A change-over at one setting."""

    setting_s: float
    speed_rpm: float
    before_a: float
    peak_a: float
    ending: str


class StartsInARowOut(Answer):
    """Starts in a row from cold and from running, the wait between [s], starts an hour."""

    is_known: bool
    cold: int
    hot: int
    most: int
    ends_by: str
    wait_s: float | None
    per_hour: int | None


class AdviceOut(Answer):
    """The setting of a timer; empty where the way has none."""

    has_timer: bool
    setting_s: float | None
    settles_rpm: float
    changes: list[ChangeOverOut]
    other_jumpers_a: float | None
    never_ends: Sentence
    findings: list[Sentence]


def _curve(name: str, points: tuple[CurvePoint, ...]) -> TorqueCurveOut:
    return TorqueCurveOut(
        name=name,
        speed_rpm=[round(point.speed_rpm, 1) for point in points],
        torque_lb_ft=[round(point.torque_nm * LB_FT_PER_NM, 2) for point in points],
        line_a=[round(point.line_a, 2) for point in points],
    )


def _trace(samples: list[Sample], ambient_c: float, line_v: float, *, has_sag: bool) -> RunTraceOut:
    every = max(1, -(-len(samples) // _POINTS))
    kept = [*samples[:-1:every], samples[-1]]
    return RunTraceOut(
        time_s=[round(one.time_s, 4) for one in kept],
        speed_rpm=[round(rpm(one.speed_rad_s), 1) for one in kept],
        line_a=[round(max(one.line_a), 2) for one in kept],
        torque_lb_ft=[round(one.torque_nm * LB_FT_PER_NM, 2) for one in kept],
        load_lb_ft=[round(one.load_nm * LB_FT_PER_NM, 2) for one in kept],
        relay=[round(one.relay, 4) for one in kept],
        hottest_c=[round(max(one.rise_k) + ambient_c, 2) for one in kept],
        supply_percent=[
            # a pause without supply has no sag
            round(100 * one.supply_v / line_v, 2) if one.supply_v else 100.0
            for one in kept
        ]
        if has_sag
        else [],
    )


def _way(ready: JobRunUp, one: MethodSheet) -> WayOut:
    facts = ready.facts
    return WayOut(
        method=one.method,
        name=one.method,
        verdict=one.verdict,
        is_good=one.is_good,
        has_timer=one.first_s > 0,
        first_s=one.first_s,
        start_a=one.start_a,
        start_torque_percent=one.start_torque_percent,
        sag_percent=one.sag_percent,
        at_speed_s=one.run.at_speed_s,
        hottest_c=one.hottest_k + facts.ambient_c,
        duty_percent=one.duty_percent,
        ending=one.run.ending,
        findings=one.findings,
        curves=[_curve(name, points) for name, points in one.curves],
        trace=_trace(one.run.samples, facts.ambient_c, facts.line_v, has_sag=facts.is_sag_known),
    )


def run_up_out(ready: JobRunUp) -> RunUpOut:
    """Return the whole sheet of a motor."""
    facts = ready.facts
    sheet, faults = ready.sheet(), ready.faults()
    return RunUpOut(
        refusal=None,
        kind=facts.kind,
        facts=list(facts.trail),
        low_facts=[] if facts.low is None else list(facts.low.trail),
        is_guessed=facts.is_guessed,
        is_poor=facts.is_poor,
        rated_lb_ft=facts.machine.rated_nm * LB_FT_PER_NM,
        limit_c=facts.limit_k + facts.ambient_c,
        load=_curve("load", sheet.load_curve),
        own=ready.own,
        ways=[_way(ready, one) for one in sheet.methods],
        others=sheet.refused,
        faults=faults.states,
        fault_says=faults.findings,
        expected=expected_readings(facts, sheet, faults),
    )


def restart_out(found: Restart | None) -> StartsInARowOut:
    """Return what starts in a row come to, or that no start gets through."""
    if found is None:
        return StartsInARowOut(
            is_known=False, cold=0, hot=0, most=0, ends_by="", wait_s=None, per_hour=None
        )
    return StartsInARowOut(
        is_known=True,
        cold=found.cold,
        hot=found.hot,
        most=found.most,
        ends_by=found.ends_by,
        wait_s=found.wait_s,
        per_hour=found.per_hour,
    )


def advice_out(advice: TimerAdvice | None) -> AdviceOut:
    """Return a timer's advice, or that there is no timer."""
    if advice is None:
        return AdviceOut(
            has_timer=False,
            setting_s=None,
            settles_rpm=0.0,
            changes=[],
            other_jumpers_a=None,
            never_ends="",
            findings=[],
        )
    return AdviceOut(
        has_timer=True,
        setting_s=advice.setting_s,
        settles_rpm=advice.settles_rpm,
        changes=advice.changes,
        other_jumpers_a=advice.other_jumpers_a,
        never_ends=advice.never_ends,
        findings=advice.findings,
    )
