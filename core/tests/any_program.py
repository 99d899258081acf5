"""Any program of the relay, and a second, naive interpreter of it.

The interpreter walks the program and shares nothing with the machine but the model: it is slow and
written from the words of docs/logic.md.
"""

from functools import cache
from math import isfinite

from hypothesis import strategies as st

from evencoil.logic.model import (
    Assign,
    Binary,
    Call,
    Convert,
    If,
    Literal,
    Many,
    Member,
    Minus,
    Not,
    Variable,
)

BOOLS = ["I1", "I2", "I3", "Q1", "Q2", "Run", "Flt", "%MX0.3"]
INTS = ["N", "M", "AI1", "%MW2"]
TIMES = ["D"]
REALS = ["X"]
HEAD = """VAR Run, Flt : BOOL; N : INT := -3; M : INT; D : TIME := T#1s; X : REAL := 0.5; END_VAR
VAR RETAIN Kept : INT; Mem : SR; END_VAR
VAR CONSTANT Two : INT := 2; END_VAR
VAR T1, T2 : TON; F1 : TOF; P1 : TP; C1 : CTU; C2 : CTD; C3 : CTUD; R1 : R_TRIG; R2 : F_TRIG;
  M1 : RS; END_VAR
"""
#: instance, its kind, BOOL inputs, the other input, outputs by type
BLOCKS = {
    "T1": (["IN"], "PT", ["Q"], "ET"),
    "T2": (["IN"], "PT", ["Q"], "ET"),
    "F1": (["IN"], "PT", ["Q"], "ET"),
    "P1": (["IN"], "PT", ["Q"], "ET"),
    "C1": (["CU", "R"], "PV", ["Q"], "CV"),
    "C2": (["CD", "LD"], "PV", ["Q"], "CV"),
    "C3": (["CU", "CD", "R", "LD"], "PV", ["QU", "QD"], "CV"),
    "R1": (["CLK"], "", ["Q"], ""),
    "R2": (["CLK"], "", ["Q"], ""),
    "Mem": (["S1", "R"], "", ["Q1"], ""),
    "M1": (["S", "R1"], "", ["Q1"], ""),
}
_BOOL_MEMBERS = [f"{name}.{out}" for name, (_, _, outs, _) in BLOCKS.items() for out in outs]
_COMPARE = st.sampled_from(["<", ">", "<=", ">=", "=", "<>"])


@cache
def _ints(depth):
    leaf = st.one_of(
        st.sampled_from([*INTS, "Two", "Kept", "C1.CV"]), st.integers(-40, 40).map(str)
    )
    if depth == 0:
        return leaf
    part = _ints(depth - 1)
    return st.one_of(
        leaf,
        st.builds(lambda a, o, b: f"({a}) {o} ({b})", part, st.sampled_from(["+", "-", "*"]), part),
        st.builds(lambda a, o, b: f"({a}) {o} {b}", part, st.sampled_from(["/", "MOD"]), leaf),
        part.map(lambda a: f"-({a})"),
        _reals(depth - 1).map(lambda a: f"REAL_TO_INT({a})"),
    ).filter(lambda told: " / 0" not in told and " MOD 0" not in told)


@cache
def _reals(depth):
    leaf = st.sampled_from(["X", "1.5", "2.5E1", "INT_TO_REAL(N)"])
    if depth == 0:
        return leaf
    part = _reals(depth - 1)
    return st.one_of(
        leaf,
        st.builds(
            lambda a, o, b: f"({a}) {o} ({b})", part, st.sampled_from(["+", "-", "*", "/"]), part
        ),
    )


@cache
def _times():
    leaf = st.sampled_from(["D", "T#20ms", "T#1s500ms", "T#0.05s", "T1.ET", "T#0s"])
    return st.one_of(
        leaf, st.builds(lambda a, o, b: f"{a} {o} {b}", leaf, st.sampled_from(["+", "-"]), leaf)
    )


