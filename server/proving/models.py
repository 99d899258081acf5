"""A proof of one netlist: waiting, under way or done; the same netlist is proven once."""

from __future__ import annotations

from django.db import models

from people.models import Works

__all__ = ["ProofRun"]


class ProofRun(models.Model):
    """One search over the settled states of a netlist."""

    class State(models.TextChoices):
        """Where it stands."""

        WAITING = "waiting"
        RUNNING = "running"
        DONE = "done"
        FAILED = "failed"

    works = models.ForeignKey(Works, on_delete=models.CASCADE, related_name="proofs")
    fingerprint = models.CharField(max_length=64)
    kind = models.CharField(max_length=16)
    core = models.CharField(max_length=40)
    state = models.CharField(max_length=16, choices=State, default=State.WAITING)
    #: what is given for the motor; the worker draws the circuit from it
    body = models.JSONField()
    transitions = models.PositiveIntegerField(default=0)
    left = models.PositiveIntegerField(default=0)
    result = models.JSONField(null=True)
    at = models.DateTimeField(auto_now=True)

    class Meta:
        constraints = [
            models.UniqueConstraint(
                fields=["works", "fingerprint", "kind", "core"], name="proof_once"
            )
        ]

    def __str__(self) -> str:
        """Return kind and state."""
        return f"{self.kind} {self.state}"
