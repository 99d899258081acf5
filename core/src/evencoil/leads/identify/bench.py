"""The practice bench: a motor with its tags gone, answering like a real meter.

The motor is solved on the circuit network, with leakage, a caged rotor at rest
and a meter that is off by up to two percent; it shares no formula with the
search. The same seed gives the same motor and the same errors.

Units: volts [V], resistance [ohm].
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from random import Random

from evencoil.base import Message, RefusedError
from evencoil.leads.identify.readings import Pair, lead_letters
from evencoil.solver import Network, coil_matrix
from evencoil.winding import KINDS, WindingKind

__all__ = ["PracticeBench"]

_ERROR = 0.02
_FEED_PART = 1e-4


class PracticeBench:
    """A mystery motor.

    Parameters
    ----------
    kind : str
        Of `KINDS`, three-phase.
    seed : int
        Which motor: order of the leads, coil ohms, coupling, meter errors.
    """

    def __init__(self, kind: WindingKind, seed: int) -> None:
        self.kind, self.seed = kind, seed
        self.winding = KINDS[kind]
        random = Random(seed)  # noqa: S311 - a practice motor, no secret
        order = list(self.winding.leads)
        random.shuffle(order)
        self.lead_letters = lead_letters(len(order))
        self.lead_of: Mapping[str, str] = dict(zip(self.lead_letters, order, strict=True))
        self.coil_ohm = random.uniform(0.05, 2.0)
        self.rotor_pu = random.uniform(0.05, 0.14)

    def _off(self, *key: object) -> float:
        """Return the meter's factor for one reading, the same each time it is taken."""
        return 1 + Random(f"{self.seed}{key}").uniform(-_ERROR, _ERROR)  # noqa: S311 - no secret

    def _nodes(self, joined: Sequence[Pair]) -> dict[str, int]:
        winding = self.winding
        owner: dict[str, str] = {}

        def root(point: str) -> str:
            while owner.setdefault(point, point) != point:
                point = owner[point]
            return point

        for one, other in joined:
            owner[root(self.lead_of[one])] = root(self.lead_of[other])
        points = [end for coil in winding.coils for end in (coil.start, coil.end)]
        roots = list(dict.fromkeys(root(point) for point in points))
        return {point: roots.index(root(point)) for point in points}

    def ohms(self, pair: Pair) -> float | None:
        """Return what an ohmmeter shows, None for open [ohm].

        Parameters
        ----------
        pair : pair of str
            Two lead letters, all joints open.
        """
        self._known(pair)
        nodes = self._nodes(())
        one, other = (nodes[self.lead_of[end]] for end in pair)
        network = Network(max(nodes.values()) + 1)
        network.source(one, 1 + 0j, 1 + 0j)
        network.source(other, 0j, 1 + 0j)
        for coil in self.winding.coils:
            start, end, siemens = nodes[coil.start], nodes[coil.end], 1 / self.coil_ohm
            network.admittance[start][start] += siemens
            network.admittance[end][end] += siemens
            network.admittance[start][end] -= siemens
            network.admittance[end][start] -= siemens
        volts = network.solve()
        amps = 1 - volts[one].real
        if amps < 1e-6:
            return None
        return (volts[one] - volts[other]).real / amps * self._off("ohms", sorted(pair))

    def volts(
        self, feed: tuple[str, ...], feed_v: float, joined: Sequence[Pair], read: Pair
    ) -> float:
        """Return what a voltmeter shows [V].

        Parameters
        ----------
        feed : tuple of str
            Two lead letters fed with low AC, the rotor at rest.
        feed_v : float
            Volts of the feed. [V]
        joined : sequence of pairs
            Sleeves jumpered.
        read : pair of str
            Where the meter is.
        """
        self._known((*feed, *read, *(end for pair in joined for end in pair)))
        nodes = self._nodes(joined)
        network = Network(max(nodes.values()) + 1)
        one, other = (nodes[self.lead_of[end]] for end in feed)
        # both ends of the feed float against ground, as behind a transformer
        network.source(one, complex(feed_v / 2), complex(_FEED_PART * self.coil_ohm))
        network.source(other, complex(-feed_v / 2), complex(_FEED_PART * self.coil_ohm))
        ends = [(nodes[coil.start], nodes[coil.end]) for coil in self.winding.coils]
        phase_ohm = self.coil_ohm * 60
        matrix = coil_matrix(self.winding, phase_ohm, rotor=complex(0.03, self.rotor_pu))
        network.coils(ends, matrix)
        at = network.solve()
        shown = abs(at[nodes[self.lead_of[read[0]]]] - at[nodes[self.lead_of[read[1]]]])
        return shown * self._off("volts", feed, tuple(joined), read)

    def _known(self, used: Sequence[str]) -> None:
        for letter in used:
            if letter not in self.lead_of:
                raise RefusedError(
                    Message("unmarked.letter", {"n": "1", "lead": letter[:12]}),
                    field="bench.readings",
                    hint=Message("unmarked.letter.hint"),
                )
