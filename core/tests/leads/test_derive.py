"""Leads: the derived connection, wrong joins for what they do, and the solver under both."""

import cmath
import json
from math import isfinite, sqrt
from pathlib import Path

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from evencoil.base.errors import CoreError
from evencoil.base.words import say
from evencoil.circuit.netlist import Device, Netlist, Wire
from evencoil.job.inputs import JobInputs
from evencoil.job.work_out import work_out
from evencoil.leads.derive import derive
from evencoil.leads.inputs import JointInput, LeadsInputs
from evencoil.leads.outcome import judge_joints
from evencoil.leads.terminal_box import work_out_box
from evencoil.plate.inputs import PlateInputs, SupplyInputs
from evencoil.plate.reader import read
from evencoil.plate.supply import judge, read_supply
from evencoil.sizing.inputs import SizeInputs
from evencoil.solver.network import Network, solve_linear
from evencoil.winding.coils import LINES, winding_of
from evencoil.winding.connections import run_joinings
from evencoil.winding.joints import Joint
from evencoil.winding.lead_marks import lead_of
from evencoil.winding.rating import rating_of

CASES = json.loads((Path(__file__).parents[1] / "cases" / "leads.json").read_text())["cases"]
KIND = {
    "3 lead": "3-wye",
    "6 lead NEMA, delta run": "6",
    "6 lead IEC 1:1.73": "6",
    "6 lead IEC": "6",
    "9 lead wye": "9-wye",
    "9 lead delta": "9-delta",
    "12 lead, wye start delta run": "12",
    "two-speed one winding IEC (constant torque)": "2-speed-ct",
    "two-speed one winding, constant torque": "2-speed-ct",
}
#: what the examples call a connection, and what it is called here
NAME = {"low speed (delta)": "low_delta", "low speed: delta": "low_delta"}
#: the first finding of each mistake
MISTAKE = {"LI-06": "not_tied", "LI-20": "low.named"}


def stamped(motor):
    """Return an example's plate as it would be stamped."""
    signs = motor["signs"].replace(" run", "").replace("Δ", "D")
    if "speed" in motor["kind"] or signs == "single voltage":
        return f"{motor['nameplate_volts']} V 3 PH"
    if "/" in signs:
        return f"{motor['nameplate_volts']} V 3 PH CONN {signs}"
    return f"{motor['nameplate_volts']} {signs} V 3 PH"


def of_case(winding, joints):
    """Return an example's joints, by whatever marks it uses."""
    return [
        Joint(
            id=str(place),
            leads=tuple(lead_of(winding, mark) for mark in item["leads"]),
            line=item["supply"],
        )
        for place, item in enumerate(joints)
    ]


def partition(joints):
    """Return joints without ids and order."""
    return {(joint.line, frozenset(joint.leads), joint.conductors) for joint in joints}


@pytest.mark.parametrize("case", CASES, ids=lambda case: case["id"])
def test_worked_examples(case):
    """The joints, the refusal, or the verdict of every example."""
    motor, expected = case["motor"], case["expected"]
    winding = winding_of(KIND[motor["kind"]])
    plate = read(stamped(motor)).plate
    supply = read_supply(f"{case['supply_volts']} V 3 phase")
    if case["direction"] == "inverse":
        outcome = judge_joints(
            winding,
            of_case(winding, case["found"]),
            volts_v=case["supply_volts"],
            rating=rating_of(winding, plate),
        )
        assert outcome.verdict == {"valid": "right", "mistake": "wrong"}[expected["result"]]
        if expected["result"] == "mistake":
            assert outcome.findings[0].code == MISTAKE[case["id"]]
        else:
            name = NAME.get(expected["connection"], expected["connection"].replace(" ", "_"))
            assert outcome.name == name
        return

    def answer():
        return derive(
            winding,
            rating=rating_of(winding, plate),
            supply=supply,
            verdict=judge(plate, supply),
            start_method=case.get("start_method", "full_voltage").replace("-", "_"),
            speed=case.get("speed", ""),
        )

    if expected["result"] == "refuse":
        with pytest.raises(CoreError) as caught:
            answer()
        assert say(caught.value.hint)
        return
    found = answer()
    states = expected.get("states", {found.of: expected})
    for state, wanted in states.items():
        known = found.states[state]
        joints = of_case(winding, wanted["joints"])
        assert partition(known.joints) == partition(joints)
        assert {j.conductors for j in joints} == {j["conductors"] for j in wanted["joints"]}
        free = [lead_of(winding, mark) for mark in expected.get("insulate_separately", [])]
        assert sorted(known.free(winding)) == sorted(free)


