"""Conductors of one motor's branch circuit, continuous duty.

The least ampacity comes from the table current, never from the nameplate
current. A size must pass twice: at the temperature of its terminals, and at
its own insulation temperature after correction and adjustment.

Units: current [A], temperature [C].
Rules: NEC 430.22, 110.14(C), 310.15/310.16, 310.10 (parallel sets).
Tables: ``nec/310_16``, ``nec/310_15_b_1``, ``nec/310_15_c_1``.
Left out: duty that is not continuous, 430.22(E); wye-start and part-winding
legs, 430.22(C) and (D); voltage drop.
"""

from __future__ import annotations

from dataclasses import dataclass
from decimal import Decimal
from functools import cache, lru_cache
from typing import Literal

from evencoil.base import (
    ConductorSize,
    Message,
    NotInTableError,
    OutOfRangeError,
    RefusedError,
    Step,
    Tip,
    Trail,
    plain,
    show,
)
from evencoil.codebook import Edition, Table, rule, table

__all__ = [
    "INSULATIONS",
    "LARGE_CIRCUIT_A",
    "ConductorFacts",
    "Material",
    "Pick",
    "adjustment_for",
    "conductor",
    "pick_conductor",
    "required_ampacity",
]

CONTINUOUS_DUTY_FACTOR = Decimal("1.25")
LARGE_CIRCUIT_A = Decimal(100)
Material = Literal["cu", "al"]
INSULATIONS: dict[str, int] = {
    "TW": 60,
    "UF": 60,
    "THW": 75,
    "THWN": 75,
    "RHW": 75,
    "XHHW": 75,
    "USE": 75,
    "THHN": 90,
    "THWN-2": 90,
    "THHN/THWN-2": 90,
    "XHHW-2": 90,
    "RHW-2": 90,
    "USE-2": 90,
}
_SMALLEST: dict[str, str] = {"cu": "14", "al": "12"}
_SMALLEST_PARALLEL = "1/0"
_SETS = range(1, 13)
_COUNT = range(1, 101)


@dataclass(frozen=True, slots=True, kw_only=True)
class ConductorFacts:
    """What decides a conductor besides the current.

    Attributes
    ----------
    material : str
        ``cu`` or ``al``.
    insulation : str
        One of `INSULATIONS`.
    termination_c : int or None
        Temperature marked on every terminal of the circuit; None if no one
        read it, and 110.14(C) then decides. [C]
    design_letter : str or None
        The motor's design letter.
    ambient_c : Decimal
        Air around the raceway. [C]
    current_carrying : int
        Current-carrying conductors in the raceway, spares included.
    parallel_sets : int
        Conductors in parallel per phase, each set in its own raceway.
    smallest : ConductorSize or None
        What the place allows as the smallest size, where that is more than the code asks.
    """

    material: Material = "cu"
    insulation: str = "THWN"
    termination_c: int | None = None
    design_letter: str | None = None
    ambient_c: Decimal = Decimal(30)
    current_carrying: int = 3
    parallel_sets: int = 1
    smallest: ConductorSize | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Pick:
    """The smallest size that passes, with both of its ampacities [A]."""

    size: ConductorSize
    row: int
    terminal_a: Decimal
    corrected_a: Decimal
    own_a: Decimal
    below: ConductorSize | None

    @property
    def holds_a(self) -> Decimal:
        """Return the ampacity that governs [A]."""
        return min(self.terminal_a, self.corrected_a)


def required_ampacity(*, edition: Edition, trail: Trail, percent: Decimal | None = None) -> Step:
    """Return the least ampacity of the conductors of a continuous-duty motor.

    Parameters
    ----------
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds ``table_flc_a``; the step is added to it.
    percent : Decimal, optional
        What the place asks for instead of 125. [percent]

    Returns
    -------
    Step
        ``required_ampacity_a``, 125 % of the table current. [A]

    Raises
    ------
    KeyError
        If the table current was not calculated before: a bug.
    """
    flc = trail.number("table_flc_a")
    factor = CONTINUOUS_DUTY_FACTOR if percent is None else percent / 100
    value = flc * factor
    return trail.add(
        Step(
            id="required_ampacity_a",
            value=value,
            unit="A",
            kind="calculated",
            shown=show(value, "minimum"),
            working=Message(
                "conductor.required",
                {"flc": plain(flc), "factor": plain(factor), "value": plain(value)},
            ),
            rule=rule("conductor", edition),
            uses=("table_flc_a",)
            if percent is None
            else ("table_flc_a", "amendment_conductor_percent"),
        )
    )


