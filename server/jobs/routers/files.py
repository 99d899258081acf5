"""Files of a kept starter: its sheets as SVG, DXF and PDF, its lists as CSV, its netlist."""

from __future__ import annotations

import csv
import io
from collections.abc import Callable, Sequence
from typing import Literal

from django.http import HttpRequest, HttpResponse
from ninja import Router

from answers.pdf import sheet_pdf
from api.files import attachment
from api.schemas import REFUSALS
from evencoil.base import Message, say
from evencoil.circuit import write_netlist
from evencoil.drawing import Picture, strip_rows, to_svg
from evencoil.job import JobStarter
from jobs.routers.place import JOB, Number
from jobs.store import motor_job, starter_of
from people.access import caller_in

__all__ = ["router"]

router = Router(tags=["files"])
Sheet = Literal["ladder", "power", "panel", "strip"]
List = Literal["wires", "material", "terminals"]


def _file(kind: str) -> dict[str, object]:
    """Return how a file answers in the OpenAPI description."""
    body = {"schema": {"type": "string"}}
    return {"responses": {200: {"description": "The file", "content": {kind: body}}}}


def _starter(request: HttpRequest, works: str, tag: str, number: int) -> JobStarter:
    """Return the kept starter, or say that there is none."""
    caller = caller_in(request, works)
    starter = starter_of(motor_job(caller, tag, number), caller.works)
    starter.issuable()
    return starter


@router.get(f"{JOB}/drawing/{{which}}.svg", response=REFUSALS, openapi_extra=_file("image/svg+xml"))
def svg(request: HttpRequest, works: str, tag: str, number: Number, which: Sheet) -> HttpResponse:
    """Return a sheet of the kept starter as SVG."""
    picture = _starter(request, works, tag, number).sheet(which)
    return attachment(to_svg(picture, f"{tag} {which}").encode(), "image/svg+xml", f"{tag}-{which}")


@router.get(f"{JOB}/drawing/{{which}}.dxf", response=REFUSALS, openapi_extra=_file("image/vnd.dxf"))
def dxf(request: HttpRequest, works: str, tag: str, number: Number, which: Sheet) -> HttpResponse:
    """Return a sheet of the kept starter as DXF, in millimetres."""
    picture = _starter(request, works, tag, number).sheet(which)
    from answers.dxf import to_dxf  # noqa: PLC0415 - its library is slow to load, and seldom needed

    return attachment(to_dxf(picture), "image/vnd.dxf", f"{tag}-{which}", "dxf")


@router.get(
    f"{JOB}/drawing/{{which}}.pdf", response=REFUSALS, openapi_extra=_file("application/pdf")
)
def pdf(request: HttpRequest, works: str, tag: str, number: Number, which: Sheet) -> HttpResponse:
    """Return a sheet of the kept starter as PDF, on a page of its own shape."""
    picture: Picture = _starter(request, works, tag, number).sheet(which)
    return attachment(sheet_pdf(picture, f"{tag} {which}"), "application/pdf", f"{tag}-{which}")


def _wires(starter: JobStarter) -> list[Sequence[str]]:
    head = ["number", "from", "to", "part", "color", "size", "ferrule from", "ferrule to", "note"]
    rows = [
        [
            row.number,
            row.start,
            row.end,
            row.way,
            row.color,
            row.size,
            *row.ferrules,
            say(Message("wire.maker")) if row.is_maker else "",
        ]
        for row in starter.rows()
    ]
    return [head, *rows]


def _material(starter: JobStarter) -> list[Sequence[str]]:
    rows: list[Sequence[str]] = [["tag", "what", "ratings", "contacts", "on add-on blocks"]]
    unsized = say(Message("rating.open"))
    for row in starter.material():
        ratings = ", ".join(
            f"{say(Message(f'rating.{name}'))} {value or unsized} {unit}".strip()
            for name, value, unit in row.ratings
        )
        rows.append([row.tag, say(Message(f"type.{row.type}")), ratings, row.contacts, row.add_ons])
    return rows


def _terminals(starter: JobStarter) -> list[Sequence[str]]:
    rows: list[Sequence[str]] = [["terminal", "number", "from the panel", "to", "where"]]
    if starter.circuit is None or starter.numbered is None:
        return rows
    for place, row in enumerate(strip_rows(starter.circuit, starter.numbered), start=1):
        rows.append(
            [str(place), row.number, " ".join(row.inside), " ".join(row.outside), " ".join(row.to)]
        )
    return rows


_LISTS: dict[str, Callable[[JobStarter], list[Sequence[str]]]] = {
    "wires": _wires,
    "material": _material,
    "terminals": _terminals,
}


def _safe(value: str) -> str:
    """Return a cell that no spreadsheet takes for a formula."""
    begins = value.strip()[:1]
    is_formula = begins in {"=", "+", "@", "-"} and len(value.strip()) > 1
    # a tab or a line end in front makes some programs take the rest for one
    return f"'{value}" if is_formula or value[:1] in {"\t", "\r", "\n"} else value


@router.get(f"{JOB}/list/{{which}}.csv", response=REFUSALS, openapi_extra=_file("text/csv"))
def listed(request: HttpRequest, works: str, tag: str, number: Number, which: List) -> HttpResponse:
    """Return wire list, bill of material or terminal strip of the kept starter as CSV."""
    text = io.StringIO()
    rows = _LISTS[which](_starter(request, works, tag, number))
    csv.writer(text, lineterminator="\n").writerows([_safe(cell) for cell in row] for row in rows)
    return attachment(text.getvalue().encode(), "text/csv", f"{tag}-{which}")


@router.get(f"{JOB}/netlist.txt", response=REFUSALS, openapi_extra=_file("text/plain"))
def netlist_file(request: HttpRequest, works: str, tag: str, number: Number) -> HttpResponse:
    """Return the kept starter's netlist as a text file."""
    circuit = _starter(request, works, tag, number).circuit
    text = "" if circuit is None else write_netlist(circuit)
    return attachment(text.encode(), "text/plain", f"{tag}-netlist", "txt")
