"""The terminal box as it is sent: winding, joints, board, diagrams, joints made."""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping
from typing import Annotated, Any, Literal

from pydantic import BeforeValidator, Field

from answers.schemas.base import Answer, OneDecimal, Refused, Sentence
from answers.schemas.parts import FindingOut, StepOut
from answers.schemas.pictures import PictureOut
from evencoil.base import CoreError, Message, line_said, say
from evencoil.drawing import draw_start_branch, winding_points
from evencoil.leads import Box, CheckedDiagram, JointsWorked, Laid, ToldAccessory
from evencoil.plate import Estimate
from evencoil.winding import KINDS, LINES, Connection, StartBranch, Winding, continuity_groups

__all__ = [
    "BoxOut",
    "EstimateOut",
    "JointOut",
    "JointsPlanOut",
    "box_out",
    "connection_name",
    "estimate_out",
    "joints_out",
]


def connection_name(name: str) -> str:
    """Return what a connection is called, empty for none."""
    return say(Message(f"connection.{name}")) if name else ""


def _named(name: Any) -> Any:
    return Message(f"kind_name.{name}") if isinstance(name, str) else name


def _two_decimals(value: Any) -> Any:
    return round(float(value), 2)


class JointOut(Answer):
    """A joint: which leads, which line, how many conductors."""

    id: str
    leads: list[str]
    line: str | None
    to_starter: str
    conductors: int


class CoilOut(Answer):
    """What one coil sees, against what it is made for."""

    name: str
    start: str
    end: str
    volts_v: OneDecimal
    running_v: OneDecimal
    rated_v: OneDecimal
    angle_deg: OneDecimal
    starting_times: OneDecimal
    running_times: OneDecimal
    state: Literal["resting", "over", "idle", "turned", "low", "right"]


class KindOut(Answer):
    """A winding with as many leads, how it rings, and what rules it out."""

    kind: str
    name: str
    groups: list[int]
    reason: str


class JoiningOut(Answer):
    """A named connection of this winding: its joints, and the line volts it is made for."""

    name: str
    said: str
    state: str
    speed: str
    volts: str
    is_stamped: bool
    joints: list[JointOut]
    free: list[str]


class AccessoryOut(Answer):
    """Leads that are no winding, and what their ohms say."""

    id: str
    text: str
    settles: str
    kinds: list[str]


class PartTestOut(Answer):
    """How a part of the start circuit reads dead, and what else would mean."""

    part: str
    name: Sentence
    reads: Sentence
    otherwise: Sentence = Field(validation_alias="else_")


class StartOut(Answer):
    """The start circuit of a single-phase motor."""

    kind: str
    kind_name: str
    is_inside: bool
    caution: str
    notes: list[str]
    tests: list[PartTestOut]
    findings: list[FindingOut]
    picture: PictureOut


class BarOut(Answer):
    """A bar or flying jumper between two studs."""

    start: str
    end: str
    is_jumper: bool
    level: int


class LayerOut(Answer):
    """One part on a stud, and whether current passes through it."""

    text: str
    carries: bool


class StackOut(Answer):
    """What lies on a stud, from the board up."""

    lead: str
    layers: list[LayerOut]


class PartsOut(Answer):
    """Parts used, had and left over; below zero they are missing."""

    name: str
    used: int
    had: int
    left: int


class LaidOut(Answer):
    """The bars of one named connection on the board, and the studs that hold several."""

    name: str
    bars: list[str]
    jumpers: list[str]
    stacked: list[str]


class BoardOut(Answer):
    """A stud board with its bars laid."""

    rows: list[list[str]]
    bars: list[BarOut]
    stacks: list[StackOut]
    parts: list[PartsOut]
    by_connection: list[LaidOut]


class PointOut(Answer):
    """Where an end is drawn [px]."""

    x: float
    y: float


class DiagramOut(Answer):
    """A diagram of the maker against the derived joints."""

    id: str
    agrees: bool
    is_rotation_only: bool
    differences: list[str]
    joints: list[str]
    fits: list[str]
    refusal: Refused


class TurnOut(Answer):
    """Which way the shaft is to turn, facing its end, and what that rests on."""

    sense: Literal["clockwise", "counter-clockwise", "unknown"]
    said: Sentence


