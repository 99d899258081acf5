"""What the driven machine asks of the shaft, against its speed and in time.

Units: torque [N m], speed [rad/s], inertia [kg m2]. Source: load torque laws of
conveyors, fans and pumps (textbook drives); how far a breakaway torque reaches is
judgment, as written at the constant.
"""

from __future__ import annotations

from dataclasses import dataclass
from math import exp, tanh
from typing import Literal

__all__ = ["Load", "LoadShape"]

LoadShape = Literal["none", "constant", "linear", "quadratic", "overhauling"]

#: dry friction turns its sign over this speed [rad/s]
_DRY = 0.5
#: judgment: breakaway torque is gone after this part of rated speed
_BREAKS_FREE = 0.03
_JAM_TIMES = 20.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Load:
    """A driven machine.

    Attributes
    ----------
    shape : str
        How torque follows speed; ``overhauling`` drives the motor forward whatever it does.
    torque_nm : float
        At ``rated_rad_s``. [N m]
    breakaway_nm : float
        To get it moving at all; no less than a constant load asks. [N m]
    inertia_kg_m2 : float
        At the motor shaft. [kg m2]
    jams_at_s : float or None
        When it sticks. [s]
    has_backstop : bool
        It cannot turn backward.
    is_harmed_backward : bool
        It can, and comes to harm by it.
    """

    shape: LoadShape
    torque_nm: float
    rated_rad_s: float
    inertia_kg_m2: float
    breakaway_nm: float = 0.0
    jams_at_s: float | None = None
    has_backstop: bool = False
    is_harmed_backward: bool = False

    def at(self, speed_rad_s: float, time_s: float = 0.0) -> float:
        """Return the torque that opposes forward motion [N m]; below zero it drives."""
        if self.jams_at_s is not None and time_s >= self.jams_at_s:
            return _JAM_TIMES * max(self.torque_nm, 1.0) * tanh(speed_rad_s / _DRY)
        part = speed_rad_s / self.rated_rad_s
        dry = tanh(speed_rad_s / _DRY)
        if self.shape == "constant":
            base = self.torque_nm * dry
        elif self.shape == "linear":
            base = self.torque_nm * part
        elif self.shape == "quadratic":
            base = self.torque_nm * part * abs(part)
        elif self.shape == "overhauling":
            base = -self.torque_nm
        else:
            base = 0.0
        at_rest = self.torque_nm if self.shape == "constant" else 0.0
        more = max(self.breakaway_nm - at_rest, 0.0)
        return base + more * exp(-abs(part) / _BREAKS_FREE) * dry

    def holds(self, torque_nm: float, time_s: float = 0.0) -> bool:
        """Tell whether it stays at rest against a torque of the motor."""
        if self.has_backstop and torque_nm < 0:
            return True
        if self.shape == "overhauling":
            return False
        if self.jams_at_s is not None and time_s >= self.jams_at_s:
            return abs(torque_nm) <= _JAM_TIMES * max(self.torque_nm, 1.0)
        dry = self.torque_nm if self.shape == "constant" else 0.0
        return abs(torque_nm) <= max(dry, self.breakaway_nm)
