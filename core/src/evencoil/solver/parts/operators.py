"""Buttons, selectors, emergency stops, pilot devices, lamps and simple loads.

Source: IEC 60947-5-1 (change-over elements: break before make).
"""

from __future__ import annotations

from typing import ClassVar

from evencoil.circuit import Device
from evencoil.solver.parts.base import Part, number
from evencoil.solver.parts.coils import coil_admittance
from evencoil.solver.plant import Plant
from evencoil.solver.run import Run

__all__ = ["Button", "EmergencyStop", "Lamp", "Load", "Pilot", "Selector"]


class Button(Part):
    """A momentary button: the opening contact first, the closing one a little later."""

    kept: ClassVar[tuple[str, ...]] = ("is_pressed", "next_at", "begun_by")
    verbs: ClassVar[tuple[str, ...]] = ("press", "release")

    def begin(self) -> None:
        """Not pressed."""
        self.is_pressed = False
        self.next_at = -1
        self.begun_by: int | None = None

    def _half(self, run: Run, *, is_opening: bool) -> None:
        """Move the contacts that open, or those that close."""
        for link in self.links:
            if link.name not in self.branches:
                continue
            is_closed = self.is_pressed == (link.kind in {"no", "no_early"})
            if is_closed != is_opening and self.put(run, link, is_closed=is_closed):
                run.tell(self, link.name, "closed" if is_closed else "open")

    def act(self, run: Run, verb: str, word: str) -> bool:
        """Press or release; ``fast`` shortens the time between the contacts."""
        if verb not in {"press", "release"}:
            return False
        if self.next_at >= 0:
            self._half(run, is_opening=False)
        self.is_pressed = verb == "press"
        self.begun_by = run.cause
        self._half(run, is_opening=True)
        gap = "fast_button_gap_us" if word == "fast" else "button_gap_us"
        self.next_at = run.time + int(self.plant.constants[gap])
        return True

    def due(self) -> int | None:
        """Return when the second half of the stroke is done."""
        return self.next_at if self.next_at >= 0 else None

    def fire(self, run: Run) -> None:
        """Close what closes."""
        run.cause = self.begun_by
        self.next_at = -1
        self._half(run, is_opening=False)

    def word(self, run: Run) -> str:
        """Return ``pressed`` or ``released``."""
        del run
        return "pressed" if self.is_pressed else "released"


class EmergencyStop(Button):
    """Latches when pressed; twisting or pulling lets it out again."""

    verbs: ClassVar[tuple[str, ...]] = ("press", "twist", "pull")

    def act(self, run: Run, verb: str, word: str) -> bool:
        """Press; twist and pull do the same here. A release is no action of it."""
        if verb in {"twist", "pull"}:
            return super().act(run, "release", word)
        return super().act(run, verb, word) if verb == "press" else False

    def word(self, run: Run) -> str:
        """Return ``in`` or ``out``."""
        del run
        return "in" if self.is_pressed else "out"


class Pilot(Button):
    """A float, pressure, limit or flow switch: worked by the process."""

    verbs: ClassVar[tuple[str, ...]] = ("on", "off")

    def act(self, run: Run, verb: str, word: str) -> bool:
        """Actuate or let go."""
        if verb not in {"on", "off"}:
            return False
        super().act(run, "press" if verb == "on" else "release", word)
        # the process moves it with a snap
        self.next_at = run.time
        return True

    def word(self, run: Run) -> str:
        """Return ``on`` or ``off``."""
        del run
        return "on" if self.is_pressed else "off"


