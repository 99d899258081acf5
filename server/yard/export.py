"""The motor list as a file: CSV, a workbook, JSON; what the list shows is what the file holds."""

from __future__ import annotations

import json
from collections.abc import Iterator
from typing import Literal

from django.http import HttpRequest, HttpResponse
from ninja import Query, Router

from api.files import XLSX, answers_file, attachment
from api.problems import NeedsRepairError, ProblemError
from api.schemas import HEAVY
from desk.answer import Tell, in_turn
from evencoil.schedule import (
    EXPORT_HEADS,
    EXPORT_NUMBERS,
    export_row,
    table_csv,
    table_workbook,
)
from jobs.lines import newest_links
from jobs.store import inputs_of_many
from people.access import Caller, caller_in
from yard.router import YardIn, found_in

__all__ = ["router"]

router = Router(tags=["plant"])
#: motors whose inputs are in memory at once
_AT_ONCE = 500
Kind = Literal["csv", "xlsx", "json"]
_TYPES: dict[Kind, str] = {"csv": "text/csv", "xlsx": XLSX, "json": "application/json"}


def _rows(caller: Caller, asked: YardIn, tell: Tell) -> Iterator[tuple[str, ...]]:
    """Go through the motors that are asked for; one that cannot be read says so in its row."""
    motors = list(found_in(caller.works, asked).values_list("pk", flat=True))
    for start in range(0, len(motors), _AT_ONCE):
        tell(start, len(motors))
        links = newest_links(motors[start : start + _AT_ONCE])
        inputs = inputs_of_many(links, ("plate", "supply", "starter"))
        for link in links:
            motor, given = link.motor, inputs[link.pk]
            if isinstance(given, NeedsRepairError):
                gap = ("",) * (len(EXPORT_HEADS) - 6)
                where = (motor.tag, motor.name, motor.machine.name, motor.panel)
                yield (*where, *gap, str(link.number), str(given.body["detail"]))
                continue
            yield export_row(
                tag=motor.tag,
                name=motor.name,
                machine=motor.machine.name,
                panel=motor.panel,
                number=link.number,
                inputs=given,
            )


def _file(caller: Caller, asked: YardIn, kind: Kind, tell: Tell) -> bytes:
    rows = _rows(caller, asked, tell)
    if kind == "csv":
        return table_csv(EXPORT_HEADS, rows).encode("utf-8-sig")
    if kind == "xlsx":
        return table_workbook(caller.works.name, EXPORT_HEADS, rows, EXPORT_NUMBERS)
    motors = [dict(zip(EXPORT_HEADS, row, strict=True)) for row in rows]
    said = {"plant": caller.works.name, "motors": motors}
    return json.dumps(said, ensure_ascii=False, indent=1).encode()


def _answered(request: HttpRequest, works: str, asked: YardIn, kind: Kind) -> HttpResponse:
    caller = caller_in(request, works)
    status, body = in_turn(request, caller, _file, caller, asked, kind)
    if status != 200:
        raise ProblemError(status, **body)
    return attachment(body, _TYPES[kind], f"{caller.works.slug} motors", kind)


@router.get("/w/{works}/motors.csv", response=HEAVY, openapi_extra=answers_file("text/csv"))
def motors_csv(request: HttpRequest, works: str, asked: Query[YardIn]) -> HttpResponse:
    """Return the motors that are asked for as CSV; read again it is the same motors."""
    return _answered(request, works, asked, "csv")


@router.get(
    "/w/{works}/motors.xlsx", response=HEAVY, openapi_extra=answers_file(XLSX, is_binary=True)
)
def motors_xlsx(request: HttpRequest, works: str, asked: Query[YardIn]) -> HttpResponse:
    """Return the motors that are asked for as a workbook."""
    return _answered(request, works, asked, "xlsx")


@router.get(
    "/w/{works}/motors.json", response=HEAVY, openapi_extra=answers_file("application/json")
)
def motors_json(request: HttpRequest, works: str, asked: Query[YardIn]) -> HttpResponse:
    """Return the motors that are asked for as JSON, under the names of the table's columns."""
    return _answered(request, works, asked, "json")
