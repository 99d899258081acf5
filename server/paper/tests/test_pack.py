"""The field pack: complete, immutable, beside what is computed today."""

import hashlib
import re
import subprocess
import tempfile

import pytest
from django.db import connection

from jobs.models import InputVersion
from paper.models import Issue, IssuedError
from plant.models import Motor
from tests_support import caller, motor, signed_in

JOB = "/api/w/here/m/IC-2/j/1"


@pytest.fixture
def here(db):
    """A works with a motor whose starter is chosen."""
    who = caller("here", "ann")
    motor(who)
    return who


@pytest.fixture
def client(here):
    """Ann, signed in, with a starter to draw."""
    found = signed_in(here)
    give(found, "leads", 0, {"winding": "9-wye"})
    give(found, "starter", 0, {"standard_circuit": "3A"})
    return found


@pytest.fixture
def short(here):
    """Ann, signed in, with a job of few pages: no starter is chosen yet."""
    return signed_in(here)


def give(client, step, based_on, body):
    """Put a step's inputs."""
    answer = client.put(
        f"{JOB}/{step}", {"based_on": based_on, "body": body}, content_type="application/json"
    )
    assert answer.status_code == 200, answer.content
    return answer.json()


def issue(client, **body):
    """Print, or issue for wiring."""
    return client.post(f"{JOB}/issues", body, content_type="application/json")


def text_of(data):
    """Return the words and the fonts of a PDF, and how many pages it has."""
    with tempfile.NamedTemporaryFile(suffix=".pdf") as file:
        file.write(data)
        file.flush()
        said = {}
        for name, command in (
            ("fonts", ["pdffonts", file.name]),
            ("text", ["pdftotext", "-layout", file.name, "-"]),
            ("info", ["pdfinfo", file.name]),
            ("places", ["pdftotext", "-bbox", file.name, "-"]),
        ):
            done = subprocess.run(command, check=True, capture_output=True, text=True)
            said[name] = done.stdout
    return said


ACCEPTED = [{"hazard": "overload_reset", "why": "fenced, attended by two"}]


def beyond_the_margin(places):
    """Return the words that reach into the last 10 mm of their page or beyond it."""
    found, width = [], 0.0
    for line in places.splitlines():
        if page := re.search(r'<page width="([\d.]+)"', line):
            width = float(page[1])
        elif (word := re.search(r'xMax="([\d.]+)".*>(.*)</word>', line)) and (
            float(word[1]) > width - 10 * 72 / 25.4
        ):
            found.append(word[2])
    return found


def test_the_pack_holds_everything_in_its_own_fonts(client):
    """Cover, plate, leads, sizes, both drawings, wire list with ticks, material, Why."""
    Motor.objects.update(name="<script>alert(1)</script> & “conveyor”")
    # the longest figures a pack holds
    give(client, "size", 1, {"existing": {"cable": "raceway", "cable_size": "1", "trip_a": "20"}})
    assert issue(client).status_code == 201
    answer = client.get(f"{JOB}/issues/1/pdf")
    assert answer.headers["Content-Type"] == "application/pdf"
    said = text_of(answer.content)

    for word in ("Saira", "Atkinson"):
        assert word in said["fonts"]
    assert "DejaVu" not in said["fonts"]
    for word in (
        "<script>alert(1)</script>",
        "Nameplate as stamped",
        "38.6/19.3 A",
        "series wye",
        "POWER DIAGRAM",
        "LADDER",
        "WIRE LIST",
        "MATERIAL",
        "S2.14",
        "KM1.A1",
        "95-96",
        "Table 430.250, row 15 hp",
        "Verify dead before you touch anything",
        "issue 1",
    ):
        assert word.lower() in said["text"].lower(), word
    assert "Pages:" in said["info"]
    assert beyond_the_margin(said["places"]) == []


