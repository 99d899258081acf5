"""What else is known of the supply: measured volts, fault current, made legs.

Units: volts [V], amps [A], power [kVA].
Sources: voltage unbalance and derating, NEMA MG 1 12.45 and 14.36; phase
converters, NEC Article 455; high leg 110.15; grounded conductor of a corner
grounded system 430.36; fault current behind a transformer (textbook per unit).
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from decimal import Decimal
from functools import partial
from itertools import pairwise

from evencoil.base import (
    CAUSE_PERCENT,
    DERATE_PERCENT,
    MOST_PERCENT,
    ROOT3,
    CoreError,
    Finding,
    Message,
    OutOfRangeError,
    finding,
    finding_of,
    plain,
    show,
    unbalance_of_three,
)
from evencoil.plate.inputs import SupplyInputs
from evencoil.plate.supply import Supply, Verdict

__all__ = [
    "check_supply",
    "derating_factor",
    "transformer_fault_current_a",
    "unbalance_percent",
]

_TOLERANCE = Decimal("0.10")


_finding = partial(finding, "supplied", "supply")


def unbalance_percent(values: Sequence[Decimal], field: str = "supply.measured_v") -> Decimal:
    """Return the unbalance of three readings, NEMA MG 1: largest distance from the mean [%].

    Parameters
    ----------
    values : sequence of Decimal
        The three line voltages [V], or the three line currents. [A]
    field : str
        Where they were entered.

    Returns
    -------
    Decimal
        As a percentage of the mean.

    Raises
    ------
    OutOfRangeError
        If there are not three readings above zero.

    Examples
    --------
    >>> volts = [Decimal(478), Decimal(481), Decimal(476)]
    >>> round(unbalance_percent(volts), 2)
    Decimal('0.56')
    """
    found = unbalance_of_three(values) if len(values) == 3 else None
    if found is None or min(values) <= 0 or max(values) > 20000:
        said = "supplied.measured" if field == "supply.measured_v" else "supplied.currents"
        raise OutOfRangeError(
            Message(said, {"count": str(len(values))}), field=field, hint=Message(f"{said}.hint")
        )
    return found


#: part of its power that a motor may carry at a voltage unbalance, read off MG 1 Figure 14-1
_DERATING = (
    (Decimal(0), Decimal(1)),
    (Decimal(1), Decimal("0.98")),
    (Decimal(2), Decimal("0.95")),
    (Decimal(3), Decimal("0.88")),
    (Decimal(4), Decimal("0.82")),
    (Decimal(5), Decimal("0.75")),
)


def derating_factor(percent: Decimal) -> Decimal | None:
    """Return which part of its power a motor may carry at a voltage unbalance.

    Parameters
    ----------
    percent : Decimal
        Voltage unbalance. [%]

    Returns
    -------
    Decimal or None
        Between the points of the curve in a straight line; None above 5 %, where a motor is
        not to run. NEMA MG 1 14.36.

    Examples
    --------
    >>> derating_factor(Decimal(3)), derating_factor(Decimal("5.1"))
    (Decimal('0.88'), None)
    """
    for (low, more), (high, less) in pairwise(_DERATING):
        if low <= percent <= high:
            return less if percent == high else more + (less - more) * (percent - low)
    return None


def transformer_fault_current_a(
    *, kva: Decimal, z_percent: Decimal, line_volts_v: Decimal, phases: int
) -> Decimal:
    """Return the most a transformer can feed into a bolted fault on its terminals [A].

    Parameters
    ----------
    kva : Decimal
        Rated power. [kVA]
    z_percent : Decimal
        Impedance. [%]
    line_volts_v : Decimal
        Secondary line volts. [V]
    phases : int
        1 or 3.

    Raises
    ------
    OutOfRangeError
        If power or impedance is not above zero.
    """
    if not 0 < kva <= 100000 or not 0 < z_percent <= 30:
        raise OutOfRangeError(
            Message("supplied.transformer", {"kva": plain(kva), "z": plain(z_percent)}),
            field="supply.transformer_kva",
            hint=Message("supplied.transformer.hint"),
        )
    rated = kva * 1000 / (line_volts_v * (ROOT3 if phases == 3 else 1))
    return rated * 100 / z_percent


def _currents(given: SupplyInputs) -> Iterator[Finding]:
    """Yield what the running amps of the three lines say."""
    if not given.measured_a:
        return
    amps = given.measured_a
    percent = unbalance_percent(amps, "supply.measured_a")
    mean = sum(amps, Decimal(0)) / 3
    params = {
        "amps": " / ".join(plain(amp) for amp in amps),
        "percent": show(percent),
        "mean": show(mean),
        "furthest": ("L1", "L2", "L3")[max(range(3), key=lambda at: abs(amps[at] - mean))],
    }
    if percent <= CAUSE_PERCENT:
        yield _finding("currents_balanced", "agrees", **params)
    elif len(given.measured_v) != 3:
        yield _finding("currents_unbalance", "doubt", **params)
    else:
        volts = unbalance_percent(given.measured_v)
        code = "currents_by_volts" if percent <= volts * 10 else "currents_by_motor"
        yield _finding(code, "doubt", volts=show(volts), **params)


def _measured(given: SupplyInputs, verdict: Verdict | None) -> Iterator[Finding]:
    if not given.measured_v:
        return
    volts = given.measured_v
    percent = unbalance_percent(volts)
    mean = sum(volts, Decimal(0)) / 3
    params = {
        "volts": " / ".join(plain(volt) for volt in volts),
        "percent": show(percent),
        "mean": show(mean),
        "furthest": ("L1-L2", "L2-L3", "L3-L1")[
            max(range(3), key=lambda at: abs(volts[at] - mean))
        ],
    }
    if percent > MOST_PERCENT:
        yield _finding("unbalance_stop", "doubt", **params)
    elif percent > DERATE_PERCENT:
        factor = derating_factor(percent) or Decimal(0)
        yield _finding("unbalance", "doubt", factor=show(factor, "limit"), **params)
    else:
        yield _finding("balanced", "agrees", **params)
    if verdict is None:
        return
    band = verdict.plate_volts
    for low, high, code in (
        (Decimal(0), band.low * (1 - _TOLERANCE), "measured_low"),
        (band.high * (1 + _TOLERANCE), Decimal(10**6), "measured_high"),
    ):
        if low < mean < high:
            yield _finding(code, "doubt", plate=str(band), **params)


def _fault(given: SupplyInputs, supply: Supply) -> Iterator[Finding]:
    by_transformer = None
    if given.transformer_kva is not None and given.transformer_z_percent is not None:
        by_transformer = transformer_fault_current_a(
            kva=given.transformer_kva,
            z_percent=given.transformer_z_percent,
            line_volts_v=supply.line_volts_v,
            phases=supply.phases,
        )
        yield _finding(
            "fault_transformer",
            "note",
            kva=plain(given.transformer_kva),
            z=plain(given.transformer_z_percent),
            volts=plain(supply.line_volts_v),
            amps=show(by_transformer, "limit"),
        )
    if given.fault_current_a is None:
        if by_transformer is None:
            yield _finding("fault_unknown", "note")
        return
    if not 0 < given.fault_current_a <= 300000:
        raise OutOfRangeError(
            Message("supplied.fault", {"amps": plain(given.fault_current_a)}),
            field="supply.fault_current_a",
            hint=Message("supplied.fault.hint"),
        )
    yield _finding("fault_known", "agrees", amps=plain(given.fault_current_a))
    if by_transformer is not None and given.fault_current_a > by_transformer * Decimal("1.05"):
        yield _finding(
            "fault_above", "doubt", amps=plain(given.fault_current_a), most=show(by_transformer)
        )


def _system(given: SupplyInputs, supply: Supply) -> Iterator[Finding]:
    if supply.system == "converter":
        if given.made_leg is None:
            yield _finding("made_leg_unsaid", "doubt")
        else:
            yield _finding("made_leg", "note", leg=given.made_leg)
    if supply.system == "high_leg":
        if given.high_leg is None:
            yield _finding("high_leg_unsaid", "doubt")
        else:
            ground = supply.line_volts_v * ROOT3 / 2
            yield _finding("high_leg", "note", leg=given.high_leg, volts=show(ground))
    if supply.system == "corner_grounded":
        if given.grounded_line is None:
            yield _finding("corner_unsaid", "doubt")
        else:
            yield _finding("corner", "note", leg=given.grounded_line)
    if given.transformer_kva is not None:
        code = {
            None: "transformer_grounding",
            True: "transformer_grounded",
            False: "transformer_floating",
        }
        grounded = given.transformer_grounded
        yield _finding(code[grounded], "doubt" if grounded is None else "note")
    if supply.system == "drive":
        yield _finding("drive", "note")
        if given.drive_input_v is not None and supply.line_volts_v > given.drive_input_v * Decimal(
            "1.02"
        ):
            yield _finding(
                "drive_above",
                "doubt",
                out=plain(supply.line_volts_v),
                into=plain(given.drive_input_v),
            )


#: nominal volts of systems that the NEC's tables have no column for [V]
_OTHER_CODE_V = frozenset(Decimal(volts) for volts in (380, 400, 415, 660, 690))


def _territory(given: SupplyInputs, supply: Supply) -> Iterator[Finding]:
    if given.territory == "nec" and (
        supply.frequency_hz == 50 or supply.line_volts_v in _OTHER_CODE_V
    ):
        yield _finding(
            "other_code",
            "doubt",
            volts=plain(supply.line_volts_v),
            hertz=plain(supply.frequency_hz),
        )


def check_supply(
    given: SupplyInputs, supply: Supply, verdict: Verdict | None
) -> tuple[Finding, ...]:
    """Return what was measured and said of a supply, held against plate and system.

    Parameters
    ----------
    given : SupplyInputs
        As a person gave it.
    supply : Supply
        The system as read.
    verdict : Verdict or None
        The nameplate column in use.

    Returns
    -------
    tuple of Finding
        Agreements, notes and doubts, each with its figures. A figure that
        cannot be is a finding too: it changes nothing else.
    """
    found: list[Finding] = []
    for part in (
        _territory(given, supply),
        _system(given, supply),
        _measured(given, verdict),
        _currents(given),
        _fault(given, supply),
    ):
        try:
            found += part
        except CoreError as error:
            found.append(finding_of(error, "figure"))
    return tuple(found)
