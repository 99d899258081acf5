"""The further parts of the Size sheet: what is asked, what fails, and why."""

import re

import pytest
from playwright.sync_api import expect

from conftest import DESK, PANEL, violations

SIZE = "/w/larkfall/m/JC-1/j/1/size"


def part(page, name):
    """Open a section of the ledger; one that is open stays so."""
    fold = page.get_by_test_id(f"part-{name}")
    if fold.get_attribute("aria-expanded") == "false":
        fold.click()
    expect(fold).to_have_attribute("aria-expanded", "true")


@pytest.mark.parametrize("seat", [DESK, PANEL], ids=["desk", "panel"])
def test_every_part_answers_and_says_what_fails(opened, seat):
    """From the branch circuit to the weakest part: what fails is shown before it is opened."""
    page = opened(SIZE, seat=seat)
    # as the demo lays it out, whoever was here before
    part(page, "place")
    page.get_by_role("button", name="no reason").click()
    part(page, "fault")
    page.get_by_label("Starter or panel, short-circuit current rating").fill("5")
    expect(page.get_by_test_id("part-fault")).to_contain_text("1 fails")
    expect(page.get_by_test_id("part-place")).to_contain_text("1 fails")
    slip = page.get_by_test_id("slip-starter_short_circuit")
    expect(slip).to_contain_text("does not hold")
    expect(slip).to_contain_text("ASSUMED")
    page.get_by_label("Starter or panel, short-circuit current rating").fill("65")
    expect(slip).to_contain_text("holds")
    expect(page.get_by_test_id("part-fault")).not_to_contain_text("fails")
    part(page, "place")
    expect(page.get_by_test_id("slip-motor_disconnect_place")).to_contain_text("does not hold")
    page.get_by_role("button", name="industrial, written safety").click()
    expect(page.get_by_test_id("slip-motor_disconnect_place")).to_contain_text("holds")
    part(page, "existing")
    expect(page.get_by_test_id("slip-weakest_part")).to_contain_text("nothing wrong")
    page.get_by_label("Overload trips at").fill("110")
    expect(page.get_by_test_id("slip-existing_heaters")).to_contain_text("no protection")
    page.get_by_label("Overload trips at").fill("63.8")
    part(page, "control")
    page.get_by_test_id("why-of-transformer_va").click()
    expect(page.get_by_test_id("why")).to_contain_text("Sealed VA")
    assert violations(page) == []


def test_time_against_current_is_read_off_by_key(opened):
    """Will it start, who acts first: in words, on paper, and at the current one chooses."""
    page = opened(f"{SIZE}?part=time")
    expect(page.get_by_test_id("read-off")).to_contain_text("It starts")
    expect(page.get_by_test_id("time-current")).to_be_visible()
    slider = page.get_by_role("slider")
    slider.focus()
    before = page.get_by_role("row", name=re.compile("overload, cold")).inner_text()
    page.keyboard.press("PageUp")
    expect(page.get_by_role("row", name=re.compile("overload, cold"))).not_to_have_text(before)
    expect(page.get_by_test_id("run-volts")).to_contain_text("at the start")
    assert violations(page) == []


def test_rating_rules_stand_side_by_side(opened):
    """Exam, field, raised, and the ordinary figure with why it does not apply."""
    page = opened("/w/larkfall/m/IC-2/j/1/size")
    page.get_by_test_id("why-of-protection_device_a").click()
    rating_rules = page.get_by_test_id("rating-rules")
    expect(rating_rules).to_contain_text("35 A")
    expect(rating_rules).to_contain_text("240.4(G) releases motor circuits")
    page.get_by_role("button", name="Limits", exact=True).click()
    page.get_by_label("Will not start on a smaller rating, as recorded").fill(
        "opened twice when loaded"
    )
    expect(page.get_by_test_id("slip-protection_device_a")).to_contain_text("45 A")
    page.get_by_label("Will not start on a smaller rating, as recorded").fill("")
    expect(page.get_by_test_id("slip-protection_device_a")).to_contain_text("40 A")


