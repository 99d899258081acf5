"""Who is let into a plant, as what, and who is not any more."""

from __future__ import annotations

import uuid
from datetime import timedelta

import pytest
from django.core import mail
from django.core.management import CommandError, call_command
from django.test import Client
from django.utils import timezone

from jobs.models import JobMotor
from office.models import Invite, Seen
from people.models import AccessToken, ActionLog, Member, User
from tests_support import JOB, caller, motor, post, put, signed_in

JOIN = "/api/join"
NEW = {"username": "eve.new", "display_name": "Eve New", "password": "four-kilns-and-a-mill"}


@pytest.fixture
def admin(db):
    """An administrator of `here`, signed in."""
    return signed_in(caller("here", "dov", "admin"))


def invited(admin, **body):
    """Make an invitation and return its secret."""
    answer = post(admin, "/api/w/here/invites", {"role": "electrician", **body})
    assert answer.status_code == 200, answer.content
    return answer.json()["token"]


def test_a_link_lets_one_new_person_in_once(admin):
    """A new account joins by the link, is signed in, and the link is used up."""
    token = invited(admin, whom="the new one", role="apprentice")
    stranger = Client(HTTP_HOST="localhost")
    looked = post(stranger, f"{JOIN}/look", {"token": token}).json()
    assert (looked["works"], looked["role"], looked["signed_in"]) == ("Here", "apprentice", "")

    joined = post(stranger, JOIN, {"token": token, **NEW})

    assert joined.json() == {"slug": "here"}
    (works,) = stranger.get("/api/session").json()["works"]
    assert (works["slug"], works["role"]) == ("here", "apprentice")
    (own,) = stranger.get("/api/auth/browser/v1/auth/sessions").json()["data"]
    assert own["is_current"] is True
    again = post(Client(HTTP_HOST="localhost"), JOIN, {"token": token, **NEW, "username": "x.y"})
    assert again.status_code == 404
    assert again.json()["code"] == "no_invite"
    assert ActionLog.objects.filter(action="join", by__username="eve.new").count() == 1


def test_the_secret_is_kept_nowhere(admin):
    """What is stored opens nothing: the link cannot be read from the tables."""
    token = invited(admin)
    row = Invite.objects.get()
    assert token not in {str(value) for value in vars(row).values()}
    assert token not in admin.get("/api/w/here/people").content.decode()


def test_somebody_with_an_account_joins_with_it(admin):
    """One account, two plants."""
    token = invited(admin, role="reviewer")
    other = signed_in(caller("there", "eve", "admin"))
    assert post(other, f"{JOIN}/look", {"token": token}).json()["signed_in"] == "eve"
    assert post(other, JOIN, {"token": token}).status_code == 200
    roles = {one["slug"]: one["role"] for one in other.get("/api/session").json()["works"]}
    assert roles == {"here": "reviewer", "there": "admin"}


def test_a_member_does_not_use_a_link_up(admin):
    """Whoever belongs there already is told so, and the link stays good."""
    token = invited(admin, role="admin")
    member = signed_in(caller("here", "ann", "apprentice"))
    answer = post(member, JOIN, {"token": token})
    assert (answer.status_code, answer.json()["code"]) == (409, "is_member")
    assert Member.objects.get(user__username="ann").role == "apprentice"
    assert Invite.objects.get().used_at is None


@pytest.mark.parametrize("how", ["ended", "taken back", "nonsense"])
def test_a_link_that_holds_no_more_lets_nobody_in(admin, how):
    """Ended, taken back, or never made: one answer, no account."""
    token = invited(admin)
    row = Invite.objects.get()
    if how == "ended":
        Invite.objects.update(ends_at=timezone.now() - timedelta(seconds=1))
    elif how == "taken back":
        assert admin.delete(f"/api/w/here/invites/{row.pk}").status_code == 200
    else:
        token = "n" * 43
    answer = post(Client(HTTP_HOST="localhost"), JOIN, {"token": token, **NEW})
    assert (answer.status_code, answer.json()["code"]) == (404, "no_invite")
    assert not User.objects.filter(username="eve.new").exists()


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"username": "DOV"}, "username"),
        ({"username": "two words"}, "username"),
        ({"password": "kiln"}, "password"),
        ({"password": "password1234"}, "password"),
        ({"display_name": ""}, "display_name"),
        ({"email": "nowhere"}, "email"),
    ],
)
def test_an_account_that_cannot_be_made_uses_nothing_up(admin, change, field):
    """A name that is taken in other capitals, a common password: refused at its field."""
    token = invited(admin)
    answer = post(Client(HTTP_HOST="localhost"), JOIN, {"token": token, **NEW, **change})
    assert answer.status_code == 422
    assert answer.json()["field"] == field
    assert Invite.objects.get().used_at is None
    assert not User.objects.filter(display_name="Eve New").exists()


