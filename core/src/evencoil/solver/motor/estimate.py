"""The equivalent circuit that comes nearest to a nameplate.

Seven constants are fitted to what is stamped (power and current at rated speed, power
factor) and to what is stamped, typed or usual for such motors (locked-rotor
current and torque, breakdown torque). Some ways to part the losses and the
reactances are judgment, as written at each constant; nothing was measured on this motor.

Units: [W], [V], [A], [ohm]; torques as parts of the rated torque.
Source: double-cage equivalent circuit; damped least squares (Levenberg-Marquardt).
"""

from __future__ import annotations

from dataclasses import dataclass
from math import exp, log, pi, sqrt

import numpy as np

from evencoil.solver.motor.circuit import Circuit
from evencoil.solver.motor.descent import descend

__all__ = ["Fitted", "Targets", "fit_circuit"]

#: judgment: part of friction in the losses, its limit, stator copper in the rest
_FRICTION_OF_LOSS, _FRICTION_OF_POWER, _COPPER = 0.10, 0.012, 0.58
#: judgment: usual parts of the locked-rotor impedance and usual ratios, from which a fit starts
_X1, _XI, _RATIO, _XC = 0.38, 0.60, 3.0, 0.5
_GOOD = 0.05
_STARTS = ((0.5, 4.0), (1.0, 8.0), (0.2, 2.0))
_ROUNDS = 60
#: times the resistance of the rotor's winding: carries nothing
_NO_CAGE = 1e5


@dataclass(frozen=True, slots=True, kw_only=True)
class Targets:
    """What the circuit is to give.

    Attributes
    ----------
    power_w, line_v, amps_a, hz, rpm : float
        Rated.
    efficiency : float
        At rated load, as a part of one.
    locked_a : float
        Locked-rotor current at rated volts. [A]
    locked_times : float
        Locked-rotor torque over rated torque.
    breakdown_times : float
        Breakdown torque over rated torque: a floor, unless ``is_breakdown_known``.
    held : tuple of float or None
        Stator resistance and leakage known from another speed of the same winding. [ohm]
    is_wound : bool
        The rotor has one winding, its slip rings shorted: no outer cage, and what it draws
        with the rotor held follows from its breakdown torque.
    """

    power_w: float
    line_v: float
    amps_a: float
    hz: float
    rpm: float
    pole_pairs: int
    efficiency: float
    locked_a: float
    locked_times: float
    breakdown_times: float
    is_breakdown_known: bool = False
    held: tuple[float, float] | None = None
    is_wound: bool = False

    @property
    def slip(self) -> float:
        """Return the slip at rated speed."""
        return 1 - self.rpm * self.pole_pairs / (60 * self.hz)

    @property
    def power_factor(self) -> float:
        """Return the power factor that power, current and efficiency ask for."""
        return self.power_w / (sqrt(3) * self.line_v * self.amps_a * self.efficiency)

    @property
    def rated_nm(self) -> float:
        """Return the torque on the shaft at rated load [N m]."""
        return self.power_w / (2 * pi * self.rpm / 60)

    @property
    def friction_w(self) -> float:
        """Return friction and windage at rated speed [W], by judgment."""
        losses = self.power_w * (1 / self.efficiency - 1)
        return min(_FRICTION_OF_LOSS * losses, _FRICTION_OF_POWER * self.power_w)


@dataclass(frozen=True, slots=True, kw_only=True)
class Fitted:
    """The circuit found, and what it gives beside what was asked.

    ``cost`` is the weighted sum of squares; above 0.05 the fit is poor, and says so.
    """

    circuit: Circuit
    friction_w: float
    amps_a: float
    power_factor: float
    efficiency: float
    locked_a: float
    locked_times: float
    breakdown_times: float
    cost: float

    @property
    def is_poor(self) -> bool:
        """Tell whether no such circuit comes near to all that was asked."""
        return self.cost > _GOOD


