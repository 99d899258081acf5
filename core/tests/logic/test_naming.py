"""Names of an I/O list in a program: by hand, and by the property that it does the same."""

import pytest

from evencoil.logic import (
    LogicError,
    Points,
    checked_programs,
    read_io_list,
    read_program,
    rungs_of,
    with_names,
)


def named(text, table, points=None):
    """Return a program with the names of a table."""
    points = points or Points()
    return with_names(text, read_program(text, points), read_io_list(table, points))


def test_uses_and_declarations_get_the_name_and_comments_stay():
    """A point used bare is declared; an argument of a block that is spelled alike is left."""
    text = "(* why *)\nVAR T : TON; END_VAR\nT(IN := I1, PT := T#2s);\nQ1 := T.Q AND i1; // I1\n"
    made = named(text, "point,name\nI1,Stop\nQ1,Main\n")
    assert made == (
        "(* why *)\nVAR T : TON; END_VAR\nVAR\n  Stop AT %IX0.0 : BOOL;\n"
        "  Main AT %QX0.0 : BOOL;\nEND_VAR\nT(IN := Stop, PT := T#2s);\n"
        "Main := T.Q AND Stop; // I1\n"
    )


def test_a_name_that_stands_is_changed_and_two_can_change_places():
    """The list may call the first what the program called the second."""
    text = "VAR\n  A AT %IX0.0 : BOOL;\n  B AT %IX0.1 : BOOL;\nEND_VAR\nQ1 := A AND NOT B;\n"
    made = named(text, "point,name\nI1,B\nI2,A\n")
    assert made.endswith("Q1 := B AND NOT A;\n")
    assert rungs_of(read_program(made))[0] is not None
    assert read_program(made).symbol("B").slot == "I1"


def test_an_empty_list_of_names_changes_nothing():
    """A list as it goes out of a program without names goes in again without a trace."""
    text = "PROGRAM P Q1 := I1; END_PROGRAM"
    assert named(text, "point,name\nI1,\nQ1,\n") == text
    assert named(text, "point,name\nI1,Go\n") == (
        "PROGRAM P VAR\n  Go AT %IX0.0 : BOOL;\nEND_VAR\nQ1 := Go; END_PROGRAM"
    )


@pytest.mark.parametrize(
    ("table", "code", "line"),
    [
        ("point,name\nI1,Stop\nI2,stop\n", "duplicate", 3),
        ("point,name\nI1,Run\n", "duplicate", 2),
        ("point,name\nI1,Q2\n", "duplicate", 2),
        ("point,name\nI1,two words\n", "csv", 2),
        ("point,name\nI1,IF\n", "csv", 2),
        ("point,name\nI1,1A\n", "csv", 2),
    ],
)
def test_what_is_no_free_name_is_refused_with_its_line(table, code, line):
    """Another line's, a variable's, a point's, no name at all."""
    text = "VAR Run : BOOL; END_VAR\nRun := I1;\nQ1 := Run;\n"
    with pytest.raises(LogicError) as refused:
        named(text, table)
    assert (refused.value.code, refused.value.line) == (code, line)


def test_an_address_beyond_the_first_byte():
    """The tenth input is the second of the second byte; an analog input is a word."""
    made = named("Q1 := I10 AND AI1 > 5;\n", "point,name\nI10,Late\nAI1,Warm\n", Points(inputs=12))
    assert "Late AT %IX1.1 : BOOL;" in made
    assert "Warm AT %IW0 : INT;" in made


@pytest.mark.parametrize("shelved", checked_programs(), ids=lambda one: one.id)
def test_a_checked_program_reads_back_by_its_points(shelved):
    """Named and named back to other names: every slot is used as before."""
    points = Points(inputs=16, outputs=8)
    table = "point,name\n" + "".join(f"I{n},In_{n}\n" for n in range(1, 9))
    once = named(shelved.text, table, points)
    again = named(once, table.replace("In_", "Other_"), points)
    assert "In_" not in again
    assert again.replace("Other_", "In_") == once
