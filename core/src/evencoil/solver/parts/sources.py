"""Supplies, transformers, rectifiers.

Source: Norton equivalents, coupled windings on one core (textbook circuit
theory); NEMA ST 1 terminal letters.

Units: volts [V], impedance [ohm].
"""

from __future__ import annotations

import itertools
from math import sqrt
from typing import ClassVar

from evencoil.circuit import Device, line_phasors, primary_taps, taps_of
from evencoil.solver.parts.base import Part, number
from evencoil.solver.plant import Plant
from evencoil.solver.run import Run

__all__ = ["Autotransformer", "LineSupply", "Rectifier", "Resistor", "Source", "Transformer"]


class LineSupply(Part):
    """The lines and the ground of the installation.

    Loses lines, sags, goes off and comes back, has two lines exchanged.
    """

    kept: ClassVar[tuple[str, ...]] = ("lost", "sag", "is_on", "is_swapped")
    verbs: ClassVar[tuple[str, ...]] = ("lose", "restore", "sag", "off", "on", "swaplines")

    def __init__(self, plant: Plant, device: Device, place: int) -> None:
        super().__init__(plant, device, place)
        line_v = number(device, "v", 480.0)
        self.lines = [name for name in ("L1", "L2", "L3") if name in device.terminals]
        known = line_phasors(device)
        self.volts = [known[line] for line in self.lines]
        size = line_v / sqrt(3) / (number(device, "fault_ka", 50.0) * 1000)
        slope = plant.constants["source_x_over_r"]
        self.own = 1 / (complex(1, slope) * size / sqrt(1 + slope**2))
        earth = plant.node(device.id, "PE")
        plant.earthed.append(earth)
        # a system that no one grounded hangs on ground by its cables' capacitance alone
        self.floats = device.parameters.get("system") in {"delta", "ungrounded"}
        middle = plant.inner_node() if self.floats else -1
        if self.floats:
            self.charging = plant.branch(middle, earth)
        else:
            plant.earthed.append(plant.node(device.id, "N"))
        self.sources = [plant.source(plant.node(device.id, line), middle) for line in self.lines]

    def begin(self) -> None:
        """On, whole."""
        self.lost: list[str] = []
        self.sag = 1.0
        self.is_on = True
        self.is_swapped = False

    def rest(self, run: Run) -> None:
        """All lines live."""
        if self.floats:
            run.switch(self.charging, 1j * self.plant.constants["floating_charging_s"], 0.0)
        self._set(run)

    def _set(self, run: Run) -> None:
        volts = list(self.volts)
        if self.is_swapped:
            volts[0], volts[1] = volts[1], volts[0]
        for line, source, volt in zip(self.lines, self.sources, volts, strict=True):
            is_live = self.is_on and line not in self.lost
            run.feed(source, self.own if is_live else 0j, volt * self.sag)

    def act(self, run: Run, verb: str, word: str) -> bool:
        """Off, on, lose or restore a line, sag to a part, exchange two lines."""
        if verb in {"lose", "restore"}:
            if word not in self.lines:
                return False
            if verb == "lose" and word not in self.lost:
                self.lost = [*self.lost, word]
            if verb == "restore":
                self.lost = [line for line in self.lost if line != word]
        elif verb == "sag":
            self.sag = min(2.0, max(0.0, float(word)))
        elif verb in {"off", "on"}:
            self.is_on = verb == "on"
        elif verb == "swaplines":
            self.is_swapped = not self.is_swapped
        else:
            return False
        self._set(run)
        return True

    def word(self, run: Run) -> str:
        """Return ``on``, ``off``, ``lost`` or ``low``."""
        del run
        if not self.is_on:
            return "off"
        if self.lost:
            return "lost"
        return "on" if self.sag > 0.9 else "low"


class Source(Part):
    """A separate control source, alternating or direct, its N grounded."""

    kept: ClassVar[tuple[str, ...]] = ("is_on",)
    verbs: ClassVar[tuple[str, ...]] = ("off", "on")

    def __init__(self, plant: Plant, device: Device, place: int) -> None:
        super().__init__(plant, device, place)
        self.volt = number(device, "v", 120.0)
        live, back = plant.node(device.id, "L"), plant.node(device.id, "N")
        self.is_dc = device.parameters.get("kind") == "dc"
        self.source = plant.dc_source(live, back) if self.is_dc else plant.source(live)
        plant.earthed.append(back)

    def begin(self) -> None:
        """On."""
        self.is_on = True

    def rest(self, run: Run) -> None:
        """Feed, if it is on."""
        own = 1 / self.plant.constants["transformer_secondary_ohm"]
        if self.is_dc:
            run.feed_dc(self.source, own if self.is_on else 0.0, self.volt)
        else:
            run.feed(self.source, complex(own if self.is_on else 0), complex(self.volt))

    def act(self, run: Run, verb: str, word: str) -> bool:
        """Off and on."""
        del word
        if verb not in self.verbs:
            return False
        self.is_on = verb == "on"
        self.rest(run)
        return True

    def word(self, run: Run) -> str:
        """Return ``on`` or ``off``."""
        del run
        return "on" if self.is_on else "off"


def _sections(device: Device) -> list[float]:
    """Return the volts of each primary section between its ends [V]."""
    taps = [0.0, *primary_taps(device.parameters).values()]
    if len(taps) > 1:
        return [high - low for low, high in itertools.pairwise(taps)]
    return [number(device, "prim", 240.0)] * 2


