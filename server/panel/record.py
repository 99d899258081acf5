"""The record of a panel as it is printed: locks, proof, wires, readings, stages, trips."""

from __future__ import annotations

import datetime as dt
import hashlib
import json
from collections.abc import Sequence
from typing import Any

from evencoil.acts import Log, landings, state_of
from panel.book import HEADING, reading_rows
from panel.models import Act, PanelRevision
from panel.names import named
from panel.staged import stages_out
from people.models import Works

__all__ = ["hash_of", "record_of"]

#: kinds that a record lists as they were told, besides readings
_TOLD = (
    "source_listed",
    "conductor_recorded",
    "different_here",
    "color_seen",
    "heater_seen",
    "setting_seen",
    "trip",
    "reset",
    "swap_done",
    "foreign_lock_removed",
    "note",
    "correction",
    "sent_back",
    "review_asked",
)


def hash_of(row: Act) -> str:
    """Return the digest of one entry as it was received."""
    told = json.dumps(
        [
            str(row.uid),
            row.kind,
            row.by.username,
            row.role,
            row.device,
            row.rev,
            row.about,
            row.body,
            row.based_on,
            row.answer,
        ],
        sort_keys=True,
    )
    return hashlib.sha256(told.encode()).hexdigest()


def record_of(
    works: Works, revisions: Sequence[PanelRevision], log: Log, rows: list[Act]
) -> dict[str, Any]:
    """Return everything that was done at a panel, ready to be printed."""
    revision = revisions[-1]
    state, view = state_of(log), log.now()
    names = {row.by.username: str(row.by) for row in rows}
    return {
        "state": state.state,
        "locks": [
            [
                names.get(one.by, one.by),
                str(one.body.get("lock_no", "")),
                str(one.about.get("isolator", "") or one.body.get("box", "")),
                state.locks[one.id],
            ]
            for one in view.of("lock_on")
        ],
        "wires": [
            [
                one["number"],
                f"{one['start_said']} – {one['end_said']}",
                ", ".join(
                    dict.fromkeys(names.get(by.by, by.by) for by in landings(view, one["id"])[0])
                ),
                _torque(log, one["id"]),
                state.wires.get(one["id"], "not_done").replace("_", " "),
            ]
            for one in revision.body["wires"]
        ],
        "readings": [
            _reading(works, line) for line in list(reading_rows(log, rows, revisions))[1:]
        ],
        "stages": stages_out(revision, log, state, names),
        "told": [
            [
                works.local(row.received_at),
                str(row.by),
                row.kind.replace("_", " "),
                _words(revision, log, row),
            ]
            for row in rows
            if row.kind in _TOLD and row.answer.startswith("kept")
        ],
        "entries": len(rows),
    }


def _reading(works: Works, line: list[str]) -> list[str]:
    """Return a reading short enough for a page: when, who, what, where, figure, asked, verdict."""
    told = dict(zip(HEADING, line, strict=True))
    figure = f"{told['value']} {told['unit']}".strip()
    if told["winding_temp_c"]:
        figure += f" at {told['winding_temp_c']} C"
    least, most = told["least"], told["most"]
    asked = f"{least} to {most}" if most else f"at least {least}" if least else ""
    verdict = {"yes": "as expected", "no": "WRONG", "": "not judged"}[told["as_expected"]]
    answer = told["answer"]
    return [
        works.local(dt.datetime.fromisoformat(told["received"])),
        told["by"],
        told["reading"].replace("_", " "),
        told["where"].replace("Ω", "ohm"),
        figure,
        asked,
        verdict if answer == "Kept." else answer,
    ]


def _torque(log: Log, wire: str) -> str:
    found = [one for one in log.now().of("torqued") if one.about["wire"] == wire]
    if not found:
        return ""
    body = found[-1].body
    return f"{body.get('value', '')} {body.get('unit', '')} {body.get('tool', '')}".strip()


def _words(revision: PanelRevision, log: Log, row: Act) -> str:
    """Return an entry's subject and values, one after another."""
    about = [
        named(revision, log, kind, str(one))
        for kind, one in row.about.items()
        if kind != "ends" and not isinstance(one, list)
    ]
    body = [
        f"{name.replace('_', ' ')}: {', '.join(map(str, one)) if isinstance(one, list) else one}"
        for name, one in row.body.items()
        if one not in ("", None, [])
    ]
    return "; ".join([*about, *body])
