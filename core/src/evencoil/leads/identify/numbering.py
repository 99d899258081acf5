"""Every numbering that a grouping allows, and what each would make the meter show.

A numbering is one of a class that ohms and volts cannot tell apart and need not:
phase order only sets the rotation, all coils reversed together change nothing.

Induction at rest: a fed coil induces in another the coupling times its volts
times the cosine of the angle between their axes. The coupling of a caged rotor
at rest is small and unknown, so it is a range, and every reading narrows it.

Units: volts as parts of the feed, resistance in coils.
Source: rotating-field theory of coils on one core; MODEL, unmarked leads.
"""

from __future__ import annotations

import cmath
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from functools import lru_cache
from itertools import permutations, product
from math import cos, pi, radians

from evencoil.leads.identify.groups import Grouping
from evencoil.leads.identify.readings import Pair
from evencoil.winding import KINDS, Coil, WindingKind

__all__ = ["Numbering", "numberings", "resistance", "volts_of"]


@dataclass(frozen=True, slots=True)
class Numbering:
    """A number for every letter, as one winding kind.

    ``lead_of`` maps T number to lead letter.
    """

    kind: WindingKind
    lead_of: tuple[tuple[str, str], ...]
    _numbers: Mapping[str, str] = field(init=False, repr=False, compare=False)

    def __post_init__(self) -> None:
        numbers = {letter: lead for lead, letter in self.lead_of}
        object.__setattr__(self, "_numbers", numbers)  # asked for at every reading

    def of(self) -> dict[str, str]:
        """Return the lead letter of every T number."""
        return dict(self.lead_of)

    def numbers(self) -> Mapping[str, str]:
        """Return the T number of every lead letter."""
        return self._numbers


def _made(kind: WindingKind, pairs: Mapping[str, str]) -> Numbering:
    order = KINDS[kind].leads
    return Numbering(kind, tuple((lead, pairs[lead]) for lead in order))


def _turns(pair: Sequence[str]) -> tuple[tuple[str, str], tuple[str, str]]:
    return (pair[0], pair[1]), (pair[1], pair[0])


def _six(groups: Grouping) -> Iterator[Numbering]:
    (a, b), *rest = groups
    for (c, d), (e, f) in product(_turns(rest[0]), _turns(rest[1])):
        yield _made("6", {"T1": a, "T4": b, "T2": c, "T5": d, "T3": e, "T6": f})


def _nine_wye(groups: Grouping) -> Iterator[Numbering]:
    triple = next(group for group in groups if len(group) == 3)
    pairs = [group for group in groups if len(group) == 2]
    star = dict(zip(("T7", "T8", "T9"), triple, strict=True))
    for order in permutations(pairs):
        for ends in product(*(_turns(pair) for pair in order)):
            found = dict(star)
            for phase, (start, end) in enumerate(ends, 1):
                found |= {f"T{phase}": start, f"T{phase + 3}": end}
            yield _made("9-wye", found)


def _nine_delta(groups: Grouping) -> Iterator[Numbering]:
    first, second, third = groups

    def others(group: Sequence[str], corner: str) -> list[str]:
        return [lead for lead in group if lead != corner]

    for corner in first:
        t4, t9 = others(first, corner)
        for two, three in ((second, third), (third, second)):
            for c2, c3 in product(two, three):
                for (t5, t7), (t6, t8) in product(
                    _turns(others(two, c2)), _turns(others(three, c3))
                ):
                    yield _made(
                        "9-delta",
                        {
                            "T1": corner,
                            "T4": t4,
                            "T9": t9,
                            "T2": c2,
                            "T5": t5,
                            "T7": t7,
                            "T3": c3,
                            "T6": t6,
                            "T8": t8,
                        },
                    )


def _twelve(groups: Grouping) -> Iterator[Numbering]:
    (t1, t4), *rest = groups
    for at, mate in enumerate(rest):
        left = [group for place, group in enumerate(rest) if place != at]
        b1, *more = left
        for at_b, mate_b in enumerate(more):
            c1, c2 = (group for place, group in enumerate(more) if place != at_b)
            for ends in product(*(_turns(pair) for pair in (mate, b1, mate_b, c1, c2))):
                (t7, t10), (t2, t5), (t8, t11), (t3, t6), (t9, t12) = ends
                yield _made(
                    "12",
                    {
                        "T1": t1,
                        "T4": t4,
                        "T7": t7,
                        "T10": t10,
                        "T2": t2,
                        "T5": t5,
                        "T8": t8,
                        "T11": t11,
                        "T3": t3,
                        "T6": t6,
                        "T9": t9,
                        "T12": t12,
                    },
                )


