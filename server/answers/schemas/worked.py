"""A calculated job as the screens get it: every sentence said, every figure with its step."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import BeforeValidator, Field

from answers.schemas.base import Answer, Label, Plain, Refused, Sentence
from answers.schemas.parts import FindingOut, StepOut
from answers.schemas.terminal_box import (
    BoxOut,
    EstimateOut,
    JointsPlanOut,
    box_out,
    estimate_out,
    joints_out,
)
from evencoil.base import Message
from evencoil.job import Worked, starter_states

__all__ = ["WorkedOut", "worked_out"]


class FigureOut(Answer):
    """One line of the size sheet."""

    id: str
    label: Label = Field(validation_alias="id")
    step: str | None
    refusal: Refused
    group: str


class RatingRuleOut(Answer):
    """One reading of 430.52, and whether it applies here."""

    id: str
    amps_a: str
    is_chosen: bool
    applies: bool
    reason: Sentence


class TokenOut(Answer):
    """A stretch of the nameplate's text, as it lights up."""

    start: int
    end: int
    status: Literal["understood", "doubted", "unread"]
    field: str
    label: Label = Field(validation_alias="field")
    note: Sentence


class MissingOut(Answer):
    """A field that the nameplate does not give, and what that costs."""

    field: str
    label: Label = Field(validation_alias="field")
    cost: Sentence


class GuessOut(Answer):
    """A field that a person put in because it cannot be read."""

    field: str
    label: Label = Field(validation_alias="field")


class StateOut(Answer):
    """Where a step stands, and its first line."""

    step: Literal["plate", "leads", "joints", "size", "starter", "drawings", "check", "rehearse"]
    state: Literal["open", "working", "blocked", "done"]
    headline: Sentence


def _system(name: Any) -> Any:
    return Message(f"system.{name}")


class SupplyOut(Answer):
    """The supply as understood."""

    line_volts_v: Plain
    ground_volts_v: Plain
    phases: int
    frequency_hz: Plain
    is_frequency_assumed: bool
    system: Annotated[Sentence, BeforeValidator(_system)]


class WorkedOut(Answer):
    """A whole job, calculated from what was entered."""

    tokens: list[TokenOut]
    missing: list[MissingOut]
    guesses: list[GuessOut]
    checks: list[FindingOut]
    supply: SupplyOut | None
    verdict: list[FindingOut]
    supply_refusal: Refused
    steps: list[StepOut]
    figures: list[FigureOut]
    states: list[StateOut]
    box: BoxOut
    estimate: EstimateOut | None
    joints: JointsPlanOut | None
    joints_refusal: Refused
    supply_checks: list[FindingOut]
    edition: int
    rating_rule: str
    rating_rules: list[RatingRuleOut]


def worked_out(worked: Worked) -> WorkedOut:
    """Return a calculated job with every sentence said."""
    reading = worked.reading
    return WorkedOut(
        tokens=reading.tokens,
        missing=reading.missing,
        guesses=reading.assumed,
        checks=reading.findings,
        supply=worked.supply,
        verdict=worked.verdict.findings if worked.verdict else (),
        supply_refusal=worked.supply_refusal,
        steps=worked.steps,
        figures=worked.figures,
        states=(*worked.states, *starter_states(worked.starter)),
        box=box_out(worked.box, reading.plate.leads),
        estimate=estimate_out(worked.estimate),
        joints=joints_out(worked.planned),
        joints_refusal=worked.planned_refusal,
        supply_checks=worked.supply_checks,
        edition=worked.profile.edition,
        rating_rule=worked.profile.rating_rule,
        rating_rules=worked.rating_rules,
    )
