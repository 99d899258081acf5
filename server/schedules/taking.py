"""Taking a schedule: every good line on a worker, with progress, stopped when a person says so."""

from __future__ import annotations

from django.db.models import F, QuerySet
from django_tasks import task

from api.problems import ProblemError
from evencoil.base import CoreError, speaking
from evencoil.schedule import open_table
from jobs.lines import work_out_soon
from people.access import caller_of
from plant.profile import profile_of
from schedules.actions import TakeMotor
from schedules.models import ScheduleRun

__all__ = ["TOLD_EVERY", "take_lines"]

#: motors between two looks at whether it was stopped
TOLD_EVERY = 25
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
    for entry in schedule.entries[before:]:
        came = TakeMotor(caller, entry, run.name).run()
        if came == "kept":
            kept.append({"line": entry.line, "tag": entry.tag})
        else:
            counts[came] += 1
        taken += 1
        if taken % TOLD_EVERY == 0:
            _tell(own, before + taken, counts, kept)
            counts = dict.fromkeys(counts, 0)
            if not own.filter(state="running").exists():
                break
    _tell(own, before + taken, counts, kept)
    own.filter(state="running", done__gte=F("total")).update(state="done")
    work_out_soon(run.works)
    return taken


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
