"""Joints by tapping, by key and by the derived answer; what a wrong one would do; history."""

import re

import pytest
from playwright.sync_api import expect

from conftest import DESK, PANEL, moved, violations

SAVED = re.compile(r"^Saved( \d\d:\d\d)?$")
LEADS = "/w/larkfall/m/SF-5/j/1/leads"


def end(page, name):
    """Return a lead or a line of the picture."""
    return page.locator(f"[data-end={name}]")


def settled(page):
    """Wait until the last change is saved."""
    expect(page.get_by_text(SAVED)).to_be_visible()


def choose(page, kind):
    """Say which winding it is, unless someone said so before."""
    page.get_by_role("button", name=re.compile(kind)).or_(
        page.get_by_test_id("winding")
    ).first.wait_for()
    button = page.get_by_role("button", name=re.compile(f"^{kind}"))
    if button.is_visible() and button.get_attribute("aria-pressed") == "false":
        button.click()
    page.get_by_test_id("winding").wait_for()


@pytest.mark.parametrize("seat", [DESK, PANEL], ids=["desk", "panel"])
def test_four_to_five_instead_of_four_to_seven_changes_the_volts(opened, seat):
    """The derived answer, then 4-7 and 5-8 parted and 4 tied to 5: halves see far too much."""
    page = opened(LEADS, seat=seat)
    page.get_by_role("heading", level=1).wait_for()
    assert moved(page) < 0.01  # 0.29 while the fonts came after the first line was set
    choose(page, "nine-lead wye")
    page.get_by_role("button", name="Open all joints").click()
    page.get_by_role("button", name="Connect the box like this").click()
    expect(page.get_by_text("The box is connected like this.")).to_be_visible()
    expect(page.locator("[data-coil=A1]")).to_contain_text("139 V")
    expect(page.locator("[data-state=right]")).to_have_count(6)

    letters = page.get_by_test_id("lead-letters")
    for pair in (("T4", "T7"), ("T5", "T8"), ("T4", "T5"), ("T7", "T8")):
        for name in pair:
            if seat is PANEL:
                letters.get_by_role("button", name=name[1:], exact=True).tap()
            else:
                end(page, name).click()
    # 480 V over A1 and B1 in series: half each at standstill; at speed the cage shifts it
    expect(page.locator("[data-coil=A1]")).to_contain_text("240–234 V")
    expect(page.locator("[data-coil=A1]")).to_have_attribute("data-state", "over")
    expect(page.get_by_role("alert")).to_contain_text("It burns out.")
    expect(page.get_by_role("heading", level=1)).to_have_text("TOO HIGH A VOLTAGE: IT BURNS OUT")
    assert violations(page) == []

    page.get_by_role("button", name="Connect the box like this").click()
    expect(page.locator("[data-state=right]")).to_have_count(6)
    settled(page)


def test_the_keyboard_does_the_same(opened):
    """Digits tap leads, a b c tap lines, u takes out, d takes the answer, x opens all."""
    page = opened(LEADS)
    choose(page, "nine-lead wye")
    page.get_by_test_id("winding").wait_for()
    page.keyboard.press("x")
    expect(page.get_by_role("heading", level=1)).to_have_text(
        "JOIN THE LEADS, OR USE THE DERIVED ANSWER"
    )
    for pressed in "a1b2c3475869":
        page.keyboard.press(pressed)
    expect(page.get_by_role("heading", level=1)).to_contain_text("series wye, high voltage")
    page.keyboard.press("4")
    page.keyboard.press("u")
    expect(page.get_by_role("alert")).to_be_visible()
    page.keyboard.press("d")
    expect(page.get_by_text("The box is connected like this.")).to_be_visible()
    end(page, "T1").focus()
    page.keyboard.press("Enter")
    expect(end(page, "T1")).to_have_attribute("aria-pressed", "true")
    page.keyboard.press("Enter")
    settled(page)


