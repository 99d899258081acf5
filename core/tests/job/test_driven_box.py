"""The chosen starter drives the box: what stays joined, which conductors go out, bars left in."""

import pytest

from evencoil.base.words import say
from evencoil.job.inputs import JobInputs
from evencoil.job.work_out import work_out
from evencoil.leads.inputs import JointInput, LeadsInputs
from evencoil.plate.inputs import PlateInputs, SupplyInputs
from evencoil.starters.inputs import StarterInputs

SIX = "50 HP 460 V 62 A 1775 RPM 60 HZ 3 PH SF 1.15 6 LEADS"
NINE = "25 HP 230/460 V 62/31 A 1765 RPM 60 HZ 3 PH SF 1.15 9 LEADS"
TWELVE = "50 HP 230/460 V 124/62 A 1775 RPM 60 HZ 3 PH SF 1.15 12 LEADS"


def job(plate, supply, circuit, winding=None, joints=()):
    """Calculate a job with a starter and the box as joined."""
    made = tuple(
        JointInput(id=f"j{n}", leads=tuple(f"T{lead}" for lead in leads), line=line)
        for n, (line, *leads) in enumerate(joints)
    )
    return work_out(
        JobInputs(
            plate=PlateInputs(text=plate),
            supply=SupplyInputs(text=supply),
            leads=LeadsInputs(winding=winding, joints=made),
            starter=StarterInputs(standard_circuit=circuit),
        )
    )


def box_of(worked):
    """Return what stays joined and which conductors run to the starter."""
    stay = {tuple(joint.leads) for joint in worked.box.intended if len(joint.leads) > 1}
    return stay, [joint.to_starter for joint in worked.box.intended if joint.to_starter]


def leads_line(worked):
    """Return the first line of the Leads step."""
    return next(say(one.headline) for one in worked.states if one.step == "leads")


@pytest.mark.parametrize(
    ("plate", "supply", "circuit", "winding", "stay", "conductors"),
    [
        # six leads, delta at the line's volts: the starter makes star and delta, no bar stays
        (SIX, "480Y/277", "7A", "6", set(), 6),
        # nine-lead wye on low voltage, half winding 1-2-3 first: the inner star 4-5-6 stays
        (NINE, "240 delta", "10A", "9-wye", {("T4", "T5", "T6")}, 6),
        # twelve leads on high voltage: halves in series, so 4-7, 5-8, 6-9 stay
        (TWELVE, "480Y/277", "7A", "12", {("T4", "T7"), ("T5", "T8"), ("T6", "T9")}, 6),
        # twelve leads on low voltage: halves in parallel, heads and tails tied in pairs
        (
            TWELVE,
            "240 delta",
            "7A",
            "12",
            {
                ("T1", "T7"),
                ("T2", "T8"),
                ("T3", "T9"),
                ("T4", "T10"),
                ("T5", "T11"),
                ("T6", "T12"),
            },
            6,
        ),
    ],
)
def test_the_box_keeps_only_what_every_state_of_the_starter_has(
    plate, supply, circuit, winding, stay, conductors
):
    """By hand from the coils; every other lead runs to the starter on a conductor of its own."""
    worked = job(plate, supply, circuit, winding)
    have, out = box_of(worked)

    assert worked.box.is_switched
    assert have == stay
    assert len(out) == len(set(out)) == conductors


def test_an_across_the_line_starter_leaves_the_bars_of_the_running_connection():
    """3A switches three lines: the delta is made in the box."""
    worked = job(SIX, "480Y/277", "3A", "6")

    assert not worked.box.is_switched
    assert {tuple(sorted(joint.leads)) for joint in worked.box.intended} == {
        ("T1", "T6"),
        ("T2", "T4"),
        ("T3", "T5"),
    }


@pytest.mark.parametrize(
    ("joints", "code"),
    [
        # the delta bars of an across-the-line start: the star contactor then shorts the lines
        ([(None, 1, 6), (None, 2, 4), (None, 3, 5)], "bar_short"),
        # the star bar 4-5-6: the delta contactor then shorts the lines
        ([(None, 4, 5, 6)], "bar_short"),
    ],
)
def test_a_bar_left_in_a_star_delta_box_is_a_stop_that_says_what_happens(joints, code):
    """Leads says it first, and the starter holds."""
    worked = job(SIX, "480Y/277", "7A", "6", joints)

    assert worked.box.outcome.verdict == "wrong"
    assert worked.box.outcome.findings[0].code == code
    assert leads_line(worked) == "A BAR LEFT IN SHORTS THE LINES"
    assert "bar_left" in {found.code for found in worked.starter.findings}


def test_one_bar_left_in_ties_what_the_starter_keeps_apart():
    """1-6 alone puts L1 on the star point: no bolted short, but two coils get the line's volts."""
    worked = job(SIX, "480Y/277", "7A", "6", [(None, 1, 6)])

    assert [found.code for found in worked.box.outcome.findings] == ["bar_left"]
    assert leads_line(worked) == "A BAR TIES WHAT THE STARTER SWITCHES"


def test_a_box_made_for_its_starter_is_right_and_planned_conductor_by_conductor():
    """Twelve leads in series: three joints of two leads stay, six leads meet one conductor each."""
    kept = [(None, 4, 7), (None, 5, 8), (None, 6, 9)]
    alone = [(None, lead) for lead in (1, 2, 3, 10, 11, 12)]
    worked = job(TWELVE, "480Y/277", "7A", "12", kept + alone)

    assert worked.box.outcome.verdict == "right"
    assert leads_line(worked) == "KEEP 4-7 · 5-8 · 6-9 · 6 CONDUCTORS TO THE STARTER, BY LEAD"
    plans = worked.planned.joints
    assert sorted(len(plan.sizes) for plan in plans) == [2] * 9
    assert sum(any("starter" in end for end in plan.ends) for plan in plans) == 6


def test_a_joint_that_the_starter_does_not_make_is_missed():
    """Nine-lead part winding: without 4-5-6 the second half has no star."""
    worked = job(NINE, "240 delta", "10A", "9-wye", [(None, lead) for lead in range(1, 10)])

    assert [found.code for found in worked.box.outcome.findings] == ["bar_missing"]
    assert "4-5-6" in say(worked.box.outcome.findings[0].message)
