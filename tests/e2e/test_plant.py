"""A plant's own names, faults set in a rehearsal, a motor list that is searched on the server."""

import re

from playwright.sync_api import expect

from conftest import violations

REHEARSE = "/w/larkfall/m/IC-2/j/1/rehearse"


def rule(page, name):
    """Choose a plant rule by its words."""
    page.goto("/w/larkfall/rules")
    choice = page.get_by_role("radio", name=name, exact=True)
    choice = choice.or_(page.get_by_role("button", name=name, exact=True)).first
    with page.expect_response(lambda answer: answer.url.endswith("/rules")):
        choice.click()


def test_lines_and_contactors_are_named_by_the_plants_rule(opened):
    """R, Y, B and K1 on winding, ladder and power diagram; then as before again."""
    page = opened("/w/larkfall/rules")
    try:
        rule(page, "R, Y, B")
        rule(page, "K1, K2")
        page.goto("/w/larkfall/m/BM-3/j/1/leads")
        winding = page.get_by_test_id("winding")
        expect(winding.get_by_text("R", exact=True)).to_be_visible()
        expect(winding.get_by_text("L1", exact=True)).to_have_count(0)
        page.goto("/w/larkfall/m/IC-2/j/1/drawings")
        expect(page.get_by_text("K1", exact=True).first).to_be_visible()
        expect(page.get_by_text("KM1", exact=True)).to_have_count(0)
        assert violations(page) == []
    finally:
        rule(page, "L1, L2, L3")
        rule(page, "KM1, KM2")
    page.goto("/w/larkfall/m/BM-3/j/1/leads")
    expect(page.get_by_test_id("winding").get_by_text("L1", exact=True)).to_be_visible()


def test_a_missing_wire_is_told_and_mended_in_the_rehearsal_only(opened):
    """The seal-in wire is gone until it is wired as drawn; the drawing itself never changes."""
    page = opened(REHEARSE)
    page.get_by_role("button", name="Insert a fault").click()
    seal = page.get_by_label("A wire", exact=True)
    option = seal.locator("option", has_text="KM1.A1 – KM1.14")
    seal.select_option(value=option.get_attribute("value"))
    page.get_by_role("button", name="is missing").click()
    told = page.get_by_role("alert").filter(has_text="Wired wrong in this rehearsal only")
    expect(told).to_contain_text("The wire KM1.A1 – KM1.14 is missing.")
    assert violations(page) == []
    told.get_by_role("button", name="Wire it as drawn").click()
    expect(told).to_be_hidden()
    page.goto("/w/larkfall/m/IC-2/j/1/drawings")
    expect(page.get_by_role("heading", level=1)).to_contain_text("0 PROBLEMS")


def test_a_joint_that_comes_off_is_in_the_events(opened):
    """A loose joint at the coil: told with its terminal."""
    page = opened(REHEARSE)
    page.get_by_role("button", name="Insert a fault").click()
    page.get_by_label("Joint at").select_option("KM1.A1")
    page.get_by_role("button", name="comes off").click()
    page.get_by_text("Events", exact=True).click()
    expect(page.get_by_text(re.compile(r"KM1\.A1 joint open"))).to_be_visible()


def test_motors_are_found_over_all_pages(opened):
    """What is searched is asked of the server; what is not there says so."""
    page = opened("/w/larkfall")
    search = page.get_by_label("Search motors")
    search.fill("IC-2")
    listed = page.get_by_role("list", name="Motors")
    expect(listed.get_by_role("listitem")).to_have_count(1)
    expect(listed).to_contain_text("incline conveyor")
    search.fill("no such motor")
    expect(page.get_by_text("No motor matches “no such motor”.")).to_be_visible()


