"""Switches, breakers, fuses, overload relays, manual starters.

The thermal image is first order: ``dH/dt = ((I / I_set)^2 - H) / tau``, trip at
``H = 1.15^2``; a fuse melts by its own square law above five times its rating.
Shapes are typical, not of a product.

Source: IEC 60947-4-1 (trip classes), first-order thermal image (textbook).
"""

from __future__ import annotations

from math import ceil, exp, log
from typing import ClassVar

from evencoil.circuit import Device
from evencoil.solver.motor import LOST_S
from evencoil.solver.parts.base import Part, number
from evencoil.solver.plant import Plant
from evencoil.solver.run import Run

#: an electronic relay sees currents above a fifth of its setting
_SEEN_SQUARE = 0.04

__all__ = ["Breaker", "Disconnect", "Fuse", "Isolator", "ManualStarter", "Overload"]


def _poles_of(part: Part) -> list[tuple[int, int]]:
    """Return the nodes on both sides of each pole, or of the fuse, of a device."""
    return [
        (part.plant.node(part.id, link.a), part.plant.node(part.id, link.b))
        for link in part.links
        if link.kind in {"pole", "heat", "fuse"}
    ]


class Isolator(Part):
    """A hand-operated switch."""

    kept: ClassVar[tuple[str, ...]] = ("is_on",)
    verbs: ClassVar[tuple[str, ...]] = ("close", "open")

    def begin(self) -> None:
        """As it is left: off unless said otherwise."""
        self.is_on = self.device.parameters.get("init") == "on"

    def rest(self, run: Run) -> None:
        """Poles and auxiliaries as the handle stands."""
        self.set_poles(run)

    def conducts(self, name: str) -> bool:
        """Tell whether a pole is whole."""
        del name
        return True

    def set_poles(self, run: Run) -> None:
        """Put every pole and auxiliary where the handle stands."""
        for link in self.links:
            if link.name not in self.branches:
                continue
            is_closed = self.is_on == (link.kind in {"pole", "no"})
            if link.kind == "pole" and not self.conducts(link.name):
                is_closed = False
            if self.put(run, link, is_closed=is_closed):
                run.tell(self, link.name, "closed" if is_closed else "open")

    def act(self, run: Run, verb: str, word: str) -> bool:
        """Work the handle."""
        del word
        if verb not in {"close", "open"}:
            return False
        self.is_on = verb == "close"
        self.set_poles(run)
        return True

    def word(self, run: Run) -> str:
        """Return ``on`` or ``off``."""
        del run
        return "on" if self.is_on else "off"


class Melting:
    """How far a fuse element has melted; 1 is gone."""

    __slots__ = ("done", "grid", "rate", "rating_a", "since", "start", "ten_us")

    def __init__(self, rating_a: float, plant: Plant) -> None:
        self.rating_a = rating_a
        self.ten_us = plant.constants["fuse_ten_times_us"]
        self.start = plant.constants["fuse_from"]
        self.grid = plant.constants["grid_us"]
        self.done = 0.0
        self.rate = 0.0
        self.since = 0

    def see(self, amps_a: float, time: int) -> None:
        """Take the current from now on [A]."""
        rate = 0.0
        if amps_a > self.start * self.rating_a:
            rate = 1 / (self.ten_us * (10 * self.rating_a / amps_a) ** 2)
        if rate == self.rate:
            return
        self.done += self.rate * (time - self.since)
        self.rate, self.since = rate, time

    def due(self) -> int | None:
        """Return when it is gone [us]."""
        if not self.rate or self.done >= 1:
            return None
        time = self.since + (1 - self.done) / self.rate
        return int(ceil(time / self.grid) * self.grid)

    def save(self) -> list[float]:
        """Return its state."""
        return [self.done, self.rate, self.since]

    def load(self, values: list[float]) -> None:
        """Take a state back."""
        self.done, self.rate, since = values
        self.since = int(since)


