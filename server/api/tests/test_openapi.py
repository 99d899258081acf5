"""The committed OpenAPI file is the code, and no operation leaks another works."""

import json
from datetime import timedelta
from pathlib import Path

import pytest
from django.core.management import call_command
from django.db import transaction
from django.test import Client
from django.utils import timezone

from audits.models import Audit
from config.api import api
from drills.models import DrillAnswer, DrillBox, DrillSet, HiddenFault
from hunts.models import TroubleHunt
from jobs.models import InputVersion
from office.models import Erasure, Invite, Takeout
from panel.models import Act, PanelRevision
from paper.models import Issue
from people.models import AccessToken, ActionLog, Member
from people.tokens import hashed
from plant.models import Conversion, HeaterChart, Motor, Photo, PlateRevision
from schedules.models import ScheduleRun
from tests_support import caller, motor, signed_in

FILE = Path(__file__).parents[1] / "openapi.json"
SPEC = json.loads(FILE.read_text())
OPERATIONS = [
    (method, path, operation)
    for path, methods in SPEC["paths"].items()
    for method, operation in methods.items()
]
BODIES = {
    "put plate": {"based_on": 0, "body": {"text": "20 HP"}},
    "put supply": {"based_on": 0, "body": {"text": "240 delta"}},
    "put load": {"based_on": 0, "body": {}},
    "put size": {"based_on": 0, "body": {}},
    "put leads": {"based_on": 0, "body": {}},
    "post acts": {"acts": []},
    "post online": {
        "uid": "01890000-0000-7000-8000-000000000001",
        "kind": "sent_back",
        "device": "t",
        "rev": 1,
    },
    "post sign": {"uid": "01890000-0000-7000-8000-000000000002", "device": "t", "rev": 1},
    "post rehearsal": {"actions": [], "until": 0},
    "post readings": {"text": ""},
    "post motors": {"tag": "X-1"},
    "post import": {"file": "{}"},
    "post work-out": {},
    "post circuit": {},
    "post rehearse": {"given": {}},
    "put starter": {"based_on": 0, "body": {"standard_circuit": "3A"}},
    "post issues": {},
    "put bench": {"based_on": 0, "body": {}},
    "put trust": {"based_on": 0, "body": {}},
    "put replace": {"based_on": 0, "body": {}},
    "put joints": {"based_on": 0, "body": {}},
    "post bench": {"leads": 9},
    "post read": {"bench": {"leads": 9}, "what": "touch", "pair": ["a", "b"]},
    "post inside": {},
    "post curves": {},
    "post dead": {},
    "post probes": {},
    "post checks": {},
    "post choose": {},
    "post nearest": {},
    "post netlist": {"text": "[devices]"},
    "post trace": {"given": {}, "line": "M A1 - S2 14"},
    "post proofs": {},
    "post look": {"text": "a"},
    "post heaters": {"text": "a", "name": "b"},
    "post replaced": {"replace": {}, "plate": {}},
    "post words": {"corners": [0, 0, 1, 0, 1, 1, 0, 1]},
    "post photos": {"subject": "plate", "data": ""},
    "put rules": {
        "edition": 2020,
        "rating_rule": "main_rule",
        "swap_lines": "L1-L2",
        "twist_on": "never",
        "twist_on_largest": "12",
    },
    "post hunts": {"symptom": "hums"},
    # of a hunt, and of a drill
    "post answers": {"rev": 0, "reading": "x", "kind": "overload", "seed": 1, "given": "1"},
    "post back": {"rev": 0},
    "post close": {"rev": 0, "steps": []},
    "post hidden": {"seed": 1},
    "post ask": {"given": {}},
    "post meter": {"given": {}, "at_us": 0, "kind": "ohms", "start": "x"},
    "post hide": {"circuit": "3A", "fault": "x"},
    # tag,hp,volts and one motor, compressed
    "post schedules": {
        "name": "x.csv",
        "data": "H4sIAAAAAAACAytJTNfJKNApy88pKeZy1DXUMdUxMTPgAgBqIvt2FwAAAA==",
    },
    "post map": {"told": {}},
    "post set": {"kind": "overload"},
    "post share": {"is_shared": True},
    "post Line": {},
    "post invites": {"role": "electrician"},
    "put {username}": {"role": "admin"},
    "post hand-over": {"username": "bob", "own_role": "reviewer"},
    "post tokens": {"name": "x"},
    "post erase": {"name": "There"},
    "put Line": {"based_on": 0, "body": {}},
}


KEPT = (
    Member,
    Invite,
    AccessToken,
    Takeout,
    Erasure,
    Motor,
    HeaterChart,
    PlateRevision,
    InputVersion,
    ActionLog,
    Issue,
    Photo,
    Conversion,
    Act,
    PanelRevision,
    TroubleHunt,
    DrillAnswer,
    HiddenFault,
    ScheduleRun,
    Audit,
    DrillBox,
    DrillSet,
)


@pytest.fixture(scope="module")
def two_works(django_db_setup, django_db_blocker):
    """Two works with a motor each, laid out once and rolled back after the last test."""
    with django_db_blocker.unblock(), transaction.atomic():
        motor(caller("here", "ann"))
        motor(caller("there", "bob"))
        yield
        transaction.set_rollback(True)


