"""At the panel over the network: locks, proof, landing; two people; nothing lost or forged."""

import csv
import io

import pytest
from panel_day import Tablet, panel_of

from answers.dead import dead_checks_of
from jobs.store import starter_of
from panel.models import Act, PanelRevision
from people.models import Member, User
from tests_support import JOB, caller, motor, post, put, signed_in


def test_lock_prove_and_land(people):
    """From not locked to hands in; what is done is told back with who did it."""
    tablet = Tablet(people["electrician"], "t1")
    panel = panel_of(tablet.client)
    assert (panel["state"], panel["hands"], panel["rev"]) == ("not_locked", [], 1)
    assert tablet.client.get(f"{JOB}/panel/strip").json() == {"state": "", "locks": []}
    wire = panel["wires"][0]
    ends = [wire["start"], wire["end"]]
    answer, after = tablet.do("landed", {"wire": wire["id"], "ends": ends}, {"ok": True})
    assert answer == "kept:not_proven"
    assert after["wires"][0]["state"] == "not_done"
    assert any("kept in doubt" in told for told in after["told"])
    _, panel = tablet.do("lock_on", {"isolator": "breaker"}, {"place": "isolator", "lock_no": "14"})
    assert panel["locks"][0]["lock_no"] == "14"
    strip = tablet.client.get(f"{JOB}/panel/strip").json()
    assert strip == {"state": "locked", "locks": ["marta 14"]}
    panel = tablet.prove(panel)
    assert (panel["state"], panel["hands"]) == ("proven_dead", ["marta"])
    answer, panel = tablet.do("landed", {"wire": wire["id"], "ends": ends}, {"ok": True})
    assert answer == "kept"
    assert (panel["state"], panel["wires"][0]["state"]) == ("hands_in", "done")
    # power stays shut: no rehearsal is on record
    assert panel["may_open"] is None
    assert "that no rehearsal is on record" in panel["blocked"]


def test_an_entry_sent_ten_times_is_one(people):
    """The same id with the same content is a duplicate, ever after."""
    tablet = Tablet(people["electrician"], "t1")
    panel_of(tablet.client)
    made = tablet.made("lock_on", {"isolator": "breaker"}, {"place": "isolator", "lock_no": "1"})
    answers, _ = tablet.send(made, made)
    assert answers == ["kept", "duplicate"]
    assert all(tablet.send(made)[0] == ["duplicate"] for _ in range(8))
    assert tablet.send({**made, "body": {"lock_no": "2"}})[0] == ["refused:id_reused"]
    assert Act.objects.filter(kind="lock_on").count() == 1


def test_a_role_that_was_lowered_meanwhile_opens_nothing(people):
    """Made as an electrician, received as an apprentice: the role of receipt counts."""
    tablet = Tablet(people["electrician"], "t1")
    panel_of(tablet.client)
    covers = tablet.made("covers_on", {}, {"guards": True})
    lock = tablet.made("lock_on", {"isolator": "breaker"}, {"place": "isolator", "lock_no": "1"})
    Member.objects.filter(user__username="marta").update(role="apprentice")
    # a lock is everybody's; covers are an electrician's
    assert tablet.send(covers, lock)[0] == ["refused:role", "kept"]


def test_a_clock_that_is_a_day_off_is_told_and_decides_nothing(people):
    """Order is by what was seen, never by a time."""
    tablet = Tablet(people["electrician"], "t1")
    panel_of(tablet.client)
    made = tablet.made("lock_on", {"isolator": "breaker"}, {"place": "isolator", "lock_no": "1"})
    answers, panel = tablet.send({**made, "clock_off_s": 86_400.0})
    assert answers == ["kept"]
    assert any("clock of your device" in text for text in panel["told"])
    assert panel["locks"][0]["state"] == "on"


