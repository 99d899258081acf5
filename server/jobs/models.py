"""Jobs, the motors they cover, and the versions of their inputs."""

from __future__ import annotations

import uuid

from django.db import models

from people.models import User, Works
from plant.models import Motor

__all__ = ["InputVersion", "Job", "JobMotor", "Summary", "WorkerSeen"]


class Job(models.Model):
    """A piece of work on one or more motors."""

    uid = models.UUIDField(default=uuid.uuid4)
    works = models.ForeignKey(Works, on_delete=models.CASCADE, related_name="jobs")
    kind = models.CharField(max_length=16, default="new")
    at = models.DateTimeField(auto_now_add=True)
    by = models.ForeignKey(User, on_delete=models.PROTECT)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["works", "uid"], name="job_uid_once")]

    def __str__(self) -> str:
        """Return kind and id."""
        return f"{self.kind} {self.uid}"


class JobMotor(models.Model):
    """A motor in a job, its number there, and the nameplate revision it uses.

    ``plate_n`` is 0 until a nameplate was read.
    """

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="scope")
    motor = models.ForeignKey(Motor, on_delete=models.CASCADE, related_name="jobs")
    number = models.PositiveIntegerField()
    plate_n = models.PositiveIntegerField(default=0)

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["motor", "number"], name="job_number_once"),
            models.UniqueConstraint(fields=["job", "motor"], name="job_motor_once"),
        ]

    def __str__(self) -> str:
        """Return motor and job number."""
        return f"{self.motor.tag} job {self.number}"


class InputVersion(models.Model):
    """What people gave for one step, version by version; never changed."""

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="inputs")
    motor = models.ForeignKey(Motor, on_delete=models.CASCADE, null=True, related_name="inputs")
    step = models.CharField(max_length=16)
    n = models.PositiveIntegerField()
    schema = models.PositiveSmallIntegerField()
    body = models.JSONField()
    by = models.ForeignKey(User, on_delete=models.PROTECT)
    at = models.DateTimeField(auto_now_add=True)
    #: where it came from, if nobody entered it here
    source = models.CharField(max_length=200, blank=True)

    class Meta:
        constraints = [
            models.UniqueConstraint(
                fields=["job", "motor", "step", "n"],
                name="input_n_once",
                nulls_distinct=False,
            )
        ]

    def __str__(self) -> str:
        """Return step and version."""
        return f"{self.step} {self.n}"


class Summary(models.Model):
    """A motor's line in the motor list as it was calculated last, for its newest job.

    ``key`` stands for everything that decides it: inputs, plant rules, version of the core. A
    line whose key is another's is calculated anew before it is shown.
    """

    motor = models.OneToOneField(Motor, on_delete=models.CASCADE, related_name="summary")
    number = models.PositiveIntegerField()
    key = models.CharField(max_length=64)
    body = models.JSONField()
    is_waiting = models.BooleanField()
    #: what the list is filtered by: supply between lines [V], largest power stamped [hp], the step
    #: that waits; and what it is searched by: plate text, wire numbers and wired terminals, each
    #: between bars
    line_volts_v = models.FloatField(null=True)
    power_hp = models.FloatField(null=True)
    next_step = models.CharField(max_length=20, blank=True)
    plate_text = models.TextField(blank=True)
    wires = models.TextField(blank=True)
    at = models.DateTimeField(auto_now=True)

    def __str__(self) -> str:
        """Return whose line it is."""
        return f"line of {self.motor.tag}"


class WorkerSeen(models.Model):
    """A worker by its name, and when it last said that it is there."""

    name = models.CharField(max_length=64, primary_key=True)
    at = models.DateTimeField()

    def __str__(self) -> str:
        """Return its name."""
        return self.name
