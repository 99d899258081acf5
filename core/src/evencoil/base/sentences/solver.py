"""The sentences about the solver."""

from __future__ import annotations

__all__ = ["SENTENCES"]

SENTENCES: dict[str, str] = {
    "constants.unknown": "There is no set of constants called {name}.",
    "constants.unknown.hint": "Known: {names}.",
}
