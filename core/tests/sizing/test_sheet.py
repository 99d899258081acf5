"""Heater tables, local amendments, both rating_rules, and the time-current sheet."""

import math
from dataclasses import replace
from decimal import Decimal

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from evencoil.base.errors import CoreError
from evencoil.base.evidence import Trail
from evencoil.base.words import say
from evencoil.codebook.amendments import Amendment, check_amendment
from evencoil.codebook.profile import Profile
from evencoil.codebook.steps import given as give
from evencoil.job.inputs import JobInputs
from evencoil.job.work_out import work_out
from evencoil.leads.inputs import LeadsInputs
from evencoil.machine.conversion import MachineMotor, convert_motor
from evencoil.machine.loads import MachineLoad, convert_load
from evencoil.plate.inputs import PlateInputs, SupplyInputs
from evencoil.sizing.curves import CurveFacts, class_time_s, damage_time_s, sheet
from evencoil.sizing.heaters.choose import HeaterKey, choose_heater, heater_of_code, keys_of
from evencoil.sizing.heaters.read import headers_of, read_heaters
from evencoil.sizing.inputs import SizeInputs
from evencoil.sizing.rating_rules import rating_rules_of
from evencoil.sizing.time_current import curve_sheet, volts_along

PLATE = "15 HP 230/460 V 38.6/19.3 A 1765 RPM 60 HZ 3 PH SF 1.15 CODE G DES B 9 LEADS"
SIZE = {"conductor_material": "cu", "termination_c": 75, "insulation": "THWN"}
CSV = """Relay;Size;El;Air;Heater;From;To
LK-2;1;3;same;H21;17,0;18,4
LK-2;1;3;same;H22;18,5;20,1
LK-2;1;3;same;H23;20.2;21.9
LK-2;1;2;same;H22;19.0;20.6
LK-2;1;3;same;H22;30;31
LK-2;1;5;same;H24;22;23
LK-2;1;3;same;;22;23
LK-2;1;3;same;H25;24;22

LK-2;1;3;same;H26;many;22
"""
COLUMNS = {
    "relay_type": "Relay",
    "starter_size": "Size",
    "elements": "El",
    "basis": "Air",
    "code": "Heater",
    "low_a": "From",
    "high_a": "To",
}
KEY = HeaterKey(relay_type="LK-2", starter_size="1", elements=3, basis="same")


def read():
    """Read the made-up chart."""
    return read_heaters(CSV, COLUMNS, name="Door 4", source="door of MCC 2", factor=Decimal("0.9"))


def trail(amps="19.3"):
    """Return a trail with a nameplate current."""
    made = Trail()
    give(made, "plate_amps_a", Decimal(amps), "A")
    return made


def test_good_rows_are_kept_and_bad_ones_told_by_line():
    """Four rows are good; five are not, each with its line and reason."""
    heaters, bad = read()
    assert [row.code for row in heaters.rows] == ["H21", "H22", "H23", "H22"]
    assert [(line.line, line.message.id) for line in bad] == [
        (6, "heaters.twice"),
        (7, "heaters.elements"),
        (8, "heaters.empty"),
        (9, "heaters.band"),
        (11, "number.unread"),
    ]
    assert [key.elements for key in keys_of(heaters)] == [3, 2]
    assert headers_of(CSV)[4] == "Heater"


def test_heater_from_amps_and_amps_from_heater():
    """19.3 A is H22 with SF 1.15; with SF 1.0 17.37 A is H21; with two elements H22 is another."""
    heaters, _ = read()
    made = trail()
    assert (
        choose_heater(heaters, KEY, service_factor=Decimal("1.15"), edition=2023, trail=made).value
        == "H22"
    )
    made = trail()
    assert choose_heater(heaters, KEY, service_factor=None, edition=2023, trail=made).value == "H21"
    assert made.number("heater_amps_a") == Decimal("17.37")
    there = heater_of_code(heaters, KEY, "h22", edition=2023, trail=Trail())
    assert there.value == Decimal("23.125")
    assert there.cell.rows[there.cell.hit_row][0] == "H22"


