"""A job's entries as the core reads them: read from their rows, and added one by one."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import asdict
from typing import Any, cast

from answers.dead import known_dead_checks
from evencoil.acts import Entry, Log, Role, work_as_json, work_from_json
from evencoil.base import CoreError, Message, say
from evencoil.circuit import netlist_fingerprint
from evencoil.job import PanelWork, panel_work
from jobs.models import JobMotor
from jobs.store import kept, work_out_kept
from panel.models import Act, PanelRevision
from people.access import Caller
from people.models import Role as MemberRole

__all__ = ["entry_of", "log_of", "newest_revision", "role_in_acts"]

#: what each role of a plant is at the panel: an admin opens nothing there
_ROLES: Mapping[str, Role] = {
    MemberRole.APPRENTICE: "apprentice",
    MemberRole.ELECTRICIAN: "electrician",
    MemberRole.REVIEWER: "reviewer",
}


def role_in_acts(role: str) -> Role:
    """Return a plant's role as the entries know it."""
    return _ROLES.get(role, "other")


def newest_revision(caller: Caller, link: JobMotor) -> tuple[PanelRevision, str]:
    """Return what there is to do today, and what has to be known of it.

    Another netlist is a new revision, and so is the same one when its ohm readings are known.
    While the circuit cannot be drawn, its last drawing stands: what shuts a door must always
    have a place to go.

    Raises
    ------
    CoreError
        If there is no circuit, or nothing to lock, and never was.
    """
    last = link.panel_revisions.order_by("-n").first()
    inputs = kept(link, caller.works)
    worked = work_out_kept(inputs, caller.works)
    try:
        circuit = worked.starter.required()
        dead = known_dead_checks(circuit)
        notice = "" if dead is not None else say(Message("panel.no_dead_check"))
        fingerprint = netlist_fingerprint(circuit) + ("" if dead is None else "+rows")
        is_known = last is not None and last.fingerprint == fingerprint
        # readings that were known once stay, though their calculation was thrown away since
        if last is not None and dead is None and last.fingerprint == f"{fingerprint}+rows":
            return last, ""
        found = None if is_known else panel_work(inputs.inputs, worked, dead)
    except CoreError as refused:
        if last is None:
            raise
        return last, say(Message("panel.last_drawing", {"why": say(refused.message)}))
    if last is not None and found is None:
        return last, notice
    if found is None:
        raise RuntimeError("a new revision has something to do")
    return _made(link, last, fingerprint, found), notice


def _made(
    link: JobMotor, last: PanelRevision | None, fingerprint: str, found: PanelWork
) -> PanelRevision:
    """Store what there is to do as the next revision."""
    return PanelRevision.objects.create(
        link=link,
        n=1 if last is None else last.n + 1,
        fingerprint=fingerprint,
        body={
            "work": work_as_json(found.work),
            "sources": [{**asdict(one), "said": say(one.said)} for one in found.sources],
            "points": [asdict(one) for one in found.points],
            "wires": [asdict(one) for one in found.wires],
            "rows": [asdict(one) for one in found.rows],
            "items": [asdict(one) for one in found.items],
            "asides": list(found.asides),
            "line_side": list(found.line_side),
        },
    )


def entry_of(row: Act) -> Entry:
    """Return a row as the core knows it."""
    return Entry(
        id=str(row.uid),
        kind=row.kind,
        by=row.by.username,
        role=cast("Role", row.role),
        device=row.device,
        rev=row.rev,
        about=cast("dict[str, Any]", row.about),
        body=cast("dict[str, Any]", row.body),
        based_on=tuple(row.based_on),
        at=row.observed_at,
        received_at=row.received_at.isoformat() if row.received_at else "",
        clock_off_s=row.clock_off_s,
        is_online=row.is_online,
    )


def log_of(link: JobMotor) -> tuple[Log, list[Act]]:
    """Return everything that was received for a job, and the rows it came from."""
    works = [work_from_json(one.body["work"]) for one in link.panel_revisions.order_by("n")]
    log = Log(works)
    rows = list(link.acts.select_related("by").order_by("n"))
    for row in rows:
        log.add(
            entry_of(row),
            counts=row.answer.startswith("kept"),
            is_superseded=row.answer == "superseded",
        )
    return log, rows
