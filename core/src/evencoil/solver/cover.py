"""Which readings tell which wiring faults: a set cover taken greedily.

Units: resistance [ohm]. Source: greedy set cover, which is not always the least but near
it (textbook topics).
"""

from __future__ import annotations

from collections import Counter, defaultdict
from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from evencoil.circuit import Netlist

__all__ = ["TIMES", "ZERO_TIMES", "Pairs", "ReadingCover", "pairs_at", "pairs_of"]

#: coils of one voltage differ that much from maker to maker; less tells nothing
TIMES = 5.0
#: what reads twice as much as near zero is no wire
ZERO_TIMES = 2.0

#: places in a list of terminals of the first and the second probe, pair by pair
Pairs = tuple[NDArray[np.int64], NDArray[np.int64]]


def pairs_of(netlist: Netlist, terminals: Sequence[str]) -> Pairs:
    """Return the pairs of terminals worth a reading.

    On one net any two; between nets only the ends of their chains, since every terminal
    between reads the same while the wires are whole.

    Parameters
    ----------
    netlist : Netlist
        Devices and wires.
    terminals : sequence of str
        Where the meter leads may be set.
    """
    nets = netlist.nets()
    wires = Counter(end for wire in netlist.wires for end in (wire.start, wire.end))
    ends: dict[int, list[int]] = defaultdict(list)
    for place, name in enumerate(terminals):
        ends[nets[name]].append(place)
    outer = set()
    for places in ends.values():
        tips = [place for place in places if wires[terminals[place]] == 1] or places
        outer |= {tips[0], tips[-1]}
    one, other = np.triu_indices(len(terminals), 1)
    of_net = np.array([nets[name] for name in terminals])
    is_outer = np.array([place in outer for place in range(len(terminals))])
    kept = (of_net[one] == of_net[other]) | (is_outer[one] & is_outer[other])
    return one[kept], other[kept]


def pairs_at(ends: Sequence[tuple[int, int]]) -> Pairs:
    """Return given pairs of places in a list of terminals.

    Parameters
    ----------
    ends : sequence of (int, int)
        Places of the first and the second probe.
    """
    both = np.array(ends, dtype=np.int64).reshape(-1, 2)
    return both[:, 0], both[:, 1]


class ReadingCover:
    """What a right circuit reads, and which fault would change which of its readings."""

    def __init__(
        self, ohms: NDArray[np.float64], faults: int, *, low_ohm: float, open_ohm: float
    ) -> None:
        self._range = (low_ohm, open_ohm)
        self._right = np.clip(ohms, low_ohm, open_ohm)
        self._covers = np.zeros((faults, *ohms.shape), dtype=bool)

    def compare(self, fault: int, states: list[int], ohms: NDArray[np.float64]) -> None:
        """Keep which readings a fault changes.

        Parameters
        ----------
        fault : int
            Its place in the list of faults.
        states : list of int
            Places of the positions that were read.
        ohms : array, positions x pairs
            What the meter reads with the fault. [ohm]
        """
        wrong, right = np.clip(ohms, *self._range), self._right[states]
        low, high = np.minimum(wrong, right), np.maximum(wrong, right)
        times = np.where(low <= self._range[0], ZERO_TIMES, TIMES)
        self._covers[fault, states] = high > low * times

    def is_detected(self, fault: int) -> bool:
        """Tell whether any reading so far shows a fault."""
        return bool(self._covers[fault].any())

    def faults_of(self, state: int, pair: int) -> list[int]:
        """Return the faults that one reading shows."""
        return [int(place) for place in np.flatnonzero(self._covers[:, state, pair])]

    def chosen(self, held: Sequence[int]) -> list[tuple[int, int]]:
        """Return readings, as position and pair, until every fault that can be shown is.

        Among equals the reading with the fewest things held comes first.

        Parameters
        ----------
        held : sequence of int
            How many things are held in each position.
        """
        weights = np.array(held)[:, None] * 0.01
        left = self._covers.any(axis=(1, 2))
        shows = self._covers[left].sum(axis=0)
        found = []
        while left.any():
            gains = shows - weights
            state, pair = np.unravel_index(int(np.argmax(gains)), gains.shape)
            found.append((int(state), int(pair)))
            shown = left & self._covers[:, state, pair]
            shows -= self._covers[shown].sum(axis=0)
            left &= ~shown
        return sorted(found, key=lambda item: (held[item[0]], item[0], item[1]))
