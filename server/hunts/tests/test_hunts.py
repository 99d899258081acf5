"""A hunt over the network: begun, answered, taken back, closed; who may, and what is refused."""

import json
import uuid

import pytest

from evencoil.trouble import answer_at
from hunts.fields import field_for
from hunts.models import TroubleHunt
from jobs.store import starter_of
from tests_support import JOB, caller, post, put, signed_in

HUNTS = f"{JOB}/hunts"


@pytest.fixture
def hunting(client, here):
    """A conveyor with its three-wire starter, and the field of its faults."""
    put(client, "leads", {"winding": "9-wye"})
    put(client, "starter", {"standard_circuit": "3A"})
    link = here.works.jobs.get().scope.get()
    return field_for(starter_of(link, here.works).required(), with_work=False)


def begun(client, symptom="runs_only_while_held"):
    """Begin a hunt and return it."""
    answer = post(client, HUNTS, {"symptom": symptom})
    assert answer.status_code == 200, answer.content
    return answer.json()


def told_by(field, truth, offer):
    """Return what a reading shows where one fault is there."""
    given = answer_at(field, truth, offer["id"])
    if given.word:
        return {"word": given.word}
    return {"value": given.value, "is_open": given.value >= 0.99e6}


def test_a_hunt_is_led_to_its_end_and_feeds_the_odds_of_the_plant(client, hunting):
    """The seal-in contact: found, one change, proven; the next hunt begins with it."""
    truth = "no_make:main.13-14.open"
    hunt = begun(client)
    first = {one["ids"][0]: one["percent"] for one in hunt["stands"]["groups"]}[truth]
    for _ in range(30):
        if hunt["stands"]["state"] != "hunting":
            break
        offer = hunt["stands"]["offer"]
        given = {"rev": hunt["rev"], "reading": offer["id"], **told_by(hunting, truth, offer)}
        hunt = post(client, f"{HUNTS}/1/answers", given).json()
    assert hunt["stands"]["state"] == "found"
    assert truth in hunt["stands"]["groups"][0]["ids"]
    assert hunt["stands"]["repair"]
    assert "This reading passes now" in hunt["stands"]["prove"][0]
    steps = [
        {"what": "failed", "said": "13 to 14, armature in: open"},
        {"what": "changed", "row": "no_make.auxiliary", "said": "new block"},
        {"what": "passed", "said": "0.2 ohm"},
    ]
    closed = post(client, f"{HUNTS}/1/close", {"rev": hunt["rev"], "steps": steps}).json()
    assert (closed["closed"]["is_proven"], closed["stands"]) == (True, None)
    again = begun(client)
    now = {one["ids"][0]: one["percent"] for one in again["stands"]["groups"]}[truth]
    assert now > first
    lines = client.get(HUNTS).json()
    assert [(one["n"], one["is_closed"]) for one in lines] == [(2, False), (1, True)]
    # the motor's history: another job of it tells them too, by its number
    body = json.loads(client.get(f"{JOB}/file").content)
    body["job_id"] = str(uuid.uuid4())
    made = post(client, "/api/w/here/jobs/import", {"file": json.dumps(body)})
    assert made.status_code == 201
    other = client.get(HUNTS.replace("/j/1/", "/j/2/")).json()
    assert [(one["job"], one["n"], one["is_proven"]) for one in other] == [
        (1, 2, False),
        (1, 1, True),
    ]
    assert other[1]["cause"]


def test_the_last_answer_can_be_taken_back(client, hunting):
    """It stands as before."""
    hunt = begun(client)
    offer = hunt["stands"]["offer"]
    given = {"rev": 0, "reading": offer["id"], "how": "cannot"}
    after = post(client, f"{HUNTS}/1/answers", given).json()
    assert after["taken"][0]["how"] == "cannot"
    assert after["stands"]["offer"]["id"] != offer["id"]
    back = post(client, f"{HUNTS}/1/back", {"rev": 1}).json()
    assert (back["taken"], back["stands"]["offer"]["id"]) == ([], offer["id"])


