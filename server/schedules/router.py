"""Schedules over the network: read, map, take, stop, the bad lines as a file."""

from __future__ import annotations

import base64
import binascii
import zlib
from typing import Annotated, Any

from django.http import HttpRequest, HttpResponse
from ninja import Router
from pydantic import BaseModel
from pydantic import Field as Limit

from answers.schemas.base import Answer as Out
from answers.schemas.base import Sentence
from api.answers import JSON, as_json
from api.files import answers_file, attachment
from api.problems import ProblemError
from api.schemas import HEAVY, REFUSALS, Schema
from desk.answer import Tell, answer
from evencoil.base import say
from evencoil.schedule import (
    FIELDS,
    MOST_BYTES,
    map_columns,
    open_table,
    read_sheet,
    repair_file,
)
from people.access import Caller, caller_in, not_found
from schedules.actions import KeepTable, MapTable, StopTable, TakeTable
from schedules.models import ScheduleRun
from schedules.taking import take_lines

__all__ = ["router"]

router = Router(tags=["schedules"])
PLACE = "/w/{works}/schedules"
ScheduleNumber = Annotated[int, Limit(ge=1, le=100_000)]
_MOST_SHOWN = 200


class ScheduleTableIn(Schema):
    """A file, compressed with gzip, in base64."""

    name: Annotated[str, Limit(min_length=1, max_length=120)]
    data: Annotated[str, Limit(max_length=1_000_000)]


class ScheduleMapIn(Schema):
    """Field to head, where a person knows better; an empty head: there is none."""

    told: Annotated[
        dict[Annotated[str, Limit(max_length=30)], Annotated[str, Limit(max_length=500)]],
        Limit(max_length=40),
    ]


class ScheduleColumnOut(Out):
    """A field and the head that means it; empty where none does."""

    field: str
    head: str


class ScheduleBadOut(Out):
    """A cell that cannot be taken."""

    line: int
    field: str
    value: str
    reason: Sentence
    hint: Sentence


class ScheduleDoubtOut(Out):
    """What does not fit on a nameplate; the line is taken."""

    line: int
    tag: str
    said: list[Sentence]


class ScheduleLineOut(Out):
    """A table in the list."""

    n: int
    name: str
    by: str
    at: str
    state: str
    done: int
    total: int


class ScheduleKeptOut(Out):
    """A line whose motor a person entered otherwise."""

    line: int
    tag: str


class ScheduleOut(ScheduleLineOut):
    """A table: how it was read, what can be taken, what was."""

    added: int
    changed: int
    same: int
    kept: list[ScheduleKeptOut]
    is_here: bool
    encoding: str
    is_encoding_guessed: bool
    delimiter: str
    #: of a workbook, which has neither encoding nor delimiter
    sheet: str
    heads: list[str]
    columns: list[ScheduleColumnOut]
    left: list[str]
    good: int
    bad_lines: int
    bad: list[ScheduleBadOut]
    doubts: list[ScheduleDoubtOut]


def _opened(data: str) -> bytes:
    """Return the file of a request, never more than is read.

    Raises
    ------
    ProblemError
        422 if it is no such text, or more than is read.
    """
    try:
        packed = base64.b64decode(data, validate=True)
        work = zlib.decompressobj(31)
        found = work.decompress(packed, MOST_BYTES + 1)
    except (binascii.Error, ValueError, zlib.error) as wrong:
        raise ProblemError(
            422,
            code="file_format",
            detail="The file did not arrive whole.",
            field="data",
            hint="Choose it again.",
        ) from wrong
    # what is longer is refused by the reader, with its size
    return found


def _run(caller: Caller, n: int) -> ScheduleRun:
    row = ScheduleRun.objects.select_related("by").filter(works=caller.works, n=n).first()
    if row is None:
        raise not_found("schedule")
    return row


def _line(row: ScheduleRun, caller: Caller) -> ScheduleLineOut:
    return ScheduleLineOut(
        n=row.n,
        name=row.name,
        by=str(row.by),
        at=caller.works.local(row.at),
        state=row.state,
        done=row.done,
        total=row.total,
    )


class _Told(BaseModel):
    """What decides what is told of a table, besides plant rules and core."""

    run: int
    mapped: dict[str, str]
    line: ScheduleLineOut
    taken: dict[str, int]
    kept: list[ScheduleKeptOut]


def _of(told: _Told, **read: Any) -> bytes:
    return as_json(ScheduleOut(**told.line.model_dump(), **told.taken, kept=told.kept, **read))


