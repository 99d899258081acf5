"""Begin a hunt, keep an answer, take the last one back, close it."""

from __future__ import annotations

from typing import Any

from django.utils import timezone

from api.problems import ProblemError
from evencoil.trouble import HuntStep, closed_verdict
from hunts.models import TroubleHunt
from jobs.models import JobMotor
from people.access import Caller
from people.actions import Action
from people.models import Role

__all__ = ["BeginHunt", "ChangeHunt", "CloseHunt"]

MOST_ANSWERS = 200


class BeginHunt(Action[TroubleHunt]):
    """Begin one with what people say of it."""

    name = "begin a hunt"

    def __init__(self, caller: Caller, link: JobMotor, said: dict[str, Any]) -> None:
        super().__init__(caller)
        self.link, self.said = link, said

    @property
    def target(self) -> str:
        """Return the job."""
        return str(self.link)

    def perform(self) -> TroubleHunt:
        """Give it a number and keep it."""
        last = TroubleHunt.objects.filter(link=self.link).order_by("-n").first()
        return TroubleHunt.objects.create(
            link=self.link, n=(last.n if last else 0) + 1, by=self.caller.user, **self.said
        )


class ChangeHunt(Action[TroubleHunt]):
    """Keep an answer, or take the last one back."""

    name = "answer in a hunt"

    def __init__(
        self, caller: Caller, row: TroubleHunt, rev: int, answer: dict[str, Any] | None
    ) -> None:
        super().__init__(caller)
        self.row, self.rev, self.answer = row, rev, answer

    @property
    def target(self) -> str:
        """Return the hunt."""
        return str(self.row)

    def perform(self) -> TroubleHunt:
        """Change it, if it is still as it was seen."""
        row = _still(self.row, self.rev)
        if self.answer is None:
            row.answers = row.answers[:-1]
        elif len(row.answers) >= MOST_ANSWERS:
            raise ProblemError(
                422,
                code="too_many",
                detail=f"{MOST_ANSWERS} readings are the most that a hunt keeps.",
                field="answers",
                hint="Close this hunt and begin another.",
            )
        else:
            row.answers = [*row.answers, {**self.answer, **self.caller.stamp}]
        row.rev += 1
        row.save()
        return row


class CloseHunt(Action[TroubleHunt]):
    """Close it with what was changed; whether that proves anything is judged by the core."""

    name = "close a hunt"
    least_role = Role.ELECTRICIAN

    def __init__(
        self, caller: Caller, row: TroubleHunt, rev: int, steps: list[dict[str, str]]
    ) -> None:
        super().__init__(caller)
        self.row, self.rev, self.steps = row, rev, steps

    @property
    def target(self) -> str:
        """Return the hunt."""
        return str(self.row)

    def perform(self) -> TroubleHunt:
        """Judge and close it; a closed one never changes."""
        row = _still(self.row, self.rev)
        judged = closed_verdict([HuntStep(**one) for one in self.steps])  # type: ignore[arg-type]  # checked words
        row.steps = self.steps
        row.is_proven, row.reason = judged.is_proven, judged.reason
        row.row, row.counts = judged.row, judged.counts
        row.closed_at, row.closed_by = timezone.now(), self.caller.user
        row.rev += 1
        row.save()
        return row


def _still(row: TroubleHunt, rev: int) -> TroubleHunt:
    """Return the row locked, if it is open and as it was seen.

    Raises
    ------
    ProblemError
        409 if it was changed or closed meanwhile.
    """
    now = TroubleHunt.objects.select_for_update().get(pk=row.pk)
    if now.closed_at is not None or now.rev != rev:
        raise ProblemError(
            409,
            code="changed",
            detail="Someone else changed or closed this hunt first.",
            field="rev",
            hint="Look at it again; nothing of yours was kept.",
        )
    return now