NINE = read("15 HP 230/460 V 3 PH 9 LEADS").plate
HIGH, LOW = read_supply("480Y/277"), read_supply("240 delta")


def joined(text, kind="9-wye", supply=HIGH, plate=NINE):
    """Join leads as in ``L1 1, L2 2, 4 7`` and return what it does."""
    joints = []
    for place, part in enumerate(text.split(", ")):
        names = [name if name.startswith("L") else f"T{name}" for name in part.split()]
        line = next((name for name in names if name in LINES), None)
        leads = tuple(name for name in names if name != line)
        joints.append(Joint(id=str(place), leads=leads, line=line))
    winding = winding_of(kind)
    return judge_joints(
        winding,
        joints,
        volts_v=float(supply.line_volts_v),
        rating=rating_of(winding, plate, "delta" if kind == "12" else None),
    )


SERIES = "L1 1, L2 2, L3 3, 4 7, 5 8, 6 9"


@pytest.mark.parametrize("kind", ["9-wye", "9-delta"])
def test_half_volts_by_hand(kind):
    """480 / sqrt(3) / 2 = 138.6 V a half in wye, 240 V in delta, less the supply's small drop."""
    outcome = joined(SERIES, kind)
    by_hand = 480 / (2 * sqrt(3) if kind == "9-wye" else 2)

    assert outcome.verdict == "right"
    for coil in outcome.coils:
        assert coil.volts_v == pytest.approx(by_hand, rel=0.005)


@pytest.mark.parametrize(
    ("joints", "supply", "codes"),
    [
        # low-voltage joints on the high supply: twice the volts
        ("L1 1 7, L2 2 8, L3 3 9, 4 5 6", HIGH, ["over.named"]),
        # high-voltage joints on the low supply: half the volts
        (SERIES, LOW, ["low.named"]),
        # 4-5 instead of 4-7: A1 and B1 between L1 and L2, 240 V each; 7-8 is a ring that the
        # cage and the live halves feed by induction
        ("L1 1, L2 2, L3 3, 4 5, 7 8, 6 9", HIGH, ["exchanged", "over", "idle"]),
        # two lines in one joint, shown and not prevented: B carries nothing
        ("L1 L2 1, L3 3, 4 7, 5 8, 6 9", HIGH, ["short", "idle"]),
        # one line off: that, and no joint that is missing
        ("L1 1, L2 2, 4 7, 5 8, 6 9", HIGH, ["no_line", "idle"]),
        # a joint off: that, and no line that is missing
        ("L1 1, L2 2, L3 3, 4 7, 5 8", HIGH, ["not_tied", "idle"]),
        # both ends of a coil in one joint: it carries what the others induce, and they get more
        ("L1 1 4 7, L2 2, L3 3, 5 8, 6 9", HIGH, ["both_ends", "over"]),
        # every lead of the lines on one line: nothing at all, and no weak start
        ("L1 1 2 3, 4 7, 5 8, 6 9", HIGH, ["no_line", "no_torque"]),
        # two of the inner joints crossed: A1 in series with B2
        ("L1 1, L2 2, L3 3, 4 8, 5 7, 6 9", HIGH, ["exchanged", "over", "circulating"]),
        # the star of the outer halves not made
        ("L1 1 7, L2 2 8, L3 3 9", LOW, ["not_tied", "idle"]),
        # motor leads 1 and 2 exchanged instead of two lines
        ("L1 2 7, L2 1 8, L3 3 9, 4 5 6", LOW, ["motor_leads", "circulating"]),
        # one half the wrong way round
        ("L1 4, L2 2, L3 3, 1 7, 5 8, 6 9", HIGH, ["reversed", "over"]),
    ],
)
def test_wrong_joins_are_named_for_what_they_do(joints, supply, codes):
    """Nothing is prevented; each fault is named, worst first, with what to do."""
    outcome = joined(joints, supply=supply)

    assert outcome.verdict == "wrong"
    assert [found.code for found in outcome.findings] == codes
    assert all(say(found.hint) for found in outcome.findings)


def test_no_line_yet_is_open_and_not_wrong():
    """Before a line is on, there is nothing to judge."""
    assert joined("4 7, 5 8").verdict == "open"


