"""Proofs over distinct settled states: what no sequence of operator actions can bring about.

From rest, every action is tried in every settled state that is new: buttons pressed and
let go, two within the travel time of an armature, selectors, pilot devices, emergency
stops, overload trips and resets, supply off and on, and waiting for what still runs.
Breadth first, so that the first sequence that breaks something is a shortest one. In a
second search one contactor welds at any moment.

A proof says how many states and transitions were looked at, how deep, and whether
nothing was left; "not exhausted" is said where a limit cut it off.

Source: breadth-first search of reachable states (textbook topic). Units: time [us].
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass, field
from itertools import combinations
from typing import Any, Literal

from evencoil.base import CoreError, Message
from evencoil.checks.expected import with_expectations
from evencoil.checks.programs import has_program
from evencoil.checks.reach import Graph
from evencoil.checks.restarts import waiting_isolators
from evencoil.circuit import TURNED, Circuit, turns_of
from evencoil.rehearsal import Hazard, Stage, Watch, opening_of
from evencoil.solver import Action, Armature, Motor, Run, motors_of

__all__ = ["LOOKS_FOR", "Broken", "Proof", "ProofKind", "prove"]

ProofKind = Literal["hands", "weld"]
#: hazards that a search looks for; behind a welded contactor a motor runs on by itself
LOOKS_FOR: dict[ProofKind, tuple[str, ...]] = {
    "hands": ("both_ways", "short", "springs_to_life", "does_not_stop"),
    "weld": ("both_ways", "short"),
}
_SETTLES_US = 300_000
#: two actions, or one action and the armature that it moved: closer than the travel
_TOGETHER_US = 4_000
_MOST_HELD = 2
_WAITS_US = 60_000_000
_MOST_EVENTS = 200
#: transitions of a search that names no limit; a program has more states than its circuit
_MOST, _MOST_WITH_PROGRAM = 20_000, 120_000


@dataclass(frozen=True, slots=True)
class _Step:
    """One action kind of a search: what is done, and the words for it."""

    name: str
    device: str
    word: str
    acts: tuple[tuple[int, str, str, str], ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Broken:
    """A hazard that a sequence brings about, shortest first."""

    code: str
    acts: tuple[Message, ...]
    hazard: Hazard


@dataclass(frozen=True, slots=True, kw_only=True)
class Proof:
    """What a search found.

    Attributes
    ----------
    kind : str
        ``hands``, or ``weld``: with any one contactor welded at any moment.
    states, transitions, depth : int
        Distinct settled states, actions tried, longest sequence.
    whole_depth : int
        Every sequence of up to so many actions was tried, whatever was left out after it.
    is_exhausted : bool
        True if no new state was left.
    faults : tuple of str
        Ids of the contactors that were welded, one at a time.
    broken : tuple of Broken
        Each hazard once, by its shortest sequence; empty if none was met.
    """

    kind: ProofKind
    states: int
    transitions: int
    depth: int
    whole_depth: int
    is_exhausted: bool
    faults: tuple[str, ...]
    broken: tuple[Broken, ...]

    @property
    def holds(self) -> bool:
        """Tell whether nothing was met and nothing was left out."""
        return not self.broken and self.is_exhausted


@dataclass(slots=True)
class _Known:
    """A settled state: how to go on from it, and how it was come to."""

    run: dict[str, Any]
    watch: dict[str, Any]
    way: tuple[_Step, ...]
    held: frozenset[str]
    welded: str
    turned: tuple[tuple[str, str], ...]
    flags: frozenset[str] = field(default_factory=frozenset)
    closed: frozenset[str] = field(default_factory=frozenset)


class _Search:
    def __init__(self, circuit: Circuit, kind: ProofKind, most: int) -> None:
        self.circuit = with_expectations(circuit)
        self.stage = Stage(self.circuit)
        self.kind = kind
        self.most = most
        self.run = Run(self.stage.plant)
        self.watch = Watch(self.circuit)
        pairs = {device for pair in self.circuit.never_together for device in pair}
        self.welds = tuple(sorted(pairs)) if kind == "weld" else ()
        self.buttons = self._of("pb")
        self.waiting = waiting_isolators(Graph(self.circuit))
        self.broken: dict[str, Broken] = {}
        self.transitions = 0

    def _of(self, *kinds: str) -> list[str]:
        return [item.id for item in self.circuit.netlist.devices if item.type in kinds]

    def first(self) -> _Known:
        """Return the state with every main device closed and nothing asked for."""
        for act in opening_of(self.circuit):
            self.run.act(Action(self.run.time, act.do, act.on, act.word))
        self._settle()
        turned = tuple(
            (item.id, item.parameters.get("init") or item.parameters.get("pos", "").split(",")[0])
            for item in self.circuit.netlist.devices
            if item.type in TURNED
        )
        return _Known(self.run.save(), self.watch.save(), (), frozenset(), "", turned)

    def _warmed(self) -> list[tuple[str, str, str]]:
        """Return each motor that something watches by its heat, with hot and cold."""
        kinds = {"thermostat", "ptc", "rtdmon"}
        watching = [one for one in self.circuit.netlist.devices if one.type in kinds]
        motors = [part.id for part in motors_of(self.run)]
        named = {one.parameters.get("motor", "") for one in watching}
        return [
            (name, "temp 250", "temp 20")
            for name in motors
            if watching and (name in named or len(motors) == 1)
        ]

    def steps(self, known: _Known) -> Iterator[_Step]:
        """Go through what can be done in a state."""
        yield from self._pressed(known)
        at = dict(known.turned)
        for item in self.circuit.netlist.devices:
            if item.type in TURNED:
                words = {*turns_of(item), *item.parameters.get("pos", "").split(",")} - {""}
                for word in sorted(words - {at.get(item.id, "")}):
                    yield _Step("turn", item.id, word, ((0, "turn", item.id, word),))
        yield from self._flagged(known)
        yield _Step("wait", "", "", ())
        for name in () if known.welded else self.welds:
            if name in known.closed:  # only closed poles can weld
                yield _Step("weld", name, "", ((0, "weld", name, ""),))

    def _pressed(self, known: _Known) -> Iterator[_Step]:
        """Go through what can be done at the buttons: release, hold one more, hold two at once."""
        free = [name for name in self.buttons if name not in known.held]
        for name in known.held:
            yield _Step("release", name, "", ((0, "release", name, ""),))
        if len(known.held) < _MOST_HELD:
            for name in free:
                yield _Step("press", name, "", ((0, "press", name, ""),))
        if not known.held:
            for one, other in combinations(free, 2):
                for delay in (0, _TOGETHER_US):
                    yield _Step(
                        "both",
                        one,
                        other,
                        ((0, "press", one, ""), (delay, "press", other, "")),
                    )

    def _flagged(self, known: _Known) -> Iterator[_Step]:
        """Go through what is in one of two states: pilots, emergency stops, trips, the supply."""
        pairs = [(name, "on", "off") for name in self._of("pilot")]
        pairs += [(name, "press", "twist") for name in self._of("estop")]
        pairs += [(name, "trip", "reset") for name in self._of("olr")]
        pairs += self._warmed()
        pairs += [(name, "open", "close") for name in self.waiting]
        pairs.append(("", "off", "on"))
        for name, there, back in pairs:
            said = back if (name or "supply") in known.flags else there
            verb, _, word = said.partition(" ")
            step = f"supply_{verb}" if not name else verb
            yield _Step(step, name, word, ((0, verb, name, word),))

    def tried(self, known: _Known, step: _Step) -> _Known | None:
        """Do one step in a state; None if it cannot be done there."""
        run = self.run
        run.load(known.run)
        self.watch.load(known.watch)
        run.hands.setdefault(0, ("", ""))
        start = run.time
        self.transitions += 1
        try:
            for delay, verb, device, word in step.acts:
                self._advance(start + delay, step, known)
                run.act(Action(run.time, verb, device, word))
                self._see(step, known)
        except CoreError:
            return None
        self._settle(step, known, is_long=step.name == "wait")
        held, flags, turned, welded = known.held, known.flags, known.turned, known.welded
        if step.name == "press":
            held |= {step.device}
        elif step.name == "both":
            held |= {step.device, step.word}
        elif step.name == "release":
            held -= {step.device}
        elif step.name == "turn":
            turned = tuple(
                (name, step.word if name == step.device else word) for name, word in turned
            )
        elif step.name == "weld":
            welded = step.device
        elif step.name != "wait":
            flags ^= {step.device or "supply"}
        return _Known(
            run.save(),
            self.watch.save(),
            (*known.way, step),
            held,
            welded,
            turned,
            flags,
            frozenset(name for name in self.welds if self.run.has_closed_pole(name)),
        )

    def _advance(self, until: int, step: _Step, known: _Known) -> None:
        run = self.run
        while not run.never_settles:
            due = run.due()
            if due is None or due > until:
                break
            run.advance(due)
            self._see(step, known)
        run.look(until)

    def _settle(
        self, step: _Step | None = None, known: _Known | None = None, *, is_long: bool = False
    ) -> None:
        """Go on until armatures rest; a wait goes on until nothing more is due."""
        run = self.run
        # a stop is judged a little later than armatures rest
        end = max(run.time + _SETTLES_US, self.watch.due() or 0)
        last = run.time + _WAITS_US
        for _ in range(_MOST_EVENTS):  # what chatters for ever is a state of its own
            due = run.due()
            if due is None or due > (last if is_long else end):
                break
            run.advance(due)
            self._see(step, known)
            if run.never_settles:
                break
        run.look(max(run.time, end))
        self._see(step, known)

    def _see(self, step: _Step | None, known: _Known | None) -> None:
        run = self.run
        fresh = run.events
        run.events = []
        for hazard in self.watch.see(run, fresh):
            if step is None or known is None or hazard.code not in LOOKS_FOR[self.kind]:
                continue
            if hazard.code not in self.broken:
                self.broken[hazard.code] = Broken(
                    code=hazard.code,
                    acts=tuple(self._said(one) for one in (*known.way, step)),
                    hazard=hazard,
                )

    def _said(self, step: _Step) -> Message:
        tags = self.circuit.tags
        return Message(
            f"proof.act.{step.name}",
            {
                "on": tags.get(step.device, step.device),
                "word": tags.get(step.word, step.word),
            },
        )

    def key(self, known: _Known) -> tuple[Any, ...]:
        """Return what makes two settled states the same."""
        run = self.run
        parts: list[Any] = []
        for part in run.plant.parts:
            if isinstance(part, Motor):
                speed = part.now(run.time)
                parts.append((part.mode, 0 if abs(speed) < 0.1 else 1 if speed > 0 else -1))
            elif isinstance(part, Armature):
                parts.append((part.word(run), part.is_welded))
            else:
                parts.append((part.word(run), *part.phase()))
        closed = tuple(value != 0 for value in run.admittance)
        return (closed, tuple(parts), known.held, known.flags, known.turned, known.welded)


def prove(
    circuit: Circuit,
    kind: ProofKind = "hands",
    *,
    most: int | None = None,
    tell: Callable[[int, int], None] | None = None,
) -> Proof:
    """Search every settled state that operator actions can bring a circuit to.

    Parameters
    ----------
    circuit : Circuit
        As drawn or as found.
    kind : str
        ``hands``, or ``weld``: any one contactor of an exclusive pair welds as well.
    most : int or None
        Transitions after which the search is cut off, and says so; None for what is usual.
    tell : callable, optional
        Called now and then with transitions done and states waiting.

    Returns
    -------
    Proof
        With the shortest sequence to each hazard that was met.
    """
    if most is None:
        most = _MOST_WITH_PROGRAM if has_program(circuit) else _MOST
    search = _Search(circuit, kind, most)
    first = search.first()
    seen = {search.key(first)}
    ring: list[_Known] = [first]
    depth = 0
    place = 0
    is_cut = False
    while place < len(ring) and not is_cut:
        known = ring[place]
        ring[place] = first  # done with: let its state go
        place += 1
        depth = max(depth, len(known.way))
        for step in search.steps(known):
            if search.transitions >= most:
                is_cut = True
                break
            before = len(search.broken)
            made = search.tried(known, step)
            if tell is not None and search.transitions % 250 == 0:
                tell(search.transitions, len(ring) - place)
            if made is None or search.run.never_settles:
                continue
            if len(search.broken) > before:
                continue  # behind a hazard nothing is searched
            key = search.key(made)
            if key not in seen:
                seen.add(key)
                ring.append(made)
    return Proof(
        kind=kind,
        states=len(seen),
        transitions=search.transitions,
        depth=depth,
        # the ring is in the order of length: what was in hand when it was cut is not whole
        whole_depth=depth if is_cut else depth + 1,
        is_exhausted=not is_cut,
        faults=search.welds,
        broken=tuple(search.broken[code] for code in LOOKS_FOR[kind] if code in search.broken),
    )
