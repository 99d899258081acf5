"""Rolling the leads: three lines moved on by one, to tell supply from motor.

The turn of the shaft stays; each line then feeds the next lead. Amps out of balance that stay
with their line are the supply's, or of the starter in front of the leads; those that go with the
lead are the motor's.

Units: [A].
Source: trade practice of telling apart unbalance of supply and of winding.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from decimal import Decimal
from typing import Literal

from evencoil.acts.figures import OPEN, figure
from evencoil.acts.model import Entry
from evencoil.acts.past import View, remembered
from evencoil.acts.results import place_of
from evencoil.base import CAUSE_PERCENT, unbalance_of_three

__all__ = ["Rolled", "rolled_leads"]

_LINES = ("L1", "L2", "L3")
RolledWhy = Literal["supply", "motor", "unclear", "gone"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Rolled:
    """Amps of three lines before and after the leads were rolled, and what moved with what."""

    stage: str
    before: tuple[Decimal, ...]
    after: tuple[Decimal, ...]
    why: RolledWhy


@remembered
def rolled_leads(view: View) -> Rolled | None:
    """Return what rolling the leads told; None where it was not done or not read on both sides.

    Parameters
    ----------
    view : View
        Of the entries.
    """
    rolls = [one for one in view.of("swap_done") if one.body.get("roll")]
    if not rolls:
        return None
    found: dict[str, dict[int, tuple[Decimal, ...]]] = {}
    for opening in view.of("stage_opened"):
        read = _three(view, opening)
        if read is not None:
            steps = sum(view.log.saw(opening, one) for one in rolls) % 3
            found.setdefault(str(opening.about["stage"]), {})[steps] = read
    now = len(rolls) % 3
    for stage, read_at in reversed(found.items()):
        earlier = [one for one in read_at if one != now]
        if now in read_at and earlier:
            before = earlier[-1]
            told = _judged(read_at[before], read_at[now], (now - before) % 3)
            return Rolled(stage=stage, before=read_at[before], after=read_at[now], why=told)
    return None


def _three(view: View, opening: Entry) -> tuple[Decimal, ...] | None:
    """Return the amps of three lines that were read in one opening; None without all of them."""
    newest: Mapping[str, Entry] = {
        place_of(one): one
        for one in view.of("amps")
        if one.about.get("opened") == opening.id and not view.is_corrected(one)
    }
    if not set(_LINES) <= set(newest):
        return None
    read = tuple(figure(newest[line].body["value"]) for line in _LINES)
    return None if OPEN in read or not any(read) else read


def _judged(before: tuple[Decimal, ...], after: tuple[Decimal, ...], steps: int) -> RolledWhy:
    """Tell with what the reading that is furthest from the mean has moved."""
    percent = unbalance_of_three(list(after))
    if percent is not None and percent <= CAUSE_PERCENT:
        return "gone"
    first, second = _furthest(before), _furthest(after)
    if first[1] != second[1]:
        return "unclear"
    if first[0] == second[0]:
        return "supply"
    # each line goes to the next lead, so a lead is fed by the line before its own
    return "motor" if (first[0] - steps) % 3 == second[0] else "unclear"


def _furthest(read: tuple[Decimal, ...]) -> tuple[int, bool]:
    """Return the line that is furthest from the mean, and whether it is above."""
    mean = sum(read, Decimal(0)) / 3
    place = max(range(3), key=lambda one: abs(read[one] - mean))
    return place, read[place] > mean
