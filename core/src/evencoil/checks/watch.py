"""A circuit watched through one sequence of operator actions."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, field

from evencoil.rehearsal import ScenarioAct, Stage
from evencoil.solver import Action, Armature, Motor, Overload, Run, expand

__all__ = [
    "IDLE_US",
    "MOST_UNEVEN",
    "RUNS_FOR_US",
    "SECOND_US",
    "TURNS",
    "Watched",
    "watch",
]

SECOND_US = 1_000_000


#: how long a start is watched
RUNS_FOR_US = 45 * SECOND_US


_BUZZ_US = 100_000


#: below it a coil is not fed, it is on its way out
_FED_PERCENT = 25


IDLE_US = 500_000


#: backward field as a part of the forward one, in a fed motor: NEMA MG 1 14.36 warns above 5 %
#: unbalance of the volts, and of that size is the backward field
MOST_UNEVEN = 0.05


_UNEVEN_FOR_US = 100_000


_MOST_LOOKS = 1200


TURNS = {"fwd", "rev", "sp", "plug"}


@dataclass(slots=True)
class Watched:
    """What was seen while one way to start was played to its end.

    Attributes
    ----------
    acts : sequence of ScenarioAct
        The start.
    last : dict
        Motor to its last word; ``seen`` all of them in order.
    volts : dict
        Motor to its winding volts at the end, in percent of rated.
    heats : dict
        Overload to the amps through each heater at the end. [A]
    coils : dict
        Coil device to the least and most percent of rated volts while it was in.
    """

    acts: Sequence[ScenarioAct]
    last: dict[str, str] = field(default_factory=dict)
    seen: dict[str, list[str]] = field(default_factory=dict)
    volts: dict[str, float] = field(default_factory=dict)
    speeds: dict[str, float] = field(default_factory=dict)
    heats: dict[str, list[float]] = field(default_factory=dict)
    coils: dict[str, tuple[float, float]] = field(default_factory=dict)
    buzzed: dict[str, float] = field(default_factory=dict)
    chatters: set[str] = field(default_factory=set)
    #: motor to how long it stood fed by a contactor and without torque [us]
    idled: dict[str, int] = field(default_factory=dict)
    lamps: dict[str, str] = field(default_factory=dict)
    #: lamps that had their right volts at some time
    lit: set[str] = field(default_factory=set)
    #: device to when its main poles first closed [us]
    closed_at: dict[str, int] = field(default_factory=dict)
    #: motor to its largest backward field beside the forward one, for longer than a moment
    uneven: dict[str, float] = field(default_factory=dict)
    #: timers that still run at the end
    timing: tuple[str, ...] = ()
    gaps_us: list[int] = field(default_factory=list)
    shorted: list[str] = field(default_factory=list)
    #: contactors that must never be closed together and were
    met: list[frozenset[str]] = field(default_factory=list)
    #: what opened on the current of a load
    overran: list[str] = field(default_factory=list)
    never_settles: bool = False
    in_at_end: tuple[str, ...] = ()
    held: int = 0


class _Watcher:
    def __init__(
        self,
        stage: Stage,
        acts: Sequence[ScenarioAct],
        opening: Sequence[ScenarioAct],
        feeding: Mapping[str, Collection[str]],
    ) -> None:
        self.run = Run(stage.plant)
        self.pairs = stage.circuit.never_together
        self.found = Watched(acts)
        self.actions: list[Action] = []
        for act in (*opening, *acts):
            self.actions += expand(act.do, act.at_us, act.on, act.word)
        self.actions.sort(key=lambda action: action.time)
        self.waiting: dict[str, int] = {}
        self.unfed: dict[str, int] = {}
        self.hold_from: dict[str, int] = {}
        self.idle_from: dict[str, int] = {}
        self.uneven_from: dict[str, int] = {}
        self.looks = 0
        self.feeding = feeding

    def play(self) -> Watched:
        run = self.run
        until = max((action.time for action in self.actions), default=0) + RUNS_FOR_US
        for action in self.actions:
            self._to(action.time)
            run.act(action)
            self._look()
        self._to(until)
        self._end()
        return self.found

    def _to(self, time: int) -> None:
        run = self.run
        while not run.never_settles:
            due = run.due()
            if due is None or due > time:
                break
            if self.looks > _MOST_LOOKS:
                # it goes on for ever: nothing new is seen by waiting
                self.found.never_settles = True
                return
            self.looks += 1
            run.advance(due)
            self._look()
        run.look(time)
        self._look()

    def _look(self) -> None:
        run, found = self.run, self.found
        for part in run.plant.parts:
            if isinstance(part, Armature):
                self._coil(part)
            elif isinstance(part, Motor):
                self._motor(part)
            elif part.device.type == "lamp":
                word = part.word(run)
                if word in {"dim", "over"}:
                    found.lamps[part.id] = word
                elif word == "on":
                    found.lit.add(part.id)
        found.shorted += [name for name in run.shorted if name not in found.shorted]
        found.met += [
            pair for pair in self.pairs if pair not in found.met and run.are_both_closed(pair)
        ]
        found.overran += [name for name in run.overran if name not in found.overran]
        found.never_settles = found.never_settles or run.never_settles

    def _coil(self, part: Armature) -> None:
        run, found = self.run, self.found
        percent = part.coil.part_of_rated(run) * 100
        word = part.word(run)
        if word == "1" and percent >= _FED_PERCENT:
            least, most = found.coils.get(part.id, (percent, percent))
            found.coils[part.id] = (min(least, percent), max(most, percent))
        if word == "buzz":
            since = self.waiting.setdefault(part.id, run.time)
            if run.time - since >= _BUZZ_US:
                found.buzzed[part.id] = percent
        else:
            self.waiting.pop(part.id, None)
        if word == "chatter":
            found.chatters.add(part.id)
        if part.id not in found.closed_at and run.has_closed_pole(part.id):
            found.closed_at[part.id] = run.time

    def _motor(self, part: Motor) -> None:
        run, found = self.run, self.found
        word = part.word(run)
        seen = found.seen.setdefault(part.id, [])
        if not seen or seen[-1] != word:
            seen.append(word)
        if word == "coast" and len(seen) > 1:
            self.unfed.setdefault(part.id, run.time)
        elif word in TURNS and part.id in self.unfed:
            found.gaps_us.append(run.time - self.unfed.pop(part.id))
        is_on = any(
            run.has_closed_pole(name)
            for name in self.feeding.get(part.id, ())
            if name in found.closed_at
        )
        if is_on and word in {"off", "hum"}:
            since = self.idle_from.setdefault(part.id, run.time)
            found.idled[part.id] = max(found.idled.get(part.id, 0), run.time - since)
        else:
            self.idle_from.pop(part.id, None)
        self._fields(part, word)
        if word == "hold":
            since = self.hold_from.setdefault(part.id, run.time)
            found.held = max(found.held, run.time - since)
        else:
            self.hold_from.pop(part.id, None)

    def _fields(self, part: Motor, word: str) -> None:
        """See whether the phases of a fed motor are alike."""
        run, found = self.run, self.found
        fields = part.fields(run)
        low, high = sorted((fields.forward, fields.backward))
        is_single = part.kind.startswith("1-phase")
        if is_single or word not in {"fwd", "rev"} or high < 0.3 or low <= MOST_UNEVEN * high:
            self.uneven_from.pop(part.id, None)
            return
        since = self.uneven_from.setdefault(part.id, run.time)
        if run.time - since >= _UNEVEN_FOR_US:
            found.uneven[part.id] = max(found.uneven.get(part.id, 0.0), low / high)

    def _end(self) -> None:
        run, found = self.run, self.found
        for part in run.plant.parts:
            if isinstance(part, Motor):
                fields = part.fields(run)
                found.last[part.id] = part.word(run)
                found.volts[part.id] = max(fields.forward, fields.backward) * 100
                found.speeds[part.id] = part.now(run.time)
            elif isinstance(part, Overload):
                found.heats[part.id] = [part.amps_through(run, branch) for branch in part.heaters]
        found.timing = tuple(
            part.id
            for part in run.plant.parts
            if part.device.type in {"timer", "sdtimer"} and part.due() is not None
        )
        found.in_at_end = tuple(
            part.id
            for part in run.plant.parts
            if isinstance(part, Armature) and part.word(run) == "1"
        )


def watch(
    stage: Stage,
    acts: Sequence[ScenarioAct],
    opening: Sequence[ScenarioAct] = (),
    feeding: Mapping[str, Collection[str]] | None = None,
) -> Watched:
    """Play one way to start and return what was seen.

    Parameters
    ----------
    stage : Stage
        The circuit.
    acts : sequence of ScenarioAct
        The start.
    opening : sequence of ScenarioAct
        What is closed before.
    feeding : mapping, optional
        Motor to the contactors between it and the supply.

    Raises
    ------
    CoreError
        If a device cannot do an act.
    """
    return _Watcher(stage, acts, opening, feeding or {}).play()
