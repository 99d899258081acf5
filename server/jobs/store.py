"""What is saved for a motor in a job, read and written version by version."""

from __future__ import annotations

import datetime as dt
from collections.abc import Collection, Sequence
from dataclasses import asdict, dataclass
from typing import Any, Protocol, TypeVar, get_args

from django.db import IntegrityError, transaction
from django.db.models import Max, QuerySet
from pydantic import BaseModel, ValidationError

from api.problems import NeedsRepairError, ProblemError
from api.schemas import VersionOut
from evencoil.base import CoreError, Inputs
from evencoil.job import (
    SCHEMA,
    STEPS,
    FileMotor,
    FileProfile,
    JobFile,
    JobInputs,
    JobKind,
    JobStarter,
    StepName,
    Worked,
    step_model,
    upcast_step,
    work_out,
)
from evencoil.plate import PlateInputs
from jobs.models import InputVersion, JobMotor
from people.access import Caller, not_found
from people.models import Works
from plant.models import Motor, PlateRevision
from plant.profile import profile_of

__all__ = [
    "INPUT_STEPS",
    "Kept",
    "add_input",
    "add_plate",
    "as_job_file",
    "inputs_in",
    "inputs_of_many",
    "job_kind",
    "jobs_at",
    "kept",
    "motor_job",
    "newest_of",
    "read_row",
    "starter_of",
    "step_of",
    "stored_of",
    "version",
    "versions_of",
    "work_out_kept",
]

#: every step but the nameplate, which belongs to the motor and not to the job
INPUT_STEPS = tuple(step for step in STEPS if step != "plate")
#: what a body of another form makes the upcasts and the models raise
_UNREADABLE = (ArithmeticError, AttributeError, LookupError, TypeError, ValueError)
Row = TypeVar("Row", PlateRevision, InputVersion)


@dataclass(frozen=True, slots=True)
class Kept:
    """The newest version of everything entered for a motor in a job."""

    inputs: JobInputs
    versions: dict[str, VersionOut]
    newest_plate_n: int


class Saved(Protocol):
    """A saved version as far as it says who and when."""

    @property
    def n(self) -> int: ...
    @property
    def by(self) -> object: ...
    @property
    def at(self) -> dt.datetime: ...


def version(row: Saved | None, works: Works) -> VersionOut:
    """Return number, author and local time of a version; 0 for none."""
    if row is None:
        return VersionOut(n=0, by="", at="")
    # a plan of a machine comes from nowhere else
    said = getattr(row, "source", "")
    return VersionOut(n=row.n, by=str(row.by), at=works.local(row.at), source=said)


def jobs_at(caller: Caller, tag: str, number: int) -> QuerySet[JobMotor]:
    """Return a motor's job in the caller's works, if it is there."""
    return JobMotor.objects.filter(motor__works=caller.works, motor__tag=tag, number=number)


def motor_job(caller: Caller, tag: str, number: int) -> JobMotor:
    """Return a motor's job in the caller's works.

    Raises
    ------
    ProblemError
        404 if there is none there.
    """
    found = jobs_at(caller, tag, number).select_related("job", "motor", "motor__machine").first()
    if found is None:
        raise not_found("job")
    return found


def _newest_input(link: JobMotor, step: StepName) -> InputVersion | None:
    return (
        InputVersion.objects.select_related("by")
        .filter(job=link.job, motor=link.motor, step=step)
        .order_by("-n")
        .first()
    )


def _newest_inputs(link: JobMotor) -> dict[str, InputVersion]:
    """Return the newest version of every step, in one query."""
    rows = (
        InputVersion.objects.select_related("by")
        .filter(job=link.job, motor=link.motor)
        .order_by("step", "-n")
        .distinct("step")
    )
    return {row.step: row for row in rows}


def inputs_in(row: PlateRevision | InputVersion) -> dict[str, Any]:
    """Return the inputs of a stored version under today's names."""
    return upcast_step(step_of(row), row.body, row.schema)


def is_same(row: PlateRevision | InputVersion, given: dict[str, Any]) -> bool:
    """Tell whether a stored version says the same; one that cannot be read says nothing."""
    return stored_of(row) == given


def stored_of(row: PlateRevision | InputVersion) -> dict[str, Any]:
    """Return what is stored under today's names, or as it is where that cannot be read."""
    body: object
    try:
        body = inputs_in(row)
    except _UNREADABLE:
        body = row.body
    return body if isinstance(body, dict) else {"stored": body}


