"""Hazards by name, at the instant, with the chain of causes.

Springs to life: a motor gets torque although no hand asked for it. Does not
stop: it keeps its torque after a stop. Both ways at once: two contactors that
must never be closed together conduct. Plugged while running: it is thrown
against its own motion. Short circuit: a fuse or a breaker cleared one. Opens on load: it
opened on the current of a motor or coil. Coil burns: it gets half again its volts, or more.
Winding burns: its hottest coil passes the temperature of its class. Turned backward: a machine
that must not turn backward does. The last two are known of a calculated motor only. Switched
behind a drive: a contact between a drive and its motor opens while it gives out volts. Drive fed
from behind: the lines reach the output of a drive. A motor that its drive slows down is stopping,
unless an emergency stop was pressed.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from evencoil.base import Message, say
from evencoil.circuit import TURNED, Circuit, is_jog, is_off_word, links_of
from evencoil.solver import Armature, Event, Motor, Run, motors_of

__all__ = ["Hazard", "Watch", "chain_of"]

STOP_AFTER_US = 500_000
#: part of its rated volts at which a coil burns out within minutes
BURNS_AT = 1.5
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
        ``springs_to_life``, ``does_not_stop``, ``both_ways``, ``plugged``, ``short``,
        ``opens_on_load``, ``coil_burns``, ``winding_burns``, ``turned_backward``,
        ``switched_behind_drive``, ``drive_backfed``.
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
_OWN = {"overload", "fuse", "breaker", "starter", "temperature", "time", "winding"}
#: hazards that a motor or a drive itself tells: what of it, and how
_TOLD = {
    ("winding", "burnt"): "winding_burns",
    ("shaft", "backward"): "turned_backward",
    ("output", "switched"): "switched_behind_drive",
    ("fault", "backfed"): "drive_backfed",
}


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
    if event.aspect == "overload" and event.value.startswith("hot"):
        return Message("chain.overload_hot", {"tag": tag, "wait": event.value[4:] or "long"})
    if event.aspect == "core":
        return Message("chain.core_saturated", {"tag": tag})
    if event.aspect == "fault" and _type_of(circuit, event.device) == "drive":
        return Message("chain.drive_fault", {"tag": tag})
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
        self.burning: list[str] = []
        #: contactors that must drop out: when that is judged, the event, their ids
        self.must: list[tuple[int, int, list[str]]] = []
        self.stop_devices = _stop_devices(circuit)
        #: what asked for a start since nothing ran
        self.asked: set[str] = set()
        self.jogs = {item.id for item in circuit.netlist.devices if is_jog(item)}

    def due(self) -> int | None:
        """Return when the next stop is judged [us]."""
        found = [one[0] for one in (*self.stops, *self.must) if one]
        return min(found) if found else None

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
            elif event.value == "open":
                self._opened(run, event)
        found += [
            self._hazard(_TOLD[event.aspect, event.value], event.time, event.device, event.cause)
            for event in fresh
            if (event.aspect, event.value) in _TOLD
        ]
        found += self._judged(run)
        found += self._pairs(run)
        found += self._plugged(run, fresh)
        for device in run.shorted:
            last = run.last_change
            found.append(self._hazard("short", run.time, device, last))
        run.shorted = []
        for device in run.overran:
            found.append(self._hazard("opens_on_load", run.time, device, run.last_change))
        run.overran = []
        found += self._burning(run)
        return found

    def _burning(self, run: Run) -> list[Hazard]:
        """Find coils that get far too many volts, each once while it lasts."""
        now = [
            part.id
            for part in run.plant.parts
            if isinstance(part, Armature) and part.coil.part_of_rated(run) >= BURNS_AT
        ]
        fresh = [name for name in now if name not in self.burning]
        self.burning = now
        return [self._hazard("coil_burns", run.time, name, run.last_change) for name in fresh]

    def _hazard(self, code: str, time: int, device: str, event: int | None) -> Hazard:
        chain = chain_of(event, self.recent, self.circuit)
        tag = self.circuit.tags.get(device, device)
        end = Message(f"chain.end_{code}", {"tag": tag})
        return Hazard(code=code, time_us=time, device=device, chain=(*chain, end))

    def _is_asked(self, run: Run, but: str = "") -> bool:
        """Tell whether a button other than a stop is held: then a start is asked for."""
        return any(
            part.device.type == "pb"
            and part.id != but
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
                is_sprung = kind not in {"mms", "manual"}
            elif verb == "turn":
                is_sprung = is_off_word(word)
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
            or (verb == "turn" and kind in TURNED and is_off_word(word))
        )
        motors = motors_of(run)
        is_rest = not any(part.mode in _DRIVEN for part in motors)
        if is_rest and not self._is_asked(run, event.device):
            self.asked.clear()
        if verb in {"press", "turn", "on"} and event.device not in self.stop_devices:
            self.asked.add(event.device)
        if verb == "release" and event.device in self.jogs and self.asked <= {event.device}:
            own = [
                part.id
                for part in motors
                if part.mode in _DRIVEN and run.root_of(part.begun_by) == ("press", event.device)
            ]
            if own:
                self.stops.append((event.time + STOP_AFTER_US, event.n, own))
        if not is_stop or (len(motors) > 1 and kind != "estop"):
            return
        driven = [part.id for part in motors if part.mode in _DRIVEN]
        if driven:
            self.stops.append((event.time + STOP_AFTER_US, event.n, driven))

    def _opened(self, run: Run, event: Event) -> None:
        """Take note of what must drop out now that a stopping contact has opened."""
        bound = self.circuit.drops.get((event.device, event.aspect), frozenset())
        inside = sorted(name for name in bound if run.has_closed_pole(name))
        if inside:
            self.must.append((event.time + STOP_AFTER_US, event.n, inside))

    def _stays_in(self, run: Run) -> list[Hazard]:
        """Judge the contactors that had to drop out."""
        found = []
        while self.must and self.must[0][0] <= run.time:
            _, number, names = self.must.pop(0)
            for name in names:
                part = run.plant.part_of.get(name)
                is_same = (
                    isinstance(part, Armature)
                    and run.has_closed_pole(name)
                    and (part.begun_by or 0) < number
                )
                if is_same:
                    found.append(self._hazard("does_not_stop", run.time, name, number))
        return found

    def _judged(self, run: Run) -> list[Hazard]:
        found: list[Hazard] = []
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
                if is_same and not self._slows_down(run, part, number):
                    found.append(self._hazard("does_not_stop", run.time, device, number))
        stays = self._stays_in(run)
        return found or stays  # the motor that still runs says more than its contactor

    def _slows_down(self, run: Run, part: object, number: int) -> bool:
        """Tell whether a drive is bringing a motor to rest, as it was asked to."""
        event = self.recent.get(number)
        if event is not None and _type_of(self.circuit, event.device) == "estop":
            return False
        drive = part.drive_of(run) if isinstance(part, Motor) else None
        return drive is not None and drive.is_stopping

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
            "burning": list(self.burning),
            "asked": sorted(self.asked),
            "must": [list(one) for one in self.must],
        }

    def load(self, kept: Mapping[str, Any]) -> None:
        """Take a state back."""
        self.stops = [(time, number, list(driven)) for time, number, driven in kept["stops"]]
        self.words = dict(kept["words"])
        self.together = [list(pair) for pair in kept["together"]]
        self.begun = dict(kept["begun"])
        self.burning = list(kept["burning"])
        self.asked = set(kept["asked"])
        self.must = [(time, number, list(names)) for time, number, names in kept["must"]]


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
