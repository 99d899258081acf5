"""The existing installation, item by item, and the weakest of it."""

from __future__ import annotations

from collections.abc import Iterator
from decimal import Decimal

from evencoil.base import Figure, Step
from evencoil.sizing.installed import (
    Cable,
    cable_there,
    device_there,
    other_loads_there,
    plug_there,
    weakest_part,
)
from evencoil.sizing.protection import ratings_in
from evencoil.sizing.sheet.context import SizeSheet
from evencoil.sizing.sheet.heater import existing_heaters

__all__ = ["figures"]


def figures(sheet: SizeSheet) -> Iterator[Figure]:
    """Yield the verdict on each existing item, and the weakest part."""
    asked = sheet.size.existing
    if asked is None:
        return
    cable = asked.cable
    if cable is not None:
        there = Cable(
            kind=cable,
            size=asked.cable_size,
            metal=asked.cable_metal,
            insulation=asked.cable_insulation,
            terminal_c=asked.terminal_c,
        )
        yield sheet.figure(
            "existing_cable",
            "existing",
            lambda: cable_there(
                there,
                sheet.trail.number("ambient_factor") * sheet.trail.number("adjustment_factor"),
                edition=sheet.edition,
                trail=sheet.trail,
            ),
            "required_ampacity_a",
            "ambient_factor",
            "adjustment_factor",
        )
    others, device, trip = asked.other_loads_a, asked.device_a, asked.trip_a
    if others is not None:
        yield sheet.figure(
            "there_other_loads",
            "existing",
            lambda: other_loads_there(
                others,
                sheet.trail.number("existing_cable_a"),
                edition=sheet.edition,
                trail=sheet.trail,
            ),
            "existing_cable_a",
            "required_ampacity_a",
        )
    if device is not None:
        yield sheet.figure(
            "existing_device", "existing", lambda: _device(sheet, device), "protection_limit_a"
        )
    if trip is not None:
        yield sheet.figure(
            "existing_heaters",
            "existing",
            lambda: existing_heaters(sheet, trip),
            "overload_setting_a",
            "plate_amps_a",
        )
    plug, volts = asked.plug_a, asked.plug_v
    if plug is not None and volts is not None:
        yield sheet.figure(
            "existing_plug",
            "existing",
            lambda: plug_there(
                amps_a=plug,
                volts_v=volts,
                rated_hp=asked.plug_hp,
                edition=sheet.edition,
                trail=sheet.trail,
            ),
            "table_flc_a",
            "supply_volts_v",
            "power_hp",
        )
    if weakest_part(edition=sheet.edition, trail=sheet.trail) is not None:
        yield Figure(id="weakest_part", step="weakest_part", group="existing")


def _device(sheet: SizeSheet, amps_a: Decimal) -> Step:
    plate = sheet.reading.plate
    ratings = ratings_in(
        sheet.trail,
        kind=sheet.kind,
        phases=plate.phases or sheet.supply.phases,
        edition=sheet.edition,
        design_letter=plate.design_letter,
        is_premium=plate.is_premium_efficiency,
        machine=sheet.size.machine,
    )
    return device_there(
        amps_a,
        ratings,
        has_no_start=sheet.size.no_start is not None,
        edition=sheet.edition,
        trail=sheet.trail,
    )