def test_an_invitation_is_mailed_where_it_is_asked_for(admin):
    """The mail holds the link; the plant's list names the address."""
    token = invited(admin, email="eve@example.com")
    (sent,) = mail.outbox
    assert sent.to == ["eve@example.com"]
    assert f"/join#{token}" in sent.body
    assert admin.get("/api/w/here/people").json()["invites"][0]["whom"] == "eve@example.com"


@pytest.mark.parametrize("role", ["apprentice", "electrician", "reviewer"])
def test_only_an_administrator_manages_people(admin, role):
    """Everybody sees who belongs here; nobody else changes it or reads the log."""
    other = signed_in(caller("here", "ann", role))
    assert [one["username"] for one in other.get("/api/w/here/people").json()["members"]]
    asked = [
        post(other, "/api/w/here/invites", {"role": "admin"}),
        other.put("/api/w/here/people/ann", {"role": "admin"}, content_type="application/json"),
        other.delete("/api/w/here/people/dov"),
        post(other, "/api/w/here/hand-over", {"username": "ann", "own_role": "reviewer"}),
        other.get("/api/w/here/log"),
        other.get("/api/w/here/log.csv"),
        other.get("/api/w/here/seen"),
        post(other, "/api/w/here/takeouts", {}),
        other.get("/api/w/here/takeouts"),
        post(other, "/api/w/here/erase", {"name": "Here"}),
    ]
    assert {answer.status_code for answer in asked} == {403}
    assert Member.objects.get(user__username="ann").role == role
    assert Member.objects.count() == 2


def test_a_plant_never_stays_without_an_administrator(admin):
    """The only one neither leaves nor steps down; after handing over both can be done."""
    caller("here", "ann", "reviewer")
    down = admin.put(
        "/api/w/here/people/dov", {"role": "reviewer"}, content_type="application/json"
    )
    assert (down.status_code, down.json()["code"]) == (409, "last_admin")
    assert post(admin, "/api/w/here/leave", {}).json()["code"] == "last_admin"
    over = post(admin, "/api/w/here/hand-over", {"username": "ann", "own_role": "electrician"})
    roles = {one["username"]: one["role"] for one in over.json()["members"]}
    assert roles == {"ann": "admin", "dov": "electrician"}
    assert post(admin, "/api/w/here/leave", {}).status_code == 204
    assert admin.get("/api/w/here/people").status_code == 404


def test_whoever_was_removed_opens_nothing_any_more(admin):
    """Screens, tokens and the links they made end at once; what they did stays in their name."""
    eve = caller("here", "eve", "admin")
    theirs = signed_in(eve)
    motor(eve)
    token = post(theirs, "/api/w/here/tokens", {"name": "schedule"}).json()["token"]
    link = invited(theirs)
    program = Client(HTTP_HOST="localhost", headers={"Authorization": f"Bearer {token}"})
    assert program.get("/api/w/here/yard").status_code == 200

    assert admin.delete("/api/w/here/people/eve").status_code == 200

    assert theirs.get("/api/w/here/yard").status_code == 404
    assert program.get("/api/w/here/yard").status_code == 401
    assert post(Client(HTTP_HOST="localhost"), f"{JOIN}/look", {"token": link}).status_code == 404
    assert JobMotor.objects.get().job.by.username == "eve"


def test_nobody_goes_whose_lock_is_on(admin):
    """By the record a lock of theirs is on: first it comes off, then they go."""
    eve = caller("here", "eve", "electrician")
    motor(eve)
    theirs = signed_in(eve)
    put(theirs, "starter", {"standard_circuit": "3A"})
    panel = theirs.get(f"{JOB}/panel").json()
    lock = _act(theirs, panel, 1, "lock_on", {"isolator": "breaker"}, LOCK)
    for answer in (
        admin.delete("/api/w/here/people/eve"),
        post(theirs, "/api/w/here/leave", {}),
    ):
        assert (answer.status_code, answer.json()["code"]) == (409, "lock_on")
        assert "IC-2 lock 14" in answer.json()["detail"]
    _act(theirs, panel, 2, "lock_off", {"locks": [lock]}, {})
    assert admin.delete("/api/w/here/people/eve").status_code == 200


LOCK = {"place": "isolator", "lock_no": "14"}


