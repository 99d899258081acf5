"""Voltage drop, larger conductors for it, and the equipment grounding conductor that grows too.

Units: length [ft], resistance and reactance [ohm per 1000 ft], volts [V].
Rules: Chapter 9 Table 8 (direct current resistance, used for single phase and
for a first look) and Table 9 (alternating current, three phase); 210.19(A) and
215.2(A) only recommend a limit; 250.122(B) makes the equipment grounding conductor grow.
"""

from __future__ import annotations

from dataclasses import dataclass
from decimal import Decimal
from typing import Literal

from evencoil.base import (
    ROOT3,
    ConductorSize,
    Mark,
    Message,
    NotInTableError,
    OutOfRangeError,
    Step,
    Tip,
    Trail,
    plain,
    show,
)
from evencoil.codebook import Edition, Table, judged, rule, table

__all__ = ["Conduit", "DropFacts", "DropMethod", "grown_grounding", "total_drop", "voltage_drop"]

DropMethod = Literal["table_8", "table_9"]
Conduit = Literal["pvc", "aluminum", "steel"]
_MOST_FT = Decimal(20000)


@dataclass(frozen=True, slots=True, kw_only=True)
class DropFacts:
    """The run of a motor circuit.

    Attributes
    ----------
    length_ft : Decimal
        One way. [ft]
    limit_percent : Decimal
        What the plant allows. [%]
    power_factor : Decimal
        Running, 0 to 1; Table 9 only.
    """

    length_ft: Decimal
    limit_percent: Decimal = Decimal(3)
    method: DropMethod = "table_9"
    conduit: Conduit = "steel"
    material: str = "cu"
    phases: int = 3
    volts_v: Decimal = Decimal(480)
    power_factor: Decimal = Decimal("0.85")
    parallel_sets: int = 1


def _check(facts: DropFacts) -> None:
    for name, value, most in (
        ("length_ft", facts.length_ft, _MOST_FT),
        ("limit_percent", facts.limit_percent, Decimal(20)),
        ("power_factor", facts.power_factor, Decimal(1)),
    ):
        if not 0 < value <= most:
            raise OutOfRangeError(
                Message("drop.range", {"name": name, "value": plain(value), "most": plain(most)}),
                field=f"size.{name}",
                hint=Message("drop.range.hint"),
            )


def _strands(size: str) -> str:
    """Return the most stranded form that Table 8 lists for a size."""
    book = table("ch9_t8")
    return max(
        (
            strands
            for known, strands in zip(book.column("size"), book.column("strands"), strict=True)
            if known == size
        ),
        key=int,
        default="",
    )


def _rows(facts: DropFacts) -> tuple[Table, str, list[tuple[ConductorSize, int]]]:
    """Return the table, its resistance column, and its sizes with their rows."""
    if facts.method == "table_9":
        book = table("ch9_t9")
        inside = "al_conduit" if facts.conduit == "aluminum" else facts.conduit
        column = f"r_{facts.material}_{inside}"
    else:
        book = table("ch9_t8")
        column = f"dc_ohm_per_kft_{'cu_uncoated' if facts.material == 'cu' else 'al'}"
    found = []
    for row, size in enumerate(book.column("size")):
        if facts.method == "table_8" and book.column("strands")[row] != _strands(size):
            continue
        if book.number(row, column) is not None:
            found.append((ConductorSize(size), row))
    return book, column, sorted(found, key=lambda item: item[0])


def _ohm(facts: DropFacts, book: Table, column: str, row: int) -> Decimal:
    """Return what one conductor puts in the way, per 1000 ft [ohm]."""
    resistance = book.number(row, column) or Decimal(0)
    if facts.method == "table_8":
        return resistance
    # Table 9 gives reactance for plastic and aluminum alike, and for steel
    reactance = book.number(row, "x_steel" if facts.conduit == "steel" else "x_pvc") or Decimal(0)
    cosine = facts.power_factor
    sine = (1 - cosine * cosine).sqrt()
    return resistance * cosine + reactance * sine


