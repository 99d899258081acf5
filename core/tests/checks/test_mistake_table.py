"""Every class of single mistake in every circuit is shown by something, as the table says."""

from pathlib import Path

import pytest
from mistakes import lines, rows

from evencoil.starters.catalogue import catalogue

TABLE = Path(__file__).resolve().parents[3] / "docs" / "mistakes.md"
NAMES = ("1B", "3A", "15A")


def part(name):
    """Return the lines of one circuit in the table."""
    text = TABLE.read_text(encoding="utf-8")
    return text.split(f"## {name}\n", 1)[1].split("\n## ", 1)[0].strip().splitlines()


def test_the_table_has_every_circuit():
    """None is left out; the three-motor machine says why it stands elsewhere."""
    text = TABLE.read_text(encoding="utf-8")
    for name in catalogue():
        assert f"## {name}\n" in text


@pytest.mark.many
@pytest.mark.parametrize("name", NAMES)
def test_the_table_is_what_is_found_today(name):
    """Written from the same rows; and no row is empty."""
    found = rows(name)
    assert all(row.is_shown for row in found), [row.mistake for row in found if not row.is_shown]
    assert [line for line in lines(name) if line][1:] == [line for line in part(name) if line]
