"""The next thing to do on a job: one sentence, and the step where it is done."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from evencoil.base import Message, counted
from evencoil.job.worked import Worked

__all__ = ["NextUp", "next_up"]


@dataclass(frozen=True, slots=True)
class NextUp:
    """What is open, said as its own finding or refusal says it, and at which step."""

    message: Message
    step: str


def _said(text: str) -> Message:
    return Message("next.said", {"text": text})


def _on_paper(worked: Worked) -> Iterator[NextUp]:
    """Yield what nameplate, supply, sizes and leads still need, first things first."""
    outcome = worked.box.outcome
    if not worked.reading.text.strip():
        yield NextUp(Message("next.plate"), "plate")
    for found in worked.reading.findings:
        if found.level == "doubt":
            yield NextUp(found.message, "plate")
    if worked.supply_refusal is not None:
        yield NextUp(_said(worked.supply_refusal.detail), "plate")
    for figure in worked.figures:
        if figure.refusal is not None:
            yield NextUp(_said(figure.refusal.detail), "size")
    if outcome is not None and outcome.verdict == "wrong":
        yield NextUp(outcome.findings[0].message, "leads")
    if worked.box.derived_error is not None:
        yield NextUp(_said(str(worked.box.derived_error)), "leads")
    if outcome is not None and outcome.verdict == "open":
        yield NextUp(Message("next.leads"), "leads")


def next_up(worked: Worked, *, is_stale: bool = False) -> NextUp | None:
    """Return the next thing to do on a job, None if nothing is open.

    Parameters
    ----------
    worked : Worked
        The job, calculated.
    is_stale : bool
        Whether the motor has a newer nameplate than the job uses.
    """
    if is_stale:
        return NextUp(Message("next.stale"), "plate")
    open_ = next(_on_paper(worked), None)
    if open_ is not None:
        return open_
    guesses = {
        mark.origin for step in worked.steps for mark in step.marks if mark.kind == "assumed"
    }
    if guesses:
        return NextUp(
            Message("next.assumed", {"figures": counted(len(guesses), "assumed figure")}), "size"
        )
    starter = worked.starter
    if starter.circuit is None:
        refused = starter.refusal
        return NextUp(Message("next.starter") if refused is None else refused.message, "starter")
    if starter.findings and starter.findings[0].level in {"doubt", "refusal"}:
        return NextUp(starter.findings[0].message, "starter")
    return None
