"""A test supply for the controls: the motor isolated, and never two sources on one circuit.

What must hold, by hand from how the selector and the contact of the main switch lie: with the
main switch open and TEST chosen the contactor works and no motor lead is live; with the main
switch closed TEST feeds nothing; the transformer is never fed from its secondary.
"""

import pytest
from circuit_play import circuit_of

from evencoil.base import CoreError
from evencoil.base.words import say
from evencoil.checks.check import check_circuit
from evencoil.rehearsal.stage import ScenarioAct, Stage
from evencoil.solver.compile import compile_plant
from evencoil.solver.events import Action
from evencoil.solver.run import Run
from evencoil.starters import catalogue, draw, options_of

SECOND = 1_000_000
TEST = {"test_feed": "selector"}
CIRCUITS = [
    name
    for name, entry in catalogue().items()
    if "test_feed" in {spec.name for spec in options_of(entry)}
]


def run_of(name, options=TEST):
    """Return a run of a circuit with the test supply."""
    return Run(compile_plant(draw(name, options).circuit.netlist))


def volts(run, one, other):
    """Return volts between two terminals [V]."""
    solved = run.solution.volts
    return abs(solved[run.plant.node_of[one]] - solved[run.plant.node_of[other]])


@pytest.mark.parametrize("name", CIRCUITS)
def test_on_test_the_transformer_stays_dead_and_the_controls_live(name):
    """480 V would stand on its primary if the test supply reached its secondary."""
    run = run_of(name)
    run.act(Action(0, "turn", "test_selector", "TEST"))
    run.advance(SECOND)
    assert volts(run, "test_selector.14", "control_transformer.X2") == pytest.approx(120, abs=3)
    assert volts(run, "control_transformer.H1", "control_transformer.H4") < 1
    run.act(Action(SECOND, "turn", "test_selector", "NORMAL"))
    run.advance(2 * SECOND)
    assert volts(run, "test_selector.14", "control_transformer.X2") < 1


@pytest.mark.parametrize("name", CIRCUITS)
def test_with_the_main_switch_closed_test_feeds_nothing(name):
    run = run_of(name)
    run.act(Action(0, "turn", "test_selector", "TEST"))
    run.act(Action(SECOND, "close", "breaker"))
    run.advance(2 * SECOND)
    assert volts(run, "test_selector.14", "control_transformer.X2") < 1


def test_the_sequence_is_tried_with_the_motor_isolated():
    stage = Stage(draw("3A", TEST).circuit)
    trace = stage.play(
        [
            ScenarioAct(at_us=0, do="turn", on="SS1", word="TEST"),
            ScenarioAct(at_us=SECOND, do="push", on="S2"),
            ScenarioAct(at_us=5 * SECOND, do="push", on="S1"),
        ]
    )
    words = [frame.words["main"] for frame in trace.frames if frame.words]
    assert "1" in words
    assert words[-1] == "0"
    assert {frame.motors["motor"].word for frame in trace.frames} == {"off"}


@pytest.mark.parametrize("name", CIRCUITS)
def test_the_test_supply_brings_no_new_finding(name):
    """What the checks say of the circuit itself, and nothing of the test supply."""
    plain = {say(one.message) for one in check_circuit(circuit_of(name))}
    fresh = [
        one
        for one in check_circuit(draw(name, TEST).circuit)
        if say(one.message) not in plain and one.level != "note"
    ]
    assert fresh == []


@pytest.mark.parametrize("volts", ["24", "120", "240"])
def test_the_test_supply_has_the_volts_of_the_controls(volts):
    drawn = draw("3A", {**TEST, "control_volts": volts}).circuit
    assert drawn.netlist.device("test_supply").parameters["v"] == volts


def test_a_contact_of_the_main_switch_that_opens_the_controls_does_not_go_with_it():
    with pytest.raises(CoreError) as caught:
        draw("3A", {**TEST, "main_auxiliary": "early_break"})
    assert "nothing could be tested" in say(caught.value.message)
    assert caught.value.field == "starter.options.test_feed"