def _two_stars(groups: Grouping) -> Iterator[Numbering]:
    first, second = groups
    start = dict(zip(("T1", "T2", "T3"), first, strict=True))
    for order in permutations(second):
        yield _made("part-winding", start | dict(zip(("T7", "T8", "T9"), order, strict=True)))
    more = dict(zip(("T11", "T12", "T13"), second, strict=True))
    yield _made("2-speed-2-winding", start | more)


def _ring(groups: Grouping) -> Iterator[Numbering]:
    (leads,) = groups
    first, *rest = leads
    for order in permutations(rest):
        if order[0] < order[-1]:
            ring = zip(("T1", "T6", "T2", "T5", "T3", "T4"), (first, *order), strict=True)
            yield _made("2-speed-ct", dict(ring))
    seen = set()
    for order in permutations(leads):
        ends, middles = order[:3], order[3:]
        key = frozenset(zip(ends, middles, strict=True))
        if key not in seen:
            seen.add(key)
            pairs = zip(("T1", "T2", "T3", "T6", "T5", "T4"), (*ends, *middles), strict=True)
            yield _made("2-speed-vt", dict(pairs))


def _three(groups: Grouping) -> Iterator[Numbering]:
    yield _made("3-wye", dict(zip(("T1", "T2", "T3"), groups[0], strict=True)))


_MAKERS = {
    (3,): _three,
    (2, 2, 2): _six,
    (3, 3): _two_stars,
    (6,): _ring,
    (3, 2, 2, 2): _nine_wye,
    (3, 3, 3): _nine_delta,
    (2, 2, 2, 2, 2, 2): _twelve,
}


def _swap(text: str) -> dict[str, str]:
    pairs = [(f"T{one}", f"T{other}") for one, other in (p.split("-") for p in text.split())]
    return {**dict(pairs), **{other: one for one, other in pairs}}


_TURN = {f"T{n}": f"T{n + 1 if n % 3 else n - 2}" for n in range(1, 13)}
_MIRROR = _swap("2-3 5-6 8-9 11-12")
_BACK = _swap("1-4 2-5 3-6 7-10 8-11 9-12")
#: renamings that no reading can see, from which all others follow
_SAME: Mapping[WindingKind, tuple[dict[str, str], ...]] = {
    "3-wye": (_TURN, _MIRROR),
    "6": (_TURN, _MIRROR, _BACK),
    "9-wye": (_TURN, _MIRROR),
    "9-delta": (_TURN, _swap("2-3 4-9 5-8 6-7")),
    "12": (_TURN, _MIRROR, _BACK, _swap("1-7 4-10"), _swap("2-8 5-11"), _swap("3-9 6-12")),
    "part-winding": (_TURN, _MIRROR, _swap("1-7 2-8 3-9")),
}


@lru_cache(maxsize=16)
def _renamings(kind: WindingKind) -> tuple[tuple[str, ...], ...]:
    """Return every renaming that no reading can see, as leads in the kind's order."""
    leads = KINDS[kind].leads
    found = {leads}
    more = [leads]
    while more:
        here = more.pop()
        for step in _SAME.get(kind, ()):
            there = tuple(step.get(lead, lead) for lead in here)
            if there not in found:
                found.add(there)
                more.append(there)
    return tuple(found)


def numberings(grouping: Grouping, known: Mapping[str, str] | None = None) -> list[Numbering]:
    """Return one numbering of each class that a grouping allows.

    Parameters
    ----------
    grouping : Grouping
        Which leads ring together.
    known : mapping or None
        T numbers of lead letters that are sure; then every numbering that has them.
    """
    sizes = tuple(sorted((len(group) for group in grouping), reverse=True))
    found = list(_MAKERS[sizes](grouping))
    if not known:
        return found
    fitting: dict[tuple[tuple[str, str], ...], Numbering] = {}
    for numbering in found:
        letter = numbering.of()
        order = KINDS[numbering.kind].leads
        for renamed in _renamings(numbering.kind):
            other = _made(
                numbering.kind,
                {new: letter[old] for old, new in zip(order, renamed, strict=True)},
            )
            numbers = other.numbers()
            if all(numbers.get(lead) == number for lead, number in known.items()):
                fitting[other.lead_of] = other
    return list(fitting.values())


