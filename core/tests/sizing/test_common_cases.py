"""The commonest motor circuits, worked by hand, and what no single case shows."""

import json
from decimal import Decimal
from pathlib import Path

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from evencoil.base.evidence import Trail
from evencoil.base.words import say
from evencoil.job.inputs import JobInputs
from evencoil.job.work_out import work_out
from evencoil.leads.inputs import LeadsInputs
from evencoil.machine.taps import group_device, tap_conductor
from evencoil.plate.inputs import PlateInputs, SupplyInputs
from evencoil.sizing.conductor import ConductorFacts
from evencoil.sizing.control import ControlCoil, control_conductor, control_transformer
from evencoil.sizing.inputs import SizeInputs
from evencoil.sizing.starting import full_load_torque, slip

HERE = Path(__file__).parents[1] / "cases"
CASES = json.loads((HERE / "common.json").read_text())["cases"]
EXAMPLES = {
    case["id"]: case for case in json.loads((HERE / "sizing_examples.json").read_text())["cases"]
}
USUAL = {"conductor_material": "cu", "termination_c": 75, "insulation": "THWN"}


def worked(plate, supply, size=None, start="full_voltage"):
    """Work a circuit out and return it with its steps by id."""
    done = work_out(
        JobInputs(
            plate=PlateInputs(text=plate),
            supply=SupplyInputs(text=supply),
            size=SizeInputs(**{**USUAL, **(size or {})}),
            leads=LeadsInputs(start_method=start),
        )
    )
    return done, {step.id: step for step in done.steps}


@pytest.mark.parametrize("case", CASES, ids=lambda case: case["id"])
def test_common_circuits_come_out_as_worked_by_hand(case):
    """Every figure of the case is met exactly; the arithmetic stands in the file."""
    _, found = worked(
        case["plate"], case["supply"], case.get("size"), case.get("start", "full_voltage")
    )

    for name, expected in case["expect"].items():
        step = found[name]
        is_number = isinstance(step.value, Decimal)
        assert (step.value if is_number else step.text) == (
            Decimal(expected) if is_number else expected
        ), name


def test_a_tap_of_twenty_feet_has_a_third():
    """TP-01: 4/0 carries 230 A; a third is 76.667 A, more than the motor's 26.25: 4 AWG."""
    expected, trail = EXAMPLES["TP-01"]["expected"], Trail()
    step = tap_conductor(
        feeder_ampacity_a=Decimal(230),
        feeder_device_a=Decimal(225),
        motor_least_a=Decimal("26.25"),
        length_ft=Decimal(20),
        is_protected=True,
        is_group=False,
        to="overload",
        facts=ConductorFacts(),
        terminal_c=75,
        edition=2020,
        trail=trail,
    )
    assert round(float(trail.number("tap_least_a")), 3) == expected["third_of_feeder_A"]
    assert f"{step.shown} Cu" == expected["conductor"]


@pytest.mark.parametrize(
    ("feet", "is_protected", "is_group", "to", "least"),
    [
        ("10", True, False, "overload", "26.25"),  # a tenth of 225 is less than the motor's
        ("10", False, False, "overload", "230"),  # not guarded: the feeder's own
        ("26", True, False, "overload", "230"),
        ("9", True, True, "overload", "76.67"),  # in a group a tenth needs a listed controller
        ("9", True, True, "listed_controller", "26.25"),
    ],
)
def test_taps_by_length_and_guard(feet, is_protected, is_group, to, least):
    """What a tap must carry, for each length."""
    trail = Trail()
    tap_conductor(
        feeder_ampacity_a=Decimal(230),
        feeder_device_a=Decimal(225),
        motor_least_a=Decimal("26.25"),
        length_ft=Decimal(feet),
        is_protected=is_protected,
        is_group=is_group,
        to=to,
        facts=ConductorFacts(),
        terminal_c=75,
        edition=2023,
        trail=trail,
    )
    assert trail["tap_least_a"].shown == least


