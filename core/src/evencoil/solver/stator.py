"""Stator coils on a supply with the rotor open: volts and amps of each coil.

The revolving-field coil matrix (rotating-field theory of polyphase machines):
each coil has its own resistance and leakage, and all are coupled through the
air gap by turns and axis. With the rotor open only the magnetising branch is
left, the same for the forward and the backward field.

The machine constants are typical parts of the rated impedance, not read from
any motor: they decide how large currents are, hardly how volts divide.

Units: volts [V], amps [A], angles [deg].
"""

from __future__ import annotations

import cmath
from collections.abc import Mapping
from dataclasses import dataclass
from math import pi, radians, sqrt

from evencoil.solver.network import Matrix, Network
from evencoil.winding import LINES, Winding

__all__ = ["MAGNETISING", "CoilReading", "coil_matrix", "solve_stator"]

RESISTANCE, LEAKAGE, MAGNETISING, IRON = 0.02, 0.08, 2.5, 40.0
SOURCE = 0.0002
_X_OVER_R = 5.0


@dataclass(frozen=True, slots=True)
class CoilReading:
    """What one coil sees.

    Attributes
    ----------
    volts_v : float
        From start to end, RMS. [V]
    angle_deg : float
        Of that voltage against L1 to neutral. [deg]
    amps_a : float
        Magnetising current through it, RMS. [A]
    amps_angle_deg : float
        Of that current. [deg]
    """

    name: str
    volts_v: float
    angle_deg: float
    amps_a: float
    amps_angle_deg: float


def coil_matrix(winding: Winding, phase_ohm: float, rotor: complex | None = None) -> Matrix:
    """Return the coil impedance matrix with the rotor open or at rest [ohm].

    Parameters
    ----------
    winding : Winding
        Coils with their turns and axes.
    phase_ohm : float
        Rated impedance of one whole phase, coils in series. [ohm]
    rotor : complex or None
        Impedance of a cage at rest as a part of the rated one; None for an
        open rotor.
    """
    air = 1 / (1 / (1j * MAGNETISING * phase_ohm) + 1 / (IRON * phase_ohm)) / 3
    if rotor is not None:
        air = 1 / (1 / air + 3 / (rotor * phase_ohm))
    coils = winding.coils
    own = complex(RESISTANCE, LEAKAGE) * phase_ohm
    matrix = [
        [own * coil.turns if row == column else 0j for column in range(len(coils))]
        for row, coil in enumerate(coils)
    ]
    for field in ("one", "low", "high"):
        weights = [
            next(
                (
                    turns * cmath.exp(-1j * radians(axis))
                    for which, turns, axis in coil.fields
                    if which == field
                ),
                0j,
            )
            for coil in coils
        ]
        if not any(weights):
            continue
        for row, one in enumerate(weights):
            for column, other in enumerate(weights):
                product = one * other.conjugate()
                matrix[row][column] += air * (product + product.conjugate())
    return matrix


def solve_stator(
    winding: Winding,
    node_of: Mapping[str, int],
    line_nodes: Mapping[str, int],
    *,
    line_volts_v: float,
    phase_ohm: float,
) -> tuple[CoilReading, ...]:
    """Return what each coil sees on a three-phase supply, or between two lines.

    Parameters
    ----------
    winding : Winding
        The coils.
    node_of : mapping
        Node of every lead and inner point of the winding.
    line_nodes : mapping
        Node of each line that is connected; the same node twice is a short.
    line_volts_v : float
        Volts between lines. [V]
    phase_ohm : float
        Rated impedance of one whole phase. [ohm]

    Returns
    -------
    tuple of CoilReading
        In the winding's order; always finite.
    """
    network = Network(max([*node_of.values(), *line_nodes.values()]) + 1)
    size = SOURCE * phase_ohm
    behind = complex(size / sqrt(1 + _X_OVER_R**2), size * _X_OVER_R / sqrt(1 + _X_OVER_R**2))
    for place, line in enumerate(LINES[: 3 if winding.phases == 3 else 2]):
        if line in line_nodes:
            if winding.phases == 3:
                volts = line_volts_v / sqrt(3) * cmath.exp(-2j * pi / 3 * place)
            else:
                volts = complex(line_volts_v / 2 * (1 - 2 * place))
            network.source(line_nodes[line], volts, behind)
    ends = [(node_of[coil.start], node_of[coil.end]) for coil in winding.coils]
    admittance = network.coils(ends, coil_matrix(winding, phase_ohm))
    at_nodes = network.solve()
    across = [at_nodes[start] - at_nodes[end] for start, end in ends]
    amps = [sum(row[place] * across[place] for place in range(len(across))) for row in admittance]
    return tuple(
        CoilReading(
            name=coil.name,
            volts_v=abs(across[place]),
            angle_deg=cmath.phase(across[place]) * 180 / pi,
            amps_a=abs(amps[place]),
            amps_angle_deg=cmath.phase(amps[place]) * 180 / pi,
        )
        for place, coil in enumerate(winding.coils)
    )
