"""Checks with the ohmmeter before anything is energised, from the netlist itself.

Every reading is solved, in every position of buttons, selectors and overloads that
matters; the smallest set found covers every wire, each by a reading that would be
another one without it, and every contact that hands can open or close, exchanged or
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
from collections import Counter, defaultdict
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import combinations
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from evencoil.circuit.library import CONTACTS, TURNED, links_of, turns_of
from evencoil.circuit.netlist import Netlist, Wire
from evencoil.circuit.text import Circuit
from evencoil.solver.dead import DeadNetwork
from evencoil.solver.plant import Plant
from evencoil.solver.run import Action, Run, compile_plant
from evencoil.words import Message

__all__ = [
    "Check",
    "DeadChecks",
    "Hand",
    "Observed",
    "Suspect",
    "dead_checks",
    "readings_hold",
    "suspects",
]

ZERO_OHM, OPEN_OHM = 2.0, 1e6
#: a meter's leads, a large motor's winding and a dead short all read less
LOW_OHM = 5.0
#: coils of one voltage differ that much from maker to maker; less tells nothing
_TIMES = 5.0
_APART = math.log(_TIMES)
_Pairs = tuple[NDArray[np.int64], NDArray[np.int64]]
_SETTLES_US = 20_000
_MOST_STATES = 24
_MANY_STATES = 16
#: nobody lands a control wire on a pole, or the other way round
_POLES = {"1L1", "2T1", "3L2", "4T2", "5L3", "6T3"}
Kind = Literal["zero", "ohms", "open"]
FaultKind = Literal["missing", "swapped", "jumper", "moved"]
#: how common each is on a bench, most first
_COMMON: tuple[FaultKind, ...] = ("missing", "moved", "swapped", "jumper")


@dataclass(frozen=True, slots=True)
class Hand:
    """What is held or set while a reading is taken."""

    verb: str
    device: str
    word: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class Check:
    """One reading to take.

    Attributes
    ----------
    start, end : str
        Terminals of the probes.
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


@dataclass(frozen=True, slots=True, kw_only=True)
class Observed:
    """A reading that was taken, in ohms; infinite where it was open."""

    start: str
    end: str
    hands: tuple[Hand, ...]
    ohms: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Suspect:
    """A single fault, how many of the readings it explains, and how to say it."""

    kind: FaultKind
    explains: int
    of: int
    message: Message
    wire: str = ""


def _kind(ohms: float) -> Kind:
    return "zero" if ohms < ZERO_OHM else "open" if ohms > OPEN_OHM else "ohms"


def _hands(circuit: Circuit, run: Run) -> list[Hand]:
    """Return everything that a hand can hold or set, one by one."""
    found = []
    for item in circuit.netlist.devices:
        verbs = run.verbs_of(item.id)
        if item.type in {"pb", "estop"} and "press" in verbs:
            found.append(Hand("press", item.id))
        elif item.type == "olr":
            found.append(Hand("trip", item.id))
        elif item.type == "pilot":
            found.append(Hand("on", item.id))
        elif item.type in TURNED:
            found += [Hand("turn", item.id, word) for word in turns_of(item)]
    return found


def _states(circuit: Circuit, run: Run) -> list[tuple[Hand, ...]]:
    """Return nothing held, each one thing held, and two of them on different devices."""
    single = _hands(circuit, run)
    pairs = [pair for pair in combinations(single, 2) if pair[0].device != pair[1].device]
    return [(), *((hand,) for hand in single), *pairs][:_MOST_STATES]


def _fuses(circuit: Circuit) -> tuple[str, ...]:
    """Return the fuses that a transformer's secondary feeds."""
    nets = circuit.netlist.nets()
    fed = {
        nets[f"{item.id}.{end}"]
        for item in circuit.netlist.devices
        if item.type == "xfmr"
        for end in item.terminals
        if end.startswith("X")
    }
    return tuple(
        item.id
        for item in circuit.netlist.devices
        if item.type == "fuse" and {nets[f"{item.id}.{end}"] for end in item.terminals} & fed
    )


