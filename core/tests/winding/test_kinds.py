"""Every winding kind: derived for its supplies, look-alikes excluded, marks of every style."""

from math import sqrt

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from evencoil.base.errors import CoreError
from evencoil.base.words import say
from evencoil.leads.inputs import LeadsInputs
from evencoil.leads.outcome import judge_joints
from evencoil.leads.terminal_box import work_out_box
from evencoil.plate.reader import read
from evencoil.plate.supply import judge, read_supply
from evencoil.winding.coils import KINDS, winding_of
from evencoil.winding.connections import joinings, named, run_joinings, swap_lines
from evencoil.winding.joints import Joint
from evencoil.winding.lead_marks import lead_of, names_of, style_of
from evencoil.winding.look_alikes import continuity_groups, look_alikes
from evencoil.winding.rating import Rating, rating_of


def box_of(plate, supply, **leads):
    """Work the box of a nameplate out."""
    reading, on = read(plate), read_supply(supply)
    try:
        verdict, refused = judge(reading.plate, on), None
    except CoreError as error:
        verdict, refused = None, error
    return work_out_box(reading, on, verdict, refused, LeadsInputs(**leads))


def said(connection):
    """Return a connection as text: lines first."""
    return " | ".join(
        f"{joint.line or '-'} {' '.join(lead[1:] for lead in joint.leads)}"
        for joint in connection.joints
    )


@pytest.mark.parametrize(
    ("plate", "supply", "leads", "state", "wanted"),
    [
        # six leads at 1 : 1.73, both columns
        ("230/400 V D/Y 3 PH 6 LEADS", "400 V 3 PH", {}, "run", "L1 1 | L2 2 | L3 3 | - 4 5 6"),
        ("230/400 V D/Y 3 PH 6 LEADS", "230 V 3 PH", {}, "run", "L1 1 6 | L2 2 4 | L3 3 5"),
        # a range under D reaches what others call Y
        ("380-480 D / 660-690 Y V 3 PH 6 LEADS", "480Y/277", {}, "run", "L1 1 6 | L2 2 4 | L3 3 5"),
        # wye to start, delta to run
        (
            "15 HP 460 D V 3 PH 6 LEADS",
            "480Y/277",
            {"start_method": "wye_delta"},
            "start",
            "L1 1 | L2 2 | L3 3 | - 4 5 6",
        ),
        # twelve leads, each of the four
        (
            "230/460 V YY/Y 3 PH 12 LEADS",
            "480Y/277",
            {},
            "run",
            "L1 1 | L2 2 | L3 3 | - 4 7 | - 5 8 | - 6 9 | - 10 11 12",
        ),
        (
            "230/460 V DD/D 3 PH 12 LEADS",
            "240 delta",
            {},
            "run",
            "L1 1 6 7 12 | L2 2 4 8 10 | L3 3 5 9 11",
        ),
        # the second half comes on by itself
        (
            "230/460 V YY/Y 3 PH 12 LEADS",
            "240 delta",
            {"start_method": "part_winding"},
            "start",
            "L1 1 | L2 2 | L3 3 | - 4 5 6 | - 10 11 12",
        ),
        (
            "230/460 V YY/Y 3 PH 9 LEADS",
            "240 delta",
            {"start_method": "part_winding"},
            "start",
            "L1 1 | L2 2 | L3 3 | - 4 5 6",
        ),
        (
            "230 V 3 PH 6 LEADS PART WINDING START",
            "240 delta",
            {},
            "run",
            "L1 1 7 | L2 2 8 | L3 3 9",
        ),
        # two speeds
        (
            "10/5 HP 460 V 1750/870 RPM 60 HZ 3 PH 6 LEADS CONST TORQUE",
            "480Y/277",
            {"speed": "high"},
            "high",
            "L1 6 | L2 4 | L3 5 | - 1 2 3",
        ),
        (
            "10/2.5 HP 460 V 1750/870 RPM 60 HZ 3 PH 6 LEADS VARIABLE TORQUE",
            "480Y/277",
            {},
            "low",
            "L1 1 | L2 2 | L3 3",
        ),
        (
            "10 HP 460 V 1750/870 RPM 60 HZ 3 PH 6 LEADS CONSTANT HP",
            "480Y/277",
            {},
            "low",
            "L1 1 | L2 2 | L3 3 | - 4 5 6",
        ),
        (
            "10/5 HP 460 V 1750/1160 RPM 60 HZ 3 PH 6 LEADS",
            "480Y/277",
            {"speed": "high"},
            "high",
            "L1 11 | L2 12 | L3 13",
        ),
        # single phase, both voltages and both directions
        ("1 HP 115/230 V 1 PH 6 LEADS", "120/240 1PH", {}, "run", "L1 1 | L2 4 5 | - 2 3 8"),
        (
            "1 HP 115 V 1 PH 4 LEADS",
            "120 V 1PH",
            {"winding": "1-phase-reversible", "direction": "reverse"},
            "run",
            "L1 1 5 | L2 4 8",
        ),
    ],
)
def test_derived_for_every_kind(plate, supply, leads, state, wanted):
    """Each kind on its supply; the solver has proven every coil."""
    box = box_of(plate, supply, **leads)

    assert box.derived_error is None, str(box.derived_error)
    assert said(box.states.states[state]) == wanted


