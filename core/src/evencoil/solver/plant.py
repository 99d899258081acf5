"""A netlist made ready for solving: nodes, branches, sources, parts.

A branch is a two-ended element whose admittance may change (a contact, a coil,
a winding); a block is a fixed group of coupled windings (a transformer). The
network is solved anew only when an admittance or a source changes, and each
solved state is saved.

Units: volts [V], admittance [S].
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from functools import cached_property

from evencoil.circuit import Netlist
from evencoil.solver.behavior import Behavior, Calculated, Converter, Fed
from evencoil.solver.network import Matrix, inverse
from evencoil.solver.sparse import Rows, elimination_order, solve_sparse

__all__ = ["EARTH_S", "TIGHT_S", "Plant", "Solution"]

EARTH_S = 1e4
#: a joint that is tight [S]
TIGHT_S = 1e4
_KEPT = 4096


class Solution:
    """Volts of every node in one state of the network.

    Attributes
    ----------
    volts : list of complex
        Alternating volts to ground, RMS phasors. [V]
    steady : list of float
        Direct volts to ground; zeros where nothing makes any. [V]
    """

    __slots__ = ("memo", "steady", "volts")

    def __init__(self, volts: list[complex], steady: list[float] | None) -> None:
        self.volts = volts
        self.steady = steady
        self.memo: dict[int, object] = {}


class Plant:
    """A netlist compiled for one set of constants.

    Parameters
    ----------
    netlist : Netlist
        Devices and wires, right or wrong.
    constants : mapping
        Name to figure.
    joints : sequence of str
        Terminals whose joint with their wires can come loose: each stands apart from its net
        behind a branch of its own, after all others in `ends`.
    """

    def __init__(
        self, netlist: Netlist, constants: Mapping[str, float], joints: Sequence[str] = ()
    ) -> None:
        self.netlist = netlist
        self.constants = constants
        self.node_of = dict(netlist.nets())
        self.size = max(self.node_of.values(), default=-1) + 1
        #: terminal to its own node and that of its net, then to its branch
        self._apart: dict[str, tuple[int, int]] = {}
        self.joint_of: dict[str, int] = {}
        for terminal in joints:
            net, own = self.node_of[terminal], self.inner_node()
            self.node_of[terminal] = own
            self._apart[terminal] = (own, net)
        self.ends: list[tuple[int, int]] = []
        #: node, and the floating node that it is fed from; -1 is ground
        self.sources: list[tuple[int, int]] = []
        self.dc_sources: list[tuple[int, int]] = []
        self.earthed: list[int] = []
        self.parts: list[Behavior] = []
        self.part_of: dict[str, Behavior] = {}
        #: takes the actions that name no device: off, on, dip
        self.main_supply: Behavior | None = None
        #: the motor that is calculated from its nameplate; its coils meet in the air gap
        self.machine: Calculated | None = None
        self.coil_branches: frozenset[int] = frozenset()
        #: branches of every coil of a motor, with their nodes
        self.motor_coils: dict[int, tuple[int, int]] = {}
        #: what feeds motors at a frequency of its own
        self.drives: list[Converter] = []
        self.fed: list[Fed] = []
        #: how the overload relay takes unequal phases, where someone said; only with `machine`
        self.relay_kind = ""
        self._blocks: list[tuple[tuple[tuple[int, int], ...], Matrix, Sequence[float]]] = []
        self._base: Rows = []
        self._dc_base: Rows = []
        #: pairs of nodes that meet in an equation, from which the order of elimination follows
        self._pairs: list[tuple[int, int]] = []
        self._solved: dict[object, list[complex]] = {}
        self._solved_dc: dict[object, list[float]] = {}

    def node(self, device_id: str, terminal: str) -> int:
        """Return the node of a terminal."""
        return self.node_of[f"{device_id}.{terminal}"]

    def inner_node(self) -> int:
        """Return a new node that no terminal reaches."""
        self.size += 1
        return self.size - 1

    def branch(self, start: int, end: int) -> int:
        """Add a branch between two nodes and return its number."""
        self.ends.append((start, end))
        return len(self.ends) - 1

    @property
    def windings(self) -> list[tuple[tuple[int, int], ...]]:
        """Return the ends of each group of coupled windings."""
        return [ends for ends, _, _ in self._blocks]

    def source(self, node: int, back: int = -1) -> int:
        """Add an alternating source, to ground or to a floating node, and return its number."""
        self.sources.append((node, back))
        return len(self.sources) - 1

    def dc_source(self, plus: int, minus: int) -> int:
        """Add a direct source between two nodes and return its number."""
        self.dc_sources.append((plus, minus))
        return len(self.dc_sources) - 1

    def block(
        self, ends: Sequence[tuple[int, int]], impedance_ohm: Matrix, dc_ohm: Sequence[float]
    ) -> None:
        """Add a fixed group of coupled windings, with their direct-current ohms."""
        self._blocks.append((tuple(ends), inverse(impedance_ohm), dc_ohm))

    def finish(self) -> None:
        """Lay out the fixed part; call once."""
        for terminal, joint in self._apart.items():
            self.joint_of[terminal] = self.branch(*joint)
        leak = self.constants["leak_s"]
        self._base = [{node: complex(leak)} for node in range(self.size)]
        self._dc_base = [{node: complex(leak)} for node in range(self.size)]
        for node in self.earthed:
            self._base[node][node] += EARTH_S
            self._dc_base[node][node] += EARTH_S
        pairs = list(self.ends)
        for ends, own, dc_ohm in self._blocks:
            points = [point for pair in ends for point in pair]
            pairs += [(one, other) for one in points for other in points]
            for one, (start, end) in enumerate(ends):
                _stamp(self._dc_base, start, end, 1 / dc_ohm[one])
                for other, (other_start, other_end) in enumerate(ends):
                    value = own[one][other]
                    for row, sign in ((start, 1), (end, -1)):
                        target = self._base[row]
                        target[other_start] = target.get(other_start, 0) + sign * value
                        target[other_end] = target.get(other_end, 0) - sign * value
        pairs += self.dc_sources
        pairs += [pair for pair in self.sources if pair[1] >= 0]
        for one, other in pairs:
            for row, column in ((one, other), (other, one)):
                if row != column:
                    self._base[row].setdefault(column, 0j)
                    self._dc_base[row].setdefault(column, 0j)
        self._pairs = pairs

    @cached_property
    def _order(self) -> tuple[int, ...]:
        """Return the order of elimination; a circuit that is only read dead never asks."""
        return elimination_order(self.size, self._pairs)

    def equations(
        self,
        admittance: Sequence[complex],
        sources: Sequence[tuple[complex, complex]],
        grounded: frozenset[int],
    ) -> tuple[Rows, list[complex]]:
        """Return the network's rows and currents for one state.

        Parameters
        ----------
        admittance : sequence of complex
            Of each branch. [S]
        sources : sequence of (complex, complex)
            Admittance and open volts of each source. [S], [V]
        grounded : frozenset of int
            Nodes that a fault bonds to ground.
        """
        rows = [dict(row) for row in self._base]
        right = [0j] * self.size
        for (start, end), value in zip(self.ends, admittance, strict=True):
            if value and start != end:
                row, other = rows[start], rows[end]
                row[start] += value
                row[end] -= value
                other[end] += value
                other[start] -= value
        for (node, back), (value, volts) in zip(self.sources, sources, strict=True):
            rows[node][node] += value
            right[node] += value * volts
            if back >= 0:
                rows[back][back] += value
                rows[node][back] -= value
                rows[back][node] -= value
                right[back] -= value * volts
        for node in grounded:
            rows[node][node] += 1 / self.constants["pole_ohm"]
        return rows, right

    def solve(
        self,
        admittance: Sequence[complex],
        sources: Sequence[tuple[complex, complex]],
        grounded: frozenset[int],
    ) -> list[complex]:
        """Return the alternating volts of every node, from the kept ones if solved before.

        Parameters
        ----------
        admittance, sources, grounded
            As `equations`.
        """
        key = (tuple(admittance), tuple(sources), grounded)
        found = self._solved.get(key)
        if found is None:
            found = solve_sparse(*self.equations(admittance, sources, grounded), self._order)
            if len(self._solved) >= _KEPT:
                self._solved.clear()
            self._solved[key] = found
        return found

    def solve_dc(
        self,
        conductance: Sequence[float],
        sources: Sequence[tuple[float, float]],
        grounded: frozenset[int],
    ) -> list[float]:
        """Return the direct volts of every node.

        Parameters
        ----------
        conductance : sequence of float
            Of each branch. [S]
        sources : sequence of (float, float)
            Conductance and open volts of each direct source. [S], [V]
        grounded : frozenset of int
            Nodes that a fault bonds to ground.
        """
        key = (tuple(conductance), tuple(sources), grounded)
        found = self._solved_dc.get(key)
        if found is not None:
            return found
        rows = [dict(row) for row in self._dc_base]
        right = [0j] * self.size
        for (start, end), value in zip(self.ends, conductance, strict=True):
            if value and start != end:
                _stamp(rows, start, end, value)
        for (plus, minus), (value, volts) in zip(self.dc_sources, sources, strict=True):
            if value and plus != minus:
                _stamp(rows, plus, minus, value)
                right[plus] += value * volts
                right[minus] -= value * volts
        for node in grounded:
            rows[node][node] += 1 / self.constants["pole_ohm"]
        found = [value.real for value in solve_sparse(rows, right, self._order)]
        if len(self._solved_dc) >= _KEPT:
            self._solved_dc.clear()
        self._solved_dc[key] = found
        return found

    def dc_rows(self, conductance: Sequence[float]) -> Rows:
        """Return the equations for direct current, sources dead.

        Parameters
        ----------
        conductance : sequence of float
            Of each branch. [S]
        """
        rows = [dict(row) for row in self._dc_base]
        for (start, end), value in zip(self.ends, conductance, strict=True):
            if value and start != end:
                _stamp(rows, start, end, value)
        return rows

    def ohms(self, conductance: Sequence[float], one: int, other: int) -> float:
        """Return the ohms that a meter reads between two nodes, sources dead.

        Parameters
        ----------
        conductance : sequence of float
            Of each branch, direct current. [S]
        one, other : int
            Nodes of the meter leads.

        Returns
        -------
        float
            [ohm]; a leak of 1e-9 S at each node makes "open" a thousand megohms.
        """
        if one == other:
            return 0.0
        rows = self.dc_rows(conductance)
        right = [0j] * self.size
        right[one] += 1
        right[other] -= 1
        volts = solve_sparse(rows, right, self._order)
        return (volts[one] - volts[other]).real


def _stamp(rows: Rows, start: int, end: int, value: float) -> None:
    rows[start][start] += value
    rows[end][end] += value
    rows[start][end] = rows[start].get(end, 0) - value
    rows[end][start] = rows[end].get(start, 0) - value
