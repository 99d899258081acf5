"""What any joining of the leads does, right or wrong, and what the mistake is.

The joints found are held against every named joining of the winding. Where one
matches, its volts decide. Where none does, the nearest is looked for: a joint
not made, two leads exchanged, the joints of another kind of winding. The
circuit solver says what each coil would see.

Units: volts [V], angles [deg].
Source: nodal analysis with the rotor open (`solver.stator`); textbook machine
windings.
"""

from __future__ import annotations

from collections.abc import Collection, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache, partial
from itertools import combinations, permutations
from typing import Literal

from evencoil.evidence import Finding, finding
from evencoil.joinings import Connection, joinings, run_joinings
from evencoil.joints import Group, Joint, check_joints, groups_of, installation
from evencoil.rating import Rating
from evencoil.solver.stator import MAGNETISING, CoilReading, solve_stator
from evencoil.winding import KINDS, LINES, Winding, WindingKind
from evencoil.words import Message

__all__ = ["CoilState", "Outcome", "Rotation", "judge_joints"]

LOW, HIGH = 0.9, 1.1
_EDGE = 0.002
_ANGLE_DEG = 8.0
_IDLE = 0.05
Fault = Literal["right", "wrong", "open"]
Rotation = Literal["", "forward", "reverse"]
Groups = frozenset[Group]


@dataclass(frozen=True, slots=True, kw_only=True)
class CoilState:
    """What one coil sees in volts and degrees, against what it is made for.

    ``is_resting`` is a coil that the intended joining leaves without current.
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
    """What a joining does on this supply.

    Attributes
    ----------
    verdict : str
        ``open`` while no line comes in.
    name : str
        The named joining that it is; empty if it is none.
    speed : str
        Of a two-speed motor.
    stage : str
        ``start`` if it may stand only while the motor starts.
    rotation : str
        Against the order 1-2-3 of lines and leads.
    made_for_v : float or None
        Line volts that the named joining is made for. [V]
    """

    verdict: Fault
    name: str
    coils: tuple[CoilState, ...]
    findings: tuple[Finding, ...]
    speed: str = ""
    stage: str = "run"
    rotation: Rotation = ""
    made_for_v: float | None = None


@dataclass(frozen=True, slots=True)
class _Like:
    """The named joining that a box is or comes nearest to, and how it differs."""

    known: Connection
    rotation: Rotation
    finding: Finding | None = None


_finding = partial(finding, "tried", "leads.joints")


def _rename(groups: Groups, to: Mapping[str, str]) -> Groups:
    return frozenset((to[line] if line else None, leads) for line, leads in groups)


@lru_cache(maxsize=64)
def _forms(kind: WindingKind, stage: str) -> tuple[tuple[Groups, Connection, Rotation], ...]:
    """Return every named joining with its lines in every order."""
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


def _exact(winding: Winding, groups: Groups) -> _Like | None:
    for form, known, rotation in _forms(winding.kind, ""):
        if form == groups:
            turned: Rotation = rotation
            if known.name.endswith("_b"):
                turned = "reverse"
            elif known.name.endswith("_a"):
                turned = "forward"
            return _Like(known, turned)
    return None


def _swapped(groups: Groups, one: str, other: str) -> Groups:
    to = {one: other, other: one}
    return frozenset(
        (line, frozenset(to.get(lead, lead) for lead in leads)) for line, leads in groups
    )


def _leads_of(winding: Winding, leads: Collection[str]) -> str:
    return "-".join(lead for lead in winding.leads if lead in leads)


def _crossed(winding: Winding, groups: Groups) -> Iterator[_Like]:
    """Look for two leads exchanged in a named joining."""
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
            yield _Like(known, rotation, _finding("reversed", "doubt", coil=coil.name, **params))
        elif len(fed) == 2:
            yield _Like(
                known,
                rotation,
                _finding(
                    "motor_leads", "doubt", lines=" and ".join(sorted(fed.values())), **params
                ),
            )
        else:
            yield _Like(known, rotation, _finding("exchanged", "doubt", **params))


def _unfinished(winding: Winding, groups: Groups) -> Iterator[_Like]:
    """Look for a named joining of which some joints are not made."""
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
                yield _Like(
                    known,
                    rotation,
                    _finding(
                        "not_tied",
                        "doubt",
                        leads=_leads_of(winding, missing),
                        name=str(Message(f"connection.{known.name}")),
                    ),
                )


def _of_other_kind(winding: Winding, groups: Groups) -> _Like | None:
    """Look for the joints of another winding with the same leads."""
    for kind, other in KINDS.items():
        if other.leads != winding.leads or kind == winding.kind or other.phases != winding.phases:
            continue
        for form, known, rotation in _forms(kind, "run"):
            if form == groups:
                return _Like(
                    known,
                    rotation,
                    _finding(
                        "other_kind",
                        "doubt",
                        name=str(Message(f"connection.{known.name}")),
                        theirs=str(Message(f"kind_name.{kind}")),
                        ours=str(Message(f"kind_name.{winding.kind}")),
                    ),
                )
    return None


def _nearest(winding: Winding, groups: Groups) -> _Like | None:
    """Return the named joining that a box comes nearest to, and how it differs."""
    unfinished = sorted(
        _unfinished(winding, groups),
        key=lambda like: len((like.finding or _NONE).message.params.get("leads", "").split("-")),
    )
    if unfinished:
        return unfinished[0]
    other = _of_other_kind(winding, groups)
    if other is not None:
        return other
    return next(_crossed(winding, groups), None)


_NONE = _finding("none", "note")


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
    """Compare each coil with its volts, phase and current in the intended joining.

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
        _finding("short", "doubt", lines=" and ".join(joint.lines))
        for joint in joints
        if len(joint.lines) > 1
    ]
    if missing:
        found.append(_finding("no_line", "doubt", lines=", ".join(missing)))
    if over:
        worst = max(over, key=lambda coil: coil.ratio)
        found.append(_volts("over", over, worst, name))
    if turned:
        found.append(_finding("turned", "doubt", coils=_names(turned)))
    if idle:
        found.append(_finding("idle", "doubt", coils=_names(idle)))
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
        # a named joining on other volts than its own: say which it is
        params["name"] = str(Message(f"connection.{name}"))
        return _finding(f"{code}.named", "doubt", **params)
    return _finding(code, "doubt", **params)


