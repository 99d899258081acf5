"""A drill: its facts, its one right answer, and the wrong routes, each with its own answer."""

from __future__ import annotations

import re
from dataclasses import dataclass
from typing import Literal, get_args

from evencoil.base import Step

__all__ = [
    "KINDS",
    "Drill",
    "DrillKind",
    "Fact",
    "Part",
    "Slip",
    "Verdict",
    "judge",
    "judge_parts",
    "names_section",
    "part_answers",
]

DrillKind = Literal[
    "table_current",
    "one_phase",
    "kilowatts",
    "ampacity",
    "low_speed",
    "wire_size",
    "protection",
    "wound_rotor",
    "instantaneous",
    "overload",
    "grounding",
    "disconnect",
    "branch",
    "star_line",
    "autotransformer",
    "leg_wire",
    "leg_overload",
    "part_winding",
    "coil_volts",
    "feeder_wire",
    "feeder_device",
    "joints",
    "mystery",
    "ladder",
    "hazard",
]
KINDS: tuple[DrillKind, ...] = get_args(DrillKind)
_SECTION = re.compile(r"[1-9]\d{2}\.\d+")
_FIGURE_UNIT = re.compile(r"\s*(a|amps?|v|volts?)\s*$", re.IGNORECASE)
_WIRE_UNIT = re.compile(r"\b(awg|kcmil|mcm)\b")
#: how far a typed figure may be from the one it stands for
_NEAR = 0.004


@dataclass(frozen=True, slots=True)
class Fact:
    """A given fact: a label by key, and its value as printed."""

    label: str
    value: str


@dataclass(frozen=True, slots=True)
class Slip:
    """A wrong route: the answer it gives, and what to say of it by key.

    Where several routes give one answer their keys are joined by ``+``.
    """

    id: str
    value: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Part:
    """One of several answers that a question asks for.

    Attributes
    ----------
    kind : str
        What is asked.
    unit : str
        Of the answer; empty for a size.
    right : str
        The answer.
    slips : tuple of Slip
        Wrong routes by their answers.
    """

    kind: DrillKind
    unit: str
    right: str
    slips: tuple[Slip, ...]


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
    parts : tuple of Part
        Where several answers are asked for, in their order; their answers go in one text, apart
        by semicolons.
    steps : tuple of Step
        The steps of the job that lead to the answer, each with its evidence; empty for a choice
        that is played.
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
    parts: tuple[Part, ...] = ()
    steps: tuple[Step, ...] = ()


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
        a, b = (float(_FIGURE_UNIT.sub("", text).replace(",", ".")) for text in (one, other))
    except ValueError:
        return _bare(one) == _bare(other)
    return abs(a - b) <= _NEAR * max(abs(a), abs(b), 1e-9)


def _bare(answer: str) -> str:
    """Return an answer without the unit of a wire: ``6``, ``6 awg`` and ``#6`` are one."""
    return _WIRE_UNIT.sub("", answer.strip().casefold().lstrip("#")).strip()


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
    if drill.parts:
        verdicts = judge_parts(drill, answer)
        slip = next((one.slip for one in verdicts if not one.is_right), "")
        return Verdict(is_right=all(one.is_right for one in verdicts), slip=slip)
    return _judged(answer, drill.right, drill.slips)


def judge_parts(drill: Drill, answer: str) -> tuple[Verdict, ...]:
    """Return the verdict of each part; empty for a question of one answer.

    Parameters
    ----------
    drill : Drill
        The question.
    answer : str
        As given: one answer for each part, apart by semicolons; what is missing is wrong.
    """
    return tuple(
        _judged(one, part.right, part.slips)
        for part, one in zip(drill.parts, part_answers(drill, answer), strict=True)
    )


def part_answers(drill: Drill, answer: str) -> tuple[str, ...]:
    """Return what was given for each part; empty where nothing was.

    Parameters
    ----------
    drill : Drill
        The question.
    answer : str
        As given.
    """
    given = [one.strip() for one in answer.split(";")]
    return tuple([*given, *([""] * len(drill.parts))][: len(drill.parts)])


def _judged(answer: str, right: str, slips: tuple[Slip, ...]) -> Verdict:
    if same(answer, right):
        return Verdict(is_right=True, slip="")
    slip = next((one.id for one in slips if same(answer, one.value)), "")
    return Verdict(is_right=False, slip=slip)
