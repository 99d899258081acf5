"""People on the screen: invited, signed in by a passkey, taken out; a plant erased."""

import re

import pytest
from playwright.sync_api import expect

from conftest import CALM, DESK, PANEL, WORD, violations

PASS = "four-kilns-and-a-mill"


def joined(browser, base_url, link, username, complaints):
    """Take an invitation up in a browser of one's own; return the page of the plant."""
    context = browser.new_context(base_url=base_url, service_workers="block", **DESK)
    page = context.new_page()
    complaints.watch(page)
    page.goto(link)
    page.get_by_label("Name, as others see it").fill(f"New {username}")
    page.get_by_label("Name to sign in with").fill(username)
    page.get_by_label("Password", exact=True).fill(PASS)
    page.get_by_role("button", name="Join", exact=True).click()
    page.get_by_role("heading", level=1).filter(has_text="motors").wait_for()
    return page


def invited(page, whom, role="electrician"):
    """Make a link and return it."""
    page.get_by_label("For whom").fill(whom)
    page.get_by_label("As", exact=True).select_option(role)
    page.get_by_role("button", name="Make the link").click()
    link = page.get_by_role("status", name=re.compile(f"Link for {whom}"))
    expect(link).to_contain_text("/join#")
    return link.inner_text()


@pytest.mark.parametrize("seat", [DESK, PANEL], ids=["desk", "panel"])
def test_a_person_is_invited_and_taken_out(opened, browser, base_url, complaints, seat):
    """The link lets one in, as what it says; taken out, nothing of the plant opens any more."""
    username = f"new{seat['viewport']['width']}"
    page = opened("/w/larkfall/people", seat=seat, username="dov")
    link = invited(page, username)
    assert violations(page) == []
    theirs = joined(browser, base_url, link, username, complaints)
    theirs.goto("/w/larkfall/people")
    expect(theirs.get_by_test_id("members")).to_contain_text(f"New {username}")
    expect(theirs.get_by_role("button", name="Make the link")).to_have_count(0)
    # the link is used up
    complaints.allowed.append("404")
    theirs.goto(link)
    theirs.reload()
    expect(theirs.get_by_text("does not let anybody in")).to_be_visible()
    page.reload()
    expect(page.get_by_test_id("invites")).to_contain_text(f"used by New {username}")
    one = page.get_by_test_id("members").get_by_role("listitem").filter(has_text=username)
    one.get_by_role("button", name="Take out").click()
    one.get_by_role("button", name="Yes, take out").click()
    expect(one).to_have_count(0)
    theirs.goto("/w/larkfall")
    expect(theirs.get_by_text("There is no such plant here.")).to_be_visible()
    page.goto("/w/larkfall/log")
    expect(page.get_by_test_id("log")).to_contain_text(f"remove member {username}")
    page.get_by_role("button", name="Opened").click()
    expect(page.get_by_text("No time of day is kept")).to_be_visible()
    assert violations(page) == []
    theirs.context.close()


def test_a_passkey_signs_in(browser, base_url, complaints):
    """Made with the password given just before; it signs in without one; the password stays."""
    # a passkey hangs on a name: the same server, not by its address
    named = base_url.replace("127.0.0.1", "localhost")
    context = browser.new_context(base_url=named, service_workers="block", **DESK)
    page = context.new_page()
    complaints.watch(page)
    line = context.new_cdp_session(page)
    line.send("WebAuthn.enable")
    line.send(
        "WebAuthn.addVirtualAuthenticator",
        {
            "options": {
                "protocol": "ctap2",
                "transport": "internal",
                "hasResidentKey": True,
                "hasUserVerification": True,
                "isUserVerified": True,
                "automaticPresenceSimulation": True,
            }
        },
    )
    page.goto("/sign-in")
    page.get_by_label("Name").fill("pim")
    page.get_by_label("Password").fill(WORD)
    page.get_by_role("button", name="Sign in", exact=True).click()
    page.get_by_role("heading", level=1).filter(has_text="motors").wait_for()
    page.goto("/me")
    page.get_by_label("Call it").fill("shop tablet")
    page.get_by_label("Your password, to add one").fill(WORD)
    page.get_by_role("button", name="Add a passkey").click()
    expect(page.get_by_test_id("passkeys")).to_contain_text("shop tablet")
    assert violations(page) == []
    # 401 is the sign-in package's way to say "signed out now"
    complaints.allowed.append("401")
    page.get_by_role("button", name="Sign out").click()
    page.get_by_role("button", name="Sign in with a passkey").click()
    page.get_by_role("heading", level=1).filter(has_text="motors").wait_for()
    page.goto("/me")
    expect(page.get_by_text("You sign in as pim.")).to_be_visible()
    page.get_by_label("Your password, to add one").fill(WORD)
    page.get_by_test_id("passkeys").get_by_role("button", name="Remove").click()
    expect(page.get_by_test_id("passkeys")).to_have_count(0)
    context.close()


def test_a_token_is_made_and_ended(opened):
    """Shown once; it reads; ended, it does not."""
    page = opened("/me", username="marta")
    page.get_by_label("Name of the program").fill("shop wall")
    page.get_by_role("button", name="Make a token").click()
    token = page.get_by_role("status", name=re.compile("^The token")).inner_text()
    read = "(t) => fetch('/api/v1/w/larkfall/yard', {credentials: 'omit', headers: {Authorization: `Bearer ${t}`}}).then((a) => a.status)"
    assert page.evaluate(read, token) == 200
    line = page.get_by_test_id("tokens").get_by_role("listitem").filter(has_text="shop wall")
    line.get_by_role("button", name="End").click()
    expect(line).to_have_count(0)


def test_a_plant_is_erased_by_its_name_and_a_password(opened, browser, base_url, complaints):
    """Its data is taken first; by a wrong name nothing happens; afterwards it is not there."""
    context = browser.new_context(base_url=base_url, **CALM)
    page = opened("/w/larkfall-plant/people", username="dov")
    link = invited(page, "closer", "admin")
    theirs = joined(browser, base_url, link, "closer", complaints)
    theirs.goto("/w/larkfall-plant/people")
    theirs.get_by_text("The plant's data").click()
    theirs.get_by_role("button", name="Make the file").click()
    with theirs.expect_download() as saved:
        theirs.get_by_role("link", name="Download").click()
    assert saved.value.path().stat().st_size > 10_000
    name = theirs.get_by_label(re.compile("^Write the plant's name")).get_attribute("id")
    plant = theirs.locator(f'label[for="{name}"]').inner_text().split(": ")[1]
    erase = theirs.get_by_role("button", name="Erase for good")
    theirs.get_by_label(re.compile("^Write the plant's name")).fill(plant.lower())
    theirs.get_by_label("Your password").fill(PASS)
    expect(erase).to_be_disabled()
    theirs.get_by_label(re.compile("^Write the plant's name")).fill(plant)
    assert violations(theirs) == []
    erase.click()
    # no plant is left for the account, and soon no account
    gone = theirs.get_by_text("You are not a member of any plant yet.")
    gone.or_(theirs.get_by_role("button", name="Sign in", exact=True)).first.wait_for()
    complaints.allowed.append("404")
    page.goto("/w/larkfall-plant")
    expect(page.get_by_text("There is no such plant here.")).to_be_visible()
    context.close()
