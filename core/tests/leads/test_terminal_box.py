"""Around the terminal box: auxiliary leads, boards, the maker's diagram, joints, conversion, trust."""

from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from evencoil.base.errors import CoreError
from evencoil.base.words import say
from evencoil.codebook.profile import Profile
from evencoil.job.inputs import JobInputs
from evencoil.job.work_out import work_out
from evencoil.leads.inputs import (
    ColorInput,
    JointInput,
    JointsInputs,
    JointWorkInput,
    LeadsInputs,
    TwistRowInput,
)
from evencoil.leads.maker_diagram import compare
from evencoil.leads.stud_board import BOARDS, Board, lay_bars
from evencoil.machine.conversion import (
    MachineMotor,
    MachineTransformer,
    TapInput,
    convert_motor,
    convert_transformer,
)
from evencoil.plate.doubted import TrustFacts, estimate_voltage
from evencoil.plate.inputs import (
    ConductorRecord,
    PlateInputs,
    ReplaceInputs,
    SupplyInputs,
    TrustInputs,
)
from evencoil.plate.reader import read
from evencoil.plate.replaced import compare_plates
from evencoil.sizing.inputs import SizeInputs
from evencoil.winding.accessories import tell_accessory
from evencoil.winding.coils import KINDS
from evencoil.winding.connections import named
from evencoil.winding.internal import inside_changes
from evencoil.winding.joints import Joint
from evencoil.winding.rating import rating_of

PLATE = "15 HP, 230/460 V, 38.6/19.3 A, 1765 RPM, 60 HZ, 3 PH, SF 1.15, CODE G, DES B, 9 LEADS"
NINE = LeadsInputs(winding="9-wye")


def worked(joints=None, profile=None, supply="480Y/277", plate=PLATE, **more):
    """Work the nine-lead demo motor out with joints given."""
    return work_out(
        JobInputs(
            plate=PlateInputs(text=plate),
            supply=SupplyInputs(text=supply, **more.pop("on", {})),
            size=SizeInputs(conductor_material="cu"),
            leads=more.pop("leads", NINE),
            joints=JointsInputs(**(joints or {})),
            trust=TrustInputs(**more),
        ),
        profile,
    )


@pytest.mark.parametrize(
    ("wires", "ohms", "kinds"),
    [
        (2, "0.3", ("thermostat", "protector")),
        (3, "109", ("rtd",)),
        (2, "110", ("rtd", "thermistor", "space_heater")),
        (2, "1200", ("space_heater",)),
        (2, "10.5", ("rtd",)),
        (2, "5", ("unknown",)),
        (2, None, ("thermostat", "unknown")),
    ],
)
def test_thin_leads_are_told_apart_by_wires_and_ohms(wires, ohms, kinds):
    """Platinum near 110 ohm, a closed contact near zero, a heater by volts squared over watts."""
    told = tell_accessory(wires, None if ohms is None else Decimal(ohms))
    assert told.kinds == kinds
    assert say(told.message)
    assert (told.settles is None) == (len(kinds) == 1 and kinds != ("unknown",))


def test_thin_leads_that_ring_to_the_winding_belong_to_it():
    """They are counted with the motor leads; impossible counts and ohms are refused."""
    assert tell_accessory(2, Decimal(1), to_winding=True).kinds == ()
    for wires, ohms in ((0, "1"), (9, "1"), (2, "-1")):
        with pytest.raises(CoreError):
            tell_accessory(wires, Decimal(ohms))


