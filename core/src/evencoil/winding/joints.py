"""Joints of the terminal box: which leads and which line meet.

Units: none. A joint is a device of the netlist; its id lasts.
"""

from __future__ import annotations

from collections.abc import Collection, Sequence
from dataclasses import dataclass

from evencoil.base import Message, RefusedError
from evencoil.winding.coils import LINES, Winding

__all__ = ["Group", "Joint", "check_joints", "counts_of", "groups_of"]

#: a joint without its id: the line on it, and the leads
Group = tuple[str | None, frozenset[str]]


@dataclass(frozen=True, slots=True, kw_only=True)
class Joint:
    """A joint in the terminal box: leads, and the line conductor on it if any.

    ``id`` lasts: a role where the joint was derived, a UUID where a person
    made it. A second line in the same joint, which is a short circuit, stands
    among the leads. ``to_starter`` is the lead that names the conductor running from this
    joint to a starter that switches the leads; empty if none does.
    """

    id: str
    leads: tuple[str, ...]
    line: str | None = None
    to_starter: str = ""

    @property
    def lines(self) -> tuple[str, ...]:
        """Return every line in the joint: one, or a short circuit."""
        more = tuple(lead for lead in self.leads if lead in LINES)
        return ((self.line,) if self.line else ()) + more

    @property
    def conductors(self) -> int:
        """Return how many conductors meet, the line's or the starter's own included."""
        return len(self.leads) + (self.line is not None) + bool(self.to_starter)


def groups_of(joints: Sequence[Joint]) -> frozenset[Group]:
    """Return joints without their ids, for comparing; a free lead is no group."""
    return frozenset(
        (joint.line, frozenset(joint.leads))
        for joint in joints
        if joint.line or len(joint.leads) > 1
    )


def check_joints(winding: Winding, joints: Sequence[Joint], others: Collection[str] = ()) -> None:
    """Refuse joints that cannot be: unknown leads, a lead or a line in two joints.

    Parameters
    ----------
    winding : Winding
        Whose leads they are.
    joints : sequence of Joint
        As found or as tapped together.
    others : collection of str
        Leads in the same box that belong to no coil: heater, thermostat.

    Raises
    ------
    RefusedError
        Naming the lead or the line.
    """
    seen: set[str] = set()
    for joint in joints:
        for name in (*joint.leads, *((joint.line,) if joint.line else ())):
            if name not in winding.leads and name not in LINES and name not in others:
                raise RefusedError(
                    Message("joints.unknown", {"lead": name[:12]}),
                    field="leads.joints",
                    hint=Message("joints.unknown.hint", {"leads": ", ".join(winding.leads)}),
                )
            if name in seen:
                raise RefusedError(
                    Message("joints.twice", {"lead": name}),
                    field="leads.joints",
                    hint=Message("joints.twice.hint"),
                )
            seen.add(name)


def counts_of(joints: Sequence[Joint]) -> tuple[tuple[int, ...], tuple[int, ...]]:
    """Return leads per line joint and per other joint, each sorted."""
    fed = tuple(sorted(len(joint.leads) for joint in joints if joint.line))
    other = tuple(sorted(len(joint.leads) for joint in joints if not joint.line))
    return fed, other
