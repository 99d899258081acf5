"""Loads, jams, fuses, starting gear and starts in a row: by hand."""

from dataclasses import replace
from functools import cache
from itertools import pairwise
from math import exp, log, pi, sqrt

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from evencoil.base import say
from evencoil.job import JobInputs, run_up_of, work_out
from evencoil.leads import LeadsInputs
from evencoil.plate import PlateInputs, SupplyInputs
from evencoil.run_up import LoadInputs
from evencoil.sizing import SizeInputs, typical_points
from evencoil.sizing.inputs import OverloadInput
from evencoil.solver.motor import Machine, OverloadRelay, ShortCircuitDevice
from evencoil.solver.motor.machine import AirGap, MachineCoil

SIX = "75 HP, 460 V, 86 A, 1780 RPM, 60 HZ, 3 PH, CODE G, DES B, EFF 95.4, INS F, 6 LEADS"
CLASS_10 = OverloadInput(place="line", trip_class=10)


@cache
def _job(supply, size, load):
    inputs = JobInputs(
        plate=PlateInputs(text=SIX),
        supply=SupplyInputs(text=supply, fault_current_a="20000"),
        leads=LeadsInputs(winding="6"),
        size=SizeInputs(overload=CLASS_10, **dict(size)),
        load=LoadInputs(**dict(load)),
    )
    return run_up_of(inputs, work_out(inputs))


def job(supply="480Y/277", size=(), **load):
    """Return a job's motor, ready to run."""
    return _job(supply, size, tuple(load.items()))


def by_method(ready):
    """Return the sheets by method."""
    return {one.method: one for one in ready.sheet().methods}


def test_a_device_opens_by_its_curve_and_remembers():
    """By hand: half its time at one current and half at another opens; it forgets below both."""
    device = ShortCircuitDevice(100.0, ((2.0, 100.0), (4.0, 25.0), (10.0, 1.0)))
    # straight on log-log paper between 2 and 4 times: at the geometric middle, the middle time
    assert device.opens_after_s(100 * 8**0.5) == pytest.approx(50.0)
    assert device.opens_after_s(150.0) is None
    device.warm([400.0, 0.0, 0.0], 12.5)
    assert device.level == pytest.approx(0.5)
    device.warm([0.0, 0.0, 0.0], 120.0)
    assert device.level == pytest.approx(0.5 * exp(-1))
    device.warm([1000.0, 0.0, 0.0], 1.0)
    assert device.level > 1


def test_a_jam_ends_the_run_when_the_relay_has_had_enough():
    """By hand: heat of a running relay, then locked current: t = tau ln((m2 - q) / (m2 - k2))."""
    ready = job(kind="fan", inertia_lb_ft2="20", jams_at_s="10", torque_percent="100")
    full = by_method(ready)["full_voltage"]
    assert full.run.ending == "tripped"
    assert "sticks 10 s after the start" in " ".join(say(one) for one in full.findings)
    before = [one for one in full.run.samples if one.time_s < 9.9][-1]
    held = max(full.run.last.line_a) / 86
    by_hand = 243 * log((held**2 - before.relay * 1.265625) / (held**2 - 1.265625))
    assert full.run.tripped_s - 10 == pytest.approx(by_hand, rel=0.06)


def test_a_fuse_too_small_opens_first_and_is_named():
    """By hand: locked current over 60 A on the curve, straight on log-log between 9 and 12 times."""
    ready = job(kind="conveyor", inertia_lb_ft2="400")
    small = ShortCircuitDevice(60.0, typical_points("dual_element_fuse"))
    ready = replace(ready, facts=replace(ready.facts, device=small))
    full = by_method(ready)["full_voltage"]
    times = full.start_a / 60
    by_hand = 0.5 * exp(log(times / 9) / log(12 / 9) * log(0.08 / 0.5))
    assert full.run.ending == "opened"
    assert full.run.opened_s == pytest.approx(by_hand, rel=0.15)
    assert not full.is_good
    assert "never above its limit" in " ".join(say(one) for one in full.findings)


