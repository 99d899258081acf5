"""Rules of starts, speeds, sources and devices, each worked by hand from its section."""

from decimal import Decimal

import pytest

from evencoil.base.words import say
from evencoil.job import JobInputs, choices, work_out
from evencoil.leads import LeadsInputs
from evencoil.plate import PlateInputs, SupplyInputs
from evencoil.sizing import SizeInputs


def job(plate, supply="480Y/277 60 Hz", start="full_voltage", **size):
    """Calculate a job; its trail by step."""
    entered = {
        "conductor_material": "cu",
        "termination_c": 75,
        "insulation": "THWN",
        "ambient_c": Decimal(30),
        "current_carrying": 3,
        "protection_kind": "dual_element_fuse",
    }
    worked = work_out(
        JobInputs(
            plate=PlateInputs(text=plate),
            supply=SupplyInputs(text=supply),
            size=SizeInputs(**{**entered, **size}),
            leads=LeadsInputs(start_method=start),
        )
    )
    return {step.id: step for step in worked.trail}


def doubts(step):
    """Return what is marked in doubt on a step, as said."""
    return [say(mark.message) for mark in step.marks if mark.kind == "doubted"]


@pytest.mark.parametrize(
    ("start", "plate", "least", "factor", "size"),
    [
        # 430.22(C): 124 x 72 % = 89.28; six conductors 80 %: 3 AWG 100 x 0.8 = 80, 2 AWG 92
        ("wye_delta", "100 HP 460 V 118 A 3 PH 60 HZ 6 LEADS", "89.28", "0.8", "2"),
        # 430.22(D): 52 x 62.5 % = 32.5; 10 AWG 35 x 0.8 = 28, 8 AWG 50 x 0.8 = 40
        ("part_winding", "40 HP 460 V 50 A 3 PH 60 HZ", "32.5", "0.8", "8"),
    ],
)
def test_six_motor_leads_in_one_raceway_are_adjusted(start, plate, least, factor, size):
    """310.15(C)(1): four to six current-carrying conductors take 80 %."""
    found = job(plate, start=start)

    assert found["leg_ampacity_a"].value == Decimal(least)
    assert found["leg_adjustment_factor"].value == Decimal(factor)
    assert found["leg_conductor_size"].value.size == size
    apart = job(plate, start=start, motor_leads_apart=True)
    assert apart["leg_adjustment_factor"].value == 1


@pytest.mark.parametrize(
    ("kind", "limit", "half"),
    [
        # 52 A: 175 % is 91, half 45.5: 45 A
        ("dual_element_fuse", "91.00", "45"),
        # 250 % is 130, half 65: 60 A
        ("inverse_time_breaker", "130.00", "60"),
    ],
)
def test_each_half_of_a_part_winding_motor_has_half_the_device(kind, limit, half):
    """430.4: not more than half; one dual-element fuse for both at most 150 %, 52 x 1.5 = 78: 70."""
    found = job("40 HP 460 V 50 A 3 PH 60 HZ", start="part_winding", protection_kind=kind)

    assert found["protection_limit_a"].value == Decimal(limit)
    assert found["half_device_a"].value == Decimal(half)
    assert "78 A (150 %): 70 A" in say(found["half_device_a"].tips[0].message)


def test_the_code_letter_of_a_wye_start_motor_is_not_divided_again():
    """430.7(B)(2): G is at most 6.29 kVA/hp; 50 hp at 460 V: 394.7 A in wye, from the line."""
    plate = "50 HP 460 V 62 A 3 PH 60 HZ CODE G 6 LEADS"
    wye = job(f"{plate} WYE START DELTA RUN", start="wye_delta")
    delta = job(plate, start="wye_delta")

    by_hand = Decimal("6.29") * 50 * 1000 / (Decimal(460) * Decimal(3).sqrt())
    assert round(wye["line_start_a"].value, 1) == round(by_hand, 1)
    assert round(delta["line_start_a"].value, 1) == round(by_hand / 3, 1)


def test_one_device_for_two_speeds_does_not_exceed_and_says_that_it_opens():
    """430.52(C)(4): 8.1 x 1.75 = 14.175, so 10 A; the large speed takes 26 A."""
    found = job("20/5 HP 460 V 26/8.1 A 1765/870 RPM 60 HZ 3 PH SF 1.15")

    assert found["protection_device_a"].value == 10
    assert any("26 A" in text for text in doubts(found["protection_device_a"]))


