"""The starter of a job: its draft with ratings, wire numbers and findings.

Everything shown (drawings, wire list, material, rehearsal) comes from the same circuit. A
standard circuit that does not fit this motor stays drawn and says why.
"""

from __future__ import annotations

from evencoil.base import CoreError
from evencoil.circuit import Circuit, number_nets
from evencoil.job.job_starter import JobStarter, no_starter
from evencoil.job.starter_draft import StarterDraft, draft_starter
from evencoil.job.starter_findings import (
    accessory_findings,
    fit_finding,
    fit_findings,
    grounded_line_findings,
    hazard_findings,
    heater_findings,
)
from evencoil.job.worked import Worked
from evencoil.starters import FOUND, StarterInputs, entered_by_hand, ratings_of, with_ratings

__all__ = ["finish_starter", "work_out_starter"]


def _size_of(worked: Worked, *names: str) -> str:
    """Return the first of some sizes that is known; empty if none is."""
    return next((worked.trail[name].shown for name in names if name in worked.trail), "")


def _motor_sources(circuit: Circuit, worked: Worked) -> dict[str, str]:
    """Return the step of the amps of the job's own motor, where its nameplate says them."""
    is_installed = any(
        item.id == "motor" and item.type == "motor" for item in circuit.netlist.devices
    )
    is_said = "plate_amps_a" in worked.trail
    return {"motor.fla": "plate_amps_a"} if is_installed and is_said else {}


def finish_starter(draft: StarterDraft, worked: Worked, inputs: StarterInputs) -> JobStarter:
    """Return the drafted starter with its ratings, wire numbers and findings.

    Parameters
    ----------
    draft : StarterDraft
        From `draft_starter`.
    worked : Worked
        Plate, supply, leads and sizes.
    inputs : StarterInputs
        Frozen numbers, accepted hazards, readings.
    """
    supply = worked.supply
    ratings = ratings_of(
        draft.standard,
        {step.id: step for step in worked.steps},
        None if supply is None else supply.line_volts_v,
        "" if supply is None else supply.system,
        None if supply is None else supply.frequency_hz,
    )
    stale = draft.replayed.stale
    dropped = {edit.id for edit, _ in stale}
    done = [edit.as_core() for edit in inputs.edits if edit.id not in dropped]
    circuit = with_ratings(draft.replayed.circuit, ratings, done)
    findings = [
        *(fit_findings(draft.entry, worked) if inputs.standard_circuit != FOUND else ()),
        *draft.notes,
    ]
    findings += hazard_findings(circuit, draft.entry, inputs)
    findings += heater_findings(circuit, worked)
    findings += accessory_findings(circuit, worked)
    findings += grounded_line_findings(circuit, worked)
    findings += [
        fit_finding("stale_edit", "doubt", edit=edit.kind, reason=str(reason))
        for edit, reason in stale
    ]
    rank = {"refusal": 0, "doubt": 1, "note": 2, "agrees": 3}
    return JobStarter(
        entry=draft.entry,
        options=draft.options,
        used=draft.used,
        circuit=circuit,
        before=with_ratings(draft.standard, ratings),
        numbered=number_nets(circuit, inputs.frozen),
        sources={
            **_motor_sources(circuit, worked),
            **{f"{one.device}.{one.parameter}": one.step for one in ratings if one.step},
        },
        stale=stale,
        findings=tuple(sorted(findings, key=lambda item: rank[item.level])),
        refusal=None,
        style=inputs.symbols or "nema",
        readings=inputs.readings,
        profile=worked.profile,
        power_size=_size_of(worked, "run_conductor_size", "conductor_size"),
        ground_size=_size_of(worked, "run_grounding_size", "grounding_conductor_size"),
        by_hand=entered_by_hand(done),
        accepted=frozenset(one.hazard for one in inputs.accepted),
    )


def work_out_starter(worked: Worked, inputs: StarterInputs) -> JobStarter:
    """Draw another starter for a job that was calculated, to look at it beside its own.

    Parameters
    ----------
    worked : Worked
        Plate, supply, leads and sizes.
    inputs : StarterInputs
        Circuit, options, edits.

    Returns
    -------
    JobStarter
        Empty if no circuit is chosen; with its refusal if it cannot be drawn.
    """
    try:
        draft = draft_starter(
            inputs,
            reading=worked.reading,
            verdict=worked.verdict,
            box=worked.box,
            joints=worked.joints,
            kind=worked.kind,
            control=worked.control,
            letters=worked.profile.device_names,
        )
    except CoreError as refused:
        return no_starter(inputs, refused)
    return no_starter(inputs) if draft is None else finish_starter(draft, worked, inputs)
