"""A reset step in front of what a program moves: an edge sets a flag, the outputs wait for it.

Source: IEC 61131-3 (edge, assignment); ISO 13850 in its sense.
"""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import replace

from evencoil.logic.model import (
    Assign,
    Call,
    Declared,
    If,
    Input,
    Many,
    Member,
    Program,
    Statement,
    Variable,
    VariableBlock,
)

__all__ = ["with_reset_step"]

_FLAG, _EDGE = "Reset_done", "Reset_edge"


def with_reset_step(
    program: Program, outputs: Collection[str], button: str, watched: str
) -> Program:
    """Return a program whose outputs wait for a flag that the edge of a button sets.

    Parameters
    ----------
    program : Program
        As it is.
    outputs : collection of str
        What has to wait, as Q1.
    button : str
        Input of the button.
    watched : str
        Input with which the flag falls.
    """
    ready = Variable(_FLAG)
    first: tuple[Statement, ...] = (
        Call(_EDGE, (Input("CLK", Variable(button)),)),
        Assign(
            _FLAG,
            Many("AND", (Many("OR", (Member(_EDGE, "Q"), ready)), Variable(watched))),
        ),
    )
    block = VariableBlock(
        word="VAR",
        qualifier="",
        declared=(Declared(_FLAG, "BOOL"), Declared(_EDGE, "R_TRIG")),
    )
    body = tuple(_waiting(one, outputs) for one in program.statements)
    return replace(program, blocks=(*program.blocks, block), statements=(*first, *body))


def _waiting(one: Statement, outputs: Collection[str]) -> Statement:
    if isinstance(one, Assign) and one.target in outputs:
        inside = one.value
        parts = (
            inside.operands if isinstance(inside, Many) and inside.operator == "AND" else (inside,)
        )
        return Assign(one.target, Many("AND", (*parts, Variable(_FLAG))))
    if isinstance(one, If):
        return replace(
            one,
            branches=tuple(
                (condition, tuple(_waiting(part, outputs) for part in body))
                for condition, body in one.branches
            ),
            otherwise=tuple(_waiting(part, outputs) for part in one.otherwise),
        )
    return one
