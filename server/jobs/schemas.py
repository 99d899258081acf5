"""A worked job as the screens get it: every sentence said, every figure with its step."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel

from evencoil.box import Box
from evencoil.evidence import Cell, Finding, Mark, Step
from evencoil.nameplate import Token
from evencoil.starter_room import StarterRoom, starter_states
from evencoil.winding import KINDS
from evencoil.words import Message, say
from evencoil.work import Figure, Refusal, Worked

__all__ = ["WorkedOut", "worked_out"]


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
    working: str
    rule: RuleOut | None
    uses: list[str]
    cell: CellOut | None
    marks: list[MarkOut]
    tips: list[str]
    schools: str


class RefusalOut(BaseModel):
    """Why a figure is withheld."""

    code: str
    detail: str
    field: str
    hint: str


class FigureOut(BaseModel):
    """One line of the Size sheet."""

    id: str
    label: str
    step: str | None
    refusal: RefusalOut | None


class FindingOut(BaseModel):
    """What a check found."""

    code: str
    level: Literal["agrees", "note", "doubt", "refusal"]
    field: str
    text: str
    hint: str


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


class JointOut(BaseModel):
    """A joint in the box, with how many conductors meet."""

    id: str
    leads: list[str]
    line: str | None
    conductors: int


class CoilOut(BaseModel):
    """What one coil sees with the joints as given."""

    name: str
    start: str
    end: str
    volts_v: float
    rated_v: float
    percent: float
    angle_deg: float
    is_idle: bool
    is_turned: bool


class BoxOut(BaseModel):
    """The Leads step: the derived answer, and what the joints given do."""

    kind: str
    kinds: list[str]
    leads: list[str]
    rated_v: float
    derived_name: str
    derived: list[JointOut]
    derived_refusal: RefusalOut | None
    verdict: Literal["right", "wrong", "open", "untold"]
    name: str
    coils: list[CoilOut]
    findings: list[FindingOut]
    refusal: RefusalOut | None
    tell: str
    note: str


class StateOut(BaseModel):
    """Where a step stands, and its first line."""

    step: Literal["plate", "leads", "size", "starter", "drawings", "rehearse"]
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
    edition: int
    school: str


def _label(field: str) -> str:
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


def _step(step: Step) -> StepOut:
    rule = step.rule
    return StepOut(
        id=step.id,
        label=_label(step.id),
        kind=step.kind,
        value=str(step.value),
        unit=step.unit,
        shown=step.shown,
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
    )


def _refusal(refusal: Refusal | None) -> RefusalOut | None:
    if refusal is None:
        return None
    return RefusalOut(
        code=refusal.code, detail=refusal.detail, field=refusal.field, hint=refusal.hint
    )


def _figure(figure: Figure) -> FigureOut:
    return FigureOut(
        id=figure.id,
        label=_label(figure.id),
        step=figure.step,
        refusal=_refusal(figure.refusal),
    )


def _finding(finding: Finding) -> FindingOut:
    return FindingOut(
        code=finding.code,
        level=finding.level,
        field=finding.field,
        text=say(finding.message),
        hint="" if finding.hint is None else say(finding.hint),
    )


def _token(token: Token) -> TokenOut:
    return TokenOut(
        start=token.start,
        end=token.end,
        status=token.status,
        field=token.field,
        label=_label(token.field),
        note="" if token.note is None else say(token.note),
    )


def _connection_name(name: str) -> str:
    return say(Message(f"connection.{name}")) if name else ""


def _box(box: Box, leads: int | None) -> BoxOut:
    winding, outcome, derived = box.winding, box.outcome, box.derived
    return BoxOut(
        kind="" if winding is None else winding.kind,
        kinds=[kind.kind for kind in KINDS.values() if len(kind.leads) == leads],
        leads=[] if winding is None else list(winding.leads),
        rated_v=round(box.rated_v or 0, 1),
        derived_name="" if derived is None else _connection_name(derived.name),
        derived=[
            JointOut(
                id=joint.id, leads=list(joint.leads), line=joint.line, conductors=joint.conductors
            )
            for joint in (derived.joints if derived else ())
        ],
        derived_refusal=_refusal(Refusal.of(box.derived_error) if box.derived_error else None),
        verdict="untold" if outcome is None else outcome.verdict,
        name="" if outcome is None else _connection_name(outcome.name),
        coils=[
            CoilOut(
                name=coil.name,
                start=coil.start,
                end=coil.end,
                volts_v=round(coil.volts_v, 1),
                rated_v=round(coil.rated_v, 1),
                percent=round(coil.ratio * 100),
                angle_deg=round(coil.angle_deg, 1),
                is_idle=coil.is_idle,
                is_turned=coil.is_turned,
            )
            for coil in (outcome.coils if outcome else ())
        ],
        findings=[_finding(found) for found in (outcome.findings if outcome else ())],
        refusal=_refusal(Refusal.of(box.outcome_error) if box.outcome_error else None),
        tell="" if box.tell is None else say(box.tell),
        note="" if box.note is None else say(box.note),
    )


def worked_out(worked: Worked, room: StarterRoom) -> WorkedOut:
    """Return a worked job with every sentence said."""
    supply = worked.supply
    return WorkedOut(
        tokens=[_token(token) for token in worked.reading.tokens],
        missing=[
            MissingOut(field=gap.field, label=_label(gap.field), cost=say(gap.cost))
            for gap in worked.reading.missing
        ],
        checks=[_finding(finding) for finding in worked.reading.findings],
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
            _finding(finding) for finding in (worked.verdict.findings if worked.verdict else ())
        ],
        supply_refusal=_refusal(worked.supply_refusal),
        steps=[_step(step) for step in worked.steps],
        figures=[_figure(figure) for figure in worked.figures],
        states=[
            StateOut(step=state.step, state=state.state, shout=say(state.shout))
            for state in (*worked.states, *starter_states(room))
        ],
        box=_box(worked.box, worked.reading.plate.leads),
        edition=worked.profile.edition,
        school=worked.profile.school,
    )
