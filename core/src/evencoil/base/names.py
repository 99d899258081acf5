"""How a plant calls things: wye or star, across the line or direct on line, L1 or R.

The sentences of the core are written in American trade words, with lines L1 to L3. A plant
outside that territory sets its own; the words of a sentence then follow, never what a person
typed: a parameter changes only where it is nothing but names of lines.

Source: trade practice; line names by NEMA and IEC 60445 (L1 to L3) and by older practice
(R, Y, B after the colors red, yellow, blue).
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from dataclasses import dataclass
from functools import cache
from typing import Literal

__all__ = [
    "LineNames",
    "Names",
    "TradeTerms",
    "in_trade_terms",
    "is_usual",
    "line_said",
    "line_typed",
    "names_of",
    "speak",
    "speaking",
]

TradeTerms = Literal["american", "iec"]
LineNames = Literal["L1-L2-L3", "R-Y-B"]


@dataclass(frozen=True, slots=True)
class Names:
    """The plant's words for things, and its names of the three lines."""

    terms: TradeTerms = "american"
    lines: LineNames = "L1-L2-L3"


_DEFAULT = Names()
_NAMES: ContextVar[Names] = ContextVar("names", default=_DEFAULT)

#: American word, and what practice under IEC standards says
_IEC_TERMS = (
    ("three-pole manual motor starter", "three-pole motor protection circuit breaker (MPCB)"),
    ("manual motor starter", "motor protection circuit breaker (MPCB)"),
    ("across the line", "direct on line (DOL)"),
    ("at full voltage", "direct on line (DOL)"),
    ("full-voltage torque", "direct-on-line (DOL) torque"),
    ("circuit breaker", "circuit breaker (MCB, MCCB)"),
    ("wye", "star"),
)
_LINES = re.compile(r"(?<![\w.])L([123])(?!\w)")
_ONLY_LINES = re.compile(r"L[123]((, | and | or |[-/])L[123])*")


def _either_case(word: str, other: str) -> list[tuple[str, str]]:
    return [(word, other), (word[0].upper() + word[1:], other[0].upper() + other[1:])]


_IEC = dict(pair for word, other in _IEC_TERMS for pair in _either_case(word, other))
_ANY_TERM = re.compile(r"(?<![\w{])(" + "|".join(map(re.escape, _IEC)) + r")(?![\w}])")


def names_of() -> Names:
    """Return the names in use where this is called."""
    return _NAMES.get()


def is_usual() -> bool:
    """Tell whether the names in use are those that the sentences are written in."""
    return names_of() == _DEFAULT


@contextmanager
def speaking(names: Names) -> Iterator[None]:
    """Say every sentence inside in a plant's own names.

    Parameters
    ----------
    names : Names
        The plant's.
    """
    token = _NAMES.set(names)
    try:
        yield
    finally:
        _NAMES.reset(token)


def speak(names: Names) -> None:
    """Say every sentence from here on in a plant's own names, until `speaking` around it ends.

    Parameters
    ----------
    names : Names
        The plant's, once it is known whose answer this is.
    """
    _NAMES.set(names)


def in_trade_terms(text: str) -> str:
    """Return a text of our own in the words in use; a gap in braces stays as it is.

    Parameters
    ----------
    text : str
        American trade English.

    Examples
    --------
    >>> with speaking(Names("iec", "R-Y-B")):
    ...     in_trade_terms("Wye, across the line, {wye} on L1; KM1.1L1 stays.")
    'Star, direct on line (DOL), {wye} on R; KM1.1L1 stays.'
    """
    return text if is_usual() else _replaced(text, _NAMES.get())


@cache
def _replaced(text: str, names: Names) -> str:
    if names.terms == "iec":
        text = _ANY_TERM.sub(lambda found: _IEC[found[1]], text)
    return _lines_replaced(text, names)


def _lines_replaced(text: str, names: Names) -> str:
    if names.lines == "L1-L2-L3":
        return text
    said = names.lines.split("-")
    return _LINES.sub(lambda found: said[int(found[1]) - 1], text)


def line_said(text: str) -> str:
    """Return what a gap holds: names of lines as the plant has them, anything else untouched.

    Parameters
    ----------
    text : str
        For example ``L1`` or ``L1, L3``.
    """
    names = _NAMES.get()
    if names.lines == "L1-L2-L3" or not _ONLY_LINES.fullmatch(text):
        return text
    return _lines_replaced(text, names)


def line_typed(text: str) -> str:
    """Return the line that a person means, ``L1`` to ``L3``; anything else untouched.

    Parameters
    ----------
    text : str
        A name of a line as the plant has it, or as the supply itself has it.
    """
    said = _NAMES.get().lines.split("-")
    return f"L{said.index(text) + 1}" if text in said else text
