"""Probes of the drawn circuit: what could start, hold or cross it unasked."""

from __future__ import annotations

from django.http import HttpRequest
from ninja import Router

from answers.given import GivenIn, worked
from answers.schemas.base import Answer, Sentence
from api.schemas import REFUSALS
from evencoil.base import Message, say
from evencoil.checks import with_expectations
from evencoil.rehearsal import Probe, probes
from people.access import caller_in

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


@router.post("/w/{works}/probes", response={200: list[ProbeOut], **REFUSALS})
def play(request: HttpRequest, works: str, body: GivenIn) -> list[ProbeOut]:
    """Play every family on the starter of what is given; nothing is saved."""
    starter = worked(body, caller_in(request, works).works).starter
    circuit = starter.circuit
    return [] if circuit is None else [_out(found) for found in probes(with_expectations(circuit))]