def test_low_voltage_joints_left_in_after_the_conversion(opened):
    """BM-3 still has its 240 V joints on 480 V: every half sees twice its volts."""
    page = opened("/w/larkfall/m/BM-3/j/1/leads")

    expect(page.locator("[data-state=over]")).to_have_count(6)
    expect(page.get_by_role("alert")).to_contain_text(
        "480 V on each coil where 230 V is right, 209 %"
    )
    expect(page.get_by_test_id("answer")).to_contain_text("T4 T7")


def test_two_lines_in_one_joint_are_shown_for_what_they_do(opened):
    """A short circuit is not prevented: it is named, and one key brings the answer back."""
    page = opened(LEADS)
    choose(page, "nine-lead wye")
    page.get_by_test_id("winding").wait_for()
    page.keyboard.press("d")
    expect(page.get_by_text("The box is connected like this.")).to_be_visible()
    end(page, "L1").click()
    end(page, "L2").click()
    expect(page.get_by_role("alert")).to_contain_text(
        "L1 and L2 are joined: a bolted short circuit."
    )
    page.keyboard.press("d")
    expect(page.get_by_text("The box is connected like this.")).to_be_visible()
    settled(page)


def test_two_people_at_one_box_see_the_difference(opened, complaints):
    """Marta opens all joints; Dov, who opened the box before, is shown both and decides."""
    complaints.allowed.append("409")
    dov = opened(LEADS)
    choose(dov, "nine-lead wye")
    dov.get_by_test_id("winding").wait_for()
    dov.get_by_role("button", name="Open all joints").click()
    dov.get_by_role("button", name="Connect the box like this").click()
    expect(dov.get_by_text("The box is connected like this.")).to_be_visible()
    settled(dov)
    dov.reload()
    dov.get_by_test_id("winding").wait_for()
    marta = opened(LEADS, username="marta")
    marta.get_by_test_id("winding").wait_for()
    marta.get_by_role("button", name="Open all joints").click()
    expect(marta.get_by_text(re.compile(r"^Saved \d\d:\d\d$"))).to_be_visible()
    end(dov, "T4").click()
    end(dov, "T7").click()
    slab = dov.get_by_role("alert").filter(has_text="Marta Quillan changed this")
    expect(slab).to_contain_text("joints")
    slab.get_by_role("button", name="Keep mine as the next version").click()
    settled(dov)
    # the box is left right, for whoever rehearses with this motor next
    dov.get_by_role("button", name="Connect the box like this").click()
    expect(dov.get_by_text("The box is connected like this.")).to_be_visible()
    settled(dov)


def test_an_old_version_is_compared_and_brought_back(opened):
    """Two supplies kept; the first is compared with now and becomes the newest."""
    page = opened("/w/larkfall/m/JC-1/j/1/plate")
    supply = page.get_by_label("Supply", exact=True)
    expect(supply).to_have_value(re.compile("."))
    before = supply.input_value()
    other = "240 delta" if before != "240 delta" else "480Y/277"
    page.get_by_role("button", name=other).click()
    expect(supply).to_have_value(other)
    expect(page.get_by_text(re.compile(r"^Saved \d\d:\d\d$"))).to_be_visible()
    page.get_by_role("button", name="History").click()
    sheet = page.get_by_role("dialog")
    sheet.get_by_role("button", name="Supply").click()
    expect(sheet.get_by_test_id("version").first).to_contain_text("as it is now")
    sheet.get_by_role("button", name="Compare with now").first.click()
    expect(sheet).to_contain_text(before)
    assert violations(page) == []
    sheet.get_by_role("button", name=re.compile("Restore version")).click()
    expect(supply).to_have_value(before)
    settled(page)


def test_horsepower_is_changed_in_place_and_rows_move(opened):
    """15 to 20 hp on the Size screen: 27 A, 47.25 A, a 50 A fuse; then back again."""
    page = opened("/w/larkfall/m/IC-2/j/1/size")
    plate = page.get_by_label("Nameplate as stamped")
    expect(plate).to_have_value(re.compile("15 HP"))
    before = plate.input_value()
    plate.fill(before.replace("15 HP", "20 HP"))
    expect(page.get_by_test_id("slip-table_flc_a")).to_contain_text("27 A")
    expect(page.get_by_test_id("slip-protection_device_a")).to_contain_text("50 A")
    plate.fill(before)
    expect(page.get_by_test_id("slip-table_flc_a")).to_contain_text("21 A")
    settled(page)


