"""A job's entries as the core reads them: read from their rows, and added one by one."""

from __future__ import annotations

import hashlib
import json
from collections.abc import Mapping
from dataclasses import asdict
from decimal import Decimal
from typing import Any, cast

from answers.dead import known_dead_checks
from evencoil.acts import OPEN, Entry, Log, Role, figure, work_as_json, work_from_json
from evencoil.base import CoreError, Message, say
from evencoil.circuit import netlist_fingerprint
from evencoil.job import PanelAsks, PanelSwap, PanelWork, WhichWires, panel_work
from jobs.models import JobMotor
from jobs.store import kept, work_out_kept
from panel.models import Act, PanelRevision
from people.access import Caller
from people.models import Role as MemberRole
from people.models import Works
from plant.profile import rules_of

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

    Whatever changes it is a new revision: the netlist, what a reading should be, the plant rules,
    the ohms read on a coil, a rehearsal on record. While the circuit cannot be drawn, its last
    drawing stands: what shuts a door must always have a place to go.

    Raises
    ------
    CoreError
        If there is no circuit, or nothing to lock, and never was.
    """
    last = link.panel_revisions.order_by("-n").first()
    inputs = kept(link, caller.works)
    given = f"{inputs.inputs.model_dump_json()} {rules_of(caller.works)}"
    if last is not None and last.body["rows"] and "netlist" in last.body:
        # nothing that decides it has changed: no need to draw anything
        asks = _asks(caller.works, link, last.body["netlist"])
        if last.fingerprint == _fingerprint(last.body["netlist"], given, asks, has_rows=True):
            return last, ""
    worked = work_out_kept(inputs, caller.works)
    try:
        circuit = worked.starter.required()
        dead = known_dead_checks(circuit)
        netlist = netlist_fingerprint(circuit)
        # readings that were known once stay, though their calculation was thrown away since
        earlier = last.body if last is not None and last.body.get("netlist") == netlist else {}
        has_rows = dead is not None or bool(earlier.get("rows"))
        notice = "" if has_rows else say(Message("panel.no_dead_check"))
        asks = _asks(caller.works, link, netlist)
        fingerprint = _fingerprint(netlist, given, asks, has_rows=has_rows)
        is_known = last is not None and last.fingerprint == fingerprint
        found = None if is_known else panel_work(inputs.inputs, worked, dead, asks)
    except CoreError as refused:
        if last is None:
            raise
        return last, say(Message("panel.last_drawing", {"why": say(refused.message)}))
    if last is not None and found is None:
        return last, notice
    if found is None:
        raise RuntimeError("a new revision has something to do")
    body = {**_body(found), "netlist": netlist}
    if dead is None and has_rows:
        body = _with_rows(body, earlier)
    return _made(link, last, fingerprint, body), notice


def _fingerprint(netlist: str, given: str, asks: PanelAsks, *, has_rows: bool) -> str:
    return hashlib.sha256(f"{netlist} {given} {asks!r} {has_rows}".encode()).hexdigest()


def _with_rows(body: dict[str, Any], earlier: Mapping[str, Any]) -> dict[str, Any]:
    """Return what there is to do with the ohm readings of an earlier revision of its netlist."""
    work = body["work"]
    return {
        **body,
        "rows": earlier["rows"],
        # which grounds are asked by themselves follows from the rows
        "items": earlier["items"],
        "asides": earlier["asides"],
        "work": {
            **work,
            "rows": earlier["work"]["rows"],
            "items": earlier["work"]["items"],
        },
    }


def _asks(works: Works, link: JobMotor, netlist: str) -> PanelAsks:
    """Return what the plant asks for, and what is known of this job besides its drawing."""
    return PanelAsks(
        torque=cast("WhichWires", works.torque_record),
        second_person=cast("WhichWires", works.second_person),
        two_sign=works.two_sign,
        has_license=works.license_asked,
        is_rehearsed=link.rehearsals.filter(netlist=netlist).exists(),
        coil_ohms=_coil_ohms(link),
    )


def _coil_ohms(link: JobMotor) -> dict[str, Decimal]:
    """Return what was read last on each coil of a job; a corrected reading is none."""
    rows = link.acts.filter(kind="coil_ohms", answer__startswith="kept").order_by("n")
    taken_back = {
        str(body.get("of", ""))
        for body in link.acts.filter(kind="correction", answer="kept").values_list(
            "body", flat=True
        )
    }
    found: dict[str, Decimal] = {}
    for row in rows:
        value = figure(row.body["value"])
        if str(row.uid) not in taken_back and OPEN != value > 0:
            found[str(row.about["item"])] = value
    return found


def _body(found: PanelWork) -> dict[str, Any]:
    """Return what there is to do as it is stored."""
    return {
        "work": work_as_json(found.work),
        "sources": [{**asdict(one), "said": say(one.said)} for one in found.sources],
        "points": [asdict(one) for one in found.points],
        "wires": [asdict(one) for one in found.wires],
        "rows": [asdict(one) for one in found.rows],
        "items": [asdict(one) for one in found.items],
        "coils": [asdict(one) for one in found.coils],
        "stages": [asdict(one) for one in found.stages],
        "devices": [asdict(one) for one in found.devices],
        "starts": list(found.starts),
        "swap": _moved(found.swap),
        "roll": _moved(found.roll),
        "asides": list(found.asides),
        "line_side": list(found.line_side),
    }


def _moved(found: PanelSwap | None) -> dict[str, Any] | None:
    return None if found is None else {"said": found.said, "wires": list(found.wires)}


def _made(
    link: JobMotor, last: PanelRevision | None, fingerprint: str, body: dict[str, Any]
) -> PanelRevision:
    """Store what there is to do as the next revision, unless it is what stood there before."""
    plain = json.loads(json.dumps(body))
    if last is not None and last.body == plain:
        last.fingerprint = fingerprint
        last.save(update_fields=["fingerprint"])
        return last
    return PanelRevision.objects.create(
        link=link, n=1 if last is None else last.n + 1, fingerprint=fingerprint, body=plain
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
