"""The branch circuit of one motor, figure by figure, from plate, supply and what decides it."""

from __future__ import annotations

import contextlib
import functools
from collections.abc import Callable
from decimal import Decimal
from functools import lru_cache
from typing import get_args

from evencoil.amendments import amended
from evencoil.connection import StartMethod
from evencoil.errors import CoreError, MissingError, RefusedError
from evencoil.evidence import Mark, Rule, Step, Trail
from evencoil.figures import Figure, figure, wait_for
from evencoil.inputs import SupplyInputs
from evencoil.inputs_size import OwnSizeInput, SizeInputs, SpeedsInput
from evencoil.more_sizes import more_sizes
from evencoil.nameplate import Band, PlateReading
from evencoil.profile import Profile
from evencoil.quantities import plain, show
from evencoil.sizing.conductor import ConductorFacts, conductor, required_ampacity
from evencoil.sizing.disconnect import disconnect
from evencoil.sizing.drop import DropFacts, grown_grounding, voltage_drop
from evencoil.sizing.duty import duty_ampacity
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
from evencoil.sizing.protection import FUSES, DeviceKind, kind_in, protection_device
from evencoil.sizing.speeds import device_current, highest_current
from evencoil.sizing.steps import given
from evencoil.supply import Supply, Verdict
from evencoil.supply_checks import transformer_fault_current_a
from evencoil.words import Message, say

__all__ = ["branch_circuit", "own_sizes"]

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


def _power(reading: PlateReading, trail: Trail) -> tuple[Decimal, bool]:
    """Return the power [hp] and whether it was stamped in kW only."""
    plate = reading.plate
    powers = plate.power_hp or tuple(horsepower_from_kw(kw) for kw in plate.power_kw)
    if not powers:
        raise MissingError(
            Message("size.no_power"), field="power_hp", hint=Message("size.no_power.hint")
        )
    from_kw = not plate.power_hp
    if len(powers) > 1:
        # several speeds: the largest power names switch and controller
        _read_step(trail, "power_hp", max(powers), "hp", show(max(powers)), reading)
        return max(powers), from_kw
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
    several = max(len(plate.power_hp), len(plate.power_kw))
    if several > 1:
        each = [band.high for band in plate.amps_a]
        step = highest_current(
            plate.power_hp or plate.power_kw, each, edition=profile.edition, trail=trail
        )
        given(trail, "plate_amps_a", max(each), "A", "speeds.most_read")
        return step
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
            is_high_torque=inputs.machine == "high_torque",
            is_torque_motor=inputs.machine == "torque",
            is_synchronous=inputs.machine == "synchronous",
            power_factor_percent=inputs.power_factor,
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
    duty = inputs.duty
    if duty is None:
        percent = None
        if profile.amendments:
            amended(profile.amendments, "smallest_conductor", trail)
            more = amended(profile.amendments, "conductor_percent", trail)
            percent = None if more is None else trail.number(more.id)
        required_ampacity(edition=profile.edition, trail=trail, percent=percent)
    else:
        said = "given.duty_reason" if duty.reason else "given.duty"
        given(
            trail,
            "duty",
            duty.service,
            "",
            said,
            {"reason": duty.reason},
            shown=str(Message(f"service.{duty.service}")),
        )
        duty_ampacity(duty.service, duty.rating, edition=profile.edition, trail=trail)
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
        smallest=str(trail["amendment_smallest_conductor"].value)
        if "amendment_smallest_conductor" in trail
        else None,
    )


def _leg(start: LegStart, inputs: SizeInputs, profile: Profile, trail: Trail) -> Step:
    wait_for(trail, "conductor_size")
    return leg_conductor(start, _facts(inputs, trail), edition=profile.edition, trail=trail)


def _drop(
    reading: PlateReading, supply: Supply, inputs: SizeInputs, profile: Profile, trail: Trail
) -> Step:
    """Work the voltage along the run out, and the larger wire where the limit asks for it."""
    wait_for(trail, "conductor_size", "supply_volts_v")
    length = inputs.run_length_ft or Decimal(0)
    trail.add(
        Step(
            id="run_length_ft",
            value=length,
            unit="ft",
            kind="read",
            shown=plain(length),
            working=Message("given.run_length_ft", {"value": plain(length)}),
        )
    )
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
                letter=letter,
                power_hp=power,
                volts_v=verdict.plate_volts.high,
                phases=phases,
                edition=profile.edition,
                trail=trail,
            )


def _protection(
    reading: PlateReading, inputs: SizeInputs, profile: Profile, supply: Supply, trail: Trail
) -> Step:
    if profile.amendments:
        amended(profile.amendments, "device_percent", trail)
        amended(profile.amendments, "no_next_size_up", trail)
    if "speed_1_amps_a" in trail:
        speeds = inputs.speeds or SpeedsInput()
        device_current(each_protected=speeds.each_protected, edition=profile.edition, trail=trail)
    _size_input(trail, "protection_kind", inputs.protection_kind)
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
    return protection_device(
        machine=inputs.machine,
        no_start=None if inputs.no_start is None else inputs.no_start.reason,
        maker_limit=None
        if inputs.maker_limit is None
        else (inputs.maker_limit.amps_a, inputs.maker_limit.source),
        kind=kind_in(trail),
        school=profile.school,
        phases=reading.plate.phases or supply.phases,
        edition=profile.edition,
        trail=trail,
        design_letter=reading.plate.design_letter,
        is_premium=reading.plate.is_premium_efficiency,
    )


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
    wait_for(trail, "protection_device_a", "conductor_size")
    return grounding_conductor(
        material=str(trail["conductor_material"].value),
        kind=kind_in(trail),
        phases=reading.plate.phases or supply.phases,
        edition=profile.edition,
        trail=trail,
    )


