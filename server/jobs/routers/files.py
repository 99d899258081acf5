"""Files of a kept starter: its sheets as SVG, DXF and PDF, its lists as CSV, its netlist."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Literal

from django.http import HttpRequest, HttpResponse
from ninja import Router

from answers.pdf import sheet_pdf
from api.files import answers_file, as_csv, attachment
from api.kept import kept_or_made, key_for
from api.schemas import REFUSALS
from evencoil.base import Message, say
from evencoil.circuit import io_map, write_netlist
from evencoil.drawing import strip_rows, to_svg
from evencoil.job import JobStarter
from evencoil.logic import IO_HEADING
from jobs.keys import keys_of
from jobs.routers.place import JOB, Number
from jobs.store import motor_job, starter_of
from people.access import caller_in

__all__ = ["router"]

router = Router(tags=["files"])
Sheet = Literal["ladder", "power", "panel", "strip"]
List = Literal["wires", "material", "terminals", "points"]


def _made(
    request: HttpRequest, at: tuple[str, str, int], name: str, make: Callable[[JobStarter], bytes]
) -> bytes:
    """Return a file of the saved starter, kept by everything that decides it.

    Raises
    ------
    CoreError
        If there is no starter, or it must not be printed.
    """
    works, tag, number = at
    caller = caller_in(request, works)
    link = motor_job(caller, tag, number)

    def made() -> bytes:
        starter = starter_of(link, caller.works)
        starter.issuable()
        return make(starter)

    return kept_or_made(key_for("file", name, tag, keys_of([link], caller.works)[link.pk]), made)


@router.get(
    f"{JOB}/drawing/{{which}}.svg", response=REFUSALS, openapi_extra=answers_file("image/svg+xml")
)
def svg(request: HttpRequest, works: str, tag: str, number: Number, which: Sheet) -> HttpResponse:
    """Return a sheet of the kept starter as SVG."""
    body = _made(
        request,
        (works, tag, number),
        f"{which}.svg",
        lambda starter: to_svg(starter.sheet(which), f"{tag} {which}").encode(),
    )
    return attachment(body, "image/svg+xml", f"{tag}-{which}")


@router.get(
    f"{JOB}/drawing/{{which}}.dxf", response=REFUSALS, openapi_extra=answers_file("image/vnd.dxf")
)
def dxf(request: HttpRequest, works: str, tag: str, number: Number, which: Sheet) -> HttpResponse:
    """Return a sheet of the kept starter as DXF, in millimetres."""

    def made(starter: JobStarter) -> bytes:
        from answers.dxf import to_dxf  # noqa: PLC0415 - slow to load, and seldom needed

        return to_dxf(starter.sheet(which))

    body = _made(request, (works, tag, number), f"{which}.dxf", made)
    return attachment(body, "image/vnd.dxf", f"{tag}-{which}", "dxf")


@router.get(
    f"{JOB}/drawing/{{which}}.pdf", response=REFUSALS, openapi_extra=answers_file("application/pdf")
)
def pdf(request: HttpRequest, works: str, tag: str, number: Number, which: Sheet) -> HttpResponse:
    """Return a sheet of the kept starter as PDF, on a page of its own shape."""
    body = _made(
        request,
        (works, tag, number),
        f"{which}.pdf",
        lambda starter: sheet_pdf(starter.sheet(which), f"{tag} {which}"),
    )
    return attachment(body, "application/pdf", f"{tag}-{which}")


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


def _points(starter: JobStarter) -> list[Sequence[str]]:
    circuit = starter.circuit
    if circuit is None:
        return [IO_HEADING]
    relays = (item for item in circuit.netlist.devices if item.type == "plc")
    return [IO_HEADING, *(line.cells() for item in relays for line in io_map(circuit, item))]


_LISTS: dict[str, Callable[[JobStarter], list[Sequence[str]]]] = {
    "wires": _wires,
    "material": _material,
    "terminals": _terminals,
    "points": _points,
}


@router.get(f"{JOB}/list/{{which}}.csv", response=REFUSALS, openapi_extra=answers_file("text/csv"))
def listed(request: HttpRequest, works: str, tag: str, number: Number, which: List) -> HttpResponse:
    """Return a list of the kept starter as CSV: wires, material, terminals or points."""

    def made(starter: JobStarter) -> bytes:
        return as_csv(_LISTS[which](starter))

    body = _made(request, (works, tag, number), f"{which}.csv", made)
    return attachment(body, "text/csv", f"{tag}-{which}")


@router.get(f"{JOB}/netlist.txt", response=REFUSALS, openapi_extra=answers_file("text/plain"))
def netlist_file(request: HttpRequest, works: str, tag: str, number: Number) -> HttpResponse:
    """Return the kept starter's netlist as a text file."""

    def made(starter: JobStarter) -> bytes:
        return b"" if starter.circuit is None else write_netlist(starter.circuit).encode()

    body = _made(request, (works, tag, number), "netlist", made)
    return attachment(body, "text/plain", f"{tag}-netlist", "txt")
