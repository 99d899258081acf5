"""Heater charts of a plant: imported from the door of a starter, line by line."""

from __future__ import annotations

from decimal import Decimal

from django.http import HttpRequest
from ninja import Router, Status
from pydantic import BaseModel, Field

from api.schemas import REFUSALS, Schema
from evencoil.base import DecimalText, HugeText, Message, Text, plain, say
from evencoil.sizing import FIELDS, BadLine, HeaterTable, headers_of, read_heaters
from people.access import Caller, caller_in, not_found
from people.actions import Action
from people.models import Role
from plant.models import HeaterChart

__all__ = ["ImportHeaters", "router"]

router = Router(tags=["heaters"])
_SHOWN = 4


class HeaterRowOut(BaseModel):
    """One heater, as printed."""

    relay_type: str
    starter_size: str
    elements: int
    basis: str
    code: str
    low_a: str
    high_a: str


class HeaterChartOut(BaseModel):
    """A chart with all its rows."""

    name: str
    source: str
    factor: str
    by: str
    rows: list[HeaterRowOut]


class FieldOut(BaseModel):
    """A field that a chart needs, and the heading that seems to hold it."""

    field: str
    label: str
    guess: str


class LookIn(Schema):
    """A chart as text, to be looked at before anything is saved."""

    text: HugeText


class LookOut(BaseModel):
    """What stands in a chart: its headings, its first lines, what each field may be."""

    headings: list[str]
    lines: list[str]
    fields: list[FieldOut]


class HeatersIn(Schema):
    """A chart to be imported: which heading is which field, and what is the same in every row."""

    text: HugeText
    columns: dict[Text, Text] = Field(default={}, max_length=12)
    fixed: dict[Text, Text] = Field(default={}, max_length=12)
    name: Text = Field(min_length=1, max_length=80)
    source: Text = ""
    factor: DecimalText = Decimal(1)


class BadLineOut(BaseModel):
    """A line that was not taken, and why."""

    line: int
    text: str
    reason: str


class HeatersOut(BaseModel):
    """What was saved and what was not."""

    chart: HeaterChartOut
    bad: list[BadLineOut]


_GUESSES = {
    "relay_type": ("relay", "type"),
    "starter_size": ("size", "starter"),
    "elements": ("element", "el", "poles", "units"),
    "basis": ("air", "ambient", "basis", "enclosure"),
    "code": ("code", "heater", "unit no"),
    "low_a": ("from", "low", "min"),
    "high_a": ("to", "high", "max"),
}


def _guess(field: str, headings: tuple[str, ...]) -> str:
    for word in _GUESSES[field]:
        for heading in headings:
            if heading.lower() == word or (len(word) > 2 and word in heading.lower()):
                return heading
    return ""


def _bad(line: BadLine) -> BadLineOut:
    return BadLineOut(line=line.line, text=line.text, reason=say(line.message))


def _chart(row: HeaterChart) -> HeaterChartOut:
    return HeaterChartOut(
        name=row.name,
        source=row.source,
        factor=row.factor,
        by=str(row.by),
        rows=[HeaterRowOut(**item) for item in row.rows],
    )


class ImportHeaters(Action[HeaterChart]):
    """Keep a chart; one of the same name gives way to it."""

    name = "import heaters"
    least_role = Role.ELECTRICIAN

    def __init__(self, caller: Caller, chart: HeaterTable) -> None:
        super().__init__(caller)
        self.chart = chart

    @property
    def target(self) -> str:
        """Return its name and how many rows it has."""
        return f"{self.chart.name}, {len(self.chart.rows)} rows"

    def perform(self) -> HeaterChart:
        """Keep it."""
        rows = [
            {
                "relay_type": row.relay_type,
                "starter_size": row.starter_size,
                "elements": row.elements,
                "basis": row.basis,
                "code": row.code,
                "low_a": plain(row.low_a),
                "high_a": plain(row.high_a),
            }
            for row in self.chart.rows
        ]
        kept, _ = HeaterChart.objects.update_or_create(
            works=self.caller.works,
            name=self.chart.name,
            defaults={
                "source": self.chart.source,
                "factor": plain(self.chart.factor),
                "rows": rows,
                "by": self.caller.user,
            },
        )
        return kept


class DropHeaters(Action[None]):
    """Take a chart away; jobs that were worked with it keep their own copy."""

    name = "drop heaters"
    least_role = Role.ELECTRICIAN

    def __init__(self, caller: Caller, chart: HeaterChart) -> None:
        super().__init__(caller)
        self.chart = chart

    @property
    def target(self) -> str:
        """Return its name."""
        return self.chart.name

    def perform(self) -> None:
        """Take it away."""
        self.chart.delete()


@router.get("/w/{works}/heaters", response={200: list[HeaterChartOut], **REFUSALS})
def charts(request: HttpRequest, works: str) -> list[HeaterChartOut]:
    """Return every chart of the plant."""
    caller = caller_in(request, works)
    found = HeaterChart.objects.select_related("by").filter(works=caller.works).order_by("name")
    return [_chart(row) for row in found]


@router.post("/w/{works}/heaters/look", response={200: LookOut, **REFUSALS})
def look(request: HttpRequest, works: str, body: LookIn) -> LookOut:
    """Tell what stands in a chart, keeping nothing."""
    caller_in(request, works)
    headings = headers_of(body.text)
    lines = [line for line in body.text.splitlines()[1:] if line.strip()]
    return LookOut(
        headings=list(headings),
        lines=[line[:200] for line in lines[:_SHOWN]],
        fields=[
            FieldOut(
                field=field, label=say(Message(f"heater.{field}")), guess=_guess(field, headings)
            )
            for field in FIELDS
        ],
    )


@router.post("/w/{works}/heaters", response={200: HeatersOut, **REFUSALS})
def import_heaters(request: HttpRequest, works: str, body: HeatersIn) -> HeatersOut:
    """Import a chart: good rows are kept, bad ones told by line."""
    caller = caller_in(request, works)
    chart, bad = read_heaters(
        body.text,
        body.columns,
        name=body.name,
        source=body.source,
        factor=body.factor,
        fixed=body.fixed,
    )
    kept = ImportHeaters(caller, chart).run()
    return HeatersOut(chart=_chart(kept), bad=[_bad(line) for line in bad[:200]])


@router.delete("/w/{works}/heaters/{name}", response={204: None, **REFUSALS})
def drop_heaters(request: HttpRequest, works: str, name: str) -> Status[None]:
    """Take a chart away."""
    caller = caller_in(request, works)
    found = HeaterChart.objects.filter(works=caller.works, name=name).first()
    if found is None:
        raise not_found("heater chart")
    DropHeaters(caller, found).run()
    return Status(204, None)
