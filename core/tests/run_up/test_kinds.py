"""Two speeds, wound rotors and single-phase motors: by hand, and by a second way to solve them."""

from functools import cache
from math import pi

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from evencoil.base import CoreError, say
from evencoil.job import JobInputs, run_up_of, work_out
from evencoil.leads import LeadsInputs
from evencoil.plate import PlateInputs, SupplyInputs
from evencoil.run_up import LoadInputs
from evencoil.run_up.starts import method_plan
from evencoil.solver.motor import SingleTargets, fit_single, series_ohm
from evencoil.solver.motor.single_phase import _Trial

TWO = {
    # kind: hp, amps; torque at the low speed over that at the high one, by hand from hp and rpm
    "2-speed-ct": ("25/12.5", "31/20", 1.0),
    "2-speed-vt": ("25/6.25", "31/10", 0.5),
    "2-speed-cp": ("25/25", "32/36", 2.0),
    "2-speed-2-winding": ("25/12.5", "31/20", 1.0),
}
WOUND = "100 HP, 460 V, 120 A, 1760 RPM, 60 HZ, 3 PH, WOUND ROTOR, SECONDARY 350 V 130 A"
START_RUN = {"capacitors": "both", "switch": "potential_relay", "start_uf": "300", "run_uf": "50"}


@cache
def _job(plate, winding, supply, single, load):
    inputs = JobInputs(
        plate=PlateInputs(text=plate),
        supply=SupplyInputs(text=supply, fault_current_a="20000"),
        leads=LeadsInputs(winding=winding, **({"single": dict(single)} if single else {})),
        load=LoadInputs(**dict(load)),
    )
    return run_up_of(inputs, work_out(inputs))


def job(plate, winding, supply="460", single=None, **load):
    """Return a motor ready to run; 460 V, so that the supply is the plate's."""
    told = load or {"kind": "fan", "torque_percent": "100"}
    return _job(plate, winding, supply, tuple((single or {}).items()), tuple(told.items()))


def two(kind):
    """Return a two-speed motor of a kind."""
    power, amps, _ = TWO[kind]
    return job(f"{power} HP, 460 V, {amps} A, 1765/870 RPM, 60 HZ, 3 PH, CODE G, DES B", kind)


@pytest.mark.parametrize("kind", TWO)
def test_each_speed_draws_its_plate_amps_on_its_own_leads(kind):
    """The coils joined for a speed, on the network, give back what is stamped for that speed."""
    ready = two(kind)
    facts = ready.facts
    states = ready.states_of["speed_high"]
    for method, amps, rpm in (
        ("speed_high", facts.amps_a, 1765),
        ("speed_low", facts.low.amps_a, 870),
    ):
        port = method_plan(facts, method, states).states[-1][1]
        fields = port.fields(rpm * pi / 30, is_saturating=False)
        assert max(port.line_amps(fields.gap).values()) == pytest.approx(amps, rel=0.02)
        assert fields.torque_nm > 0
        # a field of the other pole number is not made at all
        other = fields.gap[2:] if method == "speed_high" else fields.gap[:2]
        assert max(abs(value) for value in other) < 1e-6 * max(abs(value) for value in fields.gap)


@pytest.mark.parametrize("kind", TWO)
def test_the_torque_of_the_low_speed_is_that_of_its_kind(kind):
    """Constant torque the same, variable half, constant horsepower twice."""
    facts = two(kind).facts
    assert facts.low.rated_nm / facts.machine.rated_nm == pytest.approx(TWO[kind][2], rel=0.02)


def test_two_speeds_start_low_and_go_over():
    """Each way ends at its own speed; the timer waits for the low one."""
    ready = two("2-speed-ct")
    made = {one.method: one for one in ready.sheet().methods}
    assert set(made) == {"speed_low", "speed_high", "speed_low_high"}
    assert {one.run.ending for one in made.values()} == {"running"}
    ends = {name: one.run.last.speed_rad_s * 30 / pi for name, one in made.items()}
    assert ends["speed_low"] == pytest.approx(885, abs=14)
    assert ends["speed_high"] == pytest.approx(1765, abs=6)
    assert ends["speed_low_high"] == pytest.approx(ends["speed_high"], abs=0.1)
    advice = ready.advice("speed_low_high")
    at_setting = next(one for one in advice.changes if one.setting_s == advice.setting_s)
    assert at_setting.speed_rpm == pytest.approx(ends["speed_low"], rel=0.03)
    # changed too soon, the high speed starts from lower and draws more
    assert advice.changes[0].peak_a >= at_setting.peak_a


