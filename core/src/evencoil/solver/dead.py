"""Ohms between every two terminals of a dead circuit at once.

Source: resistance distance from the inverse of the conductance matrix (textbook,
network theory).
"""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from evencoil.solver.plant import Plant

__all__ = ["every_ohm"]


def every_ohm(
    plant: Plant, conductance: Sequence[float], terminals: Sequence[str]
) -> NDArray[np.float64]:
    """Return what an ohmmeter reads between any two terminals, sources dead.

    Parameters
    ----------
    plant : Plant
        The compiled netlist.
    conductance : sequence of float
        Of each branch, direct current. [S]
    terminals : sequence of str
        Where the probes may be set.

    Returns
    -------
    array, terminals x terminals
        [ohm]; open is a thousand megohms because of the leak at each node.
    """
    rows = plant.dc_rows(conductance)
    matrix = np.zeros((plant.size, plant.size))
    for place, row in enumerate(rows):
        for column, value in row.items():
            matrix[place, column] = value.real
    solved = np.linalg.inv(matrix)
    nodes = np.array([plant.node_of[name] for name in terminals])
    own = np.diag(solved)[nodes]
    across = solved[np.ix_(nodes, nodes)]
    found: NDArray[np.float64] = np.abs(own[:, None] + own[None, :] - across - across.T)
    return found