class _Problem:
    """Residuals of one nameplate; the unknowns are logarithms."""

    def __init__(self, targets: Targets) -> None:
        self.targets = targets
        losses = targets.power_w * (1 / targets.efficiency - 1)
        slip = targets.slip
        rotor = (targets.power_w + targets.friction_w) * slip / (1 - slip)
        rest = max(losses - targets.friction_w - rotor, 0.1 * losses)
        self.core_w = (1 - _COPPER) * rest
        self.r1 = _COPPER * rest / (3 * targets.amps_a**2)
        self.locked_ohm = targets.line_v / sqrt(3) / targets.locked_a

    def circuit(self, logs: np.ndarray) -> Circuit:
        t = self.targets
        x1, xm, ri, xi, ro, r1, xc = (exp(value) for value in logs)
        if t.held is not None:
            r1, x1 = t.held
        if t.is_wound:
            xi, ro, xc = x1, _NO_CAGE * ri, 1e-6 * x1
        phase_v = t.line_v / sqrt(3)
        sine = sqrt(max(1 - t.power_factor**2, 0.0))
        current = t.amps_a * complex(min(t.power_factor, 1.0), -sine)
        gap_v = abs(phase_v - current * complex(r1, x1))
        return Circuit(
            r1=r1,
            x1=x1,
            xm=xm,
            rfe=3 * gap_v**2 / self.core_w,
            xc=xc,
            ri=ri,
            xi=xi,
            ro=ro,
            line_v=t.line_v,
            hz=t.hz,
            pole_pairs=t.pole_pairs,
        )

    def gives(self, circuit: Circuit) -> Fitted:
        t = self.targets
        rated, locked = circuit.at(t.slip), circuit.at(1.0)
        breakdown, _ = circuit.breakdown()
        shaft = rated.shaft_w - t.friction_w
        return Fitted(
            circuit=circuit,
            friction_w=t.friction_w,
            amps_a=abs(rated.line_a),
            power_factor=rated.line_a.real / abs(rated.line_a),
            efficiency=shaft / rated.input_w,
            locked_a=abs(locked.line_a),
            locked_times=locked.torque_nm / t.rated_nm,
            breakdown_times=breakdown / t.rated_nm,
            cost=0.0,
        )

    def residuals(self, logs: np.ndarray) -> np.ndarray:
        t = self.targets
        circuit = self.circuit(logs)
        rated, locked = circuit.at(t.slip), circuit.at(1.0)
        breakdown = circuit.breakdown()[0] / t.rated_nm
        short = log(max(breakdown, 1e-6) / t.breakdown_times)
        pull = 2.0 if short < 0 or t.is_breakdown_known else 0.25
        found = np.array(
            [
                30 * ((rated.shaft_w - t.friction_w) / t.power_w - 1),
                30 * (abs(rated.line_a) / t.amps_a - 1),
                6 * (rated.line_a.real / abs(rated.line_a) / t.power_factor - 1),
                20 * log(abs(locked.line_a) / t.locked_a),
                2 * log(max(locked.torque_nm, 1e-9) / t.rated_nm / t.locked_times),
                pull * short,
                0.05 * (logs[0] - log(_X1 * self.locked_ohm)),
                0.03 * (logs[3] - log(_XI * self.locked_ohm)),
                0.04 * (logs[4] - logs[2] - log(_RATIO)),
                1.0 * (logs[5] - log(self.r1)),
                0.10 * (logs[6] - logs[0] - log(_XC)),
            ]
        )
        if t.is_wound:
            found[3:5] *= 0.0
        if t.held is not None:
            found[9] *= 0.0
        return found


def fit_circuit(targets: Targets) -> Fitted:
    """Return the circuit nearest to what is asked.

    Parameters
    ----------
    targets : Targets
        All above zero; slip between 0 and 1.

    Returns
    -------
    Fitted
        With what it gives; compare it with the targets before using it.
    """
    problem = _Problem(targets)
    locked, rated_ohm = problem.locked_ohm, targets.line_v / sqrt(3) / targets.amps_a
    ri = max(targets.slip, 1e-3) * rated_ohm
    found: list[tuple[float, np.ndarray]] = []
    for inner, outer in _STARTS:
        start = [_X1 * locked, 2.8 * rated_ohm, ri, inner * locked, outer * ri, problem.r1]
        first = np.log(np.array([*start, _XC * _X1 * locked]))
        found.append(
            descend(problem.residuals, first, rounds=_ROUNDS, most_step=0.7, settled=(1e-7, 1e-12))
        )
        if found[-1][0] < _GOOD:
            break
    cost, logs = min(found, key=lambda one: one[0])
    given = problem.gives(problem.circuit(logs))
    return Fitted(
        **{name: getattr(given, name) for name in Fitted.__slots__ if name != "cost"}, cost=cost
    )
