"""A program as text, always in the same form: one statement a line, brackets where needed."""

from __future__ import annotations

from collections.abc import Iterable, Iterator

from evencoil.logic.model import (
    Assign,
    Binary,
    Call,
    Convert,
    Declared,
    Expression,
    If,
    Label,
    Literal,
    Many,
    Member,
    Minus,
    Not,
    Program,
    Statement,
    Variable,
    VariableBlock,
)

__all__ = ["declarations_text", "expression_text", "program_text", "statement_text"]

_STEP = "  "
#: how tight an operator holds, from the loosest
_TIGHT = {
    "OR": 0,
    "XOR": 1,
    "AND": 2,
    "=": 3,
    "<>": 3,
    "<": 4,
    ">": 4,
    "<=": 4,
    ">=": 4,
    "+": 5,
    "-": 5,
    "*": 6,
    "/": 6,
    "MOD": 6,
}
_UNARY, _WHOLE = 7, 8


def expression_text(one: Expression) -> str:
    """Return an expression as text.

    Parameters
    ----------
    one : Expression
        Of a program.
    """
    return _told(one)[0]


def _told(one: Expression) -> tuple[str, int]:
    """Return a text, and how tight its loosest operator holds."""
    told, tight = "", _WHOLE
    match one:
        case Literal():
            told, tight = one.text, _UNARY if one.text.startswith("-") else _WHOLE
        case Variable():
            told = one.name
        case Member():
            told = f"{one.block}.{one.name}"
        case Convert():
            told = f"{one.function}({_told(one.operand)[0]})"
        case Not():
            told, tight = f"NOT {_inside(one.operand, _WHOLE)}", _UNARY
        case Minus():
            # a number behind a minus would be read as one literal
            is_number = isinstance(one.operand, Literal)
            plain = _told(one.operand)[0]
            told = f"-({plain})" if is_number else f"-{_inside(one.operand, _WHOLE)}"
            tight = _UNARY
        case Many():
            tight = _TIGHT[one.operator]
            told = f" {one.operator} ".join(_inside(part, tight + 1) for part in one.operands)
        case _:
            told, tight = _binary(one)
    return told, tight


def _binary(one: Binary) -> tuple[str, int]:
    tight = _TIGHT[one.operator]
    left, right = _inside(one.left, tight), _inside(one.right, tight + 1)
    return f"{left} {one.operator} {right}", tight


def _inside(one: Expression, least: int) -> str:
    """Return an operand, in brackets if it holds looser than it has to."""
    told, tight = _told(one)
    return told if tight >= least else f"({told})"


def statement_text(one: Statement, depth: int = 0) -> str:
    """Return a statement as text, without a break at its end.

    Parameters
    ----------
    one : Statement
        Of a program.
    depth : int
        In how many others it lies.
    """
    return "\n".join(_lines(one, depth))


def _lines(one: Statement, depth: int) -> Iterator[str]:
    indent = _STEP * depth
    if isinstance(one, Assign):
        yield f"{indent}{one.target} := {expression_text(one.value)};"
    elif isinstance(one, Call):
        given = [f"{part.name} := {expression_text(part.value)}" for part in one.inputs]
        given += [f"{part.name} => {part.target}" for part in one.outputs]
        yield f"{indent}{one.block}({', '.join(given)});"
    elif isinstance(one, If):
        yield from _if(one, depth)
    else:
        yield f"{indent}CASE {expression_text(one.value)} OF"
        for choice in one.choices:
            yield f"{indent}{_STEP}{', '.join(_label(label) for label in choice.labels)}:"
            yield from _body(choice.body, depth + 2)
        yield from _otherwise(one.otherwise, depth)
        yield f"{indent}END_CASE;"


def _if(one: If, depth: int) -> Iterator[str]:
    indent = _STEP * depth
    # a set or reset coil stands on one line
    if len(one.branches) == 1 and not one.otherwise and len(one.branches[0][1]) == 1:
        condition, (inside,) = one.branches[0]
        if isinstance(inside, Assign):
            told = f"{indent}IF {expression_text(condition)} THEN {statement_text(inside)} END_IF;"
            yield told
            return
    for place, (condition, body) in enumerate(one.branches):
        yield f"{indent}{'ELSIF' if place else 'IF'} {expression_text(condition)} THEN"
        yield from _body(body, depth + 1)
    yield from _otherwise(one.otherwise, depth)
    yield f"{indent}END_IF;"


def _otherwise(body: tuple[Statement, ...], depth: int) -> Iterator[str]:
    if body:
        yield f"{_STEP * depth}ELSE"
        yield from _body(body, depth + 1)


def _body(body: Iterable[Statement], depth: int) -> Iterator[str]:
    for one in body:
        yield from _lines(one, depth)


def _label(label: Label) -> str:
    return f"{label.low}" if label.high is None else f"{label.low}..{label.high}"


def _declared(one: Declared) -> str:
    address = f" AT {one.address}" if one.address else ""
    initial = f" := {one.initial.text}" if one.initial is not None else ""
    return f"{_STEP}{one.name}{address} : {one.type}{initial};"


def declarations_text(blocks: Iterable[VariableBlock]) -> str:
    """Return declarations as text, each block with a break at its end.

    Parameters
    ----------
    blocks : iterable of VariableBlock
        Of a program.
    """
    found: list[str] = []
    for block in blocks:
        found.append(f"{block.word} {block.qualifier}".strip())
        found += [_declared(one) for one in block.declared]
        found.append("END_VAR")
    return "".join(f"{line}\n" for line in found)


def program_text(program: Program) -> str:
    """Return a program as text.

    Parameters
    ----------
    program : Program
        Read or made.
    """
    body = "".join(f"{statement_text(one)}\n" for one in program.statements)
    told = declarations_text(program.blocks) + body
    if program.name == "Main":
        return told
    return f"PROGRAM {program.name}\n{told}END_PROGRAM\n"