@lru_cache(maxsize=32)
def _laplace(kind: WindingKind) -> dict[Pair, float]:
    """Return the resistance between every two leads, in coils [coil]."""
    winding = KINDS[kind]
    points = sorted({end for coil in winding.coils for end in (coil.start, coil.end)})
    found: dict[Pair, float] = {}
    for one in winding.leads:
        reach = _reach(winding.coils, one)
        for other in winding.leads:
            if other in reach and other != one:
                found[one, other] = _between(winding.coils, points, one, other)
    return found


def _reach(coils: Sequence[Coil], start: str) -> set[str]:
    seen, more = {start}, [start]
    while more:
        here = more.pop()
        for coil in coils:
            for one, other in ((coil.start, coil.end), (coil.end, coil.start)):
                if one == here and other not in seen:
                    seen.add(other)
                    more.append(other)
    return seen


def _between(coils: Sequence[Coil], points: Sequence[str], one: str, other: str) -> float:
    """Solve one ampere in at one lead and out at the other; each coil is one ohm."""
    within = _reach(coils, one)
    free = [point for point in points if point in within and point != other]
    at = {point: place for place, point in enumerate(free)}
    size = len(free)
    rows = [[0.0] * (size + 1) for _ in range(size)]
    for coil in coils:
        ends = (coil.start, coil.end)
        for here, there in (ends, ends[::-1]):
            if here in at:
                rows[at[here]][at[here]] += 1
                if there in at:
                    rows[at[here]][at[there]] -= 1
    rows[at[one]][size] = 1.0
    for place in range(size):
        pivot = max(range(place, size), key=lambda row: abs(rows[row][place]))
        rows[place], rows[pivot] = rows[pivot], rows[place]
        lead = rows[place][place]
        rows[place] = [value / lead for value in rows[place]]
        for row in range(size):
            if row != place and rows[row][place]:
                factor = rows[row][place]
                rows[row] = [a - factor * b for a, b in zip(rows[row], rows[place], strict=True)]
    return rows[at[one]][size]


def resistance(numbering: Numbering, pair: Pair) -> float | None:
    """Return the resistance between two lead letters in coils, None where it is open.

    Parameters
    ----------
    numbering : Numbering
        As supposed.
    pair : pair of str
        Two lead letters.
    """
    to = numbering.numbers()
    return _laplace(numbering.kind).get((to[pair[0]], to[pair[1]]))


def _path(
    edges: Mapping[str, list[tuple[str, complex, complex]]], start: str, end: str
) -> tuple[complex, complex] | None:
    """Return the volts from start to end, plain part and coupled part; None if floating."""
    seen = {start: (0j, 0j)}
    more = [start]
    while more:
        here = more.pop()
        if here == end:
            return seen[here]
        plain, coupled = seen[here]
        for there, fixed, induced in edges.get(here, ()):
            if there not in seen:
                seen[there] = (plain + fixed, coupled + induced)
                more.append(there)
    return None


def _fed_path(
    coils: Sequence[Coil], start: str, end: str, joined: Sequence[Pair]
) -> list[tuple[Coil, int]] | None:
    """Return the coils that a feed between two leads drives, with their sense.

    Leads of two coils that are jumpered put those coils in series.
    """
    way: dict[str, list[tuple[Coil, int]]] = {start: []}
    more = [start]
    while more:
        here = more.pop(0)
        for pair in joined:
            for one, other in (pair, pair[::-1]):
                if one == here and other not in way:
                    way[other] = way[here]
                    more.append(other)
        for coil in coils:
            for one, other, sense in ((coil.start, coil.end, 1), (coil.end, coil.start, -1)):
                if one == here and other not in way:
                    way[other] = [*way[here], (coil, sense)]
                    more.append(other)
    return way.get(end)


def _cosine(one: Coil, other: Coil) -> float:
    if one.field != other.field:
        return 0.0
    return cos(radians(one.axis_deg - other.axis_deg))


