"""A program made ready to run, and one scan of it.

The program becomes a function of the interpreter's own language, made of numbers and operators
only: no text of a person gets into it. A program that can fault is worked on copies, so that the
results of a broken scan are dropped.

Units: clock [ms].
Source: IEC 61131-3; order of evaluation, widths and faults as docs/logic.md says.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable, Iterator, Mapping
from dataclasses import dataclass
from typing import Any

from evencoil.logic.blocks import BLOCKS, WORKING, Block
from evencoil.logic.literals import INT_MOST, TIME_MOST
from evencoil.logic.meaning import Checked
from evencoil.logic.model import (
    Assign,
    Binary,
    Call,
    Case,
    Convert,
    Expression,
    If,
    Literal,
    Many,
    Member,
    Minus,
    Not,
    Statement,
    Variable,
)
from evencoil.logic.names import Symbol
from evencoil.logic.tokens import name_key

__all__ = ["Fault", "Machine"]

Value = bool | int | float


@dataclass(frozen=True, slots=True)
class Fault:
    """Why a scan stopped, and at which line of the text."""

    what: str
    line: int


class _FaultError(Exception):
    """Raised inside a scan; never leaves the machine."""

    def __init__(self, what: str, line: int) -> None:
        super().__init__(what)
        self.fault = Fault(what, line)


def _int(value: int, line: int) -> int:
    if -INT_MOST - 1 <= value <= INT_MOST:
        return value
    raise _FaultError("INT overflow", line)


def _time(value: int, line: int) -> int:
    if -TIME_MOST - 1 <= value <= TIME_MOST:
        return value
    raise _FaultError("TIME overflow", line)


def _real(value: float, line: int) -> float:
    if math.isfinite(value):
        return value
    raise _FaultError("REAL not finite", line)


def _divided(one: int, other: int, line: int) -> int:
    """Divide toward zero."""
    if other == 0:
        raise _FaultError("division by zero", line)
    value = abs(one) // abs(other)
    return _int(value if (one < 0) == (other < 0) else -value, line)


def _rest(one: int, other: int, line: int) -> int:
    """Return the rest of a division toward zero: it has the sign of what is divided."""
    if other == 0:
        raise _FaultError("division by zero", line)
    value = abs(one) % abs(other)
    return -value if one < 0 else value


def _ratio(one: float, other: float, line: int) -> float:
    if other == 0:
        raise _FaultError("division by zero", line)
    return _real(one / other, line)


def _whole(value: float, line: int) -> int:
    """Round to the nearest, halves to the even one."""
    found = round(value)
    if -INT_MOST - 1 <= found <= INT_MOST:
        return found
    raise _FaultError("REAL_TO_INT out of range", line)


_HELPERS: Mapping[str, Callable[..., Value]] = {
    "_int": _int,
    "_time": _time,
    "_real": _real,
    "_divided": _divided,
    "_rest": _rest,
    "_ratio": _ratio,
    "_whole": _whole,
}
_COMPARED = {"<": "<", ">": ">", "<=": "<=", ">=": ">=", "=": "==", "<>": "!="}
_DEFAULTS: Mapping[str, Value] = {"BOOL": False, "INT": 0, "REAL": 0.0, "TIME": 0}


class _Maker:
    """The function of one program: variables by number, blocks by number."""

    def __init__(self, checked: Checked) -> None:
        self.checked = checked
        self.slots: dict[str, int] = {}
        self.initial: list[Value] = []
        self.retained: list[int] = []
        self.blocks: dict[str, int] = {}
        self.kinds: list[tuple[str, bool]] = []
        self.used: dict[str, Symbol] = {}
        self.can_fault = self.reads_elapsed = False
        self.cases = 0
        for letter, count in (
            ("I", checked.points.inputs),
            ("Q", checked.points.outputs),
            ("AI", checked.points.analog),
        ):
            for number in range(1, count + 1):
                self.symbol(checked.symbol(f"{letter}{number}"))
        for symbol in checked.symbols.values():
            self.symbol(symbol)
        body = list(self.body(checked.program.statements, 1))
        lines = ["def scan(v, b, now):", *(body or [" pass"])]
        names: dict[str, Any] = dict(_HELPERS)
        text = compile("\n".join(lines), "<scan>", "exec")
        exec(text, names)  # noqa: S102 - made of indices, literals and operators alone
        self.scan: Callable[[list[Value], list[Any], int], None] = names["scan"]

    def symbol(self, symbol: Symbol) -> None:
        """Give a name its place: an input or an output has one, whatever it is called."""
        key = name_key(symbol.slot)
        if symbol.kind == "block":
            if key not in self.blocks:
                self.blocks[key] = len(self.kinds)
                self.kinds.append((symbol.type, symbol.is_retained))
            return
        if key in self.slots:
            return
        self.slots[key] = len(self.initial)
        known = symbol.initial
        self.initial.append(_DEFAULTS[symbol.type] if known is None else known.value)
        if symbol.is_retained:
            self.retained.append(self.slots[key])

    def slot(self, name: str) -> int:
        symbol = self.checked.symbol(name)
        if symbol.kind in {"input", "output"}:
            self.used[symbol.slot] = symbol
        return self.place(symbol)

    def place(self, symbol: Symbol) -> int:
        """Return the number of a variable, of one that is named for the first time a new one."""
        key = name_key(symbol.slot)
        if key not in self.slots:
            self.symbol(symbol)
        return self.slots[key]

    def block(self, name: str) -> int:
        return self.blocks[name_key(self.checked.symbol(name).slot)]

    # statements

    def body(self, statements: Iterable[Statement], depth: int) -> Iterator[str]:
        for one in statements:
            yield from self.statement(one, depth)

    def statement(self, one: Statement, depth: int) -> Iterator[str]:
        indent = " " * depth
        if isinstance(one, Assign):
            is_real = self.checked.symbol(one.target).type == "REAL"
            told = self.expression(one.value)
            value = f"float({told})" if is_real and self.type(one.value) == "INT" else told
            yield f"{indent}v[{self.slot(one.target)}] = {value}"
        elif isinstance(one, Call):
            at = self.block(one.block)
            # every input is read before the first is given: an input may show another
            given = [self.expression(part.value) for part in one.inputs]
            for part, told in zip(one.inputs, given, strict=True):
                yield f"{indent}b[{at}].{part.name} = {told}"
            yield f"{indent}b[{at}].call(now)"
            self.reads_elapsed |= any(output.name == "ET" for output in one.outputs)
            for output in one.outputs:
                is_real = self.checked.symbol(output.target).type == "REAL"
                shown = f"b[{at}].{output.name}"
                value = f"float({shown})" if is_real else shown
                yield f"{indent}v[{self.slot(output.target)}] = {value}"
        elif isinstance(one, If):
            yield from self._if(one, depth)
        else:
            yield from self._case(one, depth)

    def _if(self, one: If, depth: int) -> Iterator[str]:
        indent = " " * depth
        for place, (condition, body) in enumerate(one.branches):
            yield f"{indent}{'elif' if place else 'if'} {self.expression(condition)}:"
            yield from self._body(body, depth + 1)
        if one.otherwise:
            yield f"{indent}else:"
            yield from self._body(one.otherwise, depth + 1)

    def _case(self, one: Case, depth: int) -> Iterator[str]:
        indent = " " * depth
        self.cases += 1
        name = f"c{self.cases}"
        yield f"{indent}{name} = {self.expression(one.value)}"
        word = "if"
        for choice in one.choices:
            tests = []
            for label in choice.labels:
                low: str | int = label.low
                if isinstance(low, str):
                    known = self.checked.symbol(low).initial
                    low = 0 if known is None else int(known.value)
                high = low if label.high is None else label.high
                tests.append(f"{low} <= {name} <= {high}")
            yield f"{indent}{word} {' or '.join(tests)}:"
            yield from self._body(choice.body, depth + 1)
            word = "elif"
        if one.otherwise:
            if word == "if":
                yield from self.body(one.otherwise, depth)
            else:
                yield f"{indent}else:"
                yield from self._body(one.otherwise, depth + 1)

    def _body(self, body: tuple[Statement, ...], depth: int) -> Iterator[str]:
        if body:
            yield from self.body(body, depth)
        else:
            yield f"{' ' * depth}pass"

    # expressions

    def expression(self, one: Expression) -> str:
        match one:
            case Literal():
                told = repr(one.value) if one.value >= 0 else f"({one.value!r})"
            case Variable():
                told = f"v[{self.slot(one.name)}]"
            case Member():
                self.reads_elapsed = self.reads_elapsed or one.name == "ET"
                told = f"b[{self.block(one.block)}].{one.name}"
            case Not():
                told = f"(not {self.expression(one.operand)})"
            case Minus():
                kind = self.type(one)
                told = self._checked(f"-{self.expression(one.operand)}", kind, one.place[0])
            case Many():
                told = self._many(one)
            case Convert():
                told = self._convert(one)
            case _:
                told = self._binary(one)
        return told

    def _many(self, one: Many) -> str:
        parts = [self.expression(part) for part in one.operands]
        # every operand is worked: one that can fault is not left out
        is_safe = not any(can_fault(part) for part in one.operands)
        word = one.operator.lower() if is_safe else "&" if one.operator == "AND" else "|"
        return f"({f' {word} '.join(parts)})"

    def _convert(self, one: Convert) -> str:
        told = self.expression(one.operand)
        if one.function == "INT_TO_REAL":
            return f"float({told})"
        self.can_fault = True
        return f"_whole({told}, {one.place[0]})"

    def _binary(self, one: Binary) -> str:
        left, right, line = self.expression(one.left), self.expression(one.right), one.at[0]
        if one.operator in _COMPARED:
            return f"({left} {_COMPARED[one.operator]} {right})"
        if one.operator == "XOR":
            return f"({left} != {right})"
        kind = self.type(one)
        if one.operator in {"/", "MOD"}:
            self.can_fault = True
            helper = (
                "_rest" if one.operator == "MOD" else "_ratio" if kind == "REAL" else "_divided"
            )
            return f"{helper}({left}, {right}, {line})"
        return self._checked(f"{left} {one.operator} {right}", kind, line)

    def _checked(self, told: str, kind: str, line: int) -> str:
        self.can_fault = True
        return f"_{kind.lower()}({told}, {line})"

    def type(self, one: Expression) -> str:
        """Return the type of an expression that was checked."""
        found = "BOOL"
        match one:
            case Literal():
                found = one.type
            case Variable():
                found = self.checked.symbol(one.name).type
            case Member():
                kind = BLOCKS[self.checked.symbol(one.block).type]
                found = {**kind.inputs, **kind.outputs}[one.name]
            case Minus():
                found = self.type(one.operand)
            case Convert():
                found = "INT" if one.function == "REAL_TO_INT" else "REAL"
            case Binary() if one.operator not in {*_COMPARED, "XOR"}:
                kinds = {self.type(one.left), self.type(one.right)}
                found = "REAL" if "REAL" in kinds else kinds.pop()
        return found


def can_fault(one: Expression) -> bool:
    """Tell whether working an expression can stop a scan.

    Parameters
    ----------
    one : Expression
        Of a program.
    """
    if isinstance(one, Many):
        return any(can_fault(part) for part in one.operands)
    if isinstance(one, Not):
        return can_fault(one.operand)
    if isinstance(one, Binary):
        is_plain = one.operator in {*_COMPARED, "XOR"}
        return not is_plain or can_fault(one.left) or can_fault(one.right)
    return isinstance(one, Minus | Convert)


class Machine:
    """A program with its variables: scanned, read, and put back as it was.

    Parameters
    ----------
    checked : Checked
        A program of which nothing is wrong.
    """

    def __init__(self, checked: Checked) -> None:
        """Make the program ready, its variables at their initial values."""
        self.checked = checked
        self._made = _Maker(checked)
        self.values: list[Value] = list(self._made.initial)
        self.blocks: list[Block] = [WORKING[kind]() for kind, _ in self._made.kinds]
        self.fault: Fault | None = None

    def start(self, retained: tuple[Any, ...] | None = None) -> None:
        """Begin anew, as after power came: everything initial but what was retained.

        Parameters
        ----------
        retained : tuple or None
            As `retained` gave it.
        """
        self.values = list(self._made.initial)
        self.blocks = [WORKING[kind]() for kind, _ in self._made.kinds]
        self.fault = None
        if retained is None:
            return
        values, states = retained
        for slot, value in zip(self._made.retained, values, strict=True):
            self.values[slot] = value
        for block, state, (_, is_kept) in zip(self.blocks, states, self._made.kinds, strict=True):
            if is_kept:
                block.restore(state)

    def retained(self) -> tuple[Any, ...]:
        """Return what outlives a loss of power."""
        return (
            tuple(self.values[slot] for slot in self._made.retained),
            tuple(block.state() for block in self.blocks),
        )

    def state(self) -> tuple[Any, ...]:
        """Return everything that outlives a scan."""
        return (
            tuple(self.values),
            tuple(block.state() for block in self.blocks),
            self.fault,
        )

    def restore(self, state: tuple[Any, ...]) -> None:
        """Put back what outlived a scan.

        Parameters
        ----------
        state : tuple
            As `state` gave it.
        """
        values, states, self.fault = state
        self.values = list(values)
        for block, kept in zip(self.blocks, states, strict=True):
            block.restore(kept)

    def settled(self) -> tuple[Any, ...]:
        """Return what outlives a scan, but for how long timers have run.

        A program that reads that keeps changing by itself.
        """
        if self._made.reads_elapsed:
            return self.state()
        return (
            tuple(self.values),
            tuple(block.settled() for block in self.blocks),
            self.fault,
        )

    def phase(self) -> tuple[Any, ...]:
        """Return what outlives a scan with every timer by its phase instead of its times."""
        return (
            tuple(self.values),
            tuple((*block.untimed(), block.over_at() is not None) for block in self.blocks),
            self.fault,
        )

    def over_at(self) -> int | None:
        """Return when the next timer is over; None if none runs [ms]."""
        found = [when for block in self.blocks if (when := block.over_at()) is not None]
        return min(found, default=None)

    def give(self, name: str, value: Value) -> None:
        """Set an input, or any variable, before a scan.

        Parameters
        ----------
        name : str
            Of a point or a variable.
        value : bool, int or float
            Of its type.
        """
        self.values[self._at(name)] = value

    def _at(self, name: str) -> int:
        """Return the number of a variable; a flag that the program never names is still there."""
        at = self._made.place(self.checked.symbol(name))
        self.values += self._made.initial[len(self.values) :]
        return at

    def scan(self, now: int) -> None:
        """Work the program once from top to bottom; a fault drops the results of this scan.

        Parameters
        ----------
        now : int
            Clock of the scan, one for all blocks. [ms]
        """
        if self.fault is not None:
            return
        if not self._made.can_fault:
            self._made.scan(self.values, self.blocks, now)
            return
        before = self.state()
        try:
            self._made.scan(self.values, self.blocks, now)
        except _FaultError as broken:
            self.restore(before)
            self.fault = broken.fault

    def value(self, name: str) -> Value:
        """Return a variable, a point, or what a block shows.

        Parameters
        ----------
        name : str
            As ``Run`` or ``T1.ET``; times in ms.
        """
        block, _, member = name.partition(".")
        if member and not name.startswith("%"):
            shown: Value = getattr(self.blocks[self._made.block(block)], name_key(member))
            return shown
        return self.values[self._at(name)]

    def used(self) -> dict[str, str]:
        """Return every point of the program that it reads or writes, with its type."""
        return {name: symbol.type for name, symbol in self._made.used.items()}
