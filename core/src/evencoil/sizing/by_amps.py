"""What the amps of a nameplate tell where the rest is missing: power, and number of phases.

Units: current [A], voltage [V], power [hp].
Rules: NEC 430.6(A)(1): a motor marked in amperes, but not in horsepower, has the power that the
table gives for those amps, interpolated where needed. Tables 430.247, 430.248, 430.250.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from decimal import Decimal
from itertools import pairwise

from evencoil.base import Message, NotInTableError, finding, plain, show
from evencoil.codebook import table
from evencoil.plate import Nameplate, PlateReading, Supply
from evencoil.sizing.full_load import CURRENT_TABLES, current_column

__all__ = [
    "AmpsOnly",
    "amps_by_table",
    "horsepower_at_full_load",
    "phases_by_amps",
    "power_from_amps",
    "settle_phases",
]

#: stamped amps lie this near to the table's: efficient motors below, old ones above
_NEAR = (Decimal("0.72"), Decimal("1.25"))


@dataclass(frozen=True, slots=True, kw_only=True)
class AmpsOnly:
    """A motor of which amps [A], volts [V] and number of phases are known."""

    amps_a: Decimal
    volts_v: Decimal
    phases: int


def _rows(volts: Decimal, phases: int) -> list[tuple[Decimal, Decimal]]:
    """Return power [hp] and current [A] of every row of the table that has both."""
    column = current_column(volts, phases)
    if column is None:
        return []
    book = table(CURRENT_TABLES[phases])
    if column not in book.columns:
        return []
    currents = (book.number(row, column) for row in range(len(book.rows)))
    return [
        (power, amps)
        for power, amps in zip(book.figures("hp"), currents, strict=True)
        if amps is not None
    ]


def power_from_amps(facts: AmpsOnly) -> Decimal:
    """Return the power that the table gives for a current, interpolated between rows [hp].

    Raises
    ------
    NotInTableError
        If the table has no column for the volts, or no row so small or so large.
    """
    rows = _rows(facts.volts_v, facts.phases)
    for (power, amps), (next_power, next_amps) in pairwise(rows):
        if amps <= facts.amps_a <= next_amps:
            part = (facts.amps_a - amps) / (next_amps - amps)
            return power + part * (next_power - power)
    raise NotInTableError(
        Message(
            "by_amps.none",
            {"amps": plain(facts.amps_a), "volts": plain(facts.volts_v)},
        ),
        field="power_hp",
        hint=Message("by_amps.none.hint"),
    )


def horsepower_at_full_load(amps_a: Decimal, volts_v: Decimal, phases: int) -> Decimal:
    """Return the power of the first row that draws at least a current at full load [hp].

    Parameters
    ----------
    amps_a : Decimal
        Full-load currents together. [A]
    volts_v : Decimal
        Line volts. [V]
    phases : int
        1 or 3; 0 for direct current.

    Raises
    ------
    NotInTableError
        If the table has no column for the volts, or no row so large.
    """
    for power, amps in _rows(volts_v, phases):
        if amps >= amps_a:
            return power
    raise NotInTableError(
        Message("by_amps.none", {"amps": show(amps_a), "volts": plain(volts_v)}),
        field="power_hp",
        hint=Message("by_amps.beyond.hint"),
    )


def amps_by_table(plate: Nameplate, phases: int) -> Decimal | None:
    """Return the table's current for the nameplate's power and highest volts [A].

    Parameters
    ----------
    plate : Nameplate
        With its power in horsepower.
    phases : int
        1 or 3.
    """
    if len(plate.power_hp) != 1 or not plate.volts_v:
        return None
    rows = dict(_rows(plate.volts_v[-1].high, phases))
    return rows.get(plate.power_hp[0])


def phases_by_amps(plate: Nameplate) -> int | None:
    """Return the number of phases that alone fits the amps, None where both or neither does.

    A 5 hp motor at 230 V takes about 15 A of three phases and 28 A of one.
    """
    if len(plate.amps_a) != len(plate.volts_v):
        return None
    fitting = []
    for phases in (1, 3):
        expected = amps_by_table(plate, phases)
        if expected is None:
            continue
        ratio = plate.amps_a[-1].high / expected
        if _NEAR[0] <= ratio <= _NEAR[1]:
            fitting.append(phases)
    return fitting[0] if len(fitting) == 1 else None


def settle_phases(reading: PlateReading, supply: Supply | None) -> PlateReading:
    """Return the reading with the phases that its amps tell, or with the doubt that none do.

    Parameters
    ----------
    reading : PlateReading
        The nameplate, perhaps without phases.
    supply : Supply or None
        As read; its number of phases may be assumed too.
    """
    plate = reading.plate
    if plate.phases is not None or (supply is not None and not supply.are_phases_assumed):
        return reading
    decided = phases_by_amps(plate)
    if decided is not None:
        amps, volts = str(plate.amps_a[-1]), str(plate.volts_v[-1])
        said = finding(
            "phases",
            "phases",
            f"by_amps_{decided}",
            "note",
            amps=amps,
            volts=volts,
            hp=plain(plate.power_hp[0]),
        )
        gone = tuple(gap for gap in reading.missing if gap.field != "phases")
        return replace(
            reading,
            plate=replace(plate, phases=decided),
            findings=(*reading.findings, said),
            missing=gone,
        )
    if supply is None:
        return reading
    both = {phases: amps_by_table(plate, phases) for phases in (1, 3)}
    one, three = (both[phases] for phases in (1, 3))
    if one is None or three is None:
        said = finding("phases", "phases", "assumed", "doubt", phases=str(supply.phases))
    else:
        said = finding(
            "phases",
            "phases",
            "assumed_of_two",
            "doubt",
            phases=str(supply.phases),
            one=plain(one),
            three=plain(three),
        )
    return replace(reading, findings=(*reading.findings, said))
