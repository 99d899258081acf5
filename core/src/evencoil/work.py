"""One job worked out: plate read, supply judged, sizes with their evidence.

Each figure is either a step or a refusal that says what to do; a refusal of
one figure never takes another one with it, except those that stand on it.
"""

from __future__ import annotations

import contextlib
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from decimal import Decimal
from functools import lru_cache
from typing import Literal, get_args

from evencoil.box import Box, work_out_box
from evencoil.connection import StartMethod
from evencoil.editions import edition_of
from evencoil.errors import CoreError, MissingError, RefusedError
from evencoil.evidence import Finding, Mark, Rule, Step, Trail
from evencoil.housing import JointsWorked, plan_joints
from evencoil.inputs import (
    JointInput,
    JointsInputs,
    LeadsInputs,
    PlateInputs,
    SizeInputs,
    SupplyInputs,
    TrustInputs,
)
from evencoil.joints import Joint
from evencoil.nameplate import Band, PlateReading, read
from evencoil.profile import Profile
from evencoil.quantities import plain, show
from evencoil.sizing.conductor import ConductorFacts, conductor, required_ampacity
from evencoil.sizing.disconnect import disconnect
from evencoil.sizing.drop import DropFacts, grown_grounding, voltage_drop
from evencoil.sizing.full_load import MotorFacts, horsepower_from_kw, table_full_load_current
from evencoil.sizing.grounding import grounding_conductor
from evencoil.sizing.hermetic import (
    hermetic_conductor_ampacity,
    hermetic_current,
    hermetic_device,
    hermetic_disconnect,
    hermetic_overload,
)
from evencoil.sizing.legs import LegStart, leg_conductor, leg_overload
from evencoil.sizing.locked_rotor import locked_rotor_code, locked_rotor_table
from evencoil.sizing.overload import overload_setting
from evencoil.sizing.protection import FUSES, DeviceKind, protection_device
from evencoil.supply import Supply, Verdict, judge, read_supply
from evencoil.supply_checks import check_supply
from evencoil.trust import Estimate, TrustFacts, estimate_voltage
from evencoil.words import Message, say

__all__ = ["Figure", "Refusal", "StepState", "Worked", "branch_circuit", "work_out"]

_GRAVE = {"short", "over", "foreign"}
State = Literal["open", "working", "held", "proven"]
_DEFAULTS: dict[str, tuple[str, str, str]] = {
    "conductor_material": ("cu", "", "assumed.conductor_material"),
    "insulation": ("THWN", "", "assumed.insulation"),
    "ambient_c": ("30", "°C", "assumed.ambient_c"),
    "current_carrying": ("3", "", "assumed.current_carrying"),
    "protection_kind": ("dual_element_fuse", "", "assumed.protection_kind"),
}
_SHOWN = {
    "cu": "copper",
    "al": "aluminium",
    **{kind: say(Message(f"kind.{kind}")) for kind in get_args(DeviceKind)},
}


@dataclass(frozen=True, slots=True, kw_only=True)
class Refusal:
    """Why a figure is withheld: the one shape of every problem."""

    code: str
    detail: str
    field: str
    hint: str

    @classmethod
    def of(cls, error: CoreError) -> Refusal:
        """Return the refusal that an error tells."""
        return cls(**error.problem())


@dataclass(frozen=True, slots=True, kw_only=True)
class Figure:
    """One line of the Size sheet: the step that answers it, or the refusal."""

    id: str
    step: str | None
    refusal: Refusal | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class StepState:
    """Where a step of the job stands, and the sentence that says it."""

    step: Literal["plate", "leads", "joints", "size", "starter", "drawings", "rehearse"]
    state: State
    shout: Message


