"""A drive on its netlist: fed from behind, switched behind, stopped, asked, never run."""

import pytest
from circuit_play import circuit_of, edited

from evencoil.checks import check_circuit, restarts_of
from evencoil.circuit import Edit, replay
from evencoil.rehearsal import ScenarioAct, Stage


def rules(circuit):
    """Return the numbers of the rules of drives that a circuit breaks, with their levels."""
    return {(one.rule, one.level) for one in check_circuit(circuit) if one.rule.startswith("D")}


def set_on(circuit, **parameters):
    """Return a circuit with other settings of its drive."""
    edit = Edit(id="p", kind="set", device="drive", parameters=parameters)
    done = replay(circuit, [edit])
    assert not done.stale
    return done.circuit


@pytest.mark.parametrize(
    ("name", "found"),
    # where the emergency stop acts through ENA alone, that is said once
    [("17A", set()), ("17B", {("D03", "note")}), ("17C", {("D03", "note")})],
)
def test_the_drawn_ones_are_sound(name, found):
    """As the catalogue draws them, nothing but what has to be known."""
    assert rules(circuit_of(name)) == found


@pytest.mark.parametrize(
    ("name", "edit", "found"),
    [
        # a jumper from the lines to the output, past the drive
        ("17A", "add DR1.L1 DR1.U", ("D01", "error")),
        # the bypass lands on the drive's side of the output contactor
        ("17C", "move OL1.2T1 KM1.2T1 -> KM1.1L1", ("D01", "error")),
        # ENA past the relay and the output contactor's own contact
        ("17C", "move DR1.ENA KM1.14 -> ES1.22", ("D02", "error")),
        # ENA ahead of the emergency stop, whose other contact still takes the lines: sound;
        # with the line contactor fed ahead of it as well nothing stops it
        ("17A", "add ES1.21 ES1.22 ; add ES1.11 ES1.12", ("D03", "error")),
        ("17A", "add DR1.+ DR1.FWD", ("D04", "doubt")),
        ("17A", "remove ES1.22 DR1.ENA", ("D05", "doubt")),
        ("17B", "remove S1.12 DR1.HLD", ("D05", "doubt")),
    ],
)
def test_each_mistake_is_named(name, edit, found):
    """One wrong wire each."""
    assert found in rules(edited(circuit_of(name), edit))


def test_two_contactors_that_feed_its_output_are_interlocked():
    """17C without both contacts and the bar between its contactors: H08, an error."""
    bare = edited(
        circuit_of("17C"),
        "remove S2.24 KM2.14 ; remove KM2.14 KM1.21 ; remove KM1.22 KM2.A1 ; add S2.24 KM2.14 ; "
        "add KM2.14 KM2.A1 ; remove KT1.18 KM2.21 ; remove KM2.22 KM1.A1 ; add KT1.18 KM1.A1",
    )
    found = {(one.rule, one.level) for one in check_circuit(bare)}
    assert ("H08", "doubt") in found  # the bar between them is left
    assert "H08" not in {one.rule for one in check_circuit(circuit_of("17C"))}


@pytest.mark.parametrize(
    ("settings", "found"),
    [
        ({}, ("D04", "doubt")),
        # whoever closes the lines starts the motor
        ({"restart": "1"}, ("D04", "error")),
    ],
)
def test_asked_by_a_jumper(settings, found):
    """FWD on + for good."""
    assert found in rules(set_on(edited(circuit_of("17A"), "add DR1.+ DR1.FWD"), **settings))


def test_a_start_is_the_start_of_who_pressed_it():
    """The first step comes 42 ms after FWD: a hand that has let go by then still started it."""
    acts = [
        ScenarioAct(at_us=0, do="close", on="breaker"),
        ScenarioAct(at_us=2_000_000, do="press", on="start_forward"),
        ScenarioAct(at_us=2_030_000, do="release", on="start_forward"),
    ]
    trace = Stage(circuit_of("17B")).play(acts, until_us=9_000_000)
    assert trace.hazards == ()
    assert trace.frames[-1].drives["drive"].hz == 60


def test_what_restarts_is_played():
    """As set it waits for a new start; set to restart it needs lines that come back by themselves.

    With the start button of the line contactor bridged they do, and the motor starts.
    """
    for name in ("17A", "17B", "17C"):
        assert restarts_of(circuit_of(name)) == ()
    assert restarts_of(set_on(circuit_of("17A"), restart="1")) == ()
    bridged = edited(circuit_of("17A"), "add S2.13 S2.14")
    assert restarts_of(bridged) == ()
    assert set(restarts_of(set_on(bridged, restart="1"))) == {"power_back", "estop_release"}
