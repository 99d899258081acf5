"""Issues: what was printed or issued for wiring, as it was then, for ever."""

from __future__ import annotations

from typing import Any

from django.db import models

from jobs.models import JobMotor
from people.models import User

__all__ = ["Issue", "IssuedError"]


class IssuedError(Exception):
    """Someone tries to change or remove an issue: a bug."""


class Issue(models.Model):
    """A motor's job as issued: inputs, results, netlist, core, tables, the PDF itself.

    Written once. Later code never alters it; the screen shows it beside what
    is computed today.
    """

    KINDS = (("print", "print"), ("wiring", "issue for wiring"), ("signed", "signed"))

    link = models.ForeignKey(JobMotor, on_delete=models.PROTECT, related_name="issues")
    n = models.PositiveIntegerField()
    kind = models.CharField(max_length=8, choices=KINDS)
    schema = models.PositiveSmallIntegerField()
    inputs = models.JSONField()
    results = models.JSONField()
    fingerprint = models.CharField(max_length=64)
    core_version = models.CharField(max_length=20)
    table_digests = models.JSONField()
    pdf = models.BinaryField()
    sha256 = models.CharField(max_length=64)
    by = models.ForeignKey(User, on_delete=models.PROTECT)
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["link", "n"], name="issue_n_once")]

    def __str__(self) -> str:
        """Return which issue of which job."""
        return f"{self.link} issue {self.n}"

    def save(self, *args: Any, **more: Any) -> None:
        """Write it once.

        Raises
        ------
        IssuedError
            If it is there already.
        """
        if self.pk is not None:
            raise IssuedError(f"{self} is issued; it is never changed")
        super().save(*args, **more)

    def delete(self, *args: Any, **more: Any) -> tuple[int, dict[str, int]]:
        """Never."""
        del args, more
        raise IssuedError(f"{self} is issued; it is never removed")
