"""The readings that can be taken on a circuit, with their cost: asked, looked at, dead, live.

Source: nodal analysis for what is solved (textbook topic); costs and bounds of a meter are
judgment of the trade.
Units: resistance [ohm], potential [V], current [A], time [min].
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Literal

from evencoil.base import Message
from evencoil.checks import ZERO_OHM, Hand, hands_of, live_terminals
from evencoil.circuit import CONTACTS, Circuit, links_of
from evencoil.solver import TIMES, Run, compile_plant
from evencoil.trouble.faults import kinds_of
from evencoil.trouble.played import Script, Seen, phase_kind
from evencoil.trouble.tables import judged

__all__ = [
    "COST_MIN",
    "RISK",
    "SETUP_MIN",
    "WINDING_OHM",
    "CostClass",
    "Reading",
    "prepared_hands",
    "readings_of",
]

CostClass = Literal["look", "dead_door", "dead_inside", "disconnect", "live_control", "live_power"]
ReadingKind = Literal["ohm", "volt", "amp", "word"]
#: minutes of each class, then what live work adds in risk, then what is paid once
COST_MIN: Mapping[str, float] = {
    "look": 0.5,
    "dead_door": 1.0,
    "dead_inside": 2.0,
    "disconnect": 8.0,
    "live_control": 3.0,
    "live_power": 6.0,
}
RISK: Mapping[str, float] = {"live_control": 4.0, "live_power": 8.0}
SETUP_MIN: Mapping[str, float] = {"dead": 6.0, "live": 10.0}
_FAR_MIN, _HELD_MIN, _ARMATURE_MIN = 4.0, 0.3, 1.5
_FAR = {"pilot", "joint", "thermostat", "ptc", "rtd", "zss", "solenoid", "heater"}
_HELD = {"press", "push_in", "on", "turn"}
_MOST_STATES = 14
#: what a winding may read, whatever its size: the model's ohms are not this motor's
WINDING_OHM = 30.0
#: values within these ratios are one to a meter; coils of one voltage differ by five
_RATIO: Mapping[str, float] = {"ohm": TIMES, "volt": 1.25, "amp": 1.35, "word": 1.5}
#: live work is at rest or with a button held; running only where it runs
_LIVE_PHASES = ("rest", "held_1")
_ASKED = ("rest", "held_1", "runs_1", "later_1", "stop_held_1", "held_2", "runs_2")


@dataclass(frozen=True, slots=True, kw_only=True)
class Reading:
    """One thing to ask, look at or measure.

    Attributes
    ----------
    id : str
        Lasting: by ids of devices and terminals.
    kind : str
        ``ohm``, ``volt``, ``amp`` or ``word``.
    cost : str
        Class of cost and risk.
    minutes : float
        Without what is paid once. [min]
    said : Message
        What to do, with tags.
    start, end : str
        Where the two probes go; empty where there are none.
    hands : tuple of Hand
        What is held or set.
    phase : str
        Of the script, where it is live or asked.
    words : tuple of str
        What can be answered, where it is a word.
    at : frozenset of str
        Terminals and devices that have to be reached.
    floor : float
        Ohms up to which it is told that it conducts, and no more. [ohm]
    """

    id: str
    kind: ReadingKind
    cost: CostClass
    minutes: float
    said: Message
    start: str = ""
    end: str = ""
    hands: tuple[Hand, ...] = ()
    phase: str = ""
    words: tuple[str, ...] = ()
    at: frozenset[str] = field(default_factory=frozenset)
    floor: float = ZERO_OHM

    @property
    def ratio(self) -> float:
        """Return within what ratio two values are one to a meter."""
        return _RATIO[self.kind]

    @property
    def setup(self) -> str:
        """Return what has to be set up once for it: ``dead``, ``live`` or nothing."""
        if self.cost == "look":
            return ""
        return "live" if self.cost.startswith("live") else "dead"


def prepared_hands(circuit: Circuit) -> tuple[Hand, ...]:
    """Return what is apart for every dead reading: each fuse out; the motor's leads stay on.

    Parameters
    ----------
    circuit : Circuit
        As drawn or as found.
    """
    return tuple(Hand("pull", item.id) for item in circuit.netlist.devices if item.type == "fuse")


class _Finder:
    """The circuit, and where its meter can go."""

    def __init__(self, circuit: Circuit, script: Script, sound: Seen) -> None:
        self.circuit = circuit
        self.script = script
        self.sound = sound
        self.netlist = circuit.netlist
        self.kind = {item.id: item.type for item in self.netlist.devices}
        self.nets = self.netlist.nets()
        live = live_terminals(self.netlist)
        wired = {end for wire in self.netlist.wires for end in (wire.start, wire.end)}
        grounding = [end for end in self.nets if end.endswith(".PE")]
        #: where a meter finds ground
        self.frame = grounding[0] if grounding else ""
        earth = {self.nets[end] for end in grounding}
        self.feed, self.back = self._ends_of_control()
        self.wired = [end for end in self.netlist.terminals() if end in wired and end not in live]
        self.earth = earth - ({self.nets[self.back]} if self.back else set())
        self.power = self._power_terminals()

    def _ends_of_control(self) -> tuple[str, str]:
        """Return where the control circuit is fed, behind its fuse, and where it returns."""
        returns: dict[int, list[str]] = {}
        for item in self.netlist.devices:
            for link in links_of(item):
                if link.kind in {"coil", "lamp", "load"}:
                    end = f"{item.id}.{link.b}"
                    returns.setdefault(self.nets[end], []).append(end)
        back = ""
        sources = [item for item in self.netlist.devices if item.type in {"xfmr", "source", "psu"}]
        for item in sources:
            end = next(
                (f"{item.id}.{name}" for name in ("X2", "N", "-") if name in item.terminals), ""
            )
            if (end in self.nets and len(returns.get(self.nets[end], []))) or not back:
                back = end or back
        feed = ""
        for item in sources:
            own = next(
                (f"{item.id}.{name}" for name in ("X1", "L", "+") if name in item.terminals), ""
            )
            fuse = next(
                (
                    one
                    for one in self.netlist.devices
                    if one.type == "fuse"
                    and own
                    and self.nets[own] in {self.nets[f"{one.id}.{end}"] for end in one.terminals}
                ),
                None,
            )
            if fuse is not None:
                inner = next(
                    f"{fuse.id}.{end}"
                    for end in fuse.terminals
                    if self.nets[f"{fuse.id}.{end}"] != self.nets[own]
                )
                feed = feed or inner
            feed = feed or own
        return feed, back

    def _power_terminals(self) -> set[str]:
        found = set()
        for item in self.netlist.devices:
            if item.type.startswith("motor") or item.type in {"joint", "supply", "autox"}:
                found |= {f"{item.id}.{end}" for end in item.terminals}
            for link in links_of(item):
                if link.kind in {"pole", "heat"}:
                    found |= {f"{item.id}.{link.a}", f"{item.id}.{link.b}"}
        return found

    # ohms

    def states(self) -> list[tuple[Hand, ...]]:
        run = Run(compile_plant(self.netlist))
        single = [hand for hand in hands_of(self.circuit, run) if hand.verb in _HELD]
        return [(), *((hand,) for hand in single[:_MOST_STATES])]

    def pairs(self) -> Iterator[tuple[str, str, frozenset[str] | None]]:
        """Return two ends, and the devices whose operating matters; None for all of them."""
        known = set(self.wired)
        none: frozenset[str] = frozenset()
        for wire in self.netlist.wires:
            if {wire.start, wire.end} <= known and self.nets[wire.start] not in self.earth:
                yield wire.start, wire.end, none
        for item in self.netlist.devices:
            for link in links_of(item):
                ends = (f"{item.id}.{link.a}", f"{item.id}.{link.b}")
                if link.kind in {*CONTACTS, "pole", "heat", "coil"} and set(ends) <= known:
                    yield *ends, frozenset({item.id})
        yield from self._from_ends(none)
        yield from self._ways()
        yield from self._legs(none)

    def _from_ends(self, none: frozenset[str]) -> Iterator[tuple[str, str, frozenset[str] | None]]:
        """Go from both ends of the control circuit, and from ground, to each of its terminals."""
        inner = [
            end for end in self.wired if end not in self.power and self.nets[end] not in self.earth
        ]
        for place in filter(None, (self.feed, self.back)):
            for end in inner:
                if end != place:
                    yield place, end, None
        if self.frame and (not self.back or self.nets[self.frame] != self.nets[self.back]):
            # the return is not grounded: each wire to ground apart
            for end in inner:
                yield self.frame, end, none

    def _ways(self) -> Iterator[tuple[str, str, frozenset[str] | None]]:
        """Go from the main device along each line to what it feeds, armatures pushed in."""
        main = self.script.main
        if not main:
            return
        contactors = frozenset(one for one, kind in self.kind.items() if kind == "contactor")
        known = set(self.wired)
        places = [
            end
            for end in self.wired
            if end in self.power and self.kind[end.rpartition(".")[0]] not in {"joint", "supply"}
        ]
        for link in links_of(self.netlist.device(main)):
            start = f"{main}.{link.b}"
            if link.kind == "pole" and start in known:
                for end in places:
                    if end.rpartition(".")[0] != main:
                        yield start, end, contactors

    def _legs(self, none: frozenset[str]) -> Iterator[tuple[str, str, frozenset[str] | None]]:
        """Go through the motor's legs, where the starter feeds it, and to its frame."""
        known = set(self.wired)
        for item in self.netlist.devices:
            if item.type == "olr":
                ends = [f"{item.id}.{link.b}" for link in links_of(item) if link.kind == "heat"]
            elif item.type.startswith("motor"):
                ends = [f"{item.id}.{end}" for end in item.terminals if end != "PE"]
            else:
                continue
            ends = [end for end in ends if end in known][:6]
            for place, one in enumerate(ends):
                for other in ends[place + 1 :]:
                    yield one, other, none
            for one in ends[:3]:
                if self.frame:
                    yield one, self.frame, none

    def minutes(self, cost: CostClass, ends: Sequence[str], hands: Sequence[Hand]) -> float:
        kinds = {self.kind.get(end.rpartition(".")[0], "") for end in ends}
        is_far = any(kind in _FAR or kind.startswith("motor") for kind in kinds)
        held = sum(_ARMATURE_MIN if hand.verb == "push_in" else _HELD_MIN for hand in hands)
        return COST_MIN[cost] + (_FAR_MIN if is_far else 0.0) + held

    def ohms(self) -> Iterator[Reading]:
        states = self.states()
        seen: set[str] = set()
        for start, end, devices in self.pairs():
            for hands in states:
                if devices is not None and any(hand.device not in devices for hand in hands):
                    continue
                told = "+".join(f"{one.verb}.{one.device}.{one.word}" for one in hands)
                both = "~".join(sorted((start, end)))
                name = f"ohm|{told}|{both}"
                if name in seen:
                    continue
                seen.add(name)
                on_door = {"tb", "fuse"}
                cost: CostClass = (
                    "dead_door"
                    if all(self.kind[one.rpartition(".")[0]] in on_door for one in (start, end))
                    else "dead_inside"
                )
                yield Reading(
                    id=name,
                    kind="ohm",
                    cost=cost,
                    minutes=self.minutes(cost, (start, end), hands),
                    said=Message(
                        "trouble.read.ohm",
                        {"one": self.circuit.said(start), "other": self.circuit.said(end)},
                    ),
                    start=start,
                    end=end,
                    hands=hands,
                    at=frozenset({start, end}),
                    floor=WINDING_OHM if {start, end} <= self.power else ZERO_OHM,
                )

    def fuses(self) -> Iterator[Reading]:
        for item in self.netlist.devices:
            if item.type == "fuse":
                yield self._fuse(item.id, "")
            elif item.type == "fdisc":
                poles = [link for link in links_of(item) if link.kind == "pole"]
                for number in range(1, len(poles) + 1):
                    yield self._fuse(item.id, str(number))

    def _fuse(self, device: str, pole: str) -> Reading:
        said = self.said_of("fuse_pole" if pole else "fuse", device, pole=pole)
        name = f"fuse|{device}|{pole}"
        return self.word(name, "dead_door", device, said, ("fuse_whole", "fuse_open"))

    def word(
        self, name: str, cost: CostClass, device: str, said: Message, words: tuple[str, ...]
    ) -> Reading:
        """Return a reading of one device that is answered with a word."""
        return Reading(
            id=name,
            kind="word",
            cost=cost,
            minutes=COST_MIN[cost],
            said=said,
            words=words,
            at=frozenset({device}),
        )

    def said_of(self, key: str, device: str, **more: str) -> Message:
        """Return a sentence about one device."""
        return Message(f"trouble.read.{key}", {"tag": self.circuit.named(device), **more})

    # volts and amps

    def volts(self) -> Iterator[Reading]:
        if not self.back:
            return
        for phase in _LIVE_PHASES:
            if phase not in self.sound.looks:
                continue
            for end in self.wired:
                if end in self.power or end == self.back or self.nets[end] in self.earth:
                    continue
                yield self._volt(phase, self.back, end, "live_control")
        for item in self.netlist.devices:
            phase = _ACROSS.get(item.type, "")
            if phase in self.sound.looks:
                for link in links_of(item):
                    ends = (f"{item.id}.{link.a}", f"{item.id}.{link.b}")
                    if link.kind in {"pole", "fuse"} and set(ends) <= set(self.nets):
                        yield self._volt(phase, *ends, "live_power")

    def _volt(self, phase: str, start: str, end: str, cost: CostClass) -> Reading:
        return Reading(
            id=f"volt|{phase}|{start}~{end}",
            kind="volt",
            cost=cost,
            minutes=self.minutes(cost, (start, end), ()),
            said=Message(
                f"trouble.read.volt.{phase_kind(phase)}",
                {
                    "one": self.circuit.said(start),
                    "other": self.circuit.said(end),
                    **self.start_said(phase),
                },
            ),
            start=start,
            end=end,
            phase=phase,
            at=frozenset({start, end}),
        )

    def start_said(self, phase: str) -> dict[str, str]:
        """Return the tag of what starts it in a phase."""
        number = phase.rpartition("_")[2]
        starts = self.script.starts
        if (
            not number.isdigit()
            or not 0 < int(number) <= len(starts)
            or not starts[int(number) - 1]
        ):
            return {"start": ""}
        device = starts[int(number) - 1][-1].on
        return {"start": self.circuit.named(device)}

    def amps(self) -> Iterator[Reading]:
        look = self.sound.looks.get("later_1")
        main = self.script.main
        if look is None or not main:
            return
        for number in range(len(look.amps)):
            yield Reading(
                id=f"amp|later_1|{number}",
                kind="amp",
                cost="live_power",
                minutes=COST_MIN["live_power"],
                said=self.said_of("amp", main, pole=str(number + 1)),
                phase="later_1",
                at=frozenset({f"{main}.pole.{number}"}),
            )

    def sequence(self) -> Iterator[Reading]:
        main = self.script.main
        if main and f"{main}.5" in self.nets:
            said = self.said_of("sequence", main)
            one = self.word(f"sequence|{main}", "live_power", main, said, ("as_marked", "reversed"))
            yield replace(one, phase="rest", at=frozenset({f"{main}.1"}))

    # words

    def asked(self) -> Iterator[Reading]:
        for phase in _ASKED:
            if phase not in self.sound.looks:
                continue
            for device, kind in self.kind.items():
                shown = _SHOWN.get(kind) or (_MOTOR if kind.startswith("motor") else ())
                if not shown:
                    continue
                what = "motor" if shown is _MOTOR else "lamp" if kind == "lamp" else "coil"
                said = self.said_of(
                    f"seen.{phase_kind(phase)}.{what}", device, **self.start_said(phase)
                )
                one = self.word(f"seen|{phase}|{device}", "look", device, said, shown)
                yield replace(one, phase=phase)

    def flags(self) -> Iterator[Reading]:
        for device, kind in self.kind.items():
            if kind in _FLAGS:
                said = self.said_of(f"flag.{_FLAG_SAID.get(kind, 'main')}", device)
                yield self.word(f"flag|{device}", "look", device, said, _FLAGS[kind])

    def armatures(self) -> Iterator[Reading]:
        for device, kind in self.kind.items():
            if kind in {"contactor", "relay"}:
                said = self.said_of("armature", device)
                name = f"armature|{device}"
                yield self.word(name, "dead_inside", device, said, ("moves", "blocked"))

    def by_judgment(self) -> Iterator[Reading]:
        for one in judged():
            device = next(
                (item.id for item in self.netlist.devices if kinds_of(item) & one.needs), ""
            )
            if device:
                cost: CostClass = one.cost  # type: ignore[assignment]  # a class of the table
                said = self.said_of(f"judged.{one.id}", device)
                made = self.word(f"judged|{one.id}", cost, device, said, ("sound", "faulty"))
                yield replace(made, at=made.at | {f"judged.{one.id}"})


