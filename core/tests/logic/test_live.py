"""What a running program shows: values, contacts that conduct, contacts that carry power."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from evencoil.logic import LiveProgram, Machine, read_program
from evencoil.logic.literals import time_text

PROGRAM = """VAR Run, Flt : BOOL; N : INT := 7; D : TIME := T#90s; X : REAL := 0.25; T1 : TON; END_VAR
VAR R1 : R_TRIG; END_VAR
Run := (I1 AND NOT I2) OR (Run AND I3);
Q1 := NOT (Run AND I2);
R1(CLK := I3);
IF R1.Q AND N > 5 THEN Flt := TRUE; END_IF;
T1(IN := Run, PT := T#2s);
Q2 := TRUE;
N := N + 1;
"""


def looked(**levels):
    """Return flows and values after one scan with these inputs on, and the names of each network."""
    checked = read_program(PROGRAM)
    machine, live = Machine(checked), LiveProgram(checked)
    for name, level in levels.items():
        machine.give(name, level)
    machine.scan(0)
    return live.flows(machine), live.values(machine), [one.names for one in live.networks]


@pytest.mark.parametrize(
    ("levels", "flows"),
    [
        # nothing on: the two closed contacts conduct, of which the first is without power
        ({}, ["0100:0", "00:0", "02:0", "0:0", "2:1", ""]),
        # I1: both contacts of the upper branch pass; in the lower one Run is on and I3 is not
        ({"I1": True}, ["2220:1", "20:0", "02:0", "2:1", "2:1", ""]),
        # I2 opens the upper branch behind I1, which still has power
        ({"I1": True, "I2": True}, ["2000:0", "01:0", "02:0", "0:0", "2:1", ""]),
        # I3 rises: the edge passes; N is 8 when it is looked at, and was 7 when it was compared
        ({"I3": True}, ["0101:0", "00:0", "22:1", "0:0", "2:1", ""]),
    ],
)
def test_contacts_conduct_and_carry_power(levels, flows):
    """By hand: series passes only what it is fed, of parallel branches one is enough."""
    # N > 5 conducts in every case; behind an edge that does not pass it is without power
    wanted = [one.replace("02:0", "01:0") for one in flows]
    assert list(looked(**levels)[0]) == wanted


def test_names_are_worth_what_a_program_would_write():
    """BOOL as 1 and 0, INT and REAL as numbers, TIME as a duration; of a block what it shows."""
    _, values, names = looked(I1=True)
    assert values["Run"] == "1"
    assert values["N"] == "8"
    assert values["T1.Q"] == "0"
    assert values["T1.ET"] == "T#0s"
    assert "X" not in values  # no network names it
    assert names[0] == ("I1", "I2", "Run", "I3")
    assert names[2] == ("I3", "R1.Q", "N", "Flt")
    assert names[3] == ("Run", "T1.Q", "T1.ET")


@given(st.integers(-(2**31), 2**31 - 1))
def test_a_duration_reads_back(value):
    """Days to milliseconds, each once, in the order in which they are read."""
    program = read_program(f"VAR D : TIME := {time_text(value)}; END_VAR\nQ1 := D > T#0s;\n")
    (block,) = program.program.blocks
    assert block.declared[0].initial.value == value


@pytest.mark.parametrize(
    ("value", "told"),
    [(0, "T#0s"), (90_000, "T#1m30s"), (1250, "T#1s250ms"), (-20, "T#-20ms")],
)
def test_a_duration_is_told_in_its_units(value, told):
    """By hand."""
    assert time_text(value) == told