@dataclass(frozen=True, slots=True, kw_only=True)
class Worked:
    """A whole job, worked out.

    Attributes
    ----------
    reading : PlateReading
        The plate, piece by piece.
    supply : Supply or None
        None if it was not given or could not be read.
    verdict : Verdict or None
        The plate column in use.
    supply_refusal : Refusal or None
        Why there is no supply, or why the motor must not be connected to it.
    supply_checks : tuple of Finding
        What was measured and said of the supply, held against the plate.
    steps : tuple of Step
        Every value with its evidence, in the order it was worked out.
    figures : tuple of Figure
        The lines of the Size sheet.
    states : tuple of StepState
        One for each step that exists.
    box : Box
        The Leads step: the derived joining, and what the joints given do.
    estimate : Estimate, CoreError or None
        For which volts a doubted winding is made, or why that cannot be told;
        None while the plate is trusted.
    planned : JointsWorked or None
        The Joints step: how each is made, and whether they fit.
    planned_refusal : Refusal or None
        Why they cannot be planned.
    joints : tuple of JointInput
        The box as joined.
    """

    reading: PlateReading
    supply: Supply | None
    verdict: Verdict | None
    supply_refusal: Refusal | None
    supply_checks: tuple[Finding, ...]
    steps: tuple[Step, ...]
    figures: tuple[Figure, ...]
    states: tuple[StepState, ...]
    profile: Profile
    box: Box
    estimate: Estimate | CoreError | None
    planned: JointsWorked | None
    planned_refusal: Refusal | None
    joints: tuple[JointInput, ...]


def _read_step(
    trail: Trail, step_id: str, value: Decimal | str, unit: str, shown: str, reading: PlateReading
) -> None:
    """Add an input that stands on the plate, or on a person's guess."""
    plate_field = {"plate_volts": "volts_v", "plate_amps_a": "amps_a"}.get(step_id, step_id)
    guess = next((item for item in reading.assumed if item.field == plate_field), None)
    trail.add(_input_step(step_id, value, unit, shown, None if guess is None else guess.reason))


@lru_cache(maxsize=4096)
def _input_step(
    step_id: str, value: Decimal | str, unit: str, shown: str, guessed: str | None
) -> Step:
    """Return the step of an input; it stands on nothing, so one object serves all trails."""
    marks: tuple[Mark, ...] = ()
    message = Message(f"read.{step_id}", {"value": shown})
    if guessed is not None:
        message = Message("guess.plate", {"value": shown, "reason": guessed or "—"})
        marks = (Mark(kind="assumed", origin=step_id, message=message),)
    return Step(
        id=step_id,
        value=value,
        unit=unit,
        kind="read" if guessed is None else "assumed",
        shown=shown,
        working=message,
        marks=marks,
    )


def _size_input(trail: Trail, step_id: str, given: object) -> str:
    """Add an input of the Size step: what a person gave, or what was assumed."""
    text = None if given is None else plain(given) if isinstance(given, Decimal) else str(given)
    step = trail.add(_size_step(step_id, text))
    return str(step.value)


@lru_cache(maxsize=4096)
def _size_step(step_id: str, given: str | None) -> Step:
    default, unit, why = _DEFAULTS[step_id]
    value = default if given is None else given
    shown = _SHOWN.get(value, value)
    assumed = Message(why, {"value": shown})
    return Step(
        id=step_id,
        value=value,
        unit=unit,
        kind="assumed" if given is None else "read",
        shown=shown,
        working=assumed if given is None else Message(f"given.{step_id}", {"value": shown}),
        marks=(Mark(kind="assumed", origin=step_id, message=assumed),) if given is None else (),
    )


def _supply(
    text: str, reading: PlateReading
) -> tuple[Supply | None, Verdict | None, CoreError | None]:
    """Read and judge the supply; an error says what is wrong or missing."""
    if not text.strip():
        error = MissingError(
            Message("supply.missing"), field="supply.text", hint=Message("supply.missing.hint")
        )
        return None, None, error
    try:
        supply = read_supply(text)
    except CoreError as wrong:
        return None, None, wrong
    if not reading.plate.volts_v:
        error = MissingError(
            Message("plate.no_volts"), field="volts_v", hint=Message("plate.no_volts.hint")
        )
        return supply, None, error
    try:
        return supply, judge(reading.plate, supply), None
    except CoreError as refused:
        return supply, None, refused


