"""Running a motor up: how long each part takes, and in units of the interpreter.

Call: ``.venv/bin/python benchmarks/run_up.py``. A unit is a thousand additions.
"""

from __future__ import annotations

import statistics
import sys
import time
from collections.abc import Callable
from pathlib import Path
from tempfile import TemporaryDirectory

CLONE = Path(__file__).resolve().parents[1]
sys.path[:0] = [str(CLONE / "core" / "src"), str(CLONE / "core" / "tests")]

import simulator

from evencoil.job import JobInputs, run_up_of, work_out
from evencoil.leads import LeadsInputs
from evencoil.plate import PlateInputs, SupplyInputs
from evencoil.run_up import LoadInputs
from evencoil.run_up.starts import method_plan
from evencoil.solver.motor import (
    Load,
    MachineSpeed,
    Port,
    Step,
    WindingHeat,
    Wiring,
    machine_of,
    run_up,
    three_phase,
)
from evencoil.winding import winding_of

PLATE = "75 HP, 460 V, 86 A, 1780 RPM, 60 HZ, 3 PH, CODE G, DES B, EFF 95.4, INS F, 6 LEADS"
INPUTS = JobInputs(
    plate=PlateInputs(text=PLATE),
    supply=SupplyInputs(text="480Y/277", fault_current_a="20000"),
    leads=LeadsInputs(winding="6"),
    load=LoadInputs(kind="fan", inertia_lb_ft2="71.2", motor_inertia_lb_ft2="16.6"),
)


def unit_s() -> float:
    """Return how long a thousand additions take [s]."""
    begun = time.perf_counter()
    total = 0
    for number in range(1_000_000):
        total += number
    return (time.perf_counter() - begun) / 1000


def took(work: Callable[[], object], times: int) -> float:
    """Return the median time of some work [s]."""
    found = []
    for _ in range(times):
        begun = time.perf_counter()
        work()
        found.append(time.perf_counter() - begun)
    return statistics.median(found)


def against_the_simulator(unit: float) -> None:
    """Print how long a start at full voltage takes here and in an independent simulator."""
    circuit = run_up_of(INPUTS, work_out(INPUTS)).facts.fitted
    if circuit is None:
        return
    one = circuit.circuit
    motor = machine_of(
        winding_of("3-wye"),
        (MachineSpeed(field="one", circuit=one, factor=3**0.5),),
        inertia_kg_m2=0.7,
        friction_w=0.0,
        rated_rad_s=186.4,
        rated_nm=300.0,
    )
    port = Port(
        motor,
        Wiring(
            sources=three_phase(460, 20_000),
            joined=(("L1", "T1"), ("L2", "T2"), ("L3", "T3")),
        ),
    )
    load = Load(shape="quadratic", torque_nm=300.0, rated_rad_s=186.4, inertia_kg_m2=3.0)

    def here() -> object:
        return run_up(
            motor,
            [Step(0.0, "run", port, ())],
            load,
            relay=None,
            winding=WindingHeat((86.0,) * 3, 80.0, [0.0] * 3),
            limit_k=1e9,
            until_s=2.5,
        )

    with TemporaryDirectory() as folder:
        text = simulator.start_netlist(
            one,
            line_v=460,
            fault_a=20_000,
            inertia=3.7,
            load_nm=300.0,
            rated_rad_s=186.4,
            until_s=2.5,
            step_s=50e-6,
        )
        there_s = took(lambda: simulator.run(text, folder), 5)
    here_s = took(here, 9)
    print(f"{'start of 2.5 s, here':44} {here_s * 1e3:8.1f} ms {here_s / unit:8.0f} units")
    print(f"{'the same in the circuit simulator':44} {there_s * 1e3:8.1f} ms")
    print(f"{'ratio':44} {there_s / here_s:8.1f}")


if __name__ == "__main__":
    worked = work_out(INPUTS)
    ready = run_up_of(INPUTS, worked)
    facts, states = ready.facts, ready.states_of["wye_delta"]
    plan = method_plan(facts, "wye_delta", states)
    wiring_port = plan.states[0][1]
    steps = plan.steps(5.0)

    def star_delta(*, follows_flux: bool) -> object:
        """Run five seconds in star and three in delta."""
        coils = len(facts.machine.coils)
        return run_up(
            facts.machine,
            steps,
            facts.load,
            relay=None,
            winding=WindingHeat((50.0,) * coils, 80.0, [0.0] * coils),
            limit_k=115.0,
            until_s=8.0,
            follows_flux=follows_flux,
        )

    unit = unit_s()
    for name, work, times in (
        ("circuit fitted to a nameplate, with facts", lambda: run_up_of(INPUTS, worked), 15),
        ("new contact state", lambda: method_plan(facts, "full_voltage", states), 60),
        ("fields at one speed", lambda: wiring_port.fields(150.0), 400),
        ("star-delta, 5 s in star", lambda: star_delta(follows_flux=False), 15),
        ("the same with rotor flux", lambda: star_delta(follows_flux=True), 15),
        ("all ways to start compared", ready.sheet, 5),
        ("timer advice", lambda: ready.advice("wye_delta"), 5),
        ("all faults, running and before the start", ready.faults, 15),
    ):
        seconds = took(work, times)
        print(f"{name:45} {seconds * 1e3:9.3f} ms {seconds / unit:10.1f} units")
    if simulator.SIMULATOR.exists():
        against_the_simulator(unit)
