"""The blocks of the relay: what they are given, what they show, what each call does.

Units: times [ms].
Source: IEC 61131-3, standard function blocks; edges of first calls as docs/logic.md says.
"""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Mapping
from dataclasses import dataclass

from evencoil.logic.literals import INT_MOST

__all__ = ["BLOCKS", "WORKING", "Block", "BlockType"]


@dataclass(frozen=True, slots=True)
class BlockType:
    """A kind of block: inputs and outputs with their types, the power input of its rung.

    ``is_retained`` tells whether RETAIN may keep it over a loss of power.
    """

    inputs: Mapping[str, str]
    outputs: Mapping[str, str]
    power: str
    is_retained: bool


BLOCKS: Mapping[str, BlockType] = {
    **{
        name: BlockType(
            {"IN": "BOOL", "PT": "TIME"}, {"Q": "BOOL", "ET": "TIME"}, "IN", is_retained=False
        )
        for name in ("TON", "TOF", "TP")
    },
    "CTU": BlockType(
        {"CU": "BOOL", "R": "BOOL", "PV": "INT"}, {"Q": "BOOL", "CV": "INT"}, "CU", is_retained=True
    ),
    "CTD": BlockType(
        {"CD": "BOOL", "LD": "BOOL", "PV": "INT"},
        {"Q": "BOOL", "CV": "INT"},
        "CD",
        is_retained=True,
    ),
    "CTUD": BlockType(
        {"CU": "BOOL", "CD": "BOOL", "R": "BOOL", "LD": "BOOL", "PV": "INT"},
        {"QU": "BOOL", "QD": "BOOL", "CV": "INT"},
        "CU",
        is_retained=True,
    ),
    **{
        name: BlockType({"CLK": "BOOL"}, {"Q": "BOOL"}, "CLK", is_retained=False)
        for name in ("R_TRIG", "F_TRIG")
    },
    "SR": BlockType({"S1": "BOOL", "R": "BOOL"}, {"Q1": "BOOL"}, "S1", is_retained=True),
    "RS": BlockType({"S": "BOOL", "R1": "BOOL"}, {"Q1": "BOOL"}, "S", is_retained=True),
}


class Block(ABC):
    """A block with its memory; inputs that a call leaves out keep their values."""

    __slots__: tuple[str, ...] = ()

    def __init__(self) -> None:
        """Start with FALSE and 0 everywhere."""
        for name in self.__slots__:
            setattr(self, name, 0 if name in {"PT", "PV", "ET", "CV", "start"} else False)

    def state(self) -> tuple[object, ...]:
        """Return everything that outlives a scan."""
        return tuple(getattr(self, name) for name in self.__slots__)

    def restore(self, state: tuple[object, ...]) -> None:
        """Put back what outlived a scan.

        Parameters
        ----------
        state : tuple
            As `state` gave it.
        """
        for name, value in zip(self.__slots__, state, strict=True):
            setattr(self, name, value)

    def settled(self) -> tuple[object, ...]:
        """Return what outlives a scan and does not only tell how long something has lasted."""
        return tuple(getattr(self, name) for name in self.__slots__ if name != "ET")

    def untimed(self) -> tuple[object, ...]:
        """Return what outlives a scan but for instants and durations."""
        return tuple(getattr(self, name) for name in self.__slots__ if name not in {"ET", "start"})

    def over_at(self) -> int | None:
        """Return when it changes with its inputs as they are; None if it never does [ms]."""
        return None

    @abstractmethod
    def call(self, now: int) -> None:
        """Work once on the inputs as they are set.

        Parameters
        ----------
        now : int
            Clock of the scan. [ms]
        """


class TON(Block):
    """On-delay: Q once IN has lasted PT."""

    __slots__ = ("ET", "IN", "PT", "Q", "before", "is_done", "start")
    ET: int
    IN: bool
    PT: int
    Q: bool
    before: bool
    is_done: bool
    start: int

    def over_at(self) -> int | None:
        """Return when the delay is over [ms]."""
        return self.start + self.PT if self.IN and not self.is_done else None

    def call(self, now: int) -> None:
        """Time from the rise; done is done until IN falls."""
        if not self.IN:
            self.Q, self.ET, self.is_done = False, 0, False
        elif self.PT <= 0:
            if not self.before:
                self.start = now
            self.Q, self.ET, self.is_done = True, 0, True
        else:
            if not self.before:
                self.start, self.is_done = now, False
            past = now - self.start
            self.is_done = self.is_done or past >= self.PT
            self.Q, self.ET = self.is_done, min(past, self.PT)
        self.before = self.IN


class TOF(Block):
    """Off-delay: Q stays for PT after IN."""

    __slots__ = ("ET", "IN", "PT", "Q", "before", "is_timing", "start")
    ET: int
    IN: bool
    PT: int
    Q: bool
    before: bool
    is_timing: bool
    start: int

    def over_at(self) -> int | None:
        """Return when Q goes [ms]."""
        return self.start + self.PT if self.is_timing and not self.IN else None

    def call(self, now: int) -> None:
        """Time from the fall; what was never on times nothing."""
        if self.IN:
            self.Q, self.ET, self.is_timing = True, 0, True
        elif self.PT <= 0:
            if self.before:
                self.start = now
            self.Q, self.is_timing = False, False
        elif self.is_timing:
            if self.before:
                self.start = now
            past = now - self.start
            self.ET, self.Q = min(past, self.PT), past < self.PT
            # what is over stays over, whatever PT becomes
            self.is_timing = self.Q
        self.before = self.IN


