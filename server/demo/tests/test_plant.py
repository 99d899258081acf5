"""The plant by rule: what is wrong in it is what an audit finds, and nothing else."""

from collections import Counter

import pytest
from django.core.management import call_command

from demo.plant import plant_motors
from evencoil.audit import audit_job
from evencoil.codebook import Profile
from evencoil.job import JobInputs, work_out
from plant.models import Motor

#: what is wrong by rule, and the topic under which it is found
TOPIC = {
    "heaters": "overload",
    "wire": "wire",
    "fuse": "device",
    "starter_ka": "fault",
    "supply": "supply",
}


@pytest.fixture(scope="module")
def found():
    """Each motor with its audit, off the drawings."""
    pairs = []
    for motor in plant_motors(130):
        inputs = JobInputs.model_validate(
            {
                "plate": {"text": motor.plate},
                "supply": motor.supply,
                "leads": motor.leads,
                "size": motor.size,
                "starter": motor.starter,
            }
        )
        worked = work_out(inputs, Profile())
        pairs.append((motor, audit_job(inputs, worked, is_played=False)))
    return pairs


def test_every_kind_of_mistake_is_in_it(found):
    """A plant of this size has each of them."""
    kinds = Counter(motor.wrong for motor, _ in found)
    assert set(kinds) == {*TOPIC, "not_recorded", ""}


def test_what_is_wrong_is_found_under_its_topic(found):
    """A motor fails if and only if something of it is wrong, and there."""
    for motor, audit in found:
        fails = {topic for topic, state in audit.states.items() if state == "fails"}
        if motor.wrong in TOPIC:
            assert fails == {TOPIC[motor.wrong]}, motor.tag
        else:
            assert fails == set(), motor.tag


def test_tags_are_unique_and_the_first_are_the_same_in_every_plant():
    """A larger plant is the smaller one with more behind it."""
    many = list(plant_motors(400))
    assert len({motor.tag for motor in many}) == 400
    assert list(plant_motors(20)) == many[:20]


def test_it_is_laid_out_once(db):
    """Twice gives the same motors, each with panel and job."""
    call_command("demo")
    call_command("plant", 12)
    call_command("plant", 14)
    motors = Motor.objects.filter(works__slug="larkfall-plant")
    assert motors.count() == 14
    assert motors.filter(panel="").count() == 0
    assert all(motor.jobs.count() == 1 for motor in motors)
