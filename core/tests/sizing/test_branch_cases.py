"""A whole branch circuit: device, overload, equipment grounding conductor, disconnect."""

import json
from decimal import Decimal
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from evencoil.base.errors import CoreError
from evencoil.base.evidence import Step, Trail
from evencoil.base.words import Message, say
from evencoil.codebook.tables.loader import table
from evencoil.job.inputs import JobInputs
from evencoil.job.work_out import work_out
from evencoil.plate.inputs import PlateInputs, SupplyInputs
from evencoil.sizing.disconnect import disconnect
from evencoil.sizing.inputs import SizeInputs
from evencoil.sizing.overload import overload_setting
from evencoil.sizing.protection import protection_ratings

CASES = json.loads((Path(__file__).parents[1] / "cases" / "branch.json").read_text())["cases"]
KINDS = {
    "ITCB": "inverse_time_breaker",
    "NTDF": "nontime_delay_fuse",
    "instantaneous": "instantaneous_breaker",
}


def flc_of(given):
    """Look the table current up by hand: phase decides the table, volts the column."""
    book = table("430_250_induction" if given["phase"] == 3 else "430_248")
    column = {480: "v460", 240: "v230", 120: "v115"}[given["supply_volts"]]
    row = [Decimal(text) for text in book.column("hp")].index(Decimal(str(given["hp"])))
    return book.number(row, column)


def trail_with(**figures):
    """Return a trail that holds the given figures as read."""
    trail = Trail()
    for name, value in figures.items():
        trail.add(
            Step(
                id=name, value=value, unit="", kind="read", shown="", working=Message("size.waits")
            )
        )
    return trail


@pytest.mark.parametrize("case", CASES, ids=lambda case: case["id"])
def test_worked_examples(case):
    """Every figure of a worked example is met exactly."""
    given, expected, edition = case["inputs"], case["expected"], case["edition"]
    flc = flc_of(given)
    got = {}
    if "ocpd" in given:
        kind = KINDS[given["ocpd"]]
        found = protection_ratings(
            flc_a=flc,
            kind=kind,
            phases=given["phase"],
            edition=edition,
            design_letter=given.get("design"),
        )
        got |= {
            "sc_main_max_A": found.limit_a,
            "sc_main_std_A": found.main_rule_a,
            "sc_ex1_std_A": found.next_size_a,
            "sc_ex2_cap_A": found.cap_a,
            "sc_ex2_std_A": found.raised_a,
            "inst_setting_A": found.limit_a,
            "inst_exception_max_A": found.cap_a,
            "answer_A": found.main_rule_a
            if case["rating_rule"] == "main_rule"
            else found.next_size_a,
        }
    if "nameplate_amps" in given:
        trail = trail_with(plate_amps_a=Decimal(given["nameplate_amps"]))
        rise = given.get("temp_rise_C")
        step = overload_setting(
            service_factor=Decimal(str(given["service_factor"])),
            temperature_rise_c=None if rise is None else Decimal(rise),
            edition=edition,
            trail=trail,
        )
        got["overload_max_A"] = step.value
        got["overload_ceiling_A"] = trail["overload_ceiling_a"].value
    trail = trail_with(table_flc_a=flc, power_hp=Decimal(str(given["hp"])))
    got["disc_switch_A"] = disconnect(fuse_a=None, edition=edition, trail=trail).value
    got["disc_min_A"] = trail["disconnect_least_a"].value
    got["disc_hp"] = Decimal(str(given["hp"]))
    if "egc" in expected:
        worked = work_out(
            JobInputs(
                plate=PlateInputs(text="40 HP 230 V 98 A 3 PH SF 1.0"),
                supply=SupplyInputs(text="240 delta"),
                size=SizeInputs(
                    rating_rule="main_rule",
                    edition=2017,
                    conductor_material="al",
                    insulation="THWN",
                    termination_c=75,
                    protection_kind="inverse_time_breaker",
                ),
            )
        )
        shown = {step.id: step.shown for step in worked.steps}
        got["egc"] = f"{shown['grounding_conductor_size']} Al"

    for name, value in expected.items():
        assert got[name] == (value if isinstance(value, str) else Decimal(str(value))), name


@pytest.mark.parametrize(
    ("kind", "rating_rule", "device", "ground", "switch"),
    [
        ("dual_element_fuse", "next_size_up", "40", "10 AWG", "60"),
        ("dual_element_fuse", "main_rule", "35", "10 AWG", "60"),
        ("nontime_delay_fuse", "next_size_up", "70", "10 AWG", "100"),
        ("nontime_delay_fuse", "main_rule", "60", "10 AWG", "60"),
        ("inverse_time_breaker", "next_size_up", "60", "10 AWG", "30"),
        ("inverse_time_breaker", "main_rule", "50", "10 AWG", "30"),
        # 800 % of 21 A; the equipment grounding conductor as for a 40 A dual-element fuse
        ("instantaneous_breaker", "next_size_up", "168", "10 AWG", "30"),
    ],
)
def test_fifteen_horsepower_by_hand(kind, rating_rule, device, ground, switch):
    """21 A gives 36.75, 63 and 52.5 A; the equipment grounding conductor stays at the circuit's own 10 AWG."""
    worked = work_out(
        JobInputs(
            plate=PlateInputs(text="15 HP 460 V 19.3 A 3 PH SF 1.15 DES B"),
            supply=SupplyInputs(text="480Y/277"),
            size=SizeInputs(protection_kind=kind, rating_rule=rating_rule),
        )
    )
    shown = {step.id: step.shown for step in worked.steps}

    assert shown["protection_device_a"] == device
    assert shown["grounding_conductor_size"] == ground
    assert shown["disconnect_switch_a"] == switch
    assert shown["overload_setting_a"] == "24.12"


