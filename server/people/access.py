"""Who may see and do what: every look-up goes through the caller's works.

A works that the caller does not belong to does not exist for them: 404, the
same as for one that was never there.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import cast

from django.http import HttpRequest
from django.utils import timezone

from api.problems import ProblemError
from evencoil.base import LineNames, Names, TradeTerms, speak
from people.models import Member, Role, User, Works

__all__ = ["RANK", "Caller", "caller_in", "caller_of", "not_found"]

RANK = {role: place for place, role in enumerate(Role.values)}


@dataclass(frozen=True, slots=True)
class Caller:
    """A signed-in person in one works."""

    user: User
    works: Works
    role: str

    @property
    def stamp(self) -> dict[str, str]:
        """Return who does something now, and when, as a record carries it."""
        return {"by": str(self.user), "at": f"{timezone.now():%Y-%m-%dT%H:%M:%SZ}"}

    def may(self, least: str) -> bool:
        """Tell whether the caller's role is at least this one."""
        return RANK[self.role] >= RANK[least]


def not_found(what: str) -> ProblemError:
    """Return the one answer for what is not there or not the caller's."""
    return ProblemError(
        404,
        code="not_found",
        detail=f"There is no such {what} here.",
        field=what,
        hint="Go back to Motors and choose from the list.",
    )


def caller_in(request: HttpRequest, works: str) -> Caller:
    """Return the caller in a plant; the answer is said in the plant's names from here on.

    Raises
    ------
    ProblemError
        404 if the plant does not exist or the caller does not belong to it.
    """
    if request.user.pk is None:
        raise not_found("plant")
    member = (
        Member.objects.select_related("works")
        .filter(works__slug=works, works__erased_at=None, user__pk=request.user.pk)
        .first()
    )
    if member is None:
        raise not_found("plant")
    speak(
        Names(
            cast("TradeTerms", member.works.trade_terms), cast("LineNames", member.works.line_names)
        )
    )
    # who is signed in was read with the session
    caller = Caller(user=request.user, works=member.works, role=member.role)
    request.caller = caller  # type: ignore[attr-defined]  # who saw what is noted after the answer
    return caller


def caller_of(user: User, works: Works) -> Caller:
    """Return a person in a plant, for work that goes on without a request of theirs.

    Parameters
    ----------
    user : User
        Who asked for it.
    works : Works
        Where.

    Raises
    ------
    ProblemError
        404 if they do not belong to it any more.
    """
    member = Member.objects.filter(user=user, works=works, works__erased_at=None).first()
    if member is None:
        raise not_found("works")
    return Caller(user=user, works=works, role=member.role)
