"""Drills: worked by hand from the tables, every wrong route apart, boxes, hidden faults."""

import random
from datetime import date
from decimal import Decimal

import pytest
from drill_drawn import drawn, wished

from evencoil.base import OutOfRangeError
from evencoil.practice import (
    KINDS,
    drill,
    due_after,
    hidden_hunt,
    judge,
    names_section,
    next_box,
    said_asked,
    said_fact,
    said_slip,
)
from evencoil.starters import entry_of

#: NEC Table 430.250, 460 V column [A]; Table 430.251(B), 460 V, design B [A]
FLC_460 = {"10": 14, "25": 34, "40": 52, "50": 65, "75": 96, "100": 124}
LRC_460 = {"10": 81, "25": 183, "40": 290, "50": 363, "75": 543, "100": 725}


@pytest.mark.parametrize("hp", ["25", "40", "75"])
def test_figures_are_those_of_the_tables(hp):
    """Table current, 125 % of it, 115 % of it, a third of locked rotor: by hand at 460 V."""
    flc = Decimal(FLC_460[hp])
    for kind, right in (
        ("table_current", flc),
        ("ampacity", flc * Decimal("1.25")),
        ("disconnect", flc * Decimal("1.15")),
        ("star_line", Decimal(LRC_460[hp]) / 3),
    ):
        one, _ = wished(kind, hp, "460")
        assert judge(one, f"{right:.4g}").is_right, (kind, one.right)


def test_the_same_device_in_an_exam_and_in_the_field():
    """40 hp, 460 V, dual-element fuse: 52 x 1.75 = 91; 90 by the main rule, 100 in the field."""
    told = ("40", "460", "dual_element_fuse")
    exam, _ = wished("protection", *told, setting="exam")
    assert exam.right == "90"
    field, _ = wished("protection", *told)
    assert field.right == "100"
    assert exam.path[0] == "NEC 2023, Table 430.250: row 40, column 460 V"
    assert exam.path[1].endswith("column dual-element fuse")
    assert judge(exam, "100").slip == "other_setting"
    assert judge(field, "90").slip == "other_setting"
    assert judge(field, "91").slip == "not_rounded"
    assert said_asked(exam) != said_asked(field)


def test_the_overload_goes_by_the_nameplate():
    """1.25 x the amps told at a service factor of 1.15; the table's current is a named slip."""
    one, facts = wished("overload", "1.15")
    amps = Decimal(facts["amps"].removesuffix(" A"))
    assert Decimal(one.right) == amps * Decimal("1.25")
    slips = {slip.id: Decimal(slip.value) for slip in one.slips}
    assert slips["dial"] == amps
    assert judge(one, f"{float(slips['ceiling_first']):.4g}").slip == "ceiling_first"
    assert judge(one, "1").slip == ""


def test_a_section_is_right_if_it_is_on_the_way():
    """125 % of the wire is 430.22 on the current of Table 430.250; 430.52 is another matter."""
    one = drill("ampacity", 3, "field")
    for told in ("430.22", "Table 430.250", "430.250, then 430.22"):
        assert names_section(one, told), told
    for told in ("430.52", "250", "", "430.250 and 430.52"):
        assert not names_section(one, told), told


def test_a_fact_that_is_missing_is_assumed_and_told():
    """No service factor told: 115 %, and the working says what was assumed."""
    for seed in range(200):
        one = drill("overload", seed, "field")
        facts = {fact.label: fact.value for fact in one.facts}
        if "service_factor" not in facts:
            break
    amps = Decimal(facts["amps"].removesuffix(" A"))
    assert Decimal(one.right) == amps * Decimal("1.15")
    assert judge(one, str(amps * Decimal("1.25"))).slip == "other_percent"
    assert "1.0" in one.working[0] or "115" in " ".join(one.working)


def test_joints_are_those_of_the_winding():
    """Nine leads in wye on 480 V: 4-7, 5-8, 6-9; on 240 V: 1-7, 2-8, 3-9 and 4-5-6."""
    high, _ = drawn("joints", winding="9-wye", supply="480Y/277")
    assert set(high.right.split()) == {"4-7", "5-8", "6-9"}
    low, _ = drawn("joints", winding="9-wye", supply="240")
    assert set(low.right.split()) == {"1-7", "2-8", "3-9", "4-5-6"}
    delta, _ = drawn("joints", winding="9-delta", supply="240")
    assert set(delta.right.split()) == {"1-6-7", "2-4-8", "3-5-9"}
    assert judge(low, delta.right).slip in {"other_winding", ""}