@cache
def bools(depth, *, plain=False):
    """Return any BOOL expression; a plain one has a contact form."""
    names = st.sampled_from([*BOOLS, *_BOOL_MEMBERS])
    leaf = st.one_of(names, names.map(lambda a: f"NOT {a}"))
    compare = st.builds(
        lambda a, o, b: f"{a} {o} {b}",
        st.sampled_from([*INTS, "C1.CV"]),
        _COMPARE,
        st.integers(-40, 40).map(str),
    )
    if depth == 0:
        return st.one_of(leaf, compare)
    part = bools(depth - 1, plain=plain)
    many = st.builds(
        lambda parts, o: f" {o} ".join(f"({one})" for one in parts),
        st.lists(part, min_size=2, max_size=3),
        st.sampled_from(["AND", "OR", "&"]),
    )
    if plain:
        return st.one_of(leaf, compare, many)
    return st.one_of(
        leaf,
        many,
        st.builds(lambda a, b: f"({a}) XOR ({b})", part, part),
        st.builds(lambda a, o, b: f"({a}) {o} ({b})", _ints(1), _COMPARE, _ints(1)),
        st.builds(lambda a, o, b: f"({a}) {o} ({b})", _times(), _COMPARE, _times()),
        part.map(lambda a: f"NOT ({a})"),
    )


@cache
def _coil(*, plain=False):
    target = st.sampled_from(["Q1", "Q2", "Run", "Flt", "%MX0.3"])
    return st.builds(lambda t, e: f"{t} := {e};", target, bools(2, plain=plain))


@cache
def _call(name, plain):
    powers, other, _, _ = BLOCKS[name]
    first = bools(1, plain=plain)
    rest = st.sampled_from([*BOOLS, "TRUE"]) if plain else bools(1)
    value = (
        st.sampled_from(["T#20ms", "T#35ms", "D", "T#0s"])
        if other == "PT"
        else st.integers(-2, 4).map(str)
    )

    def told(one, others, last, is_whole):
        given = [f"{powers[0]} := {one}"]
        given += [
            f"{pin} := {text}" for pin, text in zip(powers[1:], others, strict=True) if is_whole
        ]
        if other:
            given.append(f"{other} := {last}")
        # written in any order, worked in the block's own
        return f"{name}({', '.join(reversed(given))});"

    return st.builds(told, first, st.tuples(*[rest for _ in powers[1:]]), value, st.booleans())


@cache
def _other():
    return st.one_of(
        st.builds(lambda e: f"N := {e};", _ints(2)),
        st.builds(lambda e: f"Kept := {e};", _ints(1)),
        st.builds(lambda e: f"X := {e};", _reals(2)),
        st.builds(lambda e: f"D := {e};", _times()),
        st.builds(
            lambda a, b, c: f"IF {a} THEN {b} ELSIF {c} THEN ; ELSE M := M + 1; END_IF;",
            bools(1),
            _coil(),
            bools(0),
        ),
        st.builds(
            lambda a, b: f"CASE {a} OF -5..-1, 1: {b} Two: M := 0; ELSE M := -1; END_CASE;",
            _ints(1),
            _coil(),
        ),
    )


@st.composite
def programs(draw, *, plain=False):
    """Return the text of any program; of a plain one every network is a rung."""
    names = draw(st.permutations(list(BLOCKS)))[: draw(st.integers(0, 6))]
    parts = [draw(_call(name, plain)) for name in names]
    parts += [draw(_coil(plain=plain)) for _ in range(draw(st.integers(1, 6)))]
    for _ in range(draw(st.integers(0, 2))):
        condition = draw(bools(1, plain=plain))
        value = draw(st.sampled_from(["TRUE", "FALSE"]))
        parts.append(f"IF {condition} THEN Flt := {value}; END_IF;")
    if not plain:
        parts += [draw(_other()) for _ in range(draw(st.integers(0, 4)))]
    return HEAD + "\n".join(draw(st.permutations(parts))) + "\n"


class StopError(Exception):
    """A fault of the naive interpreter."""


DEFAULTS = {"BOOL": False, "INT": 0, "REAL": 0.0, "TIME": 0}


