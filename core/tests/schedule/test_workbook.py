"""Workbooks: the same motors as the same table in text; what is broken or too large is refused."""

import datetime as dt
import io
import zipfile

import openpyxl
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from evencoil.base import FileFormatError, say
from evencoil.schedule import open_table, read_sheet, repair_file
from evencoil.schedule.workbook import MOST_UNPACKED

HEADS = ["Tag", "Description", "HP", "Volts", "FLA", "RPM", "Phase", "System voltage"]
ROWS = [
    ["A-1", "pump", 15, "230/460", 19, 1765, 3, "480Y/277"],
    ["A-2", "fan", 7.5, 460, 10.5, 1750, 3, "480Y/277"],
    ["A-3", "crusher", "forty", 460, 49, 1770, 3, "480Y/277"],
]


def packed(*rows, before=(), hidden=False):
    """Return a workbook whose sheet Motors has these rows."""
    book = openpyxl.Workbook()
    sheet = book.active
    sheet.title = "Notes" if before else "Motors"
    for row in before:
        sheet.append(row)
    if before:
        sheet.sheet_state = "hidden" if hidden else "visible"
        sheet = book.create_sheet("Motors")
    for row in rows:
        sheet.append(row)
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()


def refused(data):
    """Return why a file is refused."""
    with pytest.raises(FileFormatError) as told:
        read_sheet(data)
    return str(told.value)


def test_a_workbook_gives_the_motors_of_the_same_table_in_text():
    """Numbers as they would be typed, the bad cell by its line, the name of the sheet."""
    text = "\n".join(",".join(str(cell) for cell in row) for row in [HEADS, *ROWS])
    by_text, by_book = open_table(text.encode()), open_table(packed(HEADS, *ROWS))
    assert by_book.schedule == by_text.schedule
    assert [(one.line, one.field) for one in by_book.schedule.bad] == [(4, "power_hp")]
    assert by_book.sheet.name == "Motors"
    assert (by_book.sheet.encoding, by_book.sheet.delimiter) == ("", "")


def test_the_first_visible_sheet_that_has_anything():
    """An empty one and a hidden one are passed over; lines keep the numbers of their own sheet."""
    found = read_sheet(packed([], HEADS, *ROWS, before=[[]]))
    assert found.name == "Motors"
    assert read_sheet(packed(HEADS, *ROWS, before=[["old"], ["x"]], hidden=True)).name == "Motors"
    gap = read_sheet(packed(HEADS, ROWS[0], [], ROWS[1]))
    assert [line.number for line in gap.lines] == [2, 4]


@pytest.mark.parametrize(
    ("value", "said"),
    [
        (460.0, "460"),
        (7.5, "7.5"),
        (0.1 + 0.2, "0.3"),
        (True, "yes"),
        (dt.date(2026, 5, 4), "2026-05-04"),
        (" two\nlines ", "two lines"),
        (None, ""),
    ],
)
def test_cells_as_they_would_be_typed(value, said):
    """What a cell holds, in the text of a schedule."""
    (line,) = read_sheet(packed(["Tag", "HP", "End"], ["A-1", value, "x"])).lines
    assert line.cells[1] == said


def test_a_formula_is_its_saved_value_and_nothing_is_calculated():
    """Saved without a value there is none; it is never text, and never run."""
    (line,) = read_sheet(packed(["Tag", "HP", "End"], ["A-1", "=10+5", "x"])).lines
    assert line.cells[1] == ""


