"""What was calculated before, kept for every process that serves, by everything that decides it."""

from __future__ import annotations

import hashlib
import zlib
from collections.abc import Callable

from django.core.cache import caches

__all__ = ["keep", "kept", "kept_or_made", "key_for"]


def key_for(kind: str, *decided_by: str) -> str:
    """Return the key of an answer: its kind, and a digest of everything that decides it."""
    digest = hashlib.sha256("\n".join(decided_by).encode()).hexdigest()
    return f"{kind}.{digest}"


def kept(key: str) -> bytes | None:
    """Return what is kept under a key, if anything is."""
    known = caches["answers"].get(key)
    return zlib.decompress(known) if isinstance(known, bytes) else None


def keep(key: str, body: bytes) -> None:
    """Keep an answer."""
    caches["answers"].set(key, zlib.compress(body, 3))


def kept_or_made(key: str, make: Callable[[], bytes]) -> bytes:
    """Return what is kept under a key, or make and keep it; a refusal is not kept."""
    found = kept(key)
    if found is None:
        found = make()
        keep(key, found)
    return found