def _power(reading: PlateReading, trail: Trail) -> tuple[Decimal, bool]:
    """Return the power [hp] and whether it was stamped in kW only."""
    plate = reading.plate
    powers = plate.power_hp or tuple(horsepower_from_kw(kw) for kw in plate.power_kw)
    if not powers:
        raise MissingError(
            Message("size.no_power"), field="power_hp", hint=Message("size.no_power.hint")
        )
    if len(powers) > 1:
        raise RefusedError(
            Message("size.two_powers", {"count": str(len(powers))}),
            field="power_hp",
            hint=Message("size.two_powers.hint"),
        )
    from_kw = not plate.power_hp
    if from_kw:
        _read_step(trail, "power_kw", plate.power_kw[0], "kW", plain(plate.power_kw[0]), reading)
        trail.add(
            Step(
                id="power_hp",
                value=powers[0],
                unit="hp",
                kind="worked",
                shown=show(powers[0]),
                working=Message(
                    "power.from_kw", {"kw": plain(plate.power_kw[0]), "hp": show(powers[0])}
                ),
                rule=Rule(standard="SI", edition=2019, section="1 hp = 0.746 kW"),
                uses=("power_kw",),
            )
        )
    else:
        _read_step(trail, "power_hp", powers[0], "hp", plain(powers[0]), reading)
    return powers[0], from_kw


def _plate_amps(reading: PlateReading, verdict: Verdict) -> Decimal | None:
    """Return the plate current at the connection in use [A]."""
    amps = reading.plate.amps_a
    if len(amps) == len(reading.plate.volts_v):
        return amps[verdict.column].high
    return amps[0].high if len(amps) == 1 and len(reading.plate.volts_v) == 1 else None


def _full_load(
    reading: PlateReading,
    supply: Supply,
    verdict: Verdict,
    inputs: SizeInputs,
    profile: Profile,
    trail: Trail,
) -> Step:
    plate = reading.plate
    power, from_kw = _power(reading, trail)
    phases = plate.phases or supply.phases
    if plate.phases is not None:
        _read_step(trail, "phases", Decimal(phases), "", str(phases), reading)
    band = verdict.plate_volts
    said = str(band)
    _read_step(trail, "plate_volts", said, "V", said, reading)
    volts = _used_volts(supply, verdict)
    trail.add(
        Step(
            id="supply_volts_v",
            value=volts,
            unit="V",
            kind="read",
            shown=plain(volts),
            working=Message("read.supply", {"text": supply.text, "value": plain(volts)}),
        )
    )
    amps = _plate_amps(reading, verdict)
    if amps is not None:
        _read_step(trail, "plate_amps_a", amps, "A", plain(amps), reading)
    return table_full_load_current(
        MotorFacts(
            power_hp=power,
            phases=phases,
            supply_volts_v=volts,
            plate_volts_v=(band.low, band.high),
            plate_amps_a=amps,
            speed_rpm=max(plate.speed_rpm, default=None),
            from_kw=from_kw,
            between_rows=inputs.between_rows,
        ),
        edition=profile.edition,
        trail=trail,
    )


def _used_volts(supply: Supply, verdict: Verdict) -> Decimal:
    """Return the volts of the supply that this motor takes [V]."""
    choices = [supply.line_volts_v]
    if supply.ground_volts_v is not None:
        choices.append(supply.ground_volts_v)
    band = verdict.plate_volts
    middle = (band.low + band.high) / 2
    return min(choices, key=lambda volts: (not band.holds(volts), abs(volts - middle)))


def _conductor(reading: PlateReading, inputs: SizeInputs, profile: Profile, trail: Trail) -> Step:
    _size_input(trail, "conductor_material", inputs.conductor_material)
    _size_input(trail, "insulation", inputs.insulation)
    _size_input(trail, "ambient_c", inputs.ambient_c)
    _size_input(trail, "current_carrying", inputs.current_carrying)
    if inputs.termination_c is not None:
        shown = str(inputs.termination_c)
        trail.add(
            Step(
                id="termination_c",
                value=Decimal(inputs.termination_c),
                unit="°C",
                kind="read",
                shown=shown,
                working=Message("given.termination_c", {"value": shown}),
            )
        )
    letter = reading.plate.design_letter
    if letter is not None:
        _read_step(trail, "design_letter", letter, "", letter, reading)
    required_ampacity(edition=profile.edition, trail=trail)
    return conductor(_facts(inputs, trail), edition=profile.edition, trail=trail)


