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
from evencoil.checks.expected import with_expectations
from evencoil.checks.power import exclusive_pairs
from evencoil.checks.proofs import prove
from evencoil.checks.reach import Graph
from evencoil.circuit import CONTACTS, Wire, links_of
from evencoil.circuit.edits import replay
from evencoil.rehearsal.probes import probes
from evencoil.rehearsal.stage import ScenarioAct, Stage
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
    # run and star point of an autotransformer, two windings at once: derived from the wires
    (
        "9A",
        "add KM.21 KM.22; add KM.31 KM.32; add KY.21 KY.22; add KS.21 KS.22",
        "H08",
        "KM, KY together bridge a section of the autotransformer",
        "short two lines",
    ),
    (
        "11C",
        "add KL.21 KL.22; add KH.21 KH.22; set KL mech=; set KH mech=",
        "H08",
        "KH, KL together feed the motor for two speeds at once",
        "short two lines",
    ),
    # the start stage is no reason to turn the overload down
    ("7A", "set KT1 t=120", "H23", "still in its start stage", "is set to"),
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


def bare_pairs(name):
    """Return the pairs that the wires alone tell, without the catalogue's own list."""
    return set(exclusive_pairs(Graph(replace(circuit_of(name), never_together=()))))


def test_pairs_of_autotransformers_and_two_speeds_come_from_the_wires():
    """Run with star point; low with high speed, and low with the bridge of the high one."""
    assert bare_pairs("9A") == {frozenset({"main", "star"})}
    assert bare_pairs("9B") == {frozenset({"main", "star"})}
    assert frozenset({"high_contactor", "low_contactor"}) in bare_pairs("11A")
    assert bare_pairs("11C") == {frozenset({"high_contactor", "low_contactor"})}


@pytest.mark.parametrize("name", ["7A", "8A", "9A"])
def test_the_gap_is_told_over_the_whole_band(name):
    """Late drop-out with early pull-in gives the least gap, the other way round the most."""
    (gap,) = [one for one in check_circuit(circuit_of(name)) if one.rule == "H25"]
    least, usual, most = (int(gap.message.params[key]) for key in ("least", "milliseconds", "most"))
    assert 0 < least < usual < most
    # both contactors together move by half of 20 ms and of 15 ms, on their way to the contacts
    assert most - least < 40


def test_a_change_over_that_closes_within_the_band_is_an_error():
    """Without interlock and pause the usual times still part the lines; slow ones do not.

    Wye: 3 ms magnetic, 0.3 of 15 ms, 8 ms arc, parted at 15.5 ms, late at 17.8 ms. Delta: 3 ms
    and 0.7 of 20 ms, made at 17 ms, early at 12.8 ms.
    """
    edit = "add KY.21 KY.22; set KT1 pause=0; set KY mech=; set KD mech="
    found = {one.rule: say(one.message) for one in new("7A", edit)}
    assert "KD, KY are closed at the same time at the change-over of M1" in found["H25"]


def test_unequal_phases_are_told():
    """An autotransformer on unequal taps feeds the motor a backward field."""
    found = {one.rule for one in new("9A", "set TA1 taps=50,65,80")}
    assert "E07" not in found
    taps = [
        wire
        for wire in traced("9A").netlist.wires
        if "autotransformer.A65" in wire.start + wire.end
    ]
    assert taps
    tag = traced("9A").said(
        taps[0].end if taps[0].start.startswith("autotransformer") else taps[0].start
    )
    moved = {one.rule for one in new("9A", f"move {tag} TA1.A65 -> TA1.A80")}
    assert {"H27", "E07"} <= moved


