"""Ohms between every two terminals of a dead circuit at once.

Source: resistance distance from the inverse of the conductance matrix (textbook,
network theory).
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Callable, Sequence

import numpy as np
from numpy.typing import NDArray

from evencoil.solver.cover import Pairs
from evencoil.solver.plant import Plant
from evencoil.solver.sparse import Rows

__all__ = ["DeadNetwork", "Ohms", "Positions"]

#: readings, positions x pairs [ohm]
Ohms = NDArray[np.float64]


def _reached(plant: Plant, rows: Rows, probed: Sequence[int]) -> list[int]:
    """Return the nodes that some branch, closed or open, joins with a probed one."""
    near: dict[int, set[int]] = defaultdict(set)
    for one, other in plant.ends:
        near[one].add(other)
        near[other].add(one)
    for node, row in enumerate(rows):
        near[node].update(row)
    found = set(probed)
    ahead = list(found)
    while ahead:
        fresh = near[ahead.pop()] - found - {-1}
        found |= fresh
        ahead += fresh
    return sorted(found)


class DeadNetwork:
    """A compiled netlist without its sources, for many readings in many positions at once.

    What no branch could ever join with a terminal that is read is left out: a contact without
    wires changes no reading.

    Parameters
    ----------
    plant : Plant
        The compiled netlist.
    terminals : sequence of str
        Where meter leads may be set.
    """

    def __init__(self, plant: Plant, terminals: Sequence[str]) -> None:
        self._plant = plant
        rows = plant.dc_rows([0.0] * len(plant.ends))
        reached = _reached(plant, rows, [plant.node_of[name] for name in terminals])
        #: node of the plant to its place here
        self._place = {node: place for place, node in enumerate(reached)}
        self._base = np.zeros((len(reached), len(reached)))
        for node, place in self._place.items():
            for column, value in rows[node].items():
                self._base[place, self._place[column]] = value.real
        kept = [
            (branch, self._place[one], self._place[other])
            for branch, (one, other) in enumerate(plant.ends)
            if one != other and one in self._place
        ]
        self._kept, self._starts, self._ends = np.array(kept, dtype=np.int64).reshape(-1, 3).T

    def place(self, terminal: str) -> int | None:
        """Return the place of a terminal's node; None if it is left out."""
        return self._place.get(self._plant.node_of[terminal])

    def solved(self, conductance: NDArray[np.float64]) -> NDArray[np.float64]:
        """Return the inverse of the conductance matrix in each position.

        Parameters
        ----------
        conductance : array, positions x branches
            [S]

        Returns
        -------
        array, positions x nodes x nodes
            [ohm]
        """
        values = conductance[:, self._kept]
        size = len(self._base)
        matrix = np.repeat(self._base[None], len(values), axis=0)
        flat = matrix.reshape(len(values), -1)
        one, other = self._starts, self._ends
        places = np.concatenate(
            [one * size + one, other * size + other, one * size + other, other * size + one]
        )
        for number, own in enumerate(values):
            weights = np.concatenate([own, own, -own, -own])
            flat[number] += np.bincount(places, weights=weights, minlength=size * size)
        return np.asarray(np.linalg.inv(matrix), dtype=np.float64)

    def places(self, terminals: Sequence[str], pairs: Pairs) -> Pairs:
        """Return the places of the two meter leads, pair by pair."""
        nodes = np.array(
            [self._place[self._plant.node_of[name]] for name in terminals], dtype=np.int64
        )
        return nodes[pairs[0]], nodes[pairs[1]]


def _between(solved: NDArray[np.float64], nodes: Pairs) -> Ohms:
    """Return readings between pairs of nodes.

    Parameters
    ----------
    solved : array, positions x nodes x nodes
        Inverse of the conductance matrix. [ohm]
    nodes : (array, array)
        Of the two meter leads, pair by pair.

    Returns
    -------
    array, positions x pairs
        [ohm]
    """
    one, other = nodes
    own = np.diagonal(solved, axis1=1, axis2=2)
    across = solved[:, one, other] + solved[:, other, one]
    found: Ohms = np.abs(own[:, one] + own[:, other] - across)
    return found


class Positions:
    """One netlist in many positions, each solved once, read with and without one more wire.

    Parameters
    ----------
    plant : Plant
        The compiled netlist.
    terminals : sequence of str
        Where meter leads may be set.
    pairs : (array, array)
        Places in ``terminals`` of the two meter leads, pair by pair.
    conductance : callable
        Position to the conductance of every branch. [S]
    """

    def __init__(
        self,
        plant: Plant,
        terminals: Sequence[str],
        pairs: Pairs,
        conductance: Callable[[int], Sequence[float]],
    ) -> None:
        self._network = DeadNetwork(plant, terminals)
        self._nodes = self._network.places(terminals, pairs)
        self._conductance = conductance
        self._solved: dict[int, NDArray[np.float64]] = {}
        self._reads: dict[int, NDArray[np.float64]] = {}

    def ohms(self, positions: Sequence[int], joint: tuple[str, str] | None = None) -> Ohms:
        """Return readings, with a wire between two terminals if one is given.

        Parameters
        ----------
        positions : sequence of int
            Not empty.
        joint : (str, str), optional
            The two terminals; a wire within one net joins nothing.

        Returns
        -------
        array, positions x pairs
            [ohm]

        Notes
        -----
        With the wire: rank-one update of the inverse with a conductance that goes to infinity
        (Sherman-Morrison, textbook topic). What the wire takes off a reading is the square of
        what a current through the joint would show there, over the ohms between its ends.
        """
        self._solve([place for place in positions if place not in self._solved])
        reads = np.stack([self._reads[place] for place in positions])
        if joint is None:
            return reads
        start, end = (self._network.place(name) for name in joint)
        # a wire to what nothing else is on, or within a net, joins nothing
        if start is None or end is None or start == end:
            return reads
        drive = np.stack(
            [self._solved[place][:, start] - self._solved[place][:, end] for place in positions]
        )
        seen = drive[:, self._nodes[0]] - drive[:, self._nodes[1]]
        across = drive[:, start] - drive[:, end]
        found: Ohms = np.abs(reads - seen * seen / across[:, None])
        return found

    def _solve(self, positions: Sequence[int]) -> None:
        if not positions:
            return
        solved = self._network.solved(np.array([self._conductance(one) for one in positions]))
        reads = _between(solved, self._nodes)
        for place, inverse, row in zip(positions, solved, reads, strict=True):
            self._solved[place], self._reads[place] = inverse, row
