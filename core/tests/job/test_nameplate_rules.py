"""What a nameplate and its supply give, worked by hand from the rule; nothing silently guessed."""

from decimal import Decimal

import pytest

from evencoil.base.words import say
from evencoil.job.inputs import JobInputs
from evencoil.job.work_out import work_out
from evencoil.machine.feeder_sheet import FeederMember, feeder_sheet
from evencoil.machine.inputs import FeederInputs
from evencoil.plate.inputs import PlateInputs, SupplyInputs, TrustInputs
from evencoil.sizing.inputs import SizeInputs

SIZE = SizeInputs(
    conductor_material="cu",
    insulation="THWN",
    termination_c=75,
    ambient_c=Decimal(30),
    current_carrying=3,
    protection_kind="dual_element_fuse",
)


def job(plate, supply, trust=None, **size):
    """Calculate a job whose size inputs are all entered, so that no other mark is there."""
    return work_out(
        JobInputs(
            plate=PlateInputs(text=plate),
            supply=SupplyInputs(text=supply),
            size=SIZE.model_copy(update=size),
            trust=trust or TrustInputs(),
        )
    )


def step(worked, name):
    """Return a step by its name."""
    return next(one for one in worked.trail if one.id == name)


def marks(worked, name):
    """Return the kinds of marks on a step."""
    return {mark.kind for mark in step(worked, name).marks}


def codes(worked):
    """Return the codes of what the nameplate's checks found."""
    return {found.code for found in worked.reading.findings}


def test_phases_that_nobody_said_mark_every_figure_and_show_both_answers():
    """3 hp at 230 V: 9.6 A of three phases (430.250), 17 A of one (430.248)."""
    worked = job("3 HP 230 V", "230")

    assert step(worked, "table_flc_a").value == Decimal("9.6")
    for name in ("table_flc_a", "conductor_size", "protection_device_a", "disconnect_switch_a"):
        assert "assumed" in marks(worked, name), name
    said = next(say(one.message) for one in worked.reading.findings if one.field == "phases")
    assert "9.6 A" in said
    assert "17 A" in said


@pytest.mark.parametrize(
    ("plate", "phases", "amps"),
    [
        ("5 HP 230 V 28 A", 1, "28"),
        ("5 HP 230 V 15 A", 3, "15.2"),
        ("10 HP 230 V 50 A", 1, "50"),
        ("10 HP 230 V 25 A", 3, "28"),
    ],
)
def test_amps_that_fit_one_reading_decide_the_phases(plate, phases, amps):
    """28 A at 5 hp and 230 V is the single-phase row (28), far from the three-phase one (15.2)."""
    worked = job(plate, "230")

    assert worked.reading.plate.phases == phases
    assert step(worked, "table_flc_a").value == Decimal(amps)
    assert marks(worked, "table_flc_a") == set()
    assert f"by_amps_{phases}" in codes(worked)


@pytest.mark.parametrize(
    ("supply", "factor", "amps", "setting"),
    [
        ("240 delta 60 Hz", "1.0", "10.2", "11.730"),  # 10.2 x 1.15, 430.32(A)(1)
        ("240 delta 60 Hz", "1.15", "10.2", "12.750"),  # 10.2 x 1.25
        ("208Y/120 60 Hz", "1.0", "10.6", "12.190"),  # 10.6 x 1.15
        ("480Y/277 60 Hz", "1.15", "5.1", "6.375"),  # 5.1 x 1.25
    ],
)
def test_the_overload_takes_the_amps_of_the_volts_in_use(supply, factor, amps, setting):
    """Amps belong to their volts in stamped order: 10.6 at 208, 10.2 at 230, 5.1 at 460."""
    plate = f"3 HP 208-230/460 V 10.6-10.2/5.1 A 1750 RPM 60 HZ 3 PH SF {factor}"
    worked = job(plate, supply)

    assert step(worked, "plate_amps_a").value == Decimal(amps)
    assert step(worked, "overload_setting_a").value == Decimal(setting)


def test_amps_stamped_for_use_at_208_are_used_there():
    """USABLE AT 208 V 9.0 A: 9.0 x 1.25 = 11.25 A at service factor 1.25."""
    plate = "3 HP 230/460 V 8.2/4.1 A 1755 RPM 60 HZ 3 PH SF 1.25 USABLE AT 208V 9.0A"
    worked = job(plate, "208Y/120 60 Hz")

    assert step(worked, "overload_setting_a").value == Decimal("11.250")
    assert [found.code for found in worked.verdict.findings] == ["usable"]


