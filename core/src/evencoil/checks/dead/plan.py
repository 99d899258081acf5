"""Checks with the ohmmeter before anything is energized, from the netlist itself.

Every reading is solved, in every position of buttons, selectors and overloads that
matters; the smallest set found covers every wire, each by a reading that would be
another one without it, and every contact that can be operated by hand, exchanged or
bridged. A wrong reading is compared with what every single fault would make the
meter read.

Units: resistance [ohm]. Below 2 ohms is said to be near zero, above 1 megohm open.
What a coil reads is an estimate from its VA: two readings are the same when they are
within five times, and everything below 5 ohms is one.
Source: nodal analysis; set cover taken greedily, which is not always the least but
near it (textbook topics).
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal

from evencoil.base import Message
from evencoil.checks.dead.bench import (
    OPEN_OHM,
    ZERO_OHM,
    Bench,
    Hand,
    fuses_of,
    live_terminals,
    stages_of,
    states_to_read,
)
from evencoil.checks.dead.faults import contact_faults, missing_wires
from evencoil.circuit import Circuit
from evencoil.solver import ReadingCover, Run, pairs_of

__all__ = ["LOW_OHM", "Check", "DeadChecks", "dead_checks"]

#: a meter's leads, a large motor's winding and a dead short all read less
LOW_OHM = 5.0
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


@dataclass(frozen=True, slots=True, kw_only=True)
class DeadChecks:
    """The checks of one circuit, and the wires that no reading can tell.

    ``line_side`` are the wires in front of the main device: they stay live while it is
    open, and no ohmmeter goes there. ``pulled`` are the control fuses that are out
    meanwhile: a transformer's winding would hide every reading.
    """

    checks: tuple[Check, ...]
    untold: tuple[str, ...]
    line_side: tuple[str, ...]
    pulled: tuple[str, ...]
    states: int


def _kind(ohms: float) -> Kind:
    return "zero" if ohms < ZERO_OHM else "open" if ohms > OPEN_OHM else "ohms"


def _frames(circuit: Circuit) -> tuple[Check, ...]:
    """Return a reading of its own for each motor's frame: no other load in its way."""
    motors = {item.id for item in circuit.netlist.devices if item.type.startswith("motor")}
    return tuple(
        Check(
            start=wire.start,
            end=wire.end,
            hands=(),
            ohms=0.0,
            kind="zero",
            covers=(wire.id,),
            guards=(),
        )
        for wire in circuit.netlist.wires
        if wire.end.split(".")[0] in motors and wire.end.endswith(".PE")
    )


def dead_checks(circuit: Circuit) -> DeadChecks:
    """Return the readings that together tell every wire of a circuit.

    Parameters
    ----------
    circuit : Circuit
        As drawn or as found.

    Returns
    -------
    DeadChecks
        Few readings, each with what is held, what it reads and which wires it covers.
    """
    pulled = fuses_of(circuit)
    netlist = circuit.netlist
    right = Bench(netlist, pulled)
    states = states_to_read(circuit, Run(right.plant))
    live = live_terminals(netlist)
    netlist_start = {wire.id: wire.start for wire in netlist.wires}
    wired = {end for wire in netlist.wires for end in (wire.start, wire.end)} - live
    terminals = [name for name in netlist.terminals() if name in wired]
    pairs = pairs_of(netlist, terminals)
    reads = right.ohms(states, terminals, pairs)
    faults = [
        fault
        for fault in (*missing_wires(circuit), *contact_faults(circuit))
        if not fault.wire or netlist_start[fault.wire] not in live
    ]
    line_side = tuple(wire.id for wire in netlist.wires if wire.start in live)
    cover = ReadingCover(reads, len(faults), low_ohm=LOW_OHM, open_ohm=OPEN_OHM)
    # two devices operated at once only for what one does not show
    few = sum(len(hands) < 2 for hands in states)
    for place, fault in enumerate(faults):
        bench = Bench(fault.netlist, pulled, right.known)
        for part in stages_of(few, len(states)):
            if states[part] and not cover.is_detected(place):
                cover.compare(place, part, bench.ohms(states[part], terminals, pairs))
    checks = tuple(
        Check(
            start=terminals[pairs[0][pair]],
            end=terminals[pairs[1][pair]],
            hands=states[number],
            ohms=math.inf if reads[number][pair] > OPEN_OHM else float(reads[number][pair]),
            kind=_kind(float(reads[number][pair])),
            covers=tuple(
                faults[place].wire for place in cover.faults_of(number, pair) if faults[place].wire
            ),
            guards=tuple(
                faults[place].message
                for place in cover.faults_of(number, pair)
                if not faults[place].wire
            ),
        )
        for number, pair in cover.chosen([len(hands) for hands in states])
    )
    checks = (*_frames(circuit), *checks)
    seen = {wire for check in checks for wire in check.covers}
    return DeadChecks(
        checks=checks,
        line_side=line_side,
        untold=tuple(fault.wire for fault in faults if fault.wire and fault.wire not in seen),
        pulled=pulled,
        states=len(states),
    )
