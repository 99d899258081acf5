"""How long the first print after a start takes, and the next one.

Call: ``.venv/bin/python benchmarks/print.py URL`` right after the demo's server was started, with
nothing asked of it before. Prints both in seconds.
"""

from __future__ import annotations

import sys
import time

from home import WORKS, Caller

JOB = f"/api/w/{WORKS}/m/JC-1/j/1/issues"

if __name__ == "__main__":
    caller = Caller(sys.argv[1])
    # the desk is ready a few seconds after the server is
    time.sleep(8)
    for which in ("first", "second"):
        begun = time.perf_counter()
        status, body = caller.ask("POST", JOB, {"is_for_wiring": False})
        took = time.perf_counter() - begun
        if status != 201:
            raise SystemExit(f"not printed: {status} {body!r}")
        print(f"{which} print {took:.1f} s")
