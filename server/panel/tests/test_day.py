"""A whole day over the network: from lock to signature, and what must not get through."""

from panel_day import REHEARSED, Day, Tablet, panel_of, reauthenticate, signature

from tests_support import JOB, post, put


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


def test_open_items_stop_a_signature(people):
    """A job that was not even locked is not signed."""
    reviewer = people["reviewer"]
    panel = panel_of(reviewer)
    reauthenticate(reviewer)
    refused = post(reviewer, f"{JOB}/panel/sign", signature(reviewer, panel))
    assert refused.json()["field"] == "refused:open_items"


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
