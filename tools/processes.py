"""The two processes that serve the application: the web server and the worker."""

from __future__ import annotations

import subprocess
import sys
import time
from collections.abc import Callable, Iterable
from pathlib import Path
from typing import Any

__all__ = ["Watch", "end", "serve", "work"]

#: a process that lives less ended at once [s], and how often in a row it may
AT_ONCE_S, MOST_AT_ONCE = 5.0, 5
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
    """A process that is started again when it ends, unless it ends at once several times."""

    def __init__(self, name: str, start: Callable[[], subprocess.Popen[bytes]]) -> None:
        self.name = name
        self._start = start
        self.process = start()
        self._since = time.monotonic()
        self._at_once = 0

    def look(self) -> bool:
        """Start it again if it ended; False once it does not stay up."""
        if self.process.poll() is None:
            return True
        lived = time.monotonic() - self._since
        self._at_once = self._at_once + 1 if lived < AT_ONCE_S else 0
        if self._at_once > MOST_AT_ONCE:
            print(f"even coil: {self.name} does not stay up", file=sys.stderr, flush=True)
            return False
        print(f"even coil: {self.name} ended and is started again", file=sys.stderr, flush=True)
        time.sleep(min(self._at_once, 5))
        self._since = time.monotonic()
        self.process = self._start()
        return True


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
