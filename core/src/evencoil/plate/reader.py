"""Reading a nameplate's text: which piece is which field, at the least cost.

Plates are stamped figure first ("15 HP"), word first ("HP 15") or as a table.
The reader tries every way to pair the pieces, and keeps the one that leaves
the least unread and nothing implausible: a shortest path over the text.
"""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, replace
from typing import Any

from evencoil.base import CoreError, Finding, Message, OutOfRangeError
from evencoil.plate.checks import cross_check, missing_fields
from evencoil.plate.lexer import cut
from evencoil.plate.model import Assumed, Lexeme, Nameplate, PlateReading, Token
from evencoil.plate.values import value_of
from evencoil.plate.vocabulary import ACCESSORIES, FIELDS, FILLERS, FLAGS, NOTED, Field

__all__ = ["MAX_LENGTH", "read"]

MAX_LENGTH = 4000
_UNREAD, _WRONG, _UNUSUAL, _CROSSING, _PAIR = 5.0, 4.0, 2.5, 0.4, 0.05
_SIGNS = frozenset({"Y", "YY", "D", "DD", "Δ", "ΔΔ"})
_BY_NAME = {field.name: field for field in FIELDS}
_INSIDE = re.compile(r"\d\s?(V|A)(?:OLTS?|MPS?)?\s*(?:(?:ΔΔ|Δ|DD|D|YY|Y)\s*)?/", re.IGNORECASE)
#: fields of a rating, which a nameplate for two frequencies gives twice
_RATED = frozenset(
    {
        "power_hp",
        "power_kw",
        "volts_v",
        "amps_a",
        "speed_rpm",
        "frequency_hz",
        "power_factor_percent",
        "efficiency_percent",
        "connection_signs",
        "service_factor",
        "service_factor_amps_a",
    }
)
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
class _Piece:
    """One way to read some lexemes in a row."""

    length: int
    cost: float
    field: str
    value: Any = None
    error: CoreError | None = None
    whole: tuple[int, int] = (0, 0)


def _refuse_text(text: str) -> None:
    if len(text) > MAX_LENGTH:
        raise OutOfRangeError(
            Message("plate.too_long", {"length": str(len(text)), "most": str(MAX_LENGTH)}),
            field="plate.text",
            hint=Message("plate.too_long.hint"),
        )
    for place, sign in enumerate(text):
        if unicodedata.category(sign) in {"Cc", "Cs"} and sign not in "\n\r\t":
            raise OutOfRangeError(
                Message("text.control", {"place": str(place + 1), "sign": f"U+{ord(sign):04X}"}),
                field="plate.text",
                hint=Message("text.control.hint"),
            )


def _starts(words: Sequence[Lexeme], at: int, group: tuple[str, ...]) -> bool:
    run = words[at : at + len(group)]
    return len(run) == len(group) and all(
        item.kind == "word" and item.text == want for item, want in zip(run, group, strict=True)
    )


@dataclass(frozen=True, slots=True)
class _Sets:
    """Two ratings of one field, for the two frequencies of a nameplate: ``230/460//190/380``."""

    first: Any
    second: Any


def _figure(field: Field, text: str, length: int, cost: float) -> _Piece:
    try:
        first, _, second = text.partition("//")
        value, usual = value_of(field, first)
        if second:
            more, also = value_of(field, second)
            value, usual = _Sets(value, more), usual and also
    except CoreError as error:
        return _Piece(length, cost + _WRONG, field.name, error=error)
    return _Piece(length, cost + (0 if usual else _UNUSUAL), field.name, value)


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


def _word_first(items: Sequence[Lexeme], at: int) -> Iterator[_Piece]:
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
                yield _Piece(length, cost, field.name, letter)
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


def _figure_first(items: Sequence[Lexeme], at: int) -> Iterator[_Piece]:
    here = items[at]
    if here.kind == "word" and len(here.text) == 1:
        for group, field in _named(items, at + 1):
            is_said_so = field.shape == "letter" and group[0] in {"INS", "DESIGN", "CODE"}
            if is_said_so and here.text in field.letters:
                yield _Piece(1 + len(group), 3 * _PAIR, field.name, here.text)
    if here.kind == "number":
        yield from _number_first(items, at)


