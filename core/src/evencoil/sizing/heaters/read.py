"""Reading a heater table from CSV: which column is what, good rows kept, bad ones told.

Units: current [A].
Rules: a heater's code means nothing without the relay it sits in, the starter's size,
how many elements there are and the ambient basis, so a row needs all of them.
"""

from __future__ import annotations

import csv
import io
from collections.abc import Mapping
from dataclasses import dataclass
from decimal import Decimal

from evencoil.base import CoreError, Message, OutOfRangeError, number, plain

__all__ = ["FIELDS", "BadLine", "HeaterRow", "HeaterTable", "headers_of", "read_heaters"]

FIELDS = (
    "relay_type",
    "starter_size",
    "elements",
    "basis",
    "code",
    "low_a",
    "high_a",
)
_MOST_LINES = 5000
_MOST_BYTES = 1_000_000


@dataclass(frozen=True, slots=True, kw_only=True)
class HeaterRow:
    """One heater of one relay: the motor currents it is for [A].

    ``elements`` is 2 or 3; ``basis`` says which air the relay stands in beside the motor.
    """

    relay_type: str
    starter_size: str
    elements: int
    basis: str
    code: str
    low_a: Decimal
    high_a: Decimal


@dataclass(frozen=True, slots=True, kw_only=True)
class HeaterTable:
    """A table as printed in one door: its name, where it is from, its own factor.

    ``factor`` is what the table multiplies the nameplate current with for a service
    factor below 1.15; 1 if the table says nothing.
    """

    name: str
    source: str
    factor: Decimal
    rows: tuple[HeaterRow, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class BadLine:
    """A line that was not taken, and why."""

    line: int
    text: str
    message: Message


def _lines(text: str) -> list[list[str]]:
    if len(text) > _MOST_BYTES:
        raise OutOfRangeError(
            Message("heaters.too_long", {"most": str(_MOST_BYTES)}),
            field="heaters.text",
            hint=Message("heaters.too_long.hint"),
        )
    sample = text[:2000]
    sign = max(",;\t", key=sample.count)
    try:
        lines = list(csv.reader(io.StringIO(text), delimiter=sign))
    except csv.Error as wrong:
        raise OutOfRangeError(
            Message("heaters.no_csv", {"reason": str(wrong)}),
            field="heaters.text",
            hint=Message("heaters.no_csv.hint"),
        ) from wrong
    if len(lines) > _MOST_LINES + 1:
        raise OutOfRangeError(
            Message("heaters.too_many", {"lines": str(len(lines) - 1), "most": str(_MOST_LINES)}),
            field="heaters.text",
            hint=Message("heaters.too_many.hint"),
        )
    return lines


def headers_of(text: str) -> tuple[str, ...]:
    """Return the headings of a CSV text.

    Raises
    ------
    OutOfRangeError
        If it is no CSV or has no line.
    """
    lines = _lines(text)
    if not lines or not any(cell.strip() for cell in lines[0]):
        raise OutOfRangeError(
            Message("heaters.no_csv", {"reason": "—"}),
            field="heaters.text",
            hint=Message("heaters.no_csv.hint"),
        )
    return tuple(cell.strip() for cell in lines[0])


def read_heaters(
    text: str,
    columns: Mapping[str, str],
    *,
    name: str,
    source: str,
    factor: Decimal = Decimal(1),
    fixed: Mapping[str, str] | None = None,
) -> tuple[HeaterTable, tuple[BadLine, ...]]:
    """Read a heater table.

    Parameters
    ----------
    text : str
        CSV with headings in its first line.
    columns : mapping
        Heading of each field of `FIELDS`.
    name : str
        What the plant calls the table.
    source : str
        From which door or sheet it was copied.
    factor : Decimal
        The table's own factor for a service factor below 1.15.
    fixed : mapping, optional
        Fields that are the same in every row and stand in no column.

    Returns
    -------
    tuple of HeaterTable and tuple of BadLine
        The good rows, and every line that was not taken.

    Raises
    ------
    OutOfRangeError
        If it is no CSV, a field has neither column nor fixed value, the factor
        is not above 0 and at most 1.5, or no row is good.
    """
    headings = headers_of(text)
    same = dict(fixed or {})
    for field in FIELDS:
        if same.get(field, "").strip():
            continue
        if columns.get(field) not in headings:
            raise OutOfRangeError(
                Message("heaters.no_column", {"field": str(Message(f"heater.{field}"))}),
                field=f"heaters.columns.{field}",
                hint=Message("heaters.no_column.hint", {"headings": ", ".join(headings)[:200]}),
            )
    if not 0 < factor <= Decimal("1.5"):
        raise OutOfRangeError(
            Message("heaters.factor", {"factor": plain(factor)}),
            field="heaters.factor",
            hint=Message("heaters.factor.hint"),
        )
    good: list[HeaterRow] = []
    seen: set[tuple[str, ...]] = set()
    bad: list[BadLine] = []
    for line, cells in enumerate(_lines(text)[1:], start=2):
        if not any(cell.strip() for cell in cells):
            continue
        by_heading = dict(zip(headings, cells, strict=False))
        said = {
            field: (same.get(field) or by_heading.get(columns.get(field, ""), "")).strip()
            for field in FIELDS
        }
        try:
            good.append(_row(said, seen))
        except CoreError as wrong:
            shown = ", ".join(cells)[:80]
            bad.append(BadLine(line=line, text=shown, message=wrong.message))
    if not good:
        first = str(bad[0].message) if bad else "—"
        raise OutOfRangeError(
            Message("heaters.no_row", {"reason": first}),
            field="heaters.text",
            hint=Message("heaters.no_row.hint"),
        )
    return HeaterTable(name=name, source=source, factor=factor, rows=tuple(good)), tuple(bad)


def _wrong(which: str, **params: str) -> OutOfRangeError:
    return OutOfRangeError(
        Message(f"heaters.{which}", params),
        field="heaters.text",
        hint=Message("heaters.no_row.hint"),
    )


def _row(said: Mapping[str, str], seen: set[tuple[str, ...]]) -> HeaterRow:
    for field in ("relay_type", "code"):
        if not said[field] or len(said[field]) > 40:
            raise _wrong("empty", field=str(Message(f"heater.{field}")))
    if said["elements"] not in {"2", "3"}:
        raise _wrong("elements", text=said["elements"][:12] or "—")
    low = number(said["low_a"], field="heaters.text")
    high = number(said["high_a"], field="heaters.text")
    if not 0 < low <= high <= 2000:
        raise _wrong("band", low=plain(low), high=plain(high))
    row = HeaterRow(
        relay_type=said["relay_type"],
        starter_size=said["starter_size"],
        elements=int(said["elements"]),
        basis=said["basis"],
        code=said["code"],
        low_a=low,
        high_a=high,
    )
    key = tuple(
        said[field] for field in ("relay_type", "starter_size", "elements", "basis", "code")
    )
    if key in seen:
        raise _wrong("twice", code=row.code)
    seen.add(key)
    return row
