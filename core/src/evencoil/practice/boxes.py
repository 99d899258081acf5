"""Spaced repetition in boxes: right moves up a box, wrong goes back to the first.

Source: boxes of growing intervals (a textbook method of repetition).
Units: days.
"""

from __future__ import annotations

from datetime import date, timedelta

__all__ = ["BOX_DAYS", "due_after", "next_box"]

#: until a box is due again
BOX_DAYS = (1, 2, 4, 8, 16, 32)


def next_box(box: int, *, is_right: bool) -> int:
    """Return the box after an answer.

    Parameters
    ----------
    box : int
        From 0.
    is_right : bool
        The answer.
    """
    return min(box + 1, len(BOX_DAYS) - 1) if is_right else 0


def due_after(box: int, today: date) -> date:
    """Return when a box is due again.

    Parameters
    ----------
    box : int
        From 0.
    today : date
        The day of the answer.
    """
    return today + timedelta(days=BOX_DAYS[box])
