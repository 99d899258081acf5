"""What server tests share: two works, their people, and a client that is signed in."""

from __future__ import annotations

from functools import cache
from typing import TYPE_CHECKING

from django.contrib.auth.hashers import make_password
from django.test import Client

from evencoil.plate import PlateInputs, SupplyInputs
from evencoil.sizing import SizeInputs
from jobs.actions import AddMotor, GiveInputs, ReadPlate
from jobs.models import JobMotor
from people.access import Caller
from people.models import Member, User, Works

if TYPE_CHECKING:
    # the answer of a test client, which has a name in the type stubs only
    from django.test.client import _MonkeyPatchedWSGIResponse

__all__ = ["JOB", "PLATE", "WORD", "caller", "motor", "post", "put", "signed_in"]

JOB = "/api/w/here/m/IC-2/j/1"
WORD = "a-word-for-tests-only"
PLATE = "15 HP, 230/460 V, 38.6/19.3 A, 1765 RPM, 60 HZ, 3 PH, SF 1.15, CODE G, DES B, 9 LEADS"


@cache
def _hashed() -> str:
    """Return the password as it is; the real hasher is slow on purpose."""
    return make_password(WORD)


def caller(works: str, username: str, role: str = "electrician") -> Caller:
    """Return a person in a plant, making both where they are missing."""
    place, _ = Works.objects.get_or_create(slug=works, defaults={"name": works.title()})
    user, is_new = User.objects.get_or_create(username=username)
    if is_new:
        user.password = _hashed()
        user.save()
    Member.objects.get_or_create(user=user, works=place, defaults={"role": role})
    return Caller(user=user, works=place, role=role)


def motor(who: Caller, tag: str = "IC-2") -> JobMotor:
    """Return a motor's job, with plate, supply and sizes given."""
    link = AddMotor(who, tag=tag, called="conveyor", machine="Line 1").run()
    ReadPlate(who, link, PlateInputs(text=PLATE), 0).run()
    GiveInputs(who, link, "supply", SupplyInputs(text="480Y/277"), 0).run()
    GiveInputs(who, link, "size", SizeInputs(conductor_material="cu"), 0).run()
    return link


def signed_in(who: Caller) -> Client:
    """Return a client that carries the person's session."""
    client = Client(HTTP_HOST="localhost")
    client.force_login(who.user, backend="allauth.account.auth_backends.AuthenticationBackend")
    return client


def post(client: Client, path: str, body: object) -> _MonkeyPatchedWSGIResponse:
    """Post JSON and return the answer."""
    return client.post(path, body, content_type="application/json")


def put(client: Client, path: str, body: object, based_on: int = 0) -> _MonkeyPatchedWSGIResponse:
    """Keep a part of the first job of the motor IC-2 in the plant `here`."""
    return client.put(
        f"{JOB}/{path}", {"based_on": based_on, "body": body}, content_type="application/json"
    )
