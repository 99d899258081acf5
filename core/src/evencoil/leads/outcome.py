"""What any connection of the leads does, right or wrong, and what the mistake is.

The joints found are held against every named connection of the winding. Where one
matches, its volts decide. Where none does, the nearest is looked for: a joint
not made, two leads exchanged, the joints of another kind of winding. The
circuit solver says what each coil would see: with the rotor open, to tell which coil is
wrong; with the cage at standstill and at full-load speed, for the volts and amps that it
would have.

Units: volts [V], angles [deg].
Source: nodal analysis and the revolving-field coil matrix (`solver.stator`) with the constants
of a typical motor: they decide how large currents are, hardly how volts divide.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from itertools import combinations
from typing import Literal

from evencoil.base import Finding, Message
from evencoil.circuit import Device, Netlist, Wire
from evencoil.leads.nearest_connection import (
    LikelyConnection,
    Rotation,
    exact_connection,
    joint_finding,
    nearest_connection,
)
from evencoil.solver import (
    FULL_LOAD_SLIP,
    MAGNETISING,
    CoilReading,
    StatorState,
    solve_caged,
    solve_stator,
)
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
#: torque at standstill below this part of the rated power's is none
_NO_TORQUE = 0.001
#: at full-load speed a sound connection takes once its rated current
_HEAVY = 1.5
Fault = Literal["right", "wrong", "open"]


@dataclass(frozen=True, slots=True, kw_only=True)
class CoilState:
    """What one coil sees in volts and degrees, against what it is made for.

    ``volts_v`` is at standstill and ``running_v`` at full-load speed, both with a cage; the
    times are parts of its rated current, of a typical motor. ``is_resting`` is a coil that
    the intended connection leaves without current.
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
    running_v: float = 0.0
    starting_times: float = 0.0
    running_times: float = 0.0

    @property
    def state(self) -> Literal["resting", "over", "idle", "turned", "low", "right"]:
        """Return what is to be said of it in one word."""
        if self.is_idle and self.is_resting:
            return "resting"
        if self.highest_v > self.rated_v * HIGH:
            return "over"
        if self.is_idle:
            return "idle"
        if self.is_turned:
            return "turned"
        return "low" if self.lowest_v < self.rated_v * LOW else "right"

    @property
    def highest_v(self) -> float:
        """Return the larger of the volts at standstill and running [V]."""
        return max(self.volts_v, self.running_v)

    @property
    def lowest_v(self) -> float:
        """Return the smaller of the volts at standstill and running [V]."""
        return min(self.volts_v, self.running_v)


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


def _nodes(
    winding: Winding, joints: Sequence[Joint]
) -> tuple[Mapping[str, int], Mapping[str, int]]:
    """Return the node of every lead and inner point, and that of every line that is landed."""
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
    return node_of, lines


def _read(
    winding: Winding, joints: Sequence[Joint], line_volts_v: float, coil_v: float
) -> tuple[CoilReading, ...]:
    """Return what each coil sees with the rotor open."""
    node_of, lines = _nodes(winding, joints)
    return solve_stator(
        winding,
        node_of,
        lines,
        line_volts_v=line_volts_v,
        phase_ohm=coil_v * winding.halves,
    )