def _read(told: _Told, data: bytes, tell: Tell) -> bytes:
    """Return what is told of a table whose file is here."""
    del tell
    table = open_table(data, told.mapped)
    sheet, mapped, schedule = table.sheet, table.mapped, table.schedule
    head_of = {field: sheet.heads[place] for field, place in mapped.place_of.items()}
    return _of(
        told,
        is_here=True,
        encoding=sheet.encoding,
        is_encoding_guessed=sheet.is_guess,
        delimiter=sheet.delimiter,
        sheet=sheet.name,
        heads=list(sheet.heads),
        columns=[ScheduleColumnOut(field=one, head=head_of.get(one, "")) for one in FIELDS],
        left=[
            sheet.heads[place] for place in (*mapped.left, *(place for place, _ in mapped.doubled))
        ],
        good=len(schedule.entries),
        bad_lines=len(schedule.bad_lines),
        bad=[
            ScheduleBadOut(
                line=one.line, field=one.field, value=one.value, reason=one.reason, hint=one.hint
            )
            for one in schedule.bad[:_MOST_SHOWN]
        ],
        doubts=[
            ScheduleDoubtOut(line=one.line, tag=one.tag, said=[say(text) for text in one.doubts])
            for one in schedule.entries
            if one.doubts
        ][:_MOST_SHOWN],
    )


def _answered(request: HttpRequest, caller: Caller, row: ScheduleRun) -> HttpResponse:
    """Answer what is told of a table: a long one is read on a seat, in its plant's turn."""
    told = _Told(
        run=row.pk,
        mapped=row.told,
        line=_line(row, caller),
        taken={"added": row.added, "changed": row.changed, "same": row.same},
        kept=[ScheduleKeptOut.model_validate(one) for one in row.kept],
    )
    if row.data:
        return answer(request, caller, _read, told, bytes(row.data), decided_by=told)
    # tables of long ago: what came of them stays, the file does not
    body = _of(
        told,
        is_here=False,
        encoding="",
        is_encoding_guessed=False,
        delimiter="",
        sheet="",
        heads=[],
        columns=[],
        left=[],
        good=row.total,
        bad_lines=0,
        bad=[],
        doubts=[],
    )
    return HttpResponse(body, content_type=JSON)


@router.get(PLACE, response={200: list[ScheduleLineOut], **REFUSALS})
def schedules(request: HttpRequest, works: str) -> list[ScheduleLineOut]:
    """Return the tables of a works, the newest first."""
    caller = caller_in(request, works)
    rows = ScheduleRun.objects.filter(works=caller.works).select_related("by").defer("data")
    return [_line(row, caller) for row in rows[:50]]


@router.post(PLACE, response={200: ScheduleOut, **HEAVY})
def read_table(request: HttpRequest, works: str, body: ScheduleTableIn) -> HttpResponse:
    """Read a table and tell what could be taken of it; no motor is touched."""
    caller = caller_in(request, works)
    data = _opened(body.data)
    sheet = read_sheet(data)
    return _answered(request, caller, KeepTable(caller, body.name, data, sheet).run())


@router.get(f"{PLACE}/{{n}}", response={200: ScheduleOut, **HEAVY})
def one_schedule(request: HttpRequest, works: str, n: ScheduleNumber) -> HttpResponse:
    """Return a table, with how far it is taken."""
    caller = caller_in(request, works)
    return _answered(request, caller, _run(caller, n))


@router.get(f"{PLACE}/{{n}}/progress", response={200: ScheduleLineOut, **REFUSALS})
def schedule_progress(request: HttpRequest, works: str, n: ScheduleNumber) -> ScheduleLineOut:
    """Return how far a table is taken, without reading it."""
    caller = caller_in(request, works)
    return _line(_run(caller, n), caller)


@router.post(f"{PLACE}/{{n}}/map", response={200: ScheduleOut, **HEAVY})
def map_table(
    request: HttpRequest, works: str, n: ScheduleNumber, body: ScheduleMapIn
) -> HttpResponse:
    """Say which column means which field; the next table with the same heads is mapped alike."""
    caller = caller_in(request, works)
    row = _run(caller, n)
    map_columns(read_sheet(bytes(row.data)).heads if row.data else (), body.told)
    return _answered(request, caller, MapTable(caller, row, body.told).run())


@router.post(f"{PLACE}/{{n}}/take", response={200: ScheduleOut, **HEAVY})
def take_table(request: HttpRequest, works: str, n: ScheduleNumber) -> HttpResponse:
    """Let a worker take every good line."""
    caller = caller_in(request, works)
    row = TakeTable(caller, _run(caller, n)).run()
    take_lines.enqueue(row.pk)
    return _answered(request, caller, row)


@router.post(f"{PLACE}/{{n}}/stop", response={200: ScheduleOut, **HEAVY})
def stop_table(request: HttpRequest, works: str, n: ScheduleNumber) -> HttpResponse:
    """Stop taking; what was taken stays."""
    caller = caller_in(request, works)
    return _answered(request, caller, StopTable(caller, _run(caller, n)).run())


@router.get(f"{PLACE}/{{n}}/repair.csv", response=REFUSALS, openapi_extra=answers_file("text/csv"))
def repair(request: HttpRequest, works: str, n: ScheduleNumber) -> HttpResponse:
    """Return the lines that were not taken, to be repaired and read again."""
    caller = caller_in(request, works)
    row = _run(caller, n)
    if not row.data:
        raise not_found("file")
    table = open_table(bytes(row.data), row.told)
    data = repair_file(table.sheet, table.schedule).encode("utf-8-sig")
    return attachment(data, "text/csv", f"{row.name} repair", "csv")
