"""Making steps: one value with its evidence in one call.

Units: none of its own. Rules: ARCHITECTURE, "no figure without its evidence".
"""

from __future__ import annotations

from collections.abc import Mapping
from decimal import Decimal
from typing import Literal

from evencoil.base import ConductorSize, Mark, Message, Step, Tip, Trail, Verdict, plain, show
from evencoil.codebook.editions import Edition, rule
from evencoil.codebook.tables.loader import Found

__all__ = ["assumed", "given", "judged", "tips_of", "worked"]

Rounding = Literal["none", "limit", "minimum"]


def worked(
    trail: Trail,
    step_id: str,
    value: Decimal | ConductorSize | str,
    unit: str,
    said: str,
    subject: str,
    edition: Edition,
    params: Mapping[str, str] | None = None,
    *,
    rounding: Rounding = "none",
    uses: tuple[str, ...] = (),
    found: Found | None = None,
    shown: str | None = None,
    tips: tuple[Tip, ...] = (),
    marks: tuple[Mark, ...] = (),
) -> Step:
    """Add a value that a rule gives.

    Parameters
    ----------
    trail : Trail
        The step is added to it.
    step_id : str
        Name of the quantity.
    value : Decimal, ConductorSize or str
        The full figure, or the name of a size.
    unit : str
        Its unit.
    said : str
        Id of the sentence that shows the arithmetic; ``{value}`` is the figure in full.
    subject : str
        Subject of the rule, as `evencoil.editions.rule` knows it.
    edition : int
        Edition whose sections are cited.
    params : mapping
        What else goes into the sentence.
    rounding : str
        How the figure is rounded where it is shown.
    uses : tuple of str
        Steps that it stands on; those that were not made are left out.
    found : Found, optional
        The table cell it was read from.
    shown : str, optional
        As a person reads it, where that is not the rounded figure.
    tips : tuple of Tip
        What would tip it over.
    marks : tuple of Mark
        Warnings of its own.
    """
    if shown is None:
        shown = show(value, rounding) if isinstance(value, Decimal) else str(value)
    full = plain(value) if isinstance(value, Decimal) else str(value)
    return trail.add(
        Step(
            id=step_id,
            value=value,
            unit=unit,
            kind="calculated",
            shown=shown,
            working=Message(said, {"value": full, **(params or {})}),
            rule=rule(subject, edition),
            uses=tuple(name for name in uses if name in trail),
            cell=None if found is None else found.cell,
            marks=(*(() if found is None else found.marks), *marks),
            tips=tips,
        )
    )


def judged(
    trail: Trail,
    step_id: str,
    verdict: Verdict,
    shown: str,
    said: str,
    subject: str,
    edition: Edition,
    params: Mapping[str, str] | None = None,
    *,
    uses: tuple[str, ...] = (),
    found: Found | None = None,
    marks: tuple[Mark, ...] = (),
) -> Step:
    """Add a verdict on something that is there: it holds or it fails.

    Parameters
    ----------
    trail : Trail
        The step is added to it.
    step_id : str
        Name of what is judged.
    verdict : str
        ``holds`` or ``fails``.
    shown : str
        What is there, as a person reads it.
    said : str
        Id of the sentence with the comparison.
    subject : str
        Subject of the rule.
    edition : int
        Edition whose sections are cited.
    params : mapping
        What goes into the sentence.
    uses : tuple of str
        Steps that it stands on; those that were not made are left out.
    found : Found, optional
        The table cell it was read from.
    marks : tuple of Mark
        Warnings of its own.
    """
    return trail.add(
        Step(
            id=step_id,
            value=verdict,
            unit="",
            kind="calculated",
            shown=shown,
            working=Message(said, params or {}),
            rule=rule(subject, edition),
            uses=tuple(name for name in uses if name in trail),
            cell=None if found is None else found.cell,
            marks=(*(() if found is None else found.marks), *marks),
            verdict=verdict,
        )
    )


def given(
    trail: Trail,
    step_id: str,
    value: Decimal | str,
    unit: str,
    said: str = "given.value",
    params: Mapping[str, str] | None = None,
    *,
    shown: str | None = None,
) -> Step:
    """Add a value that a person gave.

    Parameters
    ----------
    trail : Trail
        The step is added to it.
    step_id : str
        Name of the quantity.
    value : Decimal or str
        As given.
    unit : str
        Its unit.
    said : str
        Id of the sentence.
    params : mapping
        What else goes into the sentence.
    shown : str, optional
        As a person reads it.
    """
    text = shown or (plain(value) if isinstance(value, Decimal) else value)
    sentence = Message(said, {"value": text, "unit": unit, **(params or {})})
    return trail.add(
        Step(id=step_id, value=value, unit=unit, kind="read", shown=text, working=sentence)
    )


def assumed(
    trail: Trail,
    step_id: str,
    value: Decimal | str,
    unit: str,
    said: str,
    params: Mapping[str, str] | None = None,
    *,
    shown: str | None = None,
) -> Step:
    """Add a value that no one gave; it marks everything that stands on it.

    Parameters
    ----------
    trail : Trail
        The step is added to it.
    step_id : str
        Name of the quantity.
    value : Decimal or str
        What is taken instead.
    unit : str
        Its unit.
    said : str
        Id of the sentence that says so.
    params : mapping
        What else goes into the sentence.
    shown : str, optional
        As a person reads it.
    """
    text = shown or (plain(value) if isinstance(value, Decimal) else value)
    message = Message(said, {"value": text, **(params or {})})
    mark = Mark(kind="assumed", origin=step_id, message=message)
    return trail.add(
        Step(
            id=step_id,
            value=value,
            unit=unit,
            kind="assumed",
            shown=text,
            working=message,
            marks=(mark,),
        )
    )


def tips_of(*messages: Message | None) -> tuple[Tip, ...]:
    """Return the tips of messages, leaving out what does not apply."""
    return tuple(Tip(message=message) for message in messages if message is not None)
