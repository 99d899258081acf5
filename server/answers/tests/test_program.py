"""The program of a programmable relay over the API: read, drawn, filed, kept with its job."""

import pytest

from tests_support import PLATE, caller, motor, signed_in

JOB = "/api/w/here/m/IC-2/j/1"
SEAL = "VAR Run : BOOL; END_VAR\nRun := (I2 OR Run) AND I1;\nQ1 := Run;\n"


@pytest.fixture
def client(db):
    """Ann, signed in, with a motor."""
    who = caller("here", "ann")
    motor(who)
    return signed_in(who)


def sent(client, path, body, **more):
    """Post JSON."""
    return client.post(f"/api/{path}", body, content_type="application/json", **more)


def test_a_text_is_read_as_it_is_typed(client):
    """Rungs and names of a good one; of a bad one every place, and no rungs."""
    told = sent(client, "program/read", {"text": SEAL}).json()
    assert told["wrong"] == []
    assert told["rungs"][1] == {"when": {"no": "Run"}, "coil": "Q1"}
    assert {one["name"]: one["type"] for one in told["names"]} == {"Run": "BOOL"}
    bad = sent(client, "program/read", {"text": "Q1 := Start;\nI1 := TRUE;\n"}).json()
    assert [(one["code"], one["line"], one["column"]) for one in bad["wrong"]] == [
        ("undeclared", 1, 7),
        ("readonly", 2, 1),
    ]
    assert bad["rungs"] == []


def test_a_relay_of_its_own_size(client):
    """Q5 of a relay with four outputs is no point; with eight it is."""
    body = {"text": "Q5 := I1;\n", "points": {"inputs": 8, "outputs": 4, "analog": 0}}
    assert sent(client, "program/read", body).json()["wrong"][0]["code"] == "undeclared"
    body["points"]["outputs"] = 8
    assert sent(client, "program/read", body).json()["wrong"] == []


def test_rungs_become_text(client):
    """A contact more; a rung that is none is refused and changes nothing."""
    rungs = [{"when": {"series": [{"no": "Run"}, {"nc": "I3"}]}, "coil": "Q1"}]
    told = sent(client, "program/read", {"text": SEAL, "rungs": rungs}).json()
    assert told["text"].endswith("Q1 := Run AND NOT I3;\n")
    broken = sent(client, "program/read", {"text": SEAL, "rungs": [{"coil": "Q1"}]}).json()
    assert broken["wrong"][0]["code"] == "syntax"
    assert broken["text"] == SEAL


def test_a_file_goes_out_and_comes_in(client):
    """As text and as a ladder; a document type is refused with its line."""
    for form in ("ST", "LD"):
        made = sent(client, f"program/xml?form={form}", {"text": SEAL})
        assert made.status_code == 200
        told = sent(client, "program/file", {"data": made.content.decode()}).json()
        assert told["text"].endswith("Run := (I2 OR Run) AND I1;\nQ1 := Run;\n")
    bomb = '<?xml version="1.0"?>\n<!DOCTYPE a [<!ENTITY b "c">]>\n<a>&b;</a>'
    refused = sent(client, "program/file", {"data": bomb}).json()
    assert (refused["wrong"][0]["code"], refused["wrong"][0]["line"]) == ("xml-doctype", 2)
    assert refused["text"] == ""


def test_ten_thousand_statements_are_refused_at_once(client):
    """At the first too many."""
    told = sent(client, "program/read", {"text": "Q1 := I1;\n" * 10_000}).json()
    assert (told["wrong"][0]["code"], told["wrong"][0]["line"]) == ("limit", 2001)


def put(client, body, based_on):
    """Save the starter."""
    return client.put(
        f"{JOB}/starter", {"based_on": based_on, "body": body}, content_type="application/json"
    )


def test_a_program_is_kept_with_its_job_and_checked_with_its_circuit(client):
    """It comes back with the drawing, its points with their wires; a broken one is refused."""
    starter = {"standard_circuit": "13A", "programs": {"program_relay": "Q1 := I1;\n"}}
    assert put(client, starter, 0).status_code == 200
    given = {
        "plate": {"text": PLATE},
        "supply": {"text": "480Y/277"},
        "leads": {"winding": "9-wye"},
        "starter": starter,
    }
    (relay,) = sent(client, "w/here/circuit", given).json()["relays"]
    assert relay["program"] == "Q1 := I1;\n"
    points = {one["point"]: one for one in relay["io"]}
    assert points["I1"]["wire"] == "3"
    assert points["I1"]["device"] == "SS1.14"
    assert points["Q1"]["terminal"] == "PL1.Q1.2"
    broken = {**starter, "programs": {"program_relay": "Q1 := Start;\n"}}
    refused = put(client, broken, 1)
    assert refused.status_code == 422
    assert "not declared" in refused.json()["detail"]
    again = client.get(JOB).json()["starter"]["programs"]
    assert again == {"program_relay": "Q1 := I1;\n"}


def test_two_versions_are_compared_line_by_line(client):
    """What stayed, went and came; more lines than are compared are refused."""
    told = sent(client, "program/compare", {"old": SEAL, "new": SEAL.replace("I1", "I3")}).json()
    assert [(one["what"], one["text"]) for one in told[1:3]] == [
        ("gone", "Run := (I2 OR Run) AND I1;"),
        ("new", "Run := (I2 OR Run) AND I3;"),
    ]
    long = sent(client, "program/compare", {"old": SEAL, "new": "\n" * 3001})
    assert long.status_code == 422
    assert "3000" in long.json()["detail"]
