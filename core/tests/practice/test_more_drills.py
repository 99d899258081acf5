"""Drills of wire, reduced volts, feeders and the whole branch: cases worked by hand."""

from decimal import Decimal

import pytest
from drill_drawn import wished

from evencoil.base import Message, say
from evencoil.practice import drill, judge, judge_parts, said_part, said_slip
from evencoil.practice.mystery import groups_in

#: NEC Table 430.250 and 430.248 [A], read by hand
FLC_460 = dict(
    zip(
        ("5", "7 1/2", "10", "15", "20", "25", "30", "40", "50", "60", "75", "100", "125"),
        ("7.6", "11", "14", "21", "27", "34", "40", "52", "65", "77", "96", "124", "156"),
        strict=True,
    )
)
ONE_PHASE_230 = {"1": "8", "2": "12", "3": "17", "5": "28"}


@pytest.mark.parametrize("hp", ["1", "3", "5"])
def test_single_phase_has_its_own_table(hp):
    """Table 430.248 at 230 V; the three-phase figure is a named slip."""
    one, _ = wished("one_phase", hp, "230")
    assert judge(one, ONE_PHASE_230[hp]).is_right
    three = {"1": "4.2", "3": "9.6", "5": "15.2"}[hp]
    assert judge(one, three).slip == "three_phase_table"


def test_kilowatts_are_no_horsepower():
    """15 kW are 20 hp: 27 A at 460 V; the row of 15 hp has 21 A."""
    one, _ = wished("kilowatts", "15", "460")
    assert judge(one, "27").is_right
    assert judge(one, "21").slip == "kw_as_hp"


def test_a_slow_motor_goes_by_its_nameplate():
    """Less than 1,200 rpm: 430.6(A)(1) takes the nameplate; 125 % of it."""
    one, facts = wished("low_speed", "40", "460")
    amps = Decimal(facts["amps"].removesuffix(" A"))
    assert amps > 52
    assert judge(one, str(amps * Decimal("1.25"))).is_right
    assert judge(one, "65").slip == "table_for_low_speed"


@pytest.mark.parametrize(
    ("hp", "wishes", "right"),
    [
        ("40", ("cu", 75, 30, 3, "B"), "6 AWG"),  # 65 A: 65 at 75 C
        ("40", ("cu", None, 30, 3, "none"), "4 AWG"),  # 60 C: 6 AWG has 55, 4 AWG 70
        ("40", ("cu", None, 30, 3, "B"), "6 AWG"),  # design B: 75 C
        ("40", ("al", 75, 30, 3, "B"), "4 AWG"),  # 65 at 75 C
        ("30", ("cu", 75, 40, 6, "B"), "6 AWG"),  # 8: 55 x 0.91 x 0.8 = 40; 6: 75 x 0.728 = 54.6
        ("75", ("cu", 75, 30, 3, "none"), "1 AWG"),  # 120 A: 130 at 75 C
    ],
)
def test_a_wire_is_the_smallest_that_passes_twice(hp, wishes, right):
    """At 460 V, by 310.16: at its terminals, and at 90 C corrected and adjusted."""
    one, facts = wished("wire_size", hp, "460", *wishes)
    assert facts["power"] == f"{hp} hp"
    assert one.right == right
    assert judge(one, right.removesuffix(" AWG")).is_right
    for slip in one.slips:
        assert said_slip(slip.id).count("Or:") == slip.id.count("+")


def test_routes_that_meet_are_named_together():
    """25 hp, 460 V, unmarked: 42.5 A at 60 C is 6 AWG; the 75 C column and no 125 % both give 8."""
    one, _ = wished("wire_size", "25", "460", "cu", None, 30, 3, "none")
    assert one.right == "6 AWG"
    slip = judge(one, "8 AWG").slip
    assert {"lug_75", "no_125"} <= set(slip.split("+"))
    assert "60 °C, except" in said_slip(slip)
    assert "430.22" in said_slip(slip)


@pytest.mark.parametrize(
    ("hp", "metal", "right"),
    [
        ("40", "cu", "8 AWG"),  # 100 A
        ("60", "cu", "6 AWG"),  # 77 A, 150 A
        ("40", "al", "6 AWG"),
        ("60", "al", "4 AWG"),
    ],
)
def test_a_grounding_conductor_goes_by_the_device(hp, metal, right):
    """Table 250.122: 100 A 8 AWG copper, 6 aluminum; 200 A 6 and 4."""
    one, facts = wished("grounding", hp, "460", metal, 75, "dual_element_fuse", 3, 30, "B")
    assert facts["rating"] == {"40": "100 A", "60": "150 A"}[hp]
    assert one.right == right


def test_taps_count_squared():
    """40 hp, 460 V, 290 A locked: on the 65 % tap 122.5 A in the line, on 80 % 185.6 A."""
    for tap, line in (("65", "122.525"), ("80", "185.6"), ("50", "72.5")):
        one, _ = wished("autotransformer", "40", "460", tap)
        assert judge(one, line).is_right, tap
        assert judge(one, str(290 * int(tap) / 100)).slip == "tap_once"


def test_legs_of_a_delta_and_halves():
    """40 hp, 460 V: legs 0.72 x 52 = 37.44 A; halves 52 / 2 x 1.25 = 32.5 A."""
    leg, _ = wished("leg_wire", "40", "460")
    assert judge(leg, "37.44").is_right
    assert judge(leg, "65").slip == "leg_full"
    half, _ = wished("part_winding", "40", "460")
    assert judge(half, "32.5").is_right
    assert judge(half, "37.44").slip == "part_58"
    over, facts = wished("leg_overload", "1.15")
    amps = Decimal(facts["amps"].removesuffix(" A"))
    assert judge(over, str(amps * Decimal("0.725"))).is_right
    assert judge(over, str(amps * Decimal("1.25"))).slip == "line_in_leg"


