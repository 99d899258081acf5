"""Circuits made ready for rehearsal, kept for a while: the next act is then quick.

A cache of the process, keyed by all that was given; nothing depends on it.
"""

from __future__ import annotations

import hashlib
from collections import OrderedDict
from collections.abc import Iterator
from contextlib import contextmanager
from threading import Lock

from evencoil.base import Message, MissingError
from evencoil.rehearsal import Stage
from jobs.given import GivenIn
from people.models import Works

__all__ = ["lent_stage"]

_MOST = 32
_kept: OrderedDict[str, Stage] = OrderedDict()
_lock = Lock()


@contextmanager
def lent_stage(given: GivenIn, works: Works) -> Iterator[Stage]:
    """Lend the drawn starter of what is given, ready to be played.

    A stage holds the state of one run at a time, so it is out of the cache
    while it is lent: threads never share one.

    Raises
    ------
    CoreError
        If no starter is chosen, or it cannot be drawn.
    """
    body = f"{works.pk} {works.edition} {works.school} {given.model_dump_json()}"
    key = hashlib.sha256(body.encode()).hexdigest()
    with _lock:
        found = _kept.pop(key, None)
    if found is None:
        _, room = given.worked(works)
        if room.circuit is None:
            raise room.refusal or MissingError(
                Message("starter.none"), field="starter.recipe", hint=Message("starter.none.hint")
            )
        found = Stage(room.circuit)
    yield found
    with _lock:
        _kept[key] = found
        while len(_kept) > _MOST:
            _kept.popitem(last=False)
