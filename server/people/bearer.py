"""Programs let in by a token: in one plant, to read, or to read and change; never to sign."""

from __future__ import annotations

import re
from typing import Any

from django.http import HttpRequest
from django.utils import timezone
from ninja.errors import AuthenticationError
from ninja.security import HttpBearer

from api.problems import ProblemError
from people.models import AccessToken
from people.tokens import live_token

__all__ = ["Bearer"]

#: what stays with people in their own name: who belongs where, tokens, the panel, signatures
_PEOPLE_ONLY = re.compile(
    r"^/api/w/[^/]+/(invites|people|tokens|leave|hand-over|takeouts|erase|log|seen)\b"
)
_AT_PANEL = re.compile(r"^/api/w/[^/]+/m/[^/]+/j/\d+/panel/")
_READS = ("GET", "HEAD")


class Bearer(HttpBearer):
    """The header ``Authorization: Bearer <token>``."""

    def authenticate(self, request: HttpRequest, token: str) -> Any:
        """Return whose token it is.

        Raises
        ------
        AuthenticationError
            If it is none, has ended, or is used outside its plant.
        ProblemError
            403 for what a program may not do, or this one may not.
        """
        row = live_token(token)
        if row is None or not request.path_info.startswith(f"/api/w/{row.works.slug}/"):
            raise AuthenticationError
        if _PEOPLE_ONLY.match(request.path_info):
            raise _refused("This stays with people, in their own name: no token opens it.")
        if request.method not in _READS:
            if _AT_PANEL.match(request.path_info):
                raise _refused("What is done at a panel is said by a person, never by a program.")
            if not row.is_writing:
                raise _refused(f"The token {row.name} may only read, with GET.")
        today = timezone.now().date()
        if row.used_on != today:
            AccessToken.objects.filter(pk=row.pk).update(used_on=today)
        request.user = row.user
        return row.user


def _refused(detail: str) -> ProblemError:
    return ProblemError(
        403,
        code="not_allowed",
        detail=detail,
        field="token",
        hint="Sign in to do this, or make a token that may.",
    )
