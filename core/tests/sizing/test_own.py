"""Sizes by another code: voltage drop, fault current, curve and start from what was entered."""

from decimal import Decimal

import pytest

from evencoil.base import CoreError
from evencoil.base.words import say
from evencoil.job import JobInputs, work_out
from evencoil.plate import PlateInputs, SupplyInputs
from evencoil.sizing import SizeInputs, curve_sheet

PLATE = "7.5 KW 400 V D 690 V Y 14.3/8.3 A 1450 RPM 50 HZ 3 PH PF 0.84"


def job(own=(), fault_a=None, **size):
    """Calculate a job outside the NEC."""
    figures = [{"figure": name, "value": value, "source": "site list"} for name, value in own]
    return work_out(
        JobInputs(
            plate=PlateInputs(text=PLATE),
            supply=SupplyInputs(text="400Y/230 50 Hz", territory="other", fault_current_a=fault_a),
            size=SizeInputs(own=figures, **size),
        )
    )


def refusal(worked, name):
    """Return why a figure is withheld."""
    return next(figure.refusal for figure in worked.figures if figure.id == name)


def test_a_metric_conductor_drops_by_its_warm_resistance():
    """2.5 mm2: 7.41 x 1.1965 = 8.866; x 0.84 + 0.08 x 0.5426 = 7.491 ohm/km.

    1.732 x 14.3 A x 7.491 x 0.060 km = 11.13 V, 2.783 % of 400 V.
    """
    worked = job([("conductor_size", "2.5 mm²")], run_length_m="60")

    assert round(worked.trail["voltage_drop_percent"].value, 2) == Decimal("2.78")
    assert "IEC 60228" in str(worked.trail["voltage_drop_percent"].rule)


def test_an_awg_conductor_drops_by_table_9_with_the_nameplates_amps():
    """10 AWG in steel: 1.2 x 0.84 + 0.063 x 0.5426 = 1.0422 ohm per 1000 ft.

    1.732 x 14.3 x 1.0422 x 0.19685 (60 m) = 5.082 V, 1.27 % of 400 V.
    """
    worked = job([("conductor_size", "10 AWG")], run_length_m="60")

    assert round(worked.trail["voltage_drop_percent"].value, 2) == Decimal("1.27")


@pytest.mark.parametrize(
    ("value", "says"),
    [
        ("5 mm²", "5 mm² is not a size of IEC 60228"),
        ("thick", "“thick” is no cross-section"),
    ],
)
def test_what_is_no_conductor_gives_no_drop(value, says):
    """The size is kept as entered; the drop says why it is withheld."""
    worked = job([("conductor_size", value)], run_length_m="60")

    assert worked.trail["conductor_size"].shown == value
    assert says in refusal(worked, "voltage_drop_percent").detail


def test_without_a_conductor_the_drop_names_what_comes_first():
    """Not the fuse: the conductor."""
    said = refusal(job(run_length_m="60"), "voltage_drop_percent").detail
    assert said == "Conductor comes first, and is not known yet."


@pytest.mark.parametrize(
    ("rating", "fault", "verdict"), [("10", "6000", "holds"), ("5", "6000", "fails")]
)
def test_a_breaking_capacity_is_held_against_the_fault_current(rating, fault, verdict):
    """10 kA holds 6000 A, 5 kA does not; no NEC section is cited."""
    worked = job((), fault, fault={"device_ka": rating})

    step = worked.trail["device_interrupting"]
    assert step.verdict == verdict
    assert "NEC" not in str(step.rule)
    assert "No short-circuit rating was read" in refusal(worked, "starter_short_circuit").detail


def test_the_curve_is_drawn_from_metric_sizes():
    """The relay is set to 14.3 A and trips a quarter above; nothing is drawn before it is known."""
    worked = job(
        [("conductor_size", "4 mm²"), ("protection_device_a", "20 A")],
        measured_start={"amps_a": "100", "volts_v": "400"},
    )
    sheet = curve_sheet(worked.trail, SizeInputs())

    cold = next(curve for curve in sheet.curves if curve.id == "overload_cold")
    assert min(amps for amps, _ in cold.points) > 14.3 * 1.15
    assert sheet.rides_through


def test_the_letter_of_a_measured_start_in_kilowatts():
    """7.5 / 0.746 = 10.05 hp: 1.732 x 400 x 100 / 1000 / 10.05 = 6.891, letter H."""
    worked = job(measured_start={"amps_a": "100", "volts_v": "400"})

    assert worked.trail["code_letter_measured"].value == "H"
    assert "kVA per hp" in say(worked.trail["code_letter_measured"].working)


@pytest.mark.parametrize("device", ["big", "0 A"])
def test_a_device_that_is_no_number_of_amps_gives_no_curve(device):
    """Kept as entered; the curve says which figure it cannot use."""
    worked = job(
        [("conductor_size", "4 mm²"), ("protection_device_a", device)],
        measured_start={"amps_a": "100", "volts_v": "400"},
    )

    with pytest.raises(CoreError) as caught:
        curve_sheet(worked.trail, SizeInputs())
    assert caught.value.field == "protection_device_a"
    assert device in say(caught.value.message)
