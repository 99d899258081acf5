"""A whole day over the network: from lock to signature, and what must not get through."""

import hashlib
import uuid

import pytest
from django.core.cache import caches
from panel_day import REHEARSED, Day, Tablet, panel_of

from answers.dead import dead_checks_of
from jobs.store import starter_of
from panel.models import Act
from paper.models import Issue
from people.models import Works
from tests_support import JOB, WORD, post, put

PASSWORD = WORD


@pytest.fixture
def wired(people):
    """The conveyor rehearsed, wired, read and closed up, ready for its first stage."""
    electrician = people["electrician"]
    assert post(electrician, f"{JOB}/panel/rehearsal", REHEARSED).status_code == 200
    day = Day(Tablet(electrician, "t1"))
    day.lock()
    day.land()
    day.read()
    day.close_up()
    return day


@pytest.fixture
def run(wired):
    """The same, energized in stages to its load."""
    for stage in ("control", "bump", "unloaded", "loaded"):
        # control alone keeps the line locked
        if stage == "control":
            wired.do("lock_on", {"isolator": "breaker"}, {"place": "isolator", "lock_no": "14"})
            wired.do("people_clear", {}, {"locks_left": "0"})
        wired.stage(stage)
        if stage == "control":
            wired.close_up()
        wired.do("people_clear", {}, {"locks_left": "0"})
    return wired


def signature(client, panel, **more):
    """Return what a reviewer sends to sign what is seen."""
    return {
        "uid": str(uuid.uuid4()),
        "device": "desk",
        "rev": panel["rev"],
        "based_on": panel["heads"],
        "license": "EL-1182",
        "accepts": [],
        **more,
    }


def reauthenticate(client):
    """Give the password again, as the browser does."""
    answer = post(client, "/api/auth/browser/v1/auth/reauthenticate", {"password": PASSWORD})
    assert answer.status_code == 200, answer.content


def test_without_a_rehearsal_no_stage_opens(people):
    """Not played, or played without a stop: it says what is missing and records nothing."""
    electrician = people["electrician"]
    refused = post(electrician, f"{JOB}/panel/rehearsal", {"actions": [], "until": 5_000_000})
    assert refused.status_code == 422
    assert "never ran" in refused.json()["detail"]
    running = {**REHEARSED, "actions": REHEARSED["actions"][:2]}
    assert "still runs" in post(electrician, f"{JOB}/panel/rehearsal", running).json()["detail"]
    assert "that no rehearsal is on record" in panel_of(electrician)["blocked"]
    panel = post(electrician, f"{JOB}/panel/rehearsal", REHEARSED).json()
    assert "that no rehearsal is on record" not in panel["blocked"]
    # another drawing was never rehearsed
    put(electrician, "starter", {"standard_circuit": "3B"}, 1)
    assert "that no rehearsal is on record" in panel_of(electrician)["blocked"]


def test_the_stages_in_their_order_make_it_fit_to_run(run):
    """Control, bump, unloaded, loaded: each with its readings; then nothing is open."""
    assert [one["state"] for one in run.panel["stages"]] == ["ok"] * 4
    assert run.panel["is_fit"], run.panel["open_said"]
    assert run.panel["state"] == "fit_to_run"


def test_a_reading_out_of_bounds_makes_its_stage_wrong(wired):
    """380 V on a 460 V motor: 8 percent under what its nameplate stands."""
    wired.do("lock_on", {"isolator": "breaker"}, {"place": "isolator", "lock_no": "14"})
    wired.do("people_clear", {}, {"locks_left": "0"})
    wired.stage("control")
    wired.close_up()
    wired.stage("bump")
    wired.do("people_clear", {}, {"locks_left": "0"})
    wired.do("stage_opened", {"stage": "unloaded"})
    opened = next(one["opened"] for one in wired.panel["stages"] if one["id"] == "unloaded")
    wired.do("volts", {"opened": opened, "at": "L1-L2"}, {"value": "380", "unit": "V"})
    stage = next(one for one in wired.panel["stages"] if one["id"] == "unloaded")
    read = next(one for one in stage["results"] if one["id"] == "volts@L1-L2")
    assert (read["min"], read["max"], read["value"], read["verdict"]) == (
        "414",
        "506",
        "380",
        "wrong",
    )