def test_hazards_are_those_that_are_played():
    """Two-wire starts with the power; three-wire does not; a button interlock plugs."""
    two, _ = drawn("hazard", circuit=f"2A, {entry_of('2A').title}", done="power_back")
    assert two.right == "UNEXPECTED START"
    three, _ = drawn("hazard", circuit=f"3A, {entry_of('3A').title}", done="power_back")
    assert three.right == "none of these"
    button, _ = drawn("hazard", circuit=f"6C, {entry_of('6C').title}", done="other_button")
    assert "PLUGGING" in button.right


def check(one):
    """One right answer, every wrong route with its own, all of them said."""
    assert judge(one, one.right).is_right
    for slip in one.slips:
        verdict = judge(one, slip.value)
        assert not verdict.is_right, (one, slip)
        assert verdict.slip == slip.id or one.kind in {"joints", "mystery", "ladder", "hazard"}
        assert said_slip(slip.id)
    for part in one.parts:
        assert len({part.right, *(slip.value for slip in part.slips)}) == 1 + len(part.slips)
    figures = [Decimal(one.right), *(Decimal(slip.value) for slip in one.slips)] if one.unit else []
    assert len(set(figures)) == len(figures)
    assert one.path
    assert one.working
    for fact in one.facts:
        assert all(said_fact(fact))
    assert one.surplus or not one.unit
    assert not one.choices or 3 <= len(one.choices) <= 9
    if one.choices:
        assert one.right in one.choices
        assert len(set(one.choices)) == len(one.choices)


@pytest.mark.parametrize("setting", ["exam", "field"])
@pytest.mark.parametrize("kind", KINDS)
def test_every_drill_has_one_right_answer_and_its_wrong_routes_apart(kind, setting):
    """Twenty of each, drawn at random."""
    rng = random.Random(kind + setting)
    for _ in range(20):
        check(drill(kind, rng.randrange(2**31), setting))


@pytest.mark.many
@pytest.mark.parametrize(
    "kind", [kind for kind in KINDS if kind not in {"joints", "mystery", "ladder", "hazard"}]
)
def test_thousands_of_drills_hold(kind):
    """Of each kind; ten thousand in all were made once (docs/benchmarks.md)."""
    rng = random.Random(kind)
    for _ in range(400):
        check(drill(kind, rng.randrange(2**31), rng.choice(("exam", "field"))))


def test_the_same_seed_is_the_same_question():
    """A drill that is set is one question for everyone."""
    for kind in KINDS:
        assert drill(kind, 7, "exam") == drill(kind, 7, "exam")


@pytest.mark.parametrize(
    ("kind", "seed", "setting"),
    [
        ("dance", 1, "exam"),
        ("overload", -1, "exam"),
        ("overload", 2**31, "exam"),
        ("overload", 1, "home"),
    ],
)
def test_what_is_no_drill_is_refused(kind, seed, setting):
    """With the kinds that there are."""
    with pytest.raises(OutOfRangeError):
        drill(kind, seed, setting)


def test_boxes_grow_and_fall_back():
    """1, 2, 4, 8, 16, 32 days; a wrong answer begins again."""
    box, day = 0, date(2026, 12, 1)
    days = []
    for _ in range(7):
        days.append((due_after(box, day) - day).days)
        box = next_box(box, is_right=True)
    assert days == [1, 2, 4, 8, 16, 32, 32]
    assert next_box(box, is_right=False) == 0


def test_a_hidden_fault_answers_as_the_panel_would():
    """Its fault is found by its own id, another is not; readings cost their minutes once set up."""
    hunt = hidden_hunt(3)
    assert hunt.is_found(hunt.truth.id)
    other = next(one for one in hunt.field.faults if one.row == "lines_exchanged")
    assert not hunt.is_found(other.id)
    assert not hunt.is_found("nothing")
    dead = [one for one in hunt.field.readings if one.setup == "dead"][:2]
    assert hunt.minutes([dead[0].id]) == pytest.approx(6 + dead[0].minutes)
    assert hunt.minutes([one.id for one in dead]) == pytest.approx(
        6 + sum(one.minutes for one in dead)
    )
    assert hunt.shows(dead[0].id)
    with pytest.raises(OutOfRangeError):
        hunt.shows("ohm||a~b")
