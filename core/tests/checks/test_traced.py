"""Mistakes in a panel that was traced without wire numbers, each by what a careful person says.

Every case was worked out by hand from the rule first: what the mistake does, what is to be
named as its cause, and which remedies would be wrong or dangerous.
"""

from dataclasses import replace
from functools import cache

import pytest
from circuit_play import circuit_of, edited

from evencoil.base.words import say
from evencoil.checks.bypass import bypass_problems
from evencoil.checks.check import check_circuit
from evencoil.checks.reach import Graph
from evencoil.circuit import CONTACTS, Wire, links_of
from evencoil.circuit.edits import replay
from evencoil.starters.catalogue import catalogue


def traced(name, edit=""):
    """Return a circuit with a mistake and without any wire number."""
    circuit = circuit_of(name)
    return replace(edited(circuit, edit) if edit else circuit, numbers={})


@cache
def silent(name):
    """Return what the checks say of the circuit as it should be."""
    return {(one.rule, say(one.message)) for one in check_circuit(traced(name))}


def new(name, edit):
    """Return the errors and doubts that a mistake adds."""
    return [
        one
        for one in check_circuit(traced(name, edit))
        if one.level != "note" and (one.rule, say(one.message)) not in silent(name)
    ]


BYPASSED = [
    # a fuse of the control circuit, either primary fuse, a breaker's pole
    ("3A", "add FU3.1 FU3.2", "FU3"),
    ("3A", "add FU1.1 FU1.2", "FU1"),
    ("6A", "add QF1.5 QF1.6", "QF1"),
    # a contactor's pole, of the reversing contactor too; a heater
    ("3A", "add KM1.1L1 KM1.2T1", "KM1"),
    ("6A", "add KR.3L2 KR.4T2", "KR"),
    ("3A", "add OL1.3L2 OL1.4T2", "OL1"),
    # stop, start, overload contact, travel limit, thermostat, cut-out, reset button
    ("6A", "add S1.11 S1.12", "S1"),
    ("3A", "add S2.13 S2.14", "S2"),
    ("3A", "add OL1.95 OL1.96", "OL1"),
    ("6D", "add LS1.11 LS1.12", "LS1"),
    ("14A", "add TH1.P1 TH1.P2", "TH1"),
    ("4A", "add HPS1.11 HPS1.12", "HPS1"),
    ("14B", "add PR1.11 PR1.14", "PR1"),
    # one jumper past fuse and stop together; from the line past breaker and contactor
    ("3A", "add FU3.1 S1.12", "FU3"),
    ("3A", "add FU3.1 S1.12", "S1"),
    ("3A", "add SUP.L1 KM1.2T1", "KM1"),
]


@pytest.mark.parametrize(("name", "edit", "tag"), BYPASSED)
def test_what_wires_lead_past_is_named(name, edit, tag):
    """The device that does nothing any more is named, with the two terminals."""
    circuit = traced(name, edit)
    found = [one for one in bypass_problems(Graph(circuit)) if one.level == "error"]
    assert circuit.id_of(tag) in {one.devices[0] for one in found}
    for one in found:
        assert len(one.terminals) == 2
        assert say(one.change)


def test_the_one_jumper_is_taken_off_again():
    """A single wire across two terminals is offered to be removed, and nothing else is."""
    circuit = traced("3A", "add FU3.1 FU3.2")
    (found,) = bypass_problems(Graph(circuit))
    mended = replay(circuit, found.edits).circuit
    assert mended.netlist.wires == traced("3A").netlist.wires
    # past two devices no one wire joins the terminals of either: a person has to look
    assert all(not one.edits for one in bypass_problems(Graph(traced("3A", "add FU3.1 S1.12"))))


@pytest.mark.parametrize("name", list(catalogue()))
def test_every_single_jumper_of_every_circuit_is_seen(name):
    """Across each fuse, pole, heater and contact in turn; and none is seen where none is."""
    circuit = traced(name)
    assert list(bypass_problems(Graph(circuit))) == []
    nets, tried = circuit.netlist.nets(), 0
    wired = {end for wire in circuit.netlist.wires for end in (wire.start, wire.end)}
    for item in circuit.netlist.devices:
        for link in links_of(item):
            ends = [f"{item.id}.{end}" for end in (link.a, link.b)]
            if link.kind not in {"fuse", "pole", "heat", *CONTACTS} or not wired.issuperset(ends):
                continue
            jumper = Wire("jumper", *ends)
            wrong = replace(
                circuit,
                netlist=replace(circuit.netlist, wires=(*circuit.netlist.wires, jumper)),
            )
            assert nets[ends[0]] != nets[ends[1]]
            named = {one.terminals for one in bypass_problems(Graph(wrong))}
            assert tuple(ends) in named, ends
            tried += 1
    assert tried