@pytest.mark.parametrize(
    ("name", "edit", "act"),
    [
        # a limit, OFF, a hot winding, a jog: each must stop what it is there to stop
        ("6D", "move KF.14 LS1.11 -> LS1.12", "LS1 on"),
        ("2A", "move PS1.13 SS1.14 -> SS1.13", "SS1 on OFF"),
        ("14A", "move KM1.13 S2.13 -> TH1.P1", "S1 pushed"),
        ("5B", "move S3.14 KM1.A1 -> KA1.A1", "S3 pushed"),
    ],
)
def test_what_does_not_stop_is_tried(name, edit, act):
    """The test names the act after which it still runs; on the right circuit it holds."""
    (right,) = probes(with_expectations(traced(name)), ("stop",))
    assert right.holds
    assert right.searched
    (wrong,) = probes(with_expectations(traced(name, edit)), ("stop",))
    assert not wrong.holds
    assert say(wrong.acts[-1]) == act


def test_a_hot_winding_must_stop_it():
    """With stop and thermostat in either order it stops; a seal-in around the last one does not.

    The two exchanged in their series: right as before. The seal-in then taken from between them
    leads around the thermostat alone, and heating the winding shows it.
    """
    exchanged = "swap TH1.P1 S1.11; swap TH1.P2 S1.12"
    assert prove(traced("14A", exchanged)).holds
    wrong = traced("14A", f"{exchanged}; move KM1.13 S2.13 -> S1.12")
    broken = {one.code: [say(act) for act in one.acts] for one in prove(wrong).broken}
    assert broken["does_not_stop"] == ["S2 held", "winding of M1 at 250 °C"]


@pytest.mark.parametrize(
    ("system", "holds"), [("wye", False), ("delta", False), ("high_leg", False), ("corner", True)]
)
def test_ground_faults_on_the_jobs_own_system(system, holds):
    """Line-voltage control, 480 V between L1 and L2, a ground at the stop button's load side.

    On a grounded system the coil is left between L2 and ground: 277 V of 480 V hold it, the
    fuse in L1 blows but feeds nothing any more. An ungrounded one holds at the first fault and
    not at the second one, on L1. With L2 grounded the coil has no volts to ground at all.
    """
    (found,) = probes(
        with_expectations(edited(circuit_of("3D"), f"set SUP system={system}")), ("ground",)
    )
    assert found.holds is holds
    if system == "delta":
        assert next(say(act) for act in found.acts) == "SUP.L1 grounded"


def test_a_transformer_behind_any_system_holds_at_a_ground_fault():
    """The bonded secondary is a system of its own: its fuse blows, whatever the line is."""
    for system in ("wye", "delta", "high_leg", "corner"):
        circuit = with_expectations(edited(circuit_of("3A"), f"set SUP system={system}"))
        (found,) = probes(circuit, ("ground",))
        assert found.holds
        assert found.searched >= (32 if system == "delta" else 8)


def test_starting_current_is_told_from_a_short_circuit_when_it_is_played():
    """40 A magnetic against 60 A: opens on load. A ground on the fused side: a short circuit."""
    low = Stage(edited(circuit_of("3A"), "set QF1 mag=40"))
    start = [
        ScenarioAct(at_us=0, do="close", on="breaker"),
        ScenarioAct(at_us=10**6, do="push", on="start"),
    ]
    codes = {one.code for one in low.play(start, until_us=4 * 10**6).hazards}
    assert "opens_on_load" in codes
    assert "short" not in codes
    grounded = Stage(edited(circuit_of("3A"), "add S2.14 SUP.PE"))
    codes = {one.code for one in grounded.play(start, until_us=4 * 10**6).hazards}
    assert "short" in codes
    assert "opens_on_load" not in codes


@pytest.mark.parametrize(
    ("volts", "burns"), [("120", False), ("85", False), ("80", False), ("75", True), ("24", True)]
)
def test_a_coil_on_half_again_its_volts_is_a_hazard(volts, burns):
    """117 V on a coil of 75 V is 156 %: it burns out. 146 % is a finding, not yet a hazard."""
    stage = Stage(edited(circuit_of("3A"), f"set KM1 coil={volts}"))
    start = [
        ScenarioAct(at_us=0, do="close", on="breaker"),
        ScenarioAct(at_us=10**6, do="push", on="start"),
    ]
    codes = {one.code for one in stage.play(start, until_us=2 * 10**6).hazards}
    assert ("coil_burns" in codes) is burns
