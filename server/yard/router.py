"""The motor list: every motor of a plant, where its job stands, and what is next."""

from __future__ import annotations

import json
from typing import Any, Literal

from django.db.models import Count, Q, QuerySet
from django.http import HttpRequest, HttpResponse
from ninja import Field, Query, Router, Status

from api.answers import JSON
from api.recent import Recent
from api.schemas import REFUSALS, ProblemOut, Schema
from evencoil.base import Message, MotorTag, ShortText, Text, counted, say
from jobs.actions import AddMotor
from jobs.lines import lines_of, newest_links
from jobs.models import Summary
from jobs.written import written_of
from people.access import Caller, caller_in
from people.models import Role, Works
from plant.models import Motor
from plant.profile import rules_of

__all__ = ["YardIn", "YardOut", "found_in", "router"]

router = Router(tags=["plant"])
#: motors on a page, and what is shown of those that need attention
PAGE = 50
MOST_NEXT = 5
#: sizes to choose from: above and up to [hp]
SIZES = {
    "to_5": (0.0, 5.0),
    "to_25": (5.0, 25.0),
    "to_100": (25.0, 100.0),
    "over_100": (100.0, 1e9),
}
#: pages as they were answered last, of this process; found by everything that decides them
PAGES: Recent[tuple[object, ...], str] = Recent(64)


class ArchOut(Schema):
    """One step of a job, as an arch of its winding."""

    step: str
    state: str


class MotorOut(Schema):
    """A motor's line in the motor list; ``is_old`` while it is being calculated anew."""

    tag: str
    name: str
    machine: str
    job: int
    headline: str
    supply: str
    arches: list[ArchOut]
    wants: str
    next_step: str
    is_old: bool
    needs_repair: bool


class YardOut(Schema):
    """A works at a glance: one page of its motors, and what is next of all."""

    works: str
    headline: str
    may_add: bool
    why_not_add: str
    machines: list[str]
    motors: list[MotorOut]
    next: list[MotorOut]
    volts: list[int]
    page: int
    pages: int
    found: int


class YardIn(Schema):
    """Which page, what to look for, and which motors count.

    ``q`` is looked for in tag, name, machine, plate text, and among wire numbers and terminals.
    """

    page: int = Field(default=1, ge=1, le=100_000)
    q: Text = Field(default="", max_length=60)
    machine: Text = Field(default="", max_length=120)
    needs: bool = False
    #: supply between lines [V]; 0 for any
    volts: int = Field(default=0, ge=0, le=20_000)
    size: Literal["", "to_5", "to_25", "to_100", "over_100"] = ""
    #: the step that waits; empty for any
    step: Text = Field(default="", max_length=20)

    @property
    def is_all(self) -> bool:
        """Tell whether nothing is left out."""
        return not (self.q or self.machine or self.needs or self.volts or self.size or self.step)


class MotorIn(Schema):
    """A new motor."""

    tag: MotorTag
    name: Text = ""
    machine: ShortText = Field(default="Not placed yet", min_length=1)
    panel: ShortText = ""


class PlaceOut(Schema):
    """Where a motor's job is."""

    works: str
    tag: str
    job: int


def _line(motor: Motor, number: int, body: dict[str, Any], *, is_old: bool) -> dict[str, Any]:
    return {
        "tag": motor.tag,
        "name": motor.name,
        "machine": motor.machine.name,
        "job": number,
        "is_old": is_old,
        "needs_repair": False,
        **body,
    }


def _headline(every: int, works: Works) -> str:
    """Return how many motors need attention, of those whose line is calculated."""
    known = Summary.objects.filter(motor__works=works).aggregate(
        all=Count("pk"), waiting=Count("pk", filter=Q(is_waiting=True))
    )
    counts = {
        "waiting": str(known["waiting"]),
        "all": counted(every, "motor"),
        "left": str(every - known["all"]),
    }
    if not every:
        return say(Message("motors.none", counts))
    if known["all"] < every:
        return say(Message("motors.counting", counts))
    return say(Message("motors.waiting" if known["waiting"] else "motors.ready", counts))


