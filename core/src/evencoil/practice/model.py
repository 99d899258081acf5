"""A drill: its facts, its one right answer, and the wrong routes, each with its own answer."""

from __future__ import annotations

import re
from dataclasses import dataclass
from typing import Literal, get_args

__all__ = ["KINDS", "Drill", "DrillKind", "Fact", "Slip", "Verdict", "judge", "names_section"]

DrillKind = Literal[
    "table_current",
    "ampacity",
    "protection",
    "overload",
    "disconnect",
    "star_line",
    "joints",
    "ladder",
    "hazard",
]
KINDS: tuple[DrillKind, ...] = get_args(DrillKind)
_SECTION = re.compile(r"[1-9]\d{2}\.\d+")
#: how far a typed figure may be from the one it stands for
_NEAR = 0.004


@dataclass(frozen=True, slots=True)
class Fact:
    """A given fact: a label by key, and its value as printed."""

    label: str
    value: str


@dataclass(frozen=True, slots=True)
class Slip:
    """A wrong route: the answer it gives, and what to say of it by key."""

    id: str
    value: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Drill:
    """One question, made from live rules.

    Attributes
    ----------
    kind : str
        What is asked.
    seed : int
        The same seed makes the same question under the same rules.
    setting : str
        ``exam`` where the main rule stands as written, ``field`` where the next size up may be
        taken.
    facts : tuple of Fact
        In their order, those that are not needed among them.
    right : str
        The answer.
    path : tuple of str
        Table, row, column or section that leads to it.
    working : tuple of str
        Each step in words.
    slips : tuple of Slip
        Wrong routes that people take, no two with one answer.
    unit : str
        Of the answer; empty for a choice.
    choices : tuple of str
        What can be chosen; empty where a figure is typed.
    surplus : frozenset of str
        Labels of the facts that are not needed.
    """

    kind: DrillKind
    seed: int
    setting: str
    facts: tuple[Fact, ...]
    right: str
    path: tuple[str, ...]
    working: tuple[str, ...]
    slips: tuple[Slip, ...]
    unit: str = ""
    choices: tuple[str, ...] = ()
    surplus: frozenset[str] = frozenset()


@dataclass(frozen=True, slots=True)
class Verdict:
    """Whether an answer is right; which wrong route gives it, where one is known."""

    is_right: bool
    slip: str


def same(one: str, other: str) -> bool:
    """Tell whether two answers are one: alike as figures, or the same words.

    Parameters
    ----------
    one, other : str
        Typed, or calculated.
    """
    try:
        a, b = float(one.replace(",", ".")), float(other.replace(",", "."))
    except ValueError:
        return one.strip().casefold() == other.strip().casefold()
    return abs(a - b) <= _NEAR * max(abs(a), abs(b), 1e-9)


def names_section(drill: Drill, told: str) -> bool:
    """Tell whether a table or section that is named is one on the way to the answer.

    Parameters
    ----------
    drill : Drill
        The question.
    told : str
        As typed: ``430.250``, ``Table 430.52``, ``430.22``.
    """
    named = [one.rstrip(".") for one in _SECTION.findall(told)]
    known = {one.rstrip(".") for line in drill.path for one in _SECTION.findall(line)}
    return bool(named) and all(one in known for one in named)


def judge(drill: Drill, answer: str) -> Verdict:
    """Return whether an answer is right, and which slip gives it.

    Parameters
    ----------
    drill : Drill
        The question.
    answer : str
        As given.
    """
    if same(answer, drill.right):
        return Verdict(is_right=True, slip="")
    slip = next((one.id for one in drill.slips if same(answer, one.value)), "")
    return Verdict(is_right=False, slip=slip)
