"""At the panel of one job: how it stands, and what was done there."""

from __future__ import annotations

from functools import partial
from typing import Annotated, Any
from urllib.parse import quote

from allauth.account.internal.flows.reauthentication import did_recently_reauthenticate
from django.http import HttpRequest, HttpResponse
from ninja import Router
from pydantic import Field

from api.files import answers_file, as_csv, attachment
from api.schemas import HEAVY, REFUSALS
from desk.answer import in_turn
from jobs.models import JobMotor
from jobs.routers.place import JOB, Number
from jobs.store import kept, motor_job, work_out_kept
from panel.actions import TakeActs
from panel.book import reading_rows
from panel.card import CardOut, card_of
from panel.log import log_of, newest_revision
from panel.practice import PracticeReadingOut, practiced
from panel.readings_in import BadReadingOut, ReadingsIn, entries_in
from panel.rehearsed import RecordRehearsal, RehearsalIn
from panel.review import ReviewOut, review_of
from panel.schemas import (
    PanelActIn,
    PanelActsIn,
    PanelAnswerOut,
    PanelAnswersOut,
    PanelOnlineIn,
    PanelOut,
    PanelSignIn,
    PanelStripOut,
    ReadingsTakenOut,
    panel_out,
    said_answer,
    strip_out,
)
from panel.signing import SignJob, TakeOnline
from panel.tags import WhichTag, ferrule_rows, printed_tags
from people.access import Caller, caller_in

__all__ = ["router"]

router = Router(tags=["panel"])
PDF = answers_file("application/pdf", "The labels", is_binary=True)
CSV = answers_file("text/csv")


@router.get(f"{JOB}/panel", response={200: PanelOut, **REFUSALS})
def panel(request: HttpRequest, works: str, tag: str, number: Number) -> PanelOut:
    """Return what there is to do at the panel, what was done, and how it stands."""
    caller = caller_in(request, works)
    return _panel(caller, motor_job(caller, tag, number))


@router.get(f"{JOB}/panel/strip", response={200: PanelStripOut, **REFUSALS})
def strip(request: HttpRequest, works: str, tag: str, number: Number) -> PanelStripOut:
    """Return whose locks are on at a job's panel, for every screen of it."""
    caller = caller_in(request, works)
    link = motor_job(caller, tag, number)
    if not link.acts.exists():
        return PanelStripOut(state="", locks=[])
    return strip_out(*log_of(link))


@router.get(f"{JOB}/panel/practice", response={200: PracticeReadingOut, **REFUSALS})
def practice_reading(
    request: HttpRequest,
    works: str,
    tag: str,
    number: Number,
    kind: str = "",
    read_at: str = "",
    stage: str = "",
    temp_c: Annotated[float, Field(ge=-40, le=200)] = 20.0,
) -> PracticeReadingOut:
    """Return what a practice instrument shows on the model of a job: no entry, and no proof."""
    caller = caller_in(request, works)
    revision, _ = newest_revision(caller, motor_job(caller, tag, number))
    return practiced(revision, kind, read_at, stage, temp_c)


@router.get(f"{JOB}/panel/readings.csv", response=REFUSALS, openapi_extra=CSV)
def readings(request: HttpRequest, works: str, tag: str, number: Number) -> HttpResponse:
    """Return every reading at a job's panel as CSV, with what it should have been."""
    caller = caller_in(request, works)
    link = motor_job(caller, tag, number)
    log, rows = log_of(link)
    body = as_csv(reading_rows(log, rows, list(link.panel_revisions.order_by("n"))))
    return attachment(body, "text/csv", f"{tag}-readings")


@router.post(f"{JOB}/panel/rehearsal", response={200: PanelOut, **REFUSALS})
def record_rehearsal(
    request: HttpRequest, works: str, tag: str, number: Number, body: RehearsalIn
) -> PanelOut:
    """Play a rehearsal again on the circuit as it is kept, and put it on record."""
    caller = caller_in(request, works)
    link = motor_job(caller, tag, number)
    RecordRehearsal(caller, link, [one.dict() for one in body.actions], body.until).run()
    return _panel(caller, link)


@router.post(f"{JOB}/panel/online", response={200: PanelOut, **REFUSALS})
def take_online(
    request: HttpRequest, works: str, tag: str, number: Number, body: PanelOnlineIn
) -> PanelOut:
    """Take one entry that is made over the network only: a question, another person's lock."""
    caller = caller_in(request, works)
    link = motor_job(caller, tag, number)
    TakeOnline(caller, link, _item(body)).run()
    return _panel(caller, link)


