"""Insulation resistance: figures by hand from the two ways to correct for temperature."""

from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from evencoil.checks import (
    at_40_c,
    insulation_bands,
    least_at_40_mohm,
    polarization_index,
    said_insulation,
    volts_of_tester,
)

BANDS = {low: (high, Decimal(least)) for low, high, least in insulation_bands(Decimal(460))}


@pytest.mark.parametrize(
    ("degree", "asked"),
    [
        # colder than 40 °C halving asks more: twice for each 10 K
        (40, "5"),
        (30, "10"),
        (20, "20"),
        (10, "40"),
        (0, "80"),
        # 5 x 2^0.5 = 7.0711, rounded up
        (35, "7.08"),
        # warmer, the flat curve: exp(4230 (1/313 - 1/333)) = 2.2517, 5 / 2.2517 = 2.2206
        (60, "2.23"),
        # exp(4230 (1/313 - 1/353)) = 4.6237, 5 / 4.6237 = 1.08138
        (80, "1.09"),
    ],
)
def test_what_is_asked_at_a_temperature(degree, asked):
    """5 Mohm at 40 °C, by whichever way asks for more."""
    assert BANDS[degree] == (degree + 1, Decimal(asked))


def test_bands_leave_no_gap_and_never_ask_more_when_warmer():
    """From 0 °C up to 85, degree by degree."""
    assert list(BANDS) == list(range(85))
    asked = [least for _, least in BANDS.values()]
    assert asked == sorted(asked, reverse=True)


@given(st.floats(0, 85))
def test_neither_way_passes_what_the_other_would_not(temp_c):
    """The least asked, brought to 40 °C, is enough in both ways."""
    degree = min(int(temp_c), 84)
    least = float(BANDS[degree][1])
    assert all(least * factor >= 5 - 1e-9 for factor in at_40_c(degree))


@pytest.mark.parametrize(
    ("rated", "tester", "least"),
    [
        ("115", "500", 5),
        ("460", "500", 5),
        ("999", "500", 5),
        ("1000", "500-1000", 100),
        ("2300", "500-1000", 100),
        ("4160", "1000-2500", 100),
        ("6600", "2500-5000", 100),
    ],
)
def test_tester_and_least_by_rated_volts(rated, tester, least):
    """Below 1 kV 500 V and 5 Mohm; form-wound from 1 kV up 100 Mohm."""
    assert volts_of_tester(Decimal(rated)) == tester
    assert least_at_40_mohm(Decimal(rated)) == least


def test_a_reading_says_what_it_is_at_40_c():
    """120 Mohm at 22 °C: halving 0.5^1.8 = 0.2872, flat exp(-0.2427) = 0.7845."""
    (said,) = said_insulation(Decimal(120), Decimal("22.4"), None)
    assert said.params == {"value": "120", "temp": "22.4", "halved": "34.5", "flat": "94.1"}


@pytest.mark.parametrize(
    ("one", "ten", "code", "index"),
    [
        ("100", "250", "insulation.index", "2.50"),
        ("100", "200", "insulation.index", "2.00"),
        ("100", "199.9", "insulation.low_index", "1.99"),
        ("100", "120", "insulation.low_index", "1.20"),
        # 30,000 x 0.25 at 20 °C is 7,500: above 5,000 an index tells nothing
        ("30000", "33000", "insulation.no_index", "1.10"),
    ],
)
def test_polarization_index(one, ten, code, index):
    """Ten minutes over one; 2 is asked, and nothing where the winding is far above need."""
    said = said_insulation(Decimal(one), Decimal(20), Decimal(ten))[1]
    assert (said.id, said.params["index"]) == (code, index)


def test_where_there_is_nothing_to_say():
    """An open tester, a temperature no way covers, no current at all."""
    endless = Decimal("Infinity")
    assert said_insulation(endless, Decimal(20), None) == ()
    assert said_insulation(Decimal(100), Decimal(85), None) == ()
    assert said_insulation(Decimal(100), Decimal(-1), None) == ()
    assert polarization_index(Decimal(100), endless) is None
    assert polarization_index(Decimal(0), Decimal(1)) is None
