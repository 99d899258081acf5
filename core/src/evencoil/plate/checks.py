"""Holding a nameplate against itself: each check names its reason and its figures.

Sources: synchronous speed 120 f / p and three-phase power (textbook machine
theory); code letter, NEC Table 430.7(B); voltage pairs 2:1 (series/parallel)
and 1.73:1 (wye/delta) and the leads they need, NEMA MG 1 part 2.
A nameplate that contradicts itself is not refused: the two figures are named.
"""

from __future__ import annotations

from collections.abc import Collection, Iterator, Mapping
from dataclasses import replace
from decimal import Decimal

from evencoil.base import ROOT3, Finding, Level, Message, finding, plain, show
from evencoil.codebook import table
from evencoil.plate.model import Missing, Nameplate

__all__ = ["cross_check", "kva_band", "locked_rotor_band_a", "missing_fields", "poles_of"]

HP_KW = Decimal("0.746")
_TWO = (Decimal("1.9"), Decimal("2.1"))
_ROOT3_BAND = (Decimal("1.65"), Decimal("1.82"))
_PER_FOUR_PERCENT = Decimal("0.04")
Spans = Mapping[str, tuple[int, int]]


def _finding(
    code: str, level: Level, field: str, spans: Spans, *fields: str, **params: str
) -> Finding:
    found = finding("check", field, code, level, **params)
    return replace(found, spans=tuple(spans[name] for name in (field, *fields) if name in spans))


def poles_of(speed_rpm: Decimal, frequency_hz: Decimal) -> int | None:
    """Return the number of poles whose synchronous speed lies next above a speed.

    Parameters
    ----------
    speed_rpm : Decimal
        Rated speed. [rpm]
    frequency_hz : Decimal
        Rated frequency. [Hz]

    Returns
    -------
    int or None
        2, 4, 6 ... such that 120 f / p is at most 15 % above the speed, or
        None if no pole number fits (the speed is above synchronous).
    """
    for poles in range(2, 42, 2):
        synchronous = 120 * frequency_hz / poles
        if speed_rpm <= synchronous and (synchronous - speed_rpm) / synchronous <= Decimal("0.15"):
            next_one = 120 * frequency_hz / (poles + 2)
            if speed_rpm > next_one:
                return poles
    return None


def kva_band(letter: str) -> tuple[Decimal, Decimal | None]:
    """Return the locked-rotor band of a code letter, NEC Table 430.7(B), in kVA per hp.

    Raises
    ------
    ValueError
        If the letter is not in the table.
    """
    letters = table("430_7_b")
    row = letters.column("letter").index(letter)
    low = letters.number(row, "min_kva_per_hp")
    return low or Decimal(0), letters.number(row, "max_kva_per_hp")


def locked_rotor_band_a(
    *, letter: str, power_hp: Decimal, volts_v: Decimal, phases: int
) -> tuple[Decimal, Decimal | None]:
    """Return the locked-rotor current that a code letter stands for, in amps.

    Parameters
    ----------
    letter : str
        Code letter of the nameplate.
    power_hp : Decimal
        Rated power. [hp]
    volts_v : Decimal
        Volts of the connection in use. [V]
    phases : int
        1 or 3.

    Returns
    -------
    tuple
        Least and greatest current; the greatest is None for letter V. [A]
    """
    low, high = kva_band(letter)
    divisor = volts_v * (ROOT3 if phases == 3 else 1)
    scale = power_hp * 1000 / divisor
    return low * scale, None if high is None else high * scale


def _speed(plate: Nameplate, spans: Spans) -> Iterator[Finding]:
    if not plate.speed_rpm or not plate.frequency_hz:
        return
    hz = plate.frequency_hz[0]
    for rpm in plate.speed_rpm:
        poles = poles_of(rpm, hz)
        params = {"rpm": plain(rpm), "hz": plain(hz)}
        if poles is None:
            yield _finding("speed", "doubt", "speed_rpm", spans, "frequency_hz", **params)
            continue
        synchronous = 120 * hz / poles
        slip = (synchronous - rpm) / synchronous * 100
        yield _finding(
            "speed.agrees",
            "agrees",
            "speed_rpm",
            spans,
            poles=str(poles),
            synchronous=show(synchronous),
            slip=show(slip),
            **params,
        )
        if rpm < 1200 and plate.phases != 1:
            yield _finding("slow", "note", "speed_rpm", spans, rpm=plain(rpm))


_ONE_RANGE = Decimal("1.2")


