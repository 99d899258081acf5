"""Supplies by name, and the nameplate column that each uses."""

from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from evencoil.base.errors import CoreError, RefusedError
from evencoil.base.words import say
from evencoil.job.inputs import JobInputs
from evencoil.job.work_out import work_out
from evencoil.plate.inputs import PlateInputs, SupplyInputs
from evencoil.plate.reader import read
from evencoil.plate.supply import judge, read_supply
from evencoil.plate.supply_checks import (
    check_supply,
    derating_factor,
    transformer_fault_current_a,
)
from evencoil.sizing.inputs import SizeInputs


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
        ("115/230 V 1 PH", "120/240 1PH", 1, "nominal"),
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
        (
            "230 V 3 PH",
            "480Y/277",
            "480 V is 2.09 times the nameplate's 230 V. The motor would burn out.",
        ),
        ("460 V 3 PH", "240 delta", "240 V is only 0.52 of the nameplate's 460 V."),
        ("460 V 3 PH", "240 V 1PH", "A three-phase motor cannot start on a single-phase supply."),
    ],
)
def test_a_motor_that_must_not_be_connected(plate, supply, words):
    """Outside 10 % there is no column, only the reason and the ways out."""
    with pytest.raises(CoreError) as caught:
        judge(read(plate).plate, read_supply(supply))

    assert say(caught.value.message).startswith(words)


@pytest.mark.parametrize(
    ("plate", "supply", "code", "percent"),
    [
        # 400/50 is 8 V/Hz, and so is 480/60
        ("400 V 50 HZ", "480Y/277 60 Hz", "flux_faster", "100"),
        # 460/60 is 7.667 V/Hz, 400/50 is 8: 104.3 %, at 5/6 of speed and power
        ("460 V 60 HZ", "400Y/230 50 Hz", "flux_slower", "104.35"),
        # 400/60 is 6.667 of 8 V/Hz: weak, not dangerous
        ("400 V 50 HZ", "400Y/230 60 Hz", "flux_low", "83.33"),
        ("460 V 60 HZ", "480Y/277 60 Hz", "nominal", None),
        ("460 V", "480Y/277 50 Hz", "nominal", None),
    ],
)
def test_where_hertz_differ_volts_per_hertz_decide(plate, supply, code, percent):
    """The flux is compared, not the volts; each case by hand from V/Hz."""
    found = judge(read(plate).plate, read_supply(supply)).findings

    assert [one.code for one in found] == [code]
    if percent is not None:
        assert found[0].message.params["percent"] == percent


@pytest.mark.parametrize(
    ("plate", "supply"),
    [
        # 460/50 is 9.2 of 7.667 V/Hz: 120 %
        ("460 V 60 HZ", "460 delta 50 Hz"),
        # 400/50 against 397.5/60: 121 %
        ("380-415 V 60 HZ", "400Y/230 50 Hz"),
    ],
)
def test_too_much_flux_is_refused_though_the_volts_fit(plate, supply):
    """The volts are within 10 %, the iron saturates: no sizes."""
    with pytest.raises(RefusedError) as caught:
        judge(read(plate).plate, read_supply(supply))

    assert caught.value.message.id == "verdict.flux_too_high"


@pytest.mark.parametrize(
    ("text", "hertz", "phases"),
    [
        ("400Y/230", 50, 3),
        ("415", 50, 3),
        ("480Y/277", 60, 3),
        ("120 delta", 60, 3),
        ("120", 60, 1),
        ("240/120 high leg", 60, 3),
    ],
)
def test_what_a_supply_does_not_say_is_assumed_by_its_name_and_marked(text, hertz, phases):
    """380 to 415 V are systems of 50 Hz; a delta has three phases at any volts."""
    supply = read_supply(text)

    assert (supply.frequency_hz, supply.phases) == (hertz, phases)
    assert supply.is_frequency_assumed
    assert supply.are_phases_assumed == (text == "415")


@given(st.text(max_size=60))
def test_any_text_is_a_supply_or_a_clear_error(text):
    """The reader of supplies raises only its own errors."""
    try:
        supply = read_supply(text)
    except CoreError as error:
        assert error.problem()["hint"]
    else:
        assert supply.line_volts_v > 0


