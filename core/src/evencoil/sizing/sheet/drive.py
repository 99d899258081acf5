"""A drive ahead of the motor: Part X of Article 430."""

from __future__ import annotations

from collections.abc import Iterator
from decimal import Decimal

from evencoil.base import Figure, Message, MissingError
from evencoil.sizing.drive import drive_conductor, drive_disconnect, drive_output, drive_overload
from evencoil.sizing.inputs import DriveInput
from evencoil.sizing.sheet.context import SizeSheet

__all__ = ["figures"]


def figures(sheet: SizeSheet) -> Iterator[Figure]:
    """Yield conductors, disconnect, overload and output of a drive."""
    asked = sheet.size.drive
    if asked is None:
        return
    yield sheet.figure(
        "drive_conductor_size",
        "drive",
        lambda: drive_conductor(
            _input_a(asked),
            sheet.facts,
            has_bypass=asked.has_bypass,
            edition=sheet.edition,
            trail=sheet.trail,
        ),
        "table_flc_a",
        "terminal_temperature_c",
        "ambient_factor",
    )
    yield sheet.figure(
        "drive_disconnect_a",
        "drive",
        lambda: drive_disconnect(edition=sheet.edition, trail=sheet.trail),
        "drive_input_a",
    )
    yield sheet.figure(
        "drive_overload_a",
        "drive",
        lambda: drive_overload(
            has_overload=asked.has_overload and not asked.has_bypass,
            edition=sheet.edition,
            trail=sheet.trail,
        ),
        "overload_setting_a",
        "plate_amps_a",
    )
    volts = asked.output_v
    if volts is not None:
        yield sheet.figure(
            "drive_output",
            "drive",
            lambda: drive_output(
                volts,
                sheet.connection_v,
                sheet.drive_input_v,
                edition=sheet.edition,
                trail=sheet.trail,
            ),
            "supply_volts_v",
        )


def _input_a(asked: DriveInput) -> Decimal:
    """Return the rated input current of a drive [A]; one that is only drawn has none yet."""
    if asked.input_a is None:
        raise MissingError(
            Message("drive.input_missing"),
            field="size.drive.input_a",
            hint=Message("drive.input_missing.hint"),
        )
    return asked.input_a
