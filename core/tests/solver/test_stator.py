"""Stator coils with a turning cage, against the figures of an independent circuit simulator."""

import json
from math import sqrt
from pathlib import Path

import pytest

from evencoil.solver.stator import TYPICAL, CageMachine, solve_caged, solve_stator
from evencoil.winding import KINDS, LINES

FILE = json.loads((Path(__file__).parents[1] / "cases" / "motor_static.json").read_text())
KIND = {"nine_wye": "9-wye", "nine_delta": "9-delta", "six": "6"}
#: rated impedance of a phase in wye: 460 V / 1.732 / 86 A
WYE_OHM = 460 / sqrt(3) / 86
SYNCHRONOUS_RPM, RAD_S = 1800, 188.49556


def machine_of_file():
    """Return the machine of the file as parts of its rated impedance."""
    circuit = FILE["circuit"]
    return CageMachine(
        resistance=circuit["R1"] / WYE_OHM,
        leakage=circuit["X1"] / WYE_OHM,
        magnetising=circuit["Xm"] / WYE_OHM,
        iron=circuit["Rfe"] / WYE_OHM,
        inner=circuit["Ri"] / WYE_OHM,
        inner_x=circuit["Xi"] / WYE_OHM,
        outer=circuit["Ro"] / WYE_OHM,
        common_x=circuit["Xc"] / WYE_OHM,
    )


def nodes(winding, connection):
    """Return node of every lead and inner point, and of every line."""
    node, line = {}, {}
    groups = [group.split("-") for group in connection.split()]
    for place, group in enumerate(groups):
        for end in group:
            (line if end in LINES else node)[end] = place
    points = [*winding.leads, *(end for coil in winding.coils for end in (coil.start, coil.end))]
    for point in points:
        node.setdefault(point, len(groups) + len(node))
    return node, line


@pytest.mark.parametrize("case", FILE["cases"], ids=lambda case: case["name"])
def test_coil_currents_and_torque_are_those_of_the_other_simulator(case):
    """Right and wrong joints, at standstill, half speed and full-load speed."""
    winding = KINDS[KIND[case["motor"]]]
    node, line = nodes(winding, case["connection"])
    ways = [complex(*case["source"]), complex(*case["conductor"]), complex(case["contact"])]
    for point in case["points"]:
        state = solve_caged(
            winding,
            node,
            line,
            line_volts_v=case["volts"],
            phase_ohm=WYE_OHM * (1 if winding.is_wye and case["motor"] == "nine_wye" else 3),
            speed=point["rpm"] / SYNCHRONOUS_RPM,
            machine=machine_of_file(),
            behind_ohm=sum(ways),
        )
        for coil in state.coils:
            expected = point["coil_A"][
                coil.name.removesuffix("1") if case["motor"] == "six" else coil.name
            ]
            assert coil.amps_a == pytest.approx(expected, rel=1e-5, abs=0.01)
        torque = state.torque_w / RAD_S
        assert torque == pytest.approx(point["torque_Nm"], rel=1e-4, abs=0.01)


def test_the_typical_machine_is_the_one_of_the_file():
    """Four digits of every constant."""
    known, typical = machine_of_file(), TYPICAL
    for name in CageMachine.__slots__:
        assert getattr(typical, name) == pytest.approx(getattr(known, name), rel=1e-3)


def test_at_synchronous_speed_the_cage_carries_nothing():
    """Slip nought forward: a sound winding takes its magnetising current alone, and no torque."""
    winding = KINDS["6"]
    node, line = nodes(winding, "L1-T1 L2-T2 L3-T3 T4-T5-T6")
    state = solve_caged(winding, node, line, line_volts_v=460, phase_ohm=WYE_OHM, speed=1.0)
    open_rotor = solve_stator(winding, node, line, line_volts_v=460, phase_ohm=WYE_OHM)

    assert state.torque_w == pytest.approx(0, abs=1e-6)
    by_hand = 460 / sqrt(3) / WYE_OHM / (TYPICAL.magnetising + TYPICAL.leakage)
    assert state.coils[0].amps_a == pytest.approx(by_hand, rel=0.01)
    assert state.coils[0].volts_v == pytest.approx(open_rotor[0].volts_v, rel=0.002)


def test_wye_has_a_third_of_deltas_torque():
    """Six leads at standstill: current from the line and torque 1 to 3."""
    winding = KINDS["6"]
    found = []
    for connection in ("L1-T1 L2-T2 L3-T3 T4-T5-T6", "L1-T1-T6 L2-T2-T4 L3-T3-T5"):
        node, line = nodes(winding, connection)
        found.append(
            solve_caged(
                winding,
                node,
                line,
                line_volts_v=460,
                phase_ohm=WYE_OHM * 3,
                speed=0.0,
                behind_ohm=1e-9,
            ).torque_w
        )
    assert found[1] / found[0] == pytest.approx(3, rel=1e-4)
