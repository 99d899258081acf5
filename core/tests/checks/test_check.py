"""Checks of netlists: silent on what is right, and each wiring mistake by its rule."""

from dataclasses import replace

import pytest
from circuit_play import circuit_of, edited, tables
from hypothesis import given, settings
from hypothesis import strategies as st

from evencoil.base.words import say
from evencoil.checks.check import check_circuit, isolations_of
from evencoil.checks.expected import with_expectations
from evencoil.checks.power import exclusive_pairs
from evencoil.checks.reach import Graph
from evencoil.circuit.edits import Edit, replay
from evencoil.circuit.numbering import number_nets
from evencoil.circuit.text import read_circuit
from evencoil.starters.catalogue import catalogue
from evencoil.starters.standard_circuit import draw, options_of

#: what a circuit of the catalogue is known for, from its own "Hazards to flag"
KNOWN = {
    "2B": {"H14"},
    "5C": {"H17"},
    "6B": {"H08", "H18"},
    "6C": {"H18"},
    "6D": {"H20"},
    "8A": {"H24"},
    "12A": {"H32"},
    # a level behind the emergency stop: the program starts again when it is released
    "13A": {"L08"},
    "13B": {"L09"},
    "13C": {"H18"},
}


def rules(circuit, *levels):
    """Return the numbers of the rules that a circuit breaks."""
    return {
        one.rule for one in check_circuit(circuit) if one.level in (levels or ("error", "doubt"))
    }


@pytest.mark.parametrize("name", list(catalogue()))
def test_the_catalogue_breaks_no_rule_but_those_it_is_known_for(name):
    """As drawn, each circuit holds, and each lesson shows its fault."""
    assert rules(circuit_of(name)) == KNOWN.get(name, set())


#: the mistake, and the rule that has to name it (CIRCUITS.md, section B)
MISTAKES = [
    ("3A-F1", "H16"),
    ("3A-F2", "H46"),
    ("3A-F3", "H10"),
    ("3A-F5", "H19"),
    ("3A-F6", "E01"),
    ("3A-F7", "E01"),
    ("3A-F8", "H07"),
    ("3A-F9", "H07"),
    ("3A-F10", "H47"),
    ("3A-F11", "H19"),
    ("3A-F12", "H44"),
    ("3A-F13", "E03"),
    ("6A-F1", "H09"),
    ("6A-F2", "H09"),
    ("6A-F3", "H09"),
    ("6A-F4", "H09"),
    ("6A-F5", "H19"),
    ("6A-F6", "H08"),
    ("6A-F7", "H08"),
    ("6A-F8", "E02"),
    ("6A-F9", "H07"),
    ("7A-F1", "H21"),
    ("7A-F2", "H21"),
    ("7A-F3", "H21"),
    ("7A-F4", "H21"),
    ("7A-F5", "H21"),
    ("7A-F6", "H08"),
    ("7A-F7", "H23"),
    ("7A-F8", "H22"),
    ("7A-F9", "H23"),
]
EDITS = {
    item["id"]: (body["circuit"], item["edit"])
    for body in tables().values()
    for item in body.get("mistakes", [])
}


@pytest.mark.parametrize(("mistake", "rule"), MISTAKES)
def test_each_worked_mistake_is_named_by_its_rule(mistake, rule):
    """The mistakes calculated for three circuits, found without being told where."""
    name, edit = EDITS[mistake]
    found = check_circuit(edited(circuit_of(name), edit))
    named = [one for one in found if one.rule == rule and one.level != "note"]
    assert named
    for one in named:
        assert say(one.message)
        assert say(one.change)
        assert one.devices or one.rule == "H19"


def broken(name, edit):
    """Return the rules that an edit of a catalogue circuit adds."""
    return rules(edited(circuit_of(name), edit)) - KNOWN.get(name, set())


@pytest.mark.parametrize(
    ("name", "edit", "rule"),
    [
        ("14C", "set RM1 alarm=160", "H40"),
        ("2A", "set OL1 reset=auto", "H14"),
        ("3A", "move S1.11 FU3.2 -> T1.X2", "E01"),
        ("3A", "add QF1.2 QF1.4", "H45"),
        ("3A", "add SUP.L1 SUP.L2", "H45"),
        ("16A", "add S1.11 FU3.2; remove S1.11 KA1.24", "H05"),
        ("3A", "set T1 sec=240", "H44"),
        ("3A", "set OL1 iset=25", "H22"),
        ("3A", "set M1 v=240", "H23"),
        ("3A", "set T1 va=10", "H43"),
        ("12C", "add KM1.21 KM1.22; add KB.21 KB.22; set KM1 mech=; set KB mech=", "H08"),
    ],
)
def test_further_faults_by_hand(name, edit, rule):
    """One wire or one setting each, with the rule that a careful person would name."""
    assert rule in broken(name, edit)


@pytest.mark.many
def test_a_fix_mends_what_it_was_offered_for():
    """A finding's own edits, done, take the finding away."""
    tried = 0
    for mistake, rule in MISTAKES:
        name, edit = EDITS[mistake]
        wrong = edited(circuit_of(name), edit)
        for one in check_circuit(wrong):
            if one.rule == rule and one.edits:
                mended = replay(wrong, one.edits)
                assert not mended.stale
                left = {(item.rule, say(item.message)) for item in check_circuit(mended.circuit)}
                assert (one.rule, say(one.message)) not in left, mistake
                tried += 1
    assert tried >= 8


