"""A closed hunt: what was read, what was changed one at a time, and whether that proves the cause.

Proven only if the failure was seen, as a reading or as the symptom, and one change cured it. Two
changes at once, a part swapped without a failing reading, a fault that left by itself: not proven,
a quarter of one in the plant's odds. Exchanging the two lines of a single-phase feed is no change.

Source: trade practice (one change at a time).
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from evencoil.trouble.tables import odds_table

__all__ = ["NOT_PROVEN_COUNTS", "ClosedVerdict", "HuntStep", "closed_verdict"]

#: what a hunt without proof counts in the plant's odds
NOT_PROVEN_COUNTS = 0.25
_NO_CHANGE = {"feed_lines_exchanged"}


@dataclass(frozen=True, slots=True, kw_only=True)
class HuntStep:
    """One thing of a hunt in its order.

    Attributes
    ----------
    what : str
        ``failed`` or ``passed`` for a reading or the symptom tried; ``changed`` for a change.
    row : str
        Of the table of odds, for a change: what was wrong there; ``feed_lines_exchanged`` for
        the two lines of a single-phase feed.
    said : str
        In the person's words.
    """

    what: Literal["failed", "passed", "changed"]
    row: str = ""
    said: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class ClosedVerdict:
    """Whether the cause is proven.

    Attributes
    ----------
    is_proven : bool
        One change, seen to cure a failure that was seen.
    reason : str
        Key of the sentence: ``trouble.closed.KEY``.
    row : str
        What it counts for in the plant's odds; empty for nothing.
    counts : float
        How much.
    """

    is_proven: bool
    reason: str
    row: str
    counts: float


def closed_verdict(steps: Sequence[HuntStep]) -> ClosedVerdict:
    """Return whether the steps of a hunt prove its cause.

    Parameters
    ----------
    steps : sequence of HuntStep
        In their order.
    """
    real = [one for one in steps if one.row not in _NO_CHANGE]
    exchanged = len(real) < len(steps)
    changes = [place for place, one in enumerate(real) if one.what == "changed"]
    failed = [place for place, one in enumerate(real) if one.what == "failed"]
    passed = [place for place, one in enumerate(real) if one.what == "passed"]

    def no(reason: str) -> ClosedVerdict:
        rows = {real[place].row for place in changes if real[place].row in odds_table()}
        row = rows.pop() if len(rows) == 1 else ""
        return ClosedVerdict(
            is_proven=False,
            reason=reason,
            row=row,
            counts=NOT_PROVEN_COUNTS if row else 0.0,
        )

    nothing = "lines_exchanged" if exchanged else "left_by_itself"
    cured = min((place for place in passed if failed and place > max(failed)), default=-1)
    between = [place for place in changes if failed and max(failed) < place < cured]
    for is_so, reason in (
        (not passed or (changes and max(passed) < max(changes)), "not_tried"),
        (not changes, nothing),
        (not failed or min(failed) > min(changes, default=0), "no_failure_seen"),
        (cured < 0, "still_fails"),
        (not between, nothing),
        (len(between) > 1, "two_changes"),
    ):
        if is_so:
            return no(reason)
    row = real[between[0]].row
    return ClosedVerdict(
        is_proven=True,
        reason="proven",
        row=row if row in odds_table() else "",
        counts=1.0 if row in odds_table() else 0.0,
    )
