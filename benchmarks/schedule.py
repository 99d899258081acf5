"""A schedule of 10,000 motors sized with evidence, in one process and without the database.

Usage: ``.venv/bin/python benchmarks/schedule.py``. A unit is a thousand additions.
"""

from __future__ import annotations

import random
import sys
import time
from pathlib import Path

sys.path[:0] = [str(Path(__file__).parents[1] / "core/src"), str(Path(__file__).parent)]

from designs import POWERS, SUPPLIES, additions, median_us

from evencoil.codebook.profile import Profile
from evencoil.plate.reader import read
from evencoil.plate.supply import judge, read_supply
from evencoil.sizing.branch_circuit import MotorCircuit, branch_circuit
from evencoil.sizing.inputs import SizeInputs

MOTORS = 10_000
KINDS = ("dual_element_fuse", "inverse_time_breaker", "nontime_delay_fuse")

if __name__ == "__main__":
    chosen, profile = random.Random(7), Profile()  # noqa: S311 - no secret
    cases = []
    for _ in range(MOTORS):
        plate_volts, system = chosen.choice(SUPPLIES)
        power, amps = chosen.choice(POWERS), chosen.randint(20, 2000) / 10
        supply = read_supply(system)
        reading = read(f"{power} HP {plate_volts} {amps} A 1765 RPM 60 HZ 3 PH SF 1.15 CODE G")
        size = SizeInputs(
            conductor_material="cu",
            insulation="THWN",
            termination_c=75,
            ambient_c=str(chosen.choice((30, 35, 40, 45))),
            current_carrying=chosen.choice((3, 6)),
            protection_kind=chosen.choice(KINDS),
        )
        cases.append(
            MotorCircuit(
                reading=reading,
                supply=supply,
                verdict=judge(reading.plate, supply),
                error=None,
                size=size,
                profile=profile,
            )
        )
    begun = time.perf_counter()
    figures = sum(len(branch_circuit(case)[1]) for case in cases)
    took = time.perf_counter() - begun
    units = took * 1e6 / median_us(additions)
    print(f"{MOTORS} motors, {figures} figures: {took:.2f} s, {units / MOTORS:.1f} units a motor")