def _check(facts: ConductorFacts) -> None:
    if facts.insulation not in INSULATIONS:
        raise OutOfRangeError(
            Message("insulation.unknown", {"insulation": facts.insulation[:20]}),
            field="size.insulation",
            hint=Message("insulation.unknown.hint", {"known": ", ".join(INSULATIONS)}),
        )
    for field, value, allowed in (
        ("size.parallel_sets", facts.parallel_sets, _SETS),
        ("size.current_carrying", facts.current_carrying, _COUNT),
    ):
        if value not in allowed:
            raise OutOfRangeError(
                Message(
                    "count.range",
                    {"count": str(value), "low": str(allowed[0]), "high": str(allowed[-1])},
                ),
                field=field,
                hint=Message("count.range.hint"),
            )
    if facts.termination_c not in {None, 60, 75, 90}:
        raise OutOfRangeError(
            Message("terminals.unknown", {"degrees": str(facts.termination_c)}),
            field="size.termination_c",
            hint=Message("terminals.unknown.hint"),
        )


def _terminals(facts: ConductorFacts, required_a: Decimal) -> tuple[int, str, str]:
    """Return the governing column [C], the subject of its rule, and the message."""
    own = INSULATIONS[facts.insulation]
    if facts.termination_c is not None:
        degrees = min(facts.termination_c, own, 75)
        return degrees, "terminals", "terminals.marked"
    if required_a > LARGE_CIRCUIT_A:
        return min(75, own), "terminals_large", "terminals.large"
    if facts.design_letter in {"B", "C", "D"} and own >= 75:
        return 75, "terminals_design_letter", "terminals.design"
    return 60, "terminals_small", "terminals.small"


def _ambient_row(book: Table, ambient_c: Decimal) -> int:
    highs = book.figures("ambient_c_max")
    for row, high in enumerate(highs):
        if ambient_c <= high:
            return row
    raise OutOfRangeError(
        Message("ambient.range", {"ambient": plain(ambient_c), "high": plain(highs[-1])}),
        field="size.ambient_c",
        hint=Message("ambient.range.hint"),
    )


def _ambient(facts: ConductorFacts, edition: Edition, trail: Trail) -> Step:
    book = table("310_15_b_1")
    if facts.ambient_c < -60:
        raise OutOfRangeError(
            Message("ambient.range", {"ambient": plain(facts.ambient_c), "high": "85"}),
            field="size.ambient_c",
            hint=Message("ambient.range.hint"),
        )
    row = _ambient_row(book, facts.ambient_c)
    own = INSULATIONS[facts.insulation]
    if book.number(row, f"t{own}") is None:
        raise RefusedError(
            Message(
                "ambient.too_hot",
                {
                    "ambient": plain(facts.ambient_c),
                    "insulation": facts.insulation,
                    "own": str(own),
                },
            ),
            field="size.ambient_c",
            hint=Message("ambient.too_hot.hint"),
        )
    found = book.find(row, f"t{own}", edition=edition)
    return trail.add(
        Step(
            id="ambient_factor",
            value=found.value,
            unit="",
            kind="calculated",
            shown=plain(found.value),
            working=Message(
                "ambient.factor",
                {
                    "ambient": plain(facts.ambient_c),
                    "own": str(own),
                    "factor": plain(found.value),
                },
            ),
            rule=rule("ambient", edition),
            uses=tuple(name for name in ("ambient_c", "insulation") if name in trail),
            cell=found.cell,
            marks=found.marks,
        )
    )


