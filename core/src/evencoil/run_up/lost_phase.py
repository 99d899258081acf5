"""One line lost, running and at standstill: what each coil carries and a meter shows.

A motor that runs goes on with the other two lines and props up the dead one, so a
reading of volts at the motor misleads. At standstill it only hums. An open
winding and a blown fuse differ in what the lines carry and the meter reads.

Units: [A], [V], [rpm], [s].
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Literal

from evencoil.base import Message
from evencoil.run_up.facts import Facts
from evencoil.run_up.starts import run_port, wiring_of
from evencoil.solver.motor import Fields, OverloadRelay, Port, rpm
from evencoil.winding import LINES

__all__ = ["LostPhase", "LostState", "lost_phase"]

Cause = Literal["sound", "fuse", "winding"]
_LOST = "L2"
_OPEN_COIL = frozenset({"B", "B1"})
_LONGEST_S = 3600.0


@dataclass(frozen=True, slots=True)
class LostState:
    """One state of the motor: what is open, and whether it runs.

    Attributes
    ----------
    line_a, coil_a : dict of str to float
        By line and by coil. [A]
    hottest_times : float
        Current of the coil that carries most, over its rated one.
    motor_v : dict of str to float
        Volts that a meter shows between the motor's ends of the lines. [V]
    trips_s : float or None
        When the relay trips if it stays so, from the heat of rated load or cold at
        standstill; None if it does not. [s]
    is_running : bool
        Whether the load is carried; a motor that ran and cannot carry it stalls.
    """

    cause: Cause
    is_running: bool
    speed_rpm: float
    line_a: dict[str, float]
    coil_a: dict[str, float]
    hottest: str
    hottest_times: float
    motor_v: dict[str, float]
    trips_s: float | None
    said: Message


@dataclass(frozen=True, slots=True)
class LostPhase:
    """All states, sound ones first."""

    states: tuple[LostState, ...]
    findings: tuple[Message, ...]


def _settled(facts: Facts, port: Port) -> float | None:
    """Return the speed at which torque and load meet, coming from rated speed; None if nowhere."""
    load, machine = facts.load, facts.machine

    def spare(speed: float) -> float:
        part = speed / machine.rated_rad_s
        friction = machine.friction_w / machine.rated_rad_s * (0.3 + 0.7 * part * part)
        return port.fields(speed).torque_nm - load.at(speed) - friction

    high = machine.synchronous_rad_s * 1.02
    low = high
    for _ in range(200):
        low -= machine.synchronous_rad_s * 0.005
        if low < 0.5 * machine.synchronous_rad_s:
            return None
        if spare(low) > 0:
            break
        high = low
    for _ in range(60):
        middle = (low + high) / 2
        if spare(middle) > 0:
            low = middle
        else:
            high = middle
    return low


def _amps(port: Port, fields: Fields, line: str) -> float:
    constant, by_gap = port.line_row(line)
    return abs(constant + sum(one * gap for one, gap in zip(by_gap, fields.gap, strict=True)))


def _trip(facts: Facts, amps: list[float], *, is_hot: bool) -> float | None:
    """Return when the relay trips on steady currents [s]; None if not within an hour."""
    relay = OverloadRelay(
        facts.amps_a, facts.relay_class, facts.relay_kind, [1.0 if is_hot else 0.0] * 3
    )
    relay.warm(amps, _LONGEST_S)
    if relay.level < 1:
        return None
    low, high = 0.0, _LONGEST_S
    for _ in range(50):
        middle = (low + high) / 2
        relay.heat = [1.0 if is_hot else 0.0] * 3
        relay.warm(amps, middle)
        low, high = (low, middle) if relay.level >= 1 else (middle, high)
    return high


def _state(facts: Facts, port: Port, cause: Cause, speed: float, *, was_running: bool) -> LostState:
    fields = port.fields(speed)
    coils = {
        coil.name: abs(amps)
        for coil, amps in zip(port.machine.coils, port.coil_amps(fields.gap), strict=True)
    }
    rated = 3**0.5 * facts.amps_a * facts.connection.factor / len(facts.machine.coils)
    hottest = max(coils, key=lambda name: coils[name])
    lines = {line: _amps(port, fields, line) for line in LINES}
    volts = port.volts(fields.gap)
    ends = {line: volts.get(line, volts.get(f"{line} open", 0j)) for line in LINES}
    pairs = (("L1", "L2"), ("L2", "L3"), ("L3", "L1"))
    motor_v = {f"{one}-{two}": abs(ends[one] - ends[two]) for one, two in pairs}
    is_running = speed > 0
    trips = _trip(facts, list(lines.values()), is_hot=is_running)
    name = (
        f"run_up.lost.{cause}.{'running' if is_running else 'stalls' if was_running else 'still'}"
    )
    said = Message(
        name,
        {
            "line": _LOST,
            "amps": f"{max(lines.values()):.0f}",
            "coil": hottest,
            "times": f"{coils[hottest] / rated:.1f}",
            "rpm": f"{rpm(speed):.0f}",
        },
    )
    return LostState(
        cause,
        is_running,
        rpm(speed),
        lines,
        coils,
        hottest,
        coils[hottest] / rated,
        motor_v,
        trips,
        said,
    )


def lost_phase(facts: Facts) -> LostPhase:
    """Return what happens when line L2 is lost, and when a phase of the winding opens.

    Parameters
    ----------
    facts : Facts
        Motor, load and relay.
    """
    states: list[LostState] = []
    sound = run_port(facts)
    speed = _settled(facts, sound)
    if speed is not None:
        states.append(_state(facts, sound, "sound", speed, was_running=True))
    fuse = run_port(facts, open_lines=(_LOST,))
    # the first coil of the middle phase is open; nothing else is
    rest = tuple(coil for coil in facts.machine.coils if coil.name not in _OPEN_COIL)
    broken = Port(replace(facts.machine, coils=rest), wiring_of(facts, facts.connection.joints))
    causes: tuple[tuple[Cause, Port], ...] = (("fuse", fuse), ("winding", broken))
    for cause, port in causes:
        running = _settled(facts, port)
        states.append(_state(facts, port, cause, running or 0.0, was_running=True))
        if running is not None:
            states.append(_state(facts, port, cause, 0.0, was_running=False))
    return LostPhase(tuple(states), (Message("run_up.lost.meter"), Message("run_up.lost.caution")))
