"""What the readings so far tell, and which reading to take next.

Dead readings come first: groups by continuity, corners and rings by ohms. Then
volts of an induction test, each chosen by how well it splits what is left. A
reading that fits nothing is named by leaving each out in turn.

Units: volts [V], resistance [ohm].
"""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from itertools import combinations, pairwise, permutations, product
from math import ceil, log2
from typing import Literal

from evencoil.base import Message
from evencoil.leads.identify.damage import shorted_coils
from evencoil.leads.identify.groups import Grouping, Groupings, groupings
from evencoil.leads.identify.numbering import Numbering, numberings, resistance, volts_of
from evencoil.leads.identify.readings import Kick, Pair, Reading, Touch, Volts, check_readings
from evencoil.winding import KINDS, WindingKind

__all__ = ["Ask", "Guided", "guide"]

Stage = Literal["groups", "ohms", "volts", "stuck", "confirm", "done", "contradiction"]
_METER = 0.042
_FLOOR = 0.004
_SLACK = {2: 0.15, 3: 0.07}
_GRID = {
    2: tuple(0.06 * (1.045**step) for step in range(64)),
    3: tuple(0.86 + 0.01 * step for step in range(16)),
}
_OHM_TOLERANCE = 0.06
#: a numbering that would fit a meter of this tolerance is read apart before another is done
_WIDE_OHM_TOLERANCE = 0.10
_WIDE_METER = 0.075
_MOST_SEEN = 96


