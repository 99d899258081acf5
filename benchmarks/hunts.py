"""How well and how fast faults are found: hidden faults on ten circuits, right and wrong readings.

Call: ``.venv/bin/python benchmarks/hunts.py [trials]``. Figures stand in ``docs/benchmarks.md``.
"""

from __future__ import annotations

import random
import statistics
import sys
import time

from evencoil.solver import compile_plant
from evencoil.starters import draw
from evencoil.trouble import (
    Case,
    Field,
    Hunt,
    answer_at,
    faults_of,
    field_of,
    hunt,
    play,
    script_of,
)

CIRCUITS = ("1A", "3A", "4A", "6A", "6C", "8A", "11A", "12A", "14A", "15A")


def hunted(field: Field, row: int, rng: random.Random, wrong: float) -> tuple[Hunt, int, int]:
    """Hunt one hidden fault; return the end, what was measured or looked at, and the calls."""
    case, answers, calls = Case(symptom=rng.choice(sorted(field.shows[row]))), [], 0
    while True:
        stands = hunt(field, case, answers)
        calls += 1
        if stands.state != "hunting" or stands.offer is None or calls > 60:
            measured = sum(not one.reading.startswith("seen|") for one in answers)
            return stands, measured, calls
        liar = rng.randrange(len(field.faults)) if rng.random() < wrong else row
        answers.append(answer_at(field, field.faults[liar].id, stands.offer.reading.id))


def main(trials: int) -> None:
    """Print the figures."""
    circuit = draw("6C").circuit
    faults = [one for one in faults_of(circuit, with_work=False) if one.is_played]
    script, plant = script_of(circuit), compile_plant(circuit.netlist)
    sound = play(circuit, script, None, plant)
    begun = time.perf_counter()
    for one in faults:
        play(circuit, script, one, plant, sound)
    spent = time.perf_counter() - begun
    print(f"6C: {len(faults)} single faults played in {spent:.2f} s")
    for wrong in (0.0, 0.1):
        counts: list[int] = []
        ends = {"right": 0, "doubt": 0, "open": 0, "wrong": 0}
        slowest = 0.0
        for name in CIRCUITS:
            field = field_of(draw(name).circuit, with_work=False)
            rng = random.Random(f"{name} {wrong}")  # noqa: S311 - no secret
            able = [row for row, shows in enumerate(field.shows) if shows]
            for _ in range(trials):
                row = rng.choice(able)
                begun = time.perf_counter()
                stands, measured, calls = hunted(field, row, rng, wrong)
                slowest = max(slowest, (time.perf_counter() - begun) / calls)
                counts.append(measured)
                is_right = field.faults[row].id in {one.id for one in stands.groups[0].faults}
                if stands.state == "found":
                    ends["right" if is_right else "wrong"] += 1
                else:
                    ends["doubt" if stands.state == "doubt" else "open"] += 1
        print(
            f"{wrong:.0%} wrong readings: {ends}, median {statistics.median(counts)} readings, "
            f"slowest answer {1000 * slowest:.0f} ms"
        )


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else 100)
