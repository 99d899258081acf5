"""Kill -9 of everything that serves, at random, while people save: nothing acknowledged is lost.

    benchmarks/kills.py [kills] [pause_s]

Starts this clone's own server on a free port, adds motors and saves their supply on four
connections, kills one process of it after the other - a serving process, the one that watches
them, a worker, a process of the desk, a database connection, the whole database - and then counts
what was acknowledged: every motor once, with the last supply that was acknowledged or one that was
under way when it was lost; every entry at a panel once.
"""

from __future__ import annotations

import contextlib
import http.client
import json
import os
import random
import re
import signal
import subprocess
import sys
import threading
import time
import uuid
from collections import Counter
from pathlib import Path
from urllib.parse import urlsplit

sys.path[:0] = ["benchmarks", "tools"]
from cluster import free_port, place
from home import WORKS, Caller

CLONE = Path(__file__).resolve().parents[1]
LOG = CLONE / ".run" / "kills.log"
#: between two kills [s]
PAUSE_S = 1.5
WRITERS = 4
PANEL = f"/api/w/{WORKS}/m/IC-2/j/1/panel"
#: what is killed, by a pattern of its command line, and how often of a hundred
TARGETS = {
    "serving process": (r"tools/web\.py .* fork$", 40),
    "server": (r"tools/web\.py [\d ]*$", 3),
    "worker": (r"manage\.py worker", 17),
    "desk": (r"desk\.child", 17),
    "database connection": (r"^postgres: evencoil", 20),
    "database": (r"bin/postgres -D", 3),
}


def postmaster() -> int:
    """Return the process of this clone's database; 0 while there is none."""
    with contextlib.suppress(OSError, ValueError):
        return int((place(CLONE) / "data" / "postmaster.pid").read_text().splitlines()[0])
    return 0


def family(*roots: int) -> dict[int, str]:
    """Return some processes and every process below them, with their command lines."""
    parents: dict[int, int] = {}
    lines: dict[int, str] = {}
    for entry in Path("/proc").iterdir():
        if entry.name.isdigit():
            with contextlib.suppress(OSError):
                fields = (entry / "stat").read_text().rpartition(")")[2].split()
                parents[int(entry.name)] = int(fields[1])
                lines[int(entry.name)] = (
                    (entry / "cmdline").read_bytes().replace(b"\0", b" ").decode()
                )
    found: dict[int, str] = {}
    for pid, parent in parents.items():
        at = pid
        while at in parents and at not in roots:
            at = parents[at]
        if at in roots:
            # a serving process is a fork of the one that watches it
            is_fork = lines[pid] and lines[pid] == lines.get(parent)
            found[pid] = f"{lines[pid]}{' fork' if is_fork else ''}"
    return found


class Writer(threading.Thread):
    """One person who saves without a pause and notes what was acknowledged."""

    def __init__(self, url: str, number: int, stopping: threading.Event) -> None:
        super().__init__(daemon=True)
        self.url, self.number, self.stopping = url, number, stopping
        #: tag to the supplies that may stand: the last acknowledged, then those without an answer
        self.known: dict[str, list[str]] = {}
        self.acknowledged = self.lost = 0

    def run(self) -> None:
        """Save until told to stop."""
        caller: Caller | None = None
        number = 0
        while not self.stopping.is_set():
            try:
                caller = caller or Caller(self.url)
                tag = f"KILL {os.getpid()}-{self.number}-{number}"
                status, _ = caller.ask(
                    "POST",
                    f"/api/w/{WORKS}/motors",
                    {"tag": tag, "name": "kill test", "machine": f"Kill {self.number}"},
                )
                if status not in {201, 409}:
                    caller = None if status in {401, 403, 404} else caller
                    time.sleep(0.2)
                    continue
                # 409: it was added, and the answer was lost
                self.acknowledged += 1
                self.known.setdefault(tag, [""])
                self._save(caller, tag)
                number += 1
            except (OSError, http.client.HTTPException):
                # the session lives on: a sign-in for every lost answer would be held back
                if caller is not None:
                    caller.line.close()
                self.lost += 1
                time.sleep(0.2)

    def _save(self, caller: Caller, tag: str) -> None:
        for n, text in enumerate(("480Y/277", "240 delta", "208Y/120")):
            may = self.known[tag]
            may.append(text)
            status, _ = caller.ask(
                "PUT",
                f"/api/w/{WORKS}/m/{tag.replace(' ', '%20')}/j/1/supply",
                {"based_on": n, "body": {"text": text}},
            )
            if status != 200:
                return
            self.known[tag] = [text]
            self.acknowledged += 1


