"""Refusals read as a person reads them: code, field, what is wrong, and what to do next, in full."""

import pytest

from evencoil.base import CoreError
from evencoil.base.words import say
from evencoil.job import JobInputs, work_out
from evencoil.plate import read, read_supply
from evencoil.plate.supply import judge

PLATE = "15 HP 230/460 V 38.6/19.3 A 1765 RPM 60 HZ 3 PH SF 1.15 CODE G DES B 9 LEADS"


def job(plate=PLATE, supply="480Y/277", **steps):
    """Calculate a job from plain inputs."""
    given = {"plate": {"text": plate}, "supply": {"text": supply}, **steps}
    return work_out(JobInputs.model_validate(given))


@pytest.mark.parametrize(
    ("text", "code", "says", "do"),
    [
        (
            "480Y/120",
            "refused",
            "480 V is 4 times 120 V; no system has that pair.",
            "A wye of that voltage has 277.13 V to ground. Read the pair again.",
        ),
        (
            "480 2PH",
            "out_of_range",
            "2 phases are not supported.",
            "Type 1 or 3 phases.",
        ),
        (
            "480 40 Hz",
            "out_of_range",
            "40 Hz is not a supply frequency.",
            "Type 50 or 60 Hz.",
        ),
        (
            "0",
            "out_of_range",
            "0 V is not a supply voltage.",
            "Supply volts are above 0 and at most 15000. Type the system's name.",
        ),
        (
            "-480",
            "out_of_range",
            "-480 V is not a supply voltage.",
            "Supply volts are above 0 and at most 15000. Type the system's name.",
        ),
        (
            "480Y\u0007",
            "out_of_range",
            "“U+0007” is not a supply system.",
            "Type volts and kind, for example 480Y/277, 240 delta, 120/240 1PH.",
        ),
        (
            "hot",
            "out_of_range",
            "“hot” is not a supply system.",
            "Type volts and kind, for example 480Y/277, 240 delta, 120/240 1PH.",
        ),
        (
            "20000",
            "out_of_range",
            "20000 V is not a supply voltage.",
            "Supply volts are above 0 and at most 15000. Type the system's name.",
        ),
    ],
)
def test_a_supply_that_cannot_be(text, code, says, do):
    """Each names the volts, phases or hertz as typed."""
    with pytest.raises(CoreError) as caught:
        read_supply(text)

    assert (caught.value.code, str(caught.value), say(caught.value.hint)) == (code, says, do)


@pytest.mark.parametrize(
    ("plate", "supply", "code", "says", "do"),
    [
        (
            PLATE,
            "120 1PH",
            "refused",
            "A three-phase motor cannot start on a single-phase supply.",
            "Use a three-phase supply, a phase converter or a drive.",
        ),
        (
            "5 HP 230 V 1 PH",
            "240 VDC",
            "refused",
            "A motor for alternating current must not be connected to direct current.",
            "Read nameplate and supply again; write DC where it is direct current.",
        ),
        (
            "5 HP 240 VDC",
            "240 1PH",
            "refused",
            "A direct-current motor must not be connected to alternating current.",
            "Read nameplate and supply again; write DC where it is direct current.",
        ),
        (
            "460 V 60 HZ 3 PH",
            "460 delta 50 Hz",
            "refused",
            "460 V at 50 Hz is 9.2 volts per hertz; the nameplate's 460 V at 60 Hz is 7.67. 120 % of its flux saturates the iron, and the motor burns out.",
            "Use the voltage that keeps 7.67 volts per hertz, or another motor.",
        ),
        (
            PLATE,
            "600Y/347",
            "refused",
            "600 V is 1.3 times the nameplate's 460 V. The motor would burn out.",
            "Use a supply within 10 % of a nameplate voltage, a transformer, or another motor.",
        ),
        (
            "15 HP 460 V 3 PH",
            "208Y/120",
            "refused",
            "208 V is only 0.45 of the nameplate's 460 V. The motor would not carry its load.",
            "Use a supply within 10 % of a nameplate voltage, a transformer, or another motor.",
        ),
    ],
)
def test_a_motor_that_must_not_be_put_on_a_supply(plate, supply, code, says, do):
    """What would happen, by how much it is off, and what to use instead."""
    with pytest.raises(CoreError) as caught:
        judge(read(plate).plate, read_supply(supply))

    assert (caught.value.code, str(caught.value), say(caught.value.hint)) == (code, says, do)


