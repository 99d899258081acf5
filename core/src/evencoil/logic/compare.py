"""Two texts of a program, line by line: what stayed, what went, what came."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from difflib import SequenceMatcher
from typing import Literal as OneOf

from evencoil.base import Message, OutOfRangeError

__all__ = ["ComparedLine", "compared"]

_MOST_LINES = 3000


@dataclass(frozen=True, slots=True)
class ComparedLine:
    """A line that both have (``same``), only the older (``gone``), or only the newer (``new``)."""

    what: OneOf["same", "gone", "new"]
    text: str


def compared(old: str, new: str) -> tuple[ComparedLine, ...]:
    """Return the lines of two programs in one order; blanks at a line's end do not tell them apart.

    Parameters
    ----------
    old : str
        As written.
    new : str
        As written, later.

    Raises
    ------
    OutOfRangeError
        If one has more lines than are compared.
    """
    lines = [[line.rstrip() for line in text.splitlines()] for text in (old, new)]
    for one in lines:
        if len(one) > _MOST_LINES:
            raise OutOfRangeError(
                Message("logic.compare", {"count": str(len(one)), "most": str(_MOST_LINES)}),
                field="program",
                hint=Message("logic.compare.hint"),
            )
    return tuple(_lines(*lines))


def _lines(old: list[str], new: list[str]) -> Iterator[ComparedLine]:
    for tag, start, end, from_, to in SequenceMatcher(None, old, new, autojunk=False).get_opcodes():
        if tag == "equal":
            yield from (ComparedLine("same", line) for line in old[start:end])
            continue
        yield from (ComparedLine("gone", line) for line in old[start:end])
        yield from (ComparedLine("new", line) for line in new[from_:to])