def test_signed_out_in_the_middle_nothing_is_kept(people):
    """The next sign-in sends it again, and it is there once."""
    tablet = Tablet(people["electrician"], "t1")
    panel_of(tablet.client)
    made = tablet.made("lock_on", {"isolator": "breaker"}, {"place": "isolator", "lock_no": "1"})
    tablet.client.logout()
    assert post(tablet.client, f"{JOB}/panel/acts", {"acts": [made]}).status_code == 401
    assert not Act.objects.exists()
    tablet.client.force_login(User.objects.get(username="marta"))
    assert tablet.send(made)[0] == ["kept"]


def test_one_live_reading_of_an_apprentice_shuts_every_hand(people):
    """No override: whoever read it, and whatever was proven before."""
    tablet, other = Tablet(people["electrician"], "t1"), Tablet(people["apprentice"], "t2")
    panel = panel_of(tablet.client)
    _, panel = tablet.do("lock_on", {"isolator": "breaker"}, {"place": "isolator", "lock_no": "1"})
    panel = tablet.prove(panel)
    assert panel["hands"] == ["marta"]
    body = {"meter": "m2", "value": "277", "unit": "V", "waited_s": "0"}
    point = panel["points"][0]["id"]
    _, panel = other.do("dead_point", {"round": "X", "point": point}, body)
    assert (panel["state"], panel["hands"]) == ("still_live", [])
    wire = panel["wires"][0]
    tablet.seen = panel["heads"]
    about = {"wire": wire["id"], "ends": [wire["start"], wire["end"]]}
    assert tablet.do("landed", about, {"ok": True})[0] == "kept:not_proven"


def test_who_did_it_is_the_session_and_an_admin_opens_nothing(people):
    """A name in the body is no name; the role is that of the moment it arrives."""
    admin = Tablet(people["admin"], "d1")
    panel_of(admin.client)
    lock = admin.made("lock_on", {"isolator": "breaker"}, {"lock_no": "1", "by": "marta"})
    assert admin.send(lock)[0] == ["refused:role"]
    trip, panel = admin.do("trip", {"device": "overload"}, {"by": "marta"})
    assert trip == "kept"
    assert [one["by"] for one in panel["entries"]] == ["abel", "abel"]


def test_a_changed_drawing_is_a_new_revision_and_a_moved_wire_is_stale(people):
    """What was landed on other ends does not count, and its maker is told."""
    tablet = Tablet(people["electrician"], "t1")
    _, panel = tablet.do("lock_on", {"isolator": "breaker"}, {"place": "isolator", "lock_no": "1"})
    panel = tablet.prove(panel)
    wire = next(one for one in panel["wires"] if one["id"] == "start.14~main.A1")
    about = {"wire": wire["id"], "ends": [wire["start"], wire["end"]]}
    assert tablet.do("landed", about, {"ok": True})[0] == "kept"
    edit = {"id": "e-1", "kind": "remove_wire", "wire": wire["id"], "why": "worn"}
    starter = {"standard_circuit": "3A", "edits": [edit]}
    assert put(tablet.client, "starter", starter, 1).status_code == 200
    panel = panel_of(tablet.client)
    assert panel["rev"] == 2
    # its ohm readings are not calculated: said, and open
    assert "not calculated yet" in panel["notice"]
    assert "item:dead_check" in panel["open"]
    assert panel["rows"] == []
    link = PanelRevision.objects.first().link
    dead_checks_of(starter_of(link, link.job.works).required())
    panel = panel_of(tablet.client)
    assert (panel["rev"], panel["notice"]) == (3, "")
    assert panel["rows"]
    assert wire["id"] not in {one["id"] for one in panel["wires"]}
    assert any("drawing changed under a wire" in told for told in panel["told"])


@pytest.mark.parametrize(
    "wrong",
    [
        {"uid": "not-an-id"},
        {"rev": 0},
        {"kind": ""},
        {"about": {"wire": "x" * 500}},
        {"body": {"value": "\x00"}},
        {"clock_off_s": "NaN"},
        {"based_on": ["x"]},
    ],
)
def test_a_bad_entry_is_refused_whole(people, wrong):
    """By the problem shape, and nothing is kept."""
    tablet = Tablet(people["electrician"], "t1")
    made = {**tablet.made("note", {}, {"text": "x"}), **wrong}
    answer = post(tablet.client, f"{JOB}/panel/acts", {"acts": [made]})
    assert answer.status_code in {400, 422}
    assert answer.json()["hint"]
    assert not Act.objects.exists()


