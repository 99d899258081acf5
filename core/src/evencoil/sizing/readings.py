"""The steps that were read off the nameplate, entered, or assumed."""

from __future__ import annotations

from dataclasses import replace
from decimal import Decimal
from functools import lru_cache
from typing import get_args

from evencoil.base import (
    ConductorSize,
    Mark,
    Message,
    MissingError,
    RefusedError,
    Rule,
    Step,
    Trail,
    plain,
    say,
    show,
)
from evencoil.codebook import Edition, Profile, given, rule
from evencoil.plate import PlateReading, Supply, Verdict
from evencoil.sizing.by_amps import AmpsOnly, power_from_amps
from evencoil.sizing.conductor import ConductorFacts
from evencoil.sizing.full_load import MotorFacts, horsepower_from_kw, table_full_load_current
from evencoil.sizing.inputs import SizeInputs
from evencoil.sizing.protection import DeviceKind, Machine
from evencoil.sizing.speeds import highest_current

__all__ = [
    "add_conductor_inputs",
    "add_device_limits",
    "conductor_facts",
    "full_load_step",
    "kind_of",
    "machine_of",
    "read_step",
    "size_input",
]

#: Article 430 gives other rules above these volts, in Part XI [V]
MOST_VOLTS = Decimal(1000)
USUAL_KIND: DeviceKind = "dual_element_fuse"
_USUAL = ConductorFacts()
#: what is assumed where no one entered anything, its unit and its sentence
_DEFAULTS: dict[str, tuple[str, str, str]] = {
    "conductor_material": (_USUAL.material, "", "assumed.conductor_material"),
    "insulation": (_USUAL.insulation, "", "assumed.insulation"),
    "ambient_c": (plain(_USUAL.ambient_c), "°C", "assumed.ambient_c"),
    "current_carrying": (str(_USUAL.current_carrying), "", "assumed.current_carrying"),
    "protection_kind": (USUAL_KIND, "", "assumed.protection_kind"),
}


_SHOWN = {
    "cu": "copper",
    "al": "aluminium",
    **{kind: say(Message(f"kind.{kind}")) for kind in get_args(DeviceKind)},
}


def read_step(
    trail: Trail, step_id: str, value: Decimal | str, unit: str, shown: str, reading: PlateReading
) -> None:
    """Add an input read off the nameplate, or a person's guess of it.

    Parameters
    ----------
    trail : Trail
        The step is added to it.
    step_id : str
        Name of the figure.
    value : Decimal or str
        The figure.
    unit : str
        Its unit.
    shown : str
        As a person reads it.
    reading : PlateReading
        Says whether it was read or assumed.
    """
    plate_field = {"plate_volts": "volts_v", "plate_amps_a": "amps_a"}.get(step_id, step_id)
    guess = next((item for item in reading.assumed if item.field == plate_field), None)
    step = _input_step(step_id, value, unit, shown, None if guess is None else guess.reason)
    doubts = tuple(
        Mark(kind="doubted", origin=step_id, message=found.message)
        for found in reading.findings
        if found.level == "doubt" and found.field == plate_field
    )
    trail.add(replace(step, marks=(*step.marks, *doubts)) if doubts else step)


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


def size_input(trail: Trail, step_id: str, given: object) -> None:
    """Add an input of the size step, entered or assumed.

    Parameters
    ----------
    trail : Trail
        The step is added to it.
    step_id : str
        Name of the input.
    given : object
        What was entered; None if nothing was.
    """
    text = None if given is None else plain(given) if isinstance(given, Decimal) else str(given)
    trail.add(_size_step(step_id, text))


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


def _power_from_amps(facts: AmpsOnly, trail: Trail, edition: Edition) -> Decimal:
    """Return the power of a motor marked in amps only, interpolated in the table [hp]."""
    power = power_from_amps(facts)
    given(trail, "plate_amps_a", facts.amps_a, "A", "read.plate_amps_a", shown=plain(facts.amps_a))
    trail.add(
        Step(
            id="power_hp",
            value=power,
            unit="hp",
            kind="calculated",
            shown=show(power),
            working=Message("power.from_amps", {"amps": plain(facts.amps_a), "hp": show(power)}),
            rule=rule("table_currents", edition),
            uses=("plate_amps_a",),
        )
    )
    return power


