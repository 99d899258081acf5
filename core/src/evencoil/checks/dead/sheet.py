"""The dead-check table in words: what to hold, where to probe, what a right circuit reads."""

from __future__ import annotations

import math

from evencoil.base import Message, say
from evencoil.checks.dead.bench import Hand
from evencoil.checks.dead.plan import Check, dead_checks
from evencoil.circuit import Circuit

__all__ = ["dead_rows", "said_expected", "said_hand"]


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


def dead_rows(circuit: Circuit) -> list[tuple[str, str, str, str]]:
    """Return the table: what is operated, both meter leads, what to expect.

    Parameters
    ----------
    circuit : Circuit
        As drawn.
    """
    none = say(Message("dead.hands.none"))
    return [
        (
            ", ".join(said_hand(circuit, hand) for hand in one.hands) or none,
            circuit.said(one.start),
            circuit.said(one.end),
            said_expected(one),
        )
        for one in dead_checks(circuit).checks
    ]
