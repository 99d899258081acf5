"""A table of 10,000 motors through the worker: read, taken, exported; the audit of all of them.

    benchmarks/taking.py URL [motors]

Signs in as the demo's administrator in the whole plant, sends the table as a browser would, and
waits for the worker. The plant is larger by so many motors afterwards: run it on a demo of its own.
"""

from __future__ import annotations

import base64
import gzip
import json
import sys
import time

from home import Caller

WORKS = "larkfall-plant"
RATINGS = (("5", "6.6"), ("15", "18.8"), ("25", "30"), ("50", "59"), ("75", "87"))


def table(count: int, mark: int) -> str:
    """Return the table; its tags are of this run."""
    head = (
        "Tag,Description,Line,MCC,HP,Volts,FLA,RPM,Phase,SF,"
        "System voltage,Fault current (kA),Starter"
    )
    lines = [
        f"T{mark}-{k},conveyor {k},Lime Line {k % 5},MCC-{k % 40},{RATINGS[k % 5][0]},460,"
        f"{RATINGS[k % 5][1]},17{50 + k % 30},3,1.15,480Y/277,18,3A"
        for k in range(count)
    ]
    return "\n".join((head, *lines))


def until_done(caller: Caller, path: str) -> float:
    """Wait for the end and return the seconds; say what stood there on the way."""
    began, seen = time.perf_counter(), 0
    while True:
        _, said = caller.ask("GET", f"{path}/progress")
        now = json.loads(said)
        seen += now["state"] == "running" and now["done"] > 0
        if now["state"] != "running":
            print(
                f"    {now['state']}, {now['done']} of {now['total']}, progress seen {seen} times"
            )
            return time.perf_counter() - began
        time.sleep(0.5)


def main(url: str, count: int) -> None:
    """Send, take, list, export and audit."""
    caller = Caller(url)
    base = f"/api/w/{WORKS}"
    text = table(count, int(time.time()) % 100_000)
    data = base64.b64encode(gzip.compress(text.encode())).decode()
    began = time.perf_counter()
    status, said = caller.ask("POST", f"{base}/schedules", {"name": "bench.csv", "data": data})
    read = json.loads(said)
    if status != 200 or read["good"] != count:
        raise SystemExit(f"{status}: {said[:300]!r}")
    print(f"{count} lines read and told: {time.perf_counter() - began:.1f} s")
    path = f"{base}/schedules/{read['n']}"
    caller.ask("POST", f"{path}/take", {})
    print(f"taken by the worker: {until_done(caller, path):.1f} s")
    for page in (1, 100):
        began = time.perf_counter()
        caller.ask("GET", f"{base}/yard?page={page}")
        print(f"page {page} of the list: {time.perf_counter() - began:.2f} s")
    for kind in ("csv", "xlsx"):
        began = time.perf_counter()
        status, said = caller.ask("GET", f"{base}/motors.{kind}")
        took = time.perf_counter() - began
        print(f"motors.{kind}: {status}, {len(said) // 1024} kB, {took:.1f} s")
    status, said = caller.ask("POST", f"{base}/audits", {"breakers": False})
    if status != 200:
        raise SystemExit(f"{status}: {said[:300]!r}")
    n = json.loads(said)["n"]
    print(f"audited by the worker: {until_done(caller, f'{base}/audits/{n}'):.1f} s")
    for path in (f"{base}/audits/{n}", f"{base}/audits/{n}/lines?state=found"):
        began = time.perf_counter()
        status, said = caller.ask("GET", path)
        print(f"{path}: {status}, {time.perf_counter() - began:.2f} s")


if __name__ == "__main__":
    main(sys.argv[1], int(sys.argv[2]) if len(sys.argv) > 2 else 10_000)
