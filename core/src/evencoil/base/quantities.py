"""Numbers as people type them, conductor sizes, and how figures are shown.

Units are spelled out in names: ``_a _v _hp _kw _c``. Plate, table and factor
values are `Decimal`; comparisons with code limits are exact.
"""

from __future__ import annotations

import re
from dataclasses import dataclass
from decimal import ROUND_CEILING, ROUND_FLOOR, ROUND_HALF_EVEN, Decimal
from functools import lru_cache, total_ordering
from typing import Literal

from evencoil.base.errors import AmbiguousError, OutOfRangeError
from evencoil.base.words import Message

__all__ = ["LB_FT_PER_NM", "ROOT3", "SIZES", "ConductorSize", "exact", "number", "plain", "show"]

ROOT3 = Decimal(3).sqrt()
#: torque: pound-feet in a newton meter
LB_FT_PER_NM = 0.73756


_FRACTIONS = {
    "½": Decimal("0.5"),
    "¼": Decimal("0.25"),
    "¾": Decimal("0.75"),
    "⅓": Decimal("0.3333"),
    "⅔": Decimal("0.6667"),
    "⅙": Decimal("0.1667"),
    "⅛": Decimal("0.125"),
}
_GROUPED = re.compile(r"[1-9]\d{0,2},\d{3}")
_PLAIN = re.compile(r"[-+]?(\d+([.,]\d+)?|[.,]\d+)")
_THOUSANDS = re.compile(r"[1-9]\d{0,2}(,\d{3})+\.\d+|[1-9]\d{0,2}(,\d{3}){2,}")
MAX_FIGURE = Decimal(10) ** 9
_PLACES = Decimal("0.01")
#: decimals that are shown as they are, and digits of everything longer
_DECIMALS, _SIGNIFICANT = 4, 4


def number(text: str, *, field: str) -> Decimal:
    """Read one number as typed, with comma or point.

    Parameters
    ----------
    text : str
        For example ``38,6``, ``38.6``, ``½``, ``7½``, ``-3``.
    field : str
        The field it stands in, for the error.

    Returns
    -------
    Decimal
        The exact figure; never a NaN or an infinity.

    Raises
    ------
    AmbiguousError
        For ``1,250``: one thousand two hundred fifty, or one and a quarter?
    OutOfRangeError
        If it is no number, or larger than a thousand million.

    Examples
    --------
    >>> number("38,6", field="amps")
    Decimal('38.6')
    >>> number("7½", field="power_hp")
    Decimal('7.5')
    """
    raw = text.strip()
    if _GROUPED.fullmatch(raw):
        whole, thousandths = raw.split(",")
        raise AmbiguousError(
            Message(
                "number.two_ways",
                {"text": raw, "large": whole + thousandths, "small": f"{whole}.{thousandths}"},
            ),
            field=field,
            hint=Message("number.two_ways.hint"),
        )
    if _THOUSANDS.fullmatch(raw):
        raw = raw.replace(",", "")
    tail = _FRACTIONS.get(raw[-1:], Decimal(0))
    body = raw[:-1].strip() if tail else raw
    if tail and not body:
        return tail
    if not _PLAIN.fullmatch(body) or not body.isascii():
        raise OutOfRangeError(
            Message("number.unread", {"text": raw[:40]}),
            field=field,
            hint=Message("number.unread.hint"),
        )
    value = Decimal(body.replace(",", ".")) + tail
    if abs(value) >= MAX_FIGURE:
        raise OutOfRangeError(
            Message("number.too_large", {"text": raw[:40]}),
            field=field,
            hint=Message("number.unread.hint"),
        )
    return value


@lru_cache(maxsize=8192)
def exact(value: Decimal) -> str:
    """Return a number in full, without exponent and without trailing zeros.

    For files, netlists and evidence; `plain` is for reading.

    Parameters
    ----------
    value : Decimal
        Any finite figure.

    Returns
    -------
    str
        ``26.25``, ``35``; never ``3.5E+1``.
    """
    text = f"{value:f}"
    return text.rstrip("0").rstrip(".") if "." in text else text


@lru_cache(maxsize=8192)
def plain(value: Decimal) -> str:
    """Return a figure for reading: in full while it is short, else four significant digits.

    Parameters
    ----------
    value : Decimal
        Any finite figure; up to four decimals are what someone entered or a table holds.

    Returns
    -------
    str
        Without exponent and without trailing zeros.

    Examples
    --------
    >>> plain(Decimal("24.125")), plain(Decimal("50") / 480), plain(Decimal("75") * 5252 / 1780)
    ('24.125', '0.1042', '221.3')
    >>> plain(Decimal("33132.98374")), plain(Decimal("1250.00"))
    ('33133', '1250')
    """
    exponent = value.normalize().as_tuple().exponent
    if isinstance(exponent, int) and exponent < -_DECIMALS:
        places = min(0, value.adjusted() - _SIGNIFICANT + 1)
        value = value.quantize(Decimal(1).scaleb(places), rounding=ROUND_HALF_EVEN)
    return exact(value)


@lru_cache(maxsize=8192)
def show(value: Decimal, rounding: Literal["none", "limit", "minimum"] = "none") -> str:
    """Return a figure as a person reads it, to two places at most.

    Parameters
    ----------
    value : Decimal
        The full figure, which stays in the evidence.
    rounding : str
        ``limit`` rounds down, ``minimum`` rounds up, ``none`` to the nearest.

    Returns
    -------
    str
        For example ``89.28`` or ``26.25``.

    Examples
    --------
    >>> show(Decimal("2.0875"), "limit"), show(Decimal("76.6667"), "minimum")
    ('2.08', '76.67')
    """
    mode = {"limit": ROUND_FLOOR, "minimum": ROUND_CEILING, "none": ROUND_HALF_EVEN}[rounding]
    return exact(value.quantize(_PLACES, rounding=mode))


_AWG = ("18", "16", "14", "12", "10", "8", "6", "4", "3", "2", "1", "1/0", "2/0", "3/0", "4/0")
_KCMIL = (250, 300, 350, 400, 500, 600, 700, 750, 800, 900, 1000, 1250, 1500, 1750, 2000)
SIZES: tuple[str, ...] = _AWG + tuple(str(kcmil) for kcmil in _KCMIL)
_ORDER = {size: place for place, size in enumerate(SIZES)}


@total_ordering
@dataclass(frozen=True, slots=True)
class ConductorSize:
    """A conductor size, ordered from 18 AWG to 2000 kcmil; never a float.

    Examples
    --------
    >>> ConductorSize("1/0") > ConductorSize("2")
    True
    >>> str(ConductorSize("350"))
    '350 kcmil'
    """

    size: str

    def __post_init__(self) -> None:
        """Refuse a size that the tables do not know."""
        if self.size not in _ORDER:
            raise OutOfRangeError(
                Message("size.unknown", {"size": self.size[:20]}),
                field="conductor_size",
                hint=Message("size.unknown.hint", {"sizes": ", ".join(SIZES)}),
            )

    @property
    def unit(self) -> str:
        """``AWG`` up to 4/0, ``kcmil`` from 250 on."""
        return "AWG" if self.size in _AWG else "kcmil"

    def __str__(self) -> str:
        """Return size and unit."""
        return f"{self.size} {self.unit}"

    def __lt__(self, other: object) -> bool:
        """Order by the metal's area."""
        if not isinstance(other, ConductorSize):
            return NotImplemented
        return _ORDER[self.size] < _ORDER[other.size]
