"""Nameplates of every kind as stamped, against the reading a careful electrician makes of them."""

import json
from pathlib import Path

import pytest
from own_plates import OWN
from stamped import facts_of, wanted_of

from evencoil.base.words import say
from evencoil.plate.reader import read

CASES = json.loads((Path(__file__).parents[1] / "cases" / "stamped_plates.json").read_text())
USUAL = {"kind": "three-phase", "phases": 3, "speeds": 1, "hz": [60]}


@pytest.mark.parametrize("case", CASES["cases"], ids=lambda case: case["id"])
def test_a_stamped_plate_is_read_as_an_electrician_reads_it(case):
    """Every field: power, volts, amps, speeds, frequencies, devices; what is left open is open."""
    expected = case["expected"]
    have, want = facts_of(read(case["text"])), wanted_of(expected)
    for name in expected.get("open", []):
        have.pop(name, None)
        want.pop(name, None)
    if "phases" not in want:
        # not stamped: a kind that has only one answer may give it
        assert have.pop("phases", None) in {None, 0, 3}

    assert have == want


@pytest.mark.parametrize("case", CASES["cases"], ids=lambda case: case["id"])
def test_a_stamped_plate_is_doubted_where_it_must_be_and_nowhere_else(case):
    """A contradiction is named; a plate that agrees with itself raises nothing."""
    expected = case["expected"]
    doubts = {found.field for found in read(case["text"]).findings if found.level == "doubt"}

    for must in expected.get("must_doubt", []):
        names = {"amps": "amps_a", "volts": "volts_v", "rpm": "speed_rpm", "hz": "frequency_hz"}
        assert doubts & {names.get(about, about) for about in must["about"]}
    if not expected.get("must_doubt") and not expected.get("may_doubt"):
        assert doubts == set()


@pytest.mark.parametrize("case", CASES["cases"], ids=lambda case: case["id"])
def test_what_decides_sizes_and_is_not_there_is_asked_for(case):
    """Missing or illegible: listed as missing, or in doubt."""
    reading = read(case["text"])
    asked = {gap.field for gap in reading.missing}
    asked |= {found.field for found in reading.findings if found.level == "doubt"}
    names = {"amps": "amps_a", "powers": "power_hp", "secondary_amps": "secondary_a"}

    assert {names[name] for name in case["expected"].get("must_ask", [])} <= asked


@pytest.mark.parametrize(("text", "facts"), OWN, ids=[text[:40] for text, _ in OWN])
def test_our_own_plates_read_as_worked_by_hand(text, facts):
    """Forms of our own for the same classes; no doubt where the plate agrees with itself."""
    reading = read(text)
    want = {name: value for name, value in {**USUAL, **facts}.items() if value not in ([], 0)}

    assert facts_of(reading) == want
    assert [say(found.message) for found in reading.findings if found.level == "doubt"] == []


def test_amps_follow_the_volts_in_use_in_stamped_order():
    """A falling range of amps belongs end by end to the rising range of volts."""
    plate = read("3 HP 208-230/460 V 10.6-10.2/5.1 A 3 PH 60 HZ").plate

    assert [str(plate.amps_at(0, volts)) for volts in (208, 230, 240)] == ["10.6", "10.2", "10.2"]
    assert str(plate.amps_at(1, 480)) == "5.1"
