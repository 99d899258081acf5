"""Play a circuit with a fault the way it is used, and write down what people would see.

Power on, each start in turn held, let go and left running, the other button while it runs,
stop; with more current than usual also the minutes until something trips. What is seen are words
of devices and volts of nets; contactors and lamps cost nothing to look at.

Source: the rehearsal's own solver (nodal analysis, textbook topic); times are those of the
constant set ``catalogue``.
"""

from __future__ import annotations

from collections.abc import Generator, Iterator, Mapping, Sequence
from dataclasses import dataclass, field

from evencoil.base import CoreError
from evencoil.circuit import TURNED, Circuit, Device, is_off_word
from evencoil.rehearsal import ScenarioAct, Stage, opening_of, starts_of, stops_of
from evencoil.solver import Action, Motor, Plant, Run, compile_plant
from evencoil.trouble.faults import Fault

__all__ = ["DRIVEN", "Look", "Script", "Seen", "phase_kind", "play", "script_of"]

_SECOND = 1_000_000
_MOST_STARTS = 2
#: phases at which volts are kept for live readings
VOLTS_AT = ("rest", "held_1", "runs_1")
_LONG_S = 400
#: part of full speed above which anyone sees a shaft turn
_TURNS = 0.01
#: states of a motor that is fed and turns, or is to turn
DRIVEN = frozenset({"fwd", "rev", "plug", "sp"})
#: a fault that makes a circuit start and drop for ever shows that in the first second
_MOST_EVENTS = 500


@dataclass(frozen=True, slots=True)
class Step:
    """An act at a time, or a look at that time: the name of its phase."""

    at_us: int
    verb: str = ""
    device: str = ""
    word: str = ""
    phase: str = ""


@dataclass(frozen=True, slots=True)
class Script:
    """What is done and when it is looked at; ``starts`` are the acts of each start.

    ``main`` is the first main device, where amps are read; empty for none.
    """

    steps: tuple[Step, ...]
    starts: tuple[tuple[ScenarioAct, ...], ...]
    main: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Look:
    """What is seen at one moment.

    Attributes
    ----------
    words : mapping
        Device to its state in a word.
    amps : tuple of float
        In each pole of the first main device. [A]
    turning : frozenset of str
        Motors whose shaft turns.
    volts : list of complex, optional
        Of every node, where live readings are of use. [V]
    """

    words: Mapping[str, str]
    amps: tuple[float, ...]
    turning: frozenset[str] = frozenset()
    volts: Sequence[complex] | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Seen:
    """A circuit played: phase to what was seen; ``chatters`` are the coils that never rest.

    ``silent`` are those whose winding is open: they have volts and make no sound.
    """

    looks: Mapping[str, Look]
    chatters: frozenset[str] = frozenset()
    silent: frozenset[str] = frozenset()
    plant: Plant | None = field(default=None, compare=False, repr=False)


def script_of(circuit: Circuit) -> Script:
    """Return how a circuit is tried, from how the sound one is started and stopped.

    Parameters
    ----------
    circuit : Circuit
        As drawn or as found.
    """
    starts = starts_of(Stage(circuit))[:_MOST_STARTS]
    return Script(
        steps=tuple(sorted(_steps(circuit, starts), key=lambda one: one.at_us)),
        starts=starts,
        main=next((act.on for act in opening_of(circuit)), ""),
    )


def _steps(circuit: Circuit, starts: Sequence[tuple[ScenarioAct, ...]]) -> Iterator[Step]:
    for act in opening_of(circuit):
        yield Step(0, act.do, act.on, act.word)
    yield Step(_SECOND, phase="rest")
    at = 2 * _SECOND
    others = [start[-1] for start in starts if start]
    is_timed = any(item.type in {"timer", "sdtimer", "plc"} for item in circuit.netlist.devices)
    for number, start in enumerate(starts, start=1):
        at = yield from _started(start, at, number, is_timed=is_timed)
        if number == 1 and len(others) > 1 and others[1].do == "push":
            yield from _pushed(others[1], at, "other_1")
            at += 2 * _SECOND
        at = yield from _stopped(circuit, start, at, number)


def _pushed(act: ScenarioAct, at: int, phase: str) -> Iterator[Step]:
    yield Step(at, "press", act.on)
    yield Step(at + 250_000, phase=f"{phase}_held")
    yield Step(at + 300_000, "release", act.on)
    yield Step(at + 1_200_000, phase=phase)


def _started(
    start: Sequence[ScenarioAct], at: int, number: int, *, is_timed: bool
) -> Generator[Step, None, int]:
    """Do a start's acts in their own time; the last is looked at while it is held and after.

    What runs is watched until it has come up and every timer has had its time; the second start
    of a circuit without timers has nothing to show by then that the first has not.
    """
    first = start[0].at_us if start else 0
    end = at
    for place, act in enumerate(start):
        end = at + act.at_us - first
        is_push = act.do == "push"
        yield Step(end, "press" if is_push else act.do, act.on, "" if is_push else act.word)
        if place == len(start) - 1:
            yield Step(end + 250_000, phase=f"held_{number}")
        if is_push:
            yield Step(end + 300_000, "release", act.on)
    yield Step(end + 1_200_000, phase=f"runs_{number}")
    if number > 1 and not is_timed:
        return end + 2 * _SECOND
    yield Step(end + 9 * _SECOND, phase=f"later_{number}")
    return end + 10 * _SECOND