def _facts(inputs: SizeInputs, trail: Trail) -> ConductorFacts:
    """Return what decides a conductor, from the steps that were read or assumed."""
    return ConductorFacts(
        material="al" if trail["conductor_material"].value == "al" else "cu",
        insulation=str(trail["insulation"].value),
        termination_c=inputs.termination_c,
        design_letter=str(trail["design_letter"].value) if "design_letter" in trail else None,
        ambient_c=Decimal(str(trail["ambient_c"].value)),
        current_carrying=int(str(trail["current_carrying"].value)),
        parallel_sets=inputs.parallel_sets,
    )


def _leg(start: LegStart, inputs: SizeInputs, profile: Profile, trail: Trail) -> Step:
    _wait_for(trail, "conductor_size")
    return leg_conductor(start, _facts(inputs, trail), edition=profile.edition, trail=trail)


def _drop(
    reading: PlateReading, supply: Supply, inputs: SizeInputs, profile: Profile, trail: Trail
) -> Step:
    """Work the voltage along the run out, and the larger wire where the limit asks for it."""
    _wait_for(trail, "conductor_size", "supply_volts_v")
    length = inputs.run_length_ft or Decimal(0)
    trail.add(
        Step(
            id="run_length_ft", value=length, unit="ft", kind="read", shown=plain(length),
            working=Message("given.run_length_ft", {"value": plain(length)}),
        )
    )  # fmt: skip
    factor = reading.plate.power_factor_percent
    step = voltage_drop(
        DropFacts(
            length_ft=length,
            limit_percent=inputs.drop_limit_percent or Decimal(3),
            method=inputs.drop_method,
            conduit=inputs.conduit,
            material=str(trail["conductor_material"].value),
            phases=reading.plate.phases or supply.phases,
            volts_v=trail.number("supply_volts_v"),
            power_factor=Decimal("0.85") if factor is None else factor / 100,
            parallel_sets=inputs.parallel_sets,
        ),
        edition=profile.edition,
        trail=trail,
    )
    if "run_conductor_size" in trail and "grounding_conductor_size" in trail:
        grown_grounding(edition=profile.edition, trail=trail)
    return step


def _locked(
    reading: PlateReading, supply: Supply, verdict: Verdict, profile: Profile, trail: Trail
) -> None:
    """Add locked-rotor currents where letter and table give them; nothing waits for them."""
    if "power_hp" not in trail:
        return
    volts = (verdict.plate_volts.low + verdict.plate_volts.high) / 2
    power, phases = trail.number("power_hp"), reading.plate.phases or supply.phases
    letter = reading.plate.code_letter
    with contextlib.suppress(CoreError):
        locked_rotor_table(
            power_hp=power, volts_v=volts, phases=phases, edition=profile.edition, trail=trail
        )
    if letter is not None:
        with contextlib.suppress(CoreError):
            locked_rotor_code(
                letter=letter, power_hp=power, volts_v=verdict.plate_volts.high, phases=phases,
                edition=profile.edition, trail=trail,
            )  # fmt: skip


def _protection(
    reading: PlateReading, inputs: SizeInputs, profile: Profile, supply: Supply, trail: Trail
) -> Step:
    return protection_device(
        kind=_kind(_size_input(trail, "protection_kind", inputs.protection_kind)),
        school=profile.school,
        phases=reading.plate.phases or supply.phases,
        edition=profile.edition,
        trail=trail,
        design_letter=reading.plate.design_letter,
        is_premium=reading.plate.is_premium_efficiency,
    )


def _kind(name: str) -> DeviceKind:
    return next(kind for kind in get_args(DeviceKind) if kind == name)


def _overload(reading: PlateReading, profile: Profile, trail: Trail) -> Step:
    plate = reading.plate
    for name, value in (
        ("service_factor", plate.service_factor),
        ("temperature_rise_c", plate.temperature_rise_c),
    ):
        if value is not None:
            _read_step(trail, name, value, "", plain(value), reading)
    return overload_setting(
        service_factor=plate.service_factor,
        temperature_rise_c=plate.temperature_rise_c,
        edition=profile.edition,
        trail=trail,
    )


