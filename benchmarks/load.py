"""Two hundred readers at once, and eight people at heavy questions, against the ceiling.

    benchmarks/load.py URL [readers]

Readers keep their connections and ask again as soon as they are answered. The ceiling is what the
same server answers of `GET /api/session`, a signed-in person's cheapest question, in the same run;
ratios to it hold on other machines. Then eight connections request checks and dead checks of
starters not requested before, while one person reads a job as usual.
"""

from __future__ import annotations

import asyncio
import json
import sys
import time
from dataclasses import dataclass, field
from urllib.parse import urlsplit

sys.path.insert(0, "benchmarks")
from home import WORKS, Caller

SECONDS = 8.0
HEAVY = 8
JOB = f"/api/w/{WORKS}/m/IC-2/j/1"


@dataclass
class Told:
    """What one kind of request took."""

    name: str
    seconds: list[float] = field(default_factory=list)
    refused: int = 0

    def p(self, share: float) -> float:
        """Return a percentile [ms]."""
        found = sorted(self.seconds)
        return 1000 * found[min(len(found) - 1, int(share * len(found)))]


async def answered(
    reader: asyncio.StreamReader, writer: asyncio.StreamWriter, request: bytes
) -> int:
    """Send one request on a kept connection and return the status of its answer."""
    writer.write(request)
    head = (await reader.readuntil(b"\r\n\r\n")).decode("latin-1")
    status = int(head.split(" ", 2)[1])
    length = next(
        int(line.split(":")[1])
        for line in head.lower().split("\r\n")
        if line.startswith("content-length:")
    )
    await reader.readexactly(length)
    return status


class Crowd:
    """Connections to one server, signed in as one person each."""

    def __init__(self, url: str, callers: list[Caller]) -> None:
        at = urlsplit(url)
        self.host, self.port = at.hostname or "", at.port or 80
        self.callers = callers

    def request(self, path: str, body: object = None, who: int = 0) -> bytes:
        """Return one request as bytes."""
        cookies = self.callers[who % len(self.callers)].cookies
        said = b"" if body is None else json.dumps(body).encode()
        head = [
            f"{'GET' if body is None else 'POST'} {path} HTTP/1.1",
            f"Host: {self.host}:{self.port}",
            "Cookie: " + "; ".join(f"{key}={value}" for key, value in cookies.items()),
            f"X-CSRFToken: {cookies.get('csrftoken', '')}",
            "Content-Type: application/json",
            f"Content-Length: {len(said)}",
        ]
        return "\r\n".join(head).encode() + b"\r\n\r\n" + said

    async def read(self, path: str, readers: int, seconds: float = SECONDS) -> Told:
        """Ask one question on so many connections for some seconds."""
        told = Told(path)
        request = self.request(path)
        until = time.perf_counter() + seconds

        async def one() -> None:
            reader, writer = await asyncio.open_connection(self.host, self.port)
            while time.perf_counter() < until:
                began = time.perf_counter()
                status = await answered(reader, writer, request)
                told.seconds.append(time.perf_counter() - began)
                told.refused += status != 200
            writer.close()

        await asyncio.gather(*(one() for _ in range(readers)))
        return told

    async def heavy(self, bodies: list[dict[str, object]], until: float) -> Told:
        """Request checks and dead checks not requested before, on eight connections."""
        told = Told("heavy")

        async def one(who: int) -> None:
            reader, writer = await asyncio.open_connection(self.host, self.port)
            while time.perf_counter() < until and bodies:
                kind = ("checks", "dead")[len(bodies) % 2]
                began = time.perf_counter()
                request = self.request(f"/api/w/{WORKS}/{kind}", bodies.pop(), who)
                told.refused += await answered(reader, writer, request) != 200
                told.seconds.append(time.perf_counter() - began)
            writer.close()

        await asyncio.gather(*(one(place) for place in range(HEAVY)))
        return told


def starters(count: int) -> list[dict[str, object]]:
    """Return starters that differ from every one that was asked for before."""
    stamp = int(time.time())
    circuits = ("3A", "6C", "7A", "14C", "16A")
    return [
        {
            "plate": {"text": f"15 HP 460 V 19.3 A 3 PH SN {stamp}-{place}"},
            "starter": {"standard_circuit": circuits[place % len(circuits)]},
        }
        for place in range(count)
    ]


async def main(url: str, readers: int) -> None:
    """Measure one kind of request after the other."""
    crowd = Crowd(url, [Caller(url, name) for name in ("dov", "ruth", "marta", "pim")])
    ceiling = await crowd.read("/api/session", readers)
    top = len(ceiling.seconds)
    print(f"ceiling: {top / SECONDS:.0f} a second, p95 {ceiling.p(0.95):.0f} ms, {readers} readers")
    for name, path in (
        ("job answer", JOB),
        ("home page", f"/api/w/{WORKS}/yard"),
        ("catalogue", f"/api/w/{WORKS}/catalogue"),
        ("ladder", f"{JOB}/drawing/ladder.svg"),
    ):
        told = await crowd.read(path, readers)
        print(
            f"{name}: {len(told.seconds) / SECONDS:.0f} a second,"
            f" {100 * len(told.seconds) / top:.0f} % of the ceiling,"
            f" p95 {told.p(0.95):.0f} ms, {told.refused} refused"
        )
    await crowd.read(JOB, 1, 2.0)
    alone = await crowd.read(JOB, 1)
    until = time.perf_counter() + SECONDS
    beside, heavy = await asyncio.gather(crowd.read(JOB, 1), crowd.heavy(starters(400), until))
    print(
        f"one reader: p95 {alone.p(0.95):.1f} ms alone, {beside.p(0.95):.1f} ms beside {HEAVY}"
        f" people at checks ({beside.p(0.95) / alone.p(0.95):.2f} times); median"
        f" {alone.p(0.5):.1f} and {beside.p(0.5):.1f} ms; {len(heavy.seconds)} heavy answers,"
        f" {heavy.refused} refused, p95 {heavy.p(0.95):.0f} ms"
    )


if __name__ == "__main__":
    asyncio.run(main(sys.argv[1], int(sys.argv[2]) if len(sys.argv) > 2 else 200))
