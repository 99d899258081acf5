"""What hangs on a control transformer, and whether it can carry it.

Units: apparent power [VA]. Source: textbook (held load with a quarter above it; a usual
transformer gives about five times its rating for the moment of an inrush).
"""

from __future__ import annotations

from collections.abc import Iterator
from decimal import Decimal

from evencoil.checks.model import Problem, problem
from evencoil.checks.reach import COILED, Graph
from evencoil.circuit import CONTACTS, Device

__all__ = ["LOADS", "load_problems", "on_transformer"]

LOADS = ("lamp", "solenoid", "horn", "heater")
_INRUSH_TIMES = 5
_MORE = Decimal("1.25")


def on_transformer(graph: Graph, transformer: str, end: str = "X1") -> list[Device]:
    """Return the coils and loads that a transformer's secondary feeds.

    Parameters
    ----------
    graph : Graph
        The circuit.
    transformer : str
        Its id.
    end : str
        The terminal that feeds: H1 where it is connected backwards.
    """
    fed = graph.spread(
        {graph.net(transformer, end)},
        lambda edge: edge.link.kind in {*CONTACTS, "fuse"},
    )
    common = graph.returns()
    found = []
    for item in graph.of_type(*COILED, *LOADS):
        ends = {graph.net(item.id, end) for end in item.terminals}
        if ends & fed and len(ends & (common | fed)) > 1:
            found.append(item)
    return found


def load_problems(graph: Graph) -> Iterator[Problem]:
    """Go through H43: each control transformer whose rating is known, against its load.

    Parameters
    ----------
    graph : Graph
        The circuit.
    """
    for item in graph.of_type("xfmr"):
        rating = Decimal(item.parameters.get("va") or "0")
        if not rating:
            continue
        held, extra = Decimal(0), Decimal(0)
        for load in on_transformer(graph, item.id):
            sealed = Decimal(load.parameters.get("sealed_va") or load.parameters.get("va") or "0")
            held += sealed
            inrush = Decimal(load.parameters.get("inrush_va") or "0")
            extra = max(extra, inrush - sealed)
        if held * _MORE > rating or held + extra > rating * _INRUSH_TIMES:
            yield problem(
                graph.circuit,
                "H43",
                "error",
                "transformer_small",
                item.id,
                held=f"{held:g}",
                pulling=f"{held + extra:g}",
                rating=f"{rating:g}",
            )
