"""Overload relays against the limits of IEC 60947-4-1 and the reference; winding by hand.

The reference rounds the square of the ultimate trip to 1.2656: hence 2e-4.
"""

from math import exp

import pytest

from evencoil.solver.motor import OverloadRelay, WindingHeat
from evencoil.solver.motor.heat import WINDING_TAU_S, nema_tau_s

from .reference import reference

THERMAL = reference()["thermal"]
#: IEC 60947-4-1: trip times at 7.2 times the setting from cold, at 1.5 times from hot
LIMITS = {"10A": (2, 10, 120), "10": (4, 10, 240), "20": (6, 20, 480), "30": (9, 30, 720)}


@pytest.mark.parametrize("name", LIMITS)
def test_a_relay_trips_within_the_limits_of_its_class(name):
    """7.2 cold, 1.5 and 1.2 hot, never at 1.05."""
    least, most, hot = LIMITS[name]
    relay, told = OverloadRelay(10.0, name), THERMAL[f"IEC {name}"]
    assert least < relay.trips_after_s(7.2) <= most
    assert relay.trips_after_s(7.2) == pytest.approx(told["cold_7_2"], rel=2e-4)
    assert relay.trips_after_s(1.5, 1.0) == pytest.approx(told["hot_1_5"], rel=2e-4)
    assert relay.trips_after_s(1.5, 1.0) < hot
    assert relay.trips_after_s(1.2, 1.0) < 7200
    assert relay.trips_after_s(1.05) is None


@pytest.mark.parametrize("relay_class", [10, 20, 30])
def test_a_class_of_nema_trips_at_nine_tenths_of_it(relay_class):
    """At 600 % from cold."""
    assert OverloadRelay(1.0, "5").trips_after_s(6) == pytest.approx(4.5, abs=0.01)
    assert nema_tau_s(relay_class) == pytest.approx(
        THERMAL[f"NEMA {relay_class}"]["tau_s"], rel=2e-4
    )


def trips(kind, times):
    """Return when unequal phases trip a hot relay of class 10 [s]; None in an hour."""
    relay = OverloadRelay(1.0, "10", kind, [1.0, 1.0, 1.0])
    for second in range(1, 3601):
        relay.warm(times, 1.0)
        if relay.level >= 1:
            return second
    return None


@pytest.mark.parametrize(
    ("kind", "times", "wanted"),
    [
        ("phase_loss", (1.15, 1.15, 0), THERMAL["phase loss"]["sensitive_115_115_0"]),
        ("phase_loss", (1.0, 1.0, 0.9), THERMAL["phase loss"]["sensitive_100_100_090"]),
        ("plain", (1.32, 1.32, 0), THERMAL["phase loss"]["plain_132_132_0"]),
        ("plain", (1, 1, 0), THERMAL["phase loss"]["plain_1_1_0"]),
    ],
)
def test_a_lost_phase_trips_a_sensitive_relay_sooner(kind, times, wanted):
    """IEC 60947-4-1: after rated load 1.15 on two poles for sensitive relays, 1.32 for plain ones."""
    found = trips(kind, times)
    if wanted is None:
        assert found is None
    else:
        # counted in whole seconds
        assert found == pytest.approx(wanted, abs=1.5)


def test_a_winding_remembers_and_cools():
    """By hand: six times the current is 36 times the heat; one time constant leaves 37 %."""
    coil = WindingHeat((10.0,), 80.0, [0.0])
    coil.warm([60.0], 6.0)
    assert coil.rise_k[0] == pytest.approx(80 * 36 * (1 - exp(-6 / WINDING_TAU_S)))
    hot = coil.rise_k[0]
    coil.warm([0.0], WINDING_TAU_S)
    assert coil.rise_k[0] == pytest.approx(hot / 2.718281828)
    coil.warm([10.0], 1e6)
    assert coil.rise_k[0] == pytest.approx(80.0)
