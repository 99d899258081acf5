"""Unmarked leads: worked examples, random motors, contradictions, impossible readings."""

from math import cos, radians
from random import Random

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from evencoil.base.errors import CoreError
from evencoil.base.words import say
from evencoil.leads.identify.bench import PracticeBench
from evencoil.leads.identify.guide import _kicks_fit, guide
from evencoil.leads.identify.numbering import Numbering, volts_of
from evencoil.leads.identify.readings import Kick, Touch, Volts, lead_letters
from evencoil.leads.identify.stored import guide_bench
from evencoil.leads.inputs import BenchInputs
from evencoil.leads.outcome import judge_joints
from evencoil.winding.coils import KINDS
from evencoil.winding.connections import run_joinings
from evencoil.winding.joints import Joint
from evencoil.winding.rating import Rating

KINDS_HERE = (
    "6",
    "9-wye",
    "9-delta",
    "12",
    "2-speed-vt",
    "2-speed-ct",
    "2-speed-cp",
    "part-winding",
    "2-speed-2-winding",
)


def walk(kind, seed, most=60):
    """Do what the guide asks on a practice motor, to the end; return motor, guide, readings."""
    motor, readings = PracticeBench(kind, seed), []
    told = guide(motor.lead_letters, readings)
    while told.ask is not None and len(readings) < most:
        ask = told.ask
        if ask.what == "touch":
            ohms = motor.ohms(ask.pair)
            readings.append(Touch(ask.pair, ohms is not None, ohms))
        else:
            shown = motor.volts(ask.feed, 10.0, ask.joined, ask.pair)
            readings.append(Volts(ask.feed, 10.0, ask.joined, ask.pair, shown))
        told = guide(motor.lead_letters, readings)
    return motor, told, readings


def works(motor, numbers):
    """Tell whether every connection by these numbers is right on the true motor."""
    true_lead = {lead: motor.lead_of[letter] for letter, lead in numbers.items()}
    known = run_joinings(motor.kind)
    rating = Rating({item.name: (100 * item.factor,) * 2 for item in known})
    for item in known:
        joints = [
            Joint(
                id=joint.id, line=joint.line, leads=tuple(true_lead[lead] for lead in joint.leads)
            )
            for joint in item.joints
        ]
        outcome = judge_joints(KINDS[motor.kind], joints, volts_v=100 * item.factor, rating=rating)
        if outcome.verdict != "right":
            return False
    return True


#: the other triad of the ring: which is T1, T2, T3 the guide says it cannot tell
OTHER_TRIAD = {"T1": "T4", "T2": "T6", "T3": "T5", "T4": "T1", "T5": "T3", "T6": "T2"}


@pytest.mark.parametrize("kind", KINDS_HERE)
def test_one_motor_of_each_kind_is_numbered(kind):
    """The first of many, in the run that counts lines."""
    check(kind, 11)


@pytest.mark.many
@pytest.mark.parametrize(
    ("kind", "times"),
    [pair for kind in KINDS_HERE for pair in ([(kind, 5)] * 3 if kind == "12" else [(kind, 30)])],
)
def test_numbers_are_right_whatever_the_motor_and_the_meter(kind, times):
    """Any order of leads, any coupling, a meter 2 % off: joined by these numbers, it is right.

    Thousands of motors: ``benchmarks/unmarked.py``.
    """

    @settings(deadline=None, max_examples=times)
    @given(st.integers(0, 10**9))
    def walked(seed):
        check(kind, seed)

    walked()


def check(kind, seed):
    """Number a practice motor and hold every connection by these numbers against the true one."""
    motor, told, _ = walk(kind, seed)

    assert told.stage == "done"
    assert kind in told.kinds
    numbers = dict(told.numbers)
    if kind in {"2-speed-ct", "2-speed-cp"}:
        assert "same from both triads" in say(told.notes[0])
        other = {letter: OTHER_TRIAD[lead] for letter, lead in numbers.items()}
        assert works(motor, numbers) or works(motor, other)
    else:
        assert works(motor, numbers)


@pytest.mark.many
@pytest.mark.parametrize(
    ("kind", "most"), [("6", 14), ("9-delta", 25), ("9-wye", 36), ("2-speed-vt", 11)]
)
def test_never_more_readings_than_a_careful_person_takes(kind, most):
    """Over twenty motors: at most this many, those included that prove the others."""
    taken = [len(walk(kind, seed)[2]) for seed in range(20)]

    assert max(taken) <= most


