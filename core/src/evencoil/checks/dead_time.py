"""The dead time of a program between two contactors that exclude each other.

From the output that opens to the output that closes a contactor has to drop out, late ones too,
and its arc has to die. A contact in the other coil's circuit guards against the closing, not
against the arc.

Units: time [us] inside, [ms] in what is said. Source: textbook practice of reversing and
change-over; times are those of the constant set, the latest by the band of H25.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import replace
from itertools import permutations
from math import ceil

from evencoil.checks.gaps import LATE
from evencoil.checks.model import Problem, problem
from evencoil.checks.power import exclusive_pairs
from evencoil.checks.reach import Graph, Place
from evencoil.circuit import Device
from evencoil.rehearsal import ScenarioAct, Stage, opening_of
from evencoil.solver import Event, constants

__all__ = ["dead_time_problems"]

_SECOND = 1_000_000
#: what comes later than this is another start
_LONGEST_US = 3 * _SECOND


def dead_time_problems(
    graph: Graph,
    stage: Stage,
    starts: Sequence[Sequence[ScenarioAct]],
    driven: frozenset[str],
    needed: dict[str, frozenset[Place]],
) -> Iterator[Problem]:
    """Go through L16: each change from one contactor of a pair to the other, as it is played.

    Parameters
    ----------
    graph : Graph
        The circuit.
    stage : Stage
        The same, ready to be played.
    starts : sequence of sequence of ScenarioAct
        What gets a motor to run.
    driven : frozenset of str
        Coils that pull in through an output only.
    needed : dict
        For each of them the outputs without which it cannot pull in.
    """
    pairs = [pair for pair in exclusive_pairs(graph) if pair <= driven]
    if not pairs:
        return
    traces = list(_played(stage, starts))
    for one, other in (order for pair in pairs for order in permutations(sorted(pair))):
        opens, closes = needed[one] - needed[other], needed[other] - needed[one]
        found = [
            dead
            for events in traces
            for dead in _dead_times(events, opens, closes)
            if dead < _LONGEST_US
        ]
        wanted = _wanted_us(graph.kinds[one])
        if found and min(found) < wanted:
            relay, point = min(closes)
            yield problem(
                graph.circuit,
                "L16",
                "doubt",
                "dead_time",
                relay,
                one,
                point=point,
                figure=f"{min(found) / 1000:.0f}",
                needed=f"{ceil(wanted / 1000)}",
            )


def _wanted_us(item: Device) -> float:
    """Return how long a contactor takes to let go at the latest, and its arc to die [us]."""
    known = constants()
    usual = float(item.parameters.get("tdo") or 0) * 1e6 or known["contactor_out_us"]
    return usual * LATE + known["arc_us"]


def _played(stage: Stage, starts: Sequence[Sequence[ScenarioAct]]) -> Iterator[Sequence[Event]]:
    """Go through what happens if one start follows another, alone and behind each stop."""
    opening = opening_of(stage.circuit)
    for one in starts:
        # an automatic change-over
        yield stage.play([*opening, *one], until_us=24 * _SECOND).events
    for one, two in permutations(starts, 2):
        later = [replace(act, at_us=act.at_us + 8 * _SECOND) for act in two]
        yield stage.play([*opening, *one, *later], until_us=24 * _SECOND).events
        turned = [act for act in one if act.do == "on"]
        off = [ScenarioAct(at_us=9 * _SECOND, do="off", on=act.on) for act in turned]
        if off:
            yield stage.play([*opening, *one, *off, *later], until_us=24 * _SECOND).events


def _dead_times(
    events: Sequence[Event], opens: frozenset[Place], closes: frozenset[Place]
) -> Iterator[int]:
    """Go through the times from an output that opens to another that closes [us]."""
    last: int | None = None
    for event in events:
        place = (event.device, event.aspect)
        if place in opens:
            last = event.time if event.value == "open" else None
        elif place in closes and event.value == "closed" and last is not None:
            yield event.time - last
