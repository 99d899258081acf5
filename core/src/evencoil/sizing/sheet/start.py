"""What the start takes from the line, and the torque that is left."""

from __future__ import annotations

from collections.abc import Iterator
from decimal import Decimal

from evencoil.base import Figure
from evencoil.sizing.sheet.context import SizeSheet
from evencoil.sizing.starting import full_load_torque, slip, start_current, start_torque

__all__ = ["figures"]

_USUAL_TAP = Decimal(65)


def figures(sheet: SizeSheet) -> Iterator[Figure]:
    """Yield line current and torque at the start, slip and full-load torque."""
    asked = sheet.size.start
    plate = sheet.reading.plate
    if asked is None and sheet.start_method == "full_voltage":
        return
    tap = _USUAL_TAP if asked is None else asked.tap_percent
    start = "autotransformer" if asked is not None else sheet.start_method
    if start not in {"autotransformer", "wye_delta", "part_winding"}:
        return
    yield sheet.figure(
        "line_start_a",
        "start",
        lambda: start_current(
            start,
            tap,
            letter_is_wye="wye_delta" in plate.words,
            edition=sheet.edition,
            trail=sheet.trail,
        ),
    )
    yield sheet.figure(
        "start_torque_percent",
        "start",
        lambda: start_torque(start, tap, edition=sheet.edition, trail=sheet.trail),
    )
    if plate.speed_rpm and "power_hp" in sheet.trail:
        speed = max(plate.speed_rpm)
        yield sheet.figure(
            "slip_percent",
            "start",
            lambda: slip(
                speed, sheet.supply.frequency_hz, edition=sheet.edition, trail=sheet.trail
            ),
        )
        yield sheet.figure(
            "full_load_torque_lbft",
            "start",
            lambda: full_load_torque(
                sheet.trail.number("power_hp"), speed, edition=sheet.edition, trail=sheet.trail
            ),
        )
