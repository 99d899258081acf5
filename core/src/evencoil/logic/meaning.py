"""What a program means: its names looked up, its types checked, before anything is run.

Source: IEC 61131-3; what the relay here takes of it is in docs/logic.md.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace

from evencoil.logic.blocks import BLOCKS
from evencoil.logic.model import (
    Assign,
    Binary,
    Call,
    Case,
    Choice,
    Convert,
    Declared,
    Expression,
    If,
    Input,
    Label,
    Literal,
    Many,
    Member,
    Minus,
    Not,
    Output,
    Program,
    Statement,
    Variable,
    VariableBlock,
)
from evencoil.logic.names import USUAL, Points, Symbol, SymbolKind, address_of, point_of
from evencoil.logic.reader import FUNCTIONS, read_form
from evencoil.logic.refusal import LogicError, Place
from evencoil.logic.tokens import name_key

__all__ = ["Checked", "check_program", "looked_through", "read_program", "wrong_in"]

_NUMBERS = {"INT", "REAL"}
_DATA = {"BOOL", "INT", "REAL", "TIME"}


@dataclass(frozen=True, slots=True, kw_only=True)
class Checked:
    """A program that can be run: names as declared, and what each of them is by its key."""

    program: Program
    symbols: dict[str, Symbol]
    points: Points

    def symbol(self, name: str) -> Symbol:
        """Return what a name of the program is.

        Parameters
        ----------
        name : str
            Of a variable, constant, point, flag or block.
        """
        key = name_key(name)
        if key in self.symbols:
            return self.symbols[key]
        known = point_of(name, self.points)
        if known is not None:
            return known
        return address_of(name, self.points, (1, 1))[1]


class _Check:
    """One program, looked through from top to bottom; everything wrong is gathered."""

    def __init__(self, points: Points) -> None:
        self.points = points
        self.symbols: dict[str, Symbol] = {}
        self.aliases: dict[str, str] = {}
        self.called: set[str] = set()
        self.wrong: list[LogicError] = []

    def refuse(self, code: str, place: Place, *, expected: str = "", found: str = "") -> None:
        self.wrong.append(LogicError(code, place, expected=expected, found=found))

    # declarations

    def block(self, known: VariableBlock) -> VariableBlock:
        return replace(known, declared=tuple(self.declared(one, known) for one in known.declared))

    def declared(self, one: Declared, block: VariableBlock) -> Declared:
        key = name_key(one.name)
        if key in self.symbols or point_of(one.name, self.points) or key in FUNCTIONS:
            self.refuse("duplicate", one.place, found=one.name)
            return one
        kind_of = BLOCKS.get(one.type)
        is_retained = block.qualifier == "RETAIN"
        if kind_of is not None and is_retained and not kind_of.is_retained:
            self.refuse("unsupported", one.type_at, found=f"RETAIN {one.type}")
        if kind_of is not None and block.qualifier == "CONSTANT":
            self.refuse("type", one.type_at, expected="a value", found=one.type)
        kind: SymbolKind = "block" if kind_of else "variable"
        usual, slot = one.address, one.name
        if one.address:
            usual, slot, kind = self._addressed(one, kind)
        if block.qualifier == "CONSTANT":
            kind = "constant"
        elif block.word == "VAR_INPUT" and kind == "variable":
            kind = "input"
        if one.initial is not None:
            self._initial(one, kind)
        self.symbols[key] = Symbol(
            name=one.name,
            kind=kind,
            type=one.type,
            slot=slot,
            initial=one.initial,
            is_retained=is_retained,
        )
        return replace(one, address=usual)

    def _addressed(self, one: Declared, kind: SymbolKind) -> tuple[str, str, SymbolKind]:
        """Return address, slot and kind of a variable that stands for a point or a flag."""
        try:
            usual, known = address_of(one.address, self.points, one.at)
        except LogicError as refused:
            self.wrong.append(refused)
            return one.address, one.name, kind
        if known.slot in self.aliases:
            self.refuse("duplicate", one.at, found=usual)
        self.aliases[known.slot] = one.name
        if one.type != known.type:
            self.refuse("type", one.at, expected=one.type, found=known.type)
        return usual, known.slot, known.kind

    def _initial(self, one: Declared, kind: str) -> None:
        known = one.initial
        if known is None:
            return
        if one.type not in _DATA:
            self.refuse("type", known.place, expected=one.type, found=known.type)
        elif kind == "input":
            self.refuse("readonly", known.place, found=one.name)
        else:
            self.fits(one.type, known.type, known.place)

    # names

    def look_up(self, name: str, place: Place) -> Symbol | None:
        if name.startswith("%"):
            try:
                _, known = address_of(name, self.points, place)
            except LogicError as refused:
                self.wrong.append(refused)
                return None
            alias = self.aliases.get(known.slot)
            return self.symbols[name_key(alias)] if alias is not None else known
        found = self.symbols.get(name_key(name)) or point_of(name, self.points)
        if found is None:
            self.refuse("undeclared", place, found=name)
        return found

    def target(self, name: str, place: Place) -> tuple[str, str | None]:
        """Return what is written, as declared, and its type; None if it cannot be."""
        block, _, member = (name, "", "") if name.startswith("%") else name.partition(".")
        known = self.look_up(block, place)
        if known is None:
            return name, None
        if member:
            if known.kind != "block":
                self.refuse("undeclared", place, found=name)
            else:
                self.refuse("readonly", place, found=name)
            return name, None
        if known.kind == "block":
            self.refuse("type", place, expected="a variable", found=known.type)
            return known.name, None
        if known.kind in {"input", "constant"}:
            self.refuse("readonly", place, found=known.name)
        return known.name, known.type

    def fits(self, wanted: str, found: str | None, place: Place) -> None:
        if found is None or found == wanted or (wanted == "REAL" and found == "INT"):
            return
        self.refuse("type", place, expected=wanted, found=found)

    # statements

    def body(self, statements: Iterable[Statement]) -> tuple[Statement, ...]:
        return tuple(self.statement(one) for one in statements)

    def statement(self, one: Statement) -> Statement:
        if isinstance(one, Assign):
            target, wanted = self.target(one.target, one.place)
            value, found = self.typed(one.value)
            if wanted is not None:
                self.fits(wanted, found, one.value.place)
            return replace(one, target=target, value=value)
        if isinstance(one, Call):
            return self.call(one)
        if isinstance(one, If):
            branches = tuple(
                (self.condition(condition), self.body(body)) for condition, body in one.branches
            )
            return replace(one, branches=branches, otherwise=self.body(one.otherwise))
        return self.case(one)

    def condition(self, value: Expression) -> Expression:
        told, found = self.typed(value)
        self.fits("BOOL", found, value.place)
        return told

    def call(self, one: Call) -> Call:
        known = self.look_up(one.block, one.place)
        if known is None or known.type not in BLOCKS:
            if known is not None:
                self.refuse("type", one.place, expected="a block", found=known.type)
            for given in one.inputs:
                self.typed(given.value)
            return one
        if known.slot in self.called:
            self.refuse("duplicate", one.place, found=known.name)
        self.called.add(known.slot)
        kind = BLOCKS[known.type]
        seen: set[str] = set()
        inputs = [self._input(given, kind.inputs, kind.outputs, seen) for given in one.inputs]
        outputs = [self._output(given, kind.outputs, seen) for given in one.outputs]
        in_order = list(kind.inputs)
        out_order = list(kind.outputs)
        inputs.sort(key=lambda given: _place_in(in_order, given.name))
        outputs.sort(key=lambda given: _place_in(out_order, given.name))
        return replace(one, block=known.name, inputs=tuple(inputs), outputs=tuple(outputs))

    def _input(
        self, given: Input, inputs: Mapping[str, str], outputs: Mapping[str, str], seen: set[str]
    ) -> Input:
        key = name_key(given.name)
        value, found = self.typed(given.value)
        if key not in inputs:
            code = "readonly" if key in outputs else "undeclared"
            self.refuse(code, given.place, found=given.name)
            return given
        if key in seen:
            self.refuse("duplicate", given.place, found=given.name)
        seen.add(key)
        self.fits(inputs[key], found, given.value.place)
        return replace(given, name=key, value=value)

    def _output(self, given: Output, outputs: Mapping[str, str], seen: set[str]) -> Output:
        key = name_key(given.name)
        target, wanted = self.target(given.target, given.at)
        if key not in outputs:
            self.refuse("undeclared", given.place, found=given.name)
            return given
        if key in seen:
            self.refuse("duplicate", given.place, found=given.name)
        seen.add(key)
        if wanted is not None:
            self.fits(wanted, outputs[key], given.at)
        return replace(given, name=key, target=target)

    def case(self, one: Case) -> Case:
        value, found = self.typed(one.value)
        if found is not None and found != "INT":
            self.refuse("type", one.value.place, expected="INT", found=found)
        taken: list[tuple[int, int]] = []
        choices = tuple(
            Choice(
                tuple(self.label(label, taken) for label in choice.labels),
                self.body(choice.body),
            )
            for choice in one.choices
        )
        return replace(one, value=value, choices=choices, otherwise=self.body(one.otherwise))

    def label(self, label: Label, taken: list[tuple[int, int]]) -> Label:
        if isinstance(label.low, str):
            known = self.look_up(label.low, label.place)
            if known is None:
                return label
            if known.kind != "constant" or known.type != "INT":
                found = known.type if known.type != "INT" else known.kind
                self.refuse("type", label.place, expected="an INT constant", found=found)
                return label
            low = high = 0 if known.initial is None else int(known.initial.value)
            label = replace(label, low=known.name)
        else:
            low, high = label.low, label.low if label.high is None else label.high
        if low > high:
            self.refuse(
                "range", label.place, expected="the lower value first", found=f"{low}..{high}"
            )
        elif any(low <= last and first <= high for first, last in taken):
            said = f"{low}" if low == high else f"{low}..{high}"
            self.refuse("duplicate", label.place, found=said)
        taken.append((low, high))
        return label

    # expressions

    def typed(self, one: Expression) -> tuple[Expression, str | None]:
        """Return an expression with its names as declared, and its type; None if unknown."""
        found: tuple[Expression, str | None]
        match one:
            case Literal():
                found = one, one.type
            case Variable():
                found = self._variable(one)
            case Member():
                found = self._member(one)
            case Not():
                found = replace(one, operand=self.condition(one.operand)), "BOOL"
            case Many():
                parts = tuple(self.condition(part) for part in one.operands)
                found = replace(one, operands=parts), "BOOL"
            case Minus():
                found = self._minus(one)
            case Convert():
                found = self._convert(one)
            case _:
                found = self._binary(one)
        return found

    def _minus(self, one: Minus) -> tuple[Expression, str | None]:
        operand, found = self.typed(one.operand)
        if found is not None and found not in _NUMBERS:
            self.refuse("type", one.operand.place, expected="INT or REAL", found=found)
            found = None
        return replace(one, operand=operand), found

    def _variable(self, one: Variable) -> tuple[Expression, str | None]:
        known = self.look_up(one.name, one.place)
        if known is None:
            return one, None
        return replace(one, name=known.name), known.type

    def _member(self, one: Member) -> tuple[Expression, str | None]:
        known = self.look_up(one.block, one.place)
        if known is None:
            return one, None
        kind = BLOCKS.get(known.type)
        key = name_key(one.name)
        if kind is None or key not in {*kind.inputs, *kind.outputs}:
            self.refuse("undeclared", one.place, found=f"{one.block}.{one.name}")
            return one, None
        found = kind.outputs.get(key) or kind.inputs[key]
        return replace(one, block=known.name, name=key), found

    def _convert(self, one: Convert) -> tuple[Expression, str | None]:
        operand, found = self.typed(one.operand)
        key = name_key(one.function)
        if key not in FUNCTIONS:
            self.refuse("undeclared", one.place, found=one.function)
            return one, None
        wanted, gives = ("REAL", "INT") if key == "REAL_TO_INT" else ("INT", "REAL")
        self.fits(wanted, found, one.operand.place)
        return replace(one, function=key, operand=operand), gives

    def _binary(self, one: Binary) -> tuple[Expression, str | None]:
        left, first = self.typed(one.left)
        right, second = self.typed(one.right)
        told = replace(one, left=left, right=right)
        if one.operator in {"/", "MOD"} and self._is_zero(right):
            self.refuse("divzero", one.right.place, found="0")
        if one.operator == "XOR":
            self.fits("BOOL", first, one.left.place)
            self.fits("BOOL", second, one.right.place)
            return told, "BOOL"
        is_comparison = one.operator in {"<", ">", "<=", ">=", "=", "<>"}
        may = {
            "=": _DATA,
            "<>": _DATA,
            "+": _NUMBERS | {"TIME"},
            "-": _NUMBERS | {"TIME"},
            "*": _NUMBERS,
            "/": _NUMBERS,
            "MOD": {"INT"},
        }.get(one.operator, _NUMBERS | {"TIME"})
        if first is not None and first not in may:
            self.refuse("type", one.left.place, expected=_said(may), found=first)
            return told, "BOOL" if is_comparison else None
        if first is not None and second is not None:
            alike = _NUMBERS & may if first in _NUMBERS else {first}
            if second not in alike:
                self.refuse("type", one.right.place, expected=_said(alike), found=second)
                return told, "BOOL" if is_comparison else None
        elif second is not None and second not in may:
            self.refuse("type", one.right.place, expected=_said(may), found=second)
        if is_comparison:
            return told, "BOOL"
        if first is None or second is None:
            return told, None
        return told, "REAL" if "REAL" in {first, second} else first

    def _is_zero(self, one: Expression) -> bool:
        if isinstance(one, Literal):
            return one.type in _NUMBERS and one.value == 0
        if isinstance(one, Variable):
            known = self.symbols.get(name_key(one.name))
            if known is None or known.kind != "constant" or known.type not in _NUMBERS:
                return False
            return known.initial is None or known.initial.value == 0
        return False


def _place_in(order: list[str], name: str) -> int:
    return order.index(name) if name in order else len(order)


def _said(types: Iterable[str]) -> str:
    return " or ".join(sorted(types))


def check_program(form: Program, points: Points = USUAL) -> Checked:
    """Return a program with its names as declared and its types checked.

    Parameters
    ----------
    form : Program
        As it was read.
    points : Points
        Of the relay it is for.

    Raises
    ------
    LogicError
        At the first place, of all that are wrong.
    """
    checked, wrong = _checked(form, points)
    if wrong:
        raise wrong[0]
    return checked


def _checked(form: Program, points: Points) -> tuple[Checked, list[LogicError]]:
    check = _Check(points)
    blocks = tuple(check.block(one) for one in form.blocks)
    statements = check.body(form.statements)
    program = replace(form, blocks=blocks, statements=statements)
    wrong = sorted(check.wrong, key=lambda one: (one.line, one.column))
    return Checked(program=program, symbols=check.symbols, points=points), wrong


def looked_through(
    text: str, points: Points = USUAL
) -> tuple[Checked | None, tuple[LogicError, ...]]:
    """Return the program of a text, None if it cannot be run, and everything wrong in its order.

    Parameters
    ----------
    text : str
        Structured Text.
    points : Points
        Of the relay it is for.
    """
    try:
        form = read_form(text)
    except LogicError as refused:
        return None, (refused,)
    checked, wrong = _checked(form, points)
    return (None, tuple(wrong)) if wrong else (checked, ())


def read_program(text: str, points: Points = USUAL) -> Checked:
    """Return the program of a text.

    Parameters
    ----------
    text : str
        Structured Text.
    points : Points
        Of the relay it is for.

    Raises
    ------
    LogicError
        What is wrong first: of its form, or of its meaning.
    """
    checked, wrong = looked_through(text, points)
    if checked is None:
        raise wrong[0]
    return checked


def wrong_in(text: str, points: Points = USUAL) -> tuple[LogicError, ...]:
    """Return everything that is wrong with a text, in its order; nothing if it can be run.

    Parameters
    ----------
    text : str
        Structured Text.
    points : Points
        Of the relay it is for.
    """
    return looked_through(text, points)[1]
