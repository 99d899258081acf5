"""A plant's data as one file, and a plant erased."""

from __future__ import annotations

import io
import json
import zipfile

import pytest
from django.apps import apps
from django.core.cache import caches
from django.db import models

from audits.models import Audit
from evencoil.job import load
from office.erase import erase_rows
from office.models import Erasure, Invite, Takeout, TakeoutPart
from office.tables import TABLES
from office.takeout import make_takeout
from people.models import GivenAnswer, Member, User, Works
from plant.models import HeaterChart, Machine, Motor
from tests_support import WORD, caller, motor, post, signed_in

TASKS = {
    "default": {
        "BACKEND": "django_tasks.backends.immediate.ImmediateBackend",
        "ENQUEUE_ON_COMMIT": False,
    }
}
OWN = {
    "audits", "drills", "hunts", "jobs", "office", "panel", "paper", "people", "plant", "proving",
    "schedules",
}  # fmt: skip
#: not of a plant: people themselves, their practice, workers, that a plant was erased
NOT_OF_A_PLANT = {
    "people.user", "drills.drillbox", "jobs.workerseen", "office.erasure",
}  # fmt: skip


def test_every_table_of_a_plant_is_given_out_and_erased():
    """A table that is added later is in the list, or is named here as none of a plant's."""
    listed = {table.name for table in TABLES}
    through = {model._meta.label_lower for model in apps.get_models(include_auto_created=True)}
    own = {name for name in through if name.split(".")[0] in OWN}
    assert own - NOT_OF_A_PLANT - {name for name in own if "_" in name} == listed


def test_no_row_is_erased_before_what_points_at_it():
    """Foreign keys only go downwards in the list: deleting from the top breaks none."""
    place = {table.model: n for n, table in enumerate(TABLES)}
    for table in TABLES:
        for field in table.model._meta.get_fields():
            if isinstance(field, models.ForeignKey) and field.related_model in place:
                assert place[field.related_model] >= place[table.model], (table.name, field.name)


@pytest.fixture
def admin(db, settings):
    """An administrator of `here` with a motor there, and another plant beside."""
    settings.TASKS = TASKS
    who = caller("here", "dov", "admin")
    motor(who)
    motor(caller("there", "bob", "admin"))
    return signed_in(who)


def test_everything_of_a_plant_comes_as_one_file(admin):
    """Job files that read back, every row, nothing of another plant, no secret."""
    post(admin, "/api/w/here/invites", {"role": "admin", "whom": "eve"})
    made = post(admin, "/api/w/here/takeouts", {}).json()
    assert made["n"] == 1
    (now,) = admin.get("/api/w/here/takeouts").json()
    assert (now["state"], now["done"], now["left"]) == ("done", 1, [])
    answer = admin.get("/api/w/here/takeouts/1/data.zip")
    data = b"".join(answer.streaming_content)
    assert len(data) == now["size"] == int(answer.headers["Content-Length"])
    file = zipfile.ZipFile(io.BytesIO(data))
    names = file.namelist()
    (job,) = [name for name in names if name.endswith("job 1.json")]
    assert load(file.read(job)).motor.motor_tag == "IC-2"
    rows = {name: file.read(name).decode() for name in names if name.startswith("records/")}
    assert {f"records/{table.name}.jsonl" for table in TABLES if table.is_given} == set(rows)
    assert [
        json.loads(line)["fields"]["tag"] for line in rows["records/plant.motor.jsonl"].splitlines()
    ] == ["IC-2"]
    everything = b"".join(file.read(name) for name in names)
    assert b"bob" not in everything
    assert Invite.objects.get().token_hash.encode() not in everything
    assert User.objects.get(username="dov").password.encode() not in everything


def test_a_file_that_cannot_be_written_says_so(admin, monkeypatch, settings):
    """The disk is full: failed, with a reason; the next one can be asked for."""
    settings.TASKS = {"default": {"BACKEND": "django_tasks.backends.dummy.DummyBackend"}}
    post(admin, "/api/w/here/takeouts", {})
    row = Takeout.objects.get()

    def full(*args, **more):
        raise OSError(28, "No space left on device")

    monkeypatch.setattr("office.takeout.zipfile.ZipFile", full)
    with pytest.raises(OSError, match="No space"):
        make_takeout.func(row.pk)
    (now,) = admin.get("/api/w/here/takeouts").json()
    assert now["state"] == "failed"
    assert "OSError" in now["left"][0]
    assert post(admin, "/api/w/here/takeouts", {}).status_code == 200


