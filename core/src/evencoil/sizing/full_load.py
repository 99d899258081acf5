"""Table full-load current of one motor.

The current for conductors, short-circuit device and disconnect comes from the
tables, never from the nameplate; the nameplate current is for overloads.

Units: power [hp], current [A], voltage [V], speed [rpm].
Rules: NEC 430.6(A)(1). Tables: ``nec/430_250_induction``, ``nec/430_250_synchronous``,
``nec/430_248``, ``nec/430_247``.
Torque motors go by their plate, 430.6(B). Several speeds: ``speeds``.
"""

from __future__ import annotations

from bisect import bisect_left
from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal
from typing import Literal

from evencoil.base import (
    Mark,
    Message,
    MissingError,
    NotInTableError,
    RefusedError,
    Step,
    Tip,
    Trail,
    plain,
    show,
)
from evencoil.codebook import Edition, Table, rule, table

__all__ = [
    "CURRENT_TABLES",
    "LOW_SPEED_RPM",
    "MotorFacts",
    "current_column",
    "horsepower_from_kw",
    "table_columns",
    "table_full_load_current",
]

LOW_SPEED_RPM = 1200
_RANGES: dict[int, tuple[tuple[str, int, int], ...]] = {
    3: (
        ("v115", 110, 120),
        ("v200", 200, 200),
        ("v208", 208, 208),
        ("v230", 220, 240),
        ("v460", 440, 480),
        ("v575", 550, 600),
        ("v2300", 2200, 2400),
    ),
    0: (
        ("v90", 85, 95),
        ("v120", 110, 125),
        ("v180", 175, 190),
        ("v240", 220, 250),
        ("v500", 460, 525),
        ("v550", 530, 600),
    ),
    1: (
        ("v115", 110, 120),
        ("v200", 200, 200),
        ("v208", 208, 208),
        ("v230", 220, 240),
    ),
}


@dataclass(frozen=True, slots=True, kw_only=True)
class MotorFacts:
    """What the table look-up needs to know of a motor and its supply.

    Attributes
    ----------
    power_hp : Decimal
        Rated power. [hp]
    phases : int
        1 or 3; 0 for direct current.
    supply_volts_v : Decimal
        Nominal volts of the supply that the motor uses. [V]
    plate_volts_v : sequence of Decimal
        Ends of the nameplate's voltage band for this connection. [V]
    plate_amps_a : Decimal or None
        Plate current at this connection. [A]
    speed_rpm : Decimal or None
        Rated speed. [rpm]
    from_kw : bool
        True if the power was stamped in kW and converted.
    from_amps : bool
        True if the nameplate gives amps but no power: the table then gives those amps back.
    is_high_torque : bool
        Made for high torque: it may draw more than the table says.
    is_torque_motor : bool
        Made to stand under current: its rated current is that at standstill, off the nameplate.
    by_marking : str
        ``listed_appliance`` or ``marked_fan``: its marked current goes before the table.
    is_synchronous : bool
        Has a table of its own, for unity power factor.
    power_factor_percent : int
        Of a synchronous motor: 100, 90 or 80. [percent]
    between_rows : str
        ``ask`` takes a power without a row as both neighbors, marked; ``next_row_up`` as the
        next row, settled by a person.
    """

    power_hp: Decimal
    phases: int
    supply_volts_v: Decimal
    plate_volts_v: Sequence[Decimal]
    plate_amps_a: Decimal | None = None
    speed_rpm: Decimal | None = None
    from_kw: bool = False
    from_amps: bool = False
    is_high_torque: bool = False
    is_torque_motor: bool = False
    by_marking: Literal["", "listed_appliance", "marked_fan"] = ""
    is_synchronous: bool = False
    power_factor_percent: int = 100
    between_rows: Literal["ask", "next_row_up"] = "ask"


#: a power in kW within this part of a row's is that row: 7.5 kW is the 10 hp motor
_KW_NEAR = Decimal("0.03")
_PRINTED = {3: "430.250", 1: "430.248", 0: "430.247"}
#: the table of full-load currents for 3 phases, 1 phase and direct current
CURRENT_TABLES = {3: "430_250_induction", 1: "430_248", 0: "430_247"}
_SUBJECTS = {3: "flc_three_phase", 1: "flc_single_phase", 0: "flc_dc"}
#: a synchronous motor that works at less than unity power factor draws more
_MORE = {100: Decimal(1), 90: Decimal("1.1"), 80: Decimal("1.25")}


def current_column(volts: Decimal, phases: int) -> str | None:
    """Return the column of the full-load current table for some volts [V], None if none.

    Parameters
    ----------
    volts : Decimal
        Of the supply or of the nameplate. [V]
    phases : int
        1 or 3; 0 for direct current.
    """
    for name, low, high in _RANGES[phases]:
        if low <= volts <= high:
            return name
    return None


