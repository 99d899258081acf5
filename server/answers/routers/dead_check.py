"""Checks with the ohmmeter on the dead circuit of what is given."""

from __future__ import annotations

from collections.abc import Collection

from django.http import HttpRequest, HttpResponse
from ninja import Router
from pydantic import Field

from answers.dead import dead_checks_of
from answers.given import GivenIn, worked
from answers.schemas.base import Answer, Sentence
from api.answers import as_json
from api.schemas import HEAVY
from desk.answer import Tell, answer
from evencoil.checks import (
    Check,
    Hand,
    readings_hold,
    said_expected,
    said_hand,
    suspects,
    wire_evidence,
)
from evencoil.circuit import Circuit
from evencoil.job import JobStarter
from people.access import caller_in
from people.models import Works

__all__ = ["router"]

router = Router(tags=["dead"])


class HandOut(Answer):
    """What is held or set while a reading is taken."""

    verb: str
    device: str
    word: str
    label: str
    for_all: bool


class DeadCheckOut(Answer):
    """One reading to take: where, with what held, and what a right circuit reads."""

    start: str
    end: str
    start_said: str
    end_said: str
    hands: list[HandOut]
    expects: str
    kind: str
    wires: list[str]
    guards: list[Sentence]


class DeadReadOut(Answer):
    """A reading that was taken, and whether the drawing gives it; None where its ends are gone."""

    holds: bool | None


class SuspectOut(Answer):
    """A single fault that explains the readings."""

    text: Sentence = Field(validation_alias="message")
    explains: int
    of: int
    wire: str


class EvidenceOut(Answer):
    """A wire that the readings confirm or refute."""

    wire: str
    ends: str
    confirmed: bool


class DeadOut(Answer):
    """Every check of a circuit, what was read, and what a wrong reading points at."""

    checks: list[DeadCheckOut]
    readings: list[DeadReadOut]
    suspects: list[SuspectOut]
    evidence: list[EvidenceOut]
    apart: list[str]
    line_side: list[str]
    untold: list[str]
    blind: list[Sentence]
    shown: int
    mistakes: int
    states: int


def _check(
    circuit: Circuit, check: Check, ends: dict[str, str], apart: Collection[Hand]
) -> DeadCheckOut:
    return DeadCheckOut(
        start=check.start,
        end=check.end,
        start_said=circuit.said(check.start),
        end_said=circuit.said(check.end),
        hands=[
            HandOut(
                verb=hand.verb,
                device=hand.device,
                word=hand.word,
                label=said_hand(circuit, hand),
                for_all=hand in apart,
            )
            for hand in check.hands
        ],
        expects=said_expected(check),
        kind=check.kind,
        wires=[ends[wire] for wire in check.covers],
        guards=check.guards,
    )


_EMPTY = DeadOut(
    checks=[],
    readings=[],
    suspects=[],
    evidence=[],
    apart=[],
    line_side=[],
    untold=[],
    blind=[],
    shown=0,
    mistakes=0,
    states=0,
)


def checked_dead(given: GivenIn, works: Works, tell: Tell) -> bytes:
    """Return which ohms to read, how those that were hold, and what explains a wrong one."""
    starter = worked(given, works).starter
    return as_json(_EMPTY if starter.circuit is None else _dead(starter, starter.circuit, tell))


def _dead(starter: JobStarter, circuit: Circuit, tell: Tell) -> DeadOut:
    found = dead_checks_of(circuit, tell)
    ends = {
        wire.id: f"{circuit.said(wire.start)} – {circuit.said(wire.end)}"
        for wire in circuit.netlist.wires
    }
    observed = starter.observed()
    hold = readings_hold(circuit, observed)
    known = [one for one, holds in zip(observed, hold, strict=True) if holds is not None]
    blamed = suspects(circuit, known) if False in hold else ()
    return DeadOut(
        checks=[_check(circuit, check, ends, found.apart) for check in found.checks],
        readings=[DeadReadOut(holds=holds) for holds in hold],
        suspects=blamed,
        evidence=[
            EvidenceOut(wire=wire, ends=ends[wire], confirmed=said == "confirmed")
            for wire, said in wire_evidence(circuit, known).items()
        ],
        apart=[said_hand(circuit, hand) for hand in found.apart],
        line_side=[ends[wire] for wire in found.line_side],
        untold=[ends[wire] for wire in found.untold],
        blind=found.blind,
        shown=found.shown,
        mistakes=found.mistakes,
        states=found.states,
    )


@router.post("/w/{works}/dead", response={200: DeadOut, **HEAVY})
def dead(request: HttpRequest, works: str, body: GivenIn) -> HttpResponse:
    """Calculate which ohms to read, judge those that were, and name what explains a wrong one."""
    caller = caller_in(request, works)
    return answer(request, caller, checked_dead, body, caller.works, decided_by=body)
