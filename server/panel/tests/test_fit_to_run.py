"""A panel that is fit to run, and signed: each test goes on from the same day, laid once."""

import hashlib
import uuid

import pytest
from django.core.cache import caches
from laid_day import laid_until
from panel_day import Tablet, panel_of, reauthenticate, signature

from panel.models import Act
from paper.models import Issue
from tests_support import JOB, post


@pytest.fixture(scope="module")
def laid(django_db_setup, django_db_blocker):
    """The conveyor energized in stages to its load."""
    with laid_until("loaded", django_db_blocker) as day:
        yield day


@pytest.fixture
def people(db, laid):
    """One client of each role, signed in anew: what a test does to a session stays its own."""
    return laid.clients()


@pytest.fixture
def run(people, laid):
    """The day as it was laid, fit to run."""
    return laid.day.again(people["electrician"])


def test_the_stages_in_their_order_make_it_fit_to_run(run):
    """Control, bump, unloaded, loaded: each with its readings; then nothing is open."""
    assert [one["state"] for one in run.panel["stages"]] == ["ok"] * 4
    assert run.panel["is_fit"], run.panel["open_said"]
    assert run.panel["state"] == "fit_to_run"


def test_results_of_stages_are_in_the_table_of_readings(run):
    """With their stage, place, bounds and verdict, as every reading."""
    table = run.tablet.client.get(f"{JOB}/panel/readings.csv").content.decode()
    lines = [line for line in table.splitlines() if "loaded.volts@L1-L2" in line]
    assert len([one for one in lines if ",loaded.volts" in one]) == 1
    assert ",V," in lines[-1]
    assert ",414,506,yes," in lines[-1]
    assert sum("control.control_result" in line for line in table.splitlines()) >= 3


def test_a_signature_covers_what_is_printed_and_a_later_entry_shows(run, people):
    """A reviewer signs in again and signs; the PDF is kept byte for byte; a lock after it shows."""
    reviewer = people["reviewer"]
    panel = panel_of(reviewer)
    refused = post(reviewer, f"{JOB}/panel/sign", signature(reviewer, panel))
    assert (refused.status_code, refused.json()["field"]) == (422, "refused:sign_in_again")
    reauthenticate(reviewer)
    unseen = signature(reviewer, {**panel, "heads": panel["heads"][:0]})
    assert post(reviewer, f"{JOB}/panel/sign", unseen).json()["field"] == (
        "refused:changed_after_opened"
    )
    no_license = signature(reviewer, panel, license="")
    assert post(reviewer, f"{JOB}/panel/sign", no_license).json()["field"] == (
        "refused:license_missing"
    )
    assert not Issue.objects.filter(kind="signed").exists()
    signed = post(reviewer, f"{JOB}/panel/sign", signature(reviewer, panel))
    assert signed.status_code == 200, signed.content
    told = signed.json()
    assert (told["state"], told["signature"], told["signed_issue"]) == ("signed", "as_signed", 1)
    issue = Issue.objects.get(kind="signed")
    assert hashlib.sha256(bytes(issue.pdf)).hexdigest() == issue.sha256
    entry = Act.objects.get(kind="signed")
    assert entry.body["pdf_sha256"] == issue.sha256
    assert len(entry.body["fingerprint"]) == 64
    run.tablet.seen = told["heads"]
    run.do("lock_on", {"isolator": "breaker"}, {"place": "isolator", "lock_no": "9"})
    assert (run.panel["signature"], run.panel["after_signing"]) == ("changed", ["lock on, marta"])
    # the issue is what it was
    again = reviewer.get(f"{JOB}/issues/1/pdf")
    assert hashlib.sha256(again.content).hexdigest() == issue.sha256


def test_only_a_reviewer_signs(run, people):
    """Nobody below, nor an admin by that role; nothing is printed for them."""
    for who in ("apprentice", "electrician", "admin"):
        reauthenticate(people[who])
        panel = panel_of(people[who])
        refused = post(people[who], f"{JOB}/panel/sign", signature(people[who], panel))
        assert (refused.status_code, refused.json()["field"]) == (422, "refused:role"), who
    assert not Issue.objects.exists()


