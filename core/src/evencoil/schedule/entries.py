"""Lines of a schedule as motors: what each job is told, or which cells are wrong and why.

A line is good or bad as a whole: a motor with half its nameplate would be sized by what is left.
A decimal comma, a unit in the cell and "230/460" are read; nothing is filled in. Doubts of the
nameplate (amps that do not fit the power) travel with a good line.

Units: in the names.
Source: the reader of nameplates; the tables of supplies and of the catalogue.
"""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from decimal import Decimal
from functools import lru_cache

from pydantic import TypeAdapter, ValidationError

from evencoil.base import CoreError, Message, MotorTag, clean, exact
from evencoil.job import JobInputs
from evencoil.plate import read, read_supply
from evencoil.schedule.cells import Line, Sheet, read_sheet
from evencoil.schedule.columns import Mapped, map_columns
from evencoil.starters import catalogue

__all__ = ["BadCell", "Entry", "Schedule", "Table", "open_table", "read_schedule"]

_TAG: TypeAdapter[str] = TypeAdapter(MotorTag)
_FIGURE = re.compile(r"^(\d{1,3}(?:[ ,.]?\d{3})*|\d+)?(?:([.,])(\d+))?$")
#: figures of the plate in the order they are stamped: field, unit written after it, what may
#: stand in the cell after the figure, and the bounds within which it is believed
_PLATE: tuple[tuple[str, str, str, tuple[float, float]], ...] = (
    ("power_hp", "HP", r"hp", (0.05, 10_000)),
    ("power_kw", "KW", r"kw", (0.03, 8_000)),
    ("volts", "V", r"v(?:olts?)?", (12, 15_000)),
    ("amps", "A", r"a(?:mps?)?", (0.1, 5_000)),
    ("speed", "RPM", r"rpm|r/min", (50, 20_000)),
    ("frequency", "HZ", r"hz", (16, 400)),
    ("phases", "PH", r"ph(?:ase)?", (1, 3)),
    ("service_factor", "SF", "", (1, 2)),
    ("leads", "LEADS", r"leads?", (2, 18)),
)
_FAULT_UNIT = re.compile(r"\s*(ka|a)(?:mps?)?\.?\s*$", re.IGNORECASE)
#: columns of a fault current, and how many amps one of their figures is; 0 where nobody says
_FAULT_TIMES = {"fault_ka": 1000, "fault_a": 1, "fault": 0}
#: fault currents that are believed [A]
_FAULT_A = (Decimal(100), Decimal(300_000))
_MANY = {"volts", "amps", "speed", "power_hp", "power_kw"}
_RANGES, _RANGE = {"volts", "amps"}, re.compile(r"\s*[-\u2013]\s*")
_BEFORE = {"service_factor": "SF"}
_LETTERS = {"code_letter": ("CODE", "A-HJ-NPR-V"), "design": ("DES", "A-E")}
#: horsepower alone is written so: ``7 1/2``; two voltages are no fraction
_FRACTION = re.compile(r"^(?:(\d+)[ -])?([1-9]\d?)/(2|3|4|6|8|16|20)$")


@dataclass(frozen=True, slots=True, kw_only=True)
class BadCell:
    """A cell that cannot be taken: line and field, what stands there, why, what to do."""

    line: int
    field: str
    value: str
    reason: Message
    hint: Message


