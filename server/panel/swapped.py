"""Two conductors changed places at the panel: the drawing follows the hand."""

from __future__ import annotations

import datetime as dt

from django.utils import timezone

from evencoil.job import panel_swap
from evencoil.starters import EditInput
from jobs.models import JobMotor
from jobs.store import add_input, kept, work_out_kept
from panel.rehearsed import carried_over
from people.access import Caller

__all__ = ["redraw_swapped"]

_WHY = "The shaft turned the other way: two lines were exchanged at the panel."


def redraw_swapped(caller: Caller, link: JobMotor, uid: str) -> None:
    """Exchange the plant's two lines in the drawing; what cannot be drawn stays as it is."""
    now = kept(link, caller.works)
    worked = work_out_kept(now, caller.works)
    found = panel_swap(worked, f"swap.{uid[:13]}")
    if found is None:
        return
    at = timezone.now().astimezone(dt.UTC).isoformat(timespec="seconds")
    edits = tuple(
        EditInput(
            id=one.id,
            kind=one.kind,
            wire=one.wire,
            start=one.start,
            end=one.end,
            by=str(caller.user),
            at=at,
            why=_WHY,
        )
        for one in found.edits
    )
    starter = now.inputs.starter
    changed = starter.model_copy(update={"edits": (*starter.edits, *edits)})
    add_input(link, "starter", changed, now.versions["starter"].n, caller)
    carried_over(caller, link)