def test_a_signature_cannot_be_sent_as_an_entry(run, people):
    """A body that says it was signed in again, sent with the rest, is refused."""
    tablet = Tablet(people["reviewer"], "r1")
    tablet.seen = panel_of(tablet.client)["heads"]
    forged = tablet.made("signed", {}, {"reauth": True, "license": "X", "accepts": []})
    answers, panel = tablet.send({**forged, "is_online": True})
    assert answers == ["refused:online_only"]
    assert panel["signature"] == "none"


def test_a_forgotten_calculation_reopens_nothing(run, people):
    """The ohm readings are thrown away (a new version of the program): what was read stays read."""
    caches["answers"].clear()
    rules = {"two_sign": False}
    answer = people["reviewer"].patch(
        "/api/w/here/rules", data=rules, content_type="application/json"
    )
    assert answer.status_code == 200
    panel = panel_of(people["electrician"])
    assert panel["rev"] > run.panel["rev"]
    assert (panel["state"], panel["open_said"]) == ("fit_to_run", [])


def test_sent_back_is_open_until_it_is_answered(run, people):
    """The question stands at its figure; a signature waits for the answer."""
    reviewer, figure = people["reviewer"], "protection_device_a"
    tablet = Tablet(reviewer, "r1")
    tablet.seen = panel_of(reviewer)["heads"]
    asked = tablet.made("sent_back", {"figure": figure}, {"question": "Why 40 A?"})
    electrician = post(people["electrician"], f"{JOB}/panel/online", asked)
    assert electrician.json()["field"] == "refused:role"
    asked["uid"] = str(uuid.uuid4())
    panel = post(reviewer, f"{JOB}/panel/online", asked).json()
    assert not panel["is_fit"]
    assert any("Why 40 A?" in text for text in panel["open_said"])
    run.tablet.seen = panel["heads"]
    run.do("review_asked", {}, {"text": "Next size up, plant rule."})
    assert run.panel["is_fit"]
    review = reviewer.get(f"{JOB}/panel/review").json()
    assert review["is_fit"]
    assert review["items"], "assumed figures are there to be judged"


def test_a_second_trip_asks_volts_and_amps_before_a_reset(run):
    """The first is reset by an electrician; the second waits for both readings."""

    def trip():
        run.do("trip", {"device": "overload"}, {"load": "full", "ambient": "35", "ran_s": "600"})

    trip()
    device = next(one for one in run.panel["devices"] if one["id"] == "overload")
    assert (device["trips"], device["is_tripped"]) == (1, True)
    run.do("reset", {"device": "overload"}, {"waited_s": "300"})
    trip()
    run.do("reset", {"device": "overload"}, {"waited_s": "300"}, answer="refused:blocked:volts")
    device = next(one for one in run.panel["devices"] if one["id"] == "overload")
    assert (device["trips"], device["is_tripped"]) == (2, True)
    # a motor in service has no stage: both are read of the trip itself, and then it is reset
    trips = [one["id"] for one in run.panel["entries"] if one["kind"] == "trip"]
    run.do("volts", {"trip": trips[1]}, {"value": "471", "unit": "V"})
    run.do("reset", {"device": "overload"}, {"waited_s": "300"}, answer="refused:blocked:amps")
    run.do("amps", {"trip": trips[1]}, {"value": "23", "unit": "A"})
    run.do(
        "amps",
        {"trip": "no such entry"},
        {"value": "23", "unit": "A"},
        answer="refused:no_such_entry",
    )
    run.do("reset", {"device": "overload"}, {"waited_s": "300"})
    device = next(one for one in run.panel["devices"] if one["id"] == "overload")
    assert (device["trips"], device["is_tripped"]) == (2, False)