@pytest.mark.parametrize(
    ("plate", "supply", "leads", "code", "words"),
    [
        (
            "230/400 V D/Y 3 PH 6 LEADS",
            "400 V 3 PH",
            {"start_method": "wye_delta"},
            "refused",
            "does not run in delta",
        ),
        (
            "230/460 V YY/Y 3 PH 9 LEADS",
            "480Y/277",
            {"start_method": "part_winding"},
            "refused",
            "no half can be left off",
        ),
        (
            "15 HP 460 D V 3 PH 6 LEADS",
            "480Y/277",
            {"start_method": "part_winding"},
            "refused",
            "whole phases",
        ),
        ("230/460 V 3 PH 12 LEADS", "480Y/277", {}, "missing", "in wye or in delta"),
        ("220/380 V 3 PH 12 LEADS", "380 V 3 PH", {"winding": "12"}, "missing", "series or"),
        ("400/230 V D/Y 3 PH 6 LEADS", "400 V 3 PH", {}, "refused", "do not belong to one winding"),
        ("1 HP 115 V 1 PH 2 LEADS", "120 V 1PH", {"direction": "reverse"}, "refused", "one way"),
        ("5 HP 460 V 3 PH 6 LEADS 1750 RPM", "480Y/277", {}, "missing", "can be any of these"),
        (
            "10/5 HP 230/460 V 1750/870 RPM 3 PH 6 LEADS",
            "480Y/277",
            {"winding": "2-speed-ct"},
            "refused",
            "cannot have two voltages",
        ),
    ],
)
def test_what_cannot_be_derived_says_why(plate, supply, leads, code, words):
    """A reason and a way on, never a guess."""
    box = box_of(plate, supply, **leads)

    assert box.derived is None
    assert (box.derived_error.code, words in str(box.derived_error)) == (code, True)
    assert say(box.derived_error.hint)


def test_look_alikes_are_excluded_by_speeds_powers_signs_and_ohms():
    """Six leads: two speeds leave four kinds, the power ratio two, the ohms one."""
    plate = read("10/5 HP 230 V 1750/870 RPM 60 HZ 3 PH").plate

    def left(groups=()):
        return [item.kind for item in look_alikes(plate, 6, groups) if item.is_possible]

    assert left() == ["2-speed-ct", "2-speed-2-winding"]
    assert left((6,)) == ["2-speed-ct"]
    assert left((3, 3)) == ["2-speed-2-winding"]
    one = read("10 HP 460 V 1750 RPM 60 HZ 3 PH").plate
    kinds = {item.kind: item for item in look_alikes(one, 6)}
    assert say(kinds["2-speed-ct"].reason) == "the nameplate gives one speed."
    assert kinds["6"].is_possible


def test_a_choice_that_the_ohms_contradict_is_refused():
    """Three pairs are not a ring of six."""
    box = box_of("10 HP 460 V 3 PH 6 LEADS", "480Y/277", winding="2-speed-ct", groups=(2, 2, 2))
    assert "has continuity in groups of 6; you read 2 + 2 + 2" in str(box.derived_error)


@pytest.mark.parametrize(
    ("kind", "groups"),
    [
        ("6", (2, 2, 2)),
        ("9-wye", (3, 2, 2, 2)),
        ("9-delta", (3, 3, 3)),
        ("12", (2,) * 6),
        ("2-speed-vt", (6,)),
        ("2-speed-ct", (6,)),
        ("part-winding", (3, 3)),
        ("2-speed-2-winding", (3, 3)),
    ],
)
def test_groups_by_continuity_as_the_books_have_them(kind, groups):
    """How many leads ring together, from the coils alone."""
    assert continuity_groups(KINDS[kind]) == groups


@pytest.mark.parametrize("kind", list(KINDS))
def test_every_named_joining_gives_its_coils_one_voltage(kind):
    """At its own line volts every coil that is fed gets line over factor, in its phase."""
    known = joinings(kind)
    rating = Rating({item.name: (100 * item.factor,) * 2 for item in known})
    for item in known:
        if item.name.endswith("_crossed"):
            continue
        outcome = judge_joints(
            winding_of(kind), item.joints, volts_v=100 * item.factor, rating=rating
        )
        assert outcome.verdict == "right", (
            kind,
            item.name,
            [str(f.message) for f in outcome.findings],
        )
        for coil in outcome.coils:
            if not coil.is_resting:
                assert coil.volts_v == pytest.approx(
                    100, rel=0.01 if winding_of(kind).phases == 3 else 0.05
                )


