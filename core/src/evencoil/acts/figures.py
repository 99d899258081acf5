"""Readings as they are typed: decimal commas, open circuits, and figures that are none.

Units: those of the reading.
"""

from __future__ import annotations

import re
from collections.abc import Mapping
from decimal import Decimal, InvalidOperation
from typing import Any

__all__ = ["OPEN", "FigureError", "bounds_at", "figure", "is_within", "judged"]

#: above every maximum: a meter that shows an open circuit
OPEN = Decimal("Infinity")
_OPEN = {"OL", "O.L", "O.L.", "0L"}
_THOUSANDS = re.compile(r"^\d{1,3}(,\d{3})+$")


class FigureError(ValueError):
    """A text that is no figure; its first argument is the reason."""


def figure(text: object) -> Decimal:
    """Return a typed reading as a number; an open circuit is infinite.

    Parameters
    ----------
    text : object
        As typed.

    Raises
    ------
    FigureError
        ``which_number`` where a comma can be read two ways, ``out_of_range`` otherwise.
    """
    told = str(text).strip()
    if told.upper() in _OPEN:
        return OPEN
    if "," in told:
        if _THOUSANDS.match(told):
            raise FigureError("which_number")
        told = told.replace(",", ".")
    try:
        value = Decimal(told)
    except InvalidOperation:
        raise FigureError("out_of_range") from None
    if not value.is_finite():
        raise FigureError("out_of_range")
    return value


def is_within(value: Decimal, least: object, most: object) -> bool:
    """Tell whether a reading lies between two bounds, both included; None is no bound.

    Parameters
    ----------
    value : Decimal
        The reading.
    least : object
        Text or None.
    most : object
        Text or None.
    """
    if least is not None and value < figure(least):
        return False
    return most is None or (value != OPEN and value <= figure(most))


def bounds_at(
    expected: Mapping[str, Any] | None, body: Mapping[str, Any]
) -> tuple[object, object] | None:
    """Return between what a reading should lie; None where nothing is known to compare it with.

    Parameters
    ----------
    expected : mapping or None
        Bounds, or bands by temperature: each asks what its coldest degree does.
    body : mapping
        Of the reading, with its temperature.
    """
    if expected is None:
        return None
    bands = expected.get("bands")
    if bands is None:
        return expected.get("min"), expected.get("max")
    if "temp_c" not in body:
        return None
    temperature = figure(body["temp_c"])
    for low, high, least in bands:
        if Decimal(str(low)) <= temperature < Decimal(str(high)):
            return least, None
    return None


def judged(
    value: Decimal, expected: Mapping[str, Any] | None, body: Mapping[str, Any]
) -> bool | None:
    """Tell whether a reading is as expected; None where nothing is known to compare it with.

    Parameters
    ----------
    value : Decimal
        The reading.
    expected : mapping or None
        Bounds, or bands by temperature: each asks what its coldest degree does.
    body : mapping
        Of the reading, with its temperature.
    """
    bounds = bounds_at(expected, body)
    return None if bounds is None else is_within(value, *bounds)
