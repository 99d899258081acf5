"""Tables of motors: what is read, what is refused and why, a file to repair; attacks on it."""

import csv
import io
import json
from decimal import Decimal

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from evencoil.base import CoreError, FileFormatError, OutOfRangeError, say
from evencoil.cli.main import main
from evencoil.job import load
from evencoil.schedule import (
    FIELDS,
    MOST_COLUMNS,
    as_text,
    map_columns,
    open_table,
    read_schedule,
    read_sheet,
    repair_file,
)

HEAD = "Tag;Description;HP;Volts;FLA;RPM;Phase;SF;Code;Design;Leads;System voltage;Starter;Remark"
GOOD = "IC-2;incline conveyor;15;230/460;38,6/19,3;1765;3;1,15;G;B;9;480Y/277;3A;new"


def read(text, told=None, encoding="utf-8"):
    """Return what a table gives."""
    sheet = read_sheet(text.encode(encoding))
    return read_schedule(sheet, map_columns(sheet.heads, told))


def bad(text):
    """Return the bad cells of a table as (line, field)."""
    return [(one.line, one.field) for one in read(text).bad]


def test_a_line_becomes_the_nameplate_that_is_stamped():
    """Decimal commas, two voltages, a starter by its number; what nobody knows is left out."""
    [entry] = read(f"{HEAD}\n{GOOD}\n").entries
    assert (entry.tag, entry.name, entry.line) == ("IC-2", "incline conveyor", 2)
    assert entry.inputs.plate.text == (
        "15 HP, 230/460 V, 38.6/19.3 A, 1765 RPM, 3 PH, SF 1.15, 9 LEADS, CODE G, DES B"
    )
    assert entry.inputs.supply.text == "480Y/277"
    assert entry.inputs.starter.standard_circuit == "3A"
    assert entry.doubts == ()


@pytest.mark.parametrize(
    ("cell", "plate"),
    [
        ("7 1/2", "7.5 HP"),
        ("1-1/2 hp", "1.5 HP"),
        ("3/4", "0.75 HP"),
        ("1,5", "1.5 HP"),
        ("1.5 HP", "1.5 HP"),
        ("40", "40 HP"),
        ("1,250", "1250 HP"),
        ("20/10", "20/10 HP"),
    ],
)
def test_horsepower_as_plants_write_it(cell, plate):
    """Fractions, commas, units in the cell, two speeds; three digits after a comma are thousands."""
    [entry] = read(f"tag\thp\tvolts\nA-1\t{cell}\t460\n").entries
    assert entry.inputs.plate.text.startswith(plate)


def test_kilowatts_by_head_or_by_cell():
    """The unit stands in the head, or beside the figure; without any the line is not taken."""
    for head, cell in (("Power (kW)", "11"), ("kW", "11"), ("Rating", "11 kW")):
        [entry] = read(f"tag,{head},volts\nA-1,{cell},460\n").entries
        assert entry.inputs.plate.text == "11 KW, 460 V"
    assert bad("tag,Rating,volts\nA-1,11,460\n") == [(2, "power")]


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ((";15;", ";fifteen;"), "power_hp"),
        ((";230/460;", ";46O;"), "volts"),
        ((";230/460;", ";460000;"), "volts"),
        ((";1765;", ";1765/1180/880/590/300;"), "speed"),
        ((";3;", ";4;"), "phases"),
        ((";G;", ";Q;"), "code_letter"),
        ((";B;", ";Z;"), "design"),
        ((";480Y/277;", ";blue;"), "supply"),
        ((";3A;", ";99Z;"), "starter"),
        (("IC-2;", ";"), "tag"),
        (("IC-2;", "IC/2;"), "tag"),
        (("IC-2;", "#12;"), "tag"),
        (("IC-2;", "=A1;"), "tag"),
        (("IC-2;", f"{'M' * 41};"), "tag"),
        (("incline", "inc\x07line"), "name"),
        (("1,15", "11,5"), "service_factor"),
    ],
)
def test_one_wrong_cell_keeps_its_line_out_and_is_named(change, field):
    """By line and field, with what to do; the line beside it is taken."""
    other = GOOD.replace("IC-2", "IC-3")
    found = read(f"{HEAD}\n{GOOD.replace(*change)}\n{other}\n")
    assert [(one.line, one.field) for one in found.bad] == [(2, field)]
    assert say(found.bad[0].reason)
    assert say(found.bad[0].hint)
    assert [one.tag for one in found.entries] == ["IC-3"]