@pytest.mark.parametrize(
    ("ask", "field"),
    [
        (
            lambda heaters: choose_heater(
                heaters, KEY, service_factor=Decimal(2), edition=2023, trail=trail("40")
            ),
            "size.heater",
        ),
        (
            lambda heaters: choose_heater(
                heaters,
                HeaterKey(relay_type="ZZ", starter_size="1", elements=3, basis="same"),
                service_factor=None,
                edition=2023,
                trail=trail(),
            ),
            "size.heater.relay_type",
        ),
        (
            lambda heaters: heater_of_code(heaters, KEY, "H99", edition=2023, trail=Trail()),
            "size.heater.code",
        ),
        (
            lambda heaters: choose_heater(
                heaters, KEY, service_factor=None, edition=2023, trail=Trail()
            ),
            "amps_a",
        ),
        (lambda _: read_heaters(CSV, {}, name="a", source=""), "heaters.columns.relay_type"),
        (
            lambda _: read_heaters(CSV, COLUMNS, name="a", source="", factor=Decimal(0)),
            "heaters.factor",
        ),
        (
            lambda _: read_heaters(
                "Relay\nx", {}, name="a", source="", fixed=dict.fromkeys(COLUMNS, "x")
            ),
            "heaters.text",
        ),
        (lambda _: headers_of(""), "heaters.text"),
        (lambda _: headers_of("x" * 1_000_001), "heaters.text"),
    ],
)
def test_a_chart_that_does_not_say_it_is_refused(ask, field):
    """Each refusal names its field."""
    heaters, _ = read()
    with pytest.raises(CoreError) as caught:
        ask(heaters)
    assert caught.value.field == field


@settings(deadline=None, max_examples=60)
@given(st.text(max_size=400))
def test_any_text_is_read_or_refused(text):
    """No text makes the reader raise anything of its own."""
    try:
        read_heaters(
            f"{','.join(COLUMNS)}\n{text}", {name: name for name in COLUMNS}, name="a", source=""
        )
    except CoreError as error:
        assert error.problem()["hint"]


def test_a_heater_of_the_job_travels_and_shows_what_was_left():
    """H40 of 38.5 to 40 A trips at 48.125 A on a 19.3 A motor: left from the low voltage."""
    rows = [
        {"relay_type": "LK-2", "elements": 3, "code": "H22", "low_a": "18.5", "high_a": "20.1"},
        {"relay_type": "LK-2", "elements": 3, "code": "H40", "low_a": "38.5", "high_a": "40"},
    ]
    heater = {
        "table": {"name": "Door", "factor": "1", "rows": rows},
        "relay_type": "LK-2",
        "code": "H40",
    }
    done = work_out(
        JobInputs(
            plate=PlateInputs(text=PLATE),
            supply=SupplyInputs(text="480Y/277"),
            size=SizeInputs(**SIZE, heater=heater),
        )
    )
    found = {step.id: step for step in done.steps}
    assert found["heater_code"].value == "H22"
    assert found["existing_heaters"].working.id == "existing.heaters.left"


def amendment(subject, value=""):
    """Return an amendment of the town."""
    return Amendment(subject=subject, value=value, author="town inspector", reason="ordinance")


def test_amendments_show_in_every_figure_they_change():
    """12 AWG at least, 150 % conductors, 125 % switch, device at most 150 %, no step up."""
    profile = Profile(
        amendments=(
            amendment("smallest_conductor", "12"),
            amendment("disconnect_percent", "125"),
            amendment("conductor_percent", "150"),
            amendment("device_percent", "150"),
            amendment("no_next_size_up"),
        )
    )
    small = "5 HP 460 V 6.8 A 1750 RPM 60 HZ 3 PH SF 1.15"
    done = work_out(
        JobInputs(
            plate=PlateInputs(text=small),
            supply=SupplyInputs(text="480Y/277"),
            size=SizeInputs(**SIZE),
        ),
        profile,
    )
    found = {step.id: step for step in done.steps}
    assert found["required_ampacity_a"].value == Decimal("11.4")  # 7.6 x 1.5
    assert found["conductor_size"].text == "12"
    assert found["protection_limit_a"].value == Decimal("11.4")  # 7.6 x 1.5, not 1.75
    assert found["protection_device_a"].value == 10
    assert found["disconnect_least_a"].value == Decimal("9.5")
    for name, changed in (
        ("required_ampacity_a", "conductor_percent"),
        ("conductor_size", "smallest_conductor"),
        ("protection_limit_a", "device_percent"),
        ("protection_device_a", "no_next_size_up"),
        ("disconnect_least_a", "disconnect_percent"),
    ):
        assert f"amendment_{changed}" in found[name].uses
        assert "town inspector: ordinance" in say(found[f"amendment_{changed}"].working)


