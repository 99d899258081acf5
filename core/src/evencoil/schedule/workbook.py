"""A table of motors in a workbook: its first sheet that holds one, cell by cell as text.

What a cell shows is taken, never what would calculate it: a formula counts as the value that was
saved with it. A workbook is a compressed folder: what it unpacks to is bounded before it is read,
and its XML may declare no entities.

Units: sizes [byte].
Source: ISO/IEC 29500 (the container); bounds are ours.
"""

from __future__ import annotations

import datetime as dt
import io
import warnings
import zipfile
from collections.abc import Iterator
from itertools import islice
from xml.etree.ElementTree import ParseError

import openpyxl
from defusedxml import DefusedXmlException
from openpyxl.utils.exceptions import InvalidFileException

from evencoil.base import FileFormatError, Message

__all__ = ["MOST_UNPACKED", "is_workbook", "workbook_rows"]

#: what all files of a workbook unpack to together, and how many there may be
MOST_UNPACKED = 128 * 1024 * 1024
_MOST_FILES = 2000
_MARK = b"PK\x03\x04"
#: what broken workbooks make the reader raise
_BROKEN = (
    DefusedXmlException,
    InvalidFileException,
    KeyError,
    OSError,
    ParseError,
    TypeError,
    ValueError,
    zipfile.BadZipFile,
)


def is_workbook(data: bytes) -> bool:
    """Tell whether a file is a compressed folder, as workbooks are.

    Parameters
    ----------
    data : bytes
        The file.
    """
    return data.startswith(_MARK)


def _refused(name: str, **params: str) -> FileFormatError:
    return FileFormatError(
        Message(f"schedule.{name}", params), field="file", hint=Message(f"schedule.{name}.hint")
    )


def _check_size(data: bytes) -> None:
    """Refuse what unpacks to more than is read; the container tells it before."""
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as folder:
            files = folder.infolist()
    except (zipfile.BadZipFile, OSError, ValueError) as wrong:
        raise _refused("workbook") from wrong
    size = sum(one.file_size for one in files)
    if size > MOST_UNPACKED or len(files) > _MOST_FILES:
        raise _refused("workbook_large", size=str(size), most=str(MOST_UNPACKED))


def _said(value: object) -> str:
    """Return a cell as it would be typed."""
    if value is None:
        return ""
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, float):
        return f"{value:.10g}"
    if isinstance(value, dt.datetime) and value.time() == dt.time():
        return value.date().isoformat()
    if isinstance(value, dt.datetime | dt.date | dt.time):
        return value.isoformat()
    return " ".join(str(value).split())


def workbook_rows(
    data: bytes, most_columns: int, most_rows: int
) -> tuple[str, Iterator[tuple[int, list[str]]]]:
    """Return the name of the first sheet that has anything, and its rows with their numbers.

    Parameters
    ----------
    data : bytes
        The workbook.
    most_columns : int
        One column more than this is read, so that a wider sheet is noticed.
    most_rows : int
        So many rows that have anything are read.

    Raises
    ------
    FileFormatError
        If it is no workbook, unpacks to too much, or no visible sheet has anything.
    """
    _check_size(data)
    try:
        with warnings.catch_warnings():
            # of styles and validations that are of no use here
            warnings.simplefilter("ignore")
            book = openpyxl.load_workbook(io.BytesIO(data), read_only=True, data_only=True)
            for sheet in book.worksheets:
                if sheet.sheet_state != "visible":
                    continue
                rows = _rows(sheet.iter_rows(max_col=most_columns + 1, values_only=True))
                first = next(rows, None)
                if first is not None:
                    return str(sheet.title), iter([first, *islice(rows, most_rows)])
    except _BROKEN as wrong:
        raise _refused("workbook") from wrong
    raise _refused("empty")


def _rows(rows: Iterator[tuple[object, ...]]) -> Iterator[tuple[int, list[str]]]:
    """Yield the rows that have anything, without the empty cells at their end."""
    for number, row in enumerate(rows, start=1):
        cells = [_said(value) for value in row]
        while cells and not cells[-1]:
            cells.pop()
        if cells:
            yield number, cells
