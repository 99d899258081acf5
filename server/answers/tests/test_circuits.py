"""Starter, drawings and rehearsal over the API."""

import pytest

from evencoil.starters import catalogue
from jobs.models import InputVersion
from people.models import Works
from tests_support import PLATE, caller, motor, signed_in

JOB = "/api/w/here/m/IC-2/j/1"
GIVEN = {
    "plate": {"text": PLATE},
    "supply": {"text": "480Y/277"},
    "leads": {"winding": "9-wye"},
    "starter": {"standard_circuit": "3A"},
}


@pytest.fixture
def client(db):
    """Ann, signed in, with a motor."""
    who = caller("here", "ann")
    motor(who)
    return signed_in(who)


def post(client, path, body):
    """Post JSON."""
    return client.post(f"/api/w/here/{path}", body, content_type="application/json")


def test_the_catalogue_says_what_each_circuit_is_for(client):
    """Every circuit with purpose, use and what it is not for."""
    circuits = client.get("/api/w/here/catalogue").json()["circuits"]
    three = next(item for item in circuits if item["id"] == "3A")
    assert len(circuits) == 51
    assert three["group_label"] == "Three-wire, start-stop"
    assert "START" in three["purpose"]


def test_a_drawn_circuit_comes_with_geometry_lists_and_devices(client):
    """Ratings stand on the sizes; every shape says what it belongs to."""
    said = post(client, "circuit", GIVEN).json()
    assert said["ladder"]["twin"][0].startswith("1: 1 – [S1 11-12 nc]")
    numbers = {wire["net"]: wire["number"] for wire in said["wires"]}
    drawn = {shape["net"] for shape in said["ladder"]["shapes"]} - {""}
    assert {numbers[net] for net in drawn} > {"1", "2", "3", "X2"}
    rated = {row["device"]: row["ratings"] for row in said["material"]}
    setting = next(item for item in rated["overload"] if item["name"] == "setting")
    assert (setting["value"], setting["step"]) == ("19.3", "plate_amps_a")
    start = next(item for item in said["devices"] if item["id"] == "start")
    assert start["verbs"] == ["press", "release"]
    states = post(client, "work-out", GIVEN).json()["states"]
    assert [(item["step"], item["state"]) for item in states[4:]] == [
        ("starter", "done"),
        ("drawings", "done"),
        ("check", "open"),
        ("rehearse", "open"),
    ]
    # one of them grounds the motor's frame
    assert "46 WIRES" in states[5]["headline"]
    assert [wire["end"] for wire in said["wires"] if wire["end"] == "M1.PE"] == ["M1.PE"]


def test_a_starter_that_cannot_do_is_held_with_one_reason(client):
    """Star-delta on nine leads: drawn, and the reason is the first thing said."""
    body = {**GIVEN, "starter": {"standard_circuit": "7A"}}
    said = post(client, "circuit", body).json()
    assert said["findings"][0]["level"] == "refusal"
    assert "Needs a motor with 6 or 12 leads" in said["findings"][0]["text"]
    states = post(client, "work-out", body).json()["states"]
    assert states[4]["state"] == "blocked"
    wrong = post(
        client, "circuit", {**GIVEN, "starter": {"standard_circuit": "3A", "options": {"x": "y"}}}
    )
    assert wrong.json()["refusal"]["detail"] == "3A has no option x."


def test_new_edits_get_their_author_and_time_and_keep_them(client):
    """Whatever the request claims: who made an edit is who was signed in then."""
    edit = {
        "id": "u-1",
        "kind": "remove_wire",
        "wire": "overload.98~lamp_trip.X1",
        "by": "Nobody",
        "why": "lamp spare",
    }
    body = {"based_on": 0, "body": {"standard_circuit": "3A", "edits": [edit]}}
    kept = client.put(f"{JOB}/starter", body, content_type="application/json").json()
    assert kept["body"]["edits"][0]["by"] == "ann"
    at = kept["body"]["edits"][0]["at"]

    marta = signed_in(caller("here", "marta"))
    again = {
        **kept["body"],
        "edits": [{**kept["body"]["edits"][0], "by": "Marta", "at": ""}, {**edit, "id": "u-2"}],
    }
    kept = marta.put(
        f"{JOB}/starter", {"based_on": 1, "body": again}, content_type="application/json"
    ).json()
    first, second = kept["body"]["edits"]
    assert (first["by"], first["at"]) == ("ann", at)
    assert second["by"] == "marta"
    assert InputVersion.objects.filter(step="starter").count() == 2


