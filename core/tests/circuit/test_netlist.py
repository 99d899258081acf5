"""Netlists: text, edits replayed, wire numbers, acts that stop counting."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from random_edits import BASE, EDITS, TERMINALS, WIRES

from evencoil.base.errors import CoreError
from evencoil.circuit.acts import WireAct, standing
from evencoil.circuit.edits import Edit, replay
from evencoil.circuit.numbering import number_nets
from evencoil.circuit.text import read_circuit
from evencoil.circuit.wirelist import crowded, loose_ends, wire_rows
from evencoil.solver.compile import compile_plant
from evencoil.solver.events import Action
from evencoil.solver.run import Run
from evencoil.starters.catalogue import catalogue, entry_of
from evencoil.starters.standard_circuit import draw, options_of


@pytest.mark.parametrize(
    ("devices", "wires", "field", "says"),
    [
        ("S1", "", "devices.1", "is not a device line"),
        ("S1 toaster", "", "type", "toaster is not a device in the library"),
        ("S1 pb\nS1 pb", "", "devices.2", "already a device S1"),
        ("S1 pb color=red", "", "S1", "no setting called color"),
        ("S1 pb c=13", "", "S1", "c cannot be 13"),
        ("K1 contactor coil=many", "", "K1", "coil cannot be many"),
        ("S1 pb", "S1.13 S1.14", "control.1", "is not a wire"),
        ("S1 pb", "S1.13 - S9.14", "control.1", "no terminal S9.14"),
        ("S1 pb", "1: S1.13 - S1.99", "control.1", "no terminal S1.99"),
    ],
)
def test_bad_text_names_its_line(devices, wires, field, says):
    """What is wrong, in which line, and what to write instead."""
    with pytest.raises(CoreError) as caught:
        read_circuit(devices, "", wires)
    assert caught.value.field == field
    assert says in str(caught.value)
    assert caught.value.problem()["hint"]


def test_ten_thousand_wires_are_refused_before_anything_hangs():
    """A file beyond the limit says so."""
    many = "\n".join(f"X{n} tb n=40" for n in range(300))
    wires = ";".join(
        f"X{n}.{a} - X{n}.{b}" for n in range(300) for a in range(1, 36) for b in (36, 37) if a < b
    )
    with pytest.raises(CoreError, match="More than 10000 wires"):
        read_circuit(many, wires)


def test_every_circuit_of_the_catalogue_is_wired_whole():
    """No loose end, no third wire under a screw, one number a net."""
    for name, entry in catalogue().items():
        numbered = number_nets(entry.circuit)
        assert not loose_ends(entry.circuit), name
        assert not crowded(entry.circuit), name
        assert not numbered.renumbered, name
        rows = wire_rows(entry.circuit, numbered)
        assert len(rows) == len(entry.circuit.netlist.wires)
        assert all(row.number for row in rows)


OPTIONS = st.fixed_dictionaries(
    {},
    optional={
        spec.name: st.sampled_from(spec.choices)
        for spec in options_of(entry_of("3A"))
        if spec.choices and spec.name in {"stations", "lamps", "estop", "overload_side"}
    },
)


@settings(max_examples=60, deadline=None)
@given(EDITS)
def test_wire_numbers_are_exactly_the_nets(edits):
    """Whatever is edited: one number a net, one net a number."""
    circuit = replay(BASE, edits).circuit
    numbered = number_nets(circuit)
    by_net = {}
    for wire in circuit.netlist.wires:
        for end in (wire.start, wire.end):
            by_net.setdefault(numbered.net_of[end], set()).add(numbered.at(end))
    assert all(len(numbers) == 1 and "" not in numbers for numbers in by_net.values())
    assert len({next(iter(numbers)) for numbers in by_net.values()}) == len(by_net)


@settings(max_examples=60, deadline=None)
@given(EDITS, st.integers(0, len(WIRES) - 1))
def test_frozen_numbers_never_move_to_another_net(edits, place):
    """After an issue for wiring an untouched net keeps its number; new nets add numbers."""
    before = number_nets(BASE)
    frozen = {end: before.at(end) for end in TERMINALS if before.at(end)}
    after = replay(BASE, edits).circuit
    now = number_nets(after, frozen)
    wire = BASE.netlist.wires[place]
    members = {end for end, net in before.net_of.items() if net == before.net_of[wire.start]}
    net = now.net_of.get(wire.start)
    if net is not None and {end for end, one in now.net_of.items() if one == net} == members:
        assert now.number_of.get(net) == before.at(wire.start)


@settings(max_examples=60, deadline=None)
@given(EDITS, OPTIONS, st.integers(0, len(WIRES) - 1))
def test_an_act_never_counts_for_a_wire_whose_ends_changed(edits, options, place):
    """Landed counts only while the wire has the very ends that were landed."""
    wire = BASE.netlist.wires[place]
    act = WireAct(wire=wire.id, start=wire.start, end=wire.end, kind="landed")
    after = replay(draw("3A", options).circuit, edits).circuit.netlist
    there = next((item for item in after.wires if item.id == wire.id), None)
    is_same = there is not None and {there.start, there.end} == {wire.start, wire.end}
    assert (standing(act, after) == "counts") == is_same
    assert (standing(act, after) == "gone") == (there is None)


def test_an_edit_that_no_longer_applies_is_reported_and_kept():
    """Moving a wire of a lamp that an option took away: told, with what is missing."""
    edit = Edit(
        id="u1",
        kind="move_end",
        wire="main.34~lamp_run.X1",
        start="lamp_run.X1",
        end="lamp_off.X1",
        by="Dov",
    )
    drawn = draw("3A", {"lamps": "none"}).circuit
    done = replay(drawn, [edit])

    assert [item.id for item, _ in done.stale] == ["u1"]
    assert "no wire main.34~lamp_run.X1" in str(done.stale[0][1])
    assert done.circuit.netlist == drawn.netlist
    assert not replay(BASE, [edit]).stale


@pytest.mark.parametrize(
    ("edit", "says"),
    [
        (Edit(id="a", kind="add_wire", start="main.99", end="main.A1"), "no terminal main.99"),
        (
            Edit(id="a", kind="move_end", wire="start.14~main.A1", start="main.14", end="main.A2"),
            "does not end at main.14",
        ),
        (Edit(id="a", kind="set", device="nobody", parameters={}), "no device nobody"),
        (Edit(id="a", kind="set", device="main", parameters={"aux": "21-22"}), "still ends there"),
        (Edit(id="a", kind="set", device="main", parameters={"coil": "x"}), "coil cannot be x"),
        (Edit(id="a", kind="add_device", type="toaster"), "toaster"),
    ],
)
def test_edits_that_cannot_be_say_why(edit, says):
    """Each reason names what is not there."""
    done = replay(BASE, [edit])
    assert says in str(done.stale[0][1])
    assert done.circuit.netlist == BASE.netlist


def test_a_device_can_be_added_tagged_and_wired():
    """An auxiliary lamp by hand: device, tag, two wires; then its tag changes, its id stays."""
    edits = [
        Edit(id="0192-lamp", kind="add_device", type="lamp", tag="H9"),
        Edit(id="0192-w1", kind="add_wire", start="main.14", end="0192-lamp.X1"),
        Edit(id="0192-w2", kind="add_wire", start="lamp_off.X2", end="0192-lamp.X2"),
        Edit(id="0192-t", kind="tag", device="0192-lamp", tag="H4"),
    ]
    circuit = replay(BASE, edits).circuit
    assert circuit.tags["0192-lamp"] == "H4"
    assert circuit.id_of("H4") == "0192-lamp"
    run = Run(compile_plant(circuit.netlist))
    for time, verb, device in ((0, "close", "breaker"), (1, "press", "start")):
        run.act(Action(time * 1_000_000, verb, device))
        run.advance((time + 1) * 1_000_000 - 1)
    assert run.words()["0192-lamp"] == "on"