def _number_first(items: Sequence[Lexeme], at: int) -> Iterator[_Piece]:
    """Read a number that comes before its word, or holds its unit inside."""
    inside = _INSIDE.search(items[at].text)
    if inside is not None and not any(_named(items, at + 1)):
        unit = inside[1].upper()[0]
        yield _figure(
            _BY_NAME["volts_v" if unit == "V" else "amps_a"], items[at].text, 1, 2 * _PAIR
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


def _noted(items: Sequence[Lexeme], at: int) -> Iterator[_Piece]:
    for group in _NOTED_BY_FIRST_WORD.get(items[at].text, ()):
        if _starts(items, at, group):
            end = at + len(group)
            while end < len(items) and items[end].kind != "separator" and end - at < len(group) + 3:
                end += 1
                yield _Piece(end - at, _PAIR + 0.6 * (end - at - len(group)), "noted")


def _duty(items: Sequence[Lexeme], at: int) -> Iterator[_Piece]:
    """Read an IEC duty type: S1, or S3 with its percent."""
    pair = items[at : at + 3]
    if len(pair) < 2 or pair[0].kind != "word" or pair[0].text != "S" or pair[1].kind != "number":
        return
    if not pair[1].text.isdigit() or not 1 <= int(pair[1].text) <= 10:
        return
    kind = f"S{pair[1].text}"
    yield _Piece(2, _PAIR, "duty", "continuous" if kind == "S1" else kind)
    if kind != "S1" and len(pair) == 3 and pair[2].kind == "number":
        yield _Piece(3, 2 * _PAIR, "duty", f"{kind} {pair[2].text} %")


def _pieces(items: Sequence[Lexeme], at: int) -> Iterator[_Piece]:
    here = items[at]
    if here.kind == "separator":
        yield _Piece(1, 0.0, "")
        return
    yield _Piece(1, _UNREAD, "unread")
    if here.kind == "signs":
        signs = tuple(part.strip().replace("Δ", "D") for part in here.text.split("/"))
        yield _Piece(1, _PAIR, "connection_signs", signs)
    for words in _FLAGS_BY_FIRST_WORD.get(here.text, ()):
        if _starts(items, at, words):
            name, value = FLAGS[words]
            yield _Piece(len(words), _PAIR, name, value)
    if here.kind == "word" and here.text in FILLERS:
        yield _Piece(1, 0.8, "filler")
    yield from _noted(items, at)
    yield from _duty(items, at)
    yield from _word_first(items, at)
    yield from _figure_first(items, at)


def _cheapest(items: Sequence[Lexeme]) -> list[tuple[int, _Piece]]:
    """Return the pieces of the cheapest reading, with their places."""
    best: list[tuple[float, _Piece | None]] = [(0.0, None)] * (len(items) + 1)
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


def _keep(plate: Nameplate, field: str, value: Any) -> bool:
    """Put a value into its field; tell whether it contradicts one that is there."""
    if field == "thermal":
        plate.is_thermally_protected = True
        return True
    if field == "premium":
        plate.is_premium_efficiency = True
        return True
    if field == "words":
        plate.words = (*plate.words, value)
        return True
    if field == "phases":
        value = int(value)
    before = getattr(plate, field)
    if before in (None, ()) or before == value:
        setattr(plate, field, value)
        return True
    return False


def _direct(plate: Nameplate, tokens: Sequence[Token]) -> None:
    """Take VDC as a word for direct current, which has no phases."""
    if plate.phases is None and any(token.text.upper().endswith("VDC") for token in tokens):
        plate.phases = 0


def _second(plate: Nameplate, second: Nameplate) -> Nameplate:
    """Return the rating at the other frequency: what it gives itself, else what is common.

    Two frequencies in one pair (``60/50 HZ``) are shared out between the two.
    """
    if not second.frequency_hz and len(plate.frequency_hz) == 2:
        second.frequency_hz = plate.frequency_hz[1:]
        plate.frequency_hz = plate.frequency_hz[:1]
    own = {name: value for name in _RATED if (value := getattr(second, name)) not in (None, ())}
    if "volts_v" in own:
        own.setdefault("connection_signs", plate.connection_signs)
    return replace(plate, **own)


def _token(text: str, run: Sequence[Lexeme], **how: Any) -> Token:
    start, end = run[0].start, run[-1].end
    return Token(start=start, end=end, text=text[start:end], **how)


def _assume(plate: Nameplate, assumed: Sequence[Assumed]) -> list[Assumed]:
    """Put a person's guesses into fields that the nameplate leaves empty."""
    kept = []
    for item in assumed:
        field = _BY_NAME.get(item.field)
        if field is None:
            raise OutOfRangeError(
                Message("plate.assumed.unknown", {"field": item.field[:40]}),
                field="plate.assumed",
                hint=Message("plate.assumed.unknown.hint", {"fields": ", ".join(_BY_NAME)}),
            )
        if getattr(plate, field.name) not in (None, ()):
            continue
        if field.shape == "letter":
            letter = item.value.strip().upper()
            if len(letter) != 1 or letter not in field.letters:
                raise OutOfRangeError(
                    Message("plate.letter", {"text": item.value[:20], "letters": field.letters}),
                    field=f"plate.assumed.{field.name}",
                    hint=Message("plate.unlike.hint"),
                )
            setattr(plate, field.name, letter)
        else:
            setattr(plate, field.name, value_of(field, item.value)[0])
        kept.append(item)
    return kept


def read(text: str, assumed: Sequence[Assumed] = ()) -> PlateReading:
    """Read a nameplate as stamped.

    Parameters
    ----------
    text : str
        The nameplate as typed or pasted, at most `MAX_LENGTH` characters.
    assumed : sequence of Assumed
        Fields that cannot be read on the nameplate, put in by a person. What the
        plate says is never overruled by them.

    Returns
    -------
    PlateReading
        The nameplate, every piece of the text with its status, what is missing
        and what it costs, and the cross-checks.

    Raises
    ------
    CoreError
        If the text is too long or holds control characters, or an assumed
        value is no value of its field. Never for what a nameplate may say.

    Examples
    --------
    >>> reading = read("15 HP, 230/460 V, 38.6/19.3 A, 1765 RPM, 60 HZ, 3 PH")
    >>> reading.plate.power_hp, [str(band.low) for band in reading.plate.volts_v]
    ((Decimal('15'),), ['230', '460'])
    """
    _refuse_text(text)
    items = [item for item in cut(text) if item.kind != "glue"]
    plate, second = Nameplate(), Nameplate()
    has_second = False
    tokens: list[Token] = []
    findings: list[Finding] = []
    spans: dict[str, tuple[int, int]] = {}
    way = _cheapest(items)
    two_hertz = len({str(piece.value) for _, piece in way if piece.field == "frequency_hz"}) > 1
    for at, piece in way:
        run = items[at : at + piece.length]
        if piece.field == "":
            continue
        if piece.field == "noted" and run[0].text in ACCESSORIES:
            plate.accessories = tuple(dict.fromkeys((*plate.accessories, ACCESSORIES[run[0].text])))
        if piece.field in {"unread", "filler", "noted"}:
            status = "unread" if piece.field == "unread" else "understood"
            tokens.append(
                _token(text, run, status=status, note=Message(f"plate.token.{piece.field}"))
            )
            continue
        here = _token(text, run, status="understood", field=piece.field)
        span = (here.start, here.end)
        error, value = piece.error, piece.value
        if isinstance(value, _Sets):
            has_second = _keep(second, piece.field, value.second)
            value = value.first
        is_kept = error is None and _keep(plate, piece.field, value)
        if error is None and not is_kept and piece.field in _RATED and two_hertz:
            has_second = is_kept = _keep(second, piece.field, value)
        if error is None and not is_kept:
            error = OutOfRangeError(
                Message("plate.twice", {"text": here.text[:60]}),
                field=piece.field,
                hint=Message("plate.twice.hint"),
            )
        if error is None:
            spans.setdefault(piece.field, span)
            tokens.append(here)
            continue
        tokens.append(_token(text, run, status="doubted", field=piece.field, note=error.message))
        findings.append(
            Finding(
                code=error.code,
                level="doubt",
                field=piece.field,
                message=error.message,
                hint=error.hint,
                spans=(span,),
            )
        )
    other = _second(plate, second) if has_second else None
    kept = _assume(plate, assumed)
    doubted = {finding.field for finding in findings}
    findings += cross_check(plate, spans)
    marked = {span: found for found in findings if found.level == "doubt" for span in found.spans}
    tokens = [
        Token(
            start=token.start,
            end=token.end,
            text=token.text,
            status="doubted",
            field=token.field,
            note=marked[token.start, token.end].message,
        )
        if token.status == "understood" and (token.start, token.end) in marked
        else token
        for token in tokens
    ]
    _direct(plate, tokens)
    unread = [token for token in tokens if token.status == "unread"]
    if unread:
        findings.append(
            Finding(
                code="unread",
                level="note",
                field="plate.text",
                message=Message(
                    "plate.unread", {"text": " · ".join(token.text for token in unread)[:120]}
                ),
                hint=Message("plate.unread.hint"),
                spans=tuple((token.start, token.end) for token in unread),
            )
        )
    return PlateReading(
        text=text,
        plate=plate,
        tokens=tuple(tokens),
        missing=missing_fields(plate, doubted),
        findings=tuple(findings),
        assumed=tuple(kept),
        other=other,
        spans=spans,
    )
