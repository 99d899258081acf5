"""The rotor's memory: cage fluxes as states, so that a switching finds what they left.

After a pause the fluxes still turn with the rotor and meet the supply out of step:
that makes the surge at re-closing. Only the stator's own transient is dropped.
Their steady state is exactly the quasi-static port. Source: third-order
(rotor-flux) induction machine model of power-system dynamics.

Units: fluxes as volts (angular frequency times linkage) [V], [A], [N m], [s].
"""

from __future__ import annotations

import numpy as np

from evencoil.solver.motor.port import FieldPort, Fields

__all__ = ["RotorFlux"]

_EYE = np.eye(4)


class RotorFlux:
    """Fluxes of two cages, forward and backward, of a machine with one pole number."""

    def __init__(self, port: FieldPort) -> None:
        gap = port.machine.gaps[0]
        self.gap = gap
        self.flux = np.zeros(4, dtype=complex)
        main = 1 / (1 / (1j * gap.xm) + 1 / gap.rfe) / 1j
        inner = np.array(
            [[main + gap.xc + gap.xi, main + gap.xc], [main + gap.xc, main + gap.xc + gap.xo]]
        )
        own = np.linalg.inv(inner)
        ones = np.ones(2)
        self._main = main
        self._own = np.kron(np.eye(2), own)
        self._one = np.kron(np.eye(2), ones.reshape(2, 1))
        self._behind = 1j * (main - main * main * (ones @ own @ ones))
        self._to_volts = np.kron(np.eye(2), (1j * main * (ones @ own)).reshape(1, 2))
        self._ohm = np.kron(np.eye(2), np.diag([gap.ri, gap.ro]))
        self.take(port)

    def take(self, port: FieldPort) -> None:
        """Meet another contact state with the fluxes as they are."""
        self.port = port
        inward = np.linalg.inv(np.eye(2) + port.back * self._behind)
        self._drive = inward @ np.array(port.drive)
        self._slope = -inward @ port.back @ self._to_volts
        turning = port.machine.field_rad_s
        ohm = turning * self._ohm @ self._own
        pull = self._main * self._one
        self._still = -ohm @ (np.eye(4) - pull @ self._slope)
        self._given = ohm @ pull @ self._drive
        #: gap volts and cage currents from the fluxes, with what the supply adds
        self._gap = (self._behind * self._slope + self._to_volts, self._behind * self._drive)
        self._amps = (self._own @ (np.eye(4) - pull @ self._slope), -self._own @ pull @ self._drive)

    def _matrix(self, speed_rad_s: float) -> np.ndarray:
        """Return how the fluxes change with themselves at a speed."""
        turning = self.port.machine.field_rad_s
        rotor = self.gap.pole_pairs * speed_rad_s
        found: np.ndarray = self._still.copy()
        for place, drift in enumerate(
            (turning - rotor, turning - rotor, turning + rotor, turning + rotor)
        ):
            found[place, place] -= 1j * drift
        return found

    def settle(self, speed_rad_s: float) -> None:
        """Take the fluxes of the steady state at a speed."""
        self.flux = np.linalg.solve(self._matrix(speed_rad_s), -self._given)

    def is_settled(self, speed_rad_s: float) -> bool:
        """Tell whether the fluxes are within 0.4 % of their steady state."""
        steady = np.linalg.solve(self._matrix(speed_rad_s), -self._given)
        most = max(float(np.linalg.norm(steady)), self.gap.rated_v or 1.0)
        return float(np.linalg.norm(self.flux - steady)) < 0.004 * most

    def step(self, speed_rad_s: float, lasting_s: float) -> None:
        """Go on for a time at a speed, by the trapezoidal rule."""
        half = lasting_s / 2 * self._matrix(speed_rad_s)
        right = self.flux + half @ self.flux + lasting_s * self._given
        self.flux = np.linalg.solve(_EYE - half, right)

    def fields(self) -> Fields:
        """Return gap volts and torque as they are now."""
        gap = self._gap[0] @ self.flux + self._gap[1]
        amps = self._amps[0] @ self.flux + self._amps[1]
        each = self.gap.pole_pairs / self.port.machine.field_rad_s
        ahead, behind = complex(gap[0]), complex(gap[1])
        forward = complex(amps[0] + amps[1]).conjugate()
        backward = complex(amps[2] + amps[3]).conjugate()
        return Fields((ahead, behind), each * ((behind * backward).real - (ahead * forward).real))