def filled(path, works):
    """Return an operation's address for the motor IC-2 of a plant."""
    return path.format(
        works=works,
        tag="IC-2",
        number=1,
        step="plate",
        n=1,
        which="wires" if "/list/" in path else "ladder",
        machine="Line",
        sha256="0" * 64,
        name="Door",
        circuit="3A",
        method="wye_delta",
        username="bob",
    )


def test_the_committed_migrations_are_complete(db):
    """No model has changed since its last migration; Django's own checks of the code hold."""
    call_command("check", fail_level="WARNING")
    call_command("makemigrations", check_changes=True, dry_run=True, verbosity=0)


def test_the_committed_file_is_what_the_code_says():
    """`make api` was run after the last change."""
    now = json.loads(json.dumps(api.get_openapi_schema(), default=str))
    assert json.loads(json.dumps(now, sort_keys=True)) == json.loads(
        json.dumps(SPEC, sort_keys=True)
    )


@pytest.mark.parametrize(("method", "path", "operation"), OPERATIONS)
def test_a_foreign_works_answers_404_on_every_operation(two_works, db, method, path, operation):
    """Whatever is asked of a plant one does not belong to: 404, and nothing changed."""
    stranger = signed_in(caller("here", "ann"))
    before = [model.objects.count() for model in KEPT]
    last = path.rsplit("/", 1)[-1].replace("{machine}", "Line")
    body = BODIES.get(f"{method} {last}", {})
    answer = stranger.generic(
        method.upper(), filled(path, "there"), json.dumps(body), content_type="application/json"
    )

    if "{works}" not in path:
        # as a plant's address or name; the word itself stands in sentences of the trade
        for said in (b'"there"', b"w/there", b"There"):
            assert said not in answer.content
        return
    assert answer.status_code == 404, answer.content
    assert set(answer.json()) == {"code", "detail", "field", "hint"}
    after = [model.objects.count() for model in KEPT]
    assert before == after


@pytest.mark.parametrize(("method", "path", "operation"), OPERATIONS)
def test_nobody_gets_in_without_a_session(two_works, db, settings, method, path, operation):
    """Signed out: 401 in the one shape, but for who is signed in and who plays in the demo."""
    settings.IS_DEMO = False
    answer = Client(HTTP_HOST="localhost").generic(
        method.upper(), filled(path, "here"), "{}", content_type="application/json"
    )

    if path == "/api/session":
        assert answer.json()["is_signed_in"] is False
        return
    if path == "/api/demo":
        # this is no demo: `demo/tests` has what one says
        assert answer.json() == {"works": "", "password": "", "people": []}
        return
    if path in ("/api/join", "/api/join/look"):
        # whoever has a link is let in by it: without one there is nothing to look at
        assert answer.status_code == 422
        return
    if path == "/api/w/{works}/m/{tag}/card":
        # what a code opens: for a guest it is not there unless the plant allows it
        assert answer.status_code == 404
        return
    assert answer.status_code == 401
    assert answer.json()["code"] == "sign_in"


@pytest.fixture(scope="module")
def reading(two_works, django_db_blocker):
    """A program that may read the plant `here`."""
    with django_db_blocker.unblock():
        who = caller("here", "ann")
        AccessToken.objects.create(
            works=who.works,
            user=who.user,
            name="p",
            token_hash=hashed("reading"),
            ends_at=timezone.now() + timedelta(days=1),
        )
    return Client(HTTP_HOST="localhost", headers={"Authorization": "Bearer reading"})


@pytest.mark.parametrize(("method", "path", "operation"), OPERATIONS)
def test_a_token_opens_its_plant_to_read_and_nothing_else(reading, db, method, path, operation):
    """Another plant: 401. A change: 403. Outside of plants: signed out. Nothing is changed."""
    before = [model.objects.count() for model in KEPT]
    for works, expected in (("there", 401), ("here", 403)):
        answer = reading.generic(
            method.upper(), filled(path, works), "{}", content_type="application/json"
        )
        if path in OPEN:
            assert answer.status_code in {200, 404, 422}
        elif "{works}" not in path:
            assert answer.status_code == 401
        elif works == "there" or method != "get":
            assert answer.status_code == expected, answer.content
    assert [model.objects.count() for model in KEPT] == before


#: let everybody in: who is signed in, the demo's people, a link, a guest's card
OPEN = {
    "/api/session",
    "/api/demo",
    "/api/join",
    "/api/join/look",
    "/api/w/{works}/m/{tag}/card",
}


@pytest.mark.parametrize(("method", "path", "operation"), OPERATIONS)
def test_every_change_needs_the_token_of_the_page(two_works, db, method, path, operation):
    """A change without the CSRF token is refused in the one shape, and changes nothing."""
    who = caller("here", "ann")
    strict = Client(HTTP_HOST="localhost", enforce_csrf_checks=True)
    strict.force_login(who.user, backend="allauth.account.auth_backends.AuthenticationBackend")
    if method == "get":
        return
    answer = strict.generic(
        method.upper(), filled(path, "here"), "{}", content_type="application/json"
    )
    assert answer.status_code == 403
    assert set(answer.json()) == {"code", "detail", "field", "hint"}
