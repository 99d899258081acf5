"""The further parts of the size sheet, one module for each group of figures.

Each has ``figures(sheet)``, which yields nothing where nothing was asked for. A part that is
refused takes no other with it.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator

from evencoil.base import Figure
from evencoil.sizing.sheet import (
    control,
    disconnects,
    drive,
    existing,
    fault,
    heater,
    overload,
    raceway,
    rotor,
    speeds,
    start,
)
from evencoil.sizing.sheet.context import SizeSheet

__all__ = ["PARTS", "SizeSheet", "further_figures"]

#: in the order of the sheet
PARTS: tuple[Callable[[SizeSheet], Iterator[Figure]], ...] = (
    speeds.figures,
    rotor.figures,
    overload.figures,
    heater.figures,
    start.figures,
    raceway.figures,
    fault.figures,
    drive.figures,
    control.figures,
    disconnects.figures,
    existing.figures,
)


def further_figures(sheet: SizeSheet) -> tuple[Figure, ...]:
    """Return every further figure that was asked for, in the order of the sheet."""
    return tuple(figure for part in PARTS for figure in part(sheet))
