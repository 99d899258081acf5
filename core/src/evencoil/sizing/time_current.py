"""The time-current sheet of a worked job, and the volts along its run.

Units: current [A], time [s], distance [ft], volts [V].
Rules: ``sizing.curves``; volts along the run by the resistance and reactance that the
voltage drop was calculated with, at full load and at the first moment of the start.
"""

from __future__ import annotations

from dataclasses import dataclass
from decimal import Decimal

from evencoil.base import ConductorSize, Message, MissingError, Trail
from evencoil.codebook import table
from evencoil.sizing.curves import CurveFacts, TimeCurrentSheet, sheet
from evencoil.sizing.inputs import SizeInputs
from evencoil.sizing.locked_rotor import locked_rotor_name
from evencoil.sizing.readings import conductor_facts, kind_of

__all__ = ["RunPoint", "curve_sheet", "volts_along"]

_USUAL_START_S = 3.0
_USUAL_CLASS = 20


def _locked(trail: Trail) -> float | None:
    name = locked_rotor_name(trail)
    return None if name is None else float(trail.number(name))


#: circular mils of a square millimetre
_CMIL_PER_MM2 = 1973.525


def _area_cmil(trail: Trail) -> float:
    """Return the cross-section of the circuit's conductor, metric or AWG [circular mils]."""
    if "conductor_area_mm2" in trail and trail.number("conductor_area_mm2") > 0:
        return float(trail.number("conductor_area_mm2")) * _CMIL_PER_MM2
    name = "run_conductor_size" if "run_conductor_size" in trail else "conductor_size"
    if not isinstance(trail[name].value, ConductorSize):
        raise MissingError(
            Message("own.conductor_unread", {"text": trail[name].shown[:40]}),
            field="conductor_size",
            hint=Message("own.conductor_unread.hint"),
        )
    return _cmil(trail.size(name).size)


def _cmil(size: str) -> float:
    for row in table("ch9_t8").rows:
        if row[0] == size:
            return float(row[1]) * (1000 if row[-1] == "kcmil" else 1)
    raise MissingError(
        Message("curves.size", {"size": size}),
        field="conductor_size",
        hint=Message("size.waits.hint"),
    )


def _above_dial(trail: Trail) -> float:
    """Return the trip current over the overload's figure: an NEC setting is the trip itself.

    Outside the NEC the dial is set to the nameplate's amps, and trips a quarter above.
    """
    return 1.0 if trail["overload_setting_a"].rule is not None else 1.25


#: figures that a person may have brought as text
_FIGURES = ("plate_amps_a", "overload_setting_a", "protection_device_a")


def _refuse_unread(trail: Trail, name: str) -> None:
    """Refuse a figure that is no number above zero: a size by another code, as typed."""
    value = trail[name].value
    if not isinstance(value, Decimal) or value <= 0:
        raise MissingError(
            Message(
                "curves.unread",
                {"what": str(Message(f"label.{name}")), "text": trail[name].shown[:40]},
            ),
            field=name,
            hint=Message("curves.unread.hint"),
        )


def curve_sheet(trail: Trail, size: SizeInputs) -> TimeCurrentSheet:
    """Return the time-current sheet of a branch circuit that was calculated.

    Parameters
    ----------
    trail : Trail
        The branch circuit.
    size : SizeInputs
        Trip class and acceleration time, if they were given.

    Raises
    ------
    MissingError
        If device, overload, conductor or locked-rotor current are not known.
    """
    names = (
        "plate_amps_a",
        "overload_setting_a",
        "protection_device_a",
        "conductor_size",
        "conductor_material",
        "protection_kind",
    )
    locked = _locked(trail)
    gone = next((name for name in names if name not in trail), None)
    if gone is not None or locked is None:
        wanted = str(Message(f"label.{gone or 'locked_rotor_code_a'}"))
        raise MissingError(
            Message("curves.waits", {"for": wanted}),
            field=gone or "code_letter",
            hint=Message("curves.waits.hint"),
        )
    for name in _FIGURES:
        _refuse_unread(trail, name)
    overload = size.overload
    seconds = None if overload is None else overload.accelerates_s
    trip_class = None if overload is None else overload.trip_class
    return sheet(
        CurveFacts(
            plate_a=float(trail.number("plate_amps_a")),
            locked_a=locked,
            accelerates_s=_USUAL_START_S if seconds is None else float(seconds),
            is_start_assumed=seconds is None,
            setting_a=float(trail.number("overload_setting_a")) * _above_dial(trail),
            trip_class=trip_class or _USUAL_CLASS,
            is_class_assumed=trip_class is None,
            device_kind=kind_of(size),
            device_a=float(trail.number("protection_device_a")),
            cmil=_area_cmil(trail) * size.parallel_sets,
            metal=conductor_facts(size).material,
        )
    )


@dataclass(frozen=True, slots=True, kw_only=True)
class RunPoint:
    """Volts at a distance from the starter: running, and at the first moment of the start."""

    distance_ft: Decimal
    running_v: Decimal
    starting_v: Decimal | None


def volts_along(trail: Trail, parts: int = 4) -> tuple[RunPoint, ...]:
    """Return the volts along the run, from its beginning to the motor.

    Parameters
    ----------
    trail : Trail
        Holds ``voltage_drop_percent``, ``run_length_ft`` and ``supply_volts_v``.
    parts : int
        How many equal stretches.

    Returns
    -------
    tuple of RunPoint
        Empty while no run was given. The start is taken with the drop of full load times
        the ratio of the currents, which is near: at the start the power factor is lower and
        reactance counts more.
    """
    if "voltage_drop_percent" not in trail or "run_length_ft" not in trail:
        return ()
    length, volts = trail.number("run_length_ft"), trail.number("supply_volts_v")
    drop, locked = trail.number("voltage_drop_percent") * volts / 100, _locked(trail)
    ratio = None
    if locked is not None and "table_flc_a" in trail:
        ratio = Decimal(str(locked)) / trail.number("table_flc_a")
    return tuple(
        RunPoint(
            distance_ft=length * place / parts,
            running_v=volts - drop * place / parts,
            starting_v=None if ratio is None else volts - drop * ratio * place / parts,
        )
        for place in range(parts + 1)
    )
