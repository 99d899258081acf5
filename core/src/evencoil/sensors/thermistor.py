"""Thermistors of a winding, and the relay that watches them.

Units: [ohm], [K].
Source: IEC 60947-8 (limits of three in series; levels of the relay); between the limits a model.
"""

from __future__ import annotations

from itertools import pairwise
from math import exp, log
from typing import Literal

__all__ = ["RESET_OHM", "SHORT_OHM", "TRIP_OHM", "ThermistorRelay", "thermistor_ohms"]

#: kelvins from the rated temperature and ohms of three in series
_THREE = ((-20.0, 240.0), (-5.0, 900.0), (5.0, 4500.0), (15.0, 15_000.0))
_MOST_OHM = 30_000.0
#: the relay trips above the first, may be reset below the second, and takes less for a short [ohm]
TRIP_OHM, RESET_OHM, SHORT_OHM = 3600.0, 1600.0, 20.0


def thermistor_ohms(kelvin: float) -> float:
    """Return the ohms of three thermistors in series [ohm].

    Parameters
    ----------
    kelvin : float
        Of the winding, from their rated temperature. [K]
    """
    if kelvin <= _THREE[0][0]:
        return _THREE[0][1]
    spans = list(pairwise(_THREE))
    # beyond the last it goes on as steep as there
    span = next((one for one in spans if kelvin <= one[1][0]), spans[-1])
    (low, low_ohm), (high, high_ohm) = span
    steep = log(high_ohm / low_ohm) / (high - low)
    return min(low_ohm * exp(steep * (kelvin - low)), _MOST_OHM)


class ThermistorRelay:
    """Trips above its level and on a short; stays tripped until it is reset below another."""

    def __init__(self, *, is_auto: bool = False) -> None:
        """Begin healthy."""
        self.is_auto = is_auto
        self.state: Literal["healthy", "tripped"] = "healthy"

    def look(self, ohms: float, *, is_reset: bool = False) -> str:
        """Return its state after a look at its loop.

        Parameters
        ----------
        ohms : float
            Of the loop. [ohm]
        is_reset : bool
            Its button is pressed meanwhile.
        """
        if ohms > TRIP_OHM or ohms < SHORT_OHM:
            self.state = "tripped"
        elif self.state == "tripped" and ohms < RESET_OHM and (is_reset or self.is_auto):
            self.state = "healthy"
        return self.state
