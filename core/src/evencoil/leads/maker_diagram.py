"""The maker's own connection diagram held against the derived joints.

A difference is never settled by the program: a named person follows one of the
two and says why, and the sheet prints which.

Units: none.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from evencoil.base import Message
from evencoil.winding import LINES, Connection, Group, Joint, Winding, check_joints, groups_of

__all__ = ["Compared", "JointDifference", "compare"]


@dataclass(frozen=True, slots=True)
class JointDifference:
    """One joint that stands in one of the two only."""

    side: Literal["maker", "derived"]
    line: str | None
    leads: tuple[str, ...]

    def message(self) -> Message:
        """Return it as a sentence."""
        ends = " ".join((*((self.line,) if self.line else ()), *self.leads))
        return Message(f"maker.only_{self.side}", {"joint": ends})


@dataclass(frozen=True, slots=True)
class Compared:
    """How a maker's diagram differs from what was derived.

    ``is_rotation_only`` is True where the two differ by the order of lines.
    """

    differences: tuple[JointDifference, ...]
    is_rotation_only: bool

    @property
    def agrees(self) -> bool:
        """Tell whether every joint is the same."""
        return not self.differences


def _sides(
    winding: Winding, side: Literal["maker", "derived"], groups: frozenset[Group]
) -> list[JointDifference]:
    return [
        JointDifference(side, line, tuple(lead for lead in winding.leads if lead in leads))
        for line, leads in sorted(
            groups, key=lambda group: (group[0] is None, group[0] or "", sorted(group[1]))
        )
    ]


def compare(winding: Winding, stamped: Sequence[Joint], derived: Connection) -> Compared:
    """Hold a maker's diagram against a derived connection.

    Parameters
    ----------
    winding : Winding
        Whose leads.
    stamped : sequence of Joint
        As drawn on plate, cover or leaflet.
    derived : Connection
        For the same volts, speed and direction.

    Returns
    -------
    Compared
        Joint by joint.

    Raises
    ------
    RefusedError
        If a lead or a line stands in two joints, or is unknown.
    """
    check_joints(winding, stamped)
    theirs, ours = groups_of(stamped), derived.partition

    def unlined(groups: frozenset[Group]) -> frozenset[Group]:
        return frozenset((LINES[0] if line else None, leads) for line, leads in groups)

    differences = (
        *_sides(winding, "maker", theirs - ours),
        *_sides(winding, "derived", ours - theirs),
    )
    return Compared(differences, bool(differences) and unlined(theirs) == unlined(ours))
