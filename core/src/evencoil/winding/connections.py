"""Every connection of a winding that has a name, built from its coils.

Halves in series or in parallel, phases in wye or in delta, the two steps of a
wye-delta or part-winding start, the two speeds, the two directions of a
single-phase motor. A candidate is saved only if the points inside the motor
allow it.

Units: ``factor`` is line volts over the volts of one coil, a pure number.
Source: series and parallel halves, wye and delta, consequent poles (NEMA MG 1
part 2; textbook machine windings).
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from functools import cache
from itertools import pairwise
from math import sqrt
from typing import Literal

from evencoil.winding.coils import KINDS, LINES, Coil, Winding, WindingKind
from evencoil.winding.joints import Group, Joint, groups_of

__all__ = [
    "SWAPS",
    "Connection",
    "Speed",
    "Stage",
    "StartMethod",
    "joinings",
    "named",
    "run_joinings",
    "swap_lines",
]

StartMethod = Literal["full_voltage", "wye_delta", "part_winding"]


Speed = Literal["", "low", "high"]
Stage = Literal["run", "start"]
SWAPS = ("L1-L2", "L2-L3", "L1-L3")
_ROOT3 = sqrt(3)


@dataclass(frozen=True, slots=True, kw_only=True)
class Connection:
    """A connection of all leads, by name.

    Attributes
    ----------
    factor : float
        Line volts over the volts of one coil.
    stage : str
        ``start`` where it stands only while the motor starts.
    speed : str
        Of a two-speed motor.
    """

    name: str
    joints: tuple[Joint, ...]
    factor: float = 1.0
    stage: Stage = "run"
    speed: Speed = ""

    @property
    def partition(self) -> frozenset[Group]:
        """Return the joints without their ids, for comparing."""
        return groups_of(self.joints)

    def free(self, winding: Winding) -> tuple[str, ...]:
        """Return the leads that are in no joint and are insulated each by itself."""
        joined = {lead for joint in self.joints for lead in joint.leads}
        return tuple(lead for lead in winding.leads if lead not in joined)


def _classes(
    winding: Winding, *, is_series: bool, is_wye: bool, is_crossed: bool, is_one_star: bool
) -> dict[str, set[str]] | None:
    """Return which points a topology puts together, or None if the inside forbids it."""
    found: dict[str, set[str]] = {}

    def put(name: str, *points: str) -> None:
        found.setdefault(name, set()).update(points)

    phases = {letter: [coil for coil in winding.coils if coil.phase == letter] for letter in "ABC"}
    follows = {"A": "C", "B": "A", "C": "B"} if is_crossed else {"A": "B", "B": "C", "C": "A"}
    line_of = {"A": "L1", "B": "L2", "C": "L3"}
    for letter, coils in phases.items():
        heads: list[Coil] = [coils[0]] if is_series else coils
        tails: list[Coil] = [coils[-1]] if is_series else coils
        put(line_of[letter], *(coil.start for coil in heads))
        if is_series:
            for one, other in pairwise(coils):
                put(f"series_{letter.lower()}", one.end, other.start)
        for place, coil in enumerate(tails):
            star = "star_1" if is_one_star else f"star_{place + 1}"
            put(star if is_wye else line_of[follows[letter]], coil.end)
    seen: dict[str, str] = {}
    for name, points in found.items():
        for point in points:
            if seen.setdefault(point, name) != name:
                return None
    return found


def _joints(winding: Winding, classes: Mapping[str, set[str]]) -> tuple[Joint, ...]:
    joints = []
    # the lines first and the stars last, as they are said
    ordered = sorted(classes, key=lambda role: (role not in LINES, role.startswith("star")))
    for role in ordered:
        points = classes[role]
        leads = tuple(lead for lead in winding.leads if lead in points)
        line = role if role in LINES else None
        if line is not None or len(leads) > 1:
            number = f"line_{role[1]}" if line else role
            joints.append(Joint(id=f"joint.{number}", leads=leads, line=line))
    return tuple(joints)


def _topologies(winding: Winding) -> list[Connection]:
    found: list[Connection] = []
    splits = (True, False) if winding.halves > 1 else (True,)
    for is_series in splits:
        for is_wye in (winding.is_wye, not winding.is_wye):
            for is_crossed in (False,) if is_wye else (False, True):
                for is_one_star in (True, False) if is_wye and not is_series else (True,):
                    classes = _classes(
                        winding,
                        is_series=is_series,
                        is_wye=is_wye,
                        is_crossed=is_crossed,
                        is_one_star=is_one_star,
                    )
                    if classes is None or any(line not in classes for line in LINES):
                        continue
                    shape = "wye" if is_wye else "delta"
                    name = shape
                    if winding.halves > 1:
                        name = f"series_{shape}" if is_series else f"parallel_{shape}"
                    if is_crossed:
                        name += "_crossed"
                    factor = (winding.halves if is_series else 1) * (_ROOT3 if is_wye else 1)
                    made = Connection(name=name, joints=_joints(winding, classes), factor=factor)
                    if all(made.partition != other.partition for other in found):
                        found.append(made)
    return found


def _said(name: str, text: str, factor: float, **more: object) -> Connection:
    """Build a connection from ``L1 T1, L2 T2 | T4 T5 T6``: lines first, then the rest."""
    joints = []
    fed, _, rest = text.partition("|")
    for part in fed.split(","):
        line, *leads = part.split()
        joints.append(Joint(id=f"joint.line_{line[1]}", leads=tuple(leads), line=line))
    stars = [part.split() for part in rest.split(",") if part.strip()]
    joints += [
        Joint(id=f"joint.star_{place}", leads=tuple(leads)) for place, leads in enumerate(stars, 1)
    ]
    return replace(Connection(name=name, joints=tuple(joints), factor=factor), **more)  # type: ignore[arg-type]  # fields of Connection


_LOW = "L1 T1,L2 T2,L3 T3"
_HIGH = "L1 T6,L2 T4,L3 T5"
_SAID: Mapping[WindingKind, tuple[Connection, ...]] = {
    "part-winding": (
        _said("part_winding_run", "L1 T1 T7,L2 T2 T8,L3 T3 T9", _ROOT3),
        _said("part_winding_start", _LOW, _ROOT3, stage="start"),
    ),
    "2-speed-ct": (
        _said("low_delta", _LOW, 2.0, speed="low"),
        _said("high_double_wye", f"{_HIGH}|T1 T2 T3", _ROOT3, speed="high"),
    ),
    "2-speed-vt": (
        _said("low_wye", _LOW, 2 * _ROOT3, speed="low"),
        _said("high_double_wye", f"{_HIGH}|T1 T2 T3", _ROOT3, speed="high"),
    ),
    "2-speed-cp": (
        _said("low_double_wye", f"{_LOW}|T4 T5 T6", _ROOT3, speed="low"),
        _said("high_delta", _HIGH, 2.0, speed="high"),
    ),
    "2-speed-2-winding": (
        _said("low_winding", _LOW, _ROOT3, speed="low"),
        _said("high_winding", "L1 T11,L2 T12,L3 T13", _ROOT3, speed="high"),
    ),
    "1-phase": (_said("single", "L1 T1,L2 T4", 1.0),),
    "1-phase-reversible": (
        _said("single_a", "L1 T1 T8,L2 T4 T5", 1.0),
        _said("single_b", "L1 T1 T5,L2 T4 T8", 1.0),
    ),
    "1-phase-dual": (
        _said("single_series_a", "L1 T1,L2 T4 T5|T2 T3 T8", 2.0),
        _said("single_parallel_a", "L1 T1 T3 T8,L2 T2 T4 T5", 1.0),
        _said("single_series_b", "L1 T1,L2 T4 T8|T2 T3 T5", 2.0),
        _said("single_parallel_b", "L1 T1 T3 T5,L2 T2 T4 T8", 1.0),
    ),
    "1-phase-dual-fixed": (
        _said("single_series", "L1 T1,L2 T4|T2 T3", 2.0),
        _said("single_parallel", "L1 T1 T3,L2 T2 T4", 1.0),
    ),
}
_STARTS: Mapping[WindingKind, tuple[Connection, ...]] = {
    "9-wye": (_said("half_wye_start", f"{_LOW}|T4 T5 T6", _ROOT3, stage="start"),),
    "12": (_said("half_wye_start", f"{_LOW}|T4 T5 T6,T10 T11 T12", _ROOT3, stage="start"),),
}


@cache
def joinings(kind: WindingKind) -> tuple[Connection, ...]:
    """Return every named connection of a winding kind, the usual first.

    Parameters
    ----------
    kind : str
        Of `KINDS`.

    Returns
    -------
    tuple of Connection
        Those to run with, then those that stand only while starting.
    """
    said = _SAID.get(kind)
    if said is not None:
        return said
    return (*_topologies(KINDS[kind]), *_STARTS.get(kind, ()))


def run_joinings(kind: WindingKind) -> tuple[Connection, ...]:
    """Return the named connections that a motor runs with; the usual first.

    Parameters
    ----------
    kind : str
        Of `KINDS`.
    """
    return tuple(
        known
        for known in joinings(kind)
        if known.stage == "run" and not known.name.endswith("_crossed")
    )


def named(kind: WindingKind, name: str) -> Connection:
    """Return the connection of a name, or its first form if it has several.

    Parameters
    ----------
    kind : str
        Of `KINDS`.
    name : str
        Such as ``series_wye``.

    Raises
    ------
    KeyError
        If the winding has no such connection: a bug.
    """
    for known in joinings(kind):
        if known.name == name:
            return known
    raise KeyError(name)


def swap_lines(connection: Connection, pair: str) -> Connection:
    """Return a connection with two incoming lines exchanged: it turns the other way.

    Parameters
    ----------
    connection : Connection
        As it stands.
    pair : str
        ``L1-L2``, ``L2-L3`` or ``L1-L3``.

    Returns
    -------
    Connection
        The same joints with the same leads; no motor lead moves.
    """
    one, other = pair.split("-")
    to = {one: other, other: one}
    joints = tuple(
        replace(joint, line=to.get(joint.line, joint.line) if joint.line else None)
        for joint in connection.joints
    )
    return replace(connection, joints=joints)
