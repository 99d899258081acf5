"""Plate, sizes and yard as an electrician meets them: changes, doubts, keys, wrong entries."""

import re

import pytest
from playwright.sync_api import expect

from conftest import DESK, PANEL, WORD, moved, violations

SAVED = re.compile(r"^Saved( \d\d:\d\d)?$")


def read_back(page):
    """Wait until the nameplate is read: what stands below it then no longer moves."""
    expect(page.get_by_role("heading", level=1)).to_contain_text("hp")
    expect(page.get_by_test_id("as-read")).to_be_visible()


def test_a_change_in_place_moves_the_slips_and_ghosts_the_old_value(opened):
    """Copper to aluminum at 60 °C: 10 AWG becomes 8 AWG, the old one struck through."""
    page = opened("/w/larkfall/m/IC-2/j/1/size")
    slip = page.get_by_test_id("slip-conductor_size")
    expect(slip).to_contain_text("10 AWG")
    page.get_by_label("Terminal temperature rating").select_option("60 °C terminals")
    page.get_by_label("Conductor material").select_option("Aluminum")

    expect(slip).to_contain_text("8 AWG")
    expect(slip.get_by_test_id("ghost")).to_contain_text("10 AWG")
    page.get_by_label("Conductor material").select_option("Copper")
    page.get_by_label("Terminal temperature rating").select_option("terminals not known")
    expect(slip).to_contain_text("10 AWG")
    expect(page.get_by_text(SAVED)).to_be_visible()


def test_a_wrong_entry_is_named_and_nothing_is_lost(opened, complaints):
    """Amps that contradict the volts light up; without a connection all stays here and is saved later."""
    page = opened("/w/larkfall/m/SF-5/j/1/plate")
    plate = page.get_by_label("Nameplate as stamped")
    before = plate.input_value()
    plate.fill("5 HP, 230/460 V, 13.2/7.6 A, 1745 RPM, 60 HZ, 3 PH, CODE Q, rusty, 9 LEADS")

    # the two amps and the volts that they contradict, and a code letter that does not exist
    expect(page.locator("mark[data-status=doubted]")).to_have_count(3)
    expect(page.locator("mark[data-status=unread]")).to_have_text("rusty")
    expect(page.get_by_text("Q is not a letter used in this field.")).to_be_visible()
    expect(
        page.get_by_text("13.2 A is 1.74 times 7.6 A, but the voltages differ 2 times.")
    ).to_be_visible()
    plate.fill(before)
    expect(page.locator("mark[data-status=doubted]")).to_have_count(0)
    expect(page.get_by_text(SAVED)).to_be_visible()

    complaints.allowed.append("ERR_FAILED")
    page.route("**/work-out", lambda route: route.abort())
    plate.fill(f"{before}, TEFC")
    expect(page.get_by_role("alert")).to_contain_text("The server does not answer.")
    expect(page.get_by_role("alert")).to_contain_text("still for the previous input")
    expect(page.get_by_text("On this page only")).to_be_visible()
    page.unroute("**/work-out")
    expect(page.get_by_role("alert")).to_have_count(0)
    expect(page.get_by_text(SAVED)).to_be_visible()
    page.reload()
    expect(plate).to_have_value(f"{before}, TEFC")


def test_a_motor_that_must_not_be_connected_is_refused_with_a_way_out(opened):
    """LS-4 is 230 V only: on 480 V the slab says why, on 240 V the two powers hold the size."""
    page = opened("/w/larkfall/m/LS-4/j/1/plate")
    expect(page.get_by_role("alert")).to_contain_text("480 V is 2.09 times the nameplate's 230 V.")
    page.get_by_role("link", name="To Size").click()
    expect(page.get_by_role("alert")).to_contain_text("The motor would burn out.")
    expect(page.get_by_test_id("withheld-conductor_size")).to_contain_text(
        "The full-load current comes first"
    )


