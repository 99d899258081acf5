"""Practice instruments: what a meter would show on this job's own model, within its own error.

They read what is drawn and calculated, never a panel: nothing that they show is an entry, and
none of them proves anything dead.

Units: [ohm], [Mohm], [V], [A], [s], [rpm].
Source: usual accuracy of hand-held instruments (judgment): percent of reading, and digits.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from decimal import Decimal
from random import Random
from typing import Any

from evencoil.base import CoreError, Message

__all__ = ["StandIn", "stand_in"]


@dataclass(frozen=True, slots=True, kw_only=True)
class StandIn:
    """What a practice instrument shows, and how far off it may be."""

    value: str
    unit: str
    said: str


@dataclass(frozen=True, slots=True)
class _Meter:
    """An instrument: error in percent and in its last digit, and what it shows as open."""

    name: str
    percent: float
    digits: int
    step: Decimal
    most: float


_BENCH = _Meter("bench", 0.9, 2, Decimal("0.1"), 50e6)
_METERS: Mapping[str, _Meter] = {
    "dead_reading": _BENCH,
    "ground_continuity": _BENCH,
    "coil_ohms": _BENCH,
    "insulation_reading": _Meter("insulation", 5.0, 2, Decimal(1), 4000.0),
    "volts": _Meter("bench", 1.0, 3, Decimal("0.1"), 1000.0),
    "amps": _Meter("clamp", 2.0, 5, Decimal("0.1"), 1000.0),
    "start_amps": _Meter("clamp", 2.0, 5, Decimal("0.1"), 1000.0),
}
#: test leads that were not zeroed [ohm]
_LEADS_OHM = 0.2
#: a sound winding at 20 C; half for each 10 C more (judgment) [Mohm]
_SOUND_MOHM, _SOUND_C = 2000.0, 20.0


def stand_in(
    kind: str, expected: Mapping[str, Any] | None, draw: Random, temp_c: float = 20.0
) -> StandIn:
    """Return what a practice instrument shows.

    Parameters
    ----------
    kind : str
        Of the reading.
    expected : mapping or None
        Unit and bounds, or ``value``, of the reading on this job's model.
    draw : Random
        Where in its error it happens to read.
    temp_c : float
        Of the winding, for an insulation tester. [C]

    Raises
    ------
    CoreError
        If no practice instrument reads this, or the model has no figure for it.
    """
    if kind == "phase_sequence":
        return StandIn(value="L1-L2-L3", unit="", said=_say("sequence"))
    meter = _METERS.get(kind)
    if meter is None:
        raise CoreError(Message("stand_in.none"), field="kind", hint=Message("stand_in.none.hint"))
    true = _sound_mohm(temp_c) if kind == "insulation_reading" else _true(expected)
    if true is None:
        raise CoreError(
            Message("stand_in.unknown"), field="id", hint=Message("stand_in.unknown.hint")
        )
    unit = str((expected or {}).get("unit", "ohm"))
    if meter is _BENCH:
        true += _LEADS_OHM
    error = _say(
        f"{meter.name}.{'ohm' if meter is _BENCH else unit}",
        percent=f"{meter.percent:g}",
        digits=str(meter.digits),
    )
    if true > meter.most:
        return StandIn(value="OL", unit=unit, said=error)
    read = true * (1 + meter.percent / 100 * draw.uniform(-1, 1))
    shown = Decimal(repr(read)).quantize(meter.step) + meter.step * draw.randint(
        -meter.digits, meter.digits
    )
    return StandIn(value=f"{max(shown, Decimal(0)):f}", unit=unit, said=error)


def _say(name: str, **params: str) -> str:
    return str(Message(f"stand_in.{name}", params))


def _sound_mohm(temp_c: float) -> float:
    return float(_SOUND_MOHM * 2.0 ** ((_SOUND_C - temp_c) / 10))


def _true(expected: Mapping[str, Any] | None) -> float | None:
    """Return the figure of the model; between bounds of five times lies their estimate."""
    if expected is None:
        return None
    if "value" in expected:
        return float(expected["value"])
    least, most = expected.get("min"), expected.get("max")
    if most is None:
        return None if least is None else float("inf")
    low, high = float(least or 0), float(most)
    if low == 0.0:
        return 0.05
    return float((low * high) ** 0.5) if high > 2 * low else (low + high) / 2