def test_with_each_winding_protected_the_device_and_all_conductors_follow_the_largest():
    """Exception: 26 x 1.75 = 45.5, next size 50; the second speed's conductor 26 x 1.25 = 32.5."""
    found = job(
        "20/5 HP 460 V 26/8.1 A 1765/870 RPM 60 HZ 3 PH SF 1.15", speeds={"each_protected": True}
    )

    assert found["protection_device_a"].value == 50
    assert found["speed_2_ampacity_a"].value == Decimal("32.5")
    assert doubts(found["protection_device_a"]) == []


def test_a_main_rule_device_below_full_load_current_is_said():
    """0.5 hp at 460 V: 1.1 A x 175 % = 1.925, main rule 1 A: it opens on the motor's own load."""
    found = job("0.5 HP 460 V 1 A 3 PH 60 HZ", rating_rule="main_rule")

    assert found["protection_device_a"].value == 1
    assert any(
        "below the full-load current of 1.1 A" in x for x in doubts(found["protection_device_a"])
    )


@pytest.mark.parametrize(
    ("source", "least"),
    [
        ("battery", "36.25"),  # 29 x 125 %
        ("three_phase_rectifier", "36.25"),
        ("full_wave_single_phase", "43.5"),  # 29 x 150 %
        ("half_wave_single_phase", "55.1"),  # 29 x 190 %
    ],
)
def test_a_rectifier_makes_direct_current_conductors_larger(source, least):
    """430.22(A): 7.5 hp at 240 V takes 29 A (Table 430.247)."""
    found = job("7.5 HP 240 VDC 28 A", "240 VDC", dc_source=source)

    assert found["table_flc_a"].value == 29
    assert found["required_ampacity_a"].value == Decimal(least)
    assert all(mark.kind != "assumed" for mark in found["required_ampacity_a"].marks)


def test_a_source_that_nobody_entered_is_asked_for_and_marked():
    """Battery or generator assumed, and every figure after it carries the mark."""
    found = job("7.5 HP 240 VDC 28 A", "240 VDC")

    assert found["required_ampacity_a"].value == Decimal("36.25")
    assert "assumed" in {mark.kind for mark in found["conductor_size"].marks}


def whole(plate, supply, **size):
    """Return a job calculated, and its figures by name."""
    worked = work_out(
        JobInputs(
            plate=PlateInputs(text=plate),
            supply=SupplyInputs(text=supply),
            size=SizeInputs(**size),
        )
    )
    return worked, {figure.id: figure for figure in worked.figures}


def test_a_drive_fed_motor_has_its_device_on_the_drives_input():
    """430.130: asked of the drive's maker; no switch between drive and motor is sized."""
    plate = "10 HP 460 V 13 A 1750 RPM 60 HZ 3 PH SF 1.15"
    _, figures = whole(plate, "460 drive")

    assert figures["protection_device_a"].refusal.field == "size.maker_limit"
    assert "disconnect_switch_a" not in figures
    assert figures["overload_setting_a"].refusal is None

    worked, figures = whole(
        plate, "460 drive", maker_limit={"amps_a": "25", "source": "drive manual"}
    )
    steps = {step.id: step for step in worked.trail}
    assert steps["protection_device_a"].value == 25
    assert steps["protection_device_a"].rule.section == "430.130"
    assert figures["grounding_conductor_size"].refusal is None


def test_no_starter_with_a_contactor_stands_between_drive_and_motor():
    """Only with the maker's interlock, which the reason says."""
    worked, _ = whole("10 HP 460 V 13 A 1750 RPM 60 HZ 3 PH", "460 drive")

    assert {one.verdict for one in choices(worked, "unknown")} == {"cannot"}
    assert all("interlock" in say(one.reason) for one in choices(worked, "unknown"))


def test_a_single_phase_motor_begins_with_the_starters_that_can():
    """The list starts with what can start it; the three-phase ones follow with their reason."""
    worked, _ = whole("5 HP 230 V 28 A 1750 RPM 60 HZ 1 PH", "240 1PH")
    verdicts = [one.verdict for one in choices(worked, "unknown")]

    assert verdicts[0] == "can"
    assert verdicts == sorted(verdicts, key=lambda verdict: verdict == "cannot")


