"""Who has a lock on, anywhere in a plant: nobody leaves a plant with a lock on in their name."""

from __future__ import annotations

from dataclasses import dataclass

from django.db.models import QuerySet

from evencoil.acts import state_of
from jobs.models import JobMotor
from panel.log import log_of
from people.models import User, Works

__all__ = ["LockOn", "locks_on"]


@dataclass(frozen=True, slots=True)
class LockOn:
    """A lock that is on by the record."""

    motor_tag: str
    job_number: int
    lock_no: str
    by: str


def locks_on(works: Works, user: User | None = None) -> list[LockOn]:
    """Return the locks that are on or in doubt by the record.

    Parameters
    ----------
    works : Works
        The plant.
    user : User or None
        Whose; of everybody if None.

    Returns
    -------
    list of LockOn
        By motor; a lock that somebody else reported off is still its owner's.
    """
    links: QuerySet[JobMotor] = JobMotor.objects.filter(
        job__works=works, acts__kind="lock_on", acts__answer__startswith="kept"
    )
    if user is not None:
        links = links.filter(acts__kind="lock_on", acts__by=user)
    found = []
    for link in links.select_related("motor").distinct().order_by("motor__tag", "number"):
        log, rows = log_of(link)
        if not log.works:
            continue
        states = state_of(log).locks
        found += [
            LockOn(link.motor.tag, link.number, str(row.body.get("lock_no", "")), str(row.by))
            for row in rows
            if row.kind == "lock_on"
            and states.get(str(row.uid), "off") != "off"
            and (user is None or row.by_id == user.pk)
        ]
    return found
