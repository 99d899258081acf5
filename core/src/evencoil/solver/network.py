"""Complex nodal analysis, dense, in plain Python.

Phasors are RMS at the supply frequency. Elements are admittances only; every
node has a leak of 1e-9 S to ground, so that floating islands and open coils
never make the matrix singular. Source: nodal analysis with Norton equivalents
(textbook circuit theory).

Units: volts [V], amps [A], impedance [ohm].
"""

from __future__ import annotations

from collections.abc import Sequence

__all__ = ["GMIN_S", "Matrix", "Network", "inverse", "solve_linear"]

GMIN_S = 1e-9
Matrix = list[list[complex]]


def solve_linear(matrix: Matrix, right: Sequence[complex]) -> list[complex]:
    """Solve a square complex system by elimination with row exchange.

    Parameters
    ----------
    matrix : list of list of complex
        Square; it is not changed.
    right : sequence of complex
        Right-hand side.

    Returns
    -------
    list of complex
        The solution.

    Raises
    ------
    ZeroDivisionError
        If the matrix is singular: a bug, since every node leaks.
    """
    size = len(matrix)
    rows = [[*row, right[place]] for place, row in enumerate(matrix)]
    for column in range(size):
        pivot = max(range(column, size), key=lambda row: abs(rows[row][column]))
        rows[column], rows[pivot] = rows[pivot], rows[column]
        lead = rows[column]
        for row in range(column + 1, size):
            target = rows[row]
            if target[column]:
                factor = target[column] / lead[column]
                for place in range(column, size + 1):
                    target[place] -= factor * lead[place]
    found = [0j] * size
    for row in range(size - 1, -1, -1):
        known = sum(rows[row][place] * found[place] for place in range(row + 1, size))
        found[row] = (rows[row][size] - known) / rows[row][row]
    return found


def inverse(matrix: Matrix) -> Matrix:
    """Return the inverse of a square complex matrix.

    Raises
    ------
    ZeroDivisionError
        If it is singular.
    """
    size = len(matrix)
    columns = [
        solve_linear(matrix, [1 if row == column else 0 for row in range(size)])
        for column in range(size)
    ]
    return [[columns[column][row] for column in range(size)] for row in range(size)]


class Network:
    """Nodes, sources and coupled coils; solved once for all node voltages."""

    def __init__(self, nodes: int) -> None:
        self.size = nodes
        self.admittance: Matrix = [
            [complex(GMIN_S) if row == column else 0j for column in range(nodes)]
            for row in range(nodes)
        ]
        self.current = [0j] * nodes

    def source(self, node: int, volts_v: complex, impedance_ohm: complex) -> None:
        """Add a source to ground behind an impedance.

        Parameters
        ----------
        node : int
            Where it feeds.
        volts_v : complex
            Open-circuit phasor to ground. [V]
        impedance_ohm : complex
            Its own impedance, not zero. [ohm]
        """
        self.admittance[node][node] += 1 / impedance_ohm
        self.current[node] += volts_v / impedance_ohm

    def coils(self, ends: Sequence[tuple[int, int]], impedance_ohm: Matrix) -> Matrix:
        """Add coupled coils and return their admittance matrix.

        Parameters
        ----------
        ends : sequence of (int, int)
            Start and end node of each coil.
        impedance_ohm : list of list of complex
            Coil impedance matrix; it need not be symmetric. [ohm]

        Returns
        -------
        list of list of complex
            Its inverse, from coil volts to coil amps.
        """
        own = inverse(impedance_ohm)
        for one, (start, end) in enumerate(ends):
            for other, (other_start, other_end) in enumerate(ends):
                value = own[one][other]
                self.admittance[start][other_start] += value
                self.admittance[start][other_end] -= value
                self.admittance[end][other_start] -= value
                self.admittance[end][other_end] += value
        return own

    def solve(self) -> list[complex]:
        """Return the volts of every node to ground [V]."""
        return solve_linear(self.admittance, self.current)
