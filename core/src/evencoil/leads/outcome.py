"""What any connection of the leads does, right or wrong, and what the mistake is.

The joints found are held against every named connection of the winding. Where one
matches, its volts decide. Where none does, the nearest is looked for: a joint
not made, two leads exchanged, the joints of another kind of winding. The
circuit solver says what each coil would see.

Units: volts [V], angles [deg].
Source: nodal analysis with the rotor open (`solver.stator`); textbook machine
windings.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Literal

from evencoil.base import Finding, Message
from evencoil.circuit import Device, Netlist, Wire
from evencoil.leads.nearest_connection import (
    Rotation,
    exact_connection,
    joint_finding,
    nearest_connection,
)
from evencoil.solver import MAGNETISING, CoilReading, solve_stator
from evencoil.winding import (
    KINDS,
    LINES,
    Connection,
    Joint,
    Rating,
    Winding,
    WindingKind,
    check_joints,
    groups_of,
    joinings,
    run_joinings,
)

__all__ = ["CoilState", "Outcome", "Rotation", "installation", "judge_joints"]


LOW, HIGH = 0.9, 1.1
_EDGE = 0.002
_ANGLE_DEG = 8.0
_IDLE = 0.05
Fault = Literal["right", "wrong", "open"]


@dataclass(frozen=True, slots=True, kw_only=True)
class CoilState:
    """What one coil sees in volts and degrees, against what it is made for.

    ``is_resting`` is a coil that the intended connection leaves without current.
    """

    name: str
    start: str
    end: str
    volts_v: float
    rated_v: float
    angle_deg: float
    is_idle: bool
    is_turned: bool
    is_resting: bool = False

    @property
    def ratio(self) -> float:
        """Return volts as a part of rated volts."""
        return self.volts_v / self.rated_v


@dataclass(frozen=True, slots=True, kw_only=True)
class Outcome:
    """What a connection does on this supply.

    Attributes
    ----------
    verdict : str
        ``open`` while no line comes in.
    name : str
        The named connection that it is; empty if it is none.
    speed : str
        Of a two-speed motor.
    stage : str
        ``start`` if it may stand only while the motor starts.
    rotation : str
        Against the order 1-2-3 of lines and leads.
    made_for_v : float or None
        Line volts that the named connection is made for. [V]
    """

    verdict: Fault
    name: str
    coils: tuple[CoilState, ...]
    findings: tuple[Finding, ...]
    speed: str = ""
    stage: str = "run"
    rotation: Rotation = ""
    made_for_v: float | None = None


def _read(
    winding: Winding, joints: Sequence[Joint], line_volts_v: float, coil_v: float
) -> tuple[CoilReading, ...]:
    nets = installation(winding, joints).nets()
    inner = sorted(
        {point for coil in winding.coils for point in (coil.start, coil.end)} - set(winding.leads)
    )
    count = max(nets.values()) + 1
    node_of = {lead: nets[f"motor.{lead}"] for lead in winding.leads}
    node_of |= {point: count + place for place, point in enumerate(inner)}
    lines = {
        line: nets[f"supply.{line}"]
        for joint in joints
        for line in joint.lines
        if winding.phases == 3 or line != "L3"
    }
    return solve_stator(
        winding,
        node_of,
        lines,
        line_volts_v=line_volts_v,
        phase_ohm=coil_v * winding.halves,
    )


def _wrap(angle: float) -> float:
    return abs((angle + 180) % 360 - 180)


def _turned(
    readings: Sequence[CoilReading], model: Sequence[CoilReading], fed: Sequence[int]
) -> set[int]:
    """Return the coils whose volts stand against the others, in either sequence.

    In the order 1-2-3 every angle differs from the model's by the same amount;
    in the other order every sum of the two does.
    """
    best: tuple[float, set[int]] = (-1.0, set())
    for sign in (-1, 1):
        angle = {at: readings[at].angle_deg + sign * model[at].angle_deg for at in fed}
        for first in fed:
            with_it = {at for at in fed if _wrap(angle[at] - angle[first]) < _ANGLE_DEG}
            weight = sum(readings[at].volts_v for at in with_it)
            if weight > best[0] + 1e-6:
                best = (weight, set(fed) - with_it)
    return best[1]


@lru_cache(maxsize=256)
def _model(
    kind: WindingKind, joints: tuple[Joint, ...], line_v: float, coil_v: float
) -> tuple[CoilReading, ...]:
    return _read(KINDS[kind], joints, line_v, coil_v)


def _states(
    winding: Winding, readings: Sequence[CoilReading], like: Connection, made_for_v: float
) -> tuple[CoilState, ...]:
    """Compare each coil with its volts, phase and current in the intended connection.

    Impedance is counted in rated volts, so the rated magnetising current is
    1 / `MAGNETISING` whatever the motor.
    """
    rated = made_for_v / like.factor
    model = _model(winding.kind, like.joints, made_for_v, rated)
    least = _IDLE / MAGNETISING

    def is_idle(reading: CoilReading) -> bool:
        return reading.amps_a <= least or reading.volts_v <= _IDLE * rated

    fed = [
        at
        for at, reading in enumerate(readings)
        if reading.volts_v > _IDLE * rated and model[at].volts_v > _IDLE * rated
    ]
    turned = _turned(readings, model, fed)
    return tuple(
        CoilState(
            name=coil.name,
            start=coil.start,
            end=coil.end,
            volts_v=reading.volts_v,
            rated_v=rated,
            angle_deg=reading.angle_deg,
            is_idle=is_idle(reading),
            is_turned=at in turned,
            is_resting=is_idle(model[at]),
        )
        for at, (coil, reading) in enumerate(zip(winding.coils, readings, strict=True))
    )


def _names(coils: Sequence[CoilState]) -> str:
    return ", ".join(f"{coil.start}-{coil.end}" for coil in coils)


def _faults(
    winding: Winding, joints: Sequence[Joint], coils: Sequence[CoilState], name: str
) -> list[Finding]:
    """Name what is wrong, worst first."""
    found = []
    lines = [line for joint in joints for line in joint.lines]
    wanted = LINES if winding.phases == 3 else LINES[:2]
    missing = [line for line in wanted if line not in lines]
    over = [coil for coil in coils if coil.ratio > HIGH + _EDGE and not coil.is_resting]
    idle = [coil for coil in coils if coil.is_idle and not coil.is_resting]
    turned = [coil for coil in coils if coil.is_turned and not coil.is_idle]
    low = [coil for coil in coils if coil.ratio < LOW - _EDGE and not coil.is_idle]
    found += [
        joint_finding("short", "doubt", lines=" and ".join(joint.lines))
        for joint in joints
        if len(joint.lines) > 1
    ]
    if missing:
        found.append(joint_finding("no_line", "doubt", lines=", ".join(missing)))
    both = [
        coil
        for coil in winding.coils
        if any({coil.start, coil.end} <= set(joint.leads) for joint in joints)
    ]
    if both:
        named = ", ".join(f"{coil.start}-{coil.end}" for coil in both)
        found.append(joint_finding("both_ends", "doubt", coils=named))
    is_dead = len(idle) == sum(not coil.is_resting for coil in coils)
    if over:
        worst = max(over, key=lambda coil: coil.ratio)
        found.append(_volts("over", over, worst, name))
    if turned and not missing and not both:
        found.append(joint_finding("turned", "doubt", coils=_names(turned)))
    if is_dead:
        found.append(joint_finding("no_torque", "doubt"))
    elif idle:
        found.append(joint_finding("idle", "doubt", coils=_names(idle)))
    if low and not missing:
        worst = min(low, key=lambda coil: coil.ratio)
        found.append(_volts("low", low, worst, name))
    return found


def _volts(code: str, coils: Sequence[CoilState], worst: CoilState, name: str) -> Finding:
    params = {
        "coils": _names(coils),
        "volts": f"{worst.volts_v:.0f}",
        "rated": f"{worst.rated_v:.0f}",
        "percent": f"{worst.ratio * 100:.0f}",
        "torque": f"{worst.ratio**2 * 100:.0f}",
    }
    if name:
        # a named connection on other volts than its own: say which it is
        params["name"] = str(Message(f"connection.{name}"))
        return joint_finding(f"{code}.named", "doubt", **params)
    return joint_finding(code, "doubt", **params)


def _target(winding: Winding, rating: Rating, volts_v: float, wanted: str) -> Connection:
    """Return the connection that is meant where nothing in the box says it."""
    known = [item for item in run_joinings(winding.kind) if not wanted or item.name == wanted]
    known = known or list(run_joinings(winding.kind))
    return min(known, key=lambda item: abs(rating.off(item, volts_v)))


def judge_joints(
    winding: Winding,
    joints: Sequence[Joint],
    *,
    volts_v: float,
    rating: Rating,
    others: Mapping[str, str] | None = None,
    wanted: str = "",
) -> Outcome:
    """Return what a connection does on a supply, right or wrong.

    Parameters
    ----------
    winding : Winding
        The coils.
    joints : sequence of Joint
        As found, as tapped together, or derived.
    volts_v : float
        Volts between the lines that the motor takes. [V]
    rating : Rating
        For what line volts each connection is made.
    others : mapping or None
        Leads that belong to no coil, and what each is.
    wanted : str
        Name of the connection that is meant.

    Returns
    -------
    Outcome
        Volts of every coil, and what is wrong in words, worst first.

    Raises
    ------
    RefusedError
        If a lead or a line stands in two joints, or is unknown.
    """
    others = others or {}
    check_joints(winding, joints, others)
    foreign = _foreign(joints, others)
    joints = tuple(
        replace(joint, leads=tuple(lead for lead in joint.leads if lead not in others))
        for joint in joints
    )
    groups = groups_of(joints)
    like = exact_connection(winding, groups)
    near = like or nearest_connection(winding, groups)
    own = near is not None and near.known in joinings(winding.kind)
    target = near.known if near and own else _target(winding, rating, volts_v, wanted)
    made_for = rating.nearest_line_v(target, volts_v)
    readings = _read(winding, joints, volts_v, made_for / target.factor)
    coils = _states(winding, readings, target, made_for)
    if not any(joint.lines for joint in joints):
        verdict: Fault = "wrong" if foreign else "open"
        return Outcome(verdict=verdict, name="", coils=coils, findings=tuple(foreign))
    name = target.name if like else ""
    faults = _faults(winding, joints, coils, name)
    if like is not None:
        # of a connection that is right in itself only the volts can be wrong
        faults = [found for found in faults if found.code.split(".")[0] in {"over", "low"}]
    elif near is not None and near.finding is not None and faults:
        # a short circuit is said before what it comes from
        at = 1 if faults[0].code == "short" else 0
        if near.finding.code == "not_tied":
            # with a joint open the phases of the rest say nothing of exchanged leads
            faults = [found for found in faults if found.code != "turned"]
        faults.insert(at, near.finding)
    faults = [*foreign, *faults]
    rotation: Rotation = near.rotation if near and own else ""
    return Outcome(
        verdict="wrong" if faults else "right",
        findings=tuple(faults or _right(coils, name, target, rotation)),
        name=name,
        coils=coils,
        speed=target.speed if like else "",
        stage=target.stage if like else "run",
        rotation=rotation,
        made_for_v=made_for if like else None,
    )


def _foreign(joints: Sequence[Joint], others: Mapping[str, str]) -> list[Finding]:
    """Name leads of heater, thermostat or sensor that are joined to line or winding."""
    found = []
    for joint in joints:
        for lead in joint.leads:
            if lead not in others:
                continue
            rest = [name for name in joint.leads if name not in others]
            if joint.lines or rest:
                found.append(
                    joint_finding(
                        "foreign",
                        "doubt",
                        lead=lead,
                        kind=str(Message(f"accessory.{others[lead]}")),
                        where=" ".join((*joint.lines, *(r for r in rest if r not in LINES))),
                    )
                )
    return found


def _right(
    coils: Sequence[CoilState], name: str, target: Connection, rotation: Rotation
) -> list[Finding]:
    live = [coil for coil in coils if not coil.is_resting] or list(coils)
    said = {
        "name": str(Message(f"connection.{name or 'other'}")),
        "volts": f"{live[0].volts_v:.0f}",
    }
    code = "right_start" if target.stage == "start" and name else "right"
    found = [joint_finding(code, "agrees", **said)]
    if rotation == "reverse":
        found.append(joint_finding("reverse", "note"))
    return found


def installation(winding: Winding, joints: Sequence[Joint]) -> Netlist:
    """Return supply, joints and motor as one netlist.

    Parameters
    ----------
    winding : Winding
        The motor's leads.
    joints : sequence of Joint
        Each becomes a device; its wires are the leads and the line. Leads that
        belong to no coil are left out.

    Returns
    -------
    Netlist
        Ids: ``supply``, ``motor``, the joints' own, and wires by what they are.
    """
    devices = [Device("supply", "supply", LINES), Device("motor", "motor", winding.leads)]
    wires = []
    for joint in joints:
        ends = tuple(
            end
            for end in (*((joint.line,) if joint.line else ()), *joint.leads)
            if end in LINES or end in winding.leads
        )
        devices.append(Device(joint.id, "joint", ends))
        for end in ends:
            owner = "supply" if end in LINES else "motor"
            wires.append(Wire(f"{owner}.{end}.wire", f"{owner}.{end}", f"{joint.id}.{end}"))
    return Netlist(tuple(devices), tuple(wires))
