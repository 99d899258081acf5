"""Sizes by another code than the NEC: a person's own, and what can be calculated from them.

Units: current [A], volts [V], area [mm2], length [m], resistance [ohm/km].
Sources: nameplate amps for the overload; IEC 60228 Table 2 for the resistance of metric
conductors, taken to 70 C with the temperature coefficient of the metal, and 0.08 ohm/km of
reactance for cables of one circuit (textbook values); AWG by Chapter 9 Table 9. Fault current
is held only against ratings that were read off the equipment.
"""

from __future__ import annotations

import functools
import re
from collections.abc import Callable, Iterator
from decimal import Decimal

from evencoil.base import (
    ROOT3,
    ConductorSize,
    CoreError,
    Figure,
    Message,
    MissingError,
    NotInTableError,
    RefusedError,
    Rule,
    Step,
    Trail,
    figure,
    number,
    plain,
    show,
    wait_for,
)
from evencoil.codebook import Edition, given, table
from evencoil.plate import PlateReading, Supply, Verdict
from evencoil.sizing.drop import DropFacts, voltage_drop
from evencoil.sizing.fault import fault_current
from evencoil.sizing.inputs import OwnSizeInput, SizeInputs
from evencoil.sizing.measured_start import measured_start
from evencoil.sizing.readings import conductor_facts, read_step, size_input

__all__ = ["own_sizes"]

_FIGURES = (
    "table_flc_a",
    "conductor_size",
    "protection_device_a",
    "overload_setting_a",
    "grounding_conductor_size",
    "disconnect_switch_a",
)
_AREA = re.compile(r"(\d+(?:[.,]\d+)?)\s*(?:mm2|mm²|sq\s*mm|sqmm)", re.IGNORECASE)
_AMPS = re.compile(r"^\s*(\d+(?:[.,]\d+)?)\s*A?\b")
_AWG = re.compile(r"^\s*(\d{1,4}(?:/0)?)\s*(?:AWG|KCMIL)?\s*$", re.IGNORECASE)
#: coefficient of resistance per kelvin at 20 C, and the warm conductor of ordinary insulation
_WARM = {"cu": 1 + Decimal("0.00393") * 50, "al": 1 + Decimal("0.00403") * 50}
_REACTANCE_OHM_PER_KM = Decimal("0.08")
_FT_PER_M = Decimal("3.28084")
_IEC = Rule(standard="IEC 60228", edition=2004, section="Table 2")
_RATING = Rule(standard="IEC 60947-1", edition=2020, section="short-circuit ratings")


def own_sizes(
    size: SizeInputs,
    reading: PlateReading,
    supply: Supply | None,
    verdict: Verdict | None,
    fault_a: Decimal | None,
    edition: Edition,
) -> tuple[Trail, tuple[Figure, ...]]:
    """Return the sizes that a person brings, where the NEC does not hold.

    The overload is known without any code: it is set to the nameplate's amps. Voltage drop,
    fault current and locked-rotor current are calculated from what was entered.

    Parameters
    ----------
    size : SizeInputs
        What decides the sizes, with the person's own.
    reading : PlateReading
        The nameplate.
    supply : Supply or None
        The supply.
    verdict : Verdict or None
        The nameplate column in use.
    fault_a : Decimal or None
        Available fault current as entered. [A]
    edition : int
        Edition of the tables for AWG sizes.
    """
    trail = Trail()
    amps = None if verdict is None else reading.plate.amps_at(verdict.column, verdict.used_volts_v)
    if amps is not None:
        read_step(trail, "plate_amps_a", amps, "A", plain(amps), reading)
    if supply is not None:
        said = Message("read.supply", {"text": supply.text, "value": plain(supply.line_volts_v)})
        trail.add(
            Step(
                id="supply_volts_v",
                value=supply.line_volts_v,
                unit="V",
                kind="read",
                shown=plain(supply.line_volts_v),
                working=said,
            )
        )
    own = {item.figure: item for item in size.own}
    figures = [
        figure(name, functools.partial(_brought, name, own.get(name), trail)) for name in _FIGURES
    ]
    if "conductor_size" in trail:
        size_input(trail, "conductor_material", size.conductor_material)
    if "protection_device_a" in trail:
        size_input(trail, "protection_kind", size.protection_kind)
    phases = reading.plate.phases or (3 if supply is None else supply.phases)
    if size.run_length_ft is not None or size.run_length_m is not None:
        drop = functools.partial(_drop, size, reading, phases, edition, trail)
        figures.append(figure("voltage_drop_percent", drop, "drop"))
    figures += _fault(size, fault_a, trail)
    if size.measured_start is not None and verdict is not None:
        locked = size.measured_start
        volts = verdict.plate_volts.high
        figures.append(
            figure(
                "locked_rotor_measured_a",
                lambda: measured_start(
                    locked, reading, volts_v=volts, phases=phases, edition=edition, trail=trail
                ),
                "start",
            )
        )
        if "code_letter_measured" in trail:
            figures.append(
                Figure(id="code_letter_measured", step="code_letter_measured", group="start")
            )
    return trail, tuple(figures)


