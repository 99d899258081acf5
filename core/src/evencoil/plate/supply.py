"""The supply, as it is called ("480Y/277"), and which plate column it uses.

A nominal system voltage stands above the motor voltage that belongs to it: a
480 V system feeds 460 V motors. Sources: ANSI C84.1 (nominal systems), NEMA
MG 1 12.45 (motors work within 10 % of rated volts).
"""

from __future__ import annotations

import re
import unicodedata
from dataclasses import dataclass
from decimal import Decimal
from functools import partial
from typing import Literal

from evencoil.base import (
    ROOT3,
    Finding,
    Message,
    OutOfRangeError,
    RefusedError,
    finding,
    number,
    plain,
    show,
)
from evencoil.plate.model import Band, Nameplate

__all__ = ["Supply", "Verdict", "judge", "read_supply"]

System = Literal[
    "wye",
    "delta",
    "high_leg",
    "corner_grounded",
    "single_phase",
    "direct",
    "converter",
    "drive",
    "unsaid",
]
_MAX_LENGTH = 200
_TOLERANCE = Decimal("0.10")
_SAME_VOLTS = 3
_NUMBER = r"\d[\d.,]*"
_PAIR = re.compile(
    rf"(?P<first>-?{_NUMBER})\s*V?\s*(?P<sign>ΔΔ?|D|Y|WYE|STAR|DELTA)?\s*/\s*(?P<second>{_NUMBER})\s*"
    r"V?(?![A-Z\d])(?!\s*HZ)",
)
_ONE = re.compile(rf"(?P<first>-?{_NUMBER})\s*(?:VOLTS|VOLT|VAC|V)?(?!\s*(?:HZ|PH|Ø|Φ|-?\s*PHASE))")
_HZ = re.compile(rf"(?P<hz>-?{_NUMBER})\s*HZ")
_DIRECT = re.compile(r"(?:(?<=\d)|\b)V?\s*V?DC\b|DIRECT CURRENT")
_PHASES = re.compile(r"(?P<n>\d+)\s*-?\s*(?:PHASE|PH|Ø|Φ)|(?P<word>SINGLE|THREE)[\s-]*PHASE")


@dataclass(frozen=True, slots=True, kw_only=True)
class Supply:
    """A supply system.

    Attributes
    ----------
    line_volts_v : Decimal
        Nominal volts between lines. [V]
    ground_volts_v : Decimal or None
        Nominal volts from line to ground where the name says it. [V]
    frequency_hz : Decimal
        60 unless the text says otherwise. [Hz]
    is_frequency_assumed : bool
        True if the text does not give it.
    are_phases_assumed : bool
        True if neither a number of phases nor the system tells them.
    """

    text: str
    line_volts_v: Decimal
    ground_volts_v: Decimal | None
    phases: int
    frequency_hz: Decimal
    is_frequency_assumed: bool
    system: System
    are_phases_assumed: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class Verdict:
    """Which plate column this supply uses.

    ``column`` counts the nameplate's volts from 0; ``plate_volts`` is that band;
    ``used_volts_v`` are the volts of the supply that the motor takes. [V]
    """

    column: int
    plate_volts: Band
    used_volts_v: Decimal
    findings: tuple[Finding, ...]


def _unread(text: str) -> OutOfRangeError:
    return OutOfRangeError(
        Message("supply.unread", {"text": text[:40]}),
        field="supply.text",
        hint=Message("supply.unread.hint"),
    )


def _volts(text: str) -> Decimal:
    value = number(text, field="supply.text")
    if not 0 < value <= 15000:
        raise OutOfRangeError(
            Message("supply.volts", {"volts": plain(value)}),
            field="supply.text",
            hint=Message("supply.volts.hint"),
        )
    return value


def _phases(found: re.Match[str] | None) -> int | None:
    if found is None:
        return None
    if found["word"]:
        return 1 if found["word"] == "SINGLE" else 3
    if found["n"] not in {"1", "3"}:
        raise OutOfRangeError(
            Message("supply.phases", {"phases": found["n"][:12]}),
            field="supply.text",
            hint=Message("supply.phases.hint"),
        )
    return int(found["n"])


def _shape(
    text: str, first: Decimal, second: Decimal | None, sign: str
) -> tuple[Decimal, Decimal | None, System]:
    """Return volts between lines, to ground, and the system."""
    if second is None:
        system: System = "unsaid"
        if re.search(r"Y\b|WYE|STAR", text):
            system = "wye"
        elif re.search(r"CORNER", text):
            system = "corner_grounded"
        elif re.search(r"DELTA|Δ|\d\s*D\b", text):
            system = "delta"
        return first, None, system
    high, low = max(first, second), min(first, second)
    ratio = high / low
    if Decimal("1.70") <= ratio <= Decimal("1.76"):
        return high, low, "wye"
    if Decimal("1.9") <= ratio <= Decimal("2.1"):
        if "HIGH" in text or "DELTA" in text or sign.startswith(("D", "Δ")):
            return high, low, "high_leg"
        return high, low, "single_phase"
    raise RefusedError(
        Message("supply.pair", {"high": plain(high), "low": plain(low), "ratio": show(ratio)}),
        field="supply.text",
        hint=Message("supply.pair.hint", {"ground": show(high / ROOT3)}),
    )