def test_two_speeds_without_both_currents_are_asked_for():
    """A guess at the second current is no figure of this job."""
    with pytest.raises(CoreError) as missing:
        job("25/12.5 HP, 460 V, 31 A, 1765/870 RPM, 60 HZ, 3 PH, CODE G", "2-speed-ct")
    assert "both speeds" in say(missing.value.message)


def test_a_wound_rotor_starts_by_equal_peaks():
    """By hand: each step begins at its speed with the same torque, and resistances fall evenly."""
    ready = job(WOUND, "3-wye", kind="crusher", torque_percent="40", rotor_steps="4")
    facts = ready.facts
    rotor = facts.rotor
    plan = method_plan(facts, "rotor_resistor", ready.states_of["rotor_resistor"])
    for (_, port, _), begins in zip(plan.states, rotor.from_rad_s, strict=True):
        torque = port.fields(begins, is_saturating=False).torque_nm
        assert torque / facts.machine.rated_nm == pytest.approx(1.5, rel=0.03)
    ratios = [one / other for one, other in zip(rotor.times, rotor.times[1:], strict=False)]
    assert ratios == pytest.approx([ratios[0]] * 4)
    # slip of rated load times the open volts per phase over the rated rotor current
    assert rotor.own_ohm == pytest.approx((1 - 1760 / 1800) * 350 / 3**0.5 / 130)
    made = {one.method: one for one in ready.sheet().methods}
    assert made["rotor_resistor"].run.ending == "running"
    assert made["rotor_resistor"].start_a < 0.5 * made["full_voltage"].start_a


def test_a_wound_rotor_asked_for_more_than_its_breakdown_is_refused():
    """Not the nearest peak: the figure, and what it can give."""
    with pytest.raises(CoreError) as refused:
        job(WOUND, "3-wye", kind="fan", rotor_peak_percent="400")
    assert "breakdown torque is 250 %" in say(refused.value.message)


@settings(deadline=None, max_examples=20)
@given(st.floats(0.0, 0.98), st.sampled_from(["split_phase", "capacitor_start_run"]))
def test_the_single_phase_circuit_and_its_coils_agree(speed, kind):
    """Two windings solved as a two-by-two by hand, and as coils on a network."""
    single = (
        START_RUN
        if kind == "capacitor_start_run"
        else {
            "capacitors": "none",
            "switch": "centrifugal",
        }
    )
    plate = "5 HP, 230 V, 21 A, 1745 RPM, 60 HZ, 1 PH, CODE G, EFF 80"
    ready = job(plate, "1-phase-reversible", "230", single)
    facts = ready.facts
    fitted, start = facts.single.fitted, facts.single
    targets = SingleTargets(
        kind=kind,
        power_w=5 * 745.7,
        volts_v=230,
        amps_a=21,
        hz=60,
        rpm=1745,
        pole_pairs=2,
        efficiency=float(facts.trail.number(_efficiency(facts))) / 100,
        locked_a=float(facts.trail.number("locked_rotor_a")),
        start_f=start.start_f,
        run_f=start.run_f,
    )
    import numpy as np

    logs = np.log(
        [fitted.main_ohm.imag, 2 * fitted.gap.xm, 2 * fitted.gap.ri, fitted.main_ohm.real]
    )
    trial = _Trial(targets, logs)
    by_hand, torque = trial.at(1 - speed, series_ohm(start.start_f, start.run_f, 60))
    port = method_plan(facts, "single_phase", ready.states_of["single_phase"]).states[0][1]
    fields = port.fields(speed * 60 * pi, is_saturating=False)
    # the network has a supply of 20 kA behind it
    assert port.line_amps(fields.gap)["L1"] == pytest.approx(abs(by_hand), rel=0.03)
    assert fields.torque_nm == pytest.approx(torque, rel=0.06, abs=0.3)


def _efficiency(facts):
    known = {step.id for step in facts.trail}
    return (
        "efficiency_by_amps_percent"
        if "efficiency_by_amps_percent" in known
        else "efficiency_percent"
    )


