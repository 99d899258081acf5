"""Probes of the drawn circuit: what could start, hold or cross it unasked."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse
from ninja import Router

from answers.given import GivenIn, worked
from answers.schemas.base import Answer, Sentence
from api.answers import as_json
from api.schemas import HEAVY
from desk.answer import Tell, answer
from evencoil.base import Message, say
from evencoil.checks import with_expectations
from evencoil.rehearsal import Probe, probes
from people.access import caller_in
from people.models import Works

__all__ = ["router"]

router = Router(tags=["probes"])


class ProbeOut(Answer):
    """What one family of scenarios found; ``searched`` says how many were played."""

    family: str
    asks: str
    holds: bool
    searched: int
    sequence: list[Sentence]
    chain: list[Sentence]


def _out(found: Probe) -> ProbeOut:
    return ProbeOut(
        family=found.family,
        asks=say(Message(f"probe.{found.family}")),
        holds=found.holds,
        searched=found.searched,
        sequence=found.acts,
        chain=() if found.hazard is None else found.hazard.chain,
    )


def played(given: GivenIn, works: Works, tell: Tell) -> bytes:
    """Return what every family of scenarios finds on the starter of what is given."""
    del tell
    circuit = worked(given, works).starter.circuit
    found = [] if circuit is None else probes(with_expectations(circuit))
    return as_json([_out(one) for one in found])


@router.post("/w/{works}/probes", response={200: list[ProbeOut], **HEAVY})
def play(request: HttpRequest, works: str, body: GivenIn) -> HttpResponse:
    """Play every family on the starter of what is given; nothing is saved."""
    caller = caller_in(request, works)
    return answer(request, caller, played, body, caller.works, decided_by=body)
