"""A heater from the motor's current, and the current from an installed heater's code.

Units: current [A].
Rules: the table decides, entered with the nameplate current at the connected voltage, times
the table's own factor where the service factor is below 1.15; the heater must not
trip above what NEC 430.32 allows.
"""

from __future__ import annotations

from dataclasses import dataclass
from decimal import Decimal

from evencoil.base import Cell, Message, MissingError, NotInTableError, Step, Trail, plain
from evencoil.codebook import Edition, Found, tips_of, worked
from evencoil.sizing.heaters.read import HeaterRow, HeaterTable

__all__ = ["HeaterKey", "choose_heater", "heater_of_code", "keys_of"]


@dataclass(frozen=True, slots=True, kw_only=True)
class HeaterKey:
    """Which part of a table holds: relay, starter size, elements, ambient basis."""

    relay_type: str
    starter_size: str
    elements: int
    basis: str


def keys_of(heaters: HeaterTable) -> tuple[HeaterKey, ...]:
    """Return the parts a table has, in its own order."""
    return tuple(dict.fromkeys(_key(row) for row in heaters.rows))


def _key(row: HeaterRow) -> HeaterKey:
    return HeaterKey(
        relay_type=row.relay_type,
        starter_size=row.starter_size,
        elements=row.elements,
        basis=row.basis,
    )


def _part(heaters: HeaterTable, key: HeaterKey) -> list[HeaterRow]:
    rows = [row for row in heaters.rows if _key(row) == key]
    if not rows:
        known = "; ".join(dict.fromkeys(row.relay_type for row in heaters.rows))
        raise NotInTableError(
            Message("heater.no_key", {"relay": key.relay_type or "—", "name": heaters.name}),
            field="size.heater.relay_type",
            hint=Message("heater.no_key.hint", {"known": known[:200]}),
        )
    return sorted(rows, key=lambda row: row.low_a)


def _found(heaters: HeaterTable, rows: list[HeaterRow], row: HeaterRow) -> Found:
    place = rows.index(row)
    above = max(place - 1, 0)
    near = rows[above : place + 2]
    cell = Cell(
        table=heaters.name,
        title=f"{row.relay_type} {row.starter_size}".strip(),
        source=heaters.source,
        units="A",
        columns=("code", "low_a", "high_a"),
        rows=tuple(
            (near_row.code, plain(near_row.low_a), plain(near_row.high_a)) for near_row in near
        ),
        hit_row=place - above,
        hit_column=0,
    )
    return Found(value=row.low_a, cell=cell, marks=())


def choose_heater(
    heaters: HeaterTable,
    key: HeaterKey,
    *,
    service_factor: Decimal | None,
    edition: Edition,
    trail: Trail,
) -> Step:
    """Return the heater for the motor's plate current.

    Parameters
    ----------
    heaters : HeaterTable
        The table of the starter's door.
    key : HeaterKey
        Which part of it holds.
    service_factor : Decimal or None
        As stamped; None counts as below 1.15.
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds ``plate_amps_a``.

    Returns
    -------
    Step
        ``heater_code``, with ``heater_amps_a`` before it.

    Raises
    ------
    CoreError
        If the nameplate current is unknown, or no row of the table has it.
    """
    if "plate_amps_a" not in trail:
        raise MissingError(
            Message("overload.no_amps"), field="amps_a", hint=Message("overload.no_amps.hint")
        )
    rows = _part(heaters, key)
    plate = trail.number("plate_amps_a")
    full = service_factor is not None and service_factor >= Decimal("1.15")
    factor = Decimal(1) if full else heaters.factor
    amps = plate * factor
    worked(
        trail,
        "heater_amps_a",
        amps,
        "A",
        "heater.amps" if factor == 1 else "heater.amps_factor",
        "overload",
        edition,
        {"plate": plain(plate), "factor": plain(factor), "name": heaters.name},
        uses=("plate_amps_a", "service_factor"),
    )
    row = next((row for row in rows if row.low_a <= amps <= row.high_a), None)
    if row is None:
        raise NotInTableError(
            Message(
                "heater.none",
                {
                    "amps": plain(amps),
                    "low": plain(rows[0].low_a),
                    "high": plain(rows[-1].high_a),
                    "name": heaters.name,
                },
            ),
            field="size.heater",
            hint=Message("heater.none.hint"),
        )
    return worked(
        trail,
        "heater_code",
        row.code,
        "",
        "heater.row",
        "overload",
        edition,
        {
            "amps": plain(amps),
            "low": plain(row.low_a),
            "high": plain(row.high_a),
            "relay": row.relay_type,
            "elements": str(row.elements),
            "name": heaters.name,
        },
        uses=("heater_amps_a",),
        found=_found(heaters, rows, row),
        tips=tips_of(Message("heater.tip", {"trip": plain(row.low_a * 5 / 4)})),
    )


def heater_of_code(
    heaters: HeaterTable, key: HeaterKey, code: str, *, edition: Edition, trail: Trail
) -> Step:
    """Return the current at which an installed heater trips in the end.

    Parameters
    ----------
    heaters : HeaterTable
        The table of the starter's door.
    key : HeaterKey
        Which part of it holds.
    code : str
        As stamped on the heater.
    edition : int
        Edition whose sections are cited.
    trail : Trail
        The step is added to it.

    Returns
    -------
    Step
        ``heater_there_a``: 125 % of the smallest current it is for. [A]

    Raises
    ------
    NotInTableError
        If that part of the table has no such code.
    """
    rows = _part(heaters, key)
    row = next((row for row in rows if row.code.upper() == code.strip().upper()), None)
    if row is None:
        raise NotInTableError(
            Message(
                "heater.no_code", {"code": code[:20], "relay": key.relay_type, "name": heaters.name}
            ),
            field="size.heater.code",
            hint=Message("heater.no_code.hint", {"codes": ", ".join(r.code for r in rows)[:200]}),
        )
    return worked(
        trail,
        "heater_there_a",
        row.low_a * 5 / 4,
        "A",
        "heater.existing",
        "overload",
        edition,
        {
            "code": row.code,
            "low": plain(row.low_a),
            "high": plain(row.high_a),
            "relay": row.relay_type,
        },
        found=_found(heaters, rows, row),
    )
