"""Reading code tables and looking up their cells, with neighbors and doubts."""

from __future__ import annotations

import csv
import hashlib
import io
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from decimal import Decimal
from functools import cache
from importlib.resources import files
from importlib.resources.abc import Traversable

from evencoil.base import Cell, Mark, Message

__all__ = ["Found", "Table", "TableFileError", "digests", "parse", "parse_doubts", "table"]

_HEADER = ("title", "source", "units", "empty", "status")
_KEYS: Mapping[str, tuple[str, ...]] = {
    "240_4_d": ("size", "material"),
    "310_16": ("size", "material"),
    "310_15_b_1": ("ambient_c_min", "ambient_c_max"),
    "310_15_c_1": ("conductors_min", "conductors_max"),
    "430_12_b_small": ("hp_max",),
    "ch9_t4": ("conduit", "trade_size"),
    "ch9_t5": ("insulation", "size"),
    "ch9_t8": ("size", "strands"),
}


class TableFileError(Exception):
    """A table file that ships with the core is not fit for use: a bug."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Doubt:
    """One cell, or one row, that must be checked in the printed code."""

    table: str
    row_key: str
    column: str
    edition: str
    confidence_pct: int
    alternative: str
    why: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Found:
    """A cell that was looked up: its figure, its surroundings, its doubts."""

    value: Decimal
    cell: Cell
    marks: tuple[Mark, ...]


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Table:
    """A code table, as printed: text cells, empty where the code has no value."""

    name: str
    title: str
    source: str
    units: str
    status: str
    columns: tuple[str, ...]
    rows: tuple[tuple[str, ...], ...]
    doubts: tuple[Doubt, ...]
    sha256: str

    @cache  # noqa: B019 -- a table lives as long as the process
    def figures(self, column: str) -> tuple[Decimal, ...]:
        """Return a column whose every cell is a figure, row by row.

        Parameters
        ----------
        column : str
            Name of the column.
        """
        return tuple(Decimal(text) for text in self.column(column))

    @cache  # noqa: B019 -- a table lives as long as the process
    def column(self, name: str) -> tuple[str, ...]:
        """Return one column, from the first row to the last."""
        place = self.columns.index(name)
        return tuple(row[place] for row in self.rows)

    @cache  # noqa: B019 -- a table lives as long as the process
    def number(self, row: int, column: str) -> Decimal | None:
        """Return the figure in a cell, or None where the code gives none."""
        text = self.rows[row][self.columns.index(column)]
        return Decimal(text) if text else None

    @cache  # noqa: B019 -- a table lives as long as the process
    def find(self, row: int, column: str, *, edition: int) -> Found:
        """Return a cell with its neighbors and doubts.

        Parameters
        ----------
        row : int
            Place of the row, from 0.
        column : str
            Name of the column.
        edition : int
            The edition in use: some doubts hold for one edition only.

        Returns
        -------
        Found
            The figure with all that a reader needs to check it.

        Raises
        ------
        ValueError
            If the cell is empty: the caller decides what that means first.
        """
        value = self.number(row, column)
        if value is None:
            raise ValueError(f"{self.name}: row {row}, column {column} is empty")
        return Found(
            value=value, cell=self._cell(row, column), marks=self._marks(row, column, edition)
        )

    @cache  # noqa: B019 -- a table lives as long as the process
    def find_text(self, row: int, column: str, *, edition: int) -> Found:
        """Return a cell that holds a size and no figure; its ``value`` is its place."""
        return Found(
            value=Decimal(row),
            cell=self._cell(row, column),
            marks=self._marks(row, column, edition),
        )

    def _cell(self, row: int, column: str) -> Cell:
        above = max(row - 1, 0)
        return Cell(
            table=self.name,
            title=self.title,
            source=self.source,
            units=self.units,
            columns=self.columns,
            rows=self.rows[above : row + 2],
            hit_row=row - above,
            hit_column=self.columns.index(column),
        )

    def _marks(self, row: int, column: str, edition: int) -> tuple[Mark, ...]:
        keys = _KEYS.get(self.name, (self.columns[0],))
        row_key = " ".join(self.rows[row][self.columns.index(key)] for key in keys).strip()
        return tuple(
            Mark(
                kind="check_the_book",
                origin=f"{self.name}:{row_key}:{column}",
                message=Message(
                    "mark.check_the_book" if not doubt.alternative else "mark.check_the_book_other",
                    {"source": self.source, "why": doubt.why, "other": doubt.alternative},
                ),
            )
            for doubt in self.doubts
            if doubt.column == column
            and doubt.row_key in {row_key, self.rows[row][0]}
            and doubt.edition in {"", str(edition)}
        )


def parse(name: str, text: str, doubts: Sequence[Doubt]) -> Table:
    """Read one table file.

    Parameters
    ----------
    name : str
        File name without its ending, such as ``430_250_induction``.
    text : str
        The whole file.
    doubts : sequence of Doubt
        All doubts; those of this table are saved with it.

    Returns
    -------
    Table
        With every row as wide as the header row.

    Raises
    ------
    TableFileError
        If one of the five header lines is missing or empty, or a row is not as
        wide as the header row.
    """
    lines = text.splitlines()
    head: dict[str, str] = {}
    for want, line in zip(_HEADER, lines, strict=False):
        label, _, said = line.removeprefix("#").partition(":")
        if not line.startswith("#") or label.strip() != want or not said.strip():
            raise TableFileError(f"{name}: header line '# {want}: ...' is missing")
        head[want] = said.strip()
    if len(head) < len(_HEADER):
        raise TableFileError(f"{name}: header line '# {_HEADER[len(head)]}: ...' is missing")
    rows = [tuple(row) for row in csv.reader(io.StringIO("\n".join(lines[len(_HEADER) :])))]
    if len(rows) < 2 or any(len(row) != len(rows[0]) for row in rows):
        raise TableFileError(f"{name}: rows and header row differ in width")
    return Table(
        name=name,
        title=head["title"],
        source=head["source"],
        units=head["units"],
        status=head["status"],
        columns=rows[0],
        rows=tuple(rows[1:]),
        doubts=tuple(doubt for doubt in doubts if doubt.table == name),
        sha256=hashlib.sha256(text.encode()).hexdigest(),
    )


def parse_doubts(text: str) -> tuple[Doubt, ...]:
    """Read ``doubts.csv``.

    Raises
    ------
    TableFileError
        If it has no rows, or lacks one of its columns.
    """
    body = "\n".join(line for line in text.splitlines() if not line.startswith("#"))
    try:
        doubts = tuple(
            Doubt(
                table=row["file"],
                row_key=row["row_key"],
                column=row["column"],
                edition=row["edition"],
                confidence_pct=int(row["confidence_pct"]),
                alternative=row["alternative"],
                why=row["why"],
            )
            for row in csv.DictReader(io.StringIO(body))
        )
    except (KeyError, ValueError) as wrong:
        raise TableFileError(f"doubts: {wrong}") from wrong
    if not doubts:
        raise TableFileError("doubts: the list is empty")
    return doubts


def _folder() -> Traversable:
    return files("evencoil.codebook.tables").joinpath("data", "nec")


def _trade() -> Traversable:
    """Return the folder of tables that are no code tables."""
    return files("evencoil.codebook.tables").joinpath("data", "trade")


def _path(name: str) -> Traversable:
    code = _folder().joinpath(name)
    return code if code.is_file() else _trade().joinpath(name)


@cache
def _doubts() -> tuple[Doubt, ...]:
    listed = _folder().joinpath("doubts.csv")
    if not listed.is_file():
        raise TableFileError("doubts.csv is missing: no table is used without it")
    return parse_doubts(listed.read_text(encoding="utf-8"))


@cache
def table(name: str) -> Table:
    """Return a table that ships with the core, read once.

    Parameters
    ----------
    name : str
        File name without its ending, such as ``310_16``.

    Returns
    -------
    Table
        The same object at every call.

    Raises
    ------
    TableFileError
        If the file, its header or the list of doubts is missing.
    """
    path = _path(f"{name}.csv")
    if not path.is_file():
        raise TableFileError(f"{name}.csv is missing")
    return parse(name, path.read_text(encoding="utf-8"), _doubts())


@cache
def digests() -> Mapping[str, str]:
    """Return the SHA-256 of every table, for results that are kept."""
    names = sorted(
        entry.name
        for folder in (_folder(), _trade())
        for entry in folder.iterdir()
        if entry.name.endswith(".csv")
    )
    return {name: hashlib.sha256(_path(name).read_bytes()).hexdigest() for name in names}
