"""Take the pictures of ``docs/screenshots`` from a running demo.

Call: ``.venv/bin/python tools/shots.py URL [name ...]``. Each picture is one
main view, made from the demo data.
"""

from __future__ import annotations

import sys
from pathlib import Path

from playwright.sync_api import Browser, Page, sync_playwright

OUT = Path(__file__).resolve().parents[1] / "docs" / "screenshots"
FLAGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
]
DESK, PHONE = {"width": 1280, "height": 800}, {"width": 390, "height": 844}
JOB = "/w/larkfall/m/IC-2/j/1"
VIEWS: dict[str, tuple[str, dict[str, int], str]] = {
    "yard": ("/w/larkfall", DESK, "light"),
    "plate": (f"{JOB}/plate", DESK, "light"),
    "plate-phone": (f"{JOB}/plate", PHONE, "dark"),
    "size": (f"{JOB}/size#conductor_size", DESK, "light"),
    "size-dark": ("/w/larkfall/m/BM-3/j/1/size#conductor_size", DESK, "dark"),
    "size-phone": (f"{JOB}/size", PHONE, "light"),
    "leads": (f"{JOB}/leads", DESK, "light"),
    "leads-phone": (f"{JOB}/leads", PHONE, "light"),
    "joints": (f"{JOB}/joints", DESK, "light"),
    "identify": ("/w/larkfall/m/SF-5/j/1/bench", DESK, "light"),
    "convert": ("/w/larkfall/convert/Lime%20Line%201", DESK, "light"),
    "feeder": ("/w/larkfall/feeder/Lime%20Line%201", DESK, "light"),
    "size-time": ("/w/larkfall/m/JC-1/j/1/size?part=time", DESK, "light"),
    "starter": (f"{JOB}/starter", DESK, "light"),
    "drawings": (f"{JOB}/drawings", DESK, "light"),
    "checks": ("/w/larkfall/m/SF-5/j/1/drawings", DESK, "light"),
    "check": ("/w/larkfall/m/SF-5/j/1/check", DESK, "light"),
    "rehearse": ("/w/larkfall/m/WP-9/j/1/rehearse", DESK, "dark"),
    "trouble": ("/w/larkfall/m/SF-5/j/1/trouble", DESK, "light"),
    "practice": ("/w/larkfall/practice", DESK, "light"),
    "audit": ("/w/larkfall-plant/audit", DESK, "light"),
    "hazard": ("/w/larkfall/m/SF-5/j/1/rehearse", DESK, "light"),
    "rehearse-phone": (f"{JOB}/rehearse", PHONE, "light"),
    "run-up": ("/w/larkfall/m/JC-1/j/1/run-up", DESK, "light"),
    "run-up-lost": ("/w/larkfall/m/JC-1/j/1/run-up", DESK, "light"),
    "panel": ("/w/larkfall/m/RC-7/j/1/panel", DESK, "light"),
    "lock": ("/w/larkfall/m/RC-7/j/1/panel?do=lock", PHONE, "dark"),
    "energize": ("/w/larkfall/m/DF-8/j/1/panel?do=energize", DESK, "light"),
    "sign": ("/w/larkfall/m/DF-8/j/1/panel?do=sign", DESK, "light"),
    "refusal": ("/w/larkfall/m/LS-4/j/1/plate", DESK, "light"),
    "sign-in": ("/sign-in", DESK, "light"),
}

PRESSED: dict[str, tuple[str, ...]] = {
    "rehearse": ("b", "x", "x", "x", "a 300"),
    "rehearse-phone": ("b", "t 300", "a 300"),
    "hazard": ("b", "f 300", "r 600"),
}


#: who is at a panel is an electrician, and who signs a reviewer
WHO = {"panel": "marta", "lock": "marta", "energize": "marta", "sign": "ruth"}


