"""What watches a motor or a supply: speed, temperature, phases.

Source: IEC 60947-8 (thermistor relays), NEMA MG 1 (thermostats), IEC 60751.
"""

from __future__ import annotations

import cmath
from collections.abc import Callable
from functools import cached_property
from math import pi, sqrt
from typing import ClassVar, cast

from evencoil.circuit import Device
from evencoil.sensors import (
    ELEMENTS,
    OPEN_C,
    RESET_OHM,
    SHORT_C,
    SHORT_OHM,
    TRIP_OHM,
    ElementName,
    celsius_of,
    ohms_of,
    thermistor_ohms,
)
from evencoil.solver.parts.base import Part, number
from evencoil.solver.parts.coils import coil_admittance
from evencoil.solver.parts.motors import Motor
from evencoil.solver.plant import Plant
from evencoil.solver.run import Run

__all__ = [
    "GroundFaultRelay",
    "PhaseMonitor",
    "Rtd",
    "RtdMonitor",
    "SpeedSwitch",
    "Thermistor",
    "ThermistorRelay",
    "Thermostat",
]


def watched(run: Run, device: Device) -> Motor | None:
    """Return the motor that a sensor sits on: the one named, or the only one.

    Parameters
    ----------
    run : Run
        With its parts.
    device : Device
        The sensor.
    """
    named = run.plant.part_of.get(device.parameters.get("motor", ""))
    if isinstance(named, Motor):
        return named
    motors = [part for part in run.plant.parts if isinstance(part, Motor)]
    return motors[0] if len(motors) == 1 else None


def _set(part: Part, run: Run, wanted: set[str], which: tuple[str, ...] = ()) -> None:
    """Put contacts: closed if working one is wanted, else as at rest."""
    for link in part.links:
        if link.name not in part.branches or (which and link.name not in which):
            continue
        is_working = link.name in wanted
        is_closed = is_working == (link.kind in {"no", "no_early"})
        if part.put(run, link, is_closed=is_closed):
            run.tell(part, link.name, "closed" if is_closed else "open")


class _HeldByHand(Part):
    """What follows something of its own, or is held by one of its verbs as a stuck one stays."""

    def begin(self) -> None:
        """Following."""
        super().begin()
        self.held = ""

    def act(self, run: Run, verb: str, word: str) -> bool:
        """Hold it as the verb says, or let it follow again."""
        del word
        if verb not in self.verbs:
            return False
        self.held = "" if verb == "follow" else verb
        self.observe(run)
        return True


class SpeedSwitch(_HeldByHand):
    """Closes 13-14 above 10 % forward, 23-24 in reverse; opens 11-12 and 21-22; back at 5 %.

    It follows the shaft, or is held by hand as a stuck or loose switch stays.
    """

    kept: ClassVar[tuple[str, ...]] = ("side", "held")
    verbs: ClassVar[tuple[str, ...]] = ("forward", "backward", "rest", "follow")
    _SIDES: ClassVar[dict[str, int]] = {"forward": 1, "backward": -1, "rest": 0}

    def begin(self) -> None:
        """Standing, following the shaft."""
        super().begin()
        self.side = 0

    def _turned(self, run: Run) -> int | None:
        """Return to which side it is thrown, None where nothing turns it."""
        if self.held:
            return self._SIDES[self.held]
        known = self.plant.constants
        motor = watched(run, self.device)
        if motor is None:
            return None
        side = motor.side(run.time, known["speed_switch"])
        if side == 0 and self.side == motor.side(run.time, known["speed_switch_back"]):
            side = self.side
        return side

    def observe(self, run: Run) -> None:
        """See the speed."""
        side = self._turned(run)
        if side is None:
            return
        self.side = side
        wanted = {1: {"13-14", "11-12"}, -1: {"23-24", "21-22"}, 0: set()}[side]
        _set(self, run, wanted)


