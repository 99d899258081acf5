"""Proofs asked for, worked on, and told: once for each netlist."""

import pytest
from django_tasks.backends.database.models import DBTaskResult

from proving.models import ProofRun
from proving.tasks import run_proof

BODY = {"plate": {"text": "15 HP 460 V 19.3 A 3 PH"}, "starter": {"standard_circuit": "6C"}}


def asked(client, body):
    """Ask for the proofs of a body."""
    answer = client.post("/api/w/here/proofs", body, content_type="application/json")
    assert answer.status_code == 200, answer.content
    return {one["kind"]: one for one in answer.json()}


@pytest.mark.django_db
def test_a_proof_waits_is_done_by_a_worker_and_is_told(client):
    """Two searches for a circuit with exclusive contactors; each is queued once."""
    first = asked(client, BODY)
    assert {one["state"] for one in first.values()} == {"waiting"}
    assert set(first) == {"hands", "weld"}
    asked(client, BODY)
    assert DBTaskResult.objects.count() == 2
    for run in ProofRun.objects.all():
        run_proof.func(run.pk)
        assert run_proof.func(run.pk) == "nothing to do"
    done = asked(client, BODY)
    assert all(one["state"] == "done" and one["holds"] for one in done.values())
    assert done["hands"]["exhausted"]
    assert done["weld"]["faults"] == ["KF", "KR"]
    assert done["weld"]["transitions"] > done["hands"]["transitions"] > 100
    assert DBTaskResult.objects.count() == 2


@pytest.mark.django_db
def test_a_changed_circuit_is_proven_anew_and_says_what_breaks_it(client):
    """The button interlock alone, with one contactor welded: forward, weld, reverse."""
    body = {**BODY, "starter": {"standard_circuit": "6B"}}
    asked(client, body)
    for run in ProofRun.objects.all():
        run_proof.func(run.pk)
    weld = asked(client, body)["weld"]
    assert not weld["holds"]
    (both, short) = weld["broken"]
    assert both["code"] == "both_ways"
    assert both["sequence"] == ["S2 held", "S2 released", "KF welds", "S3 held"]
    assert short["chain"]


@pytest.mark.django_db
def test_without_a_circuit_nothing_is_queued(client):
    """No starter chosen: an empty answer, and nothing for a worker."""
    assert asked(client, {}) == {}
    assert not DBTaskResult.objects.exists()