def prepare(page: Page, name: str) -> None:
    """Bring a view to where it shows what it is for."""
    if name == "run-up":
        page.get_by_test_id("timer").wait_for()
    if name == "run-up-lost":
        page.get_by_test_id("timer").wait_for()
        page.get_by_test_id("lost-phase").wait_for()
        # the timer's advice with what a lost line does below it
        page.evaluate("document.querySelector('[data-testid=timer]').scrollIntoView()")
        page.evaluate("window.scrollBy(0, -70)")
        page.wait_for_timeout(500)
    if name == "identify":
        page.get_by_text("Practise on a mystery motor").click()
        page.get_by_role("button", name="9-delta").click()
        for _ in range(11):
            page.get_by_role("button", name="Let the motor answer").click()
            page.wait_for_timeout(600)
        page.get_by_text("Practise on a mystery motor").click()
        page.evaluate("window.scrollTo(0, 0)")
    elif name == "convert":
        page.get_by_label("Present supply").fill("240 delta")
        page.get_by_role("button", name="480Y/277").click()
        page.wait_for_timeout(900)
    elif name == "checks":
        page.get_by_role("button", name="Checks", exact=True).click()
        page.get_by_test_id("proof-weld").get_by_text("proven").wait_for()
    elif name == "energize":
        page.get_by_role("button", name="4 Run loaded").click()
        page.wait_for_timeout(600)
    elif name == "joints":
        page.get_by_label("Measured volume").fill("41")
        page.wait_for_timeout(600)


def look_for(page: Page, name: str) -> None:
    """Bring fault finding and practice to where they say something."""
    if name == "trouble":
        page.get_by_role("button", name="one direction dead").first.click()
        page.get_by_role("button", name="Find it").click()
        page.get_by_test_id("still").wait_for()
        page.get_by_role("button", name="stays out").click()
        page.get_by_test_id("taken").wait_for()
        page.wait_for_timeout(900)
    elif name == "audit":
        begin = page.get_by_role("button", name="Audit the plant")
        if begin.count():
            begin.click()
        page.get_by_test_id("lines").wait_for(timeout=120_000)
        page.wait_for_timeout(600)
    elif name == "practice":
        page.get_by_label("A question about").select_option("protection")
        page.get_by_role("heading", level=1).filter(has_text="ground-fault device").wait_for()
        page.get_by_label("Your answer").fill("1")
        page.get_by_role("button", name="Answer").click()
        page.get_by_test_id("verdict").wait_for()


def press(page: Page, keys: tuple[str, ...]) -> None:
    """Press keys of the panel, each held for the milliseconds that stand behind it."""
    for said in keys:
        key, _, held = said.partition(" ")
        page.keyboard.press(key, delay=int(held or 60))
        page.wait_for_timeout(1200)


def sign_in(page: Page, url: str, who: str = "dov") -> None:
    """Sign in as a demo person: who is to work at a panel is an electrician."""
    page.goto(f"{url}/sign-in")
    page.get_by_label("Name").fill(who)
    page.get_by_label("Password").fill("kiln-two-runs-hot")
    page.get_by_role("button", name="Sign in").click()
    page.get_by_role("heading", level=1).filter(has_text="motors").wait_for()


def shoot(browser: Browser, url: str, names: list[str], out: Path) -> None:
    """Take the named pictures; a name that is none of them stops before any is taken."""
    unknown = [name for name in names if name not in VIEWS]
    if unknown:
        sys.exit(f"no view {', '.join(unknown)}; views: {' '.join(VIEWS)}")
    out.mkdir(parents=True, exist_ok=True)
    context = browser.new_context()
    sign_in(context.new_page(), url)
    state = context.storage_state()
    for name in names or VIEWS:
        path, size, lamp = VIEWS[name]
        view = browser.new_context(
            viewport=size,  # type: ignore[arg-type]  # literal words of Playwright
            storage_state=None if name == "sign-in" else state,
            color_scheme=lamp,  # type: ignore[arg-type]  # literal words of Playwright
            has_touch=size is PHONE,
        )
        page = view.new_page()
        if name in WHO:
            view.clear_cookies()
            sign_in(page, url, WHO[name])
        page.goto(url + path)
        page.get_by_role("heading", level=1).wait_for()
        page.wait_for_timeout(1000)
        prepare(page, name)
        look_for(page, name)
        press(page, PRESSED.get(name, ()))
        page.screenshot(path=out / f"{name}.png")
        view.close()


if __name__ == "__main__":
    with sync_playwright() as play:
        with_flags = play.chromium.launch(executable_path="/usr/bin/chromium", args=FLAGS)
        shoot(with_flags, sys.argv[1].rstrip("/"), sys.argv[2:], OUT)
        with_flags.close()
