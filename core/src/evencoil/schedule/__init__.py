"""Schedules of a plant's motors: tables in, motors and bad cells out, a file to repair.

Knows jobs and nameplates; no person and no database.
"""

from evencoil.schedule.cells import MOST_BYTES, MOST_COLUMNS, MOST_LINES, Line, Sheet, read_sheet
from evencoil.schedule.columns import FIELDS, Mapped, map_columns
from evencoil.schedule.entries import BadCell, Entry, Schedule, Table, open_table, read_schedule
from evencoil.schedule.export import (
    EXPORT_HEADS,
    EXPORT_NUMBERS,
    export_row,
    table_workbook,
)
from evencoil.schedule.repair import as_text, repair_file, table_csv

__all__ = [
    "EXPORT_HEADS",
    "EXPORT_NUMBERS",
    "FIELDS",
    "MOST_BYTES",
    "MOST_COLUMNS",
    "MOST_LINES",
    "BadCell",
    "Entry",
    "Line",
    "Mapped",
    "Schedule",
    "Sheet",
    "Table",
    "as_text",
    "export_row",
    "map_columns",
    "open_table",
    "read_schedule",
    "read_sheet",
    "repair_file",
    "table_csv",
    "table_workbook",
]
