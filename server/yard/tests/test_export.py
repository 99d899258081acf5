"""The motor list as a file: what is shown is in it, nothing else, and it can be read again."""

import csv
import io
import json

import openpyxl
import pytest
from django.db import connection
from django.test.utils import CaptureQueriesContext

from evencoil.schedule import open_table
from jobs.models import InputVersion
from plant.models import Motor, PlateRevision
from tests_support import PLATE, caller, motor, signed_in

PLACE = "/api/w/here/motors"


@pytest.fixture
def many(here):
    """Three motors on two panels, one whose nameplate cannot be read any more."""
    for tag in ("A-1", "A-2"):
        motor(here, tag)
    Motor.objects.filter(tag="A-1").update(panel="MCC-2", name="=1+1")
    PlateRevision.objects.filter(motor__tag="A-2").update(body={"text": ["x"]})
    return here


def rows_of(client, ending="csv", **asked):
    """Return the rows of a file by tag."""
    answer = client.get(f"{PLACE}.{ending}", asked)
    assert answer.status_code == 200, answer.content
    if ending == "json":
        return {one["Tag"]: one for one in json.loads(answer.content)["motors"]}
    if ending == "csv":
        text = answer.content.decode("utf-8-sig")
        return {one["Tag"]: one for one in csv.DictReader(io.StringIO(text, newline=""))}
    sheet = openpyxl.load_workbook(io.BytesIO(answer.content)).active
    heads, *rows = sheet.iter_rows(values_only=True)
    return {row[0]: dict(zip(heads, row, strict=True)) for row in rows}


def test_every_motor_is_in_every_file(client, many):
    """Nameplate figures by their columns; what cannot be read says why in its own row."""
    for ending in ("csv", "xlsx", "json"):
        rows = rows_of(client, ending)
        assert set(rows) == {"IC-2", "A-1", "A-2"}
        one = rows["IC-2"]
        assert (str(one["HP"]), one["Volts"], one["Supply"]) == ("15", "230/460", "480Y/277")
        assert one["Nameplate text"] == PLATE
        assert rows["A-1"]["Panel"] == "MCC-2"
        assert rows["A-1"]["Description"] == ("'=1+1" if ending == "csv" else "=1+1")
        assert "cannot be read" in rows["A-2"]["Nameplate text"]
        assert not rows["A-2"]["HP"]


def test_a_filter_of_the_list_is_one_of_the_file(client, many):
    """What is found by the list's filters is in the file, and the page does not count."""
    assert set(rows_of(client, q="A-1", page="7")) == {"A-1"}
    assert rows_of(client, machine="Stack") == {}


def test_the_newest_versions_are_told(client, many):
    """Of two versions of the supply the newer one; another job's inputs are not mixed in."""
    row = InputVersion.objects.get(motor__tag="A-1", step="supply")
    InputVersion.objects.create(
        job=row.job,
        motor=row.motor,
        step="supply",
        n=2,
        schema=row.schema,
        body={**row.body, "text": "240 delta"},
        by=row.by,
    )
    rows = rows_of(client)
    assert rows["A-1"]["Supply"] == "240 delta"
    assert rows["IC-2"]["Supply"] == "480Y/277"


def test_the_file_is_a_schedule_again(client, many):
    """Read as a schedule it has the same motors; the one that cannot be read is a bad line."""
    table = open_table(client.get(f"{PLACE}.csv").content)
    assert {one.tag for one in table.schedule.entries} == {"IC-2", "A-1"}
    assert len(table.schedule.bad_lines) == 1


def test_the_queries_do_not_grow_with_the_motors(client, many):
    """A plant of thousands is read in a handful of queries for each five hundred."""
    # that it was taken is noted once a day, after the answer
    rows_of(client)
    with CaptureQueriesContext(connection) as few:
        rows_of(client)
    for k in range(12):
        motor(many, f"B-{k}")
    with CaptureQueriesContext(connection) as more:
        assert len(rows_of(client)) >= 12
    assert len(more) == len(few) <= 20


def test_a_stranger_gets_no_file(client, many):
    """Another plant's list is not there."""
    stranger = signed_in(caller("there", "eve"))
    for ending in ("csv", "xlsx", "json"):
        assert stranger.get(f"{PLACE}.{ending}").status_code == 404