class Naive:
    """Walks the program, every operand every time."""

    def __init__(self, checked):
        self.checked = checked
        self.values, self.blocks = {}, {}
        for block in checked.program.blocks:
            for one in block.declared:
                if one.name in BLOCKS:
                    self.blocks[one.name] = {"kind": one.type}
                else:
                    self.values[one.name] = (
                        DEFAULTS[one.type] if one.initial is None else one.initial.value
                    )

    def read(self, name):
        """Return a variable; a point or a flag that was never written is off."""
        kind = self.checked.symbol(name).type
        return self.values.get(name, DEFAULTS[kind])

    def scan(self, now):
        """Work once; a fault undoes everything."""
        before = (dict(self.values), {name: dict(one) for name, one in self.blocks.items()})
        try:
            self.body(self.checked.program.statements, now)
        except StopError as stopped:
            self.values, self.blocks = before
            return str(stopped)
        return None

    def body(self, statements, now):
        """Work statements in their order."""
        for one in statements:
            if isinstance(one, Assign):
                value = self.worth(one.value)
                if self.checked.symbol(one.target).type == "REAL":
                    value = float(value)
                self.values[one.target] = value
            elif isinstance(one, Call):
                given = {part.name: self.worth(part.value) for part in one.inputs}
                self.blocks[one.block].update(given)
                work(self.blocks[one.block], now)
            elif isinstance(one, If):
                for condition, body in one.branches:
                    if self.worth(condition):
                        self.body(body, now)
                        break
                else:
                    self.body(one.otherwise, now)
            else:
                value = self.worth(one.value)
                for choice in one.choices:
                    if any(self.meets(label, value) for label in choice.labels):
                        self.body(choice.body, now)
                        break
                else:
                    self.body(one.otherwise, now)

    def meets(self, label, value):
        """Tell whether a label is for a value."""
        if isinstance(label.low, str):
            return value == self.read(label.low)
        return label.low <= value <= (label.low if label.high is None else label.high)

    def kind(self, one):
        """Return the type of an expression."""
        return _KINDS.get(type(one), lambda _self, _one: "BOOL")(self, one)

    def worth(self, one):
        """Return what an expression is worth."""
        return _WORTHS[type(one)](self, one)


def _kind_of_two(self, one):
    if one.operator not in {"+", "-", "*", "/", "MOD"}:
        return "BOOL"
    kinds = {self.kind(one.left), self.kind(one.right)}
    return "REAL" if "REAL" in kinds else kinds.pop()


_NUMBER_MEMBERS = {"ET": "TIME", "PT": "TIME", "CV": "INT", "PV": "INT"}
_KINDS = {
    Literal: lambda _self, one: one.type,
    Variable: lambda self, one: self.checked.symbol(one.name).type,
    Member: lambda _self, one: _NUMBER_MEMBERS.get(one.name, "BOOL"),
    Minus: lambda self, one: self.kind(one.operand),
    Convert: lambda _self, one: "INT" if one.function == "REAL_TO_INT" else "REAL",
    Binary: _kind_of_two,
}


def _worth_of_many(self, one):
    told = [self.worth(part) for part in one.operands]
    return all(told) if one.operator == "AND" else any(told)


def _converted(self, one):
    value = self.worth(one.operand)
    return float(value) if one.function == "INT_TO_REAL" else rounded(value)


def _worth_of_two(self, one):
    left, right = self.worth(one.left), self.worth(one.right)
    if one.operator == "XOR":
        return left is not right
    order = (left > right) - (left < right)
    compared = {
        "<": order < 0,
        ">": order > 0,
        "<=": order <= 0,
        ">=": order >= 0,
        "=": order == 0,
        "<>": order != 0,
    }
    if one.operator in compared:
        return compared[one.operator]
    return limited(arithmetic(one.operator, left, right, self.kind(one)), self.kind(one))


_WORTHS = {
    Literal: lambda _self, one: one.value,
    Variable: lambda self, one: self.read(one.name),
    Member: lambda self, one: self.blocks[one.block].get(
        one.name, 0 if one.name in _NUMBER_MEMBERS else False
    ),
    Not: lambda self, one: not self.worth(one.operand),
    Minus: lambda self, one: limited(-self.worth(one.operand), self.kind(one)),
    Many: _worth_of_many,
    Convert: _converted,
    Binary: _worth_of_two,
}