@pytest.mark.parametrize(
    ("supply", "is_offered"),
    [("400Y/230", True), ("415", True), ("480Y/277 50 Hz", True), ("480Y/277", False)],
)
def test_another_code_is_offered_where_the_nec_does_not_reach(supply, is_offered):
    """380 to 415 V, or 50 Hz: said with the supply."""
    worked, _ = whole("11 KW 400-480 V 3 PH", supply)

    assert ("other_code" in {one.code for one in worked.supply_checks}) == is_offered


def test_outside_the_nec_the_overload_is_set_to_the_nameplates_amps():
    """No code is needed for it; every other size waits for the person's own figure."""
    worked = work_out(
        JobInputs(
            plate=PlateInputs(text="11 KW 400 V 21 A 50 HZ 3 PH"),
            supply=SupplyInputs(text="400Y/230 50Hz", territory="other"),
        )
    )
    found = {step.id: step for step in worked.trail}

    assert found["overload_setting_a"].value == 21
    assert found["overload_setting_a"].rule is None


COIL = {"label": "K1", "count": 1, "inrush_va": "250", "sealed_va": "30"}


@pytest.mark.parametrize(
    ("control", "verdict"),
    [
        # 100 VA at 120 V: 0.83 A x 167 % = 1.39, fuse 1.25 A; 14 AWG copper of its own: 15 A
        ({"coils": [COIL], "transformer_va": "100", "volts_v": "120", "conductor": "14"}, "holds"),
        # 2000 VA at 120 V: 16.7 A x 125 % = 20.8, next size 25 A, above 15 A
        ({"coils": [COIL], "transformer_va": "2000", "volts_v": "120", "conductor": "14"}, "fails"),
    ],
)
def test_a_control_conductor_is_judged_against_its_device(control, verdict):
    """430.72(B): the figure is compared, not only printed."""
    found = job("10 HP 460 V 13 A 3 PH 60 HZ", control=control)

    assert found["control_conductor"].verdict == verdict


@pytest.mark.parametrize(
    ("va", "fuse", "verdict"),
    [
        # 15 A x 120/480 = 3.75 A; 100 VA takes a 1 A primary fuse (0.208 x 500 % = 1.04)
        ("100", "1", "holds"),
        # 1000 VA: 2.083 A x 167 % = 3.48, fuse 3 A
        ("1000", "3", "holds"),
        # 2000 VA: 4.167 A x 167 % = 6.96, fuse 6 A
        ("2000", "6", "fails"),
        # 5000 VA: 10.42 A x 125 % = 13.02, next size up 15 A
        ("5000", "15", "fails"),
    ],
)
def test_a_two_wire_secondary_is_protected_by_the_primary_times_the_ratio(va, fuse, verdict):
    """430.72(B) exception 2: 14 AWG allows 15 A on the secondary side; 450.3(B), primary only."""
    found = job(
        "10 HP 460 V 13 A 3 PH 60 HZ",
        control={
            "coils": [COIL],
            "transformer_va": va,
            "volts_v": "120",
            "conductor": "14",
            "protection": "primary_only",
        },
    )

    assert found["primary_fuse_a"].value == Decimal(fuse)
    assert "secondary_fuse_a" not in found
    assert found["secondary_by_primary"].verdict == verdict
    assert "3.75 A" in say(found["secondary_by_primary"].working)


def test_secondary_volts_that_nobody_entered_are_marked():
    """120 V is usual, not read: the fuse that stands on it says so."""
    found = job("10 HP 460 V 13 A 3 PH 60 HZ", control={"coils": [COIL], "transformer_va": "100"})

    assert "assumed" in {mark.kind for mark in found["secondary_fuse_a"].marks}


def test_heat_above_what_the_motor_is_made_for_is_said_with_the_overload():
    """40 C unless the nameplate says more: the maker's factor is asked for."""
    plate = "10 HP 460 V 13 A 3 PH 60 HZ SF 1.15"

    assert any(
        "50 °C" in x for x in doubts(job(plate, ambient_c=Decimal(50))["overload_setting_a"])
    )
    assert doubts(job(f"{plate} AMB 55C", ambient_c=Decimal(50))["overload_setting_a"]) == []
    assert doubts(job(plate, ambient_c=Decimal(40))["overload_setting_a"]) == []


