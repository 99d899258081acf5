"""Lines of an audit as a table: one row for each thing, the worst first.

Nothing in it is a formula to a spreadsheet.
"""

from __future__ import annotations

import csv
import io
from collections.abc import Iterable

from evencoil.audit.job_audit import AuditLine
from evencoil.audit.whole import Place
from evencoil.base import Message, no_formula, say

__all__ = ["HEADS", "audit_csv", "audit_row"]

#: columns of the table
HEADS = (
    "machine",
    "panel",
    "motor",
    "topic",
    "state",
    "what",
    "to do",
    "assumed",
    "section",
)


def audit_row(place: Place, line: AuditLine) -> tuple[str, ...]:
    """Return a line as the cells of its row, in the order of `HEADS`.

    Parameters
    ----------
    place : Place
        Where the motor is.
    line : AuditLine
        What is the matter.
    """
    return (
        place.machine,
        place.panel,
        place.tag,
        say(Message(f"audit.topic.{line.topic}")),
        say(Message(f"audit.state.{line.state}")),
        line.said,
        line.do,
        " ".join(line.guesses),
        line.rule,
    )


def audit_csv(rows: Iterable[tuple[Place, AuditLine]]) -> str:
    """Return lines as CSV.

    Parameters
    ----------
    rows : iterable of (Place, AuditLine)
        In the order to be written.
    """
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(HEADS)
    for place, line in rows:
        writer.writerow([no_formula(cell) for cell in audit_row(place, line)])
    return out.getvalue()
