"""Pieces of work for the tests, found by name in the process that answers."""

from __future__ import annotations

import os
import time

from evencoil.base import Message, RefusedError

__all__ = ["breaks", "dies", "doubles", "hogs", "is_deaf", "refuses", "tells_for", "who"]


def doubles(number, tell):
    """Return twice a number."""
    return 2 * number


def who(tell):
    """Return process id and how far it stands back for others."""
    return os.getpid(), os.nice(0)


def refuses(tell):
    """Refuse as the core does."""
    raise RefusedError(Message("starter.none"), field="starter", hint=Message("starter.none.hint"))


def breaks(tell):
    """Fail as only a fault of our own does."""
    raise ZeroDivisionError("a fault")


def dies(tell):
    """End the whole process."""
    os._exit(3)


def hogs(tell):
    """Take more memory than one question may have."""
    return len(bytearray(8 * 1024**3))


def tells_for(seconds, tell):
    """Tell how far it is for some seconds."""
    for place in range(int(seconds * 100)):
        time.sleep(0.01)
        tell(place, int(seconds * 100))
    return "told"


def is_deaf(seconds, tell):
    """Work for some seconds without looking up."""
    time.sleep(seconds)
    return "late"
