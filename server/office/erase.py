"""A plant erased: gone for everybody at once, its rows by a worker, a thousand at a time."""

from __future__ import annotations

from typing import ClassVar

from django.core.cache import caches
from django.db import transaction
from django.db.models import ProtectedError
from django.utils import timezone
from django_tasks import task

from api.problems import ProblemError
from office.models import Erasure
from office.tables import TABLES
from panel.locks import locks_on
from people.access import Caller
from people.actions import Action
from people.models import Member, Role, User, Works

__all__ = ["EraseWorks", "erase_rows"]

_AT_ONCE = 1000


class EraseWorks(Action[Erasure]):
    """Erase a plant: whoever asks says its name, and their password just before."""

    name = "erase plant"
    least_role: ClassVar[str] = Role.ADMIN

    def __init__(self, caller: Caller, name: str, *, is_sure: bool) -> None:
        super().__init__(caller)
        self.typed, self.is_sure = name, is_sure

    @property
    def target(self) -> str:
        """Return the plant."""
        return self.caller.works.name

    def perform(self) -> Erasure:
        """Close it for everybody and ask a worker to erase it.

        Raises
        ------
        ProblemError
            403 without the password just before, 422 for another name, 409 while a lock is on.
        """
        works = Works.objects.select_for_update().get(pk=self.caller.works.pk)
        if not self.is_sure:
            raise ProblemError(
                403,
                code="password",
                detail="To erase a plant, give your password just before.",
                field="password",
                hint="Give your password and ask again within two minutes.",
            )
        if self.typed.strip() != works.name:
            raise ProblemError(
                422,
                code="other_name",
                detail=f"The name does not match: this plant is called {works.name}.",
                field="name",
                hint="Write the name as it stands here, capitals too.",
            )
        on = locks_on(works)
        if on:
            said = ", ".join(f"{one.motor_tag} ({one.by})" for one in on[:5])
            raise ProblemError(
                409,
                code="lock_on",
                detail=f"By the record {len(on)} locks are on: {said}.",
                field="lock",
                hint="People may be at these panels. Take the locks off first.",
            )
        works.erased_at = timezone.now()
        # its address is free again
        works.slug = f"erased-{works.pk}"
        works.save(update_fields=["erased_at", "slug"])
        made, _ = Erasure.objects.get_or_create(works_pk=works.pk)
        erase_rows.enqueue(works.pk)
        return made


@task(priority=-10)
def erase_rows(works_pk: int) -> int:
    """Erase every row of a plant, and the accounts that belong nowhere any more.

    Parameters
    ----------
    works_pk : int
        Key of a plant whose erasing was asked for; begun before or not, it is the same.

    Returns
    -------
    int
        How many rows went now.
    """
    erasure = Erasure.objects.filter(works_pk=works_pk, done_at=None).first()
    if erasure is None:
        return 0
    people = list(Member.objects.filter(works=works_pk).values_list("user", flat=True))
    gone = 0
    for table in TABLES:
        rows = table.rows(works_pk)
        while keys := list(rows.values_list("pk", flat=True)[:_AT_ONCE]):
            with transaction.atomic():
                # tables below point at nothing above: a row takes nothing else with it
                rows.filter(pk__in=keys).delete()
            gone += len(keys)
        if table.model is Member:
            gone += _accounts(people)
    # answers are found by what decides them, not by their plant: all of them are let go
    caches["answers"].clear()
    erasure.done_at, erasure.rows = timezone.now(), gone
    erasure.save(update_fields=["done_at", "rows"])
    return gone


def _accounts(people: list[int]) -> int:
    """Erase the accounts that belong to no plant; one whose name stands in another's stays."""
    gone = 0
    for user in User.objects.filter(pk__in=people, memberships=None, is_staff=False):
        try:
            with transaction.atomic():
                user.delete()
            gone += 1
        except ProtectedError:
            continue
    return gone
