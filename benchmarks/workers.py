"""An audit shared by workers on two hosts: one, two, and two of which one is killed.

    benchmarks/workers.py [MOTORS]        as root, with iproute2 and PostgreSQL 15

Each host is a network namespace with a name and an address of its own; the database is reached
over a bridge, and nothing else is shared. What is found must be the same each time, each motor
counted once.
"""

from __future__ import annotations

import json
import os
import signal
import subprocess
import sys
import time
from pathlib import Path

ROOT = Path(__file__).parents[1]
sys.path.insert(0, str(ROOT / "tools"))

import psycopg
from cluster import BIN, NAME, throw_away

BRIDGE, ADDRESS, HOSTS = "ecbench", "10.77.0.1", ("hosta", "hostb")
PYTHON = str(ROOT / ".venv/bin/python")
BEGIN = """
from audits.actions import BeginAudit
from audits.doing import begin_parts
from evencoil.audit import WhatIf
from people.access import Caller
from people.models import User, Works
who = Caller(User.objects.get(username="dov"), Works.objects.get(slug="larkfall-plant"), "admin")
row = BeginAudit(who, WhatIf()).run()
begin_parts(row)
print(row.pk)
"""
FOUND = """
import json
from audits.models import Audit, AuditedJob, AuditedLine
row = Audit.objects.get(pk=PK)
jobs = AuditedJob.objects.filter(audit=row)
lines = AuditedLine.objects.filter(audit=row).order_by("job__tag", "topic", "key", "pk")
print(json.dumps([row.state, row.total, jobs.count(), jobs.values("link").distinct().count(),
                  [list(one) for one in lines.values_list("job__tag", "topic", "key", "state")]]))
"""


def ip(*words: str, check: bool = True) -> None:
    """Run ``ip``."""
    subprocess.run(["/sbin/ip", *words], check=check, capture_output=not check)


def lay_network() -> None:
    """Make a bridge and two hosts on it."""
    take_network()
    ip("link", "add", BRIDGE, "type", "bridge")
    ip("addr", "add", f"{ADDRESS}/24", "dev", BRIDGE)
    ip("link", "set", BRIDGE, "up")
    for place, host in enumerate(HOSTS, 2):
        ip("netns", "add", host)
        ip("link", "add", f"v{host}", "type", "veth", "peer", "name", "eth0", "netns", host)
        ip("link", "set", f"v{host}", "master", BRIDGE)
        ip("link", "set", f"v{host}", "up")
        ip("-n", host, "addr", "add", f"10.77.0.{place}/24", "dev", "eth0")
        ip("-n", host, "link", "set", "eth0", "up")


def take_network() -> None:
    """Take the hosts and the bridge away again."""
    for host in HOSTS:
        ip("netns", "del", host, check=False)
    ip("link", "del", BRIDGE, check=False)


def shell(env: dict[str, str], code: str) -> str:
    """Run code with the server's models and return its last line."""
    done = subprocess.run(
        [PYTHON, "server/manage.py", "shell", "-v", "0", "-c", code],
        cwd=ROOT,
        env=env,
        check=True,
        capture_output=True,
        text=True,
    )
    return done.stdout.strip().splitlines()[-1]


def worker(host: str, env: dict[str, str]) -> subprocess.Popen[bytes]:
    """Start a worker on a host, under its name."""
    command = (
        f"hostname {host} && exec {PYTHON} server/manage.py worker --interval 0.2 --skip-checks"
    )
    return subprocess.Popen(
        ["/sbin/ip", "netns", "exec", host, "unshare", "--uts", "sh", "-c", command],
        cwd=ROOT,
        env={**env, "EVENCOIL_DB_HOST": ADDRESS},
        start_new_session=True,
    )


def state_of(env: dict[str, str], pk: str) -> str:
    """Return an audit's state; asked often, so without the whole server."""
    with psycopg.connect(
        host="127.0.0.1",
        port=env["EVENCOIL_DB_PORT"],
        user=env["EVENCOIL_DB_USER"],
        password=env["EVENCOIL_DB_PASSWORD"],
        dbname=NAME,
    ) as line:
        row = line.execute("SELECT state FROM audits_audit WHERE id = %s", [int(pk)]).fetchone()
    return str(row[0]) if row else ""


def audited(
    env: dict[str, str], hosts: tuple[str, ...], kill_after: float = 0
) -> tuple[float, list]:
    """Audit the plant with workers on some hosts; return the seconds and what was found."""
    workers = [worker(host, env) for host in hosts]
    time.sleep(12)  # started, and their tables read
    begun = time.perf_counter()
    pk = shell(env, BEGIN)
    try:
        while True:
            if kill_after and time.perf_counter() - begun > kill_after:
                os.killpg(workers[-1].pid, signal.SIGKILL)
                kill_after = 0
            if state_of(env, pk) != "running":
                break
            time.sleep(0.5)
        took = time.perf_counter() - begun
    finally:
        for one in workers:
            if one.poll() is None:
                os.killpg(one.pid, signal.SIGTERM)
            one.wait(30)
    return took, json.loads(shell(env, FOUND.replace("PK", pk)))


def main(count: int) -> None:
    """Audit three times and compare."""
    lay_network()
    try:
        with throw_away() as cluster:
            cluster.stop()
            with (cluster.data / "pg_hba.conf").open("a") as rules:
                rules.write("host all all 10.77.0.0/24 scram-sha-256\n")
            with (cluster.data / "postgresql.conf").open("a") as own:
                own.write("unix_socket_directories = ''\n")
            options = f"-c listen_addresses=127.0.0.1,{ADDRESS} -p {cluster.port} -c fsync=off"
            postgres = ["runuser", "-u", "postgres", "--", str(BIN / "pg_ctl"), "-w"]
            where = ["-D", str(cluster.data), "-l", str(cluster.folder / "log")]
            subprocess.run(
                [*postgres, *where, "-o", options, "start"],
                check=True,
                cwd="/",
                capture_output=True,
            )
            env = {
                **os.environ,
                **cluster.environment(),
                "EVENCOIL_DB_NAME": NAME,
                "EVENCOIL_SECRET_KEY": "benchmark",
                "EVENCOIL_DEMO": "1",
            }
            for command in (
                ["migrate", "-v", "0"],
                ["createcachetable"],
                ["demo"],
                ["plant", str(count)],
            ):
                whole = [PYTHON, "server/manage.py", *command]
                subprocess.run(whole, cwd=ROOT, env=env, check=True, capture_output=True)
            one, first = audited(env, HOSTS[:1])
            two, second = audited(env, HOSTS)
            lost, third = audited(env, HOSTS, kill_after=two / 3)
    finally:
        take_network()
    for said in (first, second, third):
        state, total, jobs, distinct, _ = said
        if state != "done" or not total == jobs == distinct:
            raise SystemExit(f"counted wrongly: {said[:4]}")
    if not first[4] == second[4] == third[4]:
        raise SystemExit("what was found differs")
    print(f"{first[1]} motors, {len(first[4])} lines, the same each time, each motor once")
    print(f"one worker {one:.0f} s; two hosts {two:.0f} s, {two / one:.2f} of it")
    print(f"two hosts, one killed on the way: {lost:.0f} s")


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else 900)
