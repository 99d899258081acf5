"""Available fault current against what is marked."""

from __future__ import annotations

from collections.abc import Iterator

from evencoil.base import Figure
from evencoil.sizing.fault import fault_current, interrupting, short_circuit_rating, slash_rating
from evencoil.sizing.protection import FUSES
from evencoil.sizing.sheet.context import SizeSheet

__all__ = ["figures"]


def figures(sheet: SizeSheet) -> Iterator[Figure]:
    """Yield interrupting, short-circuit and slash ratings against the fault current."""
    asked = sheet.size.fault
    if asked is None and sheet.fault_a is None:
        return
    fault_current(sheet.fault_a, sheet.by_transformer_a, trail=sheet.trail)
    yield sheet.figure(
        "device_interrupting",
        "fault",
        lambda: interrupting(
            None if asked is None else asked.device_ka,
            is_fuse=sheet.kind in FUSES,
            edition=sheet.edition,
            trail=sheet.trail,
        ),
    )
    power = sheet.trail.number("power_hp") if "power_hp" in sheet.trail else None
    yield sheet.figure(
        "starter_short_circuit",
        "fault",
        lambda: short_circuit_rating(
            None if asked is None else asked.starter_ka,
            power_hp=power,
            edition=sheet.edition,
            trail=sheet.trail,
        ),
    )
    if asked is not None and asked.device_volts:
        yield sheet.figure(
            "device_volts",
            "fault",
            lambda: slash_rating(
                asked.device_volts, sheet.supply, edition=sheet.edition, trail=sheet.trail
            ),
        )
