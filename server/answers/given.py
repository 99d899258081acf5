"""Everything entered for a motor, as a screen holds it before it is saved."""

from __future__ import annotations

from evencoil.job import JobInputs, Worked, work_out
from people.models import Works
from plant.profile import profile_of

__all__ = ["GivenIn", "worked"]

GivenIn = JobInputs


def worked(given: JobInputs, works: Works) -> Worked:
    """Return the job calculated by the plant rules.

    Raises
    ------
    CoreError
        If the nameplate's text is no text.
    """
    return work_out(given, profile_of(works))
