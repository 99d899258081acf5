"""Audits over the network: begin, how far, what was found, the lines, files of them."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import Annotated

from django.db.models import Count, F, Q, QuerySet
from django.http import HttpRequest, HttpResponse
from django.template.loader import render_to_string
from ninja import Query, Router
from pydantic import BaseModel
from pydantic import Field as Limit

from answers.pdf import printed
from api.answers import as_json
from api.files import XLSX, answers_file, attachment
from api.problems import ProblemError
from api.schemas import HEAVY, REFUSALS
from audits.actions import BeginAudit, StopAudit
from audits.counts import left_of, tally_of
from audits.doing import begin_parts
from audits.found import UNREAD, line_of
from audits.models import Audit, AuditedJob, AuditedLine
from audits.schemas import (
    AuditCountOut,
    AuditHeadOut,
    AuditLineOut,
    AuditLinesIn,
    AuditLinesOut,
    AuditNeedOut,
    AuditOut,
    AuditPlaceOut,
    AuditTopicOut,
    AuditUnreadOut,
)
from desk.answer import Tell, answer, in_turn
from evencoil.audit import (
    HEADS,
    STATES,
    TOPICS,
    AuditLine,
    AuditState,
    Place,
    WhatIf,
    audit_csv,
    audit_row,
    doubtful_in,
    headline,
    said_if,
)
from evencoil.base import Message, say
from evencoil.schedule import table_workbook
from people.access import Caller, caller_in, not_found

__all__ = ["router"]

router = Router(tags=["audits"])
PLACE = "/w/{works}/audits"
AuditNumber = Annotated[int, Limit(ge=1, le=1_000_000)]
PAGE = 50
#: asked for as a state: everything but what nobody recorded
FOUND = "found"
#: lines on paper and unknown facts told; the table holds every line
_MOST_PRINTED, _MOST_NEEDS = 500, 40


def _audit(caller: Caller, n: int) -> Audit:
    found = Audit.objects.select_related("by", "before").filter(works=caller.works, n=n).first()
    if found is None:
        raise not_found("audit")
    return found


def _head(row: Audit, caller: Caller) -> AuditHeadOut:
    return AuditHeadOut(
        n=row.n,
        by=str(row.by),
        at=caller.works.local(row.at),
        state=row.state,
        done=row.jobs.count() if row.is_kept else row.total,
        total=row.total,
        supposed=[say(one) for one in said_if(WhatIf.model_validate(row.what_if))],
        is_kept=row.is_kept,
    )


def _counts(counts: Mapping[AuditState, int], unread: int = 0) -> list[AuditCountOut]:
    """Return every state that some job is in, the worst first."""
    found = [
        AuditCountOut(state=state, said=say(Message(f"audit.state.{state}")), jobs=counts[state])
        for state in STATES
        if counts.get(state)
    ]
    if unread:
        said = say(Message("audit.state.unread"))
        found.append(AuditCountOut(state=UNREAD, said=said, jobs=unread))
    return found


def _places(
    counts: Mapping[str, Mapping[AuditState, int]], open_: Mapping[str, int]
) -> list[AuditPlaceOut]:
    """Return machines or panels, those with most that fails first."""
    found = [
        AuditPlaceOut(
            name=name,
            total=sum(own.values()),
            fails=own.get("fails", 0),
            doubt=doubtful_in(own),
            open=open_.get(name, 0),
        )
        for name, own in counts.items()
    ]
    return sorted(found, key=lambda one: (-one.fails, -one.doubt, -one.open, one.name))


class _Asked(BaseModel):
    """What decides what is told of an audit: itself and how far it is."""

    pk: int
    head: AuditHeadOut


def _told(asked: _Asked, caller: Caller, tell: Tell) -> bytes:
    """Return everything that an audit counts."""
    del tell, caller
    row = Audit.objects.select_related("before").get(pk=asked.pk)
    return as_json(_whole(row, asked.head))


def _whole(row: Audit, head: AuditHeadOut) -> AuditOut:
    tally = tally_of(row)
    said = headline(tally, is_supposed=bool(row.what_if))
    if row.state == "running":
        far = {"done": str(head.done), "total": str(head.total)}
        said = Message("audit.headline.running", far)
    elif not row.is_kept:
        # nothing is left to be counted: it is not said to hold
        said = Message("audit.headline.old")
    lines = row.lines.all()
    return AuditOut(
        **head.model_dump(),
        headline=said,
        counts=_counts(tally.jobs, tally.unread),
        topics=[
            AuditTopicOut(
                topic=topic,
                said=say(Message(f"audit.topic.{topic}")),
                counts=_counts(tally.topics[topic]),
            )
            for topic in TOPICS
            if topic in tally.topics
        ],
        machines=_places(tally.machines, tally.open_machines),
        panels=_places(tally.panels, tally.open_panels),
        needs=[AuditNeedOut.model_validate(one) for one in tally.needs()[:_MOST_NEEDS]],
        unread=[
            AuditUnreadOut(tag=job.tag, job=job.link.number, reason=job.body.get("reason", ""))
            for job in row.jobs.filter(state=UNREAD).select_related("link").order_by("tag")[:PAGE]
        ],
        left=[
            Message(f"audit.left.{what}", {"count": str(count)})
            for what, count in sorted(left_of(row).items())
        ],
        before=None if row.before is None else row.before.n,
        new=_changed(lines, "new").count(),
        gone=_changed(lines, "gone").count(),
        moved=_changed(lines, "moved").count(),
    )


def _answered(request: HttpRequest, caller: Caller, row: Audit) -> HttpResponse:
    asked = _Asked(pk=row.pk, head=_head(row, caller))
    return answer(request, caller, _told, asked, caller, decided_by=asked)


def _changed(lines: QuerySet[AuditedLine], change: str) -> QuerySet[AuditedLine]:
    """Return the lines that came, went or are of another state than before."""
    known = lines.filter(was__isnull=False)
    if change == "new":
        return known.filter(was="")
    if change == "gone":
        return known.filter(state="gone")
    if change == "moved":
        return known.exclude(was="").exclude(state="gone").exclude(was=F("state"))
    return known.exclude(was=F("state"))


def _cause(row: Audit, topic: str) -> Q:
    """Return where it is told why nothing of a topic can be found: at supply and nameplate."""
    waiting = row.jobs.filter(**{f"body__states__{topic}": "unknown"}).exclude(
        pk__in=row.lines.filter(topic=topic, state="unknown").values("job")
    )
    return Q(job__in=waiting, topic__in=("supply", "nameplate"))


def _chosen(row: Audit, asked: AuditLinesIn) -> QuerySet[AuditedLine]:
    lines = row.lines.all()
    if asked.change:
        lines = _changed(lines, asked.change)
    elif not row.what_if:
        # what is no longer found is told where changes are asked for
        lines = lines.exclude(state="gone")
    if asked.state == FOUND:
        lines = lines.exclude(state="not_recorded")
    elif asked.topic and asked.state == "unknown":
        lines = lines.filter(Q(topic=asked.topic, state="unknown") | _cause(row, asked.topic))
    else:
        same = {"topic": asked.topic, "state": asked.state}
        lines = lines.filter(**{field: value for field, value in same.items() if value})
    place = {"job__machine": asked.machine, "job__panel": asked.panel}
    lines = lines.filter(**{field: value for field, value in place.items() if value})
    if asked.fact:
        facts = [{"fact": asked.fact}]
        lines = lines.filter(job__in=row.jobs.filter(body__needs__contains=facts))
    return lines.select_related("job", "job__link").order_by("rank", "pk")


@router.get(PLACE, response={200: list[AuditHeadOut], **REFUSALS})
def audits(request: HttpRequest, works: str) -> list[AuditHeadOut]:
    """Return the audits of a plant, the newest first."""
    caller = caller_in(request, works)
    rows = Audit.objects.filter(works=caller.works).select_related("by")
    return [_head(row, caller) for row in rows[:PAGE]]


@router.post(PLACE, response={200: AuditOut, **HEAVY})
def begin_audit(request: HttpRequest, works: str, body: WhatIf) -> HttpResponse:
    """Begin an audit of the plant as it is, or as it would be; workers do it."""
    caller = caller_in(request, works)
    row = BeginAudit(caller, body).run()
    begin_parts(row)
    return _answered(request, caller, row)


@router.get(f"{PLACE}/{{n}}", response={200: AuditOut, **HEAVY})
def one_audit(request: HttpRequest, works: str, n: AuditNumber) -> HttpResponse:
    """Return an audit with everything it counts so far."""
    caller = caller_in(request, works)
    return _answered(request, caller, _audit(caller, n))


@router.get(f"{PLACE}/{{n}}/progress", response={200: AuditHeadOut, **REFUSALS})
def audit_progress(request: HttpRequest, works: str, n: AuditNumber) -> AuditHeadOut:
    """Return how far an audit is."""
    caller = caller_in(request, works)
    return _head(_audit(caller, n), caller)


@router.post(f"{PLACE}/{{n}}/stop", response={200: AuditOut, **HEAVY})
def stop_audit(request: HttpRequest, works: str, n: AuditNumber) -> HttpResponse:
    """Stop an audit; what was found stays."""
    caller = caller_in(request, works)
    return _answered(request, caller, StopAudit(caller, _audit(caller, n)).run())


@router.get(f"{PLACE}/{{n}}/lines", response={200: AuditLinesOut, **REFUSALS})
def audit_lines(
    request: HttpRequest, works: str, n: AuditNumber, asked: Query[AuditLinesIn]
) -> AuditLinesOut:
    """Return a page of what was found, the worst first."""
    caller = caller_in(request, works)
    lines = _chosen(_audit(caller, n), asked)
    sums = lines.order_by().aggregate(found=Count("pk"), jobs=Count("job", distinct=True))
    pages = max(1, -(-sums["found"] // PAGE))
    page = min(asked.page, pages)
    shown = lines[(page - 1) * PAGE : page * PAGE]
    return AuditLinesOut(
        lines=[_line(row) for row in shown],
        found=sums["found"],
        jobs=sums["jobs"],
        page=page,
        pages=pages,
    )


def _line(row: AuditedLine) -> AuditLineOut:
    job: AuditedJob = row.job
    was = row.was
    return AuditLineOut(
        id=row.pk,
        tag=job.tag,
        job=job.link.number,
        machine=job.machine,
        panel=job.panel,
        topic=row.topic,
        topic_said=say(Message(f"audit.topic.{row.topic}")),
        state=row.state,
        state_said=say(Message(f"audit.state.{row.state}")),
        was_said=say(Message(f"audit.state.{was}")) if was else was,
        said=row.said,
        do=row.do,
        guesses=row.guesses,
        rule=row.rule,
        step=row.step,
    )


def _kept(caller: Caller, n: int) -> Audit:
    """Return an audit whose lines are still kept.

    Raises
    ------
    ProblemError
        409 if they were let go.
    """
    row = _audit(caller, n)
    if not row.is_kept:
        raise ProblemError(
            409,
            code="audit_old",
            detail=f"What audit {n} found is no longer kept.",
            field="n",
            hint="Begin another one.",
        )
    return row


def _rows(row: Audit, asked: AuditLinesIn) -> Iterator[tuple[Place, AuditLine]]:
    for line in _chosen(row, asked).iterator(chunk_size=1000):
        job = line.job
        place = Place(job=str(job.link_id), tag=job.tag, machine=job.machine, panel=job.panel)
        yield place, line_of(line)


@router.get(f"{PLACE}/{{n}}/audit.csv", response=REFUSALS, openapi_extra=answers_file("text/csv"))
def audit_table(
    request: HttpRequest, works: str, n: AuditNumber, asked: Query[AuditLinesIn]
) -> HttpResponse:
    """Return what was found as a table; no cell of it is a formula."""
    caller = caller_in(request, works)
    row = _kept(caller, n)
    data = audit_csv(_rows(row, asked)).encode("utf-8-sig")
    return attachment(data, "text/csv", f"audit {n}", "csv")


@router.get(
    f"{PLACE}/{{n}}/audit.xlsx",
    response=REFUSALS,
    openapi_extra=answers_file(XLSX, is_binary=True),
)
def audit_workbook(
    request: HttpRequest, works: str, n: AuditNumber, asked: Query[AuditLinesIn]
) -> HttpResponse:
    """Return what was found as a workbook."""
    caller = caller_in(request, works)
    rows = (audit_row(place, line) for place, line in _rows(_kept(caller, n), asked))
    return attachment(table_workbook(f"Audit {n}", HEADS, rows), XLSX, f"audit {n}", "xlsx")


@router.get(
    f"{PLACE}/{{n}}/audit.pdf",
    response=HEAVY,
    openapi_extra=answers_file("application/pdf", is_binary=True),
)
def audit_on_paper(request: HttpRequest, works: str, n: AuditNumber) -> HttpResponse:
    """Return what was found on paper: counts, unknown facts, the worst lines."""
    caller = caller_in(request, works)
    row = _kept(caller, n)
    status, body = in_turn(request, caller, _on_paper, row.pk, _head(row, caller), caller)
    if status != 200:
        raise ProblemError(status, **body)
    return attachment(body, "application/pdf", f"audit {n}")


def _on_paper(pk: int, head: AuditHeadOut, caller: Caller, tell: Tell) -> bytes:
    del tell
    row = Audit.objects.select_related("before").get(pk=pk)
    # what nobody recorded stands under the unknown facts
    lines = _chosen(row, AuditLinesIn(state=FOUND))
    found = lines.count()
    html = render_to_string(
        "audits/audit.html",
        {
            "works": caller.works.name,
            "audit": _whole(row, head),
            "lines": [_line(one) for one in lines[:_MOST_PRINTED]],
            "more": max(0, found - _MOST_PRINTED),
        },
    )
    return printed(html, render_to_string("audits/audit.css"))