def test_amendments_hold_for_what_is_there_and_for_every_rating_rule():
    """Device at most 150 %: 21 x 1.5 = 31.5, so 30 or 35; switch 125 %: 26.25, and 25 A is short."""
    profile = Profile(
        amendments=(amendment("device_percent", "150"), amendment("disconnect_percent", "125"))
    )
    size = SizeInputs(**SIZE, existing={"device_a": "40"}, place={"amps_a": "25"})
    done = work_out(
        JobInputs(plate=PlateInputs(text=PLATE), supply=SupplyInputs(text="480Y/277"), size=size),
        profile,
    )
    found = {step.id: step for step in done.steps}
    assert found["existing_device"].working.id == "existing.device.no_record"
    assert found["disconnect_rating"].verdict == "fails"
    assert "21 A × 1.25 = 26.25 A" in say(found["disconnect_rating"].working)
    assert {row.id: row.amps_a for row in done.rating_rules}["next_size_up"] == "35"
    plain_rules = work_out(
        JobInputs(plate=PlateInputs(text=PLATE), supply=SupplyInputs(text="480Y/277"), size=size)
    )
    assert {step.id: step.verdict for step in plain_rules.steps}["existing_device"] == "holds"


@pytest.mark.parametrize(
    ("subject", "value"),
    [
        ("smallest_conductor", "16"),
        ("conductor_percent", "100"),
        ("disconnect_percent", "100"),
        ("device_percent", "9000"),
    ],
)
def test_a_looser_amendment_is_refused_and_never_used(subject, value):
    """The code's own figure stands."""
    with pytest.raises(CoreError) as caught:
        check_amendment(amendment(subject, value))
    assert caught.value.field == "amendments.value"
    profile = Profile(amendments=(amendment(subject, value),))
    inputs = JobInputs(
        plate=PlateInputs(text=PLATE),
        supply=SupplyInputs(text="480Y/277"),
        size=SizeInputs(**SIZE),
    )
    assert [step.value for step in work_out(inputs, profile).steps] == [
        step.value for step in work_out(inputs).steps
    ]


def test_an_amendment_names_who_and_why():
    """No one or nothing said: refused."""
    for field in ("author", "reason"):
        given_ = {
            "subject": "no_next_size_up",
            "value": "",
            "author": "a",
            "reason": "b",
            field: " ",
        }
        with pytest.raises(CoreError) as caught:
            check_amendment(Amendment(**given_))
        assert caught.value.field == f"amendments.{field}"


def test_rating_rules_stand_side_by_side_with_what_does_not_apply():
    """15 hp at 460 V: exam 35, field 40, raised 45 only with a record; 10 AWG alone would be 30."""
    profile = Profile(rating_rule="next_size_up", rating_rule_reason="fewer trips on cold mornings")
    done = work_out(
        JobInputs(
            plate=PlateInputs(text=PLATE),
            supply=SupplyInputs(text="480Y/277"),
            size=SizeInputs(**SIZE),
        ),
        profile,
    )
    rows = {row.id: row for row in done.rating_rules}
    assert {name: row.amps_a for name, row in rows.items()} == {
        "main_rule": "35",
        "next_size_up": "40",
        "raised": "45",
        "ordinary": "30",
    }
    assert [name for name, row in rows.items() if row.is_chosen] == ["next_size_up"]
    assert [name for name, row in rows.items() if not row.applies] == ["raised", "ordinary"]
    assert "cold mornings" in say(rows["next_size_up"].reason)
    assert (
        rating_rules_of(
            done.reading, profile, Trail(), phases=3, kind="dual_element_fuse", material="cu"
        )
        == ()
    )


FACTS = CurveFacts(
    plate_a=19.3,
    locked_a=116,
    accelerates_s=3,
    setting_a=24.125,
    trip_class=20,
    device_kind="dual_element_fuse",
    device_a=40,
    cmil=10380,
    metal="cu",
)


def test_the_overload_class_is_its_time_at_six_times():
    """Class 10 and 20 trip after 10 and 20 s at six times, cold; hot is sooner; 1.15 never."""
    for trip_class in (10, 20, 30):
        assert math.isclose(class_time_s(6, trip_class, is_hot=False), trip_class)
    assert class_time_s(6, 20, is_hot=True) < 20
    assert math.isinf(class_time_s(1.15, 20, is_hot=False))


def test_conductor_damage_is_the_published_heat_equation():
    """10 AWG copper, 10380 cmil, 1000 A: 0.0297 log10(384/309) (10.38)^2 = 0.302 s by hand."""
    assert math.isclose(damage_time_s(1000, 10380, "cu"), 0.0297 * math.log10(384 / 309) * 10.38**2)
    assert round(damage_time_s(1000, 10380, "cu"), 2) == 0.30
    assert damage_time_s(1000, 10380, "al") < damage_time_s(1000, 10380, "cu")


