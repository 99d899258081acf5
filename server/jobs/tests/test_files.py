"""Sheets and lists of a kept starter as files."""

import csv
import io

import ezdxf
import pytest

from answers.dxf import to_dxf
from evencoil.circuit import read_netlist
from evencoil.drawing import Pen, Picture

JOB = "/api/w/here/m/IC-2/j/1"


@pytest.fixture
def kept(client):
    """A job whose starter is a three-wire one with an emergency stop."""
    body = {"based_on": 0, "body": {"standard_circuit": "3A", "options": {"estop": "reset_relay"}}}
    answer = client.put(f"{JOB}/starter", body, content_type="application/json")
    assert answer.status_code == 200, answer.content
    return client


@pytest.mark.parametrize("which", ["ladder", "power", "panel", "strip"])
def test_every_sheet_comes_as_svg_dxf_and_pdf(kept, which):
    """The DXF opens in another program's reader, and has the wires and words of the drawing."""
    assert kept.get(f"{JOB}/drawing/{which}.svg").content.startswith(b"<svg")
    assert kept.get(f"{JOB}/drawing/{which}.pdf").content.startswith(b"%PDF")
    answer = kept.get(f"{JOB}/drawing/{which}.dxf")
    drawing = ezdxf.read(io.StringIO(answer.content.decode()))
    assert not drawing.audit().errors
    words = {entity.dxf.text for entity in drawing.modelspace().query("TEXT")}
    assert "KM1" in words or which == "strip"
    assert answer.headers["Content-Disposition"].endswith('.dxf"')


def test_a_pixel_is_a_quarter_of_a_millimetre():
    """A line of 400 by 80 px is 100 by 20 mm, up being up."""
    pen = Pen(net="1")
    pen.line((0, 100), (400, 20))
    drawing = ezdxf.read(io.StringIO(to_dxf(Picture(400, 100, tuple(pen.shapes), ())).decode()))
    (line,) = drawing.modelspace()
    assert (line.dxf.start.x, line.dxf.start.y) == (0, 0)
    assert (line.dxf.end.x, line.dxf.end.y) == (100, 20)
    assert line.dxf.layer == "WIRES"


def rows(answer):
    """Return the rows of a CSV answer."""
    assert answer.status_code == 200
    return list(csv.reader(io.StringIO(answer.content.decode())))


def test_lists_as_csv_and_the_netlist_read_back(kept):
    """Wires with color, size and ferrules; material; terminals; a netlist that reads back."""
    wires = rows(kept.get(f"{JOB}/list/wires.csv"))
    assert wires[0][:5] == ["number", "from", "to", "part", "color"]
    assert ["X2", "white", "14"] in [[row[0], row[4], row[5]] for row in wires]
    assert all(row[6] == row[0] for row in wires[1:])
    assert any(row[0] == "KM1" for row in rows(kept.get(f"{JOB}/list/material.csv")))
    assert any(row[1] == "X2" for row in rows(kept.get(f"{JOB}/list/terminals.csv")))
    text = kept.get(f"{JOB}/netlist.txt").content.decode()
    assert len(read_netlist(text).netlist.wires) == len(wires) - 1


def test_points_of_a_programmable_relay_as_csv(client):
    """Each with its terminal, its wire and what is at the other end."""
    body = {"based_on": 0, "body": {"standard_circuit": "13A"}}
    put = client.put(f"{JOB}/starter", body, content_type="application/json")
    assert put.status_code == 200, put.content
    heading, *lines = rows(client.get(f"{JOB}/list/points.csv"))
    assert heading == ["point", "name", "terminal", "wire", "device", "text"]
    by_point = {line[0]: line for line in lines}
    assert by_point["I1"][3:5] == ["3", "SS1.14"]
    assert by_point["Q1"][2] == "PL1.Q1.2"


def test_a_starter_without_a_programmable_relay_has_no_points(kept):
    """The heading alone: nothing is made up."""
    assert len(rows(kept.get(f"{JOB}/list/points.csv"))) == 1


def test_without_a_starter_a_file_says_so(client):
    """Nothing chosen: the one problem shape, and what to do."""
    answer = client.get(f"{JOB}/drawing/panel.dxf")
    assert answer.status_code == 422
    assert answer.json()["field"] == "starter.standard_circuit"


@pytest.mark.django_db
def test_the_works_colors_and_ferrules_are_used(kept, here):
    """IEC colors, a 16 AWG control conductor, the far end on each ferrule."""
    here.works.wire_colors, here.works.control_wire, here.works.ferrules = (
        "iec60204",
        "16",
        "far_end",
    )
    here.works.save()
    wires = rows(kept.get(f"{JOB}/list/wires.csv"))
    common = next(row for row in wires if row[0] == "X2" and row[4] != "green-yellow")
    assert common[4:6] == ["light blue", "16"]
    assert common[6] == f"X2 > {common[2]}"