@pytest.mark.parametrize(
    ("given", "figure", "code", "field", "says", "do"),
    [
        (
            {"plate": "460 V 3 PH"},
            "table_flc_a",
            "missing",
            "power_hp",
            "The nameplate gives no hp or kW.",
            "Add the power as stamped, for example 15 HP.",
        ),
        (
            {"plate": "460 V 3 PH"},
            "conductor_size",
            "missing",
            "table_flc_a",
            "The full-load current comes first.",
            "Enter what the full-load current needs.",
        ),
        (
            {"plate": "600 HP 460 V 3 PH"},
            "table_flc_a",
            "not_in_table",
            "power_hp",
            "Table 430.250 ends at 500 hp; this motor has 600 hp.",
            "Size it from the nameplate current by hand, with the engineer in charge.",
        ),
        (
            {"plate": "250 HP 230 V 3 PH", "supply": "240 delta"},
            "table_flc_a",
            "not_in_table",
            "supply.text",
            "Table 430.250 gives no current for 250 hp at 230 V.",
            "A motor of this power is not made for this voltage. Read hp and volts again.",
        ),
        (
            {"plate": "11 KW 400 V 3 PH", "supply": "400Y/230"},
            "table_flc_a",
            "not_in_table",
            "supply.text",
            "Table 430.250 has no column for 400 V.",
            "Columns: 115, 200, 208, 230, 460, 575, 2300 V. For other voltages this code gives no size; use the rules that apply where you are.",
        ),
        (
            {"plate": "15 HP 460 V 3 PH 880 RPM"},
            "table_flc_a",
            "missing",
            "amps_a",
            "880 rpm is below 1200 rpm. The nameplate current governs, and it is not known.",
            "Read the amps off the nameplate at this voltage.",
        ),
        (
            {"plate": "10/5 HP 460 V 6 LEADS 3 PH"},
            "table_flc_a",
            "missing",
            "amps_a",
            "The nameplate gives 2 powers and 0 currents.",
            "Type one current for each speed, in the order of the powers: 20/5 HP, 26/8.1 A.",
        ),
        (
            {"plate": "400 HP 2300 V 92 A 3 PH", "supply": "2400 delta"},
            "table_flc_a",
            "refused",
            "supply.text",
            "2400 V is over 1000 V: Part XI of Article 430 applies (430.221 and on), which these sizes do not cover.",
            "Have the circuit designed by Part XI and the maker's data.",
        ),
        (
            {"plate": "5 HP 220 V 2 PH", "supply": "220 delta"},
            "table_flc_a",
            "refused",
            "phases",
            "A two-phase motor is sized by Table 430.249, which is not included.",
            "Look the current up in Table 430.249 and enter your own sizes.",
        ),
        (
            {"plate": "COMPRESSOR 460 V 3 PH LRA 100"},
            "hermetic_current_a",
            "missing",
            "rated_load_amps_a",
            "The nameplate gives no rated-load current for this voltage.",
            "Read RLA again, beside the voltage in use.",
        ),
        (
            {"plate": "COMPRESSOR 460 V 3 PH LRA 100"},
            "conductor_size",
            "missing",
            "hermetic_current_a",
            "Current for sizing comes first, and is not known yet.",
            "Enter what it needs; its own line says what is missing.",
        ),
        (
            {"size": {"ambient_c": "90"}},
            "conductor_size",
            "out_of_range",
            "size.ambient_c",
            "90 °C is outside the table, which ends at 85 °C.",
            "Measure the air around the raceway, in °C.",
        ),
        (
            {"size": {"protection_kind": "instantaneous_breaker"}, "plate": "460 V 3 PH RLA 20"},
            "protection_device_a",
            "not_in_table",
            "size.protection_kind",
            "An instantaneous-trip breaker is not allowed for a compressor.",
            "Choose a fuse or an inverse-time breaker.",
        ),
        (
            {"size": {"existing": {"cable": "cord", "cable_size": "12"}}},
            "existing_cable",
            "not_in_table",
            "size.existing.cable",
            "Cords have their own ampacities, which are not included.",
            "Look the cord up in Table 400.5 and compare it with the minimum ampacity.",
        ),
        (
            {"size": {"place": {"motor_ft": "20"}}},
            "motor_disconnect_place",
            "missing",
            "size.place.motor_visible",
            "Whether it is in sight is not entered.",
            "Stand at the disconnect and look; then answer.",
        ),
        (
            {"size": {"overload": {"place": "line"}}},
            "relay_setting_a",
            "missing",
            "size.overload.dial_has_125",
            "What the dial's figures mean is not entered: motor amps, at which it trips 25 % higher, or trip amps.",
            "Read it in the relay's instructions and choose; the setting differs by a quarter.",
        ),
        (
            {"plate": "10 HP 460 V 3 PH", "supply": "460 drive"},
            "protection_device_a",
            "missing",
            "size.maker_limit",
            "The fuse or breaker is on the drive's input; its maker gives kind and largest rating (430.130).",
            "Read it in the drive's instructions and enter it as the maker's limit, with the source.",
        ),
        (
            {"plate": "10 HP 460 V 3 PH", "supply": "460 drive"},
            "overload_setting_a",
            "missing",
            "amps_a",
            "No nameplate current at this voltage, so the overload cannot be set.",
            "Read the amps from the nameplate; the table current is not for overloads.",
        ),
    ],
)
def test_a_size_that_is_withheld(given, figure, code, field, says, do):
    """The first thing that is missing, and the step that cures it."""
    refused = {one.id: one.refusal for one in job(**given).figures}[figure]

    assert (refused.code, refused.field) == (code, field)
    assert (refused.detail, refused.hint) == (says, do)