def _power(
    reading: PlateReading, trail: Trail, facts: AmpsOnly | None, edition: Edition
) -> tuple[Decimal, bool]:
    """Return the power [hp] and whether it was stamped in kW only."""
    plate = reading.plate
    powers = plate.power_hp or tuple(horsepower_from_kw(kw) for kw in plate.power_kw)
    if not powers and facts is not None:
        return _power_from_amps(facts, trail, edition), False
    if not powers:
        raise MissingError(
            Message("size.no_power"), field="power_hp", hint=Message("size.no_power.hint")
        )
    from_kw = not plate.power_hp
    if len(powers) > 1:
        # several speeds: the largest power names switch and controller
        read_step(trail, "power_hp", max(powers), "hp", show(max(powers)), reading)
        return max(powers), from_kw
    if from_kw:
        read_step(trail, "power_kw", plate.power_kw[0], "kW", plain(plate.power_kw[0]), reading)
        trail.add(
            Step(
                id="power_hp",
                value=powers[0],
                unit="hp",
                kind="calculated",
                shown=show(powers[0]),
                working=Message(
                    "power.from_kw", {"kw": plain(plate.power_kw[0]), "hp": show(powers[0])}
                ),
                rule=Rule(standard="SI", edition=2019, section="1 hp = 0.746 kW"),
                uses=("power_kw",),
            )
        )
    else:
        read_step(trail, "power_hp", powers[0], "hp", plain(powers[0]), reading)
    return powers[0], from_kw


def _plate_amps(reading: PlateReading, verdict: Verdict) -> Decimal | None:
    """Return the nameplate current at the volts in use [A]."""
    if len(reading.plate.amps_a) == 1 and len(reading.plate.volts_v) > 1:
        return None
    return reading.plate.amps_at(verdict.column, verdict.used_volts_v)


def machine_of(inputs: SizeInputs, reading: PlateReading) -> Machine:
    """Return the kind of machine: as chosen, else as the nameplate says.

    Parameters
    ----------
    inputs : SizeInputs
        What was entered.
    reading : PlateReading
        The nameplate.
    """
    stamped: dict[str, Machine] = {
        "wound_rotor": "wound_rotor",
        "synchronous": "synchronous",
        "torque": "torque",
    }
    if inputs.machine != "squirrel_cage":
        return inputs.machine
    return stamped.get(reading.plate.kind, "squirrel_cage")


def _refuse_beyond(phases: int, volts: Decimal, field: str = "supply.text") -> None:
    """Refuse what the tables of this article do not reach."""
    if volts > MOST_VOLTS:
        raise RefusedError(
            Message("size.over_1000", {"volts": plain(volts)}),
            field=field,
            hint=Message("size.over_1000.hint"),
        )
    if phases == 2:
        raise RefusedError(
            Message("size.two_phase"), field="phases", hint=Message("size.two_phase.hint")
        )


def full_load_step(
    reading: PlateReading,
    supply: Supply,
    verdict: Verdict,
    inputs: SizeInputs,
    profile: Profile,
    trail: Trail,
) -> Step:
    """Return the table full-load current, with every reading that it depends on.

    Parameters
    ----------
    reading : PlateReading
        The nameplate.
    supply : Supply
        The supply.
    verdict : Verdict
        The nameplate column in use.
    inputs : SizeInputs
        What decides the sizes besides.
    profile : Profile
        Edition and plant rules.
    trail : Trail
        The steps are added to it.
    """
    plate = reading.plate
    phases = plate.phases or supply.phases
    volts = _used_volts(supply, verdict)
    _refuse_beyond(phases, volts)
    amps = _plate_amps(reading, verdict)
    only = None if amps is None else AmpsOnly(amps_a=amps, volts_v=volts, phases=phases)
    power, from_kw = _power(reading, trail, only, profile.edition)
    if plate.phases is not None:
        read_step(trail, "phases", Decimal(phases), "", str(phases), reading)
    elif supply.are_phases_assumed:
        _assume_phases(phases, trail)
    band = verdict.plate_volts
    said = str(band)
    read_step(trail, "plate_volts", said, "V", said, reading)
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
    several = max(len(plate.power_hp), len(plate.power_kw))
    if several > 1:
        each = [band.high for band in plate.amps_a]
        step = highest_current(
            plate.power_hp or plate.power_kw, each, edition=profile.edition, trail=trail
        )
        given(trail, "plate_amps_a", max(each), "A", "speeds.most_read")
        return step
    if amps is not None and "plate_amps_a" not in trail:
        read_step(trail, "plate_amps_a", amps, "A", plain(amps), reading)
    machine = machine_of(inputs, reading)
    step = table_full_load_current(
        MotorFacts(
            power_hp=power,
            phases=phases,
            supply_volts_v=volts,
            plate_volts_v=(band.low, band.high),
            plate_amps_a=amps,
            speed_rpm=_speed(reading),
            from_kw=from_kw,
            from_amps=not (plate.power_hp or plate.power_kw),
            is_high_torque=machine == "high_torque",
            is_torque_motor=machine == "torque",
            by_marking=machine if machine in {"listed_appliance", "marked_fan"} else "",
            is_synchronous=machine == "synchronous",
            power_factor_percent=inputs.power_factor,
            between_rows=inputs.between_rows,
        ),
        edition=profile.edition,
        trail=trail,
    )
    if amps is not None and any(mark.kind == "doubted" for mark in trail["plate_amps_a"].marks):
        _name_the_tables_amps(trail)
    return step


