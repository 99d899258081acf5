"""Ohms that no sound winding explains: a coil with shorted turns.

Units: resistance [ohm].
Source: coils of one winding are alike within a few percent; turns that are shorted take their
part of the resistance away, never add to it (textbook).
"""

from __future__ import annotations

from collections.abc import Sequence
from statistics import median

from evencoil.base import Message
from evencoil.leads.identify.numbering import Numbering, resistance
from evencoil.leads.identify.readings import Touch

__all__ = ["shorted_coils"]

#: a coil this far below its like is not within a meter's error
_BELOW = 0.93
_ALIKE = 0.04
#: readings of like coils without which nothing is called low
_ENOUGH = 3


def shorted_coils(supposed: Sequence[Numbering], touches: Sequence[Touch]) -> tuple[Message, ...]:
    """Return what single coils that read low against all others mean, if any does.

    Parameters
    ----------
    supposed : sequence of Numbering
        Every numbering of the groups, before any ohms.
    touches : sequence of Touch
        Pairs with their resistance. [ohm]
    """
    best: tuple[float, Touch, float] | None = None
    for numbering in supposed:
        rows = [
            (touch, touch.ohms / coils)
            for touch in touches
            if touch.ohms is not None and (coils := resistance(numbering, touch.pair))
        ]
        if len(rows) < _ENOUGH:
            continue
        usual = median(value for _, value in rows)
        low = [(touch, value) for touch, value in rows if value < usual * _BELOW]
        rest = [value for touch, value in rows if (touch, value) not in low]
        spread = max(abs(value / usual - 1) for value in rest)
        if len(low) == 1 and spread <= _ALIKE and (best is None or spread < best[0]):
            best = (spread, low[0][0], low[0][1] / usual)
    if best is None:
        return ()
    _, touch, part = best
    return (
        Message(
            "unmarked.shorted_turns",
            {
                "one": touch.pair[0],
                "other": touch.pair[1],
                "percent": f"{(1 - part) * 100:.0f}",
            },
        ),
    )