@dataclass(frozen=True, slots=True)
class Ask:
    """A reading to take: a touch, or one voltage of an induction test."""

    what: Literal["touch", "volts"]
    pair: Pair
    feed: tuple[str, ...] = ()
    joined: tuple[Pair, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Guided:
    """Where the search stands.

    Attributes
    ----------
    groups : tuple of tuple of str
        Leads that ring together, once that is settled.
    left : int
        Groupings, or numberings, that are still possible.
    ask : Ask or None
        The next reading; None when done, stuck or contradicted.
    about : int
        Readings that are still needed, about; an estimate.
    taken : int
        Readings so far.
    kinds : tuple of str
        Windings that still fit.
    numbers : mapping
        T number of every lead letter that is the same in all numberings left.
    doubtful : tuple of int
        Readings of which one is wrong, by place; empty if all agree.
    notes : tuple of Message
        What readings cannot decide.
    """

    stage: Stage
    groups: Grouping
    left: int
    ask: Ask | None
    about: int
    taken: int
    kinds: tuple[WindingKind, ...]
    numbers: Mapping[str, str]
    doubtful: tuple[int, ...]
    notes: tuple[Message, ...]


@lru_cache(maxsize=40000)
def _fit(numbering: Numbering, reading: Volts, meter: float = _METER) -> int:
    """Return the couplings of the grid at which a reading fits, as bits."""
    found = volts_of(numbering, reading.feed, reading.joined, reading.read)
    grid = _GRID[len(reading.feed)]
    if found is None:
        return (1 << len(grid)) - 1
    plain, induced = found
    mask = 0
    size = abs(induced)
    slack = _SLACK[len(reading.feed)]
    seen = reading.volts / reading.feed_v
    for bit, coupling in enumerate(grid):
        room = meter * seen + _FLOOR + slack * coupling * size
        if abs(abs(plain + coupling * induced) - seen) <= room:
            mask |= 1 << bit
    return mask


def _ohms_fit(numbering: Numbering, touches: Sequence[Touch], tolerance: float) -> bool:
    """Tell whether one coil resistance explains all ohms read; two windings have one each."""
    bands: dict[str, tuple[float, float]] = {}
    for touch in touches:
        coils = resistance(numbering, touch.pair)
        if coils is None or touch.ohms is None:
            return False
        winding = _winding_of(numbering, touch.pair)
        low, high = bands.get(winding, (0.0, float("inf")))
        low = max(low, touch.ohms / coils * (1 - tolerance))
        high = min(high, touch.ohms / coils * (1 + tolerance))
        if low > high:
            return False
        bands[winding] = (low, high)
    return True


@lru_cache(maxsize=32)
def _of_ohms(
    supposed: tuple[Numbering, ...], touches: tuple[Touch, ...], tolerance: float
) -> tuple[Numbering, ...]:
    """Return the numberings that explain the ohms: the same for every reading of volts after."""
    if not touches:
        return supposed
    return tuple(one for one in supposed if _ohms_fit(one, touches, tolerance))


def _winding_of(numbering: Numbering, pair: Pair) -> str:
    """Return which of two windings a pair belongs to; empty where there is one."""
    if numbering.kind != "2-speed-2-winding":
        return ""
    return "high" if numbering.numbers()[pair[0]] in {"T11", "T12", "T13"} else "low"


#: a coil's part of the fed coil's flux below which a needle is not sure to move
_STILL, _MOVES = 0.3, 0.2


def _kicks_fit(numbering: Numbering, kicks: Sequence[Kick]) -> bool:
    """Tell whether the needle went as the sense of the coils makes it go."""
    for kick in kicks:
        found = volts_of(numbering, kick.feed, (), kick.read)
        if found is None:
            return False
        pull = found[1].real
        if kick.needle == "still":
            if abs(pull) > _STILL:
                return False
        elif (pull if kick.needle == "up" else -pull) < _MOVES:
            return False
    return True


def _survivors(
    supposed: Sequence[Numbering],
    touches: Sequence[Touch],
    volts: Sequence[Volts],
    kicks: Sequence[Kick],
    *,
    is_wide: bool = False,
) -> list[tuple[Numbering, int]]:
    """Return the numberings that explain every reading, with the couplings at rest left.

    Read wide, a meter is taken to be off by twice what a good one is.
    """
    tolerance = _WIDE_OHM_TOLERANCE if is_wide else _OHM_TOLERANCE
    meter = _WIDE_METER if is_wide else _METER
    found = []
    for numbering in _of_ohms(tuple(supposed), tuple(touches), tolerance):
        if kicks and not _kicks_fit(numbering, kicks):
            continue
        masks = {count: (1 << len(grid)) - 1 for count, grid in _GRID.items()}
        for reading in volts:
            masks[len(reading.feed)] &= _fit(numbering, reading, meter)
            if not masks[len(reading.feed)]:
                break
        if all(masks.values()):
            found.append((numbering, masks[2]))
    return found


def _as_touches(groups: Sequence[Sequence[str]]) -> list[Touch]:
    """Return groups that someone read whole as touches."""
    found = [Touch((group[0], lead), rings=True) for group in groups for lead in group[1:]]
    firsts = [group[0] for group in groups if group]
    found += [Touch(pair, rings=False) for pair in combinations(firsts, 2)]
    return found


def _unshorted(readings: Sequence[Reading]) -> list[Reading]:
    """Return the readings without those whose jumper lay between two leads that ring.

    Such a jumper was laid after a contact was missed: it shorted a coil, and what was read then
    says nothing about the leads.
    """
    rung = {frozenset(one.pair) for one in readings if isinstance(one, Touch) and one.rings}
    return [
        one
        for one in readings
        if not isinstance(one, Volts) or not any(frozenset(pair) in rung for pair in one.joined)
    ]


def _doubtful_touches(
    leads: Sequence[str], touches: Sequence[Touch], places: Sequence[int]
) -> tuple[int, ...]:
    return tuple(
        places[at]
        for at in range(len(places))
        if groupings(leads, [*touches[:at], *touches[at + 1 :]])
    )


def _ohm_asks(supposed: Sequence[Numbering], groups: Grouping, read: Sequence[Touch]) -> Ask | None:
    """Return the pair whose ohms differ most between the numberings left."""
    if len(supposed) < 2:
        return None
    done = {frozenset(touch.pair) for touch in read}
    best: tuple[int, Pair] | None = None
    for group in groups:
        if len(group) < 3:
            continue
        for pair in combinations(group, 2):
            if frozenset(pair) in done:
                continue
            counts: dict[float, int] = {}
            for numbering in supposed:
                value = round(resistance(numbering, pair) or 0.0, 3)
                counts[value] = counts.get(value, 0) + 1
            if len(counts) > 1:
                score = sum(count * count for count in counts.values())
                if best is None or score < best[0]:
                    best = (score, pair)
    return None if best is None else Ask("touch", best[1])


def _feeds(group: Sequence[str], settled: Mapping[str, str]) -> list[Pair]:
    """Return the pairs of a group worth feeding: from a known corner, else all."""
    pairs = list(combinations(group, 2))
    corners = {"T1", "T2", "T3"}
    known = [pair for pair in pairs if {settled.get(pair[0]), settled.get(pair[1])} & corners]
    return known if len(group) > 2 and known else pairs


def _volt_asks(groups: Grouping, settled: Mapping[str, str]) -> Iterator[Ask]:
    """Go through induction readings worth taking: feed one coil, look at another group.

    Without a jumper where the other group has no common point with the feed;
    with one end of the feed jumpered to the group where the sense is asked.
    """
    feeds = [pair for group in groups for pair in _feeds(group, settled)]
    open_feeds = [feed for feed in feeds if not all(end in settled for end in feed)]
    known_feeds = [feed for feed in feeds if all(end in settled for end in feed)]
    for feed in (*known_feeds[:1], *open_feeds[:2], *known_feeds[1:3]):
        for group in groups:
            if set(group) & set(feed):
                continue
            for pair in combinations(group, 2):
                yield Ask("volts", pair, feed)
            for (end, other), (one, two) in product((feed, feed[::-1]), permutations(group, 2)):
                yield Ask("volts", (other, two), feed, ((end, one),))


def _classes(values: Sequence[float]) -> int:
    """Return the expected number left when a meter tells values apart by a gap."""
    ordered = sorted(values)
    total, size = 0, 1
    for before, after in pairwise(ordered):
        if after - before > 0.055 * after + 0.012:
            total, size = total + size * size, 1
        else:
            size += 1
    return total + size * size


def _best_volts(
    alive: Sequence[tuple[Numbering, int]],
    groups: Grouping,
    taken: Sequence[Volts],
    settled: Mapping[str, str],
) -> Ask | None:
    seen = alive[:: max(1, len(alive) // _MOST_SEEN)]
    bits = [bit for bit in range(len(_GRID[2])) if any(mask >> bit & 1 for _, mask in seen)]
    # on the weak side of what the readings leave, so that the next one tells
    coupling = _GRID[2][bits[len(bits) // 4]] if taken and bits else 0.18
    done = {(reading.feed, reading.joined, frozenset(reading.read)) for reading in taken}
    best: tuple[int, Ask] | None = None
    worst = len(seen) ** 2
    for ask in _volt_asks(groups, settled):
        if (ask.feed, ask.joined, frozenset(ask.pair)) in done:
            continue
        values = []
        for numbering, _ in seen:
            found = volts_of(numbering, ask.feed, ask.joined, ask.pair)
            if found is None:
                break
            values.append(abs(found[0] + coupling * found[1]))
        else:
            score = _classes(values)
            if score < worst and (best is None or score < best[0]):
                best = (score, ask)
    return None if best is None else best[1]


def _common(alive: Sequence[Numbering]) -> dict[str, str]:
    """Return the numbers that all numberings left agree on."""
    first, *rest = [numbering.numbers() for numbering in alive]
    return {
        letter: lead
        for letter, lead in first.items()
        if all(other.get(letter) == lead for other in rest)
    }


def _notes(kinds: Sequence[str], *, is_done: bool) -> tuple[Message, ...]:
    found = []
    if is_done:
        if "2-speed-ct" in kinds:
            found.append(Message("unmarked.ring"))
        elif kinds == ("2-speed-2-winding",):
            found.append(Message("unmarked.two_windings"))
        else:
            found.append(Message("unmarked.phase_order"))
    return tuple(found)


class _Proven:
    """Readings that the others were found to prove, by question; the newest questions only.

    A walk asks after every reading, and what was proven before needs no second search.
    """

    def __init__(self, most: int = 256) -> None:
        self.most = most
        self.known: OrderedDict[tuple[object, ...], set[int]] = OrderedDict()

    def of(self, *question: object) -> set[int]:
        """Return the set of a question, to be read and added to."""
        found = self.known.pop(question, set())
        self.known[question] = found
        if len(self.known) > self.most:
            self.known.popitem(last=False)
        return found


_PROVEN = _Proven()


def guide(
    leads: Sequence[str],
    readings: Sequence[Reading],
    *,
    groups: Sequence[Sequence[str]] = (),
    known: Mapping[str, str] | None = None,
    same_phase: Sequence[tuple[Pair, Pair]] = (),
    corners: Sequence[str] = (),
) -> Guided:
    """Return what the readings tell, and the next one to take.

    The numbers are done only when no single reading carries them: with any one of the readings
    left out, the others give the same numbers. So one missed contact or one misread voltage can
    end in a contradiction, never in wrong numbers.

    Parameters
    ----------
    leads : sequence of str
        Lead letters: 3, 6, 9 or 12.
    readings : sequence of Reading
        Taken so far, in order.
    groups : sequence of sequences of str
        Leads that someone rang out whole, in place of single touches.
    known : mapping or None
        T numbers of lead letters that are sure already.
    same_phase : sequence of two pairs
        Pairs that are known to be two halves of one phase.
    corners : sequence of str
        Lead letters that are known to be T1, T2 or T3, in any order.

    Returns
    -------
    Guided
        The stage, the next reading, and the numbers once one class of
        numberings is left. ``confirm`` asks for a reading that proves an earlier one.

    Raises
    ------
    RefusedError
        If a reading cannot be: an unknown letter, no feed, volts beyond reason.
    """

    def once(some: Sequence[Reading]) -> Guided:
        return _guide(
            leads, some, groups=groups, known=known, same_phase=same_phase, corners=corners
        )

    def without(at: int) -> Guided:
        return once([*readings[:at], *readings[at + 1 :]])

    def is_freed(at: int) -> bool:
        rest = _unshorted([*readings[:at], *readings[at + 1 :]])
        return once(rest).stage != "contradiction"

    told = once(readings)
    if told.stage == "contradiction":
        agreeing = (at for at in range(len(readings)) if is_freed(at))
        return replace(told, doubtful=tuple(agreeing) or told.doubtful)
    if told.stage != "done":
        return told
    asked = (
        tuple(leads),
        tuple(map(tuple, groups)),
        tuple(sorted((known or {}).items())),
        tuple(same_phase),
        tuple(corners),
    )
    proven = _PROVEN.of(*asked, tuple(readings))
    # one reading more takes nothing away from what the others proved before
    proven |= _PROVEN.of(*asked, tuple(readings[:-1]))
    # the newest are the least confirmed, so they are tried first
    for at in reversed(range(len(readings))):
        if at in proven:
            continue
        rest = without(at)
        if rest.ask is None or (rest.stage == "done" and rest.numbers == told.numbers):
            proven.add(at)
            continue
        return replace(
            told,
            stage="confirm",
            ask=rest.ask,
            about=1,
            notes=(Message("unmarked.confirm", {"n": str(at + 1)}),),
        )
    return told


def _guide(
    leads: Sequence[str],
    readings: Sequence[Reading],
    *,
    groups: Sequence[Sequence[str]] = (),
    known: Mapping[str, str] | None = None,
    same_phase: Sequence[tuple[Pair, Pair]] = (),
    corners: Sequence[str] = (),
) -> Guided:
    """Return what the readings tell if every one of them is right."""
    check_readings(leads, readings)
    whole = _as_touches(groups)
    places = [at for at, reading in enumerate(readings) if isinstance(reading, Touch)]
    touches = [readings[at] for at in places]
    given = [*whole, *(touch for touch in touches if isinstance(touch, Touch))]
    possible = groupings(leads, given)

    def state(stage: Stage, **how: object) -> Guided:
        told: dict[str, object] = {
            "groups": (),
            "left": 0,
            "ask": None,
            "about": 0,
            "taken": len(readings),
            "kinds": (),
            "numbers": {},
            "doubtful": (),
            "notes": (),
        }
        return Guided(stage=stage, **{**told, **how})  # type: ignore[arg-type]  # fields of Guided

    if not possible:
        own = [touch for touch in touches if isinstance(touch, Touch)]
        doubtful = _doubtful_touches(leads, [*own, *whole], places)
        return state("contradiction", doubtful=doubtful, notes=(Message("unmarked.no_grouping"),))
    if len(possible) > 1:
        pair = possible.next_touch()
        kinds = _kinds_of(possible)
        about = ceil(log2(len(possible)) * 1.08) + 4
        return state(
            "groups",
            left=len(possible),
            about=about,
            kinds=kinds,
            ask=None if pair is None else Ask("touch", pair),
        )
    grouping = possible.first()
    supposed = [
        numbering
        for numbering in numberings(grouping, known)
        if all(_is_one_phase(numbering, *pairs) for pairs in same_phase)
        and {numbering.numbers().get(letter) for letter in corners} <= _CORNERS
    ]
    return _numbered(grouping, supposed, readings, state)


_CORNERS = {"T1", "T2", "T3"}


def _kinds_of(possible: Groupings) -> tuple[WindingKind, ...]:
    by_size: dict[tuple[int, ...], tuple[WindingKind, ...]] = {
        (3,): ("3-wye", "3-delta"),
        (2, 2, 2): ("6",),
        (3, 3): ("part-winding", "2-speed-2-winding"),
        (6,): ("2-speed-ct", "2-speed-vt", "2-speed-cp"),
        (3, 2, 2, 2): ("9-wye",),
        (3, 3, 3): ("9-delta",),
        (2,) * 6: ("12",),
    }
    return tuple(dict.fromkeys(kind for sizes in possible.patterns() for kind in by_size[sizes]))


def _is_one_phase(numbering: Numbering, one: Pair, other: Pair) -> bool:
    """Tell whether two pairs are coils of one phase."""
    numbers = numbering.numbers()
    phases = {
        coil.phase
        for coil in KINDS[numbering.kind].coils
        for pair in (one, other)
        if {numbers.get(end) for end in pair} == {coil.start, coil.end}
    }
    return len(phases) == 1


def _apart(
    wide: Sequence[tuple[Numbering, int]],
    grouping: Grouping,
    ohms: Sequence[Touch],
    volts: Sequence[Volts],
    numbers: Mapping[str, str],
) -> Ask | None:
    """Return the reading that tells the numberings apart which a poor meter would leave."""
    if len(wide) < 2:
        return None
    ask = _ohm_asks([numbering for numbering, _ in wide], grouping, ohms)
    return ask or _best_volts(wide, grouping, volts, numbers)


def _sorted(readings: Sequence[Reading]) -> tuple[list[Touch], list[Volts], list[Kick]]:
    """Return the ohms, the volts and the kicks among readings."""
    return (
        [
            reading
            for reading in readings
            if isinstance(reading, Touch) and reading.rings and reading.ohms is not None
        ],
        [reading for reading in readings if isinstance(reading, Volts)],
        [reading for reading in readings if isinstance(reading, Kick)],
    )


def _numbered(
    grouping: Grouping,
    supposed: Sequence[Numbering],
    readings: Sequence[Reading],
    state: Callable[..., Guided],
) -> Guided:
    """Go on where the groups are settled: ohms, then volts."""
    ohms, volts, kicks = _sorted(readings)
    alive = _survivors(supposed, ohms, volts, kicks)
    if not alive:
        doubtful = [
            at
            for at, reading in enumerate(readings)
            if (not isinstance(reading, Touch) or reading in ohms)
            and _survivors(supposed, *_sorted([*readings[:at], *readings[at + 1 :]]))
        ]
        return state(
            "contradiction",
            groups=grouping,
            doubtful=tuple(doubtful),
            notes=(Message("unmarked.no_numbering"), *shorted_coils(supposed, ohms)),
        )
    left = [numbering for numbering, _ in alive]
    kinds: tuple[WindingKind, ...] = tuple(dict.fromkeys(numbering.kind for numbering in left))
    if kinds == ("2-speed-ct",):
        kinds = ("2-speed-ct", "2-speed-cp")
    elif kinds == ("3-wye",):
        kinds = ("3-wye", "3-delta")
    numbers = _common(left)
    told = {"groups": grouping, "left": len(left), "kinds": kinds, "numbers": numbers}
    if len(left) == 1:
        wide = _survivors(supposed, ohms, volts, kicks, is_wide=True)
        apart = _apart(wide, grouping, ohms, volts, numbers)
        if apart is not None:
            return state("volts" if volts else "ohms", **told, ask=apart, about=1)
        return state("done", **told, notes=_notes(kinds, is_done=True))
    about = ceil(log2(len(left)) / 1.4)
    ask = _ohm_asks(left, grouping, ohms)
    if ask is not None:
        return state("ohms", **told, ask=ask, about=about)
    ask = _best_volts(alive, grouping, volts, numbers)
    if ask is not None:
        return state("volts", **told, ask=ask, about=about)
    return state("stuck", **told, notes=(Message("unmarked.stuck"),))
