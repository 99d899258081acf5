"""A starter drawn once, with its motor and its edits, before the sizes rate it."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace

from evencoil.base import Finding
from evencoil.circuit import Circuit, Edit, Replayed, renamed, replay
from evencoil.codebook import DeviceNames
from evencoil.job.starter_findings import fit_finding
from evencoil.leads import Box, JointInput
from evencoil.plate import PlateReading, Verdict
from evencoil.sizing import FUSES, DeviceKind
from evencoil.starters import (
    FOUND,
    CatalogueEntry,
    ControlSupply,
    FitFacts,
    MotorRating,
    OptionSpec,
    StarterInputs,
    begun_panel,
    draw,
    entry_of,
    fit_control,
    found_entry,
    install_motor,
    is_fed_by_line,
    misfit,
    options_of,
    stand_in_of,
)
from evencoil.winding import LINES, Joint

__all__ = ["StarterDraft", "draft_starter"]


def _options(inputs: StarterInputs, kind: DeviceKind | None) -> dict[str, str]:
    """Return the options; fuse or breaker follows the sizes unless it was chosen here."""
    chosen = dict(inputs.options)
    names = {spec.name for spec in options_of(entry_of(inputs.standard_circuit))}
    if "protection" in names and kind in FUSES:
        chosen.setdefault("protection", "fused_disconnect")
    return chosen


def _rating(reading: PlateReading, verdict: Verdict | None, box: Box) -> MotorRating:
    plate = reading.plate
    column = verdict.column if verdict else 0
    volts = max((band.high for band in plate.volts_v), default=None)
    amps = None
    if plate.amps_a:
        if len(plate.amps_a) == len(plate.volts_v):
            place = max(range(len(plate.volts_v)), key=lambda one: plate.volts_v[one].high)
            amps = plate.amps_a[place].high
        else:
            amps = plate.amps_a[min(column, len(plate.amps_a) - 1)].high
    coils = {
        known.speed: box.rating.line_band(known)[1] / known.factor
        for known in reversed(box.known)
        if box.rating is not None and known.stage == "run"
    }
    return MotorRating(
        volts_v=volts,
        amps_a=amps,
        power_hp=plate.power_hp[0] if plate.power_hp else None,
        coil_v=coils.get("high", coils.get("")),
        coil_low_v=coils.get("low"),
    )


def _programs(inputs: StarterInputs) -> Iterator[Edit]:
    """Go through the programs of this job as the last edits of its drawing."""
    for name, text in inputs.programs.items():
        yield Edit(id=f"program.{name}", kind="set", device=name, parameters={"program": text})


@dataclass(frozen=True, slots=True, kw_only=True)
class StarterDraft:
    """A starter drawn once, with its motor and its edits, before the sizes rate it.

    Attributes
    ----------
    standard : Circuit
        The standard circuit with this motor, without anybody's edits.
    replayed : Replayed
        The same with the edits done, and those that no longer apply.
    notes : tuple of Finding
        What was found while it was drawn.
    """

    entry: CatalogueEntry
    options: tuple[OptionSpec, ...]
    used: Mapping[str, str]
    standard: Circuit
    replayed: Replayed
    notes: tuple[Finding, ...]


def _stays(box: Box) -> tuple[Joint, ...] | None:
    """Return the joints that stay in the box of a motor whose leads the starter switches.

    The box was derived for the starter chosen; None where nameplate, supply or winding do not
    say yet.
    """
    return None if box.states is None else box.states.permanent


def _with_motor(
    entry: CatalogueEntry,
    circuit: Circuit,
    box: Box,
    given: Sequence[JointInput],
    reading: PlateReading,
    verdict: Verdict | None,
) -> tuple[Circuit, list[Finding]]:
    """Return a circuit with this motor's winding and joints in place of the stand-in."""
    stand_in = stand_in_of(circuit)
    if stand_in is None:
        return circuit, []
    facts = FitFacts(
        phases=reading.plate.phases,
        leads=reading.plate.leads,
        kind="" if box.winding is None else box.winding.kind,
        delta_fits=None,
        load="unknown",
    )
    phases = 1 if stand_in.type == "motor1" else 3
    if box.winding is None or box.winding.phases != phases or misfit(entry, facts) is not None:
        return circuit, [fit_finding("stand_in", "note")]
    ends = {*box.winding.leads, *LINES}
    made = tuple(
        replace(joint, leads=tuple(lead for lead in joint.leads if lead in ends))
        for joint in (one.as_core() for one in given)
    )
    by_line = is_fed_by_line(stand_in)
    notes: list[Finding] = []
    if given and not by_line:
        # a lead alone is one that runs to the starter
        made = tuple(joint for joint in made if len(joint.leads) > 1)
        notes += _bars_left(entry, box, made)
    joints: tuple[Joint, ...] | None = made
    if not given:
        joints = box.intended if by_line else _stays(box)
        notes.append(fit_finding("derived", "note"))
    if joints is None or (by_line and not joints):
        return circuit, [*notes, fit_finding("no_joints", "note")]
    rating = _rating(reading, verdict, box)
    return install_motor(circuit, box.winding, joints, rating), notes


