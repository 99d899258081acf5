"""Start the cluster, bring the database up to date, serve, and stop it all again."""

from __future__ import annotations

import fcntl
import os
import secrets
import signal
import socket
import subprocess
import sys
import time
import urllib.request
from pathlib import Path
from types import FrameType
from typing import Any

from cluster import Cluster, ClusterError, place
from processes import Watch, end, serve, work

CLONE = Path(__file__).resolve().parents[1]
#: looks at half a second each that the database may miss
MISSED = 4
#: motors of the whole plant beside the demo's line; ``EVENCOIL_PLANT=0`` leaves it out
MOTORS = "300"
PYTHON = str(CLONE / ".venv" / "bin" / "python")


def secret_key() -> str:
    """Return the key that signs sessions, made once for this clone."""
    file = CLONE / ".run" / "secret_key"
    if not file.is_file():
        file.touch(mode=0o600)
        file.write_text(secrets.token_urlsafe(48))
    return file.read_text()


def manage(environment: dict[str, str], *command: str) -> str:
    """Run a management command; its last words go with a failure."""
    done = subprocess.run(
        [PYTHON, "server/manage.py", *command],
        check=False,
        cwd=CLONE,
        env=environment,
        capture_output=True,
        text=True,
    )
    if done.returncode:
        raise ClusterError(f"{' '.join(command)} failed: {done.stderr.strip()[-600:]}")
    return done.stdout


def lay_out(environment: dict[str, str]) -> None:
    """Bring the tables up to date and lay the demo out; ``./check`` checks the code itself."""
    manage(environment, "migrate", "-v", "0", "--skip-checks")
    manage(environment, "createcachetable")
    manage(environment, "demo", "--skip-checks")
    motors = environment.get("EVENCOIL_PLANT", MOTORS)
    if motors != "0":
        manage(environment, "plant", motors, "--skip-checks")


def wait_for(url: str, server: subprocess.Popen[bytes]) -> None:
    """Wait until the server answers."""
    for _ in range(150):
        if server.poll() is not None:
            raise ClusterError("the server stopped at once; its words are above")
        try:
            with urllib.request.urlopen(url, timeout=2):  # loopback
                return
        except OSError:
            time.sleep(0.1)
    raise ClusterError("the server does not answer")


def own_port() -> int:
    """Return the port to serve on, or say who has it: never another one in silence."""
    port = int(os.environ.get("EVENCOIL_PORT", "8765"))
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind(("127.0.0.1", port))
        except OSError as taken:
            raise ClusterError(
                f"port {port} is taken by another program; stop it, or name another port:"
                " EVENCOIL_PORT=8766 ./start"
            ) from taken
    return port


def main() -> int:
    """Serve until Ctrl-C."""
    stopping = []

    def stop(number: int, frame: FrameType | None) -> None:
        del frame
        stopping.append(number)

    lock = (CLONE / ".run" / "start.lock").open("w")
    try:
        fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
    except OSError:
        print(
            "even coil: ./start runs already in this folder; stop that one first", file=sys.stderr
        )
        return 1
    cluster = Cluster(place(CLONE))
    watched: list[Watch] = []
    for number in (signal.SIGINT, signal.SIGTERM, signal.SIGHUP):
        signal.signal(number, stop)
    try:
        cluster.start()
        environment = {
            **os.environ,
            **cluster.environment(),
            "EVENCOIL_SECRET_KEY": secret_key(),
            "PYTHONUNBUFFERED": "1",
            # what ./start serves is the demo, unless told otherwise
            "EVENCOIL_DEMO": os.environ.get("EVENCOIL_DEMO", "1"),
        }
        lay_out(environment)
        port = own_port()
        own: dict[str, Any] = {"cwd": CLONE, "env": environment, "start_new_session": True}
        watched.append(Watch("the server", lambda: serve(port, **own)))
        watched.append(Watch("the worker", lambda: work(**own)))
        wait_for(f"http://127.0.0.1:{port}/api/session", watched[0].process)
        sys.path.insert(0, str(CLONE / "server"))
        from demo.larkfall import PASSWORD, PEOPLE, WORKS  # after the path

        print(f"\n  Even Coil:  http://127.0.0.1:{port}/\n")
        print(f"  {WORKS['name']}, made-up people, password {PASSWORD}")
        for username, (name, role) in PEOPLE.items():
            print(f"    {username:8} {name}, {role}")
        print("\n  Ctrl-C stops it.", flush=True)
        missed = 0
        while not stopping:
            time.sleep(0.5)
            missed = 0 if cluster.answers() else missed + 1
            if missed >= MISSED:
                print("even coil: the database is started again", file=sys.stderr, flush=True)
                try:
                    cluster.start(cluster.port)
                except ClusterError as error:
                    # what a killed database left takes a while to go: it is tried again
                    print(f"even coil: {error}", file=sys.stderr, flush=True)
                missed = 0
            for one in watched:
                one.look()
        return 0
    except ClusterError as error:
        print(f"even coil: {error}", file=sys.stderr)
        return 1
    finally:
        end([one.process for one in watched])
        cluster.stop()


if __name__ == "__main__":
    sys.exit(main())
