"""Thousands of mystery motors numbered, every one held against the truth.

Call: ``.venv/bin/python benchmarks/unmarked.py [motors of each kind]``. Prints,
per kind, wrong numberings (none is allowed), readings taken (mean and most) and
the longest choice of a next reading as a ratio to one contact state of the
rehearsal (see ``benchmarks/rehearsal.py``) and in milliseconds.
"""

from __future__ import annotations

import statistics
import sys
import time
from pathlib import Path

sys.path.insert(0, str(Path(__file__).resolve().parents[1] / "core" / "tests"))

from test_unmarked import KINDS_HERE, OTHER_TRIAD, works  # the same check as in the tests

from evencoil.leads.identify.bench import PracticeBench
from evencoil.leads.identify.guide import guide
from evencoil.leads.identify.readings import Touch, Volts
from evencoil.winding.coils import KINDS


def number(kind: str, seed: int) -> tuple[bool, int, float]:
    """Return whether one motor was numbered right, readings taken, longest choice [s]."""
    motor, readings, longest = PracticeBench(kind, seed), [], 0.0  # type: ignore[arg-type]  # one of the kinds
    while True:
        begun = time.perf_counter()
        told = guide(motor.lead_letters, readings)
        longest = max(longest, time.perf_counter() - begun)
        if told.ask is None or len(readings) > 80:
            break
        ask = told.ask
        if ask.what == "touch":
            ohms = motor.ohms(ask.pair)
            readings.append(Touch(ask.pair, ohms is not None, ohms))
        else:
            shown = motor.volts(ask.feed, 10.0, ask.joined, ask.pair)
            readings.append(Volts(ask.feed, 10.0, ask.joined, ask.pair, shown))
    if told.stage != "done":
        return False, len(readings), longest
    numbers = dict(told.numbers)
    other = {letter: OTHER_TRIAD.get(lead, lead) for letter, lead in numbers.items()}
    is_ring = kind in {"2-speed-ct", "2-speed-cp"}
    return works(motor, numbers) or (is_ring and works(motor, other)), len(readings), longest


def main(count: int) -> None:
    """Print the figures for so many motors of each kind."""
    for kind in KINDS_HERE:
        found = [number(kind, seed) for seed in range(count)]
        wrong = sum(not right for right, _, _ in found)
        taken = [readings for _, readings, _ in found]
        slow = statistics.quantiles([longest for _, _, longest in found], n=20)[-1]
        print(
            f"{kind:18} {count} motors of {len(KINDS[kind].leads)} leads: {wrong} wrong, "
            f"{statistics.mean(taken):.1f} readings on average, {max(taken)} at most, "
            f"longest choice p95 {slow * 1000:.0f} ms"
        )


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else 300)
