"""The ways to pair the pieces of a nameplate's text, and the cheapest of them.

Plates are stamped figure first ("15 HP"), word first ("HP 15") or as a table.
The reader tries every way to pair the pieces, and keeps the one that leaves
the least unread and nothing implausible: a shortest path over the text.
"""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from typing import Any

from evencoil.base import CoreError, Message, OutOfRangeError
from evencoil.plate.model import Lexeme
from evencoil.plate.values import value_of
from evencoil.plate.vocabulary import FIELD_BY_NAME, FIELDS, FILLERS, FLAGS, NOTED, Field

__all__ = ["Piece", "Sets", "cheapest"]

_UNREAD, _WRONG, _UNUSUAL, _CROSSING, _PAIR = 5.0, 4.0, 2.5, 0.4, 0.05
_SIGNS = frozenset({"Y", "YY", "D", "DD", "Δ", "ΔΔ"})
_INSIDE = re.compile(r"\d\s?(V|A)(?:OLTS?|MPS?)?\s*(?:(?:ΔΔ|Δ|DD|D|YY|Y)\s*)?/", re.IGNORECASE)
Group = tuple[str, ...]


def _by_first_word(groups: Iterable[Group]) -> dict[str, list[Group]]:
    found: dict[str, list[Group]] = {}
    for group in groups:
        found.setdefault(group[0], []).append(group)
    return found


_BY_FIRST_WORD: dict[str, list[tuple[Group, Field]]] = {}
for _field in FIELDS:
    for _group in _field.words:
        _BY_FIRST_WORD.setdefault(_group[0], []).append((_group, _field))
_NOTED_BY_FIRST_WORD = _by_first_word(NOTED)
_FLAGS_BY_FIRST_WORD = _by_first_word(FLAGS)


@dataclass(frozen=True, slots=True)
class Piece:
    """One way to read some lexemes in a row."""

    length: int
    cost: float
    field: str
    value: Any = None
    error: CoreError | None = None
    whole: tuple[int, int] = (0, 0)


def _starts(words: Sequence[Lexeme], at: int, group: tuple[str, ...]) -> bool:
    run = words[at : at + len(group)]
    return len(run) == len(group) and all(
        item.kind == "word" and item.text == want for item, want in zip(run, group, strict=True)
    )


@dataclass(frozen=True, slots=True)
class Sets:
    """Two ratings of one field, for the two frequencies of a nameplate: ``230/460//190/380``."""

    first: Any
    second: Any


def _figure(field: Field, text: str, length: int, cost: float) -> Piece:
    try:
        first, _, second = text.partition("//")
        value, usual = value_of(field, first)
        if second:
            more, also = value_of(field, second)
            value, usual = Sets(value, more), usual and also
    except CoreError as error:
        return Piece(length, cost + _WRONG, field.name, error=error)
    return Piece(length, cost + (0 if usual else _UNUSUAL), field.name, value)


def _degree_word(items: Sequence[Lexeme], at: int) -> int:
    """Return 1 if the degree letter C stands there."""
    here = items[at : at + 1]
    return int(bool(here) and here[0].kind == "word" and here[0].text in {"C", "DEG"})


def _named(words: Sequence[Lexeme], at: int) -> Iterator[tuple[tuple[str, ...], Field]]:
    """Go through the fields whose words stand at a place."""
    if at < len(words) and words[at].kind == "word":
        for group, field in _BY_FIRST_WORD.get(words[at].text, ()):
            if len(group) == 1 or _starts(words, at, group):
                yield group, field


def _word_first(items: Sequence[Lexeme], at: int) -> Iterator[Piece]:
    for group, field in _named(items, at):
        after = at + len(group)
        cost = _PAIR
        if after < len(items) and items[after].kind == "separator":
            if items[after].text.strip("\r\n"):
                continue
            after, cost = after + 1, cost + _CROSSING
        value = items[after : after + 1]
        if not value:
            continue
        length = after + 1 - at
        if field.shape == "letter" and value[0].kind == "word":
            letter = value[0].text
            if len(letter) == 1 and letter in field.letters:
                yield Piece(length, cost, field.name, letter)
            elif len(letter) == 1 and field.name == "code_letter":
                wrong = OutOfRangeError(
                    Message("plate.letter", {"text": letter, "letters": field.letters}),
                    field=field.name,
                    hint=Message("plate.unlike.hint"),
                )
                yield Piece(length, cost + _WRONG, field.name, error=wrong)
        elif field.shape != "letter" and value[0].kind == "number":
            extra = _degree_word(items, after + 1) if field.shape == "degrees" else 0
            yield _figure(field, _joined(items, after, 1), length + extra, cost)
            if field.shape == "power" and _mixed(items, after):
                yield _figure(field, _joined(items, after, 2), length + 1, cost)