def test_nine_leads_by_continuity():
    """Three pairs and a triple: nine-lead wye, the triple is T7, T8, T9 in any order (ID-01)."""
    told = guide("abcdefghi", [], groups=[("a", "e"), ("b", "h"), ("c", "d"), ("f", "g", "i")])

    assert told.kinds == ("9-wye",)
    assert {told.numbers[letter] for letter in "fgi"} == {"T7", "T8", "T9"}
    assert told.ask.what == "volts"


def test_six_leads_in_a_ring():
    """All ring: neighbors 0.83, two apart 1.33, opposite 1.50; triads stay open (ID-07)."""
    order, ohms = "abcdef", {1: 0.83, 2: 1.33, 3: 1.5}
    touches = [
        Touch((one, other), rings=True, ohms=ohms[min(n - m, 6 - n + m)])
        for m, one in enumerate(order)
        for n, other in enumerate(order)
        if n > m
    ]
    told = guide(order, touches)

    assert told.stage == "done"
    assert set(told.kinds) == {"2-speed-ct", "2-speed-cp"}
    ring = [next(s for s, t in told.numbers.items() if t == f"T{n}") for n in (1, 6, 2, 5, 3, 4)]
    at = order.index(ring[0])
    turned = order[at:] + order[:at]
    assert "".join(ring) in {turned, turned[0] + turned[:0:-1]}
    assert "cannot say which" in say(told.notes[0])


def test_nine_lead_delta_read_running_as_an_open_delta():
    """397 V: one of the two joined is wrong; 231 V: both are (ID-16)."""
    told = guide(
        "abcdefghi",
        [
            Volts(("a", "b", "c"), 230, (("b", "e"),), ("a", "f"), 397),
            Volts(("a", "b", "c"), 230, (("b", "d"),), ("a", "f"), 231),
        ],
        groups=[("a", "b", "c"), ("f", "d", "e"), ("h", "g", "i")],
        known={"a": "T1", "f": "T2", "h": "T3"},
    )

    assert {letter: told.numbers[letter] for letter in "bcde"} == {
        "b": "T9",
        "c": "T4",
        "d": "T5",
        "e": "T7",
    }


def test_polarity_inside_a_phase():
    """24 and 11.8 V add: the finish is joined to the start of the second half (ID-21)."""
    pairs = [("a", "b"), ("c", "d"), ("e", "f"), ("g", "h"), ("i", "j"), ("k", "l")]
    told = guide(
        "abcdefghijkl",
        [Volts(("a", "b"), 24, (("b", "e"),), ("a", "f"), 35.8)],
        groups=pairs,
        known={"a": "T1", "b": "T4"},
        same_phase=[(("a", "b"), ("e", "f"))],
    )

    assert (told.numbers["e"], told.numbers["f"]) == ("T7", "T10")


def test_a_wrong_touch_is_found():
    """a-b and b-c ring, a-c does not: one of the three is wrong, and all three are named."""
    readings = [
        Touch(("a", "b"), rings=True),
        Touch(("b", "c"), rings=True),
        Touch(("a", "c"), rings=False),
    ]
    told = guide(lead_letters(9), readings)

    assert told.stage == "contradiction"
    assert told.doubtful == (0, 1, 2)
    assert told.ask is None


def test_a_wrong_voltage_is_found():
    """A polarity reading far off: left out, the rest agree; it is the one that is named."""
    motor, told, readings = walk("6", 3)
    assert told.stage == "done"
    at = next(n for n, reading in enumerate(readings) if isinstance(reading, Volts))
    old = readings[at]
    wrong = Volts(old.feed, old.feed_v, old.joined, old.read, old.volts * 1.9)
    spoiled = [*readings[:at], wrong, *readings[at + 1 :]]
    told = guide(motor.lead_letters, spoiled)

    assert told.stage == "contradiction"
    assert at in told.doubtful


@pytest.mark.parametrize(
    ("reading", "said"),
    [
        (Touch(("a", "z"), rings=True), "there is no lead z"),
        (Touch(("a", "a"), rings=True), "read against itself"),
        (Touch(("a", "b"), rings=True, ohms=-1), "not a resistance"),
        (Volts(("a", "b"), 0, (), ("c", "d"), 1), "the test voltage is missing or too high"),
        (Volts(("a", "b"), 10, (), ("c", "d"), 99), "cannot come from"),
        (Volts(("a",), 10, (), ("c", "d"), 1), "two leads at rest"),
    ],
)
def test_readings_that_cannot_be_are_refused_by_number(reading, said):
    """Each says which reading, what is wrong and what to do."""
    with pytest.raises(CoreError) as caught:
        guide(lead_letters(6), [Touch(("a", "b"), rings=False), reading])

    assert caught.value.field == "bench.readings.1"
    assert said in str(caught.value)
    assert say(caught.value.hint)


