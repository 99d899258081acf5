"""The equivalent circuit of one phase of a cage motor, as if connected in wye.

A double cage behind a common reactance, iron loss across the air gap; written with
admittances so that synchronous speed needs no care. Source: double-cage equivalent
circuit (textbook induction machine theory).

Units: impedances [ohm] at the rated frequency, speeds [rad/s], torque [N m].
"""

from __future__ import annotations

from dataclasses import dataclass
from math import pi, sqrt

import numpy as np

from evencoil.solver.cage import double_cage

__all__ = ["Circuit", "Operating"]

#: slips from a thousandth to standstill, each larger than the one before by the same ratio
_SLIPS = np.logspace(-3, 0, 73)
_RATIO = 10 ** (3 / 72)


@dataclass(frozen=True, slots=True)
class Operating:
    """One operating point: line current [A], shaft power before friction [W], torque [N m].

    ``input_w`` is drawn from the line, ``gap_v`` the air-gap volts to neutral.
    """

    line_a: complex
    shaft_w: float
    torque_nm: float
    input_w: float
    gap_v: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Circuit:
    """One phase in wye: stator, magnetising branch, common rotor reactance, two cages."""

    r1: float
    x1: float
    xm: float
    rfe: float
    xc: float
    ri: float
    xi: float
    ro: float
    xo: float = 0.0
    line_v: float
    hz: float
    pole_pairs: int

    @property
    def synchronous_rad_s(self) -> float:
        """Return the speed of the field [rad/s mechanical]."""
        return 2 * pi * self.hz / self.pole_pairs

    def cage(self, slip: float) -> complex:
        """Return the admittance of the rotor at a slip [S]."""
        return double_cage(slip, ri=self.ri, xi=self.xi, ro=self.ro, xo=self.xo, xc=self.xc)

    def at(self, slip: float) -> Operating:
        """Return the operating point at a slip on the rated supply."""
        volts = self.line_v / sqrt(3)
        rotor = self.cage(slip)
        gap = 1 / (1 / (1j * self.xm) + 1 / self.rfe + rotor)
        amps = volts / (complex(self.r1, self.x1) + gap)
        gap_v = abs(amps * gap)
        across = 3 * gap_v**2 * rotor.real
        return Operating(
            line_a=amps,
            shaft_w=across * (1 - slip),
            torque_nm=across / self.synchronous_rad_s,
            input_w=3 * (volts * amps.conjugate()).real,
            gap_v=gap_v,
        )

    def breakdown(self) -> tuple[float, float]:
        """Return the highest torque between standstill and synchronous speed, and its slip."""
        slip = _SLIPS
        both = slip / (self.ri + 1j * slip * self.xi) + slip / (self.ro + 1j * slip * self.xo)
        rotor = both / (1 + 1j * self.xc * both)
        gap = 1 / (1 / (1j * self.xm) + 1 / self.rfe + rotor)
        share = np.abs(gap / (complex(self.r1, self.x1) + gap)) ** 2
        torque = self.line_v**2 / self.synchronous_rad_s * share * rotor.real
        best = int(np.argmax(torque))
        if not 0 < best < len(slip) - 1:
            return float(torque[best]), float(slip[best])
        # a parabola through the highest of them and its two neighbors
        low, top, high = (float(value) for value in torque[best - 1 : best + 2])
        bend = low - 2 * top + high
        aside = 0.5 * (low - high) / bend if bend else 0.0
        return top - 0.25 * (low - high) * aside, float(slip[best] * _RATIO**aside)
