"""Checks by playing: each way to start is played on, and every state on the way looked at.

Coils with the wrong volts, lamps that glow through something else, motors that hum or
run on two phases, heaters without current, both directions alike, gaps at a change-over.

Source: IEC 60947-4-1 (85 to 110 % at a coil), NEC 430.32 (overload setting), textbook
starter practice. Units: time [us], volts and current in parts of rated ones.
"""

from __future__ import annotations

from collections.abc import Collection, Iterator, Mapping, Sequence
from dataclasses import dataclass, field

from evencoil.checks.model import Problem, problem
from evencoil.checks.power import bridges_of, exclusive_pairs, feeds_of
from evencoil.checks.reach import Graph
from evencoil.circuit.edits import Edit, swap_ends
from evencoil.errors import CoreError
from evencoil.probes import stops_of
from evencoil.rehearsal import ScenarioAct, Stage
from evencoil.solver.parts.coils import Armature
from evencoil.solver.parts.motors import Motor
from evencoil.solver.parts.protection import Overload
from evencoil.solver.parts.sensors import SpeedSwitch
from evencoil.solver.run import Action, Run, expand

__all__ = ["Watched", "state_problems", "watch"]

_SECOND = 1_000_000
_RUNS_FOR = 45 * _SECOND
_BUZZ_US = 100_000
#: below it a coil is not fed, it is on its way out
_FED_PERCENT = 25
_IDLE_US = 500_000
_MOST_LOOKS = 1200
_GOOD = {"fwd", "rev"}
#: types and kinds of motors whose windings are joined outside
_SPLIT = {"motor6", "motorpw", "6", "12", "part-winding"}
_TURNS = {"fwd", "rev", "sp", "plug"}


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
    #: device to when its main poles first closed [us]
    closed_at: dict[str, int] = field(default_factory=dict)
    gaps_us: list[int] = field(default_factory=list)
    shorted: list[str] = field(default_factory=list)
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
        self.found = Watched(acts)
        self.actions: list[Action] = []
        for act in (*opening, *acts):
            self.actions += expand(act.do, act.at_us, act.on, act.word)
        self.actions.sort(key=lambda action: action.time)
        self.waiting: dict[str, int] = {}
        self.unfed: dict[str, int] = {}
        self.hold_from: dict[str, int] = {}
        self.idle_from: dict[str, int] = {}
        self.looks = 0
        self.feeding = feeding

    def play(self) -> Watched:
        run = self.run
        until = max((action.time for action in self.actions), default=0) + _RUNS_FOR
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
        found.shorted += [name for name in run.shorted if name not in found.shorted]
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
        elif word in _TURNS and part.id in self.unfed:
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
        if word == "hold":
            since = self.hold_from.setdefault(part.id, run.time)
            found.held = max(found.held, run.time - since)
        else:
            self.hold_from.pop(part.id, None)

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


def state_problems(
    graph: Graph,
    stage: Stage,
    starts: Sequence[Sequence[ScenarioAct]],
    opening: Sequence[ScenarioAct],
) -> Iterator[Problem]:
    """Go through H09, H18, H19, H21 to H25, H29, H30, H32 to H35, H44, H45 and H48.

    Parameters
    ----------
    graph : Graph
        The circuit as a graph.
    stage : Stage
        The circuit, ready to be played.
    starts : sequence
        Ways in which it starts.
    opening : sequence of ScenarioAct
        Every main device closed.
    """
    told: set[tuple[str, str, tuple[str, ...]]] = set()
    seen: list[Watched] = []
    tries = _tries(graph)
    feeding = {
        item.id: feeds_of(graph, item.id)[0] - bridges_of(graph)
        for item in graph.circuit.netlist.devices
        if item.type.startswith("motor")
    }
    for start in (*starts, *tries):
        try:
            seen.append(watch(stage, start, opening, feeding))
        except CoreError:
            continue
    for found in (
        *_each(graph, seen),
        *_no_start(graph, starts, seen),
        *_directions(graph, seen),
        *_reversal(graph, stage, starts, opening),
        *_star_proof(graph, starts, opening),
        *_spun(graph, stage, starts, opening),
    ):
        key = (found.rule, found.message.id, found.devices)
        if key not in told:
            told.add(key)
            yield found


