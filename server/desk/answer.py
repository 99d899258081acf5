"""A heavy question of a request: kept, waited for in turn, told as it goes on, given up in time.

What a question is answered with depends on what is given, the plant rules and the core alone, so
it is kept by these for every process that serves. A question whose asker closed the connection is
given up: leaving a screen, or its stop button, ends the calculation.
"""

from __future__ import annotations

import logging
import re
import time
from collections.abc import Callable
from typing import Any

from django.conf import settings
from django.core.cache import cache
from django.http import HttpRequest, HttpResponse
from pydantic import BaseModel

from api.answers import JSON
from api.kept import keep, kept, key_for
from api.problems import problem
from desk.child import Reply
from desk.desk import Desk
from desk.seat import GoneError
from evencoil.base import Names, names_of, speaking
from people.access import Caller
from plant.profile import rules_of

__all__ = ["NAME", "Tell", "answer", "desk", "in_turn", "nobody_waits", "progress"]

#: told how far a calculation is, and of how much
Tell = Callable[[int, int], None]
#: of this serving process
desk = Desk(settings.DESK_SEATS)
#: what a question may be called by whoever asks it
NAME = re.compile("[0-9A-Za-z-]{1,64}")
#: how long what was told of a question is of use, and the least time between two words [s]
_TOLD_S, _TELLS_S = 30, 0.9
_log = logging.getLogger("evencoil.desk")


def _said(names: Names, work: Callable[..., Any], args: tuple[Any, ...], tell: Tell) -> Any:
    """Do a piece of work in the names of its plant."""
    with speaking(names):
        return work(*args, tell)


def _place(caller: Caller, name: str) -> str:
    return f"question.{caller.user.pk}.{name}"


def progress(caller: Caller, name: str) -> dict[str, Any]:
    """Return what was told last of a question of this person, by the name they gave it."""
    found = cache.get(_place(caller, name))
    return found if isinstance(found, dict) else {"state": "unknown", "done": 0, "of": 0}


def _teller(request: HttpRequest, caller: Caller) -> Callable[[str, int, int], None]:
    """Return what tells whoever asks for it how far this question is."""
    said = request.headers.get("X-Question", "")
    name = said if NAME.fullmatch(said) else ""
    last = time.monotonic()

    def tell(state: str, done: int, of: int) -> None:
        nonlocal last
        now = time.monotonic()
        # a quick answer is told nothing of
        if name and now - last >= _TELLS_S:
            last = now
            cache.set(_place(caller, name), {"state": state, "done": done, "of": of}, _TOLD_S)

    return tell


def in_turn(request: HttpRequest, caller: Caller, work: Callable[..., Any], *args: Any) -> Reply:
    """Return status and body of a piece of work, in its turn.

    Raises
    ------
    ProblemError
        429, 422 or 503, as `Desk.ask` says.
    GoneError
        If whoever asked closed the connection.
    """
    status, body = desk.ask(
        _said,
        (names_of(), work, args),
        person=caller.user.pk,
        plant=caller.works.pk,
        is_gone=request.META.get("waitress.client_disconnected", lambda: False),
        tell=_teller(request, caller),
    )
    if not status:
        raise RuntimeError(f"{work.__qualname__}: {body}")
    return status, body


def nobody_waits() -> HttpResponse:
    """Return what is answered on a connection that was closed: no one reads it."""
    return problem(
        499, {"code": "gone", "detail": "Nobody waits for this.", "field": "", "hint": ""}
    )


def answer(
    request: HttpRequest,
    caller: Caller,
    work: Callable[..., bytes],
    *args: Any,
    decided_by: BaseModel | None = None,
) -> HttpResponse:
    """Return the answer of a heavy question, or its refusal.

    Parameters
    ----------
    request : HttpRequest
        Its header ``X-Question`` names the question, for whoever asks how far it is.
    caller : Caller
        Whose question it is.
    work : callable
        ``work(*args, tell)``, a function of a module; returns the answer as JSON.
    args
        What it is given.
    decided_by : BaseModel, optional
        What decides the answer together with work, plant rules and core: it is kept by these.
    """
    key = ""
    if decided_by is not None:
        name = f"{work.__module__}.{work.__qualname__}"
        key = key_for(name, rules_of(caller.works), decided_by.model_dump_json())
        known = kept(key)
        if known is not None:
            return HttpResponse(known, content_type=JSON)
    try:
        status, body = in_turn(request, caller, work, *args)
    except GoneError:
        _log.info("%s: given up, nobody waits for it", work.__qualname__)
        raise
    if status != 200:
        return problem(status, body)
    if key:
        keep(key, body)
    return HttpResponse(body, content_type=JSON)