def test_a_heater_chart_comes_in_and_names_the_heater(opened, complaints):
    """A pasted chart with a bad line; the good ones name the heater of SF-5."""
    page = opened("/w/larkfall/heaters")
    page.get_by_label("Paste it as CSV").fill(
        "Relay,Size,Elements,Ambient,Heater,From,To\n"
        "QT-1,1,3,same,Q6,6.3,6.9\nQT-1,1,3,same,Q7,7.0,7.6\nQT-1,1,three,same,Q8,7.7,8\n"
    )
    page.get_by_label("Name").fill("Door of SF-5")
    page.get_by_role("button", name="Import chart").click()
    expect(page.get_by_test_id("taken-in")).to_contain_text("2 heaters imported, 1 line skipped")
    expect(page.get_by_test_id("taken-in")).to_contain_text("Line 4")
    assert violations(page) == []
    page.goto("/w/larkfall/m/SF-5/j/1/size?part=overload")
    page.get_by_role("button", name="Door of SF-5").click()
    expect(page.get_by_test_id("slip-heater_code")).to_contain_text("Q6")
    page.get_by_label("Existing heater code").fill("Q7")
    expect(page.get_by_test_id("slip-existing_heaters")).to_contain_text("8.75")
    complaints.allowed.append("422")
    page.get_by_label("Existing heater code").fill("Q99")
    expect(page.get_by_role("alert")).to_contain_text("has no code Q99")
    page.get_by_label("Existing heater code").fill("")


def test_a_tap_from_the_feeder_by_its_length(opened):
    """20 ft in a raceway is a third of the feeder; 30 ft is all of it."""
    page = opened("/w/larkfall/feeder/Lime Line 1")
    page.get_by_label("Tap to IC-2").fill("20")
    expect(page.get_by_text("a third of the feeder")).to_be_visible()
    page.get_by_label("Tap to IC-2").fill("30")
    expect(page.get_by_text("the feeder's own")).to_be_visible()


def test_a_local_amendment_shows_in_the_evidence(opened):
    """12 AWG at least, by name and reason; taken out again it is gone."""
    page = opened("/w/larkfall/rules")
    page.get_by_label("Value, AWG").fill("8")
    page.get_by_label("Required by").fill("county inspector")
    page.get_by_label("Reason", exact=True).fill("local ordinance")
    page.get_by_role("button", name="Put in force").click()
    expect(page.get_by_text("county inspector: local ordinance")).to_be_visible()
    page.goto("/w/larkfall/m/SF-5/j/1/size#conductor_size")
    expect(page.get_by_test_id("slip-conductor_size")).to_contain_text("8 AWG")
    expect(page.get_by_test_id("why")).to_contain_text("Local: smallest conductor")
    page.goto("/w/larkfall/rules")
    page.get_by_role("button", name="Remove").click()
    expect(page.get_by_text("county inspector: local ordinance")).to_be_hidden()


def test_motors_that_never_run_together_count_once(opened):
    """Two motors interlocked: the feeder falls, and its evidence names the exception."""
    page = opened("/w/larkfall/feeder/Lime Line 1")
    before = page.get_by_test_id("slip-feeder_ampacity_a").inner_text()
    group = page.get_by_role("group", name="Never run together")
    group.get_by_role("button", name="JC-1").click()
    expect(group).to_contain_text("with which other motor?")
    group.get_by_role("button", name="BM-3").click()
    expect(page.get_by_test_id("slip-feeder_ampacity_a")).not_to_have_text(before)
    page.get_by_test_id("slip-feeder_ampacity_a").click()
    expect(page.get_by_text("Only the largest combination that can run together")).to_be_visible()
    expect(page.get_by_test_id("ghost")).to_have_count(0)
    assert violations(page) == []


def test_duty_rotor_and_drive_are_asked_for_and_answered(opened):
    """Other duty, a wound rotor's secondary, a drive's rated input: each gives its figures."""
    page = opened("/w/larkfall/m/BM-3/j/1/size?part=motor")
    page.get_by_role("button", name="Not continuous duty").click()
    page.get_by_label("Why it cannot run continuously").fill("the mill empties in ten minutes")
    part(page, "branch")
    page.get_by_test_id("why-of-conductor_size").click()
    expect(page.get_by_test_id("why")).to_contain_text("Table 430.22(E)")
    part(page, "motor")
    page.get_by_role("button", name="Continuous duty").click()
    page.get_by_role("button", name="wound rotor").click()
    page.get_by_label("Secondary amps, nameplate").fill("120")
    # 120 A x 1.25 = 150 A
    expect(page.get_by_test_id("slip-secondary_conductor_size")).to_contain_text("1/0")
    page.get_by_role("button", name="squirrel cage").click()
    # the answer takes the figure away, and what lies below it moves up
    expect(page.get_by_test_id("slip-secondary_conductor_size")).to_have_count(0)
    part(page, "drive")
    page.get_by_label("Rated input current").fill("190")
    # 190 A x 1.25 = 237.5 A
    page.get_by_test_id("why-of-drive_conductor_size").click()
    expect(page.get_by_test_id("why")).to_contain_text("237.5")
    assert violations(page) == []
    page.get_by_label("Rated input current").fill("")
    expect(page.get_by_test_id("slip-drive_conductor_size")).to_have_count(0)
