"""Fault finding on a job: begin, answer, take back, close; the general order; what a circuit is."""

from __future__ import annotations

import hashlib
import math
from typing import Annotated, Any, Literal

from django.http import HttpRequest, HttpResponse
from ninja import Router
from pydantic import Field as Limit

from answers.schemas.base import Answer as Out
from answers.schemas.base import Sentence
from api.answers import as_json
from api.problems import ProblemError
from api.schemas import HEAVY, REFUSALS, Schema
from desk.answer import Tell, answer
from evencoil.acts import state_of
from evencoil.base import Message, say
from evencoil.circuit import Circuit
from evencoil.starters import entry_of
from evencoil.trouble import (
    ONLY_SEEN,
    OPERATIONS,
    Answer,
    Case,
    Ranked,
    Reading,
    differs,
    hunt,
    known_symptom,
    odds_table,
    rank,
    said_answer_of,
    said_held,
    said_hunt,
    said_option,
    symptoms,
    value_of,
)
from hunts.actions import BeginHunt, ChangeHunt, CloseHunt
from hunts.fields import counted_at, field_for
from hunts.models import TroubleHunt
from jobs.models import JobMotor
from jobs.routers.place import JOB, Number
from jobs.store import motor_job, starter_of
from panel.log import log_of
from people.access import Caller, caller_in, not_found

__all__ = ["router"]

router = Router(tags=["trouble"])
HuntNumber = Annotated[int, Limit(ge=1, le=100_000)]


class SymptomOut(Out):
    """What people say of a machine, and the general order where there is no netlist."""

    id: str
    name: str
    wording: str
    causes: list[str]
    first_question: str
    first_dead: str
    first_live: str


class HuntBeginIn(Schema):
    """What is said of it."""

    symptom: Annotated[str, Limit(max_length=60)]
    age: Literal["y0", "y1", "y2"] = "y1"
    after_work: bool = False


class HuntReadIn(Schema):
    """What a reading gave: a figure, open, or a word; or that it cannot be taken."""

    rev: int
    reading: Annotated[str, Limit(max_length=300)]
    how: Literal["read", "unsure", "cannot"] = "read"
    value: Annotated[float, Limit(ge=0, le=1e12)] | None = None
    is_open: bool = False
    word: Annotated[str, Limit(max_length=40)] = ""


class HuntBackIn(Schema):
    """Which state of a hunt was seen."""

    rev: int


class HuntStepIn(Schema):
    """One thing of a closed hunt in its order."""

    what: Literal["failed", "passed", "changed"]
    row: Annotated[str, Limit(max_length=40)] = ""
    said: Annotated[str, Limit(max_length=200)] = ""


class HuntCloseIn(HuntBackIn):
    """What was tried and changed, in its order."""

    steps: Annotated[list[HuntStepIn], Limit(max_length=60)]


class HuntGroupOut(Out):
    """Faults that no reading parts."""

    faults: list[str]
    ids: list[str]
    rows: list[str]
    percent: float
    shows: str
    devices: list[str]
    wires: list[str]
    is_played: bool
    contradicted: bool


class HuntWordOut(Out):
    """A word that answers a reading."""

    word: str
    said: str


class HuntSplitOut(Out):
    """What a reading may show, and what part of the odds lies there."""

    shows: str
    percent: float


class HuntOfferOut(Out):
    """The reading to take next."""

    id: str
    kind: str
    cost: str
    said: str
    hold: list[str]
    start: str
    end: str
    words: list[HuntWordOut]
    minutes: float
    bits: float
    splits: list[HuntSplitOut]
    caution: str
    is_live: bool
    is_refuting: bool


class BeliefOut(Out):
    """A common belief and the truth."""

    id: str
    belief: str
    truth: str
    where: str


class HuntStandsOut(Out):
    """How a hunt stands."""

    state: str
    groups: list[HuntGroupOut]
    others_percent: float
    offer: HuntOfferOut | None
    instead: str
    doubts: list[str]
    repair: str
    prove: list[str]
    not_excluded: list[str]
    candidates: int
    unplayed: list[str]
    is_shown: bool
    note: str
    beliefs: list[BeliefOut]


