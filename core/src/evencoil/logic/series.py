"""Contacts between points, brought together into series and parallel; or found not to be so.

Source: reduction of two-terminal series-parallel networks (graph theory).
"""

from __future__ import annotations

from collections.abc import Hashable, Sequence
from dataclasses import dataclass
from typing import Literal as OneOf

from evencoil.logic.model import Expression, Literal, Many

__all__ = ["Branch", "joined", "reduced"]


@dataclass(frozen=True, slots=True)
class Branch:
    """What lies between two points: in parallel, each with its place among the wires in."""

    start: Hashable
    end: Hashable
    parts: tuple[tuple[int, Expression], ...]

    @property
    def what(self) -> Expression:
        """Return all of it as one expression."""
        return joined("OR", [one for _, one in self.parts])


def joined(operator: OneOf["AND", "OR"], parts: Sequence[Expression]) -> Expression:
    """Return operands with AND or OR between them; one of the same kind inside is part of it.

    Parameters
    ----------
    operator : Literal
        ``AND`` or ``OR``.
    parts : sequence of Expression
        At least one.
    """
    flat: list[Expression] = []
    for one in parts:
        flat += one.operands if isinstance(one, Many) and one.operator == operator else (one,)
    return flat[0] if len(flat) == 1 else Many(operator, tuple(flat))


def reduced(branches: Sequence[Branch], start: Hashable, end: Hashable) -> Expression | None:
    """Return what lies between two points as one expression; None if it is no series-parallel.

    Parameters
    ----------
    branches : sequence of Branch
        All that lie on a way between the two, and no others.
    start : hashable
        One point.
    end : hashable
        The other.
    """
    if start == end:
        return Literal("BOOL", value=True, text="TRUE")
    now = list(branches)
    while True:
        merged = _series(_parallel(now), start, end)
        if len(merged) == len(now):
            break
        now = merged
    if len(now) != 1 or (now[0].start, now[0].end) != (start, end):
        return None
    return now[0].what


def _parallel(branches: list[Branch]) -> list[Branch]:
    """Join branches between the same points, in the order their wires come in."""
    groups: dict[tuple[Hashable, Hashable], list[Branch]] = {}
    for one in branches:
        groups.setdefault((one.start, one.end), []).append(one)
    found = []
    for (start, end), alike in groups.items():
        parts = sorted((part for one in alike for part in one.parts), key=lambda part: part[0])
        found.append(Branch(start, end, tuple(parts)))
    return found


def _series(branches: list[Branch], start: Hashable, end: Hashable) -> list[Branch]:
    """Join one in front of a point with the one behind it, wherever there are no others."""
    now = list(branches)
    for point in {one.end for one in branches} - {start, end}:
        into = [one for one in now if one.end == point]
        out = [one for one in now if one.start == point]
        if len(into) == 1 and len(out) == 1:
            what = joined("AND", [into[0].what, out[0].what])
            now = [one for one in now if one is not into[0] and one is not out[0]]
            now.append(Branch(into[0].start, out[0].end, ((out[0].parts[0][0], what),)))
    return now