class BoxOut(Answer):
    """The Leads step: the derived answer, and what the joints given do."""

    kind: str
    kind_name: str
    is_switched: bool
    phases: int
    kinds: list[KindOut]
    counts: list[int]
    leads: list[str]
    lines: list[str]
    marks: dict[str, str]
    points: dict[str, PointOut]
    inner: list[str]
    rated_v: float
    derived_name: str
    derived: list[JointOut]
    derived_free: list[str]
    shared: list[JointOut]
    derived_refusal: Refused
    asked: str
    states: list[JoiningOut]
    known: list[JoiningOut]
    verdict: Literal["right", "wrong", "open", "untold"]
    name: str
    rotation: str
    coils: list[CoilOut]
    findings: list[FindingOut]
    refusal: Refused
    tell: Sentence
    notes: list[Sentence]
    rotation_note: str
    turn: TurnOut | None
    accessories: list[AccessoryOut]
    start: StartOut | None
    board: BoardOut | None
    board_refusal: Refused
    diagrams: list[DiagramOut]
    is_disputed: bool
    followed: str


class JointPlanOut(Answer):
    """How one joint is made."""

    id: str
    ends: list[str]
    sizes: list[str]
    method: str
    rubber: int
    vinyl: int
    parts: list[Sentence]
    bulk_in3: Annotated[float, BeforeValidator(_two_decimals)]
    is_recorded: bool
    findings: list[FindingOut]


class JointsPlanOut(Answer):
    """The Joints step: each joint, the rule's volume and the estimate of bulk, apart."""

    joints: list[JointPlanOut]
    rule: StepOut | None
    rule_refusal: Refused
    meets_rule: bool | None
    bulk_in3: OneDecimal
    percent: float | None
    fit: Literal["fits", "tight", "no", "unknown"]
    findings: list[FindingOut]
    ways_out: list[Sentence]
    parts: list[Sentence]


class OddsOut(Answer):
    """A usual voltage, and how likely the readings make it."""

    volts: str
    percent: float


class EstimateOut(Answer):
    """For which volts a doubted winding is made."""

    odds: list[OddsOut]
    confidence: str
    may_energize: bool
    working: list[Sentence]
    ways_out: list[Sentence]
    refusal: Refused


def _joining(box: Box, winding: Winding, known: Connection, state: str) -> JoiningOut:
    volts = ""
    if box.rating is not None:
        low, high = box.rating.line_band(known)
        volts = f"{low:.0f}" if round(low) == round(high) else f"{low:.0f}-{high:.0f}"
    return JoiningOut(
        name=known.name,
        said=connection_name(known.name),
        state=state,
        speed=known.speed,
        volts=volts,
        is_stamped=box.rating is not None and known.name in box.rating.stamped,
        joints=known.joints,
        free=known.free(winding),
    )


def _accessory(item: ToldAccessory) -> AccessoryOut:
    told, error = item.told, item.error
    if error is not None:
        return AccessoryOut(id=item.given.id, text=str(error), settles=say(error.hint), kinds=[])
    return AccessoryOut(
        id=item.given.id,
        text="" if told is None else say(told.message),
        settles="" if told is None or told.settles is None else say(told.settles),
        kinds=[] if told is None else told.kinds,
    )


def _laid(name: str, laid: Laid, names: Mapping[str, str]) -> LaidOut:
    """Return the bars of a connection in words."""

    def mark(lead: str) -> str:
        return names.get(lead, lead).removeprefix("T")

    counted = Counter(end for bar in laid.bars for end in (bar.start, bar.end))
    return LaidOut(
        name=connection_name(name),
        bars=[f"{mark(bar.start)}-{mark(bar.end)}" for bar in laid.bars if not bar.is_jumper],
        jumpers=[f"{mark(bar.start)}-{mark(bar.end)}" for bar in laid.bars if bar.is_jumper],
        stacked=[f"{mark(lead)}: {count}" for lead, count in counted.items() if count > 1],
    )


def _board(box: Box) -> BoardOut | None:
    laid = box.laid
    if laid is None:
        return None
    return BoardOut(
        rows=laid.rows,
        bars=laid.bars,
        stacks=[
            StackOut(
                lead=lead,
                layers=[
                    LayerOut(
                        text=f"{layer.part}, {layer.nut}" if layer.nut else layer.part,
                        carries=layer.carries,
                    )
                    for layer in layers
                ],
            )
            for lead, layers in laid.stacks.items()
        ],
        parts=laid.parts,
        by_connection=[_laid(name, one, box.names) for name, one in box.laid_by.items()],
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
        joints=[
            " ".join((*(() if joint.line is None else (line_said(joint.line),)), *joint.leads))
            for joint in item.joints
        ],
        fits=[say(Message(f"kind_name.{kind}")) for kind in item.kinds],
        refusal=item.error,
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
        tests=branch.tests,
        findings=branch.findings,
        picture=draw_start_branch(branch),
    )