@pytest.mark.parametrize(
    ("kind", "name", "bars", "jumpers"),
    [
        ("6", "delta", 3, 0),
        ("6", "wye", 2, 0),
        ("9-wye", "series_wye", 3, 0),
        ("9-wye", "parallel_wye", 5, 0),
        ("9-delta", "parallel_delta", 6, 0),
        ("9-delta", "series_delta", 0, 3),
    ],
)
def test_bars_of_the_usual_boards(kind, name, bars, jumpers):
    """Delta is three upright bars, wye two in a row; what neighbors cannot do is a jumper."""
    laid = lay_bars(KINDS[kind], named(kind, name).joints, Board(BOARDS[kind]))
    used = {part.name: part.used for part in laid.parts}
    assert (used["bars"], used["jumpers"]) == (bars, jumpers)
    three = lay_bars(KINDS[kind], named(kind, name).joints, Board(BOARDS[kind], bars=3))
    assert next(part for part in three.parts if part.name == "bars").left == 3 - bars
    # without a count the board has what its largest connection needs
    assert next(part for part in laid.parts if part.name == "bars").left >= 0
    assert next(part for part in laid.parts if part.name == "insulators").left == 0
    for stack in laid.stacks.values():
        assert [layer.part for layer in stack][:2] == ["insulator", "lead lug"]
        nuts = [layer.nut for layer in stack if layer.part == "nut"]
        assert nuts in (["full"], ["light", "full"])
        carrying = [layer.part for layer in stack if layer.carries]
        # the upper nut and its washer press; the light nut lies between lug and bar
        assert carrying == [] or carrying[:2] == ["lead lug", "nut"]
        assert not any(layer.carries for layer in stack if layer.nut == "full")


@pytest.mark.parametrize("mark", ["{n}", "T{n}", " t{n} "])
def test_studs_are_typed_with_or_without_t(mark):
    """Six studs, delta: three upright bars; bars for each connection are told."""
    rows = [[mark.format(n=n) for n in row] for row in ((6, 4, 5), (1, 2, 3))]
    worked = work_out(
        JobInputs(
            plate=PlateInputs(text="15 HP 230/400 V 38/22 A 3 PH 50 HZ 6 LEADS D/Y WYE DELTA"),
            supply=SupplyInputs(text="230 delta 50 Hz"),
            leads=LeadsInputs(board={"rows": rows, "insulators": 4, "jumpers": 1}),
        )
    )
    box = worked.box
    assert [(bar.start, bar.end) for bar in box.laid.bars] == [
        ("T1", "T6"),
        ("T2", "T4"),
        ("T3", "T5"),
    ]
    assert {part.name: part.left for part in box.laid.parts if part.name != "nuts"} == {
        "bars": 0,
        "jumpers": 1,
        "insulators": -2,
    }
    assert len(box.laid_by["wye"].bars) == 2


@pytest.mark.parametrize(
    ("landing", "level", "says"),
    [
        ("", "note", "enter where it lands"),
        ("terminal", "agrees", "alone under its screw"),
        ("frame_bolt", "agrees", "used for nothing else"),
        ("none", "doubt", "is not landed"),
    ],
)
def test_the_grounding_conductor_lands_in_the_box(landing, level, says):
    """15 hp at 480 V: 40 A fuse, 10 AWG by Table 250.122."""
    worked = work_out(
        JobInputs(
            plate=PlateInputs(text=PLATE),
            supply=SupplyInputs(text="480Y/277 60 Hz"),
            leads=LeadsInputs(winding="9-wye"),
            joints={"ground_landing": landing},
        )
    )
    (found,) = [one for one in worked.planned.findings if "ground" in one.code]
    assert (found.level, found.code) == (level, f"ground_{landing or 'open'}")
    assert says in say(found.message)
    assert "10 AWG" in say(found.message)


@pytest.mark.parametrize(
    "rows", [(("T1", "T2", "T3"),), (("T1", "T1", "T2", "T3", "T4", "T5", "T6"),), (("Q",),)]
)
def test_boards_that_cannot_be(rows):
    """A lead without a stud, a lead on two, a stud of no one."""
    with pytest.raises(CoreError):
        lay_bars(KINDS["6"], named("6", "delta").joints, Board(rows))