def newest_of(link: JobMotor, step: StepName) -> Inputs:
    """Return the newest inputs of one step; empty ones where there are none or none readable."""
    row = _newest_input(link, step)
    try:
        return step_model(step)() if row is None else read_row(row)
    except NeedsRepairError:
        return step_model(step)()


def step_of(row: PlateRevision | InputVersion) -> StepName:
    """Return the step that a stored version belongs to."""
    return row.step if isinstance(row, InputVersion) else "plate"


def read_row(row: PlateRevision | InputVersion, tag: str = "") -> Inputs:
    """Return a stored version as the core's own inputs; ``tag`` is told where it cannot be read.

    Raises
    ------
    NeedsRepairError
        With the field that cannot be read and what is stored: it was
        written by older code or changed by hand, and nothing is calculated from a guess.
    """
    step = step_of(row)
    try:
        return step_model(step).model_validate(inputs_in(row))
    except (CoreError, ValidationError, *_UNREADABLE) as bad:
        field, reason = _wrong_in(bad)
        raise NeedsRepairError(
            detail=f"{tag or 'This job'}: version {row.n} of the {step} step cannot be read any"
            f" more: {reason}",
            field=".".join(part for part in (step, field) if part),
            hint="Put an older version back, or enter this step anew. Nothing is lost: what is "
            "stored is shown as it is.",
            step=step,
            n=row.n,
            body=row.body,
        ) from bad


def _wrong_in(bad: Exception) -> tuple[str, str]:
    """Return field and reason of a stored version that cannot be read."""
    if isinstance(bad, ValidationError):
        first = bad.errors()[0]
        return ".".join(str(part) for part in first["loc"]), str(first["msg"])[:300]
    if isinstance(bad, CoreError):
        return bad.field or "", str(bad)
    return "", f"it is not in the form of a step ({type(bad).__name__})."


def kept(link: JobMotor, works: Works) -> Kept:
    """Return what stands for a motor in a job: the pinned plate, the newest inputs.

    Raises
    ------
    NeedsRepairError
        If a row cannot be read any more.
    """
    plate = (
        PlateRevision.objects.select_related("by").filter(motor=link.motor, n=link.plate_n).first()
    )
    rows = _newest_inputs(link)
    newest = PlateRevision.objects.filter(motor=link.motor).aggregate(n=Max("n"))["n"] or 0
    known: dict[str, PlateRevision | InputVersion] = {
        step: row for step, row in rows.items() if step in INPUT_STEPS
    }
    if plate is not None:
        known["plate"] = plate
    return Kept(
        inputs=JobInputs.model_validate(
            {step: read_row(row, link.motor.tag) for step, row in known.items()}
        ),
        versions={
            "plate": version(plate, works),
            **{step: version(rows.get(step), works) for step in INPUT_STEPS},
        },
        newest_plate_n=newest,
    )


def inputs_of_many(
    links: Sequence[JobMotor], steps: Collection[StepName]
) -> dict[int, JobInputs | NeedsRepairError]:
    """Return the newest inputs of many jobs by primary key, in two queries; other steps are empty.

    Parameters
    ----------
    links : sequence of JobMotor
        The jobs, each with its motor.
    steps : collection of str
        Steps that are read; ``plate`` is the one that each job uses.

    Returns
    -------
    dict
        Inputs, or why a job cannot be read.
    """
    rows = (
        InputVersion.objects.filter(
            job__in={link.job_id for link in links},
            motor__in={link.motor_id for link in links},
            step__in=set(steps) - {"plate"},
        )
        .order_by("job_id", "motor_id", "step", "-n")
        .distinct("job_id", "motor_id", "step")
    )
    known: dict[tuple[int, int | None], dict[str, PlateRevision | InputVersion]] = {}
    for row in rows:
        known.setdefault((row.job_id, row.motor_id), {})[row.step] = row
    plates = {
        (row.motor_id, row.n): row
        for row in PlateRevision.objects.filter(motor__in={link.motor_id for link in links})
        if "plate" in steps
    }
    found: dict[int, JobInputs | NeedsRepairError] = {}
    for link in links:
        own = dict(known.get((link.job_id, link.motor_id), {}))
        plate = plates.get((link.motor_id, link.plate_n))
        if plate is not None:
            own["plate"] = plate
        try:
            given = {step: read_row(row, link.motor.tag) for step, row in own.items()}
            found[link.pk] = JobInputs.model_validate(given)
        except NeedsRepairError as broken:
            found[link.pk] = broken
    return found


