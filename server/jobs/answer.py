"""A job's answer as JSON, kept by its key for every process that serves.

What decides the answer is in the key (`jobs.keys`), so a kept one is never stale. Who saved which
version, and where the job stands, are read each time: they are cheap and change without it.
"""

from __future__ import annotations

import json
from typing import Any

from django.http import HttpResponse

from answers.schemas.worked import worked_out
from api.answers import JSON
from api.kept import kept_or_made
from evencoil.job import JobInputs
from jobs.keys import BODY_MD5, key_of
from jobs.models import InputVersion, JobMotor
from jobs.store import INPUT_STEPS, kept, version, work_out_kept
from people.models import Works
from plant.models import PlateRevision
from plant.profile import rules_of

__all__ = ["job_answer"]


def _as_json(value: Any) -> str:
    return json.dumps(value, ensure_ascii=False, allow_nan=False)


def _calculated(link: JobMotor, works: Works) -> bytes:
    """Return inputs and answer as members of a JSON object, without its braces."""
    now = kept(link, works)
    body = {step: getattr(now.inputs, step) for step in JobInputs.model_fields}
    said = {step: one.model_dump(mode="json") for step, one in body.items()}
    said["worked"] = worked_out(work_out_kept(now, works)).model_dump(mode="json", by_alias=True)
    return _as_json(said)[1:-1].encode()


def job_answer(link: JobMotor, works: Works) -> HttpResponse:
    """Return a motor's job: what was entered, by whom, and what comes out.

    Raises
    ------
    NeedsRepairError
        If a row cannot be read any more.
    """
    rows = {
        row.step: row
        for row in InputVersion.objects.select_related("by")
        .filter(job=link.job_id, motor=link.motor_id)
        .order_by("step", "-n")
        .distinct("step")
        .defer("body")
        .annotate(md5=BODY_MD5)
    }
    plates = list(
        PlateRevision.objects.select_related("by")
        .filter(motor=link.motor_id)
        .order_by("-n")
        .defer("body")
        .annotate(md5=BODY_MD5)
    )
    newest = plates[0].n if plates else 0
    plate = next((row for row in plates if row.n == link.plate_n), None)
    stored = [f"{step} {row.n} {row.schema} {row.md5}" for step, row in sorted(rows.items())]
    stored.append("no plate" if plate is None else f"plate {plate.n} {plate.schema} {plate.md5}")
    key = f"job.{key_of(rules_of(works), stored)}"
    text = kept_or_made(key, lambda: _calculated(link, works)).decode()
    versions = {"plate": version(plate, works).dict()} | {
        step: version(rows.get(step), works).dict() for step in INPUT_STEPS
    }
    head = _as_json(
        {
            "works": works.name,
            "tag": link.motor.tag,
            "name": link.motor.name,
            "machine": link.motor.machine.name,
            "job": link.number,
            "kind": link.job.kind,
            "is_stale": newest > versions["plate"]["n"],
            "newest_plate_n": newest,
            "versions": versions,
        }
    )
    return HttpResponse(f"{head[:-1]}, {text}}}", content_type=JSON)
