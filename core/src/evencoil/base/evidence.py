"""Values that never travel without their evidence.

A `Step` is one value with its unit, the rule it follows, the table cell it was
read from, the steps it stands on, and the marks it inherits from them. A
`Trail` collects the steps of one piece of work in the order they were made and
carries every mark downstream.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field, replace
from decimal import Decimal
from typing import Literal

from evencoil.base.errors import CoreError
from evencoil.base.quantities import ConductorSize
from evencoil.base.words import Message

__all__ = [
    "Cell",
    "Finding",
    "Level",
    "Mark",
    "Rule",
    "Step",
    "Tip",
    "Trail",
    "Verdict",
    "finding",
    "finding_of",
    "with_unit",
]

Value = Decimal | ConductorSize | str
Kind = Literal["read", "assumed", "calculated"]
Level = Literal["agrees", "note", "doubt", "refusal"]
Verdict = Literal["", "holds", "fails"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Rule:
    """Where a rule stands: standard, edition, section."""

    standard: str
    edition: int
    section: str

    def __str__(self) -> str:
        """Return the citation as printed on a slip."""
        return f"{self.standard} {self.edition}, {self.section}"


@dataclass(frozen=True, slots=True, kw_only=True)
class Cell:
    """One cell of a code table, with its neighbors so that a reader can check it.

    ``rows`` holds the row above, the row itself and the row below, as text;
    ``hit_row`` counts in ``rows``, ``hit_column`` in ``columns``.
    """

    table: str
    title: str
    source: str
    units: str
    columns: tuple[str, ...]
    rows: tuple[tuple[str, ...], ...]
    hit_row: int
    hit_column: int


@dataclass(frozen=True, slots=True, kw_only=True)
class Mark:
    """A warning that travels with a value and with all that stands on it."""

    kind: Literal["assumed", "check_the_book", "doubted"]
    origin: str
    message: Message


@dataclass(frozen=True, slots=True, kw_only=True)
class Tip:
    """What would have to change for the answer to change, computed."""

    message: Message


@dataclass(frozen=True, slots=True, kw_only=True)
class Finding:
    """What a check found: agreement, a note, a doubt or a refusal."""

    code: str
    level: Level
    field: str
    message: Message
    hint: Message | None = None
    spans: tuple[tuple[int, int], ...] = ()


def finding(sentences: str, field: str, code: str, level: Level, /, **params: str) -> Finding:
    """Return a finding whose sentence is ``sentences.code``.

    A doubt and a refusal carry the hint ``sentences.code.hint``; agreements and
    notes ask for nothing and carry none.

    Parameters
    ----------
    sentences : str
        First part of the message ids, such as ``housing``.
    field : str
        The input it is about.
    code : str
        Name of the finding.
    level : str
        How grave it is.
    params : str
        What fills the gaps of both sentences.
    """
    is_quiet = level in {"agrees", "note"}
    return Finding(
        code=code,
        level=level,
        field=field,
        message=Message(f"{sentences}.{code}", params),
        hint=None if is_quiet else Message(f"{sentences}.{code}.hint", params),
    )


def finding_of(error: CoreError, code: str) -> Finding:
    """Return the doubt that a refused input raises; the rest of the check goes on.

    Parameters
    ----------
    error : CoreError
        What was refused, with its field and hint.
    code : str
        Name of the finding.
    """
    return Finding(
        code=code, level="doubt", field=error.field, message=error.message, hint=error.hint
    )


@dataclass(slots=True, kw_only=True)
class Step:
    """One value with its evidence.

    Nothing changes a step after `Trail.add` has completed its marks. The class
    is not frozen because that trebles the cost of making one.

    Attributes
    ----------
    id : str
        Name of the quantity, from table to screen.
    value : Decimal, ConductorSize or str
        The full figure.
    unit : str
        Unit of the value, empty for a pure number or a name.
    kind : str
        ``read`` off the world, ``assumed`` by no one's reading, or ``worked``
        out by a rule. A worked value without a rule is a bug.
    shown : str
        The value as a person reads it: a limit not to be exceeded is rounded
        down, a minimum up.
    verdict : str
        Whether what is there holds or fails; empty for a value that is no verdict.
    """

    id: str
    value: Value
    unit: str
    kind: Kind
    shown: str
    working: Message
    rule: Rule | None = None
    uses: tuple[str, ...] = ()
    cell: Cell | None = None
    marks: tuple[Mark, ...] = ()
    tips: tuple[Tip, ...] = ()
    verdict: Verdict = ""

    def __post_init__(self) -> None:
        """Refuse a worked value that cites no rule."""
        if self.kind == "calculated" and self.rule is None:
            raise TypeError(f"step {self.id!r} is worked out but cites no rule")

    @property
    def said(self) -> str:
        """The value with its unit, as a person reads it."""
        return with_unit(self.shown, self.unit)

    @property
    def number(self) -> Decimal:
        """The value of a step that is a number.

        Raises
        ------
        TypeError
            If the value is not a number: a bug.
        """
        if not isinstance(self.value, Decimal):
            raise TypeError(f"step {self.id!r} is not a number")
        return self.value

    @property
    def text(self) -> str:
        """The full value as files and answers carry it, without its unit."""
        return self.value.size if isinstance(self.value, ConductorSize) else str(self.value)


def with_unit(shown: str, unit: str) -> str:
    """Return a shown value with its unit, which conductor sizes carry already.

    Parameters
    ----------
    shown : str
        As a person reads it.
    unit : str
        Unit of the value, empty if it has none.

    Examples
    --------
    >>> with_unit("21", "A"), with_unit("10 AWG", "AWG"), with_unit("14", "AWG")
    ('21 A', '10 AWG', '14 AWG')
    """
    return shown if not unit or unit in shown.split() else f"{shown} {unit}"


@dataclass(slots=True)
class Trail:
    """The steps of one piece of work, in order, with marks carried downstream."""

    _steps: dict[str, Step] = field(default_factory=dict)

    def add(self, step: Step) -> Step:
        """Keep a step, giving it every mark of the steps that it stands on.

        The same object comes back, with its marks completed.

        Raises
        ------
        KeyError
            If it uses a step that was not made before: a bug.
        """
        steps, marks = self._steps, step.marks
        for used in step.uses:
            more = steps[used].marks
            if more and more is not marks:
                marks += tuple(mark for mark in more if mark not in marks)
        if marks is not step.marks:
            # the step was made for this trail; a copy would cost as much as the work
            step.marks = marks
        steps[step.id] = step
        return step

    def mark_all(self, mark: Mark) -> None:
        """Put a warning on every value: what they all stand on is not to be trusted."""
        for name, step in self._steps.items():
            self._steps[name] = replace(step, marks=(*step.marks, mark))

    def __getitem__(self, step_id: str) -> Step:
        """Return a step by its id."""
        return self._steps[step_id]

    def __contains__(self, step_id: str) -> bool:
        """Tell whether a step of that id was made."""
        return step_id in self._steps

    def __iter__(self) -> Iterator[Step]:
        """Go through the steps in the order they were made."""
        return iter(self._steps.values())

    def number(self, step_id: str) -> Decimal:
        """Return the value of a step that is a number.

        Raises
        ------
        TypeError
            If the value is not a number: a bug.
        """
        return self._steps[step_id].number

    def size(self, step_id: str) -> ConductorSize:
        """Return the value of a step that is a conductor size.

        Raises
        ------
        TypeError
            If the value is no conductor size: a bug.
        """
        value = self._steps[step_id].value
        if not isinstance(value, ConductorSize):
            raise TypeError(f"step {step_id!r} is no conductor size")
        return value
