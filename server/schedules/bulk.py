"""Motors of a schedule that are new, many in one transaction; each with its own log line.

What is there already goes through `TakeMotor`, one by one: there a person's own entry may stand.
"""

from __future__ import annotations

from collections.abc import Sequence

from django.db.models.functions import Upper
from django.utils import timezone

from evencoil.base import Inputs
from evencoil.job import SCHEMA
from evencoil.schedule import Entry
from jobs.models import InputVersion, Job, JobMotor
from people.access import Caller
from people.actions import Action
from people.models import ActionLog, Role
from plant.models import Machine, Motor, PlateRevision
from schedules.actions import SOURCE, TakeMotor

__all__ = ["TakeNewMotors", "new_among"]


def new_among(caller: Caller, entries: Sequence[Entry]) -> list[Entry]:
    """Return the entries whose motors are not in the plant yet.

    Parameters
    ----------
    caller : Caller
        In whose plant.
    entries : sequence of Entry
        Those with tags beyond ASCII are left to be looked at one by one: upper case is not the
        same everywhere.
    """
    plain = [one for one in entries if one.tag.isascii()]
    there = set(
        Motor.objects.filter(works=caller.works)
        .annotate(upper=Upper("tag"))
        .filter(upper__in=[one.tag.upper() for one in plain])
        .values_list("upper", flat=True)
    )
    return [one for one in plain if one.tag.upper() not in there]


class TakeNewMotors(Action[int]):
    """Take motors that are not there yet, with their jobs, all or none."""

    name = "take motors of schedule"
    least_role = Role.ELECTRICIAN

    def __init__(self, caller: Caller, entries: Sequence[Entry], source: str) -> None:
        super().__init__(caller)
        self.entries, self.file = entries, source

    @property
    def target(self) -> str:
        """Return how many of which file."""
        return f"{len(self.entries)} motors of {self.file}"

    def perform(self) -> int:
        """Add machines, motors, jobs, what is told of them, and a log line for each."""
        works, by = self.caller.works, self.caller.user
        source = f"{SOURCE} {self.file}"
        machines = {
            name: Machine.objects.get_or_create(works=works, name=name)[0]
            for name in {one.machine or "Schedule" for one in self.entries}
        }
        motors = Motor.objects.bulk_create(
            Motor(
                works=works,
                machine=machines[one.machine or "Schedule"],
                tag=one.tag,
                name=one.name,
                panel=one.panel,
            )
            for one in self.entries
        )
        jobs = Job.objects.bulk_create(Job(works=works, by=by) for _ in self.entries)
        JobMotor.objects.bulk_create(
            JobMotor(job=job, motor=motor, number=1, plate_n=1)
            for job, motor in zip(jobs, motors, strict=True)
        )
        PlateRevision.objects.bulk_create(
            PlateRevision(
                motor=motor,
                n=1,
                schema=SCHEMA,
                body=one.inputs.plate.model_dump(mode="json"),
                by=by,
                source=source,
            )
            for motor, one in zip(motors, self.entries, strict=True)
        )
        InputVersion.objects.bulk_create(
            InputVersion(
                job=job,
                motor=motor,
                step=step,
                n=1,
                schema=SCHEMA,
                body=given.model_dump(mode="json"),
                by=by,
                source=source,
            )
            for job, motor, one in zip(jobs, motors, self.entries, strict=True)
            for step, given in _told(one)
        )
        now = timezone.now()
        ActionLog.objects.bulk_create(
            ActionLog(works=works, by=by, action=TakeMotor.name, target=one.tag, at=now)
            for one in self.entries
        )
        return len(self.entries)


def _told(entry: Entry) -> list[tuple[str, Inputs]]:
    """Return the steps beside the nameplate of which an entry tells anything."""
    given = entry.inputs
    steps: list[tuple[str, Inputs]] = [("supply", given.supply), ("starter", given.starter)]
    return [(step, inputs) for step, inputs in steps if inputs != type(inputs)()]
