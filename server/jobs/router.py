"""One motor's job: what was given, what comes out, export, import, print."""

from __future__ import annotations

from typing import Annotated, Literal

from django.http import HttpRequest, HttpResponse
from ninja import Path, Router, Schema, Status
from pydantic import BaseModel

from api.schemas import REFUSALS, ConflictOut, ProblemOut, VersionOut
from evencoil.base import MotorTag
from evencoil.job import (
    JobFile,
    StepName,
    Worked,
    dump,
    load,
    work_out,
    work_out_job,
    work_out_starter,
)
from evencoil.leads import BenchInputs, JointsInputs, LeadsInputs
from evencoil.plate import PlateInputs, ReplaceInputs, SupplyInputs, TrustInputs
from evencoil.sizing import SizeInputs
from evencoil.starters import StarterInputs
from jobs.actions import (
    GiveInputs,
    ImportJob,
    ReadPlate,
    UsePlate,
    stamp,
    stamp_joints,
    stamp_leads,
)
from jobs.given import GivenIn
from jobs.models import JobMotor
from jobs.schemas import WorkedOut, worked_out
from jobs.store import (
    MODELS,
    Kept,
    as_job_file,
    kept,
    motor_job,
    version,
    versions_of,
    work_out_kept,
)
from people.access import Caller, caller_in

__all__ = ["JOB", "Number", "attachment", "router"]

router = Router(tags=["jobs"])
Number = Annotated[int, Path(ge=1, le=1_000_000)]
JOB = "/w/{works}/m/{tag}/j/{number}"


class JobOut(Schema):
    """A motor's job: what was given, by whom, and what comes out."""

    works: str
    tag: str
    name: str
    machine: str
    job: int
    kind: str
    is_stale: bool
    newest_plate_n: int
    plate: PlateInputs
    supply: SupplyInputs
    leads: LeadsInputs
    bench: BenchInputs
    trust: TrustInputs
    replace: ReplaceInputs
    joints: JointsInputs
    size: SizeInputs
    starter: StarterInputs
    versions: dict[str, VersionOut]
    worked: WorkedOut


class PlateIn(Schema):
    """A plate reading, and the revision it was made from."""

    based_on: int
    body: PlateInputs


class SupplyIn(Schema):
    """What is said of the supply, and the version it was made from."""

    based_on: int
    body: SupplyInputs


class LeadsIn(Schema):
    """Winding and joints, and the version they were made from."""

    based_on: int
    body: LeadsInputs


class LeadsOut(VersionOut):
    """The version kept, and the leads with the choice stamped."""

    body: LeadsInputs


class BenchIn(Schema):
    """Readings on leads without tags, and the version they were made from."""

    based_on: int
    body: BenchInputs


class TrustIn(Schema):
    """What was read on a doubted motor, and the version it was made from."""

    based_on: int
    body: TrustInputs


class ReplaceIn(Schema):
    """A disconnect record, and the version it was made from."""

    based_on: int
    body: ReplaceInputs


class JointsIn(Schema):
    """How the joints are made, and the version it was made from."""

    based_on: int
    body: JointsInputs


class JointsOut(VersionOut):
    """The version kept, and the joints with each record stamped."""

    body: JointsInputs


class EntryOut(VersionOut):
    """A version of a step's inputs, with what was given and what it changed."""

    body: dict[str, object]
    changed: list[str]


class StarterIn(Schema):
    """Recipe, options and edits, and the version they were made from."""

    based_on: int
    body: StarterInputs


class SizeIn(Schema):
    """What decides the sizes, and the version it was made from."""

    based_on: int
    body: SizeInputs


class StarterOut(VersionOut):
    """The version kept, and the starter with its edits stamped."""

    body: StarterInputs


class ImportIn(Schema):
    """A job file as text, and a tag to give the motor instead of its own."""

    file: str
    as_tag: MotorTag | None = None


class PlaceOut(Schema):
    """Where a motor's job is."""

    works: str
    tag: str
    job: int


