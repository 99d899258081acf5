"""One key for everything that decides a job's answer: rows, plant rules, version of the core.

Two jobs of one key have one answer, so an answer that was kept by its key is never stale: a
changed row, a changed rule or another core gives another key, also where a row was changed by
hand in the database.
"""

from __future__ import annotations

import hashlib
from collections import defaultdict
from collections.abc import Sequence

from django.db.models import Max, OuterRef, Subquery

from jobs.models import InputVersion, JobMotor
from jobs.written import Written
from people.models import Works
from plant.models import PlateRevision
from plant.profile import rules_of

__all__ = ["key_of", "keys_of"]


def key_of(rules: str, parts: Sequence[str]) -> str:
    """Return one key for plant rules and stored rows, each told by its writing."""
    return hashlib.sha256("\n".join([rules, *parts]).encode()).hexdigest()


def keys_of(links: Sequence[JobMotor], works: Works) -> dict[int, str]:
    """Return the key of each motor's job, by its primary key, in three queries for all of them.

    Parameters
    ----------
    links : sequence of JobMotor
        Of one plant.
    works : Works
        Whose rules they are calculated by.
    """
    rules = rules_of(works)
    parts: dict[int, list[str]] = defaultdict(list)
    own = {(link.job_id, link.motor_id): link.pk for link in links}
    rows = (
        InputVersion.objects.filter(
            job__in={link.job_id for link in links}, motor__in={link.motor_id for link in links}
        )
        .order_by("job_id", "motor_id", "step", "-n")
        .distinct("job_id", "motor_id", "step")
        .values_list("job_id", "motor_id", "step", "n", "schema", "pk", Written("n"))
    )
    for job, motor, *said in rows:
        if (job, motor) in own:
            parts[own[job, motor]].append(" ".join(map(str, said)))
    pinned = PlateRevision.objects.filter(motor=OuterRef("motor"), n=OuterRef("plate_n"))
    plates = JobMotor.objects.filter(pk__in=own.values()).values_list(
        "pk",
        "plate_n",
        Subquery(pinned.values("pk")[:1]),
        Subquery(pinned.annotate(written=Written("n")).values("written")[:1]),
        Max("motor__plates__n"),
    )
    for pk, *said in plates:
        parts[pk].append("plate " + " ".join(map(str, said)))
    return {link.pk: key_of(rules, parts[link.pk]) for link in links}
