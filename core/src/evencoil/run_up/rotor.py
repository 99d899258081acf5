"""The resistors of a wound-rotor start: how many steps, how large, at what speed each goes.

Equal peaks of torque: the first step gives its peak at standstill, and each contactor
closes at the speed where the next step gives the same peak again, so that rotor
resistances fall by one ratio. Source: starting of wound-rotor motors (textbook).

Units: resistances as multiples of the rotor's own, [percent] of rated torque.
"""

from __future__ import annotations

from dataclasses import dataclass
from decimal import Decimal
from math import pi

from evencoil.base import Trail
from evencoil.codebook import assumed, given
from evencoil.run_up.asked import Asked
from evencoil.run_up.finder import refused
from evencoil.solver.motor import Fitted, Targets

__all__ = ["RotorSteps", "find_rotor"]

#: judgment: resistor steps and peak torque of a start where no one entered them
_STEPS, _PEAK = 4, 150


@dataclass(frozen=True, slots=True, kw_only=True)
class RotorSteps:
    """The steps of a start.

    Attributes
    ----------
    times : tuple of float
        Resistance of the rotor circuit in each step over the rotor's own; the last is 1.
    from_rad_s : tuple of float
        The speed from which each step stands. [rad/s]
    own_ohm : float or None
        Of the rotor per phase, at its slip rings, from the secondary volts and amps of the
        nameplate; None where these are not stamped. [ohm]
    """

    times: tuple[float, ...]
    from_rad_s: tuple[float, ...]
    own_ohm: float | None


def find_rotor(asked: Asked, trail: Trail, fitted: Fitted, targets: Targets) -> RotorSteps:
    """Return the steps of the rotor's resistor.

    Parameters
    ----------
    asked : Asked
        With the number of steps and the peak, where someone entered them.
    trail : Trail
        Gets both.
    fitted : Fitted
        The circuit with slip rings shorted.
    targets : Targets
        Its rated torque.

    Raises
    ------
    RefusedError
        If the motor never gives such a peak.
    """
    load, circuit = asked.load, fitted.circuit
    if load.rotor_steps is not None:
        count = int(given(trail, "rotor_steps", Decimal(load.rotor_steps), "").number)
    else:
        count = int(assumed(trail, "rotor_steps", Decimal(_STEPS), "", "run_up.rotor_steps").number)
    if load.rotor_peak_percent is not None:
        peak = given(trail, "rotor_peak_percent", load.rotor_peak_percent, "percent").number
    else:
        peak = assumed(
            trail, "rotor_peak_percent", Decimal(_PEAK), "percent", "run_up.rotor_peak"
        ).number
    wanted = float(peak) / 100 * targets.rated_nm
    most, breaks = circuit.breakdown()
    if wanted >= most:
        raise refused(
            "rotor_peak_high",
            "load.rotor_peak_percent",
            peak=f"{float(peak):.0f}",
            most=f"{100 * most / targets.rated_nm:.0f}",
        )
    low, high = 0.0, breaks
    for _ in range(60):
        middle = (low + high) / 2
        low, high = (middle, high) if circuit.at(middle).torque_nm < wanted else (low, middle)
    ratio = (1 / high) ** (1 / count)
    own = None
    if asked.plate.secondary_v is not None and asked.plate.secondary_a is not None:
        # rated slip is the drop of rated secondary current over the open volts
        open_v = float(asked.plate.secondary_v) / 3**0.5
        own = targets.slip * open_v / float(asked.plate.secondary_a)
    top = 2 * pi * targets.hz / targets.pole_pairs
    return RotorSteps(
        times=tuple(ratio ** (count - step) for step in range(count + 1)),
        from_rad_s=tuple(top * (1 - ratio**-step) for step in range(count + 1)),
        own_ohm=own,
    )
