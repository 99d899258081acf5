"""How many clicks the four usual ways take, counted by a browser that goes them.

    benchmarks/clicks.py URL

On a running demo. Adds motors of its own. A click is a pointer press on anything; an action is a
click, or one field filled, or one line entered. Prints clicks, actions and seconds of each way,
with the aim: plate to joined box 5 clicks, plate to branch circuit 3, wye-delta plate to rehearsal
9, a panel of 45 wires traced in 100 actions.
"""

from __future__ import annotations

import os
import re
import sys
import time
from pathlib import Path

from playwright.sync_api import Error as Refusal
from playwright.sync_api import Locator, Page, sync_playwright

sys.path.insert(0, str(Path(__file__).resolve().parents[1] / "tools"))
from shots import FLAGS, sign_in

NINE = "15 HP 230/460 V 38.6/19.3 A 1765 RPM 60 HZ 3 PH SF 1.15 CODE G DES B 9 LEADS"
SIX = "75 HP 460/796 V 88/51 A 1780 RPM 60 HZ 3 PH SF 1.15 CODE G DES B 6 LEADS"
#: devices of a panel as found, by their name in the palette, and its wires called out
DEVICES = [
    ("breaker", "QF1"),
    ("fuse", "FU1"),
    ("fuse", "FU2"),
    ("fuse", "FU3"),
    ("control_transformer", "T1"),
    ("contactor", "KM1"),
    ("overload", "OL1"),
    ("double_button", "S1"),
    ("double_button", "S2"),
    ("pilot_light", "H1"),
    ("pilot_light", "H2"),
    ("control_relay", "KA1"),
    ("control_relay", "KA2"),
]
LINES = [
    "SUP L1 - QF1 1",
    "SUP L2 - QF1 3",
    "SUP L3 - QF1 5",
    "QF1 2 - KM1 1L1 - FU1 1",
    "QF1 4 - KM1 3L2 - FU2 1",
    "QF1 6 - KM1 5L3",
    "KM1 2T1 - OL1 1L1",
    "KM1 4T2 - OL1 3L2",
    "KM1 6T3 - OL1 5L3",
    "OL1 2T1 - M1 U1",
    "OL1 4T2 - M1 V1",
    "OL1 6T3 - M1 W1",
    "FU1 2 - T1 H1",
    "FU2 2 - T1 H4",
    "T1 H2 - T1 H3",
    "T1 X1 - FU3 1",
    "1: FU3 2 - S1 21 - KA1 13 - KA2 13 - KM1 21",
    "2: S1 22 - S2 13 - KM1 13",
    "3: S2 14 - KM1 14 - KM1 A1",
    "4: KM1 A2 - OL1 95",
    "5: KA1 14 - H1 X1",
    "6: KM1 22 - H2 X1",
    "7: KA2 14 - KA1 A1",
    "8: KA1 21 - KA2 A1",
    "X2: T1 X2 - OL1 96 - H1 X2 - H2 X2 - KA1 A2 - KA2 A2",
    "9: KA1 22 - KA2 21",
    "10: KA2 22 - S1 13",
    "11: S1 14 - S2 21",
    "12: S2 22 - OL1 97",
    "13: OL1 98 - KM1 22",
    "SUP PE - M1 PE",
    "1: KM1 21 - OL1 97",
    "X2: KA2 A2 - T1 X2",
    "4: OL1 95 - KA1 21",
]


class Hand:
    """Clicks and fills like a person, and counts."""

    def __init__(self, page: Page, url: str) -> None:
        self.page, self.url = page, url
        self.clicks = self.actions = 0
        self.since = 0.0

    def click(self, on: Locator) -> None:
        """Press on something."""
        self.clicks += 1
        self.actions += 1
        on.click()

    def fill(self, on: Locator, text: str) -> None:
        """Type into a field that a key leads to."""
        self.actions += 1
        on.fill(text)

    def begin(self, plate: str, supply: str = "480Y/277") -> str:
        """Add a motor and enter its nameplate; counting starts with the plate entered."""
        page, tag = self.page, f"CLICK-{os.getpid()}-{time.monotonic_ns() % 100000}"
        page.goto(f"{self.url}/w/larkfall")
        page.get_by_role("button", name="New motor").click()
        page.get_by_label("Tag").fill(tag)
        page.get_by_role("dialog").locator("[type=submit]").click()
        page.get_by_label("Nameplate as stamped").fill(plate)
        page.get_by_label("Supply", exact=True).fill(supply)
        page.get_by_label("Nameplate as stamped").focus()
        page.get_by_text(re.compile(r"^Saved \d\d:\d\d$")).wait_for()
        self.clicks = self.actions = 0
        self.since = time.monotonic()
        return f"{self.url}/w/larkfall/m/{tag}/j/1"

    def say(self, way: str, aim: str) -> None:
        """Print what it took."""
        took = time.monotonic() - self.since
        print(f"{way}: {self.clicks} clicks, {self.actions} actions, {took:.1f} s (aim {aim})")


