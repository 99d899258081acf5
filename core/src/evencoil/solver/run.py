"""A rehearsal: a netlist worked through time, event by event.

Time is whole microseconds on a fixed grid. Between two events nothing needs a
step: speeds are straight lines, heats exponentials, so that the state is a
function of the scenario alone. Looking at a time between events changes
nothing; a run cut anywhere gives the same trace.

Source: event-driven simulation, nodal analysis (textbook topics).
"""

from __future__ import annotations

from collections.abc import Collection, Mapping
from math import inf
from typing import Any

from evencoil.base import Message, OutOfRangeError
from evencoil.solver.behavior import Behavior
from evencoil.solver.events import Action, Event
from evencoil.solver.plant import TIGHT_S, Plant, Solution
from evencoil.solver.shorts import joins_sources

__all__ = ["Run"]

MOST_CHANGES = 4000
_ROUNDS = 60
_POWER_LINKS = {
    "1L1-2T1",
    "3L2-4T2",
    "5L3-6T3",
    "1-2",
    "3-4",
    "5-6",
    "7-8",
    "9-10",
    "11-12",
}


def _joint_said(siemens: float, ohms: float) -> str:
    """Return how a joint is: ``tight``, ``open`` or its ohms."""
    if siemens >= TIGHT_S:
        return "tight"
    return f"{ohms:g} ohm" if siemens else "open"


