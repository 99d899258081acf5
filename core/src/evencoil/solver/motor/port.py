"""A network seen by the revolving fields of a motor: one factoring for each contact state.

Whatever is wired to the leads, the fields see a small port: two numbers for each
pole number. Only that port is solved anew when the speed changes, so a run of
thousands of steps costs little. Source: nodal analysis with Norton sources and
voltage-controlled EMFs (textbook network theory).

Units: [V], [A], [ohm]; phasors are RMS.
"""

from __future__ import annotations

import cmath
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from math import pi, sqrt

import numpy as np

from evencoil.solver.motor.machine import Machine
from evencoil.solver.network import GMIN_S
from evencoil.winding import LINES

__all__ = [
    "Element",
    "FieldPort",
    "Fields",
    "Group",
    "Port",
    "Row",
    "Wiring",
    "both_ways",
    "row_value",
    "three_phase",
]

#: a current or volts: the part that the sources give, and the factor of each field
Row = tuple[complex, tuple[complex, ...]]

#: flux beyond which iron saturates, and the curve's two parts: im = a e + b e^n
_FROM, _LINEAR, _STEEP, _POWER = 1.1, 0.85, 0.15, 7
_DAMPING, _TURNS = 0.35, 60


@dataclass(frozen=True, slots=True)
class Element:
    """An impedance between two nodes by name; ``""`` is ground."""

    one: str
    other: str
    ohm: complex


@dataclass(frozen=True, slots=True)
class Group:
    """Windings on one core: ends of each by name, and their coupled impedances [ohm]."""

    ends: tuple[tuple[str, str], ...]
    ohm: tuple[tuple[complex, ...], ...]


@dataclass(frozen=True, slots=True)
class Wiring:
    """What the motor is connected to in one state of the contacts.

    Attributes
    ----------
    joined : tuple of tuple of str
        Names that are one node: leads, lines, anything.
    sources : tuple of (str, complex, complex)
        Node, open volts to ground and impedance behind it.
    elements, groups
        Conductors, resistors, autotransformers.
    """

    sources: tuple[tuple[str, complex, complex], ...]
    joined: tuple[tuple[str, ...], ...] = ()
    elements: tuple[Element, ...] = ()
    groups: tuple[Group, ...] = ()


def three_phase(
    line_v: float,
    short_circuit_a: float,
    *,
    x_over_r: float = 5.0,
    open_lines: Sequence[str] = (),
) -> tuple[tuple[str, complex, complex], ...]:
    """Return the sources of a grounded wye supply behind its short-circuit impedance.

    Parameters
    ----------
    line_v : float
        Volts between lines, without load. [V]
    short_circuit_a : float
        Current of a bolted three-phase fault. [A]
    x_over_r : float
        Of the source's impedance.
    open_lines : sequence of str
        Lines left out: a blown fuse, an open pole.
    """
    whole = line_v / sqrt(3) / short_circuit_a
    part = whole / sqrt(1 + x_over_r**2)
    behind = complex(part, part * x_over_r)
    return tuple(
        (line, line_v / sqrt(3) * cmath.exp(-2j * pi / 3 * place), behind)
        for place, line in enumerate(LINES)
        if line not in open_lines
    )


@dataclass(frozen=True, slots=True)
class Fields:
    """The fields of one operating point.

    Attributes
    ----------
    gap : tuple of complex
        Volts of each field, forward and backward of each pole number in turn. [V]
    torque_nm : float
        On the shaft before friction, positive in the sense 1-2-3.
    """

    gap: tuple[complex, ...]
    torque_nm: float


