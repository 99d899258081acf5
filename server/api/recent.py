"""What was calculated last, kept by this process: bounded, nothing depends on it."""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Hashable
from threading import Lock
from typing import Generic, TypeVar

__all__ = ["Recent"]

Key = TypeVar("Key", bound=Hashable)
Value = TypeVar("Value")


class Recent(Generic[Key, Value]):
    """A bounded number of values by their key, those used last; threads may share it."""

    def __init__(self, most: int) -> None:
        self._most = most
        self._known: OrderedDict[Key, Value] = OrderedDict()
        self._lock = Lock()

    def get(self, key: Key) -> Value | None:
        """Return what is kept under a key, if anything is."""
        with self._lock:
            found = self._known.get(key)
            if found is not None:
                self._known.move_to_end(key)
            return found

    def take(self, key: Key) -> Value | None:
        """Take out what is kept under a key: nobody else meets it until it is kept again."""
        with self._lock:
            return self._known.pop(key, None)

    def keep(self, key: Key, value: Value) -> None:
        """Keep a value, and drop what was used longest ago."""
        with self._lock:
            self._known[key] = value
            self._known.move_to_end(key)
            while len(self._known) > self._most:
                self._known.popitem(last=False)
