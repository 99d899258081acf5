"""A table of motors as it came, how it was mapped, and what was taken of it."""

from __future__ import annotations

from django.db import models

from people.models import User, Works

__all__ = ["ScheduleRun"]


class ScheduleRun(models.Model):
    """One table; ``n`` counts those of a works."""

    STATES = (
        ("read", "read"),
        ("running", "running"),
        ("done", "done"),
        ("cancelled", "cancelled"),
        ("failed", "failed"),
    )

    works = models.ForeignKey(Works, on_delete=models.CASCADE, related_name="schedules")
    n = models.PositiveIntegerField()
    by = models.ForeignKey(User, on_delete=models.PROTECT)
    at = models.DateTimeField(auto_now_add=True)
    name = models.CharField(max_length=120)
    data = models.BinaryField()
    #: digest of the heads: the next table with the same ones is mapped alike
    heads_key = models.CharField(max_length=64)
    #: field to head, as a person said; an empty head means that there is none
    told = models.JSONField(default=dict)
    state = models.CharField(max_length=10, choices=STATES, default="read")
    done = models.PositiveIntegerField(default=0)
    total = models.PositiveIntegerField(default=0)
    added = models.PositiveIntegerField(default=0)
    changed = models.PositiveIntegerField(default=0)
    same = models.PositiveIntegerField(default=0)
    #: line, tag and why of those that a person's own entry kept as they are
    kept = models.JSONField(default=list)

    class Meta:
        ordering = ["-n"]
        constraints = [models.UniqueConstraint(fields=["works", "n"], name="schedule_once")]

    def __str__(self) -> str:
        """Return which schedule of which works."""
        return f"{self.works} schedule {self.n}"
