"""How the leads are joined for a supply, and what any other joining would do.

A connection is right when every coil gets its rated volts, in its phase, and
carries its share of the current. Candidates are built from the coils (halves
in series or in parallel, phases in wye or in delta), kept only if the points
inside the motor allow them, and then proven on the circuit solver.

Units: volts [V], angles [deg].
Source: series and parallel halves, wye and delta (NEMA MG 1 part 2; textbook
machine windings).
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from decimal import Decimal
from itertools import pairwise
from math import sqrt
from typing import Literal

from evencoil.circuit import Device, Netlist, Wire
from evencoil.errors import MissingError, OutOfRangeError, RefusedError
from evencoil.evidence import Finding
from evencoil.nameplate import Nameplate
from evencoil.quantities import plain
from evencoil.solver.stator import MAGNETISING, CoilReading, solve_stator
from evencoil.supply import Supply, Verdict
from evencoil.winding import KINDS, LINES, Coil, Winding
from evencoil.words import Message

__all__ = [
    "CoilState",
    "Connection",
    "Joint",
    "Outcome",
    "candidates",
    "check_joints",
    "counts_of",
    "derive",
    "installation",
    "kind_from_plate",
    "quick_tell",
    "rated_coil_volts",
    "tried",
]

LOW, HIGH = 0.9, 1.1
_ANGLE_DEG = 8.0
_IDLE = 0.05
Fault = Literal["right", "wrong", "open"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Joint:
    """A joint in the terminal box: leads, and the line conductor on it if any.

    ``id`` lasts: a role where the joint was derived, a UUID where a person
    made it. A second line in the same joint, which is a short circuit, stands
    among the leads.
    """

    id: str
    leads: tuple[str, ...]
    line: str | None = None

    @property
    def lines(self) -> tuple[str, ...]:
        """Return every line in the joint: one, or a short circuit."""
        more = tuple(lead for lead in self.leads if lead in LINES)
        return ((self.line,) if self.line else ()) + more

    @property
    def conductors(self) -> int:
        """Return how many conductors meet, the line's own included."""
        return len(self.leads) + (self.line is not None)


@dataclass(frozen=True, slots=True, kw_only=True)
class Connection:
    """A joining of all leads, by name."""

    name: str
    joints: tuple[Joint, ...]

    @property
    def partition(self) -> frozenset[tuple[str | None, frozenset[str]]]:
        """Return the joints without their ids, for comparing."""
        return frozenset((joint.line, frozenset(joint.leads)) for joint in self.joints)


@dataclass(frozen=True, slots=True, kw_only=True)
class CoilState:
    """What one coil sees in volts and degrees, against what it is made for."""

    name: str
    start: str
    end: str
    volts_v: float
    rated_v: float
    angle_deg: float
    is_idle: bool
    is_turned: bool

    @property
    def ratio(self) -> float:
        """Return volts as a part of rated volts."""
        return self.volts_v / self.rated_v


@dataclass(frozen=True, slots=True, kw_only=True)
class Outcome:
    """What a joining does on this supply."""

    verdict: Fault
    name: str
    coils: tuple[CoilState, ...]
    findings: tuple[Finding, ...]