@router.get(f"{JOB}/panel/review", response={200: ReviewOut, **REFUSALS})
def review(request: HttpRequest, works: str, tag: str, number: Number) -> ReviewOut:
    """Return what a reviewer looks at first, what needs judgment before all else."""
    caller = caller_in(request, works)
    return review_of(caller, motor_job(caller, tag, number))


@router.post(f"{JOB}/panel/sign", response={200: PanelOut, **HEAVY})
def sign(request: HttpRequest, works: str, tag: str, number: Number, body: PanelSignIn) -> PanelOut:
    """Sign a job, signed in anew a moment ago: its record is printed and kept for ever."""
    caller = caller_in(request, works)
    link = motor_job(caller, tag, number)
    item = {
        "uid": body.uid,
        "kind": "signed",
        "device": body.device,
        "rev": body.rev,
        "about": {},
        "body": {
            "license": body.license,
            "accepts": body.accepts,
            "reauth": did_recently_reauthenticate(request),
        },
        "based_on": [str(one) for one in body.based_on],
        "observed_at": body.observed_at,
        "clock_off_s": 0.0,
    }
    SignJob(caller, link, item, partial(in_turn, request, caller)).run()
    return _panel(caller, link)


def _item(act: PanelActIn) -> dict[str, Any]:
    return {**act.dict(), "based_on": [str(name) for name in act.based_on]}


def _panel(caller: Caller, link: JobMotor) -> PanelOut:
    revision, notice = newest_revision(caller, link)
    log, rows = log_of(link)
    return panel_out(caller, revision, log, rows, notice)


@router.post(f"{JOB}/panel/readings", response={200: ReadingsTakenOut, **REFUSALS})
def readings_in(
    request: HttpRequest, works: str, tag: str, number: Number, body: ReadingsIn
) -> ReadingsTakenOut:
    """Take readings from a table: each is answered as if it had been typed by this person."""
    caller = caller_in(request, works)
    link = motor_job(caller, tag, number)
    revision, _ = newest_revision(caller, link)
    log, _ = log_of(link)
    made, bad = entries_in(body, revision, log.heads(), "table")
    answers = TakeActs(caller, link, made).run() if made else []
    refused = [
        BadReadingOut(line=0, field=str(one["about"]), reason=said_answer(answer, one["body"]))
        for one, answer in zip(made, answers, strict=True)
        if not answer.startswith("kept")
    ]
    count = sum(answer.startswith("kept") for answer in answers)
    return ReadingsTakenOut(kept=count, bad=[*bad, *refused], panel=_panel(caller, link))


@router.get(f"{JOB}/panel/tags.pdf", response=REFUSALS, openapi_extra=PDF)
def tags(
    request: HttpRequest, works: str, tag: str, number: Number, which: WhichTag = "door"
) -> HttpResponse:
    """Return labels for the lock, the leads, the door or the wires, one a page."""
    caller = caller_in(request, works)
    link = motor_job(caller, tag, number)
    address = request.build_absolute_uri(f"/w/{works}/m/{quote(tag)}/card")
    body = printed_tags(caller, link, which, address)
    return attachment(body, "application/pdf", f"{tag}-{which}")


@router.get(f"{JOB}/panel/ferrules.csv", response=REFUSALS, openapi_extra=CSV)
def ferrules(request: HttpRequest, works: str, tag: str, number: Number) -> HttpResponse:
    """Return the ferrule of every wire end, for a label printer."""
    caller = caller_in(request, works)
    link = motor_job(caller, tag, number)
    worked = work_out_kept(kept(link, caller.works), caller.works)
    return attachment(as_csv(ferrule_rows(worked)), "text/csv", f"{tag}-ferrules")


@router.get("/w/{works}/m/{tag}/card", response={200: CardOut, **REFUSALS}, auth=None)
def card(request: HttpRequest, works: str, tag: str) -> CardOut:
    """Return the card that a motor's code opens; for a guest only if the plant allows it."""
    return card_of(request, works, tag)


@router.post(f"{JOB}/panel/acts", response={200: PanelAnswersOut, **REFUSALS})
def take(
    request: HttpRequest, works: str, tag: str, number: Number, body: PanelActsIn
) -> PanelAnswersOut:
    """Take entries in the order they were made, each with its own answer."""
    caller = caller_in(request, works)
    link = motor_job(caller, tag, number)
    answers = TakeActs(caller, link, [_item(one) for one in body.acts]).run()
    return PanelAnswersOut(
        answers=[
            PanelAnswerOut(uid=str(one.uid), answer=answer, said=said_answer(answer, one.body))
            for one, answer in zip(body.acts, answers, strict=True)
        ],
        panel=_panel(caller, link),
    )
