"""Notes after an answer who opened what, once a day: motors, and files of the whole plant."""

from __future__ import annotations

import re
from collections import OrderedDict
from collections.abc import Callable
from threading import Lock

from django.db import DatabaseError
from django.http import HttpRequest, HttpResponseBase
from django.utils import timezone

from office.models import Seen
from people.access import Caller

__all__ = ["SeenMiddleware", "what_is_seen"]

#: what was noted already, so that it is not asked of the database again; a lost one costs a query
_NOTED: OrderedDict[tuple[int, int, str, str], None] = OrderedDict()
_MOST = 20_000
_LOCK = Lock()
_FILE = re.compile(r"\.(csv|xlsx|json|pdf|zip)$")


def what_is_seen(path: str, tag: str) -> str:
    """Return what an address shows, as the log calls it; empty for what is not noted.

    Parameters
    ----------
    path : str
        Behind the plant, as ``m/IC-2/j/1/panel`` or ``motors.csv``.
    tag : str
        Of the motor, if it is one's.
    """
    if tag:
        return f"motor {tag}"[:80]
    return f"file {path}"[:80] if _FILE.search(path) else ""


class SeenMiddleware:
    """Note who opened what; a note that cannot be kept keeps no answer back."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponseBase]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        """Answer, then note."""
        response = self.get_response(request)
        caller = getattr(request, "caller", None)
        if isinstance(caller, Caller) and request.method == "GET" and response.status_code < 400:
            found = request.resolver_match.kwargs if request.resolver_match else {}
            behind = request.path_info.partition(f"/w/{caller.works.slug}/")[2]
            what = what_is_seen(behind, str(found.get("tag", "")))
            if what:
                _note(caller, what)
        return response


def _note(caller: Caller, what: str) -> None:
    on = timezone.now().date()
    key = (caller.works.pk, caller.user.pk, what, on.isoformat())
    with _LOCK:
        if key in _NOTED:
            return
        _NOTED[key] = None
        while len(_NOTED) > _MOST:
            _NOTED.popitem(last=False)
    try:
        Seen.objects.bulk_create(
            [Seen(works=caller.works, by=caller.user, what=what, on=on)], ignore_conflicts=True
        )
    except DatabaseError:
        with _LOCK:
            _NOTED.pop(key, None)