class Fuse(Part):
    """One fuse."""

    verbs: ClassVar[tuple[str, ...]] = ("blow", "pull", "fit")

    def __init__(self, plant: Plant, device: Device, place: int) -> None:
        super().__init__(plant, device, place)
        self.branch = plant.branch(plant.node(device.id, "1"), plant.node(device.id, "2"))

    def begin(self) -> None:
        """Whole."""
        self.melting = Melting(number(self.device, "a", 2.0), self.plant)
        self.state = "ok"

    def rest(self, run: Run) -> None:
        """Whole."""
        self._set(run)

    def _set(self, run: Run) -> None:
        run.switch(self.branch, 1 / self.plant.constants["pole_ohm"] if self.state == "ok" else 0)

    def observe(self, run: Run) -> None:
        """See its current."""
        if self.state == "ok":
            self.melting.see(self.amps_through(run, self.branch), run.time)

    def due(self) -> int | None:
        """Return when it blows."""
        return self.melting.due() if self.state == "ok" else None

    def fire(self, run: Run) -> None:
        """Blow."""
        run.cause = run.last_change
        self.state = "blown"
        self._set(run)
        run.tell(self, "fuse", "blown")
        run.mark_opened(self, _poles_of(self))

    def act(self, run: Run, verb: str, word: str) -> bool:
        """Blow it, pull it, or fit a new one."""
        del word
        if verb not in self.verbs:
            return False
        self.state = {"blow": "blown", "pull": "pulled", "fit": "ok"}[verb]
        if verb == "fit":
            self.melting.load([0.0, 0.0, run.time])
        self._set(run)
        return True

    def word(self, run: Run) -> str:
        """Return ``ok``, ``blown`` or ``pulled``."""
        del run
        return self.state

    def save(self) -> list[object]:
        """Return its state."""
        return [self.state, *self.melting.save()]

    def load(self, values: list[object]) -> None:
        """Take a state back."""
        self.state = str(values[0])
        self.melting.load(values[1:])  # type: ignore[arg-type]  # three numbers


class Disconnect(Isolator):
    """A fused disconnect: a switch and one fuse for each pole."""

    verbs: ClassVar[tuple[str, ...]] = ("close", "open", "blow", "fit")

    def begin(self) -> None:
        """Fuses whole."""
        super().begin()
        rating = number(self.device, "a", 30.0)
        self.melting = {
            link.name: Melting(rating, self.plant) for link in self.links if link.kind == "pole"
        }
        self.blown: list[str] = []

    def conducts(self, name: str) -> bool:
        """Tell whether the fuse of a pole is whole."""
        return name not in self.blown

    def observe(self, run: Run) -> None:
        """See the current of each fuse."""
        for name, melting in self.melting.items():
            if name not in self.blown:
                melting.see(self.amps_through(run, self.branches[name]), run.time)

    def due(self) -> int | None:
        """Return when the next fuse blows."""
        found = [
            time
            for name, melting in self.melting.items()
            if name not in self.blown and (time := melting.due()) is not None
        ]
        return min(found) if found else None

    def fire(self, run: Run) -> None:
        """Blow what is due."""
        run.cause = run.last_change
        for name, melting in self.melting.items():
            due = melting.due()
            if name not in self.blown and due is not None and due <= run.time:
                self.blown.append(name)
                run.tell(self, f"fuse {name}", "blown")
                run.mark_opened(self, _poles_of(self))
        self.set_poles(run)

    def act(self, run: Run, verb: str, word: str) -> bool:
        """Work the handle, blow the fuse of a pole (1, 2, 3), or fit new ones."""
        if verb == "blow":
            names = list(self.melting)
            place = int(word) - 1 if word in {"1", "2", "3"} else 0
            if place >= len(names):
                return False
            self.blown.append(names[place])
        elif verb == "fit":
            self.blown = []
            for melting in self.melting.values():
                melting.load([0.0, 0.0, run.time])
        else:
            return super().act(run, verb, word)
        self.set_poles(run)
        return True

    def word(self, run: Run) -> str:
        """Return ``on``, ``off``, with ``blown`` if a fuse is."""
        return "blown" if self.blown else super().word(run)

    def save(self) -> list[object]:
        """Return its state."""
        return [
            self.is_on,
            list(self.blown),
            [melting.save() for melting in self.melting.values()],
        ]

    def load(self, values: list[object]) -> None:
        """Take a state back."""
        self.is_on, self.blown, melted = values  # type: ignore[assignment]  # as saved
        self.blown = list(self.blown)
        for melting, kept in zip(self.melting.values(), melted, strict=True):  # type: ignore[call-overload]  # as saved
            melting.load(kept)


