"""Nameplates to equivalent circuits, against the reference and against the plate itself."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from evencoil.solver.motor import Targets, fit_circuit

from .reference import reference

PLATES = {str(index): told for index, told in enumerate(reference()["estimation"])}


def targets(told):
    """Return what a reference nameplate asks for."""
    plate, result = told["nameplate"], told["result"]
    watts = plate["kw"] * 1000 if "kw" in plate else plate["hp"] * 745.7
    return Targets(
        power_w=watts,
        line_v=plate["volts"],
        amps_a=plate["fla"],
        hz=plate.get("freq", 60),
        rpm=plate["rpm"],
        pole_pairs=result["poles"] // 2,
        efficiency=result["eff_target"],
        locked_a=result["lra_target"],
        locked_times=told["assumed"]["lrt"],
        breakdown_times=told["assumed"]["bdt"],
    )


@pytest.mark.parametrize("name", PLATES)
def test_a_nameplate_gives_the_circuit_of_the_reference(name):
    """Currents to a thousandth, torques to one percent: both are fitted, by different code."""
    told = PLATES[name]
    found, wanted = fit_circuit(targets(told)), told["result"]
    assert found.amps_a == pytest.approx(wanted["fla"], rel=1e-3)
    assert found.locked_a == pytest.approx(wanted["lra"], rel=1e-3)
    assert found.power_factor == pytest.approx(wanted["pf"], rel=1e-3)
    assert found.efficiency == pytest.approx(wanted["eff"], rel=1e-3)
    assert found.locked_times == pytest.approx(wanted["lrt"], rel=0.01)
    assert found.breakdown_times == pytest.approx(wanted["bdt"], rel=0.01)
    assert not found.is_poor


def test_a_stamped_breakdown_torque_is_met_where_it_can_be():
    """A maker's 2.8 pulls the fit; without it the usual floor only holds from below."""
    told = targets(PLATES["0"])
    free = fit_circuit(told)
    fields = {name: getattr(told, name) for name in Targets.__slots__}
    bound = fit_circuit(Targets(**{**fields, "breakdown_times": 2.8, "is_breakdown_known": True}))
    assert abs(bound.breakdown_times - 2.8) < abs(free.breakdown_times - 2.8)


@pytest.mark.many
@settings(max_examples=25)
@given(
    st.floats(1, 400),
    st.sampled_from([1, 2, 3, 4]),
    st.floats(0.01, 0.05),
    st.floats(0.75, 0.9),
    st.floats(5, 7.5),
)
def test_any_usual_motor_keeps_its_stamped_currents(power_hp, pairs, slip, factor, locked):
    """Power and full-load amps are met to 2 %, locked amps to 5 %; never anything but numbers."""
    watts, efficiency = power_hp * 745.7, 0.8 + 0.03 * min(power_hp, 100) ** 0.33
    amps = watts / (1.7320508 * 460 * efficiency * factor)
    found = fit_circuit(
        Targets(
            power_w=watts,
            line_v=460,
            amps_a=amps,
            hz=60,
            rpm=(1 - slip) * 3600 / pairs,
            pole_pairs=pairs,
            efficiency=efficiency,
            locked_a=locked * amps,
            locked_times=1.5,
            breakdown_times=2.3,
        )
    )
    assert found.amps_a == pytest.approx(amps, rel=0.02)
    assert found.locked_a == pytest.approx(locked * amps, rel=0.05)
    assert found.breakdown_times >= found.locked_times * 0.99
