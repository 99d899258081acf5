"""Proofs of the drawn circuit: asked for once, looked at until they are done."""

from __future__ import annotations

from datetime import timedelta
from typing import get_args

from django.db import transaction
from django.http import HttpRequest
from django.utils import timezone
from ninja import Router
from pydantic import BaseModel

from answers.given import GivenIn, worked
from api.schemas import REFUSALS
from evencoil.base import Message, __version__, say
from evencoil.checks import ProofKind, with_expectations
from evencoil.circuit import netlist_fingerprint
from people.access import caller_in
from people.models import Works
from proving.models import ProofRun
from proving.tasks import run_proof

__all__ = ["router"]

router = Router(tags=["proving"])
KINDS: tuple[ProofKind, ...] = get_args(ProofKind)
#: a worker that died leaves its run behind; after this it is asked for again
_LOST = timedelta(minutes=3)


class BrokenOut(BaseModel):
    """A hazard, and the shortest sequence that brings it about."""

    code: str
    name: str
    sequence: list[str]
    chain: list[str]
    device: str


class ProofOut(BaseModel):
    """One search: how far it is, and what it found when it is done."""

    kind: str
    asks: str
    state: str
    transitions: int
    left: int
    states: int
    depth: int
    whole_depth: int
    exhausted: bool
    holds: bool
    faults: list[str]
    broken: list[BrokenOut]


def _out(run: ProofRun, tags: dict[str, str]) -> ProofOut:
    result = run.result or {}
    return ProofOut(
        kind=run.kind,
        asks=say(Message(f"proof.{run.kind}")),
        state=run.state,
        transitions=run.transitions,
        left=run.left,
        states=result.get("states", 0),
        depth=result.get("depth", 0),
        whole_depth=result.get("whole_depth", 0),
        exhausted=result.get("exhausted", False),
        holds=result.get("holds", False),
        faults=[tags.get(one, one) for one in result.get("faults", [])],
        broken=[BrokenOut(**one) for one in result.get("broken", [])],
    )


@transaction.atomic
def _asked(works: Works, key: str, kind: str, body: GivenIn) -> ProofRun:
    """Return the run of a netlist; a new one, or one whose worker is lost, is queued."""
    run, is_new = ProofRun.objects.select_for_update().get_or_create(
        works=works,
        fingerprint=key,
        kind=kind,
        core=__version__,
        defaults={"body": body.model_dump(mode="json")},
    )
    is_lost = (
        run.state in {ProofRun.State.RUNNING, ProofRun.State.FAILED}
        and timezone.now() - run.at > _LOST
    )
    if is_lost:
        run.state = ProofRun.State.WAITING
        run.save()
    if is_new or is_lost:
        run_proof.enqueue(run.pk)
    return run


@router.post("/w/{works}/proofs", response={200: list[ProofOut], **REFUSALS})
def proofs(request: HttpRequest, works: str, body: GivenIn) -> list[ProofOut]:
    """Ask for the proofs of the starter of what is given, and tell how far they are."""
    caller = caller_in(request, works)
    starter = worked(body, caller.works).starter
    if starter.circuit is None:
        return []
    circuit = with_expectations(starter.circuit)
    key = netlist_fingerprint(circuit)
    kinds = KINDS if circuit.never_together else KINDS[:1]
    return [_out(_asked(caller.works, key, kind, body), dict(circuit.tags)) for kind in kinds]