def test_a_group_goes_by_its_largest_and_by_what_is_listed():
    """40 A for the largest plus 7.6 A: 47.6; a label that says 45 wins."""
    trail = Trail()
    common = {"largest_device_a": Decimal(40), "other_flc_a": Decimal("7.6"), "edition": 2023}
    assert (
        group_device(**common, listed_most_a=None, device_a=Decimal(45), trail=trail).verdict
        == "holds"
    )
    assert trail["group_most_a"].value == Decimal("47.6")
    tighter = group_device(**common, listed_most_a=Decimal(30), device_a=Decimal(45), trail=Trail())
    assert tighter.verdict == "fails"


def test_speed_slip_and_torque():
    """SP-01: 1750 rpm at 60 Hz: four poles, 1800 rpm, 2.778 %, 25 hp is 75.03 lb-ft."""
    expected, trail = EXAMPLES["SP-01"]["expected"], Trail()
    slip(Decimal(1750), Decimal(60), edition=2020, trail=trail)
    torque = full_load_torque(Decimal(25), Decimal(1750), edition=2020, trail=trail)
    assert trail.number("synchronous_rpm") == expected["sync_rpm"]
    assert round(float(trail.number("slip_percent")), 3) == expected["slip_pct"]
    assert round(float(torque.value), 2) == expected["torque_lbft"]


@pytest.mark.parametrize(
    ("size", "leaves", "is_tapped", "most"),
    [
        ("14", False, True, 100),  # CC-02
        ("14", True, True, 45),
        ("12", True, True, 60),
        ("18", True, True, 7),
        ("14", True, False, 15),  # a fuse of its own: the ampacity in the 60 C column
        ("8", True, True, 120),  # three times the 40 A of the 60 C column
    ],
)
def test_devices_in_front_of_control_wires(size, leaves, is_tapped, most):
    """Table 430.72(B), its three columns and their notes."""
    step = control_conductor(
        size, "cu", leaves_enclosure=leaves, is_tapped=is_tapped, edition=2017, trail=Trail()
    )
    assert step.value == most


def test_a_control_transformer_pulls_in_the_largest_while_the_others_hold():
    """Two 27 VA held, lamps 10, one 245 VA pulling in: 37 + 245 = 282; 64 x 1.25 = 80: 100 VA."""
    trail = Trail()
    coils = [
        ControlCoil(label="K1", count=2, inrush_va=Decimal(245), sealed_va=Decimal(27)),
        ControlCoil(label="KT", count=1, inrush_va=Decimal(20), sealed_va=Decimal(0)),
    ]
    step = control_transformer(coils, Decimal(10), edition=2023, trail=trail)
    assert trail.number("sealed_va") == 64
    assert trail.number("inrush_va") == 282
    assert step.value == 100


THERE = {
    "existing": {
        "cable": "NM",
        "cable_size": "10",
        "terminal_c": 75,
        "device_a": "60",
        "trip_a": "48.25",
        "plug_a": "30",
        "plug_v": "250",
    },
    "fault": {"device_ka": "5", "starter_ka": "65", "device_volts": "480Y/277"},
    "place": {
        "controller_ft": "8",
        "controller_visible": True,
        "motor_ft": "75",
        "motor_visible": True,
        "lockable": True,
        "kind": "general_use_switch",
        "amps_a": "30",
    },
    "overload": {
        "dial_has_125": False,
        "units": 2,
        "trip_class": 10,
        "accelerates_s": "30",
        "low_a": "9",
        "high_a": "20",
    },
    "raceway": {"kind": "EMT", "trade_size": "1/2"},
}
PLATE = "15 HP 230/460 V 38.6/19.3 A 1765 RPM 60 HZ 3 PH SF 1.15 CODE G DES B 9 LEADS"