def _made(text: str) -> System | None:
    """Return converter or drive where the text names one."""
    if re.search(r"CONVERTER|MADE LEG", text):
        return "converter"
    return "drive" if re.search(r"\bDRIVE\b|\bVFD\b|INVERTER", text) else None


#: nominal volts of systems of 50 Hz, where the name does not give a frequency [V]
_USUAL_AT_50 = frozenset(Decimal(volts) for volts in (380, 400, 415, 660, 690))


def _hertz(found: re.Match[str] | None, line: Decimal) -> Decimal:
    if found is None:
        return Decimal(50) if line in _USUAL_AT_50 else Decimal(60)
    hz = number(found["hz"], field="supply.text")
    if hz not in {Decimal(50), Decimal(60)}:
        raise OutOfRangeError(
            Message("supply.hertz", {"hz": plain(hz)}),
            field="supply.text",
            hint=Message("supply.hertz.hint"),
        )
    return hz


def _fed(
    text: str, line: Decimal, system: System, phases: int | None, *, is_direct: bool
) -> tuple[int, System]:
    """Return how many phases there are, 0 for direct current, and the system."""
    if is_direct:
        return 0, "direct"
    made = _made(text)
    if made is not None:
        # three phases, made from one or from a bus: whatever feeds it
        return 3, made
    if phases is None:
        is_three = system in {"wye", "delta", "high_leg", "corner_grounded"}
        phases = 1 if not is_three and (system == "single_phase" or line <= 120) else 3
    if phases == 1 and system in {"delta", "unsaid"}:
        return phases, "single_phase"
    if phases == 3 and system == "single_phase":
        return phases, "high_leg"
    return phases, system


def read_supply(text: str) -> Supply:
    """Read the name of a supply system.

    Parameters
    ----------
    text : str
        For example ``480Y/277``, ``240 delta``, ``208Y/120``, ``120/240 1PH``,
        ``240/120 high leg``, ``415Y/240 50Hz``,
        ``240 phase converter``, ``460 drive``.

    Returns
    -------
    Supply
        With the frequency assumed, and marked so, if it is not said: 50 Hz at 380, 400, 415,
        660 and 690 V, else 60 Hz.

    Raises
    ------
    CoreError
        If it holds no volts, volts of zero or below, a pair that belongs to no
        system, or a number of phases other than 1 or 3.

    Examples
    --------
    >>> supply = read_supply("480Y/277")
    >>> str(supply.line_volts_v), supply.system, supply.phases
    ('480', 'wye', 3)
    """
    if len(text) > _MAX_LENGTH:
        raise _unread(text)
    for sign in text:
        if unicodedata.category(sign) in {"Cc", "Cs"}:
            raise _unread(f"U+{ord(sign):04X}")
    same = text.upper().replace("VOLTS", "V").replace("PHASE CONVERTER", "CONVERTER")
    is_direct = _DIRECT.search(same) is not None
    same = _DIRECT.sub(" ", same)
    hz_found, phase_found = _HZ.search(same), _PHASES.search(same)
    rest = _PHASES.sub(" ", _HZ.sub(" ", same))
    pair = _PAIR.search(rest)
    one = pair or _ONE.search(rest)
    if one is None:
        raise _unread(text)
    first = _volts(one["first"].rstrip(".,"))
    second = _volts(pair["second"].rstrip(".,")) if pair else None
    line, ground, system = _shape(rest, first, second, (pair["sign"] or "") if pair else "")
    hz = _hertz(hz_found, line)
    phases, system = _fed(rest, line, system, _phases(phase_found), is_direct=is_direct)
    return Supply(
        text=text.strip(),
        line_volts_v=line,
        ground_volts_v=None if is_direct else ground,
        phases=phases,
        frequency_hz=hz,
        is_frequency_assumed=hz_found is None and not is_direct,
        system=system,
        are_phases_assumed=phase_found is None and system == "unsaid",
    )


def _off(band: Band, volts: Decimal) -> Decimal:
    """Return how far volts lie outside a band, as a signed part of its nearer end."""
    if band.holds(volts):
        return Decimal(0)
    end = band.low if volts < band.low else band.high
    return (volts - end) / end


_finding = partial(finding, "verdict", "supply.text")


def _hertz_ratio(plate: Nameplate, supply: Supply) -> Decimal:
    """Return the nameplate's frequency over the supply's; 1 where they agree or one is missing."""
    if not plate.frequency_hz or plate.phases == 0 or supply.phases == 0:
        return Decimal(1)
    if supply.frequency_hz in plate.frequency_hz or supply.system == "drive":
        return Decimal(1)
    return plate.frequency_hz[0] / supply.frequency_hz


