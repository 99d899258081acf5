"""Which leads ring together: all groupings that the touches so far allow.

Units: none. Source: the coil tables; how many leads ring together follows from
each winding.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from functools import lru_cache
from itertools import combinations

from evencoil.unmarked.readings import Pair, Touch

__all__ = ["PATTERNS", "Grouping", "groupings", "next_touch"]

Grouping = tuple[tuple[str, ...], ...]
#: sizes of the groups, by number of leads; each belongs to a kind or several
PATTERNS: Mapping[int, tuple[tuple[int, ...], ...]] = {
    3: ((3,),),
    6: ((2, 2, 2), (3, 3), (6,)),
    9: ((3, 2, 2, 2), (3, 3, 3)),
    12: ((2, 2, 2, 2, 2, 2),),
}
_MANY = 2000


def _split(left: tuple[int, ...], sizes: tuple[int, ...]) -> Iterator[tuple[tuple[int, ...], ...]]:
    if not left:
        yield ()
        return
    first, rest = left[0], left[1:]
    for size in dict.fromkeys(sizes):
        after = list(sizes)
        after.remove(size)
        for more in combinations(rest, size - 1):
            group = (first, *more)
            remaining = tuple(lead for lead in rest if lead not in more)
            for others in _split(remaining, tuple(after)):
                yield (group, *others)


@lru_cache(maxsize=8)
def _all(count: int) -> tuple[tuple[tuple[int, ...], tuple[tuple[int, ...], ...]], ...]:
    """Return every grouping as, for each lead, the number of its group."""
    found = []
    for pattern in PATTERNS[count]:
        for grouping in _split(tuple(range(count)), pattern):
            owner = [0] * count
            for number, group in enumerate(grouping):
                for lead in group:
                    owner[lead] = number
            found.append((tuple(owner), grouping))
    return tuple(found)


def groupings(leads: Sequence[str], touches: Sequence[Touch]) -> list[Grouping]:
    """Return every grouping that the touches allow.

    Parameters
    ----------
    leads : sequence of str
        The sleeves.
    touches : sequence of Touch
        Those taken so far.
    """
    number = {lead: place for place, lead in enumerate(leads)}
    asked = [(number[t.pair[0]], number[t.pair[1]], t.rings) for t in touches]
    return [
        tuple(tuple(leads[place] for place in group) for group in grouping)
        for owner, grouping in _all(len(leads))
        if all((owner[one] == owner[other]) == rings for one, other, rings in asked)
    ]


def next_touch(leads: Sequence[str], left: Sequence[Grouping]) -> Pair | None:
    """Return the touch that splits the groupings left most evenly; None if one is left.

    Parameters
    ----------
    leads : sequence of str
        The sleeves.
    left : sequence of Grouping
        What is still possible.
    """
    if len(left) < 2:
        return None
    if len(left) == len(_all(len(leads))):
        return leads[0], leads[1]  # before the first touch all are alike
    # of very many groupings a regular sample tells the best touch as well
    seen = left[:: max(1, len(left) // _MANY)]
    counts: dict[Pair, int] = {}
    for grouping in seen:
        for group in grouping:
            for pair in combinations(group, 2):
                counts[pair] = counts.get(pair, 0) + 1
    half = len(seen) / 2
    order = {lead: place for place, lead in enumerate(leads)}
    useful = [pair for pair, count in counts.items() if 0 < count < len(seen)]
    if not useful:
        return None
    return min(useful, key=lambda pair: (abs(counts[pair] - half), order[pair[0]], order[pair[1]]))
