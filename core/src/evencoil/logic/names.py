"""What a name of a program means: an input, an output, a flag, a variable, a constant, a block."""

from __future__ import annotations

import re
from dataclasses import dataclass
from typing import Literal as OneOf

from evencoil.logic.model import Literal
from evencoil.logic.refusal import LogicError, Place
from evencoil.logic.tokens import name_key

__all__ = ["USUAL", "Points", "Symbol", "SymbolKind", "address_of", "point_of"]

SymbolKind = OneOf["input", "output", "flag", "variable", "constant", "block"]

_POINT = re.compile(r"(I|Q|AI)([1-9][0-9]{0,3})", re.IGNORECASE)
_ADDRESS = re.compile(
    r"%(?:(I|Q|M)X?([0-9]{1,4})\.([0-9]{1,4})|(I|Q|M)W([0-9]{1,4}))", re.IGNORECASE
)
#: bytes and words of flags
_FLAGS = 256


@dataclass(frozen=True, slots=True, kw_only=True)
class Points:
    """How many points a relay has: inputs, outputs, analog inputs."""

    inputs: int = 8
    outputs: int = 4
    analog: int = 2


#: a small relay
USUAL = Points()


@dataclass(frozen=True, slots=True, kw_only=True)
class Symbol:
    """A name as declared; ``slot`` is shared by all names of one point."""

    name: str
    kind: SymbolKind
    type: str
    slot: str
    initial: Literal | None = None
    is_retained: bool = False


def point_of(name: str, points: Points) -> Symbol | None:
    """Return the input or output of a name such as I1; None if the relay has none such.

    Parameters
    ----------
    name : str
        In any case.
    points : Points
        Of the relay.
    """
    found = _POINT.fullmatch(name)
    if found is None:
        return None
    letter, number = name_key(found.group(1)), int(found.group(2))
    most = {"I": points.inputs, "Q": points.outputs, "AI": points.analog}[letter]
    if number > most:
        return None
    return _point(letter, number)


def _point(letter: str, number: int) -> Symbol:
    said = f"{letter}{number}"
    return Symbol(
        name=said,
        kind="output" if letter == "Q" else "input",
        type="INT" if letter == "AI" else "BOOL",
        slot=said,
    )


def address_of(told: str, points: Points, place: Place) -> tuple[str, Symbol]:
    """Return an address in its usual form, and the point or flag it is.

    Parameters
    ----------
    told : str
        As written.
    points : Points
        Of the relay.
    place : tuple of int
        Where it stands.

    Raises
    ------
    LogicError
        ``syntax`` if it is none, ``range`` outside of the relay, ``unsupported`` for a kind that
        it has not.
    """
    found = _ADDRESS.fullmatch(told)
    if found is None:
        raise LogicError("syntax", place, expected="an address such as %IX0.0", found=told)
    if found.group(4):
        return _word_address(name_key(found.group(4)), int(found.group(5)), told, points, place)
    area, byte, bit = name_key(found.group(1)), int(found.group(2)), int(found.group(3))
    usual = f"%{area}X{byte}.{bit}"
    number = 8 * byte + bit + 1
    most = {"I": points.inputs, "Q": points.outputs, "M": 8 * _FLAGS}[area]
    if bit > 7 or number > most:
        raise LogicError("range", place, expected=f"{most} points of %{area}", found=told)
    if area == "M":
        return usual, Symbol(name=usual, kind="flag", type="BOOL", slot=usual)
    return usual, _point(area, number)


def _word_address(
    area: str, number: int, told: str, points: Points, place: Place
) -> tuple[str, Symbol]:
    usual = f"%{area}W{number}"
    if area == "Q":
        raise LogicError("unsupported", place, found=told)
    most = points.analog if area == "I" else _FLAGS
    if number >= most:
        raise LogicError("range", place, expected=f"{most} words of %{area}", found=told)
    if area == "M":
        return usual, Symbol(name=usual, kind="flag", type="INT", slot=usual)
    return usual, _point("AI", number + 1)
