"""Resistance thermometers: ohms of an element at a temperature, and back.

Units: [ohm], [C].
Source: IEC 60751 (platinum); nickel 120 and copper 10 as tabulated in docs/logic.md, CHECK THE
BOOK.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from itertools import pairwise
from typing import Literal

from evencoil.base import Message, OutOfRangeError

__all__ = ["ELEMENTS", "Element", "ElementName", "celsius_of", "ohms_of"]

ElementName = Literal["Pt100", "Pt1000", "Ni120", "Cu10"]
#: platinum: linear, square, and below zero the fourth-order coefficient
_A, _B, _C = 3.9083e-3, -5.775e-7, -4.183e-12
_CU_OHM, _CU = 9.035, 0.00427
_NI: tuple[tuple[float, float], ...] = (
    (-80, 66.60),
    (-60, 79.62),
    (-40, 92.76),
    (-20, 106.15),
    (0, 120.00),
    (20, 134.52),
    (40, 149.79),
    (60, 165.90),
    (80, 182.84),
    (100, 200.64),
    (120, 219.29),
    (140, 238.85),
    (160, 259.30),
    (180, 280.77),
    (200, 303.46),
    (220, 327.53),
    (240, 353.14),
    (260, 380.31),
)


@dataclass(frozen=True, slots=True, kw_only=True)
class Element:
    """A kind of element: its range [C], and whether its table has to be checked in the book."""

    name: ElementName
    least_c: float
    most_c: float
    is_doubted: bool


ELEMENTS: Mapping[str, Element] = {
    "Pt100": Element(name="Pt100", least_c=-200, most_c=850, is_doubted=False),
    "Pt1000": Element(name="Pt1000", least_c=-200, most_c=850, is_doubted=False),
    "Ni120": Element(name="Ni120", least_c=-80, most_c=260, is_doubted=True),
    "Cu10": Element(name="Cu10", least_c=-70, most_c=260, is_doubted=True),
}


def _element(name: str) -> Element:
    if name not in ELEMENTS:
        raise OutOfRangeError(
            Message("sensor.no_element", {"name": name[:20]}),
            field="element",
            hint=Message("sensor.no_element.hint", {"names": ", ".join(ELEMENTS)}),
        )
    return ELEMENTS[name]


def _ohms(name: str, celsius: float) -> float:
    if name == "Cu10":
        return _CU_OHM * (1 + _CU * celsius)
    if name == "Ni120":
        for (low, low_ohm), (high, high_ohm) in pairwise(_NI):
            if celsius <= high:
                return low_ohm + (high_ohm - low_ohm) * (celsius - low) / (high - low)
    part = 1 + _A * celsius + _B * celsius**2
    if celsius < 0:
        part += _C * (celsius - 100) * celsius**3
    return (1000 if name == "Pt1000" else 100) * part


def ohms_of(name: str, celsius: float) -> float:
    """Return the ohms of an element at a temperature [ohm].

    Parameters
    ----------
    name : str
        As ``Pt100``.
    celsius : float
        Its temperature [C].

    Raises
    ------
    OutOfRangeError
        Outside of the element's range, or for an element that is not known.
    """
    known = _element(name)
    if not known.least_c <= celsius <= known.most_c:
        raise OutOfRangeError(
            Message(
                "sensor.temperature",
                {
                    "name": name,
                    "value": f"{celsius:g}",
                    "least": f"{known.least_c:g}",
                    "most": f"{known.most_c:g}",
                },
            ),
            field="celsius",
            hint=Message("sensor.temperature.hint"),
        )
    return _ohms(name, celsius)


def celsius_of(name: str, ohms: float) -> float:
    """Return the temperature at which an element has some ohms [C].

    Parameters
    ----------
    name : str
        As ``Pt100``.
    ohms : float
        Of the element alone, leads taken off [ohm].

    Raises
    ------
    OutOfRangeError
        If no temperature of its range gives these ohms.
    """
    known = _element(name)
    low, high = known.least_c, known.most_c
    least, most = _ohms(name, low), _ohms(name, high)
    if not least - 1e-9 <= ohms <= most + 1e-9:
        raise OutOfRangeError(
            Message(
                "sensor.ohms",
                {
                    "name": name,
                    "value": f"{ohms:g}",
                    "least": f"{least:.4g}",
                    "most": f"{most:.4g}",
                },
            ),
            field="ohms",
            hint=Message("sensor.ohms.hint"),
        )
    # each of them only rises: halving finds the place
    for _ in range(60):
        middle = (low + high) / 2
        if _ohms(name, middle) < ohms:
            low = middle
        else:
            high = middle
    return (low + high) / 2
