"""Nameplates stamped as a sheet of columns: one column, or one row, for each rating.

``50 Hz`` and ``60 Hz`` above rows of volts, amps and speed are one winding at two frequencies;
a row of labels above rows of figures is the same turned round. The cells are taken out of the
text, each with its field and its column.
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass

from evencoil.plate.lexer import cut
from evencoil.plate.vocabulary import FIELDS, Field

__all__ = ["Cell", "cells_in"]

_SPLIT = re.compile(r"[^\s|]+(?: [^\s|]+)*")
_HERTZ = re.compile(r"\d+(?:[.,]\d+)?\s*HZ")
_FIGURE = re.compile(r"[ΔDY\d]")
_LABELS = {" ".join(words): field for field in FIELDS for words in field.words}
_HZ = next(field for field in FIELDS if field.name == "frequency_hz")


@dataclass(frozen=True, slots=True)
class Cell:
    """One cell: where it stands, its field, what it says, and which rating it belongs to."""

    start: int
    end: int
    field: Field
    text: str
    column: int


@dataclass(frozen=True, slots=True)
class _Part:
    start: int
    text: str

    @property
    def end(self) -> int:
        return self.start + len(self.text)


def _field_of(label: str) -> Field | None:
    words = [item.text for item in cut(f" {label}") if item.kind == "word"]
    return _LABELS.get(" ".join(words))


def _lines(text: str) -> Iterator[list[_Part]]:
    start = 0
    for line in text.split("\n"):
        yield [_Part(start + hit.start(), hit[0]) for hit in _SPLIT.finditer(line)]
        start += len(line) + 1


def _is_figure(part: _Part) -> bool:
    return bool(re.match(r"(?:[ΔDY]{1,2}\s*)?\d", part.text)) and _field_of(part.text) is None


def _by_column(lines: list[list[_Part]], at: int) -> list[Cell]:
    """Read rows below ``50 Hz   60 Hz``: a label, then one figure for each column."""
    head = lines[at]
    count = len(head)
    cells = [
        Cell(part.start, part.end, _HZ, re.sub(r"\s*HZ", "", part.text), column)
        for column, part in enumerate(head)
    ]
    for line in lines[at + 1 :]:
        field = _field_of(line[0].text) if line else None
        if field is None or len(line) != count + 1 or not all(map(_is_figure, line[1:])):
            break
        for column, part in enumerate(line[1:]):
            start = line[0].start if column == 0 else part.start
            cells.append(Cell(start, part.end, field, part.text, column))
    return cells if len(cells) > count else []


def _by_label(lines: list[list[_Part]], at: int) -> list[Cell]:
    """Read rows that each begin with a label, frequency among them, a figure for each rating."""
    count = len(lines[at]) - 1
    cells: list[Cell] = []
    for line in lines[at:]:
        field = _field_of(line[0].text) if line else None
        if field is None or len(line) != count + 1 or not all(map(_is_figure, line[1:])):
            break
        cells += [
            Cell(line[0].start if column == 0 else part.start, part.end, field, part.text, column)
            for column, part in enumerate(line[1:])
        ]
    hertz = {cell.text for cell in cells if cell.field is _HZ}
    return cells if len(hertz) > 1 and len(cells) >= 3 * count else []


def _by_row(lines: list[list[_Part]], at: int) -> list[Cell]:
    """Read rows below a line of labels: each row is a rating."""
    fields = [_field_of(part.text) for part in lines[at]]
    cells: list[Cell] = []
    for row, line in enumerate(lines[at + 1 :]):
        if len(line) != len(fields) or not all(map(_is_figure, line)):
            break
        cells += [
            Cell(part.start, part.end, field, part.text, row)
            for field, part in zip(fields, line, strict=True)
            if field is not None
        ]
    return cells


def cells_in(text: str) -> tuple[list[Cell], tuple[int, int]]:
    """Return the cells of a column sheet in a nameplate's text; none where there is no sheet.

    Parameters
    ----------
    text : str
        The nameplate in capitals, length as typed.

    Returns
    -------
    tuple
        The cells, and the stretch of the text that the sheet covers.
    """
    lines = list(_lines(text))
    for at, line in enumerate(lines):
        if len(line) >= 2 and all(_HERTZ.fullmatch(part.text) for part in line):
            found = _by_column(lines, at)
            if found:
                return found, (line[0].start, found[-1].end)
        if len(line) >= 3 and _field_of(line[0].text) is not None and _is_figure(line[1]):
            found = _by_label(lines, at)
            if found:
                return found, (line[0].start, found[-1].end)
        if (
            len(line) >= 3
            and all(_field_of(part.text) is not None for part in line)
            and not any(_FIGURE.match(part.text) and part.text[0].isdigit() for part in line)
        ):
            found = _by_row(lines, at)
            if found:
                return found, (line[0].start, found[-1].end)
    return [], (0, 0)
