"""The heater of the door's own chart, and what is installed."""

from __future__ import annotations

from collections.abc import Iterator
from decimal import Decimal

from evencoil.base import Figure, Step
from evencoil.sizing.heater_place import SHARE_PERCENT
from evencoil.sizing.heaters.choose import HeaterKey, choose_heater, heater_of_code
from evencoil.sizing.heaters.read import HeaterRow, HeaterTable
from evencoil.sizing.inputs import HeaterInput
from evencoil.sizing.installed import heaters_there
from evencoil.sizing.sheet.context import SizeSheet

__all__ = ["existing_heaters", "figures", "heater_table"]


def figures(sheet: SizeSheet) -> Iterator[Figure]:
    """Yield the heater by the chart, and the verdict on the installed one."""
    asked = sheet.size.heater
    if asked is None:
        return
    heaters = heater_table(asked)
    key = HeaterKey(
        relay_type=asked.relay_type,
        starter_size=asked.starter_size,
        elements=asked.elements,
        basis=asked.basis,
    )
    yield sheet.figure(
        "heater_code",
        "overload",
        lambda: choose_heater(
            heaters,
            key,
            service_factor=sheet.reading.plate.service_factor,
            edition=sheet.edition,
            trail=sheet.trail,
        ),
    )
    if asked.code:
        yield sheet.figure(
            "heater_there_a",
            "overload",
            lambda: heater_of_code(
                heaters, key, asked.code, edition=sheet.edition, trail=sheet.trail
            ),
        )
        yield sheet.figure(
            "existing_heaters",
            "overload",
            lambda: existing_heaters(sheet, sheet.trail.number("heater_there_a")),
            "heater_there_a",
            "overload_setting_a",
            "plate_amps_a",
        )


def existing_heaters(sheet: SizeSheet, trip_a: Decimal) -> Step:
    """Return the verdict on the heaters that are installed.

    Parameters
    ----------
    sheet : SizeSheet
        The branch circuit.
    trip_a : Decimal
        Current at which they trip. [A]
    """
    others = tuple(band.high for band in sheet.reading.plate.amps_a)
    asked = sheet.size.overload
    share = Decimal(100) if asked is None else SHARE_PERCENT[asked.place]
    return heaters_there(
        trip_a, others, edition=sheet.edition, trail=sheet.trail, share_percent=share
    )


def heater_table(given_table: HeaterInput) -> HeaterTable:
    """Return the heater table that travels with a job as the core takes it.

    Parameters
    ----------
    given_table : HeaterInput
        What the job holds.
    """
    chart = given_table.table
    return HeaterTable(
        name=chart.name,
        source=chart.source,
        factor=chart.factor,
        rows=tuple(
            HeaterRow(**{name: getattr(row, name) for name in HeaterRow.__slots__})
            for row in chart.rows
        ),
    )