def test_what_is_there_is_judged_part_by_part_with_the_reason():
    """Heaters of the low voltage, a 60 A fuse no one recorded, NM cable, a 250 V plug."""
    done, found = worked(PLATE, "480Y/277", THERE)

    said = {name: (step.verdict, step.working.id) for name, step in found.items() if step.verdict}
    assert said == {
        # 10 NM carries its 60 C ampacity, 30 A, whatever the lugs are: more than 26.25
        "existing_cable": ("holds", "existing.cable.holds"),
        "existing_device": ("fails", "existing.device.too_large"),  # cap 47.25: 45 A
        "existing_heaters": ("fails", "existing.heaters.left"),  # 48.25 is 125 % of 38.6
        "existing_plug": ("fails", "existing.plug.volts"),
        "device_interrupting": ("fails", "fault.interrupting.fails"),
        "starter_short_circuit": ("holds", "fault.withstand.holds"),
        "device_volts": ("holds", "fault.volts.slash"),
        "controller_disconnect_place": ("holds", "place.controller.holds"),
        "motor_disconnect_place": ("fails", "place.motor_no_excuse"),
        "disconnect_kind": ("fails", "place.general_use_switch.fails"),
        "disconnect_rating": ("holds", "place.rating.holds"),  # 24.15 A
        "overload_units": ("fails", "relay.units.two"),
        "relay_dial": ("fails", "relay.dial.below"),
        "trip_class": ("fails", "relay.class.fails"),
        "weakest_part": ("fails", "existing.weakest"),
        "raceway_size": ("holds", "raceway.holds"),  # 4 x 0.0211 = 0.0844, room 0.122
    }
    assert found["weakest_part"].shown == "Overload dial"
    assert done.figures[-1].id == "weakest_part"
    # no one told the fault current, and that marks the verdicts
    assert any(mark.origin == "fault_current_a" for mark in found["device_interrupting"].marks)


def test_slash_ratings_need_a_grounded_wye():
    """480Y/277 on a 480 V delta is refused; straight 480 holds on both; 240 on neither."""
    for marked, supply, verdict in (
        ("480Y/277", "480Y/277", "holds"),
        ("480Y/277", "480 delta", "fails"),
        ("480", "480 delta", "holds"),
        ("240", "480Y/277", "fails"),
    ):
        _, found = worked(PLATE, supply, {"fault": {"device_volts": marked}})
        assert found["device_volts"].verdict == verdict, (marked, supply)


def test_the_overload_is_set_for_where_it_lies():
    """In a delta leg 58 % of 24.125 = 13.9925; behind 100:5 transformers a twentieth."""
    _, found = worked(PLATE, "480Y/277", {"overload": {"place": "leg", "dial_has_125": False}})
    assert found["relay_setting_a"].value == Decimal("13.9925")
    _, found = worked(
        PLATE,
        "480Y/277",
        {"overload": {"ct_primary_a": "100", "ct_secondary_a": "5", "dial_has_125": False}},
    )
    assert found["relay_setting_a"].value == Decimal("1.20625")
    _, found = worked(PLATE, "480Y/277", {"overload": {"dial_has_125": True}})
    assert found["relay_setting_a"].value == Decimal("19.3")
    # 19.3 x 1.25 = 24.125, said with the dial
    assert "trips at 24.12 A" in say(found["relay_setting_a"].working)


def test_what_nobody_looked_at_is_asked_and_not_supposed():
    """In sight or not, and what a dial's figures mean: each is a question with its field."""
    done, _ = worked(
        PLATE, "480Y/277", {"place": {"motor_ft": "20"}, "overload": {"place": "line"}}
    )
    refused = {figure.id: figure.refusal for figure in done.figures if figure.refusal}

    assert refused["motor_disconnect_place"].field == "size.place.motor_visible"
    assert refused["relay_setting_a"].field == "size.overload.dial_has_125"


@pytest.mark.parametrize(
    ("size", "figure", "field"),
    [
        (
            {"duty": {"service": "short_time", "rating": "continuous"}},
            "conductor_size",
            "size.duty.rating",
        ),
        (
            {"raceway": {"kind": "EMT", "trade_size": "9"}},
            "raceway_size",
            "size.raceway.trade_size",
        ),
        (
            {"existing": {"cable": "cord", "cable_size": "12"}},
            "existing_cable",
            "size.existing.cable",
        ),
        (
            {"existing": {"cable": "MC", "cable_size": "11"}},
            "existing_cable",
            "size.existing.cable_size",
        ),
        ({"fault": {"device_volts": "lots"}}, "device_volts", "size.fault.device_volts"),
        ({"control": {"conductor": "22"}}, "control_device_most_a", "size.control.conductor"),
        ({"insulation": "TW", "termination_c": 60, "raceway": {}}, "raceway_size", "size.raceway"),
    ],
)
def test_a_part_that_cannot_be_worked_out_says_why_and_takes_no_other_with_it(size, figure, field):
    """One refusal, with its field; the branch circuit's device stands."""
    done, found = worked(PLATE, "480Y/277", size)
    refused = {line.id: line.refusal.field for line in done.figures if line.refusal}
    assert refused[figure] == field
    assert "protection_device_a" in found


