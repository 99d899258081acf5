"""One job audited: cases worked by hand from the code's tables, and what holds for every job.

25 hp at 460 V: 34 A by Table 430.250. Conductor 125 %: 42.5 A. 8 AWG copper at 75 degrees C: 50 A.
Dual-element fuse 175 %: 59.5 A, next size 60 A; breaker 250 %: 85 A, next size 90 A.
Overload on 32 A, SF 1.15: 125 % is 40 A.
"""

import random
from decimal import Decimal

import pytest
from any_job import any_job
from audit_made import PLATE, SIZE, job
from hypothesis import given, settings
from hypothesis import strategies as st

from evencoil.audit import (
    STATES,
    TOPICS,
    PlayedOnce,
    WhatIf,
    audit_job,
    changes,
    suppose,
    topic_of,
)
from evencoil.base import CoreError
from evencoil.codebook import Profile
from evencoil.job import JobInputs, work_out

SIZED = {"wire", "device", "overload", "disconnect", "fault"}


def audited(inputs, **how):
    """Return a job's audit."""
    return audit_job(inputs, work_out(inputs, Profile()), **how)


def states_but(audit, **others):
    """Return the states of an audit with those that are expected otherwise taken as told."""
    return {topic: state for topic, state in audit.states.items() if topic not in others}


def test_what_is_entered_and_right_holds():
    """Nothing is assumed and nothing fails: only the starter was never entered."""
    found = audited(job())
    assert found.states == {
        "starter": "not_recorded",
        "fault": "holds",
        "supply": "holds",
        "leads": "holds",
        "overload": "holds",
        "device": "holds",
        "wire": "holds",
        "disconnect": "holds",
        "nameplate": "holds",
    }
    assert [line.key for line in found.lines] == ["none"]
    assert found.state == "not_recorded"


@pytest.mark.parametrize(
    ("change", "topic", "key", "words"),
    [
        # 10 AWG at 75 degrees C: 35 A, held to 30 A by 240.4(D) or not, it is short of 42.5
        ({"size__existing__cable_size": "10"}, "wire", "existing_cable", "short of the 42.5 A"),
        ({"size__existing__device_a": "90"}, "device", "existing_device", "90 A"),
        ({"size__existing__trip_a": "48"}, "overload", "existing_heaters", "Maximum 40 A"),
        ({"size__fault__device_ka": "5"}, "fault", "device_interrupting", "8000 A"),
        ({"size__fault__starter_ka": "5"}, "fault", "starter_short_circuit", "5000 A"),
        ({"size__place__motor_visible": False}, "disconnect", "motor_disconnect_place", ""),
    ],
)
def test_one_thing_wrong_is_one_line(change, topic, key, words):
    """It fails under its own topic by its own section, and nothing else changes."""
    good, found = audited(job()), audited(job(**change))
    (line,) = [line for line in found.lines if line.state == "fails"]
    assert (line.topic, line.key) == (topic, key)
    assert words in line.said
    assert line.rule.startswith("NEC 2023, ")
    assert line.guesses == ()
    assert found.state == "fails"
    assert states_but(found, **{topic: 1}) == states_but(good, **{topic: 1})


def test_a_supply_for_another_motor_fails_once():
    """208 V on a 460 V motor: told at the supply; the sizes that wait for it are not told again."""
    found = audited(job(supply__text="208Y/120 60 Hz"))
    assert found.states["supply"] == "fails"
    assert [line.topic for line in found.lines if line.state == "fails"].count("supply") == 1


def test_a_lead_on_the_wrong_line_is_a_turn_not_a_fault():
    """Two lines exchanged on three leads is the other direction: it is no failure by itself."""
    turned = [
        {"id": "L1", "line": "L1", "leads": ["T3"]},
        {"id": "L2", "line": "L2", "leads": ["T2"]},
        {"id": "L3", "line": "L3", "leads": ["T1"]},
    ]
    assert audited(job(leads__joints=turned)).states["leads"] == "holds"


def test_a_line_without_a_lead_fails():
    """A motor on two lines hums and burns."""
    two = [{"id": "L1", "line": "L1", "leads": ["T1"]}, {"id": "L2", "line": "L2", "leads": ["T2"]}]
    found = audited(job(leads__joints=two))
    assert found.states["leads"] == "fails"


def test_an_empty_job_says_what_was_never_entered():
    """Nothing fails where nothing was held against anything, and nothing holds."""
    found = audited(JobInputs())
    assert {line.state for line in found.lines} <= {"unknown", "not_recorded"}
    assert found.states["wire"] == found.states["device"] == "not_recorded"
    assert "holds" not in {found.states[one] for one in ("wire", "device", "overload", "fault")}


def test_what_holds_on_a_guess_is_told_apart():
    """Without the ambient the conductor holds on 30 degrees C, which nobody measured."""
    inputs = job(size__ambient_c=None)
    found = audited(inputs)
    assert found.states["wire"] == "guess"
    need = next(one for one in found.needs if one.fact == "ambient_c")
    assert need.withheld == 0
    assert need.assumed >= 1
    assert "30" in need.said


