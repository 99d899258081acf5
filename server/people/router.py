"""Who is signed in, and where they belong."""

from __future__ import annotations

from django.http import HttpRequest
from ninja import Router, Schema

from people.models import Member, User

__all__ = ["router"]

router = Router(tags=["people"])


class WorksOut(Schema):
    """A works that the caller belongs to, and as what."""

    slug: str
    name: str
    role: str
    time_zone: str
    edition: int
    school: str


class SessionOut(Schema):
    """The signed-in person, or nobody."""

    is_signed_in: bool
    username: str = ""
    display_name: str = ""
    works: list[WorksOut] = []


@router.get("/session", response=SessionOut, auth=None)
def session(request: HttpRequest) -> SessionOut:
    """Return who is signed in and the works that they belong to."""
    user = request.user
    if not isinstance(user, User):
        return SessionOut(is_signed_in=False)
    members = Member.objects.select_related("works").filter(user=user).order_by("works__name")
    return SessionOut(
        is_signed_in=True,
        username=user.username,
        display_name=str(user),
        works=[
            WorksOut(
                slug=member.works.slug,
                name=member.works.name,
                role=member.role,
                time_zone=member.works.time_zone,
                edition=member.works.edition,
                school=member.works.school,
            )
            for member in members
        ],
    )
