"""The motor on any wiring, against an independent circuit simulator and by hand.

Reference figures are printed to five places; small ones are compared to what is printed.
"""

from dataclasses import replace
from math import sqrt

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from evencoil.solver.motor import Port, Wiring, three_phase

from .reference import line_amps, machine, port_of, rad_s, reference

CASES = {case["name"]: case for case in reference()["static_cases"]}
PRINTED = 6e-6
LINES = ("L1", "L2", "L3")
STAR = (("L1", "T1"), ("L2", "T2"), ("L3", "T3"), ("T4", "T5", "T6"))
DELTA = (("L1", "T1", "T6"), ("L2", "T2", "T4"), ("L3", "T3", "T5"))


@pytest.mark.parametrize("name", CASES)
def test_every_wiring_agrees_with_the_circuit_simulator(name):
    """Right, wrong, single-phased, on a tap, shorted: coil and line currents, torque, volts."""
    case = CASES[name]
    port = port_of(case)
    for point in case["points"]:
        fields = port.fields(rad_s(point["rpm"]), is_saturating=False)
        coils = zip(port.machine.coils, port.coil_amps(fields.gap), strict=True)
        for coil, amps in coils:
            wanted = point["reference"]["coil_A"][coil.name]
            assert abs(amps) == pytest.approx(wanted, rel=1e-6, abs=PRINTED)
        assert line_amps(port, fields) == pytest.approx(
            point["reference"]["line_A"], rel=1e-6, abs=1e-3 if "both" in name else PRINTED * 4
        )
        assert fields.torque_nm == pytest.approx(
            point["reference"]["torque_Nm"], rel=1e-6, abs=PRINTED
        )
        volts = port.volts(fields.gap)
        for lead, wanted in point["lead_V"].items():
            assert abs(volts[lead]) == pytest.approx(wanted, rel=1e-6, abs=6e-5)


def on(name, joints, volts=460.0, fault_a=1e9, open_lines=()):
    """Return a machine on a stiff supply."""
    sources = three_phase(volts, fault_a, open_lines=open_lines)
    return Port(machine(name), Wiring(sources=sources, joined=joints))


def test_star_takes_a_third_of_delta_at_every_speed():
    """On a stiff supply exactly: each coil has 1/sqrt 3 of its volts, lines carry a third."""
    star, delta = on("six", STAR), on("six", DELTA)
    for rpm in (-900, 0, 900, 1500, 1780):
        one, other = (port.fields(rad_s(rpm), is_saturating=False) for port in (star, delta))
        assert other.torque_nm == pytest.approx(3 * one.torque_nm, rel=1e-5)
        assert line_amps(delta, other)[0] == pytest.approx(3 * line_amps(star, one)[0], rel=1e-5)


def test_both_voltages_of_nine_leads_give_the_same_torque_at_twice_the_current():
    """Series on 460 V against parallel on 230 V."""
    series = (
        ("L1", "T1"), ("L2", "T2"), ("L3", "T3"), ("T4", "T7"), ("T5", "T8"), ("T6", "T9"),
    )  # fmt: skip
    parallel = (("L1", "T1", "T7"), ("L2", "T2", "T8"), ("L3", "T3", "T9"), ("T4", "T5", "T6"))
    high, low = on("nine_wye", series), on("nine_wye", parallel, 230.0)
    for rpm in (0, 1000, 1780):
        one, other = (port.fields(rad_s(rpm), is_saturating=False) for port in (high, low))
        assert other.torque_nm == pytest.approx(one.torque_nm, rel=1e-4)
        assert line_amps(low, other)[0] == pytest.approx(2 * line_amps(high, one)[0], rel=1e-4)


def test_one_line_open_gives_no_torque_at_rest_and_most_of_the_current():
    """By hand: 0.866 of the locked current in two lines, the fields balance each other."""
    whole, lost = on("six", DELTA), on("six", DELTA, open_lines=("L2",))
    locked = whole.fields(0.0, is_saturating=False)
    single = lost.fields(0.0, is_saturating=False)
    assert single.torque_nm == pytest.approx(0, abs=1e-6 * locked.torque_nm)
    amps = line_amps(lost, single)
    assert amps[0] == pytest.approx(sqrt(3) / 2 * line_amps(whole, locked)[0], rel=1e-4)
    assert amps[1] == 0
    # turned by hand it runs either way
    assert lost.fields(rad_s(900)).torque_nm > 0 > lost.fields(rad_s(-900)).torque_nm


