"""Conductors and overload of each speed."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial

from evencoil.base import Figure
from evencoil.sizing.overload import overload_percent
from evencoil.sizing.sheet.context import SizeSheet
from evencoil.sizing.speeds import speed_conductor, speed_overload

__all__ = ["figures"]


def figures(sheet: SizeSheet) -> Iterator[Figure]:
    """Yield conductors and overload of each speed, where the motor has several."""
    if "speed_1_amps_a" not in sheet.trail:
        return
    count = sum(step.id.startswith("speed_") for step in list(sheet.trail))
    plate = sheet.reading.plate
    percent = overload_percent(plate.service_factor, plate.temperature_rise_c)
    for place in range(1, count + 1):
        yield sheet.figure(
            f"speed_{place}_conductor_size",
            "speeds",
            partial(
                speed_conductor,
                place,
                sheet.facts,
                follows_largest=sheet.size.speeds is not None and sheet.size.speeds.each_protected,
                edition=sheet.edition,
                trail=sheet.trail,
            ),
            "terminal_temperature_c",
            "ambient_factor",
        )
        yield sheet.figure(
            f"speed_{place}_overload_a",
            "speeds",
            partial(speed_overload, place, percent, edition=sheet.edition, trail=sheet.trail),
        )
