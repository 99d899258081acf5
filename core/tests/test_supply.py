"""Supplies by name, and the plate column that each uses."""

from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from evencoil.errors import CoreError
from evencoil.nameplate import read
from evencoil.supply import judge, read_supply
from evencoil.words import say


@pytest.mark.parametrize(
    ("text", "line", "ground", "system", "phases", "hz"),
    [
        ("480Y/277", "480", "277", "wye", 3, "60"),
        ("277/480 V wye", "480", "277", "wye", 3, "60"),
        ("208Y/120 3PH 60HZ", "208", "120", "wye", 3, "60"),
        ("415Y/240 50 Hz", "415", "240", "wye", 3, "50"),
        ("240 delta", "240", None, "delta", 3, "60"),
        ("480 V corner grounded", "480", None, "corner_grounded", 3, "60"),
        ("240/120 high leg", "240", "120", "high_leg", 3, "60"),
        ("120/240 1PH", "240", "120", "single_phase", 1, "60"),
        ("120/240", "240", "120", "single_phase", 1, "60"),
        ("460 V 3 phase", "460", None, "unsaid", 3, "60"),
        ("120 V", "120", None, "single_phase", 1, "60"),
        ("230 V single phase", "230", None, "single_phase", 1, "60"),
    ],
)
def test_supplies_by_name(text, line, ground, system, phases, hz):
    """Volts, ground volts, system, phases and hertz come out of the name."""
    supply = read_supply(text)

    assert supply.line_volts_v == Decimal(line)
    assert supply.ground_volts_v == (Decimal(ground) if ground else None)
    assert (supply.system, supply.phases, supply.frequency_hz) == (system, phases, Decimal(hz))


@pytest.mark.parametrize(
    ("text", "code"),
    [
        ("", "out_of_range"),
        ("mains", "out_of_range"),
        ("0 V", "out_of_range"),
        ("-480 V", "out_of_range"),
        ("480Y/120", "refused"),
        ("480 V 2 phase", "out_of_range"),
        ("480 V 400 Hz", "out_of_range"),
        ("1,250 V", "ambiguous"),
        ("480\x00", "out_of_range"),
        ("4" * 300, "out_of_range"),
        ("99999 V", "out_of_range"),
    ],
)
def test_what_names_no_supply_is_refused(text, code):
    """Each refusal has its code, its field and a next step."""
    with pytest.raises(CoreError) as caught:
        read_supply(text)

    problem = caught.value.problem()
    assert (problem["code"], problem["field"]) == (code, "supply.text")
    assert problem["hint"]


@pytest.mark.parametrize(
    ("plate", "supply", "column", "code"),
    [
        ("230/460 V", "480Y/277", 1, "nominal"),
        ("230/460 V", "240 delta", 0, "nominal"),
        ("208-230/460 V", "208Y/120", 0, "holds"),
        ("200 V", "208Y/120", 0, "nominal"),
        ("230 V", "208Y/120", 0, "low"),
        ("220-240 D / 380-415 Y V", "400Y/230", 1, "holds"),
        ("575 V", "600Y/347", 0, "nominal"),
        ("115/230 V 1 PH", "120/240 1PH", 0, "nominal"),
    ],
)
def test_which_plate_column_a_supply_uses(plate, supply, column, code):
    """The nominal system is home to its plate; the rest says how far off it is."""
    verdict = judge(read(plate).plate, read_supply(supply))

    assert verdict.column == column
    assert verdict.findings[0].code == code


@pytest.mark.parametrize(
    ("plate", "supply", "words"),
    [
        ("230 V 3 PH", "480Y/277", "480 V is 2.09 times the plate's 230 V. It would burn out."),
        ("460 V 3 PH", "240 delta", "240 V is only 0.52 of the plate's 460 V."),
        ("460 V 3 PH", "240 V 1PH", "A three-phase motor cannot start on a single-phase supply."),
    ],
)
def test_a_motor_that_must_not_be_connected(plate, supply, words):
    """Outside 10 % there is no column, only the reason and the ways out."""
    with pytest.raises(CoreError) as caught:
        judge(read(plate).plate, read_supply(supply))

    assert say(caught.value.message).startswith(words)


def test_hertz_that_differ_are_doubted():
    """A 60 Hz motor on 50 Hz is named: 400/50 against 397.5/60 volts per hertz, 121 %."""
    verdict = judge(read("380-415 V 60 HZ").plate, read_supply("400Y/230 50 Hz"))

    assert [found.code for found in verdict.findings] == ["holds", "hertz", "flux_high"]


@given(st.text(max_size=60))
def test_any_text_is_a_supply_or_a_clear_error(text):
    """The reader of supplies raises only its own errors."""
    try:
        supply = read_supply(text)
    except CoreError as error:
        assert error.problem()["hint"]
    else:
        assert supply.line_volts_v > 0
