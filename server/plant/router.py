"""The Yard: every motor of a works, where its job stands, and what is next."""

from __future__ import annotations

from django.http import HttpRequest
from ninja import Field, Router, Schema, Status

from api.schemas import REFUSALS, ProblemOut
from evencoil.base import MotorTag, Text, say
from evencoil.job import StarterRoom, Worked, starter_states, work_out_starter
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
    """A motor's line in the Yard."""

    tag: str
    name: str
    machine: str
    job: int
    shout: str
    supply: str
    arches: list[ArchOut]
    wants: str
    next_step: str


class YardOut(Schema):
    """A works at a glance."""

    works: str
    shout: str
    may_add: bool
    why_not_add: str
    machines: list[str]
    motors: list[MotorOut]


class MotorIn(Schema):
    """A new motor."""

    tag: MotorTag
    name: Text = ""
    machine: Text = Field(default="Not placed yet", min_length=1)


class PlaceOut(Schema):
    """Where a motor's job is."""

    works: str
    tag: str
    job: int


def _on_paper(worked: Worked) -> tuple[str, str]:
    """Return what plate, supply, sizes and leads still want."""
    doubts = [found for found in worked.reading.findings if found.level == "doubt"]
    refused = next((figure.refusal for figure in worked.figures if figure.refusal), None)
    wants = ("", "")
    if not worked.reading.text.strip():
        wants = ("Plate not read yet.", "plate")
    elif doubts:
        wants = (say(doubts[0].message), "plate")
    elif worked.supply_refusal is not None:
        wants = (worked.supply_refusal.detail, "plate")
    elif refused is not None:
        wants = (refused.detail, "size")
    elif worked.box.outcome is not None and worked.box.outcome.verdict == "wrong":
        wants = (say(worked.box.outcome.findings[0].message), "leads")
    elif worked.box.derived_error is not None:
        wants = (str(worked.box.derived_error), "leads")
    elif worked.box.outcome is not None and worked.box.outcome.verdict == "open":
        wants = ("Leads not joined yet.", "leads")
    return wants


def _wants(worked: Worked, room: StarterRoom, *, is_stale: bool) -> tuple[str, str]:
    """Return the next thing to do, and the step it is done at; empty if nothing."""
    if is_stale:
        return ("The plate was read again after this job used it.", "plate")
    wants = _on_paper(worked)
    guesses = {
        mark.origin for step in worked.steps for mark in step.marks if mark.kind == "assumed"
    }
    if wants[0]:
        return wants
    if guesses:
        plural = "s" if len(guesses) > 1 else ""
        wants = (f"{len(guesses)} assumed figure{plural} to settle.", "size")
    elif room.entry is None:
        wants = ("No starter chosen yet.", "starter")
    elif room.findings and room.findings[0].level in {"doubt", "refusal"}:
        wants = (say(room.findings[0].message), "starter")
    return wants


def _line(link: JobMotor, caller: Caller) -> MotorOut:
    works = caller.works
    now: Kept = kept(link, works)
    worked = work_out_kept(now, works)
    is_stale = now.newest_plate_n > now.versions["plate"].n
    room = work_out_starter(worked, now.starter)
    wants, step = _wants(worked, room, is_stale=is_stale)
    return MotorOut(
        tag=link.motor.tag,
        name=link.motor.name,
        machine=link.motor.machine.name,
        job=link.number,
        shout=say(worked.states[0].shout),
        supply=now.supply.text,
        arches=[
            ArchOut(step=state.step, state="stale" if is_stale else state.state)
            for state in (*worked.states, *starter_states(room))
        ],
        wants=wants,
        next_step=step,
    )


@router.get("/w/{works}/yard", response={200: YardOut, **REFUSALS})
def yard(request: HttpRequest, works: str) -> YardOut:
    """Return every motor of a works with the newest job of each."""
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
    if not motors:
        shout = "No motors yet. Start from a nameplate."
    elif waiting:
        shout = f"{waiting} of {len(motors)} motors want something."
    else:
        shout = f"{len(motors)} motors, nothing open."
    may_add = caller.may(Role.ELECTRICIAN)
    machines = caller.works.machines.order_by("name").values_list("name", flat=True)
    return YardOut(
        works=caller.works.name,
        shout=shout,
        may_add=may_add,
        why_not_add="" if may_add else "Adding a motor needs an electrician or above.",
        machines=list(machines),
        motors=motors,
    )


@router.post("/w/{works}/motors", response={201: PlaceOut, 409: ProblemOut, **REFUSALS})
def add_motor(request: HttpRequest, works: str, body: MotorIn) -> Status[PlaceOut]:
    """Add a motor with its first job."""
    caller = caller_in(request, works)
    link = AddMotor(caller, tag=body.tag, called=body.name, machine=body.machine).run()
    return Status(201, PlaceOut(works=caller.works.slug, tag=link.motor.tag, job=link.number))