def test_a_rehearsal_goes_on_from_its_own_snapshot_only(client):
    """An act, then the next from the sealed state; a forged or foreign one is refused."""
    first = post(
        client, "rehearse", {"given": GIVEN, "actions": [{"t": 0, "do": "close", "on": "breaker"}]}
    )
    trace = first.json()
    assert trace["until"] == 10_000_000
    assert trace["frames"][-1]["motors"]["motor"]["word"] == "off"
    snapshot = trace["snapshots"][-1]
    act = {"t": 2_000_000, "do": "press", "on": "start"}
    on = post(client, "rehearse", {"given": GIVEN, "snapshot": snapshot, "actions": [act]}).json()
    assert on["frames"][-1]["motors"]["motor"]["word"] == "fwd"
    assert on["events"][0]["n"] > trace["events"][-1]["n"]

    for bad in ("x", snapshot[:-2] + "zz"):
        answer = post(client, "rehearse", {"given": GIVEN, "snapshot": bad, "actions": []})
        assert (answer.status_code, answer.json()["field"]) == (422, "snapshot")
    other = {**GIVEN, "starter": {"standard_circuit": "3A", "options": {"lamps": "none"}}}
    answer = post(client, "rehearse", {"given": other, "snapshot": snapshot, "actions": []})
    assert answer.json()["detail"] == "This snapshot belongs to another drawing."
    answer = post(client, "rehearse", {"given": {**GIVEN, "starter": {}}, "actions": []})
    assert answer.json()["detail"] == "No starter is chosen in this job."


def test_a_changed_plant_rule_is_rehearsed_on_the_changed_circuit(client):
    """A stricter limit draws a 35 A fuse for a 40 A one: the circuit of before is not played on."""
    acts = [{"t": 0, "do": "close", "on": "breaker"}]

    def played():
        said = post(client, "circuit", GIVEN).json()
        rating = next(
            item["value"]
            for row in said["material"]
            for item in row["ratings"]
            if row["device"] == "breaker" and item["step"] == "protection_device_a"
        )
        trace = post(client, "rehearse", {"given": GIVEN, "actions": acts}).json()
        return rating, trace["fingerprint"], trace["snapshots"][-1]

    before, first, snapshot = played()
    assert played()[:2] == (before, first)
    Works.objects.filter(slug="here").update(
        amendments=[
            {
                "subject": "no_next_size_up",
                "value": "",
                "author": "county inspector",
                "reason": "local ordinance",
            }
        ]
    )
    after, second, _ = played()
    assert (before, after) == ("40", "35")
    assert first != second
    stale = post(client, "rehearse", {"given": GIVEN, "snapshot": snapshot, "actions": []})
    assert stale.status_code == 422
    assert stale.json()["detail"] == "This snapshot belongs to another drawing."


def test_hazards_come_with_their_sentence(client):
    """Two-wire control on power return, as the screen gets it."""
    given = {**GIVEN, "starter": {"standard_circuit": "2A"}}
    acts = [
        {"t": 0, "do": "close", "on": "breaker"},
        {"t": 500_000, "do": "turn", "on": "SS1", "word": "AUTO"},
        {"t": 1_000_000, "do": "on", "on": "PS1"},
        {"t": 3_000_000, "do": "dip", "word": "1"},
    ]
    trace = post(client, "rehearse", {"given": given, "actions": acts}).json()
    assert trace["hazards"][0]["name"] == "UNEXPECTED START"
    assert trace["hazards"][0]["sentence"].startswith("power back → KM1 pulls in")


