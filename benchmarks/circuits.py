"""Circuits: drawn, checked, proven, measured; every figure beside a thousand additions.

Run: python benchmarks/circuits.py
Aims: standard circuit to drawing 100 ms, checks on screen 100 ms, 1,000 transitions a second,
the reversing starter with every weld 10 s, a dead-check table 1 s.
"""

from __future__ import annotations

import statistics
import sys
import time
from collections.abc import Callable
from pathlib import Path

sys.path.insert(0, str(Path(__file__).resolve().parents[1] / "core" / "src"))

from evencoil.checks.check import check_circuit
from evencoil.checks.dead.plan import dead_checks
from evencoil.checks.proofs import prove
from evencoil.circuit.numbering import number_nets
from evencoil.drawing.ladder import draw_ladder
from evencoil.drawing.panel import draw_panel, draw_strip
from evencoil.drawing.power import draw_power
from evencoil.starters.standard_circuit import draw


def timed(work: Callable[[], object], times: int = 3) -> float:
    """Return the median of a few runs in milliseconds."""
    found = []
    for _ in range(times):
        begun = time.perf_counter()
        work()
        found.append((time.perf_counter() - begun) * 1000)
    return statistics.median(found)


def unit() -> float:
    """Return the time of a thousand additions in milliseconds: what this machine does now."""
    return timed(lambda: sum(range(1000)) + sum(range(1000)), 50)


def drawn(name: str) -> None:
    """Draw a standard circuit from its name to its four sheets."""
    circuit = draw(name).circuit
    numbered = number_nets(circuit)
    for sheet in (draw_ladder, draw_power, draw_panel, draw_strip):
        sheet(circuit, numbered)


def main() -> None:
    """Print a table: what, milliseconds, in units."""
    one = unit()
    print(f"unit {one * 1000:.0f} us")
    for name in ("3A", "6C", "7A", "16A"):
        circuit = draw(name).circuit
        for what, work in (
            ("drawn", lambda name=name: drawn(name)),
            ("graph checks", lambda circuit=circuit: check_circuit(circuit, is_played=False)),
            ("all checks", lambda circuit=circuit: check_circuit(circuit)),
            ("dead checks", lambda circuit=circuit: dead_checks(circuit)),
        ):
            took = timed(work)
            print(f"{name:4} {what:14} {took:8.1f} ms {took / one:9.0f} units")
    for name in ("6A", "6C", "7A", "8A"):
        circuit = draw(name).circuit
        for kind in ("hands", "weld"):
            begun = time.perf_counter()
            found = prove(circuit, kind)
            took = time.perf_counter() - begun
            print(
                f"{name:4} proof {kind:8} {took:6.2f} s, {found.transitions} transitions, "
                f"{found.transitions / took:6.0f} a second"
            )


if __name__ == "__main__":
    main()
