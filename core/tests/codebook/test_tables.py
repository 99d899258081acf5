"""The loader refuses what it cannot vouch for; doubts reach the step."""

import pytest

from evencoil.codebook.tables.loader import TableFileError, digests, parse, parse_doubts, table

GOOD = "# title: t\n# source: s\n# units: u\n# empty: e\n# status: unverified\na,b\n1,2\n3,\n"


@pytest.mark.parametrize("line", range(5))
def test_a_table_without_a_header_line_is_refused(line):
    """Each of the five header lines is asked for."""
    lines = GOOD.splitlines()
    del lines[line]

    with pytest.raises(TableFileError, match="header line"):
        parse("t", "\n".join(lines), ())


def test_rows_of_another_width_are_refused():
    """A row with one cell more than the header row is refused."""
    with pytest.raises(TableFileError, match="width"):
        parse("t", GOOD + "1,2,3\n", ())


@pytest.mark.parametrize("text", ["", "file,row_key\n1,2\n", "# title: t\n"])
def test_a_list_of_doubts_that_is_none_is_refused(text):
    """An empty or malformed list of doubts is no list."""
    with pytest.raises(TableFileError):
        parse_doubts(text)


def test_a_table_that_is_not_there_is_refused():
    """No table is made up."""
    with pytest.raises(TableFileError, match="missing"):
        table("999_9")


def test_every_shipped_table_loads_and_is_marked_unverified():
    """All tables have their header, and none claims to be checked when it is not."""
    for name in digests():
        if name != "doubts.csv":
            assert "unverified" in table(name.removesuffix(".csv")).status


def test_every_doubt_points_at_a_cell_that_exists():
    """A doubt whose row or column does not exist would never be shown."""
    for name in digests():
        if name == "doubts.csv":
            continue
        book = table(name.removesuffix(".csv"))
        for doubt in book.doubts:
            place = next(
                row
                for row, cells in enumerate(book.rows)
                if " ".join(cells).startswith(doubt.row_key)
                or doubt.row_key == cells[0]
                or doubt.row_key in {cells[1], " ".join(cells[:2])}
            )
            assert doubt.column in book.columns
            if book.number(place, doubt.column) is not None and name != "240_6_a.csv":
                edition = int(doubt.edition or 2023)
                assert book.find(place, doubt.column, edition=edition).marks


def test_a_cell_is_shown_with_one_row_above_and_below():
    """15 hp, 460 V is 21 A, with 10 and 20 hp beside it."""
    book = table("430_250_induction")
    row = book.column("hp").index("15")
    found = book.find(row, "v460", edition=2023)

    assert [cells[0] for cells in found.cell.rows] == ["10", "15", "20"]
    assert found.cell.rows[found.cell.hit_row][found.cell.hit_column] == "21"
    with pytest.raises(ValueError, match="empty"):
        book.find(row, "v2300", edition=2023)
