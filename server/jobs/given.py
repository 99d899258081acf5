"""Everything given for a motor, as a screen holds it before it is kept."""

from __future__ import annotations

from ninja import Schema

from evencoil.job import StarterRoom, Worked, with_drawing, work_out, work_out_starter
from evencoil.leads import JointsInputs, LeadsInputs
from evencoil.plate import PlateInputs, SupplyInputs, TrustInputs
from evencoil.sizing import SizeInputs
from evencoil.starters import StarterInputs
from jobs.store import profile_of
from people.models import Works

__all__ = ["GivenIn"]


class GivenIn(Schema):
    """Everything given for a motor, to be worked out and not kept."""

    plate: PlateInputs = PlateInputs()
    supply: SupplyInputs = SupplyInputs()
    leads: LeadsInputs = LeadsInputs()
    trust: TrustInputs = TrustInputs()
    joints: JointsInputs = JointsInputs()
    size: SizeInputs = SizeInputs()
    starter: StarterInputs = StarterInputs()

    def worked(self, works: Works) -> tuple[Worked, StarterRoom]:
        """Return the job worked out by the works' own rules, and its starter drawn."""
        found = work_out(
            self.plate,
            self.supply,
            with_drawing(self.size, self.starter),
            profile_of(works),
            self.leads,
            self.joints,
            self.trust,
        )
        return found, work_out_starter(found, self.starter)
