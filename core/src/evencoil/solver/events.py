"""What is done to a circuit and what happens in it, in microseconds from the start."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

__all__ = ["Action", "Event", "expand"]


@dataclass(frozen=True, slots=True)
class Action:
    """What an operator or a fault does, and when.

    ``time`` is in microseconds from the start. ``device`` is an id, ``word``
    what the verb needs besides: a selector position, a line, a temperature.
    """

    time: int
    verb: str
    device: str = ""
    word: str = ""


@dataclass(frozen=True, slots=True)
class Event:
    """Something that happened, with the event that caused it."""

    n: int
    time: int
    device: str
    aspect: str
    value: str
    cause: int | None


def expand(verb: str, time: int, device: str, word: str) -> Sequence[Action]:
    """Return the single actions that one spoken action means.

    Parameters
    ----------
    verb : str
        ``push`` is press, and release after 0.3 s; ``dip`` takes the supply away for ``word``
        seconds.
    time : int
        When it begins. [us]
    device : str
        Device id; empty for the supply.
    word : str
        What the verb needs besides.
    """
    if verb == "push":
        return (
            Action(time, "press", device, word),
            Action(time + 300_000, "release", device, word),
        )
    if verb == "dip":
        gone = round(float(word) * 1e6)
        return (Action(time, "off"), Action(time + gone, "on"))
    return (Action(time, verb, device, word),)
