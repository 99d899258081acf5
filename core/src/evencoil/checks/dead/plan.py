"""Checks with the ohmmeter before anything is energized, from the netlist itself.

Every reading is solved, in every position of buttons, selectors and overloads that
matters; the smallest set found covers every wire, each by a reading that would be
another one without it, and every contact that can be operated by hand, exchanged or
bridged, and every wire landed beside its place. A wrong reading is compared with what every
single fault would make the meter read.

Fuses are out and the leads of the motor are off meanwhile: a transformer or a winding would
make right and wrong read alike.

Units: resistance [ohm]. At most 1 ohm is said to be near zero, above 1 megohm open.
What a coil reads is an estimate from its VA: two readings are the same when they are
within five times, and everything up to 1 ohm is one.
Source: nodal analysis; set cover taken greedily, which is not always the least but
near it (textbook topics).
"""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from typing import Literal

from evencoil.base import Message, RefusedError
from evencoil.checks.dead.bench import (
    OPEN_OHM,
    ZERO_OHM,
    Bench,
    Hand,
    Observed,
    agrees,
    live_terminals,
    prepared,
    spots_of,
    stages_of,
    states_to_read,
)
from evencoil.checks.dead.faults import (
    WiringFault,
    contact_faults,
    missing_wires,
    moved_wires,
)
from evencoil.circuit import Circuit, Netlist
from evencoil.solver import Ohms, Pairs, Positions, ReadingCover, Run, pairs_of

__all__ = ["LOW_OHM", "MOST_WIRES", "Check", "DeadChecks", "dead_checks"]

