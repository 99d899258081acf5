"""Whatever stands in a stored row: it is read as a step, or told as one job that needs repair."""

import json
import os
from random import Random

import pytest
from spoiled import spoiled

from api.problems import NeedsRepairError
from evencoil.job import STEPS
from evencoil.job.file import SCHEMA
from jobs.models import InputVersion
from jobs.store import read_row, stored_of
from plant.models import PlateRevision
from tests_support import JOB, put

#: `EVENCOIL_FUZZ=10` looks ten times as long
TIMES = int(os.environ.get("EVENCOIL_FUZZ", "1"))
BODIES = {
    "plate": {"text": "15 HP 460 V 19.3 A 3 PH", "assumed": [], "photo": ""},
    "supply": {"text": "480Y/277"},
    "leads": {"direction": "reverse", "joints": [{"leads": ["T1", "T7"], "line": "L1"}]},
    "size": {"conductor_material": "al", "ambient_c": "45"},
    "starter": {
        "standard_circuit": "6C",
        "edits": [{"id": "d1", "kind": "add_device", "type": "relay", "tag": "KA9"}],
        "accepted": [{"hazard": "power_back", "by": "ann", "why": "guarded"}],
        "readings": [{"start": "main.A1", "end": "main.A2", "ohms": "12", "hands": []}],
    },
}


def row_of(step, body, schema):
    """Return a row as the database would, nothing stored."""
    row = PlateRevision() if step == "plate" else InputVersion(step=step)
    row.n, row.schema, row.body = 3, schema, body
    return row


@pytest.mark.parametrize("seed", range(3))
def test_any_stored_body_is_read_or_needs_repair(seed):
    """Two thousand bodies each: no other end, and what is stored is shown as it is."""
    random = Random(seed)
    read = 0
    for _ in range(2000 * TIMES):
        step = random.choice(STEPS)
        body = spoiled(random, BODIES.get(step, {}))
        row = row_of(step, body, random.choice([SCHEMA, SCHEMA, SCHEMA, 1, 2, 3]))
        assert json.dumps(stored_of(row)) is not None
        try:
            read_row(row, "IC-2")
        except NeedsRepairError as told:
            assert told.status == 409
            assert "version 3" in told.body["detail"]
            assert told.body["field"].split(".")[0] == step
            assert told.body["body"] == body
        else:
            read += 1
    assert 0.02 < read / (2000 * TIMES) < 0.9


def test_no_stored_body_takes_a_page_with_it(client):
    """Sixty of them in the database itself: list, job, feeder, file and history answer."""
    random = Random(7)
    put(client, "starter", BODIES["starter"] | {"accepted": []})
    rows = {row.step: row for row in InputVersion.objects.all()}
    for _ in range(60 * TIMES):
        step = random.choice(sorted(rows))
        body = spoiled(random, BODIES[step])
        if body is None or "\\u0000" in json.dumps(body):
            continue  # the database takes neither
        InputVersion.objects.filter(pk=rows[step].pk).update(body=body)
        for place in (
            "/api/w/here/yard",
            JOB,
            f"{JOB}/file",
            f"{JOB}/history/{step}",
            f"{JOB}/list/wires.csv",
        ):
            answer = client.get(place)
            assert answer.status_code < 500, (place, body, answer.content)
        feeder = client.post("/api/w/here/feeder/Line 1", {}, content_type="application/json")
        assert feeder.status_code == 200, (body, feeder.content)
        InputVersion.objects.filter(pk=rows[step].pk).update(body=rows[step].body)
