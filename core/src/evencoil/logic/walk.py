"""Going through a program: every statement, every expression, what reads and what writes."""

from __future__ import annotations

from collections.abc import Iterator

from evencoil.logic.model import (
    Assign,
    Binary,
    Call,
    Case,
    Convert,
    Expression,
    If,
    Many,
    Member,
    Minus,
    Not,
    Statement,
    Variable,
)

__all__ = ["expressions_in", "parts_of", "reads_of", "statements_in", "writes_of"]


def statements_in(one: Statement) -> Iterator[Statement]:
    """Go through a statement and all that lie in it.

    Parameters
    ----------
    one : Statement
        Of a program.
    """
    yield one
    if isinstance(one, If):
        bodies = [body for _, body in one.branches]
    elif isinstance(one, Case):
        bodies = [choice.body for choice in one.choices]
    else:
        return
    for body in (*bodies, one.otherwise):
        for inside in body:
            yield from statements_in(inside)


def expressions_in(one: Statement) -> Iterator[Expression]:
    """Go through the whole expressions of one statement alone.

    Parameters
    ----------
    one : Statement
        Of a program.
    """
    if isinstance(one, Assign):
        yield one.value
    elif isinstance(one, Call):
        yield from (given.value for given in one.inputs)
    elif isinstance(one, If):
        yield from (condition for condition, _ in one.branches)
    else:
        yield one.value


def parts_of(one: Expression) -> Iterator[Expression]:
    """Go through an expression and all its parts.

    Parameters
    ----------
    one : Expression
        Of a program.
    """
    yield one
    if isinstance(one, Many):
        inside: tuple[Expression, ...] = one.operands
    elif isinstance(one, Binary):
        inside = (one.left, one.right)
    elif isinstance(one, Not | Minus | Convert):
        inside = (one.operand,)
    else:
        return
    for part in inside:
        yield from parts_of(part)


def reads_of(one: Statement) -> Iterator[str]:
    """Go through every variable and block that one network reads, as often as it does.

    Parameters
    ----------
    one : Statement
        A network.
    """
    for inside in statements_in(one):
        for whole in expressions_in(inside):
            for part in parts_of(whole):
                if isinstance(part, Variable):
                    yield part.name
                elif isinstance(part, Member):
                    yield part.block


def writes_of(one: Statement) -> Iterator[str]:
    """Go through every variable that one network writes.

    Parameters
    ----------
    one : Statement
        A network.
    """
    for inside in statements_in(one):
        if isinstance(inside, Assign):
            yield inside.target
        elif isinstance(inside, Call):
            yield from (given.target for given in inside.outputs)
