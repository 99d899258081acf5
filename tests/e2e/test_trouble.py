"""Find a fault on the screen: star-delta, a compressor that clicks; and what circuit it is."""

import re

import pytest
from playwright.sync_api import expect
from test_day import sent

from conftest import DESK, PANEL, violations
from evencoil.starters import draw
from evencoil.trouble import answer_at, field_of, said_value

STAR_DELTA = {
    "plate": {"text": "25 HP, 460 V, 32 A, 1765 RPM, 60 HZ, 3 PH, SF 1.15, CODE G, DES B, 6 LEADS"},
    "supply": {"text": "480Y/277"},
    "leads": {"winding": "6", "run_shape": "delta", "start_method": "wye_delta"},
    "starter": {"standard_circuit": "8A"},
}
CLICKS = {
    "plate": {"text": "1 HP, 230 V, 8 A, 1725 RPM, 60 HZ, 1 PH, SF 1.15, CODE K, 2 LEADS"},
    "supply": {"text": "120/240 1PH"},
    "leads": {"winding": "1-phase"},
    "starter": {"standard_circuit": "15A"},
}


def given_job(page, tag, parts):
    """Enter a motor's job over the network and return its address."""
    motor = {"tag": tag, "name": "crusher", "machine": "Stack"}
    sent(page, "POST", "/api/w/larkfall/motors", motor)
    for step, body in parts.items():
        sent(page, "PUT", f"/api/w/larkfall/m/{tag}/j/1/{step}", {"based_on": 0, "body": body})
    return f"/w/larkfall/m/{tag}/j/1"


def answer(page, field, truth):
    """Answer the reading that is offered as the panel with that fault would."""
    said = page.get_by_test_id("next").get_attribute("aria-label")
    held = page.get_by_test_id("next").inner_text()
    fitting = [one for one in field.readings if str(one.said) == said]
    # of readings at one place the one whose held things are named
    fitting.sort(key=lambda one: -sum(hand.device in held for hand in one.hands))
    card, taken = page.get_by_test_id("next"), page.get_by_test_id("taken").get_by_role("listitem")
    count = taken.count()
    reading = fitting[0]
    if card.get_by_label("proven dead by me").count():
        # nothing dead can be answered before
        expect(card.get_by_role("button", name="reach")).to_be_disabled()
        # said once for the whole hunt: the box itself goes with it
        card.get_by_label("proven dead by me").click()
        expect(card.get_by_label("proven dead by me")).to_have_count(0)
    given = answer_at(field, truth, reading.id)
    if given.word:
        card.get_by_role("button").nth(reading.words.index(given.word)).click()
    elif said_value(reading, given.value) == "open":
        card.get_by_role("button", name="Open (OL)").click()
    else:
        card.get_by_label("It reads").fill(f"{given.value:.3g}")
        card.get_by_role("button", name="Keep").click()
    expect(taken).to_have_count(count + 1)


def hunt(page, field, truth, symptom):
    """Begin with a symptom and answer until it is found."""
    page.get_by_role("button", name=symptom, exact=True).click()
    page.get_by_role("button", name="Find it").click()
    page.get_by_test_id("still").wait_for()
    expect(page.get_by_test_id("still")).to_contain_text("not proof")
    headline = page.get_by_role("heading", level=1)
    for _ in range(30):
        if re.match("(?i)found", headline.inner_text()):
            return
        answer(page, field, truth)
    raise AssertionError(f"not found: {headline.inner_text()}")


@pytest.mark.parametrize("seat", [DESK, PANEL], ids=["desk", "panel"])
def test_a_star_delta_that_drops_out_is_found_dead(opened, seat):
    """The output of its timer: asked, read dead, found, closed with one change."""
    field = field_of(draw("8A").circuit, with_work=False)
    page = opened("/w/larkfall", seat=seat, username="marta")
    job = given_job(page, f"TD-{seat['viewport']['width']}", STAR_DELTA)
    page.goto(f"{job}/trouble")
    truth = "no_make:timer.17-28.open"
    hunt(page, field, truth, "drops out at change-over")
    assert violations(page) == []
    taken = page.get_by_test_id("taken").inner_text()
    assert "Volts" not in taken
    assert "Amps" not in taken
    expect(page.get_by_test_id("found")).to_contain_text("Replace the contact block")
    page.get_by_role("button", name="Close this hunt").click()
    closing = page.get_by_test_id("closing")
    for word in ("It failed", "Changed", "It passed"):
        closing.get_by_label("What", exact=True).fill("timer output")
        closing.get_by_role("button", name=word).click()
    closing.get_by_role("button", name="Close", exact=True).click()
    expect(page.get_by_test_id("closed")).to_contain_text("Proven")


def test_a_compressor_that_clicks(opened):
    """Single phase: the capacitor by odds alone, told so, and the belief about the feed's lines."""
    field = field_of(draw("15A").circuit, with_work=False)
    truth = next(one.id for one in field.faults if one.row == "start_capacitor")
    page = opened("/w/larkfall", username="marta")
    job = given_job(page, "AC-1", CLICKS)
    page.goto(f"{job}/trouble")
    page.get_by_role("button", name="clicks but does not run").click()
    page.get_by_text("The general order").click()
    expect(page.get_by_test_id("chosen")).to_contain_text("start capacitor · start switch")
    hunt(page, field, truth, "clicks but does not run")
    expect(page.get_by_test_id("found")).to_contain_text("discharge it through a resistor")


def test_what_is_this_reversing_starter(opened):
    """It reverses without STOP: why, and nothing proposed that could plug it."""
    page = opened("/w/larkfall/which")
    group = page.get_by_role("group", name="The other button while it runs")
    group.get_by_role("button", name="reverses without STOP").click()
    alike = page.get_by_test_id("alike")
    expect(alike).to_contain_text("6B")
    expect(alike).to_contain_text("own opening contact drops the first contactor")
    expect(page.get_by_text("Never try this").first).to_be_visible()
    assert violations(page) == []
