"""An audit of a plant: its parts for workers, the jobs as they were found, their lines."""

from __future__ import annotations

from django.db import models

from jobs.models import JobMotor
from people.models import User, Works

__all__ = ["Audit", "AuditPart", "AuditedJob", "AuditedLine"]


class Audit(models.Model):
    """One audit; ``n`` counts those of a plant."""

    STATES = (
        ("running", "running"),
        ("done", "done"),
        ("cancelled", "cancelled"),
    )

    works = models.ForeignKey(Works, on_delete=models.CASCADE, related_name="audits")
    n = models.PositiveIntegerField()
    by = models.ForeignKey(User, on_delete=models.PROTECT)
    at = models.DateTimeField(auto_now_add=True)
    ended_at = models.DateTimeField(null=True)
    #: what is supposed; empty for the plant as it is
    what_if = models.JSONField(default=dict)
    state = models.CharField(max_length=10, choices=STATES, default="running")
    total = models.PositiveIntegerField(default=0)
    #: the audit before it that its lines are compared with
    before = models.ForeignKey("self", on_delete=models.SET_NULL, null=True, related_name="after")
    #: whether its jobs and lines are still kept
    is_kept = models.BooleanField(default=True)

    class Meta:
        ordering = ["-n"]
        constraints = [models.UniqueConstraint(fields=["works", "n"], name="audit_once")]

    def __str__(self) -> str:
        """Return which audit of which plant."""
        return f"{self.works} audit {self.n}"


class AuditPart(models.Model):
    """Some jobs of an audit, done by one worker; one that was lost is taken up by another."""

    audit = models.ForeignKey(Audit, on_delete=models.CASCADE, related_name="parts")
    links = models.JSONField()
    is_done = models.BooleanField(default=False)
    #: who has it and since when; one that is too old belongs to nobody
    taken_by = models.CharField(max_length=32, blank=True)
    taken_at = models.DateTimeField(null=True)

    def __str__(self) -> str:
        """Return whose part it is."""
        return f"part of {self.audit}"


class AuditedJob(models.Model):
    """A job as an audit found it: its state in every topic, its unknown facts."""

    audit = models.ForeignKey(Audit, on_delete=models.CASCADE, related_name="jobs")
    link = models.ForeignKey(JobMotor, on_delete=models.CASCADE, related_name="audited")
    tag = models.CharField(max_length=40)
    machine = models.CharField(max_length=120)
    panel = models.CharField(max_length=120, blank=True)
    #: worst state of its topics; ``unread`` for a job that could not be calculated
    state = models.CharField(max_length=16)
    body = models.JSONField()

    class Meta:
        constraints = [models.UniqueConstraint(fields=["audit", "link"], name="audited_once")]

    def __str__(self) -> str:
        """Return which motor and in which audit."""
        return f"{self.tag} in {self.audit}"


class AuditedLine(models.Model):
    """A line of an audited job; ``rank`` orders those of a whole plant, the worst first."""

    audit = models.ForeignKey(Audit, on_delete=models.CASCADE, related_name="lines")
    job = models.ForeignKey(AuditedJob, on_delete=models.CASCADE, related_name="lines")
    rank = models.PositiveIntegerField()
    topic = models.CharField(max_length=16)
    key = models.CharField(max_length=400)
    #: ``gone`` for one that is no longer found
    state = models.CharField(max_length=16)
    #: state in the audit before; null where that did not see this job, empty where it was not found
    was = models.CharField(max_length=16, null=True)  # noqa: DJ001 - unknown is not "not found"
    said = models.TextField()
    do = models.TextField(blank=True)
    guesses = models.JSONField(default=list)
    rule = models.CharField(max_length=120, blank=True)
    step = models.CharField(max_length=16)

    class Meta:
        indexes = [models.Index(fields=["audit", "rank", "id"], name="audited_worst_first")]

    def __str__(self) -> str:
        """Return what it says."""
        return self.said
