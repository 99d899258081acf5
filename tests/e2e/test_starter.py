"""From leads to a starter that is drawn, rehearsed and printed, as an electrician does it."""

import json
import re
import subprocess

import pytest
from playwright.sync_api import expect

from conftest import DESK, PANEL, PRINT_MS, ROOT, enter, violations

SAVED = re.compile(r"^Saved( \d\d:\d\d)?$")
PLATE = (
    "15 HP, 230/460 V, 38.6/19.3 A, 1765 RPM, 60 HZ, 3 PH, SF 1.15, CODE G, DES B, "
    "40 C AMB, 9 LEADS"
)


def hand(page, device):
    """Return a button that can be held."""
    return page.locator(f"[data-hand={device}]")


def headline(page):
    """Return the first line of the screen."""
    return page.get_by_role("heading", level=1)


@pytest.mark.parametrize("seat", [DESK, PANEL], ids=["desk", "panel"])
def test_the_whole_first_run(browser, base_url, complaints, seat, tmp_path):
    """Sign in, plate, leads, sizes, starter, drawings, rehearsal, printed pack; export and import."""
    tag = f"W-{'desk' if seat is DESK else 'panel'}"
    context = browser.new_context(base_url=base_url, accept_downloads=True, **seat)
    page = context.new_page()
    complaints.watch(page)
    enter(page, base_url)
    from_plate_to_sizes(page, tag)
    from_starter_to_rehearsal(page, seat)
    address = page.url.split("#")[0].replace("/rehearse", "").replace(base_url, "")
    issue_for_wiring(page)
    complaints.allowed.append("409")
    export_and_import(page, address, tag, tmp_path)
    context.close()


def from_plate_to_sizes(page, tag):
    """Type the nameplate of a new motor, join its leads, read its sizes with their evidence."""
    page.get_by_role("button", name="New motor").click()
    page.get_by_label("Tag on the motor").fill(tag)
    page.get_by_label("What it drives").fill("test conveyor")
    page.get_by_label("Machine or line").fill("Lime Line 1")
    page.get_by_role("button", name="Add and read its nameplate").click()
    expect(headline(page)).to_have_text("ENTER THE NAMEPLATE AS STAMPED")
    page.get_by_label("Nameplate as stamped").fill(PLATE)
    expect(headline(page)).to_contain_text("15 hp")
    expect(page.get_by_test_id("as-read")).to_be_visible()
    page.get_by_role("button", name="480Y/277").click()
    expect(headline(page)).to_have_text("15 hp · 230/460 V · 38.6/19.3 A · 9 leads")
    expect(page.locator("mark[data-status=understood]")).to_have_count(11)
    expect(page.get_by_text("1765 rpm at 60 Hz is a 4-pole motor")).to_be_visible()
    expect(page.get_by_text("38.6 A is 2 times 19.3 A, as the voltages require.")).to_be_visible()
    expect(page.get_by_text("A 460 V nameplate is made for a 480 V system.")).to_be_visible()
    assert violations(page) == []
    expect(page.get_by_text(SAVED)).to_be_visible()

    page.get_by_role("link", name="To Leads").click()
    page.get_by_role("button", name="nine-lead wye").click()
    page.get_by_role("button", name="Connect the box like this").click()
    expect(page.locator("[data-state=right]")).to_have_count(6)
    page.get_by_role("link", name="To Joints").click()
    expect(headline(page)).to_have_text("6 JOINTS · MEASURE THE HOUSING")

    page.get_by_role("link", name="To Size").click()
    expect(page.get_by_test_id("slip-protection_device_a")).to_contain_text("40 A")
    expect(page.get_by_test_id("slip-table_flc_a")).to_contain_text("21 A")
    expect(page.get_by_test_id("slip-conductor_size")).to_contain_text("10 AWG")
    expect(page.get_by_test_id("slip-conductor_size")).to_contain_text("ASSUMED")
    page.get_by_test_id("why-of-table_flc_a").click()
    why = page.get_by_test_id("why")
    expect(why).to_contain_text("Table 430.250, row 15 hp, column 460 V: 21 A.")
    expect(why.get_by_role("row").filter(has_text="(read here)")).to_contain_text("15")
    assert violations(page) == []
    page.keyboard.press("Escape")


