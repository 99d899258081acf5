"""Locked, proven dead, and whose hands may go in.

Hands are open for those whose own locks were on before the first meter check of a round
that proves dead, and only while nothing that un-proves it has come since, seen or unseen.
Every rule asks some view of the entries: all of them, or what one entry could know.

Source: the sequence of lock-out and of proving a meter, the circuit, and the meter again
(electrical safety practice).
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from decimal import Decimal
from typing import Any, Literal

from evencoil.acts.figures import figure, is_within
from evencoil.acts.kinds import RANK, RESULTS
from evencoil.acts.model import Entry, Source
from evencoil.acts.past import View, remembered

__all__ = [
    "LockState",
    "Round",
    "hands",
    "is_good_check",
    "is_live_reading",
    "is_locked",
    "isolators",
    "live_readings",
    "lock_states",
    "proving",
    "sources",
    "unprovers",
]

LockState = Literal["on", "off", "doubted"]


@remembered
def sources(view: View) -> dict[str, Source]:
    """Return what can make the panel live: of the netlist, and what was found and listed.

    Parameters
    ----------
    view : View
        Of the entries.
    """
    found = dict(view.work.sources)
    for entry in view.of("source_listed"):
        if any(
            one.body.get("of") == entry.id and one.role == "reviewer"
            for one in view.of("correction")
        ):
            continue
        name = str(entry.about["source"])
        if name in found:
            continue
        body = entry.body
        found[name] = Source(
            kind=str(body.get("source_kind", "main")),
            isolator=str(body.get("isolator", name)),
            # one that names no place to read it has one all the same
            points=tuple(str(point) for point in body.get("points") or (f"{name}:dead",)),
            wait_s=float(figure(body.get("wait_s", "0"))),
        )
    return found


@remembered
def isolators(view: View) -> list[str]:
    """Return every isolator that has to be locked, each once.

    Parameters
    ----------
    view : View
        Of the entries.
    """
    return list(dict.fromkeys(one.isolator for one in sources(view).values()))


@remembered
def lock_states(view: View) -> dict[str, LockState]:
    """Return how every lock stands, by the entry that put it on.

    Parameters
    ----------
    view : View
        Of the entries.
    """
    found: dict[str, LockState] = {one.id: "on" for one in view.of("lock_on")}
    owner = {one.id: one.by for one in view.of("lock_on")}
    for entry in view.of("foreign_lock_removed"):
        lock = str(entry.about["lock"])
        if lock in found:
            found[lock] = "off"
    for entry in view.of("lock_off"):
        for lock in entry.about["locks"]:
            if lock not in found:
                continue
            if owner[lock] == entry.by:
                found[lock] = "off"
            elif found[lock] == "on":
                found[lock] = "doubted"
    for entry in view.of("correction"):
        # a lock that was never on is none: the opening goes
        if entry.body.get("of") in found and found[str(entry.body["of"])] == "on":
            found[str(entry.body["of"])] = "off"
    return found


def _is_box(lock: Entry) -> bool:
    return lock.body.get("place") == "box"


@remembered
def _on(view: View) -> list[Entry]:
    states = lock_states(view)
    return [one for one in view.of("lock_on") if states[one.id] == "on"]


@remembered
def is_locked(view: View) -> bool:
    """Tell whether every isolator of every source has a lock on.

    Parameters
    ----------
    view : View
        Of the entries.
    """
    held = {str(one.about.get("isolator")) for one in _on(view) if not _is_box(one)}
    return bool(isolators(view)) and set(isolators(view)) <= held


def is_live_reading(view: View, entry: Entry) -> bool:
    """Tell whether a reading of a point is above what counts as dead.

    Parameters
    ----------
    view : View
        Of the entries.
    entry : Entry
        Which.
    """
    return entry.kind == "dead_point" and figure(entry.body["value"]) > Decimal(
        view.work.rules.dead_limit_v
    )


@remembered
def live_readings(view: View) -> list[Entry]:
    """Return the live readings that no whole round after them has lifted.

    Parameters
    ----------
    view : View
        Of the entries.
    """
    found = [one for one in view.of("dead_point") if is_live_reading(view, one)]
    rounds = [one for one in _rounds(view) if one.is_whole(view)]
    return [live for live in found if not any(view.log.saw(one.before, live) for one in rounds)]


def is_good_check(body: Mapping[str, Any], dead_limit_v: str) -> bool:
    """Tell whether a meter showed a live source as it should.

    Parameters
    ----------
    body : mapping
        Of the check: what it read, and between what the source lies. Without these bounds, or
        on a source that is dead itself, nothing is shown.
    dead_limit_v : str
        A source must be above it. [V]
    """
    if body.get("min") is None or body.get("max") is None:
        return False
    value, least = figure(body["value"]), figure(body["min"])
    return min(value, least) > Decimal(dead_limit_v) and is_within(value, least, body["max"])


def _is_good(view: View, entry: Entry) -> bool:
    return is_good_check(entry.body, view.work.rules.dead_limit_v)


def _leaves_box_open(view: View, off: Entry, lock: Entry) -> bool:
    """Tell whether a box may have stood open when a lock was taken off it."""
    box = lock.body.get("box")
    for other in view.of("lock_on"):
        if not _is_box(other) or other.body.get("box") != box or other.by == off.by:
            continue
        if not view.log.saw(off, other):
            continue
        gone = [
            one for one in view.of("lock_off", "foreign_lock_removed") if other.id in _locks_of(one)
        ]
        if all(view.log.saw(one, off) for one in gone):
            return False
    return True


def _locks_of(entry: Entry) -> tuple[str, ...]:
    if entry.kind == "foreign_lock_removed":
        return (str(entry.about["lock"]),)
    return tuple(str(lock) for lock in entry.about["locks"])


def unprovers(view: View) -> Iterator[Entry]:
    """Go through everything after which the panel has to be proven dead anew.

    Parameters
    ----------
    view : View
        Of the entries.
    """
    locks = {one.id: one for one in view.of("lock_on")}
    for entry in view.of("lock_off"):
        for name in _locks_of(entry):
            lock = locks.get(name)
            if lock is None:
                continue
            if lock.by != entry.by or not _is_box(lock) or _leaves_box_open(view, entry, lock):
                yield entry
                break
    yield from view.of(
        "foreign_lock_removed", "stage_opened", "stage_closed", "trip", "left_panel", *RESULTS
    )
    yield from (
        one for one in view.of("source_listed") if one.about["source"] not in view.work.sources
    )
    yield from (one for one in view.of("dead_point") if is_live_reading(view, one))
    yield from (one for one in view.of("meter_live") if not _is_good(view, one))
    yield from (one for one in view.of("note") if one.body.get("stop"))
    for entry in view.of("correction"):
        known = str(entry.body.get("of", ""))
        if view.log.knows(known) and view.log.entry(known).kind in {
            "lock_on",
            "dead_point",
            "meter_live",
        }:
            yield entry


@remembered
def _unprovers(view: View) -> list[Entry]:
    return list(unprovers(view))


@dataclass(frozen=True, slots=True)
class Round:
    """A round of proving: the meter on a live source, the points, the meter again."""

    before: Entry
    after: Entry
    points: tuple[Entry, ...]

    def is_whole(self, view: View) -> bool:
        """Tell whether both checks are good and every point of every source was read dead."""
        log = view.log
        if not (_is_good(view, self.before) and _is_good(view, self.after)):
            return False
        if self.before.body.get("meter") != self.after.body.get("meter"):
            return False
        if not log.saw(self.after, self.before):
            return False
        read: dict[str, float] = {}
        for one in self.points:
            between = log.saw(one, self.before) and log.saw(self.after, one)
            if between and not is_live_reading(view, one) and not view.is_corrected(one):
                waited = float(figure(one.body.get("waited_s", "0")))
                point = str(one.about["point"])
                read[point] = max(read.get(point, 0.0), waited)
        return all(
            point in read and read[point] >= source.wait_s
            for source in sources(view).values()
            for point in source.points
        )


@remembered
def _rounds(view: View) -> list[Round]:
    found = []
    checks = [one for one in view.of("meter_live") if not view.is_corrected(one)]
    for before in checks:
        if before.body.get("phase") != "before":
            continue
        name = before.about["round"]
        points = tuple(one for one in view.of("dead_point") if one.about["round"] == name)
        found += [
            Round(before, after, points)
            for after in checks
            if after.body.get("phase") == "after" and after.about["round"] == name
        ]
    return found


@remembered
def proving(view: View) -> list[Round]:
    """Return the rounds by which the panel is dead now; none where it is not proven.

    Parameters
    ----------
    view : View
        Of the entries.
    """
    if not is_locked(view):
        return []
    log = view.log
    undone = _unprovers(view)
    on = [one for one in _on(view) if not _is_box(one)]
    found = []
    for one in _rounds(view):
        if not one.is_whole(view):
            continue
        held = {str(lock.about.get("isolator")) for lock in on if log.saw(one.before, lock)}
        if set(isolators(view)) <= held and all(log.saw(one.before, was) for was in undone):
            found.append(one)
    return found


def _covered(view: View, by: Round) -> list[Entry]:
    """Return the locks of everyone whom a round covers."""
    log = view.log
    before = [one for one in _on(view) if log.saw(by.before, one)]
    boxes = {
        str(one.about.get("isolator")): str(one.body["key_in"])
        for one in before
        if not _is_box(one) and one.body.get("key_in")
    }
    found = []
    for person in dict.fromkeys(one.by for one in before):
        mine = [one for one in before if one.by == person]
        own = {
            str(one.about.get("isolator"))
            for one in mine
            if not _is_box(one) and not one.body.get("key_in")
        }
        in_boxes = {str(one.body.get("box")) for one in mine if _is_box(one)}
        if all(name in own or boxes.get(name) in in_boxes for name in isolators(view)):
            found += mine
    return found


@remembered
def hands(view: View) -> list[str]:
    """Return those whose hands may be in the panel, by name and in order.

    Stages that are open, and doubt, are asked by `evencoil.acts.stages`.

    Parameters
    ----------
    view : View
        Of the entries.
    """
    if live_readings(view):
        return []
    found: set[str] = set()
    for by in proving(view):
        locks = _covered(view, by)
        if any(RANK[one.role] >= RANK["electrician"] for one in locks):
            found |= {one.by for one in locks}
    return sorted(found)
