"""Schedules of a plant's motors: tables in, motors and bad cells out, a file to repair.

Knows jobs and nameplates; no person and no database.
"""

from evencoil.schedule.cells import MOST_BYTES, MOST_COLUMNS, MOST_LINES, Line, Sheet, read_sheet
from evencoil.schedule.columns import FIELDS, Mapped, map_columns
from evencoil.schedule.entries import BadCell, Entry, Schedule, Table, open_table, read_schedule
from evencoil.schedule.repair import as_text, repair_file

__all__ = [
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
    "map_columns",
    "open_table",
    "read_schedule",
    "read_sheet",
    "repair_file",
]
