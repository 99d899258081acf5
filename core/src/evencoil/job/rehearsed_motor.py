"""The motor that a rehearsal of this job moves: its own where the nameplate is enough.

Where it is not, the rehearsal keeps to typical times and says what is missing. A load that
no one entered is taken as a fan at rated torque, and said so: a rehearsal is of the circuit.
"""

from __future__ import annotations

from dataclasses import dataclass

from evencoil.base import CoreError, Message
from evencoil.job.inputs import JobInputs
from evencoil.job.run_up import run_up_of
from evencoil.job.worked import Worked
from evencoil.solver.motor import MotorOnLoad

__all__ = ["RehearsedMotor", "rehearsed_motor"]

_USUAL = "fan"


@dataclass(frozen=True, slots=True)
class RehearsedMotor:
    """What moves in a rehearsal.

    Attributes
    ----------
    motor : MotorOnLoad or None
        None: typical times, whatever the nameplate says.
    said : Message
        Which set of constants it is, what was taken as usual or what is missing.
    mark : Message or None
        In a few words what must be known of every figure shown; None where all was entered.
    """

    motor: MotorOnLoad | None
    said: Message
    mark: Message | None = None


def rehearsed_motor(inputs: JobInputs, worked: Worked) -> RehearsedMotor:
    """Return the motor of a job as its rehearsal runs it.

    Parameters
    ----------
    inputs : JobInputs
        As entered.
    worked : Worked
        The same, calculated.
    """
    is_told = bool(inputs.load.kind)
    taken = inputs
    if not is_told:
        load = inputs.load.model_copy(update={"kind": _USUAL})
        taken = inputs.model_copy(update={"load": load})
    try:
        facts = run_up_of(taken, worked, is_on_line=False).facts
    except CoreError as missing:
        why = str(missing.message)
        return RehearsedMotor(
            None, Message("rehearsal.catalogue", {"why": why}), Message("rehearsal.mark_catalogue")
        )
    count = sum(step.kind == "assumed" for step in facts.trail)
    name = "rehearsal.physical" if is_told else "rehearsal.physical_no_load"
    motor = facts.on_load()
    if motor is None:
        return RehearsedMotor(None, Message("rehearsal.wound"), Message("rehearsal.mark_catalogue"))
    mark = None if is_told else Message("rehearsal.mark_no_load")
    return RehearsedMotor(motor, Message(name, {"count": str(count)}), mark)
