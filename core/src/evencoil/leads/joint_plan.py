"""How each joint is made, whether it fits, and its parts list: practice, not code."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from decimal import Decimal
from functools import partial
from math import pi, sqrt
from typing import Literal

from evencoil.base import (
    ConductorSize,
    CoreError,
    Finding,
    Message,
    MissingError,
    OutOfRangeError,
    Step,
    Trail,
    finding,
    finding_of,
    plain,
    show,
)
from evencoil.codebook import Profile, table
from evencoil.leads.housing_volume import housing_volume
from evencoil.leads.inputs import (
    ColorInput,
    GroundLanding,
    JointMethod,
    JointsInputs,
    JointWorkInput,
)
from evencoil.plate import Supply
from evencoil.winding import Joint

__all__ = ["Fit", "JointPlan", "JointsWorked", "plan_joints"]

Fit = Literal["fits", "tight", "no", "unknown"]


_TAPE_IN = {"rubber": 0.03, "vinyl": 0.007}


_TIGHT, _FULL = 0.60, 0.85


#: outer diameter over the bundle, and length in bundle diameters plus inches
_BODY: Mapping[JointMethod, tuple[float, float, float]] = {
    "ring_bolt": (1.35, 2.5, 0.9),
    "split_bolt": (1.8, 2.0, 0.6),
    "set_screw_tap": (2.1, 1.5, 0.9),
    "crimp": (1.2, 2.0, 0.6),
    "twist_on": (1.6, 2.0, 0.5),
}


_TAPED: frozenset[JointMethod] = frozenset({"ring_bolt", "split_bolt", "crimp"})


_SMALL_HP = Decimal(15)


@dataclass(frozen=True, slots=True, kw_only=True)
class JointPlan:
    """How one joint is made.

    Attributes
    ----------
    sizes : tuple of str
        Every conductor in it, the line's first.
    parts : tuple of Message
        In the order they go on.
    bulk_in3 : float
        By estimate, with the free length of each conductor. [in3]
    is_recorded : bool
        Whether torque or tug is recorded.
    """

    id: str
    ends: tuple[str, ...]
    sizes: tuple[str, ...]
    method: JointMethod
    rubber: int
    vinyl: int
    parts: tuple[Message, ...]
    bulk_in3: float
    is_recorded: bool
    findings: tuple[Finding, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class JointsWorked:
    """All joints, the rule's volume, the estimate, and what is to be done.

    ``fill`` is bulk over measured volume; None until someone measured.
    """

    joints: tuple[JointPlan, ...]
    steps: tuple[Step, ...]
    volume_error: CoreError | None
    meets_rule: bool | None
    bulk_in3: float
    fill: float | None
    fit: Fit
    findings: tuple[Finding, ...]
    ways_out: tuple[Message, ...]
    parts: tuple[Message, ...]


_finding = partial(finding, "housing", "joints")


def _area_in2(size: str) -> float:
    """Return the area of a conductor with THHN insulation [in2]; larger sizes by metal."""
    book = table("ch9_t5")
    for insulation, known, area in zip(
        book.column("insulation"), book.column("size"), book.column("area_in2"), strict=True
    ):
        if known == size and insulation.startswith("THHN"):
            return float(area)
    raise OutOfRangeError(
        Message("housing.size", {"size": size[:12]}),
        field="joints.lead_size",
        hint=Message("housing.size.hint"),
    )


def _free_in3(size: str) -> float:
    """Return what one conductor takes up folded in a box, by the box-fill table [in3].

    Beyond that table it grows with the conductor's area.
    """
    book = table("314_16_b")
    known = dict(zip(book.column("size"), book.column("volume_in3_per_conductor"), strict=True))
    if size in known:
        return float(known[size])
    return float(known["6"]) * _area_in2(size) / _area_in2("6")


def _bulk(sizes: Sequence[str], method: JointMethod, rubber: int, vinyl: int) -> float:
    """Estimate what a joint and the free ends in it take up [in3]."""
    areas = [_area_in2(size) for size in sizes]
    bundle = sqrt(sum(areas) * 4 / pi) * 1.15
    wide, long, more = _BODY[method]
    tape = 0.0
    if method in _TAPED:
        # half-lapped, each layer lies double
        tape = 2 * (rubber * _TAPE_IN["rubber"] + vinyl * _TAPE_IN["vinyl"])
    across = bundle * wide + 2 * tape
    body = pi / 4 * across**2 * (bundle * long + more)
    return body + sum(_free_in3(size) for size in sizes)


def _parts(method: JointMethod, count: int, rubber: int, vinyl: int) -> tuple[Message, ...]:
    names = {
        "ring_bolt": ("clean", "rings", "stack", "nut"),
        "split_bolt": ("clean", "split_bolt", "seat"),
        "set_screw_tap": ("strip", "tap", "screws"),
        "crimp": ("strip", "crimp", "tool"),
        "twist_on": ("strip", "twist", "tug"),
    }[method]
    found = [Message(f"housing.part.{name}", {"count": str(count)}) for name in names]
    if method in _TAPED:
        found.append(Message("housing.part.rubber", {"layers": str(rubber)}))
        found.append(Message("housing.part.vinyl", {"layers": str(vinyl)}))
    return tuple(found)


def _twist(sizes: Sequence[str], profile: Profile, inputs: JointsInputs) -> list[Finding]:
    """Judge a twist-on by the plant's rule and the connector's own table, never by amps."""
    found = []
    largest = max((ConductorSize(size) for size in sizes), default=None)
    if profile.twist_on == "never" or (profile.twist_on == "building" and inputs.is_machine):
        found.append(_finding(f"twist_{profile.twist_on}", "doubt"))
    elif largest is not None and ConductorSize(profile.twist_on_largest) < largest:
        found.append(
            _finding(
                "twist_large",
                "doubt",
                size=str(largest),
                most=str(ConductorSize(profile.twist_on_largest)),
            )
        )
    if not inputs.twist_rows:
        found.append(_finding("twist_table", "doubt"))
        return found
    for size in dict.fromkeys(sizes):
        count = list(sizes).count(size)
        fits = any(row.size == size and row.least <= count <= row.most for row in inputs.twist_rows)
        if not fits and len(set(sizes)) == 1:
            found.append(_finding("twist_count", "doubt", size=size, count=str(count)))
    if len(set(sizes)) > 1:
        found.append(_finding("twist_mixed", "doubt", sizes=", ".join(sizes)))
    return found


def _plan(
    joint: Joint, inputs: JointsInputs, sizes: tuple[str, str], profile: Profile
) -> JointPlan:
    line_size, lead_size = sizes
    work = next((item for item in inputs.work if item.joint == joint.id), None)
    given = work or JointWorkInput(joint=joint.id)
    method = given.method or inputs.method
    own = len(joint.lines) + bool(joint.to_starter)
    inside = tuple([line_size] * own + [lead_size] * (joint.conductors - own))
    findings: list[Finding] = []
    if method == "twist_on":
        findings += _twist(inside, profile, inputs)
    needs_torque = method in {"ring_bolt", "split_bolt", "set_screw_tap"}
    recorded = given.torque_in_lb is not None if needs_torque else given.tug_held is not None
    if given.tug_held is False:
        findings.append(_finding("tug_failed", "doubt"))
    if method in _TAPED and (given.rubber < 1 or given.vinyl < 1):
        findings.append(_finding("tape", "doubt"))
    return JointPlan(
        id=joint.id,
        ends=(
            *joint.lines,
            *(
                (str(Message("housing.conductor", {"lead": joint.to_starter})),)
                if joint.to_starter
                else ()
            ),
            *(lead for lead in joint.leads if lead not in joint.lines),
        ),
        sizes=inside,
        method=method,
        rubber=given.rubber if method in _TAPED else 0,
        vinyl=given.vinyl if method in _TAPED else 0,
        parts=_parts(method, joint.conductors, given.rubber, given.vinyl),
        bulk_in3=_bulk(inside, method, given.rubber, given.vinyl),
        is_recorded=recorded and given.tug_held is not False,
        findings=tuple(findings),
    )


def _colors(given: Sequence[ColorInput], supply: Supply | None) -> list[Finding]:
    """Check the colors found where the incoming conductors land."""
    found = []
    for item in given:
        color = item.color.strip().lower()
        shown = (item.remarked or item.color).strip().lower()
        if not color:
            continue
        is_green = color.startswith("green")
        if is_green and item.line != "G":
            found.append(_finding("green", "doubt", line=item.line, color=item.color))
        elif not is_green and item.line == "G" and color != "bare":
            found.append(_finding("ground", "doubt", color=item.color))
        elif item.line not in {"N", "G"} and shown in {"white", "grey", "gray"}:
            found.append(_finding("white", "doubt", line=item.line, color=item.color))
        elif item.line == "N" and shown not in {"white", "grey", "gray"}:
            found.append(_finding("neutral", "doubt", color=item.color))
    if supply is None:
        return found
    seen = {item.line: (item.remarked or item.color).strip().lower() for item in given}
    if supply.system == "high_leg" and seen and "orange" not in seen.values():
        found.append(_finding("orange", "doubt"))
    return found


def _raceway(inputs: JointsInputs) -> list[Message]:
    """List what the way in needs: fitting, bushing, grounding of flexible conduit."""
    if not inputs.raceway.strip():
        return []
    book = table("knockouts")
    holes = dict(zip(book.column("trade_size"), book.column("hole_in"), strict=True))
    for said in (inputs.raceway, inputs.knockout or inputs.raceway):
        if said not in holes:
            raise OutOfRangeError(
                Message("housing.trade", {"size": said[:12]}),
                field="joints.raceway",
                hint=Message("housing.trade.hint", {"sizes": ", ".join(holes)}),
            )
    found = [Message("housing.fitting", {"size": inputs.raceway, "hole": holes[inputs.raceway]})]
    order = list(holes)
    if inputs.knockout:
        difference = order.index(inputs.knockout) - order.index(inputs.raceway)
        if difference > 0:
            found.append(
                Message("housing.reducing", {"from": inputs.knockout, "to": inputs.raceway})
            )
        elif difference < 0:
            found.append(
                Message("housing.enlarge", {"from": inputs.knockout, "to": inputs.raceway})
            )
    found.append(Message("housing.flexible" if inputs.is_flexible else "housing.locknut"))
    return found


def plan_joints(
    joints: Sequence[Joint],
    inputs: JointsInputs,
    steps: Mapping[str, Step],
    profile: Profile,
    supply: Supply | None,
) -> JointsWorked:
    """Return how the joints of a box are made and whether they fit.

    Parameters
    ----------
    joints : sequence of Joint
        As joined, or as derived.
    inputs : JointsInputs
        Methods, records, and the housing as measured.
    steps : mapping
        Steps of the Size sheet by id, for conductor, power and current.
    profile : Profile
        Edition, and the plant's rule on twist-on connectors.
    supply : Supply or None
        For the colors.

    Returns
    -------
    JointsWorked
        Each joint with its parts in order; rule and estimate apart.

    Raises
    ------
    MissingError
        If no conductor size is known.
    OutOfRangeError
        If a size is in no table.
    """
    is_switched = any(joint.to_starter for joint in joints)
    line_size = (
        inputs.line_size.strip()
        or (_step_text(steps, "leg_conductor_size") if is_switched else "")
        or _step_text(steps, "conductor_size")
    )
    if not line_size:
        raise MissingError(
            Message("housing.no_size"),
            field="joints.line_size",
            hint=Message("housing.no_size.hint"),
        )
    sizes = (line_size, inputs.lead_size.strip() or line_size)
    plans = tuple(_plan(joint, inputs, sizes, profile) for joint in joints)
    bulk = sum(plan.bulk_in3 for plan in plans)
    trail = Trail()
    volume, error = _needed(inputs, steps, profile, trail)
    have = inputs.usable_volume_in3
    if have is not None and not 0 < have <= 100000:
        raise OutOfRangeError(
            Message("housing.measured", {"volume": plain(have)}),
            field="joints.usable_volume_in3",
            hint=Message("housing.measured.hint"),
        )
    fill = None if have is None else bulk / float(have)
    meets = None if have is None or volume is None else have >= volume
    fit: Fit = "unknown"
    if fill is not None:
        fit = "no" if fill > _FULL or meets is False else "tight" if fill > _TIGHT else "fits"
    findings = _colors(inputs.colors, supply)
    if meets is False and have is not None and volume is not None:
        findings.insert(
            0, _finding("too_small", "doubt", have=plain(have), needs=show(volume, "minimum"))
        )
    if fill is not None and fill > _FULL:
        findings.append(_finding("bulky", "doubt", percent=f"{fill * 100:.0f}"))
    if inputs.lead_size.strip() == "":
        findings.append(_finding("lead_assumed", "note", size=line_size))
    findings.append(_ground(inputs.ground_landing, _step_shown(steps)))
    parts: list[Message] = []
    try:
        parts = _raceway(inputs)
    except CoreError as wrong:
        findings.append(finding_of(wrong, "trade"))
    ways = (
        ("larger", "method", "move", "rings")
        if fit == "no"
        else ("method",)
        if fit == "tight"
        else ()
    )
    return JointsWorked(
        joints=plans,
        steps=tuple(trail),
        volume_error=error,
        meets_rule=meets,
        bulk_in3=bulk,
        fill=fill,
        fit=fit,
        findings=tuple(findings),
        ways_out=tuple(Message(f"housing.way.{name}") for name in ways),
        parts=tuple(parts),
    )


def _ground(landing: GroundLanding, size: str) -> Finding:
    """Return what is to be said of the equipment grounding conductor's landing."""
    if landing == "none":
        return _finding("ground_none", "doubt", size=size)
    if landing == "":
        return _finding("ground_open", "note", size=size)
    return _finding(f"ground_{landing}", "agrees", size=size)


