"""Which winding is it: unmarked leads, and the groups of them that conduct to each other.

Source: the coils of `evencoil.winding`; a group is what coils and inner star points join.
"""

from __future__ import annotations

import random
from collections import Counter
from functools import cache

from evencoil.base import Message, say
from evencoil.practice.model import Drill, Fact, Slip
from evencoil.winding import KINDS, WindingKind

__all__ = ["groups_in", "mystery_drill"]

_ASKED: tuple[WindingKind, ...] = (
    "6",
    "9-wye",
    "9-delta",
    "12",
    "part-winding",
    "2-speed-vt",
    "2-speed-2-winding",
)
#: whose groups are of different wire: one winding for each speed
_UNLIKE: tuple[WindingKind, ...] = ("2-speed-2-winding",)
_LETTERS = "ABCDEFGHJKLM"
_CHOICES = 4


@cache
def groups_in(kind: WindingKind) -> tuple[frozenset[str], ...]:
    """Return the leads of a winding by what conducts to each other, with nothing joined outside.

    Parameters
    ----------
    kind : str
        Of `KINDS`.
    """
    winding = KINDS[kind]
    found: list[set[str]] = []
    for coil in winding.coils:
        joined = {coil.start, coil.end}
        apart = []
        for group in found:
            if group & joined:
                joined |= group
            else:
                apart.append(group)
        found = [*apart, joined]
    leads = set(winding.leads)
    return tuple(frozenset(group & leads) for group in found)


def _counted(kind: WindingKind) -> str:
    """Return how many groups of how many leads a winding shows."""
    sizes = Counter(len(group) for group in groups_in(kind))
    return ", ".join(
        say(Message("practice.groups", {"count": str(count), "leads": str(size)}))
        for size, count in sorted(sizes.items())
    )


def mystery_drill(seed: int, setting: str) -> Drill:
    """Return a question of which winding unmarked leads belong to.

    Parameters
    ----------
    seed : int
        The same seed makes the same question.
    setting : str
        Kept with it; it decides nothing here.
    """
    rng = random.Random(f"mystery {seed}")  # noqa: S311 - a drill is no secret
    kind = rng.choice(_ASKED)
    leads = sorted(KINDS[kind].leads)
    letters = list(_LETTERS[: len(leads)])
    rng.shuffle(letters)
    letter_of = dict(zip(leads, letters, strict=True))
    groups = sorted(
        "-".join(sorted(letter_of[lead] for lead in group)) for group in groups_in(kind)
    )
    others = rng.sample([one for one in _ASKED if one != kind], _CHOICES - 1)
    choices = [kind, *others]
    rng.shuffle(choices)
    ohms = "unlike" if kind in _UNLIKE else "alike"
    return Drill(
        kind="mystery",
        seed=seed,
        setting=setting,
        facts=(
            Fact("leads", str(len(leads))),
            Fact("groups", "   ".join(groups)),
            Fact("ohms", say(Message(f"practice.ohms.{ohms}"))),
            Fact("supply", rng.choice(("240 V", "480Y/277 V"))),
        ),
        right=_said(kind),
        path=(say(Message("practice.mystery.path")),),
        working=(f"{_said(kind)}: {_counted(kind)}",),
        slips=tuple(Slip(f"mystery_{one}", _said(one)) for one in others),
        choices=tuple(_said(one) for one in choices),
        surplus=frozenset({"supply"}),
    )


def _said(kind: WindingKind) -> str:
    return say(Message(f"practice.winding.{kind}"))