@pytest.mark.parametrize(
    ("plate", "chosen", "code"),
    [
        ("15 HP 460 V", None, "missing"),
        ("15 HP 230/460 V 9 LEADS", None, "missing"),
        ("15 HP 230/460 V 12 LEADS", None, "missing"),
        ("15 HP 460 V 7 LEADS", None, "out_of_range"),
        ("15 HP 230/460 V 3 LEADS", None, "refused"),
        ("15 HP 460 V 9 LEADS", "9-wye", "missing"),
        ("15 HP 250/460 V 9 LEADS", "9-wye", "refused"),
        ("15 HP 230/460 V 6 LEADS", "6", "refused"),
        ("15 HP 230/460 V D/Y 6 LEADS", "6", "refused"),
        ("15 HP 230/460 V 9 LEADS", "3-wye", "refused"),
    ],
)
def test_what_cannot_be_derived_says_why(plate, chosen, code):
    """Missing counts, look-alikes, too few leads, volts that do not fit."""
    reading = read(plate)
    supply = read_supply("480Y/277")
    box = work_out_box(
        reading, supply, judge(reading.plate, supply), None, LeadsInputs(winding=chosen)
    )

    assert box.derived is None
    assert box.derived_error is not None
    assert box.derived_error.code == code
    assert say(box.derived_error.hint)


def test_the_quick_tell_says_when_counting_cannot_decide():
    """Series wye and series delta count the same; the parallel ones do not."""
    reading = read("15 HP 230/460 V 9 LEADS")
    texts = {}
    for supply in (HIGH, LOW):
        verdict = judge(reading.plate, supply)
        box = work_out_box(reading, supply, verdict, None, LeadsInputs(winding="9-delta"))
        texts[box.derived.name] = say(box.tell)

    assert "Counting cannot tell it from nine-lead wye, series wye" in texts["series_delta"]
    assert "cannot" not in texts["parallel_delta"]


def test_a_three_lead_motor_is_drawn_as_a_wye_and_says_so():
    """The joints are the same either way; the note names what no one read."""
    reading = read("15 HP 460 V 3 LEADS")
    box = work_out_box(reading, HIGH, judge(reading.plate, HIGH), None, LeadsInputs())

    assert box.derived.name == "wye"
    assert "Wye or delta inside is not stated" in say(box.notes[0])


@pytest.mark.parametrize("text", ["L1 1, L2 1", "L1 1, L1 2", "L1 12"])
def test_impossible_joints_are_refused(text):
    """A lead or a line in two joints, a lead that is not there."""
    with pytest.raises(CoreError):
        joined(text)


GROUPS = st.lists(st.integers(0, 5), min_size=12, max_size=12)


def groups(places):
    """Return any partition of nine leads and three lines, as joints."""
    names = [f"T{number}" for number in range(1, 10)] + list(LINES)
    found = []
    for group in sorted(set(places)):
        inside = [name for name, place in zip(names, places, strict=True) if place == group]
        lines = [name for name in inside if name in LINES]
        leads = tuple(name for name in inside if name not in LINES)
        if len(inside) > 1:
            line = lines[0] if lines else None
            found.append(Joint(id=str(group), leads=(*leads, *lines[1:]), line=line))
    return found


@settings(deadline=None)
@given(GROUPS, st.sampled_from(["9-wye", "9-delta"]))
def test_any_partition_of_leads_gives_a_finite_solution(places, kind):
    """However the leads are joined, volts are finite and go with the supply: a winding is linear.

    There is no other bound: two phases fed against their sense induce more than twice the
    supply's volts in the third.
    """
    winding = winding_of(kind)
    rating = rating_of(winding, NINE)
    outcome = judge_joints(winding, groups(places), volts_v=480.0, rating=rating)
    half = judge_joints(winding, groups(places), volts_v=240.0, rating=rating)

    for coil, less in zip(outcome.coils, half.coils, strict=True):
        assert isfinite(coil.volts_v)
        assert coil.volts_v >= 0
        assert less.volts_v == pytest.approx(coil.volts_v / 2, rel=1e-6, abs=1e-6)
    if outcome.verdict == "right":
        assert all(0.9 <= coil.ratio <= 1.1 for coil in outcome.coils)
        assert not any(coil.is_idle or coil.is_turned for coil in outcome.coils)