def test_a_nameplate_in_amps_only_gives_its_power_by_the_table():
    """20 A at 230 V lies between 15.2 (5 hp) and 22 (7.5 hp): 5 + 4.8/6.8 x 2.5 = 6.765 hp."""
    worked = job("230 V 20 A 3 PH 60 HZ", "240 delta 60 Hz")

    assert round(step(worked, "power_hp").value, 3) == Decimal("6.765")
    assert step(worked, "table_flc_a").value == 20
    assert "430.6(A)(1)" in step(worked, "power_hp").rule.section


@pytest.mark.parametrize(
    ("plate", "supply", "flc"),
    [
        ("7.5 KW 460 V 3 PH 60 HZ", "480Y/277 60 Hz", "14"),  # 10.05 hp: the 10 hp row
        ("11 KW 460 V 3 PH 60 HZ", "480Y/277 60 Hz", "21"),  # 14.75 hp: 1.7 % below 15 hp
        ("3.7 KW 460 V 3 PH 60 HZ", "480Y/277 60 Hz", "7.6"),  # 4.96 hp: the 5 hp row
    ],
)
def test_a_power_in_kw_near_a_row_is_that_row(plate, supply, flc):
    """Within 3 % of a row the row is taken, and nothing is marked."""
    worked = job(plate, supply)

    assert step(worked, "table_flc_a").value == Decimal(flc)
    assert marks(worked, "table_flc_a") == set()


@pytest.mark.parametrize("plate", ["12 HP 460 V 3 PH 60 HZ", "9 KW 460 V 3 PH 60 HZ"])
def test_between_rows_minimums_follow_the_row_above_and_maximums_the_row_below(plate):
    """12 hp: conductor by 15 hp (21 x 1.25 = 26.25 A), fuse by 10 hp (14 x 1.75 = 24.5: 25 A)."""
    worked = job(plate, "480Y/277 60 Hz")

    assert step(worked, "required_ampacity_a").value == Decimal("26.25")
    assert step(worked, "protection_limit_a").value == Decimal("24.50")
    assert step(worked, "protection_device_a").value == 25
    assert "assumed" in marks(worked, "conductor_size") & marks(worked, "protection_device_a")

    settled = job(plate, "480Y/277 60 Hz", between_rows="next_row_up")
    assert step(settled, "protection_limit_a").value == Decimal("36.75")
    assert marks(settled, "protection_device_a") == set()


@pytest.mark.parametrize(
    ("plate", "supply", "overload"),
    [
        ("5 HP 277 V 24 A 1 PH 60 HZ SF 1.0", "277 1PH 60 Hz", "27.60"),  # 24 x 1.15
        ("11 KW 400 V 21 A 3 PH 50 HZ", "400Y/230 50 Hz", "24.15"),  # 21 x 1.15
    ],
)
def test_volts_without_a_column_still_have_an_overload(plate, supply, overload):
    """The overload goes by the nameplate; what needs the table is withheld with its way out."""
    worked = job(plate, supply)
    figures = {figure.id: figure for figure in worked.figures}

    assert step(worked, "overload_setting_a").value == Decimal(overload)
    assert figures["table_flc_a"].refusal.code == "not_in_table"
    assert figures["conductor_size"].refusal is not None


@pytest.mark.parametrize("phases", ["1 PH", "3 PH"])
def test_slow_motors_go_by_the_nameplate_at_any_number_of_phases(phases):
    """Below 1200 rpm 430.6(A)(1) takes the nameplate's amps: 14 x 1.25 = 17.5 A."""
    worked = job(f"2 HP 230 V 14 A 860 RPM 60 HZ {phases}", "240 delta 60 Hz")

    assert step(worked, "table_flc_a").value == 14
    assert step(worked, "required_ampacity_a").value == Decimal("17.50")


def test_amps_that_contradict_the_power_mark_the_overload_and_name_the_tables_amps():
    """140 A on a 10 hp, 460 V plate: the table gives 14 A."""
    worked = job("10 HP 460 V 140 A 1750 RPM 60 HZ 3 PH SF 1.15", "480Y/277 60 Hz")
    said = [say(mark.message) for mark in step(worked, "plate_amps_a").marks]

    assert "doubted" in marks(worked, "overload_setting_a")
    assert any("14 A" in text for text in said)
    assert "doubted" not in marks(worked, "protection_device_a")


