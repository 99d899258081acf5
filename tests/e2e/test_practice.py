"""Practice on the screen: an exam of ten with one wrong route named, and a hidden fault."""

import re

from playwright.sync_api import expect

from conftest import violations
from evencoil.practice import drill, said_part, said_slip


def answered(card, one, given):
    """Answer a question: choose, fill one figure, or fill every part."""
    if one.choices:
        card.get_by_role("button", name=given, exact=True).click()
        return
    if one.parts:
        for part, text in zip(one.parts, given.split("; "), strict=True):
            card.get_by_label(said_part(part.kind), exact=True).fill(text)
    else:
        card.get_by_label("Your answer").fill(given)
    card.get_by_role("button", name="Answer").click()


def test_an_exam_of_ten_names_a_wrong_route(opened):
    """Nine right by the live rule, one with the 125 % left out: the slip is named."""
    page = opened("/w/larkfall/practice", username="pim")
    page.get_by_test_id("question").wait_for()
    with page.expect_response(re.compile(r"practice/exam")) as asked:
        page.get_by_role("button", name="Exam of ten").click()
    exam = asked.value.json()
    card = page.get_by_test_id("question")
    drills = [drill(one["kind"], one["seed"], one["setting"]) for one in exam]
    wrong = next(place for place, one in enumerate(drills) if one.unit)
    slip = drills[wrong].slips[0]
    for place, one in enumerate(drills):
        expect(card).to_contain_text(re.compile(rf"Question {place + 1} of 10 · \d+:\d\d left"))
        answered(card, one, slip.value if place == wrong else one.right)
        verdict = page.get_by_test_id("verdict")
        if place == wrong:
            expect(verdict).to_contain_text(said_slip(slip.id))
            assert violations(page) == []
        else:
            expect(verdict).to_contain_text("Right.")
        verdict.get_by_role("button", name="Next question").click()
    expect(page.get_by_role("heading", level=1)).to_have_text(
        re.compile("9 of 10 right", re.IGNORECASE)
    )
    expect(page.get_by_test_id("known")).to_contain_text("box 1 of 6")


def test_a_whole_branch_is_sized(opened):
    """Seven answers, one by the nameplate: that part is named, the others stand."""
    page = opened("/w/larkfall/practice", username="pim")
    page.get_by_test_id("question").wait_for()
    with page.expect_response(re.compile(r"practice/next\?kind=branch")) as asked:
        page.get_by_label("A question about").select_option("branch")
    one = asked.value.json()
    worked = drill(one["kind"], one["seed"], one["setting"])
    expect(page.get_by_role("heading", level=1)).to_contain_text(
        "whole branch circuit", ignore_case=True
    )
    slip = next(slip for slip in worked.parts[0].slips if slip.id == "nameplate_amps")
    rights = [part.right for part in worked.parts]
    answered(page.get_by_test_id("question"), worked, "; ".join([slip.value, *rights[1:]]))
    parts = page.get_by_test_id("parts")
    expect(parts).to_contain_text("You took the nameplate amps.")
    expect(parts.get_by_role("row")).to_have_count(8)
    assert violations(page) == []


def test_a_hidden_fault_costs_minutes(opened):
    """A reading, then an accusation: right or wrong it says what it was."""
    page = opened("/w/larkfall/practice", username="pim")
    page.get_by_role("button", name="Find a hidden fault").click()
    card = page.get_by_test_id("hidden")
    expect(card).to_contain_text("0 minutes so far")
    card.get_by_label("Filter").fill("ohms")
    card.get_by_role("listitem").get_by_role("button").first.click()
    expect(card).not_to_contain_text("0 minutes so far, ")
    card.get_by_label("It is").select_option(index=1)
    expect(card.get_by_test_id("verdict")).to_contain_text("It was:")
