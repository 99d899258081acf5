"""Where the starter, drawings, dead check and rehearsal steps stand."""

from __future__ import annotations

from evencoil.base import Message, in_trade_terms
from evencoil.checks import readings_hold
from evencoil.job.job_starter import JobStarter
from evencoil.job.states import StepState

__all__ = ["starter_states"]


def starter_states(room: JobStarter) -> tuple[StepState, ...]:
    """Return where the Starter, Drawings, Dead check and Rehearse steps stand.

    Parameters
    ----------
    room : JobStarter
        From `work_out_starter`.
    """
    if room.entry is None or room.circuit is None or room.numbered is None:
        headline = Message("headline.starter.open")
        if room.refusal is not None:
            headline = Message("headline.starter.refused", {"detail": str(room.refusal)})
        return (
            StepState(
                step="starter", state="blocked" if room.refusal else "open", headline=headline
            ),
            StepState(step="drawings", state="open", headline=Message("headline.drawings.open")),
            StepState(step="check", state="open", headline=Message("headline.check.open")),
            StepState(step="rehearse", state="open", headline=Message("headline.rehearse.open")),
        )
    # worst first: a refusal goes before a hazard that nobody accepted
    refused = next((found for found in room.findings if room.holds_back(found)), None)
    problems = room.drawn_problems
    starter = StepState(
        step="starter",
        state="blocked" if refused else "done",
        headline=refused.message
        if refused
        else Message(
            "headline.starter", {"id": room.entry.id, "title": in_trade_terms(room.entry.title)}
        ),
    )
    drawings = StepState(
        step="drawings",
        state="working" if problems else "done",
        headline=Message(
            "headline.drawings",
            {
                "wires": str(len(room.circuit.netlist.wires)),
                "numbers": str(len(room.numbered.number_of)),
                "problems": str(len(problems)),
            },
        ),
    )
    rehearse = StepState(step="rehearse", state="open", headline=Message("headline.rehearse"))
    return starter, drawings, _check_state(room), rehearse


def _check_state(room: JobStarter) -> StepState:
    """Return where the dead check stands: by what was read, never by what should be."""
    if room.circuit is None or not room.readings:
        return StepState(step="check", state="open", headline=Message("headline.check.none"))
    hold = readings_hold(room.circuit, room.observed())
    wrong = sum(one is False for one in hold)
    params = {"done": str(len(hold)), "wrong": str(wrong)}
    if wrong:
        return StepState(
            step="check", state="blocked", headline=Message("headline.check.wrong", params)
        )
    return StepState(step="check", state="working", headline=Message("headline.check", params))
