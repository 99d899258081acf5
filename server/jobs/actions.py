"""What people do to motors and jobs: one class for each change."""

from __future__ import annotations

from django.db.models import Max
from pydantic import BaseModel

from api.problems import ProblemError
from evencoil.job import JobFile, StepName
from evencoil.plate import PlateInputs
from evencoil.sizing import SizeInputs
from jobs.models import InputVersion, Job, JobMotor
from jobs.stamps import Stamper, stamped
from jobs.store import INPUT_STEPS, add_input, add_plate, kept
from people.access import Caller
from people.actions import Action
from people.models import Role
from plant.models import Machine, Motor, PlateRevision

__all__ = [
    "AddMotor",
    "GiveInputs",
    "ImportJob",
    "ReadPlate",
    "UsePlate",
]


#: steps that a file may leave empty without adding a version
_LATER = frozenset({"bench", "trust", "replace", "joints"})


def _tag_taken(tag: str, field: str) -> ProblemError:
    return ProblemError(
        409,
        code="tag_taken",
        detail=f"This plant already has a motor {tag}.",
        field=field,
        hint="Open that motor, or give this one another tag.",
    )


def _link(job: Job, motor: Motor) -> JobMotor:
    last = JobMotor.objects.filter(motor=motor).aggregate(n=Max("number"))["n"] or 0
    return JobMotor.objects.create(job=job, motor=motor, number=last + 1)


class AddMotor(Action[JobMotor]):
    """Add a motor to a machine, with its first job."""

    name = "add motor"
    least_role = Role.ELECTRICIAN

    def __init__(
        self, caller: Caller, *, tag: str, called: str, machine: str, panel: str = ""
    ) -> None:
        super().__init__(caller)
        self.tag, self.called, self.machine, self.panel = tag, called, machine, panel

    @property
    def target(self) -> str:
        """Return the motor's tag."""
        return self.tag

    def perform(self) -> JobMotor:
        """Add motor and job.

        Raises
        ------
        ProblemError
            409 if the tag is taken.
        """
        works = self.caller.works
        if Motor.objects.filter(works=works, tag=self.tag).exists():
            raise _tag_taken(self.tag, "tag")
        machine, _ = Machine.objects.get_or_create(works=works, name=self.machine)
        motor = Motor.objects.create(
            works=works, machine=machine, tag=self.tag, name=self.called, panel=self.panel
        )
        return _link(Job.objects.create(works=works, by=self.caller.user), motor)


class ReadPlate(Action[PlateRevision]):
    """Keep a reading of the nameplate."""

    name = "read plate"

    def __init__(self, caller: Caller, link: JobMotor, body: PlateInputs, based_on: int) -> None:
        super().__init__(caller)
        self.link, self.body, self.based_on = link, body, based_on

    @property
    def target(self) -> str:
        """Return the motor's tag."""
        return self.link.motor.tag

    def perform(self) -> PlateRevision:
        """Add the revision."""
        return add_plate(self.link, self.body, self.based_on, self.caller)


class UsePlate(Action[JobMotor]):
    """Let a job use the newest plate revision of its motor."""

    name = "use plate"

    def __init__(self, caller: Caller, link: JobMotor) -> None:
        super().__init__(caller)
        self.link = link

    @property
    def target(self) -> str:
        """Return motor and job."""
        return str(self.link)

    def perform(self) -> JobMotor:
        """Pin the newest revision."""
        newest = PlateRevision.objects.filter(motor=self.link.motor).aggregate(n=Max("n"))["n"]
        self.link.plate_n = newest or 0
        self.link.save(update_fields=["plate_n"])
        return self.link


class GiveInputs(Action[InputVersion]):
    """Keep what was given for one step of a job."""

    def __init__(
        self, caller: Caller, link: JobMotor, step: StepName, body: BaseModel, based_on: int
    ) -> None:
        super().__init__(caller)
        self.name = f"give {step}"
        self.link, self.step, self.body, self.based_on = link, step, body, based_on

    @property
    def target(self) -> str:
        """Return motor and job."""
        return str(self.link)

    def perform(self) -> InputVersion:
        """Add the version."""
        return add_input(self.link, self.step, self.body, self.based_on, self.caller)


class ImportJob(Action[JobMotor]):
    """Take a job file over: the same motor and job if they are here, else new ones."""

    name = "import job"
    least_role = Role.ELECTRICIAN

    def __init__(self, caller: Caller, file: JobFile, as_tag: str = "") -> None:
        super().__init__(caller)
        self.file, self.tag = file, as_tag or file.motor.motor_tag

    @property
    def target(self) -> str:
        """Return the motor's tag."""
        return self.tag

    def _motor(self) -> Motor:
        works, said = self.caller.works, self.file.motor
        motor = Motor.objects.select_related("machine").filter(works=works, uid=said.id).first()
        if motor is not None:
            return motor
        if Motor.objects.filter(works=works, tag=self.tag).exists():
            raise _tag_taken(self.tag, "motor.motor_tag")
        machine, _ = Machine.objects.get_or_create(works=works, name=said.machine or "Imported")
        return Motor.objects.create(
            works=works, machine=machine, uid=said.id, tag=self.tag, name=said.name
        )

    def perform(self) -> JobMotor:
        """Add what is new in the file as the newest versions; nothing is overwritten.

        Raises
        ------
        ProblemError
            409 if its tag belongs to another motor.
        """
        motor, works, file = self._motor(), self.caller.works, self.file
        job, _ = Job.objects.get_or_create(
            works=works, uid=file.job_id, defaults={"by": self.caller.user, "kind": file.kind}
        )
        link = JobMotor.objects.select_related("motor", "job").filter(job=job, motor=motor).first()
        link = link or _link(job, motor)
        now = kept(link, works)
        said = f"job file of {file.motor.motor_tag}"
        add_plate(link, file.plate, now.newest_plate_n, self.caller, said)
        for step in INPUT_STEPS:
            body = self._size() if step == "size" else getattr(file, step)
            body = stamped(step, body, Stamper(link, self.caller, is_import=True))
            is_empty = body == type(body)()
            if not is_empty or (step not in _LATER and now.versions[step].n):
                add_input(link, step, body, now.versions[step].n, self.caller, said)
        return link

    def _size(self) -> SizeInputs:
        """Return the sizes' inputs with the file's own edition and rating rule kept.

        A works with another edition must not change the figures of the file.
        """
        size, said, works = self.file.size, self.file.profile, self.caller.works
        own: dict[str, object] = {}
        if size.edition is None and said.edition != works.edition:
            own["edition"] = said.edition
        if size.rating_rule is None and said.rating_rule != works.rating_rule:
            own["rating_rule"] = said.rating_rule
        return size.model_copy(update=own)