def test_a_panel_of_another_plant_does_not_exist(people):
    """Neither read nor written."""
    stranger = signed_in(caller("there", "zoe", "reviewer"))
    assert stranger.get(f"{JOB}/panel").status_code == 404
    assert post(stranger, f"{JOB}/panel/acts", {"acts": []}).status_code == 404


def test_a_job_without_a_circuit_says_what_is_missing(client):
    """The same refusal as on the drawings, with what to do."""
    motor(caller("here", "marta"), "XX-1")
    answer = client.get("/api/w/here/m/XX-1/j/1/panel")
    assert answer.status_code == 422
    assert answer.json()["hint"]


def test_a_source_found_at_the_panel_has_to_be_locked_and_read_too(people):
    """Listed by anybody: what was proven no longer is, until it is locked and read."""
    tablet = Tablet(people["electrician"], "t1")
    panel = panel_of(tablet.client)
    _, panel = tablet.do("lock_on", {"isolator": "breaker"}, {"place": "isolator", "lock_no": "1"})
    panel = tablet.prove(panel)
    assert panel["hands"] == ["marta"]
    other = Tablet(people["apprentice"], "t2")
    told = {"source_kind": "heater", "isolator": "heater breaker", "points": []}
    _, panel = other.do("source_listed", {"source": "space heater"}, told)
    assert (panel["hands"], panel["state"]) == ([], "not_locked")
    assert [one["id"] for one in panel["sources"]] == ["main", "space heater"]
    assert panel["points"][-1]["source"] == "space heater"
    tablet.seen = panel["heads"]
    _, panel = tablet.do("lock_on", {"isolator": "heater breaker"}, {"place": "isolator"})
    assert panel["state"] == "locked"
    assert tablet.prove(panel)["hands"] == ["marta"]


def test_a_circuit_that_cannot_be_drawn_still_takes_what_shuts_a_door(people):
    """The last drawing stands, and is said to be the last."""
    tablet = Tablet(people["electrician"], "t1")
    panel_of(tablet.client)
    _, panel = tablet.do("lock_on", {"isolator": "breaker"}, {"place": "isolator", "lock_no": "1"})
    assert put(tablet.client, "starter", {"standard_circuit": ""}, 1).status_code == 200
    assert "last drawing" in panel_of(tablet.client)["notice"]
    answer, panel = tablet.do("lock_off", {"locks": [panel["locks"][0]["id"]]})
    assert (answer, panel["locks"][0]["state"]) == ("kept", "off")


@pytest.mark.parametrize("bounds", [{}, {"min": "0", "max": "0"}, {"min": None, "max": "500"}])
def test_a_dead_meter_proves_nothing(people, bounds):
    """A check that read nothing on nothing is no check, whatever bounds are sent with it."""
    tablet = Tablet(people["electrician"], "t1")
    panel = panel_of(tablet.client)
    tablet.do("lock_on", {"isolator": "breaker"}, {"place": "isolator", "lock_no": "1"})
    check = {"meter": "m1", "value": "0", "unit": "V", **bounds}
    tablet.do("meter_live", {"round": "A"}, {**check, "phase": "before"})
    for point in panel["points"]:
        body = {"meter": "m1", "value": "0", "unit": "V", "waited_s": "0"}
        tablet.do("dead_point", {"round": "A", "point": point["id"]}, body)
    _, panel = tablet.do("meter_live", {"round": "A"}, {**check, "phase": "after"})
    assert (panel["state"], panel["hands"]) == ("locked", [])


