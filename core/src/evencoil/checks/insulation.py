"""Insulation of a winding to its frame: what to ask at a temperature, and what a reading says.

The least resistance asked holds at 40 °C. Practitioners bring a reading there in two ways:
by halving it for each 10 K (windings of asphalt or thermoplastic kind, and the rule of thumb
of most shops), or by the flatter curve of thermosetting windings. Whichever asks for more at
the temperature of the winding is asked here, so neither way passes what the other would not.

Units: [Mohm], [C], [V].
Source: IEEE 43, recommended minimum resistance, temperature correction, polarization index,
test voltage; restated in own words.
"""

from __future__ import annotations

from decimal import ROUND_CEILING, ROUND_FLOOR, Decimal
from math import exp, floor, log10

from evencoil.base import Message

__all__ = [
    "COLDEST_C",
    "HOTTEST_C",
    "at_40_c",
    "insulation_bands",
    "least_at_40_mohm",
    "polarization_index",
    "said_insulation",
    "volts_of_tester",
]

#: windings are read between these; beyond them neither correction is given [°C]
COLDEST_C, HOTTEST_C = 0, 85
#: random-wound or under 1 kV; form-wound from 1 kV up [Mohm at 40 °C]
_RANDOM, _FORM = Decimal(5), Decimal(100)
_FORM_FROM_V = Decimal(1000)
#: rated volts up to it, and the direct volts of the tester
_TEST_V = ((Decimal(999), "500"), (Decimal(2500), "500-1000"), (Decimal(5000), "1000-2500"))
#: resistance at 40 °C above which the polarization index tells nothing [Mohm], and the index asked
_NO_INDEX_MOHM, _INDEX = 5000.0, Decimal(2)


def least_at_40_mohm(rated_v: Decimal) -> Decimal:
    """Return the least resistance asked at 40 °C [Mohm].

    Parameters
    ----------
    rated_v : Decimal
        Highest volts of the nameplate. [V]
    """
    return _FORM if rated_v >= _FORM_FROM_V else _RANDOM


def volts_of_tester(rated_v: Decimal) -> str:
    """Return the direct volts of the tester, as one figure or from one to another [V].

    Parameters
    ----------
    rated_v : Decimal
        Highest volts of the nameplate. [V]
    """
    return next((test for most, test in _TEST_V if rated_v <= most), "2500-5000")


def at_40_c(temp_c: float) -> tuple[float, float]:
    """Return what a resistance is multiplied by to be what it would be at 40 °C, in both ways.

    Parameters
    ----------
    temp_c : float
        Of the winding, `COLDEST_C` to `HOTTEST_C`. [C]

    Returns
    -------
    tuple of float
        By halving for each 10 K, and by the curve of thermosetting windings.
    """
    slope = 4230.0 if temp_c > 40 else 1245.0
    return 0.5 ** ((40 - temp_c) / 10), exp(-slope * (1 / (temp_c + 273) - 1 / 313))


def _asked(least: Decimal, degree: int) -> Decimal:
    """Return the least resistance at a degree, rounded up to three figures [Mohm]."""
    asked = float(least) / min(at_40_c(degree))
    step = Decimal(1).scaleb(floor(log10(asked)) - 2)
    # a hair below, so that 20 of binary fractions is not 20.1
    return (Decimal(asked * (1 - 1e-12)) / step).to_integral_value(ROUND_CEILING) * step


def insulation_bands(rated_v: Decimal) -> tuple[tuple[int, int, str], ...]:
    """Return the least resistance of each degree: from, to, and what is asked [C], [Mohm].

    Parameters
    ----------
    rated_v : Decimal
        Highest volts of the nameplate. [V]
    """
    least = least_at_40_mohm(rated_v)
    return tuple(
        (degree, degree + 1, f"{_asked(least, degree).normalize():f}")
        for degree in range(COLDEST_C, HOTTEST_C)
    )


def polarization_index(one_min: Decimal, ten_min: Decimal) -> Decimal | None:
    """Return resistance after ten minutes over that after one; None where it has none.

    Parameters
    ----------
    one_min : Decimal
        After one minute, infinite where the tester shows an open circuit. [Mohm]
    ten_min : Decimal
        After ten minutes, likewise. [Mohm]
    """
    if not one_min.is_finite() or not ten_min.is_finite() or one_min <= 0:
        return None
    return ten_min / one_min


def said_insulation(
    one_min: Decimal, temp_c: Decimal, ten_min: Decimal | None
) -> tuple[Message, ...]:
    """Return what a reading says, with the arithmetic.

    Parameters
    ----------
    one_min : Decimal
        After one minute. [Mohm]
    temp_c : Decimal
        Of the winding. [C]
    ten_min : Decimal or None
        After ten minutes. [Mohm]
    """
    if not one_min.is_finite() or not COLDEST_C <= temp_c < HOTTEST_C:
        return ()
    halved, flat = at_40_c(floor(temp_c))
    value = f"{one_min.normalize():f}"
    at_40 = Message(
        "insulation.at_40",
        {
            "value": value,
            "temp": f"{temp_c.normalize():f}",
            "halved": f"{float(one_min) * halved:.3g}",
            "flat": f"{float(one_min) * flat:.3g}",
        },
    )
    index = None if ten_min is None else polarization_index(one_min, ten_min)
    if ten_min is None or index is None:
        return (at_40,)
    is_told = float(one_min) * min(halved, flat) <= _NO_INDEX_MOHM
    name = "no_index" if not is_told else "index" if index >= _INDEX else "low_index"
    said = {
        # rounded down: what is under 2 never reads 2.00
        "index": f"{index.quantize(Decimal('0.01'), ROUND_FLOOR)}",
        "ten": f"{ten_min.normalize():f}",
        "one": value,
    }
    return at_40, Message(f"insulation.{name}", said)
