"""The frame of every mutation: permission, transaction, log line."""

from __future__ import annotations

import logging
from abc import ABC, abstractmethod
from typing import ClassVar, Generic, TypeVar

from django.db import IntegrityError, transaction

from api.problems import ProblemError
from people.access import Caller
from people.models import ActionLog, Role

__all__ = ["Action"]

Result = TypeVar("Result")
_log = logging.getLogger("evencoil.actions")
#: how often an action that met another one looks again
AT_ONCE = 3


class Action(ABC, Generic[Result]):
    """One thing that a person does; a subclass says what, and who may."""

    name: str
    least_role: ClassVar[str] = Role.APPRENTICE

    def __init__(self, caller: Caller) -> None:
        self.caller = caller

    @property
    @abstractmethod
    def target(self) -> str:
        """Return what it is done to, for the log."""

    @abstractmethod
    def perform(self) -> Result:
        """Do it; the caller's role was checked, a transaction is open."""

    def run(self) -> Result:
        """Check the role, do it and write the log line, all or nothing.

        Raises
        ------
        ProblemError
            403 if the caller's role is too low, or what `perform` refuses.
        """
        if not self.caller.may(self.least_role):
            raise ProblemError(
                403,
                code="not_allowed",
                detail=f"Your role is {self.caller.role}; this needs {self.least_role} or above.",
                field="role",
                hint=f"Ask an {self.least_role} of {self.caller.works.name}.",
            )
        result = self._done()
        _log.info("%r %s %r", self.caller.user.username, self.name, self.target)
        return result

    def _done(self) -> Result:
        """Do it in a transaction; when somebody did the same at the same moment, look again.

        Raises
        ------
        ProblemError
            409 if it still meets what somebody else did.
        """
        for left in range(AT_ONCE, -1, -1):
            try:
                with transaction.atomic():
                    result = self.perform()
                    ActionLog.objects.create(
                        works=self.caller.works,
                        by=self.caller.user,
                        action=self.name,
                        target=self.target[:200],
                    )
            except IntegrityError as met:
                if not left:
                    raise ProblemError(
                        409,
                        code="conflict",
                        detail=f"Somebody else did the same at the same moment: {self.name}.",
                        field="",
                        hint="Look at what is there now, and try again.",
                    ) from met
            else:
                return result
        raise AssertionError("unreachable")
