"""The programmable relay in time: power, input filters, scans, outputs that take their time.

At one instant: contacts that are due, acts from outside, filters, the scan. A scan works on what
the filters hold, and what it commands reaches the contacts after their own time.

Units: [ms].
Source: docs/logic.md; figures of filters and contacts are choices of the model.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Any

from evencoil.logic.machine import Fault, Machine, Value
from evencoil.logic.meaning import Checked

__all__ = ["Relay", "RelayTimes"]


@dataclass(frozen=True, slots=True, kw_only=True)
class RelayTimes:
    """How long things take in a relay [ms].

    Attributes
    ----------
    boot : int
        From power to the first scan. [ms]
    scan : int
        From scan to scan. [ms]
    filter : int
        How long an input has to hold a level. [ms]
    on, off : int
        From a command to its contact. [ms]
    drop : int
        From the loss of its supply to open contacts. [ms]
    """

    boot: int
    scan: int
    filter: int
    on: int
    off: int
    drop: int


class Relay:
    """A relay with its program: levels in, contacts out.

    Parameters
    ----------
    checked : Checked
        Its program.
    times : RelayTimes
        How long things take. [ms]
    per_ms : int
        How many units of its clock are a millisecond: the clock of a rehearsal runs in us.
    may_skip : bool
        Leave out scans that can change nothing: what was scanned without a change is scanned
        again when an input changes, or a timer is over.
    """

    def __init__(
        self,
        checked: Checked,
        times: RelayTimes,
        *,
        per_ms: int = 1,
        may_skip: bool = False,
    ) -> None:
        """Make a relay without supply."""
        self.machine = Machine(checked)
        self.per_ms, self.may_skip = per_ms, may_skip
        self.times = RelayTimes(
            **{name: getattr(times, name) * per_ms for name in RelayTimes.__slots__}
        )
        self.is_on = False
        self.next_scan: int | None = None
        #: None until it has scanned since its supply came
        self.last_scan: int | None = None
        self.is_resting = False
        #: raw level, and the level that the filter has taken, by point
        self.levels: dict[str, Value] = {}
        self.taken: dict[str, Value] = {}
        #: changes that the filters are still holding back: when they are taken
        self.filters: dict[str, int] = {}
        self.contacts = {f"Q{n + 1}": False for n in range(checked.points.outputs)}
        self._commands = dict(self.contacts)
        #: contacts under way: when, and to what
        self.moves: dict[str, tuple[int, bool]] = {}
        self.stuck: dict[str, bool] = {}
        self._retained: tuple[Any, ...] | None = None

    def power(self, now: int, *, is_on: bool) -> None:
        """Give or take the supply.

        Parameters
        ----------
        now : int
            When. [ms]
        is_on : bool
            True if its supply is good.
        """
        if is_on == self.is_on:
            return
        self.is_on = is_on
        if is_on:
            self.machine.start(self._retained)
            self.next_scan, self.last_scan = now + self.times.boot, None
            self.is_resting = False
            self.taken = {}
            self.filters = {
                name: now + self.times.filter for name, level in self.levels.items() if level
            }
            return
        # the last whole scan is what is kept
        self._retained = self.machine.retained()
        self.next_scan = None
        self.is_resting = False
        self.filters = {}
        self._commands = dict.fromkeys(self._commands, False)
        self._move(now, self.times.drop)

    def level(self, now: int, name: str, value: Value) -> None:
        """Tell the relay what stands at an input.

        Parameters
        ----------
        now : int
            When. [ms]
        name : str
            Point, as I1 or AI1.
        value : bool or int
            Raw level; an analog input has no filter.
        """
        if self.levels.get(name, False) == value:
            return
        self.levels[name] = value
        if not self.is_on:
            return
        if name.startswith("AI"):
            self.filters[name] = now
        elif bool(self.taken.get(name, False)) == bool(value):
            self.filters.pop(name, None)
        else:
            self.filters[name] = now + self.times.filter

    def due(self, behind: int = 0) -> int | None:
        """Return when something happens by itself next; None if nothing will [ms].

        Parameters
        ----------
        behind : int
            How far filters and scans are put behind their instant, for a caller whose own acts of
            that instant come one after the other. [ms]
        """
        times = [when for when, _ in self.moves.values()]
        times += [when + behind for when in self.filters.values()]
        if self.next_scan is not None:
            times.append(self.next_scan + behind)
        return min(times, default=None)

    def contacts_due(self, now: int) -> list[str]:
        """Move the contacts whose time has come, and return which moved.

        Parameters
        ----------
        now : int
            When. [ms]
        """
        done = [name for name, (when, _) in self.moves.items() if when <= now]
        for name in done:
            _, self.contacts[name] = self.moves.pop(name)
        return done

    def work(self, now: int) -> bool:
        """Take what the filters let through, and scan if it is time; True if it was scanned.

        Parameters
        ----------
        now : int
            When. [ms]
        """
        for name in [name for name, when in self.filters.items() if when <= now]:
            del self.filters[name]
            self.taken[name] = self.levels.get(name, False)
            self._wake(now)
        if self.next_scan is None or now < self.next_scan:
            return False
        clock = self.next_scan
        self.last_scan = clock
        self.next_scan += self.times.scan
        if self.machine.fault is not None:
            return True
        for name, level in self.taken.items():
            self.machine.give(name, level if name.startswith("AI") else bool(level))
        before = self.machine.settled() if self.may_skip else None
        self.machine.scan(clock // self.per_ms)
        if self.may_skip and before == self.machine.settled():
            self._rest()
        is_whole = self.machine.fault is None
        for name in self._commands:
            self._commands[name] = is_whole and bool(self.machine.value(name))
        self._move(now, None)
        return True

    def is_closed(self, name: str) -> bool:
        """Tell whether the contact of an output is closed, stuck ones as they are.

        Parameters
        ----------
        name : str
            Output, as Q1.
        """
        return self.stuck.get(name, self.contacts[name])

    def _rest(self) -> None:
        """Put the next scan off to when a timer is over; for ever if none runs."""
        over = self.machine.over_at()
        self.is_resting = True
        self.next_scan = None if over is None else self._on_grid(over * self.per_ms)

    def _wake(self, now: int) -> None:
        """Scan again from the first instant of its own at or after now."""
        if self.is_resting:
            self.is_resting = False
            self.next_scan = self._on_grid(now)

    def _on_grid(self, when: int) -> int:
        """Return the first instant of a scan at or after another, behind the last scan."""
        last = self.last_scan or 0
        steps = max(1, math.ceil((when - last) / self.times.scan))
        return last + steps * self.times.scan

    def save(self) -> list[Any]:
        """Return everything as plain values."""
        values, blocks, fault = self.machine.state()
        return [
            self.is_on,
            self.next_scan,
            self.last_scan,
            self.is_resting,
            dict(self.levels),
            dict(self.taken),
            dict(self.filters),
            dict(self.contacts),
            dict(self._commands),
            {name: list(move) for name, move in self.moves.items()},
            dict(self.stuck),
            list(values),
            [list(block) for block in blocks],
            None if fault is None else [fault.what, fault.line],
            None
            if self._retained is None
            else [list(self._retained[0]), [list(one) for one in self._retained[1]]],
        ]

    def load(self, kept: list[Any]) -> None:
        """Take everything back.

        Parameters
        ----------
        kept : list
            As `save` gave it.
        """
        (
            self.is_on,
            self.next_scan,
            self.last_scan,
            self.is_resting,
            levels,
            taken,
            filters,
            contacts,
            commands,
            moves,
            stuck,
            values,
            blocks,
            fault,
            retained,
        ) = kept
        self.levels, self.taken, self.filters = dict(levels), dict(taken), dict(filters)
        self.contacts, self._commands, self.stuck = dict(contacts), dict(commands), dict(stuck)
        self.moves = {name: (when, wanted) for name, (when, wanted) in moves.items()}
        told = None if fault is None else Fault(*fault)
        self.machine.restore((tuple(values), tuple(tuple(one) for one in blocks), told))
        self._retained = (
            None
            if retained is None
            else (tuple(retained[0]), tuple(tuple(one) for one in retained[1]))
        )

    def _move(self, now: int, delay: int | None) -> None:
        """Send contacts to where they are commanded; a command taken back before cancels."""
        for name, wanted in self._commands.items():
            under_way = self.moves.get(name)
            if under_way is not None and under_way[1] == wanted and delay is None:
                continue
            if self.contacts[name] == wanted:
                self.moves.pop(name, None)
                continue
            after = delay if delay is not None else self.times.on if wanted else self.times.off
            self.moves[name] = (now + after, wanted)
