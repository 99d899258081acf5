"""The same equations solved densely by NumPy: for machines, and to check the sparse path."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from evencoil.solver.sparse import Rows

__all__ = ["solve_dense"]


def solve_dense(rows: Rows, right: Sequence[complex]) -> list[complex]:
    """Solve a network's equations with full pivoting inside LAPACK.

    Parameters
    ----------
    rows : list of dict
        One row a node, column to value. It is not changed.
    right : sequence of complex
        Currents into the nodes.

    Returns
    -------
    list of complex
        Volts of the nodes [V].
    """
    size = len(rows)
    matrix = np.zeros((size, size), dtype=complex)
    for place, row in enumerate(rows):
        for column, value in row.items():
            matrix[place, column] = value
    solved = np.linalg.solve(matrix, np.asarray(right, dtype=complex))
    return [complex(value) for value in solved]
