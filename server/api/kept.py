"""What was calculated before, kept for every process that serves, by everything that decides it."""

from __future__ import annotations

import hashlib
import zlib
from collections.abc import Callable

from django.core.cache import caches

from api.recent import Recent

__all__ = ["keep", "kept", "kept_or_made", "key_for"]

#: of answers asked for last, what this process holds itself: so many, and none larger [byte]
_near: Recent[str, bytes] = Recent(200)
MOST_NEAR = 100_000


def key_for(kind: str, *decided_by: str) -> str:
    """Return the key of an answer: its kind, and a digest of everything that decides it."""
    digest = hashlib.sha256("\n".join(decided_by).encode()).hexdigest()
    return f"{kind}.{digest}"


def kept(key: str) -> bytes | None:
    """Return what is kept under a key, if anything is."""
    found = _near.get(key)
    if found is None:
        known = caches["answers"].get(key)
        if isinstance(known, bytes):
            found = zlib.decompress(known)
            _keep_near(key, found)
    return found


def keep(key: str, body: bytes) -> None:
    """Keep an answer."""
    caches["answers"].set(key, zlib.compress(body, 3))
    _keep_near(key, body)


def _keep_near(key: str, body: bytes) -> None:
    if len(body) <= MOST_NEAR:
        _near.keep(key, body)


def kept_or_made(key: str, make: Callable[[], bytes]) -> bytes:
    """Return what is kept under a key, or make and keep it; a refusal is not kept."""
    found = kept(key)
    if found is None:
        found = make()
        keep(key, found)
    return found
