"""Runs in time: against full transients of a circuit simulator, and by hand."""

from dataclasses import replace
from math import pi

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from evencoil.solver.motor import (
    Element,
    Load,
    OverloadRelay,
    Port,
    Step,
    WindingHeat,
    Wiring,
    rpm,
    run_up,
    three_phase,
)

from .reference import machine, rad_s, reference

RUNS = reference()["acceleration_75hp"]
LINES = ("L1", "L2", "L3")
STAR = (("M1", "T1"), ("M2", "T2"), ("M3", "T3"), ("T4", "T5", "T6"))
DELTA = (("M1", "T1", "T6"), ("M2", "T2", "T4"), ("M3", "T3", "T5"))
OPEN = STAR[:3]
#: of the reference's fan: 300.04 N m at 186.401 rad/s
FAN = Load(shape="quadratic", torque_nm=300.04, rated_rad_s=186.401, inertia_kg_m2=3.0)
RATED_A = 86 / 3**0.5


def step(at_s, name, joints, made=None):
    """Return a contact state of the six-lead 75 hp motor; OPEN is without supply."""
    made = made or machine("six")
    is_dead = joints is OPEN
    port = Port(
        made,
        Wiring(
            sources=three_phase(460, 20000, open_lines=LINES if is_dead else ()),
            joined=joints,
            elements=()
            if is_dead
            else tuple(
                Element(line, f"M{place}", 0.01 + 0.004j)
                for place, line in enumerate(LINES, start=1)
            ),
        ),
    )
    return Step(at_s, name, port, tuple(port.coil_row(place) for place in range(3)))


def go(steps, load=FAN, relay=None, *, until_s=30.0, limit_k=115.0, follows_flux=True):
    """Run the 75 hp motor from cold."""
    return run_up(
        machine("six"),
        steps,
        load,
        relay=relay,
        winding=WindingHeat((RATED_A,) * 3, 80.0, [0.0] * 3),
        limit_k=limit_k,
        until_s=until_s,
        follows_flux=follows_flux,
    )


def first_above(run, part):
    """Return when a part of synchronous speed is passed [s]."""
    return next(one.time_s for one in run.samples if one.speed_rad_s >= part * 60 * pi)


@pytest.mark.parametrize("follows_flux", [True, False])
def test_full_voltage_takes_as_long_as_in_the_simulator(follows_flux):
    """80 and 95 % of speed within 5 % of a full transient; its first contact is at 0.05 s."""
    told = RUNS["DOL"]["reference_transient"]
    run = go([step(0, "run", DELTA)], follows_flux=follows_flux)
    assert first_above(run, 0.8) == pytest.approx(told["t_80pct_s"] - 0.05, rel=0.05)
    assert first_above(run, 0.95) == pytest.approx(told["t_95pct_s"] - 0.05, rel=0.05)
    assert rpm(run.last.speed_rad_s) == pytest.approx(told["rpm_end"], abs=1)
    assert run.ending == "running"


def star_delta(first_s=6.0, **more):
    """Run a star-delta start with a pause of 40 ms."""
    return go(
        [step(0, "star", STAR), step(first_s, "gap", OPEN), step(first_s + 0.04, "delta", DELTA)],
        **more,
    )


def test_star_delta_meets_the_surge_of_the_simulator():
    """Times within 5 %, current at re-closing within 15 %; without rotor flux it is missed."""
    name = next(key for key in RUNS if key.startswith("star-delta"))
    told = RUNS[name]["reference_transient"]
    run = star_delta()
    assert first_above(run, 0.95) == pytest.approx(told["t_95pct_s"] - 0.05, rel=0.05)
    surge = told["one_cycle_rms_after_event"]["6.09"]
    assert run.peak_a["delta"] == pytest.approx(surge, rel=0.15)
    assert rpm(run.changed_at["gap"][0]) == pytest.approx(told["rpm_at_last_event"], rel=0.05)
    without = star_delta(follows_flux=False)
    assert without.peak_a["delta"] < 0.75 * surge


def test_a_shorter_star_changes_over_at_a_lower_speed_and_more_current():
    """By hand: the current falls with speed, so an early change meets more of it."""
    early, late = star_delta(2.0), star_delta(6.0)
    assert early.changed_at["gap"][0] < late.changed_at["gap"][0]
    assert early.changed_at["gap"][1] > late.changed_at["gap"][1]