def _tries(graph: Graph) -> list[tuple[ScenarioAct, ...]]:
    """Return nothing done, and each button held for twenty seconds and let go."""
    found: list[tuple[ScenarioAct, ...]] = [()]
    for item in graph.of_type("pb"):
        held = ScenarioAct(at_us=2 * _SECOND, do="press", on=item.id)
        found.append((held, ScenarioAct(at_us=22 * _SECOND, do="release", on=item.id)))
    return found[:12]


def _each(graph: Graph, seen: Sequence[Watched]) -> Iterator[Problem]:
    for one in seen:
        yield from _coils(graph, one)
        yield from _motors(graph, one)
        yield from _histories(graph, one)
        yield from _overload_settings(graph, one)


def _no_start(
    graph: Graph, starts: Sequence[Sequence[ScenarioAct]], seen: Sequence[Watched]
) -> Iterator[Problem]:
    """Find motors that nothing starts, and buttons that run one only while they are held."""
    circuit = graph.circuit
    started = {act.on for start in starts for act in start}
    held: dict[str, str] = {}
    moved: set[str] = set()
    for one in seen:
        for motor, words in one.seen.items():
            if not _GOOD & set(words):
                continue
            moved.add(motor)
            button = one.acts[0].on if one.acts and one.acts[0].do == "press" else ""
            if button and button not in started and one.last[motor] not in _GOOD:
                held[button] = motor
    for button, motor in held.items():
        yield problem(circuit, "E02", "note" if starts else "doubt", "held_only", button, motor)
    for item in circuit.netlist.devices:
        is_dead = item.type.startswith("motor") and item.id not in moved and not starts
        if is_dead and feeds_of(graph, item.id)[0]:
            yield problem(circuit, "E01", "error", "no_start", item.id)


def _coils(graph: Graph, one: Watched) -> Iterator[Problem]:
    circuit = graph.circuit
    for name, percent in one.buzzed.items():
        yield problem(circuit, "H19", "error", "buzz", name, percent=f"{percent:.0f}")
    for name, (least, most) in one.coils.items():
        if most > 110 or least < 85:
            item = graph.kinds[name]
            rated = float(item.parameters.get("coil") or 0)
            worst = most if most > 110 else least
            volts = rated * worst / 100
            usual = min((24, 48, 110, 120, 208, 240, 277, 480), key=lambda v: abs(v - volts))
            fix = Edit(
                id=f"fix.{name}.coil", kind="set", device=name, parameters={"coil": str(usual)}
            )
            yield problem(
                circuit,
                "H44",
                "error",
                "coil_volts",
                name,
                edits=(fix,) if rated != usual else (),
                percent=f"{worst:.0f}",
                volts=f"{volts:.0f}",
                usual=str(usual),
            )
    for name in sorted(one.chatters):
        yield problem(circuit, "H19", "error", "chatters", name)
    for name, word in one.lamps.items():
        rule = "H44" if word == "over" else "H48"
        yield problem(circuit, rule, "error" if word == "over" else "doubt", f"lamp_{word}", name)
    for name in one.shorted:
        yield problem(circuit, "H45", "error", "short_run", name)
    if one.never_settles:
        yield problem(circuit, "H19", "error", "never_settles")


def _motors(graph: Graph, one: Watched) -> Iterator[Problem]:
    circuit = graph.circuit
    for name, word in one.last.items():
        contactors, _ = feeds_of(graph, name)
        is_on = bool(contactors & set(one.in_at_end))
        is_six = (
            graph.kinds[name].type in _SPLIT or graph.kinds[name].parameters.get("kind") in _SPLIT
        )
        if is_on and word in {"hum", "sp", "coast", "off"}:
            yield problem(
                circuit,
                "H21" if is_six else "H09",
                "error",
                f"runs_{word}",
                name,
                *sorted(contactors & set(one.in_at_end)),
            )
        elif is_on and word in _GOOD:
            volts = one.volts[name]
            if not 90 <= volts <= 110:
                yield problem(
                    circuit, "H23", "error", "winding_volts", name, percent=f"{volts:.0f}"
                )
        if one.idled.get(name, 0) > _IDLE_US and word in _GOOD:
            yield problem(
                circuit,
                "H21",
                "error",
                "idles_first",
                name,
                seconds=f"{one.idled[name] / _SECOND:.1f}",
            )