class Breaker(Isolator):
    """A breaker with an instantaneous trip; reset through off."""

    kept: ClassVar[tuple[str, ...]] = ("is_on", "is_tripped", "trips_at")
    verbs: ClassVar[tuple[str, ...]] = ("close", "open", "reset", "trip")

    def begin(self) -> None:
        """Not tripped."""
        super().begin()
        self.is_tripped = False
        self.trips_at = -1
        self.magnetic_a = number(self.device, "mag", 250.0)

    def observe(self, run: Run) -> None:
        """See whether a pole carries more than the instantaneous setting."""
        if not self.is_on:
            return
        is_over = any(
            self.amps_through(run, self.branches[link.name]) > self.magnetic_a
            for link in self.links
            if link.kind == "pole"
        )
        if not is_over:
            self.trips_at = -1
        elif self.trips_at < 0:
            self.trips_at = run.time + int(self.plant.constants["breaker_us"])

    def due(self) -> int | None:
        """Return when it opens."""
        return self.trips_at if self.trips_at >= 0 else None

    def fire(self, run: Run) -> None:
        """Open."""
        run.cause = run.last_change
        run.mark_opened(self, _poles_of(self))
        self.trip(run)

    def trip(self, run: Run) -> None:
        """Open by itself."""
        self.trips_at = -1
        self.is_on, self.is_tripped = False, True
        run.tell(self, "breaker", "tripped")
        self.set_poles(run)

    def act(self, run: Run, verb: str, word: str) -> bool:
        """Work the handle; a tripped breaker closes only after it was reset."""
        if verb == "trip":
            self.trip(run)
            return True
        if verb in {"reset", "open"}:
            self.is_tripped = False
            return super().act(run, "open", word)
        if verb == "close" and self.is_tripped:
            return True
        return super().act(run, verb, word)

    def word(self, run: Run) -> str:
        """Return ``on``, ``off`` or ``tripped``."""
        return "tripped" if self.is_tripped else super().word(run)


class Heat:
    """The thermal image of an overload."""

    __slots__ = ("drive", "heat", "plant", "setting_a", "since")

    def __init__(self, plant: Plant, setting_a: float) -> None:
        self.plant = plant
        self.setting_a = max(setting_a, 1e-6)
        self.heat = 0.0
        self.drive = 0.0
        self.since = 0

    def at(self, time: int) -> float:
        """Return the heat at a time, 1 being steady at the setting."""
        spent = (time - self.since) / 1e6 / self.plant.constants["overload_tau_s"]
        return self.drive + (self.heat - self.drive) * exp(-spent)

    def see(self, times_setting: float, time: int) -> None:
        """Take the current from now on, in times of the setting."""
        # a ten-thousandth of the setting moves a trip by no more than the grid
        drive = round(times_setting**2, 6)
        if drive != self.drive:
            self.heat, self.drive, self.since = self.at(time), drive, time

    def when(self, level: float) -> int | None:
        """Return when the heat passes a level on its present way [us]."""
        if (self.drive - level) * (self.heat - level) >= 0 or self.drive == self.heat:
            return None
        spent = self.plant.constants["overload_tau_s"] * log(
            (self.heat - self.drive) / (level - self.drive)
        )
        grid = self.plant.constants["grid_us"]
        return int(ceil((self.since + spent * 1e6) / grid) * grid)

    def save(self) -> list[float]:
        """Return its state."""
        return [self.heat, self.drive, self.since]

    def load(self, values: list[float]) -> None:
        """Take a state back."""
        self.heat, self.drive, since = values
        self.since = int(since)


