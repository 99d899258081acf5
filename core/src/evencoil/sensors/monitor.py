"""The monitor of resistance thermometers: alarm, trip, voting, and sensors that failed.

Units: [C], [ohm].
Source: trade practice of motor protection; differences and latching are choices of the model.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

from evencoil.base import CoreError
from evencoil.sensors.elements import celsius_of, ohms_of

__all__ = ["OPEN_C", "SHORT_C", "Channel", "Monitor", "MonitorState"]

#: below the alarm by so much it goes back [K]
_BACK_K = 2.0
#: an element that reads below the one is shorted, above the other it is open [C]
SHORT_C, OPEN_C = -60.0, 260.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Channel:
    """One element with its set points [C]."""

    element: str
    alarm_c: float
    trip_c: float


@dataclass(frozen=True, slots=True, kw_only=True)
class MonitorState:
    """Alarm and trip; temperatures or what is wrong with each element."""

    is_alarm: bool
    is_trip: bool
    shown: tuple[str, ...]


@dataclass(slots=True)
class Monitor:
    """A monitor in service.

    Attributes
    ----------
    channels : tuple of Channel
        One for each element.
    votes : int
        How many have to be over their trip.
    failure_trips : bool
        A failed sensor votes trip; else it only alarms, and fewer votes are asked for.
    """

    channels: tuple[Channel, ...]
    votes: int = 1
    failure_trips: bool = True
    _alarms: set[int] = field(default_factory=set)
    _is_tripped: bool = False

    def look(self, ohms: Sequence[float], *, is_reset: bool = False) -> MonitorState:
        """Return its state after a look at every element.

        Parameters
        ----------
        ohms : sequence of float
            Of each element, leads taken off; infinite is open. [ohm]
        is_reset : bool
            Its button is pressed meanwhile.
        """
        told = [_read(one, value) for one, value in zip(self.channels, ohms, strict=True)]
        failed = {place for place, one in enumerate(told) if isinstance(one, str)}
        degrees: Mapping[int, float] = {
            place: one for place, one in enumerate(told) if isinstance(one, float)
        }
        over = {place for place, now in degrees.items() if _is_at(now, self.channels[place].trip_c)}
        for place, now in degrees.items():
            level = self.channels[place].alarm_c
            if _is_at(now, level):
                self._alarms.add(place)
            elif not _is_at(now, level - _BACK_K):
                self._alarms.discard(place)
        self._alarms -= failed
        votes = min(self.votes, len(told))
        if self.failure_trips:
            over |= failed
        else:
            votes = min(votes, len(degrees))
        if len(over) >= max(votes, 1):
            self._is_tripped = True
        elif is_reset and not over:
            self._is_tripped = False
        return MonitorState(
            is_alarm=bool(self._alarms or failed),
            is_trip=self._is_tripped,
            shown=tuple(one if isinstance(one, str) else f"{one:.1f} C" for one in told),
        )


def _read(channel: Channel, ohms: float) -> float | str:
    """Return the temperature of an element, or ``short`` or ``open``."""
    if ohms < ohms_of(channel.element, SHORT_C):
        return "short"
    if ohms > ohms_of(channel.element, OPEN_C):
        return "open"
    try:
        return celsius_of(channel.element, ohms)
    except CoreError:
        return "open"


def _is_at(now: float, level: float) -> bool:
    """Tell whether a temperature is at a level or above; what was calculated may be a hair off."""
    return now >= level - 1e-6
