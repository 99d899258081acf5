"""Motors of the constant set ``catalogue``: direction, speed and current in outline.

The winding is solved as coils; their volts give the forward and the backward
field of each pole number (rotating-field theory), these the motor's word. Speed
follows fixed rates; the winding draws six times its current below 80 % speed.
`calculated_motor` takes this part's place where a nameplate exists.

Units: speed as a part of full speed, volts as a part of rated volts.
"""

from __future__ import annotations

import cmath
from functools import cache
from math import ceil, cos, pi, radians, sin, sqrt
from typing import ClassVar

from evencoil.circuit import Device, coils_of, winding_of_type
from evencoil.solver.behavior import Converter
from evencoil.solver.parts.base import Part, number
from evencoil.solver.plant import Plant
from evencoil.solver.run import Run
from evencoil.winding import Coil

__all__ = ["MARKS", "Fields", "Motor", "motors_of"]

_ROOT3 = sqrt(3)
#: rated coil volts as a part of line volts: (low speed, high or only speed)
_COIL_PART = {
    "3-wye": (0.0, 1 / _ROOT3),
    "3-delta": (0.0, 1.0),
    "6": (0.0, 1.0),
    "9-wye": (0.0, 0.5 / _ROOT3),
    "9-delta": (0.0, 0.5),
    "12": (0.0, 0.5 / _ROOT3),
    "part-winding": (0.0, 1 / _ROOT3),
    "2-speed-ct": (0.5, 1 / _ROOT3),
    "2-speed-vt": (0.5 / _ROOT3, 1 / _ROOT3),
    "2-speed-cp": (1 / _ROOT3, 0.5),
    "2-speed-2-winding": (1 / _ROOT3, 1 / _ROOT3),
    "1-phase": (0.0, 1.0),
    "1-phase-reversible": (0.0, 1.0),
    "1-phase-dual": (0.0, 0.5),
    "1-phase-dual-fixed": (0.0, 0.5),
}
_LEVELS = (1.0, 0.95, 0.8, 0.5, 0.4, 0.1, 0.05)
MARKS = (*_LEVELS, 0.0, *(-level for level in reversed(_LEVELS)))


class Fields:
    """Revolving fields in one state of the network, in parts of the rated one."""

    __slots__ = (
        "angle_deg",
        "backward",
        "forward",
        "is_both",
        "is_dc",
        "is_fed",
        "is_single",
        "speed",
    )

    def __init__(self) -> None:
        self.forward = 0.0
        self.backward = 0.0
        self.angle_deg = 0.0
        self.speed = 1.0
        self.is_dc = False
        self.is_fed = False
        #: fed for two pole numbers at once: the torques work against each other
        self.is_both = False
        #: one line of three carries nothing
        self.is_single = False


@cache
def _turns_of(coil: Coil) -> tuple[tuple[str, complex, complex], ...]:
    """Return the fields that a coil is in, each with its turns at its axis and their mirror."""
    found = []
    for which in ("low", "high"):
        if {"one": "high", "both": which}.get(coil.field, coil.field) != which:
            continue
        axis = coil.axis_deg if which == "high" else coil.low_axis_deg
        turn = cmath.exp(1j * radians(axis or 0)) * coil.turns
        found.append((which, turn, turn.conjugate()))
    return tuple(found)


