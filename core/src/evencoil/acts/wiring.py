"""Wires landed, screws torqued, rows and items read: what counts as done.

A landing counts if its maker's hands were open, on the very ends that the wire has had at
every revision since, and no one who did not know of it says otherwise. A reading counts until
a hand was on one of its wires; of two that did not know of each other the worse counts.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from decimal import Decimal
from typing import Any, Literal

from evencoil.acts.figures import figure, is_within, judged
from evencoil.acts.hands import hands
from evencoil.acts.model import Entry
from evencoil.acts.past import View, remembered

__all__ = [
    "ReadingState",
    "WireState",
    "item_state",
    "landings",
    "row_state",
    "torque_is_done",
    "touches",
    "was_proven",
    "wire_state",
]

WireState = Literal["not_done", "done", "unchecked", "disputed", "stale"]
ReadingState = Literal["not_read", "as_expected", "wrong", "read_again", "accepted", "not_judged"]
_ITEMS = ("insulation_reading", "ground_continuity", "coil_ohms")


@remembered
def was_proven(view: View, entry: Entry) -> bool:
    """Tell whether an entry's maker had open hands by all that he could know.

    Parameters
    ----------
    view : View
        Of the entries.
    entry : Entry
        Which.
    """
    past = view.log.past_of(entry)
    opened = past.of("stage_opened")
    closed = {one.about["opened"] for one in past.of("stage_closed")}
    return entry.by in hands(past) and all(one.id in closed for one in opened)


@remembered
def landings(view: View, wire: str) -> tuple[list[Entry], list[Entry]]:
    """Return what says that a wire is landed, and what says that it is not.

    Parameters
    ----------
    view : View
        Of the entries.
    wire : str
        Its id.
    """
    yes, no = [], []
    for one in view.of("landed"):
        if one.about["wire"] != wire:
            continue
        is_yes = bool(one.body.get("ok")) and was_proven(view, one)
        if is_yes and not view.is_corrected(one):
            yes.append(one)
        elif not is_yes:
            no.append(one)
    no += [one for one in view.of("different_here") if one.about["wire"] == wire]
    return yes, no


@remembered
def touches(view: View, wire: str) -> list[Entry]:
    """Return everything by which a hand was on a wire, corrected or not.

    Parameters
    ----------
    view : View
        Of the entries.
    wire : str
        Its id.
    """
    return [one for one in view.of("landed", "different_here") if one.about["wire"] == wire]


@remembered
def wire_state(view: View, wire: str) -> WireState:
    """Return how far a wire is.

    Parameters
    ----------
    view : View
        Of the entries.
    wire : str
        Its id.
    """
    log = view.log
    yes, no = landings(view, wire)
    unmet = [one for one in no if not any(log.saw(later, one) for later in yes)]
    if unmet:
        beside = any(log.are_beside(one, other) for one in unmet for other in yes)
        return "disputed" if beside else "not_done"
    if not yes:
        return "not_done"
    held = [one for one in yes if log.held(wire, one.about["ends"], max(one.rev, 1))]
    if not held:
        return "stale"
    if wire in view.work.rules.two_person and not any(
        one.body.get("check") and log.saw(one, first) and one.by != first.by
        for one in held
        for first in yes
    ):
        return "unchecked"
    return "done"


@remembered
def torque_is_done(view: View, wire: str) -> bool:
    """Tell whether a wire's screw was torqued after the last hand on it.

    Where no figure is known but the one on the label, which was typed with it, the torque is held
    within a tenth of that (judgment).

    Parameters
    ----------
    view : View
        Of the entries.
    wire : str
        Its id.
    """
    log, expected = view.log, view.work.expect.get("torque", {})
    moved = touches(view, wire)
    for one in view.of("torqued"):
        if one.about["wire"] != wire or view.is_corrected(one):
            continue
        if not is_within(figure(one.body["value"]), *_torque_bounds(expected, one)):
            continue
        if all(log.saw(one, touch) for touch in moved):
            return True
    return False


def _torque_bounds(expected: Mapping[str, Any], one: Entry) -> tuple[object, object]:
    if expected or not one.body.get("target"):
        return expected.get("min"), expected.get("max")
    target = figure(one.body["target"])
    return str(target * Decimal("0.9")), str(target * Decimal("1.1"))


def _newest(view: View, readings: Sequence[Entry]) -> list[Entry]:
    """Return the readings that no later one knew of: more than one if made side by side."""
    log = view.log
    return [one for one in readings if not any(log.saw(later, one) for later in readings)]


@remembered
def row_readings(view: View, row: str) -> list[Entry]:
    """Return the newest readings of a row.

    Parameters
    ----------
    view : View
        Of the entries.
    row : str
        Its id.
    """
    known = [
        one
        for one in view.of("dead_reading")
        if one.about["row"] == row and not view.is_corrected(one)
    ]
    return _newest(view, known)


def _is_row_ok(view: View, row: str, one: Entry) -> bool:
    bounds = view.work.rows[row]
    return is_within(figure(one.body["value"]), bounds.least, bounds.most)


@remembered
def row_state(view: View, row: str) -> ReadingState:
    """Return what the readings of a row of the dead check say.

    Parameters
    ----------
    view : View
        Of the entries.
    row : str
        Its id.
    """
    log = view.log
    newest = row_readings(view, row)
    if not newest:
        return "not_read"
    wrong = [one for one in newest if not _is_row_ok(view, row, one)]
    if wrong:
        accepted = any(
            note.body.get("accepts") == row
            and note.role == "reviewer"
            and all(log.saw(note, one) for one in wrong)
            for note in view.of("note")
        )
        return "accepted" if accepted else "wrong"
    wires = view.work.rows[row].wires
    moved = [touch for wire in wires for touch in touches(view, wire)]
    for one in newest:
        if any(not log.saw(one, touch) for touch in moved):
            return "read_again"
        # what the drawing moved since is another row
        for wire in wires:
            rev = min(max(one.rev, 1), log.rev)
            then = log.works[rev - 1].wires.get(wire)
            if then is None or not log.held(wire, then.ends, rev):
                return "read_again"
    return "as_expected"


def readings_differ(view: View, row: str) -> bool:
    """Tell whether readings made side by side say different things of a row.

    Parameters
    ----------
    view : View
        Of the entries.
    row : str
        Its id.
    """
    newest = row_readings(view, row)
    return len({_is_row_ok(view, row, one) for one in newest}) > 1


@remembered
def item_state(view: View, item: str) -> ReadingState:
    """Return what the readings of an insulation group or a ground path say.

    Parameters
    ----------
    view : View
        Of the entries.
    item : str
        Its id.
    """
    found = [
        one
        for one in view.of(*_ITEMS)
        if str(one.about.get("group", one.about.get("item"))) == item and not view.is_corrected(one)
    ]
    newest = _newest(view, found)
    if not newest:
        return "not_read"
    told = [
        judged(figure(one.body["value"]), view.work.expect.get(item), one.body) for one in newest
    ]
    if any(one is False for one in told):
        return "wrong"
    return "not_judged" if any(one is None for one in told) else "as_expected"
