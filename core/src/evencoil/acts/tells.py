"""Who has to be told what, from how things stand: each by its sentence, to each person once."""

from __future__ import annotations

from evencoil.acts.hands import live_readings, lock_states, proving, unprovers
from evencoil.acts.kinds import HANDS_ACTS
from evencoil.acts.past import Log, View
from evencoil.acts.stages import is_counted
from evencoil.acts.state import to_judge
from evencoil.acts.wiring import landings, readings_differ, row_readings, wire_state

__all__ = ["CLOCK_OFF_S", "tells"]

#: a clock that is further off is marked [s]
CLOCK_OFF_S = 300.0


def tells(log: Log) -> set[tuple[str, str]]:
    """Return person and message of everything that someone has to know.

    Parameters
    ----------
    log : Log
        Everything that was kept.
    """
    view = log.now()
    return {
        *_locks(view),
        *_wires(view),
        *_rows(view),
        *_stages(view),
        *_signed(log, view),
        *(
            (one.by, "acts.clock_wrong")
            for entries in view.kinds().values()
            for one in entries
            if abs(one.clock_off_s) > CLOCK_OFF_S
        ),
    }


def _holders(view: View) -> set[str]:
    states = lock_states(view)
    return {one.by for one in view.of("lock_on") if states[one.id] != "off"}


def _locks(view: View) -> set[tuple[str, str]]:
    found = set()
    states = lock_states(view)
    for lock in view.of("lock_on"):
        if states[lock.id] == "doubted":
            found.add((lock.by, "acts.lock_doubted"))
            found |= {
                (one.by, "acts.lock_doubted")
                for one in view.of("lock_off")
                if lock.id in one.about["locks"] and one.by != lock.by
            }
    for one in view.of("foreign_lock_removed"):
        if view.log.knows(str(one.about["lock"])):
            found.add((view.log.entry(str(one.about["lock"])).by, "acts.lock_removed"))
    for live in live_readings(view):
        found |= {(person, "acts.still_live") for person in {*_holders(view), live.by}}
    rounds = view.of("meter_live")
    if rounds and not proving(view) and next(unprovers(view), None) is not None:
        found |= {(person, "acts.unproven") for person in _holders(view)}
    return found


def _wires(view: View) -> set[tuple[str, str]]:
    found = set()
    log = view.log
    for one in view.of("landed"):
        wire = str(one.about["wire"])
        if wire not in view.work.wires or not log.held(wire, one.about["ends"], max(one.rev, 1)):
            found.add((one.by, "acts.stale"))
    for wire in view.work.wires:
        if wire_state(view, wire) == "disputed":
            yes, no = landings(view, wire)
            found |= {(one.by, "acts.disputed") for one in (*yes, *no)}
    for one in view.of("landed", "swap_done"):
        if one.kind == "landed" and one.body.get("ok"):
            yes, no = landings(view, str(one.about["wire"]))
            is_settled = any(log.saw(later, one) for later in yes)
            if one in no and not is_settled:
                found.add((one.by, "acts.kept_in_doubt"))
    for name, act, off in to_judge(view):
        if name.startswith("seen_off"):
            found |= {
                (act.by, "acts.lock_may_have_been_off"),
                (off.by, "acts.lock_may_have_been_off"),
            }
    return found


def _rows(view: View) -> set[tuple[str, str]]:
    return {
        (one.by, "acts.readings_differ")
        for row in view.work.rows
        if readings_differ(view, row)
        for one in row_readings(view, row)
    }


def _stages(view: View) -> set[tuple[str, str]]:
    found = set()
    log = view.log
    openings = view.of("stage_opened")
    for opening in openings:
        if not is_counted(view, opening):
            found.add((opening.by, "acts.kept_in_doubt"))
        for other in openings:
            if log.are_beside(opening, other):
                found.add((opening.by, "acts.two_energized"))
        for one in view.of("lock_on", *HANDS_ACTS):
            if log.are_beside(opening, one):
                found |= {(opening.by, "acts.power_under_lock"), (one.by, "acts.power_under_lock")}
    return found


def _signed(log: Log, view: View) -> set[tuple[str, str]]:
    signed = view.of("signed")
    if not signed:
        return set()
    last = signed[-1]
    found = set()
    if log.superseded():
        found.add((last.by, "acts.arrived_after_signing"))
    after = [
        one
        for entries in view.kinds().values()
        for one in entries
        if one.kind not in {"signed", "note", "photo"} and not log.saw(last, one)
    ]
    if after or last.rev != log.rev:
        found.add((last.by, "acts.changed_since_signed"))
    return found
