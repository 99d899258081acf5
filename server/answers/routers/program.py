"""The program of a programmable relay: read as it is typed, drawn as rungs, written to files."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated, Any, Literal

from django.http import HttpRequest, HttpResponse
from ninja import Router
from pydantic import Field

from api.files import answers_file, attachment
from api.schemas import REFUSALS, Schema
from evencoil.base import HugeText
from evencoil.logic import (
    LogicError,
    Points,
    advice_of,
    body_text,
    check_program,
    checked_programs,
    compared,
    declarations_text,
    form_of_rungs,
    looked_through,
    program_text,
    read_io_list,
    read_program,
    read_xml,
    rungs_of,
    with_names,
    write_xml,
)

__all__ = ["router"]

router = Router(tags=["program"])


class PointsIn(Schema):
    """How many points the relay has."""

    inputs: Annotated[int, Field(ge=1, le=24)] = 8
    outputs: Annotated[int, Field(ge=1, le=16)] = 4
    analog: Annotated[int, Field(ge=0, le=4)] = 0

    def as_core(self) -> Points:
        """Return them as the core takes them."""
        return Points(inputs=self.inputs, outputs=self.outputs, analog=self.analog)


class ProgramIn(Schema):
    """A program as text, or its rungs with the declarations of a text."""

    text: HugeText
    rungs: Annotated[list[dict[str, Any]], Field(max_length=2000)] | None = None
    points: PointsIn = PointsIn()


class ProgramFileIn(Schema):
    """A file, and the points of the relay it is for."""

    data: HugeText
    points: PointsIn = PointsIn()


class NamesIn(ProgramIn):
    """A program, and an I/O list whose names it takes over."""

    list: HugeText


class WrongOut(Schema):
    """What is wrong at a place of a text."""

    code: str
    line: int
    column: int
    expected: str
    found: str
    said: str
    hint: str


class DoubtOut(Schema):
    """What is doubtful in a program by itself."""

    code: str
    line: int
    name: str
    figure: str


class NameOut(Schema):
    """A name of the program: what it is, and where it stands."""

    name: str
    kind: str
    type: str
    slot: str


class ProgramOut(Schema):
    """A program in both views; with something wrong, the text as it was given."""

    text: str
    declarations: str
    rungs: list[dict[str, Any]]
    wrong: list[WrongOut]
    doubts: list[DoubtOut]
    names: list[NameOut]


def _wrong(one: LogicError) -> WrongOut:
    told = one.problem()
    return WrongOut(
        code=one.code,
        line=one.line,
        column=one.column,
        expected=one.expected,
        found=one.found,
        said=told["detail"],
        hint=told["hint"],
    )


def _refused(text: str, *wrong: LogicError, rungs: Sequence[dict[str, Any]] = ()) -> ProgramOut:
    """Return what was given with what is wrong with it; nothing else is known of it."""
    return ProgramOut(
        text=text,
        declarations="",
        rungs=list(rungs),
        wrong=[_wrong(one) for one in wrong],
        doubts=[],
        names=[],
    )


def _out(text: str, points: Points) -> ProgramOut:
    checked, wrong = looked_through(text, points)
    if checked is None:
        return _refused(text, *wrong)
    return ProgramOut(
        text=text,
        declarations=declarations_text(checked.program.blocks),
        rungs=rungs_of(checked),
        wrong=[],
        doubts=[
            DoubtOut(code=one.code, line=one.place[0], name=one.name, figure=one.figure)
            for one in advice_of(checked)
        ],
        names=[
            NameOut(name=one.name, kind=one.kind, type=one.type, slot=one.slot)
            for one in checked.symbols.values()
        ],
    )


class ShelvedOut(Schema):
    """A checked program: what it is for, its text with what its points are."""

    id: str
    title: str
    text: str


class CompareIn(Schema):
    """Two texts of a program, the older first."""

    old: HugeText
    new: HugeText


class ComparedOut(Schema):
    """A line that both have (``same``), only the older (``gone``), or only the newer (``new``)."""

    what: Literal["same", "gone", "new"]
    text: str


@router.post("/program/compare", response={200: list[ComparedOut], **REFUSALS})
def compare(request: HttpRequest, body: CompareIn) -> list[ComparedOut]:
    """Return two texts of a program line by line."""
    del request
    return [ComparedOut(what=one.what, text=one.text) for one in compared(body.old, body.new)]


@router.get("/program/shelf", response={200: list[ShelvedOut], **REFUSALS})
def shelf(request: HttpRequest) -> list[ShelvedOut]:
    """Return the checked programs to begin with."""
    del request
    return [ShelvedOut(id=one.id, title=one.title, text=one.text) for one in checked_programs()]


@router.post("/program/read", response={200: ProgramOut, **REFUSALS})
def read(request: HttpRequest, body: ProgramIn) -> ProgramOut:
    """Return a program in both views, or everything that is wrong with it."""
    del request
    points = body.points.as_core()
    if body.rungs is None:
        return _out(body.text, points)
    try:
        known = read_program(body.text, points).program
        made = check_program(form_of_rungs(known, body.rungs), points)
    except LogicError as refused:
        return _refused(body.text, refused, rungs=body.rungs)
    return _out(program_text(made.program), points)


@router.post("/program/file", response={200: ProgramOut, **REFUSALS})
def from_file(request: HttpRequest, body: ProgramFileIn) -> ProgramOut:
    """Return the program of a PLCopen file or of a plain text; nothing is half-imported."""
    del request
    points = body.points.as_core()
    if not body.data.lstrip("\ufeff \t\r\n").startswith("<"):
        return _out(body.data, points)
    try:
        made = read_xml(body.data.encode(), points)
    except LogicError as refused:
        return _refused("", refused)
    return _out(program_text(made.program), points)


@router.post("/program/names", response={200: ProgramOut, **REFUSALS})
def take_names(request: HttpRequest, body: NamesIn) -> ProgramOut:
    """Return the program with the names of an I/O list; a line that is wrong changes nothing."""
    del request
    points = body.points.as_core()
    checked = read_program(body.text, points)
    try:
        made = with_names(body.text, checked, read_io_list(body.list, points))
    except LogicError as refused:
        return _refused(body.text, refused)
    return _out(made, points)


@router.post("/program/xml", response=REFUSALS, openapi_extra=answers_file("application/xml"))
def to_file(
    request: HttpRequest, body: ProgramIn, form: Literal["ST", "LD"] = "ST"
) -> HttpResponse:
    """Return a program as PLCopen XML, as text or as a ladder."""
    del request
    checked = read_program(body.text, body.points.as_core())
    made = write_xml(checked, form, body_text(body.text))
    return attachment(made, "application/xml", "program")
