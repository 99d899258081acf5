"""The smallest conductor for a part of the circuit that has a least ampacity of its own.

Units: current [A], temperature [C].
Rules: NEC 310.16 with the column that the terminals allow; which least ampacity holds
is named by the caller (legs, rotor, speeds, drives, taps, feeders).
"""

from __future__ import annotations

from dataclasses import dataclass
from decimal import Decimal

from evencoil.base import Message, NotInTableError, Step, Trail, show
from evencoil.codebook import Edition, table, worked
from evencoil.sizing.conductor import ConductorFacts, pick_conductor

__all__ = ["Fitted", "fit_conductor", "part_conductor"]


@dataclass(frozen=True, slots=True)
class Fitted:
    """A conductor that was chosen, and the ampacity that governs it [A]."""

    step: Step
    holds_a: Decimal


_AS_THE_LINE = ("terminal_temperature_c", "ambient_factor", "adjustment_factor")


def part_conductor(
    trail: Trail,
    step_id: str,
    needs: str,
    facts: ConductorFacts,
    edition: Edition,
    *,
    said: str = "part.conductor",
    subject: str = "ampacity",
    uses: tuple[str, ...] = (),
) -> Step:
    """Return the smallest conductor under the same conditions as the line side.

    Parameters
    ----------
    trail : Trail
        Holds the least ampacity, ``terminal_temperature_c`` and the factors.
    step_id : str
        Name of the step that is added.
    needs : str
        Name of the least ampacity.
    facts : ConductorFacts
        Material, insulation, number of conductors.
    edition : int
        Edition whose sections are cited.
    said : str
        Id of the sentence with the comparison.
    subject : str
        Subject of the rule.
    uses : tuple of str
        What it stands on besides.
    """
    factor = trail.number("ambient_factor") * trail.number("adjustment_factor")
    return fit_conductor(
        trail,
        step_id,
        needs,
        facts,
        edition,
        factor=factor,
        terminal_c=int(trail.number("terminal_temperature_c")),
        said=said,
        subject=subject,
        uses=(*_AS_THE_LINE, *uses),
    ).step


def fit_conductor(
    trail: Trail,
    step_id: str,
    needs: str,
    facts: ConductorFacts,
    edition: Edition,
    *,
    terminal_c: int,
    factor: Decimal = Decimal(1),
    said: str = "part.conductor",
    subject: str = "ampacity",
    field: str = "size.parallel_sets",
    uses: tuple[str, ...] = (),
) -> Fitted:
    """Return the smallest conductor for a column and a factor, with its ampacity.

    Parameters
    ----------
    trail : Trail
        Holds the minimum ampacity; the step is added to it.
    step_id : str
        Name of the step that is added.
    needs : str
        Name of the minimum ampacity.
    facts : ConductorFacts
        Material, insulation, number of conductors.
    edition : int
        Edition whose sections are cited.
    terminal_c : int
        Terminal temperature rating. [C]
    factor : Decimal
        Ambient correction times adjustment.
    said : str
        Id of the sentence with the comparison.
    subject : str
        Subject of the rule.
    field : str
        Field that a refusal points at.
    uses : tuple of str
        Further steps that it depends on.

    Raises
    ------
    NotInTableError
        If no single conductor carries it.
    """
    needed = trail.number(needs)
    pick = pick_conductor(required_a=needed, facts=facts, terminal_c=terminal_c, factor=factor)
    if pick is None:
        raise NotInTableError(
            Message("conductor.none", {"amps": show(needed, "minimum")}),
            field=field,
            hint=Message("conductor.none.hint"),
        )
    step = worked(
        trail,
        step_id,
        pick.size,
        pick.size.unit,
        said,
        subject,
        edition,
        {
            "size": str(pick.size),
            "holds": show(pick.holds_a, "limit"),
            "needed": show(needed, "minimum"),
            "degrees": str(terminal_c),
        },
        uses=(needs, *uses),
        found=table("310_16").find(pick.row, f"t{terminal_c}", edition=edition),
        shown=str(pick.size),
    )
    return Fitted(step, pick.holds_a)
