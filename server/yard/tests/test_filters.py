"""The motor list is narrowed by what a motor is and searched by what is written on and in it."""

import pytest

from jobs.models import Summary
from tests_support import caller, motor, signed_in

YARD = "/api/w/here/yard"
PLATES = {
    "IC-1": ("3 HP, 230/460 V, 9.6/4.8 A, 1745 RPM, 60 HZ, 3 PH, 9 LEADS, ID# LIME-7", "480Y/277"),
    "IC-2": ("75 HP, 460 V, 88 A, 1780 RPM, 60 HZ, 3 PH, 3 LEADS", "480Y/277"),
    "IC-3": ("5 HP, 208 V, 16 A, 1745 RPM, 60 HZ, 3 PH, 3 LEADS", "208Y/120"),
}


@pytest.fixture
def client(db):
    """Three motors on two supplies; a starter is drawn for the second."""
    who = caller("here", "ann")
    client = signed_in(who)
    for tag, (plate, supply) in PLATES.items():
        motor(who, tag)
        for step, body in (("plate", {"text": plate}), ("supply", {"text": supply})):
            give(client, tag, step, body)
    give(client, "IC-2", "leads", {"winding": "3-wye"})
    give(client, "IC-2", "starter", {"standard_circuit": "3A"})
    assert client.get(YARD).status_code == 200
    return client


def give(client, tag, step, body):
    """Put a step's inputs over what is there."""
    based = client.get(f"/api/w/here/m/{tag}/j/1").json()["versions"].get(step) or {"n": 0}
    answer = client.put(
        f"/api/w/here/m/{tag}/j/1/{step}",
        {"based_on": based["n"], "body": body},
        content_type="application/json",
    )
    assert answer.status_code == 200, answer.content


def found(client, **asked):
    """Return the tags that are left, and what the answer counts."""
    answer = client.get(YARD, asked).json()
    tags = {one["tag"] for one in answer["motors"]}
    assert answer["found"] == len(tags)
    return tags


def test_by_supply_and_size(client):
    """Volts between lines; 5 hp is up to 5, 75 hp is up to 100."""
    assert client.get(YARD).json()["volts"] == [208, 480]
    assert found(client, volts=208) == {"IC-3"}
    assert found(client, volts=480) == {"IC-1", "IC-2"}
    assert found(client, size="to_5") == {"IC-1", "IC-3"}
    assert found(client, size="to_100") == {"IC-2"}
    assert found(client, size="to_25") == set()
    assert found(client, volts=480, size="to_5") == {"IC-1"}


def test_by_the_step_that_waits(client):
    """What is missing: every motor stands under exactly one step, or under none."""
    steps = set(Summary.objects.values_list("next_step", flat=True))
    sets = [found(client, step=step) for step in steps - {""}]
    assert sum(map(len, sets)) == Summary.objects.exclude(next_step="").count()


@pytest.mark.parametrize(
    ("asked", "tags"),
    [
        ("lime-7", {"IC-1"}),
        ("1780 RPM", {"IC-2"}),
        ("KM1.A1", {"IC-2"}),
        ("km1 a1", {"IC-2"}),
        ("wire 2", {"IC-2"}),
        ("wire 7777", set()),
        ("KM1.A", set()),
        ("|", set()),
    ],
)
def test_by_plate_text_wire_and_terminal(client, asked, tags):
    """On the nameplate, a wire number after the word, a terminal with point or blank."""
    assert found(client, q=asked) == tags