def _conflict(step: str, row: PlateRevision | InputVersion, works: Works) -> ProblemError:
    theirs = version(row, works)
    return ProblemError(
        409,
        code="conflict",
        detail=f"{theirs.by} changed this at {theirs.at}, after you opened it.",
        field=step,
        hint="Compare both and keep one; nothing is lost.",
        theirs=theirs.dict(),
        body=stored_of(row),
    )


def add_plate(
    link: JobMotor, body: PlateInputs, based_on: int, caller: Caller, source: str = ""
) -> PlateRevision:
    """Add a nameplate revision and pin it to the job.

    Raises
    ------
    ProblemError
        409 if a newer revision than ``based_on`` exists, with what it says.
    """
    newest = (
        PlateRevision.objects.select_related("by").filter(motor=link.motor).order_by("-n").first()
    )
    n = newest.n if newest else 0
    given = body.model_dump(mode="json")
    if newest is not None and is_same(newest, given):
        # the same again is no conflict, whoever said it first
        link.plate_n = n
        link.save(update_fields=["plate_n"])
        return newest
    if newest is not None and n != based_on:
        raise _conflict("plate", newest, caller.works)
    try:
        with transaction.atomic():
            added = PlateRevision.objects.create(
                motor=link.motor,
                n=n + 1,
                schema=SCHEMA,
                body=given,
                by=caller.user,
                source=source,
            )
    except IntegrityError as race:
        first = PlateRevision.objects.select_related("by").get(motor=link.motor, n=n + 1)
        raise _conflict("plate", first, caller.works) from race
    link.plate_n = added.n
    link.save(update_fields=["plate_n"])
    return added


def add_input(
    link: JobMotor,
    step: StepName,
    body: BaseModel,
    based_on: int,
    caller: Caller,
    source: str = "",
) -> InputVersion:
    """Add a version of a step's inputs.

    Raises
    ------
    ProblemError
        409 if a newer version than ``based_on`` exists, with what it says.
    """
    newest = _newest_input(link, step)
    n = newest.n if newest else 0
    given: dict[str, Any] = body.model_dump(mode="json")
    if newest is not None and is_same(newest, given):
        return newest
    if newest is not None and n != based_on:
        raise _conflict(step, newest, caller.works)
    try:
        with transaction.atomic():
            return InputVersion.objects.create(
                job=link.job,
                motor=link.motor,
                step=step,
                n=n + 1,
                schema=SCHEMA,
                body=given,
                by=caller.user,
                source=source,
            )
    except IntegrityError as race:
        first = InputVersion.objects.select_related("by").get(
            job=link.job, motor=link.motor, step=step, n=n + 1
        )
        raise _conflict(step, first, caller.works) from race


def job_kind(name: str) -> JobKind:
    """Return a job's kind; one that is not known any more counts as new."""
    kinds: tuple[JobKind, ...] = get_args(JobKind)
    return next((kind for kind in kinds if kind == name), "new")


def as_job_file(link: JobMotor, works: Works) -> JobFile:
    """Return a motor's job as the open job format."""
    motor: Motor = link.motor
    now = kept(link, works)
    return JobFile(
        job_id=link.job.uid,
        motor=FileMotor(
            id=motor.uid, motor_tag=motor.tag, name=motor.name, machine=motor.machine.name
        ),
        kind=job_kind(link.job.kind),
        profile=FileProfile(**asdict(profile_of(works))),
        **{step: getattr(now.inputs, step) for step in STEPS},
    )


def work_out_kept(now: Kept, works: Works) -> Worked:
    """Return what is stored for a motor, calculated by the plant rules."""
    return work_out(now.inputs, profile_of(works))


def starter_of(link: JobMotor, works: Works) -> JobStarter:
    """Return the stored starter of a motor's job, drawn."""
    return work_out_kept(kept(link, works), works).starter


def versions_of(link: JobMotor, step: str) -> list[PlateRevision | InputVersion]:
    """Return every version of what was given for a step, newest first."""
    if step == "plate":
        return list(
            PlateRevision.objects.select_related("by").filter(motor=link.motor).order_by("-n")
        )
    return list(
        InputVersion.objects.select_related("by")
        .filter(job=link.job, motor=link.motor, step=step)
        .order_by("-n")
    )