def from_starter_to_rehearsal(page, seat):
    """Choose a starter, read its drawings and lists, run and stop it on the screen."""
    page.get_by_role("link", name="To Starter").click()
    page.get_by_role("button", name="Three-wire, start-stop").click()
    page.get_by_test_id("circuit-3A").click()
    expect(headline(page)).to_have_text("Three-wire start-stop with seal-in · 3A")
    page.get_by_role("group", name="Emergency stop").get_by_role(
        "button", name="contact ahead of everything"
    ).click()
    assert violations(page) == []

    page.get_by_role("link", name="To Drawings").click()
    expect(headline(page)).to_have_text("47 WIRES · 28 NUMBERS · 0 PROBLEMS IN THE DRAWING")
    page.get_by_role("button", name="wire 3", exact=True).focus()
    page.keyboard.press("Enter")
    card = page.get_by_test_id("wire-card")
    expect(card).to_contain_text("S2.14 to KM1.A1")
    page.get_by_role("button", name="Wire list").click()
    expect(page.locator("tr[data-lit=true]")).to_have_count(2)
    page.get_by_role("button", name="Material").click()
    row = page.get_by_test_id("material").get_by_role("row").filter(has_text="OL1")
    expect(row).to_contain_text("setting 19.3 A")
    assert violations(page) == []

    page.get_by_role("link", name="Rehearse", exact=True).click()
    expect(page.get_by_text("Rehearsal: simulation only")).to_be_visible()
    press = hand(page, "breaker").click if seat is DESK else hand(page, "breaker").tap
    press()
    expect(hand(page, "breaker")).to_have_attribute("data-word", "on")
    hand(page, "start").click(delay=250)
    expect(headline(page)).to_contain_text("RUNNING FORWARD")
    expect(page.locator("[data-link='main:A1-A2']")).to_have_attribute("data-on", "true")
    hand(page, "estop_1").click()
    expect(headline(page)).to_contain_text("COASTING")
    expect(page.get_by_test_id("must-do").locator("[data-done=true]")).to_have_count(2)
    assert violations(page) == []


def issue_for_wiring(page):
    """Print the pack, freeze its numbers, compare it with today."""
    page.get_by_role("button", name="Print", exact=True).click()
    page.get_by_role("button", name="Issue for wiring").click()
    expect(page.get_by_test_id("issue")).to_contain_text("issued for wiring", timeout=PRINT_MS)
    paper = page.get_by_role("link", name="Open issue 1").get_attribute("href")
    printed = page.request.get(paper)
    assert printed.headers["content-type"] == "application/pdf"
    page.get_by_role("button", name="Compare with today").click()
    expect(page.get_by_text("No differences")).to_be_visible()


def export_and_import(page, address, tag, folder):
    """Take the job as a file, size it without the server, bring it back under another tag."""
    file = page.request.get(f"/api{address}/file").body()
    path = folder / "job.json"
    path.write_bytes(file)
    said = subprocess.run(
        [ROOT / ".venv/bin/python", "-m", "evencoil", "size", path, "--format", "json"],
        check=True,
        capture_output=True,
        text=True,
    )
    shown = {step["id"]: step["shown"] for step in json.loads(said.stdout)["steps"]}
    assert (shown["table_flc_a"], shown["conductor_size"]) == ("21", "10 AWG")

    body = json.loads(file)
    body["motor"]["id"] = body["job_id"] = body["job_id"][::-1].replace("-", "")[:32]
    path.write_text(json.dumps(body))
    page.goto("/w/larkfall")
    page.get_by_role("button", name="Import file").click()
    page.get_by_label(re.compile("Job file")).set_input_files(path)
    expect(page.get_by_role("alert")).to_contain_text(f"This plant already has a motor {tag}.")
    page.get_by_label("Import under another tag").fill(f"{tag}-copy")
    page.get_by_role("button", name=f"Import as {tag}-copy").click()
    expect(page.get_by_label("Nameplate as stamped")).to_have_value(PLATE)
    page.goto(page.url.replace("/plate", "/size"))
    expect(page.get_by_test_id("slip-table_flc_a")).to_contain_text("21 A")
    expect(page.get_by_test_id("slip-conductor_size")).to_contain_text("10 AWG")