def test_a_pack_with_a_load_holds_the_run_up_with_its_guesses(client):
    """Verdict, curves, what was assumed, what a lost line does; inside the margin, in own fonts."""
    give(client, "load", 0, {"kind": "conveyor", "torque_percent": "80"})
    assert issue(client).status_code == 201
    said = text_of(client.get(f"{JOB}/issues/1/pdf").content)
    text = " ".join(said["text"].split())
    for word in ("RUN-UP: FULL VOLTAGE", "Reaches", "ASSUMED", "Fuse L2 blown", "Never measured"):
        assert word.lower() in text.lower(), word
    assert "DejaVu" not in said["fonts"]
    assert beyond_the_margin(said["places"]) == []


def test_a_pack_holds_the_program_of_a_relay_and_its_points(client):
    """Its text line by line, its points with their wires; in own fonts, inside the margin."""
    # the sign of a lasting restart is no reason to keep the program from the paper
    give(client, "starter", 1, {"standard_circuit": "13C", "accepted": ACCEPTED})
    assert issue(client).status_code == 201
    said = text_of(client.get(f"{JOB}/issues/1/pdf").content)
    text = " ".join(said["text"].split())
    for word in ("PROGRAM OF PL1", "CF := (I2 OR CF) AND I1 AND NOT I3;", "PL1.I4", "KF.34"):
        assert word.lower() in text.lower(), word
    assert "DejaVu" not in said["fonts"]
    assert beyond_the_margin(said["places"]) == []


def test_a_pack_holds_the_settings_of_a_drive(client):
    """Each with its value and on what it stands, and no start on the line that never happens."""
    give(client, "starter", 1, {"standard_circuit": "17B"})
    assert issue(client).status_code == 201
    said = text_of(client.get(f"{JOB}/issues/1/pdf").content)
    text = " ".join(said["text"].split()).lower()
    for word in (
        "settings of dr1",
        "current limit of rated amps",
        "150 %",
        "usual value that no one chose: decide",
        "by this job",
        "measure the bus",
    ):
        assert word in text, word
    assert "DejaVu" not in said["fonts"]
    assert beyond_the_margin(said["places"]) == []


def test_a_pack_says_why_there_is_no_run_up(client):
    """A load is entered, but a drive feeds it: withheld, with the reason."""
    give(client, "load", 0, {"kind": "fan"})
    give(client, "supply", 1, {"text": "480 from a drive"})
    issue(client)
    said = " ".join(text_of(client.get(f"{JOB}/issues/1/pdf").content)["text"].split())
    assert "current and torque of a start are what the drive is set for" in said


def test_it_prints_also_when_figures_are_withheld_and_no_starter_is_chosen(db):
    """A motor that must not be connected: the pack says so."""
    client = signed_in(caller("here", "ann"))
    motor(caller("here", "ann"))
    give(client, "supply", 1, {"text": "600Y/347"})
    issue(client)
    said = text_of(client.get(f"{JOB}/issues/1/pdf").content)["text"]
    assert "Withheld." in said
    assert "not chosen yet" in said


def test_the_cover_names_the_reading_of_the_rule_that_was_used(client):
    """Next size up by the plant; main rule where the job says so."""
    issue(client)
    said = text_of(client.get(f"{JOB}/issues/1/pdf").content)["text"]
    assert "430.52 next size up" in said

    give(client, "size", 1, {"rating_rule": "main_rule"})
    issue(client)
    said = text_of(client.get(f"{JOB}/issues/2/pdf").content)["text"]
    assert "430.52 main rule" in said


def test_a_pack_under_another_code_names_no_nec_and_prints_each_source(client):
    """The figure that a person brings stands with where it comes from."""
    give(client, "supply", 1, {"text": "480Y/277", "territory": "other"})
    own = [{"figure": "conductor_size", "value": "2.5 mm2", "source": "own code 5.1"}]
    give(client, "size", 1, {"own": own})
    issue(client)
    said = text_of(client.get(f"{JOB}/issues/1/pdf").content)["text"]

    assert "Not under the NEC" in said
    assert "NEC 2023, 430.52" not in said
    assert "2.5 mm2" in said
    assert "own code 5.1" in said