def test_what_fails_on_a_guess_is_no_plain_failure():
    """10 AWG is short by the assumed 30 degrees C: told so, and the guess stands beside it."""
    found = audited(job(size__ambient_c=None, size__existing__cable_size="10"))
    assert "fails" not in set(found.states.values())
    (line,) = [line for line in found.lines if line.state == "fails_if"]
    assert any("30" in guess for guess in line.guesses)
    assert found.state == "fails_if"


def test_two_guesses_against_each_other_are_no_failure():
    """No rating was read and no fault current is known: 5 kA against 10 kA is nobody's figure."""
    found = audited(job(supply__fault_current_a=None, size__fault={}))
    (line,) = [line for line in found.lines if line.key == "starter_short_circuit"]
    assert (line.state, len(line.guesses)) == ("fails_if", 2)


def test_what_is_surely_wrong_comes_first():
    """Heaters by what was read, then the conductor on a guess."""
    found = audited(
        job(
            size__ambient_c=None,
            size__existing={**SIZE["existing"], "cable_size": "10", "trip_a": "48"},
        )
    )
    assert [line.key for line in found.lines][:2] == ["existing_heaters", "existing_cable"]


def test_what_the_supply_says_is_not_said_again_by_the_leads():
    """208 V for 460 V: the connection cannot be found for the same reason, told once."""
    found = audited(job(supply__text="208Y/120 60 Hz", leads={"winding": "3-wye"}))
    said = [line.said for line in found.lines]
    assert len(said) == len(set(said))
    assert "leads" not in {line.topic for line in found.lines}
    assert found.states["leads"] == "unknown"


def test_what_waits_does_not_hold():
    """What is installed is entered, but without a supply nothing can be held against it."""
    found = audited(job(supply={}))
    for topic in ("wire", "device", "overload", "disconnect", "leads"):
        assert found.states[topic] in {"unknown", "holds"}
    assert {found.states[one] for one in ("wire", "device", "leads")} == {"unknown"}


def test_an_input_is_asked_for_once_and_not_by_all_that_wait():
    """A drive without its rated input: conductors and disconnect wait for one figure."""
    found = audited(job(size__drive={"input_a": None}))
    asked = [line for line in found.lines if line.topic == "drive" and line.state == "unknown"]
    assert [line.key for line in asked] == ["withheld.drive_conductor_size"]


STARTER = {"starter": {"standard_circuit": "3A"}}


def test_a_wire_that_is_lifted_in_the_starter_is_found():
    """3A without the wire of its seal-in: the circuit runs only while START is held."""
    whole = audited(job(**STARTER))
    assert "fails" not in {line.state for line in whole.lines if line.topic == "starter"}
    drawn = work_out(job(**STARTER), Profile()).starter.circuit
    seal = next(
        wire for wire in drawn.netlist.wires if {"main.13", "main.14"} & {wire.start, wire.end}
    )
    edit = {"id": "1", "kind": "remove_wire", "wire": seal.id, "by": "m", "at": "1", "why": "x"}
    found = audited(job(starter={"standard_circuit": "3A", "edits": [edit]}))
    assert found.states["starter"] in {"fails", "doubt"}
    assert found.is_played


def test_fault_current_doubled():
    """8 kA against 10 kA holds; 16 kA does not, by 6 kA."""
    inputs = job()
    worked = work_out(inputs, Profile())
    made = suppose(inputs, Profile(), worked, WhatIf(fault_times="2"))
    assert made.left == ()
    assert made.inputs.supply.fault_current_a == Decimal(16000)
    found = audited(made.inputs)
    fails = {line.key: line.said for line in found.lines if line.state == "fails"}
    assert set(fails) == {"device_interrupting", "starter_short_circuit"}
    assert "16000 A" in fails["device_interrupting"]


def test_twice_nothing_is_no_figure():
    """A fault current that nobody knows is not doubled: it is told."""
    inputs = job(supply__fault_current_a=None)
    made = suppose(inputs, Profile(), work_out(inputs, Profile()), WhatIf(fault_times="2"))
    assert made.left == ("fault_unknown",)
    assert made.inputs == inputs


def test_breakers_for_fuses():
    """80 A is more than a dual-element fuse may have (60 A), less than a breaker may (90 A)."""
    inputs = job(size__existing__device_a="80")
    assert audited(inputs).states["device"] == "fails"
    worked = work_out(inputs, Profile())
    made = suppose(inputs, Profile(), worked, WhatIf(breakers=True))
    assert audited(made.inputs).states["device"] == "holds"
    there = job(size__protection_kind="inverse_time_breaker")
    kept = suppose(there, Profile(), work_out(there, Profile()), WhatIf(breakers=True))
    assert kept.left == ("no_fuse",)


def test_a_breaker_that_nobody_read_has_no_rating():
    """10 kA was read off the fuse, and the starter's rating stands on it: neither is the breaker's."""
    inputs = job()
    made = suppose(inputs, Profile(), work_out(inputs, Profile()), WhatIf(breakers=True))
    found = audited(made.inputs)
    assert found.states["fault"] in {"fails_if", "guess", "unknown"}
    assert made.inputs.supply == inputs.supply


