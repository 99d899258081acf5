"""Begin and stop an audit of a plant."""

from __future__ import annotations

from django.db.models import Max
from django.utils import timezone

from api.problems import ProblemError
from audits.models import Audit, AuditPart
from evencoil.audit import WhatIf
from jobs.lines import newest_links
from people.access import Caller
from people.actions import Action
from people.models import Role, Works
from plant.models import Motor

__all__ = ["PART", "BeginAudit", "StopAudit"]

#: jobs that a worker takes at once
PART = 20
#: audits of which jobs and lines are kept
_KEPT = 10


class BeginAudit(Action[Audit]):
    """Hold every motor's newest job against the rules."""

    name = "begin audit"
    least_role = Role.ELECTRICIAN

    def __init__(self, caller: Caller, what_if: WhatIf) -> None:
        super().__init__(caller)
        self.what_if = what_if

    @property
    def target(self) -> str:
        """Return which plant."""
        return self.caller.works.name

    def perform(self) -> Audit:
        """Divide the plant's motors into parts.

        Raises
        ------
        ProblemError
            409 if one is under way, 422 if there is no motor.
        """
        works = self.caller.works
        Works.objects.select_for_update().get(pk=works.pk)
        own = Audit.objects.filter(works=works)
        running = own.filter(state="running").first()
        if running is not None:
            raise ProblemError(
                409,
                code="audit_running",
                detail=f"Audit {running.n} is under way.",
                field="state",
                hint="Wait for it, or stop it.",
            )
        motors = Motor.objects.filter(works=works).order_by("machine__name", "tag")
        links = [link.pk for link in newest_links(list(motors.values_list("pk", flat=True)))]
        if not links:
            raise ProblemError(
                422,
                code="no_motors",
                detail="This plant has no motor yet.",
                field="motors",
                hint="Add a motor, or read a schedule.",
            )
        n = (own.aggregate(n=Max("n"))["n"] or 0) + 1
        is_plain = not self.what_if.is_asked
        before = own.filter(state="done", what_if={}, is_kept=True).first() if is_plain else None
        made = Audit.objects.create(
            works=works,
            n=n,
            by=self.caller.user,
            what_if={} if is_plain else self.what_if.model_dump(mode="json"),
            total=len(links),
            before=before,
        )
        AuditPart.objects.bulk_create(
            AuditPart(audit=made, links=links[start : start + PART])
            for start in range(0, len(links), PART)
        )
        self._forget(n)
        return made

    def _forget(self, n: int) -> None:
        """Let go of what old audits found; that they were made stays."""
        old = Audit.objects.filter(works=self.caller.works, n__lte=n - _KEPT, is_kept=True)
        for audit in old:
            audit.jobs.all().delete()
            audit.parts.all().delete()
        old.update(is_kept=False)


class StopAudit(Action[Audit]):
    """Stop an audit: what was found stays."""

    name = "stop audit"
    least_role = Role.ELECTRICIAN

    def __init__(self, caller: Caller, audit: Audit) -> None:
        super().__init__(caller)
        self.audit = audit

    @property
    def target(self) -> str:
        """Return which audit."""
        return f"audit {self.audit.n}"

    def perform(self) -> Audit:
        """Mark it; workers look before every part.

        Raises
        ------
        ProblemError
            409 if it is not under way.
        """
        row = Audit.objects.select_for_update().get(pk=self.audit.pk)
        if row.state != "running":
            raise ProblemError(
                409,
                code="audit_state",
                detail=f"This audit is {row.state}.",
                field="state",
                hint="Begin another one.",
            )
        row.state, row.ended_at = "cancelled", timezone.now()
        row.save(update_fields=["state", "ended_at"])
        return row
