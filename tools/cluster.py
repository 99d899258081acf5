"""A PostgreSQL cluster of the project's own: loopback, free port, password, no socket.

PostgreSQL refuses to run as root: then it runs as the user ``postgres``, in the
clone if that user can enter it, otherwise under ``/var/lib/evencoil``.
"""

from __future__ import annotations

import contextlib
import hashlib
import os
import secrets
import shutil
import socket
import subprocess
import tempfile
from collections.abc import Iterator
from pathlib import Path

__all__ = ["Cluster", "ClusterError", "free_port", "memory_folder", "place"]

BIN = Path("/usr/lib/postgresql/15/bin")
NAME = "evencoil"


class ClusterError(Exception):
    """The database cannot be made or started; the text says what to do."""


def free_port(wish: int = 0) -> int:
    """Return a free loopback port, the wished one if it is free."""
    for port in (wish, 0):
        with socket.socket() as probe, contextlib.suppress(OSError):
            probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
            probe.bind(("127.0.0.1", port))
            return int(probe.getsockname()[1])
    raise ClusterError("no free port on 127.0.0.1")


def _prefix() -> list[str]:
    return ["runuser", "-u", "postgres", "--"] if os.geteuid() == 0 else []


def place(clone: Path) -> Path:
    """Return where the data may lie: inside the clone if it can be entered."""
    inside = clone / ".run" / "pg"
    if os.geteuid() != 0:
        return inside
    entered = subprocess.run(
        [*_prefix(), "test", "-x", str(clone / ".run")], check=False, capture_output=True
    )
    if entered.returncode == 0:
        return inside
    name = hashlib.sha256(str(clone).encode()).hexdigest()[:12]
    return Path("/var/lib/evencoil") / name / "pg"


class Cluster:
    """One cluster in one folder."""

    def __init__(self, folder: Path, *, is_lasting: bool = True) -> None:
        self.folder = folder
        self.is_lasting = is_lasting
        self.data = folder / "data"
        self.port = 0

    @property
    def password(self) -> str:
        """Return the password, made with the cluster, readable by its owner only."""
        return (self.folder / "password").read_text().strip()

    def environment(self) -> dict[str, str]:
        """Return what the server's settings read."""
        return {
            "EVENCOIL_DB_NAME": NAME,
            "EVENCOIL_DB_USER": NAME,
            "EVENCOIL_DB_PASSWORD": self.password,
            "EVENCOIL_DB_PORT": str(self.port),
        }

    def _run(self, *command: str, **more: object) -> subprocess.CompletedProcess[str]:
        return subprocess.run(  # type: ignore[call-overload,no-any-return]  # the options pass through
            [*_prefix(), *command],
            check=False,
            capture_output=True,
            text=True,
            cwd="/",
            **more,
        )

    def create(self) -> None:
        """Make the cluster if it is not there."""
        if (self.data / "PG_VERSION").is_file():
            return
        if not (BIN / "initdb").is_file():
            raise ClusterError("PostgreSQL 15 is missing: apt-get install postgresql-15")
        shutil.rmtree(self.folder, ignore_errors=True)
        self.folder.mkdir(parents=True, mode=0o700)
        word = self.folder / "password"
        word.write_text(secrets.token_urlsafe(24))
        word.chmod(0o600)
        if os.geteuid() == 0:
            shutil.chown(self.folder, "postgres")
            shutil.chown(word, "postgres")
        made = self._run(
            str(BIN / "initdb"),
            "-D",
            str(self.data),
            "-U",
            NAME,
            "--pwfile",
            str(word),
            "--encoding=UTF8",
            "--locale=C.UTF-8",
            "--auth=scram-sha-256",
        )
        if made.returncode:
            raise ClusterError(f"initdb failed: {made.stderr.strip()[-400:]}")

    def answers(self) -> bool:
        """Tell whether anything listens on its port."""
        try:
            with socket.create_connection(("127.0.0.1", self.port), 1):
                return True
        except OSError:
            return False

    def start(self, port: int = 0) -> None:
        """Start it on a free port, or on one it had; a stale pid file is no hindrance."""
        self.create()
        self.stop()
        self.port = port or free_port()
        # a throw-away cluster never waits for the disk: nothing in it outlives the run
        keep = "on" if self.is_lasting else "off"
        options = (
            f"-c listen_addresses=127.0.0.1 -p {self.port} -c unix_socket_directories= "
            f"-c fsync={keep} -c synchronous_commit={keep} -c full_page_writes={keep} "
            "-c max_connections=100"
        )
        log = self.folder / "log"
        started = self._run(
            str(BIN / "pg_ctl"),
            "-D",
            str(self.data),
            "-l",
            str(log),
            "-w",
            "-t",
            "60",
            "-o",
            options,
            "start",
        )
        if started.returncode:
            said = log.read_text(errors="replace")[-600:] if log.is_file() else started.stderr
            raise ClusterError(f"PostgreSQL does not start: {said.strip()}")
        self.make_database(NAME)

    def make_database(self, name: str, like: str = "template1") -> None:
        """Make a database, a copy of another one, if it is not there.

        Raises
        ------
        ClusterError
            If it cannot be made.
        """
        psql = [
            str(BIN / "psql"),
            "-h",
            "127.0.0.1",
            "-p",
            str(self.port),
            "-U",
            NAME,
            "-d",
            "postgres",
            "-tAc",
        ]
        environment = {**os.environ, "PGPASSWORD": self.password}
        asked = f"select 1 from pg_database where datname = '{name}'"  # one of our own names
        there = subprocess.run(
            [*psql, asked], check=False, capture_output=True, text=True, env=environment
        )
        if there.stdout.strip() == "1":
            return
        made = subprocess.run(
            [*psql, f"create database {name} template {like}"],
            check=False,
            capture_output=True,
            text=True,
            env=environment,
        )
        if made.returncode:
            raise ClusterError(f"the database cannot be made: {made.stderr.strip()}")

    def stop(self) -> None:
        """Stop it if it runs."""
        if (self.data / "postmaster.pid").is_file():
            self._run(
                str(BIN / "pg_ctl"), "-D", str(self.data), "-m", "fast", "-w", "-t", "30", "stop"
            )


def memory_folder() -> str | None:
    """Return a folder that lies in memory with room to spare, None if there is none.

    What lives for one run only need not wait for a disk.
    """
    shared = Path("/dev/shm")  # noqa: S108 - the system's own, and `mkdtemp` makes a private folder in it
    with contextlib.suppress(OSError):
        if os.access(shared, os.W_OK) and shutil.disk_usage(shared).free > 2 * 1024**3:
            return str(shared)
    return None


@contextlib.contextmanager
def throw_away() -> Iterator[Cluster]:
    """Give a cluster in a fresh temporary folder, gone afterwards."""
    folder = Path(tempfile.mkdtemp(prefix="evencoil-check-", dir=memory_folder()))
    if os.geteuid() == 0:
        folder.chmod(0o755)
    cluster = Cluster(folder / "pg", is_lasting=False)
    try:
        cluster.start()
        yield cluster
    finally:
        cluster.stop()
        shutil.rmtree(folder, ignore_errors=True)
