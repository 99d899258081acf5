"""Sparse elimination in plain Python: the path for control circuits.

A control circuit is nearly a tree: rows hold three or four entries, and a
fixed order of small rows first keeps them so. No pivoting: the admittance
matrix of a passive network has a positive definite real part.

Source: minimum-degree ordering and nodal analysis (textbook circuit theory).
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence

__all__ = ["Rows", "elimination_order", "solve_sparse"]

Rows = list[dict[int, complex]]


def elimination_order(size: int, pairs: Iterable[tuple[int, int]]) -> tuple[int, ...]:
    """Return an order in which eliminating fills in little.

    Parameters
    ----------
    size : int
        Number of nodes.
    pairs : iterable of (int, int)
        Nodes that may ever be joined by an element.

    Returns
    -------
    tuple of int
        Every node once, the one with fewest neighbors left first.
    """
    beside: list[set[int]] = [set() for _ in range(size)]
    for one, other in pairs:
        if one != other:
            beside[one].add(other)
            beside[other].add(one)
    left = set(range(size))
    order = []
    while left:
        node = min(left, key=lambda item: (len(beside[item]), item))
        order.append(node)
        left.discard(node)
        around = beside[node]
        for one in around:
            beside[one] |= around
            beside[one] -= {one, node}
    return tuple(order)


def solve_sparse(rows: Rows, right: list[complex], order: Sequence[int]) -> list[complex]:
    """Solve a network's equations in place.

    Parameters
    ----------
    rows : list of dict
        One row a node, column to value; the structure is symmetric, the values
        need not be. It is used up.
    right : list of complex
        Currents into the nodes; used up.
    order : sequence of int
        From `elimination_order`.

    Returns
    -------
    list of complex
        Volts of the nodes [V].
    """
    for node in order:
        row = rows[node]
        pivot = row.pop(node)
        known = right[node] = right[node] / pivot
        for column in row:
            row[column] /= pivot
        for other in row:
            target = rows[other]
            factor = target.pop(node, 0)
            if factor:
                for column, value in row.items():
                    target[column] = target.get(column, 0) - factor * value
                right[other] -= factor * known
    found = right
    for node in reversed(order):
        for column, value in rows[node].items():
            found[node] -= value * found[column]
    return found