def test_an_overload_above_the_conductor_is_said():
    """30 A of nameplate amps x 1.25 = 37.5 A on a conductor chosen for 9.5 A."""
    found = job("5 HP 460 V 30 A 3 PH 60 HZ SF 1.15")

    # 7.6 A x 1.25 = 9.5 A: 14 AWG carries 20 A; the overload would be 37.5 A
    assert any("larger conductor" in x for x in doubts(found["overload_setting_a"]))


def test_low_volts_say_what_torque_is_left():
    """208 V on a 230 V plate: (208/230) squared is 81.8 % of the torque."""
    worked, _ = whole("5 HP 230 V 15 A 1750 RPM 60 HZ 3 PH", "208Y/120 60 Hz")
    (low,) = [one for one in worked.verdict.findings if one.code == "low"]

    assert round(Decimal(low.message.params["torque"]), 0) == 82


@pytest.mark.parametrize(("va", "verdict"), [("45", "holds"), ("50", "fails")])
def test_a_transformer_below_fifty_va_in_the_controller_needs_no_fuse(va, verdict):
    """430.72(C)(3): below 50 VA. The 40 A device ahead is above 15 A x 120/480 = 3.75 A."""
    found = job(
        "15 HP 460 V 19 A 3 PH 60 HZ",
        control={
            "coils": [COIL],
            "transformer_va": va,
            "volts_v": "120",
            "protection": "inherent",
        },
    )

    assert found["transformer_without_fuse"].verdict == verdict
    assert "primary_fuse_a" not in found
    assert found["secondary_by_primary"].verdict == "fails"
    assert "40 A there is too large" in say(found["secondary_by_primary"].working)


@pytest.mark.parametrize(
    ("place", "step", "verdict", "says"),
    [
        # 430.109(A): hp decides; 430.110(A) exception: 20 A is below 21 x 1.15 = 24.15
        (
            {"kind": "unfused_switch", "rated_hp": "15", "amps_a": "20"},
            "disconnect_rating",
            "holds",
            "horsepower is judged by that",
        ),
        (
            {"kind": "unfused_switch", "rated_hp": "10", "amps_a": "20"},
            "disconnect_rating",
            "fails",
            "short of",
        ),
        # 430.109(E): above 100 hp only
        ({"kind": "isolating_switch"}, "disconnect_kind", "fails", "above 100 hp only"),
    ],
)
def test_a_disconnect_by_its_exceptions(place, step, verdict, says):
    """15 hp at 480 V: 21 A by the table."""
    found = job("15 HP 460 V 19 A 3 PH 60 HZ", place=place)

    assert found[step].verdict == verdict
    assert says in say(found[step].working)


def test_an_isolating_switch_is_allowed_above_a_hundred_horsepower():
    """430.109(E): 125 hp."""
    found = job("125 HP 460 V 143 A 3 PH 60 HZ", place={"kind": "isolating_switch"})

    assert found["disconnect_kind"].verdict == "holds"
    assert "not to be opened under load" in say(found["disconnect_kind"].working)


def test_a_disconnect_without_fuses_goes_by_its_amps_alone():
    """15 hp: fuse 21 x 1.75 = 36.75, next 40 A: clips of a 60 A switch; 24.15 A alone: 30 A."""
    fused = job("15 HP 460 V 19 A 3 PH 60 HZ")
    elsewhere = job("15 HP 460 V 19 A 3 PH 60 HZ", place={"has_no_fuse": True})

    assert fused["disconnect_switch_a"].value == 60
    assert elsewhere["disconnect_switch_a"].value == 30


@pytest.mark.parametrize(
    ("machine", "section"),
    [("listed_appliance", "430.6(A)(1) Ex. 3"), ("marked_fan", "430.6(A)(1) Ex. 2")],
)
def test_a_marked_current_goes_before_the_table(machine, section):
    """0.5 hp at 115 V is 9.8 A in the table; 6 A is marked: conductors 6 x 1.25 = 7.5 A."""
    found = job("1/2 HP 115 V 6 A 1 PH 60 HZ", "120 1 PH 60 Hz", machine=machine)

    assert found["table_flc_a"].value == 6
    assert found["table_flc_a"].rule.section == section
    assert found["required_ampacity_a"].value == Decimal("7.5")


