"""The terminal box as it is sent: winding, joints, board, diagrams, joints made."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel

from evencoil.base import CoreError, Message, Refusal, say
from evencoil.drawing import draw_start_branch, winding_points
from evencoil.leads import Box, CheckedDiagram, CoilState, JointsWorked, Laid, ToldAccessory
from evencoil.plate import Estimate
from evencoil.winding import (
    KINDS,
    LINES,
    Connection,
    Joint,
    StartBranch,
    Winding,
    continuity_groups,
)
from jobs.parts import FindingOut, RefusalOut, StepOut, finding_out, refusal_out, step_out
from jobs.pictures import PictureOut, picture_out

__all__ = [
    "BoxOut",
    "EstimateOut",
    "JointOut",
    "JointsPlanOut",
    "box_out",
    "estimate_out",
    "joints_out",
]


class JointOut(BaseModel):
    """A joint: which leads, which line, how many conductors."""

    id: str
    leads: list[str]
    line: str | None
    conductors: int


class CoilOut(BaseModel):
    """What one coil sees, against what it is made for."""

    name: str
    start: str
    end: str
    volts_v: float
    rated_v: float
    percent: float
    angle_deg: float
    is_idle: bool
    is_turned: bool
    is_resting: bool


class KindOut(BaseModel):
    """A winding with as many leads, how it rings, and what rules it out."""

    kind: str
    name: str
    groups: list[int]
    reason: str


class JoiningOut(BaseModel):
    """A named joining of this winding: its joints, and the line volts it is made for."""

    name: str
    said: str
    state: str
    speed: str
    volts: str
    is_stamped: bool
    joints: list[JointOut]
    free: list[str]


class AccessoryOut(BaseModel):
    """Leads that are no winding, and what their ohms say."""

    id: str
    text: str
    settles: str
    kinds: list[str]


class PartTestOut(BaseModel):
    """How a part of the start circuit reads dead, and what else would mean."""

    part: str
    name: str
    reads: str
    otherwise: str


class StartOut(BaseModel):
    """The start circuit of a single-phase motor."""

    kind: str
    kind_name: str
    is_inside: bool
    caution: str
    notes: list[str]
    tests: list[PartTestOut]
    findings: list[FindingOut]
    picture: PictureOut


class BarOut(BaseModel):
    """A bar or flying jumper between two studs."""

    start: str
    end: str
    is_jumper: bool
    level: int


class StackOut(BaseModel):
    """What lies on a stud, from the board up."""

    lead: str
    layers: list[str]


class PartsOut(BaseModel):
    """Parts used, had and left over; below zero they are missing."""

    name: str
    used: int
    had: int
    left: int


class BoardOut(BaseModel):
    """A stud board with its bars laid."""

    rows: list[list[str]]
    bars: list[BarOut]
    stacks: list[StackOut]
    parts: list[PartsOut]


class PointOut(BaseModel):
    """Where an end is drawn [px]."""

    x: float
    y: float


class DiagramOut(BaseModel):
    """A diagram of the maker against the derived joints."""

    id: str
    agrees: bool
    is_rotation_only: bool
    differences: list[str]
    refusal: RefusalOut | None


class BoxOut(BaseModel):
    """The Leads step: the derived answer, and what the joints given do."""

    kind: str
    kind_name: str
    phases: int
    kinds: list[KindOut]
    leads: list[str]
    lines: list[str]
    marks: dict[str, str]
    points: dict[str, PointOut]
    inner: list[str]
    rated_v: float
    derived_name: str
    derived: list[JointOut]
    derived_free: list[str]
    derived_refusal: RefusalOut | None
    asked: str
    states: list[JoiningOut]
    known: list[JoiningOut]
    verdict: Literal["right", "wrong", "open", "untold"]
    name: str
    rotation: str
    coils: list[CoilOut]
    findings: list[FindingOut]
    refusal: RefusalOut | None
    tell: str
    notes: list[str]
    accessories: list[AccessoryOut]
    start: StartOut | None
    board: BoardOut | None
    board_refusal: RefusalOut | None
    diagrams: list[DiagramOut]
    is_disputed: bool
    followed: str


class JointPlanOut(BaseModel):
    """How one joint is made."""

    id: str
    ends: list[str]
    sizes: list[str]
    method: str
    rubber: int
    vinyl: int
    parts: list[str]
    bulk_in3: float
    is_recorded: bool
    findings: list[FindingOut]


class JointsPlanOut(BaseModel):
    """The Joints step: each joint, the rule's volume and the estimate of bulk, apart."""

    joints: list[JointPlanOut]
    rule: StepOut | None
    rule_refusal: RefusalOut | None
    meets_rule: bool | None
    bulk_in3: float
    percent: float | None
    fit: Literal["fits", "tight", "no", "unknown"]
    findings: list[FindingOut]
    ways_out: list[str]
    parts: list[str]