def _frequency(
    plate: Nameplate, supply: Supply, band: Band, used: Decimal, ratio: Decimal
) -> list[Finding]:
    """Compare frequencies; where they differ, volts per hertz decide how bad it is."""
    if ratio == 1:
        return []
    rated = (band.low + band.high) / 2
    part = used * ratio / rated
    params = {
        "supply": plain(supply.frequency_hz),
        "plate": plain(plate.frequency_hz[0]),
        "volts": plain(used),
        "rated_volts": str(band),
        "here": show(used / supply.frequency_hz),
        "rated": show(rated / plate.frequency_hz[0]),
        "percent": show(part * 100),
        "speed": show(100 / ratio),
    }
    off = _off(band, used * ratio)
    if off > _TOLERANCE:
        raise RefusedError(
            Message("verdict.flux_too_high", params),
            field="supply.text",
            hint=Message("verdict.flux_too_high.hint", params),
        )
    if off < -_TOLERANCE:
        return [_finding("flux_low", "doubt", **params)]
    return [_finding("flux_faster" if ratio < 1 else "flux_slower", "doubt", **params)]


def judge(plate: Nameplate, supply: Supply) -> Verdict:
    """Return the nameplate column that a supply uses, or refuse with the reason.

    Parameters
    ----------
    plate : Nameplate
        With at least one voltage.
    supply : Supply
        The system the motor is to run on.

    Returns
    -------
    Verdict
        The column whose volts come nearest, at most 10 % off, with findings.

    Raises
    ------
    RefusedError
        If no plate voltage is within 10 % of the supply, or the nameplate's phases
        and the supply's differ: the motor must not be connected to it.
    """
    volts = supply.line_volts_v
    if plate.phases is not None and (plate.phases == 0) != (supply.phases == 0):
        raise RefusedError(
            Message("verdict.direct" if supply.phases == 0 else "verdict.alternating"),
            field="supply.text",
            hint=Message("verdict.direct.hint"),
        )
    if plate.phases == 3 and supply.phases == 1:
        raise RefusedError(
            Message("verdict.one_phase"),
            field="supply.text",
            hint=Message("verdict.one_phase.hint"),
        )
    if (plate.phases == 1 and supply.phases == 3 and supply.ground_volts_v is not None) or (
        supply.system == "single_phase" and supply.ground_volts_v is not None
    ):
        choices = [volts, supply.ground_volts_v]
    else:
        choices = [volts]
    ratio = _hertz_ratio(plate, supply)
    ranked = sorted(
        (
            (
                abs(_off(band, choice * ratio)).quantize(Decimal("0.001")),
                choice != volts,
                place,
                band,
                choice,
            )
            for place, band in enumerate(plate.volts_v)
            for choice in choices
        ),
        key=lambda item: item[:3],
    )
    far, _, place, band, used = ranked[0]
    params = {
        "supply": plain(used),
        "plate": str(band),
        "percent": show(abs(_off(band, used)) * 100),
    }
    if ratio != 1 and (far <= _TOLERANCE or abs(_off(band, used)) <= _TOLERANCE):
        return Verdict(
            column=place,
            plate_volts=band,
            used_volts_v=used,
            findings=tuple(_frequency(plate, supply, band, used, ratio)),
        )
    if far > _TOLERANCE:
        beyond = used / (band.high if used > band.high else band.low)
        raise RefusedError(
            Message(
                "verdict.too_high" if beyond > 1 else "verdict.too_low",
                {**params, "ratio": show(beyond)},
            ),
            field="supply.text",
            hint=Message("verdict.refused.hint"),
        )
    findings = []
    usable = next((one for one in plate.usable if abs(one.volts_v - used) <= _SAME_VOLTS), None)
    nominal = {(Decimal(480), Decimal(460)), (Decimal(240), Decimal(230))}
    nominal |= {
        (Decimal(600), Decimal(575)),
        (Decimal(120), Decimal(115)),
        (Decimal(208), Decimal(200)),
    }
    if usable is not None and not band.holds(used):
        amps = "" if usable.amps_a is None else f", {plain(usable.amps_a)} A"
        findings.append(_finding("usable", "agrees", amps=amps, **params))
    elif far == 0:
        findings.append(_finding("holds", "agrees", **params))
    elif (used, band.high) in nominal:
        findings.append(_finding("nominal", "agrees", **params))
    elif used < band.low and abs(_off(band, used)) > Decimal("0.05"):
        torque = show((used / band.low) ** 2 * 100)
        findings.append(_finding("low", "doubt", torque=torque, **params))
    else:
        findings.append(_finding("within", "note", **params))
    return Verdict(column=place, plate_volts=band, used_volts_v=used, findings=tuple(findings))
