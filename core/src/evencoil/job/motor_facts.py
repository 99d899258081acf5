"""What is known of a job's motor that decides which starters fit it."""

from __future__ import annotations

from evencoil.base import CoreError
from evencoil.job.worked import Worked
from evencoil.leads import derive
from evencoil.starters import FitFacts, Load
from evencoil.winding import StartMethod

__all__ = ["motor_facts"]


def motor_facts(worked: Worked, load: Load = "unknown") -> FitFacts:
    """Return phases, leads, winding type and whether it can be started wye-delta.

    Parameters
    ----------
    worked : Worked
        The job, calculated.
    load : str
        How the machine starts.
    """
    plate, winding = worked.reading.plate, worked.box.winding
    return FitFacts(
        plate.phases,
        plate.leads,
        winding.kind if winding is not None else "",
        _starts_as(worked, "wye_delta"),
        load,
        is_drive_fed=worked.supply is not None and worked.supply.system == "drive",
    )


def _starts_as(worked: Worked, method: StartMethod) -> bool | None:
    """Tell whether the leads can be joined for a way to start; None if nothing tells."""
    box, supply, verdict = worked.box, worked.supply, worked.verdict
    if box.winding is None or box.rating is None or supply is None or verdict is None:
        return None
    try:
        derive(box.winding, rating=box.rating, supply=supply, verdict=verdict, start_method=method)
    except CoreError:
        return False
    return True
