"""A program while it runs: what its names are worth, which contacts conduct and carry power.

It is the picture after a scan: a variable that two networks write shows what the last one left.

Source: IEC 61131-3, Ladder Diagram (power flow from left to right).
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass

from evencoil.logic.blocks import BLOCKS
from evencoil.logic.literals import time_text
from evencoil.logic.machine import Machine, Value
from evencoil.logic.meaning import Checked
from evencoil.logic.model import (
    Assign,
    Binary,
    Call,
    Expression,
    Literal,
    Many,
    Member,
    Not,
    Variable,
)
from evencoil.logic.rungs import Network, Rung, networks_of
from evencoil.logic.walk import expressions_in, parts_of, statements_in
from evencoil.logic.writer import statement_text

__all__ = ["LiveNetwork", "LiveProgram"]

_ORDER: Mapping[str, Callable[[Value, Value], bool]] = {
    "<": lambda one, other: one < other,
    ">": lambda one, other: one > other,
    "<=": lambda one, other: one <= other,
    ">=": lambda one, other: one >= other,
    "=": lambda one, other: one == other,
    "<>": lambda one, other: one != other,
}


@dataclass(frozen=True, slots=True)
class LiveNetwork:
    """A network to be looked at: drawn, as text, and the names whose values tell what it does."""

    rung: Rung
    text: str
    names: tuple[str, ...]


class LiveProgram:
    """What a running program shows.

    Parameters
    ----------
    checked : Checked
        A program of which nothing is wrong.
    """

    def __init__(self, checked: Checked) -> None:
        """Find its networks and their names once."""
        self.checked = checked
        self._networks = networks_of(checked)
        self.networks = tuple(
            LiveNetwork(
                one.rung,
                "\n".join(statement_text(part) for part in one.statements),
                tuple(dict.fromkeys(self._names(one))),
            )
            for one in self._networks
        )
        names = dict.fromkeys(name for one in self.networks for name in one.names)
        self._types = {name: self._type(name) for name in names}

    def _names(self, network: Network) -> Iterator[str]:
        for one in (inside for whole in network.statements for inside in statements_in(whole)):
            for whole in expressions_in(one):
                for part in parts_of(whole):
                    if isinstance(part, Variable):
                        yield part.name
                    elif isinstance(part, Member):
                        yield f"{part.block}.{part.name}"
            if isinstance(one, Assign):
                yield one.target
            elif isinstance(one, Call):
                shown = BLOCKS[self.checked.symbol(one.block).type].outputs
                yield from (f"{one.block}.{name}" for name in shown)
                yield from (given.target for given in one.outputs)

    def _type(self, name: str) -> str:
        owner, _, member = name.partition(".")
        if not member or name.startswith("%"):
            return self.checked.symbol(name).type
        kind = BLOCKS[self.checked.symbol(owner).type]
        return {**kind.inputs, **kind.outputs}[member]

    def values(self, machine: Machine) -> dict[str, str]:
        """Return what every name of its networks is worth, as the text of the program has values.

        Parameters
        ----------
        machine : Machine
            That runs this program.
        """
        return {name: _told(machine.value(name), kind) for name, kind in self._types.items()}

    def levels(self, machine: Machine) -> tuple[Value, ...]:
        """Return what is on and off among its names: when that changes there is a new picture.

        Parameters
        ----------
        machine : Machine
            That runs this program.
        """
        return tuple(machine.value(name) for name, kind in self._types.items() if kind == "BOOL")

    def flows(self, machine: Machine) -> tuple[str, ...]:
        """Return for each network how its contacts stand, in the order in which they are drawn.

        A figure for each contact: ``0`` does not conduct, ``1`` conducts without power from its
        left, ``2`` passes power on; behind them ``:`` and whether the coil or the block has power.
        Empty for a text network.

        Parameters
        ----------
        machine : Machine
            That runs this program.
        """
        found = []
        for one in self._networks:
            power = one.power
            if power is None:
                found.append("")
                continue
            marks: list[str] = []
            is_fed = _flow(power, machine, marks, is_fed=True)
            found.append(f"{''.join(marks)}:{int(is_fed)}")
        return tuple(found)


def _flow(one: Expression, machine: Machine, marks: list[str], *, is_fed: bool) -> bool:
    """Mark the contacts of a part, and tell whether power comes out of it."""
    if isinstance(one, Many):
        if one.operator == "AND":
            for part in one.operands:
                is_fed = _flow(part, machine, marks, is_fed=is_fed)
            return is_fed
        # every branch is marked, also behind one that passes
        fed = [_flow(part, machine, marks, is_fed=is_fed) for part in one.operands]
        return any(fed)
    conducts = bool(_worth(one, machine))
    marks.append("2" if conducts and is_fed else "1" if conducts else "0")
    return conducts and is_fed


def _worth(one: Expression, machine: Machine) -> Value:
    """Return what a contact compares or shows: names, values, one NOT, one comparison."""
    match one:
        case Literal():
            return one.value
        case Variable():
            return machine.value(one.name)
        case Member():
            return machine.value(f"{one.block}.{one.name}")
        case Not():
            return not _worth(one.operand, machine)
        case Binary():
            return _ORDER[one.operator](_worth(one.left, machine), _worth(one.right, machine))
    raise TypeError(one)  # nothing else has a contact form


def _told(value: Value, kind: str) -> str:
    if kind == "BOOL":
        return "1" if value else "0"
    if kind == "TIME":
        return time_text(int(value))
    return f"{value:.6g}" if kind == "REAL" else str(value)
