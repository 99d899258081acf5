"""One job calculated: nameplate read, supply judged, sizes with their evidence.

Each figure is either a step or a refusal that says what to do; a refusal of
one figure never takes another one with it, except those that stand on it.
"""

from __future__ import annotations

from dataclasses import replace
from decimal import Decimal

from evencoil.base import (
    CoreError,
    Mark,
    Message,
    MissingError,
    Refusal,
    RefusedError,
    Trail,
    speaking,
)
from evencoil.codebook import Profile, edition_of
from evencoil.job.drawn_sizes import with_drawing
from evencoil.job.driven_box import driven_by_starter, is_drive
from evencoil.job.inputs import JobInputs
from evencoil.job.job_starter import JobStarter, no_starter
from evencoil.job.starter import finish_starter
from evencoil.job.starter_draft import StarterDraft, draft_starter
from evencoil.job.states import StepState, joints_state, leads_state, plate_state, size_state
from evencoil.job.worked import Worked
from evencoil.leads import (
    Box,
    JointsInputs,
    JointsWorked,
    LeadsInputs,
    named_conductors,
    plan_joints,
    work_out_box,
)
from evencoil.plate import (
    Assumed,
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
    MotorCircuit,
    branch_circuit,
    conductor_facts,
    further_sizes,
    horsepower_from_kw,
    kind_of,
    own_sizes,
    rating_rules_of,
    settle_phases,
)
from evencoil.starters import ControlSupply
from evencoil.winding import Joint

__all__ = ["work_out"]


def _read_plate(plate: PlateInputs, counted: int | None) -> PlateReading:
    """Read the nameplate; leads that were counted in the box count where it names none."""
    assumed = [item.as_core() for item in plate.assumed]
    if counted is None or any(item.field == "leads" for item in assumed):
        return read(plate.text, assumed)
    reading = read(plate.text, [*assumed, Assumed(field="leads", value=str(counted), reason="")])
    # counted is a reading, no guess
    return replace(
        reading, assumed=tuple(item for item in reading.assumed if item.field != "leads")
    )


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


def _control_supply(found: Supply, given: SupplyInputs) -> ControlSupply:
    """Return what a control circuit is fed from on this supply."""
    return ControlSupply(
        system=found.system,
        line_v=found.line_volts_v,
        ground_v=found.ground_volts_v,
        made_leg=given.made_leg,
        high_leg=given.high_leg,
    )


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
    held = StepState(step="leads", state="blocked", headline=Message("trust.held"))
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
    return found, None if found.may_energize else held


def _plan(
    box: Box,
    given: LeadsInputs,
    joints: JointsInputs,
    trail: Trail,
    profile: Profile,
    supply: Supply | None,
) -> tuple[JointsWorked | None, CoreError | None]:
    """Plan the joints of the box as joined, or as they are to be."""
    made = _joints_made(box, given)
    if not made:
        return None, MissingError(
            Message("joints.none"), field="leads.joints", hint=Message("joints.none.hint")
        )
    try:
        steps = {step.id: step for step in trail}
        return plan_joints(made, joints, steps, profile, supply), None
    except CoreError as error:
        return None, error


def _joints_made(box: Box, given: LeadsInputs) -> tuple[Joint, ...]:
    made = tuple(joint.as_core() for joint in given.joints) or box.intended
    if box.is_switched and box.winding is not None and box.states is not None:
        made = named_conductors(box.winding, box.states, made)
    return tuple(joint for joint in made if joint.conductors > 1)


def work_out(inputs: JobInputs, profile: Profile | None = None) -> Worked:
    """Calculate a job from its inputs, once: the starter is drawn a single time.

    Parameters
    ----------
    inputs : JobInputs
        Everything entered. Edition and rating rule of the size step go before the plant's own.
    profile : Profile, optional
        The plant rules.

    Returns
    -------
    Worked
        Everything, each figure with its evidence or its refusal.

    Raises
    ------
    CoreError
        If the nameplate's text is no text, or an assumed value no value.
    """
    base = profile or Profile()
    with speaking(base.names):
        return _work_out(inputs, base)