def adjustment_for(
    count: int, edition: Edition, trail: Trail, step_id: str = "adjustment_factor"
) -> Step:
    """Return the factor for the number of current-carrying conductors in a raceway.

    Parameters
    ----------
    count : int
        Conductors that carry current.
    edition : int
        Edition whose sections are cited.
    trail : Trail
        The step is added to it.
    step_id : str
        Name of the step.
    """
    uses = tuple(name for name in ("current_carrying",) if name in trail)
    if count <= 3:
        return trail.add(
            Step(
                id=step_id,
                value=Decimal(1),
                unit="",
                kind="calculated",
                shown="1",
                working=Message("adjustment.none", {"count": str(count)}),
                rule=rule("adjustment", edition),
                uses=uses,
            )
        )
    book = table("310_15_c_1")
    lows = book.figures("conductors_min")
    row = max(place for place, low in enumerate(lows) if low <= count)
    found = book.find(row, "percent", edition=edition)
    return trail.add(
        Step(
            id=step_id,
            value=found.value / 100,
            unit="",
            kind="calculated",
            shown=plain(found.value / 100),
            working=Message(
                "adjustment.percent",
                {"count": str(count), "percent": plain(found.value)},
            ),
            rule=rule("adjustment", edition),
            uses=uses,
            cell=found.cell,
            marks=found.marks,
        )
    )


@cache
def _ladder(material: str) -> tuple[tuple[ConductorSize, int], ...]:
    book = table("310_16")
    rows = zip(book.column("size"), book.column("material"), strict=True)
    return tuple(
        (ConductorSize(size), row) for row, (size, metal) in enumerate(rows) if metal == material
    )


@cache
def _ampacity(row: int, column: str) -> Decimal | None:
    return table("310_16").number(row, column)


@lru_cache(maxsize=8192)
def pick_conductor(
    *,
    required_a: Decimal,
    facts: ConductorFacts,
    terminal_c: int,
    factor: Decimal,
) -> Pick | None:
    """Return the smallest size that carries a current, or None if none does.

    Parameters
    ----------
    required_a : Decimal
        Least ampacity per phase. [A]
    facts : ConductorFacts
        Material, insulation and parallel sets.
    terminal_c : int
        Column that the terminals allow. [C]
    factor : Decimal
        Ambient correction times adjustment.

    Returns
    -------
    Pick or None
        Never a size below the smallest that the code allows.
    """
    own = INSULATIONS[facts.insulation]
    least = ConductorSize(_SMALLEST[facts.material])
    if facts.parallel_sets > 1:
        least = ConductorSize(_SMALLEST_PARALLEL)
    if facts.smallest is not None:
        least = max(least, facts.smallest)
    before: ConductorSize | None = None
    for size, row in _ladder(facts.material):
        at_terminal, at_own = _ampacity(row, f"t{terminal_c}"), _ampacity(row, f"t{own}")
        if size < least or at_terminal is None or at_own is None:
            continue
        terminal_a = at_terminal * facts.parallel_sets
        corrected_a = at_own * factor * facts.parallel_sets
        if terminal_a >= required_a and corrected_a >= required_a:
            return Pick(
                size=size,
                row=row,
                terminal_a=terminal_a,
                corrected_a=corrected_a,
                own_a=at_own,
                below=before,
            )
        before = size
    return None


def conductor(facts: ConductorFacts, *, edition: Edition, trail: Trail) -> Step:
    """Return the smallest conductor of a motor's branch circuit.

    Parameters
    ----------
    facts : ConductorFacts
        Material, insulation, terminals, ambient, number of conductors.
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds ``required_ampacity_a``; the steps are added to it.

    Returns
    -------
    Step
        ``conductor_size``, with ``ampacity_a`` and the steps it stands on.

    Raises
    ------
    CoreError
        If a fact is out of its range, the insulation may not be used in that
        ambient, or one conductor per phase cannot carry the current.
    """
    _check(facts)
    required = trail.number("required_ampacity_a")
    terminal_c, subject, said = _terminals(facts, required)
    trail.add(
        Step(
            id="terminal_temperature_c",
            value=Decimal(terminal_c),
            unit="°C",
            kind="calculated",
            shown=str(terminal_c),
            working=Message(
                said,
                {
                    "degrees": str(terminal_c),
                    "marked": str(facts.termination_c),
                    "letter": facts.design_letter or "",
                    "amps": show(required, "minimum"),
                    "own": str(INSULATIONS[facts.insulation]),
                },
            ),
            rule=rule(subject, edition),
            uses=tuple(
                name
                for name in ("termination_c", "design_letter", "insulation", "required_ampacity_a")
                if name in trail and (name != "design_letter" or said == "terminals.design")
            ),
        )
    )
    ambient = _ambient(facts, edition, trail)
    adjustment = adjustment_for(facts.current_carrying, edition, trail)
    factor = ambient.number * adjustment.number
    pick = pick_conductor(required_a=required, facts=facts, terminal_c=terminal_c, factor=factor)
    if pick is None:
        raise NotInTableError(
            Message("conductor.none", {"amps": show(required, "minimum")}),
            field="size.parallel_sets",
            hint=Message("conductor.none.hint"),
        )
    return _steps(facts, pick, terminal_c, factor, required, edition, trail)


