"""What the worker does: one proof, told as it goes on, done once however often it is asked."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, cast

from django.db import transaction
from django_tasks import task

from answers.given import GivenIn, worked
from evencoil.base import Message, say, speaking
from evencoil.checks import Proof, ProofKind, prove
from evencoil.circuit import Circuit, Netlist
from plant.profile import profile_of
from proving.models import ProofRun

__all__ = ["run_proof"]

MOST_TRANSITIONS = 20_000


def _told(found: Proof) -> dict[str, Any]:
    return {
        "states": found.states,
        "depth": found.depth,
        "whole_depth": found.whole_depth,
        "exhausted": found.is_exhausted,
        "holds": found.holds,
        "faults": list(found.faults),
        "broken": [
            {
                "code": one.code,
                "name": say(Message(f"hazard.{one.code}")),
                "sequence": [say(act) for act in one.acts],
                "chain": [say(part) for part in one.hazard.chain],
                "device": one.hazard.device,
            }
            for one in found.broken
        ],
    }


def _searched(run: ProofRun, tell: Callable[[int, int], None]) -> Proof:
    starter = worked(GivenIn.model_validate(run.body), run.works).starter
    circuit = starter.circuit or Circuit(Netlist((), ()), {})
    return prove(circuit, cast("ProofKind", run.kind), most=MOST_TRANSITIONS, tell=tell)


@task()
def run_proof(pk: int) -> str:
    """Search one netlist and keep what was found.

    Parameters
    ----------
    pk : int
        Of the `ProofRun`; one that is done already is left as it is.
    """
    with transaction.atomic():
        run = ProofRun.objects.select_for_update().filter(pk=pk).first()
        if run is None or run.state in {ProofRun.State.RUNNING, ProofRun.State.DONE}:
            return "nothing to do"
        run.state = ProofRun.State.RUNNING
        run.save()

    def tell(transitions: int, left: int) -> None:
        ProofRun.objects.filter(pk=pk).update(transitions=transitions, left=left)

    with speaking(profile_of(run.works).names):
        try:
            found = _searched(run, tell)
        except Exception:
            ProofRun.objects.filter(pk=pk).update(state=ProofRun.State.FAILED)
            raise
        ProofRun.objects.filter(pk=pk).update(
            state=ProofRun.State.DONE,
            transitions=found.transitions,
            left=0,
            result=_told(found),
        )
    return "done"
