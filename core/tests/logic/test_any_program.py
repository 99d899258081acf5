"""Any program: rungs, text and files are the same program; two interpreters agree."""

from any_program import BLOCKS, BOOLS, INTS, Naive, programs
from hypothesis import given, settings
from hypothesis import strategies as st

from evencoil.logic import (
    Machine,
    check_program,
    form_of_rungs,
    program_text,
    read_program,
    read_xml,
    rungs_of,
    write_xml,
)


@given(text=programs())
@settings(max_examples=200, deadline=None)
def test_text_rungs_and_files_are_the_same_program(text):
    """Written in the usual form, drawn, filed and read again: nothing is lost."""
    checked = read_program(text)
    assert read_program(program_text(checked.program)).program == checked.program
    rungs = rungs_of(checked)
    assert check_program(form_of_rungs(checked.program, rungs)).program == checked.program
    assert read_xml(write_xml(checked, "ST")).program == checked.program


@given(text=programs(plain=True))
@settings(max_examples=200, deadline=None)
def test_a_ladder_file_is_the_same_program(text):
    """Every network has contacts; series and parallel come back as they were drawn."""
    checked = read_program(text)
    assert not any("text" in rung for rung in rungs_of(checked))
    assert read_xml(write_xml(checked, "LD")).program == checked.program


@given(
    text=programs(),
    levels=st.lists(
        st.fixed_dictionaries(
            {"I1": st.booleans(), "I2": st.booleans(), "I3": st.booleans()},
            optional={"AI1": st.integers(-50, 1000)},
        ),
        min_size=1,
        max_size=12,
    ),
)
@settings(max_examples=300, deadline=None)
def test_two_interpreters_agree(text, levels):
    """Every variable, every output of a block and every fault, scan by scan."""
    checked = read_program(text)
    machine, naive = Machine(checked), Naive(checked)
    for number, given_levels in enumerate(levels):
        for name, value in given_levels.items():
            machine.give(name, value)
            naive.values[name] = value
        machine.scan(number * 10)
        fault = naive.scan(number * 10)
        assert (None if machine.fault is None else machine.fault.what) == fault
        if fault:
            return
        for name in [*BOOLS, *INTS, "X", "D", "Kept"]:
            assert machine.value(name) == naive.read(name), (number, name)
        for block, (_, _, outs, more) in BLOCKS.items():
            for out in [*outs, *([more] if more else [])]:
                told = machine.value(f"{block}.{out}")
                assert told == naive.blocks[block].get(out, type(told)(0)), (number, block, out)
