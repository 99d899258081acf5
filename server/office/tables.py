"""Every table that holds something of a plant, what was made last first."""

from __future__ import annotations

from dataclasses import dataclass

from django.db.models import Model, QuerySet

from audits.models import Audit, AuditedJob, AuditedLine, AuditPart
from drills.models import DrillAnswer, DrillSet, HiddenFault
from hunts.models import TroubleHunt
from jobs.models import InputVersion, Job, JobMotor, Summary
from office.models import Invite, Seen, Takeout, TakeoutPart
from panel.models import Act, PanelRevision, Rehearsal
from paper.models import Issue
from people.models import AccessToken, ActionLog, GivenAnswer, Member, Works
from plant.models import Conversion, HeaterChart, Machine, Motor, Photo, PlateRevision
from schedules.models import ScheduleRun

__all__ = ["TABLES", "Table"]


@dataclass(frozen=True, slots=True)
class Table:
    """A table, the way from its rows to the plant, and whether its rows are given out.

    What is calculated anew at any time, and what opens doors, is not.
    """

    model: type[Model]
    way: str
    is_given: bool = True

    @property
    def name(self) -> str:
        """Return what its file is called."""
        return self.model._meta.label_lower  # noqa: SLF001  # the documented way

    def rows(self, works_pk: int) -> QuerySet[Model]:
        """Return its rows of a plant.

        Parameters
        ----------
        works_pk : int
            The plant's key.
        """
        return QuerySet(self.model).filter(**{self.way: works_pk}).order_by("pk")


#: nothing in it is pointed at by what stands below it
TABLES = (
    Table(AuditedLine, "audit__works"),
    Table(AuditedJob, "audit__works"),
    Table(AuditPart, "audit__works", is_given=False),
    Table(Audit, "works"),
    Table(TroubleHunt, "link__job__works"),
    Table(Act, "link__job__works"),
    Table(PanelRevision, "link__job__works"),
    Table(Rehearsal, "link__job__works"),
    Table(Issue, "link__job__works"),
    Table(DrillAnswer, "works"),
    Table(HiddenFault, "works"),
    Table(DrillSet, "works"),
    Table(ScheduleRun, "works"),
    Table(InputVersion, "job__works"),
    Table(Summary, "motor__works", is_given=False),
    Table(JobMotor, "job__works"),
    Table(Job, "works"),
    Table(PlateRevision, "motor__works"),
    Table(Photo, "motor__works"),
    Table(Motor, "works"),
    Table(Conversion, "machine__works"),
    Table(Machine, "works"),
    Table(HeaterChart, "works"),
    Table(TakeoutPart, "takeout__works", is_given=False),
    Table(Takeout, "works", is_given=False),
    Table(Seen, "works"),
    Table(Invite, "works", is_given=False),
    Table(AccessToken, "works", is_given=False),
    Table(GivenAnswer, "works", is_given=False),
    Table(ActionLog, "works"),
    Table(Member, "works"),
    Table(Works, "pk"),
)