@settings(deadline=None, max_examples=40)
@given(
    st.sampled_from(
        [
            "dual_element_fuse",
            "nontime_delay_fuse",
            "class_cc_fuse",
            "inverse_time_breaker",
            "instantaneous_breaker",
        ]
    ),
    st.floats(5, 60),
    st.sampled_from([5, 10, 20, 30]),
    st.floats(0.2, 30),
)
def test_no_curve_ever_rises_with_current(kind, device, trip_class, seconds):
    """More current never takes longer; every line stays on the paper."""
    made = sheet(
        CurveFacts(
            plate_a=19.3,
            locked_a=116,
            accelerates_s=seconds,
            setting_a=24.125,
            trip_class=trip_class,
            device_kind=kind,
            device_a=device,
            cmil=10380,
            metal="cu",
        )
    )
    for curve in made.curves:
        if curve.id == "motor":
            continue
        times = [time for _, time in curve.points]
        assert times == sorted(times, reverse=True), curve.id
        assert all(0.005 <= time <= 2000 for time in times)


def test_a_slow_start_on_a_fast_class_does_not_come_up():
    """3 s on class 20 starts; 30 s on class 10 trips."""
    assert sheet(FACTS).rides_through
    slow = CurveFacts(
        **{name: getattr(FACTS, name) for name in FACTS.__slots__}
        | {"accelerates_s": 30, "trip_class": 10}
    )
    made = sheet(slow)
    assert not made.rides_through
    assert made.findings[0].id == "curves.not_through"


def test_the_sheet_of_a_job_and_the_volts_along_its_run():
    """The sheet is drawn from the job's own figures; 300 ft lose what the drop says."""
    done = work_out(
        JobInputs(
            plate=PlateInputs(text=PLATE),
            supply=SupplyInputs(text="480Y/277"),
            size=SizeInputs(**SIZE, run_length_ft="300"),
        )
    )
    made = curve_sheet(done.trail, SizeInputs(**SIZE))
    assert {curve.id for curve in made.curves} == {
        "motor",
        "overload_cold",
        "overload_hot",
        "device_fast",
        "device_slow",
        "damage",
    }
    assert [note.id for note in made.findings][-2:] == [
        "curves.start_assumed",
        "curves.class_assumed",
    ]
    points = volts_along(done.trail)
    lost = next(step for step in done.steps if step.id == "voltage_drop_percent").value
    assert points[0].running_v == 480
    assert math.isclose(float((480 - points[-1].running_v) / 480 * 100), float(lost))
    assert points[-1].starting_v < points[-1].running_v
    with pytest.raises(CoreError) as caught:
        curve_sheet(Trail(), SizeInputs())
    assert caught.value.field == "plate_amps_a"
    assert volts_along(Trail()) == ()


def test_a_conversion_joins_joints_heaters_fuse_and_wire():
    """15 hp from 240 to 480 V: 8 AWG to 10, 80 to 40 A, heaters of 48.25 A protect nothing at 19.3."""
    motor = MachineMotor(
        tag="IC-2",
        plate=PlateInputs(text=PLATE),
        supply=SupplyInputs(text="240 delta"),
        leads=LeadsInputs(),
        size=SizeInputs(**SIZE, existing={"trip_a": "48.25"}),
    )
    unread = convert_motor(replace(motor, size=SizeInputs(**SIZE)), SupplyInputs(text="480Y/277"))
    assert unread.left.id == "convert.heaters_unread"
    found = convert_motor(motor, SupplyInputs(text="480Y/277"))
    rows = {row.figure: (row.before, row.after, row.is_larger) for row in found.changed}
    # 42 A: 52.5 A asks for 6 AWG (65); 73.5 A steps to 80; 38.6 x 1.25 = 48.25
    assert rows == {
        "conductor_size": ("6 AWG", "10 AWG", False),
        "protection_device_a": ("80 A", "40 A", False),
        "overload_setting_a": ("48.25 A", "24.12 A", False),
        "disconnect_switch_a": ("100 A", "60 A", False),
    }
    assert found.left.id == "convert.left_large"
    assert found.left.params["percent"] == "250"
    back = convert_motor(
        MachineMotor(
            tag="IC-2",
            plate=motor.plate,
            supply=SupplyInputs(text="480Y/277"),
            leads=motor.leads,
            size=SizeInputs(**SIZE, existing={"trip_a": "24.12"}),
        ),
        SupplyInputs(text="240 delta"),
    )
    assert back.left.id == "convert.left_small"
    assert all(row.is_larger for row in back.changed)