def _job_out(caller: Caller, link: JobMotor) -> JobOut:
    now: Kept = kept(link, caller.works)
    worked: Worked = work_out_kept(now, caller.works)
    room = work_out_starter(worked, now.starter)
    return JobOut(
        works=caller.works.name,
        tag=link.motor.tag,
        name=link.motor.name,
        machine=link.motor.machine.name,
        job=link.number,
        kind=link.job.kind,
        is_stale=now.newest_plate_n > now.versions["plate"].n,
        newest_plate_n=now.newest_plate_n,
        plate=now.plate,
        supply=now.supply,
        leads=now.leads,
        bench=now.bench,
        trust=now.trust,
        replace=now.replace,
        joints=now.joints,
        size=now.size,
        starter=now.starter,
        versions=now.versions,
        worked=worked_out(worked, room),
    )


@router.post("/w/{works}/work-out", response={200: WorkedOut, **REFUSALS})
def work(request: HttpRequest, works: str, body: GivenIn) -> WorkedOut:
    """Work out what is given without keeping anything."""
    worked, room = body.worked(caller_in(request, works).works)
    return worked_out(worked, room)


@router.get(JOB, response={200: JobOut, **REFUSALS})
def job(request: HttpRequest, works: str, tag: str, number: Number) -> JobOut:
    """Return a motor's job."""
    caller = caller_in(request, works)
    return _job_out(caller, motor_job(caller, tag, number))


@router.put(f"{JOB}/plate", response={200: VersionOut, 409: ConflictOut, **REFUSALS})
def give_plate(
    request: HttpRequest, works: str, tag: str, number: Number, body: PlateIn
) -> VersionOut:
    """Keep a reading of the plate; a stale one is told what differs."""
    caller = caller_in(request, works)
    link = motor_job(caller, tag, number)
    work_out(body.body, SupplyInputs(), SizeInputs())
    row = ReadPlate(caller, link, body.body, body.based_on).run()
    return version(row, caller.works)


@router.post(f"{JOB}/plate/newest", response={200: JobOut, **REFUSALS})
def use_newest_plate(request: HttpRequest, works: str, tag: str, number: Number) -> JobOut:
    """Let the job use the newest plate revision of its motor."""
    caller = caller_in(request, works)
    link = UsePlate(caller, motor_job(caller, tag, number)).run()
    return _job_out(caller, link)


@router.put(f"{JOB}/supply", response={200: VersionOut, 409: ConflictOut, **REFUSALS})
def give_supply(
    request: HttpRequest, works: str, tag: str, number: Number, body: SupplyIn
) -> VersionOut:
    """Keep what is said of the supply."""
    return _give(request, works, tag, number, "supply", body.body, body.based_on)


@router.put(f"{JOB}/leads", response={200: LeadsOut, 409: ConflictOut, **REFUSALS})
def give_leads(
    request: HttpRequest, works: str, tag: str, number: Number, body: LeadsIn
) -> LeadsOut:
    """Keep winding, joints and the maker's diagram; who decided a difference is stamped."""
    caller = caller_in(request, works)
    link = motor_job(caller, tag, number)
    stamped = stamp_leads(link, body.body, caller)
    row = GiveInputs(caller, link, "leads", stamped, body.based_on).run()
    return LeadsOut(**version(row, caller.works).dict(), body=stamped)


@router.put(f"{JOB}/joints", response={200: JointsOut, 409: ConflictOut, **REFUSALS})
def give_joints(
    request: HttpRequest, works: str, tag: str, number: Number, body: JointsIn
) -> JointsOut:
    """Keep how the joints are made; each torque or tug gets who and when."""
    caller = caller_in(request, works)
    link = motor_job(caller, tag, number)
    stamped = stamp_joints(link, body.body, caller)
    row = GiveInputs(caller, link, "joints", stamped, body.based_on).run()
    return JointsOut(**version(row, caller.works).dict(), body=stamped)


@router.put(f"{JOB}/bench", response={200: VersionOut, 409: ConflictOut, **REFUSALS})
def give_bench(
    request: HttpRequest, works: str, tag: str, number: Number, body: BenchIn
) -> VersionOut:
    """Keep the readings on leads whose tags are gone."""
    return _give(request, works, tag, number, "bench", body.body, body.based_on)


@router.put(f"{JOB}/trust", response={200: VersionOut, 409: ConflictOut, **REFUSALS})
def give_trust(
    request: HttpRequest, works: str, tag: str, number: Number, body: TrustIn
) -> VersionOut:
    """Keep what was read on a motor whose plate nobody trusts."""
    return _give(request, works, tag, number, "trust", body.body, body.based_on)


