"""One whole branch circuit as a question: every size of it, each judged by itself.

Source: NEC 430 through `evencoil.job`; the wrong routes are those of the single questions.
"""

from __future__ import annotations

import random
from collections.abc import Iterable

from evencoil.base import plain, say
from evencoil.practice.figures import FIGURES
from evencoil.practice.lots import Case, MotorLot, apart, path_of
from evencoil.practice.model import DrillKind, Part
from evencoil.practice.wires import grounding_routes, wire_lot, wire_routes

__all__ = ["branch"]

#: what is asked, in its order, by the step that answers it
_STEPS: dict[DrillKind, str] = {
    "table_current": "table_flc_a",
    "ampacity": "required_ampacity_a",
    "wire_size": "conductor_size",
    "protection": "protection_device_a",
    "overload": "overload_setting_a",
    "grounding": "grounding_conductor_size",
    "disconnect": "disconnect_least_a",
}
_SIZES = {"wire_size": wire_routes, "grounding": grounding_routes}


def _part(kind: DrillKind, lot: MotorLot) -> Part:
    sized = _SIZES.get(kind)
    routes: Iterable[tuple[str, str | None]]
    if sized is not None:
        right, routes = str(lot.step(_STEPS[kind]).value), sized(lot)
    else:
        right = plain(lot.value(_STEPS[kind]))
        routes = (
            (name, None if value is None else plain(value))
            for name, value in FIGURES[kind].routes(lot)
        )
    unit = "A" if sized is None else ""
    return Part(kind=kind, unit=unit, right=right, slips=apart(right, routes))


def branch(rng: random.Random, setting: str) -> Case:
    """Draw a motor whose whole branch circuit is to be sized.

    Parameters
    ----------
    rng : random.Random
        What is drawn from.
    setting : str
        ``exam`` or ``field``.
    """
    lot, told = wire_lot(rng, setting)
    steps = [lot.step(name) for name in _STEPS.values()]
    parts = tuple(_part(kind, lot) for kind in _STEPS)
    return Case(
        facts=tuple(told.values()),
        right="; ".join(one.right for one in parts),
        path=tuple(dict.fromkeys(path_of(one) for one in steps if one.rule is not None)),
        working=tuple(say(one.working) for one in steps),
        slips=(),
        parts=parts,
        steps=tuple(steps),
    )
