"""Choose, change, check, prove, take along: circuits as they are drawn or found."""

import re

import pytest
from playwright.sync_api import expect

from conftest import DESK, PANEL, violations

SAVED = re.compile(r"^Saved( \d\d:\d\d)?$")


def headline(page):
    """Return the first line of the screen."""
    return page.get_by_role("heading", level=1)


@pytest.mark.parametrize("seat", [DESK, PANEL], ids=["desk", "panel"])
def test_starters_stand_beside_each_other_and_a_hazard_is_taken_on(opened, seat):
    """Current and torque of each, one reason where it cannot; two-wire is held until a name is."""
    page = opened("/w/larkfall/m/BM-3/j/1/starter", seat=seat)
    page.get_by_role("button", name="Reduced-voltage start: autotransformer").click()
    page.get_by_role("button", name="loaded", exact=True).click()
    row = page.get_by_test_id("circuit-9A")
    expect(row).to_contain_text("cannot")
    expect(row).to_contain_text("42 % of full-voltage torque")
    expect(row).to_contain_text("42 %")
    page.get_by_role("button", name="empty", exact=True).click()
    expect(row).to_contain_text("enough for this load")
    page.get_by_role("button", name="Two-wire, pilot device").click()
    expect(page.get_by_test_id("circuit-2A")).to_contain_text("Unexpected start when power")
    page.get_by_test_id("circuit-2A").click()
    expect(headline(page)).to_contain_text("not accepted yet")
    hazards = page.get_by_test_id("hazards")
    expect(hazards.get_by_role("alert")).to_have_count(2)
    first = hazards.get_by_role("alert").first
    first.get_by_role("button", name="Accept").click()
    expect(first).to_contain_text("Enter a reason first")
    for left in (1, 0):
        slab = hazards.get_by_role("alert").first
        slab.get_by_role("textbox").fill("unattended pump behind a locked fence")
        slab.get_by_role("button", name="Accept").click()
        expect(hazards.get_by_role("alert")).to_have_count(left)
    expect(page.get_by_text(SAVED)).to_be_visible()
    expect(hazards).to_contain_text("Ruth Okafor-Lind")
    # an emergency stop that starts it again is never accepted, only cured
    stop = page.get_by_role("group", name="Emergency stop")
    stop.get_by_role("button", name="contact ahead of everything").click()
    expect(hazards.get_by_role("alert")).to_contain_text("This cannot be accepted")
    hazards.get_by_role("button", name="Draw it with a reset").click()
    expect(hazards).not_to_contain_text("This cannot be accepted")
    assert violations(page) == []
    page.get_by_role("button", name="Reduced-voltage start: autotransformer").click()
    page.get_by_test_id("circuit-9A").click()
    expect(page.get_by_text(SAVED)).to_be_visible()


@pytest.mark.parametrize("seat", [DESK, PANEL], ids=["desk", "panel"])
def test_a_wrong_wire_is_found_lit_and_put_right(opened, seat):
    """The coil's common side moved past the overload: the check names it and does the change."""
    page = opened("/w/larkfall/m/IC-2/j/1/drawings", seat=seat)
    page.get_by_role("button", name="Wire list").click()
    page.get_by_role("button", name="4", exact=True).click()
    card = page.get_by_test_id("wire-card")
    card.get_by_role("button", name="Edit this wire").click()
    card.get_by_label("Reason").fill("tried on the bench")
    card.get_by_role("button", name="Move the end at OL1.95").click()
    tap = page.locator("[data-terminal='overload.96']")
    tap.click() if seat is DESK else tap.tap()
    expect(page.get_by_test_id("verdict")).to_contain_text("OL1")
    page.get_by_role("button", name="Checks", exact=True).click()
    finding = page.get_by_test_id("check-H07")
    expect(finding).to_contain_text("With OL1 tripped a contactor of M1 can still be energized")
    finding.get_by_role("button", name="Show it").click()
    if seat is DESK:
        expect(page.locator(".part[data-lit=true]").first).to_be_visible()
    page.get_by_role("button", name="Edit wiring", exact=True).click()
    expect(page.get_by_test_id("differences")).to_contain_text("is landed on KM1.A2 – OL1.96")
    expect(page.get_by_text(SAVED)).to_be_visible()
    expect(page.get_by_test_id("changes")).to_contain_text("tried on the bench")
    expect(page.get_by_test_id("changes")).to_contain_text("Ruth Okafor-Lind")
    expect(page.get_by_test_id("nearest")).to_contain_text("3A")
    assert violations(page) == []
    page.get_by_role("button", name="Checks", exact=True).click()
    page.get_by_test_id("check-H07").get_by_role("button", name="Make this change").click()
    expect(page.get_by_test_id("check-H07")).to_have_count(0)
    page.get_by_role("button", name="Edit wiring", exact=True).click()
    page.get_by_role("button", name="Back to the standard circuit").click()
    expect(page.get_by_text("Drawn as the standard circuit.")).to_be_visible()
    expect(page.get_by_text(SAVED)).to_be_visible()