def test_insulation_is_judged_by_the_temperature_of_the_winding(people):
    """Bounds travel as records; what the last reading says comes back with its arithmetic."""
    tablet = Tablet(people["electrician"], "t1")
    panel = panel_of(tablet.client)
    (windings,) = panel["items"]
    assert windings["kind"] == "insulation_reading"
    assert (windings["tester_v"], windings["told"], len(windings["off"])) == ("500", [], 2)
    bands = next(one for one in panel["expected"] if one["id"] == windings["id"])["bands"]
    assert {"from_c": 20, "to_c": 21, "least": "20"} in bands
    _, panel = tablet.do("lock_on", {"isolator": "breaker"}, {"place": "isolator", "lock_no": "1"})
    tablet.prove(panel)
    group = {"group": windings["id"]}
    body = {"value": "19.9", "unit": "Mohm", "temp_c": "20", "connected": [], "test_v": "500"}
    # a good reading opens a door, so it needs its guard; a bad one shuts it, whatever was on
    still_on = {**body, "value": "500", "connected": windings["off"]}
    assert tablet.do("insulation_reading", group, still_on)[0] == "refused:disconnect_first"
    assert tablet.do("insulation_reading", group, {**body, "ten": "x"})[0].startswith("refused")
    answer, panel = tablet.do("insulation_reading", group, body)
    assert (answer, panel["items"][0]["state"]) == ("kept", "wrong")
    answer, panel = tablet.do("insulation_reading", group, {**body, "value": "20", "ten": "30"})
    assert (answer, panel["items"][0]["state"]) == ("kept", "as_expected")
    told = " ".join(panel["items"][0]["told"])
    # halved twice from 20 to 40 °C; 30 / 20
    assert "20 MΩ at 20 °C is 5 MΩ at 40 °C" in told
    assert "Polarization index 1.50 (30 / 20 MΩ), under 2" in told


def test_a_panel_that_nobody_opened_has_a_table_without_readings(people):
    """The heading alone, and no error: nothing was kept to judge them by."""
    answer = people["electrician"].get(f"{JOB}/panel/readings.csv")
    assert answer.status_code == 200
    assert len(answer.content.decode().splitlines()) == 1


def test_readings_go_out_as_a_table(people):
    """Each with where, what it should be and whether it is; a refused one is there, and said so."""
    tablet = Tablet(people["electrician"], "t1")
    panel = panel_of(tablet.client)
    path = f"{JOB}/panel/readings.csv"
    first = list(csv.DictReader(io.StringIO(tablet.client.get(path).content.decode())))
    assert first == []
    _, panel = tablet.do("lock_on", {"isolator": "breaker"}, {"place": "isolator", "lock_no": "1"})
    tablet.prove(panel)
    row, item = panel["rows"][0]["id"], panel["items"][0]["id"]
    tablet.do("dead_reading", {"row": row}, {"value": "OL", "unit": "ohm"})
    body = {"value": "19", "unit": "Mohm", "temp_c": "30", "connected": []}
    tablet.do("insulation_reading", {"group": item}, body)
    tablet.do("dead_reading", {"row": row}, {"value": "1,250", "unit": "ohm"})
    answer = tablet.client.get(path)
    assert answer.headers["Content-Type"] == "text/csv"
    rows = list(csv.DictReader(io.StringIO(answer.content.decode())))
    kinds = ["meter_live", *["dead_point"] * 6, "meter_live"]
    kinds += ["dead_reading", "insulation_reading", "dead_reading"]
    assert [one["reading"] for one in rows] == kinds
    assert {one["as_expected"] for one in rows[:8]} == {"yes"}
    assert {(one["least"], one["most"]) for one in rows[1:7]} == {("0", "1.0")}
    wrong, windings, refused = rows[8:]
    # near zero is asked, an open circuit was read
    assert (wrong["value"], wrong["most"], wrong["as_expected"]) == ("OL", "1", "no")
    said = panel["rows"][0]
    assert wrong["where"] == f"{said['start_said']} – {said['end_said']}"
    # 10 Mohm at 30 °C
    asked = (windings["least"], windings["winding_temp_c"], windings["as_expected"])
    assert asked == ("10", "30", "yes")
    assert (refused["as_expected"], refused["by"]) == ("", "marta")
    assert "two ways" in refused["answer"]
