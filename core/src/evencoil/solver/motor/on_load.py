"""A motor with its load, its heat and its relay: all that a rehearsal needs to move on it.

Units: in the names.
"""

from __future__ import annotations

from dataclasses import dataclass

from evencoil.solver.motor.heat import RelayClass, RelayKind
from evencoil.solver.motor.loads import Load
from evencoil.solver.motor.machine import Machine

__all__ = ["MotorOnLoad"]


@dataclass(frozen=True, slots=True, kw_only=True)
class MotorOnLoad:
    """A motor whose nameplate was read, as a rehearsal runs it.

    Attributes
    ----------
    coil_rated_a : tuple of float
        Rated current of each coil. [A]
    starting : Machine or None
        A single-phase motor with its start circuit closed; ``machine`` is the same with it open.
    opens_rad_s : float or None
        Where its start switch opens. [rad/s]
    rated_rise_k, limit_k : float
        Rise of the winding at rated load, and where its class is passed, above the ambient. [K]
    ambient_c : float
        Air around the motor. [C]
    """

    machine: Machine
    load: Load
    coil_rated_a: tuple[float, ...]
    rated_rise_k: float
    limit_k: float
    ambient_c: float
    relay_class: RelayClass
    relay_kind: RelayKind
    starting: Machine | None = None
    opens_rad_s: float | None = None
