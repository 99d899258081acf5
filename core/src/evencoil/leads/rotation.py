"""Which way the shaft will turn, seen from where, and what to exchange if it does not.

Source: IEC 60034-8 ties the letters U, V, W to a direction; the numbers of NEMA
MG 1 part 2 do not for three-phase motors. Either way the bump test decides, since
the phase order of the supply was not read.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from evencoil.base import Message
from evencoil.leads.inputs import LeadsInputs
from evencoil.leads.outcome import Outcome
from evencoil.plate import Supply
from evencoil.winding import Winding

__all__ = ["Sense", "Turn", "expected_turn", "rotation_note"]

Sense = Literal["clockwise", "counter-clockwise", "unknown"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Turn:
    """The direction to expect, facing the shaft end; ``unknown`` where the marks do not say.

    It is an expectation until the bump test, and ``said`` tells what it rests on.
    """

    sense: Sense
    said: Message


def expected_turn(winding: Winding, inputs: LeadsInputs, outcome: Outcome | None) -> Turn | None:
    """Return the direction to expect facing the shaft end.

    Parameters
    ----------
    winding : Winding
        The motor's.
    inputs : LeadsInputs
        Marks on the leads, and the direction asked for.
    outcome : Outcome or None
        What the joints as made would do; without any, the joints as derived.

    Returns
    -------
    Turn or None
        None for a single-phase motor and where the joints as made are not right:
        such a motor need not turn at all.
    """
    if winding.phases != 3 or (outcome is not None and outcome.verdict == "wrong"):
        return None
    if inputs.style != "UVW" or inputs.names or winding.is_two_speed:
        return Turn(sense="unknown", said=Message("leads.turn.unknown"))
    made = outcome.rotation if outcome is not None else ""
    is_reverse = (made or inputs.direction) == "reverse"
    sense: Sense = "counter-clockwise" if is_reverse else "clockwise"
    return Turn(sense=sense, said=Message("leads.turn.letters", {"sense": sense}))


def rotation_note(
    winding: Winding,
    supply: Supply | None,
    swap: str,
    *,
    is_switched: bool,
    is_on_drive: bool = False,
) -> Message | None:
    """Say what to exchange if the motor turns the wrong way.

    Parameters
    ----------
    winding : Winding
        The motor's.
    supply : Supply or None
        A drive changes direction at its output.
    swap : str
        The two lines that this plant exchanges.
    is_switched : bool
        Whether the starter switches the leads.
    is_on_drive : bool
        Whether the starter is a drive.

    Returns
    -------
    Message or None
        None for a single-phase motor.
    """
    if winding.phases != 3:
        return None
    place = "switched" if is_switched else "line"
    if is_on_drive or (supply is not None and supply.system == "drive"):
        place = "drive"
    one, other = swap.split("-")
    return Message(f"leads.rotation.{place}", {"one": one, "other": other})
