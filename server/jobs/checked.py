"""What is about to be kept is calculated first: what cannot be calculated is refused on write.

So nothing that is kept can break reading it. A setting that a device cannot have is refused with
the edit and what the device takes; a fault of our own is refused too, and written to the log.
"""

from __future__ import annotations

import logging

from api.problems import NeedsRepairError, ProblemError
from evencoil.base import CoreError, Inputs, say
from evencoil.job import StepName, work_out
from evencoil.starters import StarterInputs
from jobs.models import JobMotor
from jobs.store import kept
from people.models import Works
from plant.profile import profile_of

__all__ = ["check_calculable"]

_log = logging.getLogger("evencoil.jobs")
#: reasons that no other circuit or option makes right
_NEVER_RIGHT = ("device.", "netlist.")


def check_calculable(link: JobMotor, works: Works, step: StepName, given: Inputs) -> None:
    """Calculate the job as it would stand, and draw its starter.

    Parameters
    ----------
    link : JobMotor
        Where it is to be kept.
    works : Works
        Whose rules it is calculated by.
    step : str
        The step that changes.
    given : Inputs
        Its inputs as they would be kept.

    Raises
    ------
    CoreError
        If the core refuses the whole job.
    ProblemError
        422 if an edit sets what its device cannot have, or the job cannot be calculated.
    """
    try:
        before = kept(link, works).inputs
    except NeedsRepairError:
        return  # another step needs repair first: nothing can be calculated yet
    try:
        starter = work_out(before.model_copy(update={step: given}), profile_of(works)).starter
    except CoreError:
        raise
    except Exception as fault:  # whatever it is, it must not be kept
        _log.exception("%s %s cannot be calculated", link, step)
        raise ProblemError(
            422,
            code="not_calculated",
            detail=f"This cannot be calculated together with the rest of the job"
            f" ({type(fault).__name__}). Nothing was saved.",
            field=step,
            hint="Undo the last change. An administrator finds the reason in the server's log.",
        ) from fault
    if isinstance(given, StarterInputs):
        known = {edit.id: edit for edit in before.starter.edits}
        places = {edit.id: place for place, edit in enumerate(given.edits)}
        for edit, reason in starter.stale:
            place = places.get(edit.id)
            if edit.id.startswith("program.") and reason.id.startswith("logic."):
                # a program with an error is never kept, whoever typed it
                raise ProblemError(
                    422,
                    code="program",
                    detail=say(reason),
                    field=f"starter.programs.{edit.device}",
                    hint="Correct the program there; nothing was saved.",
                )
            if place is None or not reason.id.startswith(_NEVER_RIGHT):
                continue
            if known.get(edit.id) != given.edits[place]:
                raise ProblemError(
                    422,
                    code="out_of_range",
                    detail=say(reason),
                    field=f"starter.edits.{place}",
                    hint="Correct this setting, or leave it blank; nothing was saved.",
                )