def _value(name: str, text: str) -> tuple[Decimal | ConductorSize | str, str]:
    """Return what a person's text means to the calculations, and its unit."""
    if name in {"table_flc_a", "protection_device_a", "overload_setting_a", "disconnect_switch_a"}:
        found = _AMPS.match(text)
        return (number(found[1], field=name), "A") if found else (text, "")
    awg = _AWG.match(text)
    if awg:
        try:
            size = ConductorSize(awg[1])
        except CoreError:
            return text, ""
        return size, size.unit
    return text, ""


def _brought(name: str, item: OwnSizeInput | None, trail: Trail) -> Step:
    if item is None and name == "overload_setting_a" and "plate_amps_a" in trail:
        amps = trail["plate_amps_a"]
        return trail.add(
            Step(
                id=name,
                value=amps.number,
                unit="A",
                kind="read",
                shown=amps.shown,
                working=Message("own.overload", {"amps": amps.shown}),
                uses=("plate_amps_a",),
            )
        )
    if item is None:
        raise RefusedError(
            Message("size.territory"), field=name, hint=Message("size.territory.hint")
        )
    area = _AREA.search(item.value) if name == "conductor_size" else None
    if area is not None:
        given(trail, "conductor_area_mm2", number(area[1], field=name), "mm²")
    value, _ = _value(name, item.value)
    working = Message("own.size", {"value": item.value, "source": item.source})
    return trail.add(
        Step(id=name, value=value, unit="", kind="read", shown=item.value, working=working)
    )


def _drop(
    size: SizeInputs, reading: PlateReading, phases: int, edition: Edition, trail: Trail
) -> Step:
    """Return the voltage drop of a person's own conductor [%]."""
    wait_for(trail, "conductor_size", "supply_volts_v", "plate_amps_a")
    metres = size.run_length_m or (size.run_length_ft or Decimal(0)) / _FT_PER_M
    limit = size.drop_limit_percent or Decimal(3)
    factor = next(iter(reading.plate.power_factor_percent), None)
    cosine = Decimal("0.85") if factor is None else factor / 100
    if "conductor_area_mm2" in trail:
        return _metric_drop(size, metres, cosine, phases, limit, trail)
    if not isinstance(trail["conductor_size"].value, ConductorSize):
        raise NotInTableError(
            Message("own.conductor_unread", {"text": trail["conductor_size"].shown[:40]}),
            field="conductor_size",
            hint=Message("own.conductor_unread.hint"),
        )
    given(trail, "run_length_ft", metres * _FT_PER_M, "ft")
    return voltage_drop(
        DropFacts(
            length_ft=metres * _FT_PER_M,
            limit_percent=limit,
            method=size.drop_method,
            conduit=size.conduit,
            material=conductor_facts(size).material,
            phases=phases,
            volts_v=trail.number("supply_volts_v"),
            power_factor=cosine,
            parallel_sets=size.parallel_sets,
        ),
        edition=edition,
        trail=trail,
        current="plate_amps_a",
    )


