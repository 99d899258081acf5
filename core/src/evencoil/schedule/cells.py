"""A table of motors as it comes from a plant: bytes to head and lines, with what was guessed.

A workbook is read by `workbook`; what follows is of files of text.

Encodings: UTF-8 and UTF-16 by their marks, UTF-8 without one, else Windows-1252, marked as a
guess. Delimiter: the one that makes the most lines alike. Nothing of a cell is calculated: a
formula is text.

Units: sizes [byte].
Source: RFC 4180 for quoting; bounds are ours.
"""

from __future__ import annotations

import csv
import io
from collections import Counter
from collections.abc import Iterable, Iterator
from dataclasses import dataclass

from evencoil.base import FileFormatError, Message
from evencoil.schedule.workbook import is_workbook, workbook_rows

__all__ = ["MOST_BYTES", "MOST_COLUMNS", "MOST_LINES", "Line", "Sheet", "read_sheet"]

MOST_BYTES = 32 * 1024 * 1024
MOST_LINES = 50_000
MOST_COLUMNS = 200
MOST_CELL = 500
_DELIMITERS = ",;\t|"
_SAMPLE_LINES = 40
_MARKS = (
    (b"\xef\xbb\xbf", "utf-8-sig"),
    (b"\xff\xfe", "utf-16"),
    (b"\xfe\xff", "utf-16"),
)


@dataclass(frozen=True, slots=True)
class Line:
    """A line of a table: its number in the file, and its cells."""

    number: int
    cells: tuple[str, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Sheet:
    """A table as it was read.

    Attributes
    ----------
    heads : tuple of str
        The first line that has anything.
    lines : tuple of Line
        Those after it that have anything; each as wide as the head.
    encoding, delimiter : str
        As they were found.
    is_guess : bool
        The encoding has no mark and is no UTF-8: letters beyond ASCII may be others.
    name : str
        Name of the sheet in its workbook; empty for a file of text, which alone has an encoding
        and a delimiter.
    """

    heads: tuple[str, ...]
    lines: tuple[Line, ...]
    encoding: str
    delimiter: str
    is_guess: bool
    name: str = ""


def _refused(name: str, field: str = "file", **params: str) -> FileFormatError:
    return FileFormatError(
        Message(f"schedule.{name}", params), field=field, hint=Message(f"schedule.{name}.hint")
    )


def _text(data: bytes) -> tuple[str, str, bool]:
    """Return the text, its encoding, and whether that is a guess."""
    for mark, encoding in _MARKS:
        if data.startswith(mark):
            try:
                return data.decode(encoding), encoding, False
            except UnicodeDecodeError as wrong:
                raise _refused("bytes", at=str(wrong.start), encoding=encoding) from wrong
    try:
        return data.decode("utf-8"), "utf-8", False
    except UnicodeDecodeError:
        pass
    try:
        return data.decode("cp1252"), "windows-1252", True
    except UnicodeDecodeError as wrong:
        raise _refused("bytes", at=str(wrong.start), encoding="windows-1252") from wrong


def _delimiter(text: str) -> str:
    """Return the delimiter under which most lines of the beginning are equally wide."""
    first = text.split("\n", 1)[0].strip().lower()
    if first.startswith("sep=") and len(first) == len("sep=") + 1:
        return first[-1]
    sample = "\n".join(text.splitlines()[:_SAMPLE_LINES])
    best, found = (0, 0), ","
    for one in _DELIMITERS:
        widths = Counter(len(row) for row in csv.reader(io.StringIO(sample), delimiter=one) if row)
        width, count = max(widths.items(), key=lambda pair: (pair[0] > 1, pair[1]), default=(0, 0))
        if width > 1 and (count, width) > best:
            best, found = (count, width), one
    return found


def _rows(text: str, delimiter: str) -> Iterator[tuple[int, list[str]]]:
    reader = csv.reader(io.StringIO(text, newline=""), delimiter=delimiter, strict=True)
    at = 1
    try:
        for row in reader:
            yield at, [cell.strip() for cell in row]
            # a quoted cell may hold line ends: the next row begins after them
            at = reader.line_num + 1
    except csv.Error as wrong:
        raise _refused("quote", line=str(at), reason=str(wrong)[:80]) from wrong


def read_sheet(data: bytes) -> Sheet:
    """Return a table with its head.

    Parameters
    ----------
    data : bytes
        The file.

    Raises
    ------
    FileFormatError
        If it is too large, too wide, no text and no workbook, has an open quote, or nothing but
        a head.
    """
    if len(data) > MOST_BYTES:
        raise _refused("large", size=str(len(data)), most=str(MOST_BYTES))
    if is_workbook(data):
        name, rows = workbook_rows(data, MOST_COLUMNS, MOST_LINES + 2)
        heads, lines = _table(rows)
        return Sheet(heads=heads, lines=lines, encoding="", delimiter="", is_guess=False, name=name)
    text, encoding, is_guess = _text(data)
    if "\x00" in text:
        raise _refused("no_text")
    delimiter = _delimiter(text)
    heads, lines = _table(_rows(text, delimiter))
    return Sheet(
        heads=heads, lines=lines, encoding=encoding, delimiter=delimiter, is_guess=is_guess
    )


def _table(rows: Iterable[tuple[int, list[str]]]) -> tuple[tuple[str, ...], tuple[Line, ...]]:
    """Return head and lines of rows with their numbers in the file."""
    heads: tuple[str, ...] = ()
    lines: list[Line] = []
    for number, row in rows:
        if not any(row) or (number == 1 and row[0].lower().startswith("sep=")):
            continue
        if len(row) > MOST_COLUMNS:
            raise _refused("wide", line=str(number), count=str(len(row)), most=str(MOST_COLUMNS))
        if not heads:
            heads = tuple(cell[:MOST_CELL] for cell in row)
            continue
        if len(lines) >= MOST_LINES:
            raise _refused("long", most=str(MOST_LINES))
        cells = [cell[:MOST_CELL] for cell in row[: len(heads)]]
        lines.append(Line(number, (*cells, *([""] * (len(heads) - len(cells))))))
    if not heads or not lines:
        raise _refused("empty")
    return heads, tuple(lines)
