"""The shaft-current loop that a plain probe in an insulated bearing closes.

Source: trade practice of insulated bearings (IEEE 112 and NEMA MG 1-31 in their subject).
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

__all__ = ["BearingEnd", "loop_flows"]

Bearing = Literal["plain", "housing", "outer ring", "inner ring", "ceramic"]
Probe = Literal["none", "plain", "insulated", "failed"]


@dataclass(frozen=True, slots=True, kw_only=True)
class BearingEnd:
    """One end of a motor: where its bearing is insulated, and what probe sits in it."""

    bearing: Bearing
    probe: Probe = "none"

    @property
    def conducts(self) -> bool:
        """Tell whether current passes from the shaft to the frame here."""
        if self.bearing == "plain":
            return True
        # the tip touches the outer ring: insulation outside of it is bridged, inside it is not
        is_bridged = self.probe in {"plain", "failed"}
        return is_bridged and self.bearing in {"housing", "outer ring"}


def loop_flows(one: BearingEnd, other: BearingEnd) -> bool:
    """Tell whether shaft current flows: both ends have to conduct.

    Parameters
    ----------
    one : BearingEnd
        One end of a motor.
    other : BearingEnd
        The other.
    """
    return one.conducts and other.conducts
