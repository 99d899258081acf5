"""Home page and job answer of a plant of 500 motors, against the cheapest question of the server.

    benchmarks/home.py URL [motors]

Signs in as the demo's administrator, imports motors until there are so many, waits until every
line is calculated, and asks each question many times over one kept connection. The ratio holds
on other machines: requests a second of the question to those of `GET /api/session`, the ceiling.
"""

from __future__ import annotations

import http.client
import json
import sys
import time
import uuid
from urllib.parse import urlsplit

sys.path.insert(0, "server")
from demo.larkfall import PASSWORD

WORKS = "larkfall"
TIMES = 60


class Caller:
    """One signed-in person on one kept connection."""

    def __init__(self, url: str, username: str = "dov") -> None:
        at = urlsplit(url)
        self.line = http.client.HTTPConnection(at.hostname or "", at.port)
        self.cookies: dict[str, str] = {}
        self.ask("GET", "/api/auth/browser/v1/config")
        self.ask("GET", "/api/session")
        body = {"username": username, "password": PASSWORD}
        self.ask("POST", "/api/auth/browser/v1/auth/login", body)

    def ask(self, method: str, path: str, body: object = None, **more: str) -> tuple[int, bytes]:
        """Send one request and return status and body."""
        said = None if body is None else json.dumps(body)
        headers = {
            "Content-Type": "application/json",
            "Cookie": "; ".join(f"{name}={value}" for name, value in self.cookies.items()),
            "X-CSRFToken": self.cookies.get("csrftoken", ""),
            **more,
        }
        self.line.request(method, path, said, headers)
        answer = self.line.getresponse()
        for name, value in answer.getheaders():
            if name.lower() == "set-cookie":
                key, _, rest = value.partition("=")
                self.cookies[key] = rest.partition(";")[0]
        return answer.status, answer.read()

    def timed(self, path: str) -> float:
        """Return seconds of one request, the best half of many [s]."""
        taken = []
        for _ in range(TIMES):
            began = time.perf_counter()
            status, _ = self.ask("GET", path)
            taken.append(time.perf_counter() - began)
            if status != 200:
                raise SystemExit(f"{path}: {status}")
        best = sorted(taken)[: TIMES // 2]
        return sum(best) / len(best)


def main(url: str, wanted: int) -> None:
    """Fill the plant, then measure."""
    caller = Caller(url)
    _, said = caller.ask("GET", f"/api/w/{WORKS}/yard")
    have = json.loads(said)["found"]
    _, file = caller.ask("GET", f"/api/w/{WORKS}/m/IC-2/j/1/file")
    job = json.loads(file)
    for place in range(have, wanted):
        job["job_id"] = str(uuid.uuid4())
        job["motor"] = {**job["motor"], "id": str(uuid.uuid4()), "motor_tag": f"BENCH {place:04}"}
        status, answer = caller.ask(
            "POST", f"/api/w/{WORKS}/jobs/import", {"file": json.dumps(job), "as_tag": None}
        )
        if status != 201:
            raise SystemExit(answer.decode())
    began = time.perf_counter()
    pages = -(-max(have, wanted) // 50)
    for page in range(1, pages + 1):
        while any(
            one["is_old"]
            for one in json.loads(caller.ask("GET", f"/api/w/{WORKS}/yard?page={page}")[1])[
                "motors"
            ]
        ):
            time.sleep(0.2)
    print(f"every line calculated {time.perf_counter() - began:.1f} s after the import")
    ceiling = caller.timed("/api/session")
    for name, path in (
        ("home page, first of its pages", f"/api/w/{WORKS}/yard"),
        ("home page, last of its pages", f"/api/w/{WORKS}/yard?page={pages}"),
        ("job answer", f"/api/w/{WORKS}/m/IC-2/j/1"),
        ("catalogue", f"/api/w/{WORKS}/catalogue"),
    ):
        took = caller.timed(path)
        print(
            f"{name}: {took * 1000:.1f} ms, {ceiling / took * 100:.0f} % of the ceiling's"
            f" requests a second ({ceiling * 1000:.1f} ms)"
        )


if __name__ == "__main__":
    main(sys.argv[1], int(sys.argv[2]) if len(sys.argv) > 2 else 500)
