"""A practice panel: what is taken off, judged when asked, metered as a meter would."""

import math
import random
from dataclasses import replace

import pytest

from evencoil.base import OutOfRangeError
from evencoil.circuit import Wire
from evencoil.practice import ask_panel, bare_edits, meter_at
from evencoil.rehearsal import ScenarioAct, Stage, opening_of
from evencoil.starters import catalogue, draw

#: 3A: on, start pressed for half a second
RUNNING = (
    *opening_of(draw("3A").circuit),
    ScenarioAct(at_us=1_000_000, do="press", on="S2"),
    ScenarioAct(at_us=1_500_000, do="release", on="S2"),
)


def three_wire():
    """Return the circuit as the catalogue draws it."""
    return draw("3A").circuit


def at(circuit, said):
    """Return a terminal by tag and number: ``S1.11``."""
    tag, _, end = said.partition(".")
    return f"{circuit.id_of(tag)}.{end}"


def without(circuit, *ids):
    """Return a circuit without some wires."""
    wires = tuple(one for one in circuit.netlist.wires if one.id not in ids)
    return replace(circuit, netlist=replace(circuit.netlist, wires=wires))


def joined(circuit, start, end):
    """Return a circuit with one more wire."""
    wire = Wire("mine", at(circuit, start), at(circuit, end))
    return replace(circuit, netlist=replace(circuit.netlist, wires=(*circuit.netlist.wires, wire)))


def wire_between(circuit, start, end):
    """Return the id of the wire between two terminals."""
    ends = {at(circuit, start), at(circuit, end)}
    return next(one.id for one in circuit.netlist.wires if {one.start, one.end} == ends)


def test_power_stays_where_it_is_to_stay():
    """Of 3A the lines, poles and motor leads stay; the loop of its coil goes."""
    circuit = three_wire()
    off = bare_edits(circuit, with_power=True)
    assert wire_between(circuit, "S1.12", "S2.13") in off
    kept = without(circuit, *off)
    motor = {kind.id for kind in circuit.netlist.devices if kind.type.startswith("motor")}
    ends = {end for one in kept.netlist.wires for end in (one.start, one.end)}
    assert any(end.rpartition(".")[0] in motor for end in ends)
    assert not any("S2" in circuit.said(end) for end in ends)
    assert len(bare_edits(circuit, with_power=False)) > len(off)


@pytest.mark.parametrize("code", ["2A", "3A", "6C", "8A", "9A", "13A", "15A"])
def test_the_circuit_itself_is_right_and_a_bare_one_is_not(code):
    """Silent until asked; then every join that is missing is told."""
    circuit = draw(code).circuit
    assert ask_panel(circuit, circuit).is_right
    bare = without(circuit, *bare_edits(circuit, with_power=False))
    asked = ask_panel(bare, circuit)
    assert not asked.is_right
    assert len(asked.missing) > 5
    assert not asked.extra


@pytest.mark.parametrize("code", list(catalogue()))
def test_every_circuit_is_itself_and_misses_any_wire(code):
    """Laid over itself nothing differs; with one wire off, drawn at random, something does."""
    circuit = draw(code).circuit
    assert ask_panel(circuit, circuit).is_right
    wire = random.Random(code).choice(bare_edits(circuit, with_power=False))
    assert not ask_panel(without(circuit, wire), circuit).is_right


def test_a_wire_on_another_contact_of_the_same_kind_is_as_good():
    """Both ends of STOP exchanged are the same circuit."""
    circuit = three_wire()
    moved = without(
        circuit, wire_between(circuit, "FU3.2", "S1.11"), wire_between(circuit, "S1.12", "S2.13")
    )
    # everything on 11 goes with the feed, so only the two wires of the button are exchanged
    there = [
        one.id
        for one in circuit.netlist.wires
        if at(circuit, "S1.11") in {one.start, one.end}
        and one.id in {w.id for w in moved.netlist.wires}
    ]
    for one in there:
        wire = next(wire for wire in circuit.netlist.wires if wire.id == one)
        other = wire.end if wire.start == at(circuit, "S1.11") else wire.start
        moved = without(moved, one)
        moved = replace(
            moved,
            netlist=replace(
                moved.netlist,
                wires=(*moved.netlist.wires, Wire(f"{one}b", at(circuit, "S1.12"), other)),
            ),
        )
    moved = joined(moved, "FU3.2", "S1.12")
    moved = replace(
        moved,
        netlist=replace(
            moved.netlist,
            wires=(*moved.netlist.wires, Wire("more", at(circuit, "S1.11"), at(circuit, "S2.13"))),
        ),
    )
    assert ask_panel(moved, circuit).is_right