@router.put(f"{JOB}/replace", response={200: VersionOut, 409: ConflictOut, **REFUSALS})
def give_replace(
    request: HttpRequest, works: str, tag: str, number: Number, body: ReplaceIn
) -> VersionOut:
    """Keep the disconnect record of a motor that is replaced."""
    return _give(request, works, tag, number, "replace", body.body, body.based_on)


def _give(
    request: HttpRequest,
    works: str,
    tag: str,
    number: int,
    step: StepName,
    body: BaseModel,
    based_on: int,
) -> VersionOut:
    caller = caller_in(request, works)
    row = GiveInputs(caller, motor_job(caller, tag, number), step, body, based_on).run()
    return version(row, caller.works)


@router.get(f"{JOB}/history/{{step}}", response={200: list[EntryOut], **REFUSALS})
def history(
    request: HttpRequest,
    works: str,
    tag: str,
    number: Number,
    step: Literal[
        "plate", "supply", "leads", "bench", "trust", "replace", "joints", "size", "starter"
    ],
) -> list[EntryOut]:
    """Return every version of a step's inputs, newest first: who, when, what changed."""
    caller = caller_in(request, works)
    rows = versions_of(motor_job(caller, tag, number), step)
    # a version may be older than a field: then it holds what nobody said
    empty: dict[str, object] = MODELS[step]().model_dump(mode="json")
    bodies = [*[{**empty, **row.body} for row in rows], empty]
    return [
        EntryOut(
            **version(row, caller.works).dict(),
            body=row.body,
            changed=sorted(name for name in now if now[name] != before.get(name)),
        )
        for row, now, before in zip(rows, bodies, bodies[1:], strict=False)
    ]


@router.put(f"{JOB}/size", response={200: VersionOut, 409: ConflictOut, **REFUSALS})
def give_size(
    request: HttpRequest, works: str, tag: str, number: Number, body: SizeIn
) -> VersionOut:
    """Keep what decides the sizes."""
    return _give(request, works, tag, number, "size", body.body, body.based_on)


@router.put(f"{JOB}/starter", response={200: StarterOut, 409: ConflictOut, **REFUSALS})
def give_starter(
    request: HttpRequest, works: str, tag: str, number: Number, body: StarterIn
) -> StarterOut:
    """Keep recipe, options and edits; new edits get their author and time."""
    caller = caller_in(request, works)
    link = motor_job(caller, tag, number)
    stamped = stamp(link, body.body, caller)
    row = GiveInputs(caller, link, "starter", stamped, body.based_on).run()
    return StarterOut(**version(row, caller.works).dict(), body=stamped)


def attachment(data: bytes, kind: str, name: str, ending: str = "") -> HttpResponse:
    """Return a file to look at or keep, under a plain name."""
    response = HttpResponse(data, content_type=kind)
    plain = "".join(sign if sign.isascii() and sign.isalnum() else "-" for sign in name)
    ending = ending or kind.split("/")[1].split("+", maxsplit=1)[0]
    response.headers["Content-Disposition"] = f'inline; filename="{plain}.{ending}"'
    response.headers["Cache-Control"] = "no-store"
    return response


@router.get(f"{JOB}/file", response={200: JobFile, **REFUSALS}, by_alias=True)
def export(request: HttpRequest, works: str, tag: str, number: Number) -> HttpResponse:
    """Return the job as the open job format."""
    caller = caller_in(request, works)
    file = as_job_file(motor_job(caller, tag, number), caller.works)
    return attachment(dump(file), "application/json", f"{tag}-{number}")


@router.post("/w/{works}/jobs/import", response={201: PlaceOut, 409: ProblemOut, **REFUSALS})
def take_over(request: HttpRequest, works: str, body: ImportIn) -> Status[PlaceOut]:
    """Take a job file over; a bad one changes nothing."""
    caller = caller_in(request, works)
    file = load(body.file.encode("utf-8", errors="replace"))
    work_out_job(file)
    link = ImportJob(caller, file, body.as_tag or "").run()
    return Status(201, PlaceOut(works=caller.works.slug, tag=link.motor.tag, job=link.number))
