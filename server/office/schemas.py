"""What the people of a plant are asked and answered."""

from __future__ import annotations

from typing import Annotated, Literal

from django.core.exceptions import ValidationError
from django.core.validators import validate_email
from pydantic import AfterValidator, Field, StringConstraints

from api.schemas import Schema
from people.models import AccessToken

__all__ = [
    "AccessTokenIn",
    "AccessTokenMadeOut",
    "AccessTokenOut",
    "HandOverIn",
    "InviteIn",
    "InviteMadeOut",
    "InviteOut",
    "JoinIn",
    "JoinLookIn",
    "JoinLookOut",
    "JoinedOut",
    "LogLineOut",
    "LogOut",
    "MeIn",
    "MeOut",
    "MemberOut",
    "PeopleOut",
    "RoleIn",
    "SeenLineOut",
    "SeenOut",
    "token_out",
]


def _address(text: str) -> str:
    """Return a mail address; ``name@place`` it must be."""
    text = text.strip()
    if text:
        try:
            validate_email(text)
        except ValidationError as wrong:
            raise ValueError("a mail address looks like name@example.com") from wrong
    return text


#: empty for none
Address = Annotated[str, StringConstraints(max_length=200), AfterValidator(_address)]
RoleName = Literal["apprentice", "electrician", "reviewer", "admin"]
Name = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=80)]
Secret = Annotated[str, StringConstraints(min_length=20, max_length=100)]


class MemberOut(Schema):
    """A member: name and role."""

    username: str
    display_name: str
    role: str
    is_me: bool


class InviteOut(Schema):
    """An invitation: for whom, as what, by whom, until when, and what became of it."""

    n: int
    whom: str
    role: str
    by: str
    ends: str
    state: Literal["open", "used", "ended", "taken_back"]
    used_by: str


class AccessTokenOut(Schema):
    """A token of a program: whose, where, what it may, until when, the day it was last used."""

    n: int
    name: str
    by: str
    works: str
    slug: str
    is_writing: bool
    ends: str
    used_on: str


class PeopleOut(Schema):
    """Everybody of a plant; for an administrator its invitations and everybody's tokens too.

    Invitations are those that are open, or ended in the last 30 days.
    """

    members: list[MemberOut]
    invites: list[InviteOut]
    tokens: list[AccessTokenOut]


class InviteIn(Schema):
    """Whom to invite, as what, and for how many days the link holds."""

    role: RoleName
    whom: Annotated[str, StringConstraints(strip_whitespace=True, max_length=120)] = ""
    email: Address = ""
    days: int = Field(default=7, ge=1, le=30)


class InviteMadeOut(Schema):
    """The secret of a link, said once, and where it was mailed to."""

    n: int
    token: str
    mailed_to: str


class RoleIn(Schema):
    """A member's new role."""

    role: RoleName


class HandOverIn(Schema):
    """To whom, and what the one who hands over is afterwards."""

    username: Name
    own_role: Literal["apprentice", "electrician", "reviewer"]


class JoinLookIn(Schema):
    """The secret of a link."""

    token: Secret


class JoinLookOut(Schema):
    """What a link lets one into."""

    works: str
    role: str
    by: str
    ends: str
    #: whoever looks is signed in by this name, and would join with it
    signed_in: str
    is_member: bool


class JoinIn(Schema):
    """The secret of a link; for a person who has no account yet, the account to be made."""

    token: Secret
    username: (
        Annotated[str, StringConstraints(strip_whitespace=True, pattern=r"^[\w.+-]{2,40}$")] | None
    ) = None
    display_name: Name | None = None
    password: Annotated[str, StringConstraints(min_length=1, max_length=200)] | None = None
    email: Address = ""


class JoinedOut(Schema):
    """Where one belongs now."""

    slug: str


class MeIn(Schema):
    """What one changes of one's own account."""

    display_name: Name | None = None
    email: Address | None = None


class MeOut(Schema):
    """One's own account."""

    username: str
    display_name: str
    email: str
    has_password: bool
    tokens: list[AccessTokenOut]


class AccessTokenIn(Schema):
    """A token to be made for a program."""

    name: Name
    is_writing: bool = False
    days: int = Field(default=90, ge=1, le=366)


class AccessTokenMadeOut(Schema):
    """The token itself, said once."""

    n: int
    token: str


class LogLineOut(Schema):
    """One thing that was done: by whom, when, what to."""

    by: str
    at: str
    action: str
    target: str


class LogOut(Schema):
    """A page of what was done, newest first."""

    total: int
    page: int
    pages: int
    actions: list[str]
    lines: list[LogLineOut]


class SeenLineOut(Schema):
    """Who opened what, and the day."""

    by: str
    on: str
    what: str


class SeenOut(Schema):
    """A page of who opened what, newest first."""

    total: int
    page: int
    pages: int
    lines: list[SeenLineOut]


def token_out(row: AccessToken) -> AccessTokenOut:
    """Return a token as it is shown: never its secret.

    Parameters
    ----------
    row : AccessToken
        With its owner and its plant.
    """
    return AccessTokenOut(
        n=row.pk,
        name=row.name,
        by=str(row.user),
        works=row.works.name,
        slug=row.works.slug,
        is_writing=row.is_writing,
        ends=row.works.local(row.ends_at),
        used_on="" if row.used_on is None else f"{row.used_on:%Y-%m-%d}",
    )