def test_a_choice_in_place_makes_the_issue_differ(opened):
    """Printed, then the lamps are left out: as issued stands beside computed today."""
    page = opened("/w/larkfall/m/IC-2/j/1/starter")
    page.get_by_role("button", name="Print", exact=True).click()
    page.get_by_role("button", name="Print now").click()
    paper = page.get_by_role("link", name=re.compile("Open issue"))
    expect(paper).to_be_visible(timeout=PRINT_MS)
    page.keyboard.press("Escape")
    lamps = page.get_by_role("group", name="Pilot lights")
    lamps.get_by_role("button", name="none").click()
    expect(page.get_by_text(SAVED)).to_be_visible()
    page.get_by_role("button", name="Print", exact=True).click()
    page.get_by_role("button", name="Compare with today").first.click()
    expect(page.get_by_text("the job was changed")).to_be_visible()
    expect(page.get_by_role("cell", name="5: KM1.34 – H1.X1")).to_be_visible()
    page.keyboard.press("Escape")
    lamps.get_by_role("button", name="as in the standard circuit").click()
    expect(page.get_by_text(SAVED)).to_be_visible()


def test_a_starter_that_cannot_do_stays_and_says_one_reason(opened):
    """Star-delta on a nine-lead motor: held, with what would make it possible."""
    page = opened("/w/larkfall/m/SF-5/j/1/starter")
    page.get_by_role("button", name="Reduced-voltage start: wye-delta").click()
    page.get_by_test_id("circuit-7A").click()
    slab = page.get_by_role("alert").filter(has_text="Needs a motor with 6 or 12 leads")
    expect(slab).to_contain_text("Choose another way to start")
    page.get_by_role("button", name="Reversing", exact=True).click()
    page.get_by_test_id("circuit-6C").click()
    expect(page.get_by_text(SAVED)).to_be_visible()


def test_keys_are_the_panel_and_two_can_be_held(opened):
    """Held F runs forward; R reverses and the picture freezes: plugged, with its chain."""
    page = opened("/w/larkfall/m/JC-1/j/1/starter")
    page.get_by_role("button", name="Reversing", exact=True).click()
    page.get_by_test_id("circuit-6C").click()
    expect(page.get_by_text(SAVED)).to_be_visible()
    page.get_by_role("link", name="Rehearse", exact=True).click()
    expect(hand(page, "forward")).to_be_visible()
    page.keyboard.press("b")
    expect(hand(page, "breaker")).to_have_attribute("data-word", "on")
    page.keyboard.down("f")
    page.keyboard.down("r")
    expect(hand(page, "forward")).to_have_attribute("data-word", "pressed")
    expect(hand(page, "reverse")).to_have_attribute("data-word", "pressed")
    # each button's opening contact holds the other direction out
    expect(page.locator("[data-link='forward_contactor:A1-A2']")).to_have_attribute(
        "data-on", "false"
    )
    page.keyboard.up("r")
    expect(headline(page)).to_contain_text("RUNNING FORWARD")
    page.keyboard.up("f")
    page.keyboard.down("r")
    expect(headline(page)).to_contain_text("REVERSED WHILE RUNNING (PLUGGING) AT")
    page.keyboard.up("r")
    chain = page.get_by_test_id("chain")
    expect(chain).to_contain_text("KR pulls in → M1 driven backward → M1 is reversed while")
    clock = page.get_by_test_id("clock").inner_text()
    page.wait_for_timeout(400)
    assert page.get_by_test_id("clock").inner_text() == clock
    page.get_by_role("alert").get_by_role("button", name="Rewind 2 s").click()
    expect(headline(page)).not_to_contain_text("REVERSED WHILE")