def kind_from_plate(plate: Nameplate, chosen: str | None) -> Winding:
    """Return the winding kind that a person chose or the plate decides.

    Parameters
    ----------
    plate : Nameplate
        Lead count and connection signs.
    chosen : str or None
        A kind that was settled by reading ohms.

    Returns
    -------
    Winding
        The coils.

    Raises
    ------
    CoreError
        If the lead count is missing, is not known here, contradicts the
        choice, or leaves wye and delta open.
    """
    if plate.leads is None and chosen is None:
        raise MissingError(
            Message("leads.no_count"), field="leads", hint=Message("leads.no_count.hint")
        )
    leads = plate.leads or int((chosen or "0").split("-")[0])
    kinds = [winding for winding in KINDS.values() if len(winding.leads) == leads]
    if not kinds:
        raise OutOfRangeError(
            Message("leads.count", {"count": str(leads)}),
            field="leads",
            hint=Message("leads.count.hint"),
        )
    if chosen is not None:
        for winding in kinds:
            if winding.kind == chosen:
                return winding
        raise RefusedError(
            Message("leads.kind_contradicts", {"kind": chosen, "count": str(leads)}),
            field="leads.winding",
            hint=Message("leads.kind_contradicts.hint"),
        )
    signs = set("".join((*plate.connection_signs, *(band.sign for band in plate.volts_v))))
    if signs in ({"Y"}, {"D"}):
        return next(winding for winding in kinds if winding.is_wye == (signs == {"Y"}))
    if leads == 3:
        # the joints are the same for both; `Box.note` says that wye is shown
        return KINDS["3-wye"]
    raise MissingError(
        Message("leads.wye_or_delta", {"count": str(leads)}),
        field="leads.winding",
        hint=Message("leads.wye_or_delta.hint"),
    )


def rated_coil_volts(winding: Winding, plate: Nameplate) -> float:
    """Return the volts one coil is made for [V].

    Parameters
    ----------
    winding : Winding
        The coils.
    plate : Nameplate
        With one voltage, or with the pair of a winding of two halves.

    Raises
    ------
    CoreError
        If the plate's volts do not fit the winding.
    """
    volts = sorted((band.high for band in plate.volts_v), reverse=True)
    if not volts:
        raise MissingError(
            Message("plate.no_volts"), field="volts_v", hint=Message("plate.no_volts.hint")
        )
    if winding.halves == 1:
        if len(volts) > 1:
            raise RefusedError(
                Message("leads.too_few", {"count": str(len(winding.leads))}),
                field="leads",
                hint=Message("leads.too_few.hint"),
            )
        phase = float(volts[0])
    else:
        if len(volts) == 1:
            raise MissingError(
                Message("leads.one_voltage", {"volts": plain(volts[0])}),
                field="volts_v",
                hint=Message("leads.one_voltage.hint"),
            )
        if not Decimal("1.9") <= volts[0] / volts[-1] <= Decimal("2.1"):
            raise RefusedError(
                Message("leads.ratio", {"high": plain(volts[0]), "low": plain(volts[-1])}),
                field="volts_v",
                hint=Message("leads.ratio.hint"),
            )
        phase = float(volts[0])
    return phase / (sqrt(3) if winding.is_wye else 1) / winding.halves


def _classes(winding: Winding, *, is_series: bool, is_wye: bool) -> dict[str, set[str]] | None:
    """Return which points a topology puts together, or None if the inside forbids it."""
    found: dict[str, set[str]] = {}

    def put(name: str, *points: str) -> None:
        found.setdefault(name, set()).update(points)

    phases = {letter: [coil for coil in winding.coils if coil.phase == letter] for letter in "ABC"}
    follows = {"A": "B", "B": "C", "C": "A"}
    line_of = {"A": "L1", "B": "L2", "C": "L3"}
    for letter, coils in phases.items():
        heads: list[Coil] = [coils[0]] if is_series else coils
        tails: list[Coil] = [coils[-1]] if is_series else coils
        put(line_of[letter], *(coil.start for coil in heads))
        if is_series:
            for one, other in pairwise(coils):
                put(f"series_{letter.lower()}", one.end, other.start)
        for place, coil in enumerate(tails):
            put(f"star_{place + 1}" if is_wye else line_of[follows[letter]], coil.end)
    seen: dict[str, str] = {}
    for name, points in found.items():
        for point in points:
            if seen.setdefault(point, name) != name:
                return None
    return found


