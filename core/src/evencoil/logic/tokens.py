"""The words of a program: names, literals, operators, each with its place.

Source: IEC 61131-3, Structured Text; what the relay here takes of it is in docs/logic.md.
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from evencoil.logic.refusal import LogicError, Place

__all__ = ["MOST_CHARACTERS", "OTHER_WORDS", "TYPES", "WORDS", "Token", "name_key", "tokens"]

MOST_CHARACTERS = 262_144
MOST_IN_A_NAME = 64

TokenKind = Literal["word", "name", "address", "int", "real", "time", "typed", "symbol", "end"]

#: types of data and of blocks that a declaration may name
TYPES = frozenset(
    [
        "BOOL",
        "INT",
        "REAL",
        "TIME",
        "TON",
        "TOF",
        "TP",
        "CTU",
        "CTD",
        "CTUD",
        "R_TRIG",
        "F_TRIG",
        "SR",
        "RS",
    ]
)
#: reserved words of the relay here
WORDS = (
    frozenset(
        [
            "PROGRAM",
            "END_PROGRAM",
            "VAR",
            "VAR_INPUT",
            "VAR_OUTPUT",
            "RETAIN",
            "NON_RETAIN",
            "CONSTANT",
            "END_VAR",
            "AT",
            "IF",
            "THEN",
            "ELSIF",
            "ELSE",
            "END_IF",
            "CASE",
            "OF",
            "END_CASE",
            "TRUE",
            "FALSE",
            "AND",
            "OR",
            "XOR",
            "NOT",
            "MOD",
        ]
    )
    | TYPES
)
#: reserved by the standard and not taken here
OTHER_WORDS = frozenset(
    [
        "FOR",
        "TO",
        "BY",
        "DO",
        "END_FOR",
        "WHILE",
        "END_WHILE",
        "REPEAT",
        "UNTIL",
        "END_REPEAT",
        "EXIT",
        "RETURN",
        "CONTINUE",
        "VAR_IN_OUT",
        "VAR_GLOBAL",
        "VAR_EXTERNAL",
        "VAR_TEMP",
        "VAR_ACCESS",
        "VAR_CONFIG",
        "FUNCTION",
        "END_FUNCTION",
        "FUNCTION_BLOCK",
        "END_FUNCTION_BLOCK",
        "CONFIGURATION",
        "END_CONFIGURATION",
        "RESOURCE",
        "END_RESOURCE",
        "TASK",
        "ACTION",
        "END_ACTION",
        "STEP",
        "END_STEP",
        "INITIAL_STEP",
        "TRANSITION",
        "END_TRANSITION",
        "TYPE",
        "END_TYPE",
        "STRUCT",
        "END_STRUCT",
        "ARRAY",
        "CLASS",
        "END_CLASS",
        "METHOD",
        "END_METHOD",
        "INTERFACE",
        "END_INTERFACE",
        "NAMESPACE",
        "END_NAMESPACE",
        "USING",
        "R_EDGE",
        "F_EDGE",
        "READ_ONLY",
        "READ_WRITE",
        "PERSISTENT",
        "SINT",
        "DINT",
        "LINT",
        "USINT",
        "UINT",
        "UDINT",
        "ULINT",
        "LREAL",
        "BYTE",
        "WORD",
        "DWORD",
        "LWORD",
        "STRING",
        "WSTRING",
        "CHAR",
        "WCHAR",
        "DATE",
        "TIME_OF_DAY",
        "TOD",
        "DATE_AND_TIME",
        "DT",
        "LTIME",
        "LDATE",
        "LTOD",
        "LDT",
        "ANY",
        "POINTER",
        "REFERENCE",
        "REF_TO",
    ]
)
_SYMBOLS = (":=", "=>", "<=", ">=", "<>", "**", "..", *"()+-*/<>=&,;:.[]^")
_BLANK = re.compile(r"[ \t\r\n\f\v\ufeff]+")
_NAME = re.compile(r"[A-Za-z_][A-Za-z0-9_]*")
_ADDRESS = re.compile(r"%[A-Za-z0-9.]*")
_NUMBER = re.compile(r"[0-9][0-9A-Za-z_#]*")
_FRACTION = re.compile(r"\.[0-9][0-9A-Za-z_]*(?:(?<=[eE])[+-][0-9]+)?")
_TIME = re.compile(r"-?[0-9A-Za-z_.]*")
_TYPED = re.compile(r"[A-Za-z0-9_.]*")


@dataclass(frozen=True, slots=True)
class Token:
    """A word with its place; ``text`` of a reserved word is in capitals, of a name as written."""

    kind: TokenKind
    text: str
    place: Place


def name_key(name: str) -> str:
    """Return what two spellings of a name share: case does not tell names apart."""
    return name.upper()


class _Reader:
    """A text with a place in it."""

    def __init__(self, text: str) -> None:
        # one break for each line, whatever made it
        self.text = text.replace("\r\n", "\n").replace("\r", "\n")
        self.at = 0
        self.line = 1
        self.line_at = 0

    @property
    def place(self) -> Place:
        return self.line, self.at - self.line_at + 1

    def go(self, count: int) -> None:
        part = self.text[self.at : self.at + count]
        breaks = part.count("\n")
        if breaks:
            self.line += breaks
            self.line_at = self.at + part.rindex("\n") + 1
        self.at += count

    def skip(self) -> None:
        """Go on behind blanks and comments."""
        while True:
            blank = _BLANK.match(self.text, self.at)
            if blank:
                self.go(len(blank.group()))
            for opening, closing in (("(*", "*)"), ("/*", "*/")):
                if self.text.startswith(opening, self.at):
                    self._comment(opening, closing)
                    break
            else:
                if not self.text.startswith("//", self.at):
                    return
                end = self.text.find("\n", self.at)
                self.go((len(self.text) if end < 0 else end) - self.at)

    def _comment(self, opening: str, closing: str) -> None:
        """Go on behind a comment; one inside another of its own kind belongs to it."""
        place, depth, at = self.place, 0, self.at
        mark = re.compile(f"{re.escape(opening)}|{re.escape(closing)}")
        while True:
            found = mark.search(self.text, at)
            if found is None:
                raise LogicError("syntax", place, expected=closing, found=opening)
            depth += 1 if found.group() == opening else -1
            at = found.end()
            if depth == 0:
                break
        self.go(at - self.at)


def tokens(text: str) -> Iterator[Token]:
    """Go through the words of a text, the last of kind ``end``.

    Parameters
    ----------
    text : str
        A program.

    Raises
    ------
    LogicError
        At the first character that begins nothing, a comment that does not close, a literal or
        name that is malformed, or the first character too many.
    """
    reader = _Reader(text)
    if len(reader.text) > MOST_CHARACTERS:
        reader.go(MOST_CHARACTERS)
        raise LogicError(
            "limit", reader.place, expected=f"{MOST_CHARACTERS:,} characters", found="more"
        )
    last = reader.place
    while True:
        reader.skip()
        if reader.at >= len(reader.text):
            yield Token("end", "", last)
            return
        token, length = _token(reader)
        reader.go(length)
        last = reader.place
        yield token


def _token(reader: _Reader) -> tuple[Token, int]:
    text, at, place = reader.text, reader.at, reader.place
    found = _NAME.match(text, at)
    if found:
        return _word(reader, found.group())
    found = _NUMBER.match(text, at)
    if found:
        return _number(reader, found.group())
    found = _ADDRESS.match(text, at)
    if found:
        return Token("address", found.group(), place), len(found.group())
    for symbol in _SYMBOLS:
        if text.startswith(symbol, at):
            return Token("symbol", symbol, place), len(symbol)
    raise LogicError("syntax", place, found=text[at])


def _word(reader: _Reader, word: str) -> tuple[Token, int]:
    """Return a name, a reserved word, or a literal that begins with its type."""
    text, place, key = reader.text, reader.place, name_key(word)
    end = reader.at + len(word)
    if text.startswith("#", end):
        if key in {"T", "TIME"}:
            rest = _TIME.match(text, end + 1)
            told = rest.group() if rest else ""
            return Token("time", told, place), len(word) + 1 + len(told)
        rest = _TYPED.match(text, end + 1)
        told = rest.group() if rest else ""
        return Token("typed", f"{key}#{told.upper()}", place), len(word) + 1 + len(told)
    if key in WORDS or key in OTHER_WORDS:
        return Token("word", key, place), len(word)
    if "__" in word or word.endswith("_") or len(word) > MOST_IN_A_NAME:
        raise LogicError("syntax", place, expected="a name", found=word[:80])
    return Token("name", word, place), len(word)


def _number(reader: _Reader, told: str) -> tuple[Token, int]:
    """Return an integer, or a real with its fraction; ``3..5`` is two integers."""
    text, place = reader.text, reader.place
    end = reader.at + len(told)
    fraction = None if text.startswith("..", end) else _FRACTION.match(text, end)
    if fraction:
        told += fraction.group()
        return Token("real", told, place), len(told)
    return Token("int", told, place), len(told)