def test_kinds_of_load_ask_what_they_say():
    """An empty conveyor asks less than a loaded one; a crusher more to move off than to turn."""
    loaded, empty = job(kind="conveyor"), job(kind="conveyor_empty")
    assert empty.facts.load.torque_nm < 0.5 * loaded.facts.load.torque_nm
    crusher = job(kind="crusher").facts.load
    assert crusher.at(0.6) > 1.2 * crusher.at(60.0)
    wheel = job(kind="flywheel").facts.load
    assert wheel.inertia_kg_m2 > 20 * job(kind="flywheel").facts.machine.inertia_kg_m2
    marks = {step.id for step in job(kind="crusher").facts.trail if step.kind == "assumed"}
    assert {"load_torque_percent", "breakaway_percent", "load_inertia_lb_ft2"} <= marks


def test_starting_gear_counts_its_duty():
    """By hand: rated current times three for fifteen seconds is all of it."""
    made = by_method(job(kind="fan", inertia_lb_ft2="71.2"))
    tap = made["autotransformer_65"]
    assert made["full_voltage"].duty_percent is None
    spent = 0.0
    samples = tap.run.samples
    facts = job(kind="fan", inertia_lb_ft2="71.2").facts
    for one, two in pairwise(samples):
        if one.time_s < tap.first_s:
            spent += (max(one.coil_a) / facts.coil_a) ** 2 * (two.time_s - one.time_s)
    assert tap.duty_percent == pytest.approx(100 * spent / 135)


def test_starts_in_a_row_are_counted_until_something_forbids_them():
    """A light load starts again and again; a heavy one is stopped, and a wait helps."""
    light = job(kind="uncoupled").restart()
    assert (light.cold, light.hot, light.ends_by) == (light.most, light.most, "none")
    assert light.wait_s == 0
    heavy = job(kind="fan", inertia_lb_ft2="500", torque_percent="70")
    found = heavy.restart()
    assert found.cold > found.hot
    assert found.ends_by in {"relay", "winding"}
    if found.wait_s:
        assert 0 < found.wait_s < 4 * 3600
    assert found.per_hour is None or found.per_hour < light.per_hour


@pytest.mark.parametrize(("supply", "is_there"), [("480Y/277", True), ("480 delta", False)])
def test_a_ground_fault_carries_current_where_the_supply_is_grounded(supply, is_there):
    """Halfway along a coil of a wye-grounded supply it is a short; without a ground it is told."""
    sheet = job(supply=supply, kind="fan").faults()
    found = [one for one in sheet.states if one.cause == "ground"]
    assert bool(found) == is_there
    told = " ".join(say(one) for one in sheet.findings)
    assert ("not grounded" in told) == (not is_there)
    if is_there:
        amps = found[0].line_a.values()
        assert max(amps) > 3 * min(amps)
        assert max(amps) > 3 * 86


def test_automatic_reset_starts_it_until_the_winding_is_gone():
    """With the rotor held it trips and starts again: the winding's image decides, by hand."""
    sheet = job(kind="fan").faults()
    told = next(one for one in sheet.findings if one.id.startswith("run_up.cycling"))
    held = next(one for one in sheet.states if one.cause == "jam")
    facts = job(kind="fan").facts
    # without any pause it would be gone after this long: with pauses it takes longer
    aim = facts.rated_rise_k * held.hottest_times**2
    at_once = 600 * log(aim / (aim - facts.limit_k)) / 60
    if told.id == "run_up.cycling.burns":
        assert float(told.params["minutes"]) > at_once
    else:
        # the mean of on and off stays below the limit: more than one trip, and never there
        assert int(told.params["trips"]) > 1


@settings(deadline=None, max_examples=40)
@given(st.floats(1, 200), st.floats(5, 400))
def test_direct_current_brakes_by_the_rotor_that_turns_in_a_standing_field(amps, speed):
    """By hand for a wye fed between two lines: T = p/w |E|2 Re Yr, E over the parallel of both."""
    gap = AirGap(pole_pairs=2, xm=3.0, rfe=1e9, xc=0.0, ri=0.05, xi=0.2, ro=1e9, xo=0.0)
    axes = (1.0, complex(-0.5, -sqrt(3) / 2), complex(-0.5, sqrt(3) / 2))
    coils = tuple(
        MachineCoil(name, f"T{place}", "S", 0.1 + 0.3j, (axis,))
        for place, (name, axis) in enumerate(zip("ABC", axes, strict=True), start=1)
    )
    machine = Machine(
        coils=coils,
        gaps=(gap,),
        hz=60,
        inertia_kg_m2=1,
        friction_w=0,
        rated_rad_s=180,
        rated_nm=100,
    )
    # in by one lead and out by another: the turns of two coils at 120 degrees make root 3
    field = sqrt(2) * sqrt(3) * amps
    slip = 2 * speed / (120 * pi)
    rotor = slip / complex(0.05, slip * 0.2)
    volts = field / abs(1 / 3.0j + rotor)
    by_hand = 2 / (120 * pi) * volts**2 * rotor.real
    assert machine.braking_nm([amps, -amps, 0.0], speed) == pytest.approx(-by_hand, rel=1e-6)
    assert machine.braking_nm([amps, -amps, 0.0], -speed) == pytest.approx(by_hand, rel=1e-6)
    assert machine.braking_nm([amps, -amps, 0.0], 0.0) == 0


