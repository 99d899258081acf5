"""The two processes that serve the application: the web server and the worker."""

from __future__ import annotations

import subprocess
import sys
import time
from collections.abc import Callable, Iterable
from pathlib import Path
from typing import Any

__all__ = ["Watch", "end", "serve", "work"]

#: a process that lives less ended at once [s], and the longest wait for the next one [s]
AT_ONCE_S, MOST_WAIT_S = 5.0, 5.0
_HERE = Path(__file__).parent


def _tied(*command: str, **how: Any) -> subprocess.Popen[bytes]:
    """Start a process that ends with this one."""
    return subprocess.Popen(
        [sys.executable, str(_HERE / "tied.py"), sys.executable, *command], **how
    )


def serve(
    port: int, *, processes: int = 2, threads: int = 20, **how: Any
) -> subprocess.Popen[bytes]:
    """Start the application server on a loopback port; `how` goes to the process as it is."""
    return _tied(str(_HERE / "web.py"), str(port), str(processes), str(threads), **how)


def work(**how: Any) -> subprocess.Popen[bytes]:
    """Start the worker; Django's checks of the code itself are made by ``./check``."""
    return _tied(
        "server/manage.py",
        "worker",
        "--interval",
        "0.3",
        "-v",
        "0",
        "--skip-checks",
        **how,
    )


class Watch:
    """A process that is started again when it ends: later each time that it ended at once."""

    def __init__(self, name: str, start: Callable[[], subprocess.Popen[bytes]]) -> None:
        self.name = name
        self._start = start
        self.process = start()
        self._since = time.monotonic()
        self._at_once = 0
        self._again: float | None = None

    def look(self) -> None:
        """Start it again if it ended, at once or after a while; the others go on meanwhile."""
        if self.process.poll() is None:
            return
        now = time.monotonic()
        if self._again is None:
            lived = now - self._since
            self._at_once = self._at_once + 1 if lived < AT_ONCE_S else 0
            wait = min(MOST_WAIT_S, float(self._at_once))
            self._again = now + wait
            said = f"is started again in {wait:.0f} s" if wait else "is started again"
            print(f"even coil: {self.name} ended and {said}", file=sys.stderr, flush=True)
        if now >= self._again:
            self._since, self._again = now, None
            self.process = self._start()


def end(processes: Iterable[subprocess.Popen[bytes]]) -> None:
    """Stop processes together, by force if they do not."""
    processes = list(processes)
    for process in processes:
        if process.poll() is None:
            process.terminate()
    for process in processes:
        try:
            process.wait(15)
        except subprocess.TimeoutExpired:
            process.kill()