def test_ten_leads_are_no_motor_here():
    """Heater and sensor leads are left out; ten is no count of winding leads."""
    with pytest.raises(CoreError):
        lead_letters(10)
    with pytest.raises(CoreError):
        PracticeBench("6", 1).ohms(("a", "q"))


def test_a_practice_motor_is_the_same_for_the_same_seed():
    """The same seed gives the same leads and the same meter errors."""
    one, other = PracticeBench("9-wye", 5), PracticeBench("9-wye", 5)
    assert one.lead_of == other.lead_of
    assert one.ohms(("a", "b")) == other.ohms(("a", "b"))
    assert one.volts(("a", "b"), 10, (), ("c", "d")) == other.volts(("a", "b"), 10, (), ("c", "d"))


def walk_with_one_wrong(kind, seed, place):
    """Do what the guide asks, with one reading flipped: a missed contact, or a misread voltage."""
    motor, readings = PracticeBench(kind, seed), []
    told = guide(motor.lead_letters, readings)
    while told.ask is not None and told.stage != "contradiction" and len(readings) < 90:
        ask, is_wrong = told.ask, len(readings) == place
        if ask.what == "touch":
            ohms = motor.ohms(ask.pair)
            if is_wrong:
                ohms = 1.0 if ohms is None else None
            readings.append(Touch(ask.pair, ohms is not None, ohms))
        else:
            shown = motor.volts(ask.feed, 10.0, ask.joined, ask.pair)
            if is_wrong:
                shown = shown * 1.9 + 0.8
            readings.append(Volts(ask.feed, 10.0, ask.joined, ask.pair, shown))
        told = guide(motor.lead_letters, readings)
    return motor, told


@pytest.mark.parametrize("kind", ["6", "9-wye", "9-delta", "2-speed-vt", "part-winding"])
@settings(max_examples=6, deadline=None)
@given(seed=st.integers(0, 10_000), place=st.integers(0, 12))
def test_one_wrong_reading_never_ends_in_wrong_numbers(kind, seed, place):
    """It ends in a contradiction that names it, or in numbers that are right all the same."""
    motor, told = walk_with_one_wrong(kind, seed, place)

    if told.stage == "done":
        assert works(motor, told.numbers)
    if told.stage == "contradiction":
        assert place in told.doubtful


def test_a_missed_contact_is_named_though_a_jumper_was_laid_on_it():
    """A jumper between leads that ring shorts a coil: its readings do not clear the missed one."""
    _, told = walk_with_one_wrong("2-speed-vt", 9322, 3)

    assert told.stage == "contradiction"
    assert 3 in told.doubtful


def test_numbers_that_hang_on_one_reading_are_confirmed_first():
    """With any one reading left out, the others give the same numbers."""
    motor, told, readings = walk("6", 7)

    assert told.stage == "done"
    for at in range(len(readings)):
        rest = guide(motor.lead_letters, [*readings[:at], *readings[at + 1 :]])
        assert rest.stage in {"done", "confirm"}
        assert rest.numbers == told.numbers


SIX_GROUPS = (("a", "b"), ("c", "d"), ("e", "f"))


def test_a_battery_kick_tells_the_sense_of_six_leads():
    """Axes 120 degrees apart: plus on T1 pulls a meter on T2-T5 down (cosine -0.5), reversed up."""
    kicks = [
        Kick(("a", "b"), ("c", "d"), "down"),
        Kick(("a", "b"), ("f", "e"), "down"),
        Kick(("d", "c"), ("f", "e"), "up"),
        Kick(("c", "d"), ("f", "e"), "down"),
        Kick(("a", "b"), ("d", "c"), "up"),
        Kick(("b", "a"), ("f", "e"), "up"),
    ]
    told = guide(lead_letters(6), kicks, groups=SIX_GROUPS)

    assert told.stage == "done"
    start = {letter for letter, lead in told.numbers.items() if lead in {"T1", "T2", "T3"}}
    # the starts, or all coils reversed together
    assert start in ({"a", "c", "f"}, {"b", "d", "e"})


def test_one_kick_the_wrong_way_is_a_contradiction():
    """Three coils at 120 degrees cannot all pull one another up."""
    kicks = [
        Kick(("a", "b"), ("c", "d"), "down"),
        Kick(("a", "b"), ("e", "f"), "down"),
        Kick(("c", "d"), ("e", "f"), "up"),
    ]
    told = guide(lead_letters(6), kicks, groups=SIX_GROUPS)

    assert told.stage == "contradiction"
    assert set(told.doubtful) == {0, 1, 2}


