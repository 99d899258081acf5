"""Reading a program's text: its form, before its meaning.

Source: IEC 61131-3, Structured Text; the grammar taken here stands in docs/logic.md.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from typing import Any, cast

from evencoil.logic.literals import in_range, literal_of, negated
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
from evencoil.logic.refusal import LogicError, Place
from evencoil.logic.tokens import OTHER_WORDS, TYPES, Token, name_key, tokens

__all__ = [
    "FUNCTIONS",
    "MOST_NESTED",
    "MOST_OPERATORS",
    "MOST_STATEMENTS",
    "body_text",
    "read_form",
]

MOST_STATEMENTS, MOST_OPERATORS, MOST_NESTED = 2000, 1000, 32
FUNCTIONS = frozenset({"REAL_TO_INT", "INT_TO_REAL"})
#: functions of the standard that the relay here has not
_OTHER_FUNCTIONS = frozenset(
    [
        "ABS",
        "SQRT",
        "LN",
        "LOG",
        "EXP",
        "SIN",
        "COS",
        "TAN",
        "ASIN",
        "ACOS",
        "ATAN",
        "ADD",
        "SUB",
        "MUL",
        "DIV",
        "EXPT",
        "MOVE",
        "SHL",
        "SHR",
        "ROL",
        "ROR",
        "SEL",
        "MAX",
        "MIN",
        "LIMIT",
        "MUX",
        "GT",
        "GE",
        "EQ",
        "LE",
        "LT",
        "NE",
        "LEN",
        "LEFT",
        "RIGHT",
        "MID",
        "CONCAT",
        "INSERT",
        "DELETE",
        "REPLACE",
        "FIND",
        "TRUNC",
        "ROUND",
        "TRUNC_INT",
        "BOOL_TO_INT",
        "INT_TO_BOOL",
        "TIME_TO_INT",
        "INT_TO_TIME",
        "TIME_TO_REAL",
        "REAL_TO_TIME",
        "BOOL_TO_REAL",
        "INT_TO_STRING",
        "REAL_TO_STRING",
        "TIME",
        "CTIME",
    ]
)
#: operators from the loosest to the tightest
_LEVELS: tuple[dict[str, str], ...] = (
    {"OR": "OR"},
    {"XOR": "XOR"},
    {"AND": "AND", "&": "AND"},
    {"=": "=", "<>": "<>"},
    {"<": "<", ">": ">", "<=": "<=", ">=": ">="},
    {"+": "+", "-": "-"},
    {"*": "*", "/": "/", "MOD": "MOD"},
)
_BLOCK_WORDS = ("VAR", "VAR_INPUT", "VAR_OUTPUT")


class _Parser:
    """One text, read from its first word to its last, one word ahead."""

    def __init__(self, text: str) -> None:
        self.tokens: Iterator[Token] = tokens(text)
        self.now = next(self.tokens)
        self.seen: list[Token] = []
        self.statements = 0
        self.operators = 0
        self.brackets = 0
        self.nested = 0

    # words

    def step(self) -> Token:
        token = self.now
        if token.kind != "end":
            self.now = self.seen.pop() if self.seen else next(self.tokens)
        return token

    def is_at(self, *texts: str) -> bool:
        return self.now.kind in {"word", "symbol"} and self.now.text in texts

    def take(self, text: str) -> Token | None:
        return self.step() if self.is_at(text) else None

    def need(self, text: str) -> Token:
        if not self.is_at(text):
            raise self.refused(text)
        return self.step()

    def refused(self, expected: str) -> LogicError:
        """Return why the word that stands here is not taken."""
        token = self.now
        is_other = token.kind == "word" and token.text in OTHER_WORDS
        if is_other or (token.kind == "symbol" and token.text == "**"):
            return LogicError("unsupported", token.place, found=token.text)
        found = "the end of the text" if token.kind == "end" else token.text
        return LogicError("syntax", token.place, expected=expected, found=found)

    def name(self) -> Token:
        if self.now.kind != "name":
            raise self.refused("a name")
        return self.step()

    # program

    def program(self) -> Program:
        name = "Main"
        is_named = self.take("PROGRAM") is not None
        if is_named:
            name = self.name().text
        blocks: list[VariableBlock] = []
        while self.is_at(*_BLOCK_WORDS):
            blocks.append(self.block())
        ends = ("END_PROGRAM",) if is_named else ()
        body = self.body(*ends)
        if is_named:
            self.need("END_PROGRAM")
        if self.now.kind != "end":
            raise self.refused("a statement")
        return Program(blocks=tuple(blocks), statements=body, name=name)

    def block(self) -> VariableBlock:
        word = self.step().text
        qualifier = ""
        if self.is_at("RETAIN", "NON_RETAIN", "CONSTANT"):
            qualifier = self.step().text
        declared: list[Declared] = []
        while not self.is_at("END_VAR"):
            declared += self.declaration()
        self.need("END_VAR")
        return VariableBlock(cast("Any", word), cast("Any", qualifier), tuple(declared))

    def declaration(self) -> Iterator[Declared]:
        names = [self.name()]
        while self.take(","):
            names.append(self.name())
        address, at = "", names[0].place
        if self.take("AT"):
            if self.now.kind != "address":
                raise self.refused("an address such as %IX0.0")
            told = self.step()
            address, at = told.text, told.place
        self.need(":")
        kind = self.now
        is_type = kind.kind == "word" and kind.text in TYPES
        if not is_type:
            is_other = kind.kind == "name" or (kind.kind == "word" and kind.text in OTHER_WORDS)
            if is_other:
                raise LogicError("unsupported", kind.place, expected="a type", found=kind.text)
            raise self.refused("a type")
        self.step()
        initial = self.initial() if self.take(":=") else None
        self.need(";")
        for name in names:
            yield Declared(name.text, kind.text, address, initial, name.place, at, kind.place)

    def initial(self) -> Literal:
        minus = self.take("-")
        known = literal_of(self.now)
        if known is None:
            raise self.refused("a value")
        self.step()
        if minus is None:
            return in_range(known)
        if known.type not in {"INT", "REAL"}:
            raise LogicError("type", known.place, expected="INT or REAL", found=known.type)
        return replace(negated(known), place=minus.place)

    # statements

    def body(self, *ends: str) -> tuple[Statement, ...]:
        found: list[Statement] = []
        while not self.is_at(*ends) and self.now.kind != "end":
            one = self.statement()
            if one is not None:
                found.append(one)
        return tuple(found)

    def statement(self) -> Statement | None:
        if self.take(";"):
            return None
        token = self.now
        if not (token.kind in {"name", "address"} or self.is_at("IF", "CASE")):
            raise self.refused("a statement")
        self.statements += 1
        if self.statements > MOST_STATEMENTS:
            raise LogicError(
                "limit", token.place, expected=f"{MOST_STATEMENTS} statements", found="more"
            )
        if self.is_at("IF", "CASE"):
            self.nested += 1
            if self.nested > MOST_NESTED:
                raise LogicError(
                    "limit", token.place, expected=f"{MOST_NESTED} IF and CASE", found="more"
                )
            told: Statement = self.choice_of_two() if token.text == "IF" else self.case()
            self.nested -= 1
            return told
        self.step()
        if token.kind == "name" and self.is_at("("):
            return self.call(token)
        if token.kind == "name" and self.is_at("."):
            self.step()
            member = self.name()
            if not self.is_at(":="):
                raise self.refused(":=")
            target = f"{token.text}.{member.text}"
        else:
            target = token.text
        if not self.is_at(":="):
            raise self.refused(":=" if token.kind == "address" else ":= or (")
        self.step()
        value = self.whole()
        self.need(";")
        return Assign(target, value, token.place)

    def call(self, name: Token) -> Call:
        self.need("(")
        inputs: list[Input] = []
        outputs: list[Output] = []
        while not self.is_at(")"):
            if inputs or outputs:
                self.need(",")
            parameter = self.name()
            if self.take("=>"):
                target = self.now
                if target.kind not in {"name", "address"}:
                    raise self.refused("a variable")
                self.step()
                outputs.append(Output(parameter.text, target.text, parameter.place, target.place))
            elif self.is_at(":="):
                self.step()
                inputs.append(Input(parameter.text, self.whole(), parameter.place))
            else:
                raise self.refused(":= or =>")
        self.need(")")
        self.need(";")
        return Call(name.text, tuple(inputs), tuple(outputs), name.place)

    def choice_of_two(self) -> If:
        place = self.need("IF").place
        branches: list[tuple[Expression, tuple[Statement, ...]]] = []
        otherwise: tuple[Statement, ...] = ()
        while True:
            condition = self.whole()
            self.need("THEN")
            branches.append((condition, self.body("ELSIF", "ELSE", "END_IF")))
            if not self.take("ELSIF"):
                break
        if self.take("ELSE"):
            otherwise = self.body("END_IF")
        self.need("END_IF")
        self.need(";")
        return If(tuple(branches), otherwise, place)

    def case(self) -> Case:
        place = self.need("CASE").place
        value = self.whole()
        self.need("OF")
        choices: list[Choice] = []
        otherwise: tuple[Statement, ...] = ()
        while not self.is_at("ELSE", "END_CASE"):
            labels = [self.label()]
            while self.take(","):
                labels.append(self.label())
            self.need(":")
            if self.is_at("ELSE", "END_CASE"):
                raise self.refused("a statement")
            choices.append(Choice(tuple(labels), self.choice_body()))
        if self.take("ELSE"):
            otherwise = self.body("END_CASE")
        self.need("END_CASE")
        self.need(";")
        return Case(value, tuple(choices), otherwise, place)

    def choice_body(self) -> tuple[Statement, ...]:
        """Read until the next label: a number, a sign, or a name with colon or comma behind it."""
        found: list[Statement] = []
        while not self.is_at("ELSE", "END_CASE", "-") and self.now.kind not in {
            "int",
            "end",
            "typed",
        }:
            if self.now.kind == "name" and self._is_label():
                break
            one = self.statement()
            if one is not None:
                found.append(one)
        return tuple(found)

    def _is_label(self) -> bool:
        """Tell whether the name that stands here is a label: one more word has to be seen."""
        following = next(self.tokens)
        self.seen.append(following)
        return following.kind == "symbol" and following.text in {":", ","}

    def label(self) -> Label:
        if self.now.kind == "name":
            token = self.step()
            return Label(token.text, None, token.place)
        place = self.now.place
        low = self.bound()
        high = self.bound() if self.take("..") else None
        return Label(low, high, place)

    def bound(self) -> int:
        minus = self.take("-")
        known = literal_of(self.now)
        if known is None or known.type != "INT":
            raise self.refused("an INT")
        self.step()
        return -int(known.value) if minus else int(in_range(known).value)

    # expressions

    def whole(self) -> Expression:
        self.operators = 0
        return self.level(0)

    def level(self, depth: int) -> Expression:
        if depth == len(_LEVELS):
            return self.unary()
        known = _LEVELS[depth]
        left = self.level(depth + 1)
        while self.now.kind in {"word", "symbol"} and self.now.text in known:
            at = self._operator()
            operator = known[at.text]
            right = self.level(depth + 1)
            left = _joined(operator, left, right, at.place)
        return left

    def _operator(self) -> Token:
        self.operators += 1
        if self.operators > MOST_OPERATORS:
            raise LogicError(
                "limit", self.now.place, expected=f"{MOST_OPERATORS} operators", found="more"
            )
        return self.step()

    def unary(self) -> Expression:
        if self.is_at("NOT"):
            place = self._operator().place
            return Not(self.operand(), place)
        if self.is_at("-"):
            place = self._operator().place
            known = literal_of(self.now)
            if known is not None and known.type in {"INT", "REAL"}:
                self.step()
                return replace(negated(known), place=place)
            return Minus(self.operand(), place)
        return self.operand()

    def operand(self) -> Expression:
        token = self.now
        known = literal_of(token)
        if known is not None:
            self.step()
            return in_range(known)
        if self.is_at("("):
            return self.bracket(token.place)
        if token.kind == "address":
            self.step()
            return Variable(token.text, token.place)
        if token.kind != "name":
            raise self.refused("an expression")
        self.step()
        if self.take("."):
            return Member(token.text, self.name().text, token.place)
        if self.is_at("("):
            return self.function(token)
        return Variable(token.text, token.place)

    def bracket(self, place: Place) -> Expression:
        self.brackets += 1
        if self.brackets > MOST_NESTED:
            raise LogicError("limit", place, expected=f"{MOST_NESTED} brackets", found="more")
        self.need("(")
        inside = self.level(0)
        self.need(")")
        self.brackets -= 1
        return replace(inside, place=place)

    def function(self, token: Token) -> Expression:
        if name_key(token.text) in _OTHER_FUNCTIONS:
            raise LogicError("unsupported", token.place, found=token.text)
        inside = self.bracket(self.now.place)
        return Convert(token.text, inside, token.place)


def _joined(operator: str, left: Expression, right: Expression, at: Place) -> Expression:
    """Return two operands with their operator; AND in AND and OR in OR are one."""
    if operator in {"AND", "OR"}:
        parts: list[Expression] = []
        for one in (left, right):
            parts += one.operands if isinstance(one, Many) and one.operator == operator else (one,)
        return Many(cast("Any", operator), tuple(parts), left.place)
    return Binary(operator, left, right, left.place, at)


def read_form(text: str) -> Program:
    """Return a program as it is written: names not looked up, types not checked.

    Parameters
    ----------
    text : str
        Structured Text.

    Raises
    ------
    LogicError
        At the first word that is not taken: ``syntax``, ``unsupported``, ``range`` or ``limit``.
    """
    return _Parser(text).program()


def body_text(text: str) -> str:
    """Return the statements of a text as they stand, comments included, declarations left out.

    Parameters
    ----------
    text : str
        A program of whose form nothing is wrong.
    """
    lines = text.replace("\r\n", "\n").replace("\r", "\n").split("\n")
    start, end = (1, 1), (len(lines), len(lines[-1]) + 1)
    is_header = False
    for token in tokens(text):
        width = token.place[1] + len(token.text)
        if token.kind == "word" and token.text == "END_VAR":
            start = (token.place[0], width)
        elif token.kind == "word" and token.text == "PROGRAM":
            is_header = True
        elif is_header:
            start, is_header = (token.place[0], width), False
        elif token.kind == "word" and token.text == "END_PROGRAM":
            end = token.place
    kept = lines[start[0] - 1 : end[0]]
    kept[-1] = kept[-1][: end[1] - 1]
    kept[0] = kept[0][start[1] - 1 :]
    return "\n".join(kept).strip("\n")
