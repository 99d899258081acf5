"""One job worked out: plate read, supply judged, sizes with their evidence.

Each figure is either a step or a refusal that says what to do; a refusal of
one figure never takes another one with it, except those that stand on it.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from decimal import Decimal

from evencoil.base import CoreError, Figure, Finding, Message, MissingError, Refusal, Step, Trail
from evencoil.codebook import Profile, edition_of
from evencoil.job.states import StepState, joints_state, leads_state, plate_state, size_state
from evencoil.leads import (
    Box,
    JointInput,
    JointsInputs,
    JointsWorked,
    LeadsInputs,
    plan_joints,
    work_out_box,
)
from evencoil.plate import (
    Estimate,
    PlateInputs,
    PlateReading,
    Supply,
    SupplyInputs,
    TrustFacts,
    TrustInputs,
    Verdict,
    check_supply,
    estimate_voltage,
    judge,
    read,
    read_supply,
)
from evencoil.sizing import (
    SchoolRow,
    SizeInputs,
    branch_circuit,
    horsepower_from_kw,
    own_sizes,
    schools_of,
)

__all__ = ["Worked", "work_out"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Worked:
    """A whole job, worked out.

    Attributes
    ----------
    reading : PlateReading
        The plate, piece by piece.
    supply : Supply or None
        None if it was not given or could not be read.
    verdict : Verdict or None
        The plate column in use.
    supply_refusal : Refusal or None
        Why there is no supply, or why the motor must not be connected to it.
    supply_checks : tuple of Finding
        What was measured and said of the supply, held against the plate.
    trail : Trail
        Every value with its evidence, in the order it was worked out.
    schools : tuple of SchoolRow
        What each opinion would put in front of this motor.
    figures : tuple of Figure
        The lines of the Size sheet.
    states : tuple of StepState
        One for each step that exists.
    box : Box
        The Leads step: the derived joining, and what the joints given do.
    estimate : Estimate, CoreError or None
        For which volts a doubted winding is made, or why that cannot be told;
        None while the plate is trusted.
    planned : JointsWorked or None
        The Joints step: how each is made, and whether they fit.
    planned_refusal : Refusal or None
        Why they cannot be planned.
    joints : tuple of JointInput
        The box as joined.
    """

    reading: PlateReading
    supply: Supply | None
    verdict: Verdict | None
    supply_refusal: Refusal | None
    supply_checks: tuple[Finding, ...]
    trail: Trail
    schools: tuple[SchoolRow, ...]
    figures: tuple[Figure, ...]
    states: tuple[StepState, ...]
    profile: Profile
    box: Box
    estimate: Estimate | CoreError | None
    planned: JointsWorked | None
    planned_refusal: Refusal | None
    joints: tuple[JointInput, ...]

    @property
    def steps(self) -> tuple[Step, ...]:
        """Return every value with its evidence, in the order it was worked out."""
        return tuple(self.trail)


def _supply(
    text: str, reading: PlateReading
) -> tuple[Supply | None, Verdict | None, CoreError | None]:
    """Read and judge the supply; an error says what is wrong or missing."""
    if not text.strip():
        error = MissingError(
            Message("supply.missing"), field="supply.text", hint=Message("supply.missing.hint")
        )
        return None, None, error
    try:
        supply = read_supply(text)
    except CoreError as wrong:
        return None, None, wrong
    if not reading.plate.volts_v:
        error = MissingError(
            Message("plate.no_volts"), field="volts_v", hint=Message("plate.no_volts.hint")
        )
        return supply, None, error
    try:
        return supply, judge(reading.plate, supply), None
    except CoreError as refused:
        return supply, None, refused


def _trust(
    given: TrustInputs, reading: PlateReading
) -> tuple[Estimate | CoreError | None, StepState | None]:
    """Estimate the volts of a doubted plate; hold the leads until a test supports them."""
    if not given.is_doubted:
        return None, None
    plate = reading.plate
    power = given.power_hp or next(
        iter((*plate.power_hp, *(horsepower_from_kw(kw) for kw in plate.power_kw))), None
    )
    held = StepState(step="leads", state="held", shout=Message("trust.held"))
    try:
        if power is None:
            raise MissingError(
                Message("trust.no_power"),
                field="trust.power_hp",
                hint=Message("trust.no_power.hint"),
            )
        found = estimate_voltage(
            TrustFacts(
                power_hp=power,
                frequency_hz=50 if Decimal(50) in plate.frequency_hz else 60,
                earlier_supply_v=given.earlier_supply_v,
                winding_ohm=given.winding_ohm,
                test_v=given.test_v,
                test_a=given.test_a,
            )
        )
    except CoreError as error:
        return error, held
    return found, None if found.may_energise else held


def _plan(
    box: Box,
    given: LeadsInputs,
    joints: JointsInputs,
    trail: Trail,
    profile: Profile,
    supply: Supply | None,
) -> tuple[JointsWorked | None, CoreError | None]:
    """Plan the joints of the box as joined, or as they are to be."""
    made = tuple(joint.as_core() for joint in given.joints) or box.intended
    made = tuple(joint for joint in made if joint.conductors > 1)
    if not made:
        return None, MissingError(
            Message("joints.none"), field="leads.joints", hint=Message("joints.none.hint")
        )
    try:
        steps = {step.id: step for step in trail}
        return plan_joints(made, joints, steps, profile, supply), None
    except CoreError as error:
        return None, error


def work_out(
    plate: PlateInputs,
    supply: SupplyInputs,
    size: SizeInputs,
    profile: Profile | None = None,
    leads: LeadsInputs | None = None,
    joints: JointsInputs | None = None,
    trust: TrustInputs | None = None,
) -> Worked:
    """Work a job out from what people gave.

    Parameters
    ----------
    plate : PlateInputs
        The plate's text and what was assumed.
    supply : SupplyInputs
        The supply's name.
    size : SizeInputs
        What decides the sizes besides; its edition and school go before the
        works' own.
    profile : Profile, optional
        The works' own rules.
    leads : LeadsInputs, optional
        The winding's kind and the joints.
    joints : JointsInputs, optional
        How the joints are made, and the housing.
    trust : TrustInputs, optional
        What was read on a motor whose plate nobody believes.

    Returns
    -------
    Worked
        Everything, each figure with its evidence or its refusal.

    Raises
    ------
    CoreError
        If the plate's text is no text, or an assumed value no value.
    """
    base = profile or Profile()
    profile = replace(
        base, edition=edition_of(size.edition or base.edition), school=size.school or base.school
    )
    reading = read(plate.text, [item.as_core() for item in plate.assumed])
    found, verdict, error = _supply(supply.text, reading)
    if found is not None and reading.other is not None:
        # the plate has a rating for each frequency: use the supply's
        reading = reading.at(found.frequency_hz)
        found, verdict, error = _supply(supply.text, reading)
    if supply.territory == "other":
        trail, figures = own_sizes(size)
    else:
        trail, figures = branch_circuit(
            reading,
            found,
            verdict,
            error,
            size,
            profile,
            leads.start_method if leads else "full_voltage",
            supply,
        )
    box = work_out_box(reading, found, verdict, error, leads or LeadsInputs(), swap=base.swap_lines)
    estimate, untrusted = _trust(trust or TrustInputs(), reading)
    planned, wanting = _plan(
        box, leads or LeadsInputs(), joints or JointsInputs(), trail, profile, found
    )
    return Worked(
        reading=reading,
        supply=found,
        verdict=verdict,
        supply_refusal=None if error is None else Refusal.of(error),
        supply_checks=() if found is None else check_supply(supply, found, verdict),
        trail=trail,
        schools=()
        if found is None
        else schools_of(
            reading,
            profile,
            trail,
            phases=reading.plate.phases or found.phases,
            machine=size.machine,
        ),
        figures=figures,
        states=(
            plate_state(reading),
            leads_state(box) if untrusted is None else untrusted,
            joints_state(planned, wanting),
            size_state(figures, trail),
        ),
        profile=profile,
        box=box,
        estimate=estimate,
        planned=planned,
        planned_refusal=None if wanting is None else Refusal.of(wanting),
        joints=(leads or LeadsInputs()).joints,
    )