def _volts(plate: Nameplate, spans: Spans) -> Iterator[Finding]:
    if len(plate.volts_v) != 2:
        return
    first, second = sorted(plate.volts_v, key=lambda band: band.high)
    ratio = second.high / first.high
    if ratio <= _ONE_RANGE:
        return  # 208/230: one winding for a range of supplies
    params = {"low": str(first), "high": str(second), "ratio": show(ratio)}
    least, most = second.low / first.high, second.high / first.low
    if _TWO[0] <= ratio <= _TWO[1]:
        kind, needs = "two", {9, 12} if plate.phases != 1 else {4, 6}
    elif _ROOT3_BAND[0] <= ratio <= _ROOT3_BAND[1] or least <= ROOT3 <= most:
        kind, needs = "root3", {6, 12}
    else:
        yield _finding("volts.ratio", "doubt", "volts_v", spans, **params)
        return
    yield _finding(f"volts.{kind}", "agrees", "volts_v", spans, **params)
    if plate.phases == 1 or plate.leads is None:
        return
    leads = str(plate.leads)
    if plate.leads < min(needs):
        yield _finding("leads.few", "doubt", "leads", spans, "volts_v", leads=leads, **params)
    elif plate.leads not in needs:
        yield _finding("leads.other", "doubt", "leads", spans, "volts_v", leads=leads, **params)
    else:
        yield _finding(f"leads.{kind}", "agrees", "leads", spans, leads=leads, **params)


def _amps(plate: Nameplate, spans: Spans) -> Iterator[Finding]:
    if len(plate.volts_v) == 2 and len(plate.amps_a) == 2:
        volts = sorted(plate.volts_v, key=lambda band: band.high)
        amps = sorted(plate.amps_a, key=lambda band: band.high, reverse=True)
        if list(plate.amps_a) != amps and list(plate.volts_v) == volts:
            yield _finding(
                "amps.order",
                "doubt",
                "amps_a",
                spans,
                "volts_v",
                first=str(plate.amps_a[0]),
                second=str(plate.amps_a[1]),
            )
            return
        by_volts = volts[1].last / volts[0].last
        by_amps = amps[0].last / amps[1].last
        params = {
            "large": str(amps[0]),
            "small": str(amps[1]),
            "amps_ratio": show(by_amps),
            "volts_ratio": show(by_volts),
        }
        # with ranges (115/208-230 V, 9.6/5.2-4.8 A) the outer ends belong together
        ways = (by_amps, amps[0].high / amps[1].low, amps[0].high / amps[1].high)
        if min(abs(way - by_volts) for way in ways) <= by_volts * _PER_FOUR_PERCENT:
            yield _finding("amps.agrees", "agrees", "amps_a", spans, **params)
        else:
            yield _finding("amps.ratio", "doubt", "amps_a", spans, "volts_v", **params)
    elif len(plate.volts_v) > 1 and len(plate.amps_a) == 1:
        yield _finding("amps.one", "doubt", "amps_a", spans, "volts_v", amps=str(plate.amps_a[0]))
    for band in plate.volts_v:
        if band.low <= 208 <= band.high and band.high >= 220 and plate.amps_a:
            yield _finding("amps.208", "note", "amps_a", spans, volts=str(band))


def _power(plate: Nameplate, spans: Spans) -> Iterator[Finding]:
    """Compare amps with power: what is left for efficiency times power factor."""
    if len(plate.power_hp) == 1 and len(plate.power_kw) == 1:
        as_kw = plate.power_hp[0] * HP_KW
        params = {
            "hp": plain(plate.power_hp[0]),
            "kw": plain(plate.power_kw[0]),
            "as_kw": show(as_kw),
        }
        level: Level = (
            "agrees" if abs(as_kw - plate.power_kw[0]) <= as_kw * Decimal("0.06") else "doubt"
        )
        code = "power.agrees" if level == "agrees" else "power.two"
        yield _finding(code, level, "power_kw", spans, "power_hp", **params)
    if len(plate.power_hp) == 1:
        as_kw, said_power = plate.power_hp[0] * HP_KW, f"{plain(plate.power_hp[0])} hp"
    elif len(plate.power_kw) == 1 and not plate.power_hp:
        as_kw, said_power = plate.power_kw[0], f"{plain(plate.power_kw[0])} kW"
    else:
        return
    if not plate.volts_v or not plate.amps_a or plate.phases is None:
        return
    volts, amps = plate.volts_v[-1].high, plate.amps_a[-1].low
    if len(plate.amps_a) != len(plate.volts_v):
        return
    into_kva = volts * amps * (ROOT3 if plate.phases == 3 else 1) / 1000
    product = as_kw / into_kva
    params = {
        "power": said_power,
        "volts": plain(volts),
        "amps": plain(amps),
        "product": show(product),
    }
    if product >= 1:
        yield _finding("amps.power_low", "doubt", "amps_a", spans, "power_hp", **params)
    elif product < Decimal("0.35") and as_kw >= HP_KW:
        yield _finding("amps.power_high", "doubt", "amps_a", spans, "power_hp", **params)
    elif plate.efficiency_percent and plate.power_factor_percent:
        said = plate.efficiency_percent[0] * plate.power_factor_percent[0] / 10000
        params["said"] = show(said)
        close = abs(said - product) <= said * Decimal("0.05")
        yield _finding(
            "amps.power_agrees" if close else "amps.power_other",
            "agrees" if close else "doubt",
            "amps_a",
            spans,
            "efficiency_percent",
            "power_factor_percent",
            **params,
        )
    elif as_kw >= HP_KW:
        yield _finding("amps.power_fits", "agrees", "amps_a", spans, **params)