class Transformer(Part):
    """A control transformer: a primary of two halves, or tapped, and a secondary on one core."""

    kept: ClassVar[tuple[str, ...]] = ("is_saturated", "since")

    def __init__(self, plant: Plant, device: Device, place: int) -> None:
        super().__init__(plant, device, place)
        known = plant.constants
        second = number(device, "sec", 120.0)
        primary = _sections(device)
        # a section's copper goes with its part of the whole winding, two halves of 240 V in all
        whole = sum(primary)
        resistance = [
            known["transformer_primary_ohm"] * 2 * (whole / 480) ** 2 * one / whole
            for one in primary
        ]
        resistance.append(known["transformer_secondary_ohm"] * (second / 120) ** 2)
        self.rated = [*primary, second]
        turns = [volts / 120 for volts in self.rated]
        leakage = known["transformer_leakage_part"]
        matrix = [
            [
                1j * known["transformer_magnetising_ohm"] * turns[row] * turns[column]
                + (complex(1, leakage) * resistance[row] if row == column else 0)
                for column in range(len(turns))
            ]
            for row in range(len(turns))
        ]
        ends = [
            (plant.node(device.id, link.a), plant.node(device.id, link.b)) for link in self.links
        ]
        plant.block(ends, matrix, resistance)
        self.sections = [(link.a, link.b) for link in self.links[:-1]]
        self.cores = [plant.branch(*pair) for pair in ends[:-1]]
        self.saturated = [
            complex(1, 1) * known["transformer_saturated_ohm"] * (one / 240) ** 2 for one in primary
        ]

    def begin(self) -> None:
        """Not saturated."""
        self.is_saturated = False
        self.since = -1

    def observe(self, run: Run) -> None:
        """See the core: far above its volts it saturates, and its primary current goes up."""
        known = self.plant.constants
        most = max(
            self.volts_across(run, *pair) / rated
            for pair, rated in zip(self.sections, self.rated, strict=False)
        )
        level = known["transformer_unsaturates" if self.is_saturated else "transformer_saturates"]
        # the current itself takes volts away: at one instant it goes only one way
        if (most >= level) == self.is_saturated or (self.is_saturated and run.time <= self.since):
            return
        self.is_saturated, self.since = not self.is_saturated, run.time
        for branch, saturated in zip(self.cores, self.saturated, strict=True):
            run.switch(branch, 1 / saturated if self.is_saturated else 0j, 0.0)
        if self.is_saturated:
            run.tell(self, "core", "saturated")

    def tells(self, run: Run) -> dict[str, str]:
        """Return the secondary's volts in percent of the rated ones."""
        part = self.volts_across(run, "X1", "X2") / self.rated[-1]
        return {"sec": f"{part * 100:.0f}"}


class Autotransformer(Part):
    """A starting autotransformer: four sections a leg on one core each."""

    def __init__(self, plant: Plant, device: Device, place: int) -> None:
        super().__init__(plant, device, place)
        known = plant.constants
        magnetising = number(device, "mag", known["autotransformer_magnetising_ohm"])
        taps = taps_of(device.parameters)
        levels = [int(tap) / 100 for tap in taps]
        parts = [high - low for low, high in itertools.pairwise(levels)]
        own = known["autotransformer_ohm"]
        for leg in device.parameters.get("legs", "ABC"):
            matrix = [
                [
                    1j * magnetising * parts[row] * parts[column]
                    + (complex(own, own) * parts[row] if row == column else 0)
                    for column in range(len(parts))
                ]
                for row in range(len(parts))
            ]
            ends = [
                (plant.node(device.id, f"{leg}{low}"), plant.node(device.id, f"{leg}{high}"))
                for low, high in itertools.pairwise(taps)
            ]
            plant.block(ends, matrix, [own * part for part in parts])


class Resistor(Part):
    """A resistor."""

    def __init__(self, plant: Plant, device: Device, place: int) -> None:
        super().__init__(plant, device, place)
        self.branch = plant.branch(plant.node(device.id, "1"), plant.node(device.id, "2"))

    def rest(self, run: Run) -> None:
        """Put it there for good."""
        run.switch(self.branch, 1 / max(number(self.device, "r", 20.0), 1e-3))


class Rectifier(Part):
    """A rectifier or direct-current supply: what is fed on one side drives the other."""

    kept: ClassVar[tuple[str, ...]] = ("is_fed",)

    def __init__(self, plant: Plant, device: Device, place: int) -> None:
        super().__init__(plant, device, place)
        first = self.links[0]
        self.ends = (first.a, first.b)
        self.branch = plant.branch(plant.node(device.id, first.a), plant.node(device.id, first.b))
        self.source = plant.dc_source(plant.node(device.id, "+"), plant.node(device.id, "-"))
        self.rated_v = number(device, "v", 120.0)
        self.out_v = number(device, "vdc", 24.0)
        if device.type == "psu":
            plant.earthed.append(plant.node(device.id, "-"))

    def begin(self) -> None:
        """Not fed."""
        self.is_fed = False

    def rest(self, run: Run) -> None:
        """Put a light load on the alternating side."""
        run.switch(self.branch, 50 / self.rated_v**2, 0.0)
        run.feed_dc(self.source, 0.0, self.out_v)

    def observe(self, run: Run) -> None:
        """Drive the direct side while half the volts are there."""
        one, other = (self.plant.node(self.id, end) for end in self.ends)
        volts = run.solution.volts
        is_fed = abs(volts[one] - volts[other]) >= 0.5 * self.rated_v
        if is_fed != self.is_fed:
            self.is_fed = is_fed
            own = 1 / self.plant.constants["rectifier_ohm"]
            run.feed_dc(self.source, own if is_fed else 0.0, self.out_v)
            run.tell(self, "output", "live" if is_fed else "dead")

    def word(self, run: Run) -> str:
        """Return ``on`` or ``off``."""
        del run
        return "on" if self.is_fed else "off"
