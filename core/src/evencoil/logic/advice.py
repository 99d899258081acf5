"""What a program lets doubt about by itself: written twice, never used, too short, kept too long.

Codes are those of docs/logic.md; places are lines and columns of its text.

Units: [ms].
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass

from evencoil.logic.meaning import Checked
from evencoil.logic.model import (
    Binary,
    Call,
    Case,
    Expression,
    If,
    Literal,
    Many,
    Member,
    Not,
    Statement,
    Variable,
)
from evencoil.logic.refusal import Place
from evencoil.logic.tokens import name_key
from evencoil.logic.walk import (
    expressions_in,
    parts_of,
    reads_of,
    statements_in,
    writes_of,
)

__all__ = ["Advice", "advice_of", "compared_ways", "edge_inputs"]

_EDGED = {"R_TRIG": "CLK", "F_TRIG": "CLK", "CTU": "CU", "CTD": "CD", "CTUD": "CU"}


@dataclass(frozen=True, slots=True)
class Advice:
    """A doubt about a program: its code, where, and about what."""

    code: str
    place: Place
    name: str
    figure: str = ""


def advice_of(checked: Checked, scan_ms: int = 10) -> tuple[Advice, ...]:
    """Return what is doubtful in a program, in the order of its text.

    Parameters
    ----------
    checked : Checked
        A program of which nothing is wrong.
    scan_ms : int
        How long a scan takes. [ms]
    """
    found = [
        *_written_twice(checked),
        *_called_inside(checked),
        *_unused(checked),
        *_unreachable(checked),
        *_short(checked, scan_ms),
        *_kept(checked),
    ]
    return tuple(sorted(set(found), key=lambda one: (one.place, one.code)))


def _written_twice(checked: Checked) -> Iterator[Advice]:
    """L10: a variable that two networks write: the later one wins, the earlier one is in vain.

    A set and a reset coil of one variable are two networks by intent.
    """
    first: dict[str, tuple[Statement, bool]] = {}
    for one in checked.program.statements:
        is_memory = isinstance(one, If)
        for name in dict.fromkeys(writes_of(one)):
            slot = name_key(checked.symbol(name).slot)
            known = first.get(slot)
            if known is not None and not (known[1] and is_memory):
                yield Advice("L10", one.place, name, str(known[0].place[0]))
            first.setdefault(slot, (one, is_memory))


def _called_inside(checked: Checked) -> Iterator[Advice]:
    """L11: a block that is not called in every scan misses edges and times late."""
    for network in checked.program.statements:
        for one in statements_in(network):
            if isinstance(one, Call) and one is not network:
                yield Advice("L11", one.place, one.block)


def _unused(checked: Checked) -> Iterator[Advice]:
    """L12: declared and never read, never written, or never called."""
    program = checked.program
    read = Counter(
        name_key(checked.symbol(name).slot) for one in program.statements for name in reads_of(one)
    )
    written = {
        name_key(checked.symbol(name).slot) for one in program.statements for name in writes_of(one)
    }
    called = {
        name_key(inside.block)
        for one in program.statements
        for inside in statements_in(one)
        if isinstance(inside, Call)
    }
    for block in program.blocks:
        for one in block.declared:
            symbol = checked.symbol(one.name)
            key = name_key(symbol.slot)
            if symbol.kind == "block":
                if key not in called:
                    yield Advice("L12", one.place, one.name, "never called")
            elif symbol.kind in {"variable", "flag"}:
                if key not in written and one.initial is None:
                    yield Advice("L12", one.place, one.name, "never written")
                elif not read[key]:
                    yield Advice("L12", one.place, one.name, "never read")
            elif symbol.kind in {"constant", "input"} and not read[key]:
                yield Advice("L12", one.place, one.name, "never read")


def _unreachable(checked: Checked) -> Iterator[Advice]:
    """L13: a condition that never changes."""
    for network in checked.program.statements:
        for one in statements_in(network):
            if isinstance(one, If):
                for condition, _ in one.branches:
                    if _is_constant(checked, condition):
                        yield Advice("L13", condition.place, "IF")
            elif isinstance(one, Case) and _is_constant(checked, one.value):
                yield Advice("L13", one.value.place, "CASE")


def _is_constant(checked: Checked, one: Expression) -> bool:
    return all(
        not isinstance(part, Member)
        and not (isinstance(part, Variable) and checked.symbol(part.name).kind != "constant")
        for part in parts_of(one)
    )


def _short(checked: Checked, scan_ms: int) -> Iterator[Advice]:
    """L14: a time shorter than a scan is a scan long, or nothing."""
    for network in checked.program.statements:
        for one in statements_in(network):
            if not isinstance(one, Call):
                continue
            value = one.input("PT")
            if isinstance(value, Literal) and 0 < value.value < scan_ms:
                yield Advice("L14", value.place, one.block, str(value.value))


def _kept(checked: Checked) -> Iterator[Advice]:
    """L15: what outlives a loss of power and commands an output starts it when power returns."""
    kept = {name_key(symbol.slot) for symbol in checked.symbols.values() if symbol.is_retained}
    for one in checked.program.statements:
        outputs = [name for name in writes_of(one) if checked.symbol(name).kind == "output"]
        read = [name for name in reads_of(one) if name_key(checked.symbol(name).slot) in kept]
        for name in outputs[:1]:
            if read and checked.symbol(read[0]).type in {"BOOL", "SR", "RS"}:
                yield Advice("L15", one.place, read[0], name)


def compared_ways(checked: Checked, output: str, feedback: str) -> tuple[bool, bool]:
    """Tell whether an output is compared with its feedback: commanded and not in, in and not.

    Parameters
    ----------
    checked : Checked
        A program.
    output : str
        Point, as Q1.
    feedback : str
        Point, as I2.
    """
    one_way = other_way = False
    wanted = {name_key(output), name_key(feedback)}
    for network in checked.program.statements:
        for inside in statements_in(network):
            for whole in expressions_in(inside):
                for part in parts_of(whole):
                    if isinstance(part, Binary) and part.operator in {"XOR", "<>", "="}:
                        sides = {_slot(checked, part.left), _slot(checked, part.right)}
                        if sides == wanted:
                            one_way = other_way = True
                    if isinstance(part, Many) and part.operator == "AND":
                        on = {_slot(checked, one) for one in part.operands}
                        off = {
                            _slot(checked, one.operand)
                            for one in part.operands
                            if isinstance(one, Not)
                        }
                        one_way = one_way or (name_key(output) in on and name_key(feedback) in off)
                        other_way = other_way or (
                            name_key(feedback) in on and name_key(output) in off
                        )
    return one_way, other_way


def _slot(checked: Checked, one: Expression) -> str:
    return name_key(checked.symbol(one.name).slot) if isinstance(one, Variable) else ""


def edge_inputs(checked: Checked) -> Iterator[tuple[str, str, Place]]:
    """Go through the edge and counter blocks that look at an input: block, input, place.

    A rise whose use waits for a variable that a later network sets is guarded: on the first scan,
    and in the scan in which a feed returns, that variable is not there yet.

    Parameters
    ----------
    checked : Checked
        A program.
    """
    statements = checked.program.statements
    last = {name: place for place, one in enumerate(statements) for name in writes_of(one)}
    for network in statements:
        for one in statements_in(network):
            if not isinstance(one, Call):
                continue
            clock = one.input(_EDGED.get(checked.symbol(one.block).type, ""))
            if not isinstance(clock, Variable):
                continue
            symbol = checked.symbol(clock.name)
            if symbol.kind == "input" and not _is_guarded(checked, one.block, last):
                yield one.block, symbol.slot, one.place


def _is_guarded(checked: Checked, block: str, last: dict[str, int]) -> bool:
    uses = 0
    for place, network in enumerate(checked.program.statements):
        for inside in statements_in(network):
            for whole in expressions_in(inside):
                shown = [p for p in parts_of(whole) if isinstance(p, Member) and p.block == block]
                uses += len(shown)
                for part in parts_of(whole):
                    if not isinstance(part, Many) or part.operator != "AND":
                        continue
                    if not any(one in shown for one in part.operands):
                        continue
                    waits = [
                        one.name
                        for one in part.operands
                        if isinstance(one, Variable) and last.get(one.name, -1) > place
                    ]
                    uses -= bool(waits)
    return uses == 0
