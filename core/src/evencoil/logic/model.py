"""A program of the relay: declarations and statements; rungs and text are views of it.

Places are kept for messages and do not tell two programs apart.

Units: TIME [ms].
Source: IEC 61131-3, the part of Structured Text that the relay here takes.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Literal as OneOf

from evencoil.logic.refusal import Place

__all__ = [
    "Assign",
    "Binary",
    "Call",
    "Case",
    "Choice",
    "Convert",
    "Declared",
    "Expression",
    "If",
    "Input",
    "Label",
    "Literal",
    "Many",
    "Member",
    "Minus",
    "Not",
    "Output",
    "Program",
    "Statement",
    "Variable",
    "VariableBlock",
]

_NOWHERE: Place = (1, 1)


@dataclass(frozen=True, slots=True)
class Literal:
    """A value: BOOL, INT, REAL, or TIME [ms]; ``text`` is as it is written."""

    type: OneOf["BOOL", "INT", "REAL", "TIME"]
    value: bool | int | float
    text: str
    place: Place = field(default=_NOWHERE, compare=False, repr=False)


@dataclass(frozen=True, slots=True)
class Variable:
    """A variable, a constant, an input or an output by its name as declared."""

    name: str
    place: Place = field(default=_NOWHERE, compare=False, repr=False)


@dataclass(frozen=True, slots=True)
class Member:
    """What a block shows: ``T1.Q``."""

    block: str
    name: str
    place: Place = field(default=_NOWHERE, compare=False, repr=False)


@dataclass(frozen=True, slots=True)
class Not:
    """NOT of one operand."""

    operand: Expression
    place: Place = field(default=_NOWHERE, compare=False, repr=False)


@dataclass(frozen=True, slots=True)
class Minus:
    """Minus of one operand; a number with its sign is a literal."""

    operand: Expression
    place: Place = field(default=_NOWHERE, compare=False, repr=False)


@dataclass(frozen=True, slots=True)
class Many:
    """AND or OR of two or more; one of the same kind inside it is part of it."""

    operator: OneOf["AND", "OR"]
    operands: tuple[Expression, ...]
    place: Place = field(default=_NOWHERE, compare=False, repr=False)


@dataclass(frozen=True, slots=True)
class Binary:
    """Arithmetic, comparison or XOR of two; ``at`` is where the operator stands."""

    operator: str
    left: Expression
    right: Expression
    place: Place = field(default=_NOWHERE, compare=False, repr=False)
    at: Place = field(default=_NOWHERE, compare=False, repr=False)


@dataclass(frozen=True, slots=True)
class Convert:
    """REAL_TO_INT or INT_TO_REAL."""

    function: str
    operand: Expression
    place: Place = field(default=_NOWHERE, compare=False, repr=False)


Expression = Literal | Variable | Member | Not | Minus | Many | Binary | Convert


@dataclass(frozen=True, slots=True)
class Assign:
    """A value that is given to a variable: ``v := e;``."""

    target: str
    value: Expression
    place: Place = field(default=_NOWHERE, compare=False, repr=False)


@dataclass(frozen=True, slots=True)
class Input:
    """``IN := e`` of a call."""

    name: str
    value: Expression
    place: Place = field(default=_NOWHERE, compare=False, repr=False)


@dataclass(frozen=True, slots=True)
class Output:
    """``Q => v`` of a call; ``at`` is the place of what it writes."""

    name: str
    target: str
    place: Place = field(default=_NOWHERE, compare=False, repr=False)
    at: Place = field(default=_NOWHERE, compare=False, repr=False)


@dataclass(frozen=True, slots=True)
class Call:
    """A block: its inputs in the block's order, then what it writes elsewhere."""

    block: str
    inputs: tuple[Input, ...] = ()
    outputs: tuple[Output, ...] = ()
    place: Place = field(default=_NOWHERE, compare=False, repr=False)

    def input(self, name: str) -> Expression | None:
        """Return what an input is given; None if nothing."""
        return next((one.value for one in self.inputs if one.name == name), None)


@dataclass(frozen=True, slots=True)
class If:
    """Branches with their conditions; the last may be without."""

    branches: tuple[tuple[Expression, tuple[Statement, ...]], ...]
    otherwise: tuple[Statement, ...] = ()
    place: Place = field(default=_NOWHERE, compare=False, repr=False)


@dataclass(frozen=True, slots=True)
class Label:
    """A value, a range of values, or a constant by its name."""

    low: int | str
    high: int | None = None
    place: Place = field(default=_NOWHERE, compare=False, repr=False)


@dataclass(frozen=True, slots=True)
class Choice:
    """What a CASE does for some values."""

    labels: tuple[Label, ...]
    body: tuple[Statement, ...]


@dataclass(frozen=True, slots=True)
class Case:
    """One of several, by an INT."""

    value: Expression
    choices: tuple[Choice, ...]
    otherwise: tuple[Statement, ...] = ()
    place: Place = field(default=_NOWHERE, compare=False, repr=False)


Statement = Assign | Call | If | Case


@dataclass(frozen=True, slots=True)
class Declared:
    """A name with its type; ``address`` as ``%IX0.0``, empty for none.

    ``at`` and ``type_at`` are the places of the address and of the type.
    """

    name: str
    type: str
    address: str = ""
    initial: Literal | None = None
    place: Place = field(default=_NOWHERE, compare=False, repr=False)
    at: Place = field(default=_NOWHERE, compare=False, repr=False)
    type_at: Place = field(default=_NOWHERE, compare=False, repr=False)


@dataclass(frozen=True, slots=True)
class VariableBlock:
    """``VAR ... END_VAR``: its word and its qualifier, empty for none."""

    word: OneOf["VAR", "VAR_INPUT", "VAR_OUTPUT"]
    qualifier: OneOf["", "RETAIN", "NON_RETAIN", "CONSTANT"]
    declared: tuple[Declared, ...]


@dataclass(frozen=True, slots=True)
class Program:
    """Declarations, and the networks in the order they are worked."""

    blocks: tuple[VariableBlock, ...] = ()
    statements: tuple[Statement, ...] = ()
    name: str = "Main"
