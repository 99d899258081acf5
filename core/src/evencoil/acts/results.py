"""Results of a stage: between what each must lie, and whether it does.

Units: those of the reading.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from evencoil.acts.figures import figure, judged
from evencoil.acts.model import Entry, Work
from evencoil.acts.past import Log, View
from evencoil.base import MOST_PERCENT, unbalance_of_three

__all__ = [
    "expected_in",
    "expected_of_entry",
    "is_balanced",
    "is_result_good",
    "place_of",
    "turns_as_before",
]


def expected_of_entry(log: Log, work: Work, entry: Entry) -> Mapping[str, Any] | None:
    """Return unit and bounds of a reading: of its item, of its stage, or of its kind.

    Parameters
    ----------
    log : Log
        With the opening that a result names.
    work : Work
        What is expected.
    entry : Entry
        A reading.
    """
    item = entry.about.get("group", entry.about.get("item"))
    if item is not None:
        return work.expect.get(str(item))
    opened = entry.about.get("opened")
    stage = ""
    if opened is not None and log.knows(str(opened)):
        stage = str(log.entry(str(opened)).about.get("stage"))
    return expected_in(work, stage, entry.kind)


def expected_in(work: Work, stage: str, kind: str) -> Mapping[str, Any] | None:
    """Return unit and bounds of a kind of reading: of its stage before those of the kind.

    Parameters
    ----------
    work : Work
        What is expected.
    stage : str
        Its id.
    kind : str
        Of the entry.
    """
    return work.expect.get(f"{stage}.{kind}", work.expect.get(kind))


def is_result_good(view: View, one: Entry, work: Work | None = None) -> bool | None:
    """Tell whether a result is as it must be; None where nothing is known to hold it against.

    Parameters
    ----------
    view : View
        Of the entries.
    one : Entry
        A result.
    work : Work or None
        What is expected, where it is not that of today.
    """
    body = one.body
    expected = expected_of_entry(view.log, work or view.work, one)
    if one.kind == "control_result":
        return bool(body.get("ok"))
    if one.kind == "vibration":
        if not body.get("ok") or "mm_s" not in body:
            return bool(body.get("ok"))
        return judged(figure(body["mm_s"]), expected, body)
    if one.kind == "bump_result":
        is_wanted = bool(body.get("turn") == body.get("wanted"))
        # another way than before it was taken out needs its reason: the machine was built for one
        return is_wanted and (turns_as_before(view, one) is not False or bool(body.get("why")))
    if one.kind == "phase_sequence":
        return None if "wanted" not in body else bool(body.get("order") == body["wanted"])
    return judged(figure(body["value"]), expected, body)


_OTHER_WAY = {"clockwise": "counterclockwise", "counterclockwise": "clockwise"}


def turns_as_before(view: View, bump: Entry) -> bool | None:
    """Tell whether a shaft turns as it did before its motor was taken out; None where unknown.

    What is clockwise seen from one end is counterclockwise seen from the other. Which of two
    directions was seen before is not on record, so a bump at a named start is not compared.

    Parameters
    ----------
    view : View
        Of the entries.
    bump : Entry
        A bump, with its turn and the end it was seen from.
    """
    before = [
        one for one in view.of("note") if one.body.get("ran_before") and not view.is_corrected(one)
    ]
    turn, seen_from = bump.body.get("turn"), bump.body.get("viewpoint")
    if not before or place_of(bump) or turn not in _OTHER_WAY or not seen_from:
        return None
    known, known_from = before[-1].body.get("turn"), before[-1].body.get("viewpoint")
    if known not in _OTHER_WAY or not known_from:
        return None
    return bool(turn == (known if known_from == seen_from else _OTHER_WAY[known]))


def place_of(entry: Entry) -> str:
    """Return where a result was read: a button, a line, a pair or a joint; empty for none."""
    about = entry.about
    return str(about.get("at") or about.get("line") or about.get("joint") or "")


def is_balanced(view: View, inside: Sequence[Entry]) -> bool:
    """Tell whether the volts of three pairs are near enough to each other to run a motor.

    Parameters
    ----------
    view : View
        Of the entries.
    inside : sequence of Entry
        Results of one opening. [V]
    """
    newest: dict[str, Entry] = {}
    for one in inside:
        if one.kind == "volts" and place_of(one):
            known = newest.get(place_of(one))
            if known is None or view.log.saw(one, known):
                newest[place_of(one)] = one
    found = unbalance_of_three([figure(one.body["value"]) for one in newest.values()])
    return found is None or found <= MOST_PERCENT