def test_proofs_run_in_the_background_and_say_what_was_searched(opened):
    """Every settled state by hand, and with each contactor welded; isolators; scenario tests."""
    page = opened("/w/larkfall/m/SF-5/j/1/drawings")
    page.get_by_role("button", name="Checks", exact=True).click()
    for kind in ("hands", "weld"):
        expect(page.get_by_test_id(f"proof-{kind}")).to_have_text("proven", timeout=60_000)
    proofs = page.get_by_test_id("proofs")
    expect(proofs).to_contain_text("search complete")
    expect(proofs).to_contain_text("welded one at a time")
    expect(page.get_by_test_id(re.compile("^isolation-")).first).to_contain_text("open")
    probes = page.get_by_test_id("probes")
    expect(probes).to_contain_text("Can forward and reverse close together")
    expect(probes).to_contain_text("scenarios tested")
    expect(probes).not_to_contain_text("it happens")
    assert violations(page) == []


def test_every_sheet_can_be_taken_along(opened):
    """SVG, DXF and PDF of each sheet that is shown, and its words for reading without sight."""
    page = opened("/w/larkfall/m/SF-5/j/1/drawings")
    for sheet, name in (
        ("panel", "Panel"),
        ("strip", "Terminals"),
        ("power", "Power"),
        ("ladder", "Ladder"),
    ):
        page.get_by_role("button", name=name, exact=True).click()
        for kind, begins in (("SVG", b"<svg"), ("DXF", b"  0\n"), ("PDF", b"%PDF")):
            link = page.get_by_role("link", name=f"This drawing as {kind}").get_attribute("href")
            assert f"drawing/{sheet}." in link
            assert page.request.get(link).body().startswith(begins)
    assert page.request.get(page.get_by_role("link", name="Netlist").get_attribute("href")).ok
    page.get_by_text(re.compile("in words")).click()
    expect(page.get_by_role("listitem").filter(has_text="KF").first).to_be_visible()


def test_a_phone_reads_one_rung_at_a_time(opened):
    """A rung downwards at full size, the next one by a tap; a wire in it lights."""
    page = opened("/w/larkfall/m/SF-5/j/1/drawings", seat=PANEL)
    rung = page.get_by_test_id("rung")
    expect(rung).to_contain_text(re.compile("rung 1 of", re.IGNORECASE))
    rung.get_by_role("button", name="Next rung").tap()
    expect(rung).to_contain_text(re.compile("rung 2 of", re.IGNORECASE))
    rung.get_by_role("button", name=re.compile("^wire ")).first.focus()
    page.keyboard.press("Enter")
    expect(page.get_by_test_id("wire-card")).to_be_visible()
    width = page.evaluate("document.documentElement.scrollWidth")
    assert width <= 390
    assert violations(page) == []


def test_a_starter_as_found_is_entered_named_and_checked(opened, complaints):
    """From an empty panel: a netlist with a bad line, then a good one; one end unknown."""
    page = opened("/w/larkfall/m/LS-4/j/1/starter")
    page.get_by_role("button", name="As found").click()
    page.get_by_test_id("circuit-found").click()
    expect(headline(page)).to_contain_text("Starter as found")
    page.get_by_role("link", name="To Drawings").click()
    page.get_by_role("button", name="Edit wiring", exact=True).click()
    expect(page.get_by_text("Nothing traced yet.")).to_be_visible()
    paste = page.get_by_label("Or paste a netlist")
    complaints.allowed.append("422")
    paste.fill("[devices]\nS1 stop pb c=11-12\n[wires]\n2: S1.12 - S9.13")
    page.get_by_role("button", name="Use this netlist").click()
    expect(page.get_by_role("alert")).to_contain_text("Line 4: there is no terminal S9.13")
    good = page.request.get("/api/w/larkfall/m/IC-2/j/1/netlist.txt").text()
    paste.fill(good)
    page.get_by_role("button", name="Use this netlist").click()
    expect(page.get_by_test_id("nearest")).to_contain_text("3A")
    wire = page.get_by_role("group", name="Wire")
    wire.get_by_label("From").select_option("stop.23")
    wire.get_by_label("Reason, or how it was traced").fill("brown, goes into the door loom")
    wire.get_by_role("button", name="Add wire").click()
    expect(page.get_by_test_id("differences")).to_contain_text("S1.23 – ?1")
    page.get_by_role("button", name="Checks", exact=True).click()
    expect(page.get_by_test_id("check-H46").first).to_contain_text("The other end of the wire")
    assert violations(page) == []
    page.get_by_role("button", name="Edit wiring", exact=True).click()
    page.get_by_role("button", name="Undo the last edit").click()
    expect(page.get_by_test_id("differences")).not_to_contain_text("?1")
    expect(page.get_by_text(SAVED)).to_be_visible()


