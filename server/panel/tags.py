"""What goes on the door, on the leads, on the lock and on the wires: labels as PDF and CSV."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any, Literal

import segno
from django.template.loader import render_to_string
from django.utils.safestring import SafeString, mark_safe

from answers.pdf import printed
from evencoil.base import Message, say
from evencoil.job import Worked
from jobs.models import JobMotor
from jobs.store import kept, work_out_kept
from panel.log import newest_revision
from people.access import Caller

__all__ = ["WhichTag", "card_code", "ferrule_rows", "figures_on_door", "printed_tags"]

WhichTag = Literal["lock", "leads", "door", "wires"]
#: label sizes, as they are sold in rolls [mm]
_SIZES: dict[WhichTag, tuple[int, int]] = {
    "lock": (80, 140),
    "leads": (50, 25),
    "door": (100, 70),
    "wires": (38, 9),
}


def card_code(address: str) -> SafeString:
    """Return the code of a motor's card as a drawing; it holds an address and nothing else."""
    drawn = segno.make(address, error="m").svg_inline(border=2, omitsize=True)
    return mark_safe(drawn)  # noqa: S308 - drawn by the library from an address of our own


def ferrule_rows(worked: Worked) -> Iterator[list[str]]:
    """Go through the ferrule of every wire end, a line each."""
    yield ["wire", "end", "ferrule", "color", "size"]
    for row in worked.starter.rows():
        if row.is_maker:
            continue
        for end, ferrule in zip((row.start, row.end), row.ferrules, strict=True):
            yield [row.number, end, ferrule, row.color, row.size]


def printed_tags(caller: Caller, link: JobMotor, which: WhichTag, address: str) -> bytes:
    """Return labels as PDF, one label a page.

    Raises
    ------
    CoreError
        If there is no circuit yet.
    """
    worked = work_out_kept(kept(link, caller.works), caller.works)
    labels = {
        "lock": _lock,
        "leads": _leads,
        "door": _door,
        "wires": lambda *_: [{"big": row[2]} for row in list(ferrule_rows(worked))[1:]],
    }[which](caller, link, worked)
    width, height = _SIZES[which]
    html = render_to_string(
        "panel/tags.html",
        {
            "which": which,
            "labels": labels,
            "works": caller.works.name,
            "tag": link.motor.tag,
            "code": card_code(address) if which in {"door", "lock"} else "",
        },
    )
    style = render_to_string("panel/tags.css", {"width": width, "height": height})
    return printed(html, style)


_Labels = list[dict[str, Any]]


def _lock(caller: Caller, link: JobMotor, worked: Worked) -> _Labels:
    del worked
    revision, _ = newest_revision(caller, link)
    return [
        {
            "big": one["isolator_said"],
            "lines": [one["said"], *(f"Stays live: {live}" for live in one["stays_live"][:6])],
            "who": str(caller.user),
        }
        for one in revision.body["sources"]
    ]


def _leads(caller: Caller, link: JobMotor, worked: Worked) -> _Labels:
    del caller, link
    names = worked.box.names
    found = [
        {"big": names.get(lead, lead), "lines": [joint.line or "joined, no line"]}
        for joint in worked.box.intended
        for lead in joint.leads
    ]
    return found or [{"big": mark, "lines": []} for mark in names.values()]


#: what an electrician looks for on a door
_ON_DOOR = (
    "protection_device_a",
    "overload_setting_a",
    "conductor_size",
    "disconnect_switch_a",
)


def figures_on_door(worked: Worked) -> list[tuple[str, str]]:
    """Return fuse, overload, wire and switch as they are said, as far as they are calculated."""
    steps = {step.id: step for step in worked.steps}
    return [(say(Message(f"label.{name}")), steps[name].said) for name in _ON_DOOR if name in steps]


def _door(caller: Caller, link: JobMotor, worked: Worked) -> _Labels:
    """Return the sticker of the door: nameplate, fuse, overload, wire; signed or not."""
    signed = link.acts.filter(kind="signed", answer="kept").order_by("-n").first()
    lines = [f"{label}: {figure}" for label, figure in figures_on_door(worked)]
    state = (
        f"As signed by {signed.by}, {caller.works.local(signed.received_at)}"
        if signed is not None
        else "Calculated, not signed"
    )
    plate = kept(link, caller.works).inputs.plate.text
    return [
        {
            "big": link.motor.tag,
            "lines": [link.motor.name, plate, *lines, f"Job {link.number}", state],
        }
    ]