def test_a_load_above_the_torque_stalls_until_the_relay_trips():
    """Twice rated torque from rest: 36 times the heat of the setting, so seconds."""
    heavy = Load(shape="constant", torque_nm=600.0, rated_rad_s=186.4, inertia_kg_m2=1.0)
    run = go([step(0, "run", DELTA)], heavy, OverloadRelay(RATED_A, "10"))
    assert run.ending == "tripped"
    assert run.last.speed_rad_s == 0
    # 520 A of 86: 6.05 times; by hand 243 ln(36.6 / (36.6 - 1.266)) = 8.5 s
    assert run.tripped_s == pytest.approx(8.5, rel=0.1)
    burnt = go([step(0, "run", DELTA)], heavy, None, until_s=120)
    # by hand 600 ln(2928 / (2928 - 115)) = 24 s
    assert burnt.ending == "burnt"
    assert burnt.burnt_s == pytest.approx(24, rel=0.1)


def test_a_backstop_holds_against_the_wrong_direction():
    """Two lines exchanged: it cannot turn, draws locked current and trips."""
    crossed = (("M2", "T1", "T6"), ("M1", "T2", "T4"), ("M3", "T3", "T5"))
    run = go(
        [step(0, "run", crossed)],
        replace(FAN, has_backstop=True),
        OverloadRelay(RATED_A, "10"),
    )
    assert (run.ending, run.last.speed_rad_s) == ("tripped", 0.0)
    free = go([step(0, "run", crossed)], FAN, None, until_s=4)
    assert free.last.speed_rad_s < -180
    long = go([step(0, "run", crossed)], FAN, None, until_s=60, limit_k=1e9)
    assert long.ending == "backward"


def test_a_jam_while_running_stops_it_and_trips_the_relay():
    """At speed first; then as locked."""
    run = go([step(0, "run", DELTA)], replace(FAN, jams_at_s=4.0), OverloadRelay(RATED_A, "10"))
    assert run.at_speed_s is not None
    assert run.ending == "tripped"
    assert 4 < run.tripped_s < 4 + 9


def test_what_drives_the_motor_runs_it_above_synchronous_speed():
    """A load that overhauls: the motor holds it by generating."""
    down = Load(shape="overhauling", torque_nm=200.0, rated_rad_s=186.4, inertia_kg_m2=2.0)
    run = go([step(0, "run", DELTA)], down, until_s=10)
    assert 60 * pi < run.last.speed_rad_s < 62 * pi
    assert run.last.torque_nm < 0


def test_one_open_line_does_not_start_but_goes_on_running():
    """Standstill torque is zero; from speed it carries a fan on two lines."""
    whole = step(0, "run", DELTA)
    lost_port = Port(
        machine("six"),
        Wiring(
            sources=three_phase(460, 20000, open_lines=("L2",)),
            joined=(("L1", "T1", "T6"), ("T2", "T4"), ("L3", "T3", "T5")),
        ),
    )
    legs = tuple(lost_port.coil_row(place) for place in range(3))
    still = go([Step(0, "lost", lost_port, legs)], relay=OverloadRelay(RATED_A, "10"))
    assert still.ending == "tripped"
    assert still.last.speed_rad_s == pytest.approx(0, abs=1e-4)
    on = go([whole, Step(4.0, "lost", lost_port, legs)], until_s=9)
    # the reference: 1771.8 rpm with 172.8 A on a fan at full load
    assert rpm(on.last.speed_rad_s) == pytest.approx(1771, abs=3)
    assert max(on.last.line_a) == pytest.approx(172.8, rel=0.03)


@pytest.mark.many
@settings(max_examples=12)
@given(
    st.floats(0, 900),
    st.floats(1e-6, 500),
    st.sampled_from(["none", "constant", "linear", "quadratic", "overhauling"]),
    st.floats(0.05, 90),
    st.floats(0, 1500),
)
def test_any_load_ends_with_numbers_and_bounded_samples(torque, inertia, shape, first_s, breaks):
    """No load, inertia or timer hangs it or gives anything but finite figures."""
    load = Load(
        shape=shape,
        torque_nm=torque,
        rated_rad_s=rad_s(1780),
        inertia_kg_m2=inertia,
        breakaway_nm=breaks,
    )
    run = star_delta(first_s, load=load, relay=OverloadRelay(RATED_A, "20"), until_s=86400)
    assert len(run.samples) <= 1202
    for one in run.samples:
        assert abs(one.speed_rad_s) < 4000
        assert all(amps >= 0 and amps < 1e5 for amps in one.line_a)
    times = [one.time_s for one in run.samples]
    assert times == sorted(times)