def table_columns(
    *, supply_volts_v: Decimal, plate_volts_v: Sequence[Decimal], phases: int
) -> tuple[str, ...]:
    """Return the table columns that a motor on a supply may stand in.

    Parameters
    ----------
    supply_volts_v : Decimal
        Nominal volts of the supply. [V]
    plate_volts_v : sequence of Decimal
        Ends of the nameplate's voltage band. [V]
    phases : int
        1 or 3.

    Returns
    -------
    tuple of str
        One column where plate and supply agree; two where they differ (a
        200 V plate on a 208 V system): the larger current then governs. None
        if the tables have no such voltage.
    """
    by_supply = current_column(supply_volts_v, phases)
    by_plate = [column for volts in plate_volts_v if (column := current_column(volts, phases))]
    if by_supply is not None and (by_supply in by_plate or not by_plate):
        return (by_supply,)
    columns = [column for column in (by_supply, *by_plate) if column is not None]
    return tuple(dict.fromkeys(columns))


def _no_column(facts: MotorFacts) -> NotInTableError:
    name = _PRINTED[facts.phases]
    volts = ", ".join(column[1:] for column, _, _ in _RANGES[facts.phases])
    return NotInTableError(
        Message("flc.no_column", {"table": name, "volts": plain(facts.supply_volts_v)}),
        field="supply.text",
        hint=Message("flc.no_column.hint", {"volts": volts}),
    )


def _rows(book: Table, facts: MotorFacts, name: str) -> tuple[int, int]:
    """Return the rows of the power: the one for minimums and the one for maximums.

    They are one where the table has the power, where a power in kW comes within 3 % of a row,
    and where a person has settled it.
    """
    powers = book.figures("hp")
    power = facts.power_hp
    if power > powers[-1] * (1 + _KW_NEAR if facts.from_kw else 1):
        raise NotInTableError(
            Message(
                "flc.above_last",
                {"table": name, "last": plain(powers[-1]), "hp": show(power)},
            ),
            field="power_hp",
            hint=Message("flc.above_last.one" if facts.phases == 1 else "flc.above_last.hint"),
        )
    place = bisect_left(powers, power)
    if place < len(powers) and powers[place] == power:
        return place, place
    if facts.from_kw:
        near = min(range(len(powers)), key=lambda row: abs(powers[row] - power))
        if abs(powers[near] - power) <= powers[near] * _KW_NEAR:
            return near, near
    return (place, place) if facts.between_rows == "next_row_up" else (place, place - 1)


def _by_plate(
    facts: MotorFacts, trail: Trail, edition: Edition, why: Message, subject: str = "table_currents"
) -> Step:
    if facts.plate_amps_a is None:
        raise MissingError(
            Message("flc.plate_needed", {"why": str(why)}),
            field="amps_a",
            hint=Message("flc.plate_needed.hint"),
        )
    return trail.add(
        Step(
            id="table_flc_a",
            value=facts.plate_amps_a,
            unit="A",
            kind="calculated",
            shown=show(facts.plate_amps_a),
            working=Message("flc.by_plate", {"why": str(why), "amps": show(facts.plate_amps_a)}),
            rule=rule(subject, edition),
            uses=tuple(name for name in ("power_hp", "plate_amps_a") if name in trail),
        )
    )


def _special(facts: MotorFacts) -> tuple[Message, str] | None:
    """Return why the nameplate governs over the table, and the rule; None if it does not."""
    if facts.from_amps:
        return Message("flc.amps_only"), "table_currents"
    if facts.speed_rpm is not None and facts.speed_rpm < LOW_SPEED_RPM:
        return Message("flc.slow", {"rpm": plain(facts.speed_rpm)}), "table_currents"
    if facts.is_torque_motor:
        return Message("flc.torque_motor"), "torque_currents"
    if facts.is_high_torque:
        return Message("flc.high_torque"), "table_currents"
    if facts.by_marking:
        return Message(f"flc.{facts.by_marking}"), f"flc_{facts.by_marking}"
    return None


def _add_row_below(
    book: Table,
    row: int,
    column: str,
    factor: Decimal,
    facts: MotorFacts,
    edition: Edition,
    trail: Trail,
) -> None:
    """Add the current of the row below, which maximums follow."""
    below = book.find(row, column, edition=edition)
    amps = below.value * factor
    params = {
        "table": _PRINTED[facts.phases],
        "hp": book.rows[row][0],
        "volts": column[1:],
        "value": plain(amps),
    }
    trail.add(
        Step(
            id="flc_for_maximum_a",
            value=amps,
            unit="A",
            kind="calculated",
            shown=show(amps, "limit"),
            working=Message("flc.row_below", params),
            rule=rule(_SUBJECTS[facts.phases], edition),
            uses=("table_flc_a",),
            cell=below.cell,
            marks=below.marks,
        )
    )


def _between(book: Table, rows: tuple[int, int], facts: MotorFacts) -> tuple[Mark, ...]:
    """Return the mark of a power that stands between two rows, none where one row serves."""
    powers = book.figures("hp")
    if rows[0] == rows[1]:
        return ()
    said = Message(
        "flc.between_rows",
        {
            "hp": show(facts.power_hp),
            "below": plain(powers[rows[1]]),
            "above": plain(powers[rows[0]]),
        },
    )
    return (Mark(kind="assumed", origin="table_flc_a", message=said),)


