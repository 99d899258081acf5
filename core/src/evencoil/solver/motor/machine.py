"""A motor as coils in a revolving field: what its leads see, however they are joined.

Every coil makes a forward and a backward field for each pole number it is wound for;
together they are coupled through the air gap only. Source: rotating-field theory of
unbalanced polyphase induction machines (textbook).

Units: [ohm] at the rated frequency, [V], [A], [N m], [kg m2], [rad/s].
"""

from __future__ import annotations

import cmath
from collections.abc import Sequence
from dataclasses import dataclass, replace
from math import pi, radians, tanh

from evencoil.solver.cage import double_cage
from evencoil.solver.motor.circuit import Circuit
from evencoil.winding import Winding

__all__ = ["AirGap", "Machine", "MachineCoil", "MachineSpeed", "machine_of"]


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

    def at(self, part: float) -> Machine:
        """Return it at another frequency: reactances and rated flux volts go with it.

        Parameters
        ----------
        part : float
            Frequency as a part of the rated one.
        """
        coils = tuple(
            replace(one, own_ohm=complex(one.own_ohm.real, one.own_ohm.imag * part))
            for one in self.coils
        )
        gaps = tuple(
            replace(
                gap,
                xm=gap.xm * part,
                rfe=gap.rfe * part,
                xc=gap.xc * part,
                xi=gap.xi * part,
                xo=gap.xo * part,
                rated_v=gap.rated_v * part,
            )
            for gap in self.gaps
        )
        return replace(self, coils=coils, gaps=gaps, hz=self.hz * part)

    def braking_nm(self, direct_a: Sequence[float], speed_rad_s: float) -> float:
        """Return the torque of direct current in the coils, signed against the speed [N m].

        A field that stands still is, seen from the rotor, one that turns against it. Source:
        dynamic braking of induction motors (textbook).

        Parameters
        ----------
        direct_a : sequence of float
            Of each coil, from start to end. [A]
        speed_rad_s : float
            Signed. [rad/s mechanical]
        """
        found = 0.0
        for place, gap in enumerate(self.gaps):
            turns = sum(
                coil.weights[place].conjugate() * amps
                for coil, amps in zip(self.coils, direct_a, strict=True)
            )
            slip = gap.pole_pairs * abs(speed_rad_s) / self.field_rad_s
            rotor = gap.rotor(slip)
            # steady turns are those of an alternating current 1 over root 2 as large
            volts = 2**0.5 * abs(turns) / abs(1 / (1j * gap.xm) + rotor)
            found += gap.pole_pairs / self.field_rad_s * volts**2 * rotor.real
        return -found if speed_rad_s > 0 else found

    def friction_nm(self, speed_rad_s: float) -> float:
        """Return the torque of friction and windage at a speed, signed like it [N m]."""
        part = speed_rad_s / self.rated_rad_s
        rated = self.friction_w / self.rated_rad_s
        return rated * (0.3 * tanh(speed_rad_s / 0.3) + 0.7 * part * abs(part))


@dataclass(frozen=True, slots=True, kw_only=True)
class MachineSpeed:
    """One speed of a motor: its circuit, and the connection that the circuit was made for.

    Attributes
    ----------
    field : str
        Which field of the coils: ``one``, ``low`` or ``high``.
    circuit : Circuit
        As if in wye, at the volts of the connection.
    factor : float
        Line volts over the volts of one coil in that connection.
    """

    field: str
    circuit: Circuit
    factor: float


def machine_of(
    winding: Winding,
    speeds: Sequence[MachineSpeed],
    *,
    inertia_kg_m2: float,
    friction_w: float,
    rated_rad_s: float,
    rated_nm: float,
) -> Machine:
    """Return the coils of a winding for the equivalent circuit of each of its speeds.

    Parameters
    ----------
    winding : Winding
        The coils.
    speeds : sequence of MachineSpeed
        The fastest first: where one winding makes both speeds, its copper and its leakage are
        those of the first.
    inertia_kg_m2 : float
        Of the motor alone. [kg m2]
    friction_w : float
        At rated speed. [W]
    rated_rad_s : float
        Of the fastest speed. [rad/s]
    rated_nm : float
        Then, at the shaft. [N m]
    """
    found = []
    for coil in winding.coils:
        fields = {which: (turns, axis) for which, turns, axis in coil.fields}
        own = next(speed for speed in speeds if speed.field in fields)
        count = sum(own.field in {which for which, _, _ in one.fields} for one in winding.coils)
        weights = []
        for speed in speeds:
            turns, axis = fields.get(speed.field, (0.0, 0))
            weights.append(turns * cmath.exp(-1j * radians(axis)))
        found.append(
            MachineCoil(
                coil.name,
                coil.start,
                coil.end,
                complex(own.circuit.r1, own.circuit.x1) * count / own.factor**2,
                tuple(weights),
            )
        )
    return Machine(
        coils=tuple(found),
        gaps=tuple(_gap(winding, speed, rated_rad_s) for speed in speeds),
        hz=speeds[0].circuit.hz,
        inertia_kg_m2=inertia_kg_m2,
        friction_w=friction_w,
        rated_rad_s=rated_rad_s,
        rated_nm=rated_nm,
    )


def _gap(winding: Winding, speed: MachineSpeed, rated_rad_s: float) -> AirGap:
    """Return the air gap of one speed in the scale of the coils' turns."""
    circuit = speed.circuit
    turns = next(
        turns for coil in winding.coils for which, turns, _ in coil.fields if which == speed.field
    )
    part = 1 / (speed.factor * turns) ** 2
    slip = 1 - rated_rad_s / circuit.synchronous_rad_s
    # a speed that is not the rated one is taken at a slip of its own, near enough for iron
    rated = circuit.at(slip if 0 < slip < 0.3 else 0.03)
    return AirGap(
        pole_pairs=circuit.pole_pairs,
        xm=circuit.xm * part,
        rfe=circuit.rfe * part,
        xc=circuit.xc * part,
        ri=circuit.ri * part,
        xi=circuit.xi * part,
        ro=circuit.ro * part,
        xo=circuit.xo * part,
        # what a coil sees over its turns
        rated_v=rated.gap_v * 3**0.5 / speed.factor / turns,
    )
