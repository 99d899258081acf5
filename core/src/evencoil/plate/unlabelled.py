"""Figures typed off a plate without units, in the usual order: proposed, never taken silently.

Volts, amps, speed, frequency and phases stand in that order on most plates. Each figure that
fits is read as a proposal and put in doubt, so that a person looks at it.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from decimal import Decimal
from typing import Any

from evencoil.base import CoreError, Finding, Message
from evencoil.plate.model import Band, Token
from evencoil.plate.values import value_of
from evencoil.plate.vocabulary import FIELD_BY_NAME

__all__ = ["propose"]

_ORDER = ("volts_v", "amps_a", "speed_rpm", "frequency_hz", "phases")
_USUAL_VOLTS = {
    Decimal(volts)
    for volts in (115, 120, 200, 208, 220, 230, 240, 380, 400, 415, 440, 460, 480, 550, 575, 600)
}
_FEWEST = 3


def _fits(name: str, value: Any) -> bool:
    if name == "volts_v":
        return all({band.low, band.high} <= _USUAL_VOLTS for band in value)
    if name == "amps_a":
        return all(isinstance(band, Band) and band.high < 600 for band in value)
    if name == "speed_rpm":
        return all(400 <= rpm <= 3600 for rpm in value)
    if name == "frequency_hz":
        return bool(set(value) <= {Decimal(50), Decimal(60)})
    return value in {1, 3}


def propose(
    tokens: list[Token],
    keep: Callable[[str, Any, tuple[int, int]], None],
    findings: list[Finding],
) -> None:
    """Read figures without a unit by their order; each becomes a doubt.

    Parameters
    ----------
    tokens : list of Token
        The pieces read so far; a proposed one is put in doubt in place.
    keep : callable
        Takes field, value and place of a proposal.
    findings : list of Finding
        Takes the doubt of each proposal.
    """
    have = {token.field for token in tokens}
    bare = [
        at
        for at, token in enumerate(tokens)
        if token.status == "unread" and token.text[:1].isdigit()
    ]
    if len(bare) < _FEWEST or "volts_v" in have:
        return
    wanted = [name for name in _ORDER if name not in have]
    for at in bare:
        token = tokens[at]
        for place, name in enumerate(wanted):
            try:
                value, _ = value_of(FIELD_BY_NAME[name], token.text)
            except CoreError:
                continue
            if not _fits(name, value):
                continue
            wanted = wanted[place + 1 :]
            span = (token.start, token.end)
            said = Message("plate.no_unit", {"text": token.text[:40], "field": name})
            keep(name, value, span)
            findings.append(
                Finding(
                    code="no_unit",
                    level="doubt",
                    field=name,
                    message=said,
                    hint=Message("plate.no_unit.hint"),
                    spans=(span,),
                )
            )
            tokens[at] = replace(token, status="doubted", field=name, note=said)
            break
