"""Stages of a wired panel: each test goes on from the same day, which is laid once."""

import pytest
from laid_day import laid_until
from panel_day import panel_of

from answers.dead import dead_checks_of
from jobs.store import starter_of
from people.models import Works


@pytest.fixture(scope="module")
def laid(django_db_setup, django_db_blocker):
    """The conveyor rehearsed, wired, read and closed up, ready for its first stage."""
    with laid_until("wired", django_db_blocker) as day:
        yield day


@pytest.fixture
def people(db, laid):
    """One client of each role, signed in anew: what a test does to a session stays its own."""
    return laid.clients()


@pytest.fixture
def wired(people, laid):
    """The day as it was laid, ready for its first stage."""
    return laid.day.again(people["electrician"])


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
