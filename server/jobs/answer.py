"""A job's answer as JSON, kept by its key for every process that serves.

What decides the answer is in the key (`jobs.keys`), so a kept one is never stale. Who saved which
version, and where the job stands, are read each time: they are cheap and change without it.
"""

from __future__ import annotations

import datetime as dt
import json
from typing import Any, NamedTuple

from django.http import HttpResponse

from answers.schemas.worked import worked_out
from api.answers import JSON
from api.kept import kept_or_made
from evencoil.job import JobInputs
from jobs.keys import key_of
from jobs.models import InputVersion, JobMotor
from jobs.store import INPUT_STEPS, jobs_at, kept, version, work_out_kept
from jobs.written import Written
from people.access import Caller, not_found
from people.models import Works
from plant.models import PlateRevision
from plant.profile import rules_of

__all__ = ["JobPlace", "job_answer", "job_place"]


#: what is read of a stored version: all but its body
_COLUMNS = ("n", "schema", "pk", "at", "source", "by__display_name", "by__username", Written("n"))


class _Row(NamedTuple):
    """A stored version without its body."""

    step: str
    n: int
    schema: int
    pk: int
    at: dt.datetime
    source: str
    by_name: str
    by_login: str
    written: int

    @property
    def by(self) -> str:
        """Return who saved it, as others see them."""
        return self.by_name or self.by_login

    @property
    def key(self) -> str:
        """Return what changes when it is written, however that is done."""
        return f"{self.step} {self.n} {self.schema} {self.pk} {self.written}"


class JobPlace(NamedTuple):
    """A motor's job, as far as its answer needs it: no model is made of it."""

    pk: int
    job: int
    motor: int
    number: int
    plate_n: int
    kind: str
    tag: str
    name: str
    machine: str


def job_place(caller: Caller, tag: str, number: int) -> JobPlace:
    """Return where a motor's job stands in the caller's plant.

    Raises
    ------
    ProblemError
        404 if there is none there.
    """
    found = jobs_at(caller, tag, number).values_list(
        "pk",
        "job_id",
        "motor_id",
        "number",
        "plate_n",
        "job__kind",
        "motor__tag",
        "motor__name",
        "motor__machine__name",
    )[:1]
    for row in found:
        return JobPlace(*row)
    raise not_found("job")


def _as_json(value: Any) -> str:
    return json.dumps(value, ensure_ascii=False, allow_nan=False)


def _calculated(place: JobPlace, works: Works) -> bytes:
    """Return inputs and answer as members of a JSON object, without its braces."""
    link = JobMotor.objects.select_related("job", "motor", "motor__machine").get(pk=place.pk)
    now = kept(link, works)
    body = {step: getattr(now.inputs, step) for step in JobInputs.model_fields}
    said = {step: one.model_dump(mode="json") for step, one in body.items()}
    said["worked"] = worked_out(work_out_kept(now, works)).model_dump(mode="json", by_alias=True)
    return _as_json(said)[1:-1].encode()


def job_answer(place: JobPlace, works: Works) -> HttpResponse:
    """Return a motor's job: what was entered, by whom, and what comes out.

    Raises
    ------
    NeedsRepairError
        If a row cannot be read any more.
    """
    rows = {
        row.step: row
        for row in map(
            _Row._make,
            InputVersion.objects.filter(job=place.job, motor=place.motor)
            .order_by("step", "-n")
            .distinct("step")
            .values_list("step", *_COLUMNS),
        )
    }
    plates = [
        _Row("plate", *said)
        for said in PlateRevision.objects.filter(motor=place.motor)
        .order_by("-n")
        .values_list(*_COLUMNS)
    ]
    newest = plates[0].n if plates else 0
    plate = next((row for row in plates if row.n == place.plate_n), None)
    stored = [row.key for _, row in sorted(rows.items())]
    stored.append("no plate" if plate is None else plate.key)
    key = f"job.{key_of(rules_of(works), stored)}"
    text = kept_or_made(key, lambda: _calculated(place, works))
    versions = {"plate": version(plate, works).dict()} | {
        step: version(rows.get(step), works).dict() for step in INPUT_STEPS
    }
    head = _as_json(
        {
            "works": works.name,
            "tag": place.tag,
            "name": place.name,
            "machine": place.machine,
            "job": place.number,
            "kind": place.kind,
            "is_stale": newest > (0 if plate is None else plate.n),
            "newest_plate_n": newest,
            "versions": versions,
        }
    )
    body = b"".join([head[:-1].encode(), b", ", text, b"}"])
    return HttpResponse(body, content_type=JSON)
