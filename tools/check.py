"""Run the parts of ``./check``: quiet when good, the whole output when not."""

from __future__ import annotations

import contextlib
import os
import secrets
import signal
import subprocess
import sys
import threading
import time
from collections.abc import Callable, Iterator
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from typing import Any

from cluster import Cluster, ClusterError, free_port, memory_folder, throw_away
from processes import end, serve, work

CLONE = Path(__file__).resolve().parents[1]
BIN = CLONE / ".venv" / "bin"
PYTHON = str(BIN / "python")
Environment = dict[str, str]


#: what runs now, and whether it was told to stop because another part fails
RUNNING: set[subprocess.Popen[str]] = set()
STOPPED = threading.Event()


class PartError(Exception):
    """A part fails; the text is its output."""


def run(*command: str, cwd: Path = CLONE, env: Environment | None = None) -> str:
    """Run a command and return its output; a failure raises it."""
    if STOPPED.is_set():
        raise PartError("stopped: another part fails")
    with subprocess.Popen(
        command,
        cwd=cwd,
        env={**os.environ, **(env or {})},
        stdout=subprocess.PIPE,
        stderr=subprocess.STDOUT,
        stdin=subprocess.DEVNULL,
        text=True,
    ) as process:
        RUNNING.add(process)
        said, _ = process.communicate()
        RUNNING.discard(process)
    if process.returncode:
        raise PartError(f"$ {' '.join(command)}\n{said}")
    return said


def last_line(output: str) -> str:
    """Return the line that counts the tests."""
    lines = [line for line in output.splitlines() if "passed" in line]
    return lines[-1].strip() if lines else ""


def lint(env: Environment) -> str:
    """Check format and linters, Python and web."""
    run(str(BIN / "ruff"), "format", "--check", "-q", ".", env=env)
    run(str(BIN / "ruff"), "check", "-q", ".", env=env)
    run("npx", "--no-install", "biome", "check", "--error-on-warnings", ".", cwd=CLONE / "web")
    return ""


def types(env: Environment) -> str:
    """Check types strictly: core, server, tools."""
    run(str(BIN / "mypy"), "core/src", "server", "tools", env=env)
    return ""


def web_types(env: Environment) -> str:
    """Check types of the front end strictly."""
    del env
    run("npx", "--no-install", "tsc", "-b", cwd=CLONE / "web")
    return ""


def api(env: Environment) -> str:
    """Check that the generated types are those of the OpenAPI file; the server's tests check it.

    And that the settings of a plant are fit to be served to others.
    """
    made = run(
        "npx",
        "--no-install",
        "openapi-typescript",
        "../server/api/openapi.json",
        cwd=CLONE / "web",
    )
    types_file = (CLONE / "web" / "src" / "api" / "schema.gen.ts").read_text()
    if types_file.strip() not in made.strip():
        raise PartError("web/src/api/schema.gen.ts is not up to date: run `make api`.")
    deployed = {
        **env,
        "EVENCOIL_HTTPS": "1",
        "EVENCOIL_HOSTS": "coil.example.com",
        "EVENCOIL_DEMO": "",
        "EVENCOIL_SECRET_KEY": secrets.token_urlsafe(64),
    }
    run(PYTHON, "server/manage.py", "check", "--deploy", "--fail-level", "WARNING", env=deployed)
    return ""


def core(env: Environment) -> str:
    """Test the core by itself, lines and branches counted; what runs very often is not counted."""
    del env
    counter = [
        "-m",
        "slipcover",
        "--branch",
        "--source",
        "src",
        "--skip-covered",
        "--fail-under",
        "95",
    ]
    quiet = ["-W", "ignore:Module already imported:pytest.PytestAssertRewriteWarning"]

    def tests(*how: str) -> str:
        # they wait for nothing and no one: they take what the other parts leave of the processors
        return run("nice", "-n", "19", PYTHON, *how, cwd=CLONE / "core", env={"PYTHONPATH": ""})

    with ThreadPoolExecutor(2) as pool:
        counted = pool.submit(tests, *counter, "-m", "pytest", "-m", "not many", *quiet)
        often = pool.submit(tests, "-m", "pytest", "-m", "many")
        said = counted.result()
        reached = said.split()[-1]  # the table of what was reached ends with its total
        return f"{last_line(said)} ({reached} % reached), {last_line(often.result())}"


def server(env: Environment) -> str:
    """Test the server on the throw-away cluster, lines counted."""
    said = run(
        PYTHON,
        "-m",
        "pytest",
        "-n",
        "2",
        "--dist",
        "worksteal",
        "--cov",
        "--cov-report=term:skip-covered",
        cwd=CLONE / "server",
        env={
            **env,
            "EVENCOIL_TEST_TABLES": TABLES,
            **({"EVENCOIL_TEST_DEMO": LAID_OUT} if env.get(HAS_WALKS) else {}),
        },
    )
    reached = next((line.split()[-1] for line in said.splitlines() if line.startswith("TOTAL")), "")
    return f"{last_line(said)} ({reached} reached)"


def web(env: Environment) -> str:
    """Test hooks, components and words, lines counted; the floors are in `vite.config.ts`."""
    del env
    command = ("npx", "--no-install", "vitest", "run", "--coverage")
    said = run(*command, cwd=CLONE / "web", env={"NO_COLOR": "1"})
    reached = next((line.split()[2] for line in said.splitlines() if line.startswith("Lines")), "")
    return f"{last_line(said)} ({reached} reached)"


