"""Two people at the same moment: nothing ends in a 500, is lost or is there twice."""

import json
import uuid
from concurrent.futures import ThreadPoolExecutor
from threading import Barrier

import pytest
from django.db import connection

from jobs.models import JobMotor
from paper.models import Issue
from plant.models import Motor
from tests_support import JOB, caller, motor, signed_in

TWO = 2


def both(act):
    """Do the same in two threads that start together; return both answers by status."""
    ready = Barrier(TWO)

    def one(client):
        try:
            ready.wait(10)
            return act(client)
        finally:
            connection.close()

    people = [signed_in(caller("here", name, "electrician")) for name in ("ann", "ben")]
    with ThreadPoolExecutor(TWO) as pool:
        return sorted(pool.map(one, people), key=lambda answer: answer.status_code)


@pytest.fixture
def plant(transactional_db):
    """A plant that other connections see too."""
    who = caller("here", "ann", "electrician")
    motor(who)
    return who


def send(client, path, body):
    """Post JSON."""
    return client.post(path, body, content_type="application/json")


def test_the_same_tag_at_once(plant):
    """One motor; the other is told that the tag is taken."""
    answers = both(
        lambda client: send(client, "/api/w/here/motors", {"tag": "N-1", "machine": "Line 9"})
    )
    assert [one.status_code for one in answers] == [201, 409]
    assert answers[1].json()["code"] == "tag_taken"
    assert Motor.objects.filter(tag="N-1").count() == 1


def test_the_same_job_file_at_once(plant):
    """One motor with one job, whoever was first."""
    file = json.loads(signed_in(plant).get(f"{JOB}/file").content)
    file["motor"] |= {"id": str(uuid.uuid4()), "motor_tag": "N-2"}
    file["job_id"] = str(uuid.uuid4())
    text = json.dumps(file)
    answers = both(lambda client: send(client, "/api/w/here/jobs/import", {"file": text}))
    assert [one.status_code for one in answers] in ([201, 201], [201, 409])
    assert JobMotor.objects.filter(motor__tag="N-2").count() == 1


def test_two_prints_at_once(plant):
    """Two issues with two numbers."""
    answers = both(lambda client: send(client, f"{JOB}/issues", {}))
    assert [one.status_code for one in answers] == [201, 201]
    assert sorted(Issue.objects.values_list("n", flat=True)) == [1, 2]


def test_the_same_step_at_once(plant):
    """One is kept; the other sees what differs, and loses nothing."""
    texts = iter(["240 delta", "208Y/120"])

    def act(client):
        return client.put(
            f"{JOB}/supply",
            {"based_on": 1, "body": {"text": next(texts)}},
            content_type="application/json",
        )

    answers = both(act)
    assert [one.status_code for one in answers] == [200, 409]
    said = answers[1].json()
    assert said["code"] == "conflict"
    assert said["body"]["text"] in {"240 delta", "208Y/120"}
    assert said["theirs"]["n"] == 2