def _act(client, panel, n, kind, about, body):
    """Send one entry of a device; return its id."""
    uid = str(uuid.UUID(int=(n << 80) + 1, version=4))
    entry = {"uid": uid, "kind": kind, "device": "t", "rev": panel["rev"], "about": about}
    seen = client.get(f"{JOB}/panel").json()["heads"]
    answer = post(
        client, f"{JOB}/panel/acts", {"acts": [{**entry, "body": body, "based_on": seen}]}
    )
    assert [one["answer"] for one in answer.json()["answers"]] == ["kept"], answer.content
    return uid


def test_what_was_opened_is_noted_once_a_day(admin):
    """A motor and a file of the plant, by name and day: no time of day."""
    motor(caller("here", "ann"))
    ann = signed_in(caller("here", "ann"))
    for _ in range(3):
        assert ann.get("/api/w/here/m/IC-2/j/1").status_code == 200
    assert ann.get("/api/w/here/motors.csv").status_code == 200
    assert ann.get("/api/w/here/m/NO-9/j/1").status_code == 404
    found = admin.get("/api/w/here/seen").json()
    assert sorted(line["what"] for line in found["lines"]) == ["file motors.csv", "motor IC-2"]
    assert {line["by"] for line in found["lines"]} == {"ann"}
    assert all(len(line["on"]) == len("2026-12-02") for line in found["lines"])
    assert Seen.objects.count() == found["total"] == 2


def test_the_log_says_who_did_what(admin):
    """Newest first, by person, by kind, by a word; as a table no cell is a formula."""
    ann = caller("here", "ann")
    motor(ann, "=1+2")
    invited(admin, whom="eve")
    first = admin.get("/api/w/here/log").json()
    assert first["lines"][0]["action"] == "invite"
    assert "add motor" in first["actions"]
    only = admin.get("/api/w/here/log?by=ann&action=add motor").json()
    assert (only["total"], only["lines"][0]["by"]) == (1, "ann")
    assert admin.get("/api/w/here/log?q=eve").json()["total"] == 1
    table = admin.get("/api/w/here/log.csv").content.decode()
    assert table.startswith("at,by,action,target\n")
    assert ",=1+2" not in table


def test_a_token_reads_one_plant_and_changes_only_if_it_may(admin):
    """Reading tokens read; another plant, people and the panel stay closed to both kinds."""
    motor(caller("here", "dov", "admin"))
    reading = _program(admin, is_writing=False)
    writing = _program(admin, is_writing=True)
    caller("there", "dov", "admin")
    assert reading.get("/api/v1/w/here/yard").json()["works"] == "Here"
    for client in (reading, writing):
        assert client.get("/api/w/there/yard").status_code == 401
        assert client.get("/api/me").status_code == 401
        for path in ("people", "log", "takeouts"):
            assert client.get(f"/api/w/here/{path}").status_code == 403
        assert post(client, "/api/w/here/tokens", {"name": "more"}).status_code == 403
        acts = post(client, "/api/w/here/m/IC-2/j/1/panel/acts", {"acts": []})
        assert acts.status_code == 403
        assert "by a person" in acts.json()["detail"]
    assert post(reading, "/api/w/here/motors", {"tag": "P-1"}).status_code == 403
    assert post(writing, "/api/w/here/motors", {"tag": "P-1"}).status_code == 201
    assert AccessToken.objects.filter(used_on=None).count() == 0
    AccessToken.objects.update(ends_at=timezone.now())
    assert reading.get("/api/w/here/yard").status_code == 401


def _program(client, **body):
    token = post(client, "/api/w/here/tokens", {"name": "p", **body}).json()["token"]
    return Client(
        HTTP_HOST="localhost",
        enforce_csrf_checks=True,
        headers={"Authorization": f"Bearer {token}"},
    )


def test_an_administrator_sees_and_ends_everybodys_tokens(admin):
    """Nobody else sees them; their secret is told to nobody."""
    ann = signed_in(caller("here", "ann", "reviewer"))
    program = _program(ann, is_writing=True)
    assert ann.get("/api/w/here/people").json()["tokens"] == []
    (one,) = admin.get("/api/w/here/people").json()["tokens"]
    assert (one["by"], one["is_writing"], one["name"]) == ("ann", True, "p")
    eve = signed_in(caller("here", "eve", "reviewer"))
    assert eve.delete(f"/api/w/here/tokens/{one['n']}").status_code == 404
    assert program.get("/api/w/here/yard").status_code == 200
    assert admin.delete(f"/api/w/here/tokens/{one['n']}").status_code == 200
    assert program.get("/api/w/here/yard").status_code == 401


