"""Reading a program from PLCopen XML: text, or a ladder whose contacts are series and parallel.

Source: PLCopen Technical Committee 6, XML schema 2.0 and 2.01; the part read here stands in
docs/logic.md. Nothing is half-imported, nothing is ever fetched.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import replace
from typing import Any, cast

from evencoil.logic.blocks import BLOCKS
from evencoil.logic.elements import Element, read_elements
from evencoil.logic.meaning import Checked, check_program
from evencoil.logic.model import (
    Assign,
    Binary,
    Call,
    Declared,
    Expression,
    If,
    Input,
    Literal,
    Member,
    Not,
    Program,
    Statement,
    Variable,
    VariableBlock,
)
from evencoil.logic.names import USUAL, Points
from evencoil.logic.reader import read_form
from evencoil.logic.refusal import LogicError, Place
from evencoil.logic.series import Branch, reduced
from evencoil.logic.tokens import name_key

__all__ = ["COMPARE_BLOCKS", "NAMESPACE", "XHTML", "read_xml"]

NAMESPACE = "http://www.plcopen.org/xml/tc6_0201"
_NAMESPACES = {NAMESPACE, "http://www.plcopen.org/xml/tc6_0200"}
XHTML = "http://www.w3.org/1999/xhtml"
COMPARE_BLOCKS = {"GT": ">", "GE": ">=", "LT": "<", "LE": "<=", "EQ": "=", "NE": "<>"}
_SKIPPED = {"addData", "documentation"}
_VARIABLES = {"localVars": "VAR", "inputVars": "VAR_INPUT", "outputVars": "VAR_OUTPUT"}
#: what a drawing program adds for the eye
_LOOKS = {"position", "relPosition"}


def read_xml(data: bytes, points: Points = USUAL) -> Checked:
    """Return the program of a file.

    Parameters
    ----------
    data : bytes
        PLCopen XML with one program.
    points : Points
        Of the relay it is for.

    Raises
    ------
    LogicError
        What is not taken over first, with its line in the file.
    """
    root = read_elements(data)
    if root.space not in _NAMESPACES:
        raise LogicError(
            "xml-namespace", (root.line, 1), expected=NAMESPACE, found=root.space or root.name
        )
    if root.name != "project":
        raise _unknown(root)
    pou = _pou(root)
    blocks: tuple[VariableBlock, ...] = ()
    statements: tuple[Statement, ...] | None = None
    for one in _inside(pou, {"interface", "body"}):
        if one.name == "interface":
            blocks = tuple(_interface(one))
        elif statements is None:
            blocks, statements = _body(one, blocks)
        else:
            raise _unknown(one)
    name = pou.given.get("name", "Main")
    return check_program(Program(blocks, statements or (), name), points)


def _unknown(one: Element) -> LogicError:
    return LogicError("xml-element", (one.line, 1), found=one.name)


def _inside(one: Element, known: Iterable[str]) -> Iterator[Element]:
    """Go through the children of an element, of which every one has to be known."""
    for child in one.inside:
        if child.name in _SKIPPED:
            continue
        if child.space != one.space and child.space not in _NAMESPACES:
            raise LogicError(
                "xml-namespace", (child.line, 1), expected=one.space, found=child.space
            )
        if child.name not in known:
            raise _unknown(child)
        yield child


def _pou(root: Element) -> Element:
    """Return the one program of a project."""
    found: list[Element] = []
    for part in _inside(root, {"fileHeader", "contentHeader", "types", "instances"}):
        if part.name != "types":
            continue
        for kind in _inside(part, {"dataTypes", "pous"}):
            if kind.name == "dataTypes":
                list(_inside(kind, ()))
            else:
                found += _inside(kind, {"pou"})
    if not found:
        raise LogicError("xml-element", (root.line, 1), expected="a program", found="none")
    for one in found:
        if one.given.get("pouType") != "program":
            other = one.given.get("pouType", "pou")
            raise LogicError("xml-element", (one.line, 1), expected="a program", found=other)
    if len(found) > 1:
        raise LogicError(
            "xml-element", (found[1].line, 1), expected="one program", found="a second one"
        )
    return found[0]


def _interface(one: Element) -> Iterator[VariableBlock]:
    for part in _inside(one, _VARIABLES):
        qualifier = ""
        for name, word in (("retain", "RETAIN"), ("constant", "CONSTANT")):
            if part.given.get(name) == "true":
                qualifier = word
        if part.given.get("nonretain") == "true":
            qualifier = "NON_RETAIN"
        if part.given.get("persistent") == "true":
            raise LogicError("xml-element", (part.line, 1), found="persistent")
        declared = tuple(_declared(known) for known in _inside(part, {"variable"}))
        yield VariableBlock(cast("Any", _VARIABLES[part.name]), cast("Any", qualifier), declared)


def _declared(one: Element) -> Declared:
    place: Place = (one.line, 1)
    kind = ""
    initial: str | None = None
    for part in _inside(one, {"type", "initialValue"}):
        if part.name == "type":
            for told in part.inside:
                kind = told.given.get("name", "") if told.name == "derived" else told.name
                if told.name == "derived" and kind not in BLOCKS:
                    raise LogicError("xml-element", (told.line, 1), found=kind or "derived")
                if told.name != "derived" and kind not in {"BOOL", "INT", "REAL", "TIME"}:
                    raise _unknown(told)
        else:
            for simple in _inside(part, {"simpleValue"}):
                initial = simple.given.get("value", "")
    if not kind:
        raise LogicError("xml-element", place, expected="a type", found="none")
    # read as it would stand in a text: a name, an address, a value
    address = f" AT {one.given['address']}" if one.given.get("address") else ""
    value = f" := {initial}" if initial is not None else ""
    name = one.given.get("name", "")
    try:
        (block,) = read_form(f"VAR {name}{address} : {kind}{value}; END_VAR").blocks
        (known,) = block.declared
    except LogicError as refused:
        raise LogicError(
            refused.code, place, expected=refused.expected, found=refused.found
        ) from None
    except ValueError:
        raise LogicError("syntax", place, expected="one name", found=name[:80]) from None
    return replace(known, place=place, at=place, type_at=place)


def _body(
    one: Element, blocks: tuple[VariableBlock, ...]
) -> tuple[tuple[VariableBlock, ...], tuple[Statement, ...]]:
    """Return the networks of a body, with the declarations of what its edges became."""
    for part in _inside(one, {"ST", "LD"}):
        if part.name == "LD":
            ladder = _Ladder(part, blocks)
            statements = tuple(ladder.statements())
            return (*blocks, *ladder.edge_blocks()), statements
        for told in part.inside:
            if told.space != XHTML or told.name != "p":
                raise _unknown(told)
        text = "".join(told.text for told in part.inside)
        line = part.inside[0].line if part.inside else part.line
        try:
            form = read_form(text)
        except LogicError as refused:
            raise LogicError(
                refused.code,
                (refused.line + line - 1, refused.column),
                expected=refused.expected,
                found=refused.found,
            ) from None
        if form.blocks:
            raise LogicError(
                "xml-element", (line, 1), expected="statements only", found="declarations"
            )
        return blocks, form.statements
    raise LogicError("xml-element", (one.line, 1), expected="ST or LD", found="nothing")


_Pin = tuple[str, str]


class _Ladder:
    """The elements of a ladder by their ids, and what lies between them."""

    _KNOWN = (
        "leftPowerRail",
        "rightPowerRail",
        "contact",
        "coil",
        "block",
        "inVariable",
        "comment",
    )

    def __init__(self, body: Element, blocks: tuple[VariableBlock, ...]) -> None:
        self.order = [one for one in _inside(body, self._KNOWN) if one.name != "comment"]
        self.by_id: dict[str, Element] = {}
        self.names = {name_key(one.name) for block in blocks for one in block.declared}
        self.types = {name_key(one.name): one.type for block in blocks for one in block.declared}
        self.edges: list[tuple[str, str]] = []
        self.used: set[str] = set()
        for one in self.order:
            known = one.given.get("localId", "")
            if not known or known in self.by_id:
                found = f"localId {known} twice" if known else "no localId"
                raise LogicError("xml-reference", (one.line, 1), found=found)
            self.by_id[known] = one
        self.rails = {one.given["localId"] for one in self.order if one.name == "leftPowerRail"}

    # pins

    def sources(self, pin: Element | None, line: int) -> tuple[_Pin, ...]:
        """Return what is wired into an input, in the order of its wires."""
        if pin is None:
            return ()
        found = []
        for one in _inside(pin, {"connection", *_LOOKS}):
            if one.name in _LOOKS:
                continue
            known = one.given.get("refLocalId", "")
            if known not in self.by_id:
                raise LogicError("xml-reference", (one.line, 1), found=f"localId {known}")
            source = self.by_id[known]
            if source.name in {"coil", "rightPowerRail"}:
                raise LogicError(
                    "xml-reference", (one.line, 1), expected="one coil a rung", found=source.name
                )
            pin_name = one.given.get("formalParameter", "")
            found.append((known, pin_name if source.name == "block" else ""))
        if len(set(found)) != len(found):
            raise LogicError("xml-reference", (line, 1), found="a wire twice")
        return tuple(found)

    def power_in(self, one: Element) -> tuple[_Pin, ...]:
        """Return what feeds a contact, a coil, or the power input of a block."""
        if one.name != "block":
            return self.sources(one.one("connectionPointIn"), one.line)
        kind = one.given.get("typeName", "")
        power = "EN" if kind in COMPARE_BLOCKS else BLOCKS[kind].power if kind in BLOCKS else ""
        pin = self.input(one, power)
        return () if pin is None else self.sources(pin.one("connectionPointIn"), one.line)

    def input(self, one: Element, name: str) -> Element | None:
        """Return an input of a block by its name."""
        inputs = one.one("inputVariables")
        if inputs is None:
            return None
        return next(
            (pin for pin in inputs.every("variable") if pin.given.get("formalParameter") == name),
            None,
        )

    # what lies between

    def between(self, sources: tuple[_Pin, ...], line: int) -> Expression:
        """Return what has to be closed for power to come to an input."""
        if not sources:
            raise LogicError("xml-reference", (line, 1), expected="a wire", found="nothing")
        self._no_circle(sources)
        seen: set[object] = set()
        branches: dict[_Pin, list[Branch]] = {}
        start = "rail"

        def point(pins: tuple[_Pin, ...]) -> object:
            if all(known in self.rails for known, _ in pins):
                return start
            return frozenset(pins)

        waiting = [sources]
        while waiting:
            pins = waiting.pop()
            end = point(pins)
            if end == start or end in seen:
                continue
            seen.add(end)
            for place, pin in enumerate(pins):
                self.used.add(pin[0])
                what, into = self._passed(pin)
                start_of = start if into is None else point(into)
                branches.setdefault(pin, []).append(Branch(start_of, end, ((place, what),)))
                if into is not None:
                    waiting.append(into)
        flat = [one for found in branches.values() for one in found]
        is_shared = any(
            len(found) > 1 and pin[0] not in self.rails for pin, found in branches.items()
        )
        found = None if is_shared else reduced(flat, start, point(sources))
        if found is None:
            raise LogicError(
                "xml-reference", (line, 1), expected="series and parallel", found="a bridge"
            )
        return found

    def _passed(self, pin: _Pin) -> tuple[Expression, tuple[_Pin, ...] | None]:
        """Return what power passes in an element, and what feeds it; a rail is a wire."""
        if pin[0] in self.rails:
            return Literal("BOOL", value=True, text="TRUE"), None
        return self.element(pin)

    def _no_circle(self, sources: tuple[_Pin, ...]) -> None:
        """Refuse contacts that feed themselves."""
        done: set[str] = set()
        trail: list[tuple[str, Iterator[str]]] = []

        def above(known: str) -> Iterator[str]:
            one = self.by_id[known]
            if one.name not in {"contact", "block"} or self._is_memory(one):
                return iter(())
            return iter([name for name, _ in self.power_in(one)])

        for first, _ in sources:
            trail.append((first, above(first)))
            on_trail = {first}
            while trail:
                known, rest = trail[-1]
                following = next(rest, None)
                if following is None:
                    trail.pop()
                    on_trail.discard(known)
                    done.add(known)
                elif following in on_trail:
                    line = self.by_id[following].line
                    raise LogicError(
                        "xml-reference", (line, 1), found=f"localId {following} in a circle"
                    )
                elif following not in done:
                    on_trail.add(following)
                    trail.append((following, above(following)))

    def _is_memory(self, one: Element) -> bool:
        return one.name == "block" and one.given.get("typeName", "") in BLOCKS

    def element(self, pin: _Pin) -> tuple[Expression, tuple[_Pin, ...] | None]:
        """Return what an element lets through, and what feeds it; None for a block's own output."""
        known, output = pin
        one = self.by_id[known]
        place: Place = (one.line, 1)
        if one.name == "contact":
            list(_inside(one, {"connectionPointIn", "connectionPointOut", "variable", *_LOOKS}))
            return self.contact(one), self.power_in(one) or ((next(iter(self.rails), ""), ""),)
        if one.name == "inVariable":
            return self.value(one), None
        kind = one.given.get("typeName", "")
        if kind in COMPARE_BLOCKS:
            pins = [self.data(one, name) for name in ("IN1", "IN2")]
            if output not in {"OUT", ""}:
                raise LogicError("xml-reference", place, expected="OUT", found=output)
            compared = Binary(COMPARE_BLOCKS[kind], pins[0], pins[1], place, place)
            return compared, self.power_in(one) or ((next(iter(self.rails), ""), ""),)
        if kind not in BLOCKS:
            raise LogicError("xml-element", place, found=kind or "block")
        shown = output or next(iter(BLOCKS[kind].outputs))
        return Member(one.given.get("instanceName", ""), shown, place), None

    def contact(self, one: Element) -> Expression:
        told = self.name(one)
        edge = one.given.get("edge", "none")
        if edge in {"rising", "falling"}:
            return self.edge(told, edge, one)
        return Not(told, told.place) if one.given.get("negated") == "true" else told

    def edge(self, told: Expression, edge: str, one: Element) -> Expression:
        """Return the output of a new edge block: a contact that looks for a change is one."""
        number = 1
        while name_key(f"Edge{number}") in self.names:
            number += 1
        name = f"Edge{number}"
        self.names.add(name_key(name))
        kind = "R_TRIG" if edge == "rising" else "F_TRIG"
        self.edges.append((name, kind))
        place: Place = (one.line, 1)
        self.ahead.append(Call(name, (Input("CLK", told, place),), (), place))
        if one.given.get("negated") == "true":
            raise LogicError("xml-element", place, found="a negated edge")
        return Member(name, "Q", place)

    def name(self, one: Element) -> Expression:
        """Return the variable of a contact."""
        variable = one.one("variable")
        told = "" if variable is None else variable.text.strip()
        return self.expression(told, one.line)

    def expression(self, told: str, line: int) -> Expression:
        """Return a name, a member or a literal."""
        try:
            (statement,) = read_form(f"x := {told};").statements
        except (LogicError, ValueError):
            statement = None
        if isinstance(statement, Assign) and isinstance(
            statement.value, Variable | Member | Literal
        ):
            return replace(statement.value, place=(line, 1))
        raise LogicError(
            "xml-element", (line, 1), expected="a name or a value", found=told[:80] or "nothing"
        )

    def value(self, one: Element) -> Expression:
        list(_inside(one, {"connectionPointOut", "expression", *_LOOKS}))
        told = one.one("expression")
        found = self.expression("" if told is None else told.text.strip(), one.line)
        return Not(found, found.place) if one.given.get("negated") == "true" else found

    def data(self, one: Element, name: str) -> Expression:
        """Return what is wired to an input that is no power: a value, or contacts."""
        pin = self.input(one, name)
        sources = () if pin is None else self.sources(pin.one("connectionPointIn"), one.line)
        if len(sources) == 1 and self.by_id[sources[0][0]].name == "inVariable":
            self.used.add(sources[0][0])
            found = self.value(self.by_id[sources[0][0]])
        else:
            found = self.between(sources, one.line)
        if pin is not None and pin.given.get("negated") == "true":
            return Not(found, found.place)
        return found

    # networks

    def statements(self) -> Iterator[Statement]:
        """Go through the networks in the order of their coils and blocks in the file."""
        self.ahead: list[Statement] = []
        for one in self.order:
            if one.name == "coil":
                told = self.coil(one)
            elif self._is_memory(one):
                told = self.call(one)
            else:
                if one.name == "block" and one.given.get("typeName", "") not in COMPARE_BLOCKS:
                    found = one.given.get("typeName", "") or "block"
                    raise LogicError("xml-element", (one.line, 1), found=found)
                continue
            yield from self.ahead
            self.ahead = []
            yield told
        for one in self.order:
            is_inner = one.name in {"contact", "inVariable"} or (
                one.name == "block" and not self._is_memory(one)
            )
            if is_inner and one.given["localId"] not in self.used:
                raise LogicError(
                    "xml-reference", (one.line, 1), expected="a coil behind it", found="nothing"
                )

    def edge_blocks(self) -> Iterator[VariableBlock]:
        """Go through the declarations of what the edges became."""
        if self.edges:
            yield VariableBlock("VAR", "", tuple(Declared(name, kind) for name, kind in self.edges))

    def coil(self, one: Element) -> Statement:
        list(_inside(one, {"connectionPointIn", "connectionPointOut", "variable", *_LOOKS}))
        place: Place = (one.line, 1)
        variable = one.one("variable")
        target = "" if variable is None else variable.text.strip()
        self.expression(target, one.line)
        when = self.between(self.power_in(one), one.line)
        storage, is_negated = one.given.get("storage", "none"), one.given.get("negated") == "true"
        if one.given.get("edge", "none") != "none" or (storage != "none" and is_negated):
            raise LogicError("xml-element", place, found="a coil with an edge")
        if storage in {"set", "reset"}:
            value = Literal("BOOL", storage == "set", "TRUE" if storage == "set" else "FALSE")
            return If(((when, (Assign(target, value, place),)),), (), place)
        return Assign(target, Not(when, place) if is_negated else when, place)

    def call(self, one: Element) -> Statement:
        place: Place = (one.line, 1)
        known = {"inputVariables", "inOutVariables", "outputVariables", *_LOOKS}
        list(_inside(one, known))
        kind, name = one.given.get("typeName", ""), one.given.get("instanceName", "")
        if not name or self.types.get(name_key(name)) != kind:
            raise LogicError("xml-reference", place, expected=f"a {kind} declared", found=name)
        inputs = []
        pins = one.one("inputVariables")
        for pin in _inside(pins, {"variable"}) if pins is not None else ():
            formal = pin.given.get("formalParameter", "")
            if pin.one("connectionPointIn") is None or not self.sources(
                pin.one("connectionPointIn"), one.line
            ):
                continue
            inputs.append(Input(formal, self.data(one, formal), place))
        return Call(name, tuple(inputs), (), place)