def test_a_drum_switch_is_turned_and_plugs(opened):
    """A hand-operated switch: no ladder, and thrown over it freezes as plugged."""
    page = opened("/w/larkfall/m/BS-6/j/1/starter")
    page.get_by_role("button", name="Manual starter").click()
    page.get_by_test_id("circuit-1B").click()
    expect(page.get_by_test_id("hazards")).to_contain_text("Reversed while running")
    expect(page.get_by_text(SAVED)).to_be_visible()
    page.get_by_role("link", name="Rehearse", exact=True).click()
    for device in ("disconnect", "starter"):
        page.locator(f"[data-hand={device}]").click()
    page.locator("[data-hand=drum]").click()
    expect(headline(page)).to_contain_text("RUNNING FORWARD")
    page.locator("[data-hand=drum]").click()
    expect(headline(page)).to_contain_text("REVERSED WHILE RUNNING (PLUGGING) AT")


#: saves as a screen does: the page's own token, the newest version
SAVE = """async ([path, body]) => {
  const token = document.cookie.match(/csrftoken=([^;]+)/)[1];
  const answer = await fetch(path, {
    method: path.endsWith("/motors") ? "POST" : "PUT",
    headers: {"Content-Type": "application/json", "X-CSRFToken": token},
    body: JSON.stringify(body),
  });
  return answer.status;
}"""


def test_a_long_calculation_says_how_far_it_is_and_can_be_stopped(opened):
    """A panel with seventy more relays: percent of the dead check, Stop, and asked again."""
    page = opened("/w/larkfall")
    place = "/api/w/larkfall/m/SLOW-1/j/1"
    relays = [
        {"id": f"d{n}", "kind": "add_device", "type": "relay", "tag": f"KA{n + 10}"}
        for n in range(70)
    ]
    wires = [
        {"id": f"w{n}{end}", "kind": "add_wire", "start": start, "end": f"d{n}.{end}"}
        for n in range(70)
        for start, end in (("control_fuse.2", "A1"), ("control_transformer.X2", "A2"))
    ]
    for path, body in (
        ("/api/w/larkfall/motors", {"tag": "SLOW-1", "name": "many relays"}),
        (f"{place}/plate", {"based_on": 0, "body": {"text": "15 HP 460 V 19.3 A 3 PH 3 LEADS"}}),
        (f"{place}/supply", {"based_on": 0, "body": {"text": "480Y/277"}}),
        (
            f"{place}/starter",
            {"based_on": 0, "body": {"standard_circuit": "3A", "edits": relays + wires}},
        ),
    ):
        assert page.evaluate(SAVE, [path, body]) in {200, 201}, path
    with page.expect_request("**/dead") as asked:
        page.goto("/w/larkfall/m/SLOW-1/j/1/check")
    question = f"/api/w/larkfall/questions/{asked.value.headers['x-question']}"
    expect(page.get_by_test_id("how-far")).to_contain_text(re.compile(r"Calculating: \d+ %"))
    assert violations(page) == []
    page.get_by_role("button", name="Stop", exact=True).click()
    expect(page.get_by_test_id("how-far")).to_have_count(0)
    expect(page.get_by_text("Not calculated yet")).to_be_visible()
    # the server noticed: it gets no further
    page.wait_for_timeout(2500)
    before = page.request.get(question).json()
    page.wait_for_timeout(2500)
    assert page.request.get(question).json() == before
    page.get_by_role("button", name="Try again").click()
    expect(page.get_by_test_id("how-far")).to_be_visible()
    expect(page.get_by_test_id("how-far")).to_have_count(0, timeout=90_000)
    expect(page.get_by_text("Not calculated yet")).to_have_count(0)


