"""What hangs on a program and what does not: outputs free, stops and interlocks by wire."""

import re

import pytest
from circuit_play import circuit_of, edited

from evencoil.base import say
from evencoil.checks import check_circuit, restarts_of
from evencoil.circuit import Edit, replay


def rules(circuit):
    """Return the numbers of the rules that a circuit breaks, with their levels."""
    return {(one.rule, one.level) for one in check_circuit(circuit)}


def programmed(name, text):
    """Return a circuit of the catalogue with another program."""
    edit = Edit(id="p", kind="set", device="program_relay", parameters={"program": text})
    done = replay(circuit_of(name), [edit])
    assert not done.stale
    return done.circuit


@pytest.mark.parametrize(
    ("name", "restarts"),
    [
        # from the catalogue's own hazards: a level starts again, an edge with a seal does not
        ("13A", {"power_back", "overload_reset", "estop_release"}),
        ("13B", {"overload_reset"}),
        ("13C", {"overload_reset"}),
        ("13D", set()),
        ("13E", {"power_back", "overload_reset"}),
    ],
)
def test_what_restarts_is_found_by_playing_the_program(name, restarts):
    """13B and 13E latch a fault after 1 and 2 s; reset before that, the command still stands."""
    assert set(restarts_of(circuit_of(name))) == restarts


def test_an_edge_that_waits_for_ready_is_no_finding():
    """The cure of L09: a rise counts only if the stop input was on in the scan before."""
    text = circuit_of("13B").netlist.device("program_relay").parameters["program"]
    assert ("L09", "doubt") in rules(circuit_of("13B"))
    cured = text.replace("FLT, RUN : BOOL", "FLT, RUN, Ready : BOOL")
    cured = cured.replace("(R1.Q OR RUN)", "(R1.Q AND Ready OR RUN)") + "Ready := I1;\n"
    assert "L09" not in {rule for rule, _ in rules(programmed("13B", cured))}


def rewired(name, *lines):
    """Return a circuit with wires taken off and put on."""
    return edited(circuit_of(name), ";".join(lines))


def test_outputs_fed_ahead_of_the_stop_are_an_error():
    """13A with the commons on wire 1: pressed, the coil can still be fed."""
    circuit = rewired("13A", "remove KM1.33 PL1.Q1_1", "add PL1.Q1_1 PL1.L")
    assert ("L01", "error") in rules(circuit)


def test_a_stop_that_only_tells_the_program_is_an_error():
    """Its contact behind an input, everything else on wire 1."""
    circuit = rewired(
        "13A",
        "remove PL1.L ES1.11",
        "remove ES1.12 SS1.13",
        "add PL1.L SS1.13",
        "add PL1.Q2_1 ES1.11",
        "add ES1.12 PL1.I3",
    )
    assert ("L02", "error") in rules(circuit)


def test_interlocks_by_program_alone_are_an_error():
    """13C with its two opening contacts bridged: forced, both pull in."""
    assert "L04" not in {rule for rule, _ in rules(circuit_of("13C"))}
    circuit = rewired(
        "13C",
        "remove PL1.Q1_2 KR.21",
        "remove KR.22 KF.A1",
        "add PL1.Q1_2 KF.A1",
        "remove PL1.Q2_2 KF.21",
        "remove KF.22 KR.A1",
        "add PL1.Q2_2 KR.A1",
        "set KF mech=",
        "set KR mech=",
    )
    assert ("L04", "error") in rules(circuit)


@pytest.mark.parametrize(
    ("lines", "unguarded"),
    [
        (("remove PL1.Q1_2 KR.21", "remove KR.22 KF.A1", "add PL1.Q1_2 KF.A1"), "forward"),
        (("remove PL1.Q2_2 KF.21", "remove KF.22 KR.A1", "add PL1.Q2_2 KR.A1"), "reverse"),
    ],
)
def test_one_interlock_that_is_missing_is_enough(lines, unguarded):
    """The other contactor is in first, then the output of the unguarded one is forced."""
    circuit = rewired("13C", *lines, "set KF mech=", "set KR mech=")
    assert ("L04", "error") in rules(circuit), unguarded


def test_feedback_from_the_coil_is_no_feedback():
    """Wire 6 to the input instead of the auxiliary."""
    circuit = rewired("13A", "remove KM1.34 PL1.I2", "add KM1.A1 PL1.I2")
    assert ("L06", "doubt") in rules(circuit)