def test_the_ordinary_circuits_figure_is_named_as_what_does_not_apply():
    """10 AWG would be limited to 30 A as an ordinary circuit; 240.4(G) releases it."""
    worked = work_out(
        JobInputs(
            plate=PlateInputs(text="15 HP 460 V 19.3 A 3 PH DES B"),
            supply=SupplyInputs(text="480Y/277"),
            size=SizeInputs(),
        )
    )
    step = next(step for step in worked.steps if step.id == "protection_device_a")

    said = " ".join(say(tip.message) for tip in step.tips)
    assert "As an ordinary circuit 10 AWG would be limited to 30 A. 240.4(G) releases" in said
    assert "Main rule 35 A, next size up 40 A." in said
    assert "up to 225 % = 47.25 A, so 45 A" in said


@pytest.mark.parametrize(
    ("sf", "rise", "setting"),
    [
        ("1.15", None, "24.125"),
        ("1.0", "40", "24.125"),
        ("1.0", "55", "22.195"),
        (None, None, "22.195"),
    ],
)
def test_overload_percentages(sf, rise, setting):
    """19.3 A: 125 % for SF 1.15 or 40 C rise, else 115 %; nothing stamped counts as else."""
    step = overload_setting(
        service_factor=None if sf is None else Decimal(sf),
        temperature_rise_c=None if rise is None else Decimal(rise),
        edition=2023,
        trail=trail_with(plate_amps_a=Decimal("19.3")),
    )

    assert step.value == Decimal(setting)


def test_without_plate_amps_only_the_overload_is_withheld():
    """One refusal does not take the other figures with it."""
    worked = work_out(
        JobInputs(
            plate=PlateInputs(text="15 HP 460 V 3 PH DES B"),
            supply=SupplyInputs(text="480Y/277"),
            size=SizeInputs(),
        )
    )

    assert [figure.id for figure in worked.figures if figure.refusal] == ["overload_setting_a"]


def test_devices_and_switches_beyond_the_tables():
    """No rating or no switch so large: refused with a way on."""
    with pytest.raises(CoreError) as caught:
        protection_ratings(flc_a=Decimal(5000), kind="inverse_time_breaker", phases=3, edition=2023)
    assert caught.value.code == "not_in_table"
    trail = trail_with(table_flc_a=Decimal(900))
    with pytest.raises(CoreError) as caught:
        disconnect(fuse_a=Decimal(1600), edition=2023, trail=trail)
    assert caught.value.code == "not_in_table"


AMPS = st.decimals(min_value=1, max_value=500, places=1)
DEVICES = st.sampled_from(
    ["dual_element_fuse", "nontime_delay_fuse", "inverse_time_breaker", "instantaneous_breaker"]
)


@given(
    st.lists(AMPS, min_size=2, max_size=2).map(sorted), DEVICES, st.sampled_from([2017, 2020, 2023])
)
def test_field_is_never_below_main_rule_and_nothing_shrinks_as_load_grows(flcs, kind, edition):
    """RatingRule field >= exam, raised >= field, and all of them monotone in the current."""
    small, large = (
        protection_ratings(flc_a=flc, kind=kind, phases=3, edition=edition) for flc in flcs
    )
    for found in (small, large):
        assert found.main_rule_a is None or found.main_rule_a <= found.next_size_a
        assert found.next_size_a <= found.raised_a
        assert found.main_rule_a is None or found.main_rule_a <= found.limit_a <= found.next_size_a
    assert small.next_size_a <= large.next_size_a
    assert (small.main_rule_a or 0) <= (large.main_rule_a or 0)


@given(st.sampled_from(table("430_250_induction").column("hp")), DEVICES)
def test_the_ground_wire_is_never_larger_than_the_conductors(power, kind):
    """250.122(A) holds for every power and device that can be sized."""
    worked = work_out(
        JobInputs(
            plate=PlateInputs(text=f"{power} HP 460 V 3 PH DES B"),
            supply=SupplyInputs(text="480Y/277"),
            size=SizeInputs(protection_kind=kind),
        )
    )
    steps = {step.id: step for step in worked.steps}
    if "grounding_conductor_size" in steps:
        ground, wire = (
            steps[name].value for name in ("grounding_conductor_size", "conductor_size")
        )
        assert ground <= wire