def test_the_makers_diagram_is_held_against_the_derived_joints():
    """The same, the same but for the order of lines, and another one."""
    known = named("9-wye", "series_wye")
    assert compare(KINDS["9-wye"], known.joints, known).agrees
    turned = [
        Joint(id=j.id, leads=j.leads, line={"L1": "L2", "L2": "L1"}.get(j.line, j.line))
        for j in known.joints
    ]
    assert compare(KINDS["9-wye"], turned, known).is_rotation_only
    other = compare(KINDS["9-wye"], named("9-wye", "parallel_wye").joints, known)
    assert len(other.differences) == 10
    assert not other.is_rotation_only
    assert say(other.differences[0].message()) == "Stamped only: L1 T1 T7."


def test_housing_by_rule_and_bulk_by_estimate_are_two_things():
    """15 hp asks for 36.4 in3; twelve conductors of 10 AWG fold into 30 in3 and more."""
    out = worked({"usable_volume_in3": "41", "lead_size": "10"}).planned
    assert (out.meets_rule, out.fit) == (True, "tight")
    assert next(step for step in out.steps if step.id == "housing_volume_in3").value == Decimal(
        "36.4"
    )
    assert 30 < out.bulk_in3 < 36
    small = worked({"usable_volume_in3": "30"}).planned
    assert (small.meets_rule, small.fit) == (False, "no")
    assert small.findings[0].code == "too_small"
    assert small.ways_out
    large = worked({"is_over_11_in": True}).planned
    assert next(step for step in large.steps if step.id == "housing_volume_in3").value == Decimal(
        "36.4"
    )
    assert large.fit == "unknown"


def test_a_motor_beyond_the_table_is_withheld_and_its_bulk_still_told():
    """30 hp, said to be at most 11 in across: no row; over 11 in the current decides."""
    plate = PLATE.replace("15 HP", "30 HP").replace("38.6/19.3", "70/35")
    out = worked({"is_over_11_in": False}, plate=plate).planned
    assert out.volume_error.code == "not_in_table"
    assert out.bulk_in3 > 0
    out = worked({}, plate=plate).planned
    assert out.steps[-1].value == Decimal("36.4")  # 40 A lies in the row up to 45 A


@given(st.sampled_from(["ring_bolt", "split_bolt", "set_screw_tap", "crimp", "twist_on"]))
def test_thicker_leads_never_make_a_smaller_joint(method):
    """Bulk grows with the conductor, whatever the method."""
    bulk = [
        worked({"method": method, "lead_size": size, "line_size": size}).planned.bulk_in3
        for size in ("14", "12", "10", "8", "6", "4", "2")
    ]
    assert bulk == sorted(bulk)


def test_twist_on_by_the_works_rule_and_the_connectors_own_table():
    """Never by amps: scope, largest size, and the rows that were copied from the box."""
    rows = (TwistRowInput(size="10", least=2, most=4),)
    base = {"method": "twist_on", "lead_size": "10", "line_size": "10", "twist_rows": rows}

    def codes(joints, **rule):
        plan = worked(joints, Profile(**rule)).planned
        return {found.code for joint in plan.joints for found in joint.findings}

    assert codes(base, twist_on="anywhere") == set()
    assert codes(base, twist_on="never") == {"twist_never"}
    assert codes(base, twist_on="building") == {"twist_building"}
    assert codes({**base, "is_machine": False}, twist_on="building") == set()
    assert codes(base, twist_on="anywhere", twist_on_largest="12") == {"twist_large"}
    assert codes({**base, "twist_rows": ()}, twist_on="anywhere") == {"twist_table"}
    three = (TwistRowInput(size="10", least=3, most=4),)
    assert codes({**base, "twist_rows": three}, twist_on="anywhere") == {"twist_count"}
    assert codes({**base, "lead_size": "12"}, twist_on="anywhere") == {"twist_mixed", "twist_count"}


