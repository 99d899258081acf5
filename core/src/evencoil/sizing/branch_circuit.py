"""The branch circuit of one motor, figure by figure, from plate, supply and what decides it."""

from __future__ import annotations

import contextlib
import functools
from collections.abc import Callable
from dataclasses import dataclass
from decimal import Decimal

from evencoil.base import (
    CoreError,
    Figure,
    Mark,
    Message,
    MissingError,
    Step,
    Trail,
    figure,
    plain,
    show,
    wait_for,
)
from evencoil.codebook import Edition, Profile, amended, given, rule, smallest_conductor
from evencoil.plate import PlateReading, Supply, SupplyInputs, Verdict, transformer_fault_current_a
from evencoil.sizing.compressor import compressor_circuit, grounding_step
from evencoil.sizing.conductor import ConductorFacts, conductor, required_ampacity
from evencoil.sizing.disconnect import disconnect
from evencoil.sizing.drop import DropFacts, grown_grounding, total_drop, voltage_drop
from evencoil.sizing.duty import duty_ampacity
from evencoil.sizing.inputs import DcSource, SiteInput, SizeInputs, SpeedsInput
from evencoil.sizing.legs import LegStart, half_device, leg_conductor, leg_overload
from evencoil.sizing.locked_rotor import locked_rotor_code, locked_rotor_table
from evencoil.sizing.measured_start import measured_start
from evencoil.sizing.overload import Derating, overload_setting
from evencoil.sizing.protection import FUSES, protection_device
from evencoil.sizing.readings import (
    add_conductor_inputs,
    add_device_limits,
    conductor_facts,
    full_load_step,
    kind_of,
    machine_of,
    read_step,
    size_input,
)
from evencoil.sizing.sheet import further_figures
from evencoil.sizing.sheet.context import SizeSheet
from evencoil.sizing.speeds import device_current
from evencoil.winding import StartMethod

__all__ = ["MotorCircuit", "branch_circuit", "further_sizes"]


@dataclass(frozen=True, slots=True, kw_only=True)
class MotorCircuit:
    """What one motor's circuit is calculated from.

    Attributes
    ----------
    reading : PlateReading
        The nameplate, piece by piece.
    supply : Supply or None
        The supply; None if it was not entered or could not be read.
    verdict : Verdict or None
        The nameplate column in use.
    error : CoreError or None
        Why there is no supply or no verdict.
    size : SizeInputs
        What decides the sizes besides.
    profile : Profile
        edition, rating rule and amendments.
    start_method : str
        Wye-delta and part-winding starts have motor-lead conductors with a part of the current.
    given_supply : SupplyInputs or None
        What else is known of the supply: its fault current.
    """

    reading: PlateReading
    supply: Supply | None
    verdict: Verdict | None
    error: CoreError | None
    size: SizeInputs
    profile: Profile
    start_method: StartMethod = "full_voltage"
    given_supply: SupplyInputs | None = None

    @property
    def phases(self) -> int:
        """Return the phases of the nameplate, or else of the supply; 0 for direct current."""
        return self.reading.plate.phases or (0 if self.supply is None else self.supply.phases)

    @property
    def leg_start(self) -> LegStart:
        """Return the start that splits the motor leads.

        Raises
        ------
        RuntimeError
            If the motor starts at full voltage: a bug.
        """
        if self.start_method == "full_voltage":
            raise RuntimeError("a motor started at full voltage has no motor-lead conductors")
        return self.start_method

    def conductor_facts(self) -> ConductorFacts:
        """Return what decides this motor's conductors, entered or assumed."""
        smallest = (
            None if self.size.duty is not None else smallest_conductor(self.profile.amendments)
        )
        return conductor_facts(self.size, self.reading.plate.design_letter, smallest)


