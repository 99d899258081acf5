"""A plant of 10,000 motors with a starter each, audited with one process and with two.

Usage: ``.venv/bin/python benchmarks/audit.py [MOTORS]``. A unit is a thousand additions.
The plant is that of ``manage.py plant``: what is wrong in it is wrong by rule, and counted.
"""

from __future__ import annotations

import resource
import sys
import time
from concurrent.futures import ProcessPoolExecutor
from pathlib import Path

ROOT = Path(__file__).parents[1]
sys.path[:0] = [str(ROOT / "core/src"), str(ROOT / "server"), str(Path(__file__).parent)]

from designs import additions, median_us

from demo.plant import PlantMotor, plant_motors
from evencoil.audit import Place, PlayedOnce, Tally, audit_job
from evencoil.codebook import Profile
from evencoil.job import JobInputs, work_out

PART = 20


def part(motors: list[PlantMotor]) -> tuple[Tally, int, int]:
    """Audit some motors and return their counts, and how many circuits were played for them."""
    tally = Tally()
    before = ONCE.played
    wrong = 0
    for motor in motors:
        inputs = JobInputs.model_validate(
            {
                "plate": {"text": motor.plate},
                "supply": motor.supply,
                "leads": motor.leads,
                "size": motor.size,
                "starter": motor.starter,
            }
        )
        found = audit_job(inputs, work_out(inputs, Profile()), problems_of=ONCE)
        tally.add(Place(job=motor.tag, tag=motor.tag, machine=motor.machine), found)
        wrong += bool(motor.wrong) and motor.wrong != "not_recorded"
    return tally, ONCE.played - before, wrong


ONCE = PlayedOnce()

if __name__ == "__main__":
    count = int(sys.argv[1]) if len(sys.argv) > 1 else 10_000
    motors = list(plant_motors(count))
    parts = [motors[at : at + PART] for at in range(0, count, PART)]
    unit = median_us(additions)
    for processes in (2, 1):
        begun = time.perf_counter()
        whole, played, wrong = Tally(), 0, 0
        if processes == 1:
            results = map(part, parts)
        else:
            with ProcessPoolExecutor(processes) as pool:
                results = iter(list(pool.map(part, parts)))
        for tally, circuits, bad in results:
            whole.merge(tally)
            played, wrong = played + circuits, wrong + bad
        took = time.perf_counter() - begun
        kib = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss
        print(
            f"{count} motors, {processes} processes: {took:.1f} s,"
            f" {took * 1e6 / unit / count:.0f} units a motor, {played} circuits played,"
            f" {whole.jobs['fails']} fail of {wrong} wrong by rule, {kib / 1024:.0f} MB"
        )
