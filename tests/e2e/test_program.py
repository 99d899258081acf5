"""The program of a relay: written, drawn, opened from a file; the lamp of a missing feedback."""

import re

from playwright.sync_api import expect
from test_day import sent

from conftest import violations

JOB = "/api/w/larkfall/m/PR-6/j/1"
PAGE = "/w/larkfall/m/PR-6/j/1"
PLATE = "15 HP, 230/460 V, 38.6/19.3 A, 1765 RPM, 60 HZ, 3 PH, SF 1.15, CODE G, DES B, 9 LEADS"


def test_a_two_wire_program_is_written_and_its_feedback_broken(opened, tmp_path):
    """Text with an error is not kept; corrected it is; the rehearsal lights the lamp."""
    page = opened("/w/larkfall", username="marta")
    motor = {"tag": "PR-6", "name": "silo vibrator", "machine": "Stack"}
    sent(page, "POST", "/api/w/larkfall/motors", motor)
    for step, body in (
        ("plate", {"text": PLATE}),
        ("supply", {"text": "480Y/277"}),
        ("leads", {"winding": "9-wye"}),
        ("starter", {"standard_circuit": "13A"}),
    ):
        sent(page, "PUT", f"{JOB}/{step}", {"based_on": 0, "body": body})
    page.goto(f"{PAGE}/drawings")
    page.get_by_role("button", name="Program", exact=True).click()
    state = page.get_by_test_id("program-state")
    expect(state).to_contain_text("It can be run. Kept with this job.")
    page.get_by_role("button", name="Text", exact=True).click()
    text = page.get_by_label("Program as text")
    text.fill("Q1 := I1;\nQ2 := Q1 AND NOT Feedback;\n")
    expect(state).to_contain_text("Line 2, column 18")
    keep = page.get_by_role("button", name="Keep this program")
    expect(keep).to_be_disabled()
    text.fill("Q1 := I1;\nQ2 := (Q1 AND NOT I2) OR (I2 AND NOT Q1);\n")
    expect(state).to_contain_text("Not kept yet")
    page.get_by_role("button", name="Rungs", exact=True).click()
    expect(page.get_by_test_id("rungs")).to_contain_text("Rung 2")
    assert violations(page) == []
    # the same by hand: a contact more in the first rung
    page.get_by_role("button", name="I1", exact=True).first.click()
    page.get_by_label("Variable").fill("I4")
    page.get_by_role("button", name="In series").click()
    expect(page.get_by_test_id("rungs").get_by_role("button", name="I4")).to_have_count(1)
    page.get_by_test_id("rungs").get_by_role("button", name="I4").click()
    page.get_by_role("button", name="Take it out").click()
    expect(page.get_by_test_id("rungs").get_by_role("button", name="I4")).to_have_count(0)
    keep.click()
    expect(state).to_contain_text("Kept with this job.")
    # a file of another program, and back
    made = tmp_path / "other.st"
    made.write_text("Q1 := I1 AND I3;\n")
    page.get_by_role("button", name="Files", exact=True).click()
    page.locator("input[type=file]").set_input_files(str(made))
    expect(state).to_contain_text("Not kept yet")
    page.get_by_role("button", name="Back to what is kept").click()
    expect(state).to_contain_text("Kept with this job.")
    # the feedback wire falls off: the lamp tells it
    acts = [
        {"t": 0, "do": "close", "on": "breaker"},
        {"t": 1_000_000, "do": "turn", "on": "selector", "word": "RUN"},
        {"t": 3_000_000, "do": "fail", "on": "main", "word": "33-34 open"},
    ]
    given = sent(page, "GET", JOB, None)
    body = {
        "given": {
            name: given[name] for name in ("plate", "supply", "load", "size", "leads", "starter")
        },
        "actions": acts,
        "until": 6_000_000,
    }
    trace = sent(page, "POST", "/api/w/larkfall/rehearse", body)
    words = [frame["words"] for frame in trace["frames"] if frame["words"]]
    assert words[-1]["lamp_unconfirmed"] == "on"
    # and on the screen: rungs with the contacts that carry power, beside the circuit
    page.goto(f"{PAGE}/rehearse")
    live = page.get_by_test_id("live-program")
    expect(live).to_contain_text("No supply: the program is gone")
    page.keyboard.press("b")
    expect(live).not_to_contain_text("No supply")
    page.keyboard.press("v")
    expect(live.get_by_role("img", name="I1: carries power", exact=True)).to_be_visible()
    expect(live.get_by_role("img", name="Q1: has power", exact=True)).to_be_visible()
    live.get_by_role("button", name="Text", exact=True).click()
    expect(live).to_contain_text("Values after each scan")
    assert violations(page) == []


def test_a_drive_runs_at_twenty_hertz(opened):
    """Started, dialed down while it runs, stopped; its bus stays charged behind an open breaker."""
    page = opened("/w/larkfall", username="marta")
    motor = {"tag": "DV-7", "name": "feeder screw", "machine": "Stack"}
    sent(page, "POST", "/api/w/larkfall/motors", motor)
    job = "/api/w/larkfall/m/DV-7/j/1"
    for step, body in (
        ("plate", {"text": PLATE}),
        ("supply", {"text": "480Y/277"}),
        ("leads", {"winding": "9-wye"}),
        ("load", {"kind": "conveyor", "torque_percent": "70", "inertia_lb_ft2": "9"}),
        ("starter", {"standard_circuit": "17B"}),
    ):
        sent(page, "PUT", f"{job}/{step}", {"based_on": 0, "body": body})
    page.goto("/w/larkfall/m/DV-7/j/1/rehearse")
    drive = page.get_by_test_id("drive")
    expect(drive).to_contain_text("NO LINES")
    page.keyboard.press("b")
    expect(drive).to_contain_text("READY")
    page.keyboard.press("t", delay=400)
    expect(drive).to_contain_text("RUNS")
    expect(drive).to_contain_text("60.0 Hz")
    dial = drive.get_by_role("slider")
    dial.fill("20")
    dial.press("Tab")
    expect(drive).to_contain_text("20.0 Hz")
    # 120 x 20 / 4 is 600 rpm, less the slip that it has at 60 Hz too
    expect(page.locator("h1")).to_contain_text(re.compile(r"RUNNING FORWARD 5[78]\d rpm"))
    assert violations(page) == []
    page.keyboard.press("b")
    expect(drive).to_contain_text("NO LINES")
    expect(drive).to_contain_text("hands off until it is below 50 V")
