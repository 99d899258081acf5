"""The motor list: every motor of a plant, where its job stands, and what is next."""

from __future__ import annotations

from typing import Any

from django.db.models import Q, QuerySet
from django.http import HttpRequest
from ninja import Field, Query, Router, Schema, Status

from api.schemas import REFUSALS, ProblemOut
from evencoil.base import Message, MotorTag, ShortText, Text, counted, say
from jobs.actions import AddMotor
from jobs.lines import lines_of, newest_links
from jobs.models import JobMotor, Summary
from people.access import caller_in
from people.models import Role

__all__ = ["YardOut", "router"]

router = Router(tags=["plant"])
#: motors on a page, and what is shown of those that need attention
PAGE = 50
MOST_NEXT = 5


class ArchOut(Schema):
    """One step of a job, as an arch of its winding."""

    step: str
    state: str


class MotorOut(Schema):
    """A motor's line in the motor list; ``is_old`` while it is being worked out anew."""

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
    page: int
    pages: int
    found: int


class YardIn(Schema):
    """Which page, and what to look for in tag, name and machine."""

    page: int = Field(default=1, ge=1, le=100_000)
    q: Text = Field(default="", max_length=60)


class MotorIn(Schema):
    """A new motor."""

    tag: MotorTag
    name: Text = ""
    machine: ShortText = Field(default="Not placed yet", min_length=1)


class PlaceOut(Schema):
    """Where a motor's job is."""

    works: str
    tag: str
    job: int


def _line(link: JobMotor, body: dict[str, Any], *, is_old: bool) -> MotorOut:
    return MotorOut(
        tag=link.motor.tag,
        name=link.motor.name,
        machine=link.motor.machine.name,
        job=link.number,
        is_old=is_old,
        **{"needs_repair": False, **body},
    )


def _headline(found: QuerySet[JobMotor]) -> str:
    """Return how many motors need attention, of those whose line is worked out."""
    every = found.count()
    known = Summary.objects.filter(link__in=found.values("pk"))
    counted_in, waiting = known.count(), known.filter(is_waiting=True).count()
    counts = {
        "waiting": str(waiting),
        "all": counted(every, "motor"),
        "left": str(every - counted_in),
    }
    if not every:
        return say(Message("motors.none", counts))
    if counted_in < every:
        return say(Message("motors.counting", counts))
    return say(Message("motors.waiting" if waiting else "motors.ready", counts))


@router.get("/w/{works}/yard", response={200: YardOut, **REFUSALS})
def yard(request: HttpRequest, works: str, asked: Query[YardIn]) -> YardOut:
    """Return a page of the motors of a plant, the newest job of each, found by tag or name."""
    caller = caller_in(request, works)
    every = newest_links(caller.works)
    found = every
    if asked.q:
        found = every.filter(
            Q(motor__tag__icontains=asked.q)
            | Q(motor__name__icontains=asked.q)
            | Q(motor__machine__name__icontains=asked.q)
        )
    count = found.count()
    pages = max(1, -(-count // PAGE))
    page = min(asked.page, pages)
    shown = found.select_related("motor", "motor__machine", "job")[(page - 1) * PAGE : page * PAGE]
    lines = lines_of(list(shown), caller.works)
    waiting = Summary.objects.filter(link__in=every.values("pk"), is_waiting=True)
    waiting = waiting.select_related("link", "link__motor", "link__motor__machine")
    may_add = caller.may(Role.ELECTRICIAN)
    machines = caller.works.machines.order_by("name").values_list("name", flat=True)
    return YardOut(
        works=caller.works.name,
        headline=_headline(every),
        may_add=may_add,
        why_not_add="" if may_add else "Only an electrician or above can add a motor.",
        machines=list(machines),
        motors=[_line(one.link, one.body, is_old=one.is_old) for one in lines],
        next=[
            _line(row.link, row.body, is_old=False)
            for row in waiting.order_by("link__motor__at", "link__motor__pk")[:MOST_NEXT]
        ],
        page=page,
        pages=pages,
        found=count,
    )


@router.post("/w/{works}/motors", response={201: PlaceOut, 409: ProblemOut, **REFUSALS})
def add_motor(request: HttpRequest, works: str, body: MotorIn) -> Status[PlaceOut]:
    """Add a motor with its first job."""
    caller = caller_in(request, works)
    link = AddMotor(caller, tag=body.tag, called=body.name, machine=body.machine).run()
    return Status(201, PlaceOut(works=caller.works.slug, tag=link.motor.tag, job=link.number))
