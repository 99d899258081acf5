"""A motor as coils in a revolving field: what its leads see, however they are joined.

Every coil makes a forward and a backward field for each pole number it is wound for;
together they are coupled through the air gap only. Source: rotating-field theory of
unbalanced polyphase induction machines (textbook).

Units: [ohm] at the rated frequency, [V], [A], [N m], [kg m2], [rad/s].
"""

from __future__ import annotations

import cmath
from dataclasses import dataclass
from math import pi, radians, tanh

from evencoil.solver.cage import double_cage
from evencoil.solver.motor.circuit import Circuit
from evencoil.winding import Winding

__all__ = ["AirGap", "Machine", "MachineCoil", "machine_of"]


@dataclass(frozen=True, slots=True)
class MachineCoil:
    """One coil: its ends, own impedance, and what it adds to each field, forward."""

    name: str
    start: str
    end: str
    own_ohm: complex
    weights: tuple[complex, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class AirGap:
    """One pole number's air gap and rotor, in the scale of the coil matrix.

    ``rated_v`` is the forward field's volts at rated load, from which saturation counts.
    """

    pole_pairs: int
    xm: float
    rfe: float
    xc: float
    ri: float
    xi: float
    ro: float
    xo: float
    rated_v: float = 0.0

    def rotor(self, slip: float) -> complex:
        """Return the rotor's admittance at a slip [S]."""
        return double_cage(slip, ri=self.ri, xi=self.xi, ro=self.ro, xo=self.xo, xc=self.xc)

    def field(self, slip: float, iron: float = 1.0) -> tuple[complex, complex]:
        """Return the field's impedance and the rotor's admittance; ``iron`` divides ``xm``."""
        rotor = self.rotor(slip)
        return 1 / (iron / (1j * self.xm) + 1 / self.rfe + rotor), rotor


@dataclass(frozen=True, slots=True, kw_only=True)
class Machine:
    """A motor ready to run: coils, air gaps, own inertia and friction.

    Attributes
    ----------
    friction_w : float
        Friction and windage at rated speed. [W]
    rated_rad_s, rated_nm : float
        Speed and shaft torque on the nameplate.
    """

    coils: tuple[MachineCoil, ...]
    gaps: tuple[AirGap, ...]
    hz: float
    inertia_kg_m2: float
    friction_w: float
    rated_rad_s: float
    rated_nm: float

    @property
    def field_rad_s(self) -> float:
        """Return the electrical angular speed of the supply [rad/s]."""
        return 2 * pi * self.hz

    @property
    def synchronous_rad_s(self) -> float:
        """Return the speed of the fastest field [rad/s mechanical]."""
        return self.field_rad_s / min(gap.pole_pairs for gap in self.gaps)

    def friction_nm(self, speed_rad_s: float) -> float:
        """Return the torque of friction and windage at a speed, signed like it [N m]."""
        part = speed_rad_s / self.rated_rad_s
        rated = self.friction_w / self.rated_rad_s
        return rated * (0.3 * tanh(speed_rad_s / 0.3) + 0.7 * part * abs(part))


def machine_of(
    winding: Winding,
    circuit: Circuit,
    *,
    phases_as_wye: float,
    inertia_kg_m2: float,
    friction_w: float,
    rated_rad_s: float,
    rated_nm: float,
) -> Machine:
    """Return the coils of a winding for an equivalent circuit of one connection.

    Parameters
    ----------
    winding : Winding
        With one pole number.
    circuit : Circuit
        As if in wye, at the volts of the connection it was made for.
    phases_as_wye : float
        Ohms of one whole phase, its coils in series, over those of the circuit: 1 for
        wye in series, 3 for delta, 4 for halves in parallel.
    inertia_kg_m2 : float
        Of the motor alone. [kg m2]
    friction_w : float
        At rated speed. [W]
    rated_rad_s : float
        On the nameplate. [rad/s]
    rated_nm : float
        At the shaft. [N m]
    """
    whole = phases_as_wye
    coils = tuple(
        MachineCoil(
            coil.name,
            coil.start,
            coil.end,
            complex(circuit.r1, circuit.x1) * whole * coil.turns,
            (coil.turns * cmath.exp(-1j * radians(coil.axis_deg)),),
        )
        for coil in winding.coils
    )
    part = whole / 3
    rated = circuit.at(1 - rated_rad_s / circuit.synchronous_rad_s)
    # a whole phase in series has one turn, so its volts are the field's
    gap_v = rated.gap_v * whole**0.5
    gap = AirGap(
        pole_pairs=circuit.pole_pairs,
        xm=circuit.xm * part,
        rfe=circuit.rfe * part,
        xc=circuit.xc * part,
        ri=circuit.ri * part,
        xi=circuit.xi * part,
        ro=circuit.ro * part,
        xo=circuit.xo * part,
        rated_v=gap_v,
    )
    return Machine(
        coils=coils,
        gaps=(gap,),
        hz=circuit.hz,
        inertia_kg_m2=inertia_kg_m2,
        friction_w=friction_w,
        rated_rad_s=rated_rad_s,
        rated_nm=rated_nm,
    )
