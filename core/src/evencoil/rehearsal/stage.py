"""A rehearsal as people see it: a scenario in, a trace out.

The truth is the scenario; a snapshot is a cache of it, bound to the netlist
and the version of the core. A trace holds a full picture at every instant at
which something changed, a light one every quarter second, what happened and
why, and each hazard at its instant.
"""

from __future__ import annotations

import hashlib
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from decimal import Decimal
from typing import Any

from evencoil.base import Message, OutOfRangeError, RefusedError, __version__
from evencoil.circuit import Circuit, netlist_fingerprint
from evencoil.rehearsal.hazards import Hazard, Watch
from evencoil.rehearsal.programs import ProgramLook
from evencoil.rehearsal.trace import DriveFrame, Frame, MotorFrame, Trace
from evencoil.solver import (
    CATALOGUE,
    PHYSICAL,
    Action,
    CalculatedMotor,
    Drive,
    Event,
    Motor,
    Plant,
    Run,
    compile_plant,
    expand,
)
from evencoil.solver.motor import MotorOnLoad

__all__ = ["AHEAD_US", "MOST_ACTS", "ScenarioAct", "Stage", "seconds"]

AHEAD_US = 10_000_000
#: from a time on, how far apart the light frames are; a function of time alone, so that a
#: scenario cut anywhere gives the same trace [us]
KEYFRAMES_US = ((0, 250_000), (60_000_000, 1_000_000), (600_000_000, 10_000_000))
MOST_ACTS = 400
#: more frames at once are not kept: the trace ends there and says so
MOST_FRAMES = 2500
#: so many networks of a program shown cost as much as a frame
NETWORKS_A_FRAME = 40
#: what an act brings about beyond its own contacts
_EFFECTS = {"drive", "armature", "coil", "overload", "relay", "fuse", "breaker", "starter"}
MOST_SECONDS = 4 * 3600
SNAPSHOT_FORM = 4
#: what is done to a terminal, each with its own joint
_AT_JOINTS = {"loosen", "tighten"}


@dataclass(frozen=True, slots=True, kw_only=True)
class ScenarioAct:
    """One act of a scenario, in the words of a person.

    Attributes
    ----------
    at_us : int
        When, from the start. [us]
    do : str
        press, release, push, turn, on, off, dip, trip, reset, lose, weld ...
    on : str
        Device id or tag; a terminal for ``ground``; empty for the supply.
    word : str
        What the verb needs besides.
    """

    at_us: int
    do: str
    on: str = ""
    word: str = ""


