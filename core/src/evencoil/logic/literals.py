"""What a literal is worth.

Units: TIME [ms].
"""

from __future__ import annotations

import math
import re
from decimal import Decimal

from evencoil.logic.model import Literal
from evencoil.logic.refusal import LogicError, Place
from evencoil.logic.tokens import TYPES, Token

__all__ = ["INT_MOST", "TIME_MOST", "in_range", "literal_of", "negated", "time_text"]

INT_MOST, TIME_MOST = 0x7FFF, 0x7FFF_FFFF
_DIGITS = {2: "01", 8: "01234567", 10: "0123456789", 16: "0123456789ABCDEF"}
_REAL = re.compile(r"[0-9]+(?:_[0-9]+)*\.[0-9]+(?:_[0-9]+)*(?:[eE][+-]?[0-9]+)?")
_UNITS = (("D", 86_400_000), ("H", 3_600_000), ("M", 60_000), ("S", 1000), ("MS", 1))
_PART = re.compile(r"([0-9]+(?:_[0-9]+)*(?:\.[0-9]+(?:_[0-9]+)*)?)(MS|D|H|M|S)", re.IGNORECASE)


def literal_of(token: Token) -> Literal | None:
    """Return the literal that a token is; None if it is none.

    Parameters
    ----------
    token : Token
        A word of a program.

    Raises
    ------
    LogicError
        If it is malformed, of a type that the relay has not, or out of its range. The magnitude of
        the lowest INT is taken: with its sign it is in range.
    """
    if token.kind == "word" and token.text in {"TRUE", "FALSE"}:
        return Literal("BOOL", token.text == "TRUE", token.text, token.place)
    if token.kind == "int":
        return _int(token.text, token.place)
    if token.kind == "real":
        return _real(token.text, token.place)
    if token.kind == "time":
        return _time(token.text, token.place)
    return _typed(token) if token.kind == "typed" else None


def negated(known: Literal) -> Literal:
    """Return a number with the sign turned.

    Parameters
    ----------
    known : Literal
        INT or REAL, not below zero.
    """
    return Literal(known.type, -known.value, f"-{known.text}", known.place)


def in_range(known: Literal) -> Literal:
    """Return a literal that stands without a sign in front of it.

    Parameters
    ----------
    known : Literal
        As it is written.

    Raises
    ------
    LogicError
        If it is the magnitude of the lowest INT, which needs its sign.
    """
    if known.type == "INT" and known.value > INT_MOST:
        raise LogicError("range", known.place, expected="-32768 to 32767", found=known.text)
    return known


def time_text(value_ms: int) -> str:
    """Return a duration as a program writes it.

    Parameters
    ----------
    value_ms : int
        [ms]
    """
    rest, parts = abs(value_ms), []
    for name, size in _UNITS:
        count, rest = divmod(rest, size)
        if count:
            parts.append(f"{count}{name.lower()}")
    return f"T#{'-' if value_ms < 0 else ''}{''.join(parts) or '0s'}"


def _malformed(place: Place, expected: str, found: str) -> LogicError:
    return LogicError("syntax", place, expected=expected, found=found[:80])


def _int(told: str, place: Place) -> Literal:
    base, _, digits = told.rpartition("#")
    radix = 10 if not base else int(base) if base in {"2", "8", "16"} else 0
    plain = digits.replace("_", "").upper()
    spaced = "__" in digits or digits.startswith("_") or digits.endswith("_")
    if not radix or not plain or spaced or not set(plain) <= set(_DIGITS[radix]):
        raise _malformed(place, "a number", told)
    value = int(plain, radix)
    if value > INT_MOST + 1:
        raise LogicError("range", place, expected="-32768 to 32767", found=told)
    return Literal("INT", value, told.upper(), place)


def _real(told: str, place: Place) -> Literal:
    if not _REAL.fullmatch(told):
        raise _malformed(place, "a number", told)
    value = float(told.replace("_", ""))
    if not math.isfinite(value):
        raise LogicError("range", place, expected="a finite number", found=told)
    return Literal("REAL", value, told.upper(), place)


def _time(told: str, place: Place) -> Literal:
    """Read units from the largest to the smallest, each once, a fraction on the last only."""
    text = f"T#{told.lower()}"
    sign, rest = (-1, told[1:]) if told.startswith("-") else (1, told)
    total, at, following = Decimal(0), 0, 0
    while at < len(rest):
        if at and rest[at] == "_":
            at += 1
        part = _PART.match(rest, at)
        if part is None:
            raise _malformed(place, "a duration such as T#1m30s", text)
        names = [name for name, _ in _UNITS]
        unit = names.index(part.group(2).upper())
        at = part.end()
        if unit < following or ("." in part.group(1) and at < len(rest)):
            raise _malformed(place, "units from large to small, each once", text)
        following = unit + 1
        total += Decimal(part.group(1).replace("_", "")) * _UNITS[unit][1]
    if following == 0:
        raise _malformed(place, "a duration such as T#1m30s", text)
    value = sign * total
    if value != int(value) or not -TIME_MOST - 1 <= value <= TIME_MOST:
        raise LogicError("range", place, expected="whole ms in 32 bits", found=text)
    return Literal("TIME", int(value), text, place)


def _typed(token: Token) -> Literal:
    kind, _, told = token.text.partition("#")
    if kind == "BOOL" and told in {"0", "1", "TRUE", "FALSE"}:
        return Literal("BOOL", told in {"1", "TRUE"}, token.text, token.place)
    if kind == "INT" and told[:1].isdigit():
        known = _int(told, token.place)
        return Literal("INT", known.value, token.text, token.place)
    if kind == "REAL" and told[:1].isdigit():
        known = _real(told, token.place)
        return Literal("REAL", known.value, token.text, token.place)
    if kind in TYPES:
        raise _malformed(token.place, f"a value of {kind}", token.text)
    raise LogicError("unsupported", token.place, found=kind)
