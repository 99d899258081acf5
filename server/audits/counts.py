"""What an audit of a plant counts: jobs by state, topics, machines, panels, unknown facts."""

from __future__ import annotations

from collections import Counter

from audits.found import BODY, UNREAD
from audits.models import Audit
from evencoil.audit import Place, Tally

__all__ = ["left_of", "tally_of"]


def tally_of(audit: Audit) -> Tally:
    """Return the counts of the jobs that were audited so far.

    Parameters
    ----------
    audit : Audit
        Its jobs are read, so that no count comes from another source than the list.
    """
    tally = Tally()
    rows = audit.jobs.order_by("pk").values_list("link", "tag", "machine", "panel", "state", "body")
    for link, tag, machine, panel, state, body in rows.iterator(chunk_size=500):
        if state == UNREAD:
            tally.unread += 1
            continue
        given = {key: value for key, value in body.items() if key != "left"}
        place = Place(job=str(link), tag=tag, machine=machine, panel=panel)
        tally.add(place, BODY.validate_python({**given, "lines": ()}))
    return tally


def left_of(audit: Audit) -> Counter[str]:
    """Return of how many jobs something could not be supposed, by what it was.

    Parameters
    ----------
    audit : Audit
        One that supposes something.
    """
    found: Counter[str] = Counter()
    for left in audit.jobs.values_list("body__left", flat=True):
        found.update(left or ())
    return found