def _caged(
    winding: Winding,
    joints: Sequence[Joint],
    line_volts_v: float,
    coil_v: float,
    speed: str,
) -> tuple[StatorState, StatorState]:
    """Return what each coil sees with the cage at standstill, and at full-load speed.

    It turns the way its torque at standstill pulls; a motor without any is taken forward.
    Impedance is counted in rated volts, so amps are parts of the rated current.
    """
    node_of, lines = _nodes(winding, joints)

    def at(part: float) -> StatorState:
        return solve_caged(
            winding,
            node_of,
            lines,
            line_volts_v=line_volts_v,
            phase_ohm=coil_v * winding.halves,
            speed=part,
        )

    still = at(0.0)
    full = (1 - FULL_LOAD_SLIP) * (0.5 if speed == "low" else 1.0)
    is_backward = still.torque_w < -_NO_TORQUE * 3 * coil_v * winding.halves
    return still, at(-full if is_backward else full)


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
    winding: Winding,
    readings: Sequence[CoilReading],
    caged: tuple[StatorState, StatorState],
    like: Connection,
    made_for_v: float,
) -> tuple[CoilState, ...]:
    """Compare each coil with its volts, phase and current in the intended connection.

    Impedance is counted in rated volts, so the rated magnetising current is
    1 / `MAGNETISING` whatever the motor.
    """
    rated = made_for_v / like.factor
    model = _model(winding.kind, like.joints, made_for_v, rated)
    least = _IDLE / MAGNETISING

    def is_unfed(reading: CoilReading) -> bool:
        return reading.amps_a <= least or reading.volts_v <= _IDLE * rated

    def is_idle(at: int) -> bool:
        # a coil shorted on itself has no volts, and many times its current by induction
        if winding.phases == 1:
            return is_unfed(readings[at])
        return all(state.coils[at].amps_a <= _IDLE for state in caged)

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
            volts_v=still.volts_v,
            running_v=turning.volts_v,
            starting_times=still.amps_a,
            running_times=turning.amps_a,
            rated_v=rated,
            angle_deg=reading.angle_deg,
            is_idle=is_idle(at),
            is_turned=at in turned,
            is_resting=is_unfed(model[at]),
        )
        for at, (coil, reading, still, turning) in enumerate(
            zip(winding.coils, readings, caged[0].coils, caged[1].coils, strict=True)
        )
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
    over = [
        coil
        for coil in coils
        if coil.highest_v > coil.rated_v * (HIGH + _EDGE) and not coil.is_resting
    ]
    idle = [coil for coil in coils if coil.is_idle and not coil.is_resting]
    turned = [coil for coil in coils if coil.is_turned and not coil.is_idle]
    low = [
        coil for coil in coils if coil.lowest_v < coil.rated_v * (LOW - _EDGE) and not coil.is_idle
    ]
    shorted = [joint for joint in joints if len(joint.lines) > 1]
    found += [joint_finding("short", "doubt", lines=" and ".join(one.lines)) for one in shorted]
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
        worst = max(over, key=lambda coil: coil.highest_v)
        found.append(_volts("over", over, worst, worst.highest_v, name))
    if turned and not (missing or both or shorted):
        found.append(joint_finding("turned", "doubt", coils=_names(turned)))
    if is_dead:
        found.append(joint_finding("no_torque", "doubt"))
    elif idle:
        found.append(joint_finding("idle", "doubt", coils=_names(idle)))
    circulating = [] if missing or both or shorted or is_dead else _circulating(coils)
    if low and not (missing or over or both or shorted or circulating):
        worst = min(low, key=lambda coil: coil.lowest_v)
        found.append(_volts("low", low, worst, worst.lowest_v, name))
    return found + circulating


def _circulating(coils: Sequence[CoilState]) -> list[Finding]:
    """Name halves of one phase that are fed with volts of different phase.

    They lie in the same slots, so what one lets through the other has to take back.
    """
    live = [coil for coil in coils if not coil.is_idle and coil.running_times > _HEAVY]
    pairs = [
        (one, other)
        for one, other in combinations(live, 2)
        if one.name[0] == other.name[0]
        and _ANGLE_DEG < _wrap(one.angle_deg - other.angle_deg) < 180 - _ANGLE_DEG
    ]
    if not pairs:
        return []
    involved = [coil for coil in live if any(coil in pair for pair in pairs)]
    times = max(coil.running_times for coil in involved)
    return [joint_finding("circulating", "doubt", coils=_names(involved), times=f"{times:.0f}")]


def _volts(
    code: str, coils: Sequence[CoilState], worst: CoilState, volts_v: float, name: str
) -> Finding:
    ratio = volts_v / worst.rated_v
    params = {
        "coils": _names(coils),
        "volts": f"{volts_v:.0f}",
        "rated": f"{worst.rated_v:.0f}",
        "percent": f"{ratio * 100:.0f}",
        "torque": f"{ratio**2 * 100:.0f}",
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
    if winding.phases == 3:
        caged = _caged(winding, joints, volts_v, made_for / target.factor, target.speed)
    else:
        # start switch and capacitor decide what a single-phase motor does: the volts alone
        caged = (StatorState(readings, 0.0),) * 2
    coils = _states(winding, readings, caged, target, made_for)
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
        # the cause is known: which coils then oppose which is no second one
        faults = [found for found in faults if found.code not in {"turned", "low"}]
        if not _is_missing_line(near, joints):
            faults.insert(at, near.finding)
        if own and near.rotation == "reverse":
            faults.append(joint_finding("cure_reverses", "note"))
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


def _is_missing_line(near: LikelyConnection, joints: Sequence[Joint]) -> bool:
    """Tell whether all that is not joined are the leads of a line that is not landed at all."""
    if near.finding is None or near.finding.code != "not_tied":
        return False
    landed = {line for joint in joints for line in joint.lines}
    of_missing = {
        lead
        for joint in near.known.joints
        if joint.line not in (None, *landed)
        for lead in joint.leads
    }
    return set(near.finding.message.params["leads"].split("-")) <= of_missing


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
