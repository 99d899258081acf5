"""Whatever the OpenAPI file allows, or does not, nothing ends in a 500."""

import os
from pathlib import Path

import pytest
import schemathesis
from django.core.signals import request_finished, request_started
from django.db import close_old_connections
from hypothesis import HealthCheck, settings

from config.wsgi import application
from tests_support import caller, motor, signed_in

FILE = Path(__file__).parents[1] / "openapi.json"
schema = schemathesis.openapi.from_path(str(FILE))
schema.app = application
# work-out takes every step of a job and works it out: there each field is gone through one by one.
# Operations that take the same steps again, to keep them or to draw them, get random ones.
SAME_BODY = r"/(circuit|curves|dead|probes|checks|proofs|choose|nearest|inside|rehearse|plate|supply|leads|trust|joints|size|starter|load|starts-in-a-row|trace)$"
PRINTING = r"/(issues|run-up|run-up/\{method\})$"
random = schemathesis.openapi.from_path(str(FILE))
random.app = application
random.config.phases.coverage.enabled = False


@pytest.fixture
def session(db):
    """Cookies and token of a signed-in person whose works has a motor."""
    who = caller("here", "ann", "admin")
    motor(who)
    client = signed_in(who)
    # as Django's own test client does: the test's transaction outlives a request
    for signal in (request_started, request_finished):
        signal.disconnect(close_old_connections)
    yield client.cookies["sessionid"].value
    for signal in (request_started, request_finished):
        signal.connect(close_old_connections)


#: `EVENCOIL_FUZZ=10 ./check server` looks ten times as long
TIMES = int(os.environ.get("EVENCOIL_FUZZ", "1"))
CALM = {
    "deadline": None,
    "suppress_health_check": [HealthCheck.function_scoped_fixture, HealthCheck.too_slow],
}


@schema.exclude(path_regex=rf"{SAME_BODY}|{PRINTING}").parametrize()
@settings(max_examples=10 * TIMES, **CALM)
def test_no_request_reaches_a_500(case, session):
    """Every refusal is in the one problem shape, with a code and a next step."""
    holds(case, session)


@random.include(path_regex=SAME_BODY).parametrize()
@settings(max_examples=20 * TIMES, **CALM)
def test_no_other_use_of_a_job_reaches_a_500(case, session):
    """As above, for bodies whose every field was gone through already."""
    holds(case, session)


@random.include(path_regex=PRINTING).parametrize()
@settings(max_examples=6 * TIMES, **CALM)
def test_no_print_or_run_reaches_a_500(case, session):
    """As above; each print and each run takes long, so fewer are tried."""
    holds(case, session)


def holds(case, session):
    """Send a case and look at the answer."""
    if "works" in case.path_parameters and hash(case.id) % 4:
        known = {"works": "here", "tag": "IC-2", "number": 1}
        case.path_parameters.update(
            {name: known[name] for name in case.path_parameters if name in known}
        )
    token = "t" * 32
    answer = case.call(
        base_url="http://localhost",
        headers={"X-CSRFToken": token},
        cookies={"sessionid": session, "csrftoken": token},
    )
    assert answer.status_code < 500, answer.content
    if answer.status_code >= 400:
        said = answer.json()
        assert {"code", "detail", "field", "hint"} <= set(said)
        assert said["detail"]
