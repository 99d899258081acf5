"""The box of a motor whose leads the starter switches: what stays joined, and what goes out.

A star-delta, part-winding or two-speed starter joins the leads itself, in each state otherwise.
Only joints that every state has alike may stay in the box; every other lead runs to the starter
on a conductor of its own. A bar left in joins what the starter keeps apart.

Source: star-delta, part-winding and two-speed connections (NEMA MG 1 part 2; textbook).
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from evencoil.base import Finding
from evencoil.leads.derive import Derived
from evencoil.leads.nearest_connection import joint_finding
from evencoil.leads.outcome import Outcome
from evencoil.winding import Connection, Joint, Winding, check_joints

__all__ = ["box_joints", "judge_switched", "named_conductors"]


def _blocks(winding: Winding, states: Derived) -> list[frozenset[str]]:
    """Return the leads that are one in every state: joints that stay, and single leads."""
    joined = [frozenset(joint.leads) for joint in states.permanent]
    inside = {lead for block in joined for lead in block}
    return [*joined, *(frozenset({lead}) for lead in winding.leads if lead not in inside)]


def _goes_out(block: frozenset[str], connection: Connection) -> bool:
    """Tell whether a state has these leads on a line or with other leads."""
    return any(
        block <= set(joint.leads) and (joint.line is not None or set(joint.leads) != block)
        for joint in connection.joints
    )


def _order(leads: Sequence[str]) -> tuple[str, ...]:
    return tuple(sorted(leads, key=lambda lead: int(lead.removeprefix("T"))))


def box_joints(winding: Winding, states: Derived) -> tuple[Joint, ...]:
    """Return everything to be made in the box: joints that stay, conductors to the starter.

    Parameters
    ----------
    winding : Winding
        The coils.
    states : Derived
        The connection in each state.

    Returns
    -------
    tuple of Joint
        ``to_starter`` is the lead that names the conductor; empty where none goes out.
    """
    found = []
    for block in _blocks(winding, states):
        leads = _order(tuple(block))
        goes = any(_goes_out(block, connection) for connection in states.states.values())
        found.append(Joint(id=f"box.{leads[0]}", leads=leads, to_starter=leads[0] if goes else ""))
    return tuple(sorted(found, key=lambda joint: int(joint.leads[0].removeprefix("T"))))


def named_conductors(
    winding: Winding, states: Derived, joints: Sequence[Joint]
) -> tuple[Joint, ...]:
    """Return the joints as made, each with the conductor to the starter that it must carry.

    Parameters
    ----------
    winding : Winding
        The coils.
    states : Derived
        The connection in each state.
    joints : sequence of Joint
        As made.
    """
    out = {lead: one.to_starter for one in box_joints(winding, states) for lead in one.leads}
    return tuple(
        replace(joint, to_starter=next((out[lead] for lead in joint.leads if out.get(lead)), ""))
        for joint in joints
    )


def _shorted(joints: Sequence[Joint], connection: Connection) -> tuple[str, ...]:
    """Return the lines that the joints put together in a state of the starter."""
    groups = [{*joint.leads, *joint.lines} for joint in (*connection.joints, *joints)]
    merged: list[set[str]] = []
    for group in groups:
        touching = [other for other in merged if other & group]
        merged = [other for other in merged if not other & group]
        merged.append(group.union(*touching))
    for group in merged:
        lines = sorted(name for name in group if name.startswith("L"))
        if len(lines) > 1:
            return tuple(lines)
    return ()


def _said(leads: Sequence[str]) -> str:
    return "-".join(lead.removeprefix("T") for lead in _order(tuple(leads)))


def _bars(bars: Sequence[Joint], states: Derived) -> list[Finding]:
    """Say what bars left in do together, in the first state in which they short the lines."""
    for state, connection in states.states.items():
        if lines := _shorted(bars, connection):
            said = " and ".join(_said(bar.leads) for bar in bars)
            return [
                joint_finding(
                    "bar_short", "doubt", leads=said, state=state, lines=" and ".join(lines)
                )
            ]
    return [joint_finding("bar_left", "doubt", leads=_said(bar.leads)) for bar in bars]


def judge_switched(winding: Winding, joints: Sequence[Joint], states: Derived) -> Outcome:
    """Return whether a box holds what the starter leaves to it, and nothing else.

    Parameters
    ----------
    winding : Winding
        The coils.
    joints : sequence of Joint
        As made; a lead alone is one that runs to the starter.
    states : Derived
        The connection in each state.

    Returns
    -------
    Outcome
        ``right`` without any coil volts: the starter decides those.

    Raises
    ------
    RefusedError
        If a lead stands in two joints, or is unknown.
    """
    check_joints(winding, joints)
    if not joints:
        return Outcome(verdict="open", name="", coils=(), findings=())
    blocks = _blocks(winding, states)
    own = [
        Joint(id=joint.id, leads=tuple(lead for lead in joint.leads if lead in winding.leads))
        for joint in joints
    ]
    found = _bars(
        [
            joint
            for joint in own
            if len(joint.leads) > 1 and not any(set(joint.leads) <= block for block in blocks)
        ],
        states,
    )
    made = [set(joint.leads) for joint in joints]
    found += [
        joint_finding(
            "bar_missing",
            "doubt",
            leads=_said(tuple(block)),
        )
        for block in blocks
        if len(block) > 1 and not any(block <= leads for leads in made)
    ]
    if not found:
        count = sum(1 for one in box_joints(winding, states) if one.to_starter)
        return Outcome(
            verdict="right",
            name="",
            coils=(),
            findings=(joint_finding("switched_right", "agrees", count=str(count)),),
        )
    order = {"bar_short": 0, "bar_left": 1, "bar_missing": 2}
    found.sort(key=lambda one: order[one.code])
    return Outcome(verdict="wrong", name="", coils=(), findings=tuple(found))
