"""What can be read on unmarked leads: ohms, volts of an induction test, the kick of a battery.

Units: resistance [ohm], volts [V].
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from evencoil.base import Message, OutOfRangeError, RefusedError

__all__ = [
    "LEAD_LETTERS",
    "Kick",
    "Needle",
    "Pair",
    "Reading",
    "Touch",
    "Volts",
    "check_readings",
    "lead_letters",
]

LEAD_LETTERS = "abcdefghijklm"
Pair = tuple[str, str]


@dataclass(frozen=True, slots=True)
class Touch:
    """Two leads with an ohmmeter between them, all joints open.

    ``ohms`` is None where it rang but no one read a figure.
    """

    pair: Pair
    rings: bool
    ohms: float | None = None


@dataclass(frozen=True, slots=True)
class Volts:
    """One voltage of an induction test.

    Attributes
    ----------
    feed : tuple of str
        Two leads fed with low AC at rest, or three on L1, L2, L3 with the
        motor running unloaded.
    feed_v : float
        Volts of that feed, between lines. [V]
    joined : tuple of pairs
        Leads jumpered for this reading.
    read : pair of str
        Where the meter is.
    volts : float
        What it shows. [V]
    """

    feed: tuple[str, ...]
    feed_v: float
    joined: tuple[Pair, ...]
    read: Pair
    volts: float

    @property
    def is_running(self) -> bool:
        """Tell whether three leads were fed and the rotor turned."""
        return len(self.feed) == 3


Needle = Literal["up", "down", "still"]


@dataclass(frozen=True, slots=True)
class Kick:
    """A moving-coil meter on one coil at the moment a battery is put on another.

    ``feed`` is the lead on the battery's plus and the one on its minus, ``read`` those on the
    meter's plus and minus; the needle goes up where the meter's plus is of the same sense.
    """

    feed: Pair
    read: Pair
    needle: Needle


Reading = Touch | Volts | Kick


def lead_letters(count: int) -> tuple[str, ...]:
    """Return the lead letters that go on first: a, b, c and so on.

    Raises
    ------
    OutOfRangeError
        If that many leads are no motor known here.
    """
    if count not in {3, 6, 9, 12}:
        raise OutOfRangeError(
            Message("unmarked.count", {"count": str(count)}),
            field="bench.leads",
            hint=Message("unmarked.count.hint"),
        )
    return tuple(LEAD_LETTERS[:count])


def _refuse(code: str, place: int, **params: str) -> RefusedError:
    return RefusedError(
        Message(f"unmarked.{code}", {"n": str(place + 1), **params}),
        field=f"bench.readings.{place}",
        hint=Message(f"unmarked.{code}.hint"),
    )


def _pairs(reading: Reading) -> list[Pair]:
    """Return the pairs of leads that a reading names."""
    if isinstance(reading, Touch):
        return [reading.pair]
    if isinstance(reading, Kick):
        return [reading.feed, reading.read]
    return [reading.read, *reading.joined]


def check_readings(leads: Sequence[str], readings: Sequence[Reading]) -> None:
    """Refuse readings that cannot be: unknown lead letters, a lead against itself, no volts.

    Parameters
    ----------
    leads : sequence of str
        The lead letters that are on.
    readings : sequence of Reading
        In the order they were taken.

    Raises
    ------
    RefusedError
        Naming the reading by its number.
    """
    for place, reading in enumerate(readings):
        pairs = _pairs(reading)
        used = {end for pair in pairs for end in pair}
        if isinstance(reading, Volts):
            used |= set(reading.feed)
        for lead in sorted(used):
            if lead not in leads:
                raise _refuse("letter", place, lead=lead[:12])
        if any(one == other for one, other in pairs):
            raise _refuse("itself", place, lead=pairs[0][0])
        if isinstance(reading, Touch):
            if reading.ohms is not None and not 0 <= reading.ohms < 1e7:
                raise _refuse("ohms", place)
        elif isinstance(reading, Volts):
            _check_volts(place, reading)
        elif set(reading.feed) & set(reading.read):
            raise _refuse("kick", place)


def _check_volts(place: int, reading: Volts) -> None:
    if len(reading.feed) not in {2, 3} or len(set(reading.feed)) != len(reading.feed):
        raise _refuse("feed", place)
    if not 0 < reading.feed_v <= 1000:
        raise _refuse("feed_v", place)
    if not 0 <= reading.volts <= 4 * reading.feed_v:
        raise _refuse("volts", place, volts=f"{reading.volts:g}", feed=f"{reading.feed_v:g}")