def test_a_wire_and_a_device_are_found_by_what_is_typed(opened):
    """The key opens the search; a wire number shows its wires, a tag lights the device."""
    page = opened("/w/larkfall/m/IC-2/j/1/drawings")
    field = page.get_by_label("Find a wire or a device")
    # it stands beside the drawing, and comes with it
    field.wait_for()
    page.keyboard.press("/")
    expect(field).to_be_focused()
    field.fill("KM1.A1")
    page.keyboard.press("Enter")
    expect(page.get_by_test_id("wire-card")).to_contain_text("KM1.A1")
    field.fill("no such")
    expect(page.get_by_text("No wire, terminal or device is called “no such”.")).to_be_visible()
    field.fill("H1")
    page.get_by_role("list", name="Found").get_by_role("button").first.click()
    expect(page.locator("[data-lit=true]").first).to_be_visible()
    assert violations(page) == []


def test_a_wire_is_drawn_by_touching_two_terminals_and_taken_back(opened):
    """Tapped or dragged in ladder and power; what the drawing says of it; undo and redo by key."""
    page = opened("/w/larkfall/m/IC-2/j/1/drawings")
    page.get_by_test_id("actions").wait_for()
    page.keyboard.press("e")
    expect(page.get_by_text("Tap the terminal where the wire begins")).to_be_visible()
    page.locator("[data-terminal='start.13']").click()
    expect(page.get_by_text("From S2.13: tap where it goes")).to_be_visible()
    page.locator("[data-terminal='start.14']").click()
    # START is bridged: the drawing says so at once
    verdict = page.get_by_test_id("verdict")
    expect(verdict.get_by_role("button").first).to_contain_text("S2")
    page.keyboard.press("Control+z")
    expect(verdict).to_contain_text("0 problems in the drawing")
    page.keyboard.press("Control+y")
    expect(verdict.get_by_role("button").first).to_contain_text("S2")
    page.keyboard.press("Control+z")
    page.get_by_role("button", name="Power", exact=True).click()
    page.locator("[data-terminal='main.1L1']").drag_to(
        page.locator("[data-terminal='main.3L2']"), force=True
    )
    expect(verdict.get_by_role("button").first).to_be_visible()
    assert violations(page) == []
    page.keyboard.press("Control+z")
    expect(page.get_by_text(SAVED)).to_be_visible()
    # an end is led elsewhere by drag, and comes back
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Ladder", exact=True).click()
    # the wire from STOP to START
    page.locator("[role=button][data-net='stop.12']").press("Enter")
    card = page.get_by_test_id("wire-card")
    wire = card.get_by_role("listitem").filter(has_text="S2.13").first
    wire.get_by_role("button", name="Edit this wire").click()
    wire.get_by_role("button", name="Move the end at S2.13").click()
    page.locator("[data-terminal='start.13']").drag_to(
        page.locator("[data-terminal='start.14']"), force=True
    )
    # START is out of the circuit, and the motor would start by itself
    expect(page.get_by_role("alert")).to_contain_text("Unexpected start")
    expect(card.get_by_role("listitem").filter(has_text="S2.14").first).to_contain_text("S1.12")
    page.locator("body").press("Control+z")
    expect(page.get_by_text(SAVED)).to_be_visible()
    # a device by its name
    page.keyboard.press("Escape")
    page.keyboard.press("d")
    page.get_by_label("Search devices by their trade name").fill("stop")
    page.keyboard.press("Enter")
    page.get_by_label("Tag", exact=True).fill("S9")
    page.get_by_role("button", name="Add device", exact=True).last.click()
    expect(page.get_by_test_id("viewer")).to_contain_text("S9")
    page.keyboard.press("Escape")
    page.locator("body").press("Control+z")
    expect(page.get_by_test_id("viewer")).not_to_contain_text("S9")
    # closer, further, moved: the sheet stays where it was left
    box = page.get_by_test_id("viewer").locator("svg").get_attribute("viewBox")
    page.get_by_role("button", name="Closer (+)").click()
    near = page.get_by_test_id("viewer").locator("svg").get_attribute("viewBox")
    assert near != box
    page.get_by_role("button", name="Ladder", exact=True).click()
    page.get_by_role("button", name="Panel", exact=True).last.click()
    expect(page.get_by_test_id("viewer").locator("svg")).to_have_attribute("viewBox", near)
    expect(page.get_by_text(SAVED)).to_be_visible()