@settings(deadline=None, max_examples=40)
@given(
    trip=st.decimals("1", "200", places=1),
    device=st.decimals("1", "200", places=0),
    size=st.sampled_from(["14", "12", "10", "8", "6", "4", "1/0"]),
)
def test_more_is_never_worse_for_wire_and_never_better_for_heaters(trip, device, size):
    """A larger cable holds where a smaller did; a heater that trips later never holds alone."""
    order = ["14", "12", "10", "8", "6", "4", "1/0"]
    there = {"cable": "MC", "cable_size": size, "trip_a": str(trip), "device_a": str(device)}
    _, found = worked(PLATE, "480Y/277", {"existing": there})
    larger = order[min(order.index(size) + 1, len(order) - 1)]
    more = {**there, "cable_size": larger, "trip_a": str(trip + 30)}
    _, beyond = worked(PLATE, "480Y/277", {"existing": more})
    if found["existing_cable"].verdict == "holds":
        assert beyond["existing_cable"].verdict == "holds"
    if trip > Decimal("24.125"):
        assert found["existing_heaters"].verdict == beyond["existing_heaters"].verdict == "fails"


def test_a_controller_is_rated_in_horsepower_at_its_volts():
    """10 hp for a 15 hp motor falls short; 15 hp at 230 V says nothing at 480 V."""
    for rated, volts, verdict, said in (
        ("15", "460", "holds", "holds"),
        ("10", None, "fails", "power"),
        ("15", "230", "fails", "volts"),
    ):
        place = {"controller_hp": rated, "controller_v": volts}
        _, found = worked(PLATE, "480Y/277", {"place": place})
        step = found["controller_rating"]
        assert (step.verdict, step.working.id) == (verdict, f"place.controller_rating.{said}")
        assert str(step.rule) == "NEC 2023, 430.83(A)(1)"


