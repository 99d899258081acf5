"""The people of a plant over the network: members, roles, invitations, what was done and seen."""

from __future__ import annotations

from datetime import timedelta
from typing import Annotated

from django.db.models import Q, QuerySet
from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Query, Router, Schema, Status
from pydantic import Field, StringConstraints

from api.files import answers_file, as_csv, attachment
from api.problems import ProblemError
from api.schemas import REFUSALS, ProblemOut
from office.actions import HandOver, Leave, MakeInvite, RemoveMember, RevokeInvite, SetRole
from office.mail import send_invite
from office.models import Invite, Seen
from office.schemas import (
    HandOverIn,
    InviteIn,
    InviteMadeOut,
    InviteOut,
    LogLineOut,
    LogOut,
    MemberOut,
    PeopleOut,
    RoleIn,
    SeenLineOut,
    SeenOut,
    token_out,
)
from people.access import RANK, Caller, caller_in
from people.models import AccessToken, ActionLog, Member, Role

__all__ = ["need_admin", "router"]

router = Router(tags=["office"])
PAGE = 50
#: lines of a log in a file at most; the newest
MOST_LINES = 100_000
_STATES = {409: ProblemOut}
InviteNumber = Annotated[int, Field(ge=1, le=9_000_000_000_000_000)]
#: an address names nobody longer than an account's name may be
Username = Annotated[str, StringConstraints(max_length=150)]


def need_admin(caller: Caller, what: str) -> None:
    """Refuse what only an administrator may look at.

    Parameters
    ----------
    caller : Caller
        Who asks.
    what : str
        What it is, as the subject of the sentence.

    Raises
    ------
    ProblemError
        403 for everybody else.
    """
    if not caller.may(Role.ADMIN):
        raise ProblemError(
            403,
            code="not_allowed",
            detail=f"{what} is for administrators; your role is {caller.role}.",
            field="role",
            hint=f"Ask an administrator of {caller.works.name}.",
        )


def _invite(row: Invite, caller: Caller) -> InviteOut:
    return InviteOut(
        n=row.pk,
        whom=row.whom,
        role=row.role,
        by="" if row.by is None else str(row.by),
        ends=caller.works.local(row.ends_at),
        state=row.state,
        used_by="" if row.used_by is None else str(row.used_by),
    )


@router.get("/w/{works}/people", response={200: PeopleOut, **REFUSALS})
def people(request: HttpRequest, works: str) -> PeopleOut:
    """Return who belongs to a plant; an administrator sees its invitations as well."""
    caller = caller_in(request, works)
    members = Member.objects.select_related("user").filter(works=caller.works)
    invites: QuerySet[Invite] = Invite.objects.none()
    tokens: QuerySet[AccessToken] = AccessToken.objects.none()
    if caller.may(Role.ADMIN):
        lately = timezone.now() - timedelta(days=30)
        invites = (
            Invite.objects.select_related("by", "used_by")
            .filter(works=caller.works, ends_at__gt=lately)
            .order_by("-pk")
        )
        tokens = (
            AccessToken.objects.select_related("user", "works")
            .filter(works=caller.works, ends_at__gt=timezone.now())
            .order_by("user__username", "name", "pk")
        )
    return PeopleOut(
        members=[
            MemberOut(
                username=one.user.username,
                display_name=str(one.user),
                role=one.role,
                is_me=one.user_id == caller.user.pk,
            )
            for one in sorted(members, key=lambda one: (-RANK[one.role], str(one.user).lower()))
        ],
        invites=[_invite(row, caller) for row in invites],
        tokens=[token_out(row) for row in tokens],
    )


@router.post("/w/{works}/invites", response={200: InviteMadeOut, **REFUSALS})
def invite(request: HttpRequest, works: str, body: InviteIn) -> InviteMadeOut:
    """Make an invitation; the link's secret is in the answer, and nowhere else afterwards."""
    caller = caller_in(request, works)
    made, token = MakeInvite(caller, body.role, body.whom or body.email, body.days).run()
    if body.email:
        link = f"{request.scheme}://{request.get_host()}/join#{token}"
        ends = caller.works.local(made.ends_at)
        send_invite(body.email, caller.works.name, str(caller.user), body.role, link, ends)
    return InviteMadeOut(n=made.pk, token=token, mailed_to=body.email)


@router.delete("/w/{works}/invites/{n}", response={200: PeopleOut, **REFUSALS})
def revoke(request: HttpRequest, works: str, n: InviteNumber) -> PeopleOut:
    """Take an open invitation back."""
    RevokeInvite(caller_in(request, works), n).run()
    return people(request, works)


@router.put("/w/{works}/people/{username}", response={200: PeopleOut, **REFUSALS, **_STATES})
def set_role(request: HttpRequest, works: str, username: Username, body: RoleIn) -> PeopleOut:
    """Give a member another role."""
    SetRole(caller_in(request, works), username, body.role).run()
    return people(request, works)


