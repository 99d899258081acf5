"""Reading a nameplate's text into its fields.

What stands beside the rating is set aside first (`asides`), a sheet of columns is taken apart
(`columns`), the rest is paired the cheapest way (`pieces`). What was read is then laid out by
rating: one for each frequency.
"""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field, replace
from decimal import Decimal
from typing import Any

from evencoil.base import CoreError, Finding, Message, OutOfRangeError
from evencoil.plate.asides import set_aside
from evencoil.plate.checks import cross_check, missing_fields
from evencoil.plate.columns import cells_in
from evencoil.plate.lexer import SAME, cut
from evencoil.plate.model import (
    Assumed,
    Band,
    DriveRange,
    Lexeme,
    Nameplate,
    PlateReading,
    Token,
    Usable,
)
from evencoil.plate.pieces import Sets, cheapest
from evencoil.plate.unlabelled import propose
from evencoil.plate.values import value_of
from evencoil.plate.vocabulary import ACCESSORIES, FIELD_BY_NAME, FIELDS

__all__ = ["MAX_LENGTH", "read"]

MAX_LENGTH = 4000
#: fields of a rating, which a nameplate for two frequencies gives twice
_RATED = (
    "power_hp",
    "power_kw",
    "volts_v",
    "amps_a",
    "speed_rpm",
    "power_factor_percent",
    "efficiency_percent",
    "connection_signs",
    "service_factor",
    "service_factor_amps_a",
)
_STAMPED_PER_VOLT = {"volts_v", "amps_a", "service_factor_amps_a"}
_FIELD_OF = {"".join(words): one.name for one in FIELDS for words in one.words}
_LETTER_O = re.compile(r"(?<=\d)O(?=[\dO]*(?:[\s/.,;-]|[VAHRW]|$))|(?<![A-Z\d])O(?=[.,]\d)")
_ILLEGIBLE = re.compile(
    r"(?P<label>(?<![\d?] )(?<![\d?])\b[A-Z]+(?:\.[A-Z]+)*\.?\s*[:=]?\s*)?"
    r"(?P<figure>[\d.,/]*\?[\d.,/?]*)"
    r"(?(label)|(?P<unit>\s*[A-Z]+)?)"
)


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


@dataclass(slots=True)
class _Seen:
    """Everything read so far: values in stamped order, their places, doubts and tokens."""

    text: str
    values: dict[str, list[Any]] = field(default_factory=dict)
    spans: dict[str, tuple[int, int]] = field(default_factory=dict)
    tokens: list[Token] = field(default_factory=list)
    findings: list[Finding] = field(default_factory=list)
    places: dict[str, list[tuple[int, int]]] = field(default_factory=dict)

    def token(self, span: tuple[int, int], **how: Any) -> None:
        start, end = span
        self.tokens.append(Token(start=start, end=end, text=self.text[start:end], **how))

    def value(self, name: str, value: Any, span: tuple[int, int]) -> None:
        self.values.setdefault(name, []).append(value)
        self.places.setdefault(name, []).append(span)
        self.spans.setdefault(name, span)

    def doubt(self, error: CoreError, name: str, span: tuple[int, int]) -> None:
        self.findings.append(
            Finding(
                code=error.code,
                level="doubt",
                field=name,
                message=error.message,
                hint=error.hint,
                spans=(span,),
            )
        )


def _twice(text: str, name: str) -> OutOfRangeError:
    return OutOfRangeError(
        Message("plate.twice", {"text": text[:60]}), field=name, hint=Message("plate.twice.hint")
    )


def _capitals(text: str) -> str:
    """Return a text in capitals, of the same length whatever the letters."""
    return "".join(
        sign.upper() if len(sign.upper()) == 1 else sign for sign in text.translate(SAME)
    )


def _corrected(text: str, seen: _Seen) -> str:
    """Return the text with the letter O typed for a zero corrected, and say so."""
    hits = list(_LETTER_O.finditer(text))
    if not hits:
        return text
    spans = tuple(hit.span() for hit in hits)
    seen.findings.append(
        Finding(
            code="letter_o",
            level="note",
            field="plate.text",
            message=Message("plate.letter_o", {"count": str(len(hits))}),
            hint=Message("plate.letter_o.hint"),
            spans=spans,
        )
    )
    return _LETTER_O.sub("0", text)


