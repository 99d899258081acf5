"""The shelf of checked programs: one file each, with what its points are for.

Source: own work; each is run by a test, and wired interlocks and stops are never in its place.
"""

from __future__ import annotations

import re
from dataclasses import dataclass
from functools import cache
from importlib.resources import files

__all__ = ["ShelvedProgram", "checked_programs"]

_TITLE = re.compile(r"\(\* title: (.+)")
_ORDER = (
    "two_wire",
    "three_wire",
    "jog",
    "reversing",
    "star_delta",
    "lead_lag",
    "sequence",
    "limited_tries",
)


@dataclass(frozen=True, slots=True, kw_only=True)
class ShelvedProgram:
    """A checked program: its id, what it is for, its text with what its points are."""

    id: str
    title: str
    text: str


@cache
def checked_programs() -> tuple[ShelvedProgram, ...]:
    """Return every checked program.

    Raises
    ------
    ValueError
        If a file lacks its title: a bug.
    """
    folder = files("evencoil.logic").joinpath("library")
    found = []
    for name in _ORDER:
        text = folder.joinpath(f"{name}.st").read_text("utf-8")
        title = _TITLE.match(text)
        if title is None:
            raise ValueError(f"{name}.st lacks its title")
        found.append(ShelvedProgram(id=name, title=title.group(1).strip(), text=text))
    return tuple(found)