class HuntTakenOut(Out):
    """An answer as it was given, by whom and when."""

    reading: str
    said: str
    answer: str
    how: str
    by: str
    at: str
    #: False where the reading is none of this circuit any more
    counts: bool


class HuntVerdictOut(Out):
    """How it was closed."""

    is_proven: bool
    said: str
    row: str
    counts: float
    by: str
    at: str
    steps: list[dict[str, str]]


class HuntLineOut(Out):
    """A hunt of a motor, in any of its jobs."""

    job: int
    n: int
    symptom: str
    by: str
    at: str
    is_closed: bool
    is_proven: bool
    said: str
    #: where it was found, by the table of odds; empty while nobody knows
    cause: str


class HuntOut(Out):
    """A hunt: what is said of it, what was read, where it stands."""

    n: int
    rev: int
    symptom: str
    symptom_name: str
    wording: str
    age: str
    after_work: bool
    by: str
    at: str
    taken: list[HuntTakenOut]
    #: someone's lock is on and every point was read dead, as the panel's entries say
    is_proven_dead: bool
    stands: HuntStandsOut | None
    closed: HuntVerdictOut | None
    odds_said: str


class WhichIn(Schema):
    """What was seen of a circuit, by operation."""

    seen: dict[Annotated[str, Limit(max_length=40)], Annotated[str, Limit(max_length=40)]]


class AlikeOut(Out):
    """A circuit that behaves so."""

    circuit: str
    title: str
    option: str
    fault: str
    agrees: int
    #: devices and wires by which it differs from the standard circuit
    differs: list[Sentence]


class WhichOperationOut(Out):
    """An operation that people can tell of."""

    id: str
    answers: list[str]
    only_seen: bool


class WhichOut(Out):
    """Circuits that behave as was seen, and what parts the best of them."""

    of: int
    best: list[AlikeOut]
    count: int
    propose: str
    refused: list[str]
    operations: list[WhichOperationOut]
    why: str


@router.get("/trouble/symptoms", response={200: list[SymptomOut], **REFUSALS})
def the_symptoms(request: HttpRequest) -> list[SymptomOut]:
    """Return what people say of machines, each with the general order."""
    del request
    return [SymptomOut.model_validate(one) for one in symptoms().values()]


@router.get(f"{JOB}/hunts", response={200: list[HuntLineOut], **REFUSALS})
def hunts(request: HttpRequest, works: str, tag: str, number: Number) -> list[HuntLineOut]:
    """Return the hunts of a job's motor over all its jobs, the newest first."""
    link = motor_job(caller_in(request, works), tag, number)
    rows = TroubleHunt.objects.filter(link__motor=link.motor).select_related("by", "link")
    return [
        HuntLineOut(
            job=row.link.number,
            n=row.n,
            symptom=symptoms()[row.symptom].name,
            by=str(row.by),
            at=f"{row.at:%Y-%m-%d %H:%M}",
            is_closed=row.closed_at is not None,
            is_proven=row.is_proven,
            said=say(Message(f"trouble.closed.{row.reason}")) if row.reason else "",
            cause=_said_row(row.row),
        )
        for row in rows.order_by("-at")[:100]
    ]


@router.post(f"{JOB}/hunts", response={200: HuntOut, **HEAVY})
def begin(
    request: HttpRequest, works: str, tag: str, number: Number, body: HuntBeginIn
) -> HttpResponse:
    """Begin a hunt; on a circuit that was not hunted before the faults are played first."""
    caller = caller_in(request, works)
    link = motor_job(caller, tag, number)
    known_symptom(body.symptom)
    circuit = _circuit(link, caller)
    row = BeginHunt(caller, link, body.dict()).run()
    return answer(request, caller, _stands, circuit, _facts(row, caller))


@router.get(f"{JOB}/hunts/{{n}}", response={200: HuntOut, **HEAVY})
def one_hunt(
    request: HttpRequest, works: str, tag: str, number: Number, n: HuntNumber
) -> HttpResponse:
    """Return a hunt and where it stands."""
    caller = caller_in(request, works)
    link = motor_job(caller, tag, number)
    return _answered(request, caller, link, _row(link, n))