def _legible(text: str, seen: _Seen) -> str:
    """Return the text without figures of which a part could not be read."""
    for hit in _ILLEGIBLE.finditer(text):
        label = (hit["label"] or hit["unit"] or "").strip(" .:=")
        name = _FIELD_OF.get(label.replace(".", ""), "plate.text")
        span = hit.span() if name in FIELD_BY_NAME else hit.span("figure")
        said = Message("plate.illegible", {"text": seen.text[span[0] : span[1]].strip()[:40]})
        seen.token(span, status="doubted", field=name if name in FIELD_BY_NAME else "", note=said)
        seen.findings.append(
            Finding(
                code="illegible",
                level="doubt",
                field=name,
                message=said,
                hint=Message("plate.illegible.hint"),
                spans=(span,),
            )
        )
        text = f"{text[: span[0]]},{' ' * (span[1] - span[0] - 1)}{text[span[1] :]}"
    return text


def _beside(text: str, seen: _Seen) -> str:
    """Keep what stands beside the rating; return the rest of the text."""
    rest, asides = set_aside(text)
    for aside in asides:
        span = (aside.start, aside.end)
        names = [name for name, _ in aside.facts if name in Nameplate.__dataclass_fields__]
        seen.token(
            span,
            status="understood",
            field=names[0] if names and names[0] in FIELD_BY_NAME else "",
            note=None if names and names[0] in FIELD_BY_NAME else Message("plate.token.noted"),
        )
        for name, value in aside.facts:
            seen.value(name, value, span)
    return rest


def _sheet(text: str, seen: _Seen) -> tuple[str, list[Nameplate]]:
    """Read a sheet of columns; return the rest of the text and a rating for each column."""
    cells, (start, end) = cells_in(text)
    columns: dict[int, Nameplate] = {}
    for cell in cells:
        span = (cell.start, cell.end)
        try:
            value, _ = value_of(cell.field, cell.text)
        except CoreError as error:
            seen.token(span, status="doubted", field=cell.field.name, note=error.message)
            seen.doubt(error, cell.field.name, span)
            continue
        seen.token(span, status="understood", field=cell.field.name)
        seen.spans.setdefault(cell.field.name, span)
        setattr(columns.setdefault(cell.column, Nameplate()), cell.field.name, value)
    blank = re.sub(r"[^\n]", " ", text[start:end])
    return f"{text[:start]}{blank}{text[end:]}", list(columns.values())


def _paired(text: str, seen: _Seen) -> None:
    """Read what is left, piece by piece."""
    items = [item for item in cut(text) if item.kind != "glue"]
    for at, piece in cheapest(items):
        run: Sequence[Lexeme] = items[at : at + piece.length]
        span = (run[0].start, run[-1].end)
        if piece.field == "":
            continue
        if piece.field == "noted" and run[0].text in ACCESSORIES:
            seen.value("accessory", ACCESSORIES[run[0].text], span)
        if piece.field in {"unread", "filler", "noted"}:
            status = "unread" if piece.field == "unread" else "understood"
            seen.token(span, status=status, note=Message(f"plate.token.{piece.field}"))
        elif piece.error is not None:
            seen.token(span, status="doubted", field=piece.field, note=piece.error.message)
            seen.doubt(piece.error, piece.field, span)
        else:
            values = (
                (piece.value.first, piece.value.second)
                if isinstance(piece.value, Sets)
                else (piece.value,)
            )
            for value in values:
                seen.value(piece.field, value, span)
            seen.token(span, status="understood", field=piece.field)


def _once(seen: _Seen, name: str) -> Any:
    """Return the one value of a field; a second, different one is a doubt."""
    values = seen.values.get(name, [])
    if not values:
        return None
    for value, span in zip(values[1:], seen.places[name][1:], strict=True):
        if value != values[0]:
            seen.doubt(_twice(seen.text[span[0] : span[1]], name), name, span)
    return values[0]


def _common(seen: _Seen) -> Nameplate:
    """Return what is common to every rating."""
    words = seen.values.get("words", [])
    accessories = seen.values.get("accessory", [])
    phases = _once(seen, "phases")
    thermal = [kind for kind in seen.values.get("thermal", []) if kind]
    protectors = [kind for kind in thermal if kind in {"automatic", "manual", "impedance"}]
    first_thermal = next(iter((*protectors, *thermal)), None)
    one_of = {
        name: value
        for name in (
            "frame",
            "enclosure",
            "duty",
            "leads",
            "ambient_c",
            "insulation_class",
            "temperature_rise_c",
            "design_letter",
            "code_letter",
            "altitude",
            "max_safe_rpm",
            "minimum_circuit_ampacity_a",
            "maximum_overcurrent_a",
            "rated_load_amps_a",
            "selection_amps_a",
            "poles",
            "code_letters",
        )
        if (value := _once(seen, name)) is not None
    }
    if "code_letters" in one_of:
        one_of.setdefault("code_letter", one_of["code_letters"][0])
    return Nameplate(
        **one_of,
        phases=None if phases is None else int(phases),
        locked_rotor_amps_a=tuple(
            band for bands in seen.values.get("locked_rotor_amps_a", []) for band in bands
        ),
        words=tuple(dict.fromkeys(words)),
        accessories=tuple(dict.fromkeys(accessories)),
        thermal=None if first_thermal == "none" else first_thermal,
        usable=tuple(
            Usable(volts_v=volts, amps_a=amps) for volts, amps in seen.values.get("usable", [])
        ),
        secondary_v=next(iter(_once(seen, "secondary_v") or ()), None),
        secondary_a=next(iter(_once(seen, "secondary_a") or ()), None),
        field_v=_once(seen, "field_v") or (),
        field_a=_once(seen, "field_a") or (),
        field_ohm=_once(seen, "field_ohm") or (),
        drive_ranges=tuple(
            DriveRange(kind=kind, low_hz=low, high_hz=high, ratio=ratio)
            for kind, low, high, ratio in seen.values.get("drive_range", [])
        ),
        is_drive_only=bool(seen.values.get("drive_only")),
        is_premium_efficiency=bool(seen.values.get("premium")),
        marks=dict(seen.values.get("mark", [])),
        diagrams=tuple(seen.values.get("diagram", [])),
    )