def _connection(winding: Winding, name: str, classes: Mapping[str, set[str]]) -> Connection:
    joints = []
    for role, points in classes.items():
        leads = tuple(lead for lead in winding.leads if lead in points)
        line = role if role in LINES else None
        if line is not None or len(leads) > 1:
            number = f"line_{role[1]}" if line else role
            joints.append(Joint(id=f"joint.{number}", leads=leads, line=line))
    return Connection(name=name, joints=tuple(joints))


def candidates(winding: Winding) -> tuple[Connection, ...]:
    """Return every joining that halves and phases allow, the usual first."""
    found = []
    for is_series in (True, False) if winding.halves > 1 else (True,):
        for is_wye in (winding.is_wye, not winding.is_wye):
            classes = _classes(winding, is_series=is_series, is_wye=is_wye)
            if classes is None:
                continue
            if any(line not in classes for line in LINES):
                continue
            shape = "wye" if is_wye else "delta"
            name = shape
            if winding.halves > 1:
                name = f"series_{shape}" if is_series else f"parallel_{shape}"
            found.append(_connection(winding, name, classes))
    return tuple(found)


def check_joints(winding: Winding, joints: Sequence[Joint]) -> None:
    """Refuse joints that cannot be: unknown leads, a lead or a line in two joints.

    Parameters
    ----------
    winding : Winding
        Whose leads they are.
    joints : sequence of Joint
        As found or as tapped together.

    Raises
    ------
    RefusedError
        Naming the lead or the line.
    """
    seen: set[str] = set()
    for joint in joints:
        for name in (*joint.leads, *((joint.line,) if joint.line else ())):
            if name not in winding.leads and name not in LINES:
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


def installation(winding: Winding, joints: Sequence[Joint]) -> Netlist:
    """Return supply, joints and motor as one netlist.

    Parameters
    ----------
    winding : Winding
        The motor's leads.
    joints : sequence of Joint
        Each becomes a device; its wires are the leads and the line.

    Returns
    -------
    Netlist
        Ids: ``supply``, ``motor``, the joints' own, and wires by what they are.
    """
    devices = [Device("supply", "supply", LINES), Device("motor", "motor", winding.leads)]
    wires = []
    for joint in joints:
        ends = (*((joint.line,) if joint.line else ()), *joint.leads)
        devices.append(Device(joint.id, "joint", ends))
        for end in ends:
            owner = "supply" if end in LINES else "motor"
            wires.append(Wire(f"{owner}.{end}.wire", f"{owner}.{end}", f"{joint.id}.{end}"))
    return Netlist(tuple(devices), tuple(wires))


def _read(
    winding: Winding, joints: Sequence[Joint], line_volts_v: float, rated_v: float
) -> tuple[CoilReading, ...]:
    nets = installation(winding, joints).nets()
    inner = sorted(
        {point for coil in winding.coils for point in (coil.start, coil.end)} - set(winding.leads)
    )
    count = max(nets.values()) + 1
    node_of = {lead: nets[f"motor.{lead}"] for lead in winding.leads}
    node_of |= {point: count + place for place, point in enumerate(inner)}
    lines = {line: nets[f"supply.{line}"] for joint in joints for line in joint.lines}
    return solve_stator(
        winding,
        node_of,
        lines,
        line_volts_v=line_volts_v,
        phase_ohm=rated_v * winding.halves,
    )


def _angle(one: float, other: float) -> float:
    return abs((one - other + 180) % 360 - 180)