def test_the_main_winding_alone_has_no_torque_at_standstill():
    """By hand: two fields alike pull alike; turned by hand it goes the way it is turned."""
    ready = job("1 HP, 115/230 V, 13.6/6.8 A, 1740 RPM, 60 HZ, 1 PH, CODE K", "1-phase-dual", "230")
    port = method_plan(ready.facts, "single_phase", ready.states_of["single_phase"]).states[-1][1]
    assert port.fields(0.0).torque_nm == pytest.approx(0, abs=1e-6)
    assert port.fields(60.0).torque_nm > 0.1
    assert port.fields(-60.0).torque_nm == pytest.approx(-port.fields(60.0).torque_nm, rel=1e-6)


@pytest.mark.parametrize("volts", ["115", "230"])
def test_both_volts_of_a_dual_motor_are_the_same_motor(volts):
    """Halves in parallel draw twice the amps at half the volts, with the same torque."""
    ready = job("1 HP, 115/230 V, 13.6/6.8 A, 1740 RPM, 60 HZ, 1 PH, CODE K", "1-phase-dual", volts)
    facts = ready.facts
    port = method_plan(facts, "single_phase", ready.states_of["single_phase"]).states[-1][1]
    fields = port.fields(1740 * pi / 30, is_saturating=False)
    assert port.line_amps(fields.gap)["L1"] == pytest.approx(13.6 * 115 / float(volts), rel=0.02)
    assert fields.torque_nm == pytest.approx(745.7 / (1740 * pi / 30), rel=0.04)


def test_what_starts_a_single_phase_motor_decides_its_start():
    """A run capacitor alone starts weakly; a start capacitor strongly; the switch opens in time."""
    plate = "2 HP, 230 V, 10 A, 1740 RPM, 60 HZ, 1 PH, CODE G, EFF 75"
    both = job(plate, "1-phase-reversible", "230", START_RUN)
    run = job(plate, "1-phase-reversible", "230", {"capacitors": "run", "switch": "none"})
    strong, weak = (one.sheet().methods[0].start_torque_percent for one in (both, run))
    assert strong > 2 * weak
    assert run.facts.single.opens_rad_s is None
    assert 0.6 < both.facts.single.opens_rad_s / (60 * pi) < 0.95
    causes = {one.cause for one in both.faults().states}
    assert {"start_open", "switch_stuck", "capacitor_weak"} <= causes
    assert "fuse" not in causes
    dead = next(one for one in both.faults().states if one.cause == "start_open")
    assert dead.torque_percent == pytest.approx(0, abs=0.01)
    assert "hums" in say(dead.said)


def test_parts_that_start_nothing_are_refused():
    """No capacitor and no switch: the Leads step already says that nothing turns it."""
    with pytest.raises(CoreError) as refused:
        job(
            "2 HP, 230 V, 10 A, 1740 RPM, 60 HZ, 1 PH, CODE G",
            "1-phase-reversible",
            "230",
            {"capacitors": "none", "switch": "none"},
        )
    assert refused.value.field == "leads.single"


@settings(deadline=None, max_examples=25)
@given(
    st.sampled_from(["split_phase", "capacitor_start", "permanent_split", "capacitor_start_run"]),
    st.floats(0.2, 10),
    st.floats(0.45, 0.85),
    st.floats(0.3, 0.93),
    st.floats(3, 8),
    st.floats(0.01, 0.08),
)
def test_any_single_phase_plate_has_an_answer_with_its_cost(
    kind, power_hp, efficiency, factor, locked, slip
):
    """Never a figure that is none: a fit near, or one that says how poor it is."""
    amps = power_hp * 745.7 / (230 * efficiency * factor)
    fitted = fit_single(
        SingleTargets(
            kind=kind,
            power_w=power_hp * 745.7,
            volts_v=230,
            amps_a=amps,
            hz=60,
            rpm=1800 * (1 - slip),
            pole_pairs=2,
            efficiency=efficiency,
            locked_a=locked * amps,
        )
    )
    assert fitted.amps_a > 0
    assert 0 <= fitted.cost < 1e6
    assert fitted.cost > 0.05 or fitted.amps_a == pytest.approx(amps, rel=0.01)