def _grounding(reading: PlateReading, profile: Profile, supply: Supply, trail: Trail) -> Step:
    _wait_for(trail, "protection_device_a", "conductor_size")
    return grounding_conductor(
        material=str(trail["conductor_material"].value),
        kind=_kind(str(trail["protection_kind"].value)),
        phases=reading.plate.phases or supply.phases,
        edition=profile.edition,
        trail=trail,
    )


def _disconnect(profile: Profile, trail: Trail) -> Step:
    _wait_for(trail, "protection_device_a")
    is_fuse = str(trail["protection_kind"].value) in FUSES
    return disconnect(
        fuse_a=trail.number("protection_device_a") if is_fuse else None,
        edition=profile.edition,
        trail=trail,
    )


def _wait_for(trail: Trail, *names: str) -> None:
    if any(name not in trail for name in names):
        raise MissingError(
            Message("size.waits_device"),
            field="protection_device_a",
            hint=Message("size.waits_device.hint"),
        )


def _figure(figure: str, make: Callable[[], Step]) -> Figure:
    try:
        return Figure(id=figure, step=make().id)
    except CoreError as error:
        return Figure(id=figure, step=None, refusal=Refusal.of(error))


def _plate_state(reading: PlateReading) -> StepState:
    plate = reading.plate
    if not reading.text.strip():
        return StepState(step="plate", state="open", shout=Message("shout.plate.empty"))
    parts = []
    if plate.power_hp:
        parts.append("/".join(plain(hp) for hp in plate.power_hp) + " hp")
    elif plate.power_kw:
        parts.append("/".join(plain(kw) for kw in plate.power_kw) + " kW")
    if plate.volts_v:
        parts.append("/".join(str(band) for band in plate.volts_v) + " V")
    if plate.amps_a:
        parts.append("/".join(str(band) for band in plate.amps_a) + " A")
    if plate.leads:
        parts.append(f"{plate.leads} leads")
    said = " · ".join(parts)
    if not said:
        return StepState(step="plate", state="working", shout=Message("shout.plate.unread"))
    doubts = [finding for finding in reading.findings if finding.level == "doubt"]
    done = not doubts and not reading.missing and not reading.assumed
    return StepState(
        step="plate",
        state="proven" if done else "working",
        shout=Message("shout.plate", {"said": said}),
    )


def _leads_state(box: Box) -> StepState:
    outcome, error = box.outcome, box.outcome_error or box.derived_error
    state: State = "open"
    shout = Message("shout.leads.open")
    if box.outcome_error is not None or (outcome is None and error is not None):
        missing = error is not None and error.code == "missing"
        state = "open" if missing else "held"
        shout = Message("shout.leads.wants", {"detail": str(error)})
    elif box.is_disputed:
        state = "held"
        shout = Message("shout.leads.differs")
    elif outcome is not None and outcome.verdict == "right":
        joints = (
            " · ".join(_joint_text(joint, box.names) for joint in box.derived.joints)
            if box.derived
            else ""
        )
        state = "proven"
        shout = Message(
            "shout.leads",
            {"name": say(Message(f"connection.{outcome.name or 'other'}")), "joints": joints},
        )
    elif outcome is not None and outcome.verdict == "wrong":
        state = "held"
        # the first finding names the mistake; the first line says the gravest that it does
        grave = (found for found in outcome.findings if found.code.split(".")[0] in _GRAVE)
        shout = Message(f"shout.leads.{next(grave, outcome.findings[0]).code}")
    return StepState(step="leads", state=state, shout=shout)


def _trust(
    given: TrustInputs, reading: PlateReading
) -> tuple[Estimate | CoreError | None, StepState | None]:
    """Estimate the volts of a doubted plate; hold the leads until a test supports them."""
    if not given.is_doubted:
        return None, None
    plate = reading.plate
    power = given.power_hp or next(
        iter((*plate.power_hp, *(horsepower_from_kw(kw) for kw in plate.power_kw))), None
    )
    held = StepState(step="leads", state="held", shout=Message("trust.held"))
    try:
        if power is None:
            raise MissingError(
                Message("trust.no_power"),
                field="trust.power_hp",
                hint=Message("trust.no_power.hint"),
            )
        found = estimate_voltage(
            TrustFacts(
                power_hp=power,
                frequency_hz=50 if Decimal(50) in plate.frequency_hz else 60,
                earlier_supply_v=given.earlier_supply_v,
                winding_ohm=given.winding_ohm,
                test_v=given.test_v,
                test_a=given.test_a,
            )
        )
    except CoreError as error:
        return error, held
    return found, None if found.may_energise else held