class FieldPort:
    """What the fields of one motor see of a network: a drive, and a coupling back.

    Parameters
    ----------
    machine : Machine
        The motor.
    drive : sequence of complex
        Ampere-turns of each field, forward and backward of each pole number in turn, that the
        sources make while the air gap has no volts. [A]
    back : ndarray, shape (fields, fields)
        Ampere-turns of each field for a volt of another. [A/V]
    """

    def __init__(self, machine: Machine, drive: Sequence[complex], back: np.ndarray) -> None:
        self.machine = machine
        self.drive = tuple(complex(value) for value in drive)
        self.back = back
        self._two = tuple(complex(value) for value in back.ravel())

    def fields(self, speed_rad_s: float, *, is_saturating: bool = True) -> Fields:
        """Return the fields at a speed, signed; iron saturates where the flux asks for it."""
        found = self._fields(speed_rad_s, 1.0)
        if not is_saturating or not self.machine.gaps[0].rated_v:
            return found
        flux = self._flux(found)
        if flux <= _FROM:
            return found
        iron = 1.0
        for _ in range(_TURNS):
            wanted = max(_LINEAR + _STEEP * flux ** (_POWER - 1), 1.0)
            step = (wanted / iron) ** _DAMPING
            iron *= step
            found = self._fields(speed_rad_s, iron)
            flux = self._flux(found)
            if abs(step - 1) < 1e-6:
                break
        return found

    def _flux(self, found: Fields) -> float:
        """Return the flux of the pole number that has most of it, over its rated one."""
        gap = found.gap
        return max(
            sqrt(abs(gap[2 * place]) ** 2 + abs(gap[2 * place + 1]) ** 2) / own.rated_v
            for place, own in enumerate(self.machine.gaps)
        )

    def _fields(self, speed_rad_s: float, iron: float) -> Fields:
        machine = self.machine
        turning = machine.field_rad_s
        if len(machine.gaps) == 1:
            gap = machine.gaps[0]
            slip = 1 - gap.pole_pairs * speed_rad_s / turning
            ahead, rotor_ahead = gap.field(slip, iron)
            behind, rotor_behind = gap.field(2 - slip, iron)
            aa, ab, ba, bb = self._two
            first, second = self.drive
            one, two, three, four = 1 + aa * ahead, ab * behind, ba * ahead, 1 + bb * behind
            whole = one * four - two * three
            forward = ahead * (four * first - two * second) / whole
            backward = behind * (one * second - three * first) / whole
            torque = (
                gap.pole_pairs
                / turning
                * (abs(forward) ** 2 * rotor_ahead.real - abs(backward) ** 2 * rotor_behind.real)
            )
            return Fields((forward, backward), torque)
        impedances, rotors, signs = [], [], []
        for gap in machine.gaps:
            slip = 1 - gap.pole_pairs * speed_rad_s / turning
            for at, sign in ((slip, 1), (2 - slip, -1)):
                field, rotor = gap.field(at, iron)
                impedances.append(field)
                rotors.append(rotor.real)
                signs.append(sign * gap.pole_pairs / turning)
        among = np.diag(impedances)
        found = among @ np.linalg.solve(
            np.eye(len(impedances)) + self.back @ among, np.array(self.drive)
        )
        torque = sum(
            sign * abs(value) ** 2 * rotor
            for sign, value, rotor in zip(signs, found, rotors, strict=True)
        )
        return Fields(tuple(complex(value) for value in found), float(torque))

    def turns_a(self, gap: Sequence[complex]) -> tuple[complex, ...]:
        """Return the ampere-turns of each field for some gap volts [A]."""
        found = np.array(self.drive) - self.back @ np.array(gap)
        return tuple(complex(value) for value in found)