@router.post(f"{JOB}/hunts/{{n}}/answers", response={200: HuntOut, **HEAVY})
def add_answer(
    request: HttpRequest, works: str, tag: str, number: Number, n: HuntNumber, body: HuntReadIn
) -> HttpResponse:
    """Keep what a reading gave; what is no answer to it is refused and changes nothing."""
    caller = caller_in(request, works)
    link = motor_job(caller, tag, number)
    row = _row(link, n)
    circuit = _circuit(link, caller)
    field = field_for(circuit, with_work=row.after_work)
    place = field.place_of.get(body.reading)
    if place is None:
        raise ProblemError(
            422,
            code="no_reading",
            detail="This circuit has no such reading.",
            field="reading",
            hint="The drawing may have changed: look at the next reading again.",
        )
    given = Answer(
        reading=body.reading,
        how=body.how,
        value=math.inf if body.is_open else body.value,
        word=body.word,
    )
    reading = field.readings[place]
    if body.how != "cannot":
        value_of(reading, given)  # refuses what is no answer
    told = {
        "nets": _nets_at(circuit, reading),
        "reading": body.reading,
        "how": body.how,
        "value": None if body.is_open else body.value,
        "is_open": body.is_open,
        "word": body.word,
        "said": said_held(reading, circuit),
        "answer": said_answer_of(reading, given),
    }
    row = ChangeHunt(caller, row, body.rev, told).run()
    return answer(request, caller, _stands, circuit, _facts(row, caller))


@router.post(f"{JOB}/hunts/{{n}}/back", response={200: HuntOut, **HEAVY})
def take_back(
    request: HttpRequest, works: str, tag: str, number: Number, n: HuntNumber, body: HuntBackIn
) -> HttpResponse:
    """Take the last answer back."""
    caller = caller_in(request, works)
    link = motor_job(caller, tag, number)
    row = ChangeHunt(caller, _row(link, n), body.rev, None).run()
    return _answered(request, caller, link, row)


@router.post(f"{JOB}/hunts/{{n}}/close", response={200: HuntOut, **HEAVY})
def close(
    request: HttpRequest, works: str, tag: str, number: Number, n: HuntNumber, body: HuntCloseIn
) -> HttpResponse:
    """Close a hunt with what was changed; the core says whether that proves a cause."""
    caller = caller_in(request, works)
    link = motor_job(caller, tag, number)
    steps = [one.dict() for one in body.steps]
    row = CloseHunt(caller, _row(link, n), body.rev, steps).run()
    return _answered(request, caller, link, row)


@router.post("/trouble/which", response={200: WhichOut, **REFUSALS})
def which(request: HttpRequest, body: WhichIn) -> WhichOut:
    """Return the circuits of the catalogue, and miswirings, that behave as was seen."""
    del request
    for key, word in body.seen.items():
        if word not in OPERATIONS.get(key, ()):
            raise ProblemError(
                422,
                code="no_operation",
                detail=f"{key[:30]} cannot be answered with {word[:30]}.",
                field=f"seen.{key[:30]}",
                hint="Choose one of the answers offered.",
            )
    return _which(rank(body.seen), body.seen)


def _which(found: Ranked, seen: dict[str, str]) -> WhichOut:
    best = [one for one, agrees in found.best if agrees == found.best[0][1]]
    reverses = seen.get("other_running") == "reverses"
    return WhichOut(
        of=found.of,
        best=[
            AlikeOut(
                circuit=one.circuit,
                title=entry_of(one.circuit).title,
                option=said_option(one.option),
                differs=list(differs(one.circuit, one.option)),
                fault=say(one.fault) if one.fault else "",
                agrees=agrees,
            )
            for one, agrees in found.best[:24]
        ],
        count=len(best),
        propose=found.propose,
        refused=list(found.refused),
        operations=[
            WhichOperationOut(id=key, answers=list(words), only_seen=key in ONLY_SEEN)
            for key, words in OPERATIONS.items()
        ],
        why=say(Message("trouble.which.reverses")) if reverses else "",
    )