def _conductor(job: MotorCircuit, trail: Trail) -> Step:
    reading, inputs, profile = job.reading, job.size, job.profile
    add_conductor_inputs(inputs, trail)
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
        read_step(trail, "design_letter", letter, "", letter, reading)
    duty = inputs.duty
    if duty is None:
        percent = None
        if profile.amendments:
            amended(profile.amendments, "smallest_conductor", trail)
            more = amended(profile.amendments, "conductor_percent", trail)
            percent = None if more is None else trail.number(more.id)
        if job.phases == 0:
            _direct_current_ampacity(inputs.dc_source, profile.edition, trail)
        else:
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
    return conductor(job.conductor_facts(), edition=profile.edition, trail=trail)


#: what the ripple of a rectifier adds to the conductors of a direct-current motor [percent]
_RECTIFIER_PERCENT = {
    "battery": Decimal(125),
    "three_phase_rectifier": Decimal(125),
    "full_wave_single_phase": Decimal(150),
    "half_wave_single_phase": Decimal(190),
}


def _direct_current_ampacity(source: DcSource | None, edition: Edition, trail: Trail) -> Step:
    """Return the least ampacity of a direct-current motor by its source, 430.22(A)."""
    percent = _RECTIFIER_PERCENT[source or "battery"]
    flc = trail.number("table_flc_a")
    value = flc * percent / 100
    marks: tuple[Mark, ...] = ()
    if source is None:
        asked = Message("rectifier.asked")
        marks = (Mark(kind="assumed", origin="dc_source", message=asked),)
    return trail.add(
        Step(
            id="required_ampacity_a",
            value=value,
            unit="A",
            kind="calculated",
            shown=show(value, "minimum"),
            working=Message(
                f"rectifier.{source or 'asked_battery'}",
                {"flc": plain(flc), "percent": plain(percent), "value": plain(value)},
            ),
            rule=rule("rectifier", edition),
            uses=("table_flc_a",),
            marks=marks,
        )
    )


def _leg(job: MotorCircuit, trail: Trail) -> Step:
    wait_for(trail, "conductor_size")
    return leg_conductor(
        job.leg_start,
        job.conductor_facts(),
        are_apart=job.size.motor_leads_apart,
        edition=job.profile.edition,
        trail=trail,
    )


def _half_device(job: MotorCircuit, trail: Trail) -> Step:
    wait_for(trail, "protection_limit_a")
    return half_device(kind_of(job.size), edition=job.profile.edition, trail=trail)


def _leg_overload(job: MotorCircuit, trail: Trail) -> Step:
    return leg_overload(job.leg_start, edition=job.profile.edition, trail=trail)


def _drop(job: MotorCircuit, trail: Trail) -> Step:
    """Return the voltage drop, and add the larger wire where the limit asks for it."""
    reading, inputs, profile = job.reading, job.size, job.profile
    wait_for(trail, "conductor_size", "supply_volts_v")
    length = inputs.run_length_ft or (inputs.run_length_m or Decimal(0)) * _FT_PER_M
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
    factor = next(iter(reading.plate.power_factor_percent), None)
    step = voltage_drop(
        DropFacts(
            length_ft=length,
            limit_percent=inputs.drop_limit_percent or Decimal(3),
            method=inputs.drop_method,
            conduit=inputs.conduit,
            material=job.conductor_facts().material,
            phases=job.phases,
            volts_v=trail.number("supply_volts_v"),
            power_factor=Decimal("0.85") if factor is None else factor / 100,
            parallel_sets=inputs.parallel_sets,
        ),
        edition=profile.edition,
        trail=trail,
    )
    if inputs.feeder_drop_percent is not None:
        given(trail, "feeder_drop_percent", inputs.feeder_drop_percent, "%")
        total_drop(edition=profile.edition, trail=trail)
    if "run_conductor_size" in trail and "grounding_conductor_size" in trail:
        grown_grounding(edition=profile.edition, trail=trail)
    return step


_FT_PER_M = Decimal("3.28084")


