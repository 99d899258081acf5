"""One's own account: name, mail address, tokens for programs."""

from __future__ import annotations

from datetime import timedelta
from typing import Annotated, cast

from django.http import HttpRequest
from django.utils import timezone
from ninja import Router
from pydantic import Field

from api.problems import ProblemError
from api.schemas import REFUSALS
from office.schemas import AccessTokenIn, AccessTokenMadeOut, MeIn, MeOut, token_out
from people.access import Caller, caller_in, not_found
from people.actions import Action
from people.models import AccessToken, User
from people.tokens import hashed, new_token

__all__ = ["TOKEN_MARK", "router"]

router = Router(tags=["office"])
#: before every token, so that one is known for what it is where it was pasted by mistake
TOKEN_MARK = "ecoil_"  # noqa: S105  # it opens nothing
MOST_TOKENS = 20
TokenNumber = Annotated[int, Field(ge=1, le=9_000_000_000_000_000)]


def _me(user: User) -> MeOut:
    rows = AccessToken.objects.select_related("user", "works").filter(
        user=user, works__erased_at=None, ends_at__gt=timezone.now()
    )
    return MeOut(
        username=user.username,
        display_name=user.display_name,
        email=user.email,
        has_password=user.has_usable_password(),
        tokens=[token_out(row) for row in rows.order_by("works__name", "name", "pk")],
    )


@router.get("/me", response={200: MeOut, **REFUSALS})
def me(request: HttpRequest) -> MeOut:
    """Return one's own account."""
    return _me(cast("User", request.user))


@router.patch("/me", response={200: MeOut, **REFUSALS})
def set_me(request: HttpRequest, body: MeIn) -> MeOut:
    """Change the name that others see, or the address that a lost password is mailed to."""
    user = cast("User", request.user)
    said = body.model_dump(exclude_none=True)
    for name, value in said.items():
        setattr(user, name, value)
    user.save(update_fields=list(said))
    return _me(user)


class MakeToken(Action[tuple[AccessToken, str]]):
    """Make a token for a program; the token itself is said only now."""

    name = "make token"

    def __init__(self, caller: Caller, asked: AccessTokenIn) -> None:
        super().__init__(caller)
        self.asked = asked

    @property
    def target(self) -> str:
        """Return its name, and whether it may change anything."""
        how = "reads and changes" if self.asked.is_writing else "reads"
        return f"{self.asked.name}, {how}, {self.asked.days} days"

    def perform(self) -> tuple[AccessToken, str]:
        """Make it.

        Raises
        ------
        ProblemError
            422 if the caller has too many here.
        """
        own = AccessToken.objects.filter(works=self.caller.works, user=self.caller.user)
        own.filter(ends_at__lte=timezone.now()).delete()
        if own.count() >= MOST_TOKENS:
            raise ProblemError(
                422,
                code="too_many_tokens",
                detail=f"You have {MOST_TOKENS} tokens here, as many as may be.",
                field="name",
                hint="End one that no program uses.",
            )
        token = TOKEN_MARK + new_token()
        made = AccessToken.objects.create(
            works=self.caller.works,
            user=self.caller.user,
            name=self.asked.name,
            token_hash=hashed(token),
            is_writing=self.asked.is_writing,
            ends_at=timezone.now() + timedelta(days=self.asked.days),
        )
        return made, token


class EndToken(Action[None]):
    """End a token: one's own, or as administrator anybody's of the plant."""

    name = "end token"

    def __init__(self, caller: Caller, n: int) -> None:
        super().__init__(caller)
        self.n, self._said = n, ""

    @property
    def target(self) -> str:
        """Return whose it was."""
        return self._said or str(self.n)

    def perform(self) -> None:
        """End it.

        Raises
        ------
        ProblemError
            404 if there is no such token that the caller may end.
        """
        found = AccessToken.objects.filter(works=self.caller.works, pk=self.n)
        if not self.caller.may("admin"):
            found = found.filter(user=self.caller.user)
        row = found.first()
        if row is None:
            raise not_found("token")
        self._said = f"{row.name} of {row.user.username}"
        row.delete()


@router.post("/w/{works}/tokens", response={200: AccessTokenMadeOut, **REFUSALS})
def make_token(request: HttpRequest, works: str, body: AccessTokenIn) -> AccessTokenMadeOut:
    """Make a token that lets a program in as oneself, in this plant only."""
    made, token = MakeToken(caller_in(request, works), body).run()
    return AccessTokenMadeOut(n=made.pk, token=token)


@router.delete("/w/{works}/tokens/{n}", response={200: MeOut, **REFUSALS})
def end_token(request: HttpRequest, works: str, n: TokenNumber) -> MeOut:
    """End a token at once."""
    EndToken(caller_in(request, works), n).run()
    return _me(cast("User", request.user))
