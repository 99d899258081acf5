"""Invite, revoke, change a role, remove, leave, hand the plant over."""

from __future__ import annotations

from datetime import timedelta
from typing import ClassVar

from django.utils import timezone

from api.problems import ProblemError
from office.models import Invite
from panel.locks import locks_on
from people.access import Caller, not_found
from people.actions import Action
from people.models import AccessToken, Member, Role, User, Works
from people.tokens import hashed, new_token

__all__ = [
    "MOST_OPEN",
    "HandOver",
    "Leave",
    "MakeInvite",
    "RemoveMember",
    "RevokeInvite",
    "SetRole",
    "need_no_lock",
]

#: links that may be open at once in a plant
MOST_OPEN = 200


class MakeInvite(Action[tuple[Invite, str]]):
    """Make a link that lets one person in, once; the link itself is said only now."""

    name = "invite"
    least_role = Role.ADMIN

    def __init__(self, caller: Caller, role: str, whom: str, days: int) -> None:
        super().__init__(caller)
        self.role, self.whom, self.days = role, whom, days

    @property
    def target(self) -> str:
        """Return whom, and as what."""
        return f"{self.whom or 'somebody'} as {self.role}, for {self.days} days"

    def perform(self) -> tuple[Invite, str]:
        """Make it.

        Raises
        ------
        ProblemError
            422 if too many are open.
        """
        works = Works.objects.select_for_update().get(pk=self.caller.works.pk)
        now = timezone.now()
        open_ = Invite.objects.filter(
            works=works, used_at=None, revoked_at=None, ends_at__gt=now
        ).count()
        if open_ >= MOST_OPEN:
            raise ProblemError(
                422,
                code="too_many_invites",
                detail=f"{open_} invitations are open; {MOST_OPEN} may be.",
                field="invites",
                hint="Take back those that nobody will use.",
            )
        token = new_token()
        made = Invite.objects.create(
            works=works,
            token_hash=hashed(token),
            role=self.role,
            whom=self.whom,
            by=self.caller.user,
            ends_at=now + timedelta(days=self.days),
        )
        return made, token


class RevokeInvite(Action[Invite]):
    """Take an open invitation back: its link lets nobody in any more."""

    name = "take back an invitation"
    least_role = Role.ADMIN

    def __init__(self, caller: Caller, n: int) -> None:
        super().__init__(caller)
        self.n = n
        self._whom = ""

    @property
    def target(self) -> str:
        """Return whom it was for."""
        return self._whom or str(self.n)

    def perform(self) -> Invite:
        """Take it back.

        Raises
        ------
        ProblemError
            404 if there is no such open one.
        """
        found = (
            Invite.objects.select_for_update()
            .filter(works=self.caller.works, pk=self.n, used_at=None, revoked_at=None)
            .first()
        )
        if found is None:
            raise not_found("invitation")
        self._whom = f"{found.whom or 'somebody'} as {found.role}"
        found.revoked_at = timezone.now()
        found.save(update_fields=["revoked_at"])
        return found


class _OfMember(Action[None]):
    """Something done to a member of the plant."""

    least_role: ClassVar[str] = Role.ADMIN

    def __init__(self, caller: Caller, username: str) -> None:
        super().__init__(caller)
        self.username = username

    @property
    def target(self) -> str:
        """Return who it is about."""
        return self.username

    def member(self) -> Member:
        """Return the member, no one else changing members of this plant meanwhile.

        Raises
        ------
        ProblemError
            404 if there is no such member.
        """
        Works.objects.select_for_update().get(pk=self.caller.works.pk)
        found = (
            Member.objects.select_related("user")
            .filter(works=self.caller.works, user__username=self.username)
            .first()
        )
        if found is None:
            raise not_found("person")
        return found

    def need_other_admin(self, member: Member) -> None:
        """Refuse what would leave the plant without an administrator.

        Raises
        ------
        ProblemError
            409 if this is the only one.
        """
        others = Member.objects.filter(works=self.caller.works, role=Role.ADMIN)
        if member.role == Role.ADMIN and not others.exclude(pk=member.pk).exists():
            raise ProblemError(
                409,
                code="last_admin",
                detail=f"{member.user} is the only administrator of {self.caller.works.name}.",
                field="role",
                hint="Hand the plant over to somebody first.",
            )


def need_no_lock(works: Works, user: User) -> None:
    """Refuse to let a person go whose lock is on.

    Parameters
    ----------
    works : Works
        The plant.
    user : User
        Who goes.

    Raises
    ------
    ProblemError
        409, naming motor and lock.
    """
    on = locks_on(works, user)
    if on:
        said = ", ".join(f"{one.motor_tag} lock {one.lock_no or '?'}" for one in on[:5])
        raise ProblemError(
            409,
            code="lock_on",
            detail=f"By the record {user} has a lock on: {said}.",
            field="lock",
            hint=(
                "Its owner takes it off at the panel, or a reviewer removes it by procedure there,"
                " with a witness. Then try again."
            ),
        )


def _let_go(works: Works, user: User) -> None:
    """Close what a person who left could still open: their tokens, the links they made."""
    AccessToken.objects.filter(works=works, user=user).delete()
    Invite.objects.filter(works=works, by=user, used_at=None, revoked_at=None).update(
        revoked_at=timezone.now()
    )
    Member.objects.filter(works=works, user=user).delete()


class SetRole(_OfMember):
    """Give a member another role; what they signed before stays theirs."""

    name = "set role"

    def __init__(self, caller: Caller, username: str, role: str) -> None:
        super().__init__(caller, username)
        self.role = role

    @property
    def target(self) -> str:
        """Return who, and their new role."""
        return f"{self.username}: {self.role}"

    def perform(self) -> None:
        """Give it.

        Raises
        ------
        ProblemError
            404 if there is no such member, 409 if nobody would administer the plant.
        """
        member = self.member()
        if self.role != Role.ADMIN:
            self.need_other_admin(member)
        member.role = self.role
        member.save(update_fields=["role"])


class RemoveMember(_OfMember):
    """Take a member out of the plant; what they did stays, in their name."""

    name = "remove member"

    def perform(self) -> None:
        """Take them out.

        Raises
        ------
        ProblemError
            404 if there is no such member; 409 if it is the only administrator, or one of their
            locks is on.
        """
        member = self.member()
        self.need_other_admin(member)
        need_no_lock(self.caller.works, member.user)
        _let_go(self.caller.works, member.user)


class Leave(RemoveMember):
    """Leave a plant oneself: what holds for taking somebody out holds for it."""

    name = "leave"
    least_role: ClassVar[str] = Role.APPRENTICE

    def __init__(self, caller: Caller) -> None:
        super().__init__(caller, caller.user.username)


class HandOver(_OfMember):
    """Make another member the administrator, and take another role oneself, in one step."""

    name = "hand over"

    def __init__(self, caller: Caller, username: str, own_role: str) -> None:
        super().__init__(caller, username)
        self.own_role = own_role

    @property
    def target(self) -> str:
        """Return to whom, and what the caller is afterwards."""
        return f"to {self.username}, then {self.own_role}"

    def perform(self) -> None:
        """Hand it over.

        Raises
        ------
        ProblemError
            404 if there is no such member, 422 if it is the caller.
        """
        other = self.member()
        if other.user_id == self.caller.user.pk:
            raise ProblemError(
                422,
                code="same_person",
                detail="That is you.",
                field="username",
                hint="Choose another member, or set your own role.",
            )
        other.role = Role.ADMIN
        other.save(update_fields=["role"])
        Member.objects.filter(works=self.caller.works, user=self.caller.user).update(
            role=self.own_role
        )
