"""Who may sign: an electrician or a reviewer, in their own name.

What each role may do is told in ``docs/roles.md``.
"""

from __future__ import annotations

from api.problems import ProblemError
from people.access import Caller
from people.models import Role

__all__ = ["SIGNERS", "need_signer"]

#: an admin manages people and settings, and opens no act or signature by that role
SIGNERS = (Role.ELECTRICIAN, Role.REVIEWER)


def need_signer(caller: Caller, what: str, field: str = "role") -> None:
    """Refuse what only a person who answers for it may do.

    Parameters
    ----------
    caller : Caller
        Who asks.
    what : str
        What is to be signed, as the subject of the sentence.
    field : str
        Where it was entered.

    Raises
    ------
    ProblemError
        403 for an apprentice or an admin.
    """
    if caller.role in SIGNERS:
        return
    raise ProblemError(
        403,
        code="not_allowed",
        detail=f"{what} needs an electrician or a reviewer; your role is {caller.role}.",
        field=field,
        hint=f"Ask an electrician or a reviewer of {caller.works.name} to do it in their own name.",
    )