def _drop_v(facts: DropFacts, ohm: Decimal, amps: Decimal) -> Decimal:
    times = ROOT3 if facts.phases == 3 else Decimal(2)
    return times * amps * ohm * facts.length_ft / 1000 / facts.parallel_sets


def voltage_drop(
    facts: DropFacts, *, edition: Edition, trail: Trail, current: str = "table_flc_a"
) -> Step:
    """Return the voltage lost on the run, and the size that keeps it within a limit.

    Parameters
    ----------
    facts : DropFacts
        Length, limit, method.
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds the current and ``conductor_size``.
    current : str
        Name of the current in the trail. [A]

    Returns
    -------
    Step
        ``voltage_drop_percent``; ``run_conductor_size`` is added before it
        where the limit asks for a larger conductor. [%]

    Raises
    ------
    OutOfRangeError
        If a fact cannot be.
    NotInTableError
        If the size is not in the table, or none keeps the limit.
    """
    _check(facts)
    amps = trail.number(current)
    size = trail.size("conductor_size")
    book, column, rows = _rows(facts)
    here = next((row for known, row in rows if known == size), None)
    if here is None:
        raise NotInTableError(
            Message("drop.no_size", {"size": str(size)}),
            field="size.drop_method",
            hint=Message("drop.no_size.hint"),
        )
    ohm = _ohm(facts, book, column, here)
    lost = _drop_v(facts, ohm, amps)
    percent = lost / facts.volts_v * 100
    found = book.find(here, column, edition=edition)
    times = "1.732" if facts.phases == 3 else "2"
    marks: tuple[Mark, ...] = found.marks
    step = Step(
        id="voltage_drop_percent",
        value=percent,
        unit="%",
        kind="calculated",
        shown=show(percent),
        working=Message(
            "drop.value",
            {
                "times": times,
                "amps": plain(amps),
                "ohm": show(ohm),
                "sets": str(facts.parallel_sets),
                "feet": plain(facts.length_ft),
                "lost": show(lost),
                "volts": plain(facts.volts_v),
                "percent": show(percent),
                "limit": plain(facts.limit_percent),
                "size": str(size),
            },
        ),
        rule=rule("drop_table_9" if facts.method == "table_9" else "drop_table_8", edition),
        uses=(current, "conductor_size", "run_length_ft"),
        cell=found.cell,
        marks=marks,
        tips=_tips(facts, ohm, amps),
    )
    trail.add(step)
    if percent > facts.limit_percent:
        _larger(facts, rows, book, column, amps, edition, trail)
    return step


def _tips(facts: DropFacts, ohm: Decimal, amps: Decimal) -> tuple[Tip, ...]:
    per_foot = _drop_v(facts, ohm, amps) / facts.length_ft
    most = facts.limit_percent * facts.volts_v / 100 / per_foot
    return (
        Tip(
            message=Message(
                "drop.tip_length",
                {"feet": show(most, "limit"), "limit": plain(facts.limit_percent)},
            )
        ),
    )


def _larger(
    facts: DropFacts,
    rows: list[tuple[ConductorSize, int]],
    book: Table,
    column: str,
    amps: Decimal,
    edition: Edition,
    trail: Trail,
) -> Step:
    """Add the smallest conductor that keeps the limit."""
    least = trail.size("conductor_size")
    for size, row in rows:
        if size < least:
            continue
        lost = _drop_v(facts, _ohm(facts, book, column, row), amps)
        percent = lost / facts.volts_v * 100
        if percent <= facts.limit_percent:
            found = book.find(row, column, edition=edition)
            return trail.add(
                Step(
                    id="run_conductor_size",
                    value=size,
                    unit=size.unit,
                    kind="calculated",
                    shown=str(size),
                    working=Message(
                        "drop.larger",
                        {
                            "size": str(size),
                            "percent": show(percent),
                            "least": str(least),
                            "limit": plain(facts.limit_percent),
                        },
                    ),
                    rule=rule("drop_limit", edition),
                    uses=("voltage_drop_percent", "conductor_size"),
                    cell=found.cell,
                    marks=found.marks,
                )
            )
    raise NotInTableError(
        Message("drop.none", {"limit": plain(facts.limit_percent)}),
        field="size.limit_percent",
        hint=Message("drop.none.hint"),
    )


