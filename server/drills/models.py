"""What a person practiced, seen by no one else unless shared; and drills that were set."""

from __future__ import annotations

from django.db import models

from people.models import User, Works

__all__ = ["DrillAnswer", "DrillBox", "DrillSet", "HiddenFault"]


class DrillBox(models.Model):
    """How well a person knows one kind of question: its box, and when it is due again."""

    person = models.ForeignKey(User, on_delete=models.CASCADE, related_name="drill_boxes")
    kind = models.CharField(max_length=30)
    box = models.PositiveSmallIntegerField(default=0)
    due = models.DateField()

    class Meta:
        constraints = [models.UniqueConstraint(fields=["person", "kind"], name="drill_box_once")]

    def __str__(self) -> str:
        """Return whose and which."""
        return f"{self.person} {self.kind}"


class DrillSet(models.Model):
    """A drill that a reviewer set for everyone of a works."""

    works = models.ForeignKey(Works, on_delete=models.CASCADE, related_name="drills")
    kind = models.CharField(max_length=30)
    seed = models.PositiveBigIntegerField()
    setting = models.CharField(max_length=8)
    note = models.CharField(max_length=200, blank=True)
    by = models.ForeignKey(User, on_delete=models.PROTECT)
    at = models.DateTimeField(auto_now_add=True)

    def __str__(self) -> str:
        """Return kind and works."""
        return f"{self.kind} at {self.works}"


class HiddenFault(models.Model):
    """A fault that a colleague hid in a circuit of the catalogue for whoever finds it."""

    works = models.ForeignKey(Works, on_delete=models.CASCADE, related_name="hidden_faults")
    circuit = models.CharField(max_length=20)
    fault = models.CharField(max_length=300)
    by = models.ForeignKey(User, on_delete=models.CASCADE)
    at = models.DateTimeField(auto_now_add=True)

    def __str__(self) -> str:
        """Return circuit and works, and not the fault."""
        return f"{self.circuit} at {self.works}"


class DrillAnswer(models.Model):
    """One answer of a person; ``works`` only says where it was given."""

    works = models.ForeignKey(Works, on_delete=models.CASCADE)
    person = models.ForeignKey(User, on_delete=models.CASCADE, related_name="drill_answers")
    kind = models.CharField(max_length=30)
    seed = models.PositiveBigIntegerField()
    setting = models.CharField(max_length=8)
    given = models.CharField(max_length=160)
    right = models.CharField(max_length=160)
    is_right = models.BooleanField()
    slip = models.CharField(max_length=200, blank=True)
    is_shared = models.BooleanField(default=False)
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-at"]

    def __str__(self) -> str:
        """Return whose and which."""
        return f"{self.person} {self.kind} {self.seed}"