def _disconnect(profile: Profile, trail: Trail) -> Step:
    wait_for(trail, "protection_device_a")
    if profile.amendments:
        amended(profile.amendments, "disconnect_percent", trail)
    is_fuse = kind_in(trail) in FUSES
    return disconnect(
        fuse_a=trail.number("protection_device_a") if is_fuse else None,
        edition=profile.edition,
        trail=trail,
    )


_FIGURES = (
    "table_flc_a",
    "conductor_size",
    "protection_device_a",
    "overload_setting_a",
    "grounding_conductor_size",
    "disconnect_switch_a",
)


def own_sizes(size: SizeInputs) -> tuple[Trail, tuple[Figure, ...]]:
    """Return the sizes that a person brings, where the NEC does not hold.

    Parameters
    ----------
    size : SizeInputs
        What decides the sizes, with the person's own.
    """
    trail = Trail()
    own = {item.figure: item for item in size.own}
    return trail, tuple(
        figure(name, functools.partial(_brought, name, own.get(name), trail)) for name in _FIGURES
    )


def _brought(name: str, item: OwnSizeInput | None, trail: Trail) -> Step:
    if item is None:
        raise RefusedError(
            Message("size.territory"), field=name, hint=Message("size.territory.hint")
        )
    working = Message("own.size", {"value": item.value, "source": item.source})
    return trail.add(
        Step(id=name, value=item.value, unit="", kind="read", shown=item.value, working=working)
    )


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
                id=step_id,
                value=value,
                unit="A",
                kind="read",
                shown=plain(value),
                working=Message("hermetic.read", {"value": plain(value)}),
            )
        )
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
        wait_for(trail, "hermetic_current_a")
        for name in ("conductor_material", "insulation", "ambient_c", "current_carrying"):
            _size_input(trail, name, getattr(size, name))
        hermetic_conductor_ampacity(edition=edition, trail=trail)
        return conductor(_facts(size, trail), edition=edition, trail=trail)

    def device() -> Step:
        wait_for(trail, "hermetic_current_a")
        _size_input(trail, "protection_kind", size.protection_kind)
        return hermetic_device(kind=kind_in(trail), edition=edition, trail=trail)

    def switch() -> Step:
        wait_for(trail, "protection_device_a")
        return hermetic_disconnect(edition=edition, trail=trail)

    return trail, (
        figure("hermetic_current_a", current),
        figure("conductor_size", wire),
        figure("protection_device_a", device),
        figure("overload_setting_a", lambda: hermetic_overload(edition=edition, trail=trail)),
        figure("grounding_conductor_size", lambda: _grounding(reading, profile, supply, trail)),
        figure("disconnect_switch_a", switch),
    )


def branch_circuit(
    reading: PlateReading,
    found: Supply | None,
    verdict: Verdict | None,
    error: CoreError | None,
    size: SizeInputs,
    profile: Profile,
    start_method: StartMethod = "full_voltage",
    given_supply: SupplyInputs | None = None,
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
    given_supply : SupplyInputs or None
        What else is known of the supply: its fault current.

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
        figure("table_flc_a", flc),
        figure(
            "conductor_size",
            after_flc(lambda _: _conductor(reading, size, profile, trail)),
        ),
        figure(
            "protection_device_a",
            after_flc(lambda on: _protection(reading, size, profile, on, trail)),
        ),
        figure("overload_setting_a", after_flc(lambda _: _overload(reading, profile, trail))),
        figure(
            "grounding_conductor_size",
            after_flc(lambda on: _grounding(reading, profile, on, trail)),
        ),
        figure("disconnect_switch_a", after_flc(lambda _: _disconnect(profile, trail))),
    ]
    if start_method != "full_voltage":
        start: LegStart = start_method
        figures += [
            figure("leg_conductor_size", after_flc(lambda _: _leg(start, size, profile, trail))),
            figure(
                "leg_overload_setting_a",
                after_flc(lambda _: leg_overload(start, edition=profile.edition, trail=trail)),
            ),
        ]
    if size.run_length_ft is not None:
        figures.append(
            figure(
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
        figures += _more(reading, found, size, profile, trail, start_method, given_supply)
    return trail, tuple(figures)


def _more(
    reading: PlateReading,
    found: Supply,
    size: SizeInputs,
    profile: Profile,
    trail: Trail,
    start_method: StartMethod,
    supply: SupplyInputs | None,
) -> tuple[Figure, ...]:
    """Return the further parts of the sheet, if the circuit itself is there."""
    told = None if supply is None else supply.fault_current_a
    is_plain = start_method == "full_voltage" and "speed_1_amps_a" not in trail
    if is_plain and told is None and not size.asks_more:
        return ()
    if "conductor_material" not in trail or "protection_kind" not in trail:
        return ()
    by_transformer = None
    if supply is not None and supply.transformer_kva and supply.transformer_z_percent:
        with contextlib.suppress(CoreError):
            by_transformer = transformer_fault_current_a(
                kva=supply.transformer_kva,
                line_volts_v=found.line_volts_v,
                phases=found.phases or 1,
                z_percent=supply.transformer_z_percent,
            )
    return more_sizes(
        reading,
        found,
        size,
        profile,
        _facts(size, trail),
        trail,
        start_method=start_method,
        fault_a=told,
        by_transformer_a=by_transformer,
    )