def test_what_unpacks_to_too_much_is_refused_before_it_is_read():
    """A few kilobytes that say they are gigabytes; thousands of files."""
    bomb = io.BytesIO()
    with zipfile.ZipFile(bomb, "w", zipfile.ZIP_DEFLATED) as folder:
        block = b"0" * (1 << 20)
        with folder.open("xl/worksheets/sheet1.xml", "w") as file:
            for _ in range(MOST_UNPACKED // len(block) + 1):
                file.write(block)
    assert len(bomb.getvalue()) < 1 << 20
    assert "unpacks to" in refused(bomb.getvalue())
    many = io.BytesIO()
    with zipfile.ZipFile(many, "w") as folder:
        for k in range(2001):
            folder.writestr(f"x{k}", b"")
    assert "unpacks to" in refused(many.getvalue())


def changed(data, name, change):
    """Return a workbook with one of its files otherwise."""
    out = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(data)) as old, zipfile.ZipFile(out, "w") as new:
        for one in old.namelist():
            body = old.read(one)
            new.writestr(one, change(body) if one == name else body)
    return out.getvalue()


def test_entities_are_refused():
    """A sheet that declares entities is read no further."""
    lol = b'<?xml version="1.0"?><!DOCTYPE x [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;">]>'
    book = changed(
        packed(HEADS, *ROWS),
        "xl/worksheets/sheet1.xml",
        lambda body: lol + body.split(b"?>", 1)[-1].replace(b"A-1", b"&b;"),
    )
    assert "no workbook" in refused(book)


@pytest.mark.parametrize("name", ["xl/workbook.xml", "[Content_Types].xml"])
def test_broken_workbooks_are_refused(name):
    """A part that is cut off, or another kind of folder."""
    assert "no workbook" in refused(changed(packed(HEADS, *ROWS), name, lambda body: body[:40]))


def test_other_folders_and_ends_are_refused():
    """A folder that is no workbook; a workbook that ends in the middle; one with a password."""
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w") as folder:
        folder.writestr("word/document.xml", "<x/>")
    assert "no workbook" in refused(out.getvalue())
    whole = packed(HEADS, *ROWS)
    assert "no workbook" in refused(whole[: len(whole) // 2])
    # what is under a password is another container, which is no text
    assert "no table of text" in refused(b"\xd0\xcf\x11\xe0\xa1\xb1\x1a\xe1" + b"\x00" * 600)
    assert "no line" in refused(packed(HEADS))
    assert "columns" in refused(packed(["x"] * 500, ["1"] * 500))


@given(st.binary(max_size=300))
@settings(max_examples=60, deadline=None)
def test_nonsense_behind_the_mark_of_a_folder(data):
    """Whatever follows: refused with a reason and a way out, never an error of ours."""
    with pytest.raises(FileFormatError) as told:
        read_sheet(b"PK\x03\x04" + data)
    assert say(told.value.hint)


CELL = st.one_of(
    st.integers(0, 10**6), st.text(st.characters(codec="ascii", categories=["L", "N"]), max_size=9)
)


@given(st.lists(st.lists(CELL, min_size=4, max_size=4), min_size=1, max_size=6))
@settings(max_examples=40, deadline=None)
def test_every_cell_comes_back(rows):
    """Written and read: the same cells, rows without anything left out."""
    found = read_sheet(packed(["a", "b", "c", "d"], *rows, ["last", "", "", "x"])).lines
    kept = [tuple(str(cell) for cell in row) for row in rows if any(str(cell) for cell in row)]
    assert [line.cells for line in found][:-1] == kept


def test_bad_lines_of_a_workbook_come_back_as_text_and_can_be_read_again():
    """Mended there, the line is taken; a sheet has no delimiter, its repair file has a comma."""
    table = open_table(packed(HEADS, *ROWS))
    repair = repair_file(table.sheet, table.schedule)
    mended = open_table(repair.replace("forty,", "40,").encode())
    assert [entry.tag for entry in mended.schedule.entries] == ["A-3"]
    assert mended.schedule.bad == ()


def test_more_lines_than_are_read_are_refused(monkeypatch):
    """Rows behind the last that is allowed are not even unpacked."""
    monkeypatch.setattr("evencoil.schedule.cells.MOST_LINES", 3)
    assert "more than 3 lines" in refused(packed(HEADS, *ROWS, *ROWS))
