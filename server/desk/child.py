"""The process that answers heavy questions one by one, behind everything that serves people.

    python -m desk.child FD

It reads questions from the one line it is started with and writes answers there. It ends when
that line does, or when whoever started it is gone, however far it is.
"""

from __future__ import annotations

import contextlib
import importlib
import logging
import os
import resource
import sys
import threading
import time
from multiprocessing.connection import Connection
from typing import Any

import django
from django.db import close_old_connections

from api.problems import ProblemError
from evencoil.base import CoreError

__all__ = ["HELD", "NICE", "Reply", "answered", "stand_back"]

#: below everything that serves people; memory that one process may hold [byte]
NICE, HELD = 15, 3 * 1024**3
#: how often it looks whether whoever started it is there [s], and the least between two words
LOOKS_S, TELLS_S = 1.0, 0.2
#: what is there before the first question comes
FIRST = ("answers.routers.checks", "paper.pack", "weasyprint")
#: status and body of an answer; 0 where the process itself is at fault, with its words
Reply = tuple[int, Any]
_log = logging.getLogger("evencoil.desk")


class StoppedError(Exception):
    """Whoever asks does not want the answer any more."""


def answered(work: Any, args: tuple[Any, ...], tell: Any) -> Reply:
    """Do one piece of work and return its answer, or its refusal in the one problem shape."""
    try:
        return 200, work(*args, tell)
    except ProblemError as refused:
        return refused.status, refused.body
    except CoreError as refused:
        return 422, dict(refused.problem())
    except MemoryError:
        return 422, {
            "code": "too_large",
            "detail": "This question needs more memory than one question may have.",
            "field": "",
            "hint": "Take devices or wires away and ask again.",
        }


def _tied_to(parent: int) -> None:
    """End this process once another is its parent."""
    while os.getppid() == parent:
        time.sleep(LOOKS_S)
    os._exit(0)


def _reply(work: Any, args: tuple[Any, ...], tell: Any) -> Reply:
    # a database that was started again is met by a fresh connection
    close_old_connections()
    try:
        return answered(work, args, tell)
    except StoppedError:
        return 0, "stopped"
    except (EOFError, BrokenPipeError):
        raise
    except Exception as fault:  # noqa: BLE001 - whatever it is, it is told to whoever asked
        _log.exception("a question failed")
        return 0, repr(fault)


def stand_back() -> None:
    """Leave one processor to what serves people, and what is left of the others first to them.

    A lower priority alone is not enough: with every processor busy, answers came half as late
    again (`benchmarks/load.py`).
    """
    os.nice(NICE)
    first, *others = sorted(os.sched_getaffinity(0))
    os.sched_setaffinity(0, others or [first])


def main(line: Connection) -> None:
    """Answer until the line ends."""
    stand_back()
    resource.setrlimit(resource.RLIMIT_AS, (HELD, HELD))
    threading.Thread(target=_tied_to, args=(os.getppid(),), daemon=True).start()
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "config.settings")
    django.setup()
    # what a first question would wait for
    for name in FIRST:
        importlib.import_module(name)

    last = 0.0

    def tell(done: int, of: int) -> None:
        nonlocal last
        if line.poll():
            line.recv()
            raise StoppedError
        now = time.monotonic()
        if now - last >= TELLS_S:
            last = now
            line.send((None, (done, of)))

    # the line ends with whoever asks
    with contextlib.suppress(EOFError, BrokenPipeError):
        while True:
            asked = line.recv()
            if asked is None:
                continue  # told to stop when it was done already
            work, args = asked
            line.send(_reply(work, args, tell))


if __name__ == "__main__":
    main(Connection(int(sys.argv[1])))
