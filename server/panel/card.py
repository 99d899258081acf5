"""The card of a motor: what its code opens, read only."""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest

from api.problems import ProblemError
from api.schemas import Schema
from evencoil.acts import state_of
from jobs.models import JobMotor
from jobs.store import kept, work_out_kept
from panel.log import log_of
from panel.tags import figures_on_door
from people.access import caller_in, not_found
from people.models import Works

__all__ = ["CardOut", "card_of"]


class CardLineOut(Schema):
    """One figure of a card."""

    label: str
    said: str


class CardOut(Schema):
    """A motor at a glance.

    A guest sees the tag, whether a lock is on, and how it is wired; nothing of people.
    """

    works: str
    tag: str
    name: str
    is_guest: bool
    is_locked: bool
    state: str
    wired: str
    plate: str
    lines: list[CardLineOut]
    locks: list[str]
    as_left: str
    number: int


def card_of(request: HttpRequest, works: str, tag: str) -> CardOut:
    """Return a motor's card, for a person of the plant or for a guest.

    Raises
    ------
    ProblemError
        404 where there is no such motor for whoever asks.
    """
    place, is_guest = _place(request, works)
    link = (
        JobMotor.objects.select_related("motor", "job__works")
        .filter(motor__works=place, motor__tag=tag)
        .order_by("-number")
        .first()
    )
    if link is None:
        raise not_found("motor")
    log, rows = log_of(link)
    state = state_of(log) if log.works else None
    on = [row for row in rows if row.kind == "lock_on" and row.answer.startswith("kept")]
    locked = (
        []
        if state is None
        else [row for row in on if state.locks.get(str(row.uid), "off") != "off"]
    )
    signed = [row for row in rows if row.kind == "signed" and row.answer == "kept"]
    now = kept(link, place)
    worked = work_out_kept(now, place)
    entry = worked.starter.entry
    common: dict[str, Any] = {
        "works": place.name,
        "tag": link.motor.tag,
        "is_guest": is_guest,
        "is_locked": bool(locked),
        "wired": "" if entry is None else f"{entry.title} ({entry.id})",
        "number": link.number,
    }
    if is_guest:
        return CardOut(**common, name="", state="", plate="", lines=[], locks=[], as_left="")
    return CardOut(
        **common,
        name=link.motor.name,
        state="" if state is None else state.state,
        plate=now.inputs.plate.text,
        lines=[CardLineOut(label=label, said=said) for label, said in figures_on_door(worked)],
        locks=[f"{row.by} {row.body.get('lock_no', '')}".strip() for row in locked],
        as_left=f"{signed[-1].by}, {place.local(signed[-1].received_at)}" if signed else "",
    )


def _place(request: HttpRequest, works: str) -> tuple[Works, bool]:
    """Return the plant, and whether whoever asks is a guest there."""
    try:
        return caller_in(request, works).works, False
    except ProblemError:
        open_ = Works.objects.filter(slug=works, guest_card=True, erased_at=None).first()
        if open_ is None:
            raise
        return open_, True