class Thermostat(_HeldByHand):
    """Opens, or closes, at its temperature; back about 25 K lower.

    It follows the winding, or is held hot or cool by hand: two in one motor need not agree.
    """

    kept: ClassVar[tuple[str, ...]] = ("is_hot", "held")
    verbs: ClassVar[tuple[str, ...]] = ("hot", "cool", "follow")

    def begin(self) -> None:
        """Cold, following the winding."""
        super().begin()
        self.is_hot = False

    def observe(self, run: Run) -> None:
        """See the winding's temperature."""
        motor = watched(run, self.device)
        if motor is None:
            return
        level = number(self.device, "t", 145.0)
        if self.is_hot:
            level -= self.plant.constants["thermostat_back_k"]
        is_hot = self.held == "hot" if self.held else motor.temperature_c >= level
        if is_hot != self.is_hot:
            self.is_hot = is_hot
            run.cause = run.tell(self, "temperature", "hot" if is_hot else "cool")
            _set(self, run, {link.name for link in self.links} if is_hot else set())

    def word(self, run: Run) -> str:
        """Return ``hot`` or ``cool``."""
        del run
        return "hot" if self.is_hot else "cool"


class _Sensor(Part):
    """A sensor in the winding whose loop can be cut or shorted."""

    kept: ClassVar[tuple[str, ...]] = ("loop",)
    verbs: ClassVar[tuple[str, ...]] = ("sensor",)

    def begin(self) -> None:
        """Whole."""
        self.loop = "ok"

    def act(self, run: Run, verb: str, word: str) -> bool:
        """Cut, short or mend the loop."""
        if verb != "sensor" or word not in {"ok", "open", "short"}:
            return False
        self.loop = word
        self.observe(run)
        return True


class Thermistor(_Sensor):
    """Three thermistors in series in the winding; its loop can be cut or shorted."""

    def __init__(self, plant: Plant, device: Device, place: int) -> None:
        super().__init__(plant, device, place)
        ends = (plant.node(device.id, end) for end in ("TP1", "TP2"))
        self.branch = plant.branch(*ends)

    def rest(self, run: Run) -> None:
        """As warm as its motor."""
        self.observe(run)

    def observe(self, run: Run) -> None:
        """Follow the winding's temperature."""
        own = 1 / max(self.ohms(run), 1e-3)
        run.switch(self.branch, complex(own), own)

    def ohms(self, run: Run) -> float:
        """Return what a meter of 2.5 V or less reads [ohm]."""
        known = self.plant.constants
        motor = watched(run, self.device)
        if self.loop == "open":
            return 1e9
        if self.loop == "short":
            return 0.0
        now = known["motor_cold_c"] if motor is None else motor.temperature_c
        return thermistor_ohms(now - number(self.device, "t", 150.0))


class _Monitor(Part):
    """A monitor with an auxiliary supply: healthy means pulled in."""

    kept: ClassVar[tuple[str, ...]] = ("wanted", "is_waiting", "next_at", "closed")

    def __init__(self, plant: Plant, device: Device, place: int) -> None:
        super().__init__(plant, device, place)
        self.rated_v = number(device, "coil", 120.0)
        self.input = -1
        if "A1" in device.terminals:
            self.input = plant.branch(plant.node(device.id, "A1"), plant.node(device.id, "A2"))

    def begin(self) -> None:
        """Without supply."""
        self.wanted: list[str] = []
        self.closed: list[str] = []
        self.is_waiting = False
        self.next_at = -1

    def rest(self, run: Run) -> None:
        """Contacts at rest."""
        super().rest(run)
        if self.input >= 0:
            power = number(self.device, "sealed_va", 2.0)
            part = self.plant.constants["coil_resistance_part"]
            run.switch(self.input, coil_admittance(self.rated_v, power, part), 0.0)

    def is_supplied(self, run: Run) -> bool:
        """Tell whether its own supply is there."""
        level = self.plant.constants["coil_pick_up"]
        return self.volts_across(run, "A1", "A2") >= level * self.rated_v

    def want(self, run: Run, wanted: list[str], delay_us: float) -> None:
        """Ask for a set of working contacts, after a delay."""
        if wanted == self.wanted and (self.is_waiting or self.closed == wanted):
            return
        self.wanted = wanted
        self.is_waiting = wanted != self.closed
        self.next_at = run.time + int(delay_us) if self.is_waiting else -1

    def due(self) -> int | None:
        """Return when its contacts change."""
        return self.next_at if self.is_waiting else None

    def fire(self, run: Run) -> None:
        """Change the contacts."""
        self.is_waiting, self.next_at = False, -1
        self.closed = self.wanted
        run.cause = run.last_change
        run.tell(self, "relay", "+".join(self.closed) or "out")
        _set(self, run, set(self.closed))

    def between(self, run: Run, one: str, other: str) -> float:
        """Return what it measures between two of its terminals, whatever is wired there [ohm]."""
        ends = (self.plant.node(self.id, end) for end in (one, other))
        return self.plant.ohms(run.conductance, *ends)

    def once(self, run: Run, measure: Callable[[Run], float]) -> float:
        """Return what is measured, once for each solution of the network [ohm]."""
        memo = run.solution.memo
        found = memo.get(self.place)
        if not isinstance(found, float):
            found = memo[self.place] = measure(run)
        return found

    def word(self, run: Run) -> str:
        """Return ``1`` while healthy."""
        del run
        return "1" if self.closed else "0"


