"""Timers: on-delay, off-delay, star-delta.

Source: IEC 61812-1 (functions of time relays).
"""

from __future__ import annotations

from typing import ClassVar

from evencoil.circuit import Device
from evencoil.solver.parts.base import Part, number
from evencoil.solver.parts.coils import coil_admittance
from evencoil.solver.plant import Plant
from evencoil.solver.run import Run

__all__ = ["StarDeltaTimer", "Timer"]


class _Timed(Part):
    """An electronic input of a few VA that reads open on an ohmmeter."""

    kept: ClassVar[tuple[str, ...]] = ("is_fed", "next_at", "stage", "begun_by")

    def __init__(self, plant: Plant, device: Device, place: int) -> None:
        super().__init__(plant, device, place)
        self.ends = (plant.node(device.id, "A1"), plant.node(device.id, "A2"))
        self.input = plant.branch(*self.ends)
        self.rated_v = number(device, "coil", 120.0)
        self.own = coil_admittance(
            self.rated_v,
            number(device, "sealed_va", 2.0),
            plant.constants["coil_resistance_part"],
        )

    def begin(self) -> None:
        """Not fed, contacts at rest."""
        self.is_fed = False
        self.next_at = -1
        self.stage = "off"
        self.begun_by: int | None = None

    def rest(self, run: Run) -> None:
        """Contacts at rest, the input always there."""
        super().rest(run)
        run.switch(self.input, self.own, 0.0)

    def due(self) -> int | None:
        """Return when the next stage begins."""
        return self.next_at if self.next_at >= 0 else None

    def sees(self, run: Run) -> bool | None:
        """Return whether it is fed now, None if that did not change."""
        known = self.plant.constants
        one, other = self.ends
        part = abs(run.solution.volts[one] - run.solution.volts[other])
        if run.solution.steady is not None:
            part = max(part, abs(run.solution.steady[one] - run.solution.steady[other]))
        part /= self.rated_v
        is_fed = part >= known["coil_drop_out" if self.is_fed else "coil_pick_up"]
        if is_fed == self.is_fed:
            return None
        self.is_fed = is_fed
        self.begun_by = run.tell(self, "coil", "fed" if is_fed else "dead")
        return is_fed

    def close(self, run: Run, wanted: set[str]) -> None:
        """Close the named contacts and open the others."""
        for link in self.links:
            if link.name not in self.branches:
                continue
            is_closed = link.name in wanted
            if self.put(run, link, is_closed=is_closed):
                run.tell(self, link.name, "closed" if is_closed else "open")

    def word(self, run: Run) -> str:
        """Return ``1`` while it is fed."""
        del run
        return "1" if self.is_fed else "0"


class Timer(_Timed):
    """On-delay or off-delay, with instant contacts beside the timed ones."""

    def begin(self) -> None:
        """Stages: off, timing, on; the response of the electronics comes first."""
        super().begin()
        self.is_off_delay = self.device.parameters.get("fn") == "off"
        self.delay_us = round(number(self.device, "t", 5.0) * 1e6)

    def _contacts(self, *, is_instant: bool, is_timed: bool) -> set[str]:
        found = set()
        for link in self.links:
            is_on = is_timed if link.kind.startswith("timed") else is_instant
            if link.name in self.branches and is_on == (link.kind in {"no", "timed_no"}):
                found.add(link.name)
        return found

    def observe(self, run: Run) -> None:
        """Begin or break off timing when the input changes."""
        is_fed = self.sees(run)
        if is_fed is None:
            return
        self.stage = "fed" if is_fed else "let_go"
        self.next_at = run.time + int(self.plant.constants["timer_response_us"])

    def fire(self, run: Run) -> None:
        """Pass to the next stage."""
        run.cause = self.begun_by
        self.next_at = -1
        rest = self.delay_us - int(self.plant.constants["timer_response_us"])
        if self.stage == "fed":
            is_timed = self.is_off_delay
            self.stage = "on" if is_timed else "timing"
            self.close(run, self._contacts(is_instant=True, is_timed=is_timed))
            if not is_timed:
                self.next_at = run.time + max(0, rest)
        elif self.stage == "let_go":
            self.stage = "timing" if self.is_off_delay else "off"
            self.close(run, self._contacts(is_instant=False, is_timed=self.is_off_delay))
            if self.is_off_delay:
                self.next_at = run.time + max(0, rest)
        elif self.stage == "timing":
            self.stage = "off" if self.is_off_delay else "on"
            self.begun_by = run.tell(self, "time", "over")
            self.close(
                run,
                self._contacts(is_instant=not self.is_off_delay, is_timed=not self.is_off_delay),
            )


class StarDeltaTimer(_Timed):
    """Star contact at once, opens after its time; delta contact after the pause."""

    def begin(self) -> None:
        """Both contacts open while it is not fed."""
        super().begin()
        self.star_us = round(number(self.device, "t", 8.0) * 1e6)
        self.pause_us = round(number(self.device, "pause", 0.05) * 1e6)

    def rest(self, run: Run) -> None:
        """Neither contact is closed without volts."""
        super().rest(run)
        for link in self.links:
            if link.name in self.branches:
                self.put(run, link, is_closed=False)

    def observe(self, run: Run) -> None:
        """Begin with star, or open everything."""
        is_fed = self.sees(run)
        if is_fed is None:
            return
        self.stage = "fed" if is_fed else "let_go"
        self.next_at = run.time + int(self.plant.constants["timer_response_us"])

    def fire(self, run: Run) -> None:
        """Pass to the next stage."""
        run.cause = self.begun_by
        self.next_at = -1
        if self.stage == "fed":
            self.stage = "star"
            self.close(run, {"17-18"})
            response = int(self.plant.constants["timer_response_us"])
            self.next_at = run.time + max(0, self.star_us - response)
        elif self.stage == "star":
            self.stage = "pause"
            self.begun_by = run.tell(self, "time", "over")
            self.close(run, set())
            self.next_at = run.time + self.pause_us
        elif self.stage == "pause":
            self.stage = "delta"
            self.begun_by = run.tell(self, "pause", "over")
            self.close(run, {"17-28"})
        elif self.stage == "let_go":
            self.stage = "off"
            self.close(run, set())

    def word(self, run: Run) -> str:
        """Return ``off``, ``star``, ``pause`` or ``delta``."""
        del run
        return {"fed": "star", "let_go": "off"}.get(self.stage, self.stage)
