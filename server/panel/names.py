"""What the ids of a panel are called on screen and paper."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from evencoil.acts import Log
from evencoil.base import Message, say
from panel.models import PanelRevision

__all__ = ["named", "open_said"]


def named(revision: PanelRevision, log: Log, kind: str, name: str) -> str:
    """Return what an id is called on the screen; the id itself where no drawing has it."""
    wanted = {"wire": "wires", "torque": "wires", "check": "wires", "row": "rows"}
    parts = [wanted[kind]] if kind in wanted else ["items", "stages", "devices", "sources"]
    for one in (one for part in parts for one in revision.body.get(part, [])):
        if one["id"] == name:
            return _of(one)
    return log.entry(name).kind.replace("_", " ") if log.knows(name) else name


def _of(told: Mapping[str, Any]) -> str:
    if "start_said" not in told:
        return str(told["said"])
    return f"{told.get('number', '')} {told['start_said']} – {told['end_said']}".strip()


def open_said(revision: PanelRevision, log: Log, code: str, people: Mapping[str, str]) -> str:
    """Return one thing that is not done, in words.

    Parameters
    ----------
    code : str
        ``kind:id`` as the core has it.
    people : mapping
        Names of those who were there.
    """
    kind, _, name = code.partition(":")
    what = named(revision, log, kind, name)
    if log.knows(name):
        entry = log.entry(name)
        by = people.get(entry.by, entry.by)
        more = {
            "live": f"{entry.body.get('value', '')} V",
            "lock": str(entry.body.get("lock_no", "")),
            "question": str(entry.body.get("question", "")),
            "stop": str(entry.body.get("text", "")),
        }.get(kind, what)
        what = f"{more}, {by}".strip(", ")
    return say(Message(f"panel.open.{kind}", {"what": what}))