def test_a_worker_lost_in_the_middle_leaves_no_half_file(admin, settings):
    """What an earlier worker wrote is not in the file of the next."""
    settings.TASKS = {"default": {"BACKEND": "django_tasks.backends.dummy.DummyBackend"}}
    post(admin, "/api/w/here/takeouts", {})
    row = Takeout.objects.get()
    TakeoutPart.objects.create(takeout=row, n=1, data=b"half")
    assert post(admin, "/api/w/here/takeouts", {}).status_code == 409
    make_takeout.func(row.pk)
    data = b"".join(admin.get("/api/w/here/takeouts/1/data.zip").streaming_content)
    assert zipfile.ZipFile(io.BytesIO(data)).testzip() is None
    assert make_takeout.func(row.pk) == 0


def sure(client):
    """Give the password again, as the screen asks."""
    answer = post(client, "/api/auth/browser/v1/auth/reauthenticate", {"password": WORD})
    assert answer.status_code == 200, answer.content


def erased(client, name="Here"):
    """Ask for a plant to be erased."""
    return post(client, "/api/w/here/erase", {"name": name})


def test_a_plant_is_erased_and_no_other(admin, settings):
    """Every row of it goes, its people's accounts too; the other plant stays as it was."""
    both = caller("here", "eve")
    Member.objects.create(user=both.user, works=Works.objects.get(slug="there"), role="reviewer")
    post(admin, "/api/w/here/audits", {})
    HeaterChart.objects.create(works=both.works, name="c", rows=[], by=both.user)
    caches["answers"].set("k", "v")
    before = {
        table.name: table.rows(Works.objects.get(slug="there").pk).count() for table in TABLES
    }
    own = Works.objects.get(slug="here").pk
    sure(admin)
    settings.TASKS = {"default": {"BACKEND": "django_tasks.backends.dummy.DummyBackend"}}
    assert erased(admin).status_code == 204
    erase_rows.func(own)
    assert {table.name: table.rows(own).count() for table in TABLES} == {
        table.name: 0 for table in TABLES
    }
    there = Works.objects.get()
    assert {table.name: table.rows(there.pk).count() for table in TABLES} == before
    assert set(User.objects.values_list("username", flat=True)) == {"bob", "eve"}
    assert Erasure.objects.get().done_at is not None
    assert caches["answers"].get("k") is None
    assert admin.get("/api/session").json()["is_signed_in"] is False
    assert not Audit.objects.exists()
    assert Motor.objects.count() == Machine.objects.count() == 1


def test_a_plant_is_not_erased_by_a_slip(admin):
    """Without the password just before, or by another name: refused, and all stays."""
    assert erased(admin).json()["code"] == "password"
    sure(admin)
    for name in ("", "here", "There", "Here Works"):
        answer = erased(admin, name)
        assert (answer.status_code, answer.json()["field"]) == (422, "name")
    assert Works.objects.get(slug="here").erased_at is None


def test_no_plant_is_erased_while_somebody_is_locked_on(admin, monkeypatch):
    """A lock on by the record: somebody may be at the panel."""
    from panel.locks import LockOn

    monkeypatch.setattr("office.erase.locks_on", lambda works: [LockOn("IC-2", 1, "7", "Ann")])
    sure(admin)
    answer = erased(admin)
    assert (answer.status_code, answer.json()["code"]) == (409, "lock_on")
    assert "IC-2 (Ann)" in answer.json()["detail"]


def test_an_erased_plant_is_gone_before_its_rows_are(admin, settings):
    """From the moment it was asked for: closed for everybody; a worker begun twice ends the same."""
    settings.TASKS = {"default": {"BACKEND": "django_tasks.backends.dummy.DummyBackend"}}
    token = post(admin, "/api/w/here/invites", {"role": "admin"}).json()["token"]
    sure(admin)
    assert erased(admin).status_code == 204
    assert admin.get("/api/w/here/yard").status_code == 404
    assert admin.get(f"/api/w/erased-{Works.objects.get(name='Here').pk}/yard").status_code == 404
    assert post(admin, "/api/join/look", {"token": token}).status_code == 404
    own = Erasure.objects.get().works_pk
    assert erase_rows.func(own) > 0
    assert erase_rows.func(own) == 0
    assert not GivenAnswer.objects.exists()