@pytest.mark.parametrize("name", ["6A", "6C", "7A", "7B", "8A", "9A", "11A", "11B", "11C", "10A"])
def test_pairs_that_short_are_found_from_the_wires_alone(name):
    """Whatever the catalogue says must never meet is found, where the wires short at all."""
    circuit = circuit_of(name)
    found = set(exclusive_pairs(Graph(circuit)))
    stated = set(circuit.never_together)
    bare = replace(circuit, never_together=())
    assert set(with_expectations(bare).never_together) == found
    if name in {"6A", "6C", "7A", "8A"}:
        assert stated <= found
    assert found or name == "10A"


@pytest.mark.many
@pytest.mark.parametrize("name", list(catalogue()))
def test_no_option_alone_breaks_a_rule(name):
    """Every word of every option: no number on two nets, no screw too many, no loose end."""
    entry = catalogue()[name]
    for spec in options_of(entry):
        for word in spec.choices:
            circuit = draw(name, {spec.name: word}).circuit
            found = {
                (one.rule, say(one.message))
                for one in check_circuit(circuit, is_played=False)
                if one.level == "error"
            }
            known = KNOWN.get(name, set()) | ({"H14"} if word == "auto" else set())
            assert {rule for rule, _ in found} <= known, (spec.name, word, found)


def test_three_wires_under_a_screw_are_led_elsewhere():
    """H11 names the screw, the count, and a screw of the same number with room."""
    circuit = edited(circuit_of("3A"), "add FU3.2 KM1.21; add FU3.2 KM1.33")
    (found,) = [
        one
        for one in check_circuit(circuit, is_played=False)
        if one.rule == "H11" and "FU3" in say(one.message)
    ][:1]
    assert "FU3.2 has" in say(found.message)


@pytest.mark.parametrize("name", list(catalogue()))
def test_no_wire_is_led_to_the_supply_the_motor_or_the_ground(name):
    """Whatever screw is crowded, the change proposed never lands on one of these."""
    circuit = circuit_of(name)
    kinds = {item.id: item.type for item in circuit.netlist.devices}
    net_of = number_nets(circuit).net_of
    ends = sorted({end for wire in circuit.netlist.wires for end in (wire.start, wire.end)})

    def is_taboo(end):
        device, _, name = end.rpartition(".")
        return (
            kinds[device] in {"supply", "source"}
            or kinds[device].startswith("motor")
            or (name == "PE")
        )

    shared = {net_of[end] for end in ends if is_taboo(end)}
    for terminal in (end for end in ends if net_of[end] in shared and not is_taboo(end)):
        mates = [end for end in ends if net_of[end] == net_of[terminal] and end != terminal][:2]
        wires = [
            replace(circuit.netlist.wires[0], id=f"more{n}", start=terminal, end=mate)
            for n, mate in enumerate(mates)
        ]
        netlist = replace(circuit.netlist, wires=(*circuit.netlist.wires, *wires))
        found = check_circuit(replace(circuit, netlist=netlist), is_played=False)
        for edit in (edit for one in found if one.rule == "H11" for edit in one.edits):
            assert not is_taboo(edit.end), edit


def test_a_number_on_two_nets_and_two_numbers_on_one():
    """H47 by what the ferrules say, both ways."""
    twice = read_circuit(
        "S1 pb c=11-12\nS2 pb c=13-14\nH1 lamp\nH2 lamp", "", "7: S1.11 - H1.X1\n7: S2.13 - H2.X1"
    )
    said = [say(one.message) for one in check_circuit(twice) if one.rule == "H47"]
    assert said == ["Number 7 is on two nets that no wire joins: S1.11, S2.13."]
    two = read_circuit("S1 pb c=11-12\nH1 lamp\nH2 lamp", "", "7: S1.11 - H1.X1\n8: S1.11 - H2.X1")
    assert [one.rule for one in check_circuit(two) if one.rule == "H47"] == ["H47"]


@pytest.mark.parametrize(
    ("name", "options", "isolator", "coils", "has_control"),
    [
        ("3A", {}, "QF1", (), False),
        ("3A", {"control_source": "separate"}, "QF1", ("main",), True),
        ("3A", {"control_tap": "line_side"}, "QF1", ("main",), True),
        ("3A", {"local_isolator": "at_motor"}, "QS1", (), True),
        ("16A", {}, "QF2", ("main", "main_2", "main_3", "master"), True),
    ],
)
def test_what_an_isolator_leaves_live(name, options, isolator, coils, has_control):
    """A foreign source, a tap ahead of the switch, an isolator with an early-break contact."""
    circuit = draw(name, options).circuit
    found = {circuit.tags[one.device]: one for one in isolations_of(circuit)}[isolator]
    assert found.coils == coils
    assert bool(found.control) == has_control
    assert not any("supply." in terminal for terminal in found.live)


@pytest.mark.many
@settings(max_examples=40)
@given(st.data())
def test_any_edit_leaves_the_checks_finite(data):
    """Wires taken off and added at random: findings, never a crash or a hang."""
    circuit = circuit_of(data.draw(st.sampled_from(["2A", "3A", "6A", "7A", "12C"])))
    ends = circuit.netlist.terminals()
    edits = []
    for place in range(data.draw(st.integers(1, 4))):
        if data.draw(st.booleans()):
            start, end = data.draw(st.sampled_from(ends)), data.draw(st.sampled_from(ends))
            edits.append(Edit(id=f"e{place}", kind="add_wire", start=start, end=end))
        else:
            wire = data.draw(st.sampled_from(circuit.netlist.wires)).id
            edits.append(Edit(id=f"e{place}", kind="remove_wire", wire=wire))
    wrong = replay(circuit, edits).circuit
    one, two = check_circuit(wrong), check_circuit(wrong)
    assert one == two
    assert all(say(item.message) and say(item.change) for item in one)