def _stopped(
    circuit: Circuit, start: Sequence[ScenarioAct], at: int, number: int
) -> Generator[Step, None, int]:
    stops = stops_of(circuit)
    for button in stops:
        yield Step(at, "press", button)
    yield Step(at + 400_000, phase=f"stop_held_{number}")
    for button in stops:
        yield Step(at + 500_000, "release", button)
    for act in start:
        if act.do == "on":
            yield Step(at + 500_000, "off", act.on)
        elif act.do == "turn":
            word = _off_word(circuit.netlist.device(act.on))
            if word and word != act.word:
                yield Step(at + 500_000, "turn", act.on, word)
    yield Step(at + 1_500_000, phase=f"stopped_{number}")
    for item in circuit.netlist.devices:
        if item.type.startswith("motor"):
            yield Step(at + 1_600_000, "spin", item.id, "0")
    return at + 2 * _SECOND


def _off_word(item: Device) -> str:
    words = [word for word in item.parameters.get("pos", "OFF,ON").split(",") if word]
    if item.type not in TURNED or not words:
        return ""
    return next(
        (word for word in words if is_off_word(word)), item.parameters.get("init") or words[0]
    )


def play(
    circuit: Circuit,
    script: Script,
    fault: Fault | None = None,
    plant: Plant | None = None,
    sound: Seen | None = None,
) -> Seen:
    """Return what people would see of a circuit, with a fault or sound.

    Parameters
    ----------
    circuit : Circuit
        As drawn or as found.
    script : Script
        Of that circuit.
    fault : Fault, optional
        Of that circuit; None for the sound one.
    plant : Plant, optional
        The netlist compiled already, without joints.
    sound : Seen, optional
        The sound circuit played, by which more current than usual is known.
    """
    netlist = circuit.netlist if fault is None else fault.netlist
    joints = () if fault is None else fault.joints
    if plant is None or joints or netlist is not circuit.netlist:
        plant = compile_plant(netlist, joints=joints)
    run = Run(plant)
    puts = () if fault is None else fault.puts
    for verb, device, word in puts:
        _do(run, 0, verb, device, word)
    left = frozenset() if fault is None else fault.left
    looks: dict[str, Look] = {}
    chatters: set[str] = set()
    for step in script.steps:
        if run.never_settles or run.count > _MOST_EVENTS:
            break
        if step.verb:
            if step.device not in left:
                _do(run, step.at_us, step.verb, step.device, step.word)
            continue
        run.advance(step.at_us)
        run.look(step.at_us)
        words = run.words()
        chatters |= {device for device, word in words.items() if word == "chatter"}
        looks[step.phase] = Look(
            words=words,
            amps=_amps(run, script.main),
            turning=frozenset(
                part.id
                for part in plant.parts
                if isinstance(part, Motor) and abs(part.now(run.time)) > _TURNS
            ),
            volts=list(run.solution.volts) if step.phase in VOLTS_AT else None,
        )
        if step.phase == "later_1" and _is_more(looks["later_1"].amps, sound):
            # what a motor draws too much of shows in minutes: only then are they played
            kept = run.save()
            run.advance(step.at_us + _LONG_S * _SECOND)
            run.look(step.at_us + _LONG_S * _SECOND)
            looks["long"] = Look(words=run.words(), amps=_amps(run, script.main))
            run.load(kept)
    if run.never_settles or run.count > _MOST_EVENTS:
        chatters |= _flipping(run)
    return Seen(
        looks=looks,
        chatters=frozenset(chatters),
        silent=frozenset(device for verb, device, _ in puts if verb == "open_coil"),
        plant=plant,
    )


def _is_more(amps: tuple[float, ...], sound: Seen | None) -> bool:
    """Tell whether some line carries clearly more than in the sound circuit."""
    if sound is None or "later_1" not in sound.looks:
        return False
    usual = sound.looks["later_1"].amps
    return any(own > 1.15 * max(right, 0.5) for own, right in zip(amps, usual, strict=False))


def _flipping(run: Run) -> set[str]:
    coils = [event.device for event in run.events[-200:] if event.aspect == "coil"]
    return {device for device in coils if coils.count(device) > 3}


def _do(run: Run, at: int, verb: str, device: str, word: str) -> None:
    """Do one thing; a device that has it not, or is broken, does nothing."""
    try:
        run.act(Action(max(at, run.time), verb, device, word))
    except CoreError:
        return


def _amps(run: Run, main: str) -> tuple[float, ...]:
    part = run.plant.part_of.get(main)
    if part is None:
        return ()
    volts = run.solution.volts
    found = []
    for link in part.links:
        if link.kind != "pole" or link.name not in part.branches:
            continue
        branch = part.branches[link.name]
        start, end = run.plant.ends[branch]
        found.append(round(abs((volts[start] - volts[end]) * run.admittance[branch]), 2))
    return tuple(found)


def phase_kind(phase: str) -> str:
    """Return the kind of a phase: its name without the number of the start.

    Parameters
    ----------
    phase : str
        Of a script.
    """
    return phase.rstrip("0123456789").rstrip("_")