def test_the_seal_in_ahead_of_stop_is_told():
    """13 on the feed side of STOP: a join too many and one missing, and the checks speak."""
    circuit = three_wire()
    wrong = joined(without(circuit, wire_between(circuit, "S2.13", "KM1.13")), "KM1.13", "S1.11")
    asked = ask_panel(wrong, circuit)
    assert asked.missing
    assert asked.extra
    assert {one.level for one in asked.problems} - {"note"}


def test_a_meter_reads_volts_where_they_are():
    """3A running: 120 V across its coil, none with it off; across the closed contact none."""
    circuit = three_wire()
    stage = Stage(circuit)
    one, other = at(circuit, "KM1.A1"), at(circuit, "KM1.A2")
    running = meter_at(stage, RUNNING, 4_000_000, "volts", one, other)
    assert running.value == pytest.approx(120, rel=0.1)
    rest = meter_at(stage, RUNNING, 900_000, "volts", one, other)
    assert rest.value < 1
    sealed = meter_at(
        stage, RUNNING, 4_000_000, "volts", at(circuit, "KM1.13"), at(circuit, "KM1.14")
    )
    assert sealed.value < 1


def test_ohms_on_live_wires_are_told_and_dead_ones_are_read():
    """With the power on the meter is gone; off, the coil reads its ohms and START is open."""
    circuit = three_wire()
    stage = Stage(circuit)
    coil = at(circuit, "KM1.A1"), at(circuit, "KM1.A2")
    live = meter_at(stage, RUNNING, 4_000_000, "ohms", *coil)
    assert live.is_live
    assert live.value > 100
    start = at(circuit, "S2.13"), at(circuit, "S2.14")
    dead = meter_at(stage, (), 100_000, "ohms", *coil)
    assert not dead.is_live
    assert 1 < dead.value < 10_000
    # with its wire off, 14 hangs on the open contact alone
    alone = Stage(without(circuit, wire_between(circuit, "S2.14", "KM1.A1")))
    assert math.isinf(meter_at(alone, (), 100_000, "ohms", *start).value)
    # wired, the same open contact reads coil and secondary in one
    assert meter_at(stage, (), 100_000, "ohms", *start).value > dead.value / 2
    held = (ScenarioAct(at_us=0, do="press", on="S2"),)
    assert meter_at(stage, held, 500_000, "ohms", *start).value < 1


def test_amps_are_those_of_the_motor():
    """Through a pole that runs; none at rest."""
    circuit = three_wire()
    stage = Stage(circuit)
    pole = next(
        f"{circuit.id_of('KM1')}.{end}"
        for end in circuit.netlist.device(circuit.id_of("KM1")).terminals
        if end.endswith("T1")
    )
    assert meter_at(stage, RUNNING, 8_000_000, "amps", pole, "").value > 1
    assert meter_at(stage, (), 100_000, "amps", pole, "").value == 0


@pytest.mark.parametrize(
    ("start", "end", "field"), [("nothing.1", "S1.11", "start"), ("S1.11", "S1.11", "end")]
)
def test_probes_that_are_nowhere_are_refused(start, end, field):
    """By the field; nothing is read."""
    circuit = three_wire()
    places = [at(circuit, name) if name.startswith("S1") else name for name in (start, end)]
    with pytest.raises(OutOfRangeError) as refused:
        meter_at(Stage(circuit), (), 0, "ohms", *places)
    assert refused.value.field == field