def _histories(graph: Graph, one: Watched) -> Iterator[Problem]:
    """Look at what went on on the way: plugging, halves, direct current, gaps."""
    circuit = graph.circuit
    for name in one.last:
        if "plug" in one.seen.get(name, []):
            yield problem(circuit, "H18", "doubt", "plugs", name)
        contactors, _ = feeds_of(graph, name)
        if graph.kinds[name].type == "motorpw":
            times = sorted(one.closed_at[key] for key in contactors if key in one.closed_at)
            if len(times) > 1 and times[-1] - times[0] > 3 * _SECOND:
                yield problem(
                    circuit,
                    "H29",
                    "doubt",
                    "half_long",
                    name,
                    seconds=f"{(times[-1] - times[0]) / _SECOND:.1f}",
                )
    if one.held > 3 * _SECOND:
        yield problem(
            circuit, "H35", "error", "dc_hold", *one.last, seconds=f"{one.held / _SECOND:.0f}"
        )
    gaps = [gap for gap in one.gaps_us if gap < _SECOND]
    if gaps:
        yield problem(
            circuit, "H25", "note", "gap", *one.last, milliseconds=f"{max(gaps) / 1000:.0f}"
        )


def _has_two_speeds(graph: Graph, motor: str) -> bool:
    item = graph.kinds[motor]
    return item.type.startswith("motor2") or item.parameters.get("kind", "").startswith("2-speed")


def _overload_settings(graph: Graph, one: Watched) -> Iterator[Problem]:
    circuit = graph.circuit
    # what a motor of two speeds draws at each is on its plate, not in its winding
    running = [
        name
        for name, word in one.last.items()
        if word in _GOOD and not _has_two_speeds(graph, name)
    ]
    for motor in running:
        _, overloads = feeds_of(graph, motor)
        for relay in sorted(overloads):
            amps = one.heats.get(relay, [])
            if not amps or max(amps) < 0.05:
                continue
            if min(amps) < 0.3 * max(amps):
                yield problem(circuit, "H09", "error", "idle_heater", relay, motor)
                continue
            setting = float(graph.kinds[relay].parameters.get("iset") or 0)
            part = setting / max(amps)
            if not 0.9 <= part <= 1.15:
                fix = Edit(
                    id=f"fix.{relay}.iset",
                    kind="set",
                    device=relay,
                    parameters={"iset": f"{max(amps):.1f}"},
                )
                yield problem(
                    circuit,
                    "H22",
                    "error" if part > 1.15 else "doubt",
                    "setting",
                    relay,
                    motor,
                    edits=(fix,),
                    set=f"{setting:g}",
                    amps=f"{max(amps):.1f}",
                    percent=f"{part * 100:.0f}",
                )


def _directions(graph: Graph, seen: Sequence[Watched]) -> Iterator[Problem]:
    """Compare what the ways to start do: reverse must turn back, low and high alike."""
    circuit = graph.circuit
    runs = [(set(one.in_at_end), one) for one in seen]
    # the pairs of the power part are among them: check_circuit finds them first
    for pair in circuit.never_together:
        one, other = sorted(pair)
        for motor in [item.id for item in circuit.netlist.devices if item.type.startswith("motor")]:
            words = {}
            for inside, found in runs:
                mine = {one, other} & inside
                if len(mine) == 1 and found.last.get(motor) in _GOOD:
                    words[mine.pop()] = (found.last[motor], abs(found.speeds[motor]))
            if len(words) < 2:
                continue
            same_speed = abs(words[one][1] - words[other][1]) < 0.2
            leads = [
                {graph.net(name, end) for end in ("2T1", "4T2", "6T3")} for name in (one, other)
            ]
            if same_speed and leads[0] == leads[1] and words[one][0] == words[other][0]:
                ends = (f"{other}.2T1", f"{other}.6T3")
                yield problem(
                    circuit,
                    "H09",
                    "error",
                    "same_way",
                    one,
                    other,
                    motor,
                    edits=_exchange(graph, *ends),
                )
            if not same_speed and words[one][0] != words[other][0]:
                yield problem(circuit, "H30", "error", "speeds_differ", one, other, motor)


