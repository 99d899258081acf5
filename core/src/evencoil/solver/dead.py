"""Ohms between every two terminals of a dead circuit at once.

Source: resistance distance from the inverse of the conductance matrix (textbook,
network theory).
"""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from evencoil.solver.cover import Pairs
from evencoil.solver.plant import Plant

__all__ = ["DeadNetwork", "Ohms", "every_ohm"]

#: readings, positions x pairs [ohm]
Ohms = NDArray[np.float64]


class DeadNetwork:
    """A compiled netlist without its sources, for many readings in many positions at once."""

    def __init__(self, plant: Plant) -> None:
        self.plant = plant
        self._base = np.zeros((plant.size, plant.size))
        for place, row in enumerate(plant.dc_rows([0.0] * len(plant.ends))):
            for column, value in row.items():
                self._base[place, column] = value.real
        ends = np.array(plant.ends, dtype=np.int64).reshape(-1, 2)
        self._kept = np.flatnonzero(ends[:, 0] != ends[:, 1])
        self._starts, self._ends = ends[self._kept].T

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
        size = self.plant.size
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

    def ohms(
        self, conductance: Sequence[Sequence[float]], terminals: Sequence[str], pairs: Pairs
    ) -> Ohms:
        """Return what an ohmmeter reads between pairs of terminals, in each position.

        Parameters
        ----------
        conductance : positions x branches
            [S]
        terminals : sequence of str
            Where meter leads may be set.
        pairs : (array, array)
            Places in ``terminals`` of the two meter leads, pair by pair.

        Returns
        -------
        array, positions x pairs
            [ohm]; open is a thousand megohms because of the leak at each node.
        """
        solved = self.solved(np.array(conductance))
        nodes = np.array([self.plant.node_of[name] for name in terminals], dtype=np.int64)
        one, other = nodes[pairs[0]], nodes[pairs[1]]
        own = np.diagonal(solved, axis1=1, axis2=2)
        across = solved[:, one, other] + solved[:, other, one]
        found: Ohms = np.abs(own[:, one] + own[:, other] - across)
        return found

    def ohms_between(
        self,
        conductance: Sequence[Sequence[float]],
        readings: Sequence[tuple[int, str, str]],
    ) -> list[float]:
        """Return single readings, each in its own position [ohm].

        Parameters
        ----------
        conductance : positions x branches
            [S]
        readings : sequence of (int, str, str)
            Position and the terminals of the two meter leads.
        """
        if not readings:
            return []
        ends = [end for _, start, finish in readings for end in (start, finish)]
        places = np.arange(len(ends))
        ohms = self.ohms(conductance, ends, (places[::2], places[1::2]))
        return [float(ohms[state, place]) for place, (state, _, _) in enumerate(readings)]


def every_ohm(plant: Plant, conductance: Sequence[float], terminals: Sequence[str]) -> Ohms:
    """Return what an ohmmeter reads between any two terminals, sources dead.

    Parameters
    ----------
    plant : Plant
        The compiled netlist.
    conductance : sequence of float
        Of each branch, direct current. [S]
    terminals : sequence of str
        Where the meter leads may be set.

    Returns
    -------
    array, terminals x terminals
        [ohm]; open is a thousand megohms because of the leak at each node.
    """
    count = len(terminals)
    every = np.indices((count, count)).reshape(2, -1)
    found = DeadNetwork(plant).ohms([conductance], terminals, (every[0], every[1]))
    table: Ohms = found[0].reshape(count, count)
    return table
