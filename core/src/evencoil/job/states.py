"""Where each paper step of a job stands, and the sentence that says so."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from evencoil.base import CoreError, Figure, Message, Trail, plain, say
from evencoil.leads import Box, JointsWorked, LeadsInputs, Outcome
from evencoil.plate import PlateReading
from evencoil.winding import Joint

__all__ = ["StepState", "joints_state", "leads_state", "plate_state", "size_state"]

_GRAVE = {"short", "over", "foreign"}


State = Literal["open", "working", "blocked", "done"]


@dataclass(frozen=True, slots=True, kw_only=True)
class StepState:
    """Where a step of the job stands, and the sentence that says it."""

    step: Literal["plate", "leads", "joints", "size", "starter", "drawings", "check", "rehearse"]
    state: State
    headline: Message


def plate_state(reading: PlateReading) -> StepState:
    """Return where the nameplate step stands."""
    plate = reading.plate
    if not reading.text.strip():
        return StepState(step="plate", state="open", headline=Message("headline.plate.empty"))
    parts = []
    if plate.power_hp:
        parts.append("/".join(plain(hp) for hp in plate.power_hp) + " hp")
    elif plate.power_kw:
        parts.append("/".join(plain(kw) for kw in plate.power_kw) + " kW")
    if plate.volts_v:
        parts.append("/".join(str(band) for band in plate.volts_v) + " V")
    if plate.amps_a:
        parts.append("/".join(str(band) for band in plate.amps_a) + " A")
    if plate.leads:
        parts.append(f"{plate.leads} leads")
    said = " · ".join(parts)
    if not said:
        return StepState(step="plate", state="working", headline=Message("headline.plate.unread"))
    doubts = [finding for finding in reading.findings if finding.level == "doubt"]
    done = not doubts and not reading.missing and not reading.assumed
    return StepState(
        step="plate",
        state="done" if done else "working",
        headline=Message("headline.plate", {"said": said}),
    )


def _joined(box: Box, leads: LeadsInputs, outcome: Outcome) -> tuple[State, Message]:
    """Say what is in a box whose volts are right: it is done only as it was asked for."""
    name = say(Message(f"connection.{outcome.name or 'other'}"))
    made = [joint.as_core() for joint in leads.joints]
    joints = " · ".join(_joint_text(joint, box.names) for joint in made if joint.conductors > 1)
    params = {"name": name, "joints": joints}
    if outcome.stage == "start":
        return "working", Message("headline.leads.start_only", params)
    asked = leads.speed or "low"
    if outcome.speed and outcome.speed != asked:
        return "working", Message(f"headline.leads.speed_{outcome.speed}", params)
    if outcome.rotation == "reverse" and leads.direction != "reverse":
        return "working", Message("headline.leads.turned_other_way", params)
    return "done", Message("headline.leads", params)


def leads_state(box: Box, leads: LeadsInputs) -> StepState:
    """Return where the leads step stands.

    Parameters
    ----------
    box : Box
        The box calculated.
    leads : LeadsInputs
        What is in the box, and which direction and speed were asked for.
    """
    outcome, error = box.outcome, box.outcome_error or box.derived_error
    state: State = "open"
    headline = Message("headline.leads.open")
    if box.outcome_error is not None or (outcome is None and error is not None):
        missing = error is not None and error.code == "missing"
        state = "open" if missing else "blocked"
        headline = Message("headline.leads.wants", {"detail": str(error)})
    elif box.is_disputed:
        state = "blocked"
        headline = Message("headline.leads.differs")
    elif box.is_switched and (outcome is None or outcome.verdict != "wrong"):
        conductors = [joint.to_starter for joint in box.intended if joint.to_starter]
        stay = [
            "-".join(lead.removeprefix("T") for lead in joint.leads)
            for joint in box.intended
            if len(joint.leads) > 1
        ]
        state = "done" if outcome is not None and outcome.verdict == "right" else "open"
        headline = Message(
            "headline.leads.switched" if stay else "headline.leads.switched_bare",
            {"count": str(len(conductors)), "joints": " · ".join(stay)},
        )
    elif outcome is not None and outcome.verdict == "right":
        state, headline = _joined(box, leads, outcome)
    elif outcome is not None and outcome.verdict == "wrong":
        state = "blocked"
        # the first finding names the mistake; the first line says the gravest that it does
        grave = (found for found in outcome.findings if found.code.split(".")[0] in _GRAVE)
        headline = Message(f"headline.leads.{next(grave, outcome.findings[0]).code}")
    return StepState(step="leads", state=state, headline=headline)


def joints_state(joints: JointsWorked | None, error: CoreError | None) -> StepState:
    """Return where the joints step stands.

    Parameters
    ----------
    joints : JointsWorked or None
        The planned joints.
    error : CoreError or None
        Why there is no plan.
    """
    if joints is None:
        detail = "" if error is None else str(error)
        return StepState(
            step="joints",
            state="open",
            headline=Message("headline.joints.wants", {"detail": detail}),
        )
    doubts = any(
        found.level == "doubt"
        for found in (*joints.findings, *(f for plan in joints.joints for f in plan.findings))
    )
    params = {"count": str(len(joints.joints)), "fit": str(Message(f"fit.{joints.fit}"))}
    state: State = "working"
    if joints.fit == "no" or doubts:
        state = "blocked"
    elif joints.fit == "unknown":
        return StepState(
            step="joints", state="open", headline=Message("headline.joints.open", params)
        )
    elif all(plan.is_recorded for plan in joints.joints):
        state = "done"
    return StepState(step="joints", state=state, headline=Message("headline.joints", params))


def _joint_text(joint: Joint, names: Mapping[str, str]) -> str:
    leads = "-".join(names.get(lead, lead).removeprefix("T") for lead in joint.leads)
    return f"{joint.line} {leads}" if joint.line else leads


def size_state(figures: tuple[Figure, ...], trail: Trail) -> StepState:
    """Return where the size step stands.

    Parameters
    ----------
    figures : tuple of Figure
        The lines of the size sheet.
    trail : Trail
        The steps behind them.
    """
    refused = next((line for line in figures if line.refusal and line.group == "branch"), None)
    if refused is not None and refused.refusal is not None:
        held = refused.refusal.code != "missing"
        headline = "headline.size.held" if held else "headline.size.wants"
        return StepState(
            step="size",
            state="blocked" if held else "open",
            headline=Message(headline, {"detail": refused.refusal.detail}),
        )
    if "protection_kind" not in trail:
        return StepState(step="size", state="working", headline=Message("headline.size.own"))
    guessed = any(mark.kind == "assumed" for step in trail for mark in step.marks)
    fails = sum(step.verdict == "fails" and step.id != "weakest_part" for step in trail)
    withheld = any(line.refusal for line in figures)
    state: State = "blocked" if fails else "working" if guessed or withheld else "done"
    return StepState(
        step="size",
        state=state,
        headline=Message(
            "headline.size.fails" if fails else "headline.size.full",
            {
                "count": str(fails),
                "size": trail["conductor_size"].shown,
                "device": trail["protection_device_a"].shown,
                "kind": trail["protection_kind"].shown,
                "trip": trail["overload_setting_a"].shown,
            },
        ),
    )
