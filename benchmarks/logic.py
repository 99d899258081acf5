"""The programmable relay: a scan, a minute with its circuit, proofs, a key in the text.

    benchmarks/logic.py [--proofs]

Goals: a scan of 100 rungs under 0.1 ms; 60 s of a 50-rung program with its circuit under 1 s, also
of one that never rests; proofs of 13C and 13D to their end under 60 s; a text read within 50 ms.
"""

from __future__ import annotations

import sys
import time
from collections.abc import Callable
from dataclasses import replace

from evencoil.checks import prove
from evencoil.circuit import Netlist, device
from evencoil.logic import Machine, read_program, rungs_of
from evencoil.solver import Action, Run, compile_plant
from evencoil.starters import catalogue

SECOND = 1_000_000


def rungs(count: int) -> str:
    """Return the text of some seal-in circuits."""
    return "".join(
        f"%MX{n // 8}.{n % 8} := (I1 OR %MX{n // 8}.{n % 8}) AND NOT I2 AND I3;\n"
        for n in range(count)
    )


def timed(work: Callable[[], object], times: int = 1) -> float:
    """Return the seconds that one turn takes."""
    since = time.perf_counter()
    for _ in range(times):
        work()
    return (time.perf_counter() - since) / times


def programmed(name: str, more: str, declared: str = "") -> Netlist:
    """Return a circuit with a longer program."""
    netlist = catalogue()[name].circuit.netlist
    devices = []
    for item in netlist.devices:
        if item.type != "plc":
            devices.append(item)
            continue
        text = item.parameters["program"].replace("END_VAR", f"{declared} END_VAR", 1) + more
        devices.append(device(item.type, item.id, {**item.parameters, "program": text}))
    return replace(netlist, devices=tuple(devices))


def minute(netlist: Netlist) -> float:
    """Return how long a minute takes, the starter started after a second."""
    run = Run(compile_plant(netlist))

    def played() -> None:
        run.act(Action(0, "close", "breaker"))
        run.act(Action(SECOND, "press", "start"))
        run.act(Action(SECOND * 6 // 5, "release", "start"))
        run.advance(60 * SECOND)

    return timed(played)


def main() -> None:
    """Print every figure beside its goal."""
    machine = Machine(read_program(rungs(100)))
    machine.give("I1", value=True)
    print(f"scan of 100 rungs: {timed(lambda: machine.scan(0), 2000) * 1e6:.1f} us (aim 100)")
    text = rungs(100)
    read_s = timed(lambda: rungs_of(read_program(text)), 20)
    print(f"100 rungs read and drawn: {read_s * 1e3:.1f} ms (aim 50)")
    print(f"60 s of 50 rungs: {minute(programmed('13B', rungs(45))):.2f} s (aim 1)")
    restless = programmed("13B", rungs(44) + "N := (N + 1) MOD 1000;\n", "N : INT;")
    print(f"60 s of 50 rungs that never rest: {minute(restless):.2f} s (aim 1)")
    if "--proofs" not in sys.argv:
        return
    for name in ("13C", "13D"):
        since = time.perf_counter()
        proof = prove(catalogue()[name].circuit)
        took = time.perf_counter() - since
        said = "to its end" if proof.is_exhausted else "cut off"
        print(f"{name}: {proof.states} states, {proof.transitions} acts, {said}, {took:.0f} s (60)")


if __name__ == "__main__":
    main()