def test_two_fingers_at_once(opened):
    """Touch holds STOP and START together: it does not start; START alone, it does."""
    page = opened("/w/larkfall/m/IC-2/j/1/rehearse", seat=PANEL)
    hand(page, "breaker").tap()
    expect(hand(page, "breaker")).to_have_attribute("data-word", "on")
    hand(page, "reset").click(delay=250)
    expect(page.locator("[data-link='master:A1-A2']")).to_have_attribute("data-on", "true")
    touch = page.context.new_cdp_session(page)

    def middle(device):
        box = hand(page, device).bounding_box()
        return {"x": box["x"] + box["width"] / 2, "y": box["y"] + box["height"] / 2}

    first, second = {**middle("stop"), "id": 1}, {**middle("start"), "id": 2}
    touch.send("Input.dispatchTouchEvent", {"type": "touchStart", "touchPoints": [first]})
    touch.send("Input.dispatchTouchEvent", {"type": "touchStart", "touchPoints": [first, second]})
    for device in ("stop", "start"):
        expect(hand(page, device)).to_have_attribute("data-word", "pressed")
    expect(page.locator("[data-link='main:A1-A2']")).to_have_attribute("data-on", "false")
    touch.send("Input.dispatchTouchEvent", {"type": "touchEnd", "touchPoints": []})
    for device in ("stop", "start"):
        expect(hand(page, device)).to_have_attribute("data-word", "released")
    expect(headline(page)).to_contain_text("STANDING")
    touch.send("Input.dispatchTouchEvent", {"type": "touchStart", "touchPoints": [second]})
    expect(headline(page)).to_contain_text("RUNNING FORWARD")
    touch.send("Input.dispatchTouchEvent", {"type": "touchEnd", "touchPoints": []})
    expect(hand(page, "start")).to_have_attribute("data-word", "released")


def test_power_back_on_two_wire_control_springs_to_life(opened):
    """The picture freezes at the instant, the slab tells the chain, and time can be rewound."""
    page = opened("/w/larkfall/m/BS-6/j/1/starter")
    page.get_by_role("button", name="Two-wire, pilot device").click()
    page.get_by_test_id("circuit-2A").click()
    expect(page.get_by_text(SAVED)).to_be_visible()
    page.get_by_role("link", name="Rehearse", exact=True).click()
    for device in ("breaker", "selector", "pilot"):
        hand(page, device).click()
    expect(headline(page)).to_contain_text("RUNNING FORWARD")
    page.keyboard.press("x")
    page.get_by_role("button", name="Supply dips 1 s").click()
    expect(headline(page)).to_contain_text("UNEXPECTED START AT")
    expect(page.get_by_test_id("chain")).to_contain_text("power back → KM1 pulls in")
    page.get_by_role("alert").get_by_role("button", name="Continue").click()
    expect(headline(page)).to_contain_text("RUNNING FORWARD")


@pytest.mark.parametrize("seat", [DESK, PANEL], ids=["desk", "panel"])
def test_the_dead_circuit_is_read_and_a_wrong_ohm_explained(opened, seat):
    """Where no probe goes, what to hold, what it should read; a wrong one names its cause."""
    page = opened("/w/larkfall/m/SF-5/j/1/check", seat=seat)
    expect(page.get_by_text("The line side of the main disconnect stays live")).to_be_visible()
    row = page.get_by_test_id(re.compile(r"^check-")).filter(has_text="should read near zero").first
    row.get_by_role("button", name="near zero").click()
    expect(row).to_contain_text("as drawn")
    row.get_by_role("button", name="open").click()
    expect(row).to_contain_text("differs")
    if seat is DESK:
        expect(page.get_by_test_id("suspects")).to_contain_text("is open or missing")
    assert violations(page) == []
    row.get_by_role("button", name="open").click()
    expect(row).not_to_contain_text("differs")
