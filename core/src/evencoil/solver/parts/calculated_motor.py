"""The job's own motor in a rehearsal: currents, torque, speed and heat from its winding.

Its coils are part of the network, coupled through the air gap; after each change of a
contact the network is reduced to what the fields see, and the speed then goes on by what
torque, load and inertia say. Between two events speed is a straight line, heat an
exponential, so that a run cut anywhere gives the same trace. Fluxes are those of the
steady state at each speed: what a re-closing surge comes to is told by the run-up.

Units: speed as a part of the rated one, [s], [A], [K], [N m].
Source: as `evencoil.solver.motor`.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from math import ceil, exp, floor, hypot, log
from typing import ClassVar

import numpy as np

from evencoil.circuit import Device, winding_of_type
from evencoil.solver.behavior import Converter
from evencoil.solver.motor import (
    CLOSES_AGAIN,
    WINDING_TAU_S,
    FieldPort,
    Machine,
    MotorOnLoad,
    both_ways,
    rpm,
)
from evencoil.solver.parts.drive import self_cooling
from evencoil.solver.parts.motors import MARKS, Fields, Motor
from evencoil.solver.plant import Plant
from evencoil.solver.run import Run
from evencoil.winding import Coil

__all__ = ["CalculatedMotor", "is_its_motor"]

#: a step changes the speed by this part, and is neither shorter nor longer than these [s]
_PART, _SHORTEST_S, _LONGEST_S = 0.02, 0.002, 0.25
#: less change of speed than this in the longest step is none
_STILL = 2e-4
_IMPLICIT, _LEAST = 0.55, 0.2
_ASIDE = 0.05
#: heat is looked at again after each such rise or fall [K]
_HEAT_STEP_K = 5.0
_KEPT = 512
#: part of rated speed from which a machine counts as turning backward
_BACKWARD = 0.02
#: part of the turns of a coil that a short between turns takes
_SHORTED = 0.10


def is_its_motor(device: Device, motor: MotorOnLoad) -> bool:
    """Tell whether a device is the motor that was calculated: the same coils by name.

    Parameters
    ----------
    device : Device
        Of the circuit.
    motor : MotorOnLoad
        Of the job.
    """
    if device.id != "motor" or device.type != "motor":
        return False
    names = [coil.name for coil in winding_of_type(device.type, device.parameters).coils]
    coils = motor.machine.coils
    if names != [coil.name for coil in coils[: len(names)]]:
        return False
    # a start winding without leads of its own lies across the main one
    return all({coil.start, coil.end} <= {*device.terminals} for coil in coils[len(names) :])


@dataclass(frozen=True, slots=True)
class Shaft:
    """Speed [rpm], torque [N m], most current in a conductor to the box [A], hottest coil [C]."""

    speed_rpm: float
    torque_nm: float
    lead_a: float
    hottest_c: float


class _State:
    """The network in one state of its contacts, seen by the fields of the motor."""

    __slots__ = ("amps0", "amps_by_gap", "port", "volts0", "volts_by_gap")

    def __init__(
        self,
        machine: Machine,
        rows: Sequence[dict[int, complex]],
        right: Sequence[complex],
        ends: Sequence[tuple[int, int]],
        own: Sequence[complex],
        rings: Sequence[tuple[complex, np.ndarray]],
    ) -> None:
        size = len(rows)
        matrix = np.zeros((size, size), dtype=complex)
        for place, row in enumerate(rows):
            matrix[place, list(row)] = list(row.values())
        both = both_ways(machine)
        admittance = np.array(own, dtype=complex)
        incidence = np.zeros((len(ends), size))
        for place, (start, end) in enumerate(ends):
            incidence[place, start] += 1
            incidence[place, end] -= 1
        sides = np.column_stack(
            [np.array(right, dtype=complex), incidence.T @ (admittance[:, None] * both)]
        )
        solved = np.linalg.solve(matrix, sides)
        self.volts0, self.volts_by_gap = solved[:, 0], solved[:, 1:]
        self.amps0 = admittance * (incidence @ self.volts0)
        self.amps_by_gap = admittance[:, None] * (incidence @ self.volts_by_gap - both)
        back = -both.conj().T @ self.amps_by_gap
        for ohm, turns in rings:
            back = back + np.outer(turns.conj(), turns) / ohm
        self.port = FieldPort(machine, (both.conj().T @ self.amps0).tolist(), back)


class CalculatedMotor(Motor):
    """The motor of the job, from its nameplate."""

    kept: ClassVar[tuple[str, ...]] = (
        *Motor.kept,
        "due_at",
        "heat_due",
        "heat_since",
        "rise_k",
        "amps_a",
        "is_burnt",
        "was_backward",
        "is_switched",
        "is_stuck",
        "shorted",
        "reversed",
        "bars",
    )
    verbs: ClassVar[tuple[str, ...]] = (*Motor.verbs, "short", "reverse", "bars", "stick")

    def __init__(self, plant: Plant, device: Device, place: int, motor: MotorOnLoad) -> None:
        self.motor = motor
        self._states: dict[object, _State] = {}
        #: the last fields found: of which state of the contacts, at which speed
        self._last_gap: tuple[_State, float, np.ndarray] | None = None
        super().__init__(plant, device, place)
        for coil in motor.machine.coils[len(self.coils) :]:
            ends = (plant.node(device.id, coil.start), plant.node(device.id, coil.end))
            inside = Coil(coil.name, coil.start, coil.end, 90, 1.0)
            self.coils.append((inside, ends, plant.branch(*ends)))
        plant.machine = self
        plant.motor_coils |= {branch: ends for _, ends, branch in self.coils}
        plant.coil_branches = frozenset(branch for _, _, branch in self.coils)
        self._machines: dict[object, Machine] = {}

    def begin(self) -> None:
        """At rest, at the temperature of the air around."""
        super().begin()
        count = len(self.motor.machine.coils)
        self.due_at = self.heat_due = -1
        self.heat_since = 0
        self.rise_k = [0.0] * count
        self.amps_a = [0.0] * count
        self.temperature_c = self.motor.ambient_c
        self.is_burnt = self.was_backward = False
        #: the start switch is open, and stays as it is
        self.is_switched = self.is_stuck = False
        #: names of coils with turns shorted, or joined backward inside
        self.shorted: list[str] = []
        self.reversed: list[str] = []
        #: rotor resistance over the sound one
        self.bars = 1.0

    # the network

    def _put(self, run: Run) -> None:
        for (coil, _, branch), own in zip(self.coils, self._sound().coils, strict=True):
            if self.is_lifted or coil.name in self.cut:
                run.switch(branch, 0j, 0.0)
            else:
                rest = 1 - _SHORTED if coil.name in self.shorted else 1.0
                run.switch(branch, 1 / (own.own_ohm * rest), 1 / (own.own_ohm.real * rest))

    def _sound(self) -> Machine:
        """Return the machine as its start switch stands."""
        starting = self.motor.starting
        whole = starting if starting is not None and not self.is_switched else self.motor.machine
        return whole if self.hz_part == 1.0 else whole.at(self.hz_part)

    def _inside(self) -> tuple[object, ...]:
        """Return what decides the machine besides its contacts outside."""
        return (
            tuple(self.shorted),
            tuple(self.reversed),
            self.bars,
            self.is_switched,
            self.hz_part,
        )

    def _parts_by(self, drive: Converter) -> tuple[float, float]:
        """Return the frequency as a part of that on its nameplate, whatever a drive is set for."""
        part = abs(drive.hz) / self.motor.machine.hz
        return part, part

    def _machine(self) -> Machine:
        """Return the machine with what is wrong inside it."""
        key = self._inside()
        found = self._machines.get(key)
        if found is None:
            found = self._sound()
            if self.shorted or self.reversed or self.bars != 1.0:
                found = _spoiled(found, self.shorted, self.reversed, self.bars)
            self._machines[key] = found
        return found

    def _rings(self) -> list[tuple[complex, np.ndarray]]:
        """Return shorted turns: their impedance and what they add to the fields."""
        sound = self._sound()
        both = both_ways(sound)
        return [
            (coil.own_ohm * _SHORTED, both[place] * _SHORTED)
            for place, coil in enumerate(sound.coils)
            if coil.name in self.shorted
        ]

    def network_volts(self, run: Run) -> list[complex]:
        """Return the volts of every node with the air gap at the present speed [V].

        One state of the contacts is reduced once, and kept by what makes it.
        """
        key = (
            (tuple(run.admittance), tuple(run.feeds), run.grounded),
            self._inside(),
        )
        found = self._states.get(key)
        if found is None:
            rows, right = self.plant.equations(run.admittance, run.feeds, run.grounded)
            own = [run.admittance[branch] for _, _, branch in self.coils]
            ends = [pair for _, pair, _ in self.coils]
            found = _State(self._machine(), rows, right, ends, own, self._rings())
            if len(self._states) >= _KEPT:
                self._states.clear()
            self._states[key] = found
        self._state = found
        volts: list[complex] = (found.volts0 + found.volts_by_gap @ self._gap_v(run)).tolist()
        return volts

    def _gap_v(self, run: Run) -> np.ndarray:
        """Return the volts of each field at the present speed [V]."""
        speed = self.now(run.time)
        if self._last_gap is None or self._last_gap[:2] != (self._state, speed):
            fields = self._state.port.fields(self._rad_s(speed))
            self._last_gap = (self._state, speed, np.array(fields.gap))
        return self._last_gap[2]

    def _rad_s(self, speed: float) -> float:
        return speed * self.motor.machine.rated_rad_s

    def _direct_a(self, run: Run) -> list[float]:
        """Return the direct current of every coil [A]."""
        steady = run.solution.steady
        if steady is None:
            return [0.0] * len(self.coils)
        return [
            (steady[start] - steady[end]) * run.conductance[branch]
            for _, (start, end), branch in self.coils
        ]

    # in time

    def observe(self, run: Run) -> None:
        """See the fields; warm up, say what drives it, take a new course."""
        self.see_frequency(run)
        speed = self.now(run.time)
        self._warm(run)
        fields = self.fields(run)
        mode, _ = self._mode(fields, speed)
        self._drive(run, mode)
        self._see_switch(run, speed)
        if self.motor.load.is_harmed_backward and not self.was_backward and speed < -_BACKWARD:
            self.was_backward = True
            run.cause = self.begun_by
            run.tell(self, "shaft", "backward")
        self._course(run, speed)

    def _mode(self, fields: Fields, speed: float) -> tuple[str, float]:
        """Return what drives it, and which way: a lost line shows in the currents."""
        mode, aim = super()._mode(fields, speed)
        if fields.is_single and mode in {"forward", "backward"}:
            return "single", 1.0 if speed >= 0 else -1.0
        return mode, aim

    def _fields(self, run: Run) -> Fields:
        """Return the fields by the coils' volts; one line lost by their ampere-turns."""
        found = super()._fields(run)
        if not self.kind.startswith("1-phase"):
            turns = [abs(value) for value in self._state.port.turns_a(self._gap_v(run).tolist())]
            part = self.plant.constants["same_sequence_part"]
            pairs = [(turns[place], turns[place + 1]) for place in range(0, len(turns), 2)]
            one, other = max(pairs, key=max)
            found.is_single = found.is_fed and abs(one - other) < part * max(one, other)
        return found

    def _warm(self, run: Run) -> None:
        """Take the heat of the currents since last time; see those of now."""
        spent = (run.time - self.heat_since) / 1e6
        aims = self._aims()
        if spent > 0:
            stays = exp(-spent / WINDING_TAU_S)
            self.rise_k = [
                aim + (rise - aim) * stays for aim, rise in zip(aims, self.rise_k, strict=True)
            ]
            self.heat_since = run.time
            self.temperature_c = self.motor.ambient_c + max(self.rise_k)
        self.amps_a = self._coil_amps(run)
        self.heat_due = self._heat_due()
        if not self.is_burnt and max(self.rise_k) >= self.motor.limit_k:
            self.is_burnt = True
            run.cause = self.begun_by
            run.tell(self, "winding", "burnt")

    def _see_switch(self, run: Run, speed: float) -> None:
        """Let the start switch of a single-phase motor follow the speed, unless it sticks."""
        opens = self.motor.opens_rad_s
        if opens is None or self.is_stuck:
            return
        rad_s = abs(self._rad_s(speed))
        closes = CLOSES_AGAIN * self.motor.machine.synchronous_rad_s
        is_open = rad_s >= opens or (self.is_switched and rad_s > closes)
        if is_open != self.is_switched:
            self.is_switched = is_open
            run.cause = self.begun_by
            run.tell(self, "start switch", "open" if is_open else "closed")
            self._put(run)
            run.solution_is_old = True

    def _aims(self) -> list[float]:
        return [
            self.motor.rated_rise_k * (amps / rated) ** 2 / self._cooled()
            for amps, rated in zip(self.amps_a, self.motor.coil_rated_a, strict=True)
        ]

    def _cooled(self) -> float:
        """Return how well its own fan cools it: behind a drive it may run slowly for long."""
        if self.hz_part == 1.0:
            return 1.0
        return self_cooling(self.now(self.heat_since)) ** 2

    def _coil_amps(self, run: Run) -> list[float]:
        found = self._state.amps0 + self._state.amps_by_gap @ self._gap_v(run)
        direct = self._direct_a(run)
        return [
            hypot(abs(complex(amps)), steady) for amps, steady in zip(found, direct, strict=True)
        ]

    def _heat_due(self) -> int:
        """Return when a coil passes the next mark of heat [us]; -1 if none does."""
        soonest = None
        for aim, rise in zip(self._aims(), self.rise_k, strict=True):
            if aim > rise:
                level = floor(rise / _HEAT_STEP_K + 1e-6) * _HEAT_STEP_K + _HEAT_STEP_K
                if not self.is_burnt and rise < self.motor.limit_k:
                    level = min(level, self.motor.limit_k)
            else:
                level = ceil(rise / _HEAT_STEP_K - 1e-6) * _HEAT_STEP_K - _HEAT_STEP_K
            if (aim - level) * (rise - level) >= 0:
                continue
            spent = WINDING_TAU_S * log((rise - aim) / (level - aim))
            soonest = spent if soonest is None else min(soonest, spent)
        if soonest is None:
            return -1
        return self._on_grid(self.heat_since + max(soonest, _SHORTEST_S) * 1e6)

    def _on_grid(self, time: float) -> int:
        grid = self.plant.constants["grid_us"]
        return int(ceil(time / grid - 1e-9) * grid)

    def _pull(self, rad_s: float, direct: Sequence[float]) -> float:
        """Return the torque at a speed before friction, direct current's brake included."""
        machine = self._machine()
        torque = self._state.port.fields(rad_s).torque_nm
        return torque + machine.braking_nm(direct, rad_s) if any(direct) else torque

    def _course(self, run: Run, speed: float) -> None:
        """Find how the speed goes on, and until when."""
        self.speed, self.since = speed, run.time
        self.rate, self.target, self.due_at = 0.0, speed, -1
        if self.is_jammed:
            self.speed = self.target = 0.0
            return
        machine, load = self.motor.machine, self.motor.load
        direct = self._direct_a(run)
        inertia = machine.inertia_kg_m2 + load.inertia_kg_m2
        here = self._rad_s(speed)

        def gain(rad_s: float) -> float:
            against = load.at(rad_s) * self.load_times + machine.friction_nm(rad_s)
            return (self._pull(rad_s, direct) - against) / inertia

        if speed == 0 and load.holds(self._pull(0.0, direct) / max(self.load_times, 1e-6)):
            return
        rate = gain(here)
        slope = (gain(here + _ASIDE) - rate) / _ASIDE
        full = machine.rated_rad_s
        lasting = min(max(_PART * full / max(abs(rate), 1e-9), _SHORTEST_S), _LONGEST_S)
        change = lasting * rate / max(1 - _IMPLICIT * lasting * slope, _LEAST)
        if lasting == _LONGEST_S and abs(change) < _STILL * full:
            if abs(speed) < _STILL:
                self.speed = self.target = 0.0
            return
        aim = speed + change / full
        aim, lasting = self._stopped_at(speed, aim, lasting, direct)
        self.target = aim
        self.rate = (aim - speed) / lasting
        self.due_at = self._on_grid(run.time + lasting * 1e6)

    def _stopped_at(
        self, speed: float, aim: float, lasting: float, direct: Sequence[float]
    ) -> tuple[float, float]:
        """Return a step cut short at rest, at a backstop, or at the next mark of speed."""
        load = self.motor.load
        crosses = speed * aim < 0
        if crosses and load.holds(self._pull(0.0, direct) / max(self.load_times, 1e-6)):
            return 0.0, max(lasting * speed / (speed - aim), 5e-5)
        if load.has_backstop and aim < 0 <= speed:
            return 0.0, lasting
        low, high = min(speed, aim), max(speed, aim)
        marks = [mark for mark in MARKS if low + 1e-9 < mark < high - 1e-9]
        if not marks:
            return aim, lasting
        mark = min(marks, key=lambda one: abs(one - speed))
        return mark, max(lasting * (mark - speed) / (aim - speed), 5e-5)

    def due(self) -> int | None:
        """Return when speed or heat has to be looked at again [us]."""
        found = [time for time in (self.due_at, self.heat_due) if time >= 0]
        return min(found) if found else None

    def fire(self, run: Run) -> None:
        """Arrive at the end of a step."""
        speed = self.now(run.time)
        if 0 <= self.due_at <= run.time:
            speed = self.target
            self.due_at = -1
        was_turning = self.speed != 0 or self.rate != 0
        self.speed, self.since, self.rate, self.target = speed, run.time, 0.0, speed
        if was_turning and speed == 0 and self.mode == "none":
            run.cause = self.begun_by
            run.tell(self, "shaft", "standing")
        if 0 <= self.heat_due <= run.time:
            self.heat_due = -1
        run.solution_is_old = True

    # what is done to it

    def act(self, run: Run, verb: str, word: str) -> bool:
        """Do as `Motor`; ``short`` or ``reverse`` a coil, ``bars`` times the rotor's ohms.

        ``stick`` holds the start switch as it is, ``stick free`` lets it go.
        """
        if verb in {"short", "reverse"}:
            if word not in {coil.name for coil, _, _ in self.coils}:
                return False
            name = "shorted" if verb == "short" else "reversed"
            had: list[str] = getattr(self, name)
            setattr(
                self, name, [one for one in had if one != word] if word in had else [*had, word]
            )
            self._put(run)
            run.solution_is_old = True
            return True
        if verb == "stick":
            self.is_stuck = word != "free"
            run.solution_is_old = True
            return self.motor.opens_rad_s is not None
        if verb == "bars":
            self.bars = min(10.0, max(1.0, float(word)))
            run.solution_is_old = True
            return True
        if not super().act(run, verb, word):
            return False
        if verb == "temp":
            self._take_heat(run, float(word))
        if verb == "jam":
            self.due_at = -1
        run.solution_is_old = True
        return True

    def _take_heat(self, run: Run, temperature_c: float) -> None:
        self.heat_since = run.time
        self.rise_k = [temperature_c - self.motor.ambient_c] * len(self.rise_k)
        self.temperature_c = temperature_c
        self.heat_due = self._heat_due()

    # reading

    def line_amps(self, run: Run) -> float:
        """Return the largest coil current [A]."""
        return max(self._coil_amps(run))

    def lead_amps(self, run: Run) -> float:
        """Return the largest current of a conductor to the motor's box, alternating [A]."""
        coils = (self._state.amps0 + self._state.amps_by_gap @ self._gap_v(run)).tolist()
        found: dict[int, complex] = {}
        for (_, (start, end), _), amps in zip(self.coils, coils, strict=True):
            found[start] = found.get(start, 0j) + amps
            found[end] = found.get(end, 0j) - amps
        return max(abs(value) for value in found.values())

    def shaft(self, run: Run) -> Shaft:
        """Return what is read at shaft and box between two events too."""
        rad_s = self._rad_s(self.now(run.time))
        stays = exp(-(run.time - self.heat_since) / 1e6 / WINDING_TAU_S)
        rises = [
            aim + (rise - aim) * stays for aim, rise in zip(self._aims(), self.rise_k, strict=True)
        ]
        return Shaft(
            speed_rpm=rpm(rad_s),
            torque_nm=self._pull(rad_s, self._direct_a(run)),
            lead_a=self.lead_amps(run),
            hottest_c=self.motor.ambient_c + max(rises),
        )


def _spoiled(
    sound: Machine, shorted: Sequence[str], backward: Sequence[str], bars: float
) -> Machine:
    """Return a machine with coils short of turns or joined backward, and a weaker rotor."""
    coils = []
    for coil in sound.coils:
        part = (1 - _SHORTED if coil.name in shorted else 1.0) * (
            -1 if coil.name in backward else 1
        )
        coils.append(replace(coil, weights=tuple(weight * part for weight in coil.weights)))
    gaps = tuple(replace(gap, ri=gap.ri * bars, ro=gap.ro * bars) for gap in sound.gaps)
    return replace(sound, coils=tuple(coils), gaps=gaps)