def test_records_colors_and_the_way_in():
    """Torque for bolts, a tug for crimps; colors by line; fittings by trade size."""
    ids = [joint.id for joint in worked().planned.joints]
    work = [JointWorkInput(joint=name, torque_in_lb="20") for name in ids]
    out = worked({"work": work, "usable_volume_in3": "60", "lead_size": "12"})
    assert all(joint.is_recorded for joint in out.planned.joints)
    assert {state.step: state.state for state in out.states}["joints"] == "done"
    tug = worked({"method": "crimp", "work": [JointWorkInput(joint=ids[0], tug_held=False)]})
    assert tug.planned.joints[0].findings[0].code == "tug_failed"
    bare = worked({"work": [JointWorkInput(joint=ids[0], vinyl=0)]}).planned.joints[0]
    assert bare.findings[0].code == "tape"
    colors = [
        ColorInput(line="L1", color="green"),
        ColorInput(line="L2", color="white"),
        ColorInput(line="L3", color="white", remarked="black"),
        ColorInput(line="G", color="red"),
        ColorInput(line="N", color="blue"),
    ]
    found = worked({"colors": colors}).planned.findings
    assert [item.code for item in found[:4]] == ["green", "white", "ground", "neutral"]
    high = worked({"colors": [ColorInput(line="L1", color="black")]}, supply="240/120 high leg")
    assert "orange" in {item.code for item in high.planned.findings}
    parts = worked({"raceway": "3/4", "knockout": "1", "is_flexible": True}).planned.parts
    assert [part.id for part in parts] == [
        "housing.fitting",
        "housing.reducing",
        "housing.flexible",
    ]
    assert worked({"raceway": "1", "knockout": "3/4"}).planned.parts[1].id == "housing.enlarge"
    assert worked({"raceway": "9"}).planned.findings[-1].code == "trade"


@pytest.mark.parametrize("joints", [{"line_size": "99"}, {"usable_volume_in3": "0"}])
def test_joints_that_cannot_be_planned_say_why(joints):
    """A size of no table, a box of no volume."""
    out = worked(joints)
    assert out.planned is None
    assert out.planned_refusal.hint


def test_every_other_joining_of_six_half_coils():
    """133, 230, 266 and 460 V; parallel inside needs the sense of each half proven."""
    plate = read(PLATE).plate
    rows = inside_changes(KINDS["9-wye"], rating_of(KINDS["9-wye"], plate), plate, Decimal(240))
    assert [round(row.line_volts_v) for row in rows] == [133, 230, 266, 460]
    assert [row.place for row in rows] == ["opened", "now", "opened", "now"]
    assert [row.needs_polarity for row in rows] == [True, False, False, False]
    assert rows[0].labels == ("T10", "T11", "T12")
    assert [round(row.percent) for row in rows] == [181, 104, 90, 52]
    assert rows[2].amps_a == pytest.approx(19.3 * 460 / 265.6, rel=1e-3)
    single = read("1 HP 115/230 V 1 PH 12/6 A").plate
    kind = KINDS["1-phase-dual"]
    rating = rating_of(kind, single)
    with pytest.raises(CoreError):
        inside_changes(kind, rating, single, None)


