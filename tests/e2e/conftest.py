"""The browser, a signed-in person, and the rule that nothing may complain."""

import contextlib
import os
import re
from pathlib import Path

import pytest
from playwright.sync_api import expect

ROOT = Path(__file__).parents[2]
FLAGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    # one server is one site: its pages may share a process, and none waits for another site
    "--disable-site-isolation-trials",
    "--process-per-site",
    "--force-prefers-reduced-motion",
    # a window without a face needs no address box of its own, which is two more pages each
    "--disable-features=WebUIOmniboxPopup,WebUIOmniboxAimPopup,WebUIOmniboxFullPopup",
]
WORD = re.search(r'PASSWORD = "([^"]+)"', (ROOT / "server/demo/larkfall.py").read_text())[1]
CALM = {"reduced_motion": "reduce"}
DESK = {"viewport": {"width": 1280, "height": 800}, **CALM}
PANEL = {
    "viewport": {"width": 390, "height": 844},
    "has_touch": True,
    "is_mobile": True,
    **CALM,
}
# how fast a screen is stands in benchmarks/; a loaded machine must not decide what is right
expect.set_options(timeout=45_000)
# a pack of many pages is set behind everything that serves people, while other tests load the machine
PRINT_MS = 90_000
PAGES = pytest.StashKey()
AXE = (ROOT / "web/node_modules/axe-core/axe.min.js").read_text()
# colors of an element on its way from one to another are no one's choice; no rule asked here
# needs the style sheets fetched a second time
LOOK = """async only => {
  const ends = (one) => one.effect.getComputedTiming().endTime < Infinity;
  await Promise.all(document.getAnimations().filter(ends).map((one) => one.finished.catch(() => 0)));
  await new Promise((on) => requestAnimationFrame(() => requestAnimationFrame(on)));
  return axe.run(document, {
    resultTypes: ["violations"], preload: false, ...(only ? { runOnly: [only] } : {}),
  });
}"""


@pytest.fixture(scope="session")
def base_url():
    """Return this worker's own server: no two workers meet at one motor."""
    urls = os.environ["EVENCOIL_WALKS"].split()
    worker = os.environ.get("PYTEST_XDIST_WORKER", "gw0")
    return urls[int(worker.removeprefix("gw")) % len(urls)]


@pytest.fixture(scope="session")
def browser_type_launch_args():
    """Debian's Chromium, quiet."""
    return {"executable_path": "/usr/bin/chromium", "args": FLAGS}


class Complaints:
    """Console errors, policy reports, failed requests and page errors of a context."""

    def __init__(self):
        self.said = []
        self.allowed = []

    def watch(self, page):
        """Listen to a page."""
        page.on("console", lambda note: note.type == "error" and self.said.append(note.text))
        page.on("pageerror", lambda error: self.said.append(str(error)))

    def left(self):
        """Return what was said and not allowed."""
        return [text for text in self.said if not any(part in text for part in self.allowed)]


@pytest.fixture
def complaints():
    """What pages complain of; anything left at the end fails the test."""
    heard = Complaints()
    yield heard
    assert heard.left() == []


def enter(page, base_url, username="ruth"):
    """Sign in at the screen."""
    page.goto(f"{base_url}/sign-in")
    page.get_by_label("Name").fill(username)
    page.get_by_label("Password").fill(WORD)
    page.get_by_role("button", name="Sign in").click()
    page.get_by_role("heading", level=1).filter(has_text="motors").wait_for()


@pytest.fixture(scope="session")
def sessions(browser, base_url):
    """One signed-in session for each person; signing in at the screen has browser tests of its own."""
    kept = {}

    def of(username):
        if username not in kept:
            context = browser.new_context(base_url=base_url)
            context.request.get("/sign-in")  # the page brings the token
            token = next(
                cookie["value"] for cookie in context.cookies() if cookie["name"] == "csrftoken"
            )
            answer = context.request.post(
                "/api/auth/browser/v1/auth/login",
                data={"username": username, "password": WORD},
                headers={"X-CSRFToken": token, "Referer": base_url},
            )
            assert answer.ok, answer.text()
            kept[username] = context.storage_state()
            context.close()
        return kept[username]

    return of


@pytest.hookimpl(wrapper=True)
def pytest_runtest_makereport(item, call):
    """Say beside a failure what its pages showed: a page is gone once its test ends."""
    report = yield
    if report.when == "call" and report.failed:
        for page in item.stash.get(PAGES, []):
            with contextlib.suppress(Exception):
                report.sections.append((f"page {page.url}", page.locator("body").inner_text()))
    return report


@pytest.fixture
def opened(request, browser, base_url, sessions, complaints):
    """Open a page of a seat, signed in."""
    contexts = []
    pages = request.node.stash.setdefault(PAGES, [])

    def of(path="", seat=DESK, username="ruth", **more):
        # what a device keeps is tested by itself: elsewhere a lost network is a lost network
        more = {"service_workers": "block", **more}
        context = browser.new_context(
            base_url=base_url, storage_state=sessions(username), **seat, **more
        )
        contexts.append(context)
        # a page that gets no processor for half a minute is not wrong
        context.set_default_timeout(PRINT_MS)
        page = context.new_page()
        complaints.watch(page)
        pages.append(page)
        if path:
            page.goto(path)
        return page

    yield of
    for context in contexts:
        context.close()


def violations(page, only=None):
    """Run axe on a page and return what it finds, in short; one rule only if wanted.

    It is run in the page's own world from outside, so the script policy stays.
    """
    if not page.evaluate("typeof axe !== 'undefined'"):
        page.evaluate(AXE)
    found = page.evaluate(LOOK, only)
    return [
        (item["id"], [node["html"][:120] for node in item["nodes"]]) for item in found["violations"]
    ]


def moved(page):
    """Return how far what was shown has moved by itself so far: the browser's own measure.

    A line that moves takes a tap with it. 0 is nothing; a tenth is felt.
    """
    return page.evaluate(
        """() => new Promise((answer) => {
          let sum = 0;
          const add = (list) => { for (const one of list.getEntries()) sum += one.value; };
          new PerformanceObserver(add).observe({ type: "layout-shift", buffered: true });
          setTimeout(() => answer(sum), 100);
        })"""
    )


def lock(page):
    """Put my lock on the line, if it is not."""
    if page.get_by_role("button", name="My lock is on").count():
        page.get_by_label("My lock's number").fill("14")
        page.get_by_role("button", name="My lock is on").click()
    page.get_by_role("button", name="My lock is off").wait_for()


def prove(page, volts="0.1"):
    """Prove every point with a meter that reads its live source."""
    here = page.get_by_test_id("prove")
    here.get_by_label("Meter", exact=True).fill("M-7")
    here.get_by_label("Volts of the live source").fill("120")
    here.get_by_role("button", name="Begin a round").click()
    here.get_by_label("Meter reads there, before").fill("119")
    here.get_by_role("button", name="Read").click()
    point = page.get_by_test_id("point")
    for place in range(1, 7):
        expect(point).to_contain_text(f"Point {place} of 6")
        point.get_by_label("V", exact=True).fill(volts)
        point.get_by_role("button", name="Read").click()
    here.get_by_label("Meter reads there again, after").fill("119")
    here.get_by_role("button", name="Read").click()