def rounded(value):
    """Round to the nearest INT, halves to even."""
    whole = int(value // 1)
    part = value - whole
    if part > 0.5 or (part == 0.5 and whole % 2):
        whole += 1
    return limited(whole, "INT") if -32768 <= whole <= 32767 else stop("REAL_TO_INT out of range")


def stop(why):
    """Stop a scan."""
    raise StopError(why)


def arithmetic(operator, left, right, kind):
    """Work one operation."""
    if operator in {"/", "MOD"} and right == 0:
        stop("division by zero")
    if operator == "+":
        return left + right
    if operator == "-":
        return left - right
    if operator == "*":
        return left * right
    if kind == "REAL":
        return left / right
    quotient = int(left / right)
    return quotient if operator == "/" else left - quotient * right


def limited(value, kind):
    """Return a value, or stop if its type cannot hold it."""
    if kind == "INT" and not -32768 <= value <= 32767:
        stop("INT overflow")
    if kind == "TIME" and not -(2**31) <= value < 2**31:
        stop("TIME overflow")
    if kind == "REAL" and not isfinite(value):
        stop("REAL not finite")
    return value


def work(block, now):
    """Work a block once, by the words of the table."""
    kind = block["kind"]

    def given(name, default=None):
        return block.get(name, False if default is None else default)

    if kind in {"TON", "TOF", "TP"}:
        timer(kind, block, given("IN"), given("PT", 0), now)
    elif kind in {"R_TRIG", "F_TRIG"}:
        clock = given("CLK") if kind == "R_TRIG" else not given("CLK")
        block["Q"] = clock and not block.get("was", False)
        block["was"] = clock
    elif kind == "SR":
        block["Q1"] = given("S1") or (given("Q1") and not given("R"))
    elif kind == "RS":
        block["Q1"] = not given("R1") and (given("S") or given("Q1"))
    else:
        counter(kind, block, given, now)


def counter(kind, block, given, now):
    """Count."""
    del now
    up = given("CU") and not block.get("was up", False)
    down = given("CD") and not block.get("was down", False)
    value = block.get("CV", 0)
    if given("R"):
        value = 0
    elif given("LD"):
        value = given("PV", 0)
    elif up and down:
        pass
    elif up:
        value = min(value + 1, 32767)
    elif down:
        value = max(value - 1, -32768)
    block["CV"] = value
    block["was up"], block["was down"] = given("CU"), given("CD")
    if kind == "CTUD":
        block["QU"], block["QD"] = value >= given("PV", 0), value <= 0
    else:
        block["Q"] = value >= given("PV", 0) if kind == "CTU" else value <= 0


def timer(kind, block, power, preset, now):
    """Time, with the instants of the last rise and fall written down."""
    was = block.get("was", False)
    block["was"] = power
    {"TON": on_delay, "TOF": off_delay, "TP": pulse}[kind](block, power, was, preset, now)


def on_delay(block, power, was, preset, now):
    """Count from the rise."""
    if not power:
        block.update(Q=False, ET=0, done=False)
        return
    if not was:
        block.update(since=now, done=False)
    past = now - block["since"]
    block["done"] = block["done"] or past >= preset
    block.update(Q=block["done"], ET=max(min(past, preset), 0))


def off_delay(block, power, was, preset, now):
    """Count from the fall."""
    if power:
        block.update(Q=True, ET=0, timing=True)
        return
    if was:
        block["since"] = now
    if preset <= 0:
        block.update(Q=False, timing=False)
    elif block.get("timing"):
        past = now - block["since"]
        block.update(Q=past < preset, ET=min(past, preset), timing=past < preset)


def pulse(block, power, was, preset, now):
    """Count from a rise that comes while nothing runs."""
    if block.get("since") is not None:
        past = now - block["since"]
        is_over = past >= preset
        block.update(Q=not is_over, ET=past)
        if is_over:
            block.update(ET=max(preset, 0) if power else 0, since=None)
        return
    if power and not was and preset > 0:
        block.update(Q=True, ET=0, since=now)
        return
    block["Q"] = False
    if not power:
        block["ET"] = 0