@pytest.mark.parametrize(
    ("kind", "text", "rows"),
    [
        # low: delta of two halves in series, 460 / 2 = 230 V a half; high: 460 / 1.732 = 265.6 V
        (
            "2-speed-ct",
            "20/10 HP 460 V 26/15 A 1765/870 RPM 60 HZ",
            [
                ("low", 230, 30.0, 8),
                ("low", 398, 17.3, 8),
                ("low", 460, 15.0, 8),
                ("low", 797, 8.7, 8),
                ("high", 266, 45.0, 4),
                ("high", 460, 26.0, 4),
                ("high", 531, 22.5, 4),
                ("high", 920, 13.0, 4),
            ],
        ),
        # constant power: the amps stand in the order of the rpm, not of their size
        (
            "2-speed-cp",
            "20 HP 460 V 26/28 A 1765/870 RPM 60 HZ",
            [
                ("low", 266, 48.5, 8),
                ("low", 460, 28.0, 8),
                ("low", 531, 24.2, 8),
                ("low", 920, 14.0, 8),
                ("high", 230, 52.0, 4),
                ("high", 398, 30.0, 4),
                ("high", 460, 26.0, 4),
                ("high", 797, 15.0, 4),
            ],
        ),
    ],
)
def test_two_speed_half_coils_reconnected_for_one_speed(kind, text, rows):
    """Each speed's half volts times 1, 1.732, 2 and 3.464; amps at the same power."""
    plate = read(text).plate
    found = inside_changes(KINDS[kind], rating_of(KINDS[kind], plate), plate, Decimal(480))

    assert [
        (row.speed, round(row.line_volts_v), round(row.amps_a, 1), row.poles) for row in found
    ] == rows
    assert [row.place for row in found].count("now") == 2
    assert all(row.keeps_rotation == (row.place == "now") for row in found)
    assert all(row.note for row in found if row.place == "opened")


def test_a_doubted_plate_forbids_full_volts_until_a_test_supports_them():
    """75 hp at 460 V draws near 540 A locked: 60 V then drives 70 A; 6 kVA per hp says 460."""
    facts = TrustFacts(
        power_hp=Decimal(75), test_v=Decimal(60), test_a=Decimal(73), winding_ohm=Decimal("0.096")
    )
    told = estimate_voltage(facts)
    assert told.odds[0].volts_v == 460
    assert sum(item.odds for item in told.odds) == pytest.approx(1)
    ohms = estimate_voltage(TrustFacts(power_hp=Decimal(75), winding_ohm=Decimal("0.096")))
    assert not ohms.may_energize
    assert ohms.ways_out[0].id == "trust.way.test"
    both = estimate_voltage(
        TrustFacts(
            power_hp=Decimal(75),
            test_v=Decimal(60),
            test_a=Decimal(73),
            earlier_supply_v=Decimal(460),
        )
    )
    assert (both.confidence, both.may_energize) == ("high", True)
    apart = estimate_voltage(
        TrustFacts(
            power_hp=Decimal(75),
            test_v=Decimal(60),
            test_a=Decimal(73),
            earlier_supply_v=Decimal(200),
        )
    )
    assert "disagree" in {message.id.split(".")[1] for message in apart.working}
    assert not apart.may_energize
    for bad in ({}, {"test_v": Decimal(0), "test_a": Decimal(1)}):
        with pytest.raises(CoreError):
            estimate_voltage(TrustFacts(power_hp=Decimal(75), **bad))


def test_trust_holds_the_leads_step():
    """Doubted: held; with a test and an earlier supply: as the joints are."""
    out = worked(is_doubted=True)
    assert {state.step: state.state for state in out.states}["leads"] == "blocked"
    assert isinstance(out.estimate, CoreError)
    out = worked(is_doubted=True, power_hp="75", test_v="60", test_a="73", earlier_supply_v="460")
    assert out.estimate.may_energize
    assert {state.step: state.state for state in out.states}["leads"] == "open"
    out = worked(is_doubted=True, plate="460 V 3 PH 3 LEADS", leads=LeadsInputs())
    assert "No power is known" in str(out.estimate)


def test_a_motor_replaced_line_by_line():
    """More leads, other volts: supply, leads, joints, size and starter go down; nothing else."""
    record = ReplaceInputs(
        old_plate="15 HP 460 V 3 PH 3 LEADS 1765 RPM",
        rotation="clockwise",
        seen_from="shaft",
        conductors=(
            ConductorRecord(conductor="L1", terminal="T1"),
            ConductorRecord(conductor="L1"),
        ),
    )
    told = compare_plates(record, read("15 HP 230/460 V 3 PH 9 LEADS 1765 RPM").plate)
    assert told.takes_down == ("supply", "leads", "joints", "size", "starter")
    assert {point.id for point in told.open_points} == {
        "replaced.no_terminal",
        "replaced.twice",
        "replaced.unproven",
    }
    assert [line.field for line in told.lines if line.is_same] == [
        "power_hp",
        "speed_rpm",
        "phases",
    ]
    empty = compare_plates(ReplaceInputs(), read("").plate)
    assert len(empty.open_points) == 4


