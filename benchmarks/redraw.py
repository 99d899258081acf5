"""How long from a change in place to the redrawn figure, in a real browser.

Call: ``.venv/bin/python benchmarks/redraw.py URL`` with a running demo. Prints
the median, the 95th percentile and the worst of 101 changes in milliseconds, and the
median change as a ratio to a request that calculates nothing; the aim is 100 at the
95th percentile on a quiet machine.
"""

from __future__ import annotations

import sys
from pathlib import Path

from playwright.sync_api import sync_playwright

sys.path.insert(0, str(Path(__file__).resolve().parents[1] / "tools"))
from shots import FLAGS, sign_in

CHANGES = """async () => {
  // the rating itself, and the one it was before
  const sizes = () => document.querySelector('[data-testid=slip-protection_device_a]')
    .textContent.match(/\\d+ A/g).join();
  const kind = () => document.querySelector('[data-testid=slip-protection_device_a] select');
  const choose = (name) => {
    const option = [...kind().options].find((item) => item.textContent === name);
    Object.getOwnPropertyDescriptor(HTMLSelectElement.prototype, 'value')
      .set.call(kind(), option.value);
    kind().dispatchEvent(new Event('change', { bubbles: true }));
  };
  const times = [];
  for (let turn = 0; turn < 101; turn += 1) {
    const before = sizes();
    const begun = performance.now();
    choose(kind().selectedOptions[0].textContent === 'Dual-element fuse'
      ? 'Inverse-time breaker' : 'Dual-element fuse');
    while (sizes() === before) {
      await new Promise((go) => setTimeout(go, 1));
      if (performance.now() - begun > 5000) throw new Error('no change');
    }
    times.push(performance.now() - begun);
    await new Promise((go) => setTimeout(go, 300));
  }
  return times.sort((a, b) => a - b);
}"""

NOTHING = """async () => {
  const times = [];
  for (let turn = 0; turn < 41; turn += 1) {
    const begun = performance.now();
    await (await fetch('/api/session')).json();
    times.push(performance.now() - begun);
    await new Promise((go) => setTimeout(go, 100));
  }
  return times.sort((a, b) => a - b)[20];
}"""

if __name__ == "__main__":
    url = sys.argv[1].rstrip("/")
    with sync_playwright() as play:
        browser = play.chromium.launch(executable_path="/usr/bin/chromium", args=FLAGS)
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        sign_in(page, url)
        page.goto(f"{url}/w/larkfall/m/IC-2/j/1/size")
        page.get_by_test_id("slip-protection_device_a").wait_for()
        nothing = page.evaluate(NOTHING)
        times = page.evaluate(CHANGES)
        page.wait_for_timeout(1500)
        browser.close()
    print(
        f"median {times[50]:.0f} ms, 95 % under {times[95]:.0f} ms, worst {times[-1]:.0f} ms"
        f" of {len(times)} changes; {times[50] / nothing:.1f} times a request of {nothing:.1f} ms"
    )