@pytest.mark.parametrize(
    ("height", "sf", "says"),
    [
        ("3300", "1.0", ""),
        ("5000", "1.0", "above 3300 ft: the motor must carry less"),
        ("6000", "1.15", "service factor is used up"),
        ("9500", "1.15", "above 3300 ft: the motor must carry less"),
    ],
)
def test_altitude_asks_for_the_makers_factor(height, sf, says):
    """MG 1 14.4: 3300 ft without derating; a service factor of 1.15 stands for it to 9000 ft."""
    found = job(f"10 HP 460 V 13 A 3 PH 60 HZ SF {sf}", site={"altitude_ft": height})

    told = " ".join(doubts(found["overload_setting_a"]))
    assert (says in told) if says else not told


def test_the_makers_factor_lowers_the_overload():
    """13 A x 90 % = 11.7 A; x 125 % = 14.625 A; absolute 140 % = 16.38 A. No doubt is left."""
    found = job(
        "10 HP 460 V 13 A 3 PH 60 HZ SF 1.15",
        site={"altitude_ft": "6000", "load_percent": "90", "source": "maker's leaflet"},
    )

    assert found["derated_amps_a"].value == Decimal("11.7")
    assert found["overload_setting_a"].value == Decimal("14.625")
    assert found["overload_ceiling_a"].value == Decimal("16.38")
    assert not doubts(found["overload_setting_a"])


@pytest.mark.parametrize(
    ("output", "verdict", "says"),
    [
        ("460", "holds", "Set to 460 V"),
        ("230", "fails", "connected for 460 V: weak"),
        ("500", "fails", "cannot give more"),
    ],
)
def test_a_drives_output_is_held_against_the_joints(output, verdict, says):
    """A motor joined for 460 V wants 414 to 506 V, and a drive gives no more than it gets."""
    found = job("10 HP 460 V 13 A 3 PH 60 HZ", drive={"input_a": "16", "output_v": output})

    assert found["drive_output"].verdict == verdict
    assert says in say(found["drive_output"].working)


def test_too_much_of_a_drives_output_is_too_much_flux():
    """The box is joined for 230 V (253 V at most), the drive is set to 460 V."""
    found = job(
        "10 HP 230/460 V 26/13 A 3 PH 60 HZ",
        "drive 230 V 60 Hz 3 PH",
        drive={"input_a": "30", "output_v": "460"},
        maker_limit={"amps_a": "60", "source": "drive manual"},
    )
    assert found["drive_output"].verdict == "fails"
    assert "connected for 230 V: too much flux" in say(found["drive_output"].working)


def test_the_code_letter_of_a_measured_start():
    """140 A at 460 V: 1.732 x 460 x 140 / 1000 / 15 = 7.436 kVA per hp, letter J (7.10 to 7.99)."""
    found = job(
        "15 HP 460 V 19 A 3 PH 60 HZ CODE G", measured_start={"amps_a": "70", "volts_v": "230"}
    )

    assert found["locked_rotor_measured_a"].value == 140
    assert found["code_letter_measured"].value == "J"
    assert any("stamped G" in text for text in doubts(found["code_letter_measured"]))
    assert any("well below" in text for text in doubts(found["locked_rotor_measured_a"]))


@pytest.mark.parametrize(
    ("feeder", "total", "verdict"), [("2", "4.39", "holds"), ("3.2", "5.59", "fails")]
)
def test_feeder_and_branch_circuit_drop_together(feeder, total, verdict):
    """10 AWG in steel: 1.2 x 0.85 + 0.063 x 0.527 = 1.053 ohm; 1.732 x 21 x 0.3 x 1.053 = 11.49 V."""
    found = job(
        "15 HP 460 V 19 A 3 PH 60 HZ",
        termination_c=None,
        run_length_ft=Decimal(300),
        feeder_drop_percent=Decimal(feeder),
    )

    assert found["total_drop_percent"].shown == f"{total} %"
    assert found["total_drop_percent"].verdict == verdict
