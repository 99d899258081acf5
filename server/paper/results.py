"""The results of a job as plain values: saved with an issue, compared with today's."""

from __future__ import annotations

from typing import Any

from evencoil.base import with_unit
from evencoil.circuit import netlist_fingerprint
from evencoil.job import Worked

__all__ = ["differences", "results_of"]


def results_of(worked: Worked) -> dict[str, Any]:
    """Return every figure with its evidence, and the whole netlist with its numbers."""
    starter = worked.starter
    steps = {step.id: step for step in worked.steps}
    return {
        "figures": [
            {
                "id": figure.id,
                "shown": steps[figure.step].shown if figure.step else "",
                "unit": steps[figure.step].unit if figure.step else "",
                "refusal": figure.refusal.detail if figure.refusal else "",
            }
            for figure in worked.figures
        ],
        "steps": [
            {
                "id": step.id,
                "kind": step.kind,
                "value": step.text,
                "shown": step.shown,
                "rule": None if step.rule is None else str(step.rule),
                "working": str(step.working),
                "uses": list(step.uses),
                "marks": [[mark.kind, mark.origin, str(mark.message)] for mark in step.marks],
            }
            for step in worked.steps
        ],
        "connection": None if worked.box.outcome is None else worked.box.outcome.name,
        "netlist": None if starter.circuit is None else netlist_fingerprint(starter.circuit),
        "devices": []
        if starter.circuit is None
        else [
            {
                "id": item.id,
                "tag": starter.circuit.tags.get(item.id, item.id),
                "type": item.type,
                "parameters": dict(item.parameters),
            }
            for item in starter.circuit.netlist.devices
        ],
        "wires": [
            {"id": row.id, "number": row.number, "start": row.start, "end": row.end}
            for row in starter.rows()
        ],
    }


def differences(issued: dict[str, Any], today: dict[str, Any]) -> list[tuple[str, str, str]]:
    """Return what differs: what it is, as issued, as computed today."""
    found = []

    def told(figure: dict[str, Any]) -> str:
        return with_unit(figure["shown"], figure["unit"]) if figure["shown"] else figure["refusal"]

    now = {figure["id"]: told(figure) for figure in today["figures"]}
    for figure in issued["figures"]:
        before, after = told(figure), now.get(figure["id"], "")
        if before != after:
            found.append((figure["id"], before, after))
    if issued["connection"] != today["connection"]:
        found.append(("connection", issued["connection"] or "", today["connection"] or ""))
    before_wires = {wire["id"]: wire for wire in issued["wires"]}
    after_wires = {wire["id"]: wire for wire in today["wires"]}

    def said(wire: dict[str, Any] | None) -> str:
        return "" if wire is None else f"{wire['number']}: {wire['start']} – {wire['end']}"

    for name in sorted({*before_wires, *after_wires}):
        one, other = said(before_wires.get(name)), said(after_wires.get(name))
        if one != other:
            found.append(("wire", one, other))
    return found