def test_like_joints_are_held_against_each_other(wired):
    """Three joints of one contactor: 41, 43 and 60 C; the third is 19 K warmer, to be mended now."""
    wired.do("lock_on", {"isolator": "breaker"}, {"place": "isolator", "lock_no": "14"})
    wired.do("people_clear", {}, {"locks_left": "0"})
    wired.stage("control")
    wired.close_up()
    for stage in ("bump", "unloaded"):
        wired.stage(stage)
        wired.do("people_clear", {}, {"locks_left": "0"})
    wired.do("stage_opened", {"stage": "loaded"})
    loaded = next(one for one in wired.panel["stages"] if one["id"] == "loaded")
    for line, value, says in (("L1", "41", None), ("L2", "43", "2 K"), ("L3", "60", "19 K")):
        about = {"opened": loaded["opened"], "at": f"KM1 {line}"}
        wired.do("joint_check", about, {"value": value, "unit": "C"})
        told = next(one["told"] for one in wired.panel["stages"] if one["id"] == "loaded")
        assert (says is None and not told) or any(says in text for text in told)
    assert any("KM1 L3" in text and "mend it now" in text for text in told)


def test_leads_are_rolled_in_the_drawing_and_told_apart(wired):
    """L2 reads high, the leads go on by one, L1 reads high: it went with the lead."""
    wired.do("lock_on", {"isolator": "breaker"}, {"place": "isolator", "lock_no": "14"})
    wired.do("people_clear", {}, {"locks_left": "0"})
    wired.stage("control")
    wired.close_up()
    wired.stage("bump")
    wired.do("people_clear", {}, {"locks_left": "0"})

    def read(*amps):
        wired.do("stage_opened", {"stage": "unloaded"})
        opened = next(one["opened"] for one in wired.panel["stages"] if one["id"] == "unloaded")
        for line, value in zip(("L1", "L2", "L3"), amps, strict=True):
            wired.do("amps", {"opened": opened, "at": line}, {"value": value, "unit": "A"})
        stage = next(one for one in wired.panel["stages"] if one["id"] == "unloaded")
        wired.do("stage_closed", {"opened": opened}, {"result": "stopped"})
        return stage

    assert read("8.0", "10.4", "8.0")["remedy"] == "roll"
    roll = wired.panel["roll"]
    assert len(roll["wires"]) == 3
    wired.lock()
    before = {one["id"]: {one["start"], one["end"]} for one in wired.panel["wires"]}
    wired.do("swap_done", {"wires": roll["wires"]}, {"roll": True})
    after = {one["id"]: {one["start"], one["end"]} for one in wired.panel["wires"]}
    assert {name for name in before if before[name] != after.get(name)} == set(roll["wires"])
    wired.land()
    works = Works.objects.get(slug="here")
    dead_checks_of(starter_of(works.jobs.get().scope.get(), works).required())
    wired.panel = panel_of(wired.tablet.client)
    wired.read()
    wired.close_up()
    wired.do("lock_on", {"isolator": "breaker"}, {"place": "isolator", "lock_no": "14"})
    wired.do("people_clear", {}, {"locks_left": "0"})
    wired.stage("control")
    wired.close_up()
    wired.stage("bump")
    wired.do("people_clear", {}, {"locks_left": "0"})
    stage = read("10.4", "8.0", "8.0")
    assert any("went with its lead" in text for text in stage["told"])
    assert stage["remedy"] == ""


def test_results_of_stages_are_in_the_table_of_readings(run):
    """With their stage, place, bounds and verdict, as every reading."""
    table = run.tablet.client.get(f"{JOB}/panel/readings.csv").content.decode()
    lines = [line for line in table.splitlines() if "loaded.volts@L1-L2" in line]
    assert len([one for one in lines if ",loaded.volts" in one]) == 1
    assert ",V," in lines[-1]
    assert ",414,506,yes," in lines[-1]
    assert sum("control.control_result" in line for line in table.splitlines()) >= 3