def _steps(
    facts: ConductorFacts,
    pick: Pick,
    terminal_c: int,
    factor: Decimal,
    required: Decimal,
    edition: Edition,
    trail: Trail,
) -> Step:
    book = table("310_16")
    own = INSULATIONS[facts.insulation]
    found = book.find(pick.row, f"t{terminal_c}", edition=edition)
    found_own = book.find(pick.row, f"t{own}", edition=edition)
    marks = (*found.marks, *(mark for mark in found_own.marks if mark not in found.marks))
    params = {
        "size": str(pick.size),
        "sets": str(facts.parallel_sets),
        "degrees": str(terminal_c),
        "terminal": plain(pick.terminal_a),
        "own": str(own),
        "own_a": plain(pick.own_a),
        "factor": plain(factor),
        "corrected": show(pick.corrected_a, "limit"),
        "required": show(required, "minimum"),
        "below": str(pick.below) if pick.below else "",
    }
    shared = (
        "required_ampacity_a",
        "terminal_temperature_c",
        "ambient_factor",
        "adjustment_factor",
        *(
            name
            for name in (
                "conductor_material",
                "insulation",
                "parallel_sets",
                "amendment_smallest_conductor",
            )
            if name in trail
        ),
    )
    trail.add(
        Step(
            id="ampacity_a",
            value=pick.holds_a,
            unit="A",
            kind="calculated",
            shown=show(pick.holds_a, "limit"),
            working=Message("conductor.ampacity", params),
            rule=rule("ampacity", edition),
            uses=shared,
            cell=found.cell,
            marks=marks,
        )
    )
    shown = str(pick.size)
    if facts.parallel_sets > 1:
        shown = f"{facts.parallel_sets} × {shown}"
    return trail.add(
        Step(
            id="conductor_size",
            value=pick.size,
            unit=pick.size.unit,
            kind="calculated",
            shown=shown,
            working=Message(
                "conductor.smallest" if pick.below is None else "conductor.size", params
            ),
            rule=rule("conductor" if facts.parallel_sets == 1 else "parallel", edition),
            uses=(*shared, "ampacity_a"),
            cell=found.cell,
            marks=marks,
            tips=_tips(facts, pick, terminal_c, factor, required),
        )
    )


def _tips(
    facts: ConductorFacts, pick: Pick, terminal_c: int, factor: Decimal, required: Decimal
) -> tuple[Tip, ...]:
    """Calculate what would tip the size over: current, terminals, metal."""
    limit = pick.holds_a / CONTINUOUS_DUTY_FACTOR
    tips = [
        Tip(
            message=Message(
                "conductor.tip_current", {"size": str(pick.size), "flc": show(limit, "limit")}
            )
        )
    ]
    for degrees in (60, 75):
        if degrees == terminal_c or degrees > INSULATIONS[facts.insulation]:
            continue
        other = pick_conductor(required_a=required, facts=facts, terminal_c=degrees, factor=factor)
        if other is not None and other.size != pick.size:
            tips.append(
                Tip(
                    message=Message(
                        "conductor.tip_terminals",
                        {"degrees": str(degrees), "size": str(other.size)},
                    )
                )
            )
    metal: Material = "al" if facts.material == "cu" else "cu"
    swapped = ConductorFacts(
        material=metal, insulation=facts.insulation, parallel_sets=facts.parallel_sets
    )
    other = pick_conductor(required_a=required, facts=swapped, terminal_c=terminal_c, factor=factor)
    if other is not None:
        tips.append(Tip(message=Message(f"conductor.tip_{metal}", {"size": str(other.size)})))
    return tuple(tips)
