"""The I/O list of a relay as a table: point, name, terminal, wire, device, text.

Source: trade practice.
"""

from __future__ import annotations

import csv
import io
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace

from evencoil.logic.meaning import Checked
from evencoil.logic.names import USUAL, Points, point_of
from evencoil.logic.refusal import LogicError
from evencoil.logic.tokens import name_key

__all__ = ["IO_HEADING", "IoLine", "io_list", "read_io_list"]

IO_HEADING = ("point", "name", "terminal", "wire", "device", "text")
_MOST_LINES = 400


@dataclass(frozen=True, slots=True, kw_only=True)
class IoLine:
    """One point: its name in the program, where it is wired, and what it is for."""

    point: str
    name: str = ""
    terminal: str = ""
    wire: str = ""
    device: str = ""
    text: str = ""

    def cells(self) -> list[str]:
        """Return it in the order of the heading."""
        return [getattr(self, name) for name in IO_HEADING]


def io_list(checked: Checked, wired: Sequence[IoLine]) -> tuple[IoLine, ...]:
    """Return the wired points with the names that a program gives them.

    Parameters
    ----------
    checked : Checked
        A program of which nothing is wrong.
    wired : sequence of IoLine
        Points with terminal, wire and device.
    """
    names = {
        name_key(symbol.slot): symbol.name
        for symbol in checked.symbols.values()
        if symbol.kind in {"input", "output"} and symbol.slot != symbol.name
    }
    return tuple(replace(one, name=names.get(name_key(one.point), one.name)) for one in wired)


def read_io_list(text: str, points: Points = USUAL) -> tuple[IoLine, ...]:
    """Return the lines of a table.

    Parameters
    ----------
    text : str
        With the heading; a column may be missing, none may be unknown.
    points : Points
        Of the relay it is for.

    Raises
    ------
    LogicError
        ``csv``, with the line; ``undeclared`` for a point that the relay has not; ``duplicate``.
    """
    rows = csv.DictReader(io.StringIO(text.removeprefix("\ufeff")), strict=True)
    try:
        found = list(_lines(rows, points))
    except csv.Error as broken:
        raise LogicError("csv", (rows.line_num or 1, 1), found=str(broken)) from None
    return tuple(found)


def _lines(rows: csv.DictReader[str], points: Points) -> Iterable[IoLine]:
    unknown = [name for name in rows.fieldnames or () if name not in IO_HEADING]
    if "point" not in (rows.fieldnames or ()) or unknown:
        found = unknown[0][:40] if unknown else "no column point"
        raise LogicError("csv", (1, 1), expected=", ".join(IO_HEADING), found=found)
    seen: set[str] = set()
    for row in rows:
        line = rows.line_num
        if None in row or line > _MOST_LINES:
            raise LogicError("csv", (line, 1), expected="six columns", found="more")
        known = point_of(str(row["point"] or "").strip(), points)
        if known is None:
            raise LogicError("undeclared", (line, 1), found=str(row["point"])[:40])
        if known.name in seen:
            raise LogicError("duplicate", (line, 1), found=known.name)
        seen.add(known.name)
        more = {name: str(row.get(name) or "").strip() for name in IO_HEADING if name != "point"}
        yield IoLine(point=known.name, **more)
