"""An invitation taken up: what it lets into, and joining, with one's own account or a new one.

The link's secret stands behind the ``#`` of its address and is sent in bodies only: no server's
access log ever holds it.
"""

from __future__ import annotations

from typing import Any

from allauth.usersessions.models import UserSession
from django.contrib.auth import login
from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.db import IntegrityError, transaction
from django.http import HttpRequest
from django.utils import timezone
from ninja import Router
from ninja.security import APIKeyCookie

from api.problems import ProblemError
from api.rates import ByAddress
from api.schemas import REFUSALS, ProblemOut
from office.models import Invite
from office.schemas import JoinedOut, JoinIn, JoinLookIn, JoinLookOut
from people.access import Caller
from people.actions import Action
from people.models import Member, User
from people.tokens import hashed

__all__ = ["router"]


#: how often one address may try links: a secret cannot be guessed, a server can be kept busy
TRIES = ByAddress("30/m")
BACKEND = "allauth.account.auth_backends.AuthenticationBackend"


class _Anybody(APIKeyCookie):
    """Whoever opened the page of this server, signed in or not: the page's token is asked for."""

    param_name = "csrftoken"

    def authenticate(self, request: HttpRequest, key: str | None) -> Any:
        """Let everybody in whose request carries the page's token."""
        del request, key
        return True


router = Router(tags=["office"], auth=_Anybody(csrf=True), throttle=TRIES)


def _found(token: str) -> Invite:
    """Return an invitation that still lets in.

    Raises
    ------
    ProblemError
        404 for one that never was, was used, was taken back or has ended: which, nobody is told.
    """
    found = (
        Invite.objects.select_related("works", "by")
        .filter(
            token_hash=hashed(token),
            used_at=None,
            revoked_at=None,
            ends_at__gt=timezone.now(),
            works__erased_at=None,
        )
        .first()
    )
    if found is None:
        raise ProblemError(
            404,
            code="no_invite",
            detail="This link does not let anybody in: it was used, taken back, or has ended.",
            field="token",
            hint="Ask whoever sent it for a new one.",
        )
    return found


def _me(request: HttpRequest) -> User | None:
    return request.user if isinstance(request.user, User) else None


@router.post("/join/look", response={200: JoinLookOut, **REFUSALS, 429: ProblemOut})
def look(request: HttpRequest, body: JoinLookIn) -> JoinLookOut:
    """Return what a link lets into, for whoever has it."""
    found, me = _found(body.token), _me(request)
    return JoinLookOut(
        works=found.works.name,
        role=found.role,
        by="" if found.by is None else str(found.by),
        ends=found.works.local(found.ends_at),
        signed_in="" if me is None else str(me),
        is_member=me is not None and Member.objects.filter(user=me, works=found.works).exists(),
    )


class _Join(Action[None]):
    """Take up an invitation."""

    name = "join"

    def __init__(self, caller: Caller, invite: Invite) -> None:
        super().__init__(caller)
        self.invite = invite

    @property
    def target(self) -> str:
        """Return who joins, and as what."""
        return f"{self.caller.user.username} as {self.invite.role}"

    def perform(self) -> None:
        """Join, unless somebody else used the link at the same moment.

        Raises
        ------
        ProblemError
            404 if the link was used meanwhile.
        """
        used = Invite.objects.filter(pk=self.invite.pk, used_at=None, revoked_at=None).update(
            used_at=timezone.now(), used_by=self.caller.user
        )
        if not used:
            _found("")
        Member.objects.create(user=self.caller.user, works=self.invite.works, role=self.invite.role)


@router.post("/join", response={200: JoinedOut, **REFUSALS, 409: ProblemOut, 429: ProblemOut})
def join(request: HttpRequest, body: JoinIn) -> JoinedOut:
    """Join a plant: as whoever is signed in, else with a new account, signed in from here on."""
    invite, me = _found(body.token), _me(request)
    if me is not None:
        member = Member.objects.filter(user=me, works=invite.works).first()
        if member is not None:
            raise ProblemError(
                409,
                code="is_member",
                detail=f"{me} is a member of {invite.works.name} already, as {member.role}.",
                field="token",
                hint="The link stays good for somebody else; an administrator changes roles.",
            )
        _Join(Caller(user=me, works=invite.works, role=invite.role), invite).run()
        return JoinedOut(slug=invite.works.slug)
    with transaction.atomic():
        made = _account(body)
        _Join(Caller(user=made, works=invite.works, role=invite.role), invite).run()
    login(request, made, backend=BACKEND)
    # it stands among the sessions that its owner may end
    UserSession.objects.create_from_request(request)
    return JoinedOut(slug=invite.works.slug)


def _account(body: JoinIn) -> User:
    """Return a new account.

    Raises
    ------
    ProblemError
        422, naming the field: what is missing, a name that is taken, a password that is too easy.
    """
    for field, given in (
        ("username", body.username),
        ("display_name", body.display_name),
        ("password", body.password),
    ):
        if not given:
            raise _refused("missing", "This is needed for a new account.", field, "Fill it in.")
    username, password = str(body.username), str(body.password)
    made = User(
        username=username, display_name=str(body.display_name), email=body.email, is_active=True
    )
    try:
        validate_password(password, made)
    except ValidationError as weak:
        said = " ".join(str(text) for text in weak.messages)
        raise _refused("weak_password", said, "password", "Choose a longer one.") from weak
    taken = _refused(
        "taken",
        f"Somebody has the name {username} here.",
        "username",
        "Choose another; if it is you, sign in first and open the link again.",
    )
    if User.objects.filter(username__iexact=username).exists():
        raise taken
    made.set_password(password)
    try:
        with transaction.atomic():
            made.save()
    except IntegrityError as race:
        raise taken from race
    return made


def _refused(code: str, detail: str, field: str, hint: str) -> ProblemError:
    return ProblemError(422, code=code, detail=detail, field=field, hint=hint)