#: a meter's leads and a dead short read less
LOW_OHM = ZERO_OHM
#: the work grows with the square of the wires, then faster: 85 take a second, 200 some ten
MOST_WIRES = 200
Kind = Literal["zero", "ohms", "open"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Check:
    """One reading to take.

    Attributes
    ----------
    start, end : str
        Terminals of the meter leads.
    hands : tuple of Hand
        What is held or set.
    ohms : float
        What a right circuit reads; infinite where it is open. [ohm]
    kind : str
        ``zero``, ``ohms`` or ``open``.
    covers : tuple of str
        Wires without which it would read something else.
    guards : tuple of Message
        Exchanged or bridged contacts with which it would read something else.
    """

    start: str
    end: str
    hands: tuple[Hand, ...]
    ohms: float
    kind: Kind
    covers: tuple[str, ...]
    guards: tuple[Message, ...]

    @property
    def as_drawn(self) -> Observed:
        """Return the reading that a right circuit gives."""
        return Observed(start=self.start, end=self.end, hands=self.hands, ohms=self.ohms)


@dataclass(frozen=True, slots=True, kw_only=True)
class DeadChecks:
    """The checks of one circuit, and the wires that no reading can tell.

    ``line_side`` are the wires in front of the main device: they stay live while it is
    open, and no ohmmeter goes there. ``apart`` is what is taken apart meanwhile: fuses out,
    motor leads off. ``blind`` are the single mistakes that no reading shows, of ``mistakes``.
    """

    checks: tuple[Check, ...]
    untold: tuple[str, ...]
    line_side: tuple[str, ...]
    blind: tuple[Message, ...]
    apart: tuple[Hand, ...]
    states: int
    mistakes: int

    @property
    def shown(self) -> int:
        """Return how many of the single mistakes some reading shows."""
        return self.mistakes - len(self.untold) - len(self.blind)

    def held(self, check: Check) -> tuple[Hand, ...]:
        """Return what is held for one reading, beyond what is apart for all."""
        return tuple(hand for hand in check.hands if hand not in self.apart)


def _kind(ohms: float) -> Kind:
    return "zero" if ohms < ZERO_OHM else "open" if ohms > OPEN_OHM else "ohms"


def _frames(circuit: Circuit) -> tuple[Check, ...]:
    """Return a reading of its own for each motor's frame: no other load in its way."""
    motors = {item.id for item in circuit.netlist.devices if item.type.startswith("motor")}
    return tuple(
        Check(
            start=wire.start,
            end=wire.end,
            hands=prepared(circuit),
            ohms=0.0,
            kind="zero",
            covers=(wire.id,),
            guards=(),
        )
        for wire in circuit.netlist.wires
        if wire.end.split(".")[0] in motors and wire.end.endswith(".PE")
    )


@dataclass(slots=True)
class _Sheet:
    """A circuit on the bench: positions, probes, and what a right one reads."""

    circuit: Circuit
    right: Bench = field(init=False)
    states: list[tuple[Hand, ...]] = field(init=False)
    terminals: list[str] = field(init=False)
    pairs: Pairs = field(init=False)
    drawn: Positions = field(init=False)
    reads: Ohms = field(init=False)
    held: list[int] = field(init=False)

    def __post_init__(self) -> None:
        netlist = self.circuit.netlist
        self.right = Bench(netlist, ())
        self.states = states_to_read(self.circuit, Run(self.right.plant))
        apart = len(self.states[0])
        self.held = [len(hands) - apart for hands in self.states]
        live = live_terminals(netlist)
        wired = {end for wire in netlist.wires for end in (wire.start, wire.end)} - live
        self.terminals = [name for name in netlist.terminals() if name in wired]
        self.pairs = pairs_of(netlist, self.terminals)
        self.drawn = self.right.positions(self.states, self.terminals, self.pairs)
        self.reads = self.drawn.ohms(range(len(self.states)))

    def check(self, number: int, pair: int, faults: Sequence[WiringFault]) -> Check:
        """Return one reading with what it covers."""
        ohms = float(self.reads[number][pair])
        return Check(
            start=self.terminals[self.pairs[0][pair]],
            end=self.terminals[self.pairs[1][pair]],
            hands=self.states[number],
            ohms=math.inf if ohms > OPEN_OHM else ohms,
            kind=_kind(ohms),
            covers=tuple(one.wire for one in faults if one.kind == "missing"),
            guards=tuple(one.message for one in faults if one.kind != "missing"),
        )

    def covered(
        self, faults: Sequence[WiringFault], tell: Callable[[int], None]
    ) -> tuple[list[Check], list[WiringFault]]:
        """Return the readings that show faults, and the faults that none shows."""
        cover = ReadingCover(self.reads, len(faults), low_ohm=LOW_OHM, open_ohm=OPEN_OHM)
        base, read = self.circuit.netlist, self.drawn
        for place, fault in enumerate(faults):
            tell(place)
            if fault.base is not base:
                base = fault.base
                read = self._bench(base).positions(self.states, self.terminals, self.pairs)
            for stage in stages_of(self.states, fault.devices):
                cover.compare(place, stage, read.ohms(stage, fault.joint))
                if cover.is_detected(place):
                    break
        checks = [
            self.check(number, pair, [faults[place] for place in cover.faults_of(number, pair)])
            for number, pair in cover.chosen(self.held)
        ]
        return checks, [one for place, one in enumerate(faults) if not cover.is_detected(place)]

    def _bench(self, netlist: Netlist) -> Bench:
        return Bench(netlist, (), self.right.known)

    def not_shown(
        self,
        faults: Sequence[WiringFault],
        checks: Sequence[Check],
        tell: Callable[[int], None],
    ) -> list[WiringFault]:
        """Return the faults that change none of some readings.

        Readings are taken position by position: most mistakes need only the first.
        """
        groups = _by_position(checks)
        states = list(groups)
        terminals, pairs, column = spots_of([one.as_drawn for one in checks])
        base: Netlist | None = None
        left = []
        for place, fault in enumerate(faults):
            tell(place)
            if fault.base is not base:
                base = fault.base
                read = self._bench(base).positions(states, terminals, pairs)
            if not any(
                not agrees(float(row[column[one.start, one.end]]), one.ohms)
                for number, group in enumerate(groups.values())
                for row in read.ohms([number], fault.joint)
                for one in group
            ):
                left.append(fault)
        return left


def _by_position(checks: Sequence[Check]) -> dict[tuple[Hand, ...], list[Observed]]:
    """Return readings by what is held."""
    found: dict[tuple[Hand, ...], list[Observed]] = {}
    for one in checks:
        found.setdefault(one.hands, []).append(one.as_drawn)
    return found


def dead_checks(circuit: Circuit, tell: Callable[[int, int], None] | None = None) -> DeadChecks:
    """Return the readings that together tell every wire of a circuit.

    First those that show every missing wire and every exchanged or bridged contact; then more
    for the wires that could be landed on another terminal of the same device.

    Parameters
    ----------
    circuit : Circuit
        As drawn or as found.
    tell : callable, optional
        Called with how many single mistakes were gone through, and of how many.

    Returns
    -------
    DeadChecks
        Few readings, each with what is held, what it reads and which wires it covers.

    Raises
    ------
    RefusedError
        If there are more wires than can be gone through one by one in reasonable time.
    """
    netlist = circuit.netlist
    if len(netlist.wires) > MOST_WIRES:
        raise RefusedError(
            Message("dead.too_large", {"wires": str(len(netlist.wires)), "most": str(MOST_WIRES)}),
            field="starter.edits",
            hint=Message("dead.too_large.hint"),
        )
    live = live_terminals(netlist)
    line_side = tuple(wire.id for wire in netlist.wires if {wire.start, wire.end} & live)
    sheet = _Sheet(circuit)
    hard = [
        fault
        for fault in (*missing_wires(circuit), *contact_faults(circuit))
        if fault.wire not in line_side
    ]
    moved = [fault for fault in moved_wires(circuit) if fault.wire not in line_side]
    of = len(hard) + len(moved)

    def told(done: int) -> None:
        if tell is not None:
            tell(done, of)

    checks, unseen = sheet.covered(hard, told)
    left = sheet.not_shown(moved, checks, lambda place: told(len(hard) + place))
    more, blind = sheet.covered(left, lambda place: told(of - len(left) + place))
    checks = [*_frames(circuit), *checks, *more]
    seen = {wire for check in checks for wire in check.covers}
    return DeadChecks(
        checks=tuple(sorted(checks, key=lambda one: len(one.hands))),
        line_side=line_side,
        untold=tuple(one.wire for one in unseen if one.kind == "missing" and one.wire not in seen),
        blind=tuple(one.message for one in (*unseen, *blind) if one.kind != "missing"),
        apart=prepared(circuit),
        states=len(sheet.states),
        mistakes=of,
    )