def _mixed(items: Sequence[Lexeme], at: int) -> bool:
    pair = items[at : at + 2]
    return len(pair) == 2 and all(item.kind == "number" for item in pair) and "/" in pair[1].text


def _joined(items: Sequence[Lexeme], at: int, count: int) -> str:
    return " ".join(item.text for item in items[at : at + count])


def _figure_first(items: Sequence[Lexeme], at: int) -> Iterator[Piece]:
    here = items[at]
    if here.kind == "word" and len(here.text) == 1:
        for group, field in _named(items, at + 1):
            is_said_so = field.shape == "letter" and group[0] in {"INS", "DESIGN", "CODE"}
            if is_said_so and here.text in field.letters:
                yield Piece(1 + len(group), 3 * _PAIR, field.name, here.text)
    if here.kind == "word" and here.text in _SIGNS:
        yield from _sign_first(items, at)
    if here.kind == "number":
        yield from _number_first(items, at)


def _sign_first(items: Sequence[Lexeme], at: int) -> Iterator[Piece]:
    """Read ``D 400 V``: the sign of the connection before the one voltage it belongs to."""
    figure = items[at + 1 : at + 2]
    if figure and figure[0].kind == "number" and "/" not in figure[0].text:
        for group, field in _named(items, at + 2):
            if field.name == "volts_v":
                yield _figure(field, f"{figure[0].text} {items[at].text}", 2 + len(group), _PAIR)


def _number_first(items: Sequence[Lexeme], at: int) -> Iterator[Piece]:
    """Read a number that comes before its word, or holds its unit inside."""
    inside = _INSIDE.search(items[at].text)
    if inside is not None and not any(_named(items, at + 1)):
        unit = inside[1].upper()[0]
        yield _figure(
            FIELD_BY_NAME["volts_v" if unit == "V" else "amps_a"], items[at].text, 1, 2 * _PAIR
        )
    for span in (1, 2) if _mixed(items, at) else (1,):
        after = at + span
        degrees = _degree_word(items, after)
        for skipped in {0, degrees}:
            for group, field in _named(items, after + skipped):
                if field.shape == "letter" or (span == 2 and field.shape != "power"):
                    continue
                if skipped and field.shape != "degrees":
                    continue
                length = span + skipped + len(group)
                yield _figure(field, _joined(items, at, span), length, _PAIR)
                sign = items[at + length : at + length + 1]
                if field.name == "volts_v" and sign and sign[0].text in _SIGNS:
                    said = f"{_joined(items, at, span)} {sign[0].text}"
                    yield _figure(field, said, length + 1, 3 * _PAIR)


def _noted(items: Sequence[Lexeme], at: int) -> Iterator[Piece]:
    for group in _NOTED_BY_FIRST_WORD.get(items[at].text, ()):
        if _starts(items, at, group):
            end = at + len(group)
            while end < len(items) and items[end].kind != "separator" and end - at < len(group) + 3:
                end += 1
                yield Piece(end - at, _PAIR + 0.6 * (end - at - len(group)), "noted")


def _pieces(items: Sequence[Lexeme], at: int) -> Iterator[Piece]:
    here = items[at]
    if here.kind == "separator":
        yield Piece(1, 0.0, "")
        return
    yield Piece(1, _UNREAD, "unread")
    if here.kind == "signs":
        signs = tuple(part.strip().replace("Δ", "D") for part in here.text.split("/"))
        yield Piece(1, _PAIR, "connection_signs", signs)
    for words in _FLAGS_BY_FIRST_WORD.get(here.text, ()):
        if _starts(items, at, words):
            name, value = FLAGS[words]
            yield Piece(len(words), _PAIR, name, value)
    if here.kind == "word" and here.text in FILLERS:
        yield Piece(1, 0.8, "filler")
    yield from _noted(items, at)
    yield from _word_first(items, at)
    yield from _figure_first(items, at)


def cheapest(items: Sequence[Lexeme]) -> list[tuple[int, Piece]]:
    """Return the pieces of the cheapest reading, with their places.

    Raises
    ------
    RuntimeError
        If a lexeme has no reading at all: a bug.
    """
    best: list[tuple[float, Piece | None]] = [(0.0, None)] * (len(items) + 1)
    for at in range(len(items) - 1, -1, -1):
        best[at] = min(
            ((piece.cost + best[at + piece.length][0], piece) for piece in _pieces(items, at)),
            key=lambda choice: choice[0],
        )
    way, at = [], 0
    while at < len(items):
        piece = best[at][1]
        if piece is None:
            raise RuntimeError("every lexeme has at least one reading")
        way.append((at, piece))
        at += piece.length
    return way
