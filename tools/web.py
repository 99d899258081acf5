"""The application server: processes that share one listening socket, each with buffered requests.

    tools/web.py PORT PROCESSES THREADS

A request is handed to a thread only when all of it has come, and an answer is taken off a thread
at once, however slowly it is read: a slow or silent client costs a connection and no worker. A
process that ends is started again, unless several in a row end at once.
"""

from __future__ import annotations

import os
import signal
import socket
import sys
import tempfile
import time
from pathlib import Path
from types import FrameType

from tied import tie

SERVER = Path(__file__).resolve().parents[1] / "server"
#: of one request, a little more than the application lets in
MOST_BODY, MOST_HEAD = 1_300_000, 32_768
#: connections of one process, and how long one may say nothing [s]
MOST_CONNECTIONS, SILENT_S = 600, 30
#: a process that lives less ended at once [s]; how often in a row one may, and when the next starts
LEAST_LIFE_S, MOST_AT_ONCE, AGAIN_S = 2.0, 8, 0.3


def serve(listening: socket.socket, threads: int) -> None:
    """Serve on a socket until the process is told to end."""
    sys.path.insert(0, str(SERVER))
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "config.settings")
    import waitress

    from config.wsgi import application
    from desk.answer import desk

    desk.open()
    # only behind HTTPS is there a proxy in front; its word for the client's address and scheme
    # counts, and nobody else's
    proxy = (
        {
            "trusted_proxy": os.environ.get("EVENCOIL_PROXY", "127.0.0.1"),
            "trusted_proxy_count": 1,
            "trusted_proxy_headers": {"x-forwarded-for", "x-forwarded-proto"},
        }
        if os.environ.get("EVENCOIL_HTTPS") == "1"
        else {}
    )
    waitress.serve(
        application,
        **proxy,
        clear_untrusted_proxy_headers=True,
        sockets=[listening],
        threads=threads,
        channel_timeout=SILENT_S,
        cleanup_interval=5,
        connection_limit=MOST_CONNECTIONS,
        max_request_body_size=MOST_BODY,
        max_request_header_size=MOST_HEAD,
        # a connection is read while its request is answered: one that closes is noticed
        channel_request_lookahead=2,
        ident=None,
        _quiet=True,
    )


def start(listening: socket.socket, threads: int) -> int:
    """Fork one serving process and return its id."""
    child = os.fork()
    if child:
        return child
    tie()
    signal.signal(signal.SIGTERM, lambda *_: sys.exit(0))
    signal.signal(signal.SIGINT, signal.SIG_IGN)
    # a fault leaves with its words, the call to end with 0
    serve(listening, threads)
    sys.exit(0)


def main(port: int, processes: int, threads: int) -> int:
    """Keep so many processes serving until told to end."""
    listening = socket.create_server(("127.0.0.1", port), backlog=512, reuse_port=False)
    listening.settimeout(0)
    stopping: list[int] = []

    def stop(number: int, frame: FrameType | None) -> None:
        del frame
        stopping.append(number)

    signal.signal(signal.SIGTERM, stop)
    signal.signal(signal.SIGINT, stop)
    # every process counts for itself; whoever asks for the figures adds them
    counts = tempfile.TemporaryDirectory(prefix="evencoil-counts-")
    os.environ["PROMETHEUS_MULTIPROC_DIR"] = counts.name
    alive = {start(listening, threads): time.monotonic() for _ in range(processes)}
    at_once = 0
    while alive and not stopping:
        try:
            ended, _ = os.waitpid(-1, os.WNOHANG)
        except ChildProcessError:
            break
        if not ended:
            time.sleep(0.2)
            continue
        lived = time.monotonic() - alive.pop(ended)
        at_once = at_once + 1 if lived < LEAST_LIFE_S else 0
        if at_once > MOST_AT_ONCE:
            print("even coil: server processes end at once", file=sys.stderr, flush=True)
            break
        if at_once:
            time.sleep(AGAIN_S)
        alive[start(listening, threads)] = time.monotonic()
    for child in alive:
        os.kill(child, signal.SIGTERM)
    for child in alive:
        try:
            os.waitpid(child, 0)
        except ChildProcessError:
            continue
    counts.cleanup()
    return 0 if stopping else 1


if __name__ == "__main__":
    sys.exit(main(int(sys.argv[1]), int(sys.argv[2]), int(sys.argv[3])))
