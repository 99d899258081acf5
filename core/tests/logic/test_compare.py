"""Two texts of a program beside each other."""

from hypothesis import given
from hypothesis import strategies as st

from evencoil.logic import compared

OLD = "VAR Run : BOOL; END_VAR\nRun := I1;\nQ1 := Run;\n"


def told(old, new):
    """Return signs and texts."""
    return [(one.what, one.text) for one in compared(old, new)]


def test_a_changed_line_is_told_with_both_its_texts():
    """One line in three, and blanks at an end are none."""
    assert told(OLD, OLD.replace("Run := I1;", "Run := I1 AND I2;").replace("Q1", "Q1")) == [
        ("same", "VAR Run : BOOL; END_VAR"),
        ("gone", "Run := I1;"),
        ("new", "Run := I1 AND I2;"),
        ("same", "Q1 := Run;"),
    ]
    assert {what for what, _ in told(OLD, OLD.replace("\n", "  \r\n"))} == {"same"}
    assert told("", "Q1 := I1;") == [("new", "Q1 := I1;")]


LINES = st.lists(st.sampled_from(["a := b;", "b := c;", "", "(* x *)"]), max_size=12)


@given(LINES, LINES)
def test_both_texts_are_all_there(old, new):
    """Without what came it is the older, without what went the newer."""
    lines = compared("\n".join(old), "\n".join(new))
    assert [one.text for one in lines if one.what != "new"] == "\n".join(old).splitlines()
    assert [one.text for one in lines if one.what != "gone"] == "\n".join(new).splitlines()
