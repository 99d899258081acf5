"""One whole branch circuit as a question: every size of it, each judged by itself.

Source: NEC 430 through `evencoil.job`; the wrong routes are those of the single questions.
"""

from __future__ import annotations

import random
from collections.abc import Iterable

from evencoil.base import CoreError, plain, say
from evencoil.practice.figures import FIGURES
from evencoil.practice.lots import apart, path_of
from evencoil.practice.model import Drill, DrillKind, Part
from evencoil.practice.wires import grounding_routes, wire_lot, wire_routes

__all__ = ["branch_drill"]

_MOST_TRIES = 60
#: what is asked, by the step that answers it
_FIGURES = {
    "table_current": "table_flc_a",
    "ampacity": "required_ampacity_a",
    "protection": "protection_device_a",
    "overload": "overload_setting_a",
    "disconnect": "disconnect_least_a",
}
_SIZES = {"wire_size": "conductor_size", "grounding": "grounding_conductor_size"}
_ORDER: tuple[DrillKind, ...] = (
    "table_current",
    "ampacity",
    "wire_size",
    "protection",
    "overload",
    "grounding",
    "disconnect",
)


def branch_drill(seed: int, setting: str) -> Drill:
    """Return a motor whose whole branch circuit is to be sized.

    Parameters
    ----------
    seed : int
        The same seed makes the same question.
    setting : str
        ``exam`` or ``field``.

    Raises
    ------
    RuntimeError
        If no motor could be drawn whose every size is known: a bug of the tables.
    """
    rng = random.Random(f"branch {seed} {setting}")  # noqa: S311 - a drill is no secret
    for _ in range(_MOST_TRIES):
        try:
            lot, told = wire_lot(rng, setting)
            steps = {kind: lot.step(name) for kind, name in {**_FIGURES, **_SIZES}.items()}
        except (CoreError, KeyError):
            continue
        figures: dict[str, Iterable[tuple[str, str | None]]] = {
            kind: [
                (name, None if value is None else plain(value))
                for name, value in FIGURES[kind].routes(lot)
            ]
            for kind in _FIGURES
        }
        figures["wire_size"] = list(wire_routes(lot))
        figures["grounding"] = list(grounding_routes(lot))
        parts = []
        for kind in _ORDER:
            step = steps[kind]
            right = str(step.value) if kind in _SIZES else plain(lot.value(_FIGURES[kind]))
            parts.append(
                Part(
                    kind=kind,
                    unit="" if kind in _SIZES else "A",
                    right=right,
                    slips=apart(right, figures[kind]),
                )
            )
        path = [path_of(one) for one in steps.values() if one.rule is not None]
        return Drill(
            kind="branch",
            seed=seed,
            setting=setting,
            facts=tuple(told.values()),
            right="; ".join(one.right for one in parts),
            path=tuple(dict.fromkeys(path)),
            working=tuple(say(steps[kind].working) for kind in _ORDER),
            slips=(),
            parts=tuple(parts),
            steps=tuple(steps[kind] for kind in _ORDER),
        )
    raise RuntimeError(f"no branch circuit of seed {seed} has every size")
