"""Parts of an audit on workers: taken, done once, taken up again where a worker was lost.

A part belongs to whoever took it last. It is kept only by the one to whom it belongs, in one
transaction, so that nothing is counted twice. Each worker does one part and queues again: another
plant's audit, or a print, is never behind the whole of this one.
"""

from __future__ import annotations

import uuid
from datetime import timedelta

from django.db import transaction
from django.db.models import Q
from django.utils import timezone
from django_tasks import task

from audits.found import Found, audited, lines_before
from audits.models import Audit, AuditedJob, AuditedLine, AuditPart
from evencoil.audit import WhatIf, line_rank
from evencoil.base import speaking
from jobs.models import JobMotor
from plant.profile import profile_of

__all__ = ["AT_ONCE", "LOST_S", "begin_parts", "do_part"]

#: so many parts of one audit are under way at once, at most
AT_ONCE = 4
#: a part that is not done after so long belongs to nobody [s]
LOST_S = 90
#: how often parts that others have are looked after
AGAIN = timedelta(seconds=30)


def begin_parts(audit: Audit) -> None:
    """Ask workers for an audit.

    Parameters
    ----------
    audit : Audit
        Under way, with its parts.
    """
    for _ in range(min(AT_ONCE, audit.parts.filter(is_done=False).count())):
        do_part.enqueue(audit.pk)


@task(priority=-20)
def do_part(audit_pk: int) -> int:
    """Do the next part of an audit, and queue for another.

    Parameters
    ----------
    audit_pk : int
        Of the audit; one that is gone or was stopped is left alone.

    Returns
    -------
    int
        How many jobs were audited now.
    """
    token = uuid.uuid4().hex
    part = _taken(audit_pk, token)
    done = 0 if part is None else _done(part, token)
    if AuditPart.objects.filter(audit=audit_pk, audit__state="running", is_done=False).exists():
        # what is left is another worker's, who may be lost: it is looked after
        after = None if part is not None else timezone.now() + AGAIN
        do_part.using(run_after=after).enqueue(audit_pk)
    return done


def _taken(audit_pk: int, token: str) -> AuditPart | None:
    """Return a part that belongs to this worker from now on."""
    lost = timezone.now() - timedelta(seconds=LOST_S)
    free = Q(taken_at__isnull=True) | Q(taken_at__lt=lost)
    with transaction.atomic():
        part = (
            AuditPart.objects.select_for_update(skip_locked=True, of=("self",))
            .select_related("audit", "audit__works")
            .filter(free, audit=audit_pk, audit__state="running", is_done=False)
            .order_by("pk")
            .first()
        )
        if part is not None:
            part.taken_by, part.taken_at = token, timezone.now()
            part.save(update_fields=["taken_by", "taken_at"])
    return part


def _done(part: AuditPart, token: str) -> int:
    """Do a part and keep it, unless another worker has it by now; return how many jobs."""
    audit = part.audit
    what_if = WhatIf.model_validate(audit.what_if)
    links = list(
        JobMotor.objects.select_related("job", "motor", "motor__machine").filter(pk__in=part.links)
    )
    profile = profile_of(audit.works)
    before = lines_before(audit, links)
    with speaking(profile.names):
        found = [audited(link, audit.works, profile, what_if, before) for link in links]
    with transaction.atomic():
        own = AuditPart.objects.select_for_update().filter(pk=part.pk, taken_by=token)
        if not own.filter(is_done=False).update(is_done=True):
            return 0
        for link, one in zip(links, found, strict=True):
            _keep(audit, link, one)
        _end(audit)
    return len(found)


def _keep(audit: Audit, link: JobMotor, found: Found) -> None:
    job = AuditedJob.objects.create(
        audit=audit,
        link=link,
        tag=link.motor.tag,
        machine=link.motor.machine.name,
        panel=link.motor.panel,
        state=found.state,
        body=found.body,
    )
    AuditedLine.objects.bulk_create(
        AuditedLine(
            audit=audit,
            job=job,
            rank=line_rank(row.line),
            topic=row.line.topic,
            key=row.line.key,
            state=row.state,
            was=row.was,
            said=row.line.said,
            do=row.line.do,
            guesses=list(row.line.guesses),
            rule=row.line.rule,
            step=row.line.step,
        )
        for row in found.rows
    )


def _end(audit: Audit) -> None:
    """Mark the audit as done with its last part."""
    row = Audit.objects.select_for_update().get(pk=audit.pk)
    if row.state == "running" and not row.parts.filter(is_done=False).exists():
        row.state, row.ended_at = "done", timezone.now()
        row.save(update_fields=["state", "ended_at"])