@pytest.mark.parametrize(
    ("after", "side", "rotation"),
    [
        ("clockwise", "shaft", "equal"),
        ("clockwise", "fan", "different"),
        ("counter-clockwise", "fan", "equal"),
        ("unknown", "shaft", "unproven"),
    ],
)
def test_rotation_is_equal_only_from_the_same_side(after, side, rotation):
    """Clockwise from the shaft is counter-clockwise from the fan."""
    record = ReplaceInputs(
        rotation="clockwise", seen_from="shaft", rotation_after=after, seen_from_after=side
    )
    assert compare_plates(record, read(PLATE).plate).rotation == rotation


def test_a_machine_goes_from_240_to_480():
    """IC-2 can; a 230 V motor cannot and says the kVA of its transformer; a fact missing is open."""
    today, to = SupplyInputs(text="240 delta"), SupplyInputs(text="480Y/277")

    def motor(plate, **leads):
        return convert_motor(
            MachineMotor(
                tag="X", plate=PlateInputs(text=plate), supply=today, leads=LeadsInputs(**leads)
            ),
            to,
        )

    can = motor(PLATE, winding="9-wye")
    assert can.answer == "can"
    assert [say(move) for move in can.moves][:3] == [
        "The box has not been entered: this assumes it is joined as derived. Open it and look first.",
        "Open L1 to T1-T7",
        "Open L2 to T2-T8",
    ]
    assert (can.amps_before, can.amps_after) == (Decimal("38.6"), Decimal("19.3"))
    cannot = motor("3/4 HP 230 V 3.2 A 3 PH 3 LEADS")
    assert cannot.answer == "cannot"
    assert round(cannot.load_kva, 2) == Decimal("1.27")  # 230 x 3.2 x root 3
    assert len(cannot.ways_out) == 4
    assert motor(PLATE).answer == "open"


def test_a_box_that_was_entered_is_converted_from_what_is_in_it():
    """Wired for 230 V but for one joint: only what differs is moved, and nothing is supposed."""
    made = [
        JointInput(id="a", line="L1", leads=("T1", "T7")),
        JointInput(id="b", line="L2", leads=("T2", "T8")),
        JointInput(id="c", line="L3", leads=("T3", "T9")),
        JointInput(id="d", leads=("T4", "T5", "T6")),
    ]
    found = convert_motor(
        MachineMotor(
            tag="X",
            plate=PlateInputs(text=PLATE),
            supply=SupplyInputs(text="240 delta"),
            leads=LeadsInputs(winding="9-wye", joints=tuple(made)),
        ),
        SupplyInputs(text="480Y/277"),
    )

    assert [say(move) for move in found.moves] == [
        "Open L1 to T1-T7",
        "Open L2 to T2-T8",
        "Open L3 to T3-T9",
        "Open T4-T5-T6",
        "Make L1 to T1",
        "Make L2 to T2",
        "Make L3 to T3",
        "Make T4-T7",
        "Make T5-T8",
        "Make T6-T9",
    ]