def _joints_state(joints: JointsWorked | None, error: CoreError | None) -> StepState:
    if joints is None:
        detail = "" if error is None else str(error)
        return StepState(
            step="joints", state="open", shout=Message("shout.joints.wants", {"detail": detail})
        )
    doubts = any(
        found.level == "doubt"
        for found in (*joints.findings, *(f for plan in joints.joints for f in plan.findings))
    )
    params = {"count": str(len(joints.joints)), "fit": str(Message(f"fit.{joints.fit}"))}
    state: State = "working"
    if joints.fit == "no" or doubts:
        state = "held"
    elif joints.fit == "unknown":
        return StepState(step="joints", state="open", shout=Message("shout.joints.open", params))
    elif all(plan.is_recorded for plan in joints.joints):
        state = "proven"
    return StepState(step="joints", state=state, shout=Message("shout.joints", params))


def _plan(
    box: Box, given: LeadsInputs, joints: JointsInputs, trail: Trail, profile: Profile,
    supply: Supply | None,
) -> tuple[JointsWorked | None, CoreError | None]:  # fmt: skip
    """Plan the joints of the box as joined, or as they are to be."""
    made = tuple(joint.as_core() for joint in given.joints) or box.intended
    made = tuple(joint for joint in made if joint.conductors > 1)
    if not made:
        return None, MissingError(
            Message("joints.none"), field="leads.joints", hint=Message("joints.none.hint")
        )
    try:
        steps = {step.id: step for step in trail}
        return plan_joints(made, joints, steps, profile, supply), None
    except CoreError as error:
        return None, error


def _joint_text(joint: Joint, names: Mapping[str, str]) -> str:
    leads = "-".join(names.get(lead, lead).removeprefix("T") for lead in joint.leads)
    return f"{joint.line} {leads}" if joint.line else leads


def _size_state(figures: tuple[Figure, ...], trail: Trail) -> StepState:
    refused = next((figure for figure in figures if figure.refusal), None)
    if refused is not None and refused.refusal is not None:
        held = refused.refusal.code != "missing"
        shout = "shout.size.held" if held else "shout.size.wants"
        return StepState(
            step="size",
            state="held" if held else "open",
            shout=Message(shout, {"detail": refused.refusal.detail}),
        )
    if "protection_kind" not in trail:
        return StepState(step="size", state="working", shout=Message("shout.size.own"))
    guessed = any(mark.kind == "assumed" for step in trail for mark in step.marks)
    return StepState(
        step="size",
        state="working" if guessed else "proven",
        shout=Message(
            "shout.size.full",
            {
                "size": trail["conductor_size"].shown,
                "device": trail["protection_device_a"].shown,
                "kind": trail["protection_kind"].shown,
                "trip": trail["overload_setting_a"].shown,
            },
        ),
    )


_FIGURES = (
    "table_flc_a",
    "conductor_size",
    "protection_device_a",
    "overload_setting_a",
    "grounding_conductor_size",
    "disconnect_switch_a",
)


def _own_sizes(size: SizeInputs) -> tuple[Trail, tuple[Figure, ...]]:
    """Return the sizes that a person brings, where the NEC does not hold."""
    trail = Trail()
    own = {item.figure: item for item in size.own}

    def brought(figure: str) -> Callable[[], Step]:
        return lambda: bring(figure)

    def bring(figure: str) -> Step:
        item = own.get(figure)
        if item is None:
            raise RefusedError(
                Message("size.territory"), field=figure, hint=Message("size.territory.hint")
            )
        working = Message("own.size", {"value": item.value, "source": item.source})
        return trail.add(
            Step(
                id=figure, value=item.value, unit="", kind="read", shown=item.value, working=working
            )
        )

    return trail, tuple(_figure(figure, brought(figure)) for figure in _FIGURES)


