"""Coils that move contacts: contactors and relays with their travel.

The armature's way runs from 0 (out) to 1 (in). Each kind of contact changes at
its own place of that way, so early-make, late-break and the race between two
contactors come out by themselves. Times: `data/constants.json`.

Source: IEC 60947-4-1 8.2.1.2 (limits of operation), annex F (mirror contacts).
"""

from __future__ import annotations

from math import ceil
from typing import ClassVar

from evencoil.circuit import Device, Link
from evencoil.solver.parts.base import Part, number
from evencoil.solver.plant import Plant
from evencoil.solver.run import Run

__all__ = ["Armature", "CoilPart", "Contactor", "Latch", "coil_admittance"]

_EPS = 1e-9


def coil_admittance(volts_v: float, power_va: float, resistance_part: float) -> complex:
    """Return the admittance of a coil.

    Parameters
    ----------
    volts_v : float
        Rated volts. [V]
    power_va : float
        Apparent power at rated volts. [VA]
    resistance_part : float
        Resistance as a part of the impedance.

    Returns
    -------
    complex
        [S]
    """
    size = volts_v**2 / max(power_va, 1e-6)
    part = min(max(resistance_part, 0.0), 1.0)
    return 1 / complex(size * part, size * (1 - part**2) ** 0.5)


def _on_grid(time: float, grid: float) -> int:
    return int(ceil(time / grid - _EPS) * grid)


class CoilPart:
    """One coil of a device: two admittances, and whether it is energized."""

    __slots__ = ("branch", "ends", "inrush", "is_open", "ohm", "rated_v", "sealed")

    def __init__(self, plant: Plant, device: Device, link: Link) -> None:
        known = plant.constants
        self.ends = (plant.node(device.id, link.a), plant.node(device.id, link.b))
        self.branch = plant.branch(*self.ends)
        self.rated_v = number(device, "coil", 120.0)
        sealed = number(device, "sealed_va", 10.0)
        self.sealed = coil_admittance(self.rated_v, sealed, known["coil_resistance_part"])
        self.inrush = coil_admittance(
            self.rated_v,
            number(device, "inrush_va", sealed),
            known["inrush_power_factor"],
        )
        self.ohm = self.rated_v**2 / sealed * known["coil_resistance_part"]
        if device.parameters.get("coil_kind") == "dc":
            # a direct-current coil draws the same watts pulled in or not
            self.ohm = self.rated_v**2 / sealed
            self.sealed = self.inrush = 1 / self.ohm
        # read on the bench with the coil by itself: what an ohmmeter will show again
        self.ohm = number(device, "coil_ohm") or self.ohm
        self.is_open = False

    def part_of_rated(self, run: Run) -> float:
        """Return its volts as a part of the rated ones."""
        one, other = self.ends
        solved = run.solution
        found = abs(solved.volts[one] - solved.volts[other])
        if solved.steady is not None:
            found = max(found, abs(solved.steady[one] - solved.steady[other]))
        return found / self.rated_v

    def put(self, run: Run, *, is_sealed: bool) -> None:
        """Set its admittance: as while pulling in, or sealed."""
        if self.is_open:
            run.switch(self.branch, 0.0, 0.0)
            return
        run.switch(self.branch, self.sealed if is_sealed else self.inrush, 1 / self.ohm)


