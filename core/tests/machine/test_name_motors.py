"""Motors named by running amps and heaters, each case worked by hand."""

from decimal import Decimal
from itertools import permutations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from evencoil.base.words import say
from evencoil.machine.name_motors import UnnamedMotor, name_motors

#: nameplate amps at the present supply
MOTORS = {"BM-3": Decimal(14), "IC-2": Decimal(19), "JC-1": Decimal("2.6"), "SF-5": Decimal(52)}


def named(*readings, motors=None):
    """Name starters A, B, ...; each reading is running amps and trip amps."""
    unnamed = [
        UnnamedMotor(label=label, running_a=running, heater_trip_a=trip)
        for label, (running, trip) in zip("ABCD", readings, strict=False)
    ]
    return name_motors(unnamed, motors or MOTORS)


@pytest.mark.parametrize(
    ("running", "trip", "tag", "fits"),
    [
        # 52 A runs at 13 to 59.8 A: 45 A is above 19 x 1.15 = 21.85
        ("45", None, "SF-5", ("SF-5",)),
        # 14 to 19.6 A trips fit BM-3; 19 to 26.6 fit IC-2: 17.5 is BM-3 alone
        (None, "17.5", "BM-3", ("BM-3",)),
        # 19.3 A trips: within 14 x 1.4 = 19.6 and above 19: both
        (None, "19.3", "", ("BM-3", "IC-2")),
        # 12 A runs on BM-3 (3.5 to 16.1) and IC-2 (4.75 to 21.85)
        ("12", None, "", ("BM-3", "IC-2")),
        # 12 A with heaters of 23.7 A: 14 x 1.4 = 19.6 is below, so IC-2
        ("12", "23.7", "IC-2", ("IC-2",)),
        ("70", None, "", ()),
        # heaters left from the other voltage: 7 A trips fit nothing, and 6 A runs fit BM-3, IC-2
        ("6", "7", "", ()),
    ],
)
def test_one_starter_by_its_readings(running, trip, tag, fits):
    """A quarter to 115 % running, 100 to 140 % tripping."""
    (found,) = named((running, trip))

    assert (found.tag, found.fits) == (tag, fits)


def test_what_one_reading_leaves_open_the_others_settle():
    """12 A fits BM-3 and IC-2; 17.5 A trips take BM-3, so IC-2 is left."""
    first, second = named(("12", None), (None, "17.5"))

    assert (first.tag, second.tag) == ("IC-2", "BM-3")
    assert "by elimination" in say(first.message)


def test_two_readings_for_one_motor_are_a_clash():
    """Both run at 45 A, and only one motor does."""
    first, second = named(("45", None), ("44", None))

    assert (first.tag, second.tag) == ("", "")
    assert "one of the readings is wrong" in say(first.message)


def test_two_starters_of_the_same_label_keep_their_own_readings():
    """The label is what a person wrote, not a key."""
    twice = [
        UnnamedMotor(label="A", running_a=Decimal(45)),
        UnnamedMotor(label="A", heater_trip_a=Decimal("17.5")),
    ]

    assert [one.tag for one in name_motors(twice, MOTORS)] == ["SF-5", "BM-3"]


def test_a_reading_that_fits_none_says_so_and_leaves_the_others():
    """45 A is SF-5; 200 A is no motor of this machine."""
    first, second = named(("45", None), ("200", None))

    assert first.tag == "SF-5"
    assert "Fits none" in say(second.message)


def test_without_a_reading_nothing_is_named():
    """Not even the last motor left."""
    *_, last = named(("45", None), (None, "17.5"), (None, "3.2"), (None, None))

    assert last.tag == ""
    assert "Read its running amps" in say(last.message)


def test_a_motor_without_nameplate_amps_cannot_be_excluded():
    """45 A may be it too."""
    (found,) = named(("45", None), motors={**MOTORS, "RK-9": None})

    assert found.fits == ("SF-5", "RK-9")
    assert found.tag == ""


@given(
    st.permutations(list(MOTORS)),
    st.lists(st.decimals("0.4", "1.1", places=2), min_size=4, max_size=4),
)
def test_no_motor_is_ever_given_the_name_of_another(order, shares):
    """Running amps of the true motors, in any order: every name given is the true one."""
    unnamed = [
        UnnamedMotor(label=str(at), running_a=MOTORS[tag] * share)
        for at, (tag, share) in enumerate(zip(order, shares, strict=True))
    ]
    found = name_motors(unnamed, MOTORS)
    ways = [
        way
        for way in permutations(MOTORS)
        if all(
            MOTORS[tag] / 4 <= one.running_a <= MOTORS[tag] * Decimal("1.15")
            for tag, one in zip(way, unnamed, strict=True)
        )
    ]
    for at, one in enumerate(found):
        assert set(one.fits) == {way[at] for way in ways}
        assert one.tag in ("", order[at])
