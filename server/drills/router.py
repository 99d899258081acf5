"""Practice: the next question, its answer with its evidence, an exam, a hidden fault."""

from __future__ import annotations

import secrets
from typing import Annotated, Literal

from django.http import HttpRequest
from django.utils import timezone
from ninja import Router
from pydantic import Field as Limit

from answers.schemas.base import Answer as Out
from answers.schemas.parts import StepOut
from api.schemas import REFUSALS, Schema
from drills.actions import AnswerDrill, SetDrill, ShareHistory
from drills.models import DrillAnswer, DrillBox, DrillSet, HiddenFault
from evencoil.practice import (
    KINDS,
    Drill,
    drill,
    judge_parts,
    names_section,
    part_answers,
    said_asked,
    said_fact,
    said_part,
    said_slip,
)
from evencoil.trouble import beliefs
from people.access import caller_in
from people.models import Role

__all__ = ["router"]

router = Router(tags=["practice"])
Seed = Annotated[int, Limit(ge=0, lt=2**31)]
Setting = Literal["exam", "field"]
Kind = Annotated[str, Limit(max_length=30)]


class DrillFactOut(Out):
    """What is told."""

    label: str
    value: str


class DrillPartOut(Out):
    """One of several answers that are asked for."""

    asked: str
    unit: str


class DrillOut(Out):
    """A question, without its answer."""

    kind: str
    seed: int
    setting: str
    asked: str
    facts: list[DrillFactOut]
    unit: str
    choices: list[str]
    #: where several answers are asked for; they go in one text, apart by semicolons
    parts: list[DrillPartOut]


class DrillSlipOut(Out):
    """A wrong route and what it gives."""

    value: str
    said: str


class DrillPartVerdictOut(Out):
    """One of several answers judged."""

    asked: str
    given: str
    is_right: bool
    right: str
    unit: str
    said: str


class DrillVerdictOut(Out):
    """Whether it was right, by which route it came, and the way to the right one."""

    is_right: bool
    #: None where no section was asked for
    is_section_right: bool | None
    right: str
    unit: str
    said: str
    path: list[str]
    working: list[str]
    surplus: list[str]
    slips: list[DrillSlipOut]
    parts: list[DrillPartVerdictOut]
    #: with the same evidence as in a job
    steps: list[StepOut]
    box: int
    due: str


class DrillAnswerIn(Schema):
    """An answer to a question."""

    kind: Kind
    seed: Seed
    setting: Setting = "field"
    given: Annotated[str, Limit(max_length=160)]
    #: the table or section that was named first, with the code book closed
    section: Annotated[str, Limit(max_length=80)] = ""


class DrillSetIn(Schema):
    """A question to set for everyone."""

    kind: Kind
    setting: Setting = "field"
    note: Annotated[str, Limit(max_length=200)] = ""


class DrillShareIn(Schema):
    """Whether reviewers may see the own history."""

    is_shared: bool


class DrillShareOut(Out):
    """Whether it is shared, and how many answers that touches."""

    is_shared: bool
    count: int


class DrillBoxOut(Out):
    """How well a kind is known."""

    kind: str
    box: int
    due: str
    right: int
    wrong: int


class DrillPastOut(Out):
    """An answer that was given."""

    person: str
    kind: str
    given: str
    right: str
    is_right: bool
    slip: str
    at: str


class DrillSetOut(Out):
    """A drill that was set."""

    kind: str
    seed: int
    setting: str
    note: str
    by: str


class HiddenByOut(Out):
    """A fault that a colleague hid, without the fault."""

    id: int
    circuit: str
    by: str
    at: str


class PracticeOut(Out):
    """A person's practice: what is due, what was answered, what was set."""

    kinds: list[str]
    boxes: list[DrillBoxOut]
    past: list[DrillPastOut]
    set: list[DrillSetOut]
    hidden: list[HiddenByOut]
    is_shared: bool
    beliefs: list[list[str]]


def _out(one: Drill) -> DrillOut:
    return DrillOut(
        kind=one.kind,
        seed=one.seed,
        setting=one.setting,
        asked=said_asked(one),
        facts=[
            DrillFactOut(label=label, value=value) for label, value in map(said_fact, one.facts)
        ],
        unit=one.unit,
        choices=list(one.choices),
        parts=[DrillPartOut(asked=said_part(part.kind), unit=part.unit) for part in one.parts],
    )


@router.get("/w/{works}/practice", response={200: PracticeOut, **REFUSALS})
def practice(request: HttpRequest, works: str) -> PracticeOut:
    """Return the caller's practice; a reviewer also sees what others share."""
    caller = caller_in(request, works)
    own = DrillAnswer.objects.filter(person=caller.user, works=caller.works)
    counts: dict[tuple[str, bool], int] = {}
    for kind, is_right in own.values_list("kind", "is_right"):
        counts[kind, is_right] = counts.get((kind, is_right), 0) + 1
    shared = DrillAnswer.objects.filter(works=caller.works, is_shared=True)
    seen = own | shared if caller.may(Role.REVIEWER) else own
    return PracticeOut(
        kinds=list(KINDS),
        boxes=[
            DrillBoxOut(
                kind=row.kind,
                box=row.box,
                due=row.due.isoformat(),
                right=counts.get((row.kind, True), 0),
                wrong=counts.get((row.kind, False), 0),
            )
            for row in DrillBox.objects.filter(person=caller.user).order_by("due", "kind")
        ],
        past=[
            DrillPastOut(
                person=str(row.person),
                kind=row.kind,
                given=row.given,
                right=row.right,
                is_right=row.is_right,
                slip=said_slip(row.slip) if not row.is_right else "",
                at=f"{row.at:%Y-%m-%d %H:%M}",
            )
            for row in seen.select_related("person")[:60]
        ],
        set=[
            DrillSetOut(
                kind=row.kind,
                seed=row.seed,
                setting=row.setting,
                note=row.note,
                by=str(row.by),
            )
            for row in DrillSet.objects.filter(works=caller.works)
            .select_related("by")
            .order_by("-at")[:10]
        ],
        hidden=[
            HiddenByOut(
                id=row.pk, circuit=row.circuit, by=str(row.by), at=f"{row.at:%Y-%m-%d %H:%M}"
            )
            for row in HiddenFault.objects.filter(works=caller.works)
            .select_related("by")
            .order_by("-at")[:20]
        ],
        is_shared=own.filter(is_shared=True).exists(),
        beliefs=[[one.belief, one.truth] for one in beliefs().values()],
    )