class Selector(Part):
    """A maintained selector: between two positions every contact is open."""

    kept: ClassVar[tuple[str, ...]] = ("position", "next_at", "begun_by")
    verbs: ClassVar[tuple[str, ...]] = ("turn",)

    def __init__(self, plant: Plant, device: Device, place: int) -> None:
        self.positions = [
            item for item in device.parameters.get("pos", "OFF,ON").split(",") if item
        ]
        super().__init__(plant, device, place)

    def begin(self) -> None:
        """At its first position, or the one given."""
        self.position = self.device.parameters.get("init") or self.positions[0]
        self.next_at = -1
        self.begun_by: int | None = None

    def rest(self, run: Run) -> None:
        """Contacts of the first position."""
        self._settle(run)

    def _settle(self, run: Run) -> None:
        for link in self.links:
            is_closed = self.position in link.closes_at.split("+")
            if self.put(run, link, is_closed=is_closed):
                run.tell(self, link.name, "closed" if is_closed else "open")

    def act(self, run: Run, verb: str, word: str) -> bool:
        """Turn to a position."""
        if verb != "turn" or word not in self.positions:
            return False
        if word == self.position and self.next_at < 0:
            return True
        self.position = word
        self.begun_by = run.cause
        for link in self.links:
            if self.put(run, link, is_closed=False):
                run.tell(self, link.name, "open")
        self.next_at = run.time + int(self.plant.constants["selector_gap_us"])
        return True

    def due(self) -> int | None:
        """Return when the new position is reached."""
        return self.next_at if self.next_at >= 0 else None

    def fire(self, run: Run) -> None:
        """Make the contacts of the new position."""
        run.cause = self.begun_by
        self.next_at = -1
        self._settle(run)

    def word(self, run: Run) -> str:
        """Return the position."""
        del run
        return self.position


class Load(Part):
    """A two-ended load: solenoid, heater, horn."""

    kept: ClassVar[tuple[str, ...]] = ()

    def __init__(self, plant: Plant, device: Device, place: int) -> None:
        super().__init__(plant, device, place)
        self.rated_v = number(device, "v", 120.0)
        self.power_va = number(device, "va", 10.0)
        link = self.links[0]
        self.ends = (link.a, link.b)
        self.branch = plant.branch(plant.node(device.id, link.a), plant.node(device.id, link.b))

    def rest(self, run: Run) -> None:
        """Put it there for good."""
        size = self.rated_v**2 / max(self.power_va, 1e-6)
        if self.device.type == "solenoid":
            part = self.plant.constants["coil_resistance_part"]
            run.switch(
                self.branch,
                coil_admittance(self.rated_v, self.power_va, part),
                1 / (size * part),
            )
        else:
            run.switch(self.branch, 1 / size, 1 / size)

    def word(self, run: Run) -> str:
        """Return whether it works: 60 % of its volts are enough."""
        is_on = self.volts_across(run, *self.ends) >= (
            self.plant.constants["lamp_on"] * self.rated_v
        )
        if self.device.type == "solenoid":
            return "1" if is_on else "0"
        return "on" if is_on else "off"


class Lamp(Part):
    """A pilot light; with push-to-test the button joins T and parts X1."""

    kept: ClassVar[tuple[str, ...]] = ("is_pressed",)
    verbs: ClassVar[tuple[str, ...]] = ("press", "release")

    def __init__(self, plant: Plant, device: Device, place: int) -> None:
        super().__init__(plant, device, place)
        self.rated_v = number(device, "v", 120.0)
        size = self.rated_v**2 / max(number(device, "va", 2.5), 1e-6)
        self.own = 1 / size
        self.is_filament = device.parameters.get("kind") == "filament"
        self.has_test = device.parameters.get("ptt") == "1"
        x2 = plant.node(device.id, "X2")
        self.signal = plant.branch(plant.node(device.id, "X1"), x2)
        self.test = plant.branch(plant.node(device.id, "T"), x2) if self.has_test else -1

    def begin(self) -> None:
        """Not pressed."""
        self.is_pressed = False

    def rest(self, run: Run) -> None:
        """On its signal."""
        self._set(run)

    def _set(self, run: Run) -> None:
        cold = self.own if self.is_filament else 0.0
        run.switch(self.signal, 0.0 if self.is_pressed else self.own, cold)
        if self.has_test:
            run.switch(self.test, self.own if self.is_pressed else 0.0, 0.0)

    def act(self, run: Run, verb: str, word: str) -> bool:
        """Press or release the test button."""
        del word
        if verb not in self.verbs or not self.has_test:
            return False
        self.is_pressed = verb == "press"
        self._set(run)
        return True

    def part_of_rated(self, run: Run) -> float:
        """Return its volts as a part of the rated ones."""
        a = "T" if self.is_pressed else "X1"
        return self.volts_across(run, a, "X2") / self.rated_v

    def word(self, run: Run) -> str:
        """Return ``on``, ``dim``, ``off`` or ``over``."""
        known = self.plant.constants
        part = self.part_of_rated(run)
        if part > known["lamp_over"]:
            return "over"
        if part >= known["lamp_on"]:
            return "on"
        return "dim" if part >= known["lamp_dim"] else "off"