#: across which poles and fuses volts are read, and when
_ACROSS = {"fuse": "rest", "cb3": "rest", "fdisc": "rest", "mms": "rest", "contactor": "runs_1"}
_MOTOR = ("turns", "hums", "still")
_COIL = ("in", "out", "growls", "chatters")
_LAMP = ("lit", "dim", "dark")
_SHOWN: Mapping[str, tuple[str, ...]] = {
    "contactor": _COIL,
    "relay": _COIL,
    "lamp": _LAMP,
}
_FLAG_SAID = {"estop": "estop", "olr": "relief"}
_FLAGS: Mapping[str, tuple[str, ...]] = {
    "olr": ("flag_ok", "flag_tripped"),
    "cb3": ("flag_on", "flag_off", "flag_tripped"),
    "mms": ("flag_on", "flag_off", "flag_tripped"),
    "fdisc": ("flag_on", "flag_off"),
    "isolator": ("flag_on", "flag_off"),
    "estop": ("flag_out", "flag_in"),
}


def readings_of(circuit: Circuit, script: Script, sound: Seen) -> tuple[Reading, ...]:
    """Return every reading that can be taken on a circuit, in the order of their cost.

    Parameters
    ----------
    circuit : Circuit
        As drawn or as found.
    script : Script
        How it is tried.
    sound : Seen
        The sound circuit played.
    """
    find = _Finder(circuit, script, sound)
    found = [
        *find.flags(),
        *find.asked(),
        *find.by_judgment(),
        *find.fuses(),
        *find.armatures(),
        *find.ohms(),
        *find.volts(),
        *find.amps(),
        *find.sequence(),
    ]
    return tuple(sorted(found, key=lambda one: one.minutes))
