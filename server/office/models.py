"""Invitations to a plant, who opened what on which day, and a plant's data as one file."""

from __future__ import annotations

from typing import Literal

from django.db import models
from django.utils import timezone

from people.models import Role, User, Works

__all__ = ["Erasure", "Invite", "Seen", "Takeout", "TakeoutPart"]


class Invite(models.Model):
    """A link that lets one person in, once, in a role, until it ends."""

    works = models.ForeignKey(Works, on_delete=models.CASCADE, related_name="invites")
    token_hash = models.CharField(max_length=64, unique=True)
    role = models.CharField(max_length=16, choices=Role.choices)
    #: whom it is for, as the administrator wrote it
    whom = models.CharField(max_length=120, blank=True)
    #: empty only where the server's own operator founded the plant
    by = models.ForeignKey(User, on_delete=models.PROTECT, null=True, related_name="+")
    at = models.DateTimeField(auto_now_add=True)
    ends_at = models.DateTimeField()
    used_by = models.ForeignKey(User, on_delete=models.SET_NULL, null=True, related_name="+")
    used_at = models.DateTimeField(null=True)
    revoked_at = models.DateTimeField(null=True)

    def __str__(self) -> str:
        """Return whom it lets in, where and as what."""
        return f"{self.whom or 'somebody'} to {self.works} as {self.role}"

    @property
    def state(self) -> Literal["open", "used", "ended", "taken_back"]:
        """Return what became of it."""
        if self.used_at:
            return "used"
        if self.revoked_at:
            return "taken_back"
        return "ended" if self.ends_at <= timezone.now() else "open"


class Seen(models.Model):
    """Somebody opened something of a plant on a day: no time of day, nothing to add up."""

    works = models.ForeignKey(Works, on_delete=models.CASCADE, related_name="seen")
    by = models.ForeignKey(User, on_delete=models.CASCADE, related_name="+")
    what = models.CharField(max_length=80)
    on = models.DateField()

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["works", "by", "what", "on"], name="seen_once_a_day")
        ]

    def __str__(self) -> str:
        """Return who saw what, and the day."""
        return f"{self.on} {self.by}: {self.what}"


class Takeout(models.Model):
    """Everything of a plant as one file, made by a worker; let go after a week."""

    works = models.ForeignKey(Works, on_delete=models.CASCADE, related_name="takeouts")
    n = models.PositiveIntegerField()
    by = models.ForeignKey(User, on_delete=models.PROTECT, related_name="+")
    at = models.DateTimeField(auto_now_add=True)
    state = models.CharField(max_length=12, default="running")
    done = models.PositiveIntegerField(default=0)
    total = models.PositiveIntegerField(default=0)
    size = models.BigIntegerField(default=0)
    sha256 = models.CharField(max_length=64, blank=True)
    #: what could not be put in, in words
    left = models.JSONField(default=list)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["works", "n"], name="takeout_n_once")]

    def __str__(self) -> str:
        """Return whose data and which file."""
        return f"{self.works} data {self.n}"


class TakeoutPart(models.Model):
    """A megabyte of such a file."""

    takeout = models.ForeignKey(Takeout, on_delete=models.CASCADE, related_name="parts")
    n = models.PositiveIntegerField()
    data = models.BinaryField()

    class Meta:
        ordering = ["n"]
        constraints = [models.UniqueConstraint(fields=["takeout", "n"], name="takeout_part_once")]

    def __str__(self) -> str:
        """Return which part of which file."""
        return f"{self.takeout} part {self.n}"


class Erasure(models.Model):
    """That a plant was erased: when, and nothing of what it held."""

    works_pk = models.BigIntegerField(unique=True)
    asked_at = models.DateTimeField(auto_now_add=True)
    done_at = models.DateTimeField(null=True)
    rows = models.PositiveIntegerField(default=0)

    def __str__(self) -> str:
        """Return which plant by number, and when."""
        return f"plant {self.works_pk} erased {self.asked_at:%F}"
