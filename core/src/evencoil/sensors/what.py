"""What a pair of leads is by its ohms: every kind that fits, and what tells them apart.

Units: [ohm], [C], [V], [W].
Source: tables of elements; judgment where a kind has no standard.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from evencoil.base import Message, OutOfRangeError
from evencoil.sensors.elements import ELEMENTS, ohms_of

__all__ = ["Fit", "Told", "what_is_it"]

#: how far the ambient is off, and how many ohms of leads are in the reading
_AMBIENT_K, _LEAD_OHM = 10.0, 2.0
_PTC = {"PTC x1": (20.0, 250.0), "PTC x3": (60.0, 750.0)}
_HEATER_PART = 0.10
_CLOSED_OHM, _OPEN_OHM = 1.0, 1e6


@dataclass(frozen=True, slots=True)
class Fit:
    """A kind that fits, and between which ohms it would read [ohm]."""

    kind: str
    least_ohm: float
    most_ohm: float


@dataclass(frozen=True, slots=True)
class Told:
    """Every kind that fits, and how to tell them apart."""

    fits: tuple[Fit, ...]
    next: tuple[Message, ...]


def what_is_it(
    ohms: float, ambient_c: float, heater_v: float | None = None, heater_w: float | None = None
) -> Told:
    """Return what a pair of leads may be.

    Parameters
    ----------
    ohms : float
        Read between them; infinite is open. [ohm]
    ambient_c : float
        Of the motor, cold. [C]
    heater_v : float or None
        Of the space heater as stamped; None if nothing is. [V]
    heater_w : float or None
        Of the space heater as stamped; None if nothing is. [W]

    Raises
    ------
    OutOfRangeError
        If the reading is no resistance.
    """
    if not ohms >= 0:
        raise OutOfRangeError(
            Message("sensor.negative", {"value": f"{ohms:g}"}),
            field="ohms",
            hint=Message("sensor.ohms.hint"),
        )
    fits = tuple(one for one in _kinds(ambient_c, heater_v, heater_w) if _holds(one, ohms))
    return Told(fits, tuple(_apart({one.kind for one in fits}, has_heater=heater_w is not None)))


def _holds(one: Fit, ohms: float) -> bool:
    return one.least_ohm <= ohms <= one.most_ohm


def _kinds(ambient_c: float, heater_v: float | None, heater_w: float | None) -> Iterator[Fit]:
    for name, known in ELEMENTS.items():
        low = max(ambient_c - _AMBIENT_K, known.least_c)
        high = min(ambient_c + _AMBIENT_K, known.most_c)
        if low <= high:
            yield Fit(name, ohms_of(name, low), ohms_of(name, high) + _LEAD_OHM)
    for name, (least, most) in _PTC.items():
        yield Fit(name, least, most + _LEAD_OHM)
    if heater_v and heater_w:
        own = heater_v**2 / heater_w
        yield Fit("heater", own * (1 - _HEATER_PART), own * (1 + _HEATER_PART) + _LEAD_OHM)
    yield Fit("thermostat closed", 0.0, _CLOSED_OHM)
    yield Fit("thermostat open", _OPEN_OHM, float("inf"))


def _apart(kinds: set[str], *, has_heater: bool) -> Iterator[Message]:
    """Go through what tells several kinds apart, or what is missing to tell."""
    if not kinds:
        yield Message("sensor.nothing_fits")
    if len(kinds) > 1:
        yield Message("sensor.warm")
        if kinds & set(ELEMENTS):
            yield Message("sensor.like_wires")
        if "heater" in kinds:
            yield Message("sensor.heater_figures")
    if not has_heater:
        yield Message("sensor.heater_unknown")