class PanelWriter(Writer):
    """One person at a panel: entries in batches, each sent until it is answered, as a device does.

    ``at_panel`` counts how often an entry was answered kept; a batch without an answer goes again.
    """

    def run(self) -> None:
        """Send until told to stop."""
        self.at_panel: list[str] = []
        caller: Caller | None = None
        while not self.stopping.is_set():
            batch = [
                {"uid": str(uuid.uuid4()), "kind": "note", "device": "kills", "rev": 1}
                for _ in range(5)
            ]
            while not self.stopping.is_set():
                try:
                    caller = caller or Caller(self.url)
                    status, told = caller.ask("POST", f"{PANEL}/acts", {"acts": batch})
                    if status == 200:
                        answers = [one["answer"] for one in json.loads(told)["answers"]]
                        if not set(answers) <= {"kept", "duplicate"}:
                            raise SystemExit(f"not kept: {answers}")
                        self.at_panel += [one["uid"] for one in batch]
                        self.acknowledged += len(batch)
                        break
                    caller = None if status in {401, 403, 404} else caller
                except (OSError, http.client.HTTPException):
                    if caller is not None:
                        caller.line.close()
                    self.lost += 1
                time.sleep(0.2)
            time.sleep(0.3)

    def wrong(self, caller: Caller) -> list[str]:
        """Return what was acknowledged and is not there once."""
        _, told = caller.ask("GET", PANEL)
        there = Counter(one["id"] for one in json.loads(told)["entries"])
        return [f"entry {uid}: {there[uid]} times" for uid in self.at_panel if there[uid] != 1]


def stands(caller: Caller, tag: str) -> tuple[int, str]:
    """Return how many motors of a tag there are, and the supply of the one."""
    said = tag.replace(" ", "%20")
    _, page = caller.ask("GET", f"/api/w/{WORKS}/yard?q={said}")
    count = sum(one["tag"] == tag for one in json.loads(page)["motors"])
    _, job = caller.ask("GET", f"/api/w/{WORKS}/m/{said}/j/1")
    return count, json.loads(job)["supply"]["text"]


def answers(url: str, within_s: float) -> float:
    """Return how long it takes until the server answers [s]."""
    at, since = urlsplit(url), time.monotonic()
    while time.monotonic() - since < within_s:
        with contextlib.suppress(OSError, http.client.HTTPException, ValueError):
            probe = http.client.HTTPConnection(at.hostname or "", at.port, timeout=10)
            probe.request("GET", "/api/auth/browser/v1/config")
            if probe.getresponse().status == 200:
                caller = Caller(url)
                if caller.ask("GET", f"/api/w/{WORKS}/yard")[0] == 200:
                    return time.monotonic() - since
            # sign-ins are counted by the minute
            time.sleep(1.5)
        time.sleep(0.1)
    raise SystemExit(f"no answer within {within_s:.0f} s")


def main(kills: int, pause_s: float) -> None:
    """Serve, save, kill, count."""
    port = free_port()
    url = f"http://127.0.0.1:{port}"
    server = subprocess.Popen(
        [sys.executable, "tools/serve.py"],
        env={**os.environ, "EVENCOIL_PORT": str(port)},
        stdout=LOG.open("w"),
        stderr=subprocess.STDOUT,
    )
    stopping = threading.Event()
    done: Counter[str] = Counter()
    try:
        answers(url, 120)
        writers = [Writer(url, number, stopping) for number in range(WRITERS)]
        panel = PanelWriter(url, WRITERS, stopping)
        for writer in (*writers, panel):
            writer.start()
        names, weights = list(TARGETS), [often for _, often in TARGETS.values()]
        while sum(done.values()) < kills:
            time.sleep(pause_s)
            if server.poll() is not None:
                raise SystemExit("the server gave up")
            what = random.choices(names, weights)[0]  # noqa: S311 - no secret
            found = [
                pid
                for pid, line in family(server.pid, postmaster()).items()
                if re.search(TARGETS[what][0], line)
            ]
            if found:
                with contextlib.suppress(ProcessLookupError):
                    os.kill(random.choice(found), signal.SIGKILL)  # noqa: S311 - no secret
                    done[what] += 1
                    if sum(done.values()) % 100 == 0:
                        print(f"{sum(done.values())} kills", flush=True)
        back = answers(url, 60)
        stopping.set()
        for writer in (*writers, panel):
            writer.join(30)
        caller = Caller(url)
        every = {tag: may for writer in writers for tag, may in writer.known.items()}
        wrong = panel.wrong(caller)
        for tag, may in every.items():
            count, supply = stands(caller, tag)
            if count != 1 or supply not in may:
                wrong.append(f"{tag}: {count} motors, supply {supply!r}, not one of {may}")
        print(
            f"{sum(done.values())} kills ({', '.join(f'{n} {what}' for what, n in done.items())});"
            f" {sum(one.acknowledged for one in writers)} acknowledged writes,"
            f" {sum(one.lost for one in writers)} requests without an answer;"
            f" {panel.acknowledged} entries at a panel, {panel.lost} batches without an answer;"
            f" {len(wrong)} wrong; back {back:.1f} s after the last"
        )
        print("\n".join(wrong))
    finally:
        stopping.set()
        server.terminate()
        server.wait(60)


if __name__ == "__main__":
    words = sys.argv[1:]
    main(int(words[0]) if words else 1000, float(words[1]) if len(words) > 1 else PAUSE_S)
