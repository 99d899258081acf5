"""The worked cases of the relay, each from the standard's own words."""

import pytest
from logic_play import of_class, play, points_of

from evencoil.logic import (
    LogicError,
    check_program,
    form_of_rungs,
    program_text,
    read_program,
    read_xml,
    rungs_of,
    rungs_text,
    statement_text,
    write_xml,
)


def named(case):
    """Return what a case is called in a report."""
    return case["id"]


@pytest.mark.parametrize(
    "case", [one for one in of_class("run", "scenario") if "program" in one], ids=named
)
def test_a_program_runs_as_the_standard_says(case):
    """Timers at their edges, counters at their limits, power and filters in their order."""
    assert play(case) == [], case["why"]


@pytest.mark.parametrize("case", of_class("refuse"), ids=named)
def test_what_is_wrong_is_said_with_its_place(case):
    """The first refusal: code, line and column, what was expected, what was found."""
    with pytest.raises(LogicError) as refused:
        read_program(case["program"], points_of(case))
    told, found = case["refusal"], refused.value
    assert (found.code, found.line, found.column) == (told["code"], told["line"], told["column"])
    assert told.get("expected", "") in found.expected
    assert told.get("found", "") in found.found


@pytest.mark.parametrize("case", of_class("rungs"), ids=named)
def test_text_is_drawn_as_rungs_and_back(case):
    """Contacts, coils and blocks; what has no contact form stays text; back it is the same."""
    checked = read_program(case["program"])
    rungs = rungs_of(checked)
    assert rungs == case["rungs"]
    assert check_program(form_of_rungs(checked.program, rungs)).program == checked.program
    body = "\n".join(statement_text(one) for one in checked.program.statements)
    assert body == case.get("canonical", body)
    assert read_program(program_text(checked.program)).program == checked.program


@pytest.mark.parametrize("case", [one for one in of_class("run") if "rungs" in one], ids=named)
def test_rungs_run_in_the_order_they_are_drawn(case):
    """The order of rungs is the order of evaluation."""
    text = f"{case['declare']}\n{rungs_text(case['rungs'])}"
    assert play(case, read_program(text, points_of(case))) == [], case["why"]


@pytest.mark.parametrize("case", of_class("xml-trip"), ids=named)
def test_a_file_holds_the_same_program(case):
    """Written as text and as a ladder, and read again."""
    checked = read_program(case["program"])
    for form in case["forms"]:
        assert read_xml(write_xml(checked, form)).program == checked.program


@pytest.mark.parametrize("case", of_class("xml-read"), ids=named)
def test_a_ladder_of_another_program_is_read(case):
    """Several wires into one input are parallel."""
    program = read_xml(case["xml"].encode()).program
    assert "\n".join(statement_text(one) for one in program.statements) == case["canonical"]


@pytest.mark.parametrize("case", of_class("xml-refuse"), ids=named)
def test_a_file_that_is_not_taken_says_where(case):
    """Code and line of the first thing that is not taken over."""
    with pytest.raises(LogicError) as refused:
        read_xml(case["xml"].encode())
    assert refused.value.code == case["refusal"]["code"]
    assert refused.value.line == case["refusal"]["line"]