@pytest.mark.parametrize(
    ("text", "rule"),
    [
        ("Q1 := I1;\nQ1 := I2;\nQ2 := Q1 AND NOT I2;\n", "L10"),
        (
            "VAR T1 : TON; END_VAR\nIF I1 THEN T1(IN := I2, PT := T#1s); END_IF;\nQ1 := T1.Q;\n",
            "L11",
        ),
        ("VAR Spare : BOOL; END_VAR\nQ1 := I1;\n", "L12"),
        ("IF TRUE THEN Q1 := I1; END_IF;\n", "L13"),
        ("VAR T1 : TON; END_VAR\nT1(IN := I1, PT := T#5ms);\nQ1 := T1.Q;\n", "L14"),
        ("VAR RETAIN Run : BOOL; END_VAR\nRun := I1 OR Run;\nQ1 := Run;\n", "L15"),
    ],
)
def test_doubts_of_the_text_itself(text, rule):
    """Each by its own small program, and not in the plain one."""
    assert rule in {one for one, _ in rules(programmed("13A", text))}
    assert rule not in {one for one, _ in rules(programmed("13A", "Q1 := I1;\n"))}


def test_both_ways_compared_is_no_finding():
    """Commanded and not in, in and not commanded."""
    both = "Q1 := I1;\nQ2 := (Q1 AND NOT I2) OR (I2 AND NOT Q1);\n"
    assert "L07" not in {rule for rule, _ in rules(programmed("13A", both))}
    assert "L07" not in {
        rule for rule, _ in rules(programmed("13A", "Q1 := I1;\nQ2 := Q1 XOR I2;\n"))
    }


DIRECT = """VAR CF, CR : BOOL; END_VAR
CF := (I2 OR CF) AND I1 AND NOT I3;
CR := (I3 OR CR) AND I1 AND NOT I2 AND NOT CF;
Q1 := CF AND NOT Q2;
Q2 := CR AND NOT Q1;
"""


@pytest.mark.parametrize(
    ("name", "old", "new", "found"),
    [
        # the output opens 6 ms and closes 10 ms after its scan; half a second by its timers, and 50 ms behind the star's own contact: enough
        ("13C", "", "", set()),
        ("13D", "", "", set()),
        # forward to reverse in one scan; reverse to forward one scan later
        ("13C", "whole", DIRECT, {"4 ms", "14 ms"}),
        # star off and delta on by one timer, with nothing between them
        ("13D", "Q3 := RUN AND T2.Q AND NOT Q2;", "Q3 := RUN AND T1.Q;", {"4 ms"}),
    ],
)
def test_a_dead_time_under_drop_out_and_arc(name, old, new, found):
    """L16: 15 ms of drop-out at 1.5 times its usual, and 8 ms of arc, are 30.5 ms."""
    text = circuit_of(name).netlist.device("program_relay").parameters["program"]
    circuit = programmed(name, new if old == "whole" else text.replace(old, new))
    told = [say(one.message) for one in check_circuit(circuit) if one.rule == "L16"]
    assert {re.search(r" (\d+ ms) after", one)[1] for one in told} == found
    assert all("31 ms" in one for one in told)


def test_a_reset_step_is_offered_and_cures():
    """13A: its selector is behind the emergency stop; the button and its edge come first."""
    circuit = circuit_of("13A")
    (told,) = [one for one in check_circuit(circuit) if one.rule == "L08"]
    assert told.level == "error"
    done = replay(circuit, list(told.edits))
    assert not done.stale
    text = done.circuit.netlist.device("program_relay").parameters["program"]
    # by hand: I3 is the first free input, I1 is what falls with the emergency stop
    for line in (
        "Reset_edge(CLK := I3);",
        "Reset_done := (Reset_edge.Q OR Reset_done) AND I1;",
        "Q1 := I1 AND Reset_done;",
    ):
        assert line in text
    # the flag is gone with the supply too; an overload leaves I1, and so the flag, where it is
    assert set(restarts_of(done.circuit)) == {"overload_reset"}
    assert "L08" not in {rule for rule, _ in rules(done.circuit)}


def test_without_a_free_input_no_step_is_offered():
    """The finding stays, and says why nothing is offered."""
    edit = Edit(id="n", kind="set", device="program_relay", parameters={"in": "2"})
    circuit = replay(circuit_of("13A"), [edit]).circuit
    (told,) = [one for one in check_circuit(circuit) if one.rule == "L08"]
    assert told.edits == ()
    assert "no free input" in say(told.change)
