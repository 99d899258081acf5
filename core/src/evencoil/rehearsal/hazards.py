"""Hazards by name, at the instant, with the chain of causes.

Springs to life: a motor gets torque although no hand asked for it. Does not
stop: it keeps its torque after a stop. Both ways at once: two contactors that
must never be closed together conduct. Plugged while running: it is thrown
against its own motion. Short circuit: a fuse or a breaker cleared one.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from evencoil.base import Message, say
from evencoil.circuit import TURNED, Circuit, links_of
from evencoil.solver import Event, Motor, Run, motors_of

__all__ = ["Hazard", "Watch", "chain_of"]

STOP_AFTER_US = 500_000
#: operator actions that do not ask for a start
_NO_START = {
    "restore",
    "sag",
    "trip",
    "lose",
    "reset",
    "twist",
    "pull",
    "cool",
    "fit",
    "release",
    "free",
    "temp",
    "unground",
    "ground",
    "swaplines",
    "close",
    "unweld",
    "sensor",
    "blow",
}
_DRIVEN = {"forward", "backward"}
_POLES = {
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
#: what a device does when its hand's act already said so
_SAID_TWICE = {"chain.overload_reset", "chain.overload_tripped", "chain.fuse_blown"}


@dataclass(frozen=True, slots=True, kw_only=True)
class Hazard:
    """A hazard at its instant.

    Attributes
    ----------
    code : str
        ``springs_to_life``, ``does_not_stop``, ``both_ways``, ``plugged``, ``short``.
    time_us : int
        [us]
    device : str
        The part that did it.
    chain : tuple of Message
        From the first cause to the end, one clause each.
    """

    code: str
    time_us: int
    device: str
    chain: tuple[Message, ...]

    @property
    def sentence(self) -> str:
        """Return the chain as one sentence."""
        return " → ".join(say(part) for part in self.chain)


_HANDS = {
    "off",
    "on",
    "dip",
    "press",
    "release",
    "twist",
    "pull",
    "trip",
    "reset",
    "close",
    "open",
    "turn",
    "lose",
    "restore",
    "weld",
    "blow",
    "ground",
    "sag",
    "swaplines",
    "jam",
    "free",
    "spin",
    "temp",
    "cool",
}
_OWN = {"overload", "fuse", "breaker", "starter", "temperature", "time"}


def _hand_clause(event: Event, circuit: Circuit, tag: str) -> Message:
    verb, _, word = event.value.partition(" ")
    name = verb if verb in _HANDS else "other"
    if verb in {"on", "off"} and _type_of(circuit, event.device) == "pilot":
        name = f"pilot_{verb}"
    return Message(f"chain.{name}", {"tag": tag, "word": word, "verb": verb})


def _clause(event: Event, circuit: Circuit) -> Message | None:
    """Return what an event means in a few words, None if it says nothing new."""
    tag = circuit.tags.get(event.device, event.device or "supply")
    name = ""
    if event.aspect == "hand":
        return _hand_clause(event, circuit, tag)
    if event.aspect == "coil" and event.value in {"fed", "dead"}:
        name = f"coil_{event.value}"
    elif event.aspect == "drive" and event.value in {*_DRIVEN, "single"}:
        name = f"drive_{event.value}"
    elif event.aspect in _OWN:
        name = f"{event.aspect}_{event.value}"
    elif event.value in {"open", "closed"} and event.aspect not in _POLES:
        name = f"contact_{event.value}"
    return Message(f"chain.{name}", {"tag": tag, "contact": event.aspect}) if name else None


def _type_of(circuit: Circuit, device: str) -> str:
    return next((item.type for item in circuit.netlist.devices if item.id == device), "")


def chain_of(event: int | None, events: Mapping[int, Event], circuit: Circuit) -> list[Message]:
    """Return the clauses from the first known cause to an event.

    Parameters
    ----------
    event : int or None
        Number of the last event.
    events : mapping
        Known events by number.
    circuit : Circuit
        For the tags.
    """
    found: list[Message] = []
    while event is not None and event in events and len(found) < 24:
        here = events[event]
        clause = _clause(here, circuit)
        if clause is not None and (not found or found[-1] != clause):
            found.append(clause)
        event = here.cause
    told = found[::-1]
    return [
        clause
        for place, clause in enumerate(told)
        if not (
            place
            and clause.id in _SAID_TWICE
            and told[place - 1].params["tag"] == clause.params["tag"]
        )
    ]


class Watch:
    """Reads a run as it goes and names the hazards; small enough for a snapshot."""

    def __init__(self, circuit: Circuit) -> None:
        self.circuit = circuit
        self.recent: dict[int, Event] = {}
        self.stops: list[tuple[int, int, list[str]]] = []
        self.words: dict[str, str] = {}
        self.together: list[list[str]] = []
        #: motor to the operator's act behind its last torque: what follows is one start
        self.begun: dict[str, int] = {}
        self.stop_devices = _stop_devices(circuit)

    def due(self) -> int | None:
        """Return when the next stop is judged [us]."""
        return self.stops[0][0] if self.stops else None

    def see(self, run: Run, fresh: Sequence[Event]) -> list[Hazard]:
        """Look at what just happened.

        Parameters
        ----------
        run : Run
            At this instant.
        fresh : sequence of Event
            Since the last look.

        Returns
        -------
        list of Hazard
            Each at its instant, once.
        """
        for event in fresh:
            self.recent[event.n] = event
        if len(self.recent) > 600:
            for number in sorted(self.recent)[:300]:
                del self.recent[number]
        found: list[Hazard] = []
        for event in fresh:
            if event.aspect == "hand":
                self._hand(run, event)
            elif event.aspect == "drive" and event.value in _DRIVEN:
                found += self._sprung(run, event)
        found += self._judged(run)
        found += self._pairs(run)
        found += self._plugged(run, fresh)
        for device in run.shorted:
            last = run.last_change
            found.append(self._hazard("short", run.time, device, last))
        run.shorted = []
        return found

    def _hazard(self, code: str, time: int, device: str, event: int | None) -> Hazard:
        chain = chain_of(event, self.recent, self.circuit)
        tag = self.circuit.tags.get(device, device)
        end = Message(f"chain.end_{code}", {"tag": tag})
        return Hazard(code=code, time_us=time, device=device, chain=(*chain, end))

    def _is_asked(self, run: Run) -> bool:
        """Tell whether a button other than a stop is held: then a start is asked for."""
        return any(
            part.device.type == "pb"
            and part.id not in self.stop_devices
            and part.word(run) == "pressed"
            for part in run.plant.parts
        )

    def _sprung(self, run: Run, event: Event) -> list[Hazard]:
        root = run.root_of(event.n)
        number = run.roots.get(event.n, 0)
        is_going_on = number != 0 and self.begun.get(event.device) == number
        self.begun[event.device] = number
        if self._is_asked(run) or is_going_on:
            return []
        if root is not None:
            said, device = root
            verb, _, word = said.partition(" ")
            kind = _type_of(self.circuit, device)
            if verb == "on" and kind != "pilot":
                is_sprung = True
            elif verb == "close":
                is_sprung = kind not in {"mms", "manual"} and bool(self.stop_devices)
            elif verb == "turn":
                is_sprung = word.upper() in {"OFF", "0"}
            else:
                is_sprung = verb in _NO_START
            if not is_sprung:
                return []
        return [self._hazard("springs_to_life", event.time, event.device, event.n)]

    def _hand(self, run: Run, event: Event) -> None:
        verb, _, word = event.value.partition(" ")
        kind = _type_of(self.circuit, event.device)
        is_stop = (
            (verb == "press" and event.device in self.stop_devices)
            or (verb == "trip" and kind == "olr")
            or (verb == "turn" and kind in TURNED and word.upper() in {"OFF", "0"})
        )
        motors = motors_of(run)
        if not is_stop or (len(motors) > 1 and kind != "estop"):
            return
        driven = [part.id for part in motors if part.mode in _DRIVEN]
        if driven:
            self.stops.append((event.time + STOP_AFTER_US, event.n, driven))

    def _judged(self, run: Run) -> list[Hazard]:
        found = []
        while self.stops and self.stops[0][0] <= run.time:
            _, number, driven = self.stops.pop(0)
            for device in driven:
                part = run.plant.part_of.get(device)
                is_same = (
                    isinstance(part, Motor)
                    and part.mode in _DRIVEN
                    and part.begun_by is not None
                    and part.begun_by < number
                )
                if is_same:
                    found.append(self._hazard("does_not_stop", run.time, device, number))
        return found

    def _pairs(self, run: Run) -> list[Hazard]:
        now = [sorted(pair) for pair in self.circuit.never_together if run.are_both_closed(pair)]
        fresh = [pair for pair in now if pair not in self.together]
        self.together = now
        return [self._hazard("both_ways", run.time, pair[1], run.last_change) for pair in fresh]

    def _plugged(self, run: Run, fresh: Sequence[Event]) -> list[Hazard]:
        found = []
        for part in motors_of(run):
            word = part.word(run)
            if word == "plug" and self.words.get(part.id) != "plug":
                last = next(
                    (event.n for event in reversed(fresh) if event.device == part.id),
                    run.last_change,
                )
                found.append(self._hazard("plugged", run.time, part.id, last))
            self.words[part.id] = word
        return found

    def save(self) -> dict[str, Any]:
        """Return its state as plain values."""
        return {
            "stops": [list(stop) for stop in self.stops],
            "words": dict(self.words),
            "together": self.together,
            "begun": dict(self.begun),
        }

    def load(self, kept: Mapping[str, Any]) -> None:
        """Take a state back."""
        self.stops = [(time, number, list(driven)) for time, number, driven in kept["stops"]]
        self.words = dict(kept["words"])
        self.together = [list(pair) for pair in kept["together"]]
        self.begun = dict(kept["begun"])


def _stop_devices(circuit: Circuit) -> set[str]:
    """Return emergency stops, and buttons of which only opening contacts are wired."""
    wired = {end for wire in circuit.netlist.wires for end in (wire.start, wire.end)}
    found = set()
    for item in circuit.netlist.devices:
        if item.type == "estop" or item.id == "stop" or item.id.startswith("stop_"):
            found.add(item.id)
        elif item.type == "pb":
            used = [
                link
                for link in links_of(item)
                if {f"{item.id}.{link.a}", f"{item.id}.{link.b}"} <= wired
            ]
            if used and all(link.kind == "nc" for link in used):
                found.add(item.id)
    return found