def test_a_fault_current_that_was_entered_is_known_on_a_wrong_supply_too():
    """208 V for 460 V: nothing is calculated from it, and it is 8 kA all the same."""
    inputs = job(supply__text="208Y/120 60 Hz")
    made = suppose(inputs, Profile(), work_out(inputs, Profile()), WhatIf(fault_times="2"))
    assert made.left == ()
    assert made.inputs.supply.fault_current_a == Decimal(16000)


def test_a_warmer_place():
    """8 AWG at 45 degrees C: 50 A by 0.82 is 41 A, 1.5 A short of 42.5 A."""
    inputs = job()
    worked = work_out(inputs, Profile())
    made = suppose(inputs, Profile(), worked, WhatIf(ambient_c="45"))
    (line,) = [line for line in audited(made.inputs).lines if line.state == "fails"]
    assert line.key == "existing_cable"
    assert "41 A, 1.5 A short" in line.said


def test_what_changed_is_told_and_nothing_else():
    """A heater exchanged: its line goes; one that stays and one of another job are no change."""
    before = {"a": audited(job(size__existing__trip_a="48")).lines, "gone": ()}
    after = {"a": audited(job()).lines, "new": audited(JobInputs()).lines}
    (change,) = changes(before, after)
    assert (change.job, change.line.key) == ("a", "existing_heaters")
    assert (change.before, change.after) == ("fails", "")
    (back,) = changes(after | {"gone": ()}, before | {"new": after["new"]})
    assert (back.before, back.after) == ("", "fails")


@given(st.integers(0, 2**32 - 1))
@settings(max_examples=25, deadline=None)
def test_every_job_is_audited_and_told_once(seed):
    """Whatever a job says: every figure has its topic, keys are unique, states are their lines'."""
    inputs = any_job(random.Random(seed))
    if inputs is None:
        return
    try:
        worked = work_out(inputs, Profile())
    except CoreError:
        return
    named = {line.id for line in worked.figures} - {"weakest_part"}
    judged = {step.id for step in worked.trail if step.verdict} - {"weakest_part"}
    assert {name for name in named | judged if topic_of(name) is None} == set()
    found = audit_job(inputs, worked, is_played=False)
    keys = [(line.topic, line.key) for line in found.lines]
    assert len(keys) == len(set(keys))
    assert set(found.states) <= set(TOPICS)
    for topic, state in found.states.items():
        own = [line.state for line in found.lines if line.topic == topic]
        if own:
            assert state == min(own, key=STATES.index)
        elif state in {"guess", "holds"} and topic in SIZED:
            # that nothing speaks against it is no proof
            assert any(
                step.verdict == "holds" and topic_of(step.id) == topic for step in worked.trail
            )
    assert {line.topic for line in found.lines} <= set(found.states)
    assert list(changes({"a": found.lines}, {"a": found.lines})) == []


def test_a_circuit_is_played_once_for_all_that_are_wired_alike():
    """Two motors of the same sizes on 3A: one is played, both are told the same."""
    once = PlayedOnce()
    inputs = job(**STARTER)
    found = [audited(inputs, problems_of=once) for _ in range(3)]
    assert (once.asked, once.played) == (3, 1)
    assert found[0] == found[2] == audited(inputs)
    audited(job(starter={"standard_circuit": "6A"}), problems_of=once)
    assert once.played == 2


def test_what_waits_for_another_figure_is_counted_where_it_begins():
    """Without a supply all six figures of the branch circuit wait for it: one fact, cost six."""
    found = audited(JobInputs.model_validate({"plate": {"text": PLATE}}))
    assert [line.key for line in found.lines if line.state == "unknown"] == ["supply"]
    (need,) = [one for one in found.needs if one.fact == "supply.text"]
    assert (need.withheld, need.assumed, need.step) == (6, 0, "plate")
    assert found.needs[0] == need


def test_a_job_outside_the_code_is_told_so_once():
    """Figures of the code are withheld there, for one reason and not for each of them."""
    found = audited(job(supply__territory="other"))
    assert [line.key for line in found.lines if line.state == "unknown"] == ["withheld.table_flc_a"]


def test_starter_and_leads_are_not_blamed_for_their_supply():
    """208 V for 460 V: the coil that drops out and the weak motor are the supply's, told there."""
    found = audited(job(supply__text="208Y/120 60 Hz", starter={"standard_circuit": "3A"}))
    assert {line.topic for line in found.lines if line.state == "fails"} == {"supply"}
    assert found.states["starter"] == found.states["leads"] == "unknown"
    assert not found.is_played


def test_a_circuit_behind_a_drive_is_refused_with_a_way_out():
    """A contactor between a drive and its motor: what it does, and what to do instead."""
    found = audited(job(supply__text="drive 460 V", starter={"standard_circuit": "3A"}))
    line = next(line for line in found.lines if line.topic == "starter")
    assert line.state == "fails"
    assert "17A" in line.do
