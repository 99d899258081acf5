"""Checks of any netlist, drawn or as found, by graph and by playing it.

Each rule has its number; a finding names its cause and place, proposes the change, and
carries it as edits where there is just one. Families of longer scenarios are in
`evencoil.probes`, proofs over every settled state in `evencoil.proofs`.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

from evencoil.checks.bypass import bypass_problems
from evencoil.checks.control import control_problems
from evencoil.checks.drives import drive_problems
from evencoil.checks.expected import expecting
from evencoil.checks.intent import intent_problems
from evencoil.checks.isolators import Isolation, isolations
from evencoil.checks.load import load_problems
from evencoil.checks.model import Level, Problem
from evencoil.checks.power import power_problems
from evencoil.checks.programs import played_program_problems, program_problems
from evencoil.checks.ratings import rating_problems
from evencoil.checks.reach import Graph
from evencoil.checks.states import state_problems
from evencoil.checks.transformer import transformer_problems
from evencoil.checks.wiring import wiring_problems
from evencoil.circuit import Circuit
from evencoil.rehearsal import Stage, opening_of, starts_of

__all__ = [
    "Isolation",
    "Level",
    "Problem",
    "check_circuit",
    "isolations_of",
]

_RANK = {"error": 0, "doubt": 1, "note": 2}


def check_circuit(
    circuit: Circuit,
    *,
    is_played: bool = True,
    is_stated: Callable[[str, str], bool] | None = None,
) -> tuple[Problem, ...]:
    """Return what is wrong with a circuit, worst first.

    Parameters
    ----------
    circuit : Circuit
        As drawn or as found.
    is_played : bool
        False for the graph alone, which takes a few milliseconds.
    is_stated : callable, optional
        From device and parameter: whether a sizing step or a person stands behind a rating.
        Without it every rating counts that is not the library's default.
    """
    graph = expecting(Graph(circuit, is_stated))
    circuit = graph.circuit
    found = [
        *wiring_problems(graph),
        *bypass_problems(graph),
        *control_problems(graph),
        *intent_problems(graph),
        *load_problems(graph),
        *transformer_problems(graph),
        *rating_problems(graph),
        *power_problems(graph),
        *program_problems(graph),
        *drive_problems(graph),
    ]
    if is_played and circuit.netlist.devices:
        stage = Stage(circuit)
        starts = starts_of(stage)
        played = state_problems(graph, stage, starts, opening_of(circuit))
        by_program = played_program_problems(graph, stage, starts)
        found += [replace(one, is_played=True) for one in (*played, *by_program)]
    unique: dict[tuple[object, ...], Problem] = {}
    for one in found:  # what the drawing tells is not told again by playing it
        unique.setdefault((one.rule, one.message.id, one.devices, one.terminals), one)
    return tuple(sorted(unique.values(), key=lambda one: (_RANK[one.level], one.rule)))


def isolations_of(circuit: Circuit) -> tuple[Isolation, ...]:
    """Return what each isolator leaves live, and what can still pull in behind it.

    Parameters
    ----------
    circuit : Circuit
        As drawn or as found.
    """
    return isolations(Graph(circuit))