def test_the_list_is_narrowed_to_what_needs_attention_and_goes_by_machine(opened):
    """Each machine has its actions; the toggle leaves only motors that wait for something."""
    page = opened("/w/larkfall")
    line = page.get_by_test_id("machine").filter(has_text="Lime Line 1")
    expect(line.get_by_role("link", name="Convert Lime Line 1")).to_be_visible()
    expect(line.get_by_role("link", name="Feeder Lime Line 1")).to_be_visible()
    toggle = page.get_by_role("button", name="Needs attention", exact=True)
    with page.expect_response(lambda answer: "needs=true" in answer.url):
        toggle.click()
    expect(toggle).to_have_attribute("aria-pressed", "true")
    expect(line.get_by_role("listitem").filter(has_text="LS-4")).to_contain_text("burn out")
    assert violations(page) == []
    toggle.click()
    expect(toggle).to_have_attribute("aria-pressed", "false")


def test_a_moment_of_a_rehearsal_is_kept_and_shared(opened):
    """Ladder, power and station in one view; a mark; the link plays the same run to the same time."""
    page = opened(REHEARSE)
    page.locator("[data-hand=breaker]").click()
    expect(page.locator("[data-hand=breaker]")).to_have_attribute("data-word", "on")
    expect(page.get_by_label("Live ladder", exact=True)).to_be_visible()
    expect(page.get_by_label("Live power diagram", exact=True)).to_be_visible()
    page.get_by_role("button", name="Pause").click()
    page.locator("body").press("m")
    marks = page.get_by_test_id("marks")
    expect(marks.get_by_role("listitem")).to_have_count(1)
    moment = page.get_by_test_id("clock").inner_text()
    marks.get_by_role("button", name="Copy a link to this moment").click()
    address = page.url
    assert "#moment=" in address
    page.goto("about:blank")
    page.goto(address)
    expect(page.get_by_test_id("clock")).to_have_text(moment)
    expect(page.locator("[data-hand=breaker]")).to_have_attribute("data-word", "on")
    page.goto("about:blank")
    page.goto(f"{address[: address.index('#')]}#moment=nonsense")
    expect(page.get_by_text("The link to a moment could not be read")).to_be_visible()
    assert violations(page) == []


def test_the_tour_goes_round_one_motor_and_can_be_left(opened):
    """Six stops from the motor list; help says what a screen answers; the words are explained."""
    page = opened("/w/larkfall")
    page.get_by_role("link", name="Take the tour").click()
    tour = page.get_by_test_id("tour")
    for stop in range(1, 6):
        expect(tour).to_contain_text(re.compile(f"Stop {stop} of 6", re.IGNORECASE))
        tour.get_by_role("link", name="Next stop").click()
    expect(tour).to_contain_text(re.compile("Stop 6 of 6", re.IGNORECASE))
    assert violations(page) == []
    tour.get_by_role("link", name="Leave the tour").click()
    expect(tour).to_have_count(0)
    page.keyboard.press("?")
    expect(page.get_by_test_id("help")).to_contain_text("What happens when I press this?")
    page.get_by_test_id("help").get_by_role("link", name="What the words mean").click()
    page.get_by_label("Find a term").fill("table_flc_a")
    term = page.get_by_role("term").filter(has_text=re.compile("^table_flc_a$"))
    expect(term).to_be_visible()
    assert violations(page) == []


def test_the_list_is_narrowed_and_starters_are_compared(opened):
    """By size and what is missing, by a terminal in the drawing; two starters side by side."""
    page = opened("/w/larkfall")
    page.get_by_label("Motor size").select_option("to_100")
    expect(page.get_by_text("jaw crusher").first).to_be_visible()
    expect(page.get_by_text("incline conveyor")).to_have_count(0)
    page.get_by_role("button", name="Show all").click()
    page.get_by_label("Search motors").fill("KA1.A1")
    expect(page.get_by_text("incline conveyor").first).to_be_visible()
    expect(page.get_by_text("jaw crusher")).to_have_count(0)
    assert violations(page) == []
    page.goto("/w/larkfall/m/SF-5/j/1/starter")
    expect(page.get_by_test_id("live-drawing")).to_be_visible()
    page.get_by_role("button", name=re.compile("^Compare .*stop first")).click()
    pair = page.get_by_test_id("side-by-side")
    expect(pair.get_by_role("heading", level=3)).to_have_count(2)
    expect(pair).to_contain_text("wires")
    assert violations(page) == []