class Armature(Part):
    """A coil, an armature on its way, contacts at places of that way."""

    kept: ClassVar[tuple[str, ...]] = (
        "at",
        "since",
        "move",
        "waits",
        "is_fed",
        "is_welded",
        "is_held",
        "flips",
        "arc_until",
        "coil_open",
        "begun_by",
        "haste",
    )
    verbs: ClassVar[tuple[str, ...]] = (
        "weld",
        "unweld",
        "hold_out",
        "open_coil",
        "push_in",
        "let_go",
    )
    in_key, out_key = "relay_in_us", "relay_out_us"

    def __init__(self, plant: Plant, device: Device, place: int) -> None:
        super().__init__(plant, device, place)
        known = plant.constants
        coil = next(link for link in self.links if link.kind == "coil")
        self.coil = CoilPart(plant, device, coil)
        self.t_in = number(device, "tpu") * 1e6 or known[self.in_key]
        self.t_out = number(device, "tdo") * 1e6 or known[self.out_key]
        self.places = {
            "no_early": known["at_early_make"],
            "nc": known["at_break"],
            "no": known["at_make"],
            "pole": known["at_make"],
            "nc_late": known["at_late_break"],
        }
        self.partners = [tag for tag in device.parameters.get("mech", "").split("+") if tag]
        marks = {self.places[link.kind] for link in self.links if link.kind in self.places}
        if self.partners:
            marks.add(known["at_blocked"])
        self.marks = sorted(marks | {0.0, 1.0})

    def begin(self) -> None:
        """Out, without volts."""
        self.at = 0.0
        self.since = 0
        self.move = 0
        self.waits: list[int] = []
        self.is_fed = False
        self.is_welded = False
        self.is_held = False
        self.coil_open = False
        self.flips: list[int] = []
        self.arc_until = -1
        self.begun_by: int | None = None
        # a coil on far too many volts snaps in; times shrink as the volts grow
        self.haste = 1.0

    def _in_us(self) -> float:
        return self.t_in * self.haste

    def rest(self, run: Run) -> None:
        """Contacts at rest, the coil ready to pull in."""
        super().rest(run)
        self.coil.is_open = False
        self.coil.put(run, is_sealed=False)

    def load(self, values: list[object]) -> None:
        """Take a state back, the coil's own included."""
        super().load(values)
        self.coil.is_open = self.coil_open

    def now_at(self, time: int) -> float:
        """Return the place of the armature at a time [us]."""
        if not self.move:
            return self.at
        way = (time - self.since) / (self._in_us() if self.move > 0 else self.t_out)
        return min(1.0, max(0.0, self.at + way * self.move))

    def _next_mark(self) -> float | None:
        if self.move > 0:
            return next((mark for mark in self.marks if mark > self.at + _EPS), None)
        if self.move < 0:
            if self.is_welded:
                stuck = self.plant.constants["at_welded"]
                higher = [mark for mark in self.marks if stuck < mark < self.at - _EPS]
                return higher[-1] if higher else stuck
            return next((mark for mark in reversed(self.marks) if mark < self.at - _EPS), None)
        return None

    def due(self) -> int | None:
        """Return the next of: magnetic delay over, a mark reached, an arc out."""
        found = []
        if self.waits:
            found.append(self.waits[0])
        mark = self._next_mark()
        if mark is not None:
            time = self.since + abs(mark - self.at) * (
                self._in_us() if self.move > 0 else self.t_out
            )
            found.append(_on_grid(time, self.plant.constants["grid_us"]))
        if self.arc_until >= 0:
            found.append(self.arc_until)
        return min(found) if found else None

    def fire(self, run: Run) -> None:
        """Start to move, pass a mark, or let an arc die."""
        run.cause = self.begun_by
        if 0 <= self.arc_until <= run.time:
            self._part_poles(run)
        if self.waits and self.waits[0] <= run.time:
            way = self.waits[1]
            self.waits = []
            self._start(run, way)
            return
        mark = self._next_mark()
        due = self.due()
        if mark is None or due is None or due > run.time:
            return
        self.at, self.since = mark, run.time
        stuck = self.plant.constants["at_welded"]
        if (self.move < 0 and self.is_welded and mark <= stuck + _EPS) or (
            self.move > 0 and self._is_stopped_at(run, mark)
        ):
            self.move = 0
        elif mark in {0.0, 1.0}:
            self.move = 0
            self.coil.put(run, is_sealed=mark == 1.0)
            run.tell(self, "armature", "in" if mark == 1.0 else "out")
        self._set_contacts(run)

    def _is_stopped_at(self, run: Run, mark: float) -> bool:
        """Tell whether the mechanical interlock holds it back."""
        bar = self.plant.constants["at_blocked"]
        if not self.partners or mark > bar + _EPS:
            return False
        for tag in self.partners:
            other = run.plant.part_of.get(tag)
            if not isinstance(other, Armature):
                continue
            there = other.now_at(run.time)
            if there > bar + _EPS or (there > bar - _EPS and other.place < self.place):
                return True
        return False

    def _start(self, run: Run, way: int) -> None:
        here = self.now_at(run.time)
        if way > 0 and (self.is_held or self._is_stopped_at(run, here)):
            self.at, self.since, self.move = here, run.time, 0
            return
        if (way > 0 and here >= 1) or (way < 0 and here <= 0):
            self.at, self.since, self.move = here, run.time, 0
            return
        if self.at >= 1 and way < 0:
            # the gap opens: until it is sealed again the coil draws its inrush
            self.coil.put(run, is_sealed=False)
        self.at, self.since, self.move = here, run.time, way

    def _set_contacts(self, run: Run) -> None:
        here = self.at
        for link in self.links:
            place = self.places.get(link.kind)
            if place is None:
                continue
            # at the very place: passed on the way in, not yet passed on the way out
            is_past = here >= place - _EPS if self.move >= 0 else here > place + _EPS
            if here >= 1:
                is_past = True
            if here <= 0:
                is_past = False
            self._set_one(run, link, is_past=is_past)

    def _set_one(self, run: Run, link: Link, *, is_past: bool) -> None:
        is_closed = is_past == (link.kind in {"no", "no_early", "pole"})
        if link.kind == "pole":
            if self.is_welded:
                is_closed = True
            elif is_closed:
                self.arc_until = -1
            elif self.is_closed(run, link.name):
                if self.arc_until < 0:
                    self.arc_until = run.time + int(self.plant.constants["arc_us"])
                return
        if self.put(run, link, is_closed=is_closed):
            run.tell(self, link.name, "closed" if is_closed else "open")

    def _part_poles(self, run: Run) -> None:
        """Let the arcs between the parted poles die."""
        self.arc_until = -1
        for link in self.links:
            if link.kind == "pole" and not self.is_welded and self.put(run, link, is_closed=False):
                run.tell(self, link.name, "open")

    def observe(self, run: Run) -> None:
        """See the coil's volts: pull in at 85 %, let go below 50 %."""
        known = self.plant.constants
        # an open winding pulls nothing, whatever volts stand on its ends
        part = 0.0 if self.coil_open else self.coil.part_of_rated(run)
        is_fed = part >= known["coil_drop_out"] if self.is_fed else part >= known["coil_pick_up"]
        if is_fed != self.is_fed:
            self.is_fed = is_fed
            self.flips = [*self.flips, run.time][-int(known["chatter_count"]) :]
            self.begun_by = run.tell(self, "coil", "fed" if is_fed else "dead")
            self.haste = 1 / part if part > known["coil_over"] else 1.0
            delay = known["magnetic_delay_us"] * (self.haste if is_fed else 1.0)
            self.waits = [run.time + _on_grid(delay, known["grid_us"]), 1 if is_fed else -1]
            if self.move == (1 if is_fed else -1):
                self.waits = []
        elif is_fed and not self.waits and self.move == 0 and self.now_at(run.time) < 1:
            if self.is_held or self._is_stopped_at(run, self.now_at(run.time)):
                return
            if self.at < 1 - _EPS:
                self._start(run, 1)

    def _by_hand(self, run: Run, *, is_in: bool) -> None:
        """Push the armature in on a dead panel, every contact as if it had pulled in; let it go."""
        if is_in or not self.is_fed:
            self.at, self.since, self.move, self.waits = float(is_in), run.time, 0, []

    def act(self, run: Run, verb: str, word: str) -> bool:
        """Weld the poles, hold the armature out or push it in, burn the coil open."""
        del word
        if verb == "weld":
            self.is_welded = True
            stuck = self.plant.constants["at_welded"]
            if self.now_at(run.time) < stuck:
                self.at, self.since, self.move = stuck, run.time, 0
            self.arc_until = -1
        elif verb == "unweld":
            self.is_welded = False
            if not self.is_fed and self.at > 0 and self.move == 0:
                self.since, self.move = run.time, -1
        elif verb == "hold_out":
            self.is_held = True
            if not self.is_fed:
                return True
            self.at, self.since, self.move = self.now_at(run.time), run.time, -1
        elif verb in {"push_in", "let_go"}:
            self._by_hand(run, is_in=verb == "push_in")
        elif verb == "open_coil":
            self.coil_open = self.coil.is_open = True
            self.coil.put(run, is_sealed=False)
            return True
        else:
            return False
        self._set_contacts(run)
        return True

    def is_chattering(self, time: int) -> bool:
        """Tell whether the coil switched six or more times in the last quarter second."""
        known = self.plant.constants
        many = int(known["chatter_count"])
        return len(self.flips) >= many and time - self.flips[-many] <= known["chatter_window_us"]

    def word(self, run: Run) -> str:
        """Return ``1``, ``0``, ``moving``, ``buzz``, ``chatter`` or ``welded``."""
        if self.is_chattering(run.time):
            return "chatter"
        here = self.now_at(run.time)
        part = self.coil.part_of_rated(run)
        if self.is_welded and here < 1 and not self.move:
            return "welded" if part < self.plant.constants["coil_buzz"] else "buzz"
        if here >= 1:
            return "1"
        if self.move or self.waits:
            return "moving"
        if part >= self.plant.constants["coil_buzz"]:
            return "buzz"
        return "0"

    def tells(self, run: Run) -> dict[str, str]:
        """Return the coil's volts in percent, or ``over``."""
        part = self.coil.part_of_rated(run)
        return {"coil": "over" if part > self.plant.constants["coil_over"] else f"{part * 100:.0f}"}


