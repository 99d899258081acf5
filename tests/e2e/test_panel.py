"""At the panel: lock, prove dead, land, read; a live reading; the network really cut."""

from playwright.sync_api import expect

from conftest import PANEL, lock, prove, violations

PAGE = "/w/larkfall/m/IC-2/j/1/panel"


def ready(opened, **more):
    """Return the panel of the conveyor, its ohm readings calculated once."""
    page = opened("/w/larkfall/m/IC-2/j/1/check", **more)
    page.get_by_test_id("blind").wait_for(state="attached", timeout=60_000)
    page.get_by_role("link", name="At the panel").first.click()
    page.get_by_test_id("locks").wait_for()
    return page


def test_locked_proven_landed_and_a_live_reading_shuts_it(opened):
    """On a phone: hands open, a wire is landed and read; then 277 V, and no one goes in."""
    page = ready(opened, seat=PANEL, username="marta")
    expect(page.get_by_test_id("land")).to_have_count(0)
    lock(page)
    prove(page)
    expect(page.get_by_role("heading", level=1)).to_contain_text("Proven dead")
    expect(page.get_by_test_id("hands")).to_contain_text("Marta Quillan")
    # the wires ahead of the switch stay live and are not offered
    expect(page.get_by_test_id("land")).to_contain_text("need a lock further upstream")
    first = page.get_by_test_id("wire").inner_text()
    page.get_by_role("button", name="Landed and tugged").click()
    expect(page.get_by_test_id("wire")).not_to_have_text(first)
    expect(page.get_by_role("heading", level=1)).to_contain_text("Hands are in")
    expect(page.get_by_test_id("completes")).to_contain_text("Landed.")
    page.get_by_role("button", name="Read dead").click()
    row = page.get_by_test_id("row")
    row.get_by_label("Ω", exact=True).fill("0.1")
    row.get_by_role("button", name="Read").click()
    expect(page.get_by_test_id("readings")).to_contain_text("as it should be")
    windings = page.get_by_test_id("item")
    expect(windings.get_by_label("Temperature of the winding")).to_have_count(0)
    for box in windings.get_by_role("checkbox").all():
        box.check()
    windings.get_by_label("Temperature of the winding").fill("20")
    expect(windings).to_contain_text("At 20 °C: at least 20 MΩ")
    windings.get_by_label("After ten minutes").fill("300")
    windings.get_by_label("After one minute").fill("120")
    windings.get_by_role("button", name="Read").click()
    expect(windings).to_contain_text("as it should be")
    expect(windings).to_contain_text("Polarization index 2.50")
    expect(page.get_by_test_id("lock-strip")).to_contain_text("Marta Quillan 14")
    table = page.get_by_role("link", name="Readings as a table (CSV)").get_attribute("href")
    got = page.request.get(table).text()
    assert "insulation_reading" in got
    assert "dead_point" in got
    assert violations(page) == []
    # one live reading blocks everybody, with no way around
    page.get_by_role("button", name="Lock and prove").click()
    page.get_by_test_id("prove").get_by_label("Meter", exact=True).fill("M-7")
    page.get_by_test_id("prove").get_by_label("Volts of the live source").fill("120")
    page.get_by_role("button", name="Begin a round").click()
    page.get_by_label("Meter reads there, before").fill("119")
    page.get_by_test_id("prove").get_by_role("button", name="Read").click()
    page.get_by_test_id("point").get_by_label("V", exact=True).fill("277")
    page.get_by_test_id("point").get_by_role("button", name="Read").click()
    expect(page.get_by_role("heading", level=1)).to_contain_text("Still live")
    expect(page.get_by_test_id("land")).to_have_count(0)
    expect(page.get_by_role("alert").first).to_contain_text("Still live")


def test_with_the_network_cut_entries_wait_and_arrive_in_order(opened, complaints):
    """What was done offline is on this device, told so, and sent by itself afterwards."""
    page = ready(opened, username="ruth")
    complaints.allowed.append("ERR_INTERNET_DISCONNECTED")
    page.context.set_offline(True)
    page.get_by_label("My lock's number").fill("22")
    page.get_by_role("button", name="My lock is on").click()
    box = page.get_by_test_id("outbox")
    expect(box).to_contain_text("1 on this device only")
    page.context.set_offline(False)
    expect(box).to_have_count(0, timeout=20_000)
    expect(page.get_by_test_id("locks")).to_contain_text("Ruth Okafor-Lind")