@router.delete("/w/{works}/people/{username}", response={200: PeopleOut, **REFUSALS, **_STATES})
def remove(request: HttpRequest, works: str, username: Username) -> PeopleOut:
    """Take a member out of the plant."""
    caller = caller_in(request, works)
    if caller.user.username == username:
        raise ProblemError(
            422,
            code="same_person",
            detail="That is you.",
            field="username",
            hint="To leave the plant yourself, use Leave on your own account.",
        )
    RemoveMember(caller, username).run()
    return people(request, works)


@router.post("/w/{works}/leave", response={204: None, **REFUSALS, **_STATES})
def leave(request: HttpRequest, works: str) -> Status[None]:
    """Leave a plant oneself."""
    Leave(caller_in(request, works)).run()
    return Status(204, None)


@router.post("/w/{works}/hand-over", response={200: PeopleOut, **REFUSALS})
def hand_over(request: HttpRequest, works: str, body: HandOverIn) -> PeopleOut:
    """Make another member the administrator and step back."""
    HandOver(caller_in(request, works), body.username, body.own_role).run()
    return people(request, works)


class LogIn(Schema):
    """Which lines: of one person, of one kind, with a word in what it was done to."""

    by: Username = ""
    action: Annotated[str, StringConstraints(max_length=40)] = ""
    q: Annotated[str, StringConstraints(max_length=80)] = ""
    page: int = Field(default=1, ge=1, le=100_000)


def _log(caller: Caller, asked: LogIn) -> QuerySet[ActionLog]:
    rows = ActionLog.objects.select_related("by").filter(works=caller.works).order_by("-pk")
    if asked.by:
        rows = rows.filter(by__username=asked.by)
    if asked.action:
        rows = rows.filter(action=asked.action)
    if asked.q:
        rows = rows.filter(target__icontains=asked.q)
    return rows


def _pages(total: int, page: int) -> tuple[int, int]:
    """Return how many pages there are, and the one that is shown."""
    pages = max(1, -(-total // PAGE))
    return pages, min(page, pages)


@router.get("/w/{works}/log", response={200: LogOut, **REFUSALS})
def log(request: HttpRequest, works: str, asked: Query[LogIn]) -> LogOut:
    """Return a page of what was done in a plant, newest first; for administrators."""
    caller = caller_in(request, works)
    need_admin(caller, "The log of a plant")
    rows = _log(caller, asked)
    total = rows.count()
    pages, page = _pages(total, asked.page)
    kinds = ActionLog.objects.filter(works=caller.works).order_by("action")
    return LogOut(
        total=total,
        page=page,
        pages=pages,
        actions=list(kinds.values_list("action", flat=True).distinct()),
        lines=[_line(row, caller) for row in rows[(page - 1) * PAGE : page * PAGE]],
    )


def _line(row: ActionLog, caller: Caller) -> LogLineOut:
    return LogLineOut(
        by=str(row.by), at=caller.works.local(row.at), action=row.action, target=row.target
    )


@router.get("/w/{works}/log.csv", response=REFUSALS, openapi_extra=answers_file("text/csv"))
def log_csv(request: HttpRequest, works: str, asked: Query[LogIn]) -> HttpResponse:
    """Return what was done in a plant as CSV, newest first; for administrators."""
    caller = caller_in(request, works)
    need_admin(caller, "The log of a plant")
    rows = [_line(row, caller) for row in _log(caller, asked)[:MOST_LINES]]
    lines = [(one.at, one.by, one.action, one.target) for one in rows]
    data = as_csv([("at", "by", "action", "target"), *lines])
    return attachment(data, "text/csv", f"{caller.works.slug} log", "csv")


class SeenIn(Schema):
    """Which lines: of one person, or with a word in what was opened."""

    by: Username = ""
    q: Annotated[str, StringConstraints(max_length=80)] = ""
    page: int = Field(default=1, ge=1, le=100_000)


@router.get("/w/{works}/seen", response={200: SeenOut, **REFUSALS})
def seen(request: HttpRequest, works: str, asked: Query[SeenIn]) -> SeenOut:
    """Return a page of who opened what on which day, newest first; for administrators."""
    caller = caller_in(request, works)
    need_admin(caller, "The log of a plant")
    rows = Seen.objects.select_related("by").filter(works=caller.works).order_by("-on", "-pk")
    if asked.by:
        rows = rows.filter(by__username=asked.by)
    if asked.q:
        rows = rows.filter(Q(what__icontains=asked.q))
    total = rows.count()
    pages, page = _pages(total, asked.page)
    return SeenOut(
        total=total,
        page=page,
        pages=pages,
        lines=[
            SeenLineOut(by=str(row.by), on=f"{row.on:%Y-%m-%d}", what=row.what)
            for row in rows[(page - 1) * PAGE : page * PAGE]
        ],
    )
