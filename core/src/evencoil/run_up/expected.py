"""What a meter should read on this motor, and how far from it is still no surprise.

The spreads are judgment: an equivalent circuit from a nameplate is no measurement.

Units: [A], [ohm], [s].
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from evencoil.run_up.facts import Facts
from evencoil.run_up.faults import FaultSheet
from evencoil.run_up.sheet import RunUpSheet
from evencoil.run_up.starts import run_port, wiring_of
from evencoil.solver.motor import Port

__all__ = ["Expected", "expected_readings"]

ReadingId = Literal["unloaded_a", "loaded_a", "locked_a", "start_s", "line_ohm"]
#: judgment: percent either way
_SPREAD: dict[ReadingId, int] = {
    "unloaded_a": 30,
    "loaded_a": 10,
    "locked_a": 15,
    "start_s": 25,
    "line_ohm": 40,
}
#: starts at full voltage, of which the time is told
_PLAIN = {"full_voltage", "speed_high", "single_phase"}
#: where load or inertia were not entered
_GUESSED = 60


@dataclass(frozen=True, slots=True)
class Expected:
    """One reading to come: value, unit, and percent either way."""

    id: ReadingId
    value: float
    unit: str
    percent: int


def expected_readings(facts: Facts, sheet: RunUpSheet, faults: FaultSheet) -> tuple[Expected, ...]:
    """Return what to expect of a clamp meter, an ohmmeter and a watch.

    Parameters
    ----------
    facts : Facts
        The motor.
    sheet : RunUpSheet
        Its starts; the time is that of full voltage.
    faults : FaultSheet
        Whose first state is the sound motor at its load.
    """
    port = run_port(facts)
    idle = port.fields(facts.machine.synchronous_rad_s * 0.9995)
    found = [
        _reading("unloaded_a", max(port.line_amps(idle.gap).values()), "A"),
        _reading("locked_a", _locked_a(facts), "A"),
    ]
    if facts.fitted is not None:
        # between two lines lie two phases of the circuit in wye
        found.append(_reading("line_ohm", 2 * facts.fitted.circuit.r1, "ohm"))
    assumed = {step.id for step in facts.trail if step.kind == "assumed"}
    sound = next((one for one in faults.states if one.cause == "sound"), None)
    if sound is not None:
        amps = max(sound.line_a.values())
        percent = _GUESSED if "load_torque_percent" in assumed else _SPREAD["loaded_a"]
        found.insert(1, Expected("loaded_a", amps, "A", percent))
    full = next((one for one in sheet.methods if one.method in _PLAIN), None)
    if full is not None and full.run.at_speed_s is not None:
        percent = _GUESSED if "load_inertia_lb_ft2" in assumed else _SPREAD["start_s"]
        found.append(Expected("start_s", full.run.at_speed_s, "s", percent))
    return tuple(found)


def _locked_a(facts: Facts) -> float:
    """Return the current of the first instant at full voltage: the start circuit is closed [A]."""
    start = facts.single
    machine = facts.machine if start is None else start.machine
    port = Port(machine, wiring_of(facts, facts.connection.joints))
    return max(port.line_amps(port.fields(0.0).gap).values())


def _reading(reading: ReadingId, value: float, unit: str) -> Expected:
    return Expected(reading, value, unit, _SPREAD[reading])
