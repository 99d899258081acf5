"""Stored readings of a job, as the guide takes them.

Units: as in `readings`.
"""

from __future__ import annotations

from evencoil.base import Message, MissingError, OutOfRangeError, RefusedError
from evencoil.leads.identify.guide import Guided, guide
from evencoil.leads.identify.readings import Kick, Pair, Reading, Touch, Volts, lead_letters
from evencoil.leads.inputs import BenchInputs, KickInput, TouchInput, VoltsInput

__all__ = ["guide_bench"]


def _two(pair: tuple[str, ...]) -> Pair:
    one, other = pair
    return one, other


def _reading(item: TouchInput | VoltsInput | KickInput, place: int, probe_ohm: float) -> Reading:
    if isinstance(item, KickInput):
        return Kick(_two(item.feed), _two(item.read), item.needle)
    if isinstance(item, TouchInput):
        ohms = None if item.ohms is None else float(item.ohms) - probe_ohm
        if ohms is not None and ohms <= 0:
            raise OutOfRangeError(
                Message(
                    "unmarked.probe",
                    {"n": str(place + 1), "ohms": f"{item.ohms}", "probe": f"{probe_ohm:g}"},
                ),
                field=f"bench.readings.{place}",
                hint=Message("unmarked.probe.hint"),
            )
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
        If there are no leads to identify, a reading cannot be, or a known tag is none.
    """
    if not bench.leads:
        raise MissingError(
            Message("unmarked.count", {"count": "0"}),
            field="bench.leads",
            hint=Message("unmarked.count.hint"),
        )
    letters = lead_letters(bench.leads)
    _check_known(bench, letters)
    probe = float(bench.probe_ohm or 0)
    readings = [_reading(item, place, probe) for place, item in enumerate(bench.readings)]
    return guide(
        letters,
        readings,
        groups=bench.groups,
        known={letter: _lead(mark) for letter, mark in bench.known.items()} or None,
        same_phase=tuple((_two(pairs[0]), _two(pairs[1])) for pairs in bench.same_phase),
        corners=bench.corners,
    )


def _lead(mark: str) -> str:
    """Return a T number as typed with or without its letter."""
    text = mark.strip().upper()
    return f"T{text}" if text.isdigit() else text


def _check_known(bench: BenchInputs, letters: tuple[str, ...]) -> None:
    """Refuse tags on letters that are not there, and one number on two letters."""
    named = [
        *bench.known,
        *bench.corners,
        *(end for pairs in bench.same_phase for pair in pairs for end in pair),
    ]
    wrong = next((letter for letter in named if letter not in letters), None)
    if wrong is not None:
        raise RefusedError(
            Message("unmarked.known_letter", {"lead": wrong[:12]}),
            field="bench.known",
            hint=Message("unmarked.letter.hint"),
        )
    marks = [_lead(mark) for mark in bench.known.values()]
    twice = next((mark for mark in marks if marks.count(mark) > 1), None)
    if twice is not None:
        raise RefusedError(
            Message("marks.twice", {"mark": twice}),
            field="bench.known",
            hint=Message("marks.twice.hint"),
        )