class _Thermal(Part):
    """What overload relay and manual starter share: heaters and their image."""

    heat_kind = "heat"

    def __init__(self, plant: Plant, device: Device, place: int) -> None:
        super().__init__(plant, device, place)
        self.senses_loss = device.parameters.get("diff") == "1"
        self.heaters: list[int] = []
        for link in self.links:
            if link.kind == "heat":
                branch = plant.branch(plant.node(device.id, link.a), plant.node(device.id, link.b))
                self.heaters.append(branch)
            elif link.kind == "pole" and self.heat_kind == "pole":
                self.heaters.append(self.branches[link.name])

    def begin(self) -> None:
        """Cold, not tripped."""
        self.heat = Heat(self.plant, number(self.device, "iset", 10.0))
        self.is_tripped = False

    def see_heaters(self, run: Run) -> None:
        """Take the largest heater current, raised where one heater idles."""
        known = self.plant.constants
        amps = [self.amps_through(run, branch) for branch in self.heaters]
        most = max(amps, default=0.0)
        square = (most / self.heat.setting_a) ** 2
        if known["overload_difference_part"]:
            square = self._by_phases(amps)
        elif self.senses_loss and len(amps) > 2 and min(amps) < known["overload_idle_part"] * most:
            square *= known["overload_idle_factor"]
        self.heat.see(square**0.5, run.time)

    def _by_phases(self, amps: list[float]) -> float:
        """Return what drives the image when the phases differ: as in a run-up."""
        known = self.plant.constants
        squares = [(one / self.heat.setting_a) ** 2 for one in amps]
        most, least = max(squares, default=0.0), min(squares, default=0.0)
        kind = self.plant.relay_kind
        if kind == "two_heaters" and len(squares) > 2:
            return max(squares[0], squares[-1])
        if kind in {"melting_alloy", "electronic"}:
            is_lost = kind == "electronic" and len(squares) > 2 and 4 * least < most
            # one that has lost a line is through within three seconds
            tau_s = known["overload_tau_s"]
            gone = known["overload_trip"] / (1 - exp(-LOST_S / tau_s)) if is_lost else 0.0
            return max(most, gone if most > _SEEN_SQUARE else 0.0)
        if kind == "phase_loss" or self.senses_loss:
            return most + known["overload_difference_part"] * (most - least)
        worst = known["overload_worst_part"]
        return worst * most + (1 - worst) * sum(squares) / max(len(squares), 1)

    def trip_time(self) -> int | None:
        """Return when the heat passes the trip level; None while it does not rise to it."""
        level = self.plant.constants["overload_trip"]
        if self.heat.drive <= level:
            return None
        return self.heat.since if self.heat.heat >= level else self.heat.when(level)

    def tells(self, run: Run) -> dict[str, str]:
        """Return the heat in percent of the trip level."""
        part = self.heat.at(run.time) / self.plant.constants["overload_trip"]
        return {"heat": f"{max(0.0, part) * 100:.0f}"}


def _is_still_hot(part: _Thermal, run: Run) -> bool:
    """Tell whether a tripped relay refuses a reset, and say how long to wait."""
    level = part.plant.constants["overload_may_reset"]
    if part.heat.at(run.time) < level:
        return False
    ready = part.heat.when(level) if part.heat.drive < level else None
    wait = "" if ready is None else f" {ceil((ready - run.time) / 1e6)}"
    run.tell(part, "overload", f"hot{wait}")
    return True


class Overload(_Thermal):
    """An overload relay: 95-96 opens and 97-98 closes on a trip."""

    verbs: ClassVar[tuple[str, ...]] = ("trip", "reset", "cool")

    def begin(self) -> None:
        """Manual reset unless set to automatic."""
        super().begin()
        self.is_automatic = self.device.parameters.get("reset") == "auto"

    def rest(self, run: Run) -> None:
        """Heaters are always there."""
        super().rest(run)
        for branch in self.heaters:
            run.switch(branch, 1 / self.plant.constants["pole_ohm"])

    def observe(self, run: Run) -> None:
        """See the heaters."""
        self.see_heaters(run)

    def due(self) -> int | None:
        """Return when it trips, or resets by itself."""
        if not self.is_tripped:
            return self.trip_time()
        if self.is_automatic:
            level = self.plant.constants["overload_auto_reset"]
            if self.heat.drive >= level:
                return None
            return self.heat.since if self.heat.heat <= level else self.heat.when(level)
        return None

    def fire(self, run: Run) -> None:
        """Trip, or reset by itself after cooling."""
        run.cause = run.last_change if not self.is_tripped else None
        self._set(run, is_tripped=not self.is_tripped)

    def _set(self, run: Run, *, is_tripped: bool) -> None:
        if is_tripped == self.is_tripped:
            return
        self.is_tripped = is_tripped
        run.cause = run.tell(self, "overload", "tripped" if is_tripped else "reset")
        # the alarm contact first: what follows has 95-96 as its cause
        for link in sorted(self.links, key=lambda item: item.kind == "nc"):
            if link.name in self.branches and link.kind in {"nc", "no"}:
                is_closed = is_tripped == (link.kind == "no")
                if self.put(run, link, is_closed=is_closed):
                    run.tell(self, link.name, "closed" if is_closed else "open")

    def act(self, run: Run, verb: str, word: str) -> bool:
        """Trip by the test button, reset when cool enough, or let it cool down."""
        del word
        if verb == "trip":
            if self.is_automatic:
                # an automatic one trips by heat alone, and comes back when it has cooled
                level = self.plant.constants["overload_trip"]
                self.heat.load([max(level, self.heat.at(run.time)), self.heat.drive, run.time])
            self._set(run, is_tripped=True)
        elif verb == "reset":
            if not _is_still_hot(self, run):
                self._set(run, is_tripped=False)
        elif verb == "cool":
            self.heat.load([0.0, self.heat.drive, run.time])
        else:
            return False
        return True

    def word(self, run: Run) -> str:
        """Return ``ok`` or ``tripped``."""
        del run
        return "tripped" if self.is_tripped else "ok"

    def save(self) -> list[object]:
        """Return its state."""
        return [self.is_tripped, *self.heat.save()]

    def load(self, values: list[object]) -> None:
        """Take a state back."""
        self.is_tripped = bool(values[0])
        self.heat.load(values[1:])  # type: ignore[arg-type]  # three numbers