def test_a_tag_stands_once():
    """Whatever its letters; the first line keeps it."""
    found = read(f"{HEAD}\n{GOOD}\n{GOOD.replace('IC-2', 'ic-2')}\n")
    assert [one.tag for one in found.entries] == ["IC-2"]
    assert "line 2" in say(found.bad[0].reason)


def test_amps_that_do_not_fit_travel_as_a_doubt():
    """15 hp at 460 V and 190 A: taken, and told."""
    [entry] = read("tag,hp,volts,amps,rpm,phase\nA-1,15,460,190,1765,3\n").entries
    assert entry.doubts
    # 15 kW at 460 V take some 24 A; in kilowatts as in horsepower
    [entry] = read("tag,kw,volts,amps,rpm,phase\nA-1,15,460,265,1765,3\n").entries
    assert "15 kW" in say(entry.doubts[0])
    [entry] = read("tag,kw,volts,amps,rpm,phase\nA-1,15,460,25,1765,3\n").entries
    assert entry.doubts == ()


@pytest.mark.parametrize("delimiter", list(",;\t|"))
@pytest.mark.parametrize(
    "encoding", ["utf-8", "utf-8-sig", "utf-16", "cp1252"], ids=lambda name: name
)
def test_every_delimiter_and_encoding(delimiter, encoding):
    """Umlauts stay what they are; only Windows-1252 is a guess."""
    text = "tag|name|hp|volts\nA-1|Förderband|5|460\nA-2|Mühle|10|460\n".replace("|", delimiter)
    sheet = read_sheet(text.encode(encoding))
    assert (sheet.delimiter, sheet.is_guess) == (delimiter, encoding == "cp1252")
    assert sheet.lines[1].cells[1] == "Mühle"


def test_lines_are_counted_as_they_stand_in_the_file():
    """A quoted cell over two lines, an empty line, a line with the delimiter's name."""
    text = 'sep=;\ntag;name;hp;volts\nA-1;"two\nlines";5;460\n\nA-2;x;bad;460\n'
    sheet = read_sheet(text.encode())
    assert [line.number for line in sheet.lines] == [3, 6]
    assert bad(text) == [(6, "power_hp")]


@pytest.mark.parametrize(
    "data",
    [
        b"",
        b"tag,hp,volts\n",
        b"\n\n",
        b"PK\x03\x04\x00\x00\x00",
        b"\xff\xfe\x00",
        b'tag,hp\nA-1,"5\n',
        ("tag," * (MOST_COLUMNS + 1) + "\n" + "1," * (MOST_COLUMNS + 1)).encode(),
        b"tag,name\nA-1,\x81\x8d\xff\n",
    ],
    ids=["nothing", "head", "blank", "zip", "half", "quote", "wide", "bytes"],
)
def test_what_is_no_table_is_refused_with_the_next_step(data):
    """Nothing of it is taken."""
    with pytest.raises(FileFormatError) as refused:
        read_sheet(data)
    assert say(refused.value.hint)


def test_columns_are_guessed_told_and_left_out():
    """A person's word wins; two columns for one field: the first has it."""
    heads = ("Motor No.", "Motor Tag", "HP", "Remark", "Bucket")
    mapped = map_columns(heads)
    assert mapped.place_of == {"tag": 0, "power_hp": 2, "panel": 4}
    assert mapped.doubled == ((1, "tag"),)
    assert mapped.left == (3,)
    told = map_columns(heads, {"tag": "Motor Tag", "name": "Remark", "panel": ""})
    assert told.place_of == {"tag": 1, "name": 3, "power_hp": 2}
    for wrong in ({"color": "HP"}, {"tag": "Nobody"}):
        with pytest.raises(OutOfRangeError):
            map_columns(heads, wrong)
    assert {"tag", "power_hp", "supply"} <= set(FIELDS)


def test_the_bad_lines_come_back_to_be_repaired_and_read_again():
    """The same columns, line and reason behind; mended it is taken; nothing of it is a formula."""
    wrong = GOOD.replace("15;", "fifteen;").replace("new", '=HYPERLINK(""x"")').replace('""', '"')
    text = f"{HEAD}\n{wrong}\n{GOOD.replace('IC-2', 'IC-3')}\n"
    sheet = read_sheet(text.encode())
    out = repair_file(sheet, read_schedule(sheet, map_columns(sheet.heads)))
    head, line = list(csv.reader(io.StringIO(out), delimiter=";"))
    assert head[:3] == ["Tag", "Description", "HP"]
    assert line[0] == "IC-2"
    assert not any(cell.startswith("=") for cell in line)
    assert line[-2] == "2"
    assert "fifteen is no figure" in line[-1]
    mended = out.replace("fifteen;", "15;")
    assert [one.tag for one in read(mended).entries] == ["IC-2"]