@dataclass(slots=True)
class Stage:
    """A circuit ready to be rehearsed.

    Attributes
    ----------
    circuit : Circuit
        Netlist and labels.
    set_name : str
        Constant set.
    motor : MotorOnLoad or None
        The job's own motor; with it the set is ``physical``.
    """

    circuit: Circuit
    set_name: str = CATALOGUE
    motor: MotorOnLoad | None = None
    plant: Plant = field(init=False)
    #: wired nets and their ids, by which a drawing is joined to the frames
    net_ids: Mapping[int, str] = field(init=False)
    fingerprint: str = field(init=False)

    def __post_init__(self) -> None:
        """Compile once."""
        if self.motor is not None:
            self.set_name = PHYSICAL
        self.plant = self._compiled()
        netlist = self.circuit.netlist
        net_of = netlist.nets()
        wired = {net_of[end] for wire in netlist.wires for end in (wire.start, wire.end)}
        self.net_ids = {net: name for net, name in netlist.net_ids().items() if net in wired}
        self.fingerprint = netlist_fingerprint(self.circuit)
        if self.motor is not None:
            told = hashlib.sha256(repr(self.motor).encode()).hexdigest()
            self.fingerprint = f"{self.fingerprint}-{told[:16]}"

    def actions(self, acts: Sequence[ScenarioAct]) -> list[Action]:
        """Return a scenario as single actions in time.

        Parameters
        ----------
        acts : sequence of ScenarioAct
            In any order.

        Raises
        ------
        OutOfRangeError
            If there are too many, or one names no device.
        """
        if len(acts) > MOST_ACTS:
            raise OutOfRangeError(
                Message("scenario.too_many", {"count": str(len(acts)), "most": str(MOST_ACTS)}),
                field="scenario.actions",
                hint=Message("scenario.too_many.hint"),
            )
        found: list[Action] = []
        for place, act in enumerate(acts):
            found += self._expanded(act, place)
        return sorted(found, key=lambda action: action.time)

    def _expanded(self, act: ScenarioAct, place: int) -> Sequence[Action]:
        where = f"scenario.actions.{place}"
        if not 0 <= act.at_us <= MOST_SECONDS * 1_000_000:
            raise OutOfRangeError(
                Message("scenario.time", {"time": f"{act.at_us / 1e6:g}"}),
                field=f"{where}.at_s",
                hint=Message("scenario.time.hint", {"most": str(MOST_SECONDS)}),
            )
        device = ""
        if act.on and "." in act.on:
            owner, _, end = act.on.rpartition(".")
            known = self.circuit.id_of(owner)
            device = f"{known}.{end}" if known else ""
            if device not in self.plant.node_of:
                device = ""
        elif act.on:
            device = self.circuit.id_of(act.on) or ""
        if act.on and not device:
            raise OutOfRangeError(
                Message("scenario.no_device", {"device": act.on[:60]}),
                field=f"{where}.on",
                hint=Message(
                    "scenario.no_device.hint", {"tags": ", ".join(self.circuit.tags.values())}
                ),
            )
        try:
            return expand(act.do, act.at_us, device, act.word)
        except ValueError as wrong:
            raise OutOfRangeError(
                Message("scenario.word", {"verb": act.do[:20], "word": act.word[:20]}),
                field=f"{where}.word",
                hint=Message("scenario.word.hint"),
            ) from wrong

    def opening(self) -> Run:
        """Return a run at its first instant."""
        return Run(self.plant)

    def _with_joints(self, joints: Sequence[str]) -> Plant:
        """Return the plant in which some terminals can come loose."""
        if not joints:
            return self.plant
        return self._compiled(joints)

    def _compiled(self, joints: Sequence[str] = ()) -> Plant:
        plant = compile_plant(self.circuit.netlist, self.set_name, joints, self.motor)
        if self.motor is not None and plant.machine is None:
            # drawn with a stand-in, not with the winding of this job
            self.motor, self.set_name = None, CATALOGUE
            return compile_plant(self.circuit.netlist, self.set_name, joints)
        return plant

    def resumed(
        self, snapshot: Mapping[str, Any], actions: Sequence[Action] = ()
    ) -> tuple[Run, Watch]:
        """Return a run and its watch as a snapshot left them.

        Parameters
        ----------
        snapshot : mapping
            From a trace of this netlist.
        actions : sequence of Action
            What is still to be done: a joint may come loose that was no one's subject before.

        Raises
        ------
        RefusedError
            ``snapshot_stale``: of another netlist, constant set or core.
        """
        wanted = [SNAPSHOT_FORM, __version__, self.fingerprint, self.set_name]
        if list(snapshot.get("bound", [])) != wanted:
            raise RefusedError(
                Message("scenario.stale"), field="snapshot", hint=Message("scenario.stale.hint")
            )
        run = Run(self._with_joints(_joints_of(actions, snapshot["run"]["joints"])))
        run.load(snapshot["run"])
        watch = Watch(self.circuit)
        watch.load(snapshot["watch"])
        return run, watch

    def play(
        self,
        acts: Sequence[ScenarioAct],
        *,
        until_us: int | None = None,
        snapshot: Mapping[str, Any] | None = None,
        with_programs: bool = False,
    ) -> Trace:
        """Play a scenario and return what happened.

        Parameters
        ----------
        acts : sequence of ScenarioAct
            From the start, or from the snapshot on.
        until_us : int, optional
            How far to go; ten seconds beyond the last act if omitted. [us]
        snapshot : mapping, optional
            To go on from.
        with_programs : bool
            Also what the programs of its relays show, with a light frame whenever something in
            one goes on or off.

        Returns
        -------
        Trace
            With frames, events, hazards and snapshots.

        Raises
        ------
        CoreError
            If an act cannot be, or the snapshot is of another netlist.
        """
        actions = self.actions(acts)
        if snapshot is None:
            run, watch = Run(self._with_joints(_joints_of(actions))), Watch(self.circuit)
        else:
            run, watch = self.resumed(snapshot, actions)
        start = run.time
        last = max([start, *(action.time for action in actions)])
        until = last + AHEAD_US if until_us is None else until_us
        if until - start > MOST_SECONDS * 1_000_000:
            raise OutOfRangeError(
                Message("scenario.time", {"time": f"{until / 1e6:g}"}),
                field="scenario.until_s",
                hint=Message("scenario.time.hint", {"most": str(MOST_SECONDS)}),
            )
        return _Player(self, run, watch, with_programs=with_programs).play(actions, until)