def _live(netlist: Netlist) -> set[str]:
    """Return the terminals that are joined to the supply's lines without a device between."""
    nets = netlist.nets()
    lines = {
        nets[f"{item.id}.{end}"]
        for item in netlist.devices
        if item.type == "supply"
        for end in item.terminals
        if end not in {"PE", "N"}
    }
    return {terminal for terminal, net in nets.items() if net in lines}


class _Bench:
    """A netlist on the bench: supply off, control fuses out, hands at its buttons.

    What hands do to contacts does not hang on the wires while the supply is off, so a
    position that was set once serves every netlist of the same devices.
    """

    def __init__(
        self,
        netlist: Netlist,
        pulled: Sequence[str],
        known: dict[tuple[Hand, ...], list[float]] | None = None,
    ) -> None:
        self.plant: Plant = compile_plant(netlist)
        self.pulled = pulled
        self.known = {} if known is None else known
        self.network = DeadNetwork(self.plant)

    def set(self, hands: tuple[Hand, ...]) -> list[float]:
        """Return the conductance of every branch with hands where they are told [S]."""
        if hands not in self.known:
            run = Run(self.plant)
            for fuse in self.pulled:
                run.act(Action(run.time, "pull", fuse))
            for hand in hands:
                run.act(Action(run.time, hand.verb, hand.device, hand.word))
                run.advance(run.time + _SETTLES_US)
            run.look(run.time + _SETTLES_US)
            self.known[hands] = list(run.conductance)
        return self.known[hands]

    def ohms(
        self, states: Sequence[tuple[Hand, ...]], terminals: Sequence[str], pairs: _Pairs
    ) -> NDArray[np.float64]:
        """Return readings, positions x pairs [ohm]."""
        return self.network.ohms(np.array([self.set(hands) for hands in states]), terminals, pairs)

    def read(self, observed: Sequence[Observed]) -> list[float]:
        """Return what the meter reads at each place; hands are set once for all alike."""
        states = list(dict.fromkeys(one.hands for one in observed))
        if not observed:
            return []
        ends = [end for one in observed for end in (one.start, one.end)]
        places = np.arange(len(ends))
        ohms = self.ohms(states, ends, (places[::2], places[1::2]))
        return [float(ohms[states.index(one.hands), place]) for place, one in enumerate(observed)]


def _without(netlist: Netlist, wire: str) -> Netlist:
    return replace(netlist, wires=tuple(item for item in netlist.wires if item.id != wire))


def _pairs(netlist: Netlist, terminals: Sequence[str]) -> _Pairs:
    """Return the pairs of terminals worth a reading.

    On one net any two; between nets only the ends of their chains, since every terminal
    between reads the same while the wires are whole.
    """
    nets = netlist.nets()
    wires = Counter(end for wire in netlist.wires for end in (wire.start, wire.end))
    ends: dict[int, list[int]] = defaultdict(list)
    for place, name in enumerate(terminals):
        ends[nets[name]].append(place)
    outer = set()
    for places in ends.values():
        tips = [place for place in places if wires[terminals[place]] == 1] or places
        outer |= {tips[0], tips[-1]}
    one, other = np.triu_indices(len(terminals), 1)
    of_net = np.array([nets[name] for name in terminals])
    is_outer = np.array([place in outer for place in range(len(terminals))])
    kept = (of_net[one] == of_net[other]) | (is_outer[one] & is_outer[other])
    return one[kept], other[kept]


