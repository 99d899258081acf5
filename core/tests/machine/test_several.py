"""Several motors behind one device or one disconnect, worked by hand from 430.53(A) and 430.110(C)."""

from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from evencoil.base import MissingError, NotInTableError, Trail
from evencoil.base.words import say
from evencoil.job import JobInputs, work_out
from evencoil.machine import FeederInputs, FeederMember, feeder_sheet
from evencoil.machine.several import (
    GroupMotor,
    SharedDisconnectInput,
    SmallGroupInput,
    shared_disconnect,
    small_group,
)
from evencoil.plate import PlateInputs, SupplyInputs


def motor(tag, hp, flc, locked=None, phases=3):
    """Make a motor; amps as the tables give them at 460 V."""
    return GroupMotor(
        tag=tag,
        power_hp=None if hp is None else Decimal(hp),
        flc_a=Decimal(flc),
        locked_a=None if locked is None else Decimal(locked),
        phases=phases,
    )


HALF = motor("A", "0.5", "1.1", "10")
ONE = motor("B", "1", "2.1", "15")
TWO = motor("C", "2", "3.4", "25")


@pytest.mark.parametrize(
    ("motors", "device", "marked", "volts", "verdict", "says"),
    [
        ((HALF, ONE), "15", None, 480, "holds", "15 A is the maximum at 480 V"),
        ((HALF, ONE), "20", None, 480, "fails", "above 15 A"),
        ((HALF, ONE), "20", None, 120, "holds", "20 A is the maximum at 120 V"),
        ((HALF, ONE), "15", "10", 480, "fails", "10 A marked"),
        ((HALF, TWO), "15", None, 480, "fails", "C has 2 hp"),
        # 1 hp at 115 V single phase is 16 A: above 6 A
        ((motor("D", "1", "16", phases=1),), "20", None, 115, "fails", "16 A"),
        ((motor("E", None, "2"),), "15", None, 480, "fails", "— hp"),
    ],
)
def test_small_motors_on_one_circuit(motors, device, marked, volts, verdict, says):
    """430.53(A): 1 hp and 6 A each, 15 A device above 125 V, 20 A up to it."""
    trail = Trail()
    step = small_group(
        motors,
        SmallGroupInput(device_a=device, controllers_a=marked),
        Decimal(volts),
        edition=2023,
        trail=trail,
    )

    assert step.verdict == verdict
    assert says in say(step.working)


TEN = motor("P", "10", "14", "81")
FIVE = motor("Q", "5", "7.6", "46")


def asked(motors, other=0, **given_here):
    """Work a shared disconnect out and return its steps."""
    trail = Trail()
    shared_disconnect(
        motors,
        SharedDisconnectInput(**{"reason": "machine", **given_here}),
        volts_v=Decimal(480),
        other_a=Decimal(other),
        edition=2023,
        trail=trail,
    )
    return {step.id: step for step in trail}


def test_the_sums_are_turned_back_into_horsepower():
    """14 + 7.6 = 21.6 A: above 15 hp's 21, so 20 hp; 81 + 46 = 127: above 116, so 20 hp."""
    found = asked((TEN, FIVE))

    assert found["shared_disconnect_hp"].value == 20
    assert found["shared_disconnect_a"].value == Decimal("24.84")


def test_the_larger_of_both_sums_counts():
    """Locked 81 + 90 = 171 A: above 145, so 25 hp (183); full load 14 + 7.6 is 20 hp only."""
    found = asked((TEN, motor("R", "5", "7.6", "90")))

    assert found["shared_disconnect_hp"].value == 25


def test_a_motor_without_a_row_counts_six_times_and_other_loads_count_once():
    """7 A x 6 = 42; 42 + 81 + 10 = 133 A locked: 20 hp; 14 + 7 + 10 = 31 A: 25 hp (34 A)."""
    found = asked((TEN, motor("S", "4", "7")), other=10)

    assert found["shared_disconnect_hp"].value == 25
    assert found["shared_disconnect_a"].value == Decimal("35.65")


@pytest.mark.parametrize(
    ("ratings", "verdict", "marked"),
    [
        ({"amps_a": "30", "rated_hp": "20"}, "holds", False),
        ({"amps_a": "30", "rated_hp": "15"}, "fails", False),
        ({"amps_a": "20", "rated_hp": "20"}, "fails", False),
        ({"amps_a": "30"}, "holds", True),
    ],
)
def test_the_marked_ratings_are_held_against_both(ratings, verdict, marked):
    """20 hp and 24.84 A are needed."""
    step = asked((TEN, FIVE), **ratings)["shared_disconnect"]

    assert step.verdict == verdict
    assert bool(step.marks) is marked


def test_without_a_reason_there_is_no_shared_disconnect():
    """430.112 names three conditions; none is assumed."""
    with pytest.raises(MissingError):
        asked((TEN, FIVE), reason="")


def test_small_motors_are_no_reason_where_they_are_not_small():
    """430.53(A) fails or was not asked: the reason does not hold."""
    assert asked((TEN, FIVE), reason="small_group")["shared_disconnect_allowed"].verdict == "fails"


@given(st.lists(st.sampled_from([HALF, ONE, TWO, TEN, FIVE]), min_size=1, max_size=6))
def test_one_disconnect_is_never_smaller_than_the_largest_motor_needs(motors):
    """Both figures grow with every motor that is added."""
    try:
        found = asked(motors)
    except NotInTableError:
        return
    assert found["shared_disconnect_hp"].value >= max(one.power_hp for one in motors)
    assert found["shared_disconnect_a"].value >= max(one.flc_a for one in motors) * Decimal("1.15")


def test_the_feeder_of_a_machine_answers_for_its_motors():
    """Two jobs on 480 V: 10 hp 14 A and 5 hp 7.6 A, locked rotor from Table 430.251(B)."""
    members = [
        FeederMember(
            tag,
            work_out(
                JobInputs(
                    plate=PlateInputs(text=plate),
                    supply=SupplyInputs(text="480Y/277 60 Hz"),
                )
            ),
        )
        for tag, plate in (
            ("P", "10 HP 460 V 13 A 3 PH 60 HZ"),
            ("Q", "5 HP 460 V 6.8 A 3 PH 60 HZ"),
        )
    ]
    sheet = feeder_sheet(
        members, FeederInputs(disconnect={"reason": "room", "amps_a": "30", "rated_hp": "20"}), 2023
    )

    assert sheet.several["shared_disconnect_hp"].value == 20
    assert sheet.several["shared_disconnect"].verdict == "holds"
    assert "shared_disconnect" not in sheet.trail
    assert feeder_sheet(members, FeederInputs(), 2023).several_refusal is None
    unsaid = feeder_sheet(members, FeederInputs(disconnect={}), 2023)
    assert unsaid.several_refusal.field == "feeder.disconnect.reason"
