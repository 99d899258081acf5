"""Steps with their evidence, and findings, as they are sent."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated, Any, Literal

from pydantic import BeforeValidator, Field

from answers.schemas.base import Answer, Label, Sentence
from evencoil.base import say

__all__ = ["FindingOut", "StepOut"]


class RuleOut(Answer):
    """Where a rule stands."""

    standard: str
    edition: int
    section: str


class CellOut(Answer):
    """A table cell with the row above and below."""

    table: str
    title: str
    source: str
    units: str
    columns: list[str]
    rows: list[list[str]]
    hit_row: int
    hit_column: int


class MarkOut(Answer):
    """A warning that travels with a value."""

    kind: Literal["assumed", "check_the_book", "doubted"]
    origin: str
    text: Sentence = Field(validation_alias="message")


def _rating_rules(tips: Any) -> Any:
    """Return the tip that names both readings of the rule, empty if there is none."""
    if not isinstance(tips, Sequence) or isinstance(tips, str):
        return tips
    return next((say(tip.message) for tip in tips if tip.message.id == "protection.tip_rules"), "")


class StepOut(Answer):
    """One value with its evidence."""

    id: str
    label: Label = Field(validation_alias="id")
    kind: Literal["read", "assumed", "calculated"]
    value: str = Field(validation_alias="text")
    unit: str
    shown: str
    said: str
    working: Sentence
    rule: RuleOut | None
    uses: list[str]
    cell: CellOut | None
    marks: list[MarkOut]
    tips: list[Sentence]
    rating_rules: Annotated[str, BeforeValidator(_rating_rules)] = Field(validation_alias="tips")
    verdict: Literal["", "holds", "fails"]


class FindingOut(Answer):
    """What a check found."""

    code: str
    level: Literal["agrees", "note", "doubt", "refusal"]
    field: str
    text: Sentence = Field(validation_alias="message")
    hint: Sentence