def _bars_left(
    entry: CatalogueEntry,
    box: Box,
    joints: Sequence[Joint],
) -> list[Finding]:
    """Name the bars that join leads which the starter switches apart from each other."""
    stays = _stays(box)
    if stays is None:
        return []
    allowed = [set(joint.leads) for joint in stays]
    return [
        fit_finding(
            "bar_left",
            "refusal",
            id=entry.id,
            leads="-".join(lead.removeprefix("T") for lead in leads),
        )
        for joint in joints
        if len(leads := [lead for lead in joint.leads if lead not in LINES]) > 1
        and not any(set(leads) <= kept for kept in allowed)
    ]


def draft_starter(
    inputs: StarterInputs,
    *,
    reading: PlateReading,
    verdict: Verdict | None,
    box: Box,
    joints: Sequence[JointInput],
    kind: DeviceKind | None,
    control: ControlSupply | None = None,
    letters: DeviceNames = "iec",
) -> StarterDraft | None:
    """Draw the chosen starter with this motor and do the edits on it.

    Parameters
    ----------
    inputs : StarterInputs
        Circuit, options, edits.
    reading : PlateReading
        The nameplate.
    verdict : Verdict or None
        The nameplate column in use.
    box : Box
        Winding and joints.
    joints : sequence of JointInput
        The box as joined.
    kind : str or None
        Kind of fuse or breaker from the sizes, where they know it.
    control : ControlSupply or None
        What its control circuit is fed from; None while the supply is not known.
    letters : str
        Tag letters by the plant's rule, where the job has none of its own.

    Returns
    -------
    StarterDraft or None
        None until a circuit is chosen.

    Raises
    ------
    CoreError
        If it cannot be drawn.
    """
    if not inputs.standard_circuit:
        return None
    if inputs.standard_circuit == FOUND:
        entry = found_entry()
        options: tuple[OptionSpec, ...] = ()
        used: Mapping[str, str] = {}
        circuit = begun_panel(entry.circuit, "" if box.winding is None else box.winding.kind)
        notes = [fit_finding("found", "note")]
    else:
        drawn = draw(inputs.standard_circuit, _options(inputs, kind))
        entry, options, used = drawn.entry, options_of(drawn.entry), drawn.options
        fitted = drawn.circuit if control is None else fit_control(drawn.circuit, used, control)
        circuit, notes = _with_motor(entry, fitted, box, joints, reading, verdict)
    standard = replace(circuit, tags=renamed(circuit, inputs.naming or letters))
    return StarterDraft(
        entry=entry,
        options=options,
        used=used,
        standard=standard,
        replayed=replay(standard, [*(edit.as_core() for edit in inputs.edits), *_programs(inputs)]),
        notes=tuple(notes),
    )
