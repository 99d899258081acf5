"""The rotor side of a wound-rotor motor."""

from __future__ import annotations

from collections.abc import Iterator

from evencoil.base import Figure
from evencoil.sizing.rotor import resistor_conductor, secondary_conductor
from evencoil.sizing.sheet.context import SizeSheet

__all__ = ["figures"]


def figures(sheet: SizeSheet) -> Iterator[Figure]:
    """Yield the secondary conductors and those of the resistor."""
    asked, duty = sheet.size.rotor, sheet.size.duty
    if asked is None:
        return
    yield sheet.figure(
        "secondary_conductor_size",
        "rotor",
        lambda: secondary_conductor(
            asked.secondary_a,
            sheet.facts,
            edition=sheet.edition,
            trail=sheet.trail,
            service=None if duty is None else duty.service,
            rating="continuous" if duty is None else duty.rating,
        ),
        "terminal_temperature_c",
        "ambient_factor",
    )
    resistor = asked.resistor
    if resistor is not None:
        yield sheet.figure(
            "resistor_conductor_size",
            "rotor",
            lambda: resistor_conductor(
                resistor, sheet.facts, edition=sheet.edition, trail=sheet.trail
            ),
            "secondary_a",
            "terminal_temperature_c",
        )