def _name_the_tables_amps(trail: Trail) -> None:
    """Put the table's current beside nameplate amps that contradict the rest of the plate."""
    plate, table_flc = trail["plate_amps_a"], trail["table_flc_a"]
    said = Message(
        "doubt.amps_table",
        {"amps": plate.shown, "table": table_flc.shown, "hp": trail["power_hp"].shown},
    )
    plate.marks += (Mark(kind="doubted", origin="plate_amps_a", message=said),)


def _speed(reading: PlateReading) -> Decimal | None:
    """Return the speed that decides [rpm]; none that no number of poles can have."""
    is_doubted = any(
        found.level == "doubt" and found.field == "speed_rpm" for found in reading.findings
    )
    return None if is_doubted else max(reading.plate.speed_rpm, default=None)


def _assume_phases(phases: int, trail: Trail) -> None:
    """Add a number of phases that neither nameplate nor supply gives, marked."""
    said = Message("assumed.phases", {"value": str(phases)})
    trail.add(
        Step(
            id="phases",
            value=Decimal(phases),
            unit="",
            kind="assumed",
            shown=str(phases),
            working=said,
            marks=(Mark(kind="assumed", origin="phases", message=said),),
        )
    )


def _used_volts(supply: Supply, verdict: Verdict) -> Decimal:
    """Return the volts of the supply that this motor takes [V]."""
    choices = [supply.line_volts_v]
    if supply.ground_volts_v is not None:
        choices.append(supply.ground_volts_v)
    band = verdict.plate_volts
    middle = (band.low + band.high) / 2
    return min(choices, key=lambda volts: (not band.holds(volts), abs(volts - middle)))


def conductor_facts(
    size: SizeInputs, design_letter: str | None = None, smallest: ConductorSize | None = None
) -> ConductorFacts:
    """Return what decides a conductor, entered or assumed.

    Parameters
    ----------
    size : SizeInputs
        What was entered.
    design_letter : str, optional
        Of the nameplate, where it decides the terminal temperature rating.
    smallest : ConductorSize, optional
        The smallest size that the plant allows.
    """
    return ConductorFacts(
        material=size.conductor_material or _USUAL.material,
        insulation=size.insulation or _USUAL.insulation,
        termination_c=size.termination_c,
        design_letter=design_letter,
        ambient_c=_USUAL.ambient_c if size.ambient_c is None else size.ambient_c,
        current_carrying=size.current_carrying or _USUAL.current_carrying,
        parallel_sets=size.parallel_sets,
        smallest=smallest,
    )


def kind_of(size: SizeInputs) -> DeviceKind:
    """Return the kind of fuse or breaker, entered or assumed."""
    return size.protection_kind or USUAL_KIND


def add_conductor_inputs(size: SizeInputs, trail: Trail) -> None:
    """Add the inputs that decide a conductor, entered or assumed.

    Parameters
    ----------
    size : SizeInputs
        What was entered.
    trail : Trail
        The steps are added to it.
    """
    for name in ("conductor_material", "insulation", "ambient_c", "current_carrying"):
        size_input(trail, name, getattr(size, name))


def add_device_limits(inputs: SizeInputs, trail: Trail) -> None:
    """Add a recorded no-start and the maker's largest device, where they were entered.

    Parameters
    ----------
    inputs : SizeInputs
        What was entered.
    trail : Trail
        The steps are added to it.
    """
    if inputs.no_start is not None:
        by = " · ".join(part for part in (inputs.no_start.by, inputs.no_start.at) if part)
        given(trail, "no_start", inputs.no_start.reason, "", "given.no_start", {"by": by or "—"})
    if inputs.maker_limit is not None:
        given(
            trail,
            "maker_limit_a",
            inputs.maker_limit.amps_a,
            "A",
            "given.maker_limit",
            {"source": inputs.maker_limit.source},
        )