def test_rating_rules_and_devices_change_in_place(opened):
    """Field 40 A, exam 35 A; a breaker instead gives 60 A; what moved stays marked."""
    page = opened("/w/larkfall/m/IC-2/j/1/size")
    slip = page.get_by_test_id("slip-protection_device_a")
    expect(slip).to_contain_text("40 A")
    expect(slip).to_contain_text("Main rule 35 A, next size up 40 A.")
    page.get_by_label("Reading of 430.52").select_option("Main rule: not above")
    expect(slip).to_contain_text("35 A")
    expect(slip).to_contain_text("moved")
    page.get_by_label("Kind of fuse or breaker").select_option("Inverse-time breaker")
    expect(slip).to_contain_text("50 A")
    page.keyboard.press("s")
    expect(slip).to_contain_text("60 A")
    page.get_by_test_id("why-of-protection_device_a").click()
    expect(page.get_by_test_id("why")).to_contain_text("240.4(G) releases motor circuits")
    page.get_by_label("Kind of fuse or breaker").select_option("Dual-element fuse")
    expect(slip).to_contain_text("40 A")
    settled(page)


def test_a_long_run_asks_for_a_larger_conductor_and_ground_wire(opened):
    """IC-2 over 300 ft loses 2.4 %; over 600 ft it asks for larger wire, and the ground grows."""
    page = opened("/w/larkfall/m/IC-2/j/1/size")
    page.get_by_label("One way").fill("300")
    drop = page.get_by_test_id("slip-voltage_drop_percent")
    expect(drop).to_contain_text("2.39 %")
    page.get_by_label("One way").fill("600")
    # 8 AWG would still lose 3.17 %
    expect(page.get_by_test_id("slip-run_conductor_size")).to_contain_text("6 AWG")
    expect(page.get_by_test_id("slip-run_grounding_size")).to_contain_text("6 AWG")
    page.get_by_test_id("why-of-run_grounding_size").click()
    expect(page.get_by_test_id("why")).to_contain_text("times the area of 10 AWG")
    page.get_by_label("One way").fill("")
    expect(drop).to_have_count(0)
    settled(page)


def test_wye_delta_legs_carry_their_part(opened):
    """JC-1 starts in wye: 96 A × 72 % = 69.12 A in each leg, the heaters at 58 %."""
    page = opened("/w/larkfall/m/JC-1/j/1/size")
    leg = page.get_by_test_id("slip-leg_conductor_size")
    expect(leg).to_contain_text("4 AWG")
    expect(page.get_by_test_id("slip-leg_overload_setting_a")).to_contain_text("430.32")
    page.get_by_test_id("why-of-leg_conductor_size").click()
    expect(page.get_by_test_id("why")).to_contain_text("69.12 A")
    expect(page.get_by_test_id("why")).to_contain_text("430.22(C)")


def test_a_feeder_shows_which_motor_counts_most(opened):
    """Lime Line 1: BM-3 is the highest rated; LS-4 does not count yet; a load moves the answer."""
    page = opened("/w/larkfall")
    page.get_by_role("link", name="Feeder Lime Line 1").click()
    bus = page.get_by_test_id("feeder")
    largest = bus.locator("[data-largest=true]")
    expect(largest).to_have_count(1)
    expect(largest).to_contain_text("BM-3")
    expect(largest).to_contain_text("180 A, counts as 225 A")
    expect(bus).to_contain_text("Not counted yet")
    assert violations(page) == []
    before = page.get_by_test_id("slip-feeder_ampacity_a").inner_text()
    page.get_by_label("Other loads, continuous").fill("40")
    expect(page.get_by_test_id("slip-feeder_ampacity_a")).not_to_have_text(before)
    page.get_by_test_id("slip-feeder_ampacity_a").click()
    expect(page.get_by_test_id("why")).to_contain_text("continuous 40 A × 1.25")
