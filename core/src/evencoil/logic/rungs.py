"""Rungs: a program's networks as contacts, coils and blocks, and back to statements.

A rung is a tree of contacts in series and parallel with one coil or block; what has no contact
form stays a text network. Views are plain values, as the screen and the files have them:

- ``{"no": "I1"}``, ``{"nc": "I1"}``, ``{"cmp": [">", "AI1", "500"]}``, ``{"rise": "I2",
  "block": "R1"}``, ``{"fall": ...}``, ``{"series": [...]}``, ``{"parallel": [...]}``,
  ``{"always": true}``
- with one of ``coil``, ``negated``, ``set``, ``reset`` (a variable) or ``call`` (a block, its
  ``input`` and its other inputs ``with``)
- ``{"text": "..."}``

Source: IEC 61131-3, Ladder Diagram; which statements are rungs as docs/logic.md says.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from evencoil.logic.blocks import BLOCKS
from evencoil.logic.meaning import Checked
from evencoil.logic.model import (
    Assign,
    Binary,
    Call,
    Expression,
    If,
    Literal,
    Many,
    Member,
    Not,
    Program,
    Statement,
    Variable,
)
from evencoil.logic.reader import read_form
from evencoil.logic.refusal import LogicError
from evencoil.logic.walk import expressions_in, parts_of, statements_in
from evencoil.logic.writer import declarations_text, expression_text, statement_text

__all__ = [
    "Network",
    "Rung",
    "form_of_rungs",
    "networks_of",
    "plain_rungs_of",
    "rungs_of",
    "rungs_text",
]

Rung = dict[str, Any]
_COMPARED = {"<", ">", "<=", ">=", "=", "<>"}
_TRIGGERS = {"R_TRIG": "rise", "F_TRIG": "fall"}
_EDGES = {"rise": "R_TRIG", "fall": "F_TRIG"}


@dataclass(frozen=True, slots=True)
class Network:
    """One network as it is drawn.

    Attributes
    ----------
    rung : Rung
        As drawn, or as text.
    statements : tuple of Statement
        What it does: one, and ahead of it the edge that it draws as a contact.
    """

    rung: Rung
    statements: tuple[Statement, ...]

    @property
    def power(self) -> Expression | None:
        """Return what its contacts say; None for a text network."""
        one = self.statements[-1]
        if "text" in self.rung:
            return None
        if isinstance(one, Assign):
            if "negated" in self.rung and isinstance(one.value, Not):
                return one.value.operand
            return one.value
        if isinstance(one, If):
            return one.branches[0][0]
        return one.input(str(self.rung["input"])) if isinstance(one, Call) else None


def rungs_of(checked: Checked) -> list[Rung]:
    """Return every network of a program as a rung, or as text.

    Parameters
    ----------
    checked : Checked
        A program of which nothing is wrong.
    """
    return [one.rung for one in networks_of(checked)]


def networks_of(checked: Checked) -> list[Network]:
    """Return every network of a program with its rung and its statements.

    Parameters
    ----------
    checked : Checked
        A program of which nothing is wrong.
    """
    view = _View(checked)
    statements = checked.program.statements
    found: list[Network] = []
    place = 0
    while place < len(statements):
        one = statements[place]
        following = statements[place + 1] if place + 1 < len(statements) else None
        edge = view.edge(one, following)
        if edge and isinstance(one, Call):
            rung = view.rung(following, edge)
            if rung is not None:
                found.append(Network(rung, statements[place : place + 2]))
                place += 2
                continue
        found.append(Network(view.rung(one, {}) or {"text": statement_text(one)}, (one,)))
        place += 1
    return found


def plain_rungs_of(checked: Checked) -> list[Rung | None]:
    """Return every statement as a rung of its own, edges as the blocks they are; None for text.

    Parameters
    ----------
    checked : Checked
        A program of which nothing is wrong.
    """
    view = _View(checked)
    return [view.rung(one, {}) for one in checked.program.statements]


class _View:
    """What is needed of a whole program to draw one of its networks."""

    def __init__(self, checked: Checked) -> None:
        self.checked = checked
        self.uses: Counter[str] = Counter()
        for one in checked.program.statements:
            self.uses.update(_blocks_in(one))

    def edge(self, one: Statement, following: Statement | None) -> dict[str, tuple[str, str]]:
        """Return an edge block that the next rung alone uses, by its name: kind and variable."""
        if not isinstance(one, Call) or following is None or one.outputs:
            return {}
        word = _TRIGGERS.get(self.checked.symbol(one.block).type)
        clock = one.input("CLK")
        if word is None or not isinstance(clock, Variable) or not self._is_bool(clock):
            return {}
        # called once, and read once: by a plain contact of the rung behind it
        if self.uses[one.block] != 2:
            return {}
        shown = [
            part
            for inside in statements_in(following)
            for whole in expressions_in(inside)
            for part in parts_of(whole)
            if isinstance(part, Member) and part.block == one.block and part.name == "Q"
        ]
        return {one.block: (word, clock.name)} if len(shown) == 1 else {}

    def rung(self, one: Statement | None, edges: Mapping[str, tuple[str, str]]) -> Rung | None:
        """Return a statement as a rung; None if it has no contact form."""
        if isinstance(one, Assign):
            return self._coil(one, edges)
        if isinstance(one, If):
            return self._set_or_reset(one, edges)
        if isinstance(one, Call):
            return self._block(one, edges)
        return None

    def _coil(self, one: Assign, edges: Mapping[str, tuple[str, str]]) -> Rung | None:
        if self.checked.symbol(one.target).type != "BOOL":
            return None
        value = one.value
        if isinstance(value, Not) and not _is_name(value.operand):
            when = self.when(value.operand, edges)
            if when is not None:
                return {"when": when, "negated": one.target}
        when = self.when(value, edges)
        return None if when is None else {"when": when, "coil": one.target}

    def _set_or_reset(self, one: If, edges: Mapping[str, tuple[str, str]]) -> Rung | None:
        if len(one.branches) != 1 or one.otherwise or len(one.branches[0][1]) != 1:
            return None
        condition, (inside,) = one.branches[0]
        if not isinstance(inside, Assign) or not isinstance(inside.value, Literal):
            return None
        when = self.when(condition, edges)
        if when is None or inside.value.text not in {"TRUE", "FALSE"}:
            return None
        return {"when": when, "set" if inside.value.value else "reset": inside.target}

    def _block(self, one: Call, edges: Mapping[str, tuple[str, str]]) -> Rung | None:
        kind = BLOCKS[self.checked.symbol(one.block).type]
        power = one.input(kind.power)
        others = {part.name: part.value for part in one.inputs if part.name != kind.power}
        is_plain = all(isinstance(value, Variable | Literal) for value in others.values())
        if power is None or one.outputs or not is_plain:
            return None
        when = self.when(power, edges)
        if when is None:
            return None
        found: Rung = {"when": when, "call": one.block, "input": kind.power}
        if others:
            found["with"] = {name: expression_text(value) for name, value in others.items()}
        return found

    def when(self, one: Expression, edges: Mapping[str, tuple[str, str]]) -> dict[str, Any] | None:
        """Return an expression as contacts; None if it has no such form."""
        found: dict[str, Any] | None = None
        match one:
            case Literal():
                found = {"always": True} if one.text == "TRUE" else None
            case Not():
                is_name = _is_name(one.operand) and self._is_bool(one.operand)
                found = {"nc": expression_text(one.operand)} if is_name else None
            case Member() if one.name == "Q" and one.block in edges:
                word, variable = edges[one.block]
                found = {word: variable, "block": one.block}
            case Variable() | Member():
                found = {"no": expression_text(one)} if self._is_bool(one) else None
            case Many():
                parts = [self.when(part, edges) for part in one.operands]
                word = "series" if one.operator == "AND" else "parallel"
                found = None if any(part is None for part in parts) else {word: parts}
            case _:
                found = self._compare(one)
        return found

    def _compare(self, one: Expression) -> dict[str, Any] | None:
        if not isinstance(one, Binary) or one.operator not in _COMPARED:
            return None
        for side in (one.left, one.right):
            is_value = isinstance(side, Literal) and side.type != "BOOL"
            if not is_value and not (_is_name(side) and not self._is_bool(side)):
                return None
        return {"cmp": [one.operator, expression_text(one.left), expression_text(one.right)]}

    def _is_bool(self, one: Expression) -> bool:
        if isinstance(one, Member):
            kind = BLOCKS[self.checked.symbol(one.block).type]
            return {**kind.inputs, **kind.outputs}[one.name] == "BOOL"
        return isinstance(one, Variable) and self.checked.symbol(one.name).type == "BOOL"


def _is_name(one: Expression) -> bool:
    return isinstance(one, Variable | Member)


def _blocks_in(one: Statement) -> Iterator[str]:
    """Go through every block that a statement calls or reads."""
    for inside in statements_in(one):
        if isinstance(inside, Call):
            yield inside.block
        for whole in expressions_in(inside):
            yield from (part.block for part in parts_of(whole) if isinstance(part, Member))


def rungs_text(rungs: Sequence[Mapping[str, Any]]) -> str:
    """Return rungs as the text of their statements, one network after the other.

    Parameters
    ----------
    rungs : sequence of mapping
        As `rungs_of` gives them.

    Raises
    ------
    LogicError
        If a rung is none: line is its number, column 1.
    """
    return "".join(
        f"{line}\n" for number, rung in enumerate(rungs, start=1) for line in _text(rung, number)
    )


def _text(rung: Mapping[str, Any], number: int) -> Iterator[str]:
    if "text" in rung:
        yield str(rung["text"])
        return
    for block, variable in _edges_in(rung.get("when", {})):
        yield f"{block}(CLK := {variable});"
    told, is_bare = _when(rung.get("when"), number)
    if "coil" in rung:
        yield f"{rung['coil']} := {told};"
    elif "negated" in rung:
        yield f"{rung['negated']} := NOT {told if is_bare else f'({told})'};"
    elif "set" in rung:
        yield f"IF {told} THEN {rung['set']} := TRUE; END_IF;"
    elif "reset" in rung:
        yield f"IF {told} THEN {rung['reset']} := FALSE; END_IF;"
    elif "call" in rung:
        given = {str(rung.get("input", "IN")): told, **rung.get("with", {})}
        inputs = ", ".join(f"{name} := {value}" for name, value in given.items())
        yield f"{rung['call']}({inputs});"
    else:
        raise LogicError("syntax", (number, 1), expected="a coil or a block", found="nothing")


def _edges_in(when: Mapping[str, Any]) -> Iterator[tuple[str, str]]:
    for word in _EDGES:
        if word in when:
            yield str(when["block"]), str(when[word])
    for part in (*when.get("series", ()), *when.get("parallel", ())):
        yield from _edges_in(part)


def _when(when: Mapping[str, Any] | None, number: int) -> tuple[str, bool]:
    """Return contacts as an expression, and whether it holds together without brackets."""
    known = when or {}
    for word, operator in (("series", "AND"), ("parallel", "OR")):
        if known.get(word):
            return _several(known[word], operator, number)
    told = _contact(known)
    if told is None:
        found = ", ".join(known)[:80] or "nothing"
        raise LogicError("syntax", (number, 1), expected="a contact", found=found)
    # behind another NOT a negated contact needs its brackets
    return told, "nc" not in known and "cmp" not in known


def _contact(when: Mapping[str, Any]) -> str | None:
    """Return one contact as an expression; None if it is none."""
    if "cmp" in when:
        operator, left, right = when["cmp"]
        return f"{left} {operator} {right}"
    if "nc" in when:
        return f"NOT {when['nc']}"
    if when.keys() & _EDGES.keys():
        return f"{when.get('block', '')}.Q"
    return "TRUE" if "always" in when else str(when["no"]) if "no" in when else None


def _several(parts: Sequence[Mapping[str, Any]], operator: str, number: int) -> tuple[str, bool]:
    """Return contacts in series or parallel as an expression."""
    if len(parts) == 1:
        return _when(parts[0], number)
    told = [
        f"({text})" if _is_loose(part, operator) else text
        for part in parts
        for text, _ in [_when(part, number)]
    ]
    return f" {operator} ".join(told), False


def _is_loose(part: Mapping[str, Any], operator: str) -> bool:
    """Tell whether contacts need brackets inside AND; in OR nothing that is drawn does."""
    return operator == "AND" and len(part.get("parallel", ())) > 1


def form_of_rungs(program: Program, rungs: Sequence[Mapping[str, Any]]) -> Program:
    """Return the program that has these rungs, with the declarations of another.

    Parameters
    ----------
    program : Program
        Whose declarations and name it keeps.
    rungs : sequence of mapping
        As `rungs_of` gives them.

    Raises
    ------
    LogicError
        If a rung is none, or its names do not stand for anything.
    """
    text = f"{declarations_text(program.blocks)}{rungs_text(rungs)}"
    form = read_form(text)
    return Program(blocks=form.blocks, statements=form.statements, name=program.name)
