"""One line of tracing, as it is called out at a panel: ``3: M A1 - PS1 14 - S2 13``.

A place is a device's tag and a terminal, apart by a space, a point or a colon. Places are
joined by a hyphen, a dash, an arrow or the word *to*; each joins on to the one before. A wire
number may stand first, with a colon.

Source: trade practice.
"""

from __future__ import annotations

import re
from dataclasses import dataclass
from itertools import pairwise

from evencoil.base import Message, OutOfRangeError, line_typed
from evencoil.circuit.text import Circuit

__all__ = ["TracedWire", "read_trace"]

_JOINTS = re.compile(r"\s*(?:->|→|–|—|\s-\s|\bto\b|;)\s*|\s+-\s*|\s*-\s+", re.IGNORECASE)
_NUMBER = re.compile(r"^\s*(?:wire\s+)?([0-9A-Za-z]{1,6})\s*:\s+(?=\S)", re.IGNORECASE)
_MOST_PLACES = 40
_SAMPLE = 12


@dataclass(frozen=True, slots=True)
class TracedWire:
    """A wire as it was called out: two terminals as ``device.terminal``, and its number."""

    start: str
    end: str
    number: str


def _wrong(name: str, **params: str) -> OutOfRangeError:
    return OutOfRangeError(
        Message(f"trace.{name}", params), field="line", hint=Message(f"trace.{name}.hint", params)
    )


def _place(circuit: Circuit, text: str) -> str:
    """Return ``device.terminal`` for one place as people say it."""
    parts = [part for part in re.split(r"[\s.:]+", text.strip()) if part]
    if len(parts) < 2:
        raise _wrong("place", text=text.strip()[:40])
    said, end = " ".join(parts[:-1]), parts[-1]
    wanted = said.casefold()
    tags = {item.id: circuit.tags.get(item.id, item.id) for item in circuit.netlist.devices}
    found = [name for name, tag in tags.items() if tag.casefold() == wanted]
    if not found:
        known = ", ".join(sorted(tags.values())[:_SAMPLE])
        raise _wrong("device", text=said[:40], known=known)
    item = circuit.netlist.device(found[0])
    ends = {name.casefold(): name for name in item.terminals}
    if item.type in {"supply", "joint"}:
        end = line_typed(end.upper())
    if end.casefold() not in ends:
        raise _wrong(
            "terminal", text=end[:20], tag=tags[item.id], known=", ".join(item.terminals[:24])
        )
    return f"{item.id}.{ends[end.casefold()]}"


def read_trace(circuit: Circuit, line: str) -> tuple[TracedWire, ...]:
    """Return the wires that a line calls out.

    Parameters
    ----------
    circuit : Circuit
        With the devices that are there already.
    line : str
        For example ``M A1 - PS1 14``; three places make two wires.

    Raises
    ------
    OutOfRangeError
        If a device or a terminal is not there, or fewer than two places are named: which one,
        and what is there instead.
    """
    number = ""
    lead = _NUMBER.match(line)
    if lead is not None:
        number, line = lead[1], line[lead.end() :]
    places = [part for part in _JOINTS.split(line) if part and part.strip()]
    if len(places) < 2 or len(places) > _MOST_PLACES:
        raise _wrong("count", count=str(len(places)))
    ends = [_place(circuit, part) for part in places]
    found = []
    for start, end in pairwise(ends):
        if start == end:
            raise _wrong("same", place=circuit.said(start))
        found.append(TracedWire(start, end, number))
    return tuple(found)
