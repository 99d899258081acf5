"""Stator coils on a supply, with the rotor open or its cage at any speed: volts and amps.

The revolving-field coil matrix (rotating-field theory of polyphase machines):
each coil has its own resistance and leakage, and all are coupled through the
air gap by turns and axis. With the rotor open only the magnetising branch is
left, the same for the forward and the backward field; a double cage sees its slip
in each of the two.

The machine constants are typical parts of the rated impedance, not read from
any motor: they decide how large currents are, hardly how volts divide.

Units: volts [V], amps [A], angles [deg].
"""

from __future__ import annotations

import cmath
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from math import pi, radians, sqrt

from evencoil.solver.cage import double_cage
from evencoil.solver.network import Matrix, Network
from evencoil.winding import LINES, Winding

__all__ = [
    "FULL_LOAD_SLIP",
    "MAGNETISING",
    "TYPICAL",
    "CageMachine",
    "CoilReading",
    "StatorState",
    "coil_matrix",
    "solve_caged",
    "solve_stator",
]

RESISTANCE, LEAKAGE, MAGNETISING, IRON = 0.02, 0.08, 2.5, 40.0
SOURCE = 0.0002
_X_OVER_R = 5.0
#: at standstill all coils together draw so much that the supply of the open rotor would sag
_STIFFER = 0.05


@dataclass(frozen=True, slots=True, kw_only=True)
class CageMachine:
    """A machine with a double cage, each constant a part of the rated phase impedance.

    ``inner_x`` and ``common_x`` are the reactances of the inner cage and of both; the outer
    cage has none.
    """

    resistance: float
    leakage: float
    magnetising: float
    iron: float
    inner: float
    inner_x: float
    outer: float
    common_x: float

    def air(self, slip: float) -> tuple[complex, complex]:
        """Return air-gap impedance and rotor admittance that a field of some slip sees."""
        rotor = double_cage(slip, ri=self.inner, xi=self.inner_x, ro=self.outer, xc=self.common_x)
        return 1 / (1 / (1j * self.magnetising) + 1 / self.iron + rotor), rotor


#: slip at full load of `TYPICAL`
FULL_LOAD_SLIP = 1 / 90
#: a four-pole motor of 75 hp, 460 V, 86 A, fitted to its nameplate: parts of 3.088 ohm
TYPICAL = CageMachine(
    resistance=0.0152,
    leakage=0.0961,
    magnetising=2.790,
    iron=80.3,
    inner=0.01739,
    inner_x=0.1854,
    outer=0.03502,
    common_x=0.04989,
)
#: pole pairs of a field against those of the fastest
_POLES = {"one": 1, "low": 2, "high": 1}


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
    return _matrix(winding, complex(RESISTANCE, LEAKAGE) * phase_ohm, lambda _field: (air, air))


def _weights(winding: Winding, field: str) -> list[complex]:
    """Return what each coil adds to a field: its turns on its axis."""
    return [
        next(
            (
                turns * cmath.exp(-1j * radians(axis))
                for which, turns, axis in coil.fields
                if which == field
            ),
            0j,
        )
        for coil in winding.coils
    ]


def _matrix(
    winding: Winding, own: complex, air_of: Callable[[str], tuple[complex, complex]]
) -> Matrix:
    """Return the coil matrix of the air gap's forward and backward impedance by field [ohm]."""
    coils = winding.coils
    matrix = [
        [own * coil.turns if row == column else 0j for column in range(len(coils))]
        for row, coil in enumerate(coils)
    ]
    for field in _POLES:
        weights = _weights(winding, field)
        if not any(weights):
            continue
        forward, backward = air_of(field)
        for row, one in enumerate(weights):
            for column, other in enumerate(weights):
                product = one * other.conjugate()
                matrix[row][column] += forward * product + backward * product.conjugate()
    return matrix


@dataclass(frozen=True, slots=True)
class StatorState:
    """What every coil sees at one speed, and the torque in synchronous watts [W].

    The torque is positive in the sense 1-2-3; the watts are those at the synchronous speed of
    the field with fewest poles.
    """

    coils: tuple[CoilReading, ...]
    torque_w: float