def _target(winding: Winding, rating: Rating, volts_v: float, wanted: str) -> Connection:
    """Return the joining that is meant where nothing in the box says it."""
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
    """Return what a joining does on a supply, right or wrong.

    Parameters
    ----------
    winding : Winding
        The coils.
    joints : sequence of Joint
        As found, as tapped together, or derived.
    volts_v : float
        Volts between the lines that the motor takes. [V]
    rating : Rating
        For what line volts each joining is made.
    others : mapping or None
        Leads that belong to no coil, and what each is.
    wanted : str
        Name of the joining that is meant.

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
    like = _exact(winding, groups)
    near = like or _nearest(winding, groups)
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
        # of a joining that is right in itself only the volts can be wrong
        faults = [found for found in faults if found.code.split(".")[0] in {"over", "low"}]
    elif near is not None and near.finding is not None and faults:
        # a short circuit is said before what it comes from
        at = 1 if faults[0].code == "short" else 0
        faults.insert(at, near.finding)
    faults = [*foreign, *faults]
    rotation: Rotation = near.rotation if near and own else ""
    told = {
        "name": name,
        "coils": coils,
        "speed": target.speed if like else "",
        "stage": target.stage if like else "run",
        "rotation": rotation,
        "made_for_v": made_for if like else None,
    }
    if faults:
        return Outcome(verdict="wrong", findings=tuple(faults), **told)  # type: ignore[arg-type]
    return Outcome(verdict="right", findings=tuple(_right(coils, name, target, rotation)), **told)  # type: ignore[arg-type]


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
                    _finding(
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
    found = [_finding(code, "agrees", **said)]
    if rotation == "reverse":
        found.append(_finding("reverse", "note"))
    return found