@dataclass(frozen=True, slots=True, kw_only=True)
class Entry:
    """A motor of a schedule.

    Attributes
    ----------
    line : int
        In the file.
    tag, name, machine, panel : str
        As written; ``tag`` is the key.
    inputs : JobInputs
        Nameplate, supply and starter as far as they are told.
    doubts : tuple of Message
        What does not fit on the nameplate, to be looked at.
    """

    line: int
    tag: str
    name: str
    machine: str
    panel: str
    inputs: JobInputs
    doubts: tuple[Message, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Schedule:
    """A schedule read: the motors of its good lines, and every bad cell of the others."""

    entries: tuple[Entry, ...]
    bad: tuple[BadCell, ...]

    @property
    def bad_lines(self) -> tuple[int, ...]:
        """Return the lines that were not taken, in their order."""
        return tuple(sorted({one.line for one in self.bad}))


class _BadCellError(Exception):
    def __init__(self, field: str, value: str, name: str, **params: str) -> None:
        super().__init__(name)
        self.field, self.value = field, value
        self.reason = Message(f"schedule.cell.{name}", {"value": value[:60], **params})
        self.hint = Message(f"schedule.cell.{name}.hint", params)


def _figure(text: str) -> str | None:
    """Return a figure with a point, from one with point or comma; None if it is none.

    Parameters
    ----------
    text : str
        ``1,5``, ``1.5``, ``1 770``, ``1,770``: a single comma or point with three digits after it
        parts thousands where a whole figure of at most three digits stands before it.
    """
    if not _FIGURE.match(text) or not text[:1].isdigit():
        return None
    if re.fullmatch(r"\d{1,3}(?:[ ,]\d{3})+", text):
        return re.sub(r"[ ,]", "", text)
    return text.replace(" ", "").replace(",", ".") if text.count(",") < 2 else None


def _fraction(text: str) -> str | None:
    """Return horsepower written with a fraction as a figure; None if it is none."""
    found = _FRACTION.match(text)
    if found is None:
        return None
    whole, top, bottom = found.groups()
    return f"{int(whole or 0) + int(top) / int(bottom):g}" if int(top) < int(bottom) else None


def _figures(field: str, text: str, unit: str, bounds: tuple[float, float]) -> str:
    """Return the figures of a cell as they are stamped, apart by a slash."""
    if not text:
        return ""
    bare = re.sub(rf"\s*(?:{unit})\.?\s*$", "", text, flags=re.IGNORECASE) if unit else text
    whole = _fraction(bare) if field == "power_hp" else None
    parts = [whole] if whole else re.split(r"\s*/\s*", bare)
    if len(parts) > (4 if field in _MANY else 1):
        raise _BadCellError(field, text, "several")
    found = []
    for part in parts:
        # 208-230 volts, 42-38 amps
        ends = _RANGE.split(part.strip()) if field in _RANGES else [part.strip()]
        if len(ends) > 2:
            raise _BadCellError(field, text, "figure")
        found.append("-".join(_bounded(field, text, end, bounds) for end in ends))
    return "/".join(found)


def _bounded(field: str, text: str, part: str, bounds: tuple[float, float]) -> str:
    """Return one figure of a cell, if it can be believed."""
    value = _figure(part)
    if value is None:
        raise _BadCellError(field, text, "figure")
    if not bounds[0] <= float(value) <= bounds[1]:
        low, high = (f"{one:g}" for one in bounds)
        raise _BadCellError(field, text, "bounds", low=low, high=high)
    return value


def _fault_a(field: str, text: str) -> Decimal:
    """Return a fault current in A; without a unit it could be a thousand times as much."""
    unit = _FAULT_UNIT.search(text)
    times = _FAULT_TIMES[field] if unit is None else _FAULT_TIMES[f"fault_{unit[1][:2].lower()}"]
    if not times:
        raise _BadCellError(field, text, "no_fault_unit")
    amps = Decimal(_figures(field, _FAULT_UNIT.sub("", text), "", (0.01, 1e6))) * times
    if not _FAULT_A[0] <= amps <= _FAULT_A[1]:
        low, high = (str(one) for one in _FAULT_A)
        raise _BadCellError(field, text, "fault_bounds", low=low, high=high)
    return amps


@lru_cache(maxsize=4096)
def _doubts(plate: str) -> tuple[Message, ...]:
    """Return what does not fit on a nameplate; many motors of a plant have the same one."""
    return tuple(one.message for one in read(plate).findings if one.level in {"doubt", "refusal"})


def _is_tag(text: str) -> bool:
    """Tell whether a text can be a motor's tag, as everywhere else."""
    try:
        _TAG.validate_python(text)
    except ValidationError:
        return False
    return True


class _Reader:
    def __init__(self, line: Line, mapped: Mapped) -> None:
        self.line = line
        self.place_of: Mapping[str, int] = mapped.place_of
        self.bad: list[BadCell] = []

    def cell(self, field: str) -> str:
        place = self.place_of.get(field)
        return "" if place is None else " ".join(self.line.cells[place].split())

    def wrong(self, one: _BadCellError) -> None:
        self.bad.append(
            BadCell(
                line=self.line.number,
                field=one.field,
                value=one.value,
                reason=one.reason,
                hint=one.hint,
            )
        )

    def power(self) -> dict[str, str]:
        """Return power by unit: of its own columns, or of one column with the unit in the cell."""
        found = {field: self.cell(field) for field in ("power_hp", "power_kw")}
        plain = self.cell("power")
        if plain and not any(found.values()):
            if re.search(r"kw", plain, re.IGNORECASE):
                found["power_kw"] = plain
            elif re.search(r"hp", plain, re.IGNORECASE):
                found["power_hp"] = plain
            else:
                self.wrong(_BadCellError("power", plain, "no_unit"))
        return found

    def plate(self) -> str:
        """Return the nameplate as it would be stamped."""
        cells = {field: self.cell(field) for field, *_ in _PLATE} | self.power()
        pieces = []
        for field, stamped, unit, bounds in _PLATE:
            try:
                value = _figures(field, cells[field], unit, bounds)
            except _BadCellError as one:
                self.wrong(one)
                continue
            if value:
                before = _BEFORE.get(field)
                pieces.append(f"{before} {value}" if before else f"{value} {stamped}")
        for field, (stamped, letters) in _LETTERS.items():
            text = self.cell(field).upper()
            if text and not re.fullmatch(f"[{letters}]", text):
                self.wrong(_BadCellError(field, text, "letter"))
            elif text:
                pieces.append(f"{stamped} {text}")
        return ", ".join(pieces)

    def supply(self) -> str:
        text = self.cell("supply")
        if not text:
            return ""
        try:
            read_supply(text)
        except CoreError:
            self.wrong(_BadCellError("supply", text, "supply"))
        return text

    def fault_a(self) -> str | None:
        """Return the available fault current in A, of the first column that tells it."""
        for field in _FAULT_TIMES:
            text = self.cell(field)
            if text:
                try:
                    return exact(_fault_a(field, text))
                except _BadCellError as one:
                    self.wrong(one)
                    return None
        return None

    def starter(self) -> str:
        text = self.cell("starter")
        code = text.split(" ")[0].upper()
        if text and code not in catalogue():
            self.wrong(_BadCellError("starter", text, "starter"))
        return code

    def words(self, field: str, most: int) -> str:
        """Return a cell of words as every other text of the project is let in."""
        text = self.cell(field)
        try:
            return clean(text)[:most]
        except ValueError:
            self.wrong(_BadCellError(field, text, "sign"))
            return ""

    def tag(self, seen: dict[str, int]) -> str:
        tag = unicodedata.normalize("NFC", self.cell("tag"))
        if not tag:
            self.wrong(_BadCellError("tag", tag, "no_tag"))
        elif not _is_tag(tag):
            self.wrong(_BadCellError("tag", tag, "tag"))
        elif tag.casefold() in seen:
            self.wrong(_BadCellError("tag", tag, "doubled", line=str(seen[tag.casefold()])))
        else:
            seen[tag.casefold()] = self.line.number
        return tag

    def entry(self, seen: dict[str, int]) -> Entry | None:
        tag, plate = self.tag(seen), self.plate()
        supply, fault_a, starter = self.supply(), self.fault_a(), self.starter()
        name, machine = self.words("name", 120), self.words("machine", 60)
        panel = self.words("panel", 60)
        if not self.bad and not plate:
            self.wrong(_BadCellError("power_hp", "", "no_plate"))
        if self.bad:
            return None
        return Entry(
            line=self.line.number,
            tag=tag,
            name=name,
            machine=machine,
            panel=panel,
            inputs=JobInputs.model_validate(
                {
                    "plate": {"text": plate},
                    "supply": {"text": supply, "fault_current_a": fault_a},
                    "starter": {"standard_circuit": starter},
                }
            ),
            doubts=_doubts(plate),
        )


def _read(sheet: Sheet, mapped: Mapped, bad: list[BadCell]) -> Iterator[Entry]:
    seen: dict[str, int] = {}
    for line in sheet.lines:
        reader = _Reader(line, mapped)
        entry = reader.entry(seen)
        bad += reader.bad
        if entry is not None:
            yield entry


def read_schedule(sheet: Sheet, mapped: Mapped) -> Schedule:
    """Return the motors of a sheet, and its bad cells.

    Parameters
    ----------
    sheet : Sheet
        As it was read.
    mapped : Mapped
        Which column means which field.
    """
    bad: list[BadCell] = []
    entries = tuple(_read(sheet, mapped, bad))
    return Schedule(entries=entries, bad=tuple(bad))


@dataclass(frozen=True, slots=True)
class Table:
    """A file read whole: its lines, what its columns mean, and the motors in it."""

    sheet: Sheet
    mapped: Mapped
    schedule: Schedule


def open_table(data: bytes, told: Mapping[str, str] | None = None) -> Table:
    """Return a file as a table of motors.

    Parameters
    ----------
    data : bytes
        The file.
    told : mapping, optional
        Field to the head that means it, as a person says.

    Raises
    ------
    CoreError
        If the file is no table, or a column is told that it has not.
    """
    sheet = read_sheet(data)
    mapped = map_columns(sheet.heads, told)
    return Table(sheet, mapped, read_schedule(sheet, mapped))
