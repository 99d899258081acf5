"""Who plays in the demo, for the page where they sign in: only while the demo is served."""

from __future__ import annotations

from django.conf import settings
from django.http import HttpRequest
from ninja import Router

from api.schemas import Schema
from demo.larkfall import PASSWORD, PEOPLE, WORKS
from people.models import Works

__all__ = ["router"]

router = Router(tags=["people"])


class PlayerOut(Schema):
    """A made-up person: the name to sign in with, the name others see, and the role."""

    username: str
    name: str
    role: str


class DemoOut(Schema):
    """The made-up people of the demo with their password; nobody where there is no demo."""

    works: str = ""
    password: str = ""
    people: list[PlayerOut] = []


@router.get("/demo", response=DemoOut, auth=None)
def demo(request: HttpRequest) -> DemoOut:
    """Return who plays in the demo; nobody in a plant of its own, nor ever behind HTTPS."""
    del request
    if not settings.IS_DEMO or not Works.objects.filter(slug=WORKS["slug"]).exists():
        return DemoOut()
    return DemoOut(
        works=WORKS["slug"],
        password=PASSWORD,
        people=[
            PlayerOut(username=username, name=name, role=role)
            for username, (name, role) in PEOPLE.items()
        ],
    )
