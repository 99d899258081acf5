"""From a number expression to the value of a field.

`1/2` is half a horsepower but two voltages, so the meaning comes with the
field. What cannot be a value of that field is a `CoreError` of one field; the
reader turns it into a doubted token.
"""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import replace
from decimal import Decimal
from typing import Any

from evencoil.base import Message, OutOfRangeError, number, plain
from evencoil.plate.lexer import ATOM
from evencoil.plate.model import Band
from evencoil.plate.vocabulary import Field

__all__ = ["value_of"]

_UNITS = re.compile(
    r"\s?(?:VOLTS|VOLT|V|AMPS|AMP|A|HZ|RPM|KW|HP)(?=\s*(?:(?:ΔΔ|Δ|DD|D|YY|Y)\s*)?/)", re.IGNORECASE
)
_PART = re.compile(
    rf"(?P<led>ΔΔ|Δ|DD|D|YY|Y)?\s*(?P<low>{ATOM})(?:\s*[–-]\s*(?P<high>{ATOM}))?\s*(?P<sign>ΔΔ|Δ|DD|D|YY|Y)?",
    re.IGNORECASE,
)
_SIGN_LIST = re.compile(
    r"(?<=\d)\s+((?:ΔΔ|Δ|DD|D|YY|Y)(?:\s*/\s*(?:ΔΔ|Δ|DD|D|YY|Y))+)$", re.IGNORECASE
)
_MIXED = re.compile(r"(\d+)[\s-]+(\d+)/(\d+)")
_FRACTION = re.compile(r"(\d{1,2})/(\d{1,2})")
_HALVES = {4, 8, 16, 32}


def _unlike(text: str, field: str) -> OutOfRangeError:
    return OutOfRangeError(
        Message(f"plate.unlike.{field}", {"text": text[:40]}),
        field=field,
        hint=Message("plate.unlike.hint"),
    )


def _number(text: str, field: str) -> Decimal:
    """Read ``1,725 RPM`` and ``4,160 V`` as thousands: no motor turns at 1.725 rpm."""
    if field in {"speed_rpm", "volts_v"}:
        text = re.sub(r"^(\d{1,2}),(\d{3})$", r"\1\2", text)
    return number(text, field=field)


def _bands(text: str, field: str) -> tuple[Band, ...]:
    bands = []
    text, signs = _signs_apart(_UNITS.sub("", text))
    for part in text.split("/"):
        match = _PART.fullmatch(part.strip())
        if match is None:
            raise _unlike(text, field)
        low = _number(match["low"], field)
        high = _number(match["high"], field) if match["high"] else low
        sign = (match["sign"] or match["led"] or "").upper().replace("Δ", "D")
        bands.append(Band(min(low, high), max(low, high), sign, is_falling=high < low))
    if signs and len(signs) == len(bands):
        bands = [replace(band, sign=sign) for band, sign in zip(bands, signs, strict=True)]
    return tuple(bands)


def _signs_apart(text: str) -> tuple[str, list[str]]:
    """Part ``230/400 D/Y`` into the figures and the connection of each."""
    pair = _SIGN_LIST.search(text)
    if pair is None:
        return text, []
    signs = re.split(r"\s*/\s*", pair[1].upper().replace("Δ", "D"))
    return text[: pair.start()], signs


def _figures(text: str, field: str) -> tuple[Decimal, ...]:
    bands = _bands(text, field)
    if field == "speed_rpm" and len(bands) == 1 and not bands[0].sign:
        # a direct-current motor's base speed and its top speed by weakened field
        return tuple(dict.fromkeys((bands[0].first, bands[0].last)))
    if any(band.low != band.high or band.sign for band in bands):
        raise _unlike(text, field)
    return tuple(band.low for band in bands)


def _power(text: str, field: str) -> tuple[Decimal, ...]:
    """Read ``15``, ``7-1/2``, ``1/2``, ``7½``; ``10/5`` is two speeds."""
    raw = text.strip()
    if mixed := _MIXED.fullmatch(raw):
        whole, top, bottom = (Decimal(part) for part in mixed.groups())
        if 0 < top < bottom:
            return (whole + (top / bottom).quantize(Decimal("0.0001")).normalize(),)
    if fraction := _FRACTION.fullmatch(raw):
        top, bottom = Decimal(fraction[1]), Decimal(fraction[2])
        is_fraction = top == 1 or (bottom in _HALVES and top % 2) or f"{top}/{bottom}" == "2/3"
        if 0 < top < bottom and is_fraction:
            return ((top / bottom).quantize(Decimal("0.0001")).normalize(),)
    return _figures(text, field)


def _single(text: str, field: str) -> Decimal:
    figures = _figures(text, field)
    if len(figures) != 1:
        raise _unlike(text, field)
    return figures[0]


def _count(text: str, field: str) -> int:
    figure = _single(text, field)
    if figure != figure.to_integral_value():
        raise _unlike(text, field)
    return int(figure)


def _percents(text: str, field: str) -> tuple[Decimal, ...]:
    return tuple(
        figure * 100 if figure <= 1 else figure
        for figure in _figures(text.removesuffix("%"), field)
    )


_SHAPES: dict[str, Callable[[str, str], Any]] = {
    "power": _power,
    "bands": _bands,
    "figures": _figures,
    "count": _count,
    "factor": _single,
    "degrees": _single,
    "percents": _percents,
}


def _all_figures(value: Any) -> list[Decimal]:
    if isinstance(value, tuple):
        return [figure for item in value for figure in _all_figures(item)]
    if isinstance(value, Band):
        return [value.low, value.high]
    return [Decimal(value)]


def value_of(field: Field, text: str) -> tuple[Any, bool]:
    """Return the value of a field, and whether it is a usual one.

    Parameters
    ----------
    field : Field
        What the words said it is.
    text : str
        The number expression, such as ``208-230/460``.

    Returns
    -------
    tuple
        The value in the shape of the field, and False if it is possible but
        not usual (so that another reading of the text is preferred).

    Raises
    ------
    CoreError
        If it cannot be a value of this field: a sign, a range, two figures
        where one belongs, zero, below zero, absurdly large.
    """
    raw = text.strip()
    if raw.startswith("-") and field.low >= 0:
        raise OutOfRangeError(
            Message("plate.below_zero", {"text": raw[:40]}),
            field=field.name,
            hint=Message("plate.unlike.hint"),
        )
    sign = -1 if raw.startswith("-") else 1
    value = _SHAPES[field.shape](raw.removeprefix("-"), field.name)
    if sign < 0:
        value = -value
    figures = _all_figures(value)
    zero_ok = field.shape == "degrees"
    for figure in figures:
        if figure > field.high or figure < field.low or (figure == 0 and not zero_ok):
            raise OutOfRangeError(
                Message(
                    "plate.out_of_range",
                    {
                        "text": raw[:40],
                        "figure": plain(figure),
                        "low": plain(field.low),
                        "high": plain(field.high),
                    },
                ),
                field=field.name,
                hint=Message("plate.unlike.hint"),
            )
    if len(figures) > (8 if field.several else 1):
        raise _unlike(raw, field.name)
    usual = field.usual is None or all(
        field.usual[0] <= figure <= field.usual[1] for figure in figures
    )
    return value, usual
