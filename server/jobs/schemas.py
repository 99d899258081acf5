"""A worked job as the screens get it: every sentence said, every figure with its step."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel

from evencoil.base import Figure, Message, say
from evencoil.job import StarterRoom, Worked, starter_states
from evencoil.plate import Token
from jobs.box_schemas import (
    BoxOut,
    EstimateOut,
    JointsPlanOut,
    box_out,
    estimate_out,
    joints_out,
)
from jobs.parts import (
    FindingOut,
    RefusalOut,
    StepOut,
    finding_out,
    label,
    refusal_out,
    step_out,
)

__all__ = ["WorkedOut", "worked_out"]


class FigureOut(BaseModel):
    """One line of the Size sheet."""

    id: str
    label: str
    step: str | None
    refusal: RefusalOut | None
    group: str


class SchoolOut(BaseModel):
    """One opinion on the short-circuit device, and whether it applies here."""

    id: str
    amps_a: str
    is_chosen: bool
    applies: bool
    reason: str


class TokenOut(BaseModel):
    """A stretch of the plate's text, as it lights up."""

    start: int
    end: int
    status: Literal["understood", "doubted", "unread"]
    field: str
    label: str
    note: str


class MissingOut(BaseModel):
    """A field that the plate does not give, and what that costs."""

    field: str
    label: str
    cost: str


class StateOut(BaseModel):
    """Where a step stands, and its first line."""

    step: Literal["plate", "leads", "joints", "size", "starter", "drawings", "check", "rehearse"]
    state: Literal["open", "working", "held", "proven"]
    shout: str


class SupplyOut(BaseModel):
    """The supply as understood."""

    line_volts_v: str
    ground_volts_v: str
    phases: int
    frequency_hz: str
    is_frequency_assumed: bool
    system: str


class WorkedOut(BaseModel):
    """A whole job, worked out from what people gave."""

    tokens: list[TokenOut]
    missing: list[MissingOut]
    checks: list[FindingOut]
    supply: SupplyOut | None
    verdict: list[FindingOut]
    supply_refusal: RefusalOut | None
    steps: list[StepOut]
    figures: list[FigureOut]
    states: list[StateOut]
    box: BoxOut
    estimate: EstimateOut | None
    joints: JointsPlanOut | None
    joints_refusal: RefusalOut | None
    supply_checks: list[FindingOut]
    edition: int
    school: str
    schools: list[SchoolOut]


def _figure(figure: Figure) -> FigureOut:
    return FigureOut(
        id=figure.id,
        label=label(figure.id),
        step=figure.step,
        refusal=refusal_out(figure.refusal),
        group=figure.group,
    )


def _token(token: Token) -> TokenOut:
    return TokenOut(
        start=token.start,
        end=token.end,
        status=token.status,
        field=token.field,
        label=label(token.field),
        note="" if token.note is None else say(token.note),
    )


def worked_out(worked: Worked, room: StarterRoom) -> WorkedOut:
    """Return a worked job with every sentence said."""
    supply = worked.supply
    return WorkedOut(
        tokens=[_token(token) for token in worked.reading.tokens],
        missing=[
            MissingOut(field=gap.field, label=label(gap.field), cost=say(gap.cost))
            for gap in worked.reading.missing
        ],
        checks=[finding_out(finding) for finding in worked.reading.findings],
        supply=None
        if supply is None
        else SupplyOut(
            line_volts_v=str(supply.line_volts_v),
            ground_volts_v="" if supply.ground_volts_v is None else str(supply.ground_volts_v),
            phases=supply.phases,
            frequency_hz=str(supply.frequency_hz),
            is_frequency_assumed=supply.is_frequency_assumed,
            system=say(Message(f"system.{supply.system}")),
        ),
        verdict=[
            finding_out(finding) for finding in (worked.verdict.findings if worked.verdict else ())
        ],
        supply_refusal=refusal_out(worked.supply_refusal),
        steps=[step_out(step) for step in worked.steps],
        figures=[_figure(figure) for figure in worked.figures],
        states=[
            StateOut(step=state.step, state=state.state, shout=say(state.shout))
            for state in (*worked.states, *starter_states(room))
        ],
        box=box_out(worked.box, worked.reading.plate.leads),
        estimate=estimate_out(worked.estimate),
        joints=joints_out(worked.planned),
        joints_refusal=refusal_out(worked.planned_refusal),
        supply_checks=[finding_out(found) for found in worked.supply_checks],
        edition=worked.profile.edition,
        school=worked.profile.school,
        schools=[
            SchoolOut(
                id=row.id,
                amps_a=row.amps_a,
                is_chosen=row.is_chosen,
                applies=row.applies,
                reason=say(row.reason),
            )
            for row in worked.schools
        ],
    )
