"""Proofs of the drawn circuit: every settled state that hands can bring it to."""

from __future__ import annotations

from collections.abc import Sequence
from typing import get_args

from django.http import HttpRequest, HttpResponse
from ninja import Router
from pydantic import BaseModel

from answers.given import GivenIn, worked
from api.answers import as_json
from api.schemas import HEAVY
from desk.answer import Tell, answer
from evencoil.base import Message, say
from evencoil.checks import Proof, ProofKind, prove, with_expectations
from evencoil.circuit import Circuit
from people.access import caller_in
from people.models import Works

__all__ = ["MOST_TRANSITIONS", "proven", "router"]

router = Router(tags=["proving"])
KINDS: tuple[ProofKind, ...] = get_args(ProofKind)
#: actions after which a search is cut off, and says so
MOST_TRANSITIONS = 20_000


class BrokenOut(BaseModel):
    """A hazard, and the shortest sequence that brings it about."""

    code: str
    name: str
    sequence: list[str]
    chain: list[str]
    device: str


class ProofOut(BaseModel):
    """One search and what it found; cut off where it is not exhausted."""

    kind: str
    asks: str
    transitions: int
    states: int
    depth: int
    whole_depth: int
    exhausted: bool
    holds: bool
    faults: list[str]
    broken: list[BrokenOut]


def _out(found: Proof, circuit: Circuit) -> ProofOut:
    return ProofOut(
        kind=found.kind,
        asks=say(Message(f"proof.{found.kind}")),
        transitions=found.transitions,
        states=found.states,
        depth=found.depth,
        whole_depth=found.whole_depth,
        exhausted=found.is_exhausted,
        holds=found.holds,
        faults=[circuit.tags.get(one, one) for one in found.faults],
        broken=[
            BrokenOut(
                code=one.code,
                name=say(Message(f"hazard.{one.code}")),
                sequence=[say(act) for act in one.acts],
                chain=[say(part) for part in one.hazard.chain],
                device=one.hazard.device,
            )
            for one in found.broken
        ],
    )


def _searched(circuit: Circuit, kinds: Sequence[ProofKind], tell: Tell) -> list[ProofOut]:
    """Search one kind after the other, and tell over all of them how many actions were tried."""
    done: list[ProofOut] = []
    before = 0

    def said(transitions: int, left: int) -> None:
        del left
        tell(before + transitions, len(kinds) * MOST_TRANSITIONS)

    for kind in kinds:
        found = prove(circuit, kind, most=MOST_TRANSITIONS, tell=said)
        before += found.transitions
        done.append(_out(found, circuit))
    return done


def proven(given: GivenIn, works: Works, tell: Tell) -> bytes:
    """Return what the searches over the starter of what is given find."""
    drawn = worked(given, works).starter.circuit
    if drawn is None:
        return as_json([])
    circuit = with_expectations(drawn)
    kinds = KINDS if circuit.never_together else KINDS[:1]
    return as_json(_searched(circuit, kinds, tell))


@router.post("/w/{works}/proofs", response={200: list[ProofOut], **HEAVY})
def proofs(request: HttpRequest, works: str, body: GivenIn) -> HttpResponse:
    """Prove the starter of what is given; nothing is saved."""
    caller = caller_in(request, works)
    return answer(request, caller, proven, body, caller.works, decided_by=body)
