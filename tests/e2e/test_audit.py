"""A plant audited on the screen: the worst is opened, mended, and told as mended."""

import re

import pytest
from playwright.sync_api import expect
from test_day import sent

from conftest import DESK, PANEL, violations

PLATE = "15 HP, 230/460 V, 38.6/19.3 A, 1765 RPM, 60 HZ, 3 PH, SF 1.15, CODE G, DES B, 9 LEADS"
HEATERS = {
    "protection_kind": "dual_element_fuse",
    "existing": {"device_a": "40", "trip_a": "31"},
}


def begun(page):
    """Begin an audit and wait until every motor was audited."""
    page.get_by_role("button", name=re.compile("^Audit (the plant|again)$")).click()
    headline = page.get_by_role("heading", level=1)
    expect(headline).to_contain_text("something is not known")


@pytest.mark.parametrize("seat", [DESK, PANEL], ids=["desk", "panel"])
def test_the_worst_is_opened_and_mended(opened, seat):
    """Heaters at 161 % of the nameplate: found, opened where it is mended, gone the next time."""
    page = opened("/w/larkfall", seat=seat, username="marta")
    tag = f"AU-{seat['viewport']['width']}"
    motor = {"tag": tag, "name": "crusher", "machine": "Stack", "panel": "MCC-9"}
    sent(page, "POST", "/api/w/larkfall/motors", motor)
    job = f"/api/w/larkfall/m/{tag}/j/1"
    for step, body in {
        "plate": {"text": PLATE},
        "supply": {"text": "480Y/277"},
        "size": HEATERS,
    }.items():
        sent(page, "PUT", f"{job}/{step}", {"based_on": 0, "body": body})
    page.goto("/w/larkfall/audit")
    begun(page)
    assert violations(page) == []
    # what it counts is what its list shows
    count = page.get_by_test_id("topics").get_by_role("listitem").filter(has_text="Overload")
    button = count.get_by_role("button", name=re.compile("fails$"))
    fails = int(re.match(r"\d+", button.inner_text())[0])
    button.click()
    expect(page.get_by_text(re.compile(rf"lines? in {fails} motors?$"))).to_be_visible()
    line = page.get_by_test_id("lines").get_by_role("listitem").filter(has_text=tag)
    expect(line).to_contain_text("Trips at 31 A")
    expect(line).to_contain_text("430.32")
    line.get_by_role("link").click()
    expect(page).to_have_url(re.compile(f"{tag}/j/1/size$"))
    mended = {**HEATERS, "existing": {"device_a": "40", "trip_a": "23"}}
    sent(page, "PUT", f"{job}/size", {"based_on": 1, "body": mended})
    page.goto("/w/larkfall/audit")
    begun(page)
    page.get_by_role("button", name="no longer found").click()
    gone = page.get_by_test_id("lines").get_by_role("listitem").filter(has_text=tag)
    expect(gone.filter(has_text="Trips at 31 A")).to_contain_text("before: fails")


def test_what_if(opened):
    """Twice the fault current on one motor: what would come, and that nothing of it is so."""
    page = opened("/w/larkfall", username="marta")
    sent(
        page,
        "POST",
        "/api/w/larkfall/motors",
        {"tag": "AU-IF", "name": "crusher", "machine": "Stack"},
    )
    job = "/api/w/larkfall/m/AU-IF/j/1"
    for step, body in {
        "plate": {"text": PLATE},
        "supply": {"text": "480Y/277", "fault_current_a": "8000"},
        "size": {"fault": {"device_ka": "10", "starter_ka": "10"}},
    }.items():
        sent(page, "PUT", f"{job}/{step}", {"based_on": 0, "body": body})
    page.goto("/w/larkfall/audit")
    page.get_by_text("What if", exact=True).click()
    begin = page.get_by_role("button", name="Audit as if")
    expect(begin).to_be_disabled()
    page.get_by_label("Fault current, times").fill("2")
    begin.click()
    expect(
        page.get_by_text("Supposed: with 2 times the fault current. Nothing of it is so.")
    ).to_be_visible()
    lines = page.get_by_test_id("lines").get_by_role("listitem").filter(has_text="AU-IF")
    expect(lines).to_have_count(2)
    expect(lines.first).to_contain_text("16000 A")
    expect(lines.first).to_contain_text("not found before")
