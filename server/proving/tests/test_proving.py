"""Proofs asked for and told: what holds, what breaks it, and nothing without a circuit."""

import pytest

BODY = {"plate": {"text": "15 HP 460 V 19.3 A 3 PH"}, "starter": {"standard_circuit": "6C"}}


def asked(client, body):
    """Ask for the proofs of a body."""
    answer = client.post("/api/w/here/proofs", body, content_type="application/json")
    assert answer.status_code == 200, answer.content
    return {one["kind"]: one for one in answer.json()}


@pytest.mark.django_db
def test_two_searches_for_a_circuit_with_exclusive_contactors(client):
    """By hand, and with a weld as well; every state is tried, and both hold."""
    done = asked(client, BODY)
    assert set(done) == {"hands", "weld"}
    assert all(one["holds"] and one["exhausted"] for one in done.values())
    assert done["weld"]["faults"] == ["KF", "KR"]
    assert done["weld"]["transitions"] > done["hands"]["transitions"] > 100
    assert asked(client, BODY) == done


@pytest.mark.django_db
def test_a_changed_circuit_is_proven_anew_and_says_what_breaks_it(client):
    """The button interlock alone, with one contactor welded: forward, weld, reverse."""
    weld = asked(client, {**BODY, "starter": {"standard_circuit": "6B"}})["weld"]
    assert not weld["holds"]
    (both, short) = weld["broken"]
    assert both["code"] == "both_ways"
    assert both["sequence"] == ["S2 held", "S2 released", "KF welds", "S3 held"]
    assert short["chain"]


@pytest.mark.django_db
def test_without_a_circuit_nothing_is_searched(client):
    """No starter chosen: an empty answer."""
    assert asked(client, {}) == {}
