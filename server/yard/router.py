"""The motor list: every motor of a plant, where its job stands, and what is next."""

from __future__ import annotations

from django.http import HttpRequest
from ninja import Field, Router, Schema, Status

from api.schemas import REFUSALS, ProblemOut
from evencoil.base import Message, MotorTag, ShortText, Text, counted, say
from evencoil.job import next_up, starter_states
from jobs.actions import AddMotor
from jobs.models import JobMotor
from jobs.store import Kept, kept, work_out_kept
from people.access import Caller, caller_in
from people.models import Role

__all__ = ["YardOut", "router"]

router = Router(tags=["plant"])


class ArchOut(Schema):
    """One step of a job, as an arch of its winding."""

    step: str
    state: str


class MotorOut(Schema):
    """A motor's line in the motor list."""

    tag: str
    name: str
    machine: str
    job: int
    headline: str
    supply: str
    arches: list[ArchOut]
    wants: str
    next_step: str


class YardOut(Schema):
    """A works at a glance."""

    works: str
    headline: str
    may_add: bool
    why_not_add: str
    machines: list[str]
    motors: list[MotorOut]


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


def _line(link: JobMotor, caller: Caller) -> MotorOut:
    works = caller.works
    now: Kept = kept(link, works)
    worked = work_out_kept(now, works)
    is_stale = now.newest_plate_n > now.versions["plate"].n
    todo = next_up(worked, is_stale=is_stale)
    return MotorOut(
        tag=link.motor.tag,
        name=link.motor.name,
        machine=link.motor.machine.name,
        job=link.number,
        headline=say(worked.states[0].headline),
        supply=now.inputs.supply.text,
        arches=[
            ArchOut(step=state.step, state="stale" if is_stale else state.state)
            for state in (*worked.states, *starter_states(worked.starter))
        ],
        wants="" if todo is None else say(todo.message),
        next_step="" if todo is None else todo.step,
    )


@router.get("/w/{works}/yard", response={200: YardOut, **REFUSALS})
def yard(request: HttpRequest, works: str) -> YardOut:
    """Return every motor of a plant with the newest job of each."""
    caller = caller_in(request, works)
    links = (
        JobMotor.objects.select_related("motor", "motor__machine", "job")
        .filter(motor__works=caller.works)
        .order_by("motor__at", "motor__pk", "-number")
    )
    newest: dict[int, JobMotor] = {}
    for link in links:
        newest.setdefault(link.motor_id, link)
    motors = [_line(link, caller) for link in newest.values()]
    waiting = sum(1 for motor in motors if motor.wants)
    counts = {"waiting": str(waiting), "all": counted(len(motors), "motor")}
    headline = say(
        Message(
            "motors.none" if not motors else "motors.waiting" if waiting else "motors.ready", counts
        )
    )
    may_add = caller.may(Role.ELECTRICIAN)
    machines = caller.works.machines.order_by("name").values_list("name", flat=True)
    return YardOut(
        works=caller.works.name,
        headline=headline,
        may_add=may_add,
        why_not_add="" if may_add else "Only an electrician or above can add a motor.",
        machines=list(machines),
        motors=motors,
    )


@router.post("/w/{works}/motors", response={201: PlaceOut, 409: ProblemOut, **REFUSALS})
def add_motor(request: HttpRequest, works: str, body: MotorIn) -> Status[PlaceOut]:
    """Add a motor with its first job."""
    caller = caller_in(request, works)
    link = AddMotor(caller, tag=body.tag, called=body.name, machine=body.machine).run()
    return Status(201, PlaceOut(works=caller.works.slug, tag=link.motor.tag, job=link.number))