def _states(
    winding: Winding, readings: Sequence[CoilReading], rated_v: float
) -> tuple[CoilState, ...]:
    """Compare each coil with its rating, its phase and its share of the current.

    The phase impedance is counted in rated volts, so the rated magnetising
    current is 1 / `MAGNETISING` whatever the motor.
    """
    fed = [
        (reading.angle_deg + coil.axis_deg, reading.volts_v)
        for coil, reading in zip(winding.coils, readings, strict=True)
        if reading.volts_v > _IDLE * rated_v
    ]
    right = 0.0
    if fed:
        # the angle that most of the volts agree on
        right = max(
            fed,
            key=lambda item: sum(
                volts for angle, volts in fed if _angle(angle, item[0]) < _ANGLE_DEG
            ),
        )[0]
    return tuple(
        CoilState(
            name=coil.name,
            start=coil.start,
            end=coil.end,
            volts_v=reading.volts_v,
            rated_v=rated_v,
            angle_deg=reading.angle_deg,
            is_idle=reading.amps_a <= _IDLE / MAGNETISING or reading.volts_v <= _IDLE * rated_v,
            is_turned=reading.volts_v > _IDLE * rated_v
            and _angle(reading.angle_deg + coil.axis_deg, right) >= _ANGLE_DEG,
        )
        for coil, reading in zip(winding.coils, readings, strict=True)
    )


def _finding(code: str, level: str, **params: str) -> Finding:
    return Finding(
        code=code,
        level=level,  # type: ignore[arg-type]  # always one of the four words
        field="leads.joints",
        message=Message(f"tried.{code}", params),
        hint=Message(f"tried.{code}.hint") if level == "doubt" else None,
    )


def _names(coils: Sequence[CoilState]) -> str:
    return ", ".join(f"{coil.start}-{coil.end}" for coil in coils)


def _faults(joints: Sequence[Joint], coils: Sequence[CoilState]) -> list[Finding]:
    """Name what is wrong, worst first."""
    found = []
    lines = [line for joint in joints for line in joint.lines]
    missing = [line for line in LINES if line not in lines]
    over = [coil for coil in coils if coil.ratio > HIGH]
    idle = [coil for coil in coils if coil.is_idle]
    turned = [coil for coil in coils if coil.is_turned and not coil.is_idle]
    low = [coil for coil in coils if coil.ratio < LOW and not coil.is_idle]
    found += [
        _finding("short", "doubt", lines=" and ".join(joint.lines))
        for joint in joints
        if len(joint.lines) > 1
    ]
    if missing:
        found.append(_finding("no_line", "doubt", lines=", ".join(missing)))
    if over:
        worst = max(over, key=lambda coil: coil.ratio)
        found.append(
            _finding(
                "over",
                "doubt",
                coils=_names(over),
                volts=f"{worst.volts_v:.0f}",
                rated=f"{worst.rated_v:.0f}",
                percent=f"{worst.ratio * 100:.0f}",
            )
        )
    if turned:
        found.append(_finding("turned", "doubt", coils=_names(turned)))
    if idle:
        found.append(_finding("idle", "doubt", coils=_names(idle)))
    if low and not missing:
        worst = min(low, key=lambda coil: coil.ratio)
        found.append(
            _finding(
                "low",
                "doubt",
                coils=_names(low),
                volts=f"{worst.volts_v:.0f}",
                rated=f"{worst.rated_v:.0f}",
                torque=f"{worst.ratio**2 * 100:.0f}",
            )
        )
    return found


def tried(winding: Winding, joints: Sequence[Joint], *, supply: Supply, rated_v: float) -> Outcome:
    """Return what a joining does on a supply, right or wrong.

    Parameters
    ----------
    winding : Winding
        The coils.
    joints : sequence of Joint
        As found, as tapped together, or derived.
    supply : Supply
        Three-phase.
    rated_v : float
        Volts one coil is made for. [V]

    Returns
    -------
    Outcome
        Volts of every coil, and what is wrong in words.

    Raises
    ------
    RefusedError
        If a lead or a line stands in two joints, or is unknown.
    """
    check_joints(winding, joints)
    readings = _read(winding, joints, float(supply.line_volts_v), rated_v)
    coils = _states(winding, readings, rated_v)
    if not any(joint.lines for joint in joints):
        return Outcome(verdict="open", name="", coils=coils, findings=())
    faults = _faults(joints, coils)
    name = _name_of(winding, joints)
    if faults:
        return Outcome(verdict="wrong", name=name, coils=coils, findings=tuple(faults))
    right = _finding(
        "right",
        "agrees",
        name=str(Message(f"connection.{name or 'other'}")),
        volts=f"{coils[0].volts_v:.0f}",
    )
    return Outcome(verdict="right", name=name, coils=coils, findings=(right,))