def _compressor(
    reading: PlateReading, supply: Supply, verdict: Verdict, size: SizeInputs, profile: Profile
) -> tuple[Trail, tuple[Figure, ...]]:
    """Return the branch circuit of a hermetic compressor, Article 440."""
    trail, plate, edition = Trail(), reading.plate, profile.edition

    def amps_of(bands: tuple[Band, ...], step_id: str) -> Decimal | None:
        if len(bands) not in {1, len(plate.volts_v)}:
            return None
        value = bands[verdict.column if len(bands) > 1 else 0].high
        trail.add(
            Step(
                id=step_id, value=value, unit="A", kind="read", shown=plain(value),
                working=Message("hermetic.read", {"value": plain(value)}),
            )
        )  # fmt: skip
        return value

    def current() -> Step:
        rated = amps_of(plate.rated_load_amps_a, "rated_load_a")
        if rated is None:
            raise MissingError(
                Message("hermetic.no_amps"),
                field="rated_load_amps_a",
                hint=Message("hermetic.no_amps.hint"),
            )
        selection = amps_of(plate.selection_amps_a, "selection_a")
        return hermetic_current(
            rated_load_a=rated, selection_a=selection, edition=edition, trail=trail
        )

    def wire() -> Step:
        _wait_for(trail, "hermetic_current_a")
        for name in ("conductor_material", "insulation", "ambient_c", "current_carrying"):
            _size_input(trail, name, getattr(size, name))
        hermetic_conductor_ampacity(edition=edition, trail=trail)
        return conductor(_facts(size, trail), edition=edition, trail=trail)

    def device() -> Step:
        _wait_for(trail, "hermetic_current_a")
        kind = _kind(_size_input(trail, "protection_kind", size.protection_kind))
        return hermetic_device(kind=kind, edition=edition, trail=trail)

    def switch() -> Step:
        _wait_for(trail, "protection_device_a")
        return hermetic_disconnect(edition=edition, trail=trail)

    return trail, (
        _figure("hermetic_current_a", current),
        _figure("conductor_size", wire),
        _figure("protection_device_a", device),
        _figure("overload_setting_a", lambda: hermetic_overload(edition=edition, trail=trail)),
        _figure("grounding_conductor_size", lambda: _grounding(reading, profile, supply, trail)),
        _figure("disconnect_switch_a", switch),
    )


def branch_circuit(
    reading: PlateReading,
    found: Supply | None,
    verdict: Verdict | None,
    error: CoreError | None,
    size: SizeInputs,
    profile: Profile,
    start_method: StartMethod = "full_voltage",
) -> tuple[Trail, tuple[Figure, ...]]:
    """Work out the branch circuit of a plate that was read and a supply that was judged.

    Parameters
    ----------
    reading : PlateReading
        The plate, piece by piece.
    found : Supply or None
        The supply; None if it was not given or could not be read.
    verdict : Verdict or None
        The plate column in use.
    error : CoreError or None
        Why there is no supply or no verdict.
    size : SizeInputs
        What decides the sizes besides.
    profile : Profile
        Edition and school.
    start_method : str
        Wye-delta and part-winding starts have legs with a part of the current.

    Returns
    -------
    tuple of Trail and tuple of Figure
        Every value with its evidence, and the lines of the Size sheet.

    Raises
    ------
    RuntimeError
        If there is no verdict and no error either: a bug.
    """
    if reading.plate.is_hermetic and found is not None and verdict is not None:
        return _compressor(reading, found, verdict, size, profile)
    trail = Trail()

    def flc() -> Step:
        if found is None or verdict is None:
            raise error if error is not None else RuntimeError("no verdict and no error")
        return _full_load(reading, found, verdict, size, profile, trail)

    def after_flc(make: Callable[[Supply], Step]) -> Callable[[], Step]:
        def made() -> Step:
            if found is None or "table_flc_a" not in trail:
                raise MissingError(
                    Message("size.waits"), field="table_flc_a", hint=Message("size.waits.hint")
                )
            return make(found)

        return made

    figures = [
        _figure("table_flc_a", flc),
        _figure(
            "conductor_size",
            after_flc(lambda _: _conductor(reading, size, profile, trail)),
        ),
        _figure(
            "protection_device_a",
            after_flc(lambda on: _protection(reading, size, profile, on, trail)),
        ),
        _figure("overload_setting_a", after_flc(lambda _: _overload(reading, profile, trail))),
        _figure(
            "grounding_conductor_size",
            after_flc(lambda on: _grounding(reading, profile, on, trail)),
        ),
        _figure("disconnect_switch_a", after_flc(lambda _: _disconnect(profile, trail))),
    ]
    if start_method != "full_voltage":
        start: LegStart = start_method
        figures += [
            _figure("leg_conductor_size", after_flc(lambda _: _leg(start, size, profile, trail))),
            _figure(
                "leg_overload_setting_a",
                after_flc(lambda _: leg_overload(start, edition=profile.edition, trail=trail)),
            ),
        ]
    if size.run_length_ft is not None:
        figures.append(
            _figure(
                "voltage_drop_percent",
                after_flc(lambda on: _drop(reading, on, size, profile, trail)),
            )
        )
        figures += [
            Figure(id=name, step=name)
            for name in ("run_conductor_size", "run_grounding_size")
            if name in trail
        ]
    if found is not None and verdict is not None:
        _locked(reading, found, verdict, profile, trail)
    return trail, tuple(figures)


