"""What was done at panels: revisions of what there is to do, and entries, only ever added."""

from __future__ import annotations

from django.db import models

from jobs.models import JobMotor
from people.models import User

__all__ = ["Act", "PanelRevision", "Rehearsal"]


class PanelRevision(models.Model):
    """What there is to do at a panel, for one netlist; a changed netlist is another one."""

    link = models.ForeignKey(JobMotor, on_delete=models.PROTECT, related_name="panel_revisions")
    n = models.PositiveIntegerField()
    fingerprint = models.CharField(max_length=80)
    #: what entries can be about, and how it is said
    body = models.JSONField()
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["link", "n"], name="panel_revision_once")]

    def __str__(self) -> str:
        """Return which revision of which job."""
        return f"{self.link} panel {self.n}"


class Act(models.Model):
    """One entry, as it was received, with its answer; never changed and never removed."""

    link = models.ForeignKey(JobMotor, on_delete=models.PROTECT, related_name="acts")
    #: order of arrival, which decides nothing
    n = models.PositiveIntegerField()
    uid = models.UUIDField()
    kind = models.CharField(max_length=32)
    by = models.ForeignKey(User, on_delete=models.PROTECT)
    role = models.CharField(max_length=16)
    device = models.CharField(max_length=64)
    rev = models.PositiveIntegerField()
    about = models.JSONField()
    body = models.JSONField()
    based_on = models.JSONField()
    observed_at = models.CharField(max_length=40)
    clock_off_s = models.FloatField()
    is_online = models.BooleanField()
    answer = models.CharField(max_length=60)
    received_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["n"]
        constraints = [
            models.UniqueConstraint(fields=["link", "uid"], name="act_once"),
            models.UniqueConstraint(fields=["link", "n"], name="act_n_once"),
        ]

    def __str__(self) -> str:
        """Return kind and job."""
        return f"{self.kind} of {self.link}"


class Rehearsal(models.Model):
    """A rehearsal that was put on record: what was played, on which netlist, by whom."""

    link = models.ForeignKey(JobMotor, on_delete=models.PROTECT, related_name="rehearsals")
    netlist = models.CharField(max_length=80)
    actions = models.JSONField()
    until_us = models.BigIntegerField()
    by = models.ForeignKey(User, on_delete=models.PROTECT)
    at = models.DateTimeField(auto_now_add=True)

    def __str__(self) -> str:
        """Return whose rehearsal of which job."""
        return f"rehearsal of {self.link} by {self.by}"
