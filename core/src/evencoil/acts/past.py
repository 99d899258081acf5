"""Who had seen what: the entries kept so far, and the past of each.

Order is causality. An entry's past is everything it was based on, and everything those
were based on; two entries that are not in each other's past happened beside each other.
A refused entry keeps its place in that order, and its content never counts.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from functools import wraps
from typing import Any, Concatenate, ParamSpec, TypeVar

from evencoil.acts.model import Entry, Work

__all__ = ["Log", "View", "remembered"]

_P = ParamSpec("_P")
_R = TypeVar("_R")


@dataclass(slots=True)
class Log:
    """Everything that was received for one job.

    Attributes
    ----------
    works : list of Work
        What entries can be about, by revision; the first is revision 1.
    """

    works: list[Work]
    _entries: list[Entry] = field(default_factory=list)
    _place: dict[str, int] = field(default_factory=dict)
    _past: list[int] = field(default_factory=list)
    _counts: int = 0
    _superseded: int = 0
    #: what was found of a view, until another entry comes
    _found: dict[tuple[object, ...], Any] = field(default_factory=dict)
    _views: dict[tuple[int, int], View] = field(default_factory=dict)

    @property
    def rev(self) -> int:
        """Return the newest revision."""
        return len(self.works)

    @property
    def work(self) -> Work:
        """Return what there is today."""
        return self.works[-1]

    def add(self, entry: Entry, *, counts: bool = True, is_superseded: bool = False) -> None:
        """Keep an entry.

        Parameters
        ----------
        entry : Entry
            With an id that is not known yet.
        counts : bool
            False for a refused one: only its place in the order is kept.
        is_superseded : bool
            Stored and shown, changes nothing.
        """
        self._found.clear()
        self._views.clear()
        place = len(self._entries)
        past = 0
        for known in entry.based_on:
            before = self._place.get(known)
            if before is not None:
                past |= self._past[before] | 1 << before
        self._entries.append(entry)
        self._place[entry.id] = place
        self._past.append(past)
        if counts and not is_superseded:
            self._counts |= 1 << place
        if is_superseded:
            self._superseded |= 1 << place

    def knows(self, name: str) -> bool:
        """Tell whether an id was received, refused ones included."""
        return name in self._place

    def entry(self, name: str) -> Entry:
        """Return an entry by its id."""
        return self._entries[self._place[name]]

    def counts(self, name: str) -> bool:
        """Tell whether an entry's content counts."""
        return bool(self._counts >> self._place[name] & 1)

    def saw(self, one: Entry, other: Entry) -> bool:
        """Tell whether the first was made knowing the second."""
        return bool(self._past[self._place[one.id]] >> self._place[other.id] & 1)

    def are_beside(self, one: Entry, other: Entry) -> bool:
        """Tell whether neither knew of the other."""
        return one.id != other.id and not self.saw(one, other) and not self.saw(other, one)

    def heads(self) -> list[str]:
        """Return the newest entries: what names them has seen everything before."""
        covered = 0
        for past in self._past:
            covered |= past
        return [entry.id for place, entry in enumerate(self._entries) if not covered >> place & 1]

    def superseded(self) -> list[Entry]:
        """Return what came too late to change anything."""
        return [one for place, one in enumerate(self._entries) if self._superseded >> place & 1]

    def now(self) -> View:
        """Return everything that counts."""
        return self._view(self._counts, self.rev)

    def past_of(self, entry: Entry) -> View:
        """Return what an entry could know: its own past, and the netlist its device had."""
        rev = min(max(entry.rev, 1), self.rev)
        return self._view(self._past[self._place[entry.id]] & self._counts, rev)

    def past_of_new(self, based_on: Sequence[str], rev: int) -> View:
        """Return what an entry that is only now made knows."""
        past = 0
        for known in based_on:
            before = self._place.get(known)
            if before is not None:
                past |= self._past[before] | 1 << before
        return self._view(past & self._counts, min(max(rev, 1), self.rev))

    def _view(self, mask: int, rev: int) -> View:
        """Return a view, the same one while nothing was added."""
        found = self._views.get((mask, rev))
        if found is None or found.work is not self.works[rev - 1]:
            found = View(self, mask, self.works[rev - 1])
            self._views[mask, rev] = found
        return found

    def held(self, wire: str, ends: Sequence[str], since_rev: int) -> bool:
        """Tell whether a wire had these very ends in every revision since one."""
        for work in self.works[since_rev - 1 :]:
            known = work.wires.get(wire)
            if known is None or set(known.ends) != set(ends):
                return False
        return True

    def _visible(self, mask: int) -> Iterator[Entry]:
        for place, entry in enumerate(self._entries):
            if mask >> place & 1:
                yield entry


@dataclass(slots=True)
class View:
    """Some of the entries: all of them, or what one entry could know."""

    log: Log
    mask: int
    work: Work
    _by_kind: Mapping[str, list[Entry]] | None = None

    def kinds(self) -> Mapping[str, list[Entry]]:
        """Return the entries by kind, each kind in the order of arrival."""
        if self._by_kind is None:
            found: dict[str, list[Entry]] = {}
            for entry in self.log._visible(self.mask):  # noqa: SLF001 - a view is of its log
                found.setdefault(entry.kind, []).append(entry)
            self._by_kind = found
        return self._by_kind

    def of(self, *kinds: str) -> list[Entry]:
        """Return the entries of some kinds, in the order of arrival."""
        known = self.kinds()
        if len(kinds) == 1:
            return known.get(kinds[0], [])
        return [entry for kind in kinds for entry in known.get(kind, [])]

    def has(self, entry: Entry) -> bool:
        """Tell whether an entry is among them."""
        return bool(self.mask >> self.log._place[entry.id] & 1)  # noqa: SLF001 - as above

    def is_corrected(self, entry: Entry) -> bool:
        """Tell whether a correction takes an entry back."""
        return any(one.body.get("of") == entry.id for one in self.of("correction"))


def remembered(
    function: Callable[Concatenate[View, _P], _R],
) -> Callable[Concatenate[View, _P], _R]:
    """Ask a question of a view once: its answer holds until another entry comes.

    Parameters
    ----------
    function : callable
        Of a view, and of entries, names or nothing; what it returns is not changed by anyone.
    """

    @wraps(function)
    def asked(view: View, /, *args: _P.args, **more: _P.kwargs) -> _R:
        known = view.log._found  # noqa: SLF001 - a view is of its log
        told = tuple(one.id if isinstance(one, Entry) else one for one in args)
        key = (function, view.mask, id(view.work), len(view.log.works), told, *more.items())
        if key not in known:
            known[key] = function(view, *args, **more)
        found: _R = known[key]
        return found

    return asked