def _code(plate: Nameplate, spans: Spans) -> Iterator[Finding]:
    if (
        plate.code_letter is None
        or len(plate.power_hp) != 1
        or not plate.volts_v
        or plate.phases is None
    ):
        return
    volts = plate.volts_v[-1].high
    low, high = locked_rotor_band_a(
        letter=plate.code_letter,
        power_hp=plate.power_hp[0],
        volts_v=volts,
        phases=plate.phases,
    )
    yield _finding(
        "code" if high is not None else "code.open",
        "agrees",
        "code_letter",
        spans,
        letter=plate.code_letter,
        low=show(low, "minimum"),
        high="" if high is None else show(high, "limit"),
        volts=plain(volts),
    )


_FACTOR = {"DD": Decimal(1), "YY": ROOT3, "D": Decimal(2), "Y": 2 * ROOT3}


def _signs(plate: Nameplate, spans: Spans) -> Iterator[Finding]:
    """Hold connection signs against the volts: what is Y at the high one is YY or D at the low."""
    signs = [band.sign for band in plate.volts_v]
    if not all(signs) and len(plate.connection_signs) == len(plate.volts_v):
        signs = list(plate.connection_signs)
    if len(signs) != 2 or not all(sign in _FACTOR for sign in signs):
        return
    pairs = sorted(zip(plate.volts_v, signs, strict=True), key=lambda pair: pair[0].high)
    (low, low_sign), (high, high_sign) = pairs
    by_sign = _FACTOR[high_sign] / _FACTOR[low_sign]
    least, most = high.low / low.high, high.high / low.low
    params = {
        "low": str(low),
        "high": str(high),
        "low_sign": low_sign,
        "high_sign": high_sign,
        "ratio": show(high.high / low.high),
        "by_sign": show(by_sign),
    }
    if least * Decimal("0.93") <= by_sign <= most * Decimal("1.07"):
        yield _finding("signs.agree", "agrees", "volts_v", spans, "connection_signs", **params)
    else:
        yield _finding("signs", "doubt", "volts_v", spans, "connection_signs", **params)


def _hertz(plate: Nameplate, spans: Spans) -> Iterator[Finding]:
    """Say what one winding keeps at both frequencies: volts per hertz."""
    if len(plate.frequency_hz) != 2 or len(plate.volts_v) < 1:
        return
    first, second = sorted(plate.frequency_hz)
    volts = sorted(plate.volts_v, key=lambda band: band.high)
    if len(volts) == 1 and volts[0].low == volts[0].high:
        yield _finding(
            "hertz.one_volt",
            "note",
            "frequency_hz",
            spans,
            "volts_v",
            volts=str(volts[0]),
            low=plain(first),
            high=plain(second),
            at_low=show(volts[0].high / first),
            at_high=show(volts[0].high / second),
        )


def _factor(plate: Nameplate, spans: Spans) -> Iterator[Finding]:
    if plate.service_factor is not None and plate.service_factor < 1:
        said = plain(plate.service_factor)
        yield _finding("factor_low", "doubt", "service_factor", spans, factor=said)


def _hermetic(plate: Nameplate, spans: Spans) -> Iterator[Finding]:
    if plate.is_hermetic:
        yield _finding("hermetic", "note", "rated_load_amps_a", spans)


def cross_check(plate: Nameplate, spans: Spans) -> list[Finding]:
    """Hold a nameplate's figures against each other.

    Parameters
    ----------
    plate : Nameplate
        What was understood.
    spans : mapping
        Where each field stands in the text, so that a doubt can light it.

    Returns
    -------
    list of Finding
        Agreements, notes and doubts, each with its figures.
    """
    if plate.phases == 0:
        return []  # poles, leads, hertz and code letter are of alternating current
    checks = (_hermetic, _speed, _volts, _signs, _hertz, _amps, _power, _code, _factor)
    return [finding for check in checks for finding in check(plate, spans)]


_WANTED = (
    "power_hp",
    "volts_v",
    "amps_a",
    "phases",
    "frequency_hz",
    "speed_rpm",
    "service_factor",
    "code_letter",
    "design_letter",
    "leads",
)


_AC_ONLY = {"frequency_hz", "code_letter", "design_letter", "leads", "phases"}


def missing_fields(plate: Nameplate, doubted: Collection[str]) -> tuple[Missing, ...]:
    """Return the fields a nameplate leaves empty, with what each costs.

    Parameters
    ----------
    plate : Nameplate
        What was understood.
    doubted : collection of str
        Fields that are there but could not be used: told elsewhere.

    Returns
    -------
    tuple of Missing
        In the order in which they matter.
    """
    gone = []
    for name in _WANTED:
        if getattr(plate, name) not in (None, ()) or name in doubted:
            continue
        if plate.phases == 0 and name in _AC_ONLY:
            continue
        if name == "power_hp" and (plate.power_kw or plate.is_hermetic):
            continue
        gone.append(Missing(field=name, cost=Message(f"missing.{name}")))
    if plate.kind == "wound_rotor" and plate.secondary_a is None:
        gone.append(Missing(field="secondary_a", cost=Message("missing.secondary_a")))
    return tuple(gone)