def to_box(hand: Hand) -> None:
    """Nine leads whose kind the plate does not say: leads, kind, answer."""
    page = hand.page
    hand.begin(NINE)
    hand.click(page.get_by_role("link", name="To Leads"))
    hand.click(page.get_by_role("button", name=re.compile("^nine-lead wye")))
    hand.click(page.get_by_role("button", name="Connect the box like this"))
    page.get_by_text("The box is connected like this.").wait_for()
    hand.say("plate to joined box", "5 clicks")


def to_branch(hand: Hand) -> None:
    """Conductor, fuse and overload of the branch circuit."""
    hand.begin(NINE)
    hand.click(hand.page.get_by_role("link", name="To Size"))
    hand.page.get_by_test_id("slip-conductor_size").wait_for()
    hand.page.get_by_text("10 AWG").first.wait_for()
    hand.say("plate to branch circuit", "3 clicks")


def to_rehearsal(hand: Hand) -> None:
    """Six leads: wye-delta, drawn and running in the rehearsal."""
    page = hand.page
    hand.begin(SIX)
    hand.click(page.get_by_role("link", name=re.compile("^Starter")))
    hand.click(page.get_by_role("button", name=re.compile("wye-delta$")))
    hand.click(page.get_by_test_id("circuit-7A"))
    page.get_by_test_id("live-drawing").wait_for()
    hand.click(page.get_by_role("link", name="Rehearse", exact=True))
    page.locator("[data-hand]").first.wait_for()
    hand.click(page.locator("[data-hand=breaker]"))
    page.locator("[data-hand=breaker][data-word=on]").wait_for()
    hand.clicks += 1
    hand.actions += 1
    page.locator("[data-hand=start]").click(delay=400)
    page.get_by_role("heading", level=1).filter(has_text="RUNNING").wait_for()
    hand.say("wye-delta plate to rehearsal, running", "9 clicks")


def traced(hand: Hand) -> None:
    """Trace a panel as found, device by device and line by line."""
    page = hand.page
    base = hand.begin(NINE)
    page.goto(f"{base}/starter")
    hand.click(page.get_by_role("button", name="As found"))
    hand.click(page.get_by_test_id("circuit-found"))
    page.get_by_text("Starter as found").first.wait_for()
    hand.click(page.get_by_role("link", name="To Drawings"))
    hand.click(page.get_by_role("button", name="Edit wiring", exact=True))
    new = page.get_by_role("group", name="New device")
    last = ""
    for kind, tag in DEVICES:
        if kind != last:
            hand.click(new.locator(f"[data-choice='usual:{kind}']"))
        last = kind
        hand.fill(new.get_by_label("Tag", exact=True), tag)
        hand.click(new.get_by_role("button", name="Add device"))
        page.get_by_test_id("differences").get_by_text(f"{tag} (").first.wait_for()
    line = page.get_by_test_id("trace").get_by_label("One line")
    for text in LINES:
        hand.fill(line, text)
        line.press("Enter")
        try:
            page.wait_for_function(
                "field => field.value === ''", arg=line.element_handle(), timeout=20_000
            )
        except Refusal as refused:
            told = page.get_by_role("alert").first.inner_text()
            raise SystemExit(f"{text}: {told}") from refused
    page.wait_for_timeout(1500)
    wires = page.get_by_role("heading", level=1).inner_text()
    hand.say(f"panel traced ({wires})", "45 wires in 100 actions")


if __name__ == "__main__":
    address = sys.argv[1].rstrip("/")
    with sync_playwright() as play:
        browser = play.chromium.launch(executable_path="/usr/bin/chromium", args=FLAGS)
        window = browser.new_page(viewport={"width": 1280, "height": 800})
        sign_in(window, address)
        for way in (to_box, to_branch, to_rehearsal, traced):
            way(Hand(window, address))
        browser.close()
