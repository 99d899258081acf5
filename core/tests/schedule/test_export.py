"""What goes out can come back: motors to a table, to the same motors."""

import csv
import io

import openpyxl
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from evencoil.job import JobInputs
from evencoil.schedule import (
    EXPORT_HEADS,
    EXPORT_NUMBERS,
    export_row,
    open_table,
    read_sheet,
    table_csv,
    table_workbook,
)

FIGURE = st.integers(1, 400).map(str)
LETTER = st.sampled_from(["", *"ABCDEFGHJKLMNPRSTUV"])
NAME = st.text(st.characters(codec="utf-8", categories=["L", "N"]), max_size=12)
MOTOR = st.fixed_dictionaries(
    {
        "hp": st.sampled_from(["5", "7.5", "15", "100"]),
        "volts": st.sampled_from(["460", "230/460", "208-230/460", "575"]),
        "amps": st.sampled_from(["", "19", "38.6/19.3", "42-38/19"]),
        "rpm": st.sampled_from(["", "1765", "1760/1170"]),
        "sf": st.sampled_from(["", "1.15"]),
        "code": LETTER,
        "supply": st.sampled_from(["", "480Y/277", "240 delta"]),
        "fault": st.sampled_from(["", "8000", "22500"]),
        "starter": st.sampled_from(["", "3A", "8A"]),
        "name": NAME,
        "panel": NAME,
    }
)


def exported(entries):
    """Return rows of entries as they were read."""
    return [
        export_row(
            tag=one.tag,
            name=one.name,
            machine=one.machine,
            panel=one.panel,
            number=1,
            inputs=one.inputs,
        )
        for one in entries
    ]


@given(st.lists(MOTOR, min_size=1, max_size=5))
@settings(max_examples=60, deadline=None)
def test_out_and_in_again_is_the_same_plant(motors):
    """Read, exported as CSV and as a workbook, read again: the same motors to the letter."""
    heads = ["tag", "hp", "volts", "amps", "rpm", "sf", "code", "supply", "fault a", "starter"]
    heads += ["name", "panel"]
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(heads)
    for k, one in enumerate(motors):
        cells = ("hp", "volts", "amps", "rpm", "sf", "code", "supply", "fault", "starter")
        writer.writerow([f"M-{k}", *(one[key] for key in (*cells, "name", "panel"))])
    first = open_table(out.getvalue().encode()).schedule
    assert first.bad == ()
    rows = exported(first.entries)
    for data in (
        table_csv(EXPORT_HEADS, rows).encode("utf-8-sig"),
        table_workbook("Motors", EXPORT_HEADS, rows, EXPORT_NUMBERS),
    ):
        again = open_table(data).schedule
        assert again.bad == ()
        assert again.entries == first.entries


def test_a_motor_with_nothing_entered_has_empty_cells():
    """No default stands in a table as if it were this motor's."""
    row = export_row(tag="A-1", name="", machine="", panel="", number=2, inputs=JobInputs())
    assert dict(zip(EXPORT_HEADS, row, strict=True)) == {
        **dict.fromkeys(EXPORT_HEADS, ""),
        "Tag": "A-1",
        "Job": "2",
    }


@pytest.mark.parametrize("text", ["=1+1", "+1+1", "@x", "-2+3", "'x", "a\x07b", " <b> "])
def test_no_cell_is_a_formula(text):
    """In CSV by an apostrophe, in a workbook by its kind: it is text there, unchanged."""
    row = ["A-1", text]
    cell = next(iter(csv.reader(io.StringIO(table_csv(["a", "b"], [row]).split("\r\n")[1]))))[1]
    assert cell[:1] not in {"=", "+", "@"}
    book = openpyxl.load_workbook(io.BytesIO(table_workbook("x", ["a", "b"], [row])))
    found = book.active["B2"]
    assert found.data_type in {"s", "inlineStr"}
    assert found.value == text.replace("\x07", "")


def test_figures_are_numbers_where_there_is_one():
    """460 is a number, 230/460 and a tag of digits are text."""
    rows = [["460", "460", "7.5"], ["7", "230/460", ""]]
    book = openpyxl.load_workbook(io.BytesIO(table_workbook("a[b]/c", "xyz", rows, {1, 2})))
    sheet = book.active
    assert sheet.title == "abc"
    assert [cell.value for cell in sheet[2]] == ["460", 460, 7.5]
    assert [cell.value for cell in sheet[3]] == ["7", "230/460", None]
    assert sheet.freeze_panes == "A2"


def test_ranges_of_volts_and_amps_are_read():
    """208-230/460 as it is stamped; three ends are none."""
    table = open_table(b"tag,hp,volts,amps\nA-1,15,208-230/460,42-38/19\nA-2,15,1-2-3,\n")
    assert table.schedule.entries[0].inputs.plate.text == "15 HP, 208-230/460 V, 42-38/19 A"
    assert [(one.line, one.field) for one in table.schedule.bad] == [(3, "volts")]
    assert read_sheet(b"tag,hp\nA-1,15\n").name == ""