#: feeder and branch circuit together, recommended at most by the notes of 210.19(A) and 215.2(A)
_MOST_TOTAL_PERCENT = Decimal(5)


def total_drop(*, edition: Edition, trail: Trail) -> Step:
    """Return the voltage drop of feeder and branch circuit together [%].

    Parameters
    ----------
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds ``feeder_drop_percent`` and ``voltage_drop_percent``.

    Returns
    -------
    Step
        ``total_drop_percent``, a verdict against the recommended 5 %.
    """
    feeder = trail.number("feeder_drop_percent")
    branch = trail.number("voltage_drop_percent")
    total = feeder + branch
    verdict: Literal["holds", "fails"] = "holds" if total <= _MOST_TOTAL_PERCENT else "fails"
    return judged(
        trail,
        "total_drop_percent",
        verdict,
        f"{show(total)} %",
        f"drop.total.{verdict}",
        "drop_limit",
        edition,
        {
            "feeder": plain(feeder),
            "branch": show(branch),
            "total": show(total),
            "most": plain(_MOST_TOTAL_PERCENT),
            "left": show(max(_MOST_TOTAL_PERCENT - feeder, Decimal(0)), "limit"),
        },
        uses=("feeder_drop_percent", "voltage_drop_percent"),
    )


def _mils(size: ConductorSize) -> Decimal:
    """Return the area of a conductor [cmil]."""
    book = table("ch9_t8")
    row = book.column("size").index(size.size)
    area = book.number(row, "circular_mils_or_kcmil") or Decimal(0)
    return area * 1000 if book.column("area_unit")[row] == "kcmil" else area


def grown_grounding(*, edition: Edition, trail: Trail) -> Step:
    """Return the equipment grounding conductor, grown as much as the circuit conductors were.

    Parameters
    ----------
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds ``grounding_conductor_size``, ``conductor_size`` and
        ``run_conductor_size``.

    Returns
    -------
    Step
        ``run_grounding_size``, never larger than the circuit conductors.

    Raises
    ------
    NotInTableError
        If no listed size has the area.
    """
    base, least, larger = (
        trail.size(name)
        for name in ("grounding_conductor_size", "conductor_size", "run_conductor_size")
    )
    ratio = _mils(larger) / _mils(least)
    needed = _mils(base) * ratio
    book = table("ch9_t8")
    sizes = sorted({ConductorSize(size) for size in book.column("size")})
    grown = next((size for size in sizes if _mils(size) >= needed), None)
    if grown is None:
        raise NotInTableError(
            Message("drop.no_ground", {"mils": show(needed, "minimum")}),
            field="size.run_length_ft",
            hint=Message("drop.none.hint"),
        )
    chosen = min(grown, larger)
    row = book.column("size").index(chosen.size)
    found = book.find(row, "circular_mils_or_kcmil", edition=edition)
    return trail.add(
        Step(
            id="run_grounding_size",
            value=chosen,
            unit=chosen.unit,
            kind="calculated",
            shown=str(chosen),
            working=Message(
                "drop.ground",
                {
                    "base": str(base),
                    "larger": str(larger),
                    "least": str(least),
                    "ratio": show(ratio),
                    "mils": show(needed, "minimum"),
                    "size": str(chosen),
                },
            ),
            rule=rule("grounding_grown", edition),
            uses=("grounding_conductor_size", "conductor_size", "run_conductor_size"),
            cell=found.cell,
            marks=found.marks,
        )
    )