def _hertz(seen: _Seen) -> list[Decimal]:
    """Return every frequency as often as it is stamped in a list of ratings."""
    values = [tuple(value) for value in seen.values.get("frequency_hz", [])]
    return [hz for value in values for hz in value]


def _take(value: Any, at: Sequence[int], count: int) -> Any:
    """Return the part of a list that belongs to one frequency, of a list as long as the ratings."""
    if isinstance(value, tuple) and len(value) == count:
        part = tuple(value[place] for place in at)
        return part[:1] if len(set(part)) == 1 and not isinstance(part[0], Band) else part
    return value


def _are_columns(volts: Sequence[tuple[Band, ...]], amps: Sequence[tuple[Band, ...]]) -> bool:
    """Tell whether voltages stamped one by one are columns: ``400 V D  690 V Y``, 14.3/8.3 A.

    Each then has its own sign, or one list of amps has an entry for each.
    """
    bands = [band for value in volts for band in value]
    if len(volts) < 2 or len(bands) != len(volts) or len({band.low for band in bands}) < len(bands):
        return False
    signs = [band.sign for band in bands]
    has_signs = all(signs) and len(set(signs)) == len(signs)
    return has_signs or (len(amps) == 1 and len(amps[0]) == len(bands))


def _merged(seen: _Seen, name: str, count: int) -> Any:
    """Join volts and amps stamped on lines of their own: ``400 V D 28 A`` and ``690 V Y 16 A``."""
    values, places = seen.values.get(name, []), seen.places.get(name, [])
    if len(values) > 1 and len(values) == count and all(len(set(value)) == 1 for value in values):
        return tuple(band for value in values for band in value)
    if name == "volts_v" and _are_columns(values, seen.values.get("amps_a", [])):
        return tuple(band for value in values for band in value)
    kept = [value for at, value in enumerate(values) if value not in values[:at]]
    for value, span in zip(values, places, strict=True):
        if value != kept[0]:
            seen.doubt(_twice(seen.text[span[0] : span[1]], name), name, span)
    return kept[0] if kept else ()


def _ratings(seen: _Seen, common: Nameplate, sheet: Sequence[Nameplate]) -> list[Nameplate]:
    """Return one rating for each frequency, in stamped order."""
    stamped = _hertz(seen)
    if sheet:
        return _from_sheet(seen, common, sheet)
    hertz = list(dict.fromkeys(stamped))
    if len(hertz) < 2:
        return [_one_rating(seen, replace(common, frequency_hz=tuple(hertz)))]
    has_own = len(seen.values.get("frequency_hz", [])) in {1, len(hertz)}
    found = []
    for place, hz in enumerate(hertz):
        plate = replace(common, frequency_hz=(hz,))
        at = [index for index, other in enumerate(stamped) if other == hz]
        for name in _RATED:
            values = seen.values.get(name, [])
            if len(values) == len(hertz) and has_own:
                setattr(plate, name, values[place])
            elif len(values) == 1:
                setattr(plate, name, _take(values[0], at, len(stamped)))
            elif values:
                setattr(plate, name, _merged(seen, name, 0))
        found.append(plate)
    return found


def _one_rating(seen: _Seen, plate: Nameplate) -> Nameplate:
    """Fill in the rating of a nameplate with one frequency."""
    pairs = min(len(seen.values.get(name, [])) for name in ("volts_v", "amps_a"))
    plate.service_factor = _once(seen, "service_factor")
    for name in _RATED:
        if name != "service_factor" and seen.values.get(name):
            wanted = pairs if name in {"volts_v", "amps_a"} else 0
            setattr(plate, name, _merged(seen, name, wanted))
    return plate


