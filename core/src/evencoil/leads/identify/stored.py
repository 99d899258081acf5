"""Stored readings of a job, as the guide takes them.

Units: as in `readings`.
"""

from __future__ import annotations

from evencoil.base import Message, MissingError
from evencoil.leads.identify.guide import Guided, guide
from evencoil.leads.identify.readings import Pair, Reading, Touch, Volts, lead_letters
from evencoil.leads.inputs import BenchInputs, TouchInput, VoltsInput

__all__ = ["guide_bench"]


def _two(pair: tuple[str, ...]) -> Pair:
    one, other = pair
    return one, other


def _reading(item: TouchInput | VoltsInput) -> Reading:
    if isinstance(item, TouchInput):
        ohms = None if item.ohms is None else float(item.ohms)
        return Touch(_two(item.pair), item.rings, ohms)
    joined = tuple(_two(pair) for pair in item.joined)
    return Volts(item.feed, float(item.feed_v), joined, _two(item.read), float(item.volts))


def guide_bench(bench: BenchInputs) -> Guided:
    """Return what a job's readings on unmarked leads tell, and the next one to take.

    Parameters
    ----------
    bench : BenchInputs
        How many leads, groups read whole, and the readings. Ohms [ohm], volts [V].

    Returns
    -------
    Guided
        As `evencoil.unmarked.guide` gives it.

    Raises
    ------
    CoreError
        If there are no leads to identify, or a reading cannot be.
    """
    if not bench.leads:
        raise MissingError(
            Message("unmarked.count", {"count": "0"}),
            field="bench.leads",
            hint=Message("unmarked.count.hint"),
        )
    readings = [_reading(item) for item in bench.readings]
    return guide(lead_letters(bench.leads), readings, groups=bench.groups)