def test_two_people_never_write_over_each_other(client, hunting):
    """An answer to what was seen before another's is refused; a closed hunt never changes."""
    offer = begun(client)["stands"]["offer"]
    given = {"rev": 0, "reading": offer["id"], "how": "cannot"}
    assert post(client, f"{HUNTS}/1/answers", given).status_code == 200
    refused = post(client, f"{HUNTS}/1/answers", given)
    assert (refused.status_code, refused.json()["code"]) == (409, "changed")
    assert post(client, f"{HUNTS}/1/close", {"rev": 1, "steps": []}).status_code == 200
    assert post(client, f"{HUNTS}/1/back", {"rev": 2}).status_code == 409
    assert len(TroubleHunt.objects.get().answers) == 1


@pytest.mark.parametrize(
    ("body", "field"),
    [
        ({"reading": "ohm||x.1~x.2", "value": 1}, "reading"),
        ({"reading": "flag|overload", "word": "blue"}, "answer.word"),
        ({"reading": "flag|overload", "value": 3}, "answer.word"),
        ({"reading": "fuse|control_fuse|", "value": -1}, "value"),
    ],
)
def test_what_is_no_answer_changes_nothing(client, hunting, body, field):
    """Refused with its field; the hunt is as it was."""
    begun(client)
    refused = post(client, f"{HUNTS}/1/answers", {"rev": 0, **body})
    assert (refused.status_code, refused.json()["field"]) == (422, field)
    assert TroubleHunt.objects.get().answers == []


def test_without_a_circuit_only_the_general_order_is_known(client):
    """No starter: refused with what to do; the order by symptom is there for everyone."""
    refused = post(client, HUNTS, {"symptom": "hums"})
    assert refused.status_code == 422
    order = client.get("/api/trouble/symptoms").json()
    hums = next(one for one in order if one["id"] == "hums")
    assert hums["causes"][0].startswith("lost phase")
    assert post(client, HUNTS, {"symptom": "sings"}).json()["field"] == "symptom"


def test_a_reading_of_wires_that_were_changed_counts_no_more(client, hunting):
    """A wire moved in mid-hunt: what was read on its net is told as past, the rest stays."""
    begun(client)
    reading = "ohm|push_in.main.|main.13~main.14"
    post(client, f"{HUNTS}/1/answers", {"rev": 0, "reading": reading, "is_open": True})
    flag = {"rev": 1, "reading": "flag|overload", "word": "flag_ok"}
    assert [one["counts"] for one in post(client, f"{HUNTS}/1/answers", flag).json()["taken"]] == [
        True,
        True,
    ]
    edit = {
        "id": "11111111-1111-4111-8111-111111111111",
        "kind": "remove_wire",
        "wire": "start.13~main.13",
    }
    body = {"standard_circuit": "3A", "edits": [edit]}
    assert put(client, "starter", body, 1).status_code == 200
    after = client.get(f"{HUNTS}/1").json()
    assert [one["counts"] for one in after["taken"]] == [False, True]


def test_it_says_whether_the_panel_is_proven_dead(client, hunting):
    """Without a lock and a round of proof it is not."""
    assert begun(client)["is_proven_dead"] is False


def test_another_works_sees_nothing_and_an_apprentice_closes_nothing(client, hunting):
    """404 across works; an apprentice reads and answers, an electrician closes."""
    begun(client)
    other = signed_in(caller("there", "eve", "admin"))
    assert other.get(f"{HUNTS}/1").status_code == 404
    apprentice = signed_in(caller("here", "pim", "apprentice"))
    assert apprentice.get(f"{HUNTS}/1").status_code == 200
    refused = post(apprentice, f"{HUNTS}/1/close", {"rev": 0, "steps": []})
    assert refused.status_code == 403


def test_what_is_this_circuit(client):
    """A reversing starter that reverses without STOP; what is no operation is refused."""
    found = post(client, "/api/trouble/which", {"seen": {"other_running": "reverses"}}).json()
    assert {"6B", "6C"} <= {one["circuit"] for one in found["best"]}
    assert "opening contact" in found["why"]
    refused = post(client, "/api/trouble/which", {"seen": {"dance": "yes"}})
    assert (refused.status_code, refused.json()["field"]) == (422, "seen.dance")
