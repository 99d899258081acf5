"""Readings from a table, as another program wrote it: good lines in, bad lines listed."""

from __future__ import annotations

import csv
import io
import uuid
from typing import Any

from pydantic import Field

from api.schemas import Schema
from evencoil.base import HugeText, Text
from panel.models import PanelRevision

__all__ = ["BadReadingOut", "ReadingsIn", "entries_in"]

#: which column of an entry names what was read, and its unit
_KINDS = {
    "dead_reading": ("row", "ohm"),
    "ground_continuity": ("item", "ohm"),
    "coil_ohms": ("item", "ohm"),
}
_WANTED = ("reading", "id", "value")
MOST_LINES = 200


class ReadingsIn(Schema):
    """A table as text, and what it is called."""

    text: HugeText
    name: Text = ""


class BadReadingOut(Schema):
    """A line that was not taken: where, which field, why."""

    line: int = Field(ge=0)
    field: str
    reason: str


def entries_in(
    told: ReadingsIn, revision: PanelRevision, heads: list[str], device: str
) -> tuple[list[dict[str, Any]], list[BadReadingOut]]:
    """Return the entries of a table, one based on the other, and the lines that are none.

    Parameters
    ----------
    told : ReadingsIn
        With the columns of the table that goes out: reading, id, value, unit.
    heads : list of str
        What its maker has seen.
    """
    rows = csv.DictReader(io.StringIO(told.text.replace("\ufeff", "")))
    missing = [name for name in _WANTED if name not in (rows.fieldnames or ())]
    if missing:
        reason = f"There is no column {missing[0]}. Take the table that goes out as a pattern."
        return [], [BadReadingOut(line=1, field=missing[0], reason=reason)]
    known = {
        "row": {one["id"] for one in revision.body["rows"]},
        "item": {one["id"] for part in ("items", "coils") for one in revision.body.get(part, [])},
    }
    made: list[dict[str, Any]] = []
    bad: list[BadReadingOut] = []
    seen = list(heads)
    for line, row in enumerate(rows, start=2):
        wrong = _wrong(row, known)
        if len(made) >= MOST_LINES:
            wrong = (
                "",
                f"More than {MOST_LINES} readings at once: send the rest as another table.",
            )
        if wrong is not None:
            bad.append(BadReadingOut(line=line, field=wrong[0], reason=wrong[1]))
            continue
        about, unit = _KINDS[row["reading"]]
        uid = uuid.uuid4()
        made.append(
            {
                "uid": uid,
                "kind": row["reading"],
                "device": device,
                "rev": revision.n,
                "about": {about: row["id"]},
                "body": {"value": row["value"].strip(), "unit": unit, "from_file": told.name},
                "based_on": seen,
                "observed_at": (row.get("received") or "")[:40],
                "clock_off_s": 0.0,
            }
        )
        seen = [str(uid)]
    return made, bad


def _wrong(row: dict[str, Any], known: dict[str, set[str]]) -> tuple[str, str] | None:
    """Return which field of a line is wrong, and why; None where nothing is."""
    kind = row.get("reading") or ""
    if kind not in _KINDS:
        return (
            "reading",
            f"{kind[:40] or 'Nothing'} is not taken from a table: {', '.join(_KINDS)}.",
        )
    about, unit = _KINDS[kind]
    if row.get("id") not in known[about]:
        return "id", "This job has no such reading today."
    if not (row.get("value") or "").strip():
        return "value", "Nothing was read."
    if (row.get("unit") or unit) != unit:
        return "unit", f"The unit is {unit}."
    return None
