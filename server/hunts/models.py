"""Hunts of a job: its case, its answers in order, and how it was closed."""

from __future__ import annotations

from django.db import models

from jobs.models import JobMotor
from people.models import User

__all__ = ["TroubleHunt"]


class TroubleHunt(models.Model):
    """One hunt. ``rev`` counts its changes, so that two people never write over each other."""

    link = models.ForeignKey(JobMotor, on_delete=models.CASCADE, related_name="hunts")
    n = models.PositiveIntegerField()
    symptom = models.CharField(max_length=60)
    age = models.CharField(max_length=4)
    after_work = models.BooleanField()
    #: reading, how, value, word, said, by, at
    answers = models.JSONField(default=list)
    rev = models.PositiveIntegerField(default=0)
    by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="hunts")
    at = models.DateTimeField(auto_now_add=True)
    closed_at = models.DateTimeField(null=True)
    closed_by = models.ForeignKey(
        User, on_delete=models.PROTECT, null=True, related_name="closed_hunts"
    )
    #: what was tried and changed, in its order, and whether the symptom was seen again
    steps = models.JSONField(default=list)
    is_proven = models.BooleanField(default=False)
    reason = models.CharField(max_length=40, blank=True)
    #: row of the table of odds it counts for, and how much
    row = models.CharField(max_length=40, blank=True)
    counts = models.FloatField(default=0.0)

    class Meta:
        ordering = ["n"]
        constraints = [models.UniqueConstraint(fields=["link", "n"], name="hunt_once")]

    def __str__(self) -> str:
        """Return which hunt of which job."""
        return f"{self.link} hunt {self.n}"