def _step_shown(steps: Mapping[str, Step]) -> str:
    """Return the equipment grounding conductor of the Size step, as said."""
    step = steps.get("run_grounding_size") or steps.get("grounding_conductor_size")
    return "size not known yet" if step is None else step.shown


def _step_text(steps: Mapping[str, Step], name: str) -> str:
    step = steps.get(name)
    return "" if step is None else step.text


def _needed(
    inputs: JointsInputs, steps: Mapping[str, Step], profile: Profile, trail: Trail
) -> tuple[Decimal | None, CoreError | None]:
    power, current = steps.get("power_hp"), steps.get("table_flc_a")
    try:
        if power is None or current is None:
            raise MissingError(
                Message("housing.no_power"), field="power_hp", hint=Message("housing.no_power.hint")
            )
        for step in (power, current):
            # they were calculated on the Size sheet; here they are what this rule reads
            trail.add(
                Step(
                    id=step.id,
                    value=step.value,
                    unit=step.unit,
                    kind="read",
                    shown=step.shown,
                    working=step.working,
                    marks=step.marks,
                )
            )
        hp, amps = power.number, current.number
        over = inputs.is_over_11_in if inputs.is_over_11_in is not None else hp > _SMALL_HP
        needed = housing_volume(
            power_hp=hp, flc_a=amps, is_over_11_in=over, edition=profile.edition, trail=trail
        )
    except CoreError as error:
        return None, error
    return needed.number, None
