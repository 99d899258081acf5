"""Locked-rotor current: what the code letter says, and what the code's table says.

Units: current [A].
Rules: NEC 430.7(B) and its table (kVA per hp), Tables 430.251(A) and (B) (for
disconnects and controllers, 430.110(C), 430.83).
"""

from __future__ import annotations

from decimal import Decimal
from functools import lru_cache

from evencoil.base import Message, NotInTableError, Step, Trail, plain, show
from evencoil.codebook import Edition, rule, table
from evencoil.plate import locked_rotor_band_a

__all__ = [
    "horsepower_at_locked_rotor",
    "locked_rotor_code",
    "locked_rotor_name",
    "locked_rotor_table",
]


def locked_rotor_name(trail: Trail) -> str | None:
    """Return the name of the locked-rotor current to go by: measured, of the letter, the table."""
    names = ("locked_rotor_measured_a", "locked_rotor_code_a", "locked_rotor_table_a")
    return next((name for name in names if name in trail), None)


def locked_rotor_code(
    *, letter: str, power_hp: Decimal, volts_v: Decimal, phases: int, edition: Edition, trail: Trail
) -> Step:
    """Return the most current that a code letter stands for.

    Parameters
    ----------
    letter : str
        As stamped.
    power_hp : Decimal
        Rated power. [hp]
    volts_v : Decimal
        Plate volts of the connection in use. [V]
    phases : int
        1 or 3.
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds ``power_hp`` and ``plate_volts``.

    Returns
    -------
    Step
        ``locked_rotor_code_a``; the least stands in the working. [A]

    Raises
    ------
    NotInTableError
        If the letter has no upper end (V).
    """
    low, high = locked_rotor_band_a(
        letter=letter, power_hp=power_hp, volts_v=volts_v, phases=phases
    )
    if high is None:
        raise NotInTableError(
            Message("locked.open", {"letter": letter, "low": show(low, "minimum")}),
            field="code_letter",
            hint=Message("locked.open.hint"),
        )
    book = table("430_7_b")
    row = book.column("letter").index(letter)
    found = book.find(row, "max_kva_per_hp", edition=edition)
    return trail.add(
        Step(
            id="locked_rotor_code_a",
            value=high,
            unit="A",
            kind="calculated",
            shown=show(high, "limit"),
            working=Message(
                "locked.code",
                {
                    "letter": letter,
                    "kva": plain(found.value),
                    "hp": plain(power_hp),
                    "volts": plain(volts_v),
                    "low": show(low, "minimum"),
                    "high": show(high, "limit"),
                },
            ),
            rule=rule("code_letter", edition),
            uses=tuple(name for name in ("power_hp", "plate_volts") if name in trail),
            cell=found.cell,
            marks=found.marks,
        )
    )


@lru_cache(maxsize=1024)
def _nearest(names: tuple[str, ...], volts_v: Decimal) -> tuple[str, bool]:
    """Return the column nearest to some volts, and whether it is too far to be theirs."""
    columns = [name for name in names if name.startswith("v")]
    column = min(columns, key=lambda name: abs(Decimal(name[1:]) - volts_v))
    return column, abs(Decimal(column[1:]) - volts_v) / volts_v > Decimal("0.06")


def horsepower_at_locked_rotor(amps_a: Decimal, volts_v: Decimal, phases: int) -> Decimal:
    """Return the power of the first row with at least a locked-rotor current [hp].

    Parameters
    ----------
    amps_a : Decimal
        Locked-rotor currents together. [A]
    volts_v : Decimal
        Line volts. [V]
    phases : int
        1 or 3.

    Raises
    ------
    NotInTableError
        If the volts have no column, or no row is so large.
    """
    book = table("430_251_b" if phases == 3 else "430_251_a")
    column, far = _nearest(book.columns, volts_v)
    for row, power in enumerate(book.figures("hp")):
        amps = book.number(row, column)
        if not far and amps is not None and amps >= amps_a:
            return power
    raise NotInTableError(
        Message("by_amps.none", {"amps": show(amps_a), "volts": plain(volts_v)}),
        field="power_hp",
        hint=Message("by_amps.beyond.hint"),
    )


def locked_rotor_table(
    *, power_hp: Decimal, volts_v: Decimal, phases: int, edition: Edition, trail: Trail
) -> Step:
    """Return the locked-rotor current that disconnect and controller are chosen by.

    Parameters
    ----------
    power_hp : Decimal
        Rated power. [hp]
    volts_v : Decimal
        Plate volts of the connection in use. [V]
    phases : int
        1 or 3.
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds ``power_hp`` and ``plate_volts``.

    Returns
    -------
    Step
        ``locked_rotor_table_a``. [A]

    Raises
    ------
    NotInTableError
        If power or volts have no cell: nothing is interpolated.
    """
    book = table("430_251_b" if phases == 3 else "430_251_a")
    column, far = _nearest(book.columns, volts_v)
    rows = book.figures("hp")
    row = rows.index(power_hp) if power_hp in rows else None
    if row is None or far or book.number(row, column) is None:
        raise NotInTableError(
            Message("locked.none", {"hp": plain(power_hp), "volts": plain(volts_v)}),
            field="power_hp",
            hint=Message("locked.none.hint"),
        )
    found = book.find(row, column, edition=edition)
    return trail.add(
        Step(
            id="locked_rotor_table_a",
            value=found.value,
            unit="A",
            kind="calculated",
            shown=show(found.value),
            working=Message(
                "locked.table",
                {"hp": plain(power_hp), "column": column[1:], "value": plain(found.value)},
            ),
            rule=rule("locked_rotor", edition),
            uses=tuple(name for name in ("power_hp", "plate_volts") if name in trail),
            cell=found.cell,
            marks=found.marks,
        )
    )
