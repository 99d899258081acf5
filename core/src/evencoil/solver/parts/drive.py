"""A drive in time: bus, control inputs, ramps, volts by frequency, what makes it trip.

The frequency goes in whole steps; between two of them the network is that of one frequency.
Volts follow the frequency up to the base, with a boost below, and never pass what comes in.
Above its current limit a drive stops raising the frequency and lowers it; what comes back from
the machine while it slows down makes the ramp wait, or goes into a braking resistor.

Units: [Hz], [V], [A], times [us].
Source: V/f control of induction machines (textbook); times and limits are choices of the model.
"""

from __future__ import annotations

import cmath
from math import exp, log, pi, sqrt
from typing import Any, ClassVar

from evencoil.circuit import DRIVE_INPUTS, DRIVE_OUTPUT, Device
from evencoil.solver.parts.base import Part, number
from evencoil.solver.plant import Plant
from evencoil.solver.run import Run

__all__ = ["Drive", "self_cooling"]

_PAIRS = (("L1", "L2"), ("L2", "L3"), ("L3", "L1"))
_EPS = 1e-9
#: part of its rated power by which the draw from the lines follows the output
_DRAW_STEP = 0.02


def self_cooling(part: float) -> float:
    """Return how much of its rated current a motor with its own fan carries at a part of its speed.

    All of it from half speed up, and half of it at rest.

    Parameters
    ----------
    part : float
        Frequency or speed as a part of the rated one.
    """
    return min(1.0, 0.5 + abs(part))


