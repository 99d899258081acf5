"""A lockable isolator at every motor, with its auxiliary ahead of that motor's own coil."""

import pytest

from evencoil.checks.reach import Graph
from evencoil.checks.restarts import waiting_isolators
from evencoil.rehearsal.stage import ScenarioAct, Stage
from evencoil.starters import catalogue, draw, options_of

SECOND = 1_000_000
WITH_OPTION = [
    name
    for name, entry in catalogue().items()
    if "local_isolator" in {spec.name for spec in options_of(entry)}
]


def test_every_circuit_has_the_choice():
    assert set(WITH_OPTION) == set(catalogue())


@pytest.mark.parametrize("name", WITH_OPTION)
def test_every_motor_gets_its_own(name):
    """As many isolators as motors, each lead of a motor through its own."""
    circuit = draw(name, {"local_isolator": "at_motor"}).circuit
    motors = [item for item in circuit.netlist.devices if item.type.startswith("motor")]
    added = [item for item in circuit.netlist.devices if item.id.startswith("local_isolator")]
    assert len(added) == len(motors)
    assert not {item.id for item in added} & set(waiting_isolators(Graph(circuit)))


def test_on_a_machine_an_isolator_drops_its_own_motor_only():
    """QS1 to QS3 at the motors of 16A: opening the last leaves the first two running."""
    circuit = draw("16A", {"local_isolator": "at_motor"}).circuit
    acts = [
        ScenarioAct(at_us=0, do="close", on="QF1"),
        *(
            ScenarioAct(at_us=(1 + place) * SECOND, do=do, on=on)
            for place, (do, on) in enumerate(
                [("push", "S0"), ("push", "S2"), ("on", "FLS1"), ("push", "S4"), ("push", "S6")]
            )
        ),
        ScenarioAct(at_us=9 * SECOND, do="open", on=circuit.tags["local_isolator_3"]),
    ]
    trace = Stage(circuit).play(acts, until_us=12 * SECOND)
    frames = [frame.words for frame in trace.frames if frame.words]
    before = [frame.words for frame in trace.frames if frame.words and frame.time_us < 9 * SECOND][
        -1
    ]
    assert [before[name] for name in ("main", "main_2", "main_3")] == ["1", "1", "1"]
    assert [frames[-1][name] for name in ("main", "main_2", "main_3")] == ["1", "1", "0"]
    # closed again, nothing starts
    again = [*acts, ScenarioAct(at_us=10 * SECOND, do="close", on=circuit.tags["local_isolator_3"])]
    last = [frame.words for frame in Stage(circuit).play(again).frames if frame.words][-1]
    assert last["main_3"] == "0"