def test_coils_of_nine_leads():
    """460 V in series: 132.8 V each; 230 V in parallel: 132.8 V too."""
    for volts in ("460", "230"):
        one, _ = wished("coil_volts", volts)
        assert judge(one, "132.8").is_right
        assert judge(one, "133").is_right
    high, _ = wished("coil_volts", "460")
    assert judge(high, "265.6").slip == "coil_phase"


def test_an_instantaneous_breaker_of_premium_efficiency():
    """40 hp, 460 V: 11 x 52 = 572 A; 800 % would be 416."""
    one, _ = wished("instantaneous", "40", "460")
    assert judge(one, "572").is_right
    assert judge(one, "416").slip == "instantaneous_800"


def test_a_wound_rotor_has_150_percent():
    """40 hp, 460 V: 78 A; 80 in the field, 70 in an exam; 300 % of the cage's row is a slip."""
    told = ("40", "460", "nontime_delay_fuse")
    field, _ = wished("wound_rotor", *told)
    assert field.right == "80"
    assert judge(field, "175").slip == "cage_percent"
    exam, _ = wished("wound_rotor", *told, setting="exam")
    assert exam.right == "70"
    assert judge(exam, "150").slip == "cage_percent"


def test_a_feeder_counts_its_largest_once():
    """125 % of the largest and all others; device: the largest breaker and the others, down."""
    wire, facts = wished("feeder_wire", "460")
    flc = [Decimal(FLC_460[facts[f"motor_{at}"].split(" hp")[0]]) for at in (1, 2, 3)]
    assert judge(wire, str(sum(flc) + max(flc) / 4)).is_right
    assert judge(wire, str(sum(flc) * 5 / 4)).slip == "feeder_125_all"
    device, facts = wished("feeder_device", "460")
    flc = [Decimal(FLC_460[facts[f"motor_{at}"].split(" hp")[0]]) for at in (1, 2, 3)]
    ratings = [int(facts[f"motor_{at}"].split("breaker ")[1].split(" ")[0]) for at in (1, 2, 3)]
    limit = max(ratings) + sum(flc) - flc[ratings.index(max(ratings))]
    standard = [60, 70, 80, 90, 100, 110, 125, 150, 175, 200, 225, 250, 300, 350, 400, 450, 500]
    assert judge(device, str(max(one for one in standard if one <= limit))).is_right
    assert judge(device, str(sum(ratings))).slip == "feeder_sum_devices"
    assert judge(device, str(limit)).slip == "feeder_not_rounded"


def test_a_whole_branch_is_judged_part_by_part():
    """40 hp, 460 V: 52, 65, a wire, a device, overload by the nameplate, ground, 59.8 A."""
    one, facts = wished("branch", "40", "460", "dual_element_fuse")
    kinds = [part.kind for part in one.parts]
    by_kind = {part.kind: part.right for part in one.parts}
    assert (by_kind["table_current"], by_kind["ampacity"]) == ("52", "65")
    assert (by_kind["protection"], by_kind["disconnect"]) == ("100", "59.8")
    assert judge(one, "; ".join(by_kind[kind] for kind in kinds)).is_right
    amps = facts["amps"].removesuffix(" A")
    given = dict(by_kind) | {"table_current": amps, "grounding": "nonsense"}
    verdicts = judge_parts(one, ";".join(given[kind] for kind in kinds))
    wrong = {
        kind: verdict.slip
        for kind, verdict in zip(kinds, verdicts, strict=True)
        if not verdict.is_right
    }
    assert wrong == {"table_current": "nameplate_amps", "grounding": ""}
    assert not judge(one, "52").is_right
    assert [verdict.is_right for verdict in judge_parts(one, "52")] == [True] + [False] * 6
    assert all(said_part(kind) for kind in kinds)
    for part in one.parts:
        for slip in part.slips:
            assert said_slip(slip.id)
            assert slip.value != part.right


def test_no_nameplate_is_absurd():
    """What is stamped is near the table's row: 86 to 97 percent of it, for every question."""
    for kind in ("overload", "branch", "leg_overload"):
        for seed in range(25):
            one = drill(kind, seed)
            facts = {fact.label: fact.value for fact in one.facts}
            if facts.get("volts") != "460 V, three phase":
                continue
            table = FLC_460.get(facts.get("power", "").removesuffix(" hp"))
            if table:
                part = Decimal(facts["amps"].removesuffix(" A")) / Decimal(table)
                assert Decimal("0.85") < part < Decimal("0.98"), facts


@pytest.mark.parametrize(
    ("kind", "sizes"),
    [
        ("6", [2, 2, 2]),
        ("9-wye", [2, 2, 2, 3]),
        ("9-delta", [3, 3, 3]),
        ("12", [2] * 6),
        ("part-winding", [3, 3]),
        ("2-speed-vt", [6]),
        ("2-speed-2-winding", [3, 3]),
    ],
)
def test_a_mystery_motor_is_known_by_its_groups(kind, sizes):
    """As every motor shop counts them; of two groups of three the ohms tell."""
    assert sorted(len(group) for group in groups_in(kind)) == sizes
    for seed in range(200):
        one = drill("mystery", seed)
        facts = {fact.label: fact.value for fact in one.facts}
        if said_slip(f"mystery_{kind}") and one.right == say(Message(f"practice.winding.{kind}")):
            break
    assert sorted(len(group.split("-")) for group in facts["groups"].split()) == sizes
    assert ("several" in facts["ohms"]) == (kind == "2-speed-2-winding")