@router.get("/w/{works}/practice/next", response={200: DrillOut, **REFUSALS})
def next_drill(
    request: HttpRequest, works: str, kind: Kind = "", setting: Setting = "field"
) -> DrillOut:
    """Return a fresh question: of a kind, or of the one that is due first."""
    caller = caller_in(request, works)
    if not kind:
        kind = _due(caller.user.pk)
    return _out(drill(kind, secrets.randbelow(2**31), setting))


def _due(person: int) -> str:
    """Return the kind that is due: never asked before what was asked, then the oldest."""
    boxes = dict(DrillBox.objects.filter(person_id=person).values_list("kind", "due"))
    fresh = [kind for kind in KINDS if kind not in boxes]
    late = sorted((due, kind) for kind, due in boxes.items() if due <= timezone.localdate())
    if late:
        return late[0][1]
    if fresh:
        return fresh[0]
    return min(boxes.items(), key=lambda one: one[1])[0]


@router.get("/w/{works}/practice/exam", response={200: list[DrillOut], **REFUSALS})
def exam(
    request: HttpRequest,
    works: str,
    count: Annotated[int, Limit(ge=1, le=20)] = 10,
    setting: Setting = "exam",
) -> list[DrillOut]:
    """Return a set of questions, no two of one kind."""
    caller_in(request, works)
    kinds = secrets.SystemRandom().sample(KINDS, min(count, len(KINDS)))
    return [_out(drill(kind, secrets.randbelow(2**31), setting)) for kind in kinds]


@router.get("/w/{works}/practice/drill", response={200: DrillOut, **REFUSALS})
def one_drill(
    request: HttpRequest, works: str, kind: Kind = "", seed: Seed = 0, setting: Setting = "field"
) -> DrillOut:
    """Return a question that was set."""
    caller_in(request, works)
    return _out(drill(kind, seed, setting))


@router.post("/w/{works}/practice/answers", response={200: DrillVerdictOut, **REFUSALS})
def answer_drill(request: HttpRequest, works: str, body: DrillAnswerIn) -> DrillVerdictOut:
    """Judge an answer by the live rule, and say which route it took."""
    caller = caller_in(request, works)
    action = AnswerDrill(caller, body.kind, body.seed, body.setting, body.given)
    row = action.run()
    one, box = action.drill, action.box
    return DrillVerdictOut(
        is_right=row.is_right,
        is_section_right=names_section(one, body.section) if body.section else None,
        right=one.right,
        unit=one.unit,
        said="" if row.is_right else said_slip(row.slip),
        path=list(one.path),
        working=list(one.working),
        surplus=[said_fact(fact)[0] for fact in one.facts if fact.label in one.surplus],
        slips=[DrillSlipOut(value=slip.value, said=said_slip(slip.id)) for slip in one.slips],
        parts=_parts(one, body.given),
        steps=[StepOut.model_validate(step) for step in one.steps],
        box=box.box,
        due=box.due.isoformat(),
    )


def _parts(one: Drill, given: str) -> list[DrillPartVerdictOut]:
    return [
        DrillPartVerdictOut(
            asked=said_part(part.kind),
            given=told,
            is_right=verdict.is_right,
            right=part.right,
            unit=part.unit,
            # what was not answered took no route
            said="" if verdict.is_right or not told else said_slip(verdict.slip),
        )
        for part, told, verdict in zip(
            one.parts, part_answers(one, given), judge_parts(one, given), strict=True
        )
    ]


@router.post("/w/{works}/practice/set", response={200: DrillSetOut, **REFUSALS})
def set_drill(request: HttpRequest, works: str, body: DrillSetIn) -> DrillSetOut:
    """Set a fresh question for everyone; a reviewer does."""
    caller = caller_in(request, works)
    row = SetDrill(caller, body.kind, secrets.randbelow(2**31), body.setting, body.note).run()
    return DrillSetOut(
        kind=row.kind, seed=row.seed, setting=row.setting, note=row.note, by=str(row.by)
    )


@router.post("/w/{works}/practice/share", response={200: DrillShareOut, **REFUSALS})
def share(request: HttpRequest, works: str, body: DrillShareIn) -> DrillShareOut:
    """Let the reviewers of this works see the own history, or no longer."""
    caller = caller_in(request, works)
    count = ShareHistory(caller, is_shared=body.is_shared).run()
    return DrillShareOut(is_shared=body.is_shared, count=count)
