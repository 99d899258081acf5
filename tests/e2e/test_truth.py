"""What could hurt, done on the screen: a panel traced by tapping, bars left in, every supply."""

import re

import pytest
from playwright.sync_api import expect

from conftest import violations

SAVED = re.compile(r"^Saved( \d\d:\d\d)?$")
NINE = "15 HP, 230/460 V, 38.6/19.3 A, 1765 RPM, 60 HZ, 3 PH, SF 1.15, CODE G, 9 LEADS"
SIX = "15 HP, 480 V, 18.5 A, 1765 RPM, 60 HZ, 3 PH, SF 1.15, CODE G, 6 LEADS"


def headline(page):
    """Return the first line of the screen."""
    return page.get_by_role("heading", level=1)


def motor(page, tag, plate, supply):
    """Put a motor in, with its nameplate and supply."""
    page.get_by_role("button", name="New motor").click()
    page.get_by_label("Tag on the motor").fill(tag)
    page.get_by_label("What it drives").fill("test conveyor")
    page.get_by_label("Machine or line").fill("Lime Line 1")
    page.get_by_role("button", name="Add and read its nameplate").click()
    page.get_by_label("Nameplate as stamped").fill(plate)
    expect(headline(page)).to_contain_text("15 hp")
    page.get_by_label("Supply", exact=True).fill(supply)
    page.get_by_label("Nameplate as stamped").focus()
    expect(page.get_by_text(SAVED)).to_be_visible()
    return page.url.split("#")[0].rsplit("/", 1)[0]


#: a two-contactor control panel as it was traced: the device, its type, and the lines called out
DEVICES = [
    ("usual:breaker", "QF1"),
    ("usual:fuse", "FU1"),
    ("usual:fuse", "FU2"),
    ("usual:contactor", "KM1"),
    ("usual:overload", "OL1"),
    ("usual:stop_button", "S1"),
    ("usual:start_button", "S2"),
]
TAPPED = [
    "SUP L1", "QF1 1", None,
    "SUP L2", "QF1 3", None,
    "SUP L3", "QF1 5", None,
    "QF1 2", "KM1 1L1", None,
    "QF1 4", "KM1 3L2", None,
    "QF1 6", "KM1 5L3", None,
]  # fmt: skip
CALLED = [
    "KM1 2T1 - OL1 1L1",
    "KM1 4T2 - OL1 3L2",
    "KM1 6T3 - OL1 5L3",
    "OL1 2T1 - M1 U1",
    "OL1 4T2 - M1 V1",
    "OL1 6T3 - M1 W1",
    "QF1 2 - FU1 1",
    "QF1 4 - FU2 1",
    "1: FU1 2 - S1 11",
    "2: S1 12 - S2 13 - KM1 13",
    "3: S2 14 - KM1 A1 - KM1 14",
    "4: KM1 A2 - OL1 95",
    "C: OL1 96 - FU2 2",
]


def test_a_panel_is_traced_by_tapping_and_by_lines(opened, complaints):
    """Twenty wires, no terminal picked from a list; the circuit is named, a wrong line told."""
    page = opened("/w/larkfall")
    base = motor(page, "T-1", NINE, "480Y/277")
    page.goto(f"{base}/starter")
    page.get_by_role("button", name="As found").click()
    page.get_by_test_id("circuit-found").click()
    expect(headline(page)).to_contain_text("Starter as found")
    page.get_by_role("link", name="To Drawings").click()
    page.get_by_role("button", name="Edit wiring", exact=True).click()
    new = page.get_by_role("group", name="New device")
    for kind, tag in DEVICES:
        new.locator(f"[data-choice='{kind}']").click()
        new.get_by_label("Tag").fill(tag)
        new.get_by_role("button", name="Add device").click()
        expect(page.get_by_test_id("differences")).to_contain_text(f"{tag} (")
    board = page.get_by_test_id("trace")
    for place in TAPPED:
        if place is None:
            board.get_by_role("button", name="Begin elsewhere").click()
        else:
            board.get_by_role("button", name=place, exact=True).click()
    line = board.get_by_label("One line")
    for text in CALLED:
        line.fill(text)
        line.press("Enter")
        expect(line).to_have_value("")
    expect(page.get_by_test_id("nearest")).to_contain_text("3D")
    # the end of the last wire is where the next begins
    expect(board.get_by_role("status")).to_contain_text("From FU2 2")
    complaints.allowed.append("422")
    line.fill("KM1 A3 - S2 14")
    line.press("Enter")
    expect(board.get_by_role("alert")).to_contain_text("KM1 has no terminal A3.")
    expect(board.get_by_role("alert")).to_contain_text("A1, A2")
    assert violations(page) == []
    # a jumper across the stop, as it hangs in many a panel
    line.fill("S1 11 - S1 12")
    line.press("Enter")
    expect(line).to_have_value("")
    page.get_by_role("button", name="Checks", exact=True).click()
    expect(page.get_by_test_id("check-E04").first).to_contain_text(
        "Contact 11-12 of S1 is bypassed"
    )


def test_bars_left_in_a_star_delta_box_are_a_short_circuit(opened):
    """From the nameplate: joined for running in delta, and then started wye-delta."""
    page = opened("/w/larkfall")
    base = motor(page, "T-2", SIX, "480Y/277")
    page.goto(f"{base}/leads")
    page.get_by_role("button", name=re.compile("^six-lead wye-delta")).first.click()
    page.get_by_role("button", name="Connect the box like this").click()
    expect(page.get_by_text("The box is connected like this.")).to_be_visible()
    expect(page.get_by_text(SAVED)).to_be_visible()
    page.goto(f"{base}/starter")
    page.get_by_role("button", name="Wye-delta").first.click()
    page.get_by_test_id("circuit-7A").click()
    expect(page.get_by_text("1-6").first).to_be_visible()
    expect(page.get_by_text(SAVED)).to_be_visible()
    page.goto(f"{base}/rehearse")
    main = page.locator("[data-hand=breaker]")
    main.click()
    expect(main).to_have_attribute("data-word", "on")
    page.locator("[data-hand=start]").click(delay=250)
    expect(headline(page)).to_contain_text("SHORT CIRCUIT")


@pytest.mark.parametrize(
    ("supply", "tag"),
    [
        ("480Y/277", "T-3"),
        ("480 V delta", "T-4"),
        ("480 V corner grounded", "T-5"),
        ("240/120 high leg delta", "T-6"),
    ],
)
def test_start_stop_on_each_supply(opened, supply, tag):
    """3A on its own transformer starts and stops on every system; its grounded line is told."""
    page = opened("/w/larkfall")
    base = motor(page, tag, NINE, supply)
    page.goto(f"{base}/starter")
    page.get_by_role("button", name="Three-wire, start-stop").click()
    page.get_by_test_id("circuit-3A").click()
    expect(headline(page)).to_contain_text("3A")
    expect(page.get_by_text(SAVED)).to_be_visible()
    page.goto(f"{base}/drawings")
    told = page.get_by_text("in the grounded line of a corner-grounded delta")
    expect(told).to_have_count(1 if "corner" in supply else 0)
    page.goto(f"{base}/rehearse")
    main = page.locator("[data-hand=breaker]")
    main.click()
    expect(main).to_have_attribute("data-word", "on")
    page.locator("[data-hand=start]").click(delay=250)
    expect(headline(page)).to_contain_text("RUNNING FORWARD")
    page.locator("[data-hand=stop]").click(delay=250)
    expect(headline(page)).to_contain_text("COASTING")