class Motor(Part):
    """A motor with any number of leads."""

    kept: ClassVar[tuple[str, ...]] = (
        "speed",
        "since",
        "rate",
        "target",
        "is_jammed",
        "load_times",
        "temperature_c",
        "times",
        "mode",
        "had_gap",
        "gap_from",
        "begun_by",
        "cut",
        "is_lifted",
        "hz_part",
        "full_part",
    )
    verbs: ClassVar[tuple[str, ...]] = (
        "jam",
        "free",
        "load",
        "temp",
        "spin",
        "cut",
        "mend",
        "lift",
        "land",
    )

    def __init__(self, plant: Plant, device: Device, place: int) -> None:
        super().__init__(plant, device, place)
        winding = winding_of_type(device.type, device.parameters)
        self.kind = winding.kind
        line_v = number(device, "v") or _supply_volts(plant)
        amps = number(device, "fla", 10.0)
        coils = coils_of(device.type, device.parameters)
        inner: dict[str, int] = {}
        self.coils: list[tuple[Coil, tuple[int, int], int]] = []
        low_part, high_part = _COIL_PART[self.kind]
        for coil in coils:
            start, end = (
                plant.node(device.id, end)
                if end in device.terminals
                else inner.setdefault(end, -1 if end in inner else plant.inner_node())
                for end in (coil.start, coil.end)
            )
            ends = (start, end)
            self.coils.append((coil, ends, plant.branch(*ends)))
        plant.fed.append(self)
        plant.motor_coils |= {branch: ends for _, ends, branch in self.coils}
        self.low_v = number(device, "coil_low_v", low_part * line_v)
        self.high_v = number(device, "coil_v", high_part * line_v)
        count = 3 if self.kind == "2-speed-2-winding" else len(coils)
        power = (line_v if self.kind.startswith("1-phase") else _ROOT3 * line_v) * amps
        # impedance of one coil at rated volts and amps, the same share for each
        self.coil_ohm = self.high_v**2 / (power / count) if power else 1.0
        self.dc_ohm = number(device, "r", 1.0)

    def begin(self) -> None:
        """At rest, cold, loaded as rated."""
        known = self.plant.constants
        self.speed = 0.0
        self.since = 0
        self.rate = 0.0
        self.target = 0.0
        self.is_jammed = False
        self.load_times = 1.0
        self.temperature_c = known["motor_cold_c"]
        self.times = known["locked_times"]
        self.mode = "off"
        self.had_gap = False
        self.gap_from = -1
        self.begun_by: int | None = None
        #: names of coils that are open
        self.cut: list[str] = []
        #: its leads are off at the box
        self.is_lifted = False
        #: frequency of what feeds it as a part of the rated one
        self.hz_part = 1.0
        #: volts that leave it its full flux then, as a part of the rated ones
        self.full_part = 1.0

    def rest(self, run: Run) -> None:
        """Windings as at standstill."""
        self._put(run)

    def _put(self, run: Run) -> None:
        known = self.plant.constants
        is_locked = self.times >= known["locked_times"]
        angle = radians(known["locked_angle_deg" if is_locked else "running_angle_deg"])
        # at a lower frequency the same current takes fewer volts
        own = self.times / (self.coil_ohm * self.full_part) * complex(cos(angle), -sin(angle))
        for coil, _, branch in self.coils:
            if self.is_lifted or coil.name in self.cut:
                run.switch(branch, 0j, 0.0)
            else:
                run.switch(branch, own, 1 / self.dc_ohm)

    def now(self, time: int) -> float:
        """Return the speed at a time, signed."""
        speed = self.speed + self.rate * (time - self.since) / 1e6
        low, high = sorted((self.speed, self.target))
        return min(max(speed, low), high) if self.rate else self.speed

    def side(self, time: int, level: float) -> int:
        """Return 1 above a speed, -1 below its negative, else 0, on the way it goes."""
        speed = self.now(time)
        eps = 1e-9
        if speed > level + eps or (abs(speed - level) <= eps and self.rate > 0):
            return 1
        if speed < -level - eps or (abs(speed + level) <= eps and self.rate < 0):
            return -1
        return 0

    def drive_of(self, run: Run) -> Converter | None:
        """Return what feeds it at a frequency of its own; None where the lines do, or nothing."""
        for drive in self.plant.drives:
            if drive.hz and not self.is_lifted:
                reached = drive.reached(run)
                if any(node in reached for _, ends, _ in self.coils for node in ends):
                    return drive
        return None

    def _parts_by(self, drive: Converter) -> tuple[float, float]:
        """Return frequency, and volts at full flux, as parts of the rated ones.

        It is rated for the base frequency that the drive is set for.
        """
        return abs(drive.hz) / drive.base_hz, drive.volts_part

    def see_frequency(self, run: Run) -> None:
        """Take the frequency of what feeds it."""
        drive = self.drive_of(run)
        parts = (1.0, 1.0) if drive is None else self._parts_by(drive)
        if parts != (self.hz_part, self.full_part):
            self.hz_part, self.full_part = parts
            slip = abs(self.hz_part - abs(self.now(run.time)))
            if drive is not None and not self.is_jammed:
                # it comes after as long as the ramp does not leave it behind
                known = self.plant.constants
                is_near = slip <= 1 - known["locked_below"] + 1e-9
                self.times = self.load_times if is_near else known["locked_times"]
            self._put(run)
            run.solution_is_old = True

    def fields(self, run: Run) -> Fields:
        """Return the fields in the present state of the network."""
        memo = run.solution.memo
        found = memo.get(self.place)
        if not isinstance(found, Fields):
            found = memo[self.place] = self._fields(run)
        return found

    def _fields(self, run: Run) -> Fields:
        known = self.plant.constants
        solved = run.solution
        found = Fields()
        sums: dict[str, list[complex]] = {"low": [0j, 0j], "high": [0j, 0j]}
        full = {"low": 0.0, "high": 0.0}
        steady = 0.0
        for coil, (start, end), branch in self.coils:
            if self.is_lifted or coil.name in self.cut:
                continue
            volts = solved.volts[start] - solved.volts[end]
            if solved.steady is not None:
                amps = (solved.steady[start] - solved.steady[end]) * run.conductance[branch]
                steady = max(steady, abs(amps))
            for which, turn, back in _turns_of(coil):
                sums[which][0] += turn * volts
                sums[which][1] += back * volts
                full[which] += coil.turns * (self.high_v if which == "high" else self.low_v)
        parts = {
            which: [abs(value) / full[which] if full[which] else 0.0 for value in pair]
            for which, pair in sums.items()
        }
        # the flux is what the volts leave at this frequency
        parts = {which: [value / self.full_part for value in pair] for which, pair in parts.items()}
        which = "low" if max(parts["low"]) > max(parts["high"]) else "high"
        found.is_both = self.kind.startswith("2-speed") and (
            min(max(parts["low"]), max(parts["high"])) >= known["both_fields_from"]
        )
        found.forward, found.backward = parts[which]
        if self.kind == "part-winding":
            found.forward, found.backward = (2 * part / (1 + part) for part in parts[which])
        stronger = sums[which][0] if found.forward >= found.backward else sums[which][1].conjugate()
        found.angle_deg = cmath.phase(stronger) * 180 / pi if stronger else 0.0
        found.speed = 0.5 if which == "low" else 1.0
        found.is_fed = max(found.forward, found.backward) >= known["no_torque_below"]
        found.is_dc = steady > 0.05 * number(self.device, "fla", 10.0)
        return found

    def _mode(self, fields: Fields, speed: float) -> tuple[str, float]:
        """Return what drives it and the speed it goes to."""
        known = self.plant.constants
        if not fields.is_fed or fields.is_both:
            word = "brake" if fields.is_dc else "none"
            return ("both" if fields.is_fed else word), 0.0
        if self.kind == "1-phase":
            return ("forward", 1.0) if fields.forward >= 0.6 else ("single", 0.0)
        most = max(fields.forward, fields.backward)
        if abs(fields.forward - fields.backward) < known["same_sequence_part"] * most:
            if abs(speed) >= 0.5 * fields.speed:
                top = known["single_phase_speed"] * fields.speed
                return "single", top if speed > 0 else -top
            return "single", 0.0
        if fields.forward > fields.backward:
            return "forward", fields.speed
        return "backward", -fields.speed

    def observe(self, run: Run) -> None:
        """See the fields; take a new course if they ask for one."""
        known = self.plant.constants
        self.see_frequency(run)
        fields = self.fields(run)
        speed = self.now(run.time)
        mode, target = self._mode(fields, speed)
        target *= self.hz_part
        rate = 0.0
        strength = max(fields.forward, fields.backward)
        if self.is_jammed:
            target = 0.0
        elif mode in {"forward", "backward"}:
            rate = strength**2 / known["run_up_s"]
        elif mode == "single":
            rate = known["single_phase_rate"] if target else 1 / known["coast_s"]
        elif mode == "brake":
            rate = 1 / known["brake_s"]
        else:
            rate = 1 / known["coast_s"]
        if target < speed:
            rate = -rate
        if abs(target - speed) < 1e-12:
            rate = 0.0
        self._drive(run, mode)
        if rate != self.rate or target != self.target:
            self.speed, self.since, self.rate, self.target = speed, run.time, rate, target
        self._see_current(run, mode, speed, fields.speed)

    def _drive(self, run: Run, mode: str) -> None:
        """Say what drives it from now on, where that changed."""
        if mode == self.mode:
            return
        if run.last_power is not None and run.last_power[1] == run.time:
            # a pole that changed at this instant, not the auxiliary beside it
            run.cause = run.last_power[0]
        self.begun_by = run.tell(self, "drive", mode)
        self._gap(run, is_fed=mode in {"forward", "backward", "single"})
        self.mode = mode

    def _gap(self, run: Run, *, is_fed: bool) -> None:
        if not is_fed and self.gap_from < 0 and self.mode in {"forward", "backward", "single"}:
            self.gap_from = run.time
        if is_fed and self.gap_from >= 0:
            self.had_gap = True
            self.gap_from = -1

    def _see_current(self, run: Run, mode: str, speed: float, full: float) -> None:
        known = self.plant.constants
        times = known["locked_times"]
        if mode == "single" and abs(speed) >= 0.5 * full:
            times = known["single_phase_times"] * self.load_times
        elif mode in {"none", "brake"}:
            if abs(speed) >= known["locked_below"]:
                times = self.load_times
        else:
            aim = (full if mode == "forward" else -full) * self.hz_part
            is_running = abs(aim - speed) <= (1 - known["locked_below"]) * full + 1e-9
            if is_running and not self.is_jammed:
                times = self.load_times
        if times != self.times:
            self.times = times
            self._put(run)

    def due(self) -> int | None:
        """Return when the speed passes a mark or arrives."""
        if not self.rate:
            return None
        goes_up = self.rate > 0
        ahead = [
            mark
            for mark in (*MARKS, self.target)
            if (mark > self.speed + 1e-9 if goes_up else mark < self.speed - 1e-9)
            and (mark <= self.target + 1e-12 if goes_up else mark >= self.target - 1e-12)
        ]
        if not ahead:
            return None
        mark = min(ahead) if goes_up else max(ahead)
        grid = self.plant.constants["grid_us"]
        time = self.since + (mark - self.speed) / self.rate * 1e6
        return int(ceil(time / grid - 1e-9) * grid)

    def fire(self, run: Run) -> None:
        """Arrive at the mark, exactly."""
        goes_up = self.rate > 0
        speed = self.now(run.time)
        near = min((*MARKS, self.target), key=lambda mark: abs(mark - speed))
        self.speed = near if abs(near - speed) < 1e-3 else speed
        self.since = run.time
        is_there = self.speed >= self.target if goes_up else self.speed <= self.target
        if is_there:
            self.speed, self.rate = self.target, 0.0
            if self.speed == 0:
                run.cause = self.begun_by
                run.tell(self, "shaft", "standing")
        run.solution_is_old = True

    def act(self, run: Run, verb: str, word: str) -> bool:
        """Jam, free, load (times rated), temp (°C), spin (part of full speed), cut or mend a coil.

        ``lift`` takes its leads off at the box, ``land`` puts them back.
        """
        if verb == "jam":
            self.is_jammed = True
            self.speed, self.since, self.rate, self.target = 0.0, run.time, 0.0, 0.0
        elif verb == "free":
            self.is_jammed = False
        elif verb == "load":
            self.load_times = min(20.0, max(0.05, float(word)))
        elif verb == "temp":
            self.temperature_c = float(word)
        elif verb == "spin":
            self.speed, self.since, self.rate = float(word), run.time, 0.0
            self.target = self.speed
        elif verb in {"cut", "mend", "lift", "land"}:
            return self._part(run, verb, word)
        else:
            return False
        return True

    def _part(self, run: Run, verb: str, word: str) -> bool:
        """Open or mend a coil, or take every lead off and put them back."""
        if verb in {"cut", "mend"}:
            if word not in {coil.name for coil, _, _ in self.coils}:
                return False
            rest = [name for name in self.cut if name != word]
            self.cut = [*rest, word] if verb == "cut" else rest
        else:
            self.is_lifted = verb == "lift"
        self._put(run)
        return True

    def word(self, run: Run) -> str:
        """Return off, coast, fwd, rev, plug, hum, sp, both, brake or hold."""
        fields = self.fields(run)
        speed = self.now(run.time)
        mode, _ = self._mode(fields, speed)
        is_turning = abs(speed) >= self.plant.constants["standing_below"]
        if mode == "none":
            return "coast" if is_turning else "off"
        if mode == "brake":
            return "brake" if is_turning else "hold"
        if mode == "both":
            return "both"
        if mode == "single":
            return "sp" if abs(speed) >= 0.5 * fields.speed else "hum"
        # a drive takes it through rest at a frequency near nothing
        least = 0.001 if self.hz_part == 1.0 else 0.1
        if mode == "forward":
            return "plug" if speed < -least else "fwd"
        return "plug" if speed > least else "rev"

    def tells(self, run: Run) -> dict[str, str]:
        """Return winding volts and speed in percent, angle, field in use, gap, current."""
        fields = self.fields(run)
        return {
            "v": f"{max(fields.forward, fields.backward) * self.full_part * 100:.0f}",
            "w": f"{self.now(run.time) * 100:.0f}",
            "ang": f"{fields.angle_deg:.0f}",
            "winding": "low" if fields.speed < 1 else "high",
            "gap": "1" if self.had_gap else "0",
            "temp": f"{self.temperature_c:.0f}",
        }

    def line_amps(self, run: Run) -> float:
        """Return the largest coil current [A]."""
        return max(self.amps_through(run, branch) for _, _, branch in self.coils)


def _supply_volts(plant: Plant) -> float:
    for device in plant.netlist.devices:
        if device.type == "supply":
            return number(device, "v", 480.0)
    return 480.0


def motors_of(run: Run) -> list[Motor]:
    """Return the motors of a run."""
    return [part for part in run.plant.parts if isinstance(part, Motor)]