class OddsOut(BaseModel):
    """A usual voltage, and how likely the readings make it."""

    volts: str
    percent: float


class EstimateOut(BaseModel):
    """For which volts a doubted winding is made."""

    odds: list[OddsOut]
    confidence: str
    may_energise: bool
    working: list[str]
    ways_out: list[str]
    refusal: RefusalOut | None


def _connection_name(name: str) -> str:
    return say(Message(f"connection.{name}")) if name else ""


def joint_out(joint: Joint) -> JointOut:
    """Return a joint as it is sent."""
    return JointOut(
        id=joint.id, leads=list(joint.leads), line=joint.line, conductors=joint.conductors
    )


def _coil(coil: CoilState) -> CoilOut:
    return CoilOut(
        name=coil.name,
        start=coil.start,
        end=coil.end,
        volts_v=round(coil.volts_v, 1),
        rated_v=round(coil.rated_v, 1),
        percent=round(coil.ratio * 100),
        angle_deg=round(coil.angle_deg, 1),
        is_idle=coil.is_idle,
        is_turned=coil.is_turned,
        is_resting=coil.is_resting,
    )


def _joining(box: Box, winding: Winding, known: Connection, state: str) -> JoiningOut:
    volts = ""
    if box.rating is not None:
        low, high = box.rating.line_band(known)
        volts = f"{low:.0f}" if round(low) == round(high) else f"{low:.0f}-{high:.0f}"
    return JoiningOut(
        name=known.name,
        said=_connection_name(known.name),
        state=state,
        speed=known.speed,
        volts=volts,
        is_stamped=box.rating is not None and known.name in box.rating.stamped,
        joints=[joint_out(joint) for joint in known.joints],
        free=list(known.free(winding)),
    )


def _accessory(item: ToldAccessory) -> AccessoryOut:
    told, error = item.told, item.error
    return AccessoryOut(
        id=item.given.id,
        text=str(error) if error else "" if told is None else say(told.message),
        settles=say(error.hint)
        if error
        else say(told.settles)
        if told is not None and told.settles is not None
        else "",
        kinds=[] if told is None else list(told.kinds),
    )


def _board(laid: Laid | None) -> BoardOut | None:
    if laid is None:
        return None
    return BoardOut(
        rows=[list(row) for row in laid.rows],
        bars=[
            BarOut(start=bar.start, end=bar.end, is_jumper=bar.is_jumper, level=bar.level)
            for bar in laid.bars
        ],
        stacks=[
            StackOut(
                lead=lead,
                layers=[
                    f"{layer.part}, {layer.nut}" if layer.nut else layer.part
                    for layer in laid.stacks[lead]
                ],
            )
            for lead in laid.stacks
        ],
        parts=[
            PartsOut(name=part.name, used=part.used, had=part.had, left=part.left)
            for part in laid.parts
        ],
    )


def _diagram(item: CheckedDiagram) -> DiagramOut:
    compared = item.compared
    return DiagramOut(
        id=item.given.id,
        agrees=compared is not None and compared.agrees,
        is_rotation_only=compared is not None and compared.is_rotation_only,
        differences=[]
        if compared is None
        else [say(found.message()) for found in compared.differences],
        refusal=refusal_out(Refusal.of(item.error) if item.error else None),
    )


def _start(branch: StartBranch | None) -> StartOut | None:
    if branch is None:
        return None
    has_capacitor = any(part.endswith("capacitor") for part in (*branch.switched, *branch.steady))
    return StartOut(
        kind=branch.kind,
        kind_name=say(Message(f"single.kind.{branch.kind}")),
        is_inside=branch.is_inside,
        caution=say(Message("single.discharge")) if has_capacitor else "",
        notes=[say(Message("single.inside"))] if branch.is_inside else [],
        tests=[
            PartTestOut(
                part=test.part,
                name=say(test.name),
                reads=say(test.reads),
                otherwise=say(test.else_),
            )
            for test in branch.tests
        ],
        findings=[finding_out(found) for found in branch.findings],
        picture=picture_out(draw_start_branch(branch)),
    )