@pytest.mark.parametrize(
    ("text", "given", "codes"),
    [
        ("480Y/277", {}, ["fault_unknown"]),
        ("480Y/277", {"measured_v": ["478", "481", "476"]}, ["balanced", "fault_unknown"]),
        ("480Y/277", {"measured_v": ["480", "470", "460"]}, ["unbalance", "fault_unknown"]),
        ("480Y/277", {"measured_v": ["480", "480", "400"]}, ["unbalance_stop", "fault_unknown"]),
        (
            "480Y/277",
            {"measured_v": ["400", "401", "402"]},
            ["balanced", "measured_low", "fault_unknown"],
        ),
        ("480Y/277", {"measured_v": ["480", "0", "480"]}, ["figure", "fault_unknown"]),
        ("480Y/277", {"fault_current_a": "22000"}, ["fault_known"]),
        ("480Y/277", {"fault_current_a": "-1"}, ["figure"]),
        (
            "480Y/277",
            {"transformer_kva": "75", "transformer_z_percent": "5", "transformer_grounded": True},
            ["transformer_grounded", "fault_transformer"],
        ),
        (
            "480Y/277",
            {"transformer_kva": "75", "transformer_z_percent": "5", "fault_current_a": "9000"},
            ["transformer_grounding", "fault_transformer", "fault_known", "fault_above"],
        ),
        ("240 phase converter", {}, ["made_leg_unsaid", "fault_unknown"]),
        ("240 phase converter", {"made_leg": "L2"}, ["made_leg", "fault_unknown"]),
        ("240/120 high leg", {"high_leg": "L2"}, ["high_leg", "fault_unknown"]),
        ("240/120 high leg", {}, ["high_leg_unsaid", "fault_unknown"]),
        ("480 corner grounded", {}, ["corner_unsaid", "fault_unknown"]),
        ("480 corner grounded", {"grounded_line": "L3"}, ["corner", "fault_unknown"]),
        ("460 drive", {"drive_input_v": "240"}, ["drive", "drive_above", "fault_unknown"]),
    ],
)
def test_what_is_measured_and_said_of_a_supply(text, given, codes):
    """Each finding with its figures; a figure that cannot be is named and changes nothing else."""
    supply, plate = read_supply(text), read("230/460 V 3 PH").plate
    found = check_supply(SupplyInputs(**given), supply, judge(plate, supply))

    assert [item.code for item in found] == codes
    assert all(say(item.message) for item in found)
    assert all(say(item.hint) for item in found if item.level == "doubt")


def test_fault_current_behind_a_transformer_by_hand():
    """75 kVA, 5 % at 480 V: 90.2 A / 0.05 = 1804 A."""
    amps = transformer_fault_current_a(
        kva=Decimal(75), z_percent=Decimal(5), line_volts_v=Decimal(480), phases=3
    )
    assert round(amps) == 1804


def test_a_plate_of_two_frequencies_is_judged_by_the_supplys():
    """400/690 at 50 Hz and 460 at 60 Hz: each supply finds its own rating."""
    plate = PlateInputs(
        text="3 PH 400/690 V D/Y 50 HZ 7.5 KW 14.5/8.4 A 1455 RPM, 460 V 60 HZ 8.6 KW 13.9 A 1755 RPM, "
        "6 LEADS"
    )
    for text, volts, kw in (("400 V 50 Hz 3PH", "400", "7.5"), ("480Y/277", "460", "8.6")):
        found = work_out(JobInputs(plate=plate, supply=SupplyInputs(text=text), size=SizeInputs()))
        assert str(found.verdict.plate_volts) == volts
        assert [str(power) for power in found.reading.plate.power_kw] == [kw]


def test_outside_the_nec_sizes_are_withheld_and_brought_ones_kept():
    """A sentence instead of a figure; a size with its source stands as read."""
    own = [{"figure": "conductor_size", "value": "4 mm2", "source": "works table 3"}]
    found = work_out(
        JobInputs(
            plate=PlateInputs(text="7.5 KW 400 V 3 PH"),
            supply=SupplyInputs(text="400 V 50 Hz", territory="other"),
            size=SizeInputs(own=own),
        )
    )
    told = {figure.id: figure for figure in found.figures}
    assert told["conductor_size"].refusal is None
    assert "is not under the NEC" in told["table_flc_a"].refusal.detail
    assert found.trail["conductor_size"].shown == "4 mm2"
    assert not [step.id for step in found.steps if step.kind == "calculated"]


@pytest.mark.parametrize(
    ("percent", "factor"),
    [("0", "1"), ("1", "0.98"), ("2.5", "0.915"), ("3", "0.88"), ("5", "0.75"), ("5.01", None)],
)
def test_unbalance_derates_a_motor(percent, factor):
    """MG 1 Figure 14-1, between its points in a straight line: 2.5 % is 0.95 - 0.07 / 2."""
    found = derating_factor(Decimal(percent))
    assert found == (None if factor is None else Decimal(factor))


@pytest.mark.parametrize(
    ("volts", "amps", "code"),
    [
        # mean 12, furthest 12.6: 5 %
        ((), ("12", "11.4", "12.6"), "currents_balanced"),
        # mean 12, furthest 15: 25 %
        ((), ("12", "9", "15"), "currents_unbalance"),
        # volts 3 %: 30 % of the currents at most is theirs
        (("478", "464", "450"), ("12", "9", "15"), "currents_by_volts"),
        # volts 0.2 %: 25 % of the currents is not theirs
        (("480", "481", "479"), ("12", "9", "15"), "currents_by_motor"),
        ((), ("12", "12"), "figure"),
        ((), ("12", "12", "0"), "figure"),
    ],
)
def test_running_amps_of_three_lines(volts, amps, code):
    """Largest distance from the mean; the volts explain up to ten times their own unbalance."""
    given_here = SupplyInputs(text="480Y/277", measured_v=volts, measured_a=amps)
    found = [one.code for one in check_supply(given_here, read_supply("480Y/277"), None)]
    assert code in found


def test_the_derating_is_said_where_the_volts_are_unbalanced():
    """478, 464, 450: mean 464, 14 away is 3.02 %: 0.88 - 0.06 x 0.017 = 0.878."""
    given_here = SupplyInputs(text="480Y/277", measured_v=("478", "464", "450"))
    (found,) = [
        one
        for one in check_supply(given_here, read_supply("480Y/277"), None)
        if one.code == "unbalance"
    ]
    assert "no more than 0.87 of its nameplate power" in say(found.hint)