@settings(deadline=None)
@given(GROUPS, st.sampled_from(["9-wye", "9-delta"]))
def test_any_box_is_told_in_words(places, kind):
    """Whatever is joined, the step has a first line and every finding its sentence."""
    joints = tuple(
        JointInput(id=joint.id, leads=joint.leads, line=joint.line) for joint in groups(places)
    )
    worked = work_out(
        JobInputs(
            plate=PlateInputs(text="15 HP 230/460 V 3 PH 9 LEADS"),
            supply=SupplyInputs(text="480Y/277"),
            size=SizeInputs(),
            leads=LeadsInputs(winding=kind, joints=joints),
        )
    )

    assert all(say(state.headline) for state in worked.states)
    assert worked.box.outcome is not None
    assert all(say(found.message) for found in worked.box.outcome.findings)


def test_lines_on_leads_that_lead_nowhere_are_not_right():
    """Three lines on T1, T2, T3 and nothing else joined: no coil carries anything."""
    outcome = joined("L1 1, L2 2, L3 3")

    assert outcome.verdict == "wrong"
    assert "no_torque" in [found.code for found in outcome.findings]


@settings(deadline=None)
@given(
    st.sampled_from(["series", "parallel"]),
    st.sampled_from(["9-wye", "9-delta"]),
    st.permutations(LINES),
)
def test_swapping_lines_never_changes_magnitudes(way, kind, order):
    """For every right connection: other lines on the same joints give the same volts."""
    winding = winding_of(kind)
    known = next(item for item in run_joinings(kind) if item.name.startswith(way))
    swap = dict(zip(LINES, order, strict=True))
    swapped = [
        Joint(id=joint.id, leads=joint.leads, line=swap[joint.line] if joint.line else None)
        for joint in known.joints
    ]
    rating = rating_of(winding, NINE)
    first = judge_joints(winding, known.joints, volts_v=480.0, rating=rating)
    other = judge_joints(winding, swapped, volts_v=480.0, rating=rating)
    odd = sum(order[i] > order[j] for i in range(3) for j in range(i + 1, 3)) % 2

    assert (first.rotation, other.rotation) == ("forward", "reverse" if odd else "forward")
    mine, theirs = (sorted(coil.volts_v for coil in outcome.coils) for outcome in (first, other))
    assert mine == pytest.approx(theirs, rel=1e-9)


def test_the_solver_against_a_divider_and_coupled_coils_by_hand():
    """10 V over 1 and 3 ohm; and two coupled coils: V2 = M / L1 of what is on the first."""
    network = Network(2)
    network.source(0, 10, 1)
    network.coils([(0, 1)], [[2]])
    network.source(1, 0, 1)
    assert network.solve() == pytest.approx([7.5, 2.5], rel=1e-6)

    coupled = Network(3)
    coupled.source(0, 10, 1e-6)
    coupled.coils([(0, 2), (1, 2)], [[10j, 4j], [4j, 10j]])
    coupled.source(2, 0, 1e-6)
    assert abs(coupled.solve()[1]) == pytest.approx(4, rel=1e-3)


@given(st.lists(st.complex_numbers(max_magnitude=10, allow_nan=False), min_size=9, max_size=9))
def test_elimination_solves_what_it_was_given(entries):
    """A x = b holds for any well-conditioned matrix."""
    matrix = [
        [entries[3 * row + column] + (50 if row == column else 0) for column in range(3)]
        for row in range(3)
    ]
    right = [1, 2j, cmath.rect(3, 1)]
    found = solve_linear(matrix, right)

    for row in range(3):
        assert sum(matrix[row][column] * found[column] for column in range(3)) == pytest.approx(
            right[row]
        )


@given(st.lists(st.tuples(st.integers(0, 5), st.integers(0, 5)), max_size=8))
def test_nets_are_exactly_what_wires_join(pairs):
    """Two terminals have one number if and only if a chain of wires joins them."""
    device = Device("x", "motor", tuple("abcdef"))
    wires = tuple(
        Wire(str(place), f"x.{'abcdef'[one]}", f"x.{'abcdef'[other]}")
        for place, (one, other) in enumerate(pairs)
    )
    nets = Netlist((device,), wires).nets()
    reach = [{place} for place in range(6)]
    for _ in range(6):
        for one, other in pairs:
            joined_set = reach[one] | reach[other]
            for place in joined_set:
                reach[place] = reach[place] | joined_set
    for one in range(6):
        for other in range(6):
            together = nets[f"x.{'abcdef'[one]}"] == nets[f"x.{'abcdef'[other]}"]
            assert together == (other in reach[one])


def test_unknown_windings_are_refused():
    """Only kinds whose coils are here."""
    with pytest.raises(CoreError):
        winding_of("7-lead")
