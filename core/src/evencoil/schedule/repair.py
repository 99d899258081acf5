"""The lines that were not taken, as a file to repair: the same columns, and why each was not.

What begins like a formula is written as text: no program that opens the file calculates it.

Source: judgment; a leading apostrophe is what spreadsheet programs take for text.
"""

from __future__ import annotations

import csv
import io
from collections import defaultdict
from collections.abc import Iterable, Sequence

from evencoil.base import Message, no_formula, say
from evencoil.schedule.cells import Sheet
from evencoil.schedule.entries import Schedule

__all__ = ["as_text", "repair_file", "table_csv"]


def as_text(cell: str) -> str:
    """Return a cell that no program takes for a formula; figures stay as they are.

    Parameters
    ----------
    cell : str
        As written.
    """
    try:
        float(cell.replace(",", "."))
    except ValueError:
        return no_formula(cell)
    return cell


def table_csv(heads: Sequence[str], rows: Iterable[Sequence[str]], delimiter: str = ",") -> str:
    """Return rows as CSV in which nothing is a formula.

    Parameters
    ----------
    heads : sequence of str
        Names of the columns.
    rows : iterable of sequence of str
        Each as wide as the head.
    delimiter : str
        What stands between two cells.
    """
    out = io.StringIO()
    writer = csv.writer(out, delimiter=delimiter, lineterminator="\r\n")
    for row in (heads, *rows):
        writer.writerow([as_text(cell) for cell in row])
    return out.getvalue()


def repair_file(sheet: Sheet, schedule: Schedule) -> str:
    """Return the bad lines with their reasons, to be repaired and read again.

    Parameters
    ----------
    sheet : Sheet
        As it was read.
    schedule : Schedule
        Of that sheet.
    """
    reasons: dict[int, list[str]] = defaultdict(list)
    for one in schedule.bad:
        reasons[one.line].append(f"{one.field}: {say(one.reason)} {say(one.hint)}".strip())
    heads = (*sheet.heads, say(Message("schedule.line")), say(Message("schedule.why")))
    rows = [
        (*line.cells, str(line.number), " | ".join(reasons[line.number]))
        for line in sheet.lines
        if line.number in reasons
    ]
    return table_csv(heads, rows, sheet.delimiter or ",")