class ThermistorRelay(_Monitor):
    """Trips above 3.6 kohm, on a cut and on a short loop; latched unless automatic."""

    kept: ClassVar[tuple[str, ...]] = (*_Monitor.kept, "is_latched")
    verbs: ClassVar[tuple[str, ...]] = ("reset",)

    def begin(self) -> None:
        """Not tripped."""
        super().begin()
        self.is_latched = False

    def _loop(self, run: Run) -> float:
        """Return the ohms of its loop [ohm]."""
        return self.between(run, "T1", "T2")

    def observe(self, run: Run) -> None:
        """See loop and supply."""
        known = self.plant.constants
        ohms = self.once(run, self._loop)
        is_bad = ohms > TRIP_OHM or ohms < SHORT_OHM
        if self.device.parameters.get("reset") == "auto" and ohms < RESET_OHM:
            self.is_latched = is_bad
        if is_bad and self.is_supplied(run):
            self.is_latched = True
        is_well = self.is_supplied(run) and not self.is_latched
        self.want(run, ["11-14", "11-12"] if is_well else [], known["thermistor_us"])

    def act(self, run: Run, verb: str, word: str) -> bool:
        """Reset, if the winding has cooled and the loop is whole."""
        del word
        if verb != "reset":
            return False
        ohms = self.once(run, self._loop)
        if SHORT_OHM < ohms < RESET_OHM:
            self.is_latched = False
        return True


def _element(device: Device) -> ElementName:
    """Return which element a sensor has, or a monitor is set for."""
    return cast("ElementName", device.parameters.get("element") or "Pt100")


def _element_ohm(name: ElementName, celsius: float) -> float:
    """Return the ohms of an element; beyond its table as at its end [ohm]."""
    known = ELEMENTS[name]
    return ohms_of(name, min(max(celsius, known.least_c), known.most_c))


class Rtd(_Sensor):
    """An element in the winding on three leads; it can be cut or shorted."""

    def __init__(self, plant: Plant, device: Device, place: int) -> None:
        super().__init__(plant, device, place)
        one, other, second = (plant.node(device.id, end) for end in ("R1", "R2", "R3"))
        self.element = plant.branch(one, other)
        self.lead = plant.branch(other, second)

    def rest(self, run: Run) -> None:
        """As warm as its motor; R2 and R3 are one point."""
        own = 1 / self.plant.constants["contact_ohm"]
        run.switch(self.lead, complex(own), own)
        self.observe(run)

    def observe(self, run: Run) -> None:
        """Follow the winding's temperature."""
        known = self.plant.constants
        motor = watched(run, self.device)
        now = known["motor_cold_c"] if motor is None else motor.temperature_c
        own = {"open": 1e-9, "short": 1e3}.get(
            self.loop, 1 / _element_ohm(_element(self.device), now)
        )
        run.switch(self.element, complex(own), own)