def test_horsepower_between_rows_asks_before_it_steps_up(opened):
    """7.25 hp has no row: minimums by 7.5 hp, maximums by 5 hp, marked; one tap settles it."""
    page = opened("/w/larkfall/m/BS-6/j/1/plate")
    page.get_by_label("Nameplate as stamped").fill("7.25 HP 460 V 3 PH 11 A")
    read_back(page)
    page.get_by_role("button", name="480Y/277").click()
    page.get_by_role("link", name="To Size").click()
    expect(page.get_by_text("The horsepower is between two rows of the table")).to_be_visible()
    expect(page.get_by_test_id("slip-table_flc_a")).to_contain_text("11 A")
    expect(page.get_by_test_id("slip-table_flc_a")).to_contain_text("ASSUMED")
    # 7.6 A of the 5 hp row: 175 % is 13.3, so 15 A
    expect(page.get_by_test_id("slip-protection_device_a")).to_contain_text("15 A")
    page.get_by_role("button", name="Use the row above for all").click()
    # 11 A of the 7.5 hp row: 175 % is 19.25, so 20 A
    expect(page.get_by_test_id("slip-protection_device_a")).to_contain_text("20 A")
    expect(page.get_by_test_id("slip-table_flc_a")).not_to_contain_text("ASSUMED")


def test_a_guess_is_put_in_marked_and_taken_out(opened):
    """The design letter cannot be read: B is assumed, and marks the size that stands on it."""
    page = opened("/w/larkfall/m/BS-6/j/1/plate")
    page.get_by_label("Nameplate as stamped").fill("3/4 HP 230 V 3 PH 2.8 A")
    read_back(page)
    page.get_by_role("button", name="240 delta").click()
    gap = page.get_by_role("listitem").filter(has_text="No design letter")
    gap.get_by_role("button", name="Unreadable: assume").click()
    gap.get_by_role("button", name="B", exact=True).click()
    gap.get_by_label("Taken from").fill("same frame as SF-5")
    gap.get_by_role("button", name="Enter as a guess").click()
    expect(page.get_by_text("From: same frame as SF-5")).to_be_visible()
    page.get_by_role("link", name="To Size").click()
    page.get_by_test_id("why").get_by_role("button", name="Terminal temperature rating").click()
    expect(page.get_by_test_id("why")).to_contain_text("same frame as SF-5")


def test_two_people_at_one_plate_see_the_difference_and_lose_nothing(opened, complaints):
    """Marta changes the supply; Dov, who opened it before, is shown both and decides."""
    complaints.allowed.append("409")
    place = "/w/larkfall/m/JC-1/j/1/plate"
    dov, marta = opened(place), opened(place, username="marta")
    expect(dov.get_by_label("Supply", exact=True)).to_have_value("480Y/277")
    marta.get_by_role("button", name="240 delta").click()
    expect(marta.get_by_text(SAVED)).to_be_visible()
    dov.get_by_role("button", name="208Y/120").click()

    slab = dov.get_by_role("alert").filter(has_text="Marta Quillan changed this")
    expect(slab).to_contain_text("208Y/120")
    expect(slab).to_contain_text("240 delta")
    slab.get_by_role("button", name="Take theirs").click()
    expect(dov.get_by_label("Supply", exact=True)).to_have_value("240 delta")
    dov.get_by_role("button", name="480Y/277").click()
    expect(dov.get_by_text(SAVED)).to_be_visible()


def test_keys_work_while_no_field_has_focus(opened):
    """J and Enter open a motor, ] goes on, w opens Why, ? lists the keys, letters can be off."""
    page = opened("/w/larkfall")
    page.get_by_text("incline conveyor").first.wait_for()
    page.keyboard.press("j")
    page.keyboard.press("Enter")
    expect(page).to_have_url(re.compile(r"/m/IC-2/"))
    page.get_by_test_id("slip-conductor_size").wait_for()
    page.keyboard.press("g")
    page.keyboard.press("p")
    expect(page).to_have_url(re.compile(r"/plate$"))
    # on arrival the first line takes the focus; a person looks before they type
    read_back(page)
    page.get_by_label("Nameplate as stamped").focus()
    page.keyboard.press("]")
    expect(page).to_have_url(re.compile(r"/plate$"))
    page.keyboard.press("Backspace")
    page.get_by_label("Nameplate as stamped").blur()
    page.keyboard.press("]")
    expect(page).to_have_url(re.compile(r"/leads$"))
    expect(page.get_by_role("heading", level=1)).to_contain_text("wye", ignore_case=True)
    page.keyboard.press("]")
    expect(page).to_have_url(re.compile(r"/joints$"))
    # the address comes before the screen: the headline says which one hears the keys
    expect(page.get_by_role("heading", level=1)).to_contain_text("joints", ignore_case=True)
    page.keyboard.press("]")
    expect(page).to_have_url(re.compile(r"/size$"))
    page.get_by_test_id("why-of-disconnect_switch_a").focus()
    page.keyboard.press("w")
    expect(page.get_by_test_id("why")).to_contain_text("60 A")
    page.keyboard.press("?")
    expect(page.get_by_role("dialog")).to_contain_text("Print the pack")
    page.get_by_label("Single-letter keys work").uncheck()
    page.keyboard.press("Escape")
    page.keyboard.press("[")
    expect(page).to_have_url(re.compile(r"/size#"))


