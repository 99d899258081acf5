"""How long the server takes from an act to its answer, at the 95th percentile.

Call: ``.venv/bin/python benchmarks/rehearse_http.py URL`` with a running demo.
Presses START and STOP of IC-2's starter in turn through the same request that
the Rehearse screen sends, and reads the time at the client, network on one
machine included; the aim is 30 ms.
"""

from __future__ import annotations

import sys
from pathlib import Path

from playwright.sync_api import sync_playwright

sys.path.insert(0, str(Path(__file__).resolve().parents[1] / "tools"))
from shots import FLAGS, sign_in

TURNS = 200
ACTS = """async ([url, body, headers, turns]) => {
  const took = [];
  const play = async (more) => {
    const sent = { method: 'POST', headers, body: JSON.stringify({ ...body, ...more }) };
    const begun = performance.now();
    const answer = await (await fetch(url, sent)).json();
    if (!answer.frames) throw new Error(JSON.stringify(answer));
    took.push(performance.now() - begun);
    return answer;
  };
  let answer = await play({});
  for (let turn = 0; turn < turns; turn += 1) {
    // one second on, from the last full frame before it, as the screen does
    const t = answer.start + 1000000;
    const from = answer.frames.filter((one) => one.snapshot !== null && one.t <= t).at(-1);
    const actions = [{ t, do: 'press', on: turn % 2 ? 'S1' : 'S2' }];
    answer = await play({ snapshot: answer.snapshots[from.snapshot], actions });
  }
  return took.slice(1).sort((a, b) => a - b);
}"""

if __name__ == "__main__":
    url = sys.argv[1].rstrip("/")
    with sync_playwright() as play:
        browser = play.chromium.launch(executable_path="/usr/bin/chromium", args=FLAGS)
        page = browser.new_page()
        sign_in(page, url)
        with page.expect_request("**/api/w/*/rehearse") as first:
            page.goto(f"{url}/w/larkfall/m/IC-2/j/1/rehearse")
        request = first.value
        kept = ("content-type", "x-csrftoken")
        headers = {name: text for name, text in request.all_headers().items() if name in kept}
        took = page.evaluate(ACTS, [request.url, request.post_data_json, headers, TURNS])
        browser.close()
    print(
        f"median {took[TURNS // 2]:.1f} ms, p95 {took[TURNS * 95 // 100]:.1f} ms, "
        f"worst {took[-1]:.1f} ms of {TURNS} acts"
    )