def _work_out(inputs: JobInputs, base: Profile) -> Worked:
    """Calculate a job under the plant rules, in the plant's names."""
    plate, supply, size, leads = inputs.plate, inputs.supply, inputs.size, inputs.leads
    profile = replace(
        base,
        edition=edition_of(size.edition or base.edition),
        rating_rule=size.rating_rule or base.rating_rule,
    )
    reading = _read_plate(plate, leads.lead_count)
    found, verdict, error = _supply(supply.text, reading)
    if found is not None and reading.others:
        # the nameplate has a rating for each frequency: use the supply's
        reading = reading.at(found.frequency_hz)
        found, verdict, error = _supply(supply.text, reading)
    reading = settle_phases(reading, found)
    if found is not None and reading.plate.phases is not None:
        found, verdict, error = _supply(supply.text, reading)
    leads, is_two_speed = driven_by_starter(leads, inputs.starter)
    box = work_out_box(
        reading,
        found,
        verdict,
        error,
        leads,
        swap=base.swap_lines,
        is_two_speed_starter=is_two_speed,
        is_on_drive=is_drive(inputs.starter),
    )
    is_nec = supply.territory != "other"
    facts = MotorCircuit(
        reading=reading,
        supply=found,
        verdict=verdict,
        error=error,
        size=size,
        profile=profile,
        start_method=leads.start_method,
        given_supply=supply,
    )
    trail, figures = (
        branch_circuit(facts)
        if is_nec
        else own_sizes(
            size, reading, found, verdict, supply.fault_current_a, edition=profile.edition
        )
    )
    kind = kind_of(size) if "protection_kind" in trail else None
    estimate, untrusted = _trust(inputs.trust, reading)
    control = None if found is None else _control_supply(found, supply)
    draft: StarterDraft | CoreError | None
    try:
        if untrusted is not None:
            raise RefusedError(
                Message("trust.held"), field="trust", hint=Message("trust.held.hint")
            )
        draft = draft_starter(
            inputs.starter,
            letters=profile.device_names,
            reading=reading,
            verdict=verdict,
            box=box,
            joints=leads.joints,
            kind=kind,
            control=control,
        )
    except CoreError as refused:
        draft = refused
    if is_nec:
        circuit = draft.replayed.circuit if isinstance(draft, StarterDraft) else None
        drawn = replace(facts, size=with_drawing(size, circuit))
        figures = (*figures, *further_sizes(drawn, trail))

    def finish(worked: Worked) -> JobStarter:
        with speaking(base.names):
            if isinstance(draft, StarterDraft):
                return finish_starter(draft, worked, inputs.starter)
            return no_starter(inputs.starter, draft)

    if untrusted is not None:
        trail.mark_all(Mark(kind="doubted", origin="nameplate", message=Message("trust.held")))
    planned, wanting = _plan(box, leads, inputs.joints, trail, profile, found)
    phases = reading.plate.phases or (0 if found is None else found.phases)
    return Worked(
        reading=reading,
        supply=found,
        verdict=verdict,
        supply_refusal=None if error is None else Refusal.of(error),
        supply_checks=() if found is None else check_supply(supply, found, verdict),
        trail=trail,
        rating_rules=()
        if found is None or kind is None
        else rating_rules_of(
            reading,
            profile,
            trail,
            phases=phases,
            kind=kind,
            material=conductor_facts(size).material,
            machine=size.machine,
        ),
        figures=figures,
        states=(
            plate_state(reading),
            leads_state(box, leads) if untrusted is None else untrusted,
            joints_state(planned, wanting),
            size_state(figures, trail),
        ),
        profile=profile,
        box=box,
        estimate=estimate,
        planned=planned,
        planned_refusal=None if wanting is None else Refusal.of(wanting),
        joints=leads.joints,
        kind=kind,
        control=control,
        finish=finish,
    )