def work_out(
    plate: PlateInputs,
    supply: SupplyInputs,
    size: SizeInputs,
    profile: Profile | None = None,
    leads: LeadsInputs | None = None,
    joints: JointsInputs | None = None,
    trust: TrustInputs | None = None,
) -> Worked:
    """Work a job out from what people gave.

    Parameters
    ----------
    plate : PlateInputs
        The plate's text and what was assumed.
    supply : SupplyInputs
        The supply's name.
    size : SizeInputs
        What decides the sizes besides; its edition and school go before the
        works' own.
    profile : Profile, optional
        The works' own rules.
    leads : LeadsInputs, optional
        The winding's kind and the joints.
    joints : JointsInputs, optional
        How the joints are made, and the housing.
    trust : TrustInputs, optional
        What was read on a motor whose plate nobody believes.

    Returns
    -------
    Worked
        Everything, each figure with its evidence or its refusal.

    Raises
    ------
    CoreError
        If the plate's text is no text, or an assumed value no value.
    """
    base = profile or Profile()
    profile = Profile(
        edition=edition_of(size.edition or base.edition),
        school=size.school or base.school,
        swap_lines=base.swap_lines,
        twist_on=base.twist_on,
        twist_on_largest=base.twist_on_largest,
    )
    reading = read(plate.text, [item.as_core() for item in plate.assumed])
    found, verdict, error = _supply(supply.text, reading)
    if found is not None and reading.other is not None:
        # the plate has a rating for each frequency: use the supply's
        reading = reading.at(found.frequency_hz)
        found, verdict, error = _supply(supply.text, reading)
    if supply.territory == "other":
        trail, figures = _own_sizes(size)
    else:
        trail, figures = branch_circuit(
            reading,
            found,
            verdict,
            error,
            size,
            profile,
            leads.start_method if leads else "full_voltage",
        )
    box = work_out_box(reading, found, verdict, error, leads or LeadsInputs(), swap=base.swap_lines)
    estimate, untrusted = _trust(trust or TrustInputs(), reading)
    planned, wanting = _plan(
        box, leads or LeadsInputs(), joints or JointsInputs(), trail, profile, found
    )
    return Worked(
        reading=reading,
        supply=found,
        verdict=verdict,
        supply_refusal=None if error is None else Refusal.of(error),
        supply_checks=() if found is None else check_supply(supply, found, verdict),
        steps=tuple(trail),
        figures=figures,
        states=(
            _plate_state(reading),
            _leads_state(box) if untrusted is None else untrusted,
            _joints_state(planned, wanting),
            _size_state(figures, trail),
        ),
        profile=profile,
        box=box,
        estimate=estimate,
        planned=planned,
        planned_refusal=None if wanting is None else Refusal.of(wanting),
        joints=(leads or LeadsInputs()).joints,
    )
