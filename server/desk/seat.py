"""One process that answers questions: started when it is needed, ended when it takes too long."""

from __future__ import annotations

import contextlib
import os
import subprocess
import sys
import time
from collections.abc import Callable
from multiprocessing import Pipe
from multiprocessing.connection import Connection
from pathlib import Path
from typing import Any

from api.problems import ProblemError
from desk.child import Reply

__all__ = ["GoneError", "Seat"]

SERVER = Path(__file__).resolve().parents[1]
#: how long one question may be calculated, how often whoever asked is looked for [s]
MOST_S, LOOKS_S = 90.0, 0.2
#: a process that was told to stop has so long to do so [s]
STOPS_S = 2.0
#: a process that ends under a question is started again so often
TRIES = 2
#: seats share the processors among themselves
_ONE_THREAD = {"OPENBLAS_NUM_THREADS": "1", "OMP_NUM_THREADS": "1"}


class GoneError(Exception):
    """Whoever asked went away: nothing is calculated for them any more."""


class Seat:
    """A process of `desk.child` and the line to it; one question at a time."""

    def __init__(self) -> None:
        self._process: subprocess.Popen[bytes] | None = None
        self._line: Connection | None = None

    def start(self) -> Connection:
        """Return the line to the process, which is started if there is none."""
        if self._process is not None and self._process.poll() is None and self._line is not None:
            return self._line
        self.end()
        own, theirs = Pipe()
        with theirs:
            self._process = subprocess.Popen(  # noqa: S603 - a program of this project
                [sys.executable, "-m", "desk.child", str(theirs.fileno())],
                cwd=SERVER,
                pass_fds=[theirs.fileno()],
                stdin=subprocess.DEVNULL,
                env={**os.environ, "PYTHONPATH": os.pathsep.join(sys.path), **_ONE_THREAD},
            )
        self._line = own
        return own

    def end(self) -> None:
        """End the process, whatever it does."""
        if self._line is not None:
            self._line.close()
        if self._process is not None:
            self._process.kill()
            self._process.wait()
        self._process = self._line = None

    def ask(
        self,
        work: Callable[..., Any],
        args: tuple[Any, ...],
        is_gone: Callable[[], bool],
        tell: Callable[[int, int], None],
    ) -> Reply:
        """Return the answer of a piece of work.

        Raises
        ------
        GoneError
            If whoever asked went away meanwhile; the process is ended.
        ProblemError
            422 if it takes longer than a question may; 503 if the process does not stay up.
        """
        for _ in range(TRIES):
            line = self.start()
            with contextlib.suppress(EOFError, OSError):
                line.send((work, args))
                return self._reply(line, is_gone, tell)
            self.end()
        raise ProblemError(
            503,
            code="failed",
            detail="The calculation ended before its time.",
            field="",
            hint="Try again; if it happens again, tell an administrator.",
        )

    def _reply(
        self, line: Connection, is_gone: Callable[[], bool], tell: Callable[[int, int], None]
    ) -> Reply:
        since = time.monotonic()
        while True:
            while not line.poll(LOOKS_S):
                if is_gone():
                    self._stop(line)
                    raise GoneError
                if time.monotonic() - since > MOST_S:
                    self.end()
                    raise ProblemError(
                        422,
                        code="too_long",
                        detail=f"This takes more than {MOST_S:.0f} s of calculation, so it was"
                        " stopped.",
                        field="",
                        hint="Take devices or wires away and ask again.",
                    )
            status, body = line.recv()
            if status is not None:
                return int(status), body
            tell(*body)

    def _stop(self, line: Connection) -> None:
        """Tell the process to stop; one that does not look up in time is ended."""
        until = time.monotonic() + STOPS_S
        with contextlib.suppress(EOFError, OSError):
            line.send(None)
            while (left := until - time.monotonic()) > 0 and line.poll(left):
                if line.recv()[0] is not None:
                    return
        self.end()