class ManualStarter(_Thermal):
    """A hand-operated starter with heaters, and a magnetic trip if it has one."""

    heat_kind = "pole"
    verbs: ClassVar[tuple[str, ...]] = ("close", "open", "reset", "trip", "cool")

    def begin(self) -> None:
        """Off."""
        super().begin()
        self.is_on = self.device.parameters.get("init") == "on"
        self.trips_at = -1
        self.magnetic_a = number(self.device, "mag")

    def rest(self, run: Run) -> None:
        """Poles as the handle stands."""
        self._set(run)

    def _set(self, run: Run) -> None:
        for link in self.links:
            if link.name in self.branches:
                is_closed = self.is_on == (link.kind in {"pole", "no"})
                if self.put(run, link, is_closed=is_closed):
                    run.tell(self, link.name, "closed" if is_closed else "open")

    def observe(self, run: Run) -> None:
        """See heaters and short circuits."""
        self.see_heaters(run)
        amps = max((self.amps_through(run, branch) for branch in self.heaters), default=0.0)
        if not (self.is_on and self.magnetic_a and amps > self.magnetic_a):
            self.trips_at = -1
        elif self.trips_at < 0:
            self.trips_at = run.time + int(self.plant.constants["breaker_us"])

    def due(self) -> int | None:
        """Return when it trips."""
        if not self.is_on:
            return None
        found = [
            time
            for time in (self.trip_time(), self.trips_at if self.trips_at >= 0 else None)
            if time is not None
        ]
        return min(found) if found else None

    def fire(self, run: Run) -> None:
        """Trip; the handle cannot prevent it."""
        run.cause = run.last_change
        if 0 <= self.trips_at <= run.time:
            run.mark_opened(self, _poles_of(self))
        self._trip(run)

    def _trip(self, run: Run) -> None:
        self.trips_at = -1
        self.is_on, self.is_tripped = False, True
        run.cause = run.tell(self, "starter", "tripped")
        self._set(run)

    def act(self, run: Run, verb: str, word: str) -> bool:
        """Work the handle; after a trip it must cool and be reset first."""
        del word
        if verb == "close":
            if not self.is_tripped:
                self.is_on = True
                self._set(run)
        elif verb == "open":
            self.is_on = False
            self._set(run)
        elif verb == "reset":
            if not self.is_tripped or not _is_still_hot(self, run):
                self.is_tripped = False
            self.is_on = False
            self._set(run)
        elif verb == "trip":
            self._trip(run)
        elif verb == "cool":
            self.heat.load([0.0, self.heat.drive, run.time])
        else:
            return False
        return True

    def word(self, run: Run) -> str:
        """Return ``on``, ``off`` or ``tripped``."""
        del run
        if self.is_tripped:
            return "tripped"
        return "on" if self.is_on else "off"

    def save(self) -> list[object]:
        """Return its state."""
        return [self.is_on, self.is_tripped, self.trips_at, *self.heat.save()]

    def load(self, values: list[object]) -> None:
        """Take a state back."""
        self.is_on, self.is_tripped = bool(values[0]), bool(values[1])
        self.trips_at = int(values[2])  # type: ignore[call-overload]  # as saved
        self.heat.load(values[3:])  # type: ignore[arg-type]  # three numbers
