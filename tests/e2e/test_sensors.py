"""The bench of the sensors: type ohms, learn what it is; set an RTD; a probe that closes the loop."""

import pytest
from playwright.sync_api import expect

from conftest import DESK, PANEL, violations


@pytest.mark.parametrize("seat", [DESK, PANEL], ids=["desk", "panel"])
def test_ohms_are_typed_and_told_apart(opened, seat):
    """109.7 ohm with a heater that reads alike; three wires of a Pt100; the shaft-current loop."""
    page = opened("/w/larkfall/sensors", seat=seat)
    what = page.get_by_test_id("what")
    what.get_by_label("Read between them").fill("109.7")
    what.get_by_label("Temperature of the motor").fill("25")
    what.get_by_label("Space heater, volts").fill("120")
    what.get_by_label("Space heater, watts").fill("130")
    what.get_by_role("button", name="What is it?").click()
    for kind in ("Pt100", "heater", "PTC x3"):
        expect(what).to_contain_text(kind)
    expect(what).to_contain_text("Warm it")
    element = page.get_by_test_id("element")
    for pair, ohms in (("a and c", "112.39"), ("b and c", "112.39"), ("a and b", "4.6")):
        element.get_by_label(f"Between {pair}").fill(ohms)
    element.get_by_role("button", name="Temperature").click()
    expect(element).to_contain_text("20.0 °C")
    expect(element).to_contain_text("= 107.79")
    shaft = page.get_by_test_id("shaft")
    expect(shaft).not_to_contain_text("Current flows")
    for side, name in ((0, "not insulated"), (0, "none"), (1, "outer ring"), (1, "plain")):
        shaft.get_by_role("button", name=name, exact=True).nth(side).click()
    expect(shaft).to_contain_text("Current flows")
    shaft.get_by_role("button", name="insulated", exact=True).last.click()
    expect(shaft).to_contain_text("The loop is open")
    assert violations(page) == []
