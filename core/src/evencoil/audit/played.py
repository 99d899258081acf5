"""What the checks find on starters, made once for all that are wired alike.

A plant has many motors and few circuits; playing one takes as long as everything else of an audit
together.
"""

from __future__ import annotations

from collections import OrderedDict

from evencoil.base import names_of
from evencoil.checks import Problem
from evencoil.circuit import netlist_fingerprint
from evencoil.job import JobStarter

__all__ = ["PlayedOnce"]


class PlayedOnce:
    """Findings of circuits played, kept by everything that decides them.

    Parameters
    ----------
    most : int
        So many circuits are kept; the one asked for longest ago goes first.

    Attributes
    ----------
    played, asked : int
        Circuits that were played, and how often one was asked for.
    """

    def __init__(self, most: int = 1000) -> None:
        self._most = most
        self._kept: OrderedDict[object, tuple[Problem, ...]] = OrderedDict()
        self.played = self.asked = 0

    def __call__(self, starter: JobStarter) -> tuple[Problem, ...]:
        """Return what the checks find on a starter, played as well.

        Parameters
        ----------
        starter : JobStarter
            Drawn; one without a circuit has no findings.
        """
        if starter.circuit is None:
            return ()
        self.asked += 1
        key = (
            netlist_fingerprint(starter.circuit),
            tuple(sorted(starter.circuit.tags.items())),
            frozenset(starter.sources),
            starter.by_hand,
            starter.accepted,
            names_of(),
        )
        found = self._kept.get(key)
        if found is None:
            self.played += 1
            found = self._kept[key] = starter.problems()
            if len(self._kept) > self._most:
                self._kept.popitem(last=False)
        self._kept.move_to_end(key)
        return found