def _name_of(winding: Winding, joints: Sequence[Joint]) -> str:
    """Return the name of a joining up to the order of the lines, or nothing."""
    groups = frozenset(frozenset(joint.leads) for joint in joints if len(joint.leads) > 1)
    fed = frozenset(frozenset(joint.leads) for joint in joints if joint.line)
    for known in candidates(winding):
        known_groups = frozenset(
            frozenset(joint.leads) for joint in known.joints if len(joint.leads) > 1
        )
        known_fed = frozenset(frozenset(joint.leads) for joint in known.joints if joint.line)
        if groups == known_groups and fed == known_fed:
            return known.name
    return ""


def derive(
    winding: Winding,
    *,
    plate: Nameplate,
    supply: Supply,
    verdict: Verdict,
    start_method: Literal["full_voltage", "wye_delta"] = "full_voltage",
) -> Connection:
    """Return the joining that gives every coil its rated volts on this supply.

    Parameters
    ----------
    winding : Winding
        The coils.
    plate : Nameplate
        Its volts say what a coil is made for.
    supply : Supply
        Three-phase.
    verdict : Verdict
        The plate column this supply uses.
    start_method : str
        ``wye_delta`` needs all six phase ends.

    Returns
    -------
    Connection
        Proven on the solver.

    Raises
    ------
    CoreError
        If no joining does: wrong volts, too few leads, ends that are tied
        inside.
    """
    if start_method == "wye_delta":
        raise RefusedError(
            Message(f"leads.no_wye_delta.{winding.kind}"),
            field="leads.start_method",
            hint=Message("leads.no_wye_delta.hint"),
        )
    if supply.phases != 3:
        raise RefusedError(
            Message("verdict.one_phase"),
            field="supply.text",
            hint=Message("verdict.one_phase.hint"),
        )
    rated = rated_coil_volts(winding, plate)
    del verdict  # it was judged: the supply is within 10 % of a plate voltage
    for known in candidates(winding):
        if tried(winding, known.joints, supply=supply, rated_v=rated).verdict == "right":
            return known
    raise RefusedError(
        Message("leads.none", {"volts": plain(supply.line_volts_v)}),
        field="supply.text",
        hint=Message("leads.none.hint"),
    )


def counts_of(joints: Sequence[Joint]) -> tuple[tuple[int, ...], tuple[int, ...]]:
    """Return leads per line joint and per other joint, each sorted."""
    fed = tuple(sorted(len(joint.leads) for joint in joints if joint.line))
    other = tuple(sorted(len(joint.leads) for joint in joints if not joint.line))
    return fed, other


def quick_tell(winding: Winding, connection: Connection) -> Message:
    """Return how counting conductors in the box tells a connection, or cannot.

    Parameters
    ----------
    winding : Winding
        The coils.
    connection : Connection
        The joining to be told.

    Returns
    -------
    Message
        Leads and lines counted apart; which others count the same.
    """
    fed, other = counts_of(connection.joints)
    alike = [
        f"{kind.kind} {known.name}"
        for kind in KINDS.values()
        if len(kind.leads) == len(winding.leads)
        for known in candidates(kind)
        if counts_of(known.joints) == (fed, other)
        and (kind.kind, known.name) != (winding.kind, connection.name)
    ]
    params = {
        "fed": str(fed[0]) if fed else "0",
        "groups": str(len(other)),
        "of": str(other[0]) if other else "0",
        "alike": ", ".join(str(Message(f"tell.{name.replace(' ', '.')}")) for name in alike),
    }
    code = "tell.joints" if other else "tell.lines"
    return Message(f"{code}.alike" if alike else code, params)
