"""A nameplate no one trusts: for which volts the winding is made, with stated confidence.

Three kinds of evidence are put together, each with its spread: a supply the
motor is known to have run on, the winding's ohms, and the current at standstill
on reduced volts. Full volts stay forbidden until a test supports the answer.

Units: volts [V], resistance [ohm], amps [A], power [hp].
Source: locked-rotor kVA per hp of usual code letters (NEC Table 430.7(B), E to
L), stator copper loss as a part of input (textbook loss splits). The spreads
are judgment: check them against motors of the plant.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal
from math import exp, log, sqrt
from typing import Literal

from evencoil.base import Message, MissingError, OutOfRangeError
from evencoil.codebook import table

__all__ = ["Estimate", "TrustFacts", "VoltageOdds", "estimate_voltage"]

_RATIO_SPREAD = {"standstill": 0.16, "ohms": 0.32, "earlier": 0.08}
_LOCKED_KVA_PER_HP = 6.0
_SMALL_HP, _SMALL_KVA_PER_HP = 3.0, 8.5
_EFFICIENCY_TIMES_PF = 0.72
_PF = 0.83
_HIGH, _FAIR = 0.9, 0.6


@dataclass(frozen=True, slots=True, kw_only=True)
class TrustFacts:
    """What was read on a motor whose plate is not believed.

    Attributes
    ----------
    power_hp : Decimal
        By frame size or by the nameplate of a sister motor. [hp]
    frequency_hz : int
        50 or 60.
    earlier_supply_v : Decimal or None
        Line volts it is known to have run on. [V]
    winding_ohm : Decimal or None
        Between two lines, cold. [ohm]
    test_v, test_a : Decimal or None
        Reduced line volts and line current at standstill, rotor held. [V], [A]
    """

    power_hp: Decimal
    frequency_hz: int = 60
    earlier_supply_v: Decimal | None = None
    winding_ohm: Decimal | None = None
    test_v: Decimal | None = None
    test_a: Decimal | None = None


@dataclass(frozen=True, slots=True)
class VoltageOdds:
    """A usual voltage and how likely the evidence makes it (0 to 1)."""

    volts_v: Decimal
    odds: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Estimate:
    """The estimate, what it stands on, and what may be done.

    ``may_energize`` is True only where a test at reduced volts supports it.
    """

    odds: tuple[VoltageOdds, ...]
    confidence: Literal["high", "fair", "low"]
    may_energize: bool
    working: tuple[Message, ...]
    ways_out: tuple[Message, ...]


def _check(name: str, value: Decimal | None, most: int) -> None:
    if value is not None and not 0 < value <= most:
        raise OutOfRangeError(
            Message("trust.range", {"name": name, "value": f"{value:f}", "most": str(most)}),
            field=f"trust.{name}",
            hint=Message("trust.range.hint"),
        )


def _evidence(facts: TrustFacts) -> list[tuple[str, float, Message]]:
    """Return each kind of evidence as the volts it points at, with its sentence."""
    found = []
    hp = float(facts.power_hp)
    if facts.test_v is not None and facts.test_a is not None:
        ohm = float(facts.test_v) / (sqrt(3) * float(facts.test_a))
        per_hp = _SMALL_KVA_PER_HP if hp <= _SMALL_HP else _LOCKED_KVA_PER_HP
        volts = sqrt(per_hp * 1000 * hp * ohm)
        found.append(
            (
                "standstill",
                volts,
                Message(
                    "trust.standstill",
                    {
                        "test_v": f"{facts.test_v:f}",
                        "test_a": f"{facts.test_a:f}",
                        "ohm": f"{ohm:.3g}",
                        "kva": f"{per_hp:g}",
                        "hp": f"{facts.power_hp:f}",
                        "volts": f"{volts:.0f}",
                    },
                ),
            )
        )
    if facts.winding_ohm is not None:
        into = hp * 746 / (_EFFICIENCY_TIMES_PF / _PF)
        copper = max(0.012, min(0.09, 0.075 * hp**-0.32))
        # copper = 1.5 R I^2 / P_in with I = P_in / (sqrt 3 V pf)
        volts = sqrt(0.5 * float(facts.winding_ohm) * into / (_PF**2 * copper))
        found.append(
            (
                "ohms",
                volts,
                Message(
                    "trust.ohms",
                    {
                        "ohm": f"{facts.winding_ohm:f}",
                        "part": f"{copper * 100:.1f}",
                        "hp": f"{facts.power_hp:f}",
                        "volts": f"{volts:.0f}",
                    },
                ),
            )
        )
    if facts.earlier_supply_v is not None:
        volts = float(facts.earlier_supply_v)
        found.append(("earlier", volts, Message("trust.earlier", {"volts": f"{volts:.0f}"})))
    return found


def _usual(frequency_hz: int) -> list[Decimal]:
    book = table("standard_voltages")
    volts, hertz, phases = (book.column(name) for name in ("volts_v", "frequency_hz", "phases"))
    return [
        Decimal(volt)
        for volt, hz, phase in zip(volts, hertz, phases, strict=True)
        if hz == str(frequency_hz) and phase == "3"
    ]


def estimate_voltage(facts: TrustFacts) -> Estimate:
    """Return which usual voltage a winding is made for, and how sure that is.

    Parameters
    ----------
    facts : TrustFacts
        What was read.

    Returns
    -------
    Estimate
        Odds over the usual voltages of that frequency, the largest first.

    Raises
    ------
    MissingError
        If nothing was read that tells of volts.
    OutOfRangeError
        If a reading cannot be.
    """
    _check("power_hp", facts.power_hp, 1000)
    _check("earlier_supply_v", facts.earlier_supply_v, 15000)
    _check("winding_ohm", facts.winding_ohm, 10000)
    _check("test_v", facts.test_v, 1000)
    _check("test_a", facts.test_a, 5000)
    evidence = _evidence(facts)
    if not evidence:
        raise MissingError(
            Message("trust.nothing"), field="trust", hint=Message("trust.nothing.hint")
        )
    weights = []
    for volts in _usual(facts.frequency_hz):
        score = sum(
            (log(points_at / float(volts)) / _RATIO_SPREAD[kind]) ** 2 / 2
            for kind, points_at, _ in evidence
        )
        weights.append((volts, exp(-score)))
    total = sum(weight for _, weight in weights) or 1.0
    odds = tuple(
        sorted(
            (VoltageOdds(volts, weight / total) for volts, weight in weights),
            key=lambda item: -item.odds,
        )
    )
    nearest = min(
        max(
            abs(log(points_at / float(odds[0].volts_v))) / _RATIO_SPREAD[kind]
            for kind, points_at, _ in evidence
        ),
        9.9,
    )
    best = odds[0].odds if nearest < 2.5 else min(odds[0].odds, 0.5)
    confidence: Literal["high", "fair", "low"] = (
        "high" if best >= _HIGH else "fair" if best >= _FAIR else "low"
    )
    tested = any(kind == "standstill" for kind, _, _ in evidence)
    working = [message for _, _, message in evidence]
    if nearest >= 2.5:
        working.append(Message("trust.disagree"))
    working.append(
        Message(
            "trust.answer",
            {"volts": f"{odds[0].volts_v:f}", "percent": f"{best * 100:.0f}"},
        )
    )
    return Estimate(
        odds=odds,
        confidence=confidence,
        may_energize=tested and confidence == "high",
        working=tuple(working),
        ways_out=_ways_out(tested=tested, confidence=confidence),
    )


def _ways_out(*, tested: bool, confidence: str) -> tuple[Message, ...]:
    names: Sequence[str] = ("star_point", "transformer", "drive", "replace")
    first = () if tested and confidence == "high" else ("test",)
    return tuple(Message(f"trust.way.{name}") for name in (*first, *names))
