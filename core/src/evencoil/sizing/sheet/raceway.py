"""The raceway of the circuit."""

from __future__ import annotations

from collections.abc import Iterator

from evencoil.base import Figure, Step
from evencoil.sizing.inputs import RacewayInput
from evencoil.sizing.raceway import Inside, raceway
from evencoil.sizing.sheet.context import SizeSheet

__all__ = ["figures"]


def figures(sheet: SizeSheet) -> Iterator[Figure]:
    """Yield the raceway, if one was asked for."""
    asked = sheet.size.raceway
    if asked is None:
        return
    yield sheet.figure(
        "raceway_size",
        "run",
        lambda: _raceway(sheet, asked),
        "conductor_size",
        "grounding_conductor_size",
    )


def _raceway(sheet: SizeSheet, asked: RacewayInput) -> Step:
    trail = sheet.trail
    wire = trail.size("run_conductor_size" if "run_conductor_size" in trail else "conductor_size")
    ground = trail.size(
        "run_grounding_size" if "run_grounding_size" in trail else "grounding_conductor_size"
    )
    is_switched = sheet.start_method != "full_voltage"
    if is_switched and "leg_conductor_size" in trail:
        # from starter to motor: six conductors by lead
        wire = trail.size("leg_conductor_size")
    inside = [
        Inside(
            size=wire.size,
            insulation=sheet.facts.insulation,
            count=2 if sheet.phases < 3 else 6 if is_switched else 3,
        ),
        Inside(size=ground.size, insulation=sheet.facts.insulation, count=1),
    ]
    if asked.control_count:
        inside.append(
            Inside(
                size=asked.control_size,
                insulation=sheet.facts.insulation,
                count=asked.control_count,
            )
        )
    return raceway(
        asked.kind,
        inside,
        edition=sheet.edition,
        trail=sheet.trail,
        installed=asked.trade_size,
        is_nipple=asked.is_nipple,
    )
