"""Energizing in stages: what forbids one, which are open, and which have passed.

The guard of an opening asks the past of that opening alone. What was opened against its
guard says that power may be on, and proves nothing.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Literal

from evencoil.acts.figures import figure
from evencoil.acts.hands import isolators, live_readings, lock_states
from evencoil.acts.kinds import HANDS_ACTS, RANK, RESULTS
from evencoil.acts.model import Entry
from evencoil.acts.past import View, remembered
from evencoil.acts.results import is_balanced, is_result_good, place_of
from evencoil.acts.wiring import item_state, row_state, torque_is_done, touches, wire_state

__all__ = [
    "StageState",
    "contested",
    "forbids",
    "is_counted",
    "next_stage",
    "open_stages",
    "open_trips",
    "stage_state",
    "stops",
]

StageState = Literal["not_done", "open", "contested", "ok", "wrong"]


@remembered
def stops(view: View) -> list[Entry]:
    """Return the notes that say stop and that no electrician has cleared.

    Parameters
    ----------
    view : View
        Of the entries.
    """
    cleared = [one for one in view.of("note") if one.body.get("clears")]
    return [
        one
        for one in view.of("note")
        if one.body.get("stop")
        and not any(
            clear.body["clears"] == one.id and RANK[clear.role] >= 1 and view.log.saw(clear, one)
            for clear in cleared
        )
    ]


@remembered
def open_trips(view: View) -> list[Entry]:
    """Return the trips that no reset has answered.

    Parameters
    ----------
    view : View
        Of the entries.
    """
    return [
        one
        for one in view.of("trip")
        if not view.is_corrected(one)
        and not any(
            reset.about["device"] == one.about["device"] and view.log.saw(reset, one)
            for reset in view.of("reset")
        )
    ]


def _closings(view: View, opening: Entry) -> list[Entry]:
    return [one for one in view.of("stage_closed") if one.about["opened"] == opening.id]


@remembered
def is_counted(view: View, opening: Entry) -> bool:
    """Tell whether a stage was opened by its role and within its guard.

    Parameters
    ----------
    view : View
        Of the entries.
    opening : Entry
        Of a stage.
    """
    if RANK[opening.role] < RANK["electrician"]:
        return False
    return next(forbids(view.log.past_of(opening), str(opening.about["stage"])), None) is None


@remembered
def contested(view: View, opening: Entry) -> list[Entry]:
    """Return what was done beside an opening that must not have been: stages, locks, hands.

    Parameters
    ----------
    view : View
        Of the entries.
    opening : Entry
        Of a stage.
    """
    log = view.log
    return [
        one
        for one in view.of("stage_opened", "lock_on", *HANDS_ACTS)
        if one.id != opening.id and log.are_beside(one, opening)
    ]


@remembered
def open_stages(view: View) -> list[Entry]:
    """Return the openings that were not closed.

    Parameters
    ----------
    view : View
        Of the entries.
    """
    return [one for one in view.of("stage_opened") if not _closings(view, one)]


def forbids(view: View, stage: str) -> Iterator[str]:
    """Go through what forbids opening a stage, the gravest first; empty is all clear.

    Parameters
    ----------
    view : View
        Of the entries.
    stage : str
        Its id.
    """
    if live_readings(view):
        yield "live"
    if stops(view):
        yield "stop"
    if open_stages(view):
        yield "stage_open"
    yield from _locked_out(view, stage)
    yield from _unfinished(view, stage)
    if open_trips(view):
        yield "trip"
    yield from _closed_up(view)


def _locked_out(view: View, stage: str) -> Iterator[str]:
    """Go through the locks that must be off for a stage, and those that must be on."""
    asked, states = view.work.stages[stage], lock_states(view)
    locks = {one.id: one for one in view.of("lock_on")}
    standing = [locks[name] for name, state in states.items() if state != "off"]
    in_the_way = [
        one
        for one in standing
        if one.body.get("place") == "box" or one.about.get("isolator") in asked.live
    ]
    if in_the_way:
        yield "lock"
    held = {
        str(locks[name].about.get("isolator"))
        for name, state in states.items()
        if state == "on" and locks[name].body.get("place") != "box"
    }
    if any(name not in held for name in isolators(view) if name not in asked.live):
        yield "boundary"


def _unfinished(view: View, stage: str) -> Iterator[str]:
    """Go through the work that has to be done before a stage."""
    work = view.work
    on_control_alone = set(work.stages[stage].scope) == {"control"}
    if not work.rules.is_rehearsed:
        yield "rehearsal"
    if any(wire_state(view, wire) != "done" for wire in work.wires):
        yield "wire"
    if any(not torque_is_done(view, wire) for wire in work.rules.torque if wire in work.wires):
        yield "torque"
    if any(row_state(view, row) not in {"as_expected", "accepted"} for row in work.rows):
        yield "row"
    if not on_control_alone and any(item_state(view, item) != "as_expected" for item in work.items):
        yield "item"
    for earlier in work.stages:
        if earlier == stage:
            break
        if stage_state(view, earlier) != "ok":
            yield "earlier_stage"
            break


def _closed_up(view: View) -> Iterator[str]:
    """Go through what says that people or covers may still be off."""
    log = view.log
    inside = [*view.of(*HANDS_ACTS)]
    if not any(all(log.saw(one, act) for act in inside) for one in view.of("covers_on")):
        yield "covers"
    around = [*inside, *view.of("lock_on", "lock_off", "foreign_lock_removed")]
    around += view.of("stage_opened", "stage_closed")
    if not any(
        figure(one.body.get("locks_left", "0")) == 0 and all(log.saw(one, act) for act in around)
        for one in view.of("people_clear")
    ):
        yield "people"


def _has(inside: Sequence[Entry], need: str) -> bool:
    """Tell whether a result that a stage needs is there: a kind, and the place after its ``@``."""
    kind, _, place = need.partition("@")
    return any(one.kind == kind and place in {"", place_of(one)} for one in inside)


def _is_untouched(view: View, stage: str, opening: Entry) -> bool:
    """Tell whether no wire that a stage tests was touched, swapped or redrawn since or beside."""
    log, scope = view.log, view.work.stages[stage].scope
    wires = [name for name, wire in view.work.wires.items() if wire.scope in scope]
    moved = [touch for wire in wires for touch in touches(view, wire)]
    moved += [
        one for one in view.of("swap_done") if any(name in wires for name in one.about["wires"])
    ]
    if any(not log.saw(opening, one) for one in moved):
        return False
    rev = min(max(opening.rev, 1), log.rev)
    then = log.works[rev - 1].wires
    tested = [name for name, wire in then.items() if wire.scope in scope]
    return set(wires) <= set(tested) and all(
        log.held(name, then[name].ends, rev) for name in tested
    )


@remembered
def stage_state(view: View, stage: str) -> StageState:
    """Return how a stage stands.

    Parameters
    ----------
    view : View
        Of the entries.
    stage : str
        Its id.
    """
    openings = [one for one in view.of("stage_opened") if one.about["stage"] == stage]
    for one in openings:
        if not _closings(view, one):
            is_doubted = not is_counted(view, one) or contested(view, one)
            return "contested" if is_doubted else "open"
    best: StageState = "not_done"
    for one in openings:
        if not is_counted(view, one) or contested(view, one) or view.is_corrected(one):
            continue
        inside = [
            result
            for result in view.of(*RESULTS)
            if result.about.get("opened") == one.id and not view.is_corrected(result)
        ]
        closed = _closings(view, one)
        is_wrong = (
            any(is_result_good(view, result) is False for result in inside)
            or any(end.body.get("result") != "ok" for end in closed)
            or not is_balanced(view, inside)
        )
        if is_wrong:
            best = "wrong"
            continue
        needed = view.work.stages[stage].needs
        has_all = all(_has(inside, need) for need in needed)
        by_role = any(RANK[end.role] >= RANK["electrician"] for end in closed)
        if has_all and by_role and _is_untouched(view, stage, one):
            return "ok"
    return best


@remembered
def next_stage(view: View) -> str | None:
    """Return the first stage that has not passed; None where all have.

    Parameters
    ----------
    view : View
        Of the entries.
    """
    return next((name for name in view.work.stages if stage_state(view, name) != "ok"), None)
