"""Practice on the screen: an exam of ten with one wrong route named, and a hidden fault."""

import re

from playwright.sync_api import expect

from conftest import violations
from evencoil.practice import drill


def test_an_exam_of_ten_names_a_wrong_route(opened):
    """Nine right by the live rule, one with the 125 % left out: the slip is named."""
    page = opened("/w/larkfall/practice", username="pim")
    with page.expect_response(re.compile(r"practice/exam")) as asked:
        page.get_by_role("button", name="Exam of ten").click()
    exam = asked.value.json()
    card = page.get_by_test_id("question")
    wrong = next(place for place, one in enumerate(exam) if one["kind"] == "ampacity")
    for place, one in enumerate(exam):
        expect(card).to_contain_text(f"Question {place + 1} of 10")
        worked = drill(one["kind"], one["seed"], one["setting"])
        given = worked.right
        if place == wrong:
            given = next(slip.value for slip in worked.slips if slip.id == "no_125")
        if one["choices"]:
            card.get_by_role("button", name=given, exact=True).click()
        else:
            card.get_by_label("Your answer").fill(f"{float(given):.4g}")
            card.get_by_role("button", name="Answer").click()
        verdict = page.get_by_test_id("verdict")
        if place == wrong:
            expect(verdict).to_contain_text("You left the 125 % out: 430.22.")
            assert violations(page) == []
        else:
            expect(verdict).to_contain_text("Right.")
        verdict.get_by_role("button", name="Next question").click()
    expect(page.get_by_role("heading", level=1)).to_have_text(
        re.compile("9 of 10 right", re.IGNORECASE)
    )
    expect(page.get_by_test_id("known")).to_contain_text("box 1 of 6")


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