SCREENS = (
    "/w/larkfall",
    "/w/larkfall/m/IC-2/j/1/plate",
    "/w/larkfall/m/LS-4/j/1/plate",
    "/w/larkfall/m/IC-2/j/1/leads",
    "/w/larkfall/m/BM-3/j/1/leads",
    "/w/larkfall/m/BM-3/j/1/size#conductor_size",
    "/w/larkfall/m/LS-4/j/1/size",
    "/w/larkfall/m/IC-2/j/1/starter",
    "/w/larkfall/m/IC-2/j/1/drawings",
    "/w/larkfall/m/IC-2/j/1/rehearse",
    "/w/larkfall/m/JC-1/j/1/run-up",
)


@pytest.mark.parametrize("seat", [DESK, PANEL], ids=["desk", "panel"])
def test_no_screen_has_a_barrier(opened, browser, base_url, seat):
    """Axe finds nothing on any screen in either seat; in the dark, where only colors differ, no contrast."""
    found = {}
    page = opened(seat=seat, color_scheme="light")
    for path in SCREENS:
        page.goto(path)
        page.get_by_role("heading").first.wait_for()
        page.get_by_text("Saved").or_(page.get_by_text("Next up")).first.wait_for()
        found[path] = violations(page)
        page.emulate_media(color_scheme="dark")
        found[f"{path} in the dark"] = violations(page, "color-contrast")
        page.emulate_media(color_scheme="light")
    context = browser.new_context(base_url=base_url, **seat)
    page = context.new_page()
    page.goto("/sign-in")
    page.get_by_role("heading", level=1).wait_for()
    found["/sign-in"] = violations(page)
    context.close()
    assert {path: items for path, items in found.items() if items} == {}


def test_every_screen_stays_put_and_reflows(opened):
    """Nothing moves by itself; no screen is wider than 320 px, nor with letters twice as large."""
    page = opened()
    found = {}
    for path in SCREENS:
        page.set_viewport_size({"width": 1280, "height": 800})
        page.goto(path)
        page.get_by_role("heading").first.wait_for()
        page.get_by_text("Saved").or_(page.get_by_text("Next up")).first.wait_for()
        page.wait_for_timeout(600)
        if (shift := moved(page)) > 0.02:
            found[f"{path} moves"] = shift
        for said, width, letters in (("320 px", 320, "100%"), ("200 %", 640, "200%")):
            page.set_viewport_size({"width": width, "height": 700})
            page.evaluate("size => { document.documentElement.style.fontSize = size }", letters)
            page.wait_for_timeout(200)
            wide = page.evaluate("document.documentElement.scrollWidth")
            if wide > width:
                found[f"{path} at {said}"] = wide
            page.evaluate("() => { document.documentElement.style.fontSize = '' }")
    assert found == {}


def test_a_person_of_the_demo_signs_in_with_one_tap(browser, base_url, complaints):
    """The made-up people stand on the sign-in page, with name and role."""
    complaints.allowed.append("401")
    context = browser.new_context(base_url=base_url)
    page = context.new_page()
    complaints.watch(page)
    page.goto("/sign-in")
    page.get_by_role("button", name="Pim Tarrow, apprentice").click()
    expect(page.get_by_role("heading", level=1)).to_contain_text("motors")
    context.close()


def test_a_wrong_password_and_a_foreign_address(browser, base_url, complaints):
    """The refusal says what to do; a plant that is not yours is not there."""
    complaints.allowed += ["400", "404", "401"]
    context = browser.new_context(base_url=base_url)
    page = context.new_page()
    complaints.watch(page)
    page.goto("/w/larkfall/m/IC-2/j/1/plate")
    expect(page).to_have_url(re.compile("/sign-in$"))
    page.get_by_label("Name").fill("pim")
    page.get_by_label("Password").fill("wrong")
    page.get_by_role("button", name="Sign in").click()
    expect(page.get_by_role("alert")).to_contain_text("not correct")
    page.get_by_label("Password").fill(WORD)
    page.get_by_role("button", name="Sign in").click()
    # back to where they wanted to go
    expect(page.get_by_role("heading", level=1)).to_contain_text("15 hp")
    page.goto("/w/elsewhere")
    expect(page.get_by_role("alert")).to_contain_text("There is no such plant here.")
    context.close()