def test_a_token_does_not_raise_what_its_owner_may(db):
    """An apprentice's writing token adds no motor."""
    client = signed_in(caller("here", "ann", "apprentice"))
    program = _program(client, is_writing=True)
    assert post(program, "/api/w/here/motors", {"tag": "P-1"}).status_code == 403


def test_a_change_sent_twice_with_a_key_is_done_once(admin):
    """The first answer comes again; another body with the key is refused; another sender is not."""
    key = {"Idempotency-Key": "a-key-of-its-own"}

    def add(client, tag):
        return client.post(
            "/api/w/here/motors", {"tag": tag}, content_type="application/json", headers=key
        )

    first, second = add(admin, "P-1"), add(admin, "P-1")
    assert (first.status_code, second.status_code) == (201, 201)
    assert first.json() == second.json()
    assert second.headers["Idempotent-Replay"] == "true"
    assert JobMotor.objects.count() == 1
    other = add(admin, "P-2")
    assert (other.status_code, other.json()["field"]) == (422, "Idempotency-Key")
    ann = signed_in(caller("here", "ann"))
    assert add(ann, "P-3").status_code == 201
    # a kept answer opens nothing for whoever left
    Member.objects.filter(user__username="ann").delete()
    assert add(ann, "P-3").status_code == 404


def test_one_changes_ones_own_account(admin):
    """Name and address; a wrong address is refused and changes nothing."""
    patch = {"content_type": "application/json"}
    assert admin.patch("/api/me", {"email": "dov@"}, **patch).status_code == 422
    said = admin.patch("/api/me", {"display_name": "Dov A", "email": "d@example.com"}, **patch)
    assert (said.json()["display_name"], said.json()["email"]) == ("Dov A", "d@example.com")
    assert admin.get("/api/session").json()["display_name"] == "Dov A"


def test_a_lost_password_is_set_anew_by_mail(admin):
    """The mail goes to the account's own address; the key in it works once."""
    User.objects.filter(username="dov").update(email="dov@example.com")
    stranger = Client(HTTP_HOST="localhost")
    base = "/api/auth/browser/v1/auth/password"
    assert post(stranger, f"{base}/request", {"email": "nobody@example.com"}).status_code == 200
    assert mail.outbox == []
    assert post(stranger, f"{base}/request", {"email": "dov@example.com"}).status_code == 200
    key = mail.outbox[0].body.split("/new-password#")[1].split()[0]
    word = {"key": key, "password": "five-conveyors-stopped"}
    assert post(stranger, f"{base}/reset", word).status_code in (200, 401)
    assert User.objects.get(username="dov").check_password(word["password"])
    assert post(stranger, f"{base}/reset", word).status_code == 400
    # sessions that were open before are over
    assert admin.get("/api/session").json()["is_signed_in"] is False


def test_the_operator_founds_a_plant(db, capsys):
    """The printed link makes an administrator; asked again before that, only the newest holds."""
    call_command("found", "mill", "Mill Two", "--time-zone", "America/Denver")
    call_command("found", "mill", "Mill Two")
    first, second = (line.partition("#")[2] for line in capsys.readouterr().out.split())
    stranger = Client(HTTP_HOST="localhost")
    assert post(stranger, JOIN, {"token": first, **NEW}).status_code == 404
    assert post(stranger, JOIN, {"token": second, **NEW}).json() == {"slug": "mill"}
    (works,) = stranger.get("/api/session").json()["works"]
    assert (works["role"], works["time_zone"]) == ("admin", "America/Denver")


@pytest.mark.parametrize(
    "asked",
    [("here", "Here"), ("two words", "X"), ("x", " "), ("x", "X", "--time-zone", "Larkfall")],
)
def test_a_plant_is_not_founded_twice_or_wrongly(admin, asked):
    """A taken address, a wrong one, no name, no such clock: refused, nothing made."""
    with pytest.raises(CommandError):
        call_command("found", *asked)
    assert Invite.objects.count() == 0


def test_the_interface_for_programs_is_described_for_its_people(admin):
    """The page and the file behind it, served here; for nobody who is not signed in."""
    assert "swagger-ui" in admin.get("/api/docs").content.decode()
    assert "/api/w/{works}/people" in admin.get("/api/openapi.json").json()["paths"]
    stranger = Client(HTTP_HOST="localhost")
    assert stranger.get("/api/docs").status_code == 401
    assert stranger.get("/api/openapi.json").status_code == 401


def test_an_answer_is_not_sent_again_unchanged(admin):
    """A GET has an ETag; asked with it, 304 and no body."""
    first = admin.get("/api/w/here/people")
    again = admin.get("/api/w/here/people", headers={"If-None-Match": first.headers["ETag"]})
    assert (again.status_code, again.content) == (304, b"")
