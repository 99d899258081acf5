"""Running up: the timer of a star-delta crusher, a lost phase, a box joined wrong."""

from playwright.sync_api import expect

from conftest import PANEL, moved, violations

CRUSHER = "/w/larkfall/m/JC-1/j/1/run-up"


def test_the_timer_of_a_star_delta_crusher(opened):
    """The demo's crusher at a third of its load: star gets it to speed, and the timer is told."""
    page = opened(CRUSHER)
    page.get_by_test_id("torque-plot").wait_for()
    expect(page.get_by_role("heading", level=1)).to_contain_text("Reaches")
    timer = page.get_by_test_id("timer")
    expect(timer.get_by_role("heading")).to_contain_text("Set the timer to")
    # half, once, one and a half, twice; the advised row is the second
    expect(timer.get_by_role("row")).to_have_count(5)
    expect(timer).to_contain_text("other set of delta jumpers")
    # what nobody entered is counted and marked
    expect(page.get_by_test_id("run-facts")).to_contain_text("taken as usual")
    assert violations(page) == []
    # the curve is read by keys
    read = page.get_by_test_id("torque-read")
    before = read.inner_text()
    page.get_by_test_id("torque-plot").get_by_role("slider").focus()
    for _ in range(9):
        page.keyboard.press("ArrowRight")
    assert read.inner_text() != before
    # full load from rest is more than star has: it says so, and what to do
    page.get_by_label("Torque at rated speed").fill("100")
    expect(timer.get_by_role("heading")).to_have_text("No setting helps")
    expect(page.get_by_role("alert").first).to_contain_text("no setting helps")
    page.get_by_label("Torque at rated speed").fill("35")
    expect(timer.get_by_role("heading")).to_contain_text("Set the timer to")


def test_a_lost_phase_running_and_at_rest(opened):
    """Two lines carry it on, none starts it; the other way to start is one tap away."""
    page = opened(CRUSHER, seat=PANEL)
    lost = page.get_by_test_id("lost-phase")
    lost.wait_for()
    rows = lost.get_by_role("row")
    expect(rows.filter(has_text="Fuse L2 blown, running")).to_contain_text("/ 0 /")
    expect(rows.filter(has_text="Fuse L2 blown, before the start")).to_contain_text("/ 0 /")
    expect(lost).to_contain_text("does not start this load")
    expect(lost).to_contain_text("props up the dead line")
    others = page.get_by_test_id("other-faults")
    others.get_by_text("Every other fault").tap()
    expect(others).to_contain_text("pulls backward")
    page.get_by_test_id("ways").get_by_role("button", name="Full voltage").tap()
    expect(page.get_by_test_id("timer")).to_have_count(0)
    assert violations(page) == []


def test_a_box_joined_wrong_is_run_as_it_is(opened):
    """The ball mill's nine leads still lie for 230 V: the run shows what that draws, and stops."""
    page = opened("/w/larkfall/m/BM-3/j/1/run-up")
    expect(page.get_by_role("heading", level=1)).to_contain_text("What does this motor drive?")
    page.get_by_role("button", name="Conveyor or piston pump, loaded").click()
    alert = page.get_by_role("alert").filter(has_text="As the box is joined now")
    expect(alert).to_contain_text("Never energize it like this")
    row = page.get_by_test_id("ways").get_by_role("row").filter(has_text="As the box is joined")
    # four thousand amps where 150 hp lock at eleven hundred
    amps = float(row.get_by_role("cell").first.inner_text())
    assert amps > 3000
    assert moved(page) < 0.05
    assert violations(page) == []


def test_the_jobs_own_motor_runs_in_the_rehearsal(opened):
    """The conveyor on its load: its rpm and amps; a line lost is told, and its currents too."""
    page = opened("/w/larkfall/m/IC-2/j/1/rehearse")
    heading = page.get_by_role("heading", level=1)
    page.get_by_test_id("happens").wait_for()
    page.keyboard.press("b")
    page.wait_for_timeout(600)
    page.keyboard.press("t", delay=300)
    page.wait_for_timeout(600)
    page.keyboard.press("a", delay=300)
    expect(heading).to_contain_text("RUNNING FORWARD 17", timeout=12_000)
    page.keyboard.press("x")
    page.get_by_role("button", name="L2 lost").click()
    expect(heading).to_contain_text("RUNS ON ONE PHASE")
    expect(page.get_by_test_id("happens")).to_contain_text("is left with one phase")
    # which motor this is, and what was taken as usual, is said in words
    expect(page.get_by_text("Constant set “physical”")).to_be_visible()


def test_readings_are_noted_for_the_meter_and_starts_are_counted(opened):
    """What a meter should show is stored with the job; how often it can start is told."""
    page = opened(CRUSHER)
    row = page.get_by_test_id("in-a-row")
    expect(row).to_contain_text("From cold")
    expected = page.get_by_test_id("expected")
    expect(expected).not_to_contain_text("noted:")
    expected.get_by_role("button", name="Note these for the meter").click()
    expect(expected).to_contain_text("noted:")
    expect(expected.get_by_role("button", name="Note them again")).to_be_visible()
    assert violations(page) == []