def test_a_practice_meter_reads_the_drawing_and_keeps_nothing(people):
    """Near zero on a wire; no panel is proven dead by it, and no entry is made."""
    electrician = people["electrician"]
    panel = panel_of(electrician)
    bounds = {one["id"]: one for one in panel["expected"]}
    row = next(one for one in panel["rows"] if bounds[one["id"]]["max"] == "1")
    asked = f"{JOB}/panel/practice?kind=dead_reading&read_at={row['id']}"
    shown = electrician.get(asked).json()
    assert shown["unit"] == "ohm"
    assert shown["verdict"] == "good"
    refused = electrician.get(f"{JOB}/panel/practice?kind=dead_point&read_at=x")
    assert refused.status_code == 422
    assert "real meter" in refused.json()["hint"]
    assert panel_of(electrician)["entries"] == panel["entries"]


def test_the_wrong_way_is_swapped_in_drawing_and_stages(wired):
    """Close, lock, prove, swap: two wires have other ends, are landed anew, and it is bumped anew."""
    wired.do("lock_on", {"isolator": "breaker"}, {"place": "isolator", "lock_no": "14"})
    wired.do("people_clear", {}, {"locks_left": "0"})
    wired.stage("control")
    wired.close_up()
    wired.stage("bump", turn="counterclockwise")
    assert wired.state_of("bump") == "wrong"
    swap = wired.panel["swap"]
    assert "L1 and L3" in swap["said"]
    wired.do("swap_done", {"wires": swap["wires"]}, {}, answer="kept:not_proven")
    wired.lock()
    before = {one["id"]: (one["start"], one["end"]) for one in wired.panel["wires"]}
    wired.do("swap_done", {"wires": swap["wires"]}, {"lines": "L1-L3"})
    after = {one["id"]: (one["start"], one["end"]) for one in wired.panel["wires"]}
    moved = {name for name, ends in after.items() if ends != before[name]}
    assert moved == set(swap["wires"])
    states = {one["id"]: one["state"] for one in wired.panel["wires"]}
    assert {states[name] for name in moved} <= {"stale", "not_done"}
    # what was rehearsed was tried again on the new drawing
    assert "that no rehearsal is on record" not in wired.panel["blocked"]
    wired.land()
    states = {one["id"]: one["state"] for one in wired.panel["wires"]}
    assert set(states.values()) == {"done"}


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


def test_open_items_stop_a_signature(people):
    """A job that was not even locked is not signed."""
    reviewer = people["reviewer"]
    panel = panel_of(reviewer)
    reauthenticate(reviewer)
    refused = post(reviewer, f"{JOB}/panel/sign", signature(reviewer, panel))
    assert refused.json()["field"] == "refused:open_items"


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


def test_another_persons_lock_goes_by_procedure_alone(people):
    """By a reviewer, with reason, what was tried, area checked, and a third as witness."""
    owner = Tablet(people["electrician"], "t1")
    _, panel = owner.do("lock_on", {"isolator": "breaker"}, {"place": "isolator", "lock_no": "7"})
    lock = panel["locks"][0]["id"]
    whole = {"reason": "went home", "tried": "phoned twice", "area_checked": True, "witness": "pim"}
    reviewer = Tablet(people["reviewer"], "r1")
    for missing in ("reason", "tried", "area_checked", "witness"):
        body = {**whole, missing: ""}
        made = reviewer.made("foreign_lock_removed", {"lock": lock}, body)
        refused = post(reviewer.client, f"{JOB}/panel/online", made)
        assert refused.json()["field"] == "refused:reason_missing", missing
    # the owner is no witness
    made = reviewer.made("foreign_lock_removed", {"lock": lock}, {**whole, "witness": "marta"})
    assert post(reviewer.client, f"{JOB}/panel/online", made).status_code == 422
    made = reviewer.made("foreign_lock_removed", {"lock": lock}, whole)
    assert post(people["electrician"], f"{JOB}/panel/online", made).status_code == 422
    panel = post(reviewer.client, f"{JOB}/panel/online", made).json()
    assert panel["locks"][0]["state"] == "off"
    told = panel_of(people["electrician"])["told"]
    assert any("Your lock was removed by procedure" in text for text in told)


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