class RtdMonitor(_Monitor):
    """Alarm and trip relays, both pulled in when healthy; the trip is latched.

    It measures T1 to T2 less T2 to T3, the lead. A monitor whose sensor is not drawn feels the
    winding itself.
    """

    kept: ClassVar[tuple[str, ...]] = (*_Monitor.kept, "is_latched", "loop")
    verbs: ClassVar[tuple[str, ...]] = ("reset", "sensor")

    def __init__(self, plant: Plant, device: Device, place: int) -> None:
        super().__init__(plant, device, place)
        own = {f"{device.id}.T{one}" for one in (1, 2, 3)}
        #: whether anything is wired to its sensor terminals
        self._is_drawn = any(own & {wire.start, wire.end} for wire in plant.netlist.wires)

    def begin(self) -> None:
        """Healthy, sensor whole."""
        super().begin()
        self.is_latched = False
        self.loop = "ok"

    def _loop(self, run: Run) -> float:
        """Return what it measures, less the lead between the two alike [ohm]."""
        return self.between(run, "T1", "T2") - self.between(run, "T2", "T3")

    def _reads(self, run: Run) -> float:
        """Return the temperature it takes for the winding's; a sensor not whole is too hot [C]."""
        if self.loop != "ok":
            return 1e9
        if self._is_drawn:
            name, ohms = _element(self.device), self.once(run, self._loop)
            is_whole = ohms_of(name, SHORT_C) <= ohms <= ohms_of(name, OPEN_C)
            return celsius_of(name, ohms) if is_whole else 1e9
        motor = watched(run, self.device)
        return motor.temperature_c if motor is not None else 0.0

    def observe(self, run: Run) -> None:
        """See temperature and supply."""
        reads = self._reads(run)
        is_alarm = reads >= number(self.device, "alarm", 130.0)
        if reads >= number(self.device, "trip", 155.0):
            self.is_latched = True
        wanted = []
        if self.is_supplied(run):
            wanted = ([] if is_alarm else ["11-14", "11-12"]) + (
                [] if self.is_latched else ["21-24", "21-22"]
            )
        self.want(run, wanted, self.plant.constants["rtd_us"])

    def act(self, run: Run, verb: str, word: str) -> bool:
        """Reset the trip below its level; cut or mend the sensor."""
        if verb == "reset":
            if self._reads(run) < number(self.device, "trip", 155.0):
                self.is_latched = False
            return True
        if verb == "sensor" and word in {"ok", "open"}:
            self.loop = word
            return True
        return False

    def tells(self, run: Run) -> dict[str, str]:
        """Return alarm and trip: 1 is in force."""
        is_fed = self.is_supplied(run)
        return {
            "alarm": "1" if is_fed and "11-14" not in self.closed else "0",
            "trip": "1" if is_fed and "21-24" not in self.closed else "0",
        }


class PhaseMonitor(_HeldByHand, _Monitor):
    """Pulls in on right sequence, all phases and enough volts, or is held tripped by hand."""

    kept: ClassVar[tuple[str, ...]] = (*_Monitor.kept, "held")
    verbs: ClassVar[tuple[str, ...]] = ("trip", "follow")

    def observe(self, run: Run) -> None:
        """See the three phases as sequence components."""
        known, own = self.plant.constants, self.device
        volts = [run.solution.volts[self.plant.node(self.id, line)] for line in ("L1", "L2", "L3")]
        turn = cmath.exp(2j * pi / 3)
        rated = number(own, "v", 0.0) or _line_volts(self.plant)
        base = rated / sqrt(3)
        forward = abs(volts[0] + turn * volts[1] + turn**2 * volts[2]) / 3 / base
        backward = abs(volts[0] + turn**2 * volts[1] + turn * volts[2]) / 3 / base
        if own.parameters.get("order") == "0":
            forward, backward = max(forward, backward), min(forward, backward)
        most = number(own, "over", 0.0) / 100
        is_even = backward < number(own, "unbalance", known["phase_negative"] * 100) / 100 * forward
        is_between = forward > number(own, "under", known["phase_least"] * 100) / 100 and (
            not most or forward < most
        )
        is_well = not self.held and is_between and is_even
        on_s = number(own, "close_s", known["phase_on_us"] / 1e6)
        off_s = number(own, "trip_s", known["phase_off_us"] / 1e6)
        self.want(run, ["11-14", "11-12"] if is_well else [], (on_s if is_well else off_s) * 1e6)


