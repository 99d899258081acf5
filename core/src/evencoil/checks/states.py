"""Checks by playing: each way to start is played on, and every state on the way looked at.

Coils with the wrong volts, lamps that glow through something else, motors that hum or
run on two phases, heaters without current, both directions alike, gaps at a change-over.

Source: IEC 60947-4-1 (85 to 110 % at a coil), NEC 430.32 (overload setting), textbook
starter practice. Units: time [us], volts and current in parts of rated ones.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from evencoil.base import CoreError
from evencoil.checks.gaps import gap_problems
from evencoil.checks.model import Problem, problem
from evencoil.checks.power import bridges_of, exclusive_pairs, feeds_of
from evencoil.checks.ratings import setting_problems
from evencoil.checks.reach import Graph
from evencoil.checks.transformer import misfed_by_transformer
from evencoil.checks.volts import opening_problems, volts_problems
from evencoil.checks.watch import (
    IDLE_US,
    MOST_UNEVEN,
    RUNS_FOR_US,
    SECOND_US,
    TURNS,
    Watched,
    watch,
)
from evencoil.circuit import Edit, has_two_speeds, swap_ends
from evencoil.rehearsal import ScenarioAct, Stage, stops_of
from evencoil.solver import SpeedSwitch, motors_of

__all__ = ["state_problems"]

_GOOD = {"fwd", "rev"}
#: types and kinds of motors whose windings are joined outside
_SPLIT = {"motor6", "motorpw", "6", "12", "part-winding"}


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
        *gap_problems(graph, seen, opening),
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
        held = ScenarioAct(at_us=2 * SECOND_US, do="press", on=item.id)
        found.append((held, ScenarioAct(at_us=22 * SECOND_US, do="release", on=item.id)))
    return found[:12]


def _each(graph: Graph, seen: Sequence[Watched]) -> Iterator[Problem]:
    for one in seen:
        yield from volts_problems(graph, one)
        yield from opening_problems(graph, one)
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
            if one.overran or one.shorted:
                continue  # protection ended it, not the button
            if button and button not in started and one.last[motor] not in _GOOD:
                held[button] = motor
    for button, motor in held.items():
        yield problem(circuit, "E02", "note" if starts else "doubt", "held_only", button, motor)
    for item in circuit.netlist.devices:
        is_dead = item.type.startswith("motor") and item.id not in moved and not starts
        contactors = feeds_of(graph, item.id)[0]
        if is_dead and contactors and not contactors & misfed_by_transformer(graph):
            yield problem(circuit, "E01", "error", "no_start", item.id)


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
            if volts < 90 and one.timing:
                yield problem(
                    circuit,
                    "H23",
                    "doubt",
                    "still_starting",
                    name,
                    *one.timing,
                    percent=f"{volts:.0f}",
                    seconds=f"{RUNS_FOR_US / SECOND_US:.0f}",
                )
            elif not 90 <= volts <= 110:
                yield problem(
                    circuit, "H23", "error", "winding_volts", name, percent=f"{volts:.0f}"
                )
        if one.uneven.get(name, 0.0) > MOST_UNEVEN and word in _GOOD:
            yield problem(
                circuit,
                "E07",
                "error",
                "uneven",
                name,
                percent=f"{one.uneven[name] * 100:.0f}",
            )
        if one.idled.get(name, 0) > IDLE_US and word in _GOOD:
            yield problem(
                circuit,
                "H21",
                "error",
                "idles_first",
                name,
                seconds=f"{one.idled[name] / SECOND_US:.1f}",
            )


def _histories(graph: Graph, one: Watched) -> Iterator[Problem]:
    """Look at what went on on the way: plugging, halves, direct current, gaps."""
    circuit = graph.circuit
    for name in one.last:
        if "plug" in one.seen.get(name, []):
            yield problem(circuit, "H18", "doubt", "plugs", name)
        contactors, _ = feeds_of(graph, name)
        if {"first_half", "second_half"} <= graph.kinds.keys():
            times = sorted(one.closed_at[key] for key in contactors if key in one.closed_at)
            if len(times) > 1 and times[-1] - times[0] > 3 * SECOND_US:
                yield problem(
                    circuit,
                    "H29",
                    "doubt",
                    "half_long",
                    name,
                    seconds=f"{(times[-1] - times[0]) / SECOND_US:.1f}",
                )
    if one.held > 3 * SECOND_US:
        yield problem(
            circuit, "H35", "error", "dc_hold", *one.last, seconds=f"{one.held / SECOND_US:.0f}"
        )


def _overload_settings(graph: Graph, one: Watched) -> Iterator[Problem]:
    circuit = graph.circuit
    # what a motor of two speeds draws at each is on its plate, not in its winding
    running = [
        name
        for name, word in one.last.items()
        if word in _GOOD
        and not has_two_speeds(graph.kinds[name])
        # at a start stage it draws another current than the one the relay is set for
        and 90 <= one.volts[name] <= 110
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
            if graph.is_stated is not None and not graph.is_stated(relay, "iset"):
                continue  # nobody set it yet
            yield from setting_problems(graph, relay, [motor], setting, max(amps))


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
                ScenarioAct(at_us=act.at_us + 6 * SECOND_US, do=act.do, on=act.on, word=act.word)
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
    for motor in motors_of(stage.opening()):
        acts = [ScenarioAct(at_us=1 * SECOND_US, do="spin", on=motor.id, word="0.5")]
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
            acts = [*start, ScenarioAct(at_us=10 * SECOND_US, do="push", on=button)]
            for motor, word in watch(stage, acts, opening).last.items():
                if word in TURNS:
                    yield problem(graph.circuit, "H33", "error", "turns_back", motor, button)
