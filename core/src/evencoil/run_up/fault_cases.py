"""A motor with one thing wrong, as the network that it then is.

Each fault is the same motor on the same network with one thing changed; how large it is
taken is written at each constant.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from math import sqrt
from typing import Literal, get_args

from evencoil.run_up.facts import Facts
from evencoil.run_up.single import SingleStart
from evencoil.run_up.starts import wiring_of
from evencoil.solver.motor import Element, Load, Machine, MachineCoil, Port, Wiring, series_ohm
from evencoil.winding import LINES

__all__ = ["CAUSES", "Cause", "FaultCase", "case_of", "causes_of", "loose_ohm"]

Cause = Literal[
    "sound",
    "fuse",
    "loose",
    "winding",
    "reversed",
    "turns",
    "bars",
    "exchanged",
    "unbalance",
    "low",
    "ground",
    "switch_stuck",
    "start_open",
    "capacitor_weak",
    "overload",
    "jam",
]
CAUSES: tuple[Cause, ...] = get_args(Cause)

_LOST = "L2"
#: what can go wrong only in three phases, and only with a start winding
_THREE = {"fuse", "loose", "winding", "reversed", "exchanged", "unbalance", "bars", "ground"}
_START = {"switch_stuck", "start_open", "capacitor_weak"}
#: a ground fault halfway along a coil, through an arc [ohm]
_ARC_OHM = 0.05
#: a loose joint, of the motor's rated impedance per phase
_LOOSE = 0.05
#: a capacitor with half of what is stamped
_WEAK = 0.5
#: what is taken for each fault whose size has to be said
_LOW, _ONE_LOW, _MORE_LOAD, _SHORTED, _BARS = 0.90, 0.95, 1.25, 0.10, 1.5


@dataclass(frozen=True, slots=True)
class FaultCase:
    """A motor with one thing wrong: its load, and its network from some speed on.

    ``stages`` begin at standstill, each with the speed from which it stands. [rad/s]
    """

    load: Load
    stages: tuple[tuple[float, Port], ...]

    def at(self, speed_rad_s: float) -> Port:
        """Return the network as start switch or rotor resistor stand at a speed."""
        return [port for begins, port in self.stages if begins <= max(speed_rad_s, 0.0)][-1]


def _wiring(facts: Facts, lost: tuple[str, ...] = ()) -> Wiring:
    return wiring_of(facts, facts.connection.joints, open_lines=lost)


def _with_coils(facts: Facts, change: Callable[[MachineCoil], list[MachineCoil]]) -> Machine:
    """Return the machine with the first coil of its middle phase changed, one that is fed."""
    speed = facts.connection.speed
    named = next(
        coil.name
        for coil in facts.winding.coils
        if coil.phase == "B" and coil.field in {"one", "both", speed}
    )
    coils: list[MachineCoil] = []
    for coil in facts.machine.coils:
        coils += change(coil) if coil.name == named else [coil]
    return replace(facts.machine, coils=tuple(coils))


def _shorted(coil: MachineCoil) -> list[MachineCoil]:
    """Return a coil with a part of its turns as a ring of their own."""
    rest = 1 - _SHORTED
    ring = f"{coil.name} ring"
    return [
        replace(
            coil,
            own_ohm=coil.own_ohm * rest,
            weights=tuple(weight * rest for weight in coil.weights),
        ),
        MachineCoil(
            ring, ring, ring, coil.own_ohm * _SHORTED, tuple(w * _SHORTED for w in coil.weights)
        ),
    ]


def _halved(coil: MachineCoil) -> list[MachineCoil]:
    """Return a coil as two halves with a point between them that can be reached."""
    half = replace(
        coil, own_ohm=coil.own_ohm / 2, weights=tuple(weight / 2 for weight in coil.weights)
    )
    return [
        replace(half, name=f"{coil.name} first half", end="halfway"),
        replace(half, name=f"{coil.name} second half", start="halfway"),
    ]


def loose_ohm(facts: Facts) -> float:
    """Return what a loose joint is taken as [ohm].

    Parameters
    ----------
    facts : Facts
        The motor, by whose rated impedance it goes.
    """
    return _LOOSE * facts.line_v / sqrt(3) / facts.amps_a


def _loosened(facts: Facts, wiring: Wiring) -> Wiring:
    """Return a network with a bad joint in one line."""
    joined = tuple(
        tuple(f"behind {name}" if name == _LOST else name for name in joint)
        for joint in wiring.joined
    )
    bad = Element(_LOST, f"behind {_LOST}", complex(loose_ohm(facts)))
    return replace(wiring, joined=joined, elements=(*wiring.elements, bad))


def _scaled(wiring: Wiring, volts: Mapping[str, float]) -> Wiring:
    """Return a network with the volts of some lines changed."""
    return replace(
        wiring,
        sources=tuple(
            (line, open_v * volts.get(line, 1.0), z) for line, open_v, z in wiring.sources
        ),
    )


def case_of(facts: Facts, cause: Cause) -> FaultCase:
    """Return the motor with one thing wrong.

    Parameters
    ----------
    facts : Facts
        The sound motor.
    cause : str
        What is wrong; ``sound`` nothing.
    """
    load, wiring = facts.load, _wired(facts, cause)
    if cause == "overload":
        load = replace(load, torque_nm=load.torque_nm * _MORE_LOAD)
    if facts.single is not None:
        return _single_case(facts, facts.single, cause, load, wiring)
    machine = _inside(facts, cause)
    rotor = facts.rotor
    if rotor is None:
        return FaultCase(load, ((0.0, Port(machine, wiring)),))
    stages = []
    for times, begins in zip(rotor.times, rotor.from_rad_s, strict=True):
        gaps = tuple(replace(gap, ri=gap.ri * times) for gap in machine.gaps)
        stages.append((begins, Port(replace(machine, gaps=gaps), wiring)))
    return FaultCase(load, tuple(stages))


def _inside(facts: Facts, cause: Cause) -> Machine:
    """Return the machine with what is wrong inside it."""
    machine = facts.machine
    if cause == "winding":
        return _with_coils(facts, lambda _coil: [])
    if cause == "reversed":
        return _with_coils(facts, lambda coil: [replace(coil, start=coil.end, end=coil.start)])
    if cause == "turns":
        return _with_coils(facts, _shorted)
    if cause == "ground":
        return _with_coils(facts, _halved)
    if cause == "bars":
        weak = (replace(gap, ri=gap.ri * _BARS, ro=gap.ro * _BARS) for gap in machine.gaps)
        return replace(machine, gaps=tuple(weak))
    return machine


def _wired(facts: Facts, cause: Cause) -> Wiring:
    """Return the network with what is wrong outside the motor, or on the way to ground."""
    wiring = _wiring(facts, (_LOST,) if cause == "fuse" else ())
    if cause == "exchanged":
        swap = {"L1": "L2", "L2": "L1"}
        joined = (tuple(swap.get(name, name) for name in joint) for joint in wiring.joined)
        return replace(wiring, joined=tuple(joined))
    if cause == "loose":
        return _loosened(facts, wiring)
    if cause == "unbalance":
        return _scaled(wiring, {_LOST: _ONE_LOW})
    if cause == "low":
        return _scaled(wiring, dict.fromkeys(LINES, _LOW))
    if cause == "ground":
        return replace(wiring, elements=(*wiring.elements, Element("halfway", "", _ARC_OHM)))
    return wiring


def _single_case(
    facts: Facts, start: SingleStart, cause: Cause, load: Load, wiring: Wiring
) -> FaultCase:
    """Return a single-phase motor with one thing wrong in its start circuit, or outside it."""
    running, starting, opens = facts.machine, start.machine, start.opens_rad_s
    if cause == "switch_stuck":
        running, opens = starting, None
    elif cause == "start_open":
        starting = start.with_start(starting, None)
        if opens is None:
            running = starting
    elif cause == "capacitor_weak":
        run_f = None if start.run_f is None else start.run_f * _WEAK
        start_f = None if start.start_f is None else start.start_f * _WEAK
        starting = start.with_start(starting, series_ohm(start_f, run_f, starting.hz))
        if run_f is not None:
            running = start.with_start(running, series_ohm(None, run_f, running.hz))
    run = (opens or 0.0, Port(running, wiring))
    return FaultCase(load, (run,) if opens is None else ((0.0, Port(starting, wiring)), run))


def causes_of(facts: Facts) -> tuple[Cause, ...]:
    """Return what can go wrong with a kind of motor, on its supply.

    Parameters
    ----------
    facts : Facts
        The motor.
    """
    if facts.single is not None:
        gone = _THREE | ({"turns"} if facts.single else set())
        if facts.single.opens_rad_s is None:
            gone = gone | {"switch_stuck"}
        if facts.single.start_f is None and facts.single.run_f is None:
            gone = gone | {"capacitor_weak"}
    else:
        gone = set(_START) if facts.is_grounded else _START | {"ground"}
    return tuple(cause for cause in CAUSES if cause not in gone)