class Run:
    """The state of a rehearsal, and what moves it on."""

    def __init__(self, plant: Plant) -> None:
        self.plant = plant
        self.time = 0
        self.admittance: list[complex] = [0j] * len(plant.ends)
        self.conductance: list[float] = [0.0] * len(plant.ends)
        self.feeds: list[tuple[complex, complex]] = [(0j, 0j)] * len(plant.sources)
        self.dc_feeds: list[tuple[float, float]] = [(0.0, 0.0)] * len(plant.dc_sources)
        self.grounded: frozenset[int] = frozenset()
        self.events: list[Event] = []
        self.count = 0
        self.changes = 0
        self.cause: int | None = None
        self.last_change: int | None = None
        #: the last pole or fuse that changed, for what happens to a motor
        self.last_power: tuple[int, int] | None = None
        #: what cleared a short circuit, and what opened on the current of a load
        self.shorted: list[str] = []
        self.overran: list[str] = []
        self.never_settles = False
        self.solution_is_old = True
        #: which hand's act stands at the start of an event's chain of causes
        self.roots: dict[int, int] = {}
        #: the operator actions, by event number: verb, device
        self.hands: dict[int, tuple[str, str]] = {}
        for branch in plant.joint_of.values():
            self.switch(branch, complex(TIGHT_S), TIGHT_S)
        for part in plant.parts:
            part.failed, part.meant = {}, {}
            part.begin()
        for part in plant.parts:
            part.rest(self)
        self.solution = self._solve()
        self.settle()
        self.events.clear()

    # what parts call

    def switch(self, branch: int, value: complex, direct: float | None = None) -> bool:
        """Set the admittance of a branch [S]; tell whether that changed anything."""
        direct = value.real if direct is None else direct
        if self.admittance[branch] == value and self.conductance[branch] == direct:
            return False
        self.admittance[branch] = value
        self.conductance[branch] = direct
        self.solution_is_old = True
        return True

    def feed(self, source: int, own: complex, volts: complex) -> None:
        """Set an alternating source."""
        if self.feeds[source] != (own, volts):
            self.feeds[source] = (own, volts)
            self.solution_is_old = True

    def feed_dc(self, source: int, own: float, volts: float) -> None:
        """Set a direct source."""
        if self.dc_feeds[source] != (own, volts):
            self.dc_feeds[source] = (own, volts)
            self.solution_is_old = True

    def tell(self, part: Behavior, aspect: str, value: str) -> int:
        """Write down what happened and return its number."""
        return self.note(part.id, aspect, value)

    def note(self, device: str, aspect: str, value: str) -> int:
        """Write down what happened to a device or to the whole."""
        self.count += 1
        self.events.append(Event(self.count, self.time, device, aspect, value, self.cause))
        if aspect == "hand":
            self.hands[self.count] = (value, device)
            self.roots[self.count] = self.count
        elif self.cause is not None and self.cause in self.roots:
            self.roots[self.count] = self.roots[self.cause]
        if value in {"open", "closed", "blown", "tripped", "reset"}:
            self.changes += 1
            self.last_change = self.count
            if aspect in _POWER_LINKS or value == "blown":
                self.last_power = (self.count, self.time)
        return self.count

    def root_of(self, event: int | None) -> tuple[str, str] | None:
        """Return verb and device of the operator action behind an event, None if there is none."""
        root = self.roots.get(event) if event is not None else None
        return self.hands.get(root) if root is not None else None

    def mark_opened(self, part: Behavior, poles: Collection[tuple[int, int]]) -> None:
        """Write down that a device opened on its current: on a short circuit, or on a load's.

        Parameters
        ----------
        part : Behavior
            The device.
        poles : collection of (int, int)
            The nodes on both sides of each.
        """
        # a winding is a load, however little its own impedance
        contacts = [
            0j if place in self.plant.coil_branches else value
            for place, value in enumerate(self.admittance)
        ]
        is_short = any(
            joins_sources(self.plant, pole, contacts, self.feeds, self.dc_feeds, self.grounded)
            for pole in poles
        )
        (self.shorted if is_short else self.overran).append(part.id)

    # moving on

    def _solve(self) -> Solution:
        plant = self.plant
        if plant.machine is None:
            volts = plant.solve(self.admittance, self.feeds, self.grounded)
        else:
            volts = plant.machine.network_volts(self)
        steady = None
        if any(own for own, _ in self.dc_feeds):
            steady = plant.solve_dc(self.conductance, self.dc_feeds, self.grounded)
        self.solution_is_old = False
        return Solution(volts, steady)

    def settle(self) -> None:
        """Solve and let every part look, until nothing changes at this instant."""
        for _ in range(_ROUNDS):
            self.solution = self._solve()
            self.cause = self.last_change
            for part in self.plant.parts:
                part.observe(self)
            if not self.solution_is_old:
                return
        self.never_settles = True

    def due(self) -> int | None:
        """Return the time of the next event [us]."""
        found = [due for part in self.plant.parts if (due := part.due()) is not None]
        return max(min(found), self.time) if found else None

    def advance(self, until: int) -> None:
        """Go through every event up to a time, that time included [us]."""
        while not self.never_settles:
            due = self.due()
            if due is None or due > until:
                break
            if self.changes > MOST_CHANGES:
                self.never_settles = True
                break
            self.time = due
            count, is_quiet = self.count, True
            for part in self.plant.parts:
                # a part may have several things due at one instant
                for _ in range(8):
                    own = part.due()
                    if own is None or own > self.time:
                        break
                    part.fire(self)
                    is_quiet = is_quiet and part.is_quiet
            # a scan that moved nothing gives nobody anything to look at
            if not is_quiet or self.count != count or self.solution_is_old:
                self.settle()

    def look(self, time: int) -> None:
        """Move the clock to a time between events, for reading states."""
        self.time = max(self.time, time)

    def act(self, action: Action) -> None:
        """Do one action at its time.

        Raises
        ------
        OutOfRangeError
            If the device is not there or cannot do that.
        """
        self.advance(action.time)
        self.time = max(self.time, action.time)
        self.cause = None
        self.last_power = None
        self.cause = self.last_change = self.note(
            action.device or "supply", "hand", " ".join(filter(None, (action.verb, action.word)))
        )
        if not self._do(action):
            raise OutOfRangeError(
                Message(
                    "scenario.cannot",
                    {
                        "verb": action.verb[:20],
                        "device": action.device[:40],
                        "word": action.word[:20],
                    },
                ),
                field="scenario",
                hint=Message(
                    "scenario.cannot.hint",
                    {"verbs": ", ".join(self.verbs_of(action.device)) or "—"},
                ),
            )
        self.settle()

    def verbs_of(self, device: str) -> tuple[str, ...]:
        """Return what can be done to a device."""
        part = self.plant.part_of.get(device)
        if part is None:
            is_terminal = device in self.plant.node_of
            return ("ground", "unground", "loosen", "tighten") if is_terminal else ()
        return (*part.verbs, "fail", "unplug", "plug") if part.branches else part.verbs

    def _joint(self, terminal: str, ohms: float) -> bool:
        """Let the joint of a terminal have some ohms; infinite is open. False if it has none."""
        branch = self.plant.joint_of.get(terminal)
        if branch is None or not ohms >= 0:
            return False
        own = 0.0 if ohms == inf else min(TIGHT_S, 1 / max(ohms, 1 / TIGHT_S))
        self.switch(branch, complex(own), own)
        self.note(terminal, "joint", _joint_said(own, ohms))
        return True

    def _at_terminal(self, verb: str, terminal: str, word: str) -> bool:
        """Ground a terminal, or let its joint come loose; False if there is none such."""
        if verb in {"loosen", "tighten"}:
            try:
                ohms = inf if word in {"", "open"} else float(word)
            except ValueError:
                return False
            return self._joint(terminal, ohms if verb == "loosen" else 0.0)
        node = self.plant.node_of.get(terminal)
        if node is None:
            return False
        self.grounded = self.grounded | {node} if verb == "ground" else self.grounded - {node}
        return True

    def _do(self, action: Action) -> bool:
        verb, word = action.verb, action.word
        if verb in {"loosen", "tighten", "ground", "unground"}:
            return self._at_terminal(verb, action.device, word)
        part = self.plant.part_of.get(action.device)
        supply = self.plant.main_supply
        if part is None and supply is not None and verb in supply.verbs:
            part = supply
        if part is None:
            return False
        if verb in {"unplug", "plug"}:
            return part.take_off(self, is_off=verb == "unplug")
        try:
            return part.fail(self, word) if verb == "fail" else part.act(self, verb, word)
        except ValueError:
            return False

    # reading

    def words(self) -> dict[str, str]:
        """Return the state of every device in one word, where it has one."""
        found = {}
        for part in self.plant.parts:
            word = part.word(self)
            if word:
                found[part.id] = word
        return found

    def are_both_closed(self, pair: frozenset[str]) -> bool:
        """Tell whether two contactors conduct at once: each has a closed main pole."""
        return all(self.has_closed_pole(device) for device in pair)

    def has_closed_pole(self, device: str) -> bool:
        """Tell whether a device of the plant has a main pole closed."""
        part = self.plant.part_of.get(device)
        return part is not None and any(
            link.kind == "pole" and part.is_closed(self, link.name) for link in part.links
        )

    def is_live(self, terminal: str) -> bool:
        """Tell whether a terminal has volts to ground that can hurt."""
        return self.is_live_net(self.plant.node_of[terminal])

    def is_live_net(self, node: int) -> bool:
        """Tell whether a net has volts to ground that can hurt, alternating or direct."""
        # the output of a drive is pulses of its bus, whatever its basic wave
        if any(drive.hz and node in drive.touched(self) for drive in self.plant.drives):
            return True
        level = self.plant.constants["live_v"]
        steady = self.solution.steady
        return abs(self.solution.volts[node]) >= level or (
            steady is not None and abs(steady[node]) >= level
        )

    # keeping

    def save(self) -> dict[str, Any]:
        """Return the whole state as plain values, small enough for a snapshot."""
        palette: list[complex] = []
        places = []
        for value in self.admittance:
            if value not in palette:
                palette.append(value)
            places.append(palette.index(value))
        return {
            "time": self.time,
            "count": self.count,
            "last": self.last_change,
            "palette": [[value.real, value.imag] for value in palette],
            "branches": places,
            "direct": self.conductance,
            "feeds": [[own.real, own.imag, volt.real, volt.imag] for own, volt in self.feeds],
            "dc": [list(feed) for feed in self.dc_feeds],
            "grounded": sorted(self.grounded),
            "parts": [part.save() for part in self.plant.parts],
            "failed": [
                [part.id, dict(part.failed), dict(part.meant)]
                for part in self.plant.parts
                if part.failed
            ],
            "joints": list(self.plant.joint_of),
            "never": self.never_settles,
            "roots": self._kept_roots(),
        }

    def _kept_roots(self) -> list[list[Any]]:
        """Return the operator actions behind what is under way: event, root, verb, device."""
        wanted = {self.last_change}
        wanted |= {getattr(part, "begun_by", None) for part in self.plant.parts}
        return [
            [number, self.roots[number], *self.hands[self.roots[number]]]
            for number in sorted(one for one in wanted if one is not None)
            if number in self.roots and self.roots[number] in self.hands
        ]

    def load(self, kept: Mapping[str, Any]) -> None:
        """Take a state back; the next solving is the same as before it was saved.

        This plant may have more joints than the one that was saved, after those it had.
        """
        self.time = kept["time"]
        self.count = kept["count"]
        self.last_change = kept["last"]
        palette = [complex(*value) for value in kept["palette"]]
        more = len(self.plant.ends) - len(kept["branches"])
        self.admittance = [palette[place] for place in kept["branches"]] + [complex(TIGHT_S)] * more
        self.conductance = list(kept["direct"]) + [TIGHT_S] * more
        self.feeds = [(complex(a, b), complex(c, d)) for a, b, c, d in kept["feeds"]]
        self.dc_feeds = [(own, volts) for own, volts in kept["dc"]]
        self.grounded = frozenset(kept["grounded"])
        for part, values in zip(self.plant.parts, kept["parts"], strict=True):
            part.load(list(values))
        wrong = {name: (failed, meant) for name, failed, meant in kept["failed"]}
        for part in self.plant.parts:
            failed, meant = wrong.get(part.id, ({}, {}))
            part.failed, part.meant = dict(failed), dict(meant)
        self.never_settles = kept["never"]
        self.roots = {number: root for number, root, _, _ in kept["roots"]}
        self.hands = {root: (verb, device) for _, root, verb, device in kept["roots"]}
        self.roots |= {root: root for root in self.hands}
        self.events = []
        self.changes = 0
        self.shorted = []
        self.overran = []
        self.cause = None
        self.solution = self._solve()