def test_the_other_transition_is_told_beside_the_one_that_is():
    """Through resistors a wye-delta change draws less than with a pause; a tap opened draws more."""
    ready = job(kind="fan", inertia_lb_ft2="71.2")
    star = ready.advice("wye_delta")
    at_setting = next(one for one in star.changes if one.setting_s == star.setting_s)
    closed = next(one for one in star.findings if one.id == "run_up.transition.closed")
    assert float(closed.params["amps"]) < at_setting.peak_a
    tap = ready.advice("autotransformer_65")
    reactor = next(one for one in tap.changes if one.setting_s == tap.setting_s)
    opened = next(one for one in tap.findings if one.id == "run_up.transition.open")
    assert float(opened.params["amps"]) > reactor.peak_a
    pause = next(one for one in star.findings if one.id == "run_up.pause")
    assert float(pause.params["gap"]) > float(pause.params["out"]) + float(pause.params["arc"])


def test_a_loose_joint_turns_watts_into_heat_at_one_screw():
    """By hand: a twentieth of the rated impedance per phase, times the square of its current."""
    ready = job(kind="fan", torque_percent="100")
    sheet = ready.faults()
    loose = next(one for one in sheet.states if one.cause == "loose" and one.is_running)
    by_hand = 0.05 * 480 / sqrt(3) / 86 * loose.line_a["L2"] ** 2
    told = next(one for one in sheet.findings if one.id == "run_up.loose")
    assert float(told.params["watts"]) == pytest.approx(by_hand, abs=1)
    sound = next(one for one in sheet.states if one.cause == "sound")
    # the motor's end of that line is low, the others are not
    assert loose.motor_v["L1-L2"] < sound.motor_v["L1-L2"] - 5
    assert loose.motor_v["L3-L1"] == pytest.approx(sound.motor_v["L3-L1"], rel=0.01)


@pytest.mark.parametrize(
    ("kind", "amps", "level"),
    [
        # steady heat of 1.5, 1.5 and 0 times the setting over 1.125 squared
        ("plain", (1.5, 1.5, 0.0), (0.3 * 2.25 + 0.7 * 1.5) / 1.265625),
        ("phase_loss", (1.5, 1.5, 0.0), 1.25 * 2.25 / 1.265625),
        ("melting_alloy", (1.5, 1.5, 0.0), 2.25 / 1.265625),
        ("two_heaters", (1.5, 1.5, 0.0), 2.25 / 1.265625),
        # the line without a heater carries the most, and no one sees it
        ("two_heaters", (0.9, 1.8, 0.9), 0.81 / 1.265625),
    ],
)
def test_relays_take_unequal_lines_each_its_way(kind, amps, level):
    """By hand from each kind's rule, after a very long time."""
    relay = OverloadRelay(1.0, "10", kind)
    relay.warm(list(amps), 1e6)
    assert relay.level == pytest.approx(level, rel=1e-6)


def test_an_electronic_relay_trips_seconds_after_a_line_is_gone():
    """Three seconds without a line, whatever the load; a line that is back starts anew."""
    relay = OverloadRelay(100.0, "10", "electronic")
    relay.warm([60.0, 60.0, 0.0], 2.0)
    assert relay.level < 1
    relay.warm([50.0, 50.0, 50.0], 0.1)
    relay.warm([60.0, 60.0, 0.0], 2.0)
    assert relay.level < 1
    relay.warm([60.0, 60.0, 0.0], 1.0)
    assert relay.level >= 1
