"""What a hand changed or found at the panel: the drawing follows."""

from __future__ import annotations

import datetime as dt

from django.utils import timezone

from evencoil.circuit import Edit
from evencoil.job import panel_roll, panel_swap
from evencoil.starters import EditInput
from jobs.models import JobMotor
from jobs.store import Kept, add_input, kept, work_out_kept
from panel.models import Act
from panel.rehearsed import carried_over
from people.access import Caller

__all__ = ["redraw_found", "redraw_swapped"]

_FOUND = "Found so at the panel."
_WHY = "The shaft turned the other way: two lines were exchanged at the panel."
_ROLLED = "The leads were rolled at the panel: the turn stays, each line feeds the next lead."


def redraw_swapped(caller: Caller, link: JobMotor, row: Act) -> None:
    """Exchange two lines, or roll all three; what cannot be drawn stays as it is."""
    now, is_roll = kept(link, caller.works), bool(row.body.get("roll"))
    move, name = (panel_roll, "roll") if is_roll else (panel_swap, "swap")
    found = move(work_out_kept(now, caller.works), f"{name}.{str(row.uid)[:13]}")
    if found is not None:
        _redraw(caller, link, now, found.edits, _ROLLED if is_roll else _WHY)


def redraw_found(caller: Caller, link: JobMotor, row: Act) -> None:
    """Move the end of a wire in the drawing to where it was found, if it still has that end."""
    wire, body = str(row.about.get("wire", "")), row.body
    start, end = str(body.get("from_end", "")), str(body.get("to_end", ""))
    if not (start and end):
        return
    now = kept(link, caller.works)
    circuit = work_out_kept(now, caller.works).starter.circuit
    if circuit is None:
        return
    terminals = {f"{item.id}.{one}" for item in circuit.netlist.devices for one in item.terminals}
    known = any(one.id == wire and start in {one.start, one.end} for one in circuit.netlist.wires)
    if known and end in terminals:
        edit = Edit(
            id=f"found.{str(row.uid)[:13]}", kind="move_end", wire=wire, start=start, end=end
        )
        _redraw(caller, link, now, (edit,), _FOUND)


def _redraw(caller: Caller, link: JobMotor, now: Kept, edits: tuple[Edit, ...], why: str) -> None:
    at = timezone.now().astimezone(dt.UTC).isoformat(timespec="seconds")
    made = tuple(
        EditInput(
            id=one.id,
            kind=one.kind,
            wire=one.wire,
            start=one.start,
            end=one.end,
            by=str(caller.user),
            at=at,
            why=why,
        )
        for one in edits
    )
    starter = now.inputs.starter
    changed = starter.model_copy(update={"edits": (*starter.edits, *made)})
    add_input(link, "starter", changed, now.versions["starter"].n, caller)
    carried_over(caller, link)