@contextlib.contextmanager
def serving(env: Environment, log: Path) -> Iterator[str]:
    """Serve one database for the length of a block and give its address."""
    port = free_port()
    with log.open("w") as file:
        own: dict[str, Any] = {
            "cwd": CLONE,
            "env": {**os.environ, **env},
            "stdout": file,
            "stderr": file,
        }
        processes = [serve(port, **own), work(**own)]
        try:
            yield f"http://127.0.0.1:{port}"
        finally:
            end(processes)


def in_memory() -> Environment:
    """Return settings under which browsers keep their profiles in memory, if there is room."""
    folder = memory_folder()
    return {"TMPDIR": folder} if folder else {}


#: a database with every table and no row; one for each browser
TABLES, WALKS = "tables", ("walk_0", "walk_1")
#: the demo as it was laid out; nobody walks in it
LAID_OUT = "laid_out"
#: set where the demo is laid out: for the browsers
HAS_WALKS = "EVENCOIL_HAS_WALKS"


def lay_out(env: Environment, cluster: Cluster, *, with_walks: bool) -> None:
    """Make the tables once, lay the demo out once, and copy them for whoever needs them."""

    def manage(name: str, *command: str) -> None:
        run(PYTHON, "server/manage.py", *command, env={**env, "EVENCOIL_DB_NAME": name})

    cluster.make_database(TABLES)
    manage(TABLES, "migrate", "-v", "0", "--skip-checks")
    manage(TABLES, "createcachetable")
    if with_walks:
        cluster.make_database(WALKS[0], like=TABLES)
        manage(WALKS[0], "demo", "--skip-checks")
        # a second plant of the same people, small: one of the tests erases it
        manage(WALKS[0], "plant", "6", "--skip-checks")
        for name in (*WALKS[1:], LAID_OUT):
            cluster.make_database(name, like=WALKS[0])


def e2e(env: Environment) -> str:
    """Walk the electrician's tasks in two browsers, each with a server and a demo of its own."""
    with contextlib.ExitStack() as stack:
        urls = [
            stack.enter_context(
                serving({**env, "EVENCOIL_DB_NAME": name}, CLONE / ".run" / f"e2e-{name}.log")
            )
            for name in WALKS
        ]
        time.sleep(2)
        return last_line(
            run(
                PYTHON,
                "-m",
                "pytest",
                "-n",
                str(len(urls)),
                "--dist",
                "worksteal",
                cwd=CLONE / "tests" / "e2e",
                env={**env, **in_memory(), "EVENCOIL_WALKS": " ".join(urls)},
            )
        )


PARTS: dict[str, Callable[[Environment], str]] = {
    "lint": lint,
    "types": types,
    "web-types": web_types,
    "api": api,
    "web": web,
    "core": core,
    "server": server,
    "e2e": e2e,
}
# each of these keeps one processor busy; the others keep both, but for pauses that core fills
ALONE = {"lint", "types", "web-types", "api", "web"}
NEED_DATABASE = {"server", "e2e"}


def in_turn(part: Callable[[str], bool], names: list[str], pool: ThreadPoolExecutor) -> bool:
    """Run parts one after another, and beside them the core's tests; tell whether all hold."""

    def holds(name: str) -> bool:
        if STOPPED.is_set():
            return False
        if part(name):
            return True
        STOPPED.set()
        for process in list(RUNNING):
            process.terminate()
        return False

    beside = pool.submit(holds, "core") if "core" in names else None
    others = [holds(name) for name in names if name != "core"]
    return all(others) and (beside is None or beside.result())


def main(words: list[str]) -> int:
    """Run the named parts, or all."""
    unknown = [name for name in words if name not in PARTS]
    if unknown:
        print(f"./check has no part {', '.join(unknown)}; parts: {' '.join(PARTS)}")
        return 2
    chosen = words or list(PARTS)
    base = {
        "EVENCOIL_SECRET_KEY": "check",
        "EVENCOIL_DEMO": "1",
        "PYTHONPATH": f"{CLONE}/server:{CLONE}/core/src",
        # every part starts its own Python: compile once, outside the source tree
        "PYTHONDONTWRITEBYTECODE": "",
        "PYTHONPYCACHEPREFIX": str(CLONE / ".run" / "pycache"),
    }

    def through(cluster: Cluster | None) -> int:
        env = base | (cluster.environment() if cluster else {})
        if "e2e" in chosen:
            env[HAS_WALKS] = "1"

        def part(name: str) -> bool:
            begun = time.monotonic()
            try:
                said = PARTS[name](env)
            except PartError as broken:
                if not STOPPED.is_set():
                    print(f"{broken}\n./check: {name} fails", flush=True)
                return False
            print(f"{name:9} ok {time.monotonic() - begun:6.1f} s  {said}", flush=True)
            return True

        with ThreadPoolExecutor(2) as pool:
            tables = (
                pool.submit(lay_out, env, cluster, with_walks=HAS_WALKS in env)
                if cluster and NEED_DATABASE & set(chosen)
                else None
            )
            hold = list(pool.map(part, [name for name in chosen if name in ALONE]))
            if tables:
                tables.result()
            others = [name for name in chosen if name not in ALONE]
            return 0 if all(hold) and in_turn(part, others, pool) else 1

    if not NEED_DATABASE & set(chosen):
        return through(None)
    with throw_away() as cluster:
        return through(cluster)


def _stopped(number: int, frame: object) -> None:
    del number, frame
    STOPPED.set()
    for process in list(RUNNING):
        process.terminate()
    sys.exit(130)


if __name__ == "__main__":
    signal.signal(signal.SIGTERM, _stopped)
    try:
        sys.exit(main(sys.argv[1:]))
    except ClusterError as error:
        print(f"./check: {error}")
        sys.exit(1)
    except KeyboardInterrupt:
        sys.exit(130)