@pytest.mark.parametrize(
    ("size", "figure", "verdict", "said"),
    [
        (
            {"place": {"controller_ft": "60", "controller_visible": True}},
            "controller_disconnect_place",
            "fails",
            "place.controller.far",
        ),
        (
            {"place": {"controller_ft": "5", "controller_visible": False}},
            "controller_disconnect_place",
            "fails",
            "place.controller.hidden",
        ),
        (
            {"place": {"motor_ft": "20", "motor_visible": True}},
            "motor_disconnect_place",
            "holds",
            "place.motor.holds",
        ),
        (
            {"place": {"motor_ft": "20", "motor_visible": True, "own_at_motor": True}},
            "motor_disconnect_place",
            "holds",
            "place.motor_own.holds",
        ),
        (
            {
                "place": {
                    "motor_ft": "80",
                    "motor_visible": True,
                    "lockable": True,
                    "excuse": "procedures",
                }
            },
            "motor_disconnect_place",
            "holds",
            "place.motor_procedures",
        ),
        (
            {"place": {"motor_ft": "80", "motor_visible": True}},
            "motor_disconnect_place",
            "fails",
            "place.motor_no_lock",
        ),
        ({"place": {"kind": "breaker"}}, "disconnect_kind", "holds", "place.breaker.holds"),
        (
            {"place": {"kind": "motor_circuit_switch", "rated_hp": "15"}},
            "disconnect_kind",
            "holds",
            "place.motor_circuit_switch.holds",
        ),
        (
            {"place": {"kind": "snap_switch", "amps_a": "20"}},
            "disconnect_kind",
            "fails",
            "place.snap_switch.fails",
        ),
        (
            {"place": {"kind": "plug", "rated_hp": "5"}},
            "disconnect_kind",
            "fails",
            "place.plug.fails",
        ),
        ({"place": {"amps_a": "20"}}, "disconnect_rating", "fails", "place.rating.fails"),
        (
            {"drive": {"input_a": "22", "has_bypass": True, "output_v": "500"}},
            "drive_output",
            "fails",
            "drive.output_above",
        ),
        (
            {"drive": {"input_a": "19", "has_bypass": True, "output_v": "460"}},
            "drive_output",
            "holds",
            "drive.output",
        ),
        (
            {"overload": {"dial_has_125": False, "low_a": "30", "high_a": "40"}},
            "relay_dial",
            "fails",
            "relay.dial.above",
        ),
        (
            {"overload": {"dial_has_125": False, "low_a": "20", "high_a": "40"}},
            "relay_dial",
            "holds",
            "relay.dial.holds",
        ),
        ({"overload": {"protector_trip_a": "30"}}, "protector", "fails", "relay.protector.fails"),
        ({"overload": {"protector_trip_a": "28"}}, "protector", "holds", "relay.protector.holds"),
        ({"overload": {"units": 1}}, "overload_units", "fails", "relay.units.one"),
        (
            {"existing": {"cable": "MC", "cable_size": "14", "other_loads_a": "5"}},
            "there_other_loads",
            "fails",
            "existing.others.fails",
        ),
        ({"existing": {"device_a": "45"}}, "existing_device", "fails", "existing.device.no_record"),
        (
            {"existing": {"device_a": "45"}, "no_start": {"reason": "opened"}},
            "existing_device",
            "holds",
            "existing.device.raised",
        ),
        ({"existing": {"device_a": "15"}}, "existing_device", "fails", "existing.device.too_small"),
        ({"existing": {"trip_a": "26"}}, "existing_heaters", "fails", "existing.heaters.ceiling"),
        ({"existing": {"trip_a": "70"}}, "existing_heaters", "fails", "existing.heaters.too_large"),
        ({"existing": {"trip_a": "15"}}, "existing_heaters", "fails", "existing.heaters.too_small"),
        (
            {"existing": {"plug_a": "15", "plug_v": "480"}},
            "existing_plug",
            "fails",
            "existing.plug.amps",
        ),
        (
            {"existing": {"plug_a": "30", "plug_v": "480", "plug_hp": "15"}},
            "existing_plug",
            "holds",
            "existing.plug.holds",
        ),
        (
            {"existing": {"plug_a": "30", "plug_v": "480"}},
            "existing_plug",
            "fails",
            "existing.plug.power",
        ),
        (
            {"raceway": {"kind": "EMT", "trade_size": "1/2", "control_count": 8}},
            "raceway_size",
            "fails",
            "raceway.fails",
        ),
        (
            {
                "raceway": {
                    "kind": "EMT",
                    "trade_size": "1/2",
                    "control_count": 8,
                    "is_nipple": True,
                }
            },
            "raceway_size",
            "holds",
            "raceway.holds",
        ),
        (
            {"fault": {"device_volts": "480Y/277"}},
            "device_interrupting",
            "holds",
            "fault.interrupting.holds",
        ),
    ],
)
def test_each_verdict_has_its_sentence(size, figure, verdict, said):
    """15 hp, 21 A, 19.3 A on the nameplate: what holds and what does not, and why."""
    _, found = worked(PLATE, "480Y/277", size)
    assert (found[figure].verdict, found[figure].working.id) == (verdict, said)
    assert str(found[figure].working)


@pytest.mark.parametrize(
    ("size", "supply", "figure", "field"),
    [
        (
            {"control": {"coils": [{"inrush_va": "1", "sealed_va": "1", "count": 0}]}},
            "480Y/277",
            "transformer_va",
            "size.control.coils",
        ),
        (
            {"control": {"coils": [{"inrush_va": "90000", "sealed_va": "9000"}]}},
            "480Y/277",
            "transformer_va",
            "size.control.coils",
        ),
        (
            {"raceway": {"kind": "EMT", "control_count": 60, "control_size": "4/0"}},
            "480Y/277",
            "raceway_size",
            "size.raceway",
        ),
        (
            {"protection_kind": "class_cc_fuse"},
            "240 delta",
            "protection_device_a",
            "size.protection_kind",
        ),
    ],
)
def test_what_no_table_holds_is_refused(size, supply, figure, field):
    """The refusal names the field to change."""
    done, _ = worked(PLATE, supply, size)
    refused = {line.id: line.refusal.field for line in done.figures if line.refusal}
    assert refused[figure] == field
