"""The readings of a panel as a table: what was read where, by whom, and what was asked."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from typing import Any

from evencoil.acts import (
    RESULTS,
    FigureError,
    Log,
    View,
    Work,
    bounds_at,
    expected_in,
    figure,
    is_result_good,
    judged,
    place_of,
    work_from_json,
)
from panel.log import entry_of
from panel.models import Act, PanelRevision
from panel.schemas import said_answer
from panel.staged import said_result

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


def reading_rows(
    log: Log, rows: Sequence[Act], revisions: Sequence[PanelRevision]
) -> Iterator[list[str]]:
    """Go through every reading that was received, oldest first, refused ones too.

    Parameters
    ----------
    log : Log
        Everything that was kept.
    rows : sequence of Act
        Everything that was received.
    revisions : sequence of PanelRevision
        What there was to do, in order.
    """
    yield list(HEADING)
    if not revisions:
        return
    # each drawing is read once, however many readings were taken on it
    by_n = {one.n: (one.body, work_from_json(one.body["work"])) for one in revisions}
    view = log.now()
    for row in rows:
        if row.rev not in by_n:
            continue
        if row.kind in RESULTS:
            yield _result(view, row, *by_n[row.rev])
        elif row.kind in _ABOUT:
            yield _line(row, *by_n[row.rev])


def _line(row: Act, drawn: Mapping[str, Any], work: Work) -> list[str]:
    name = str(row.about.get(_ABOUT[row.kind], ""))
    expected = _expected(row, work, name)
    told = [name, _where(drawn, name) or name, str(row.body.get("value", ""))]
    return _cells(row, told, expected, _judged(row, expected))


def _result(view: View, row: Act, drawn: Mapping[str, Any], work: Work) -> list[str]:
    """Return a result of a stage, judged as the stage judges it, by what was expected then."""
    one = entry_of(row)
    opened = str(one.about.get("opened", ""))
    stage = str(view.log.entry(opened).about.get("stage", "")) if view.log.knows(opened) else ""
    place = place_of(one)
    name = f"{stage}.{one.kind}@{place}"
    told = [name, _result_said(drawn, stage, one.kind, place) or name, said_result(one)]
    try:
        verdict = is_result_good(view, one, work)
    except FigureError:
        verdict = None
    return _cells(row, told, expected_in(work, stage, one.kind) or {}, _YES_NO[verdict])


_YES_NO = {True: "yes", False: "no", None: ""}


def _cells(row: Act, told: Sequence[str], expected: Mapping[str, Any], verdict: str) -> list[str]:
    """Return a line: id, where and value as told, with who read it and between what."""
    try:
        least, most = bounds_at(expected, row.body) or ("", "")
    except FigureError:
        least, most = "", ""
    return [
        row.received_at.isoformat(timespec="seconds"),
        str(row.by),
        row.kind,
        *told,
        str(row.body.get("unit") or ("mm/s" if "mm_s" in row.body else "")),
        str(row.body.get("temp_c", "")),
        str(least or ""),
        str(most or ""),
        verdict,
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


def _judged(row: Act, expected: Mapping[str, Any]) -> str:
    """Return whether a reading is as expected; empty where nothing is known to compare it with."""
    try:
        told = judged(figure(row.body.get("value", "")), expected or None, row.body)
    except FigureError:
        return ""
    return _YES_NO[told]
