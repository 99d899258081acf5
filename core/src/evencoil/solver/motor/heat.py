"""Heat of the overload relay and of the winding, both with a memory.

A first-order image: heat follows the square of the current with one time
constant. Source: thermal image of overload relays (textbook protection); trip
limits of IEC 60947-4-1 and NEMA ICS 2. Time constants of the winding are
judgment, as written at each; no motor was measured.

Units: [s], [A], [K], [C].
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field
from itertools import pairwise
from math import exp, log
from typing import Literal

__all__ = [
    "INSULATION_C",
    "TAU_S",
    "OverloadRelay",
    "RelayClass",
    "RelayKind",
    "ShortCircuitDevice",
    "WindingHeat",
]

RelayClass = Literal["5", "10A", "10", "20", "30"]
RelayKind = Literal["phase_loss", "plain", "two_heaters", "electronic", "melting_alloy"]

#: ultimate trip between 1.05 (never) and 1.20 (must): 1.125 squared
TRIP = 1.265625


def nema_tau_s(relay_class: int) -> float:
    """Return the time constant of a relay that trips at 0.9 of its class at 600 % [s]."""
    return 0.9 * relay_class / log(36 / (36 - TRIP))


#: time constant by class [s]; class 5 is NEMA's, the others are IEC 60947-4-1's
TAU_S = {"5": nema_tau_s(5), "10A": 165.0, "10": 243.0, "20": 475.0, "30": 712.0}
_MORE_OF_DIFFERENCE, _OF_WORST = 0.25, 0.3
#: judgment: an electronic relay trips so long after a line is gone [s]; it sees currents above
#: this part of its setting, and takes a line as gone below that part of the largest
LOST_S = 3.0
_SEEN, _IDLE = 0.2, 0.5

#: hottest spot allowed by insulation class [C]; source: IEC 60085, NEMA MG 1
INSULATION_C = {"A": 105.0, "B": 130.0, "F": 155.0, "H": 180.0}
#: judgment: one time constant of a totally enclosed motor's winding [s]
WINDING_TAU_S = 600.0


@dataclass(slots=True)
class OverloadRelay:
    """A relay of some class, set to some current; ``heat`` is that of each phase.

    Attributes
    ----------
    set_a : float
        The current it is set to. [A]
    relay_class : str
        Trip class.
    kind : str
        ``phase_loss`` trips sooner on unequal phases, ``plain`` (three strips on one bar) goes
        mostly by their mean, ``two_heaters`` sees the first and the last line only,
        ``melting_alloy`` trips on any one of its pots, ``electronic`` likewise and after a few
        seconds without one line.
    heat : list of float
        1 is the steady heat of the set current.
    """

    set_a: float
    relay_class: RelayClass = "10"
    kind: RelayKind = "phase_loss"
    heat: list[float] | None = None
    lost_s: float = 0.0

    @property
    def tau_s(self) -> float:
        """Return its time constant [s]."""
        return TAU_S[self.relay_class]

    def warm(self, amps_a: Sequence[float], lasting_s: float) -> None:
        """Take the heat of some currents over a time."""
        if self.heat is None:
            self.heat = [0.0] * len(amps_a)
        stays = exp(-lasting_s / self.tau_s)
        for place, amps in enumerate(amps_a):
            aim = (amps / self.set_a) ** 2
            self.heat[place] = aim + (self.heat[place] - aim) * stays
        if self.kind == "electronic" and len(amps_a) > 2:
            is_lost = max(amps_a) > _SEEN * self.set_a and min(amps_a) < _IDLE * max(amps_a)
            self.lost_s = self.lost_s + lasting_s if is_lost else 0.0

    @property
    def level(self) -> float:
        """Return how near it is to tripping; 1 trips."""
        heat = self.heat or [0.0]
        if self.kind == "electronic":
            return max(max(heat) / TRIP, self.lost_s / LOST_S)
        if self.kind == "melting_alloy":
            told = max(heat)
        elif self.kind == "two_heaters":
            told = max(heat[0], heat[-1])
        elif self.kind == "phase_loss":
            told = max(heat) + _MORE_OF_DIFFERENCE * (max(heat) - min(heat))
        else:
            told = _OF_WORST * max(heat) + (1 - _OF_WORST) * sum(heat) / len(heat)
        return told / TRIP

    def trips_after_s(self, times: float, hot: float = 0.0) -> float | None:
        """Return when it trips at a multiple of the set current in all phases, None if never.

        ``hot`` is the heat it begins with. [s]
        """
        if times**2 <= TRIP:
            return None
        return self.tau_s * log((times**2 - hot) / (times**2 - TRIP))


#: judgment: how fast a fuse or breaker that did not open forgets [s]
DEVICE_TAU_S = 120.0


@dataclass(slots=True)
class ShortCircuitDevice:
    """Fuses or a breaker of some curve: the part of their time that is spent, line by line.

    Source: Miner's sum over a time-current curve (textbook protection).

    Attributes
    ----------
    rating_a : float
        [A]
    points : tuple of (float, float)
        Multiple of the rating and seconds, from small to large current.
    spent : list of float
        Of each line; 1 opens.
    """

    rating_a: float
    points: tuple[tuple[float, float], ...]
    spent: list[float] = field(default_factory=lambda: [0.0] * 3)

    def opens_after_s(self, amps_a: float) -> float | None:
        """Return when it opens at a steady current, cold [s]; None if never."""
        times = amps_a / self.rating_a
        if times < self.points[0][0]:
            return None
        for (low, slow), (high, fast) in pairwise(self.points):
            if times <= high:
                part = log(times / low) / log(high / low)
                return exp(log(slow) + part * log(fast / slow))
        return self.points[-1][1]

    def warm(self, amps_a: Sequence[float], lasting_s: float) -> None:
        """Take the currents of the lines over a time."""
        for place, amps in enumerate(amps_a):
            opens = self.opens_after_s(amps)
            if opens is None:
                self.spent[place] *= exp(-lasting_s / DEVICE_TAU_S)
            else:
                self.spent[place] += lasting_s / opens

    @property
    def level(self) -> float:
        """Return how near it is to opening; 1 opens."""
        return max(self.spent)

    def will_open(self, amps_a: Sequence[float]) -> bool:
        """Tell whether it opens some time if currents stay so."""
        return any(self.opens_after_s(amps) is not None for amps in amps_a)


@dataclass(slots=True)
class WindingHeat:
    """The rise of each coil above the air around the motor.

    Attributes
    ----------
    rated_a : tuple of float
        Rated current of each coil. [A]
    rated_rise_k : float
        Rise at rated current after a long time. [K]
    rise_k : list of float
        Now. [K]
    """

    rated_a: tuple[float, ...]
    rated_rise_k: float
    rise_k: list[float]

    def warm(self, amps_a: Sequence[float], lasting_s: float) -> None:
        """Take the heat of the coils' currents over a time."""
        stays = exp(-lasting_s / WINDING_TAU_S)
        for place, amps in enumerate(amps_a):
            aim = self.rated_rise_k * (amps / self.rated_a[place]) ** 2
            self.rise_k[place] = aim + (self.rise_k[place] - aim) * stays
