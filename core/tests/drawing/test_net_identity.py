"""Frames, drawings and lists are joined by net id; a wire number is a label only."""

import pytest
from circuit_play import circuit_of

from evencoil.circuit.netlist import Netlist
from evencoil.circuit.numbering import number_nets
from evencoil.drawing.ladder import draw_ladder
from evencoil.drawing.power import draw_power
from evencoil.rehearsal.stage import ScenarioAct, Stage
from evencoil.starters.standard_circuit import draw


def act(at_s, do, on="", word=""):
    return ScenarioAct(at_us=int(at_s * 1e6), do=do, on=on, word=word)


def frozen_then_changed(circuit_id, options):
    """Return a circuit whose numbers were frozen before an option changed it."""
    before = circuit_of(circuit_id)
    issued = number_nets(before)
    frozen = {end: issued.at(end) for end in before.netlist.terminals() if issued.at(end)}
    after = draw(circuit_id, options).circuit
    return after, number_nets(after, frozen)


def test_a_net_id_is_a_terminal_of_the_net_and_stands_on_no_other():
    """Whatever the numbers, each terminal finds its own net by one id."""
    circuit = circuit_of("7A")
    nets, ids = circuit.netlist.nets(), circuit.netlist.net_ids()
    assert set(ids) == set(nets.values())
    assert len(set(ids.values())) == len(ids)
    assert all(nets[name] == net for net, name in ids.items())


def test_a_net_keeps_its_id_when_an_option_adds_devices_elsewhere():
    """The seal-in's net is named by its own terminals, not by its place in a list."""
    plain = circuit_of("3A").netlist
    more = draw("3A", {"lamps": "run_trip"}).circuit.netlist
    assert ids_at(plain, "start.14") == ids_at(more, "start.14")


def ids_at(netlist: Netlist, terminal: str) -> str:
    return netlist.net_ids()[netlist.nets()[terminal]]


@pytest.mark.parametrize("option", [{"lamps": "run_trip"}, {"stations": "2"}])
def test_after_an_issue_the_rehearsal_lights_the_wires_that_are_live(option):
    """3A issued, then changed: each drawn wire is live exactly when its own terminals are."""
    circuit, numbered = frozen_then_changed("3A", option)
    stage = Stage(circuit)
    trace = stage.play([act(0, "close", "QF1"), act(1, "push", "S2")], until_us=3_000_000)
    frame = [one for one in trace.frames if one.nets is not None][-1]
    shapes = [
        *draw_ladder(circuit, numbered, "nema").picture.shapes,
        *draw_power(circuit, numbered, "nema").shapes,
    ]
    drawn = {shape.net for shape in shapes if shape.net}
    assert drawn <= set(frame.nets)
    run = stage.opening()
    for one in stage.actions([act(0, "close", "QF1"), act(1, "push", "S2")]):
        run.act(one)
    run.advance(3_000_000)
    ids = circuit.netlist.net_ids()
    live = {
        ids[circuit.netlist.nets()[end]] for end in circuit.netlist.terminals() if run.is_live(end)
    }
    assert set(frame.live) == live & set(frame.nets)
    assert live & drawn, "a running motor has live wires"


def test_a_frame_says_which_nets_are_live_by_the_core_s_own_limit():
    """Volts below the core's limit are shown and are not live."""
    circuit = circuit_of("3A")
    stage = Stage(circuit)
    trace = stage.play([act(0, "close", "QF1")], until_us=1_000_000)
    frame = [one for one in trace.frames if one.nets is not None][-1]
    limit = stage.plant.constants["live_v"]
    assert set(frame.live) == {net for net, volts in frame.nets.items() if volts >= limit}
