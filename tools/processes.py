"""The two processes that serve the application: the web server and the worker of proofs."""

from __future__ import annotations

import subprocess
import sys
from collections.abc import Iterable
from typing import Any

__all__ = ["end", "serve", "work"]


def serve(port: int, *options: str, **how: Any) -> subprocess.Popen[bytes]:
    """Start the application server on a loopback port; `how` goes to the process as it is."""
    return subprocess.Popen(
        [
            sys.executable,
            "-m",
            "gunicorn",
            "config.wsgi",
            "--chdir",
            "server",
            "--bind",
            f"127.0.0.1:{port}",
            *options,
            "--log-level",
            "warning",
            "--no-control-socket",
        ],
        **how,
    )


def work(**how: Any) -> subprocess.Popen[bytes]:
    """Start the worker; Django's checks of the code itself are made by ``./check``."""
    return subprocess.Popen(
        [
            sys.executable,
            "server/manage.py",
            "db_worker",
            "--interval",
            "0.3",
            "-v",
            "0",
            "--skip-checks",
        ],
        **how,
    )


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