def test_a_box_that_does_not_fit_the_present_supply_is_said_first():
    """Joined for 460 V on a supply of 240 V: nothing is moved on that word alone."""
    made = [
        JointInput(id="a", line="L1", leads=("T1",)),
        JointInput(id="b", line="L2", leads=("T2",)),
        JointInput(id="c", line="L3", leads=("T3",)),
        JointInput(id="d", leads=("T4", "T7")),
        JointInput(id="e", leads=("T5", "T8")),
        JointInput(id="f", leads=("T6", "T9")),
    ]
    found = convert_motor(
        MachineMotor(
            tag="X",
            plate=PlateInputs(text=PLATE),
            supply=SupplyInputs(text="240 delta"),
            leads=LeadsInputs(winding="9-wye", joints=tuple(made)),
        ),
        SupplyInputs(text="480Y/277"),
    )

    assert [move.id for move in found.moves] == ["convert.box_differs"]


def test_a_transformer_is_not_offered_where_a_phase_is_missing():
    """A single-phase supply for a three-phase motor: a converter or a drive, no transformer."""
    found = convert_motor(
        MachineMotor(
            tag="X",
            plate=PlateInputs(text=PLATE),
            supply=SupplyInputs(text="240 delta"),
            leads=LeadsInputs(winding="9-wye"),
        ),
        SupplyInputs(text="240 1PH"),
    )

    assert found.answer == "cannot"
    assert [way.id for way in found.ways_out] == [
        "convert.way.converter",
        "convert.way.replace",
        "convert.way.keep",
    ]


@pytest.mark.parametrize(
    ("taps", "action", "after"),
    [(["240", "480"], "retap", "120"), (["480"], "keep", "120"), (["208", "240"], "replace", None)],
)
def test_control_transformers(taps, action, after):
    """Taps for the new supply, else another transformer; left as it is it would give double."""
    item = MachineTransformer(
        tag="T1",
        taps=tuple(TapInput(volts_v=volts) for volts in taps),
        secondary_v="120",
        now_v="240",
    )
    told = convert_transformer(item, Decimal(240), Decimal(480))
    assert told.action == action
    assert told.secondary_after_v == (None if after is None else Decimal(after))
    with pytest.raises(CoreError):
        convert_transformer(
            MachineTransformer(tag="T1", secondary_v="120"), Decimal(240), Decimal(480)
        )


@pytest.mark.parametrize(
    ("leads", "sense"),
    [
        # IEC 60034-8 ties U, V, W to clockwise at the shaft end; NEMA numbers to nothing
        ({"style": "UVW"}, "clockwise"),
        ({"style": "UVW", "direction": "reverse"}, "counter-clockwise"),
        ({"style": "T"}, "unknown"),
        ({"style": "UVWXYZ"}, "unknown"),
        ({"style": "UVW", "names": {"T1": "9"}}, "unknown"),
    ],
)
def test_only_letters_say_which_way_a_motor_turns(leads, sense):
    """Before any joint is made the joints asked for decide; the bump proves it."""
    box = worked(leads=LeadsInputs(winding="9-wye", **leads)).box
    assert box.turn is not None
    assert box.turn.sense == sense


def test_crossed_lines_turn_it_and_a_wrong_box_turns_nowhere():
    """Two lines exchanged reverse the expectation; a half against the other has none."""
    known = named("9-wye", "parallel_wye").joints
    cross = {"L1": "L3", "L3": "L1"}

    def turn(joints):
        given = tuple(
            JointInput(id=str(place), leads=list(joint.leads), line=joint.line)
            for place, joint in enumerate(joints)
        )
        leads = LeadsInputs(winding="9-wye", style="UVW", joints=given)
        return worked(leads=leads, supply="208Y/120").box

    crossed = turn([Joint(id=j.id, leads=j.leads, line=cross.get(j.line, j.line)) for j in known])
    assert (crossed.outcome.rotation, crossed.turn.sense) == ("reverse", "counter-clockwise")
    swapped = {"T1": "T7", "T7": "T8", "T8": "T1"}
    wrong = turn(
        [
            Joint(id=j.id, leads=tuple(swapped.get(k, k) for k in j.leads), line=j.line)
            for j in known
        ]
    )
    assert wrong.outcome.verdict == "wrong"
    assert wrong.turn is None
