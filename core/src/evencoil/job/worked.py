"""A whole job, calculated."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field
from functools import cached_property

from evencoil.base import CoreError, Figure, Finding, Refusal, Step, Trail
from evencoil.codebook import Profile
from evencoil.job.job_starter import JobStarter
from evencoil.job.states import StepState
from evencoil.leads import Box, JointInput, JointsWorked
from evencoil.plate import Estimate, PlateReading, Supply, Verdict
from evencoil.sizing import DeviceKind, RatingRuleRow
from evencoil.starters import ControlSupply

__all__ = ["Worked"]


@dataclass(frozen=True, kw_only=True)
class Worked:
    """A whole job, calculated.

    Attributes
    ----------
    reading : PlateReading
        The nameplate, piece by piece.
    supply : Supply or None
        None if it was not given or could not be read.
    verdict : Verdict or None
        The nameplate column in use.
    supply_refusal : Refusal or None
        Why there is no supply, or why the motor must not be connected to it.
    supply_checks : tuple of Finding
        What was measured and said of the supply, held against the nameplate.
    trail : Trail
        Every value with its evidence, in the order it was calculated.
    rating_rules : tuple of RatingRuleRow
        What each opinion would put in front of this motor.
    figures : tuple of Figure
        The lines of the Size sheet.
    states : tuple of StepState
        One for each step that exists.
    box : Box
        The Leads step: the derived connection, and what the joints given do.
    estimate : Estimate, CoreError or None
        For which volts a doubted winding is made, or why that cannot be determined;
        None while the nameplate is trusted.
    planned : JointsWorked or None
        The Joints step: how each is made, and whether they fit.
    planned_refusal : Refusal or None
        Why they cannot be planned.
    joints : tuple of JointInput
        The box as joined.
    kind : str or None
        Kind of fuse or breaker, where the sizes got that far.
    control : ControlSupply or None
        What a control circuit is fed from on this supply.
    finish : callable
        Draws the starter of this job when it is first asked for.
    """

    reading: PlateReading
    supply: Supply | None
    verdict: Verdict | None
    supply_refusal: Refusal | None
    supply_checks: tuple[Finding, ...]
    trail: Trail
    rating_rules: tuple[RatingRuleRow, ...]
    figures: tuple[Figure, ...]
    states: tuple[StepState, ...]
    profile: Profile
    box: Box
    estimate: Estimate | CoreError | None
    planned: JointsWorked | None
    planned_refusal: Refusal | None
    joints: tuple[JointInput, ...]
    kind: DeviceKind | None
    control: ControlSupply | None
    finish: Callable[[Worked], JobStarter] = field(repr=False, compare=False)

    @cached_property
    def starter(self) -> JobStarter:
        """Return the starter of this job: empty, refused, or drawn and rated."""
        return self.finish(self)

    @property
    def steps(self) -> tuple[Step, ...]:
        """Return every value with its evidence, in the order it was calculated."""
        return tuple(self.trail)