def found_in(works: Works, asked: YardIn) -> QuerySet[Motor]:
    """Return the motors that are asked for, machine by machine, in the order they came.

    Parameters
    ----------
    works : Works
        The plant.
    asked : YardIn
        What they are found by; the page is of no account here.
    """
    found = Motor.objects.filter(works=works).order_by("machine__name", "at", "pk")
    if asked.q:
        found = found.filter(
            Q(tag__icontains=asked.q)
            | Q(name__icontains=asked.q)
            | Q(machine__name__icontains=asked.q)
            | _in_words(asked.q)
        )
    if asked.machine:
        found = found.filter(machine__name=asked.machine)
    if asked.needs:
        found = found.filter(summary__is_waiting=True)
    if asked.volts:
        found = found.filter(
            summary__line_volts_v__gte=asked.volts, summary__line_volts_v__lt=asked.volts + 1
        )
    if asked.size:
        above, to = SIZES[asked.size]
        found = found.filter(summary__power_hp__gt=above, summary__power_hp__lte=to)
    if asked.step:
        found = found.filter(summary__next_step=asked.step)
    return found


def _in_words(asked: str) -> Q:
    """Return who has this on the nameplate, or this wire number or terminal in the drawing.

    A number alone is looked for on nameplates; ``wire 12`` and ``KM1 A1`` in drawings.
    """
    found = Q(summary__plate_text__icontains=asked)
    wire = asked.lower().removeprefix("wire ").strip().replace(" ", ".").replace("|", "")
    if wire and (wire != asked.lower() or "." in wire):
        found |= Q(summary__wires__icontains=f"|{wire}|")
    return found


def _page(
    caller: Caller, found: QuerySet[Motor], place: int, *, count: int, total: int
) -> tuple[str, bool]:
    """Return a page of the motor list as JSON, and whether it holds until a row is written."""
    works = caller.works
    shown = list(found.values_list("pk", flat=True)[(place - 1) * PAGE : place * PAGE])
    lines = lines_of(newest_links(shown), works)
    waiting = Summary.objects.filter(motor__works=works, is_waiting=True)
    waiting = waiting.select_related("motor", "motor__machine").order_by("motor__at", "motor__pk")
    may_add = caller.may(Role.ELECTRICIAN)
    body = {
        "works": works.name,
        "headline": _headline(total, works),
        "may_add": may_add,
        "why_not_add": "" if may_add else "Only an electrician or above can add a motor.",
        "machines": list(works.machines.order_by("name").values_list("name", flat=True)),
        "motors": [
            _line(one.link.motor, one.link.number, one.body, is_old=one.is_old) for one in lines
        ],
        "next": [
            _line(row.motor, row.number, row.body, is_old=False) for row in waiting[:MOST_NEXT]
        ],
        "volts": sorted(
            int(volts or 0)
            for volts in Summary.objects.filter(motor__works=works, line_volts_v__isnull=False)
            .order_by()
            .values_list("line_volts_v", flat=True)
            .distinct()
        ),
        "page": place,
        "pages": _pages(count),
        "found": count,
    }
    # the kept lines are JSON already: no model goes over them again; the database keeps their
    # members in an order of its own
    text = json.dumps(body, ensure_ascii=False, sort_keys=True)
    return text, not any(one.is_old for one in lines)


def _pages(count: int) -> int:
    return max(1, -(-count // PAGE))


@router.get("/w/{works}/yard", response={200: YardOut, **REFUSALS})
def yard(request: HttpRequest, works: str, asked: Query[YardIn]) -> HttpResponse:
    """Return a page of the motors of a plant, the newest job of each, found by tag or name."""
    caller = caller_in(request, works)
    works_wide = written_of(
        caller.works.machines.all(), "name", "motors__tag", "motors__summary__key"
    )
    total = works_wide[2]
    found = found_in(caller.works, asked)
    count = total if asked.is_all else found.count()
    place = min(asked.page, _pages(count))
    shown = found.values("pk")[(place - 1) * PAGE : place * PAGE]
    # everything that decides the page; the lines' own keys come on top where it is made anew
    key = (
        (caller.works.pk, caller.works.name, caller.role, rules_of(caller.works)),
        (asked.model_dump_json(exclude={"page"}), place),
        works_wide,
        written_of(Motor.objects.filter(pk__in=shown), "jobs__number", "inputs__n", "plates__n"),
    )
    text = PAGES.get(key)
    if text is None:
        text, holds = _page(caller, found, place, count=count, total=total)
        if holds:
            PAGES.keep(key, text)
    return HttpResponse(text, content_type=JSON)


@router.post("/w/{works}/motors", response={201: PlaceOut, 409: ProblemOut, **REFUSALS})
def add_motor(request: HttpRequest, works: str, body: MotorIn) -> Status[PlaceOut]:
    """Add a motor with its first job."""
    caller = caller_in(request, works)
    link = AddMotor(
        caller, tag=body.tag, called=body.name, machine=body.machine, panel=body.panel
    ).run()
    return Status(201, PlaceOut(works=caller.works.slug, tag=link.motor.tag, job=link.number))
