"""The worked cases of the relay, each from the standard's own words."""

import pytest
from logic_play import of_class, play, points_of

from evencoil.logic import LogicError, read_program


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