@pytest.mark.parametrize(
    ("plate", "code"),
    [
        ("10 HP 460 V 14 A 3 PH 60 HZ SF 0.9", "factor_low"),
        ("10 HP 460 V 14 A 3 PH 60 HZ 1850 RPM", "speed"),
        ("10 HP 460 V 14 A 3 PH 60 HZ CODE Q", "out_of_range"),
        ("10 HP 460 V 14 A 3 PH 60 HZ CODE I", "out_of_range"),
    ],
)
def test_what_no_nameplate_can_say_is_doubted_and_not_calculated_on(plate, code):
    """Service factor below 1, a speed of no pole number, code letters that do not exist."""
    worked = job(plate, "480Y/277 60 Hz")

    assert code in {one.code for one in worked.reading.findings if one.level == "doubt"}
    assert step(worked, "overload_setting_a").value == Decimal("16.10")  # 14 x 1.15
    assert all(one.id != "locked_rotor_code_a" for one in worked.trail)


def test_a_plate_in_doubt_marks_every_size_and_holds_the_starter():
    """Nothing may be energized on it: sizes carry the mark, no starter is drawn."""
    worked = job(
        "10 HP 460 V 14 A 3 PH 60 HZ", "480Y/277 60 Hz", trust=TrustInputs(is_doubted=True)
    )

    assert all("doubted" in {mark.kind for mark in one.marks} for one in worked.trail)
    assert worked.starter.refusal is not None
    assert worked.starter.refusal.field == "trust"


def test_a_wound_rotor_plate_is_protected_as_one():
    """430.52: 150 % for a wound rotor, so 21 x 1.5 = 31.5 A, not 175 %."""
    worked = job("WOUND ROTOR 15 HP 460 V 20 A 3 PH 60 HZ SEC VOLTS 220 SEC AMPS 30", "480Y/277")

    assert step(worked, "protection_limit_a").value == Decimal("31.50")


def test_horsepower_beside_rated_load_amps_is_a_compressor():
    """Article 440: 125 % of 16.4 A is 20.5 A; no table current of a 5 hp motor."""
    worked = job("5 HP 230 V 3 PH 60 HZ RLA 16.4 LRA 105", "240 delta 60 Hz")
    names = {one.id for one in worked.trail}

    assert "table_flc_a" not in names
    assert step(worked, "required_ampacity_a").value == Decimal("20.50")


def test_a_units_stamped_limits_are_used_as_they_are():
    """440.4(B): minimum circuit ampacity 26.1 A and maximum overcurrent device 40 A."""
    worked = job("MCA 26.1 MOCP 40 460 V 3 PH 60 HZ COMPRESSOR RLA 19.2 LRA 137", "480Y/277 60 Hz")

    assert step(worked, "required_ampacity_a").value == Decimal("26.1")
    assert step(worked, "protection_device_a").value == 40
    assert step(worked, "protection_device_a").rule.section == "440.4(B)"


@pytest.mark.parametrize(
    ("size", "device"),
    [
        ({}, 30),  # 19.2 x 1.75 = 33.6, not above: 30
        ({"no_start": {"reason": "opened twice"}}, 40),  # 19.2 x 2.25 = 43.2, not above: 40
        ({"maker_limit": {"amps_a": "25", "source": "label"}}, 25),
    ],
)
def test_a_compressors_device_follows_its_records(size, device):
    """440.22(A): 175 %, up to 225 % only after a recorded no-start; the maker's limit counts."""
    entered = SizeInputs.model_validate({**SIZE.model_dump(mode="json"), **size})
    worked = work_out(
        JobInputs(
            plate=PlateInputs(text="460 V 3 PH 60 HZ COMPRESSOR RLA 19.2 LRA 137"),
            supply=SupplyInputs(text="480Y/277 60 Hz"),
            size=entered,
        )
    )

    assert step(worked, "protection_device_a").value == device


def test_a_compressor_counts_on_a_feeder_and_a_motor_of_other_volts_does_not():
    """440.33 with 430.24: 34 x 1.25 + 19.2 = 61.7 A; the 230 V motor is named, not added."""
    members = [
        FeederMember("A", job("25 HP 460 V 31 A 3 PH 60 HZ", "480Y/277 60 Hz")),
        FeederMember("C", job("460 V 3 PH 60 HZ COMPRESSOR RLA 19.2 LRA 137", "480Y/277 60 Hz")),
        FeederMember("B", job("5 HP 230 V 15 A 3 PH 60 HZ", "240 delta 60 Hz")),
    ]
    sheet = feeder_sheet(members, FeederInputs(), 2023)

    assert sheet.trail.number("feeder_ampacity_a") == Decimal("61.7")
    refused = {row.tag: row.refusal for row in sheet.rows if row.refusal is not None}
    assert set(refused) == {"B"}
    assert "240 V" in refused["B"].detail