def _metric_drop(
    size: SizeInputs, metres: Decimal, cosine: Decimal, phases: int, limit: Decimal, trail: Trail
) -> Step:
    """Return the voltage drop of a metric conductor [%], warm, with usual reactance."""
    area = trail.number("conductor_area_mm2")
    book = table("iec_60228")
    material = conductor_facts(size).material
    rows = book.figures("area_mm2")
    column = f"r_{material}_ohm_per_km"
    row = rows.index(area) if area in rows else None
    if row is None or book.number(row, column) is None:
        raise NotInTableError(
            Message("own.no_area", {"area": plain(area)}),
            field="conductor_size",
            hint=Message("own.no_area.hint"),
        )
    found = book.find(row, column, edition=2023)
    warm = found.value * _WARM[material]
    ohm = warm * cosine + _REACTANCE_OHM_PER_KM * (1 - cosine * cosine).sqrt()
    amps, volts = trail.number("plate_amps_a"), trail.number("supply_volts_v")
    times = ROOT3 if phases == 3 else Decimal(2)
    lost = times * amps * ohm * metres / 1000 / size.parallel_sets
    percent = lost / volts * 100
    given(trail, "run_length_m", metres, "m", shown=show(metres))
    return trail.add(
        Step(
            id="voltage_drop_percent",
            value=percent,
            unit="%",
            kind="calculated",
            shown=show(percent),
            working=Message(
                "own.drop",
                {
                    "times": "1.732" if phases == 3 else "2",
                    "amps": plain(amps),
                    "cold": plain(found.value),
                    "warm": show(warm),
                    "ohm": show(ohm),
                    "metres": show(metres),
                    "sets": str(size.parallel_sets),
                    "lost": show(lost),
                    "volts": plain(volts),
                    "percent": show(percent),
                    "limit": plain(limit),
                },
            ),
            rule=_IEC,
            uses=("plate_amps_a", "conductor_size", "run_length_m", "supply_volts_v"),
            cell=found.cell,
            marks=found.marks,
        )
    )


def _fault(size: SizeInputs, fault_a: Decimal | None, trail: Trail) -> Iterator[Figure]:
    """Yield what is marked on the equipment, held against the available fault current."""
    asked = size.fault
    if fault_a is None and asked is None:
        return
    fault_current(fault_a, None, trail=trail)
    for name, rating in (
        ("device_interrupting", None if asked is None else asked.device_ka),
        ("starter_short_circuit", None if asked is None else asked.starter_ka),
    ):
        make: Callable[[], Step] = functools.partial(_against, name, rating, trail)
        yield figure(name, make, "fault")


def _against(name: str, rating_ka: Decimal | None, trail: Trail) -> Step:
    if rating_ka is None:
        raise MissingError(
            Message("own.rating_asked"),
            field="size.fault",
            hint=Message("own.rating_asked.hint"),
        )
    amps, most = trail.number("fault_current_a"), rating_ka * 1000
    holds = most >= amps
    said = "fault.interrupting" if name == "device_interrupting" else "fault.withstand"
    given(trail, f"{name}_ka", rating_ka, "kA")
    return trail.add(
        Step(
            id=name,
            value="holds" if holds else "fails",
            unit="",
            kind="calculated",
            shown=f"{plain(rating_ka)} kA",
            working=Message(
                f"{said}.{'holds' if holds else 'fails'}",
                {"rating": plain(most), "amps": show(amps), "short": show(amps - most)},
            ),
            rule=_RATING,
            uses=("fault_current_a", f"{name}_ka"),
            verdict="holds" if holds else "fails",
        )
    )