class _Player:
    def __init__(self, stage: Stage, run: Run, watch: Watch, *, with_programs: bool) -> None:
        self.stage = stage
        self.programs = ProgramLook(run.plant) if with_programs else None
        self.run = run
        self.watch = watch
        self.frames: list[Frame] = []
        self.events: list[Event] = []
        self.snapshots: list[Mapping[str, Any]] = []
        self.hazards: list[Hazard] = []
        self.effects: set[int] = set()
        self.next_key = _key_from(run.time)

    def play(self, actions: Sequence[Action], until: int) -> Trace:
        start = self.run.time
        self._full()
        for action in actions:
            if action.time > until or self._is_full():
                break
            self._advance(action.time)
            if self._is_full():
                break
            self.run.act(action)
            self._changed()
        self._advance(until)
        is_cut = self._is_full() and self.run.time < until
        if is_cut and self.frames[-1].snapshot is None:
            self._full()  # what is cut goes on from its last picture
        return Trace(
            set_name=self.stage.set_name,
            fingerprint=self.stage.fingerprint,
            start_us=start,
            until_us=self.run.time if is_cut else until,
            is_cut=is_cut,
            effects=frozenset(self.effects),
            frames=tuple(self.frames),
            events=tuple(self.events),
            hazards=tuple(self.hazards),
            snapshots=tuple(self.snapshots),
            never_settles=self.run.never_settles,
        )

    def _is_full(self) -> bool:
        work = 0 if self.programs is None else self.programs.work
        return len(self.frames) + work // NETWORKS_A_FRAME >= MOST_FRAMES

    def _advance(self, until: int) -> None:
        run = self.run
        while not run.never_settles:
            if self._is_full():
                return
            due = run.due()
            watched = self.watch.due()
            ahead = [time for time in (due, watched) if time is not None]
            step = min(ahead) if ahead else None
            if step is None or step > until:
                break
            self._keys(step)
            run.advance(step)
            run.look(step)
            self._changed()
        self._keys(until)
        run.look(until)

    def _keys(self, until: int) -> None:
        """Put light frames at the quarter seconds passed."""
        while self.next_key <= until:
            now = self.run.time
            if self.next_key >= now:
                self.run.time = self.next_key
                self.frames.append(self._frame(is_full=False))
                self.run.time = now
            self.next_key = _key_from(self.next_key + 1)

    def _changed(self) -> None:
        fresh = self.run.events
        self.run.events = []
        self.events += fresh
        self.effects |= {
            self.run.roots[event.n]
            for event in fresh
            if event.aspect in _EFFECTS and event.n in self.run.roots
        }
        found = self.watch.see(self.run, fresh)
        self.hazards += found
        if fresh or found:
            self._full()
        elif self.programs is not None and self.programs.is_changed():
            self.frames.append(self._frame(is_full=False))

    def _full(self) -> None:
        self.frames.append(self._frame(is_full=True))

    def _frame(self, *, is_full: bool) -> Frame:
        run = self.run
        motors, heats = {}, {}
        for part in run.plant.parts:
            if isinstance(part, Motor):
                fields = part.fields(run)
                shaft = part.shaft(run) if isinstance(part, CalculatedMotor) else None
                motors[part.id] = MotorFrame(
                    word=part.word(run),
                    volts_percent=round(
                        max(fields.forward, fields.backward) * part.full_part * 100, 1
                    ),
                    speed_percent=round(part.now(run.time) * 100, 1),
                    coil_amps_a=round(part.line_amps(run), 2),
                    field="low" if fields.speed < 1 else "high",
                    speed_rpm=None if shaft is None else round(shaft.speed_rpm, 1),
                    torque_nm=None if shaft is None else round(shaft.torque_nm, 1),
                    lead_amps_a=None if shaft is None else round(shaft.lead_a, 1),
                    hottest_c=None if shaft is None else round(shaft.hottest_c, 1),
                )
            elif "heat" in (told := part.tells(run) if hasattr(part, "heat") else {}):
                heats[part.id] = float(told["heat"])
        drives = {
            part.id: DriveFrame(
                hz=part.hz,
                set_hz=part.dial_hz,
                out_v=round(part.volts_out(), 1),
                bus_v=round(part.bus_now(run.time), 1),
                is_bus_live=part.is_bus_live(run.time),
                amps_a=round(part.amps, 2),
                heat_percent=round(part.heat_percent(run.time), 1),
                fault=part.fault,
            )
            for part in run.plant.parts
            if isinstance(part, Drive)
        }
        snapshot = None
        if is_full:
            self.snapshots.append(
                {
                    "bound": [
                        SNAPSHOT_FORM,
                        __version__,
                        self.stage.fingerprint,
                        self.stage.set_name,
                    ],
                    "run": run.save(),
                    "watch": self.watch.save(),
                }
            )
            snapshot = len(self.snapshots) - 1
        return Frame(
            time_us=run.time,
            words=run.words() if is_full else None,
            closed=self._closed() if is_full else None,
            nets=self._nets() if is_full else None,
            live=self._live() if is_full else None,
            motors=motors,
            heats=heats,
            drives=drives,
            snapshot=snapshot,
            programs={} if self.programs is None else self.programs.frames(),
        )

    def _closed(self) -> tuple[str, ...]:
        run = self.run
        return tuple(
            f"{part.id}:{name}"
            for part in run.plant.parts
            for name in part.branches
            if part.is_closed(run, name)
        )

    def _nets(self) -> dict[str, float]:
        """Return volts to ground of every wired net, by its id."""
        solved = self.run.solution
        found = {}
        for net, name in self.stage.net_ids.items():
            volts = abs(solved.volts[net])
            if solved.steady is not None:
                volts = max(volts, abs(solved.steady[net]))
            found[name] = round(volts, 1)
        return found

    def _live(self) -> tuple[str, ...]:
        return tuple(name for net, name in self.stage.net_ids.items() if self.run.is_live_net(net))


def _joints_of(actions: Sequence[Action], had: Sequence[str] = ()) -> tuple[str, ...]:
    """Return the terminals that come loose: those there were, then those that are new."""
    named = (one.device for one in actions if one.verb in _AT_JOINTS)
    return tuple(dict.fromkeys((*had, *named)))


def _key_from(time: int) -> int:
    """Return the first instant of a light frame at a time or after it [us]."""
    apart = next(step for start, step in reversed(KEYFRAMES_US) if time >= start)
    return -(-time // apart) * apart


def seconds(value: Decimal) -> int:
    """Return seconds as whole microseconds.

    Parameters
    ----------
    value : Decimal
        [s]
    """
    return int(value * 1_000_000)
