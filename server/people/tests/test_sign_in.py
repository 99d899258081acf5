"""Signing in: by name and password, throttled, never by a guess."""

import pytest
from django.contrib.auth.hashers import identify_hasher
from django.core.cache import cache
from django.test import Client

from people.models import User
from tests_support import WORD, caller

LOGIN = "/api/auth/browser/v1/auth/login"


@pytest.fixture
def person(db):
    """A person who can sign in, before a fresh count of tries."""
    cache.clear()
    return caller("here", "ann").user


def sign_in(client, password, username="ann"):
    """Try to sign in."""
    return client.post(
        LOGIN, {"username": username, "password": password}, content_type="application/json"
    )


def test_a_right_password_opens_and_signing_out_closes(person):
    """The session then says who it is; afterwards no one."""
    client = Client(HTTP_HOST="localhost")

    assert sign_in(client, WORD).status_code == 200
    assert client.get("/api/session").json()["username"] == "ann"
    client.delete("/api/auth/browser/v1/auth/session")
    assert client.get("/api/session").json()["is_signed_in"] is False


@pytest.mark.parametrize(("username", "password"), [("ann", "wrong"), ("nobody", WORD)])
def test_a_wrong_name_and_a_wrong_password_sound_the_same(person, username, password):
    """The refusal does not tell which of the two was wrong."""
    answer = sign_in(Client(HTTP_HOST="localhost"), password, username)

    assert answer.status_code == 400
    assert answer.json()["detail"] == (
        "The username and/or password you specified are not correct."
    )


def test_guessing_is_throttled(person):
    """After five wrong tries even the right password has to wait."""
    client = Client(HTTP_HOST="localhost")
    for _ in range(6):
        answer = sign_in(client, "wrong")
    assert answer.status_code in {400, 429}

    late = sign_in(client, WORD)
    assert late.status_code in {400, 429}
    assert client.get("/api/session").json()["is_signed_in"] is False


def test_passwords_are_kept_by_argon2(person):
    """No other way to keep a password is switched on."""
    assert identify_hasher(User.objects.get(username="ann").password).algorithm == "argon2"


def test_nobody_signs_up_from_outside(db):
    """Accounts are made by the plant."""
    answer = Client(HTTP_HOST="localhost").post(
        "/api/auth/browser/v1/auth/signup",
        {"username": "eve", "password": WORD},
        content_type="application/json",
    )

    assert answer.status_code == 404
    assert not User.objects.filter(username="eve").exists()


def test_the_page_carries_a_content_policy(client, settings, tmp_path):
    """Scripts and styles come from here only; no one may frame the page."""
    (tmp_path / "index.html").write_text("<!doctype html>")
    settings.WEB_DIST = tmp_path
    answer = client.get("/w/here")

    assert "script-src 'self'" in answer.headers["Content-Security-Policy"]
    assert "frame-ancestors 'none'" in answer.headers["Content-Security-Policy"]
    assert "csrftoken" in answer.cookies


def test_a_stranger_locks_nobody_out(person):
    """Ten wrong tries from one address; the person signs in from another."""
    stranger = Client(HTTP_HOST="localhost", REMOTE_ADDR="10.0.0.66")
    for _ in range(10):
        sign_in(stranger, "wrong")
    assert sign_in(stranger, WORD).status_code in {400, 429}
    own = Client(HTTP_HOST="localhost", REMOTE_ADDR="10.0.0.7")
    assert sign_in(own, WORD).status_code == 200


@pytest.mark.parametrize(
    "path",
    [
        "auth/2fa/authenticate",
        "auth/email/verify",
        "auth/webauthn/signup",
        "account/email",
        "account/authenticators/totp",
        "auth/signup",
        "account/providers",
    ],
)
@pytest.mark.parametrize("method", ["get", "post", "put", "patch", "delete"])
def test_no_other_door_of_the_sign_in_package_is_open(client, path, method):
    """No mail is sent, nothing ends in a 500, signed in or not."""
    for asking in (client, Client(HTTP_HOST="localhost")):
        answer = getattr(asking, method)(
            f"/api/auth/browser/v1/{path}",
            {"email": "ann@example.com"} if method != "get" else None,
            content_type="application/json",
        )
        assert answer.status_code == 404
        assert answer.json()["code"] == "not_found"


@pytest.mark.parametrize(
    "path",
    [
        "auth/password/request",
        "auth/password/reset",
        "auth/webauthn/login",
        "auth/webauthn/reauthenticate",
        "auth/sessions",
        "account/password/change",
        "account/authenticators",
        "account/authenticators/webauthn",
    ],
)
@pytest.mark.parametrize("method", ["get", "post", "put", "patch", "delete"])
def test_what_is_open_of_the_sign_in_package_refuses_in_the_one_shape(client, path, method):
    """Whatever is sent there by whomever: nothing ends in a 500."""
    for asking in (client, Client(HTTP_HOST="localhost")):
        answer = getattr(asking, method)(
            f"/api/auth/browser/v1/{path}",
            {"key": "k", "password": WORD, "sessions": [1]} if method != "get" else None,
            content_type="application/json",
        )
        assert answer.status_code < 500
        if answer.status_code >= 400:
            assert set(answer.json()) == {"code", "detail", "field", "hint"}


@pytest.mark.parametrize(
    "path",
    [
        "/api/w/here/m/%00/j/1",
        "/api/w/%00/yard",
        "/api/w/here/yard?q=%00",
        "/api/w/here/m/IC-2%00/j/1/history/plate",
        "/api/w/here/convert/%00",
        "/api/w/here/m/IC-2/j/1/photos/%00",
    ],
)
def test_a_nul_in_an_address_is_nowhere(client, path):
    answer = client.get(path)
    assert answer.status_code == 404
    assert answer.json()["code"] == "not_found"


def test_the_description_of_the_api_is_for_people_who_are_signed_in(client):
    assert client.get("/api/openapi.json").status_code == 200
    stranger = Client(HTTP_HOST="localhost").get("/api/openapi.json")
    assert (stranger.status_code, stranger.json()["code"]) == (401, "sign_in")
