"""The Leads step worked out: the derived answer, and what the joints given would do.

The two never wait for each other: a wrong join is shown for what it would do
even where nothing can be derived, and the answer is there before a tap.
"""

from __future__ import annotations

from dataclasses import dataclass

from evencoil.connection import (
    Connection,
    Outcome,
    derive,
    kind_from_plate,
    quick_tell,
    rated_coil_volts,
    tried,
)
from evencoil.errors import CoreError, MissingError
from evencoil.inputs import LeadsInputs
from evencoil.nameplate import PlateReading
from evencoil.supply import Supply, Verdict
from evencoil.winding import Winding
from evencoil.words import Message

__all__ = ["Box", "work_out_box"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Box:
    """What is known of the terminal box.

    Attributes
    ----------
    winding : Winding or None
        None until plate or person says which.
    rated_v : float or None
        Volts one coil is made for. [V]
    derived : Connection or None
        The joining for this supply.
    derived_error : CoreError or None
        Why there is none.
    outcome : Outcome or None
        What the joints given do.
    outcome_error : CoreError or None
        Why that cannot be told.
    tell : Message or None
        How counting conductors tells the derived joining.
    note : Message or None
        What is shown although nothing says it.
    """

    winding: Winding | None
    rated_v: float | None
    derived: Connection | None
    derived_error: CoreError | None
    outcome: Outcome | None
    outcome_error: CoreError | None
    tell: Message | None
    note: Message | None


def work_out_box(
    reading: PlateReading,
    supply: Supply | None,
    verdict: Verdict | None,
    refused: CoreError | None,
    inputs: LeadsInputs,
) -> Box:
    """Work the Leads step out.

    Parameters
    ----------
    reading : PlateReading
        Volts, lead count and signs.
    supply : Supply or None
        None if it is not known.
    verdict : Verdict or None
        The plate column in use; None if the supply was refused.
    refused : CoreError or None
        Why there is no verdict.
    inputs : LeadsInputs
        The winding as settled by ohms, and the joints.

    Returns
    -------
    Box
        Every part that can be told, each with its reason where it cannot.
    """
    winding, rated, derived = None, None, None
    derived_error: CoreError | None = None
    outcome, outcome_error = None, None
    try:
        winding = kind_from_plate(reading.plate, inputs.winding)
        rated = rated_coil_volts(winding, reading.plate)
        if supply is None or verdict is None:
            raise refused or MissingError(
                Message("supply.missing"), field="supply.text", hint=Message("supply.missing.hint")
            )
        derived = derive(winding, plate=reading.plate, supply=supply, verdict=verdict)
    except CoreError as error:
        derived_error = error
    if winding is not None and rated is not None and supply is not None:
        try:
            outcome = tried(
                winding,
                [joint.as_core() for joint in inputs.joints],
                supply=supply,
                rated_v=rated,
            )
        except CoreError as error:
            outcome_error = error
    return Box(
        winding=winding,
        rated_v=rated,
        derived=derived,
        derived_error=derived_error,
        outcome=outcome,
        outcome_error=outcome_error,
        note=_note(reading, winding, inputs),
        tell=None if winding is None or derived is None else quick_tell(winding, derived),
    )


def _note(reading: PlateReading, winding: Winding | None, inputs: LeadsInputs) -> Message | None:
    """Say that a three-lead motor is drawn as a wye when nothing says so."""
    plate = reading.plate
    said = {*plate.connection_signs, *(band.sign for band in plate.volts_v if band.sign)}
    if winding is None or winding.halves > 1 or inputs.winding is not None or len(said) == 1:
        return None
    return Message("leads.three")
