"""Keep a table, map its columns, take it, stop taking it; take one motor of it."""

from __future__ import annotations

import hashlib
from collections.abc import Mapping
from typing import Any, Literal, TypeVar

from django.db.models import Max

from api.problems import ProblemError
from evencoil.base import Inputs, exact
from evencoil.schedule import Entry, Sheet
from jobs.models import Job, JobMotor
from jobs.store import add_input, add_plate, kept, versions_of
from people.access import Caller
from people.actions import Action
from people.models import Role, Works
from plant.models import Machine, Motor
from schedules.models import ScheduleRun

__all__ = ["SOURCE", "KeepTable", "MapTable", "StopTable", "TakeMotor", "TakeTable", "heads_key"]

#: before the name of the file in the source of what a schedule said
SOURCE = "schedule"
Came = Literal["added", "changed", "same", "kept"]
Step = Literal["plate", "supply", "starter"]
Given = TypeVar("Given", bound=Inputs)


def heads_key(sheet: Sheet) -> str:
    """Return what tables of one source have in common: their heads in their order."""
    return hashlib.sha256("\x1f".join(sheet.heads).encode()).hexdigest()


class KeepTable(Action[ScheduleRun]):
    """Keep a table that was read, mapped as the last one with the same heads."""

    name = "read schedule"
    least_role = Role.ELECTRICIAN

    def __init__(self, caller: Caller, file_name: str, data: bytes, sheet: Sheet) -> None:
        super().__init__(caller)
        self.file_name, self.data, self.sheet = file_name, data, sheet

    @property
    def target(self) -> str:
        """Return the name of the file."""
        return self.file_name

    def perform(self) -> ScheduleRun:
        """Keep it; of tables the data of the newest twenty stay."""
        works, key = self.caller.works, heads_key(self.sheet)
        Works.objects.select_for_update().get(pk=works.pk)
        own = ScheduleRun.objects.filter(works=works)
        like = own.filter(heads_key=key).first()
        n = (own.aggregate(n=Max("n"))["n"] or 0) + 1
        own.filter(n__lte=n - 20).exclude(state="running").update(data=b"")
        return ScheduleRun.objects.create(
            works=works,
            n=n,
            by=self.caller.user,
            name=self.file_name,
            data=self.data,
            heads_key=key,
            told={} if like is None else like.told,
        )


class _OfRun(Action[ScheduleRun]):
    """Something done to a table that was kept."""

    least_role = Role.ELECTRICIAN

    def __init__(self, caller: Caller, run: ScheduleRun) -> None:
        super().__init__(caller)
        self.table = run

    @property
    def target(self) -> str:
        """Return the name of the file."""
        return self.table.name

    def now(self, *states: str) -> ScheduleRun:
        """Return it as it stands, if it stands in one of some states.

        Raises
        ------
        ProblemError
            409 in any other state.
        """
        row = ScheduleRun.objects.select_for_update().get(pk=self.table.pk)
        if row.state not in states:
            raise ProblemError(
                409,
                code="schedule_state",
                detail=f"This table is {row.state}.",
                field="state",
                hint="Look at it again; read the file once more to take it again.",
            )
        return row


class MapTable(_OfRun):
    """Say which column means which field."""

    name = "map schedule"

    def __init__(self, caller: Caller, run: ScheduleRun, told: Mapping[str, str]) -> None:
        super().__init__(caller, run)
        self.told = dict(told)

    def perform(self) -> ScheduleRun:
        """Keep it with the table."""
        row = self.now("read")
        row.told = self.told
        row.save(update_fields=["told"])
        return row


class TakeTable(_OfRun):
    """Let a worker take every good line."""

    name = "take schedule"

    def perform(self) -> ScheduleRun:
        """Mark it; the worker is asked once this is kept."""
        row = self.now("read")
        row.state = "running"
        row.save(update_fields=["state"])
        return row


class StopTable(_OfRun):
    """Stop taking: what was taken stays."""

    name = "stop schedule"

    def perform(self) -> ScheduleRun:
        """Mark it; the worker looks before every motor."""
        row = self.now("running")
        row.state = "cancelled"
        row.save(update_fields=["state"])
        return row


class TakeMotor(Action[Came]):
    """Take one motor of a schedule: by its tag, without doubling it.

    What a person entered stays: a schedule changes only what a schedule said before.
    """

    name = "take motor of schedule"
    least_role = Role.ELECTRICIAN

    def __init__(self, caller: Caller, entry: Entry, source: str) -> None:
        super().__init__(caller)
        self.entry, self.source = entry, f"{SOURCE} {source}"

    @property
    def target(self) -> str:
        """Return the motor's tag."""
        return self.entry.tag

    def _link(self) -> tuple[JobMotor, bool]:
        works, entry = self.caller.works, self.entry
        motor = Motor.objects.filter(works=works, tag__iexact=entry.tag).first()
        if motor is not None:
            if entry.panel and not motor.panel:
                motor.panel = entry.panel
                motor.save(update_fields=["panel"])
            link = motor.jobs.select_related("motor", "job").order_by("-number").first()
            if link is not None:
                return link, False
        else:
            machine, _ = Machine.objects.get_or_create(
                works=works, name=entry.machine or "Schedule"
            )
            motor = Motor.objects.create(
                works=works, machine=machine, tag=entry.tag, name=entry.name, panel=entry.panel
            )
        job = Job.objects.create(works=works, by=self.caller.user)
        return JobMotor.objects.create(job=job, motor=motor, number=1), True

    def perform(self) -> Came:
        """Add what is new as the newest versions; tell what came of it.

        One step that a person entered otherwise keeps the whole motor as it is: half a
        nameplate of each would be nobody's.
        """
        link, is_new = self._link()
        given = self.entry.inputs
        fault_a = given.supply.fault_current_a
        fresh: dict[Step, dict[str, str]] = {
            "plate": {"text": given.plate.text},
            "supply": {
                "text": given.supply.text,
                "fault_current_a": "" if fault_a is None else exact(fault_a),
            },
            "starter": {"standard_circuit": given.starter.standard_circuit},
        }
        changes: dict[Step, dict[str, str]] = {}
        for step, fields in fresh.items():
            newest = next(iter(versions_of(link, step)), None)
            body: dict[str, Any] = {} if newest is None else newest.body
            known = {field: str(body.get(field) or "") for field in fields}
            other = {field: value for field, value in fields.items() if value != known[field]}
            other = {field: value for field, value in other.items() if value}
            if not other:
                continue
            is_own = newest is not None and not newest.source.startswith(SOURCE)
            if is_own and any(known[field] for field in other):
                return "kept"
            changes[step] = other
        if not changes:
            return "same"
        now = kept(link, self.caller.works)
        if "plate" in changes:
            plate = now.inputs.plate.model_copy(update=changes["plate"])
            add_plate(link, plate, now.newest_plate_n, self.caller, self.source)
        if "supply" in changes:
            supply = _with(now.inputs.supply, changes["supply"])
            add_input(link, "supply", supply, now.versions["supply"].n, self.caller, self.source)
        if "starter" in changes:
            starter = _with(now.inputs.starter, changes["starter"])
            add_input(link, "starter", starter, now.versions["starter"].n, self.caller, self.source)
        return "added" if is_new else "changed"


def _with(inputs: Given, change: dict[str, str]) -> Given:
    """Return inputs with some fields otherwise, in the types of their model."""
    return type(inputs).model_validate({**inputs.model_dump(), **change})