def _locked(job: MotorCircuit, trail: Trail) -> None:
    """Add locked-rotor currents where letter and table give them; nothing waits for them."""
    verdict = job.verdict
    if job.supply is None or verdict is None or "power_hp" not in trail:
        return
    volts = (verdict.plate_volts.low + verdict.plate_volts.high) / 2
    power, phases = trail.number("power_hp"), job.phases
    letter, profile = job.reading.plate.code_letter, job.profile
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


def _measured_start(job: MotorCircuit, trail: Trail) -> Step:
    measured, verdict = job.size.measured_start, job.verdict
    if measured is None or verdict is None:
        raise RuntimeError("asked for without a measured start or a verdict")
    return measured_start(
        measured,
        job.reading,
        volts_v=verdict.plate_volts.high,
        phases=job.phases,
        edition=job.profile.edition,
        trail=trail,
    )


def _protection(job: MotorCircuit, trail: Trail) -> Step:
    reading, inputs, profile = job.reading, job.size, job.profile
    if profile.amendments:
        amended(profile.amendments, "device_percent", trail)
        amended(profile.amendments, "no_next_size_up", trail)
    if "speed_1_amps_a" in trail:
        speeds = inputs.speeds or SpeedsInput()
        device_current(each_protected=speeds.each_protected, edition=profile.edition, trail=trail)
    # one device for several windings does not exceed the percentage: no next size up
    is_shared = "device_current_a" in trail and not (inputs.speeds or SpeedsInput()).each_protected
    rating_rule = "main_rule" if is_shared else profile.rating_rule
    size_input(trail, "protection_kind", inputs.protection_kind)
    add_device_limits(inputs, trail)
    step = protection_device(
        machine=machine_of(inputs, reading),
        no_start=None if inputs.no_start is None else inputs.no_start.reason,
        maker_limit=None
        if inputs.maker_limit is None
        else (inputs.maker_limit.amps_a, inputs.maker_limit.source),
        kind=kind_of(inputs),
        rating_rule=rating_rule,
        phases=job.phases,
        edition=profile.edition,
        trail=trail,
        material=job.conductor_facts().material,
        design_letter=reading.plate.design_letter,
        is_premium=reading.plate.is_premium_efficiency,
    )
    _warn_too_small(trail, step)
    return step


def _drive_device(job: MotorCircuit, trail: Trail) -> Step:
    """Return the device on the drive's input, which its maker gives: 430.130."""
    limit = job.size.maker_limit
    size_input(trail, "protection_kind", job.size.protection_kind)
    if limit is None:
        raise MissingError(
            Message("drive.device_asked"),
            field="size.maker_limit",
            hint=Message("drive.device_asked.hint"),
        )
    add_device_limits(job.size, trail)
    return trail.add(
        Step(
            id="protection_device_a",
            value=limit.amps_a,
            unit="A",
            kind="read",
            shown=plain(limit.amps_a),
            working=Message("drive.device", {"value": plain(limit.amps_a), "source": limit.source}),
            rule=rule("drive_device", job.profile.edition),
            uses=("maker_limit_a", "protection_kind"),
        )
    )


def _warn_too_small(trail: Trail, device: Step) -> None:
    """Mark a device that opens on the motor's own current, at full load or at its large speed."""
    flc = trail.number("table_flc_a")
    if trail["protection_kind"].value != "instantaneous_breaker" and device.number < flc:
        said = Message("protection.below_flc", {"device": device.shown, "flc": plain(flc)})
        device.marks += (Mark(kind="doubted", origin="protection_device_a", message=said),)