#: mistake, the rule and words of its cause, and what must not be said
CAUSES: list[tuple[str, str, str, str, str]] = [
    # a travel limit: its seal-in leads around it
    ("6D", "move KF.14 LS1.11 -> LS1.12", "H16", "LS1 does not drop KF", "bypassed"),
    # a jog landed on the run relay; a jog selector whose contact is jumpered
    ("5B", "move S3.14 KM1.A1 -> KA1.A1", "H17", "S3 is a jog", "S1 does not"),
    ("5A", "add SS1.13 SS1.14", "H17", "At JOG S2 pulls in KM1", "S2 is a jog"),
    # OFF that does not stop: the float switch landed ahead of the selector
    ("2A", "move PS1.13 SS1.14 -> SS1.13", "H16", "SS1 at OFF does not stop it: KM1", "bypassed"),
    # alarm and trip of an RTD monitor, of two thermostats
    ("14C", "move S1.11 RM1.24 -> RM1.14", "H40", "alarm and trip are exchanged", "bypassed"),
    ("14A", "set TH1 t=130; set TH2 t=145", "H40", "alarm and trip are exchanged", "bypassed"),
    # a manual starter above its ceiling
    ("1A", "set Q1 iset=16", "H22", "160 %", "short"),
    # protection far from its size
    ("3A", "set FU1 a=100", "E06", "FU1 of 100 A", "short"),
    ("3A", "set T1 va=100; set FU1 a=6", "E06", "500 % of it, 1.04 A", "short"),
    ("3A", "set QF1 mag=5000", "E05", "500 times", "trips on"),
    # 10 A draw 60 A at a start: no short circuit, and no missing seal-in
    ("3A", "set QF1 mag=40", "E05", "about 60 A", "A short circuit:"),
    ("3A", "set QF1 mag=40", "E05", "no short circuit", "only while it is held"),
    ("3A", "set QF1 a=100", "E05", "1000 %", "short"),
    # the transformer: backwards, linked for other volts, not linked; never "fit another coil"
    ("3A", "swap T1.H1 T1.X1; swap T1.H4 T1.X2", "H44", "connected backwards: 480 V", "coil"),
    (
        "3A",
        "remove T1.H2 T1.H3; add T1.H1 T1.H3; add T1.H2 T1.H4",
        "H44",
        "linked for 240 V and gets 480 V: it gives 240 V",
        "coil's rated",
    ),
    ("3A", "set SUP v=240; set M1 v=240", "H44", "Change its links to H1-H3, H2-H4", "E01"),
    ("3A", "remove T1.H2 T1.H3", "H44", "are not linked", "No operator action"),
    ("3A", "set SUP v=400; set M1 v=400", "H44", "no link of its windings fits", "another coil"),
]


@pytest.mark.parametrize(("name", "edit", "rule", "says", "never"), CAUSES)
def test_the_cause_is_named_and_no_false_one(name, edit, rule, says, never):
    """The rule's words are there; the words of a false cause are not."""
    found = [(one.rule, f"{say(one.message)} {say(one.change)}") for one in new(name, edit)]
    assert any(own == rule and says in text for own, text in found), found
    assert all(never not in f"{own} {text}" for own, text in found), found


def test_a_coil_is_blamed_only_where_its_neighbors_are_right():
    """One 24 V coil among lamps that burn right is the wrong one; all alike are not."""
    (alone,) = [one for one in new("3A", "set KM1 coil=24") if one.rule == "H44"]
    assert [edit.parameters for edit in alone.edits] == [{"coil": "120"}]
    alike = [one for one in new("3A", "set T1 sec=240") if one.rule == "H44"]
    assert alike
    assert all(not one.edits for one in alike)
    assert any("not the coils" in say(one.change) for one in alike)


@pytest.mark.parametrize("name", ["1A", "3A", "7A", "16A"])
def test_a_default_is_no_rating(name):
    """What no step and no person stands behind is not compared with a motor."""
    for motor in [item.id for item in circuit_of(name).netlist.devices if item.type[:5] == "motor"]:
        tag = circuit_of(name).tags[motor]
        wrong = traced(name, f"set {tag} fla=1.1")
        found = check_circuit(wrong, is_stated=lambda device, rating: False)
        assert not {"E05", "E06"} & {one.rule for one in found}