class GroundFaultRelay(_Monitor):
    """Pulled in while healthy; trips on what the conductors in its window do not bring back.

    The window lies around the conductors of one device: the sum of the currents through its
    poles, heaters or windings is what leaks to ground behind it. A trip is latched, unless it is
    set to reset by itself.
    """

    kept: ClassVar[tuple[str, ...]] = (*_Monitor.kept, "is_latched", "over_at")
    verbs: ClassVar[tuple[str, ...]] = ("trip", "reset")

    def begin(self) -> None:
        """Healthy."""
        super().begin()
        self.is_latched = False
        #: when what it sees has lasted long enough [us]; -1 while it sees nothing
        self.over_at = -1

    def leaks(self, run: Run) -> float:
        """Return the sum of the currents in its window [A]."""
        volts, ends = run.solution.volts, self.plant.ends
        return abs(
            sum(
                (volts[ends[branch][0]] - volts[ends[branch][1]]) * run.admittance[branch]
                for branch in self._window
            )
        )

    @cached_property
    def _window(self) -> tuple[int, ...]:
        """Branches whose conductors pass its window: found once, when every device is there."""
        part = self.plant.part_of.get(self.device.parameters.get("around", ""))
        if part is None:
            return ()
        pairs = [
            (self.plant.node(part.id, link.a), self.plant.node(part.id, link.b))
            for link in part.links
            if link.kind in {"pole", "heat"}
        ]
        return tuple(self.plant.ends.index(pair) for pair in pairs if pair in self.plant.ends)

    def observe(self, run: Run) -> None:
        """See what leaks; start its delay, or let it go."""
        is_over = self.leaks(run) >= number(self.device, "a", 5.0)
        if not is_over:
            self.over_at = -1
            if self.device.parameters.get("reset") == "auto":
                self.is_latched = False
        elif self.over_at < 0 and not self.is_latched:
            self.over_at = run.time + int(number(self.device, "t", 0.1) * 1e6)
        self._relay(run)

    def _relay(self, run: Run) -> None:
        is_well = self.is_supplied(run) and not self.is_latched
        self.want(run, ["11-14", "11-12"] if is_well else [], self.plant.constants["ground_us"])

    def due(self) -> int | None:
        """Return when its delay or its relay is over."""
        times = [time for time in (super().due(), self.over_at) if time is not None and time >= 0]
        return min(times, default=None)

    def fire(self, run: Run) -> None:
        """Trip after its delay; change its contacts."""
        if 0 <= self.over_at <= run.time:
            self.over_at, self.is_latched = -1, True
            run.cause = run.last_change
            run.tell(self, "ground fault", "tripped")
            self._relay(run)
        own = super().due()
        if own is not None and own <= run.time:
            super().fire(run)

    def act(self, run: Run, verb: str, word: str) -> bool:
        """Trip by its test button, or reset; what still leaks trips it again."""
        del word
        if verb == "trip":
            self.is_latched = True
        elif verb == "reset":
            self.is_latched = False
        else:
            return False
        self.observe(run)
        return True

    def tells(self, run: Run) -> dict[str, str]:
        """Return what leaks, and whether it tripped."""
        return {"amps": f"{self.leaks(run):.2f}", "trip": "1" if self.is_latched else "0"}


def _line_volts(plant: Plant) -> float:
    for part in plant.parts:
        if part.device.type == "supply":
            return number(part.device, "v", 480.0)
    return 480.0