def table_full_load_current(facts: MotorFacts, *, edition: Edition, trail: Trail) -> Step:
    """Return the full-load current that governs conductors, device and disconnect.

    Parameters
    ----------
    facts : MotorFacts
        Power, phases, supply and plate volts; plate amps and speed if known.
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds the inputs (``power_hp``, ``supply_volts_v`` ...) if they were
        read or assumed; the step is added to it.

    Returns
    -------
    Step
        ``table_flc_a``. [A] Between two rows it is the upper one's, and ``flc_for_maximum_a``
        the lower one's.

    Raises
    ------
    NotInTableError
        If no column has the volts, or the power lies beyond the last row.
    MissingError
        If the nameplate current governs and is not known.

    Examples
    --------
    >>> facts = MotorFacts(power_hp=Decimal(15), phases=3, supply_volts_v=Decimal(480),
    ...                    plate_volts_v=[Decimal(460)])
    >>> table_full_load_current(facts, edition=2023, trail=Trail()).shown
    '21'
    """
    special = _special(facts)
    if special is not None:
        return _by_plate(facts, trail, edition, *special)
    columns = table_columns(
        supply_volts_v=facts.supply_volts_v,
        plate_volts_v=facts.plate_volts_v,
        phases=facts.phases,
    )
    if not columns:
        raise _no_column(facts)
    is_synchronous = facts.is_synchronous and facts.phases == 3
    book = table("430_250_synchronous" if is_synchronous else CURRENT_TABLES[facts.phases])
    columns = tuple(column for column in columns if column in book.columns)
    if not columns:
        raise _no_column(facts)
    printed = _PRINTED[facts.phases]
    smallest = Decimal(book.rows[0][0])
    if facts.power_hp < smallest:
        why = Message("flc.below_first", {"first": plain(smallest), "table": printed})
        step = _by_plate(facts, trail, edition, why)
        step.marks += (Mark(kind="assumed", origin="table_flc_a", message=why),)
        return step
    row, row_below = _rows(book, facts, printed)
    powers = book.figures("hp")
    stepped_up = powers[row] != facts.power_hp
    filled = [column for column in columns if book.number(row, column) is not None]
    if not filled:
        raise NotInTableError(
            Message(
                "flc.empty",
                {"table": printed, "hp": book.rows[row][0], "volts": columns[0][1:]},
            ),
            field="supply.text",
            hint=Message("flc.empty.hint"),
        )
    column = max(filled, key=lambda name: book.number(row, name) or Decimal(0))
    found = book.find(row, column, edition=edition)
    working = "flc.row"
    if stepped_up:
        working = "flc.row_kw" if facts.from_kw else "flc.row_up"
    elif len(filled) > 1:
        working = "flc.row_larger"
    factor = _MORE[facts.power_factor_percent] if is_synchronous else Decimal(1)
    if factor != 1:
        working = "flc.synchronous"
    amps = found.value * factor
    tips = _tips(book, row, column)
    between = _between(book, (row, row_below), facts)
    step = trail.add(
        Step(
            id="table_flc_a",
            value=amps,
            unit="A",
            kind="calculated",
            shown=show(amps),
            working=Message(
                working,
                {
                    "table": printed,
                    "hp": book.rows[row][0],
                    "asked": plain(facts.power_hp),
                    "volts": column[1:],
                    "supply": plain(facts.supply_volts_v),
                    "amps": plain(found.value),
                    "factor": plain(factor),
                    "value": plain(amps),
                    "percent": str(facts.power_factor_percent),
                },
            ),
            rule=rule(_SUBJECTS[facts.phases], edition),
            uses=tuple(name for name in ("power_hp", "phases", "supply_volts_v") if name in trail),
            cell=found.cell,
            marks=(*found.marks, *between),
            tips=tips,
        )
    )
    if between:
        _add_row_below(book, row_below, column, factor, facts, edition, trail)
    return step


def _tips(book: Table, row: int, column: str) -> tuple[Tip, ...]:
    """Say what the neighboring rows and the usual other columns would give."""
    rows = [near for near in (row - 1, row + 1) if 0 <= near < len(book.rows)]
    others = [name for name in ("v230", "v460", "v240") if name != column and name in book.columns]
    said = [
        Message("flc.tip", {"hp": book.rows[near][0], "amps": plain(amps)})
        for near in rows
        if (amps := book.number(near, column)) is not None
    ]
    said += [
        Message("flc.tip_volts", {"volts": other[1:], "amps": plain(amps)})
        for other in others
        if (amps := book.number(row, other)) is not None
    ]
    return tuple(Tip(message=message) for message in said)


def horsepower_from_kw(power_kw: Decimal) -> Decimal:
    """Return a power in horsepower [hp], at 0.746 kW each.

    Raises
    ------
    RefusedError
        If the power is not above zero.
    """
    if power_kw <= 0:
        raise RefusedError(
            Message("flc.no_power"), field="power_kw", hint=Message("plate.unlike.hint")
        )
    return power_kw / Decimal("0.746")
