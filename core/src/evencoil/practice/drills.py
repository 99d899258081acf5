"""A drill by its kind and seed, and its words."""

from __future__ import annotations

import random
from collections.abc import Callable, Mapping
from functools import partial

from evencoil.base import Message, OutOfRangeError, say
from evencoil.practice.branch import branch
from evencoil.practice.choices import hazard_drill, joints_drill
from evencoil.practice.feeders import FEEDERS
from evencoil.practice.figures import FIGURES, figure
from evencoil.practice.ladder import ladder_drill
from evencoil.practice.lots import Case, until_apart
from evencoil.practice.model import KINDS, Drill, DrillKind, Fact
from evencoil.practice.mystery import mystery_drill
from evencoil.practice.reduced import REDUCED
from evencoil.practice.wires import WIRES

__all__ = ["drill", "said_asked", "said_fact", "said_part", "said_slip"]

_SETTINGS = ("exam", "field")
#: whose answer the setting decides
_BY_SETTING = {"protection", "wound_rotor", "branch"}
_MOST_SEED = 2**31


def drill(kind: str, seed: int, setting: str = "field") -> Drill:
    """Return a drill.

    Parameters
    ----------
    kind : str
        One of `KINDS`.
    seed : int
        The same seed makes the same question under the same rules.
    setting : str
        ``exam``, where the main rule of 430.52 stands as written, or ``field``.

    Raises
    ------
    OutOfRangeError
        For a kind, a seed or a setting that there is not.
    """
    if kind not in KINDS or setting not in _SETTINGS or not 0 <= seed < _MOST_SEED:
        raise OutOfRangeError(
            Message("practice.no_drill", {"kind": kind[:30]}),
            field="kind",
            hint=Message("practice.no_drill.hint", {"kinds": ", ".join(KINDS)}),
        )
    own: DrillKind = next(one for one in KINDS if one == kind)
    made = _CHOICES.get(own)
    if made is not None:
        return made(seed, setting)
    return until_apart(own, seed, setting, _DRAWN[own])


_CHOICES: Mapping[str, Callable[[int, str], Drill]] = {
    "joints": joints_drill,
    "mystery": mystery_drill,
    "ladder": ladder_drill,
    "hazard": hazard_drill,
}
_DRAWN: Mapping[str, Callable[[random.Random, str], Case | None]] = {
    **{kind: partial(figure, kind) for kind in FIGURES},
    **WIRES,
    **REDUCED,
    **FEEDERS,
    "branch": branch,
}


def said_asked(one: Drill) -> str:
    """Return the question in words, with the setting where it decides.

    Parameters
    ----------
    one : Drill
        The question.
    """
    key = f"{one.kind}.{one.setting}" if one.kind in _BY_SETTING else one.kind
    return say(Message(f"practice.asked.{key}"))


def said_fact(one: Fact) -> tuple[str, str]:
    """Return a fact's label and value in words.

    Parameters
    ----------
    one : Fact
        Of a drill.
    """
    said = {"device": "kind", "done": "practice.done"}.get(one.label)
    value = say(Message(f"{said}.{one.value}")) if said else one.value
    return say(Message(f"practice.fact.{one.label}")), value


def said_slip(slip: str) -> str:
    """Return what is said of a wrong route; without one, what to do.

    Parameters
    ----------
    slip : str
        Its id, or several joined by ``+`` that give one answer; empty for none that is known.
    """
    said = [say(Message(f"practice.slip.{one or 'none'}")) for one in slip.split("+")]
    return f" {say(Message('practice.or'))} ".join(said)


def said_part(kind: str) -> str:
    """Return what one of several answers is, in words.

    Parameters
    ----------
    kind : str
        Of a part.
    """
    return say(Message(f"practice.part.{kind}"))
