"""How many motors are worked out a second, evidence and all, in one process.

Call: ``.venv/bin/python benchmarks/designs.py``. The reference is the time of
reading the plate's text alone, so the ratio holds on any machine.
"""

from __future__ import annotations

import time
from collections.abc import Callable

from evencoil.inputs import PlateInputs, SizeInputs, SupplyInputs
from evencoil.nameplate import read
from evencoil.work import work_out

TEXT = (
    "15 HP, 230/460 V, 38.6/19.3 A, 1765 RPM, 60 HZ, 3 PH, SF 1.15, CODE G, DES B, "
    "40 C AMB, 9 LEADS"
)
PLATE, SUPPLY = PlateInputs(text=TEXT), SupplyInputs(text="480Y/277")
SIZE = SizeInputs(conductor_material="cu")


def rate(work: Callable[[], object]) -> float:
    """Return how often a second a piece of work is done."""
    work()
    begun, count = time.perf_counter(), 0
    while time.perf_counter() - begun < 2:
        work()
        count += 1
    return count / (time.perf_counter() - begun)


if __name__ == "__main__":
    reads = rate(lambda: read(TEXT))
    whole = rate(lambda: work_out(PLATE, SUPPLY, SIZE))
    print(f"plates read: {reads:.0f} a second; whole jobs: {whole:.0f} a second")
    print(f"ratio of a whole job to its plate's reading: {reads / whole:.2f}")