@lru_cache(maxsize=2048)
def _at_rest(
    kind: WindingKind, start: str, end: str, joined: tuple[Pair, ...] = ()
) -> dict[str, tuple[complex, complex]] | None:
    """Return each coil's volts, plain and per unit of coupling, for a feed of one volt."""
    coils = KINDS[kind].coils
    fed = _fed_path(coils, start, end, ()) or _fed_path(coils, start, end, joined)
    if not fed:
        return None
    own = {coil.name: complex(sense / len(fed)) for coil, sense in fed}
    mmf = sum(s * t * _cosine(c, d) * c.turns * d.turns for c, s in fed for d, t in fed)
    found: dict[str, tuple[complex, complex]] = {}
    for coil in coils:
        if coil.name in own:
            found[coil.name] = (own[coil.name], 0j)
        else:
            linked = sum(s * _cosine(c, coil) * c.turns * coil.turns for c, s in fed)
            found[coil.name] = (0j, complex(linked / mmf) if abs(mmf) > 1e-9 else 0j)
    return found


@lru_cache(maxsize=2048)
def _running(
    kind: WindingKind, leads: tuple[str, ...]
) -> dict[str, tuple[complex, complex]] | None:
    """Return each coil's volts with three leads of one group on a supply of one volt."""
    coils = KINDS[kind].coils
    at = {lead: cmath.exp(-2j * pi / 3 * place) / 3**0.5 for place, lead in enumerate(leads)}
    inner = {coil.end for coil in coils if coil.end.startswith("S") and coil.start in at}
    at |= dict.fromkeys(inner, 0j)
    fed = [
        (coil, at[coil.start] - at[coil.end])
        for coil in coils
        if coil.start in at and coil.end in at
    ]
    if len(fed) < 2:
        return None
    (c, u), (d, v) = fed[:2]
    # u = F e^-jc + B e^+jc, and the same for v: two unknown fields
    ec, ed = cmath.exp(1j * radians(c.axis_deg)), cmath.exp(1j * radians(d.axis_deg))
    det = ed / ec - ec / ed
    if abs(det) < 1e-9:
        return None
    forward, backward = (u * ed - v * ec) / det, (v / ec - u / ed) / det
    driven = {coil.name: volts for coil, volts in fed}
    found: dict[str, tuple[complex, complex]] = {}
    for coil in coils:
        if coil.name in driven:
            found[coil.name] = (driven[coil.name], 0j)
        else:
            turn = cmath.exp(1j * radians(coil.axis_deg))
            found[coil.name] = (0j, (forward / turn + backward * turn) * (coil.turns / c.turns))
    return found


def volts_of(
    numbering: Numbering, feed: tuple[str, ...], joined: Sequence[Pair], read: Pair
) -> tuple[complex, complex] | None:
    """Return what the meter would show, as parts of the feed: plain, and per coupling.

    Parameters
    ----------
    numbering : Numbering
        As supposed.
    feed : tuple of str
        Two or three lead letters.
    joined : sequence of pairs
        Sleeves jumpered together.
    read : pair of str
        Where the meter is.

    Returns
    -------
    tuple of complex, or None
        None where the meter would float, or nothing is fed.
    """
    to = numbering.numbers()
    return _shown(
        numbering.kind,
        tuple(to[lead] for lead in feed),
        tuple((to[one], to[other]) for one, other in joined),
        (to[read[0]], to[read[1]]),
    )


@lru_cache(maxsize=50000)
def _shown(
    kind: WindingKind, feed: tuple[str, ...], joined: tuple[Pair, ...], read: Pair
) -> tuple[complex, complex] | None:
    """Return what the meter shows, in T numbers."""
    volts = _at_rest(kind, feed[0], feed[1], joined) if len(feed) == 2 else _running(kind, feed)
    if volts is None:
        return None
    edges: dict[str, list[tuple[str, complex, complex]]] = {}
    for coil in KINDS[kind].coils:
        fixed, induced = volts[coil.name]
        edges.setdefault(coil.start, []).append((coil.end, fixed, induced))
        edges.setdefault(coil.end, []).append((coil.start, -fixed, -induced))
    for one, other in joined:
        edges.setdefault(one, []).append((other, 0j, 0j))
        edges.setdefault(other, []).append((one, 0j, 0j))
    return _path(edges, *read)