@pytest.mark.parametrize(
    ("leads", "given", "code", "field", "says", "do"),
    [
        (
            {"joints": [{"id": "a", "leads": ["T1", "T99"]}]},
            {},
            "missing",
            "leads.winding",
            "9 leads, and the nameplate does not say wye or delta.",
            "Locked out, read ohms: three pairs and a trio is wye, three trios is delta.",
        ),
        (
            {"joints": [{"id": "a", "leads": ["T1", "T2"]}, {"id": "b", "leads": ["T1"]}]},
            {},
            "missing",
            "leads.winding",
            "9 leads, and the nameplate does not say wye or delta.",
            "Locked out, read ohms: three pairs and a trio is wye, three trios is delta.",
        ),
        (
            {"winding": "9-wye", "start_method": "wye_delta"},
            {},
            "refused",
            "leads.start_method",
            "The star of T7, T8 and T9 is inside: the six coil ends needed for wye-delta are not brought out.",
            "Use another way to start, or a motor of six or twelve leads that runs in delta on this supply.",
        ),
        (
            {"winding": "6"},
            {},
            "refused",
            "leads.winding",
            "A six-lead wye-delta winding does not have 9 leads.",
            "Count the leads again, or choose another winding type.",
        ),
        (
            {"winding": "9-wye"},
            {"supply": "240 1PH"},
            "refused",
            "supply.text",
            "A three-phase motor cannot start on a single-phase supply.",
            "Use a three-phase supply, a phase converter or a drive.",
        ),
        (
            {},
            {"plate": "15 HP 230/460 V 38.6/19.3 A 3 PH"},
            "missing",
            "leads",
            "The nameplate does not say how many leads there are.",
            "Count them in the box, without thermostat and heater leads, and choose the number here.",
        ),
        (
            {},
            {},
            "missing",
            "leads.winding",
            "9 leads, and the nameplate does not say wye or delta.",
            "Locked out, read ohms: three pairs and a trio is wye, three trios is delta.",
        ),
    ],
)
def test_leads_that_cannot_be_joined(leads, given, code, field, says, do):
    """The reason lies in the winding, the supply or the nameplate."""
    box = job(leads=leads, **given).box
    errors = [error for error in (box.derived_error, box.outcome_error) if error is not None]

    assert (code, field, says, do) in [
        (error.code, error.field, str(error), say(error.hint)) for error in errors
    ]


@pytest.mark.parametrize(
    ("starter", "code", "field", "says", "do"),
    [
        (
            {"standard_circuit": "99Z"},
            "not_in_table",
            "starter.standard_circuit",
            "99Z is not a standard circuit.",
            "Standard circuits: 1A, 1B, 1C, 1D, 1E, 2A, 2B, 3A, 3B, 3C, 3D, 4A, 4B, 5A, 5B, 5C, 6A, 6B, 6C, 6D, 6E, 7A, 7B, 8A, 9A, 9B, 9C, 10A, 11A, 11B, 11C, 12A, 12B, 12C, 13A, 13B, 13C, 13D, 13E, 14A, 14B, 14C, 14D, 14E, 15A, 15B, 16A, 17A, 17B, 17C.",
        ),
        (
            {"standard_circuit": "3A", "options": {"x": "y"}},
            "out_of_range",
            "starter.options.x",
            "3A has no option x.",
            "It has: reset, stations, lamps, overload_side, estop, local_isolator, protection, control_source, control_primary, control_tap, main_auxiliary, control_volts, test_feed.",
        ),
        (
            {"standard_circuit": "3A", "options": {"lamps": "blue"}},
            "out_of_range",
            "starter.options.lamps",
            "lamps cannot be blue.",
            "It takes: as_drawn, none, run, run_trip, run_off_trip.",
        ),
    ],
)
def test_a_starter_that_cannot_be_drawn(starter, code, field, says, do):
    """What there is instead is listed."""
    refused = job(starter=starter).starter.refusal

    assert (refused.code, refused.field) == (code, field)
    assert (str(refused), say(refused.hint)) == (says, do)