class Drive(Part):
    """A drive with one motor, or several, behind it."""

    kept: ClassVar[tuple[str, ...]] = (
        "is_fed",
        "has_lost_line",
        "lost_at",
        "ready_at",
        "is_charged",
        "bus_v",
        "bus_since",
        "levels",
        "way",
        "must_release",
        "hz",
        "dial_hz",
        "next_step",
        "fault",
        "heat",
        "heat_since",
        "amps",
        "regen_since",
        "out_w",
        "draw",
        "begun_by",
        "changed_by",
        "had_motor",
    )
    verbs: ClassVar[tuple[str, ...]] = ("dial", "ext")

    def __init__(self, plant: Plant, device: Device, place: int) -> None:
        self.rated_v = number(device, "v", 480.0)
        self.base_hz = number(device, "base", 60.0)
        self.rated_a = number(device, "a") or number(device, "iset", 10.0)
        self.set_a = number(device, "iset", 10.0)
        given = device.parameters
        self.is_three_wire = given.get("wires") == "3"
        self.restarts = given.get("restart") == "1"
        self.needs_enable = given.get("enable", "1") != "0"
        self.has_resistor = given.get("brake") == "1"
        self.is_self_cooled = given.get("cooling", "self") == "self"
        self.coasts = given.get("stop") == "coast"
        self.set_hz = number(device, "hz", 60.0)
        super().__init__(plant, device, place)
        self.inward = [
            plant.branch(plant.node(device.id, one), plant.node(device.id, other))
            for one, other in _PAIRS
        ]
        #: the star point of its output, which nothing else reaches
        self.middle = plant.inner_node()
        self.nodes = [plant.node(device.id, end) for end in DRIVE_OUTPUT]
        self.sources = [plant.source(node, self.middle) for node in self.nodes]
        self.control = plant.dc_source(plant.node(device.id, "+"), plant.node(device.id, "-"))
        plant.earthed.append(plant.node(device.id, "-"))
        self.inputs = {
            name: plant.branch(plant.node(device.id, name), plant.node(device.id, "-"))
            for name in DRIVE_INPUTS
        }
        self.own = {*self.inward, *self.inputs.values()}
        plant.drives.append(self)

    def begin(self) -> None:
        """Off, its bus empty, at the speed that it is set to."""
        self.is_fed = self.has_lost_line = self.is_charged = False
        self.lost_at = self.ready_at = -1
        self.bus_v, self.bus_since = 0.0, 0
        self.levels = dict.fromkeys(DRIVE_INPUTS, False)
        #: 1 forward, -1 backward, 0 not asked to run
        self.way = 0
        self.must_release = False
        #: signed: backward is negative
        self.hz = 0.0
        self.dial_hz = self.set_hz
        self.next_step = -1
        self.fault = ""
        self.heat, self.heat_since, self.amps = 0.0, 0, 0.0
        self.regen_since = -1
        #: power that goes out [W], below nothing what comes back
        self.out_w = 0.0
        self.draw = 0.0
        self.begun_by: int | None = None
        self.changed_by: int | None = None
        self.had_motor = False

    def rest(self, run: Run) -> None:
        """Dead; its electronics read open on an ohmmeter."""
        super().rest(run)
        known = self.plant.constants
        for branch in self.inputs.values():
            run.switch(branch, complex(1 / known["drive_input_ohm"]), 0.0)
        run.feed_dc(self.control, 0.0, known["drive_control_v"])
        self._put_out(run)
        self._put_in(run)

    # its lines and its bus

    def _line_volts(self, run: Run) -> list[float]:
        return [self.volts_across(run, one, other) for one, other in _PAIRS]

    def bus_now(self, time: int) -> float:
        """Return the volts of the bus: without lines it runs down by its label."""
        if self.is_fed:
            return self.bus_v
        safe, full = self.plant.constants["drive_safe_v"], sqrt(2) * self.rated_v
        wait = max(number(self.device, "wait", 5.0) * 60, 1.0)
        tau = wait / log(max(full / safe, 1.01))
        return self.bus_v * exp(-(time - self.bus_since) / 1e6 / tau)

    def is_bus_live(self, time: int) -> bool:
        """Tell whether the volts of the bus can hurt."""
        return self.bus_now(time) >= self.plant.constants["drive_safe_v"]

    def _see_lines(self, run: Run) -> None:
        known = self.plant.constants
        volts = self._line_volts(run)
        good = [one >= known["drive_fed_part"] * self.rated_v for one in volts]
        if any(good):
            self.lost_at = -1
            if not self.is_fed:
                self._changed(run.tell(self, "supply", "on"), is_start=True)
                self.is_fed, self.is_charged = True, False
                self.ready_at = run.time + int(known["drive_ready_us"])
                self.must_release = not self.restarts
            self.bus_v = sqrt(2) * max(volts)
            if all(good) == self.has_lost_line:
                self.has_lost_line = not all(good)
                run.tell(self, "line", "lost" if self.has_lost_line else "back")
            if self.has_lost_line and self.hz:
                self._trip(run, "line_lost")
        elif self.is_fed and self.lost_at < 0:
            # it rides through what is shorter
            self.lost_at = run.time + int(known["drive_loses_us"])

    def _lose(self, run: Run) -> None:
        self.bus_v, self.bus_since = self.bus_now(run.time), run.time
        self.is_fed, self.lost_at, self.ready_at = False, -1, -1
        self._changed(run.tell(self, "supply", "off"), is_start=False)
        self.has_lost_line = False
        self.fault = ""
        # without power what three-wire control held is forgotten
        self.way = 0
        self._off(run)

    # what it is asked

    def _see_inputs(self, run: Run) -> None:
        known = self.plant.constants
        rose = set()
        for name in DRIVE_INPUTS:
            volts = self.volts_across(run, name, "-")
            was = self.levels[name]
            is_on = volts >= known["drive_input_v" if not was else "drive_output_off_v"]
            if is_on != was:
                self.levels = {**self.levels, name: is_on}
                self._changed(run.tell(self, name, "1" if is_on else "0"), is_start=is_on)
                if is_on:
                    rose.add(name)
        if "RST" in rose and self.fault:
            self.fault = ""
            self.must_release = True
            run.tell(self, "fault", "reset")
        self._ask(rose)

    def _ask(self, rose: set[str]) -> None:
        """Find which way it is asked to run."""
        on = self.levels
        if self.is_three_wire:
            for name, way in (("FWD", 1), ("REV", -1)):
                if name in rose and on["HLD"] and self._may_run():
                    self.way = way
            if not on["HLD"]:
                self.way = 0
            self.must_release = False
        else:
            wanted = int(on["FWD"]) - int(on["REV"])
            if self._is_ready() and not on["FWD"] and not on["REV"]:
                self.must_release = False
            self.way = 0 if self.must_release else wanted
        if not self._may_run():
            if self.is_three_wire:
                self.way = 0
            elif self.way and self.is_fed and not self.fault and self._is_ready():
                # permission was taken away: it waits for a new start
                self.must_release = not self.restarts

    def _is_ready(self) -> bool:
        return self.is_fed and self.is_charged

    def _may_run(self) -> bool:
        is_allowed = not self.needs_enable or self.levels["ENA"]
        return self._is_ready() and not self.fault and is_allowed

    # its output

    def _aim(self) -> float:
        """Return the frequency that it goes to, signed; it passes nothing on the way around."""
        if not self._may_run() or (self.must_release and not self.is_three_wire):
            return 0.0
        return self.way * self.dial_hz

    def _see_aim(self, run: Run) -> None:
        if self.hz and not self._may_run():
            self._off(run)
            return
        aim = self._aim()
        if self.coasts and self.hz and not aim:
            self._off(run)
        elif abs(aim - self.hz) < _EPS:
            self.next_step = -1
        elif self.next_step < 0:
            self.next_step = run.time + self._lasts(aim)

    def _lasts(self, aim: float) -> int:
        """Return how long a step takes [us]."""
        is_up = abs(aim) > abs(self.hz) and aim * self.hz >= 0
        ramp = number(self.device, "up" if is_up else "down", 5.0)
        step = self.plant.constants["drive_step_hz"]
        grid = self.plant.constants["grid_us"]
        return max(int(grid), round(ramp * step / self.base_hz * 1e6 / grid) * int(grid))

    def _step(self, run: Run) -> None:
        known = self.plant.constants
        self.next_step = -1
        aim, step = self._aim(), known["drive_step_hz"]
        if abs(aim - self.hz) < _EPS:
            return
        is_up = abs(aim) > abs(self.hz) and aim * self.hz >= 0
        most = self.rated_a * number(self.device, "limit", 150.0) / 100
        if is_up and self.hz and self.amps > most:
            # at its limit it lowers the frequency until the machine comes after
            if abs(self.hz) > step:
                self._to(run, self.hz - step * (1 if self.hz > 0 else -1))
            self.next_step = run.time + self._lasts(aim)
            return
        # down it waits: for the machine's current, and for what no resistor takes
        is_too_fast = self.amps > most or (not self.has_resistor and self._gives_back())
        if not is_up and is_too_fast:
            self.next_step = run.time + self._lasts(aim)
            return
        toward = step if aim > self.hz else -step
        to = aim if abs(aim - self.hz) <= step else self.hz + toward
        if self.hz and to * self.hz < 0:
            to = 0.0
        self._to(run, to)

    def _gives_back(self) -> bool:
        least = self.plant.constants["drive_regen_part"] * sqrt(3) * self.rated_v * self.rated_a
        return self.out_w < -least

    def _to(self, run: Run, hz: float) -> None:
        if bool(hz) != bool(self.hz):
            run.cause = self.begun_by if hz else self.changed_by
            number = run.tell(self, "output", "on" if hz else "off")
            # what the motor does now it does by this, not by a hand that let go meanwhile
            run.last_power = (number, run.time)
        self.hz = hz
        self._put_out(run)
        if hz and hz == self._aim():
            run.cause = self.begun_by
            run.tell(self, "output", "at speed")
        # the machine is at the new frequency before anybody looks at its current
        for motor in self.plant.fed:
            motor.see_frequency(run)

    def _off(self, run: Run) -> None:
        self.next_step = -1
        self.regen_since = -1
        if self.hz:
            self._warm(run)
            self._to(run, 0.0)

    @property
    def is_stopping(self) -> bool:
        """Tell whether it brings what it feeds to rest."""
        return bool(self.hz) and not self._aim()

    @property
    def volts_part(self) -> float:
        """Return the part of its volts at which a motor has its full flux, by its settings."""
        part = abs(self.hz) / self.base_hz
        boost = number(self.device, "boost", 2.0) / 100
        return part + boost * max(0.0, 1 - part)

    def volts_out(self) -> float:
        """Return the volts between lines that it gives out: never above what comes in [V]."""
        if not self.hz:
            return 0.0
        return min(self.rated_v * min(self.volts_part, 1.0), self.bus_v / sqrt(2))

    def _put_out(self, run: Run) -> None:
        volts = self.volts_out()
        own = complex(1 / self.plant.constants["drive_output_ohm"]) if volts else 0j
        turn = -1 if self.hz < 0 else 1
        for place, source in enumerate(self.sources):
            phase = cmath.exp(-2j * pi / 3 * place * turn)
            run.feed(source, own, volts / sqrt(3) * phase if volts else 0j)

    def _put_in(self, run: Run) -> None:
        for branch in self.inward:
            run.switch(branch, complex(self.draw), 0.0)

    def _out_amps(self, run: Run) -> list[complex]:
        """Return the current of each leg, outward [A]."""
        solved, found = run.solution.volts, []
        for node, source in zip(self.nodes, self.sources, strict=True):
            own, volts = run.feeds[source]
            found.append((volts + solved[self.middle] - solved[node]) * own)
        return found

    def _see_output(self, run: Run) -> None:
        if run.solution_is_old:
            return  # these are the volts before something changed at this instant
        known = self.plant.constants
        reached = self._has_motor(run)
        if not self.hz:
            others = max(
                abs(run.solution.volts[one] - run.solution.volts[other])
                for one, other in zip(self.nodes, (*self.nodes[1:], self.nodes[0]), strict=True)
            )
            if others > known["drive_back_part"] * self.rated_v and self.fault != "backfed":
                self._trip(run, "backfed")
            self.had_motor, self.amps, self.out_w = reached, 0.0, 0.0
            self._see_draw(run)
            return
        if self.had_motor and not reached:
            run.tell(self, "output", "switched")
        self.had_motor = reached
        self._warm(run)
        flows = self._out_amps(run)
        self.amps = max(abs(one) for one in flows)
        solved = run.solution.volts
        self.out_w = sum(
            ((solved[node] - solved[self.middle]) * flow.conjugate()).real
            for node, flow in zip(self.nodes, flows, strict=True)
        )
        if self.amps > known["drive_trip_times"] * self.rated_a:
            self._trip(run, "overcurrent")
            return
        is_back = self._gives_back() and not self.has_resistor
        if is_back and self.regen_since < 0:
            self.regen_since = run.time
        elif not is_back:
            self.regen_since = -1
        self._see_draw(run)

    def _see_draw(self, run: Run) -> None:
        """Take from the lines what goes out, in coarse steps."""
        known = self.plant.constants
        volts = max(self._line_volts(run))
        if not self.is_fed or not volts:
            wanted = 0.0
        else:
            wanted = (max(self.out_w, 0.0) + known["drive_own_w"]) / 3 / volts**2
        least = _DRAW_STEP * sqrt(3) * self.rated_a / 3 / self.rated_v
        if bool(wanted) != bool(self.draw) or abs(wanted - self.draw) > least:
            self.draw = wanted
            self._put_in(run)

    def _has_motor(self, run: Run) -> bool:
        """Tell whether its output reaches a winding."""
        found = self.reached(run)
        return any(node in found for pair in self.plant.motor_coils.values() for node in pair)

    def reached(self, run: Run) -> frozenset[int]:
        """Return every node that its output reaches by what conducts, windings left out."""
        return self._spread(run, has_windings=False)

    def touched(self, run: Run) -> frozenset[int]:
        """Return every node that its output reaches, also through windings."""
        return self._spread(run, has_windings=True)

    def _spread(self, run: Run, *, has_windings: bool) -> frozenset[int]:
        memo, key = run.solution.memo, -1 - 2 * self.place - has_windings
        found = memo.get(key)
        if isinstance(found, frozenset):
            return found
        beside: dict[int, list[int]] = {}
        for branch, (one, other) in enumerate(self.plant.ends):
            is_way = run.admittance[branch] and branch not in self.own
            if is_way and (has_windings or branch not in self.plant.motor_coils):
                beside.setdefault(one, []).append(other)
                beside.setdefault(other, []).append(one)
        seen, ahead = set(self.nodes), list(self.nodes)
        while ahead:
            for node in beside.get(ahead.pop(), ()):
                if node not in seen:
                    seen.add(node)
                    ahead.append(node)
        known = memo[key] = frozenset(seen)
        return known

    # its overload

    def _allowed_a(self) -> float:
        part = abs(self.hz) / self.base_hz
        return self.set_a * (self_cooling(part) if self.is_self_cooled else 1.0)

    def _load(self) -> float:
        return (self.amps / self._allowed_a()) ** 2 if self.hz else 0.0

    def heat_now(self, time: int) -> float:
        """Return the heat of its overload; it trips at 1.15 squared."""
        spent = (time - self.heat_since) / 1e6
        aim = self._load()
        return aim + (self.heat - aim) * exp(-spent / self.plant.constants["drive_tau_s"])

    def heat_percent(self, time: int) -> float:
        """Return the heat of its overload in percent of where it trips."""
        return self.heat_now(time) / self.plant.constants["drive_heat_trip"] * 100

    def _warm(self, run: Run) -> None:
        self.heat, self.heat_since = self.heat_now(run.time), run.time

    def _hot_at(self) -> int:
        known = self.plant.constants
        aim, trip = self._load(), known["drive_heat_trip"]
        if aim <= trip or not self.hz:
            return -1
        if self.heat >= trip:
            return self.heat_since
        spent = known["drive_tau_s"] * log((aim - self.heat) / (aim - trip))
        grid = known["grid_us"]
        return self.heat_since + int((spent * 1e6 // grid + 1) * grid)

    # in time

    def _trip(self, run: Run, why: str) -> None:
        if self.fault:
            return
        self.fault = why
        run.cause = self.changed_by if run.cause is None else run.cause
        self.changed_by = run.tell(self, "fault", why)
        if not self.is_three_wire:
            self.must_release = True
        self.way = 0
        self._off(run)
        self._put_relay(run)

    def _put_relay(self, run: Run) -> None:
        is_in = self.is_fed and not self.fault
        for link in self.links:
            if link.name in self.branches and self.put(
                run, link, is_closed=is_in if link.kind == "no" else not is_in
            ):
                run.tell(self, link.name, "closed" if self.is_closed(run, link.name) else "open")

    def _changed(self, event: int, *, is_start: bool) -> None:
        self.changed_by = event
        if is_start:
            self.begun_by = event

    def observe(self, run: Run) -> None:
        """See lines, inputs and output; decide what follows."""
        known = self.plant.constants
        self._see_lines(run)
        control = 1.0 if self.is_fed else 0.0
        run.feed_dc(self.control, control, known["drive_control_v"])
        self._see_inputs(run)
        self._see_aim(run)
        self._see_output(run)
        self._put_relay(run)

    def due(self) -> int | None:
        """Return the next step, the end of charging, of a gap in its supply, or of its patience."""
        times = [self.lost_at, self.next_step, self._hot_at()]
        if self.regen_since >= 0 and self.next_step < 0:
            times.append(self.regen_since + int(self.plant.constants["drive_regen_us"]))
        if self.is_fed and not self.is_charged:
            times.append(self.ready_at)
        return min((time for time in times if time >= 0), default=None)

    def fire(self, run: Run) -> None:
        """Do what is due."""
        now = run.time
        run.cause = self.begun_by
        if 0 <= self.lost_at <= now:
            self._lose(run)
            self._put_relay(run)
            run.solution_is_old = True
            return
        if self.is_fed and not self.is_charged and self.ready_at <= now:
            self.is_charged = True
            run.tell(self, "bus", "charged")
            self._ask(set())
            self._see_aim(run)
            run.solution_is_old = True
        hot = self._hot_at()
        if 0 <= hot <= now:
            self._warm(run)
            run.cause = self.begun_by
            self._trip(run, "overload")
        if 0 <= self.next_step <= now:
            self._step(run)
            run.solution_is_old = True
        waited = int(self.plant.constants["drive_regen_us"])
        if self.regen_since >= 0 and self.next_step < 0 and self.regen_since + waited <= now:
            self._trip(run, "overvoltage")

    def act(self, run: Run, verb: str, word: str) -> bool:
        """Dial a speed [Hz], or let an outside fault come."""
        if verb == "dial":
            self.dial_hz = round(min(120.0, max(0.0, float(word))), 1)
            run.solution_is_old = True
            return True
        if verb == "ext":
            self._trip(run, "external")
            return True
        return False

    def word(self, run: Run) -> str:
        """Return ``off``, ``charging``, ``ready``, ``run`` or ``fault``."""
        del run
        if self.fault:
            return "fault"
        if not self.is_fed:
            return "off"
        if self.hz:
            return "run"
        return "ready" if self._is_ready() else "charging"

    def tells(self, run: Run) -> dict[str, str]:
        """Return frequency, volts out, bus, amps, fault."""
        return {
            "hz": f"{self.hz:g}",
            "out": f"{self.volts_out():.0f}",
            "bus": f"{self.bus_now(run.time):.0f}",
            "amps": f"{self.amps:.1f}",
            "fault": self.fault,
        }

    def phase(self) -> tuple[Any, ...]:
        """Return what tells two of its states apart: where it goes, not how long it takes."""
        return (
            self.is_fed,
            self.is_charged,
            self.has_lost_line,
            tuple(self.levels.values()),
            self.way,
            self.must_release,
            self.hz,
            self.dial_hz,
            self.fault,
            self.next_step >= 0,
        )
