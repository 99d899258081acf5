"""A schedule of motors on the screen: read with an error, taken, repaired, read again."""

import re

from playwright.sync_api import expect

from conftest import violations

HEAD = "Equipment No;Description;kW;Volts;FLA;RPM;Phase;System voltage;Starter;Remark"


def lines(count):
    """Return lines of motors: each tenth one has a word where the amps stand."""
    for place in range(1, count + 1):
        amps = "unknown" if place % 10 == 0 else "26,5"
        yield f"SCH-{place};feeder {place};15;460;{amps};1765;3;480Y/277;3A;new"


def test_a_schedule_is_read_repaired_and_taken(opened, tmp_path):
    """Forty motors, four wrong: named by line, the rest taken; mended, the four are added."""
    page = opened("/w/larkfall", username="ruth")
    page.get_by_role("link", name="Schedule").click()
    table = tmp_path / "motors.csv"
    table.write_text("\n".join((HEAD, *lines(40))), "cp1252")
    page.get_by_label("Choose a table").set_input_files(table)
    headline = page.get_by_role("heading", level=1)
    expect(headline).to_contain_text("36 motors can be taken, 4 lines not", ignore_case=True)
    bad = page.get_by_test_id("bad")
    expect(bad.get_by_role("row").nth(1)).to_contain_text("unknown is no figure")
    expect(bad.get_by_role("row").nth(1)).to_contain_text("11")
    assert violations(page) == []
    with page.expect_download() as saved:
        page.get_by_role("link", name="These lines as a file to repair").click()
    repair = tmp_path / "repair.csv"
    mended = saved.value.path().read_text("utf-8-sig").replace(";unknown;", ";26,5;")
    repair.write_text(mended, "utf-8")
    page.get_by_role("button", name="Take 36 motors").click()
    expect(page.get_by_test_id("came")).to_contain_text("36 added, 0 changed, 0 as they were")
    page.get_by_label("Choose a table").set_input_files(repair)
    expect(headline).to_contain_text("4 motors can be taken, 0 lines not", ignore_case=True)
    page.get_by_role("button", name="Take 4 motors").click()
    expect(page.get_by_test_id("came")).to_contain_text("4 added")
    # again, nothing is doubled
    page.get_by_label("Choose a table").set_input_files(table)
    page.get_by_role("button", name="Take 36 motors").click()
    expect(page.get_by_test_id("came")).to_contain_text("0 added, 0 changed, 36 as they were")
    page.goto("/w/larkfall/m/SCH-10/j/1/plate")
    expect(page.get_by_label("Nameplate as stamped")).to_have_value(
        re.compile("15 KW, 460 V, 26.5 A")
    )


def test_a_column_nobody_knows_is_mapped(opened, tmp_path):
    """The head is chosen for its field, and the lines can be taken."""
    page = opened("/w/larkfall/schedule", username="ruth")
    table = tmp_path / "other.csv"
    table.write_text("Nr,Leistung,Spannung\nLKF-1,15,460\n")
    page.get_by_label("Choose a table").set_input_files(table)
    headline = page.get_by_role("heading", level=1)
    expect(headline).to_contain_text("0 motors can be taken, 1 line not", ignore_case=True)
    for field, head in (("Tag", "Nr"), ("Horsepower", "Leistung"), ("Rated volts", "Spannung")):
        page.get_by_label(field, exact=False).first.select_option(head)
        expect(page.get_by_label(field, exact=False).first).to_have_value(head)
    expect(headline).to_contain_text("1 motor can be taken, 0 lines not", ignore_case=True)