@pytest.mark.parametrize(
    ("kind", "rated", "fed", "action", "said"),
    [
        ("lamp", "120", "T1", "keep", "load.keep"),
        ("coil", "240", "", "refeed", "load.refeed"),
        ("phase_monitor", "240", "", "replace", "load.line_replace"),
        ("solenoid", "24", "T1", "replace", "load.replace"),
        ("timer", "120", "T2", "keep", "load.ordered"),
        ("timer", "120", "T9", "open", "load.unknown"),
        ("heater", "480", "", "keep", "load.keep"),
    ],
)
def test_loads_of_a_machine_stay_are_fed_anew_or_replaced(kind, rated, fed, action, said):
    """On 480 V, with T1 giving 120 V and T2 to be ordered."""
    load = MachineLoad(tag="X", kind=kind, rated_v=rated, fed_from=fed)
    found = convert_load(load, Decimal(480), {"T1": Decimal(120), "T2": None})
    assert (found.action, found.message.id) == (action, said)
    assert say(found.message)


@pytest.mark.parametrize(
    ("circuit_id", "options", "place"),
    [
        ("7A", {}, "leg"),
        ("7A", {"heaters": "line"}, "line"),
        ("7B", {}, "leg"),
        ("8A", {}, "line"),
        ("10A", {}, "half"),
        ("3A", {}, "line"),
        ("1A", {}, None),
        ("16A", {}, None),
    ],
)
def test_where_the_heaters_lie_is_read_off_the_drawing(circuit_id, options, place):
    """Leg of the delta, half of the winding, line: by what passes the heaters and what does not."""
    from evencoil.checks.reach import Graph
    from evencoil.job.drawn_sizes import heaters_lie
    from evencoil.starters.standard_circuit import draw

    assert heaters_lie(Graph(draw(circuit_id, options).circuit)) == place


def test_the_control_transformer_is_sized_from_the_coils_of_the_drawing():
    """6C: two contactors of 60 and 10 VA, entered by no one.

    By hand: held 2 x 10 = 20 VA, a quarter above is 25 VA; one pulls in while the other is
    held, 70 VA, within the five times of a transformer of 25 VA. So 25 VA, marked assumed.
    """
    from evencoil.checks.reach import Graph
    from evencoil.job.drawn_sizes import control_of, with_drawing
    from evencoil.starters.standard_circuit import draw

    control = control_of(Graph(draw("6C").circuit))
    assert [(one.label, one.count, one.inrush_va, one.sealed_va) for one in control.coils] == [
        ("contactor", 2, Decimal(60), Decimal(10))
    ]
    filled = with_drawing(SizeInputs(), draw("6C", {}).circuit)
    assert filled.control.is_drawn
    worked = work_out(
        JobInputs(
            plate=PlateInputs(text="15 HP 460 V 19.3 A 1765 RPM 60 HZ 3 PH CODE G DES B"),
            supply=SupplyInputs(text="480Y/277"),
            size=filled,
        )
    )
    (step,) = [step for step in worked.steps if step.id == "transformer_va"]
    assert step.value == 25
    assert "assumed" in {mark.kind for mark in step.marks}
    own = SizeInputs.model_validate(
        {"control": {"coils": [{"label": "M", "inrush_va": "245", "sealed_va": "27"}]}}
    )
    assert with_drawing(own, draw("6C", {}).circuit) == own
    assert with_drawing(SizeInputs(), draw("3D", {}).circuit).control is None
    assert with_drawing(SizeInputs(), None) == SizeInputs()


def test_a_place_that_the_drawing_contradicts_is_said():
    """Entered as line, drawn in the leg: a doubt on the drawing, and none where they agree."""
    from evencoil.job.starter import work_out_starter
    from evencoil.job.work_out import work_out
    from evencoil.starters.inputs import StarterInputs

    plate = PlateInputs(text="75 HP 460 V 85 A 1780 RPM 60 HZ 3 PH 6 LEADS CODE G DES B")
    supply = SupplyInputs(text="480Y/277")
    starter = StarterInputs(standard_circuit="7A")
    for place, wanted in (("line", True), ("leg", False)):
        size = SizeInputs.model_validate({"overload": {"place": place}})
        room = work_out_starter(work_out(JobInputs(plate=plate, supply=supply, size=size)), starter)
        assert any(one.code == "heater_place" for one in room.findings) == wanted
