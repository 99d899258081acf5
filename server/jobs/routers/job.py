"""One motor's job: what was entered, what comes out, export, import."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse
from ninja import Router, Status

from answers.given import GivenIn, worked
from answers.schemas.worked import WorkedOut, worked_out
from api.files import attachment
from api.schemas import REFUSALS, ProblemOut, Schema, VersionOut
from evencoil.base import MotorTag
from evencoil.job import JobFile, JobInputs, StepName, dump, load, step_model, work_out_job
from jobs.actions import ImportJob, UsePlate
from jobs.answer import job_answer, job_place
from jobs.routers.place import JOB, Number
from jobs.store import as_job_file, motor_job, stored_of, version, versions_of
from people.access import caller_in

__all__ = ["router"]

router = Router(tags=["jobs"])


class JobOut(JobInputs):
    """A motor's job: what was entered, by whom, and what comes out."""

    works: str
    tag: str
    name: str
    machine: str
    job: int
    kind: str
    is_stale: bool
    newest_plate_n: int
    versions: dict[str, VersionOut]
    worked: WorkedOut


class EntryOut(VersionOut):
    """A version of a step's inputs, with what was entered and what it changed."""

    body: dict[str, object]
    changed: list[str]


class ImportIn(Schema):
    """A job file as text, and a tag to give the motor instead of its own."""

    file: str
    as_tag: MotorTag | None = None


class PlaceOut(Schema):
    """Where a motor's job is."""

    works: str
    tag: str
    job: int


@router.post("/w/{works}/work-out", response={200: WorkedOut, **REFUSALS})
def work(request: HttpRequest, works: str, body: GivenIn) -> WorkedOut:
    """Calculate what is entered without storing anything."""
    return worked_out(worked(body, caller_in(request, works).works))


@router.get(JOB, response={200: JobOut, **REFUSALS})
def job(request: HttpRequest, works: str, tag: str, number: Number) -> HttpResponse:
    """Return a motor's job."""
    caller = caller_in(request, works)
    return job_answer(job_place(caller, tag, number), caller.works)


@router.post(f"{JOB}/plate/newest", response={200: JobOut, **REFUSALS})
def use_newest_plate(request: HttpRequest, works: str, tag: str, number: Number) -> HttpResponse:
    """Let the job use the newest nameplate revision of its motor."""
    caller = caller_in(request, works)
    UsePlate(caller, motor_job(caller, tag, number)).run()
    return job_answer(job_place(caller, tag, number), caller.works)


@router.get(f"{JOB}/history/{{step}}", response={200: list[EntryOut], **REFUSALS})
def history(
    request: HttpRequest, works: str, tag: str, number: Number, step: StepName
) -> list[EntryOut]:
    """Return every version of a step's inputs, newest first: who, when, what changed."""
    caller = caller_in(request, works)
    rows = versions_of(motor_job(caller, tag, number), step)
    # a version may be older than a field: then it holds what no one entered
    empty: dict[str, object] = step_model(step)().model_dump(mode="json")
    stored = [stored_of(row) for row in rows]
    bodies = [*[{**empty, **body} for body in stored], empty]
    return [
        EntryOut(
            **version(row, caller.works).dict(),
            body=body,
            changed=sorted(name for name in now if now[name] != before.get(name)),
        )
        for row, body, now, before in zip(rows, stored, bodies, bodies[1:], strict=False)
    ]


@router.get(f"{JOB}/file", response={200: JobFile, **REFUSALS}, by_alias=True)
def export(request: HttpRequest, works: str, tag: str, number: Number) -> HttpResponse:
    """Return the job as the open job format."""
    caller = caller_in(request, works)
    file = as_job_file(motor_job(caller, tag, number), caller.works)
    return attachment(dump(file), "application/json", f"{tag}-{number}")


@router.post("/w/{works}/jobs/import", response={201: PlaceOut, 409: ProblemOut, **REFUSALS})
def import_job(request: HttpRequest, works: str, body: ImportIn) -> Status[PlaceOut]:
    """Import a job file; a bad one changes nothing."""
    caller = caller_in(request, works)
    file = load(body.file.encode("utf-8", errors="replace"))
    work_out_job(file)
    link = ImportJob(caller, file, body.as_tag or "").run()
    return Status(201, PlaceOut(works=caller.works.slug, tag=link.motor.tag, job=link.number))
