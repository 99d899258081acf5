"""The programmable relay in a circuit: volts to levels, its program, contacts.

An input is on at a part of its rated volts, off at a smaller one, between as it was; the supply
is lost below another. Contacts, filters and scans are events like those of any other part.

Source: IEC 61131-2 (levels of inputs); figures are choices of the model.
"""

from __future__ import annotations

from functools import cached_property
from typing import Any, ClassVar

from evencoil.circuit import Device, commons_of, program_of
from evencoil.logic import LiveProgram, Relay, RelayTimes
from evencoil.solver.parts.base import Part, number
from evencoil.solver.plant import Plant
from evencoil.solver.run import Run

__all__ = ["ProgrammableRelay"]

_US = 1000
#: filters and scans come behind everything else of their instant: two hands at once are one look
_BEHIND_US = 1


class ProgrammableRelay(Part):
    """A relay that scans; one without a program closes nothing."""

    verbs: ClassVar[tuple[str, ...]] = ("stuck", "force", "free")
    is_quiet: ClassVar[bool] = True

    def __init__(self, plant: Plant, device: Device, place: int) -> None:
        known = plant.constants
        told = device.parameters.get("filter", "")
        self.relay = Relay(
            program_of(device),
            RelayTimes(
                boot=int(known["plc_boot_us"]) // _US,
                scan=round(number(device, "scan", 10.0)),
                filter=int(told) if told else int(known["plc_filter_us"]) // _US,
                on=int(known["plc_on_us"]) // _US,
                off=int(known["plc_off_us"]) // _US,
                drop=int(known["plc_drop_us"]) // _US,
            ),
            per_ms=_US,
            may_skip=True,
        )
        self._at_rest = self.relay.save()
        super().__init__(plant, device, place)
        self.rated_v = number(device, "v", 120.0)
        self.hot, self.common = commons_of(device.parameters)
        self.supply = plant.branch(
            plant.node(device.id, self.hot), plant.node(device.id, self.common)
        )
        self.inputs = {
            link.name: plant.branch(plant.node(device.id, link.a), plant.node(device.id, link.b))
            for link in self.links
            if link.kind == "input"
        }

    def begin(self) -> None:
        """Without supply; outputs that someone forced are free."""
        self.relay.load(self._at_rest)
        #: what last came, and what last changed: an output closes on the first, opens on the second
        self.begun_by: int | None = None
        self.changed_by: int | None = None

    def rest(self, run: Run) -> None:
        """Open its outputs; its electronics read open on an ohmmeter."""
        super().rest(run)
        known = self.plant.constants
        # the same power at any rated volts, the same current in every input
        size = known["plc_supply_ohm"] * (self.rated_v / 120.0) ** 2
        run.switch(self.supply, complex(1 / size), 0.0)
        for branch in self.inputs.values():
            ohms = known["plc_input_ohm"] * self.rated_v / 120.0
            run.switch(branch, complex(1 / ohms), 0.0)

    def due(self) -> int | None:
        """Return when its next contact moves, a filter lets through, or it scans."""
        return self.relay.due(behind=_BEHIND_US)

    def phase(self) -> tuple[Any, ...]:
        """Return sampled inputs, contacts, and all of its program that outlives a scan.

        A timer counts by its phase: idle, timing or done.
        """
        relay = self.relay
        return (
            tuple(sorted(relay.taken.items())),
            tuple(relay.contacts.values()),
            tuple(relay.moves),
            tuple(relay.stuck.items()),
            relay.machine.phase(),
        )

    def fire(self, run: Run) -> None:
        """Contacts, filters, scan; what they did is told with the act that began it."""
        run.cause = self.changed_by
        self.relay.contacts_due(run.time)
        fault = self.relay.machine.fault
        if self.relay.work(run.time - _BEHIND_US):
            now = self.relay.machine.fault
            if now is not None and fault is None:
                self.changed_by = run.tell(self, "fault", f"{now.what}, line {now.line}")
        self.relay.contacts_due(run.time)
        self._put_all(run)

    def observe(self, run: Run) -> None:
        """Look at its supply and its inputs."""
        known = self.plant.constants
        part = self.volts_across(run, self.hot, self.common) / self.rated_v
        is_on = part >= known["plc_supply_part"]
        if is_on != self.relay.is_on:
            self._changed(run.tell(self, "supply", "on" if is_on else "off"), is_on=is_on)
            self.relay.power(run.time, is_on=is_on)
        for name in self.inputs:
            volts = self.volts_across(run, name, self.common)
            if name.startswith("AI"):
                self.relay.level(run.time, name, round(min(max(volts, 0.0), 10.0) * 100))
                continue
            part = volts / self.rated_v
            was = bool(self.relay.levels.get(name, False))
            # between the two it stays as it was
            is_high = part > known["plc_input_off"] if was else part >= known["plc_input_on"]
            if is_high != was:
                self._changed(run.tell(self, name, "1" if is_high else "0"), is_on=is_high)
                self.relay.level(run.time, name, is_high)

    def act(self, run: Run, verb: str, word: str) -> bool:
        """Hold an output: ``stuck 1`` is welded closed, ``force 1 open``; ``free 1`` lets go."""
        name, _, how = word.partition(" ")
        output = name if name.startswith("Q") else f"Q{name}"
        if output not in self.relay.contacts or how not in {"", "open", "closed"}:
            return False
        if verb == "free":
            self.relay.stuck.pop(output, None)
        else:
            self.relay.stuck[output] = how != "open"
        self.begun_by = self.changed_by = run.cause
        self._put_all(run)
        return True

    def _changed(self, event: int, *, is_on: bool) -> None:
        self.changed_by = event
        if is_on:
            self.begun_by = event

    def _put_all(self, run: Run) -> None:
        for link in self.links:
            if link.name not in self.branches:
                continue
            wanted = self.relay.is_closed(link.name)
            run.cause = self.begun_by if wanted else self.changed_by
            if self.put(run, link, is_closed=wanted):
                run.tell(self, link.name, "closed" if wanted else "open")

    def word(self, run: Run) -> str:
        """Return ``off``, ``boot``, ``run`` or ``fault``."""
        del run
        if not self.relay.is_on:
            return "off"
        if self.relay.machine.fault is not None:
            return "fault"
        return "boot" if self.relay.last_scan is None else "run"

    def tells(self, run: Run) -> dict[str, str]:
        """Return every input as it is taken, and every output as its contact is."""
        found = {name: "1" if self.relay.taken.get(name) else "0" for name in self.inputs}
        found |= {name: "1" if self.is_closed(run, name) else "0" for name in self.relay.contacts}
        return found

    @cached_property
    def live(self) -> LiveProgram:
        """What its program shows while it runs."""
        return LiveProgram(self.relay.machine.checked)

    @property
    def has_program_running(self) -> bool:
        """Tell whether it has scanned since its supply came: else its names are worth nothing."""
        return self.relay.is_on and self.relay.last_scan is not None

    def save(self) -> list[Any]:
        """Return the relay with its program's state and what is held."""
        return [self.relay.save(), self.begun_by, self.changed_by]

    def load(self, values: list[Any]) -> None:
        """Take a state back."""
        kept, self.begun_by, self.changed_by = values
        self.relay.load(kept)