def _exchange(graph: Graph, one: str, other: str) -> tuple[Edit, ...]:
    return swap_ends(graph.circuit, one, other, f"fix.{one}")


def _reversal(
    graph: Graph,
    stage: Stage,
    starts: Sequence[Sequence[ScenarioAct]],
    opening: Sequence[ScenarioAct],
) -> Iterator[Problem]:
    """Ask for the other way while it runs: torque against the motion is plugging."""
    if not graph.circuit.never_together or len(starts) < 2:
        return
    for one in starts[:4]:
        for two in starts[:4]:
            if one is two:
                continue
            later = [
                ScenarioAct(at_us=act.at_us + 6 * _SECOND, do=act.do, on=act.on, word=act.word)
                for act in two
            ]
            try:
                found = watch(stage, [*one, *later], opening)
            except CoreError:
                continue
            for motor, words in found.seen.items():
                if "plug" in words:
                    yield problem(graph.circuit, "H18", "doubt", "plugs", motor)
                    return


def _star_proof(
    graph: Graph, starts: Sequence[Sequence[ScenarioAct]], opening: Sequence[ScenarioAct]
) -> Iterator[Problem]:
    """Open the star contactor's coil: the main contactor must stay out."""
    circuit = graph.circuit
    motors = [
        item
        for item in circuit.netlist.devices
        if item.type == "motor6" or item.parameters.get("kind") in {"6", "12"}
    ]
    stars = bridges_of(graph)
    if len(motors) != 1 or len(stars) != 1 or not starts:
        return
    star = next(iter(stars))
    delta = {name for pair in exclusive_pairs(graph) if star in pair for name in pair} - {star}
    if not delta:
        return
    stage = Stage(circuit)
    act = ScenarioAct(at_us=1_000, do="open_coil", on=star)
    try:
        found = watch(stage, [act, *starts[0]], opening)
    except CoreError:
        return
    contactors, _ = feeds_of(graph, motors[0].id)
    mains = sorted((contactors - delta - {star}) & set(found.closed_at))
    if mains:
        yield problem(circuit, "H24", "doubt", "no_star_proof", mains[0], star)


def _spun(
    graph: Graph,
    stage: Stage,
    starts: Sequence[Sequence[ScenarioAct]],
    opening: Sequence[ScenarioAct],
) -> Iterator[Problem]:
    """Turn the shaft by hand with nothing asked for; and run forward against the speed switch."""
    circuit = graph.circuit
    if not any(isinstance(part, SpeedSwitch) for part in stage.plant.parts):
        return
    for motor in stage.opening().motors():
        acts = [ScenarioAct(at_us=1 * _SECOND, do="spin", on=motor.id, word="0.5")]
        found = watch(stage, acts, opening)
        moved = sorted(set(found.closed_at))
        if moved:
            yield problem(circuit, "H32", "doubt", "spun", *moved, motor.id)
    yield from _stopped(graph, stage, starts, opening)


def _stopped(
    graph: Graph,
    stage: Stage,
    starts: Sequence[Sequence[ScenarioAct]],
    opening: Sequence[ScenarioAct],
) -> Iterator[Problem]:
    """Stop a motor that a speed switch watches: it must come to rest, not turn back."""
    for start in starts[:2]:
        for button in stops_of(graph.circuit):
            acts = [*start, ScenarioAct(at_us=10 * _SECOND, do="push", on=button)]
            for motor, word in watch(stage, acts, opening).last.items():
                if word in _TURNS:
                    yield problem(graph.circuit, "H33", "error", "turns_back", motor, button)