class Contactor(Armature):
    """A three-pole contactor: heavier, with arcs at its poles."""

    in_key, out_key = "contactor_in_us", "contactor_out_us"


class Latch(Armature):
    """A latching relay: set by A1-A2, reset by B1-B2, keeps its state without volts.

    Both coils at once: reset wins.
    """

    kept: ClassVar[tuple[str, ...]] = (*Armature.kept, "is_reset_fed")
    verbs: ClassVar[tuple[str, ...]] = ()

    def __init__(self, plant: Plant, device: Device, place: int) -> None:
        super().__init__(plant, device, place)
        link = [item for item in self.links if item.kind == "coil"][1]
        self.back = CoilPart(plant, device, link)

    def begin(self) -> None:
        """Reset."""
        super().begin()
        self.is_reset_fed = False

    def rest(self, run: Run) -> None:
        """As every armature, with the second coil."""
        super().rest(run)
        self.back.put(run, is_sealed=True)

    def observe(self, run: Run) -> None:
        """Move in on A1-A2, out on B1-B2, stay otherwise."""
        known = self.plant.constants
        pick = known["coil_pick_up"]
        is_reset = self.back.part_of_rated(run) >= pick
        is_set = not is_reset and self.coil.part_of_rated(run) >= pick
        if (is_set, is_reset) == (self.is_fed, self.is_reset_fed):
            return
        self.is_fed, self.is_reset_fed = is_set, is_reset
        if is_set or is_reset:
            self.begun_by = run.tell(self, "coil", "set" if is_set else "reset")
            self.waits = [run.time + int(known["magnetic_delay_us"]), 1 if is_set else -1]