def _row(link: JobMotor, n: int) -> TroubleHunt:
    found = TroubleHunt.objects.filter(link=link, n=n).select_related("by", "closed_by").first()
    if found is None:
        raise not_found("hunt")
    return found


def _circuit(link: JobMotor, caller: Caller) -> Circuit:
    return starter_of(link, caller.works).required()


def _nets_at(circuit: Circuit, reading: Reading) -> str:
    """Return a mark of what is joined at the two ends of a reading; empty where it has none."""
    nets = circuit.netlist.nets()
    ends = [end for end in (reading.start, reading.end) if end in nets]
    joined = [sorted(name for name, net in nets.items() if net == nets[end]) for end in ends]
    return hashlib.sha256(repr(joined).encode()).hexdigest()[:16] if ends else ""


def _is_proven_dead(link: JobMotor) -> bool:
    """Tell whether someone's hands may be in the panel, by its locks and rounds of proof."""
    if not link.panel_revisions.exists():
        return False
    log, _ = log_of(link)
    return bool(state_of(log).hands)


def _facts(row: TroubleHunt, caller: Caller) -> dict[str, Any]:
    """Return a hunt as plain values, for whoever calculates it."""
    closed = None
    if row.closed_at is not None:
        closed = {
            "is_proven": row.is_proven,
            "said": say(Message(f"trouble.closed.{row.reason}")),
            "row": _said_row(row.row),
            "counts": row.counts,
            "by": str(row.closed_by),
            "at": f"{row.closed_at:%Y-%m-%d %H:%M}",
            "steps": row.steps,
        }
    return {
        "n": row.n,
        "rev": row.rev,
        "symptom": row.symptom,
        "age": row.age,
        "after_work": row.after_work,
        "by": str(row.by),
        "at": f"{row.at:%Y-%m-%d %H:%M}",
        "answers": row.answers,
        "counted": dict(counted_at(caller.works)),
        "is_proven_dead": _is_proven_dead(row.link),
        "closed": closed,
    }


def _said_row(row: str) -> str:
    known = odds_table().get(row)
    return f"{known.kind}, {known.place}" if known else ""


def _answered(
    request: HttpRequest, caller: Caller, link: JobMotor, row: TroubleHunt
) -> HttpResponse:
    circuit = _circuit(link, caller)
    return answer(request, caller, _stands, circuit, _facts(row, caller))


def _stands(circuit: Circuit, facts: dict[str, Any], tell: Tell) -> bytes:
    """Return a hunt with where it stands; its faults are played where they are not kept."""
    del tell
    field = field_for(circuit, with_work=facts["after_work"])
    case = Case(
        symptom=facts["symptom"],
        age=facts["age"],
        after_work=facts["after_work"],
        is_locked=facts["is_proven_dead"],
        counted=facts["counted"],
    )
    # what was read on wires that are others now is evidence of nothing
    counting = [
        one
        for one in facts["answers"]
        if (place := field.place_of.get(one["reading"])) is not None
        and one["nets"] == _nets_at(circuit, field.readings[place])
    ]
    answers = [
        Answer(
            reading=one["reading"],
            how=one["how"],
            value=math.inf if one["is_open"] else one["value"],
            word=one["word"],
        )
        for one in counting
    ]
    stands = None
    if facts["closed"] is None:
        stands = HuntStandsOut.model_validate(said_hunt(field, case, hunt(field, case, answers)))
    symptom = symptoms()[facts["symptom"]]
    body = HuntOut(
        n=facts["n"],
        rev=facts["rev"],
        symptom=symptom.id,
        symptom_name=symptom.name,
        wording=symptom.wording,
        age=facts["age"],
        after_work=facts["after_work"],
        by=facts["by"],
        at=facts["at"],
        taken=[
            HuntTakenOut(
                reading=one["reading"],
                said=one["said"],
                answer=one["answer"],
                how=one["how"],
                by=one["by"],
                at=one["at"],
                counts=one in counting,
            )
            for one in facts["answers"]
        ],
        is_proven_dead=facts["is_proven_dead"],
        stands=stands,
        closed=HuntVerdictOut(**facts["closed"]) if facts["closed"] else None,
        odds_said=say(Message("trouble.odds")),
    )
    return as_json(body)