@pytest.mark.parametrize("rpm", [0, 400, 1200, 1780])
def test_two_lines_exchanged_turn_it_around(rpm):
    """Torque at a speed is the negative of the sound motor's at the opposite speed."""
    crossed = (("L2", "T1", "T6"), ("L1", "T2", "T4"), ("L3", "T3", "T5"))
    straight = on("six", DELTA).fields(rad_s(rpm)).torque_nm
    assert on("six", crossed).fields(rad_s(-rpm)).torque_nm == pytest.approx(-straight, rel=1e-9)


@pytest.mark.parametrize(
    ("volts", "linear_a", "saturated_a"),
    # from the reference: no-load current of the low connection, without and with saturation
    [(253, 65.5, 74.4), (276, 71.4, 93.1), (345, 89.2, 193.4), (460, 118.8, 516.1)],
)
def test_iron_saturates_on_the_wrong_voltage(volts, linear_a, saturated_a):
    """The low-voltage joints on more volts than they are made for, unloaded."""
    parallel = (("L1", "T1", "T7"), ("L2", "T2", "T8"), ("L3", "T3", "T9"), ("T4", "T5", "T6"))
    made = machine("nine_wye")
    # by hand for the 75 hp: 265.6 V less 86 A through 0.047 + j0.297 ohm, at 0.856 lagging
    gap = replace(made.gaps[0], rated_v=249.7)
    sources = three_phase(volts, 20000)
    port = Port(replace(made, gaps=(gap,)), Wiring(sources=sources, joined=parallel))
    unloaded = rad_s(1799.9)
    linear = line_amps(port, port.fields(unloaded, is_saturating=False))[0]
    real = line_amps(port, port.fields(unloaded))[0]
    assert linear == pytest.approx(linear_a, rel=0.02)
    # the reference counts flux from the rated air gap of its own fit: a few percent apart
    assert real == pytest.approx(saturated_a, rel=0.08)


LEADS = [f"T{number}" for number in range(1, 13)]


@st.composite
def wirings(draw):
    """Twelve leads and three lines joined at random."""
    places = draw(st.lists(st.integers(0, 7), min_size=12, max_size=12))
    names = ["L1", "L2", "L3", *(f"J{place}" for place in range(5))]
    joined = [(names[place], lead) for place, lead in zip(places, LEADS, strict=True)]
    lost = draw(st.sampled_from([(), ("L1",), ("L2", "L3")]))
    return tuple(joined), lost


@settings(max_examples=80)
@given(wirings(), st.floats(-2000, 2000))
def test_power_in_is_losses_and_gap_on_any_wiring(made, rpm):
    """Sources give what resistances, iron and rotor take: to the last digit that counts."""
    joined, lost = made
    port = Port(machine("twelve"), Wiring(three_phase(460, 20000, open_lines=lost), joined))
    fields = port.fields(rad_s(rpm), is_saturating=False)
    amps = port.coil_amps(fields.gap)
    given_w = taken_w = 0.0
    for line in port.sources:
        volts, behind = port.sources[line]
        constant, by_gap = port.line_row(line)
        current = constant + sum(one * gap for one, gap in zip(by_gap, fields.gap, strict=True))
        given_w += (volts * current.conjugate()).real
        taken_w += abs(current) ** 2 * behind.real
    taken_w += sum(
        abs(current) ** 2 * coil.own_ohm.real
        for current, coil in zip(amps, port.machine.coils, strict=True)
    )
    gap = port.machine.gaps[0]
    slip = 1 - gap.pole_pairs * rad_s(rpm) / port.machine.field_rad_s
    for volts, at in zip(fields.gap, (slip, 2 - slip), strict=True):
        taken_w += abs(volts) ** 2 * (1 / gap.rfe + gap.rotor(at).real)
    assert given_w == pytest.approx(taken_w, rel=1e-6, abs=0.05)


@settings(max_examples=60)
@given(wirings())
def test_at_rest_the_network_is_reciprocal(made):
    """Volts in one line drive the same current in another as the other way round."""
    joined, _ = made
    behind = 0.01 + 0.05j

    def answer(fed, read):
        sources = tuple((line, 100.0 + 0j if line == fed else 0j, behind) for line in LINES)
        port = Port(machine("twelve"), Wiring(sources, joined))
        fields = port.fields(0.0, is_saturating=False)
        constant, by_gap = port.line_row(read)
        return constant + sum(one * gap for one, gap in zip(by_gap, fields.gap, strict=True))

    there, back = answer("L1", "L2"), answer("L2", "L1")
    assert abs(there - back) <= 1e-6 * max(abs(there), 1)