def _kinds(box: Box, leads: int | None) -> list[KindOut]:
    if box.alike:
        return [
            KindOut(
                kind=item.kind,
                name=say(Message(f"kind_name.{item.kind}")),
                groups=list(continuity_groups(KINDS[item.kind])),
                reason="" if item.reason is None else say(item.reason),
            )
            for item in box.alike
        ]
    return [
        KindOut(
            kind=kind.kind,
            name=say(Message(f"kind_name.{kind.kind}")),
            groups=list(continuity_groups(kind)),
            reason="",
        )
        for kind in KINDS.values()
        if len(kind.leads) == leads
    ]


def _told(error: CoreError | None) -> RefusalOut | None:
    return refusal_out(Refusal.of(error) if error else None)


def box_out(box: Box, leads: int | None) -> BoxOut:
    """Return the box as it is sent, every sentence said."""
    winding, outcome, derived = box.winding, box.outcome, box.derived
    lines = [] if winding is None else list(LINES[: 3 if winding.phases == 3 else 2])
    points = {} if winding is None else winding_points(winding)
    coils = [] if outcome is None else [_coil(coil) for coil in outcome.coils]
    return BoxOut(
        kind="" if winding is None else winding.kind,
        kind_name="" if winding is None else say(Message(f"kind_name.{winding.kind}")),
        phases=3 if winding is None else winding.phases,
        kinds=_kinds(box, leads),
        leads=[] if winding is None else list(winding.leads),
        lines=lines,
        marks=dict(box.names),
        points={name: PointOut(x=x, y=y) for name, (x, y) in points.items()},
        inner=[name for name in points if name.startswith("S")],
        rated_v=coils[0].rated_v if coils else 0.0,
        derived_name="" if derived is None else _connection_name(derived.name),
        derived=[joint_out(joint) for joint in box.intended],
        derived_free=[] if derived is None or winding is None else list(derived.free(winding)),
        derived_refusal=_told(box.derived_error),
        asked="" if box.states is None else box.states.of,
        states=[]
        if box.states is None or winding is None
        else [_joining(box, winding, known, state) for state, known in box.states.states.items()],
        known=[]
        if winding is None
        else [_joining(box, winding, known, known.stage) for known in box.known],
        verdict="untold" if outcome is None else outcome.verdict,
        name="" if outcome is None else _connection_name(outcome.name),
        rotation="" if outcome is None else outcome.rotation,
        coils=coils,
        findings=[finding_out(found) for found in (outcome.findings if outcome else ())],
        refusal=_told(box.outcome_error),
        tell="" if box.tell is None else say(box.tell),
        notes=[say(note) for note in box.notes],
        accessories=[_accessory(item) for item in box.accessories],
        start=_start(box.start),
        board=_board(box.laid),
        board_refusal=_told(box.board_error),
        diagrams=[_diagram(item) for item in box.diagrams],
        is_disputed=box.is_disputed,
        followed=box.followed,
    )


def joints_out(worked: JointsWorked | None) -> JointsPlanOut | None:
    """Return the Joints step as it is sent."""
    if worked is None:
        return None
    rule = next((step for step in worked.steps if step.id == "housing_volume_in3"), None)
    return JointsPlanOut(
        joints=[
            JointPlanOut(
                id=plan.id,
                ends=list(plan.ends),
                sizes=list(plan.sizes),
                method=plan.method,
                rubber=plan.rubber,
                vinyl=plan.vinyl,
                parts=[say(part) for part in plan.parts],
                bulk_in3=round(plan.bulk_in3, 2),
                is_recorded=plan.is_recorded,
                findings=[finding_out(found) for found in plan.findings],
            )
            for plan in worked.joints
        ],
        rule=None if rule is None else step_out(rule),
        rule_refusal=_told(worked.volume_error),
        meets_rule=worked.meets_rule,
        bulk_in3=round(worked.bulk_in3, 1),
        percent=None if worked.fill is None else round(worked.fill * 100),
        fit=worked.fit,
        findings=[finding_out(found) for found in worked.findings],
        ways_out=[say(way) for way in worked.ways_out],
        parts=[say(part) for part in worked.parts],
    )


def estimate_out(found: Estimate | CoreError | None) -> EstimateOut | None:
    """Return the estimate of a doubted motor's volts as it is sent."""
    if found is None:
        return None
    if isinstance(found, CoreError):
        return EstimateOut(
            odds=[],
            confidence="low",
            may_energise=False,
            working=[],
            ways_out=[],
            refusal=_told(found),
        )
    return EstimateOut(
        odds=[
            OddsOut(volts=f"{item.volts_v:f}", percent=round(item.odds * 100, 1))
            for item in found.odds[:4]
        ],
        confidence=found.confidence,
        may_energise=found.may_energise,
        working=[say(message) for message in found.working],
        ways_out=[say(message) for message in found.ways_out],
        refusal=None,
    )
