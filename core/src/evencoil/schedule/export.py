"""Motors as a table again: columns that reading knows, so that what goes out can come back.

A cell is what was read off the nameplate or entered; a figure that nobody entered is empty. What
a schedule has no column for stands in the nameplate's own text, which reading leaves out.

Units: in the heads.
"""

from __future__ import annotations

import io
from collections.abc import Collection, Iterable, Sequence
from decimal import Decimal

import openpyxl
from openpyxl.cell import WriteOnlyCell

from evencoil.base import exact
from evencoil.job import JobInputs
from evencoil.plate import read

__all__ = ["EXPORT_HEADS", "EXPORT_NUMBERS", "export_row", "table_workbook"]

EXPORT_HEADS = (
    *("Tag", "Description", "Machine", "Panel", "HP", "kW", "Volts", "Amps", "RPM", "Hz"),
    *("Phases", "SF", "Code", "Design", "Leads", "Supply", "Fault current (A)", "Starter"),
    *("Job", "Nameplate text"),
)
#: signs that the name of a sheet may not have
_NO_TITLE = "[]:*?/\\"
#: places of columns whose cells are numbers where they hold a single one
EXPORT_NUMBERS = frozenset({*range(4, 12), 14, 16, 18})


def _several(values: Iterable[object]) -> str:
    return "/".join(exact(one) if isinstance(one, Decimal) else str(one) for one in values)


def _one(value: Decimal | int | None) -> str:
    return "" if value is None else exact(value) if isinstance(value, Decimal) else str(value)


def export_row(
    *, tag: str, name: str, machine: str, panel: str, number: int, inputs: JobInputs
) -> tuple[str, ...]:
    """Return a motor as the cells of its row, in the order of `EXPORT_HEADS`.

    Parameters
    ----------
    tag : str
        Of the motor.
    name : str
        What it drives.
    machine : str
        Where it is.
    panel : str
        What feeds it; empty if nobody said.
    number : int
        Of its job.
    inputs : JobInputs
        What was entered for it.
    """
    plate, supply = read(inputs.plate.text).plate, inputs.supply
    return (
        tag,
        name,
        machine,
        panel,
        _several(plate.power_hp),
        _several(plate.power_kw) if not plate.power_hp else "",
        _several(plate.volts_v),
        _several(plate.amps_a),
        _several(plate.speed_rpm),
        _several(plate.frequency_hz[:1]),
        _one(plate.phases or None),
        _one(plate.service_factor),
        plate.code_letter or "",
        plate.design_letter or "",
        _one(plate.leads),
        supply.text,
        _one(supply.fault_current_a),
        inputs.starter.standard_circuit,
        str(number),
        inputs.plate.text,
    )


def table_workbook(
    title: str,
    heads: Sequence[str],
    rows: Iterable[Sequence[str]],
    numbers: Collection[int] = (),
) -> bytes:
    """Return rows as a workbook of one sheet; its first row stays in sight.

    Parameters
    ----------
    title : str
        Name of the sheet; signs that no sheet may have are left out.
    heads : sequence of str
        Names of the columns.
    rows : iterable of sequence of str
        Each as wide as the head. A text is text, whatever it begins with.
    numbers : collection of int
        Places of columns whose figures are written as numbers.
    """
    book = openpyxl.Workbook(write_only=True)
    sheet = book.create_sheet("".join(sign for sign in title if sign not in _NO_TITLE)[:31])
    sheet.freeze_panes = "A2"

    def cell(place: int, text: str) -> WriteOnlyCell:
        if place in numbers:
            try:
                return WriteOnlyCell(sheet, float(text) if "." in text else int(text))
            except ValueError:
                pass
        made = WriteOnlyCell(sheet, "".join(sign for sign in text if sign >= " "))
        # a text that begins like a formula is none
        made.data_type = "s"
        return made

    sheet.append([cell(-1, head) for head in heads])
    for row in rows:
        sheet.append([cell(place, text) for place, text in enumerate(row)])
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()
