"""Whether what a fuse or a breaker opened was a short circuit or the current of a load.

A short circuit joins two points of different volts by closed contacts alone: two lines, a line
and ground, both ends of one transformer winding. Everything else went through a load.

Source: connected components of closed contacts (textbook topic).
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Collection, Sequence

from evencoil.solver.plant import Plant

__all__ = ["joins_sources"]

#: a closed contact, pole or fuse is better than this; a coil or a winding is not [S]
_CLOSED_S = 50.0
_SAME_V = 1.0
_EARTH = -1


def joins_sources(
    plant: Plant,
    seeds: Collection[int],
    admittance: Sequence[complex],
    feeds: Sequence[tuple[complex, complex]],
    dc_feeds: Sequence[tuple[float, float]],
    grounded: Collection[int],
) -> bool:
    """Tell whether closed contacts join sources of different volts at some nodes.

    Parameters
    ----------
    plant : Plant
        The compiled netlist.
    seeds : collection of int
        Nodes of the device that opened, taken as still closed.
    admittance : sequence of complex
        Of each branch. [S]
    feeds : sequence of (complex, complex)
        Admittance and open volts of each alternating source. [S], [V]
    dc_feeds : sequence of (float, float)
        Conductance and open volts of each direct source. [S], [V]
    grounded : collection of int
        Nodes that a fault bonds to ground.
    """
    beside: dict[int, list[int]] = defaultdict(list)
    for (one, other), value in zip(plant.ends, admittance, strict=True):
        if abs(value) >= _CLOSED_S:
            beside[one].append(other)
            beside[other].append(one)
    for node in (*plant.earthed, *grounded):
        beside[node].append(_EARTH)
        beside[_EARTH].append(node)
    found = set(seeds)
    ring = list(found)
    for node in ring:
        for far in beside[node]:
            if far not in found:
                found.add(far)
                ring.append(far)
    volts = [
        volt
        for (node, _), (own, volt) in zip(plant.sources, feeds, strict=True)
        if own and node in found
    ]
    is_floating = any(back >= 0 and node in found for node, back in plant.sources)
    if _EARTH in found and not is_floating:
        volts.append(0j)
    if any(abs(one - other) > _SAME_V for one in volts for other in volts):
        return True
    pairs = [pair for pair, (own, _) in zip(plant.dc_sources, dc_feeds, strict=True) if own]
    pairs += [pair for ends in plant.windings for pair in ends]
    return any(one != other and {one, other} <= found for one, other in pairs)
