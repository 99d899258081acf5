"""Held against an independent circuit simulator, solved anew: random wirings, and a start.

Marked ``simulator``: the simulator is a Debian package that `./check` installs.
"""

import random
from math import pi

import pytest
import simulator

from evencoil.solver.motor import (
    Circuit,
    Load,
    MachineSpeed,
    Port,
    WindingHeat,
    Wiring,
    machine_of,
    run_up,
    three_phase,
)
from evencoil.solver.motor.run import Step
from evencoil.winding import LINES, winding_of

from .reference import machine, reference

pytestmark = pytest.mark.simulator


def circuit():
    """Return the reference's circuit of a 75 hp motor."""
    told = reference()["circuit_75hp"]
    return Circuit(
        r1=told["R1"],
        x1=told["X1"],
        xm=told["Xm"],
        rfe=told["Rfe"],
        xc=told["Xc"],
        ri=told["Ri"],
        xi=told["Xi"],
        ro=told["Ro"],
        line_v=460.0,
        hz=60.0,
        pole_pairs=2,
    )


def random_joints(rng, leads):
    """Return which node every lead is on: lines, joints of a few leads, and loose ends."""
    found = {}
    for lead in leads:
        kind = rng.random()
        if kind < 0.5:
            found[lead] = rng.choice(LINES)
        elif kind < 0.9:
            found[lead] = f"joint{rng.randrange(3)}"
        else:
            found[lead] = f"loose_{lead}"
    return found


@pytest.mark.parametrize("name", ["nine_wye", "nine_delta", "six", "twelve", "two_ct", "two_vt"])
@pytest.mark.parametrize("seed", [1, 2, 3])
def test_random_wirings_agree_with_the_simulator(name, seed, tmp_path):
    """Right or wrong, at rest or turning: every line and coil current to a millionth."""
    rng = random.Random(f"{name} {seed}")
    motor = machine(name)
    ends = {end for coil in motor.coils for end in (coil.start, coil.end)}
    inner = {end for end in ends if end.startswith("S")}
    joined = random_joints(rng, sorted(ends - inner)) | {end: f"star_{end}" for end in inner}
    speed = rng.choice([0.0, 60.0, 150.0, -100.0])
    lines = {line: (line, volts, behind) for line, volts, behind in three_phase(460, 20_000)}
    text = simulator.static_netlist(
        motor, joined, lines, lambda gap: 1 - gap.pole_pairs * speed / motor.field_rad_s
    )
    told = simulator.printed(simulator.run(text, tmp_path))
    groups = {}
    for lead, node in joined.items():
        groups.setdefault(node, [node]).append(lead)
    port = Port(
        motor,
        Wiring(sources=three_phase(460, 20_000), joined=tuple(map(tuple, groups.values()))),
    )
    fields = port.fields(speed, is_saturating=False)
    lines_a = port.line_amps(fields.gap)
    own = [lines_a[line] for line in LINES] + [abs(amps) for amps in port.coil_amps(fields.gap)]
    assert len(told) == len(own)
    for theirs, ours in zip(told, own, strict=True):
        assert ours == pytest.approx(theirs, rel=2e-6, abs=1e-3)


def test_a_start_agrees_with_the_simulators_own_transient(tmp_path):
    """80 % and 95 % of speed within 5 %, the end within a revolution: all currents are states there."""
    one, inertia, load_nm = circuit(), 3.7, 300.0
    told = simulator.measured(
        simulator.run(
            simulator.start_netlist(
                one,
                line_v=460,
                fault_a=20_000,
                inertia=inertia,
                load_nm=load_nm,
                rated_rad_s=186.4,
                until_s=2.5,
                step_s=50e-6,
            ),
            tmp_path,
        )
    )
    motor = machine_of(
        winding_of("3-wye"),
        (MachineSpeed(field="one", circuit=one, factor=3**0.5),),
        inertia_kg_m2=0.7,
        friction_w=0.0,
        rated_rad_s=186.4,
        rated_nm=load_nm,
    )
    joints = tuple((line, lead) for line, lead in zip(LINES, ("T1", "T2", "T3"), strict=True))
    port = Port(motor, Wiring(sources=three_phase(460, 20_000), joined=joints))
    run = run_up(
        motor,
        [Step(0.0, "run", port, ())],
        Load(
            shape="quadratic",
            torque_nm=load_nm,
            rated_rad_s=186.4,
            inertia_kg_m2=inertia - 0.7,
        ),
        relay=None,
        winding=WindingHeat((86.0,) * 3, 80.0, [0.0] * 3),
        limit_k=1e9,
        until_s=2.5,
    )
    for name, part in (("t80", 0.8), ("t95", 0.95)):
        level = part * 60 * pi
        ours = next(sample.time_s for sample in run.samples if sample.speed_rad_s >= level)
        assert ours == pytest.approx(told[name], rel=0.05)
    assert run.last.speed_rad_s == pytest.approx(told["wend"], abs=0.1)