def _from_sheet(seen: _Seen, common: Nameplate, sheet: Sequence[Nameplate]) -> list[Nameplate]:
    """Return the ratings of a sheet: columns of one frequency are one rating at several volts."""
    by_hz: dict[tuple[Decimal, ...], Nameplate] = {}
    outside = _hertz(seen)
    for column in sheet:
        hz = column.frequency_hz or tuple(outside[:1])
        plate = by_hz.setdefault(hz, replace(common, frequency_hz=hz))
        for name in _RATED:
            value = getattr(column, name)
            if value in (None, ()):
                continue
            before = getattr(plate, name)
            if before in (None, ()) or name == "service_factor":
                setattr(plate, name, value)
            elif name in {"volts_v", "amps_a", "service_factor_amps_a"} or value not in (
                before,
                before[-1:],
            ):
                setattr(plate, name, (*before, *value))
    for plate in by_hz.values():
        for name in _RATED:
            if getattr(plate, name) in (None, ()) and seen.values.get(name):
                setattr(plate, name, seen.values[name][0])
    return list(by_hz.values())


def _fractions(plate: Nameplate, stamped: str) -> None:
    """Take ``1/4 HP`` as two powers where the plate names two speeds, and only there."""
    pair = re.search(r"(?<![\d/])(\d{1,2})/(\d{1,2})(?![\d/])", stamped)
    if pair and len(plate.power_hp) == 1 and plate.speeds == 2:
        plate.power_hp = (Decimal(pair[1]), Decimal(pair[2]))


def _signed(plate: Nameplate, sign: str | None) -> None:
    """Put the connection of a plate with one voltage beside that voltage."""
    if sign and len(plate.volts_v) == 1 and not plate.volts_v[0].sign:
        plate.volts_v = (replace(plate.volts_v[0], sign=sign),)


def _locked(plate: Nameplate, seen: _Seen) -> None:
    """Take locked amps as the rated current of a torque motor, and of no other."""
    for text in seen.values.get("locked_amps", []):
        bands = value_of(FIELD_BY_NAME["amps_a"], text)[0]
        if "torque_motor" in plate.words:
            plate.amps_a = bands
            plate.power_hp = plate.power_kw = ()
        else:
            plate.locked_rotor_amps_a = (*plate.locked_rotor_amps_a, *bands)


def _assume(plate: Nameplate, assumed: Sequence[Assumed]) -> list[Assumed]:
    """Put a person's guesses into fields that the nameplate leaves empty."""
    kept = []
    for item in assumed:
        field = FIELD_BY_NAME.get(item.field)
        if field is None:
            raise OutOfRangeError(
                Message("plate.assumed.unknown", {"field": item.field[:40]}),
                field="plate.assumed",
                hint=Message("plate.assumed.unknown.hint", {"fields": ", ".join(FIELD_BY_NAME)}),
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
    seen = _Seen(text)
    rest = _legible(_corrected(_capitals(text), seen), seen)
    rest, sheet = _sheet(rest, seen)
    rest = _beside(rest, seen)
    _paired(rest, seen)
    propose(seen.tokens, seen.value, seen.findings)
    plates = _ratings(seen, _common(seen), sheet)
    start, end = seen.spans.get("power_hp", (0, 0))
    for plate in plates:
        _fractions(plate, text[start:end])
        _signed(plate, next(iter(seen.values.get("one_sign", [])), None))
        _locked(plate, seen)
    plate = plates[0]
    if plate.phases is None and any(token.text.upper().endswith("VDC") for token in seen.tokens):
        for other in plates:
            other.phases = 0
    kept = _assume(plate, assumed)
    for other in plates[1:]:
        _assume(other, assumed)
    doubted = {finding.field for finding in seen.findings if finding.level == "doubt"}
    findings = [*seen.findings, *cross_check(plate, seen.spans)]
    tokens = sorted(seen.tokens, key=lambda token: token.start)
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
        tokens=_marked(tokens, findings),
        missing=missing_fields(plate, doubted),
        findings=tuple(findings),
        assumed=tuple(kept),
        others=tuple(plates[1:]),
        spans=seen.spans,
    )


def _marked(tokens: Iterable[Token], findings: Iterable[Finding]) -> tuple[Token, ...]:
    """Return the tokens with every one in doubt that a doubt points at."""
    marked = {span: found for found in findings if found.level == "doubt" for span in found.spans}
    return tuple(
        replace(token, status="doubted", note=marked[token.start, token.end].message)
        if token.status == "understood" and (token.start, token.end) in marked
        else token
        for token in tokens
    )
