"""Unbalance of three readings: how far the worst is from their mean, and from where it counts.

Units: percent of the mean.
Source: NEMA MG 1-12.45 and 14.36 (unbalance of volts: the motor is derated above 1 percent and
not run above 5), restated in own words; amperes: judgment, ten times the volts' own.
"""

from __future__ import annotations

from collections.abc import Sequence
from decimal import Decimal

__all__ = ["CAUSE_PERCENT", "DERATE_PERCENT", "MOST_PERCENT", "unbalance_of_three"]

#: of volts: the motor is derated above the first, and not run above the second
DERATE_PERCENT, MOST_PERCENT = Decimal(1), Decimal(5)
#: of amps: more than this needs a cause
CAUSE_PERCENT = Decimal(10)


def unbalance_of_three(values: Sequence[Decimal]) -> Decimal | None:
    """Return the largest deviation from the mean in percent of it; None without three readings.

    Parameters
    ----------
    values : sequence of Decimal
        Of the three lines or pairs.
    """
    if len(values) < 3 or not all(one.is_finite() for one in values):
        return None
    mean = sum(values, Decimal(0)) / len(values)
    if mean <= 0:
        return None
    return max(abs(one - mean) for one in values) / mean * 100