class Port(FieldPort):
    """One contact state, reduced to what the fields see.

    Parameters
    ----------
    machine : Machine
        The motor.
    wiring : Wiring
        What its leads are joined to.
    """

    def __init__(self, machine: Machine, wiring: Wiring) -> None:
        self.wiring = wiring
        self.nodes = _nodes(machine, wiring)
        size = max(self.nodes.values(), default=-1) + 1
        matrix = np.zeros((size, size), dtype=complex)
        matrix[range(size), range(size)] += GMIN_S
        right = np.zeros(size, dtype=complex)
        for name, volts, behind in wiring.sources:
            node = self.nodes[name]
            matrix[node, node] += 1 / behind
            right[node] += volts / behind
        for element in wiring.elements:
            _stamp(
                matrix, self.nodes, [(element.one, element.other)], np.array([[1 / element.ohm]])
            )
        for group in wiring.groups:
            _stamp(matrix, self.nodes, group.ends, np.linalg.inv(np.array(group.ohm)))
        own = np.diag([1 / coil.own_ohm for coil in machine.coils])
        ends = [(coil.start, coil.end) for coil in machine.coils]
        _stamp(matrix, self.nodes, ends, own)
        both = both_ways(machine)
        incidence = np.zeros((len(ends), size))
        for row, (start, end) in enumerate(ends):
            incidence[row, self.nodes[start]] += 1
            incidence[row, self.nodes[end]] -= 1
        sides = np.column_stack([right, incidence.T @ own @ both])
        solved = np.linalg.solve(matrix, sides)
        self.volts0, self.volts_by_gap = solved[:, 0], solved[:, 1:]
        self.amps0 = own @ incidence @ self.volts0
        self.amps_by_gap = own @ (incidence @ self.volts_by_gap - both)
        drive = (both.conj().T @ self.amps0).tolist()
        super().__init__(machine, drive, -both.conj().T @ self.amps_by_gap)
        self.sources = {name: (volts, behind) for name, volts, behind in wiring.sources}

    def coil_amps(self, gap: Sequence[complex]) -> tuple[complex, ...]:
        """Return the current of every coil from start to end [A]."""
        found = self.amps0 + self.amps_by_gap @ np.array(gap)
        return tuple(complex(value) for value in found)

    def volts(self, gap: Sequence[complex]) -> Mapping[str, complex]:
        """Return the volts of every named node to ground [V]."""
        found = self.volts0 + self.volts_by_gap @ np.array(gap)
        return {name: complex(found[node]) for name, node in self.nodes.items()}

    def line_amps(self, gap: Sequence[complex]) -> dict[str, float]:
        """Return the current of every line, RMS [A]; nothing in one that is open."""
        return {line: abs(row_value(self.line_row(line), gap)) for line in LINES}

    def line_row(self, line: str) -> Row:
        """Return the constant and the gap's factors of a line's current, from the source [A].

        A line that is open carries nothing.
        """
        if line not in self.sources:
            return 0j, tuple(0j for _ in self.drive)
        volts, behind = self.sources[line]
        node = self.nodes[line]
        by_gap = tuple(complex(-value / behind) for value in self.volts_by_gap[node])
        return complex((volts - self.volts0[node]) / behind), by_gap

    def coil_row(self, place: int) -> Row:
        """Return the constant and the gap's factors of one coil's current [A]."""
        return (
            complex(self.amps0[place]),
            tuple(complex(value) for value in self.amps_by_gap[place]),
        )

    def volts_row(self, name: str) -> Row:
        """Return the constant and the gap's factors of a node's volts to ground [V]."""
        node = self.nodes[name]
        return (
            complex(self.volts0[node]),
            tuple(complex(value) for value in self.volts_by_gap[node]),
        )


def both_ways(machine: Machine) -> np.ndarray:
    """Return what each coil adds to every field, backward beside forward.

    Parameters
    ----------
    machine : Machine
        The coils.

    Returns
    -------
    ndarray, shape (coils, fields)
        Turns on their axes.
    """
    weights = np.array([coil.weights for coil in machine.coils])
    both = np.empty((len(weights), 2 * weights.shape[1]), dtype=complex)
    both[:, 0::2], both[:, 1::2] = weights, weights.conj()
    return both


def row_value(row: Row, gap: Sequence[complex]) -> complex:
    """Return what a row gives for some gap volts.

    Parameters
    ----------
    row : Row
        Of a current or of a node's volts.
    gap : sequence of complex
        Volts of each field. [V]
    """
    constant, factors = row
    return constant + sum(factor * part for factor, part in zip(factors, gap, strict=True))


def _names(machine: Machine, wiring: Wiring) -> Iterator[str]:
    """Go through every name that is a node, some more than once."""
    for coil in machine.coils:
        yield from (coil.start, coil.end)
    for name, _, _ in wiring.sources:
        yield name
    pairs = [(element.one, element.other) for element in wiring.elements]
    for group in wiring.groups:
        pairs += group.ends
    for pair in pairs:
        yield from (name for name in pair if name)


def _nodes(machine: Machine, wiring: Wiring) -> dict[str, int]:
    """Return the node of every name; names that are joined are one node."""
    chief: dict[str, str] = {}

    def root(name: str) -> str:
        while chief.setdefault(name, name) != name:
            name = chief[name]
        return name

    for name in _names(machine, wiring):
        root(name)
    for joint in wiring.joined:
        for name in joint[1:]:
            chief[root(name)] = root(joint[0])
    places: dict[str, int] = {}
    return {name: places.setdefault(root(name), len(places)) for name in chief}


def _stamp(
    matrix: np.ndarray,
    nodes: Mapping[str, int],
    ends: Sequence[tuple[str, str]],
    own: np.ndarray,
) -> None:
    """Add coupled branches to a nodal matrix; an end without name is ground."""
    incidence = np.zeros((len(ends), matrix.shape[0]))
    for row, (start, end) in enumerate(ends):
        if start:
            incidence[row, nodes[start]] += 1
        if end:
            incidence[row, nodes[end]] -= 1
    matrix += incidence.T @ own @ incidence
