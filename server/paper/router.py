"""The field pack: print it, look at what was issued, compare it with today."""

from __future__ import annotations

from functools import partial

from django.http import HttpRequest, HttpResponse
from ninja import Router, Status

from api.files import answers_file, attachment
from api.schemas import HEAVY, REFUSALS, ConflictOut
from desk.answer import in_turn
from evencoil.base import Message, __version__, say
from evencoil.codebook import digests
from evencoil.job import fingerprint
from jobs.routers.place import JOB, Number
from jobs.store import as_job_file, kept, motor_job, work_out_kept
from paper.actions import IssueForWiring, PrintPack
from paper.models import Issue
from paper.results import differences, results_of
from paper.schemas import DifferenceOut, IssuedOut, IssueIn, IssueOut
from people.access import Caller, caller_in, not_found

__all__ = ["router"]

router = Router(tags=["paper"])
ISSUES = f"{JOB}/issues"


def _out(issue: Issue, caller: Caller) -> IssueOut:
    return IssueOut(
        n=issue.n,
        kind=issue.kind,
        by=str(issue.by),
        at=caller.works.local(issue.at),
        core_version=issue.core_version,
        fingerprint=issue.fingerprint,
        sha256=issue.sha256,
    )


def _issue(caller: Caller, tag: str, number: int, n: int) -> Issue:
    link = motor_job(caller, tag, number)
    found = Issue.objects.select_related("by").filter(link=link, n=n).first()
    if found is None:
        raise not_found("issue")
    return found


@router.post(ISSUES, response={201: IssueOut, 409: ConflictOut, **HEAVY})
def issue(
    request: HttpRequest, works: str, tag: str, number: Number, body: IssueIn
) -> Status[IssueOut]:
    """Print the pack: an immutable issue is saved; for wiring, numbers are frozen."""
    caller = caller_in(request, works)
    link = motor_job(caller, tag, number)
    action = IssueForWiring if body.is_for_wiring else PrintPack
    return Status(201, _out(action(caller, link, partial(in_turn, request, caller)).run(), caller))


@router.get(ISSUES, response={200: list[IssueOut], **REFUSALS})
def issues(request: HttpRequest, works: str, tag: str, number: Number) -> list[IssueOut]:
    """Return every issue of a job, newest first."""
    caller = caller_in(request, works)
    rows = (
        Issue.objects.select_related("by")
        .filter(link=motor_job(caller, tag, number))
        .defer("pdf", "results", "inputs")
        .order_by("-n")
    )
    return [_out(row, caller) for row in rows]


def _label(what: str) -> str:
    if what in {"wire", "connection"}:
        return what.title()
    return say(Message(f"label.{what}"))


@router.get(f"{ISSUES}/{{n}}", response={200: IssuedOut, **REFUSALS})
def issued(request: HttpRequest, works: str, tag: str, number: Number, n: Number) -> IssuedOut:
    """Return an issue beside what is computed today."""
    caller = caller_in(request, works)
    row = _issue(caller, tag, number, n)
    link = motor_job(caller, tag, number)
    today = results_of(work_out_kept(kept(link, caller.works), caller.works))
    known = digests()
    return IssuedOut(
        **_out(row, caller).dict(),
        inputs_changed=row.fingerprint != fingerprint(as_job_file(link, caller.works)),
        core_changed=row.core_version != __version__,
        tables_changed=sorted(
            name
            for name in {*known, *row.table_digests}
            if known.get(name) != row.table_digests.get(name)
        ),
        differences=[
            DifferenceOut(what=_label(what), issued=before, today=after)
            for what, before, after in differences(row.results, today)
        ],
    )


@router.get(
    f"{ISSUES}/{{n}}/pdf",
    response=REFUSALS,
    openapi_extra=answers_file("application/pdf", "The pack as it was printed", is_binary=True),
)
def pdf(request: HttpRequest, works: str, tag: str, number: Number, n: Number) -> HttpResponse:
    """Return the very bytes that were issued."""
    row = _issue(caller_in(request, works), tag, number, n)
    return attachment(bytes(row.pdf), "application/pdf", f"{tag}-{number}-issue-{n}")