def test_both_delta_jumper_sets_turn_the_same_way_a_sixth_of_a_turn_apart():
    """1-6 2-4 3-5 and 1-5 2-6 3-4: same sequence, angles 60 degrees apart, star in the middle."""
    rating = Rating({"delta": (100.0, 100.0), "wye": (100 * sqrt(3),) * 2})
    angles = {}
    for name in ("wye", "delta", "delta_crossed"):
        outcome = judge_joints(winding_of("6"), named("6", name).joints, volts_v=100, rating=rating)
        assert outcome.rotation == "forward"
        angles[name] = [round(coil.angle_deg) for coil in outcome.coils]
    for star, one, other in zip(*angles.values(), strict=True):
        assert (one - star + 180) % 360 - 180 == pytest.approx(30, abs=1)
        assert (other - star + 180) % 360 - 180 == pytest.approx(-30, abs=1)


@settings(deadline=None, max_examples=60)
@given(st.sampled_from(list(KINDS)), st.data())
def test_one_exchange_of_two_leads_is_found_and_named(kind, data):
    """Two leads of different joints exchanged in a right connection: wrong, and both are named."""
    if KINDS[kind].phases == 1:
        return
    known = data.draw(st.sampled_from(run_joinings(kind)))
    leads = [lead for joint in known.joints for lead in joint.leads]
    one, other = data.draw(st.sampled_from([(a, b) for a in leads for b in leads if a < b]))
    to = {one: other, other: one}
    joints = [
        Joint(id=j.id, line=j.line, leads=tuple(to.get(x, x) for x in j.leads))
        for j in known.joints
    ]
    rating = Rating({item.name: (100 * item.factor,) * 2 for item in joinings(kind)})
    outcome = judge_joints(winding_of(kind), joints, volts_v=100 * known.factor, rating=rating)
    if outcome.verdict == "right":
        # a change that only reorders phases is no mistake
        return
    assert say(outcome.findings[0].hint)
    first = outcome.findings[0]
    assert first.code in {
        "exchanged",
        "reversed",
        "motor_leads",
        "other_kind",
        "not_tied",
        "over",
        "over.named",
        "low.named",
        "turned",
        "idle",
        "low",
    }


def test_a_thermostat_lead_on_a_line_is_named():
    """P1 on L1: said first, with the joint it is in."""
    box = box_of(
        "15 HP 460 V Y 3 PH 3 LEADS",
        "480Y/277",
        joints=[
            {"id": "1", "line": "L1", "leads": ["T1", "P1"]},
            {"id": "2", "line": "L2", "leads": ["T2"]},
            {"id": "3", "line": "L3", "leads": ["T3"]},
        ],
        accessories=[{"id": "a", "marks": ["P1", "P2"], "kind": "thermostat", "ohms": "0.4"}],
    )
    assert box.outcome.verdict == "wrong"
    assert say(box.outcome.findings[0].message) == (
        "P1 is a thermostat lead and is joined to L1 T1."
    )


def test_marks_of_every_style_lead_to_the_same_number():
    """T7, 7, U5 and U3 are one lead; V of an old six-lead motor is T2."""
    twelve = winding_of("12")
    assert {lead_of(twelve, mark) for mark in ("T7", "7", "u5", "U3")} == {"T7"}
    assert names_of(winding_of("6"), "UVWXYZ")["T5"] == "Y"
    assert names_of(winding_of("2-speed-ct"), "UVW")["T6"] == "2U"
    assert names_of(winding_of("3-wye"), "UVW")["T3"] == "W"
    assert lead_of(winding_of("6"), "red", {"T4": "RED"}) == "T4"
    assert [style_of(marks) for marks in (["1", "T2"], ["U1", "V2"], ["U", "X"], ["red"])] == [
        "T",
        "UVW",
        "UVWXYZ",
        "custom",
    ]
    with pytest.raises(CoreError):
        names_of(winding_of("6"), "custom", {"T1": "a", "T2": "a"})
    with pytest.raises(CoreError):
        lead_of(winding_of("6"), "Q9")


def test_the_other_direction_moves_two_lines_and_no_lead():
    """L1 and L3 change places; every joint keeps its leads."""
    known = named("9-wye", "series_wye")
    turned = swap_lines(known, "L1-L3")
    assert [joint.leads for joint in turned.joints] == [joint.leads for joint in known.joints]
    assert {joint.line for joint in turned.joints} == {joint.line for joint in known.joints}
    assert next(j for j in turned.joints if "T1" in j.leads).line == "L3"


@pytest.mark.parametrize(
    ("plate", "kind", "name", "band"),
    [
        ("208-230/460 V 9 LEADS", "9-wye", "parallel_wye", (208, 230)),
        ("230/400 V 6 LEADS", "6", "delta", (230, 230)),
        ("460 V 6 LEADS", "6", "delta", (460, 460)),
        ("220/380/440/760 V 12 LEADS", "12", "series_delta", (440, 440)),
    ],
)
def test_rated_volts_of_a_joining(plate, kind, name, band):
    """As stamped, or by the ratio where nothing but the ratio says it."""
    rating = rating_of(winding_of(kind), read(plate).plate)
    assert rating.line_v[name] == band
