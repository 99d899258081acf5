"""The dead circuit with a meter on it: what can be held, what is read."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from itertools import combinations

from evencoil.circuit import TURNED, Circuit, Device, Netlist, turns_of
from evencoil.solver import (
    TIMES,
    ZERO_TIMES,
    Action,
    Pairs,
    Plant,
    Positions,
    Run,
    compile_plant,
    pairs_at,
)

__all__ = [
    "OPEN_OHM",
    "ZERO_OHM",
    "Bench",
    "Hand",
    "Observed",
    "agrees",
    "can_be_read",
    "fuses_of",
    "live_terminals",
    "prepared",
    "spots_of",
    "stages_of",
    "states_to_read",
]

#: what a meter shows as near zero with its leads subtracted, and above what it shows open
ZERO_OHM, OPEN_OHM = 1.0, 1e6

_SETTLES_US = 20_000
#: switches that a hand works on a dead panel
#: what no hand works on a dead panel: taken out of its base, or its leads taken off
_UNPLUGGED = {"timer", "sdtimer", "ptcrelay", "rtdmon", "phasemon", "gfr", "thermostat", "zss"}
_HANDLES = {"isolator", "cb3", "fdisc", "mms", "manual"}
_MOST_STATES = 24
_AT_FIRST = 16


@dataclass(frozen=True, slots=True)
class Hand:
    """What is held or set while a reading is taken."""

    verb: str
    device: str
    word: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class Observed:
    """A reading that was taken, in ohms; infinite where it was open."""

    start: str
    end: str
    hands: tuple[Hand, ...]
    ohms: float


def hands_of(circuit: Circuit, run: Run) -> list[Hand]:
    """Return everything that an operator can hold or set, one by one.

    Parameters
    ----------
    circuit : Circuit
        As drawn or as found.
    run : Run
        Knows what each device can do.
    """
    found = []
    live = live_terminals(circuit.netlist)
    for item in circuit.netlist.devices:
        verbs = run.verbs_of(item.id)
        if item.type in {"pb", "estop"} and "press" in verbs:
            found.append(Hand("press", item.id))
        elif item.type in {"contactor", "relay"}:
            found.append(Hand("push_in", item.id))
        elif item.type in _UNPLUGGED and item.terminals:
            found.append(Hand("unplug", item.id))
        elif item.type in _HANDLES and not _is_main(item, live):
            is_on = item.parameters.get("init", "off") == "on"
            found.append(Hand("open" if is_on else "close", item.id))
        elif item.type == "olr":
            found.append(Hand("trip", item.id))
        elif item.type == "pilot":
            found.append(Hand("on", item.id))
        elif item.type in TURNED:
            found += [Hand("turn", item.id, word) for word in turns_of(item)]
    return found


def _is_main(item: Device, live: set[str]) -> bool:
    """Tell whether a switch has the supply on one side: it stays open, whatever is read."""
    return any(f"{item.id}.{end}" in live for end in item.terminals)


def prepared(circuit: Circuit) -> tuple[Hand, ...]:
    """Return what is taken apart before any reading: every fuse out, every motor's leads off.

    A transformer between two fuses, and a winding of less than an ohm, would make right and
    wrong read alike.

    Parameters
    ----------
    circuit : Circuit
        As drawn or as found.
    """
    fuses = [Hand("pull", item.id) for item in circuit.netlist.devices if item.type == "fuse"]
    motors = [
        Hand("lift", item.id) for item in circuit.netlist.devices if item.type.startswith("motor")
    ]
    return (*fuses, *motors)


def states_to_read(circuit: Circuit, run: Run) -> list[tuple[Hand, ...]]:
    """Return nothing held, each one thing held, and two of them on different devices.

    Everything is taken apart as `prepared` says before.

    Parameters
    ----------
    circuit : Circuit
        As drawn or as found.
    run : Run
        Knows what each device can do.
    """
    single = hands_of(circuit, run)
    pairs = [pair for pair in combinations(single, 2) if pair[0].device != pair[1].device]
    apart = prepared(circuit)
    held = [(), *((hand,) for hand in single), *pairs]
    return [(*apart, *hands) for hands in held[: max(_MOST_STATES, len(single) + 1)]]


def stages_of(states: Sequence[tuple[Hand, ...]], devices: frozenset[str]) -> Iterator[list[int]]:
    """Return the positions in the order in which they are tried for a fault.

    One thing held comes before two. On a large machine the first are nothing held and what is
    held on the devices that the fault is on; the others serve, some at a time, only for what
    these do not show. That costs a reading now and then, and most of the work is never done.

    Parameters
    ----------
    states : sequence
        What is held in each position, nothing in the first.
    devices : frozenset of str
        What the fault is on.

    Returns
    -------
    iterator of list of int
        Positions; each comes once.
    """
    apart = len(states[0])
    few = [place for place, hands in enumerate(states) if len(hands) - apart < 2]
    many = [place for place, hands in enumerate(states) if len(hands) - apart > 1]
    if len(few) > _AT_FIRST:
        is_near = [
            not place or any(hand.device in devices for hand in states[place][apart:])
            for place in few
        ]
        yield [place for place, near in zip(few, is_near, strict=True) if near]
        few = [place for place, near in zip(few, is_near, strict=True) if not near]
    for first in range(0, len(few), _AT_FIRST):
        yield few[first : first + _AT_FIRST]
    if many:
        yield many


def fuses_of(circuit: Circuit) -> tuple[str, ...]:
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


def live_terminals(netlist: Netlist) -> set[str]:
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


def can_be_read(circuit: Circuit, one: Observed) -> bool:
    """Tell whether a circuit still has both ends of a reading and what was held for it.

    Parameters
    ----------
    circuit : Circuit
        As it is drawn.
    one : Observed
        A reading that was taken.
    """
    known = set(circuit.netlist.terminals())
    devices = {item.id for item in circuit.netlist.devices}
    return {one.start, one.end} <= known and all(hand.device in devices for hand in one.hands)


def agrees(solved: float, read: float) -> bool:
    """Tell whether a meter could read that on a circuit that is solved to something.

    Parameters
    ----------
    solved : float
        By the netlist. [ohm]
    read : float
        By the meter. [ohm]
    """
    low, high = sorted(min(max(ohms, ZERO_OHM), OPEN_OHM) for ohms in (solved, read))
    return high <= low * (ZERO_TIMES if low <= ZERO_OHM else TIMES)


def spots_of(
    observed: Sequence[Observed],
) -> tuple[list[str], Pairs, dict[tuple[str, str], int]]:
    """Return the terminals of some readings, their pairs, and which pair each reading is."""
    terminals = list(dict.fromkeys(end for one in observed for end in (one.start, one.end)))
    ends = list(dict.fromkeys((one.start, one.end) for one in observed))
    pairs = pairs_at([(terminals.index(one), terminals.index(other)) for one, other in ends])
    return terminals, pairs, {pair: place for place, pair in enumerate(ends)}


class Bench:
    """A netlist on the bench: supply off, its buttons and armatures operated by hand.

    What is operated moves contacts, whatever the wires, while the supply is off, so a
    position that was set once serves every netlist of the same devices.
    """

    def __init__(
        self,
        netlist: Netlist,
        pulled: Sequence[str],
        known: dict[tuple[Hand, ...], list[float]] | None = None,
        *,
        joints: Sequence[str] = (),
        before: Sequence[Hand] = (),
    ) -> None:
        self.plant: Plant = compile_plant(netlist, joints=joints)
        self.pulled = pulled
        #: what stands so already when the hands come: a fault
        self.before = before
        self.known = {} if known is None else known

    def set(self, hands: tuple[Hand, ...]) -> list[float]:
        """Return the conductance of every branch with the given devices operated [S]."""
        if hands not in self.known:
            run = Run(self.plant)
            for fuse in self.pulled:
                run.act(Action(run.time, "pull", fuse))
            for hand in (*self.before, *hands):
                run.act(Action(run.time, hand.verb, hand.device, hand.word))
                run.advance(run.time + _SETTLES_US)
            run.look(run.time + _SETTLES_US)
            self.known[hands] = list(run.conductance)
        return self.known[hands]

    def positions(
        self, states: Sequence[tuple[Hand, ...]], terminals: Sequence[str], pairs: Pairs
    ) -> Positions:
        """Return the netlist ready to be read in positions, between pairs of terminals."""
        return Positions(self.plant, terminals, pairs, lambda place: self.set(states[place]))

    def reader(
        self, observed: Sequence[Observed]
    ) -> Callable[[tuple[str, str] | None], list[float]]:
        """Return what reads each place, with one more wire or None; positions are solved once."""
        states = list(dict.fromkeys(one.hands for one in observed))
        terminals, pairs, column = spots_of(observed)
        read = self.positions(states, terminals, pairs)

        def with_joint(joint: tuple[str, str] | None) -> list[float]:
            if not observed:
                return []
            ohms = read.ohms(range(len(states)), joint)
            return [
                float(ohms[states.index(one.hands), column[one.start, one.end]]) for one in observed
            ]

        return with_joint

    def read(self, observed: Sequence[Observed]) -> list[float]:
        """Return what the meter reads at each place; positions are set once for all alike."""
        return self.reader(observed)(None)