def _kinds(box: Box, leads: int | None) -> list[KindOut]:
    alike = [(item.kind, item.reason) for item in box.alike] or [
        (kind.kind, None) for kind in KINDS.values() if len(kind.leads) == leads
    ]
    return [
        KindOut(
            kind=kind,
            name=say(Message(f"kind_name.{kind}")),
            groups=continuity_groups(KINDS[kind]),
            reason="" if reason is None else say(reason),
        )
        for kind, reason in alike
    ]


def free_leads(box: Box) -> tuple[str, ...]:
    """Return the leads that are insulated each by itself; none where all run to the starter."""
    if box.is_switched or box.derived is None or box.winding is None:
        return ()
    return box.derived.free(box.winding)


def box_out(box: Box, leads: int | None) -> BoxOut:
    """Return the box as it is sent, every sentence said."""
    winding, outcome, derived = box.winding, box.outcome, box.derived
    lines = [] if winding is None else list(LINES[: 3 if winding.phases == 3 else 2])
    points = {} if winding is None else winding_points(winding)
    coils = () if outcome is None else outcome.coils
    return BoxOut(
        kind="" if winding is None else winding.kind,
        kind_name="" if winding is None else say(Message(f"kind_name.{winding.kind}")),
        is_switched=box.is_switched,
        phases=3 if winding is None else winding.phases,
        kinds=_kinds(box, leads),
        counts=box.counts,
        leads=() if winding is None else winding.leads,
        lines=lines,
        marks=box.names,
        points={name: PointOut(x=x, y=y) for name, (x, y) in points.items()},
        inner=[name for name in points if name.startswith("S")],
        rated_v=round(coils[0].rated_v, 1) if coils else 0.0,
        derived_name="" if derived is None else connection_name(derived.name),
        derived=box.intended,
        derived_free=free_leads(box),
        shared=box.shared,
        derived_refusal=box.derived_error,
        asked="" if box.states is None else box.states.of,
        states=[]
        if box.states is None or winding is None
        else [_joining(box, winding, known, state) for state, known in box.states.states.items()],
        known=[]
        if winding is None
        else [_joining(box, winding, known, known.stage) for known in box.known],
        verdict="untold" if outcome is None else outcome.verdict,
        name="" if outcome is None else connection_name(outcome.name),
        rotation="" if outcome is None else outcome.rotation,
        coils=coils,
        findings=outcome.findings if outcome else (),
        refusal=box.outcome_error,
        tell=box.tell,
        turn=None if box.turn is None else TurnOut(sense=box.turn.sense, said=say(box.turn.said)),
        rotation_note="" if box.rotation_note is None else say(box.rotation_note),
        notes=box.notes,
        accessories=[_accessory(item) for item in box.accessories],
        start=_start(box.start),
        board=_board(box),
        board_refusal=box.board_error,
        diagrams=[_diagram(item) for item in box.diagrams],
        is_disputed=box.is_disputed,
        followed=box.followed,
    )


def joints_out(worked: JointsWorked | None) -> JointsPlanOut | None:
    """Return the joints step as it is sent."""
    if worked is None:
        return None
    return JointsPlanOut(
        joints=worked.joints,
        rule=next((step for step in worked.steps if step.id == "housing_volume_in3"), None),
        rule_refusal=worked.volume_error,
        meets_rule=worked.meets_rule,
        bulk_in3=worked.bulk_in3,
        percent=None if worked.fill is None else round(worked.fill * 100),
        fit=worked.fit,
        findings=worked.findings,
        ways_out=worked.ways_out,
        parts=worked.parts,
    )


def estimate_out(found: Estimate | CoreError | None) -> EstimateOut | None:
    """Return the estimate of a doubted motor's volts as it is sent."""
    if found is None:
        return None
    if isinstance(found, CoreError):
        return EstimateOut(
            odds=[], confidence="low", may_energize=False, working=[], ways_out=[], refusal=found
        )
    return EstimateOut(
        odds=[
            OddsOut(volts=f"{item.volts_v:f}", percent=round(item.odds * 100, 1))
            for item in found.odds[:4]
        ],
        confidence=found.confidence,
        may_energize=found.may_energize,
        working=found.working,
        ways_out=found.ways_out,
        refusal=None,
    )
