"""How many branch circuits are designed a second, evidence and all, in one process.

Call: ``.venv/bin/python benchmarks/designs.py``. Motors of 1 to 200 hp at three
voltages are read and judged beforehand; what is timed is every figure of the
Size sheet with its evidence. Beside it stand the reading of one plate and a
whole job from text. The unit is a loop of a thousand additions of the same
interpreter, so that the ratio holds on any machine.
"""

from __future__ import annotations

import statistics
import time
from collections.abc import Callable
from itertools import cycle

from evencoil.codebook.profile import Profile
from evencoil.job.inputs import JobInputs
from evencoil.job.work_out import work_out
from evencoil.plate.inputs import PlateInputs, SupplyInputs
from evencoil.plate.reader import read
from evencoil.plate.supply import judge, read_supply
from evencoil.sizing.branch_circuit import MotorCircuit, branch_circuit
from evencoil.sizing.inputs import SizeInputs

TEXT = (
    "15 HP, 230/460 V, 38.6/19.3 A, 1765 RPM, 60 HZ, 3 PH, SF 1.15, CODE G, DES B, "
    "40 C AMB, 9 LEADS"
)
PLATE, SUPPLY = PlateInputs(text=TEXT), SupplyInputs(text="480Y/277")
SIZE = SizeInputs(conductor_material="cu")
POWERS = (1, 2, 3, 5, 10, 15, 20, 25, 30, 40, 50, 60, 75, 100, 125, 150, 200)
SUPPLIES = (("200 V", "208Y/120"), ("230 V", "240 delta"), ("460 V", "480Y/277"))


def median_us(work: Callable[[], object], times: int = 2000) -> float:
    """Return the median time of a piece of work [us]."""
    took = []
    for _ in range(times):
        begun = time.perf_counter_ns()
        work()
        took.append(time.perf_counter_ns() - begun)
    return statistics.median(took) / 1000


def additions() -> int:
    """Add a thousand numbers: the unit of the ratios."""
    total = 0
    for number in range(1000):
        total += number
    return total


if __name__ == "__main__":
    profile, cases = Profile(), []
    for plate_volts, system in SUPPLIES:
        supply = read_supply(system)
        for power in POWERS:
            reading = read(f"{power} HP {plate_volts} 1765 RPM 60 HZ 3 PH SF 1.15 CODE G DES B")
            cases.append(
                MotorCircuit(
                    reading=reading,
                    supply=supply,
                    verdict=judge(reading.plate, supply),
                    error=None,
                    size=SIZE,
                    profile=profile,
                )
            )
    turn = cycle(cases)
    unit = median_us(additions)
    for name, work in (
        ("branch circuit with evidence", lambda: branch_circuit(next(turn))),
        ("plate read", lambda: read(TEXT)),
        ("whole job from text", lambda: work_out(JobInputs(plate=PLATE, supply=SUPPLY, size=SIZE))),
    ):
        took = median_us(work)
        print(f"{name}: {took:.0f} us, {1e6 / took:.0f} a second, {took / unit:.1f} units")
