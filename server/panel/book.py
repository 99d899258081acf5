"""The readings of a panel as a table: what was read where, by whom, and what was asked."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from typing import Any

from evencoil.acts import (
    RESULTS,
    FigureError,
    Work,
    bounds_at,
    expected_in,
    figure,
    judged,
    work_from_json,
)
from panel.models import Act, PanelRevision
from panel.schemas import said_answer

__all__ = ["HEADING", "reading_rows"]

HEADING = (
    "received",
    "by",
    "reading",
    "id",
    "where",
    "value",
    "unit",
    "winding_temp_c",
    "least",
    "most",
    "as_expected",
    "drawing",
    "answer",
)
_ABOUT = {
    "meter_live": "round",
    "dead_point": "point",
    "dead_reading": "row",
    "ground_continuity": "item",
    "insulation_reading": "group",
    "coil_ohms": "item",
}


def reading_rows(rows: Sequence[Act], revisions: Sequence[PanelRevision]) -> Iterator[list[str]]:
    """Go through every reading that was received, oldest first, refused ones too.

    Parameters
    ----------
    rows : sequence of Act
        Everything that was received.
    revisions : sequence of PanelRevision
        What there was to do, in order.
    """
    yield list(HEADING)
    # each drawing is read once, however many readings were taken on it
    by_n = {one.n: (one.body, work_from_json(one.body["work"])) for one in revisions}
    stages = {str(row.uid): str(row.about.get("stage", "")) for row in rows}
    for row in rows:
        if (row.kind in _ABOUT or row.kind in RESULTS) and row.rev in by_n:
            yield _line(row, *by_n[row.rev], stages.get(str(row.about.get("opened")), ""))


def _line(row: Act, drawn: Mapping[str, Any], work: Work, stage: str) -> list[str]:
    if row.kind in RESULTS:
        place = str(row.about.get("at") or row.about.get("line") or row.about.get("joint") or "")
        name, where = f"{stage}.{row.kind}@{place}", _result_said(drawn, stage, row.kind, place)
        expected = expected_in(work, stage, row.kind) or {}
    else:
        name = str(row.about.get(_ABOUT[row.kind], ""))
        where, expected = _where(drawn, name), _expected(row, work, name)
    try:
        least, most = bounds_at(expected, row.body) or ("", "")
    except FigureError:
        least, most = "", ""
    return [
        row.received_at.isoformat(timespec="seconds"),
        str(row.by),
        row.kind,
        name,
        where or name,
        _value(row),
        str(row.body.get("unit") or ("mm/s" if "mm_s" in row.body else "")),
        str(row.body.get("temp_c", "")),
        str(least or ""),
        str(most or ""),
        _judged(row, expected),
        str(row.rev),
        said_answer(row.answer, row.body),
    ]


def _expected(row: Act, work: Work, name: str) -> Mapping[str, Any]:
    """Return the bounds of a reading in the drawing it was made on; empty for none."""
    if row.kind == "meter_live":
        return {"min": row.body.get("min"), "max": row.body.get("max")}
    if row.kind == "dead_point":
        # a source found at the panel has its points in no drawing, and the same limit
        return {"min": "0", "max": work.rules.dead_limit_v}
    if row.kind == "dead_reading":
        known = work.rows.get(name)
        return {} if known is None else {"min": known.least, "max": known.most}
    return work.expect.get(name, {})


def _where(body: Mapping[str, Any], name: str) -> str:
    """Return a point, a row or an item as it is said; empty where no drawing has it."""
    for one in body["points"]:
        if one["id"] == name:
            return f"{one['one']} – {one['other']}"
    for one in body["rows"]:
        if one["id"] == name:
            return f"{one['start_said']} – {one['end_said']}"
    return next((str(one["said"]) for one in body["items"] if one["id"] == name), "")


def _result_said(drawn: Mapping[str, Any], stage: str, kind: str, place: str) -> str:
    """Return a result of a stage as it is said; empty where no drawing has it."""
    for one in drawn.get("stages", []):
        if one["id"] == stage:
            for result in one["results"]:
                if result["kind"] == kind and result["at"] == place:
                    return f"{one['said']}: {result['said']}"
    return ""


def _value(row: Act) -> str:
    """Return what was read, or which of two it was."""
    body = row.body
    for name in ("value", "mm_s", "order"):
        if body.get(name):
            return str(body[name])
    if "turn" in body:
        return f"{body['turn']} (wanted: {body.get('wanted', '')})"
    return "" if "ok" not in body else "as it must be" if body["ok"] else "not as it must be"


def _judged(row: Act, expected: Mapping[str, Any]) -> str:
    """Return whether a reading is as expected; empty where nothing is known to compare it with."""
    body = row.body
    if "ok" in body and (not body["ok"] or "mm_s" not in body):
        return "yes" if body["ok"] else "no"
    if "turn" in body:
        return "yes" if body["turn"] == body.get("wanted") else "no"
    try:
        told = judged(figure(body.get("value", body.get("mm_s", ""))), expected or None, row.body)
    except FigureError:
        return ""
    return "" if told is None else "yes" if told else "no"