def test_a_needle_that_does_not_move_is_no_third_coil():
    """Every two coils of six leads are coupled by a half: a still needle fits none."""
    told = guide(lead_letters(6), [Kick(("a", "b"), ("c", "d"), "still")], groups=SIX_GROUPS)

    assert told.stage == "contradiction"


@pytest.mark.parametrize("kind", ["6", "9-wye", "12"])
def test_a_kick_goes_as_the_coils_lie(kind):
    """The needle's way is the sign of the cosine between the axes, times both senses."""
    winding = KINDS[kind]
    numbering = Numbering(kind, tuple((lead, lead) for lead in winding.leads))
    whole = [coil for coil in winding.coils if {coil.start, coil.end} <= set(winding.leads)]
    for one in whole:
        for other in whole:
            if one is other:
                continue
            pull = cos(radians(one.axis_deg - other.axis_deg))
            needle = "up" if pull > 0 else "down"
            feed, read = (one.start, one.end), (other.start, other.end)
            assert _kicks_fit(numbering, [Kick(feed, read, needle)])
            assert not _kicks_fit(numbering, [Kick(feed, read[::-1], needle)])


def test_a_feed_through_two_coils_in_series_is_understood():
    """T4 to T7 joined, ten volts on T1 and T10: five on each half of twelve leads.

    The other phases see both: cosine -0.5 of two halves, as much as of one whole coil.
    """
    numbering = Numbering("12", tuple((lead, lead) for lead in KINDS["12"].leads))
    joined = (("T4", "T7"),)

    plain, induced = volts_of(numbering, ("T1", "T10"), joined, ("T1", "T4"))
    assert (plain, induced) == (0.5, 0)
    plain, induced = volts_of(numbering, ("T1", "T10"), joined, ("T2", "T5"))
    assert plain == 0
    assert induced.real == pytest.approx(-0.25)
    against = volts_of(numbering, ("T1", "T7"), (("T4", "T10"),), ("T2", "T5"))
    assert against == (0, 0)


def ohms(*rows):
    """Make touches from ``ab 1.0``."""
    return [Touch((row[0], row[1]), rings=True, ohms=float(row[3:])) for row in rows]


def test_turns_that_are_shorted_are_named():
    """Two pairs of 1.00 and 1.01 ohms, one of 0.80: a fifth less than its like."""
    told = guide(lead_letters(6), ohms("ab 1.00", "cd 1.01", "ef 0.80"), groups=SIX_GROUPS)

    assert told.stage == "contradiction"
    assert "e to f reads 20 % less than its like" in " ".join(map(say, told.notes))


def test_one_pair_that_reads_high_is_no_shorted_coil():
    """A bad touch adds ohms: 1.3 among 1.0 is a poor contact."""
    told = guide(lead_letters(6), ohms("ab 1.00", "cd 1.01", "ef 1.30"), groups=SIX_GROUPS)

    assert told.stage == "contradiction"
    assert "shorted" not in " ".join(map(say, told.notes))


def test_two_windings_have_ohms_of_their_own():
    """Two trios, 2 ohms between any two of one and 3 of the other: two windings, no halves."""
    told = guide(
        lead_letters(6),
        ohms("ab 2.0", "bc 2.0", "ac 2.0", "de 3.0", "ef 3.0", "df 3.0"),
        groups=(("a", "b", "c"), ("d", "e", "f")),
    )

    assert told.kinds == ("2-speed-2-winding",)


def bench(**more):
    """Guide stored readings of six leads in three pairs."""
    return guide_bench(BenchInputs(leads=6, groups=SIX_GROUPS, **more))


def test_the_meters_own_leads_are_taken_off():
    """1.3, 1.3 and 1.3 ohms less 0.3 are alike; 0.3 of 0.3 is nothing left to read."""
    rows = [{"what": "touch", "pair": pair, "rings": True, "ohms": "1.3"} for pair in SIX_GROUPS]
    assert bench(readings=rows, probe_ohm="0.3").stage != "contradiction"
    rows[0]["ohms"] = "0.3"
    with pytest.raises(CoreError) as caught:
        bench(readings=rows, probe_ohm="0.3")
    assert caught.value.field == "bench.readings.0"
    assert "not more than the 0.3" in say(caught.value.message)


def test_tags_that_are_still_there_shorten_the_search():
    """With T1 and T4 known, and T2, one pair and its sense are left."""
    told = bench(known={"a": "1", "b": "T4", "c": "T2"})

    assert told.numbers["d"] == "T5"
    assert told.left == 2
    assert bench().left == 4