def _stages(few: int, count: int) -> tuple[slice, ...]:
    """Return the positions in the order in which they are tried for a fault.

    A large machine has many buttons: there the later ones serve only for what the first
    do not tell, which costs a reading now and then and halves the work.
    """
    if few <= _MANY_STATES:
        return slice(0, few), slice(few, count)
    half = few // 2
    return slice(0, half), slice(half, few), slice(few, count)


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
    pulled = _fuses(circuit)
    netlist = circuit.netlist
    right = _Bench(netlist, pulled)
    states = _states(circuit, Run(right.plant))
    live = _live(netlist)
    netlist_start = {wire.id: wire.start for wire in netlist.wires}
    wired = {end for wire in netlist.wires for end in (wire.start, wire.end)} - live
    terminals = [name for name in netlist.terminals() if name in wired]
    pairs = _pairs(netlist, terminals)
    reads = right.ohms(states, terminals, pairs)
    told = np.clip(reads, LOW_OHM, OPEN_OHM)
    faults = [
        fault
        for fault in (*_missing(circuit), *_contacts(circuit))
        if not fault.wire or netlist_start[fault.wire] not in live
    ]
    line_side = tuple(wire.id for wire in netlist.wires if wire.start in live)
    covers = np.zeros((len(faults), *told.shape), dtype=bool)
    # two hands at once only for what one hand does not tell
    few = sum(len(hands) < 2 for hands in states)
    for place, fault in enumerate(faults):
        bench = _Bench(fault.netlist, pulled, right.known)
        for part in _stages(few, len(states)):
            if states[part] and not covers[place].any():
                wrong = np.clip(bench.ohms(states[part], terminals, pairs), LOW_OHM, OPEN_OHM)
                covers[place, part] = (wrong > told[part] * _TIMES) | (told[part] > wrong * _TIMES)
    chosen = _cover(covers, np.array([len(hands) for hands in states]))
    checks = tuple(
        Check(
            start=terminals[pairs[0][pair]],
            end=terminals[pairs[1][pair]],
            hands=states[number],
            ohms=math.inf if reads[number][pair] > OPEN_OHM else float(reads[number][pair]),
            kind=_kind(float(reads[number][pair])),
            covers=tuple(
                faults[place].wire
                for place in np.flatnonzero(covers[:, number, pair])
                if faults[place].wire
            ),
            guards=tuple(
                faults[place].message
                for place in np.flatnonzero(covers[:, number, pair])
                if not faults[place].wire
            ),
        )
        for number, pair in chosen
    )
    seen = {wire for check in checks for wire in check.covers}
    return DeadChecks(
        checks=checks,
        line_side=line_side,
        untold=tuple(fault.wire for fault in faults if fault.wire and fault.wire not in seen),
        pulled=pulled,
        states=len(states),
    )


def _cover(covers: NDArray[np.bool_], held: NDArray[np.int64]) -> list[tuple[int, int]]:
    """Choose readings until every wire that can be told is; fewest hands first among equals."""
    left = covers.any(axis=(1, 2))
    chosen = []
    while left.any():
        gains = covers[left].sum(axis=0).astype(float) - held[:, None] * 0.01
        number, pair = np.unravel_index(int(np.argmax(gains)), gains.shape)
        chosen.append((int(number), int(pair)))
        left &= ~covers[:, number, pair]
    return sorted(chosen, key=lambda item: (int(held[item[0]]), item[0], item[1]))


@dataclass(frozen=True, slots=True)
class _Fault:
    kind: FaultKind
    netlist: Netlist
    message: Message
    wire: str


def _faults(circuit: Circuit) -> Iterator[_Fault]:
    """Go through every single fault that a pair of hands makes."""
    yield from _missing(circuit)
    yield from _moved(circuit)
    yield from _contacts(circuit)


def _missing(circuit: Circuit) -> Iterator[_Fault]:
    """Leave out each wire in turn."""
    netlist = circuit.netlist
    for wire in netlist.wires:
        params = {"start": circuit.said(wire.start), "end": circuit.said(wire.end)}
        yield _Fault(
            "missing", _without(netlist, wire.id), Message("dead.missing", params), wire.id
        )


def _contacts(circuit: Circuit) -> Iterator[_Fault]:
    """Exchange contacts of one device, and join the two ends of each."""
    netlist = circuit.netlist
    for item in netlist.devices:
        contacts = [link for link in links_of(item) if link.kind in CONTACTS]
        tag = circuit.tags.get(item.id, item.id)
        for one, other in combinations(contacts, 2):
            if one.kind != other.kind:
                turned = _swapped(netlist, item.id, {one.a: other.a, one.b: other.b})
                said = Message(
                    "dead.swapped",
                    {"tag": tag, "one": f"{one.a}-{one.b}", "other": f"{other.a}-{other.b}"},
                )
                yield _Fault("swapped", turned, said, "")
        for link in contacts:
            bridge = Wire(f"{item.id}.bridge", f"{item.id}.{link.a}", f"{item.id}.{link.b}")
            said = Message("dead.jumper", {"tag": tag, "one": link.a, "other": link.b})
            yield _Fault("jumper", replace(netlist, wires=(*netlist.wires, bridge)), said, "")


