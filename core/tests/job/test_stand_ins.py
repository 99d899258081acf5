"""Practice instruments: within their error of the model, and never where life hangs on it."""

from decimal import Decimal
from random import Random

import pytest
from hypothesis import given
from hypothesis import strategies as st
from panel_made import made

from evencoil.base import CoreError
from evencoil.job import stand_in


@given(true=st.floats(1, 9_000), seed=st.integers(0, 10_000))
def test_a_bench_meter_reads_within_its_error(true, seed):
    """0.9 percent and two digits of 0.1 ohm, on top of 0.2 ohm of leads."""
    shown = stand_in("coil_ohms", {"unit": "ohm", "value": repr(true)}, Random(seed))
    assert abs(float(shown.value) - (true + 0.2)) <= 0.009 * (true + 0.2) + 0.2 + 0.051


def test_an_open_row_reads_ol_and_a_joint_near_zero():
    """As a meter shows it, not as a figure."""
    opened = {"unit": "ohm", "min": "1000000", "max": None}
    assert stand_in("dead_reading", opened, Random(1)).value == "OL"
    joint = {"unit": "ohm", "min": "0", "max": "1"}
    assert Decimal(stand_in("dead_reading", joint, Random(1)).value) <= Decimal("0.6")


def test_an_estimate_is_the_middle_of_its_five_times():
    """Bounds of 20 and 500 ohm are five times around 100."""
    shown = stand_in("dead_reading", {"unit": "ohm", "min": "20", "max": "500"}, Random(2))
    assert abs(float(shown.value) - 100.2) < 1.3


def test_insulation_halves_for_each_ten_degrees():
    """2000 Mohm at 20 C are 500 at 40 C, within 5 percent and two digits."""
    known = {"unit": "Mohm", "bands": []}
    shown = stand_in("insulation_reading", known, Random(3), temp_c=40.0)
    assert abs(float(shown.value) - 500) <= 27


@pytest.mark.parametrize("kind", ["meter_live", "dead_point", "joint_check", "landed"])
def test_nothing_practiced_proves_a_panel_dead(kind):
    """A meter check and a dead point are refused, with what proves it."""
    with pytest.raises(CoreError) as refused:
        stand_in(kind, {"unit": "V", "min": "0", "max": "1"}, Random(1))
    assert "real meter" in str(refused.value.hint)


def test_rolling_moves_three_lines_on_and_keeps_the_turn():
    """Everything on the first end goes to the second, on it to the third, on it to the first."""
    _, panel = made("3A")
    assert panel.roll is not None
    moves = [(edit.start, edit.end) for edit in panel.roll.edits]
    ends = {start for start, _ in moves}
    assert len(ends) == 3
    assert {end for _, end in moves} == ends
    to = dict(moves)
    first = next(iter(to))
    assert to[to[to[first]]] == first
    assert to[to[first]] != first
    assert set(panel.roll.wires) == {edit.wire for edit in panel.roll.edits}


def test_a_reversing_panel_is_bumped_each_way():
    """And its stop is tried after each start: one in the wrong branch stops only one way."""
    stages = {one.id: one for one in made("6A")[1].stages}
    bumps = [one.id for one in stages["bump"].results if one.kind == "bump_result"]
    assert bumps == ["bump_result@forward", "bump_result@reverse"]
    control = {one.id for one in stages["control"].results}
    assert {
        "control_result@running.forward.stop",
        "control_result@running.reverse.stop",
    } <= control