def test_an_issue_is_never_altered(short):
    """Neither by the code nor by later changes of the job; its seal is over its bytes."""
    issue(short)
    row = Issue.objects.get()
    assert hashlib.sha256(bytes(row.pdf)).hexdigest() == row.sha256
    with pytest.raises(IssuedError):
        row.save()
    with pytest.raises(IssuedError):
        row.delete()
    before = short.get(f"{JOB}/issues/1/pdf").content
    give(short, "size", 1, {"conductor_material": "al", "termination_c": 60})
    assert short.get(f"{JOB}/issues/1/pdf").content == before
    assert [item["n"] for item in short.get(f"{JOB}/issues").json()] == [1]


def test_as_issued_stands_beside_computed_today(client):
    """Nothing differs at first; after a change the figure and the wire are shown, then and now."""
    issue(client)
    same = client.get(f"{JOB}/issues/1").json()
    assert (same["inputs_changed"], same["differences"], same["core_changed"]) == (False, [], False)

    give(client, "size", 1, {"conductor_material": "al", "termination_c": 60})
    give(client, "starter", 1, {"standard_circuit": "3A", "options": {"lamps": "none"}})
    now = client.get(f"{JOB}/issues/1").json()
    assert now["inputs_changed"]
    told = {item["what"]: item for item in now["differences"]}
    assert (told["Conductor"]["issued"], told["Conductor"]["today"]) == ("10 AWG", "8 AWG")
    assert any(item["what"] == "Wire" and not item["today"] for item in now["differences"])


def test_other_code_tables_or_core_show_as_such(short):
    """An issue of an older core and another table names both."""
    issue(short)
    with connection.cursor() as cursor:
        cursor.execute(
            "update paper_issue set core_version = '0.0.1',"
            " table_digests = jsonb_set(table_digests, '{430_250_induction}', '\"other\"')"
        )
    now = short.get(f"{JOB}/issues/1").json()
    assert now["core_changed"]
    assert now["tables_changed"] == ["430_250_induction"]


def test_issue_for_wiring_freezes_the_numbers(client):
    """Later options add numbers; what was issued keeps its own."""
    assert issue(client, is_for_wiring=True).status_code == 201
    kept = InputVersion.objects.filter(step="starter").latest("n")
    assert kept.body["frozen"]["start.14"] == "3"
    body = {**kept.body, "options": {"estop": "contact", "stations": "2"}}
    give(client, "starter", kept.n, body)
    given = client.get(JOB).json()
    drawn = client.post(
        "/api/w/here/circuit",
        {name: given[name] for name in ("plate", "supply", "leads", "size", "starter")},
        content_type="application/json",
    ).json()
    numbers = {wire["start_terminal"]: wire["number"] for wire in drawn["wires"]}
    assert numbers["start.14"] == "3"
    assert numbers["start.13"] == "2"


def test_a_drawing_that_is_not_whole_is_not_issued_for_wiring(client):
    """One wire taken away: printed yes, issued for wiring no, with the place."""
    edit = {"id": "u-1", "kind": "remove_wire", "wire": "start.14~main.A1"}
    give(client, "starter", 1, {"standard_circuit": "3A", "edits": [edit]})
    answer = issue(client, is_for_wiring=True)
    assert (answer.status_code, answer.json()["code"]) == (422, "blocked")
    assert "S2.14" in answer.json()["detail"]
    assert issue(client).status_code == 201
    assert not Issue.objects.filter(kind="wiring").exists()


def test_an_apprentice_prints_but_does_not_issue_for_wiring(db):
    """Paper is never gated; freezing numbers needs an electrician."""
    motor(caller("here", "ann"))
    pim = signed_in(caller("here", "pim", "apprentice"))
    assert issue(pim).status_code == 201
    answer = issue(pim, is_for_wiring=True)
    assert (answer.status_code, answer.json()["code"]) == (403, "not_allowed")
