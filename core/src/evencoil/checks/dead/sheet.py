"""The dead-check table in words: what to hold, where to probe, what a right circuit reads."""

from __future__ import annotations

import math
from dataclasses import dataclass

from evencoil.base import Message, say
from evencoil.checks.dead.bench import Hand
from evencoil.checks.dead.plan import Check, DeadChecks
from evencoil.circuit import Circuit

__all__ = ["DeadSheet", "dead_sheet", "said_expected", "said_hand"]


def said_hand(circuit: Circuit, hand: Hand) -> str:
    """Return what is held or set, in words.

    Parameters
    ----------
    circuit : Circuit
        For the tags.
    hand : Hand
        What is done.
    """
    tag = circuit.tags.get(hand.device, hand.device)
    return say(Message(f"dead.hand.{hand.verb}", {"tag": tag, "word": hand.word}))


def said_expected(check: Check) -> str:
    """Return what a right circuit reads, in words.

    Parameters
    ----------
    check : Check
        One reading.
    """
    if math.isinf(check.ohms):
        return say(Message(f"dead.{check.kind}"))
    ohms = f"{check.ohms:.0f}" if check.ohms >= 10 else f"{check.ohms:.1f}"
    return say(Message(f"dead.{check.kind}", {"ohms": ohms}))


@dataclass(frozen=True, slots=True, kw_only=True)
class DeadSheet:
    """The table to take to the panel.

    Attributes
    ----------
    apart : tuple of str
        What is taken apart before the first reading.
    rows : tuple of (str, str, str, str)
        What is operated, both meter leads, what to expect.
    blind : tuple of str
        Single mistakes that no reading shows: to be looked for by eye.
    shown, mistakes : int
        How many of the single mistakes some reading shows.
    """

    apart: tuple[str, ...]
    rows: tuple[tuple[str, str, str, str], ...]
    blind: tuple[str, ...]
    shown: int
    mistakes: int


def dead_sheet(circuit: Circuit, found: DeadChecks) -> DeadSheet:
    """Return the dead check in words.

    Parameters
    ----------
    circuit : Circuit
        As drawn.
    found : DeadChecks
        Its readings.
    """
    none = say(Message("dead.hands.none"))
    return DeadSheet(
        apart=tuple(said_hand(circuit, hand) for hand in found.apart),
        rows=tuple(
            (
                ", ".join(said_hand(circuit, hand) for hand in found.held(one)) or none,
                circuit.said(one.start),
                circuit.said(one.end),
                said_expected(one),
            )
            for one in found.checks
        ),
        blind=tuple(say(one) for one in found.blind),
        shown=found.shown,
        mistakes=found.mistakes,
    )
