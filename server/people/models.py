"""People, works, who belongs where and as what, and what was done."""

from __future__ import annotations

import datetime as dt
from zoneinfo import ZoneInfo

from django.contrib.auth.models import AbstractUser
from django.db import models

__all__ = ["AccessToken", "ActionLog", "GivenAnswer", "Member", "Role", "User", "Works"]


class User(AbstractUser):
    """A person who signs in. Names are shown beside everything they do."""

    display_name = models.CharField(max_length=80, blank=True)

    def __str__(self) -> str:
        """Return the name as others see it."""
        return self.display_name or self.username


class Role(models.TextChoices):
    """What a member may do; each role may do all that the ones above it may."""

    APPRENTICE = "apprentice"
    ELECTRICIAN = "electrician"
    REVIEWER = "reviewer"
    ADMIN = "admin"


class Works(models.Model):
    """A plant with its own people, motors and rules; no one sees another's."""

    slug = models.SlugField(unique=True)
    name = models.CharField(max_length=120)
    time_zone = models.CharField(max_length=64, default="UTC")
    edition = models.PositiveSmallIntegerField(default=2023)
    rating_rule = models.CharField(max_length=16, default="next_size_up")
    swap_lines = models.CharField(max_length=8, default="L1-L3")
    twist_on = models.CharField(max_length=12, default="building")
    twist_on_largest = models.CharField(max_length=12, default="10")
    rating_rule_reason = models.CharField(max_length=400, blank=True)
    wire_colors = models.CharField(max_length=12, default="nfpa79")
    phase_colors = models.CharField(max_length=24, default="plain")
    control_wire = models.CharField(max_length=12, default="14")
    ferrules = models.CharField(max_length=20, default="number")
    device_names = models.CharField(max_length=8, default="iec")
    trade_terms = models.CharField(max_length=12, default="american")
    line_names = models.CharField(max_length=12, default="L1-L2-L3")
    amendments = models.JSONField(default=list, blank=True)
    #: at the panel: whose screws are torqued on record, whose landing another person checks
    torque_record = models.CharField(max_length=8, default="power")
    second_person = models.CharField(max_length=8, default="none")
    two_sign = models.BooleanField(default=True)
    license_asked = models.BooleanField(default=True)
    #: a motor's card opens for a person who is not signed in: locked or not, and as wired
    guest_card = models.BooleanField(default=False)
    #: set when its erasing was asked for: from then on it is there for nobody
    erased_at = models.DateTimeField(null=True, blank=True)
    members = models.ManyToManyField(User, through="Member", related_name="works")

    def __str__(self) -> str:
        """Return the plant's name."""
        return self.name

    def local(self, at: dt.datetime) -> str:
        """Return a time as the plant's own clocks show it, to the minute."""
        return f"{at.astimezone(ZoneInfo(self.time_zone)):%Y-%m-%d %H:%M}"


class Member(models.Model):
    """A person in a plant, in a role."""

    user = models.ForeignKey(User, on_delete=models.CASCADE, related_name="memberships")
    works = models.ForeignKey(Works, on_delete=models.CASCADE, related_name="memberships")
    role = models.CharField(max_length=16, choices=Role.choices)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["user", "works"], name="member_once")]

    def __str__(self) -> str:
        """Return who is what, where."""
        return f"{self.user}, {self.role} at {self.works}"


class AccessToken(models.Model):
    """What lets a program in as its owner, in one plant, to read or to read and change.

    Only its hash is kept. It never opens more than its owner may, and nothing once they left.
    """

    works = models.ForeignKey(Works, on_delete=models.CASCADE, related_name="tokens")
    user = models.ForeignKey(User, on_delete=models.CASCADE, related_name="tokens")
    name = models.CharField(max_length=80)
    token_hash = models.CharField(max_length=64, unique=True)
    #: whether it may change anything
    is_writing = models.BooleanField(default=False)
    at = models.DateTimeField(auto_now_add=True)
    ends_at = models.DateTimeField()
    used_on = models.DateField(null=True)

    def __str__(self) -> str:
        """Return whose it is, and where."""
        return f"{self.name} of {self.user} at {self.works}"


class GivenAnswer(models.Model):
    """The answer to a change that was sent with a key; without a status it is not known yet."""

    key = models.CharField(max_length=64, primary_key=True)
    works = models.ForeignKey(Works, on_delete=models.CASCADE, related_name="+")
    asked = models.CharField(max_length=64)
    status = models.PositiveSmallIntegerField(null=True)
    kind = models.CharField(max_length=100, blank=True)
    body = models.BinaryField(default=bytes)
    at = models.DateTimeField(auto_now_add=True, db_index=True)

    def __str__(self) -> str:
        """Return its status."""
        return f"answer {self.status}"


class ActionLog(models.Model):
    """One line for each thing done, written in the same transaction."""

    works = models.ForeignKey(Works, on_delete=models.CASCADE)
    by = models.ForeignKey(User, on_delete=models.PROTECT)
    at = models.DateTimeField(auto_now_add=True)
    action = models.CharField(max_length=40)
    target = models.CharField(max_length=200)

    def __str__(self) -> str:
        """Return the line."""
        return f"{self.at:%F %T} {self.by}: {self.action} {self.target}"
