"""A motor run up in time: speed, currents, torque, heat, relay, supply.

Contact states follow each other by plan. Between switchings the field port gives
torque and currents at each speed; after each of them the rotor's fluxes are
followed until they have settled. Source: linearly implicit integration of the
motion equation; thermal images of relay and winding.

Units: [s], [rad/s], [N m], [A], [V], [K].
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from math import pi
from typing import Literal

from evencoil.solver.motor.flux import RotorFlux
from evencoil.solver.motor.heat import OverloadRelay, ShortCircuitDevice, WindingHeat
from evencoil.solver.motor.loads import Load
from evencoil.solver.motor.machine import Machine
from evencoil.solver.motor.port import Fields, Port, Row, row_value
from evencoil.winding import LINES

__all__ = ["Ending", "RunUp", "Sample", "Step", "rpm", "run_up"]

Ending = Literal[
    "running", "backward", "stalled", "tripped", "opened", "burnt", "ran_away", "unsettled"
]

_STEP_S, _SLOW_STEP_S, _LONGEST_S = 0.005, 0.05, 2.0
_FLUX_S, _FLUX_SOON_S, _FLUX_LATER_S = 0.06, 0.001, 0.0025
_IMPLICIT, _LEAST = 0.55, 0.2
#: a step changes the speed by no more than this part of the synchronous one
_MOST, _SMALL = 0.04, 0.004
#: steady: less than this part of synchronous speed a second
_STEADY = 2e-4
#: part of the way to a limit that one step may take
_APPROACH = 0.2
_KEPT, _APART_S = 1200, 0.0075
_MOST_STEPS = 60_000
#: fluxes are compared with their steady state once in so many steps
_LOOKS = 8
#: how long the last state must have stood before a run may count as over
_CALM_S = 2.0
#: parts of synchronous speed: of one that runs backward, of one that its load runs away with
_BACKWARD, _RUNS_AWAY = 0.5, 1.3


@dataclass(frozen=True, slots=True)
class Step:
    """A contact state from some time on.

    ``legs`` are the rows of the currents the overload relay sees. With ``from_rad_s`` it begins
    at that speed, not at a time: a start switch, a relay that watches the speed.
    """

    at_s: float
    name: str
    port: Port
    legs: tuple[Row, ...]
    from_rad_s: float | None = None


@dataclass(frozen=True, slots=True)
class Sample:
    """All that is followed, at one time.

    Attributes
    ----------
    line_a : tuple of float
        RMS. [A]
    relay : float
        1 trips.
    rise_k : tuple of float
        Of each coil above the air around. [K]
    supply_v : float
        Volts between the lines that sag most. [V]
    """

    time_s: float
    speed_rad_s: float
    torque_nm: float
    load_nm: float
    line_a: tuple[float, ...]
    coil_a: tuple[float, ...]
    relay: float
    rise_k: tuple[float, ...]
    supply_v: float


@dataclass(slots=True)
class RunUp:
    """A run from its first contact to its end.

    Attributes
    ----------
    ending : str
        ``running`` steady at speed, ``backward`` steady the other way, ``stalled`` steady below
        it, ``tripped`` by the relay, ``opened`` by fuse or breaker, ``burnt`` where the winding
        passed its limit, ``ran_away`` driven far above synchronous speed, ``unsettled`` at the
        time limit.
    least_supply_v : float or None
        Least volts between two lines at the supply, while it feeds. [V]
    peak_a : dict of str to float
        Largest RMS current of any line right after a step begins, by the step's name. [A]
    changed_at : dict of str to tuple
        Speed and line current just before each step after the first. [rad/s], [A]
    changed_s : dict of str to float
        When each of them began. [s]
    """

    ending: Ending
    samples: list[Sample]
    at_speed_s: float | None
    tripped_s: float | None
    burnt_s: float | None
    opened_s: float | None = None
    least_supply_v: float | None = None
    peak_a: dict[str, float] = field(default_factory=dict)
    changed_at: dict[str, tuple[float, float]] = field(default_factory=dict)
    changed_s: dict[str, float] = field(default_factory=dict)

    @property
    def last(self) -> Sample:
        """Return the state at the end."""
        return self.samples[-1]


class _Watched:
    """The rows of one contact state, made once."""

    def __init__(self, step: Step) -> None:
        port = step.port
        self.step = step
        self.lines = [port.line_row(line) for line in LINES]
        self.coils = [port.coil_row(place) for place in range(len(port.machine.coils))]
        self.volts = [port.volts_row(line) for line in LINES if line in port.sources]

    def line_a(self, gap: Sequence[complex]) -> tuple[float, ...]:
        return tuple(abs(row_value(row, gap)) for row in self.lines)

    def coil_a(self, gap: Sequence[complex]) -> tuple[float, ...]:
        return tuple(abs(row_value(row, gap)) for row in self.coils)

    def leg_a(self, gap: Sequence[complex]) -> tuple[float, ...]:
        return tuple(abs(row_value(row, gap)) for row in self.step.legs)

    def supply_v(self, gap: Sequence[complex]) -> float:
        found = [row_value(row, gap) for row in self.volts]
        pairs = [(one, two) for place, one in enumerate(found) for two in found[place + 1 :]]
        return min((abs(one - two) for one, two in pairs), default=0.0)


class _Runner:
    """One run; its state in one place."""

    def __init__(
        self,
        machine: Machine,
        load: Load,
        relay: OverloadRelay | None,
        winding: WindingHeat,
        limit_k: float,
        device: ShortCircuitDevice | None,
        full_rad_s: float | None,
    ) -> None:
        self.machine, self.load, self.device = machine, load, device
        self.relay, self.winding, self.limit_k = relay, winding, limit_k
        self.inertia = machine.inertia_kg_m2 + load.inertia_kg_m2
        #: from where a motor counts as up to speed: near its rated one
        rated = machine.rated_rad_s if full_rad_s is None else full_rad_s
        self.full_rad_s = rated - 0.02 * machine.synchronous_rad_s
        self.time = self.speed = self.flux_from = 0.0
        self.flux: RotorFlux | None = None
        self.found = RunUp("unsettled", [], None, None, None)
        self.every = 1
        self.wanted, self.soonest, self.is_steady = _STEP_S, _LONGEST_S, False

    def begin(self, step: Step, *, can_flux: bool) -> None:
        """Close the first contacts."""
        self.watched = _Watched(step)
        if can_flux:
            self.flux = RotorFlux(step.port)
        self.fields = self.fields_now()
        self.record(is_forced=True)
        self.found.peak_a[step.name] = max(self.watched.line_a(self.fields.gap))

    def change(self, step: Step, *, can_flux: bool) -> None:
        """Go over to another contact state with the fluxes of the one before."""
        most = max(self.watched.line_a(self.fields.gap))
        self.found.changed_at[step.name] = (self.speed, most)
        self.found.changed_s[step.name] = self.time
        self.machine = step.port.machine
        if can_flux:
            if self.flux is None:
                self.flux = RotorFlux(self.watched.step.port)
                self.flux.settle(self.speed)
            self.flux.take(step.port)
            self.flux_from = self.time
        self.watched = _Watched(step)
        self.fields = self.fields_now()
        self.wanted = _STEP_S

    def fields_now(self) -> Fields:
        """Return the fields at the present speed."""
        if self.flux is not None:
            return self.flux.fields()
        return self.watched.step.port.fields(self.speed)

    def advance(self, until_s: float, turn: int) -> float:
        """Go one step on, not past a time; return how long it was."""
        lasting = min(self.wanted, until_s - self.time, self.soonest)
        jams = self.load.jams_at_s
        if jams is not None and self.time < jams:
            lasting = min(lasting, max(jams - self.time, 1e-6))
        before = self.speed
        if self.flux is not None:
            is_soon = self.time - self.flux_from < _FLUX_S
            lasting = min(lasting, _FLUX_SOON_S if is_soon else _FLUX_LATER_S)
            lasting = self.move(self.fields.torque_nm, None, lasting)
            self.flux.step((before + self.speed) / 2, lasting)
            if turn % _LOOKS == 0 and self.flux.is_settled(self.speed):
                self.flux = None
        else:
            torque = _torque_of(self.watched.step.port)
            lasting = self.move(self.fields.torque_nm, torque, lasting)
        self.time += lasting
        self.fields = self.fields_now()
        self.warm(lasting)
        if self.time - self.watched.step.at_s < _FLUX_S:
            self.look()
        return lasting

    def warm(self, lasting: float) -> None:
        """Take the heat of the present currents over a time."""
        told = self.nearness()
        self.winding.warm(self.watched.coil_a(self.fields.gap), lasting)
        if self.relay is not None:
            self.relay.warm(self.watched.leg_a(self.fields.gap), lasting)
        if self.device is not None:
            self.device.warm(self.watched.line_a(self.fields.gap), lasting)
        self.soonest = _soonest(told, self.nearness(), lasting)

    def nearness(self) -> tuple[float, float, float]:
        """Return how near relay, winding, and fuse or breaker are to their limits; 1 is there."""
        relay = 0.0 if self.relay is None else self.relay.level
        device = 0.0 if self.device is None else self.device.level
        return relay, max(self.winding.rise_k) / self.limit_k, device

    def look(self) -> None:
        """Keep the most current and the least volts right after a switching."""
        name, found = self.watched.step.name, self.found
        most = max(self.watched.line_a(self.fields.gap))
        found.peak_a[name] = max(found.peak_a.get(name, 0.0), most)
        volts = self.watched.supply_v(self.fields.gap)
        if volts and volts < (found.least_supply_v or volts + 1):
            found.least_supply_v = volts

    def pace(self, before: float, lasting: float) -> None:
        """Choose the next step by how fast the speed changes; note the arrival at speed."""
        rate = abs(self.speed - before) / lasting
        synchronous = self.machine.synchronous_rad_s
        self.is_steady = self.flux is None and rate < _STEADY * synchronous
        if self.is_steady:
            self.wanted = min(self.wanted * 1.5, _LONGEST_S)
        else:
            # as long as the speed changes little in a step
            self.wanted = min(max(_SMALL * synchronous / max(rate, 1e-9), _STEP_S), _SLOW_STEP_S)
        if self.found.at_speed_s is None and self.speed >= self.full_rad_s:
            self.found.at_speed_s = self.time

    def is_over(self) -> bool:
        """Record; tell whether relay or winding ended the run."""
        relay, winding, device = self.nearness()
        if device >= 1:
            self.found.ending, self.found.opened_s = "opened", self.time
        elif relay >= 1:
            self.found.ending, self.found.tripped_s = "tripped", self.time
        elif winding >= 1:
            self.found.ending, self.found.burnt_s = "burnt", self.time
        elif self.speed > _RUNS_AWAY * self.machine.synchronous_rad_s:
            self.found.ending = "ran_away"
        is_over = self.found.ending != "unsettled"
        self.record(is_forced=is_over)
        return is_over

    def is_running_on(self) -> bool:
        """Tell whether it runs steadily at speed, with nothing that would end it later."""
        if not self.is_steady or self.speed < self.full_rad_s or self.wanted < _LONGEST_S:
            return False
        calm_from = max(self.watched.step.at_s, self.load.jams_at_s or 0.0)
        return self.time - calm_from >= _CALM_S and not self.is_ended_later()

    def is_ended_later(self) -> bool:
        """Tell whether winding, relay, fuse or breaker end it if currents stay as they are."""
        winding, lines = self.winding, self.watched.line_a(self.fields.gap)
        coils = zip(self.watched.coil_a(self.fields.gap), winding.rated_a, strict=True)
        hottest = max(winding.rated_rise_k * (amps / rated) ** 2 for amps, rated in coils)
        if hottest >= self.limit_k:
            return True
        if self.device is not None and self.device.will_open(lines):
            return True
        if self.relay is None:
            return False
        heat = [(amps / self.relay.set_a) ** 2 for amps in self.watched.leg_a(self.fields.gap)]
        kept = OverloadRelay(self.relay.set_a, self.relay.relay_class, self.relay.kind, heat)
        return kept.level >= 1

    def finished(self) -> RunUp:
        """Return the run, its end recorded and named."""
        self.record(is_forced=True)
        found = self.found
        if found.ending == "unsettled" and self.is_steady:
            if self.speed <= -_BACKWARD * self.machine.synchronous_rad_s:
                found.ending = "backward"
            else:
                found.ending = "running" if self.speed >= self.full_rad_s else "stalled"
        return found

    def pull(self, torque_nm: float, speed: float) -> float:
        """Return the acceleration at a speed [rad/s2]."""
        against = self.load.at(speed, self.time) + self.machine.friction_nm(speed)
        return (torque_nm - against) / self.inertia

    def move(self, here: float, torque: Callable[[float], float] | None, wanted_s: float) -> float:
        """Advance the speed; return the time it took, shorter where it changes fast.

        ``torque`` gives the torque at another speed; None where fluxes hold it as it is.
        """
        if self.speed == 0.0 and self.load.holds(here, self.time):
            return wanted_s
        now = self.pull(here, self.speed)
        aside = self.speed + 0.05
        slope = (self.pull(here if torque is None else torque(aside), aside) - now) / 0.05
        most = _MOST * self.machine.synchronous_rad_s
        lasting = wanted_s
        for _ in range(40):
            change = lasting * now / max(1 - _IMPLICIT * lasting * slope, _LEAST)
            if abs(change) <= most:
                break
            lasting *= max(most / abs(change), 0.1)
        before = self.speed
        self.speed += change
        if (self.load.has_backstop and self.speed < 0) or (
            before * self.speed < 0
            and self.load.holds(here if torque is None else torque(0.0), self.time)
        ):
            self.speed = 0.0
        return lasting

    def record(self, *, is_forced: bool = False) -> None:
        """Keep a sample, if the last one is not too near."""
        samples = self.found.samples
        if samples and not is_forced and self.time - samples[-1].time_s < _APART_S * self.every:
            return
        gap = self.fields.gap
        samples.append(
            Sample(
                time_s=self.time,
                speed_rad_s=self.speed,
                torque_nm=self.fields.torque_nm,
                load_nm=self.load.at(self.speed, self.time),
                line_a=self.watched.line_a(gap),
                coil_a=self.watched.coil_a(gap),
                relay=0.0 if self.relay is None else self.relay.level,
                rise_k=tuple(self.winding.rise_k),
                supply_v=self.watched.supply_v(gap),
            )
        )
        if len(samples) > _KEPT:
            samples[:] = [*samples[:-1][::2], samples[-1]]
            self.every *= 2


def run_up(
    machine: Machine,
    steps: Sequence[Step],
    load: Load,
    *,
    relay: OverloadRelay | None,
    winding: WindingHeat,
    limit_k: float,
    device: ShortCircuitDevice | None = None,
    full_rad_s: float | None = None,
    until_s: float = 60.0,
    follows_flux: bool = True,
) -> RunUp:
    """Run a motor from rest through planned contact states.

    Parameters
    ----------
    machine : Machine
        Of one pole number where fluxes are followed.
    steps : sequence of Step
        In the order of their times; the first at 0.
    load : Load
        The driven machine.
    relay : OverloadRelay or None
        Opens everything when it trips: the run ends.
    winding : WindingHeat
        With the rise it begins with.
    limit_k : float
        Rise at which insulation is past its class: the run ends. [K]
    device : ShortCircuitDevice or None
        Fuses or breaker ahead of it all; they end the run when one opens.
    full_rad_s : float or None
        Rated speed in the last state, where it is not the machine's. [rad/s]
    until_s : float
        Longest time calculated. [s]
    follows_flux : bool
        Follow the rotor's fluxes after each switching.

    Returns
    -------
    RunUp
        With bounded samples, whatever the time.
    """
    runner = _Runner(machine, load, relay, winding, limit_k, device, full_rad_s)
    # the fluxes of one cage: a rotor that changes, or two pole numbers, have others
    is_one = len(machine.gaps) == 1 and all(
        step.port.machine.gaps == machine.gaps for step in steps
    )
    can_flux = follows_flux and is_one
    runner.begin(steps[0], can_flux=can_flux)
    place = 0
    for turn in range(_MOST_STEPS):
        after, is_due = until_s, False
        if place + 1 < len(steps):
            from_rad_s = steps[place + 1].from_rad_s
            if from_rad_s is None:
                after = steps[place + 1].at_s
            else:
                is_due = runner.speed >= from_rad_s
        if is_due or runner.time >= after - 1e-9:
            if not is_due and after >= until_s:
                break
            if place + 1 == len(steps):
                break
            place += 1
            runner.change(steps[place], can_flux=can_flux)
            continue
        before = runner.speed
        lasting = runner.advance(after, turn)
        runner.pace(before, lasting)
        if runner.is_over():
            break
        is_last = place + 1 == len(steps) or steps[place + 1].from_rad_s is not None
        if is_last and runner.is_running_on():
            runner.found.ending = "running"
            break
    return runner.finished()


def _soonest(before: Sequence[float], after: Sequence[float], lasting_s: float) -> float:
    """Return the longest step that does not run past a limit of anything watched [s]."""
    found = _LONGEST_S
    for one, other in zip(before, after, strict=True):
        if other > one:
            found = min(found, _APPROACH * (1 - other) * lasting_s / (other - one))
    return max(found, _STEP_S)


def _torque_of(port: Port) -> Callable[[float], float]:
    return lambda speed: port.fields(speed).torque_nm


def rpm(speed_rad_s: float) -> float:
    """Return a speed in revolutions a minute."""
    return speed_rad_s * 60 / (2 * pi)
