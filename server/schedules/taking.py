"""Taking a schedule: every good line on a worker, with progress, stopped when a person says so."""

from __future__ import annotations

from collections.abc import Sequence

from django.db.models import F, QuerySet
from django_tasks import task

from api.problems import ProblemError
from evencoil.base import CoreError, speaking
from evencoil.schedule import Entry, open_table
from jobs.lines import work_out_soon
from people.access import Caller, caller_of
from plant.profile import profile_of
from schedules.actions import TakeMotor
from schedules.bulk import TakeNewMotors, new_among
from schedules.models import ScheduleRun

__all__ = ["TOLD_EVERY", "take_lines"]

#: motors between two looks at whether it was stopped
TOLD_EVERY = 100
#: so many that a person's entry kept are told one by one
_MOST_KEPT = 500


@task()
def take_lines(run_pk: int) -> int:
    """Take every good line of a table; a worker that comes back goes on where it stood.

    Parameters
    ----------
    run_pk : int
        Of the table; one that is gone or was stopped is left alone.

    Returns
    -------
    int
        How many lines were taken now.
    """
    run = ScheduleRun.objects.select_related("works", "by").filter(pk=run_pk).first()
    if run is None or run.state != "running":
        return 0
    with speaking(profile_of(run.works).names):
        try:
            return _taken(run)
        except (CoreError, ProblemError):
            ScheduleRun.objects.filter(pk=run.pk, state="running").update(state="failed")
            return 0


def _taken(run: ScheduleRun) -> int:
    schedule = open_table(bytes(run.data), run.told).schedule
    own = ScheduleRun.objects.filter(pk=run.pk)
    own.update(total=len(schedule.entries))
    caller = caller_of(run.by, run.works)
    counts = {"added": 0, "changed": 0, "same": 0}
    kept: list[dict[str, object]] = list(run.kept)
    before = run.done
    taken = 0
    for start in range(before, len(schedule.entries), TOLD_EVERY):
        part = schedule.entries[start : start + TOLD_EVERY]
        added = _added(caller, part, run.name)
        counts["added"] += len(added)
        for entry in part:
            if entry.line in added:
                continue
            came = TakeMotor(caller, entry, run.name).run()
            if came == "kept":
                kept.append({"line": entry.line, "tag": entry.tag})
            else:
                counts[came] += 1
        taken += len(part)
        _tell(own, before + taken, counts, kept)
        counts = dict.fromkeys(counts, 0)
        if not own.filter(state="running").exists():
            break
    _tell(own, before + taken, counts, kept)
    own.filter(state="running", done__gte=F("total")).update(state="done")
    work_out_soon(run.works)
    return taken


def _added(caller: Caller, part: Sequence[Entry], source: str) -> set[int]:
    """Take the motors of a part that are new, and return their lines."""
    fresh = new_among(caller, part)
    if not fresh:
        return set()
    try:
        TakeNewMotors(caller, fresh, source).run()
    except ProblemError as met:
        if met.body["code"] != "conflict":
            raise
        # somebody adds one of them at this moment: they are looked at one by one
        return set()
    return {one.line for one in fresh}


def _tell(
    own: QuerySet[ScheduleRun],
    done: int,
    counts: dict[str, int],
    kept: list[dict[str, object]],
) -> None:
    own.update(
        done=done,
        added=F("added") + counts["added"],
        changed=F("changed") + counts["changed"],
        same=F("same") + counts["same"],
        kept=kept[:_MOST_KEPT],
    )
