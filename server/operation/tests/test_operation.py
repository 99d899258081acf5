"""What serves a plant starts only if it may, says whether it is well, and keeps secrets out of logs."""

from __future__ import annotations

import json
import logging
import secrets
from datetime import timedelta

import pytest
from django.db import OperationalError
from django.test import Client
from django.utils import timezone
from prometheus_client.parser import text_string_to_metric_families

from jobs.lines import work_out_lines
from jobs.models import WorkerSeen
from operation import health as room
from operation.guard import RefusedSettingsError, refuse_unfit
from operation.logs import JsonFormatter
from tests_support import caller, motor, post, signed_in

KEY = secrets.token_urlsafe(64)
GOOD = {
    "EVENCOIL_HTTPS": "1",
    "EVENCOIL_HOSTS": "coil.example.com",
    "EVENCOIL_SECRET_KEY": KEY,
    "EVENCOIL_DB_PASSWORD": "p",
}


def test_good_settings_start():
    """A key of one's own, an address of one's own, a password: nothing is refused."""
    refuse_unfit(GOOD)
    refuse_unfit({**GOOD, "EVENCOIL_SECRET_KEY_OLD": f"{KEY[::-1]},{secrets.token_urlsafe(64)}"})
    refuse_unfit({})
    refuse_unfit({"EVENCOIL_HOSTS": "127.0.0.1,localhost", "EVENCOIL_DEMO": "1"})


@pytest.mark.parametrize(
    ("change", "said"),
    [
        ({"EVENCOIL_SECRET_KEY": ""}, "EVENCOIL_SECRET_KEY is not set"),
        ({"EVENCOIL_SECRET_KEY": "k" * 80}, "1 of them different"),
        ({"EVENCOIL_SECRET_KEY": KEY[:49]}, "49 letters"),
        ({"EVENCOIL_SECRET_KEY": f"django-insecure-{KEY}"}, "copied from an example"),
        ({"EVENCOIL_SECRET_KEY_OLD": "short"}, "EVENCOIL_SECRET_KEY_OLD is 5 letters"),
        ({"EVENCOIL_DEMO": "1"}, "EVENCOIL_DEMO"),
        ({"EVENCOIL_DEBUG": "1"}, "EVENCOIL_DEBUG"),
        ({"EVENCOIL_DB_PASSWORD": ""}, "EVENCOIL_DB_PASSWORD"),
        ({"EVENCOIL_HOSTS": ""}, "EVENCOIL_HOSTS names no address"),
        ({"EVENCOIL_HOSTS": "*"}, "holds *"),
        ({"EVENCOIL_HTTPS": ""}, "in the clear"),
        ({"EVENCOIL_HTTPS": "true"}, "in the clear"),
    ],
)
def test_what_must_not_serve_a_plant_does_not_start(change, said):
    """Each wrong setting by its name; no key is printed."""
    with pytest.raises(RefusedSettingsError) as refused:
        refuse_unfit({**GOOD, **change})
    assert said in str(refused.value)
    assert KEY[:20] not in str(refused.value)


def test_every_wrong_setting_is_said_at_once():
    """Nobody mends one and meets the next."""
    with pytest.raises(RefusedSettingsError) as refused:
        refuse_unfit({"EVENCOIL_HTTPS": "1", "EVENCOIL_DEMO": "1"})
    assert str(refused.value).count("\n- ") == 4


@pytest.fixture
def anyone(db):
    """A client that is nobody."""
    return Client(HTTP_HOST="localhost")


def test_health_asks_nothing_and_ready_asks_all(anyone, monkeypatch):
    """Without the database the process is well and not ready; which part fails is said."""
    WorkerSeen.objects.create(name="w", at=timezone.now())
    assert anyone.get("/ready").json() == {
        "status": "ready",
        "database": "ok",
        "tables": "ok",
        "cache": "ok",
        "workers": "ok",
    }

    def lost():
        raise OperationalError("no route")

    monkeypatch.setitem(room.PARTS, "database", lost)
    answer = anyone.get("/ready")
    assert answer.status_code == 503
    assert answer.json()["database"] == "does not answer: OperationalError"
    assert anyone.get("/health").json() == {"status": "ok"}