class TP(Block):
    """Pulse: Q for PT from a rise, whatever IN does meanwhile."""

    __slots__ = ("ET", "IN", "PT", "Q", "before", "is_on", "start")
    ET: int
    IN: bool
    PT: int
    Q: bool
    before: bool
    is_on: bool
    start: int

    def over_at(self) -> int | None:
        """Return when the pulse is over [ms]."""
        return self.start + self.PT if self.is_on else None

    def call(self, now: int) -> None:
        """Run on from a rise; one while it runs, or in the call that ends it, is lost."""
        if self.is_on:
            past = now - self.start
            self.is_on = self.Q = past < self.PT
            self.ET = past if self.Q else max(self.PT, 0) if self.IN else 0
        elif self.IN and not self.before and self.PT > 0:
            self.start, self.ET = now, 0
            self.is_on = self.Q = True
        else:
            self.Q = False
            if not self.IN:
                self.ET = 0
        self.before = self.IN


class CTU(Block):
    """Up counter; reset before a rise."""

    __slots__ = ("CU", "CV", "PV", "Q", "R", "before")
    CU: bool
    CV: int
    PV: int
    Q: bool
    R: bool
    before: bool

    def call(self, now: int) -> None:
        """Count a rise up to the highest INT."""
        del now
        if self.R:
            self.CV = 0
        elif self.CU and not self.before and self.CV < INT_MOST:
            self.CV += 1
        self.before = self.CU
        self.Q = self.CV >= self.PV


class CTD(Block):
    """Down counter; load before a rise."""

    __slots__ = ("CD", "CV", "LD", "PV", "Q", "before")
    CD: bool
    CV: int
    LD: bool
    PV: int
    Q: bool
    before: bool

    def call(self, now: int) -> None:
        """Count a rise down to the lowest INT."""
        del now
        if self.LD:
            self.CV = self.PV
        elif self.CD and not self.before and self.CV > -INT_MOST - 1:
            self.CV -= 1
        self.before = self.CD
        self.Q = self.CV <= 0


class CTUD(Block):
    """Up and down counter; reset before load before rises, and both rises at once are none."""

    __slots__ = ("CD", "CU", "CV", "LD", "PV", "QD", "QU", "R", "before_down", "before_up")
    CD: bool
    CU: bool
    CV: int
    LD: bool
    PV: int
    QD: bool
    QU: bool
    R: bool
    before_down: bool
    before_up: bool

    def call(self, now: int) -> None:
        """Count one rise, up or down."""
        del now
        up, down = self.CU and not self.before_up, self.CD and not self.before_down
        if self.R:
            self.CV = 0
        elif self.LD:
            self.CV = self.PV
        elif up and not down and self.CV < INT_MOST:
            self.CV += 1
        elif down and not up and self.CV > -INT_MOST - 1:
            self.CV -= 1
        self.before_up, self.before_down = self.CU, self.CD
        self.QU, self.QD = self.CV >= self.PV, self.CV <= 0


class R_TRIG(Block):  # noqa: N801 - the standard's name
    """Rise; on at the first call if CLK is."""

    __slots__ = ("CLK", "Q", "before")
    CLK: bool
    Q: bool
    before: bool

    def call(self, now: int) -> None:
        """On for the one call in which CLK came."""
        del now
        self.Q = self.CLK and not self.before
        self.before = self.CLK


class F_TRIG(Block):  # noqa: N801 - the standard's name
    """Fall; on at the first call if CLK is off."""

    __slots__ = ("CLK", "Q", "before")
    CLK: bool
    Q: bool
    before: bool

    def call(self, now: int) -> None:
        """On for the one call in which CLK went; ``before`` holds that it was off."""
        del now
        self.Q = not self.CLK and not self.before
        self.before = not self.CLK


class SR(Block):
    """Memory; set wins."""

    __slots__ = ("Q1", "R", "S1")
    Q1: bool
    R: bool
    S1: bool

    def call(self, now: int) -> None:
        """Set, or kept where it is not reset."""
        del now
        self.Q1 = self.S1 or (self.Q1 and not self.R)


class RS(Block):
    """Memory; reset wins."""

    __slots__ = ("Q1", "R1", "S")
    Q1: bool
    R1: bool
    S: bool

    def call(self, now: int) -> None:
        """Not reset, and set or kept."""
        del now
        self.Q1 = not self.R1 and (self.S or self.Q1)


#: each kind of block as it works
WORKING: Mapping[str, type[Block]] = {
    kind.__name__: kind for kind in (TON, TOF, TP, CTU, CTD, CTUD, R_TRIG, F_TRIG, SR, RS)
}
