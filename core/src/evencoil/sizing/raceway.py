"""Raceway of the run: the smallest trade size that the conductors fill no further than allowed.

Units: areas [in2], fill [percent].
Rules: NEC Chapter 9 Table 1 (one conductor 53 %, two 31 %, more than two 40 %;
a nipple up to 24 in long 60 %), Note 7 (same size: a count that passes by less
than a fifth of a conductor rounds up is not used here: it is never needed to be safe).
Tables: ``nec/ch9_t4`` (raceways), ``nec/ch9_t5`` (conductors).
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal
from typing import Literal

from evencoil.base import Message, NotInTableError, Step, Trail, plain, show
from evencoil.codebook import Edition, given, judged, table, tips_of, worked

__all__ = ["Inside", "RacewayKind", "area_of", "raceway"]

RacewayKind = Literal["EMT", "IMC", "RMC", "PVC40", "PVC80", "FMC", "LFMC"]
#: an insulation's row of Table 5 where it has not one of its own name
_ROWS = {
    "THWN": "THHN/THWN-2",
    "THHN": "THHN/THWN-2",
    "THWN-2": "THHN/THWN-2",
    "XHHW": "XHHW-2",
}
_FILL = {1: ("fill_53_in2", "53"), 2: ("fill_31_in2", "31")}


@dataclass(frozen=True, slots=True, kw_only=True)
class Inside:
    """Conductors of one size in a raceway."""

    size: str
    insulation: str
    count: int


def area_of(size: str, insulation: str) -> Decimal:
    """Return the cross-section of one conductor with its insulation [in2].

    Parameters
    ----------
    size : str
        AWG or kcmil.
    insulation : str
        As marked on it.

    Raises
    ------
    NotInTableError
        If the table has no such conductor.
    """
    book = table("ch9_t5")
    name = _ROWS.get(insulation, insulation)
    for kind, row_size, area in book.rows:
        if row_size == size and kind == name:
            return Decimal(area)
    raise NotInTableError(
        Message("raceway.no_conductor", {"size": size, "insulation": insulation}),
        field="size.raceway",
        hint=Message("raceway.no_conductor.hint"),
    )


def raceway(
    kind: RacewayKind,
    inside: Sequence[Inside],
    *,
    edition: Edition,
    trail: Trail,
    installed: str = "",
    is_nipple: bool = False,
) -> Step:
    """Return the smallest raceway, or the verdict on the one that is there.

    Parameters
    ----------
    kind : str
        Kind of conduit or tubing.
    inside : sequence of Inside
        Every conductor, the equipment grounding conductor too.
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds ``conductor_size``; the steps are added to it.
    installed : str
        Trade size that is there; empty to ask for the smallest.
    is_nipple : bool
        No more than 24 in long between boxes.

    Returns
    -------
    Step
        ``raceway_size``, with ``raceway_fill_in2`` before it. [in]

    Raises
    ------
    NotInTableError
        If a conductor or a trade size is not in the tables, or none is large enough.
    """
    total = sum((area_of(item.size, item.insulation) * item.count for item in inside), Decimal(0))
    count = sum(item.count for item in inside)
    said = " + ".join(
        f"{item.count} × {plain(area_of(item.size, item.insulation))}" for item in inside
    )
    worked(
        trail,
        "raceway_fill_in2",
        total,
        "in²",
        "raceway.fill",
        "conductor_areas",
        edition,
        {"said": said},
        rounding="minimum",
        uses=("conductor_size", "run_conductor_size", "grounding_conductor_size", "insulation"),
        shown=plain(total),
    )
    column, percent = _FILL.get(count, ("fill_40_in2", "40"))
    book = table("ch9_t4")
    rows = [place for place, row in enumerate(book.rows) if row[0] == kind]

    def room(row: int) -> Decimal:
        if is_nipple:
            return (book.number(row, "total_area_in2") or Decimal(0)) * Decimal("0.6")
        return book.number(row, column) or Decimal(0)

    fits = next((row for row in rows if room(row) >= total), None)
    if fits is None:
        raise NotInTableError(
            Message("raceway.none", {"area": plain(total), "kind": kind}),
            field="size.raceway",
            hint=Message("raceway.none.hint"),
        )
    params = {
        "kind": kind,
        "area": plain(total),
        "count": str(count),
        "percent": "60" if is_nipple else percent,
    }
    shown_column = "total_area_in2" if is_nipple else column
    if not installed:
        smaller = rows[rows.index(fits) - 1] if fits != rows[0] else None
        return worked(
            trail,
            "raceway_size",
            book.rows[fits][1],
            "in",
            "raceway.size",
            "fill",
            edition,
            {**params, "size": book.rows[fits][1], "room": plain(room(fits))},
            uses=("raceway_fill_in2",),
            found=book.find(fits, shown_column, edition=edition),
            shown=f"{kind} {book.rows[fits][1]}",
            tips=tips_of(
                Message("raceway.tip_room", {"left": show(room(fits) - total, "limit")}),
                None
                if smaller is None
                else Message(
                    "raceway.tip_smaller",
                    {"size": book.rows[smaller][1], "room": plain(room(smaller))},
                ),
            ),
        )
    there = next((row for row in rows if book.rows[row][1] == installed), None)
    if there is None:
        raise NotInTableError(
            Message("raceway.no_size", {"size": installed[:20], "kind": kind}),
            field="size.raceway.trade_size",
            hint=Message(
                "raceway.no_size.hint", {"sizes": ", ".join(book.rows[row][1] for row in rows)}
            ),
        )
    given(trail, "raceway_there", installed, "in", shown=f"{kind} {installed}")
    holds = room(there) >= total
    return judged(
        trail,
        "raceway_size",
        "holds" if holds else "fails",
        f"{kind} {installed}",
        "raceway.holds" if holds else "raceway.fails",
        "fill",
        edition,
        {**params, "size": installed, "room": plain(room(there)), "needs": book.rows[fits][1]},
        uses=("raceway_fill_in2", "raceway_there"),
        found=book.find(there, shown_column, edition=edition),
    )
