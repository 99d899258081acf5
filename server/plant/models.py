"""Machines, motors, and the revisions of each motor's plate."""

from __future__ import annotations

import uuid

from django.db import models

from people.models import User, Works

__all__ = ["Conversion", "HeaterChart", "Machine", "Motor", "Photo", "PlateRevision"]


class Machine(models.Model):
    """A machine that motors drive, such as a production line."""

    works = models.ForeignKey(Works, on_delete=models.CASCADE, related_name="machines")
    name = models.CharField(max_length=120)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["works", "name"], name="machine_once")]

    def __str__(self) -> str:
        """Return the machine's name."""
        return self.name


class Motor(models.Model):
    """A motor for life: its id never changes, its tag may."""

    uid = models.UUIDField(default=uuid.uuid4)
    works = models.ForeignKey(Works, on_delete=models.CASCADE, related_name="motors")
    machine = models.ForeignKey(Machine, on_delete=models.PROTECT, related_name="motors")
    tag = models.CharField(max_length=40)
    name = models.CharField(max_length=200, blank=True)
    #: the panel or motor control center that feeds it, as it is called there
    panel = models.CharField(max_length=120, blank=True)
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["works", "tag"], name="motor_tag_once"),
            models.UniqueConstraint(fields=["works", "uid"], name="motor_uid_once"),
        ]

    def __str__(self) -> str:
        """Return tag and name."""
        return f"{self.tag} {self.name}"


class PlateRevision(models.Model):
    """What was read off the nameplate, version by version; never changed."""

    motor = models.ForeignKey(Motor, on_delete=models.CASCADE, related_name="plates")
    n = models.PositiveIntegerField()
    schema = models.PositiveSmallIntegerField()
    body = models.JSONField()
    by = models.ForeignKey(User, on_delete=models.PROTECT)
    at = models.DateTimeField(auto_now_add=True)
    #: where it came from, if nobody entered it here
    source = models.CharField(max_length=200, blank=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["motor", "n"], name="plate_n_once")]

    def __str__(self) -> str:
        """Return whose plate and which revision."""
        return f"{self.motor.tag} plate {self.n}"


class Photo(models.Model):
    """A picture of a motor, re-encoded without its location; never changed."""

    motor = models.ForeignKey(Motor, on_delete=models.CASCADE, related_name="photos")
    sha256 = models.CharField(max_length=64)
    subject = models.CharField(max_length=16)
    width = models.PositiveIntegerField()
    height = models.PositiveIntegerField()
    data = models.BinaryField()
    by = models.ForeignKey(User, on_delete=models.PROTECT)
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["motor", "sha256"], name="photo_once")]

    def __str__(self) -> str:
        """Return whose and what."""
        return f"{self.motor.tag} {self.subject}"


class Conversion(models.Model):
    """The plan of a machine for another supply, version by version; never changed."""

    machine = models.ForeignKey(Machine, on_delete=models.CASCADE, related_name="conversions")
    n = models.PositiveIntegerField()
    body = models.JSONField()
    by = models.ForeignKey(User, on_delete=models.PROTECT)
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["machine", "n"], name="conversion_n_once")]

    def __str__(self) -> str:
        """Return machine and version."""
        return f"{self.machine} plan {self.n}"


class HeaterChart(models.Model):
    """A heater chart as copied from a starter's door; jobs carry their own copy."""

    works = models.ForeignKey(Works, on_delete=models.CASCADE, related_name="heater_charts")
    name = models.CharField(max_length=80)
    source = models.CharField(max_length=400, blank=True)
    factor = models.CharField(max_length=12, default="1")
    rows = models.JSONField()
    by = models.ForeignKey(User, on_delete=models.PROTECT)
    at = models.DateTimeField(auto_now=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["works", "name"], name="heater_chart_once")]

    def __str__(self) -> str:
        """Return the chart's name."""
        return self.name