def test_a_missing_worker_is_told_and_takes_no_page_away(anyone):
    """Audits wait, pages do not."""
    WorkerSeen.objects.create(name="w", at=timezone.now() - timedelta(seconds=61))
    answer = anyone.get("/ready")
    assert answer.status_code == 200
    assert "no worker was seen" in answer.json()["workers"]


def figures(text):
    """Return every sample by its name and labels."""
    return {
        (sample.name, tuple(sorted(sample.labels.items()))): sample.value
        for family in text_string_to_metric_families(text)
        for sample in family.samples
    }


def test_metrics_count_requests_by_pattern_and_tell_of_the_queue(anyone):
    """No tag and no name is in them: only patterns of addresses."""
    who = caller("here", "ann")
    motor(who)
    client = signed_in(who)
    route = "/api/w/<works>/m/<tag>/j/<number>"
    counted = (
        "evencoil_requests_total",
        tuple(sorted({"route": route, "method": "GET", "status": "200"}.items())),
    )
    before = figures(anyone.get("/metrics").content.decode()).get(counted, 0)
    for _ in range(3):
        client.get("/api/w/here/m/IC-2/j/1")
    work_out_lines.enqueue(1)
    text = anyone.get("/metrics").content.decode()
    now = figures(text)
    assert now[counted] - before == 3
    assert now[("evencoil_tasks", (("state", "ready"),))] >= 1
    assert now[("evencoil_oldest_task_seconds", ())] >= 0
    assert "IC-2" not in text
    assert "here" not in text.replace("where", "")


def test_metrics_are_for_this_machine_or_a_token(anyone, settings):
    """From elsewhere, or behind a proxy without a token: there is nothing."""
    far = Client(HTTP_HOST="localhost", REMOTE_ADDR="10.0.0.7")
    assert far.get("/metrics").status_code == 404
    settings.METRICS_TOKEN = "watch-tower-token"
    assert anyone.get("/metrics").status_code == 404
    told = far.get("/metrics", headers={"Authorization": "Bearer watch-tower-token"})
    assert told.status_code == 200
    settings.METRICS_TOKEN, settings.IS_HTTPS = "", True
    assert anyone.get("/metrics").status_code == 404


def test_a_request_is_logged_by_pattern_with_its_id(db, caplog):
    """One line: method, pattern, status, time, person by number; no address, no name."""
    client = signed_in(caller("here", "ann"))
    with caplog.at_level(logging.INFO, logger="evencoil.requests"):
        answer = client.get("/api/w/here/yard?q=hidden", headers={"X-Request-Id": "from-proxy-1"})
    assert answer.headers["X-Request-Id"] == "from-proxy-1"
    (record,) = [one for one in caplog.records if one.name == "evencoil.requests"]
    line = json.loads(JsonFormatter().format(record))
    assert (line["route"], line["status"], line["method"]) == ("/api/w/<works>/yard", 200, "GET")
    assert "hidden" not in json.dumps(line)
    assert "ann" not in json.dumps(line)


def test_an_id_that_is_none_is_not_passed_on(anyone):
    """A header with blanks or a newline's escape is answered with an id of our own."""
    said = anyone.get("/health", headers={"X-Request-Id": "a b"}).headers["X-Request-Id"]
    assert len(said) == 32


def test_sessions_hold_when_the_key_is_changed(db, settings):
    """The old key among the old ones: signed in still. Dropped: signed out."""
    client = signed_in(caller("here", "ann"))
    old = settings.SECRET_KEY
    settings.SECRET_KEY, settings.SECRET_KEY_FALLBACKS = KEY, [old]
    assert client.get("/api/session").json()["is_signed_in"] is True
    client = signed_in(caller("here", "bob"))
    settings.SECRET_KEY, settings.SECRET_KEY_FALLBACKS = KEY[::-1], []
    assert client.get("/api/session").json()["is_signed_in"] is False


def test_too_many_tries_say_so(db, settings):
    """Links are tried thirty times a minute at most from one address."""
    from office.joining import TRIES

    TRIES.cache.clear()
    far = Client(HTTP_HOST="localhost", REMOTE_ADDR="10.9.8.7")
    answers = [post(far, "/api/join/look", {"token": "n" * 30}) for _ in range(31)]
    assert [one.status_code for one in answers] == [404] * 30 + [429]
    assert answers[-1].json()["code"] == "too_many"