def _overload(job: MotorCircuit, trail: Trail) -> Step:
    reading, plate = job.reading, job.reading.plate
    if "plate_amps_a" not in trail and "table_flc_a" not in trail:
        raise MissingError(
            Message("size.waits"), field="table_flc_a", hint=Message("size.waits.hint")
        )
    for name, value in (
        ("service_factor", plate.service_factor),
        ("temperature_rise_c", plate.temperature_rise_c),
    ):
        if value is not None:
            read_step(trail, name, value, "", plain(value), reading)
    factor = plate.service_factor
    site = job.size.site or SiteInput()
    derating = None
    if site.load_percent is not None:
        derating = Derating(site.load_percent, site.source or "—")
    step = overload_setting(
        service_factor=factor if factor is None or factor >= 1 else None,
        temperature_rise_c=plate.temperature_rise_c,
        edition=job.profile.edition,
        trail=trail,
        derating=derating,
    )
    if derating is None:
        step.marks += _site_marks(job, site)
    if "ampacity_a" in trail and trail.number("ampacity_a") < step.number:
        said = Message(
            "overload.above_conductor",
            {"setting": step.shown, "holds": trail["ampacity_a"].shown},
        )
        step.marks += (Mark(kind="doubted", origin="overload_setting_a", message=said),)
    return step


#: up to here a motor carries its nameplate power without being derated, NEMA MG 1 14.4 [ft]
_USUAL_ALTITUDE_FT = Decimal(3300)
#: up to here a service factor of 1.15 stands for the thin air, without any left, MG 1 14.4 [ft]
_SERVICE_FACTOR_ALTITUDE_FT = Decimal(9000)


def _site_marks(job: MotorCircuit, site: SiteInput) -> tuple[Mark, ...]:
    """Return the doubts about a motor that is too high or too hot for its nameplate current."""
    plate, marks = job.reading.plate, []
    limit = plate.ambient_c or Decimal(40)
    if job.size.ambient_c is not None and job.size.ambient_c > limit:
        said = Message(
            "overload.ambient", {"ambient": plain(job.size.ambient_c), "limit": plain(limit)}
        )
        marks.append(Mark(kind="doubted", origin="ambient_c", message=said))
    height = site.altitude_ft
    if height is not None and height > _USUAL_ALTITUDE_FT:
        spare = plate.service_factor is not None and plate.service_factor >= Decimal("1.15")
        uses_spare = spare and height <= _SERVICE_FACTOR_ALTITUDE_FT
        said = Message(
            "overload.altitude_spare" if uses_spare else "overload.altitude",
            {"height": plain(height), "limit": plain(_USUAL_ALTITUDE_FT)},
        )
        marks.append(Mark(kind="doubted", origin="altitude_ft", message=said))
    return tuple(marks)


def _grounding(job: MotorCircuit, trail: Trail) -> Step:
    return grounding_step(job.size, job.profile, job.phases, trail)


def _disconnect(job: MotorCircuit, trail: Trail) -> Step:
    profile = job.profile
    wait_for(trail, "protection_device_a")
    if profile.amendments:
        amended(profile.amendments, "disconnect_percent", trail)
    is_elsewhere = job.size.place is not None and job.size.place.has_no_fuse
    is_fuse = kind_of(job.size) in FUSES and not is_elsewhere
    return disconnect(
        fuse_a=trail.number("protection_device_a") if is_fuse else None,
        edition=profile.edition,
        trail=trail,
    )


def _switched_figures(
    job: MotorCircuit,
) -> list[tuple[str, Callable[[MotorCircuit, Trail], Step]]]:
    """Return the figures behind a starter that switches the motor's leads."""
    if job.start_method == "full_voltage":
        return []
    found: list[tuple[str, Callable[[MotorCircuit, Trail], Step]]] = [
        ("leg_conductor_size", _leg),
        ("leg_overload_setting_a", _leg_overload),
    ]
    if job.start_method == "part_winding":
        found.append(("half_device_a", _half_device))
    return found