def test_drawings_as_svg(client):
    """Both drawings of the kept starter; without one, a clear refusal."""
    answer = client.get(f"{JOB}/drawing/ladder.svg")
    assert (answer.status_code, answer.json()["code"]) == (422, "missing")
    body = {"based_on": 0, "body": {"standard_circuit": "3A"}}
    client.put(f"{JOB}/starter", body, content_type="application/json")
    for which in ("ladder", "power"):
        answer = client.get(f"{JOB}/drawing/{which}.svg")
        assert answer.headers["Content-Type"] == "image/svg+xml"
        assert answer.content.startswith(b"<svg")


def test_dead_checks_are_worked_out_and_a_wrong_reading_is_explained(client):
    """STOP to START reads open where it should be near zero: the wire between is missing."""
    given = {"starter": {"standard_circuit": "3A"}}
    found = client.post("/api/w/here/dead", given, content_type="application/json").json()
    assert found["apart"] == ["FU1 out", "FU2 out", "FU3 out", "leads of M1 off"]
    assert found["shown"] + len(found["blind"]) == found["mistakes"]
    assert found["untold"] == []
    assert found["suspects"] == []
    pair = next(check for check in found["checks"] if "S2.13 – KM1.13" in str(check["wires"]))
    hands = [{key: hand[key] for key in ("verb", "device", "word")} for hand in pair["hands"]]
    reading = {"start": pair["start"], "end": pair["end"], "hands": hands, "ohms": None}
    given["starter"]["readings"] = [reading]
    told = client.post("/api/w/here/dead", given, content_type="application/json").json()
    assert told["readings"] == [{"holds": False}]
    assert any("S2.13 – KM1.13 is open" in one["text"] for one in told["suspects"])
    work = client.post("/api/w/here/work-out", given, content_type="application/json").json()
    state = next(item for item in work["states"] if item["step"] == "check")
    assert (state["state"], state["headline"]) == ("blocked", "1 OF 1 READINGS DIFFER")
    nothing = client.post("/api/w/here/dead", {}, content_type="application/json").json()
    assert nothing["checks"] == []


def test_probes_say_what_was_searched_and_what_breaks_it(client):
    """Two-wire control starts when power comes back; a three-wire starter does not."""
    found = {}
    for circuit_id in ("2A", "3A"):
        body = {"starter": {"standard_circuit": circuit_id}}
        said = client.post("/api/w/here/probes", body, content_type="application/json").json()
        found[circuit_id] = {one["family"]: one for one in said}
    two, three = found["2A"]["power_back"], found["3A"]["power_back"]
    # one way to start, and the power gone for a moment and for a while
    assert (two["holds"], three["holds"], three["searched"]) == (False, True, 2)
    assert two["sequence"][-1] == "power off and back"
    assert "no one pressed anything" in two["chain"][-1]
    assert client.post("/api/w/here/probes", {}, content_type="application/json").json() == []


@pytest.mark.parametrize("circuit", sorted(catalogue()))
@pytest.mark.parametrize("style", ["nema", "iec"])
def test_every_standard_circuit_has_a_picture_to_choose_by(client, circuit, style):
    """Drawn with its usual options, its wires and devices counted."""
    answer = client.get(f"/api/w/here/catalogue/{circuit}/picture", {"style": style})
    assert answer.status_code == 200
    drawn = answer.json()
    assert drawn["power"]["shapes"]
    assert drawn["wires"] > 0
    # the catalogue knows no job's supply
    assert not [shape["t"] for shape in drawn["power"]["shapes"] if shape["t"].endswith(" V")]
    assert drawn["devices"]


def test_no_picture_of_a_circuit_that_is_not_there(client):
    """A name that is in no catalogue is not found."""
    assert client.get("/api/w/here/catalogue/99Z/picture").status_code == 404


def test_a_picture_is_in_the_words_of_its_own_plant(client):
    """What one plant calls a device is not shown to another that asks after it."""
    there = signed_in(caller("there", "bob"))
    Works.objects.filter(slug="there").update(trade_terms="iec")
    said = {
        slug: who.get(f"/api/w/{slug}/catalogue/3A/picture").json()["devices"]
        for slug, who in (("here", client), ("there", there))
    }
    assert "1 × circuit breaker" in said["here"]
    assert "1 × circuit breaker (MCB, MCCB)" in said["there"]