def solve_caged(
    winding: Winding,
    node_of: Mapping[str, int],
    line_nodes: Mapping[str, int],
    *,
    line_volts_v: float,
    phase_ohm: float,
    speed: float,
    machine: CageMachine = TYPICAL,
    behind_ohm: complex | None = None,
) -> StatorState:
    """Return what each coil sees with the cage turning, on three phases or between two lines.

    Parameters
    ----------
    winding : Winding
        The coils.
    node_of : mapping
        Node of every lead and inner point of the winding.
    line_nodes : mapping
        Node of each line that is connected.
    line_volts_v : float
        Volts between lines. [V]
    phase_ohm : float
        Rated impedance of one whole phase. [ohm]
    speed : float
        As a part of the synchronous speed of the field with fewest poles; negative backward.
    machine : CageMachine
        Its constants.
    behind_ohm : complex or None
        Impedance of supply and conductors in each line; None for a stiff supply. [ohm]
    """

    def air(slip: float) -> complex:
        return machine.air(slip)[0] * phase_ohm / 3

    def air_of(field: str) -> tuple[complex, complex]:
        slip = 1 - _POLES[field] * speed
        return air(slip), air(2 - slip)

    own = complex(machine.resistance, machine.leakage) * phase_ohm
    matrix = _matrix(winding, own, air_of)
    across, amps = _solved(
        winding,
        node_of,
        line_nodes,
        line_volts_v,
        _stiff(phase_ohm) * _STIFFER if behind_ohm is None else behind_ohm,
        matrix,
    )
    torque = 0.0
    for field, poles in _POLES.items():
        weights = _weights(winding, field)
        if not any(weights):
            continue
        slip = 1 - poles * speed
        forward = sum(one.conjugate() * amp for one, amp in zip(weights, amps, strict=True))
        backward = sum(one * amp for one, amp in zip(weights, amps, strict=True))
        for current, at, sign in ((forward, slip, 1), (backward, 2 - slip, -1)):
            gap, rotor = machine.air(at)
            volts = abs(gap * phase_ohm / 3 * current) ** 2
            torque += sign * poles * volts * rotor.real * 3 / phase_ohm
    return StatorState(_readings(winding, across, amps), torque)


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
    across, amps = _solved(
        winding,
        node_of,
        line_nodes,
        line_volts_v,
        _stiff(phase_ohm),
        coil_matrix(winding, phase_ohm),
    )
    return _readings(winding, across, amps)


def _stiff(phase_ohm: float) -> complex:
    """Return the impedance of a supply that hardly sags [ohm]."""
    part = SOURCE * phase_ohm / sqrt(1 + _X_OVER_R**2)
    return complex(part, part * _X_OVER_R)


def _solved(
    winding: Winding,
    node_of: Mapping[str, int],
    line_nodes: Mapping[str, int],
    line_volts_v: float,
    behind: complex,
    matrix: Matrix,
) -> tuple[list[complex], list[complex]]:
    """Return volts across every coil and amps through it, from start to end."""
    network = Network(max([*node_of.values(), *line_nodes.values()]) + 1)
    for place, line in enumerate(LINES[: 3 if winding.phases == 3 else 2]):
        if line in line_nodes:
            if winding.phases == 3:
                volts = line_volts_v / sqrt(3) * cmath.exp(-2j * pi / 3 * place)
            else:
                volts = complex(line_volts_v / 2 * (1 - 2 * place))
            network.source(line_nodes[line], volts, behind)
    ends = [(node_of[coil.start], node_of[coil.end]) for coil in winding.coils]
    admittance = network.coils(ends, matrix)
    at_nodes = network.solve()
    across = [at_nodes[start] - at_nodes[end] for start, end in ends]
    amps = [sum(row[place] * across[place] for place in range(len(across))) for row in admittance]
    return across, amps


def _readings(
    winding: Winding, across: list[complex], amps: list[complex]
) -> tuple[CoilReading, ...]:
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
