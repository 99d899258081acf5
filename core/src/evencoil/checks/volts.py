"""Checks of one watched start: volts of coils and lamps, and what opened on the way.

Source: IEC 60947-4-1 (85 to 110 % at a coil). Units: volts [V], in percent of rated.
"""

from __future__ import annotations

from collections.abc import Iterator

from evencoil.checks.model import Level, Problem, problem
from evencoil.checks.ratings import rating_problems
from evencoil.checks.reach import Graph
from evencoil.checks.transformer import misfed_by_transformer
from evencoil.checks.watch import Watched
from evencoil.circuit import Edit

__all__ = ["opening_problems", "volts_problems"]

_LEAST, _MOST = 85, 110
_USUAL_V = (24, 48, 110, 120, 208, 240, 277, 480)


def volts_problems(graph: Graph, one: Watched) -> Iterator[Problem]:
    """Go through H19, H44 and H48: coils and lamps with other volts than theirs.

    What a transformer's own connection explains is told there, once.

    Parameters
    ----------
    graph : Graph
        The circuit.
    one : Watched
        A start, played to its end.
    """
    circuit = graph.circuit
    misfed = misfed_by_transformer(graph)
    for name, percent in one.buzzed.items():
        if name not in misfed:
            yield problem(circuit, "H19", "error", "buzz", name, percent=f"{percent:.0f}")
    for name, (least, most) in one.coils.items():
        if (most > _MOST or least < _LEAST) and name not in misfed:
            yield _coil_volts(graph, one, name, most if most > _MOST else least)
    for name in sorted(one.chatters):
        yield problem(circuit, "H19", "error", "chatters", name)
    for name, word in one.lamps.items():
        if name not in misfed:
            rule = "H44" if word == "over" else "H48"
            level: Level = "error" if word == "over" else "doubt"
            yield problem(circuit, rule, level, f"lamp_{word}", name)


def _coil_volts(graph: Graph, one: Watched, name: str, percent: float) -> Problem:
    """Blame a coil only where its neighbors are right: one coil alone, all of them, or either."""
    rated = float(graph.kinds[name].parameters.get("coil") or 0)
    volts = rated * percent / 100
    usual = min(_USUAL_V, key=lambda known: abs(known - volts))
    others = [own for other, own in one.coils.items() if other != name]
    lamps_over = {lamp for lamp, word in one.lamps.items() if word == "over"}
    has_right = any(own[0] >= _LEAST and own[1] <= _MOST for own in others)
    is_alone = has_right or bool(one.lit - lamps_over)
    are_all = not is_alone and bool(others or lamps_over)
    given = {"coil": str(usual)}
    fix = Edit(id=f"fix.{name}.coil", kind="set", device=name, parameters=given)
    return problem(
        graph.circuit,
        "H44",
        "error",
        "coil_volts_alone" if is_alone else "coil_volts_all" if are_all else "coil_volts",
        name,
        edits=(fix,) if rated != usual and is_alone else (),
        percent=f"{percent:.0f}",
        volts=f"{volts:.0f}",
        usual=str(usual),
    )


def opening_problems(graph: Graph, one: Watched) -> Iterator[Problem]:
    """Go through H45, H08, E05 and H19: what a start opened, closed together or never settled.

    Parameters
    ----------
    graph : Graph
        The circuit.
    one : Watched
        A start, played to its end.
    """
    circuit = graph.circuit
    for name in one.shorted:
        yield problem(circuit, "H45", "error", "short_run", name)
    for pair in one.met:
        yield problem(circuit, "H08", "error", "met", *sorted(pair))
    told = {device for found in rating_problems(graph) for device in found.devices[:1]}
    for name in one.overran:
        if name not in told and not misfed_by_transformer(graph):
            yield problem(circuit, "E05", "error", "opens_on_load", name)
    if one.never_settles:
        yield problem(circuit, "H19", "error", "never_settles")