@pytest.mark.parametrize(
    ("cell", "out"),
    [("=1+1", "'=1+1"), ("@SUM(A1)", "'@SUM(A1)"), ("-5", "-5"), ("+1,5", "+1,5"), ("-x", "'-x")],
)
def test_no_cell_leaves_as_a_formula(cell, out):
    """A negative figure is a figure."""
    assert as_text(cell) == out


@given(
    st.lists(
        st.lists(
            st.text(st.characters(exclude_categories=["Cs"]), max_size=12),
            min_size=4,
            max_size=4,
        ),
        min_size=1,
        max_size=6,
    )
)
@settings(max_examples=150, deadline=None)
def test_no_text_breaks_it_and_every_line_is_good_or_bad(rows):
    """Whatever stands in the cells: each line is a motor or is named, never both, never lost."""
    out = io.StringIO()
    csv.writer(out).writerows([["tag", "hp", "volts", "supply"], *rows])
    try:
        sheet = read_sheet(out.getvalue().encode())
    except CoreError:
        return
    found = read_schedule(sheet, map_columns(("tag", "hp", "volts", "supply")))
    good = {one.line for one in found.entries}
    assert good.isdisjoint(found.bad_lines)
    assert good | set(found.bad_lines) == {line.number for line in sheet.lines}


def test_the_command_line_writes_jobs_once(tmp_path, capsys):
    """Read twice the same files; a tag with letters that no file may have keeps its own file."""
    table = tmp_path / "motors.csv"
    other = GOOD.replace("IC-2", "A B")
    clash = GOOD.replace("IC-2", "A_B")
    wrong = GOOD.replace("IC-2", "X").replace("15;", "x;")
    table.write_text(f"{HEAD}\n{GOOD}\n{other}\n{clash}\n{wrong}")
    out, repair = tmp_path / "jobs", tmp_path / "bad.csv"
    call = ["schedule", str(table), "--out", str(out), "--bad", str(repair), "--format", "json"]
    assert main(call) == 1
    told = json.loads(capsys.readouterr().out)
    assert (told["good"], told["bad_lines"]) == (3, 1)
    assert told["columns"]["power_hp"] == "HP"
    first = {path.name: path.read_bytes() for path in out.iterdir()}
    assert len(first) == 3
    assert main(call) == 1
    assert {path.name: path.read_bytes() for path in out.iterdir()} == first
    job = load(first["IC-2.json"])
    assert job.motor.motor_tag == "IC-2"
    assert main(["size", str(out / "IC-2.json")]) in {0, 1}
    assert "X" in repair.read_text("utf-8-sig")
    assert main(["schedule", str(table), "--map", "tag"]) == 2


@pytest.mark.parametrize(
    ("head", "cell", "amps"),
    [
        ("Fault current (kA)", "18", "18000"),
        ("Isc kA", "22.5", "22500"),
        ("Fault current (kA)", "0,5", "500"),
        ("Available fault current", "18 kA", "18000"),
        ("Available fault current [A]", "22000", "22000"),
        ("Fault current A", "22,000 A", "22000"),
        ("Fault current (kA)", "", None),
    ],
)
def test_fault_current_as_plants_write_it(head, cell, amps):
    """Kiloamps or amps, by head or cell: it was mapped before and went no further."""
    table = open_table(f"tag;hp;volts;supply;{head}\nA-1;15;460;480Y/277;{cell}\n".encode())
    (entry,) = table.schedule.entries
    given = entry.inputs.supply.fault_current_a
    assert given == (None if amps is None else Decimal(amps))


@pytest.mark.parametrize(
    ("head", "cell", "field", "words"),
    [
        # 18 could be either
        ("Fault current", "18", "fault", "amps or kiloamps"),
        ("Fault current (kA)", "22000", "fault_ka", "between 100 and 300000 A"),
        ("Fault current A", "18", "fault_a", "between 100 and 300000 A"),
        ("Fault current (kA)", "high", "fault_ka", "no figure"),
    ],
)
def test_a_fault_current_that_may_be_another_is_refused(head, cell, field, words):
    """A thousand times too much or too little is never taken."""
    table = open_table(f"tag;hp;volts;{head}\nA-1;15;460;{cell}\n".encode())
    (one,) = table.schedule.bad
    assert (one.line, one.field) == (2, field)
    assert words in say(one.reason)
