"""What a new contact state and one action with its settling cost, in the core.

Call: ``.venv/bin/python benchmarks/rehearsal.py``. For every circuit of the
catalogue: one solve of the whole network with a changed contact (aim 1 ms), and
one act with 0.3 s of what follows from it, frames and snapshots included (aim
15 ms). Printed are the median circuit and the dearest one.
"""

from __future__ import annotations

import statistics
import time
from collections.abc import Callable

from evencoil.rehearsal.stage import ScenarioAct, Stage
from evencoil.starters.catalogue import catalogue

TIMES = 15
SETTLING_US = 300_000


def median_ms(work: Callable[[], object]) -> float:
    """Return the median time of a piece of work [ms]."""
    took = []
    for _ in range(TIMES):
        begun = time.perf_counter_ns()
        work()
        took.append(time.perf_counter_ns() - begun)
    return statistics.median(took) / 1e6


def one_state(stage: Stage) -> float:
    """Return what solving a changed contact state costs [ms]."""
    run = stage.opening()
    branches = range(len(run.admittance))
    turn = iter(range(10**6))

    def solve() -> None:
        branch = next(turn) % len(branches)
        run.admittance[branch] += 1e-9
        run.plant.solve(run.admittance, run.feeds, run.grounded)

    return median_ms(solve)


def one_act(stage: Stage) -> float:
    """Return what the dearest act on the circuit costs [ms], no state solved before."""
    last = stage.play([], until_us=3_000_000).snapshots[-1]
    until, worst = 3_000_000 + SETTLING_US, 0.0
    for device in stage.circuit.netlist.devices:
        for verb in ("press", "push", "trip"):
            act = ScenarioAct(at_us=3_000_000, do=verb, on=stage.circuit.tags[device.id])
            try:
                stage.play([act], until_us=until, snapshot=last)
            except ValueError:
                continue
            fresh = iter([Stage(stage.circuit) for _ in range(TIMES)])
            worst = max(
                worst,
                median_ms(
                    lambda act=act, fresh=fresh: next(fresh).play(
                        [act], until_us=until, snapshot=last
                    )
                ),
            )
    return worst


if __name__ == "__main__":
    states, acts = {}, {}
    for name, entry in catalogue().items():
        stage = Stage(entry.circuit)
        states[name], acts[name] = one_state(stage), one_act(stage)
    for label, found in (("new contact state", states), ("act with 0.3 s", acts)):
        dearest = max(found, key=lambda name: found[name])
        print(
            f"{label}: median {statistics.median(found.values()):.2f} ms, "
            f"dearest {found[dearest]:.2f} ms ({dearest})"
        )
