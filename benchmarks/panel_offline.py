"""The panel without network: opened cold, from a landing to the next wire, a hundred entries sent.

Call: ``.venv/bin/python benchmarks/panel_offline.py URL`` with a fresh demo. Lands the second
half of RC-7's wires with the network cut, fills the outbox to a hundred entries, and sends them.
Aims: cold under 1 s with 43 wires, landing under 100 ms at the median, a hundred under 2 s.
"""

from __future__ import annotations

import sys
import time
from pathlib import Path

from playwright.sync_api import sync_playwright

sys.path.insert(0, str(Path(__file__).resolve().parents[1] / "tools"))
from shots import DESK, FLAGS, sign_in

ENTRIES = 100
#: press the key of a page turner, and wait for the next wire to be drawn; all in the page [ms]
LAND = """async () => {
  const shown = () => document.querySelector('[data-testid=wire] p.font-mono')?.textContent;
  const took = [];
  for (let turn = 0; turn < 20; turn += 1) {
    const before = shown();
    if (!before) break;
    const begun = performance.now();
    window.dispatchEvent(new KeyboardEvent('keydown', { key: 'PageDown', bubbles: true }));
    while (shown() === before && performance.now() - begun < 3000)
      await new Promise((next) => requestAnimationFrame(next));
    took.push(performance.now() - begun);
  }
  return took.sort((one, other) => one - other);
}"""


def main(url: str) -> None:
    """Measure and print."""
    panel = f"{url}/w/larkfall/m/RC-7/j/1/panel"
    with sync_playwright() as play:
        browser = play.chromium.launch(executable_path="/usr/bin/chromium", args=FLAGS)
        context = browser.new_context(viewport=DESK)  # type: ignore[arg-type]  # a plain mapping
        page = context.new_page()
        sign_in(page, url, "marta")
        for _ in range(2):
            page.goto(panel)
            page.get_by_test_id("wire").wait_for()
            page.wait_for_timeout(2500)
        context.set_offline(True)
        begun = time.perf_counter()
        page.goto(panel)
        page.get_by_test_id("wire").wait_for()
        cold = time.perf_counter() - begun
        took = page.evaluate(LAND)
        made = len(took)
        page.get_by_role("button", name="Trips").click()
        while made < ENTRIES:
            page.get_by_label("Heater code or setting as seen").first.fill(f"H{made}")
            page.get_by_role("button", name="Note it").first.click()
            made += 1
            page.get_by_text(f"{made} on this device only").wait_for()
        context.set_offline(False)
        begun = time.perf_counter()
        page.get_by_test_id("outbox").wait_for(state="detached", timeout=60_000)
        sent = time.perf_counter() - begun
        browser.close()
    print(
        f"cold {cold:.2f} s; landing to the next wire, median {took[len(took) // 2]:.0f} ms, "
        f"worst {took[-1]:.0f} ms of {len(took)}; {made} entries sent in {sent:.2f} s"
    )


if __name__ == "__main__":
    main(sys.argv[1].rstrip("/"))