@pytest.mark.parametrize(
    "given_here",
    [{"known": {"q": "T1"}}, {"known": {"a": "T1", "b": "1"}}, {"corners": ("z",)}],
)
def test_known_tags_that_cannot_be_are_refused(given_here):
    """A letter that is not there, one number on two letters."""
    with pytest.raises(CoreError) as caught:
        bench(**given_here)
    assert caught.value.field == "bench.known"


def test_known_corners_of_a_nine_lead_delta():
    """Three trios, a, d and g their corners: no ohms are asked for any more."""
    groups = (("a", "b", "c"), ("d", "e", "f"), ("g", "h", "i"))
    told = guide(lead_letters(9), [], groups=groups, corners=("a", "d", "g"))
    unknown = guide(lead_letters(9), [], groups=groups)

    assert told.stage == "volts"
    assert unknown.stage == "ohms"
    # any of three leads may be the corner of each of three trios
    assert told.left * 27 == unknown.left


def noisy_walk(kind, seed, part):
    """Walk a practice motor with a meter that is off by up to a part of what it shows."""
    random = Random(f"{kind}{seed}")
    motor, readings = PracticeBench(kind, seed), []
    told = guide(motor.lead_letters, readings)
    while told.ask is not None and len(readings) < 60:
        ask, off = told.ask, 1 + random.uniform(-part, part)
        if ask.what == "touch":
            ohms = motor.ohms(ask.pair)
            readings.append(Touch(ask.pair, ohms is not None, ohms and ohms * off))
        else:
            shown = motor.volts(ask.feed, 10.0, ask.joined, ask.pair) * off
            readings.append(Volts(ask.feed, 10.0, ask.joined, ask.pair, shown))
        told = guide(motor.lead_letters, readings)
    return motor, told


@pytest.mark.many
@pytest.mark.parametrize("part", [0.05, 0.075, 0.10])
@pytest.mark.parametrize(
    ("kind", "times"),
    [("6", 20), ("part-winding", 20), ("2-speed-ct", 12), ("2-speed-vt", 8), ("9-delta", 5)],
)
def test_a_poor_meter_ends_in_a_contradiction_or_in_the_right_numbers(kind, times, part):
    """Up to 10 % on every reading, on top of the practice meter's own 2 %."""
    for seed in range(300, 300 + times):
        motor, told = noisy_walk(kind, seed, part)
        if told.stage == "done":
            numbers = dict(told.numbers)
            other = {letter: OTHER_TRIAD.get(lead, lead) for letter, lead in numbers.items()}
            assert works(motor, numbers) or (kind == "2-speed-ct" and works(motor, other)), seed
        else:
            assert told.stage in {"contradiction", "stuck"}, seed


LETTER = st.sampled_from("abcdefgz")
PAIR = st.tuples(LETTER, LETTER)
ANY_READING = st.one_of(
    st.fixed_dictionaries(
        {
            "what": st.just("touch"),
            "pair": PAIR,
            "rings": st.booleans(),
            "ohms": st.none() | st.decimals("0", "9", places=2),
        }
    ),
    st.fixed_dictionaries(
        {
            "what": st.just("kick"),
            "feed": PAIR,
            "read": PAIR,
            "needle": st.sampled_from(["up", "down", "still"]),
        }
    ),
    st.fixed_dictionaries(
        {
            "what": st.just("volts"),
            "feed": PAIR,
            "feed_v": st.decimals("0", "20", places=1),
            "joined": st.lists(PAIR, max_size=2),
            "read": PAIR,
            "volts": st.decimals("0", "90", places=1),
        }
    ),
)


@settings(max_examples=120, deadline=None)
@given(
    st.lists(ANY_READING, max_size=6),
    st.dictionaries(LETTER, st.sampled_from(["T1", "2", "T99", "q", "T4"]), max_size=3),
    st.lists(LETTER, max_size=3),
    st.lists(st.tuples(PAIR, PAIR), max_size=2),
    st.none() | st.decimals("0", "2", places=1),
)
def test_any_bench_is_guided_or_refused(readings, known, corners, same_phase, probe):
    """Nonsense ends in a stage or in a refusal with its field; numbers never repeat."""
    try:
        told = guide_bench(
            BenchInputs(
                leads=6,
                readings=readings,
                known=known,
                corners=corners,
                same_phase=same_phase,
                probe_ohm=probe,
            )
        )
    except CoreError as refused:
        assert refused.field.startswith("bench")
        assert say(refused.message)
        return
    assert len(set(told.numbers.values())) == len(told.numbers)
    assert (told.ask is None) == (told.stage in {"done", "contradiction", "stuck"})