def _swapped(netlist: Netlist, device: str, pairs: Mapping[str, str]) -> Netlist:
    both = {**pairs, **{value: key for key, value in pairs.items()}}

    def end(terminal: str) -> str:
        owner, _, name = terminal.rpartition(".")
        return f"{owner}.{both[name]}" if owner == device and name in both else terminal

    return replace(
        netlist,
        wires=tuple(
            replace(wire, start=end(wire.start), end=end(wire.end)) for wire in netlist.wires
        ),
    )


def _moved(circuit: Circuit) -> Iterator[_Fault]:
    """Land each end of each wire on another terminal of the same device."""
    netlist = circuit.netlist
    devices = {item.id: item for item in netlist.devices}
    for wire in netlist.wires:
        for end in ("start", "end"):
            at = getattr(wire, end)
            owner, _, name = at.rpartition(".")
            item = devices.get(owner)
            if item is None or item.type in {"joint", "supply"}:
                continue
            for other in item.terminals:
                if other == name or (other in _POLES) != (name in _POLES):
                    continue
                landed = replace(wire, **{end: f"{owner}.{other}"})
                wires = tuple(landed if one.id == wire.id else one for one in netlist.wires)
                far = wire.end if end == "start" else wire.start
                said = Message(
                    "dead.moved",
                    {
                        "far": circuit.said(far),
                        "at": circuit.said(at),
                        "other": circuit.said(f"{owner}.{other}"),
                    },
                )
                yield _Fault("moved", replace(netlist, wires=wires), said, wire.id)


def suspects(circuit: Circuit, observed: Sequence[Observed], most: int = 8) -> tuple[Suspect, ...]:
    """Return the single faults that explain readings, best first.

    Parameters
    ----------
    circuit : Circuit
        As it is drawn.
    observed : sequence of Observed
        Every reading that was taken, right ones too: they rule faults out.
    most : int
        How many to return.

    Returns
    -------
    tuple of Suspect
        Empty while no reading differs from the drawing.
    """
    if not observed:
        return ()
    pulled = _fuses(circuit)
    known = set(circuit.netlist.terminals())
    readings = [one for one in observed if one.start in known and one.end in known]

    known_hands: dict[tuple[Hand, ...], list[float]] = {}

    def explained(netlist: Netlist) -> int:
        solved = _Bench(netlist, pulled, known_hands).read(readings)
        return sum(map(_agrees, solved, (one.ohms for one in readings)))

    if not readings or explained(circuit.netlist) == len(readings):
        return ()
    found = []
    for fault in _faults(circuit):
        count = explained(fault.netlist)
        if count:
            found.append(
                Suspect(
                    kind=fault.kind,
                    explains=count,
                    of=len(readings),
                    message=fault.message,
                    wire=fault.wire,
                )
            )
    found.sort(key=lambda one: (-one.explains, _COMMON.index(one.kind)))
    best = found[0].explains if found else 0
    return tuple(one for one in found if one.explains == best)[:most]


def _agrees(solved: float, read: float) -> bool:
    """Tell whether a meter could read that on a circuit that is solved to something."""
    one, other = (min(max(ohms, LOW_OHM), OPEN_OHM) for ohms in (solved, read))
    return abs(math.log(one / other)) <= _APART


def readings_hold(circuit: Circuit, observed: Sequence[Observed]) -> tuple[bool | None, ...]:
    """Tell of each reading whether the circuit as drawn gives it; None if its ends are gone.

    Parameters
    ----------
    circuit : Circuit
        As it is drawn.
    observed : sequence of Observed
        Readings that were taken.
    """
    known = set(circuit.netlist.terminals())
    devices = {item.id for item in circuit.netlist.devices}
    here = [
        {one.start, one.end} <= known and all(hand.device in devices for hand in one.hands)
        for one in observed
    ]
    bench = _Bench(circuit.netlist, _fuses(circuit))
    solved = iter(bench.read([one for one, is_here in zip(observed, here, strict=True) if is_here]))
    return tuple(
        _agrees(next(solved), one.ohms) if is_here else None
        for one, is_here in zip(observed, here, strict=True)
    )
