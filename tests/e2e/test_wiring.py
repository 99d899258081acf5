"""Wire 3A by hand on the practice panel: silent until asked, powered, read with a meter."""

import re

import pytest
from playwright.sync_api import expect

from conftest import DESK, PANEL, violations
from evencoil.practice import bare_edits
from evencoil.starters import draw


def wires_of(code):
    """Return the wires to land, each by the names of its terminals as they stand on the board."""
    circuit = draw(code).circuit
    off = set(bare_edits(circuit, with_power=True))

    def name(terminal):
        owner, _, end = terminal.rpartition(".")
        return f"{circuit.tags[owner]}.{end}"

    return [(name(wire.start), name(wire.end)) for wire in circuit.netlist.wires if wire.id in off]


def land(page, start, end):
    """Land one wire by the names of its terminals."""
    page.get_by_label("From", exact=True).fill(start)
    page.get_by_label("To", exact=True).fill(end)
    page.get_by_role("button", name="Land", exact=True).click()


@pytest.mark.parametrize("seat", [DESK, PANEL], ids=["desk", "panel"])
def test_a_three_wire_starter_is_wired_by_hand(opened, seat):
    """One wire on the feed side of STOP: nothing is said until asked; mended, it seals and stops."""
    page = opened("/w/larkfall/wiring", seat=seat, username="pim")
    headline = page.get_by_role("heading", level=1)
    todo = wires_of("3A")
    expect(headline).to_contain_text(f"0 of {len(todo)} wires landed", ignore_case=True)
    page.get_by_label("From", exact=True).wait_for()
    mine = page.get_by_test_id("mine").get_by_role("listitem")
    seal = next(pair for pair in todo if set(pair) == {"S2.13", "KM1.13"})
    for place, (start, end) in enumerate(one for one in todo if one != seal):
        land(page, start, end)
        expect(mine).to_have_count(place + 1)
    land(page, "S1.11", "KM1.13")
    expect(mine).to_have_count(len(todo))
    # a wire is wrong, and not a word of it
    expect(page.get_by_test_id("asked")).to_have_count(0)
    page.get_by_role("button", name="Is it right?").click()
    asked = page.get_by_test_id("asked")
    expect(asked).to_contain_text("1 missing, 1 too many")
    assert violations(page) == []
    mine.last.get_by_role("button", name="Take off").click()
    expect(mine).to_have_count(len(todo) - 1)
    land(page, *seal)
    page.get_by_role("button", name="Is it right?").click()
    expect(headline).to_contain_text("Wired as it is drawn", ignore_case=True)
    # powered: it seals, a meter says what it says, and STOP stops it
    station = page.get_by_test_id("station")
    station.get_by_role("button", name=re.compile("QF1")).click()
    station.get_by_role("button", name=re.compile("START S2")).click(delay=400)
    motor = page.get_by_test_id("motor")
    expect(motor).to_contain_text("forward")
    page.get_by_role("button", name="reads ohms").click()
    page.get_by_label("From", exact=True).fill("KM1.A1")
    page.get_by_label("To", exact=True).fill("KM1.A2")
    page.get_by_role("button", name="Read", exact=True).click()
    expect(page.get_by_test_id("read")).to_contain_text("ohms on live wires")
    station.get_by_role("button", name=re.compile("STOP S1")).click(delay=400)
    expect(motor).not_to_contain_text("forward")


def test_a_colleague_hides_a_fault(opened):
    """Marta hides an open coil in 3A; Pim finds it in the list and is told when he names it."""
    page = opened("/w/larkfall/practice", username="marta")
    page.get_by_role("button", name="Find a hidden fault").click()
    page.get_by_text("Hide a fault for a colleague").click()
    page.get_by_label("In circuit").last.select_option("3A")
    fault = page.get_by_label(re.compile("^Fault"))
    expect(fault).to_be_enabled()
    fault.select_option("coil_open:main")
    page.get_by_role("button", name="Hide it").click()
    expect(page.get_by_text("Hidden. They find it")).to_be_visible()

    finder = opened("/w/larkfall/practice", username="pim")
    finder.get_by_role("button", name="Find a hidden fault").click()
    finder.get_by_label("Hidden by a colleague").select_option(index=1)
    card = finder.get_by_test_id("hidden")
    expect(card).to_contain_text("3A · People say")
    card.get_by_label("It is").select_option("coil_open:main")
    expect(card.get_by_test_id("verdict")).to_contain_text("Found it.")
