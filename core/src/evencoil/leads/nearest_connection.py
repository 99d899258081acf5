"""The correct connection that joints in the box are nearest to."""

from __future__ import annotations

from collections.abc import Collection, Iterator, Mapping
from dataclasses import dataclass
from functools import lru_cache, partial
from itertools import combinations, permutations
from typing import Literal

from evencoil.base import Finding, Message, finding
from evencoil.winding import KINDS, LINES, Connection, Group, Winding, WindingKind, joinings

__all__ = [
    "LikelyConnection",
    "Rotation",
    "exact_connection",
    "joint_finding",
    "nearest_connection",
]

Rotation = Literal["", "forward", "reverse"]

Groups = frozenset[Group]


@dataclass(frozen=True, slots=True)
class LikelyConnection:
    """The named connection that a box is or comes nearest to, and how it differs."""

    known: Connection
    rotation: Rotation
    finding: Finding | None = None


joint_finding = partial(finding, "tried", "leads.joints")


def _rename(groups: Groups, to: Mapping[str, str]) -> Groups:
    return frozenset((to[line] if line else None, leads) for line, leads in groups)


@lru_cache(maxsize=64)
def _forms(kind: WindingKind, stage: str) -> tuple[tuple[Groups, Connection, Rotation], ...]:
    """Return every named connection with its lines in every order."""
    lines = LINES[: 3 if KINDS[kind].phases == 3 else 2]
    orders: list[tuple[tuple[str, ...], Rotation]] = []
    for order in permutations(lines):
        odd = sum(order[i] > order[j] for i, j in combinations(range(len(order)), 2)) % 2
        orders.append((order, "reverse" if odd else "forward"))
    found = []
    for known in joinings(kind):
        if stage and known.stage != stage:
            continue
        for order, rotation in orders:
            to = dict(zip(lines, order, strict=True))
            turned = rotation if len(lines) == 3 else ""
            found.append((_rename(known.partition, to), known, turned))
    return tuple(found)


def exact_connection(winding: Winding, groups: Groups) -> LikelyConnection | None:
    """Return the named connection that the groups are, None if they are none.

    Parameters
    ----------
    winding : Winding
        Coils and leads.
    groups : frozenset
        Joined leads with their line.
    """
    for form, known, rotation in _forms(winding.kind, ""):
        if form == groups:
            turned: Rotation = rotation
            if known.name.endswith("_b"):
                turned = "reverse"
            elif known.name.endswith("_a"):
                turned = "forward"
            return LikelyConnection(known, turned)
    return None


def _swapped(groups: Groups, one: str, other: str) -> Groups:
    to = {one: other, other: one}
    return frozenset(
        (line, frozenset(to.get(lead, lead) for lead in leads)) for line, leads in groups
    )


def _leads_of(winding: Winding, leads: Collection[str]) -> str:
    return "-".join(lead for lead in winding.leads if lead in leads)


def _crossed(winding: Winding, groups: Groups) -> Iterator[LikelyConnection]:
    """Look for two leads exchanged in a named connection."""
    joined = sorted({lead for _, leads in groups for lead in leads if lead in winding.leads})
    ends = {frozenset((coil.start, coil.end)): coil for coil in winding.coils}
    forms = {
        form: (known, rotation) for form, known, rotation in reversed(_forms(winding.kind, "run"))
    }
    everywhere = {*joined, *winding.leads}
    for one, other in combinations(sorted(everywhere, key=winding.leads.index), 2):
        hit = forms.get(_swapped(groups, one, other))
        if hit is None:
            continue
        known, rotation = hit
        coil = ends.get(frozenset((one, other)))
        fed = {
            lead: line for line, leads in groups for lead in leads if line and lead in (one, other)
        }
        params = {
            "one": one,
            "other": other,
            "name": str(Message(f"connection.{known.name}")),
        }
        if coil is not None:
            yield LikelyConnection(
                known, rotation, joint_finding("reversed", "doubt", coil=coil.name, **params)
            )
        elif len(fed) == 2:
            yield LikelyConnection(
                known,
                rotation,
                joint_finding(
                    "motor_leads", "doubt", lines=" and ".join(sorted(fed.values())), **params
                ),
            )
        else:
            yield LikelyConnection(known, rotation, joint_finding("exchanged", "doubt", **params))


def _unfinished(winding: Winding, groups: Groups) -> Iterator[LikelyConnection]:
    """Look for a named connection of which some joints are not made."""
    where = {lead: (line, leads) for line, leads in groups for lead in leads}
    for form, known, rotation in _forms(winding.kind, "run"):
        missing: set[str] = set()
        for line, leads in form:
            parts = {where.get(lead, (None, frozenset({lead}))) for lead in leads}
            if line:
                parts.add(
                    next(((on, got) for on, got in groups if on == line), (line, frozenset()))
                )
            if any(on and on != line for on, _ in parts) or any(
                not got <= leads for _, got in parts
            ):
                break
            kept = max(parts, key=lambda part: (part[0] is not None, len(part[1])))
            if len(parts) > 1:
                gone = {lead for part in parts if part != kept for lead in part[1]}
                # a star of which nothing is joined names all its leads
                missing |= leads if line is None and len(kept[1]) == 1 else gone
                if line and kept[0] is None:
                    missing |= leads
        else:
            if missing and len(missing) < len(winding.leads):
                yield LikelyConnection(
                    known,
                    rotation,
                    joint_finding(
                        "not_tied",
                        "doubt",
                        leads=_leads_of(winding, missing),
                        name=str(Message(f"connection.{known.name}")),
                    ),
                )


def _of_other_kind(winding: Winding, groups: Groups) -> LikelyConnection | None:
    """Look for the joints of another winding with the same leads."""
    for kind, other in KINDS.items():
        if other.leads != winding.leads or kind == winding.kind or other.phases != winding.phases:
            continue
        for form, known, rotation in _forms(kind, "run"):
            if form == groups:
                return LikelyConnection(
                    known,
                    rotation,
                    joint_finding(
                        "other_kind",
                        "doubt",
                        name=str(Message(f"connection.{known.name}")),
                        theirs=str(Message(f"kind_name.{kind}")),
                        ours=str(Message(f"kind_name.{winding.kind}")),
                    ),
                )
    return None


def nearest_connection(winding: Winding, groups: Groups) -> LikelyConnection | None:
    """Return the correct connection that wrong joints are nearest to, None if none is near.

    Parameters
    ----------
    winding : Winding
        Coils and leads.
    groups : frozenset
        Joined leads with their line.
    """
    unfinished = sorted(
        _unfinished(winding, groups),
        key=lambda like: len(
            (like.finding or NO_FINDING).message.params.get("leads", "").split("-")
        ),
    )
    if unfinished:
        return unfinished[0]
    other = _of_other_kind(winding, groups)
    if other is not None:
        return other
    # of several exchanges that would cure it, one that keeps the rotation
    return min(_crossed(winding, groups), key=lambda one: one.rotation == "reverse", default=None)


NO_FINDING = joint_finding("none", "note")