def branch_circuit(job: MotorCircuit) -> tuple[Trail, tuple[Figure, ...]]:
    """Return the branch circuit of a nameplate that was read and a supply that was judged.

    Parameters
    ----------
    job : MotorCircuit
        What it is calculated from.

    Returns
    -------
    tuple of Trail and tuple of Figure
        Every value with its evidence, and the lines of the size sheet.

    Raises
    ------
    RuntimeError
        If there is no verdict and no error either: a bug.
    """
    found, verdict, size, profile = job.supply, job.verdict, job.size, job.profile
    if job.reading.plate.is_hermetic and found is not None and verdict is not None:
        return compressor_circuit(job.reading, found, verdict, size, profile)
    trail = Trail()

    def flc() -> Step:
        if found is None or verdict is None:
            raise job.error if job.error is not None else RuntimeError("no verdict and no error")
        return full_load_step(job.reading, found, verdict, size, profile, trail)

    def after_flc(make: Callable[[MotorCircuit, Trail], Step]) -> Callable[[], Step]:
        def made() -> Step:
            if found is None or "table_flc_a" not in trail:
                raise MissingError(
                    Message("size.waits"), field="table_flc_a", hint=Message("size.waits.hint")
                )
            return make(job, trail)

        return made

    figures = [
        figure("table_flc_a", flc),
        figure("conductor_size", after_flc(_conductor)),
        figure("protection_device_a", after_flc(_protection)),
        # by the nameplate alone: no table current is needed
        figure("overload_setting_a", functools.partial(_overload, job, trail)),
        figure("grounding_conductor_size", after_flc(_grounding)),
        figure("disconnect_switch_a", after_flc(_disconnect)),
    ]
    if found is not None and found.system == "drive":
        # no fuse and no switch between drive and motor: both are on the drive's input
        figures[2] = figure("protection_device_a", after_flc(_drive_device))
        figures.pop()
    figures += [figure(name, after_flc(make)) for name, make in _switched_figures(job)]
    if size.run_length_ft is not None or size.run_length_m is not None:
        figures += _with_steps("voltage_drop_percent", after_flc(_drop), trail, _DROP_STEPS)
    _locked(job, trail)
    if size.measured_start is not None:
        figures += _with_steps(
            "locked_rotor_measured_a",
            after_flc(_measured_start),
            trail,
            ("code_letter_measured",),
            "start",
        )
    return trail, tuple(figures)


_DROP_STEPS = ("run_conductor_size", "run_grounding_size", "total_drop_percent")


def _with_steps(
    name: str,
    make: Callable[[], Step],
    trail: Trail,
    others: tuple[str, ...],
    group: str = "branch",
) -> list[Figure]:
    """Return the figure that a rule makes, and those of its other steps that it made."""
    made = figure(name, make, group)
    return [made, *(Figure(id=step, step=step, group=group) for step in others if step in trail)]


def further_sizes(job: MotorCircuit, trail: Trail) -> tuple[Figure, ...]:
    """Return the further parts of the size sheet, if the branch circuit itself is there.

    Parameters
    ----------
    job : MotorCircuit
        What it is calculated from, with what the drawn starter says.
    trail : Trail
        Holds the branch circuit; the steps are added to it.
    """
    found, supply = job.supply, job.given_supply
    if found is None or job.verdict is None or job.reading.plate.is_hermetic:
        return ()
    fault_a = None if supply is None else supply.fault_current_a
    is_plain = job.start_method == "full_voltage" and "speed_1_amps_a" not in trail
    if is_plain and fault_a is None and not job.size.asks_more:
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
    return further_figures(
        SizeSheet(
            reading=job.reading,
            supply=found,
            size=job.size,
            profile=job.profile,
            facts=job.conductor_facts(),
            kind=kind_of(job.size),
            trail=trail,
            start_method=job.start_method,
            connection_v=(job.verdict.plate_volts.low, job.verdict.plate_volts.high),
            drive_input_v=found.line_volts_v
            if found.system != "drive"
            else None
            if supply is None
            else supply.drive_input_v,
            fault_a=fault_a,
            by_transformer_a=by_transformer,
        )
    )
