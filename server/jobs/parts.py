"""What every answer is made of: steps with their evidence, findings, refusals."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel

from evencoil.base import Cell, Finding, Mark, Message, Refusal, Step, say

__all__ = [
    "FindingOut",
    "RefusalOut",
    "StepOut",
    "finding_out",
    "label",
    "refusal_out",
    "step_out",
]


class RuleOut(BaseModel):
    """Where a rule stands."""

    standard: str
    edition: int
    section: str


class CellOut(BaseModel):
    """A table cell with the row above and below."""

    table: str
    title: str
    source: str
    units: str
    columns: list[str]
    rows: list[list[str]]
    hit_row: int
    hit_column: int


class MarkOut(BaseModel):
    """A warning that travels with a value."""

    kind: Literal["assumed", "check_the_book"]
    origin: str
    text: str


class StepOut(BaseModel):
    """One value with its evidence."""

    id: str
    label: str
    kind: Literal["read", "assumed", "worked"]
    value: str
    unit: str
    shown: str
    said: str
    working: str
    rule: RuleOut | None
    uses: list[str]
    cell: CellOut | None
    marks: list[MarkOut]
    tips: list[str]
    schools: str
    verdict: Literal["", "holds", "fails"]


class RefusalOut(BaseModel):
    """Why a figure is withheld."""

    code: str
    detail: str
    field: str
    hint: str


class FindingOut(BaseModel):
    """What a check found."""

    code: str
    level: Literal["agrees", "note", "doubt", "refusal"]
    field: str
    text: str
    hint: str


def label(field: str) -> str:
    """Return what a field is called."""
    return say(Message(f"label.{field}")) if field else ""


def _cell(cell: Cell | None) -> CellOut | None:
    if cell is None:
        return None
    return CellOut(
        table=cell.table,
        title=cell.title,
        source=cell.source,
        units=cell.units,
        columns=list(cell.columns),
        rows=[list(row) for row in cell.rows],
        hit_row=cell.hit_row,
        hit_column=cell.hit_column,
    )


def _mark(mark: Mark) -> MarkOut:
    return MarkOut(kind=mark.kind, origin=mark.origin, text=say(mark.message))


def step_out(step: Step) -> StepOut:
    """Return a step as it is sent."""
    rule = step.rule
    return StepOut(
        id=step.id,
        label=label(step.id),
        kind=step.kind,
        value=str(step.value),
        unit=step.unit,
        shown=step.shown,
        said=step.said,
        working=say(step.working),
        rule=None
        if rule is None
        else RuleOut(standard=rule.standard, edition=rule.edition, section=rule.section),
        uses=list(step.uses),
        cell=_cell(step.cell),
        marks=[_mark(mark) for mark in step.marks],
        tips=[say(tip.message) for tip in step.tips],
        schools=next(
            (say(tip.message) for tip in step.tips if tip.message.id == "protection.tip_schools"),
            "",
        ),
        verdict=step.verdict,
    )


def refusal_out(refusal: Refusal | None) -> RefusalOut | None:
    """Return a refusal as it is sent."""
    if refusal is None:
        return None
    return RefusalOut(
        code=refusal.code, detail=refusal.detail, field=refusal.field, hint=refusal.hint
    )


def finding_out(finding: Finding) -> FindingOut:
    """Return a finding as it is sent."""
    return FindingOut(
        code=finding.code,
        level=finding.level,
        field=finding.field,
        text=say(finding.message),
        hint="" if finding.hint is None else say(finding.hint),
    )
