"""A problem found on a netlist: its rule, its cause, its place, and what to change."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from evencoil.base import Message
from evencoil.circuit import Circuit, Edit

__all__ = ["Level", "Problem", "problem"]

#: error: must not be wired so; doubt: a person must decide; note: to know
Level = Literal["error", "doubt", "note"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Problem:
    """What is wrong with a netlist.

    Attributes
    ----------
    rule : str
        Number of the rule, for example ``H07``.
    level : str
        ``error``, ``doubt`` or ``note``.
    devices : tuple of str
        Ids of the devices that it is about, to be lit in the drawing.
    terminals : tuple of str
        Terminals that it is about.
    message, change : Message
        The cause and place, and what to do.
    edits : tuple of Edit
        The change as edits of the drawing; empty where a person has to choose.
    is_played : bool
        Found by playing the circuit; else by its drawing alone.
    """

    rule: str
    level: Level
    devices: tuple[str, ...]
    terminals: tuple[str, ...]
    message: Message
    change: Message
    edits: tuple[Edit, ...] = ()
    is_played: bool = False


def problem(
    circuit: Circuit,
    rule: str,
    level: Level,
    name: str,
    *places: str,
    edits: tuple[Edit, ...] = (),
    **params: str,
) -> Problem:
    """Return a problem with its words.

    Parameters
    ----------
    circuit : Circuit
        For the tags.
    rule : str
        Number of the rule.
    level : str
        How bad.
    name : str
        Of the sentence: ``check.NAME`` and ``check.NAME.change``.
    places : str
        Device ids, or terminals as ``device.terminal``; the first is the place.
    edits : tuple of Edit
        The change, where there is just one.
    params : str
        What the sentence needs besides ``place``.
    """
    devices = tuple(dict.fromkeys(place.rpartition(".")[0] or place for place in places))
    terminals = tuple(place for place in places if "." in place)
    said = [circuit.named(place) for place in places]
    filled = {
        "place": said[0] if said else "",
        "places": ", ".join(said),
        "other": said[1] if len(said) > 1 else "",
        "others": ", ".join(said[1:]),
        **params,
    }
    return Problem(
        rule=rule,
        level=level,
        devices=devices,
        terminals=terminals,
        message=Message(f"check.{name}", filled),
        change=Message(f"check.{name}.change", filled),
        edits=edits,
    )