def test_a_coil_that_was_read_narrows_its_rows(people):
    """40 ohm typed: the next revision holds rows through it within 15 percent."""
    day = Day(Tablet(people["electrician"], "t1"))
    day.lock()
    wide = {one["id"]: one for one in day.panel["expected"]}
    day.do("coil_ohms", {"item": "main"}, {"value": "40", "unit": "ohm"})
    assert day.panel["coils"] == [{"id": "main", "said": "KM1", "ohms": "40"}]
    assert day.panel["rev"] == 2
    narrow = [one for one in day.panel["expected"] if one != wide.get(one["id"])]
    assert narrow
    for one in narrow:
        assert float(one["max"]) < 1.5 * float(one["min"])


def test_a_wire_found_elsewhere_moves_in_the_drawing(people):
    """The edit names who found it; the wire is landed anew where it is, and its rows read anew."""
    day = Day(Tablet(people["electrician"], "t1"))
    day.lock()
    wire = next(one for one in day.panel["wires"] if one["id"] == "stop.12~start.13")
    about = {"wire": wire["id"], "ends": [wire["start"], wire["end"]]}
    day.do("landed", about, {"ok": True})
    body = {"found": "S2.14", "from_end": "start.13", "to_end": "start.14"}
    day.do("different_here", about, body)
    moved = next(one for one in day.panel["wires"] if one["id"] == wire["id"])
    assert {moved["start"], moved["end"]} == {"stop.12", "start.14"}
    assert moved["state"] != "done"
    edits = people["electrician"].get(JOB).json()["starter"]["edits"]
    assert (edits[-1]["kind"], edits[-1]["by"]) == ("move_end", "marta")
    # a terminal that is on no drawing, and an end that the wire does not have, change nothing
    before = len(edits)
    for wrong in (
        {"from_end": "stop.12", "to_end": "moon.1"},
        {"from_end": "x.1", "to_end": "start.13"},
    ):
        day.do("different_here", about, {"found": "?", **wrong})
    assert len(people["electrician"].get(JOB).json()["starter"]["edits"]) == before
    land = {"wire": moved["id"], "ends": [moved["start"], moved["end"]]}
    day.do("landed", land, {"ok": True})
    assert next(one for one in day.panel["wires"] if one["id"] == wire["id"])["state"] == "done"


def test_a_wrong_reading_names_its_wires(people):
    """Open where it must be near zero: the row says which wires it goes through."""
    day = Day(Tablet(people["electrician"], "t1"))
    day.lock()
    bounds = {one["id"]: one for one in day.panel["expected"]}
    row = next(
        one
        for one in day.panel["rows"]
        if (bounds[one["id"]]["min"], bounds[one["id"]]["max"]) == ("0", "1") and one["wires"]
    )
    day.do("dead_reading", {"row": row["id"]}, {"value": "OL", "unit": "ohm"})
    read = next(one for one in day.panel["rows"] if one["id"] == row["id"])
    assert read["state"] == "wrong"
    assert set(read["wires"]) <= {one["id"] for one in day.panel["wires"]}


def test_the_plant_rules_change_what_is_asked(people):
    """Nothing torqued, everything seen by a second person: other states, a new revision."""
    day = Day(Tablet(people["electrician"], "t1"))
    assert any(one["needs_torque"] for one in day.panel["wires"])
    rules = {"torque_record": "none", "second_person": "all"}
    answer = people["reviewer"].patch(
        "/api/w/here/rules", data=rules, content_type="application/json"
    )
    assert answer.status_code == 200, answer.content
    day.panel = panel_of(people["electrician"])
    assert not any(one["needs_torque"] for one in day.panel["wires"])
    day.lock()
    wire = day.panel["wires"][0]
    about = {"wire": wire["id"], "ends": [wire["start"], wire["end"]]}
    day.do("landed", about, {"ok": True})
    assert day.panel["wires"][0]["state"] == "unchecked"
    # the same person is no second one
    day.do("landed", about, {"ok": True, "check": True})
    assert day.panel["wires"][0]["state"] == "unchecked"
