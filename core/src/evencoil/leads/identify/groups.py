"""Which leads ring together: all groupings that the touches so far allow.

Units: none. Source: the coil tables; how many leads ring together follows from
each winding.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache
from itertools import combinations

from evencoil.leads.identify.readings import Pair, Touch

__all__ = ["PATTERNS", "Grouping", "Groupings", "groupings"]

Grouping = tuple[tuple[str, ...], ...]
#: sizes of the groups, by number of leads; each belongs to a kind or several
PATTERNS: Mapping[int, tuple[tuple[int, ...], ...]] = {
    3: ((3,),),
    6: ((2, 2, 2), (3, 3), (6,)),
    9: ((3, 2, 2, 2), (3, 3, 3)),
    12: ((2, 2, 2, 2, 2, 2),),
}
_Places = tuple[tuple[int, ...], ...]


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
def _all(count: int) -> tuple[tuple[_Places, ...], Mapping[tuple[int, int], int]]:
    """Return every grouping, and for each pair those in which it rings, as bits."""
    every = tuple(
        grouping for pattern in PATTERNS[count] for grouping in _split(tuple(range(count)), pattern)
    )
    rings = {pair: bytearray((len(every) + 7) // 8) for pair in combinations(range(count), 2)}
    for number, grouping in enumerate(every):
        for group in grouping:
            for pair in combinations(group, 2):
                rings[pair][number >> 3] |= 1 << (number & 7)
    return every, {pair: int.from_bytes(bits, "little") for pair, bits in rings.items()}


@dataclass(frozen=True, slots=True)
class Groupings:
    """The groupings that are left.

    Attributes
    ----------
    leads : tuple of str
        The lead letters.
    bits : int
        One bit for each grouping of so many leads that the touches allow.
    """

    leads: tuple[str, ...]
    bits: int

    def __len__(self) -> int:
        return self.bits.bit_count()

    def first(self) -> Grouping:
        """Return one of them; the only one once it is settled."""
        every, _ = _all(len(self.leads))
        places = every[(self.bits & -self.bits).bit_length() - 1]
        return tuple(tuple(self.leads[place] for place in group) for group in places)

    def patterns(self) -> tuple[tuple[int, ...], ...]:
        """Return the sizes of groups, largest first, that are still possible."""
        every = _by_pattern(len(self.leads))
        return tuple(pattern for pattern, bits in every if self.bits & bits)

    def next_touch(self) -> Pair | None:
        """Return the touch that splits what is left most evenly; None if one is left."""
        every, rings = _all(len(self.leads))
        count = len(self)
        if count < 2:
            return None
        if count == len(every):
            return self.leads[0], self.leads[1]  # before the first touch all are alike
        ringing = {pair: (bits & self.bits).bit_count() for pair, bits in rings.items()}
        useful = [pair for pair, times in ringing.items() if 0 < times < count]
        if not useful:
            return None
        one, other = min(useful, key=lambda pair: (abs(2 * ringing[pair] - count), pair))
        return self.leads[one], self.leads[other]


@lru_cache(maxsize=8)
def _by_pattern(count: int) -> tuple[tuple[tuple[int, ...], int], ...]:
    """Return the groupings of each pattern of sizes, as bits."""
    found: dict[tuple[int, ...], int] = {}
    for number, grouping in enumerate(_all(count)[0]):
        sizes = tuple(sorted((len(group) for group in grouping), reverse=True))
        found[sizes] = found.get(sizes, 0) | 1 << number
    return tuple(found.items())


def groupings(leads: Sequence[str], touches: Sequence[Touch]) -> Groupings:
    """Return every grouping that the touches allow.

    Parameters
    ----------
    leads : sequence of str
        The lead letters.
    touches : sequence of Touch
        Those taken so far.
    """
    every, rings = _all(len(leads))
    place = {lead: at for at, lead in enumerate(leads)}
    left = (1 << len(every)) - 1
    for touch in touches:
        one, other = sorted((place[touch.pair[0]], place[touch.pair[1]]))
        left &= rings[one, other] if touch.rings else ~rings[one, other]
    return Groupings(tuple(leads), left)
