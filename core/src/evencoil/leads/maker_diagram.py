"""The maker's own connection diagram held against the derived joints.

A difference is never settled by the program: a named person follows one of the
two and says why, and the sheet prints which.

Units: none.
"""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from evencoil.base import Message, RefusedError
from evencoil.leads.nearest_connection import exact_connection
from evencoil.winding import (
    KINDS,
    LINES,
    Connection,
    Group,
    Joint,
    Winding,
    WindingKind,
    check_joints,
    groups_of,
)

__all__ = ["Compared", "JointDifference", "compare", "kinds_of_diagram", "read_diagram"]


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


_JOINT = re.compile(
    r"(?P<before>L[123])?[\s:=]*(?P<leads>T?\d{1,2}(?:\s*[-–&+/ ]\s*T?\d{1,2})*)\s*"
    r"(?:TO|=|ON|:)?\s*(?P<after>L[123])?\s*(?:TOGETHER|JOINED|TIED|OPEN|INSULATED?)?"
)


def read_diagram(text: str) -> tuple[Joint, ...]:
    """Read a connection diagram as printed on plate or cover.

    Parameters
    ----------
    text : str
        Joints parted by commas, semicolons or lines: ``1-7 L1, 2-8 L2, 3-9 L3, 4-5-6``; the
        letter T may be left out, the line may stand before or behind.

    Returns
    -------
    tuple of Joint
        In printed order; a lead alone without a line is left out, it is insulated.

    Raises
    ------
    RefusedError
        If a part is no joint.
    """
    found = []
    for place, part in enumerate(re.split(r"[,;\n]+", text.upper()), 1):
        if not part.strip():
            continue
        hit = _JOINT.fullmatch(part.strip().rstrip("."))
        if hit is None:
            raise RefusedError(
                Message("maker.unread", {"part": part.strip()[:40], "n": str(place)}),
                field="leads.maker",
                hint=Message("maker.unread.hint"),
            )
        leads = tuple(f"T{int(number)}" for number in re.findall(r"\d{1,2}", hit["leads"]))
        line = hit["before"] or hit["after"]
        if line or len(leads) > 1:
            found.append(Joint(id=f"maker.{place}", leads=leads, line=line))
    return tuple(found)


def kinds_of_diagram(
    joints: Sequence[Joint], kinds: Sequence[WindingKind]
) -> tuple[WindingKind, ...]:
    """Return the windings of which a diagram is a connection, its lines in any order.

    Parameters
    ----------
    joints : sequence of Joint
        The diagram.
    kinds : sequence of str
        Windings still possible.
    """
    groups = groups_of(joints)
    return tuple(kind for kind in kinds if exact_connection(KINDS[kind], groups) is not None)


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
