"""Checks of a control transformer's own connection: which side is fed, how it is linked.

A transformer that is connected backwards, or linked for other volts than its primary gets,
gives every coil behind it wrong volts. The transformer is the cause then, not the coils.

Units: volts [V]. Source: NEMA ST 1 (H1 to H4, X1 and X2; two equal primary windings in series
for twice the volts of one, in parallel for the volts of one).
"""

from __future__ import annotations

from collections.abc import Iterator

from evencoil.checks.load import on_transformer
from evencoil.checks.model import Problem, problem
from evencoil.checks.reach import SWITCHES, Graph, once
from evencoil.circuit import Device, line_phasors, primary_taps

__all__ = ["misfed_by_transformer", "primary_volts", "transformer_problems"]

#: linked right, a primary gets its volts within this part
_NEAR = 0.12


@once
def _volts_at(graph: Graph) -> dict[int, complex]:
    """Return the volts to ground of every net that a line or ground reaches unswitched [V]."""
    found: dict[int, complex] = {}
    for item in graph.of_type("supply"):
        for end, volts in line_phasors(item).items():
            if end not in item.terminals:
                continue
            for net in graph.spread(
                {graph.net(item.id, end)},
                lambda edge: (
                    edge.link.kind == "fuse"
                    or (edge.link.kind == "pole" and edge.device.type in SWITCHES)
                ),
            ):
                found.setdefault(net, volts)
    return found


def primary_volts(graph: Graph, transformer: str) -> float | None:
    """Return the volts that the supply puts on a primary; None if it does not reach it [V].

    Parameters
    ----------
    graph : Graph
        The circuit.
    transformer : str
        Its id.
    """
    item = graph.kinds[transformer]
    ends = [f"{transformer}.{end}" for end in item.terminals if end.startswith("H")]
    fed = _volts_at(graph)
    known = [fed[graph.nets[end]] for end in ends if graph.nets[end] in fed]
    if len(set(known)) < 2:
        return None
    return max(abs(one - other) for one in known for other in known)


def _linked(graph: Graph, transformer: str) -> str:
    """Return how the primary windings lie: series, parallel, one, or open."""
    h1, h2, h3, h4 = (graph.net(transformer, end) for end in ("H1", "H2", "H3", "H4"))
    fed = _volts_at(graph)
    if h2 == h3 and h1 != h4:
        return "series"
    if h1 == h3 and h2 == h4:
        return "parallel"
    if {h1, h2} <= fed.keys() or {h3, h4} <= fed.keys():
        return "one"
    return "open"


_LINKS = {"series": "H2-H3", "parallel": "H1-H3, H2-H4"}


@once
def transformer_problems(graph: Graph) -> tuple[Problem, ...]:
    """Go through H44 as far as the transformer itself is its cause.

    Parameters
    ----------
    graph : Graph
        The circuit.
    """
    found: list[Problem] = []
    for item in graph.of_type("xfmr"):
        volts = primary_volts(graph, item.id)
        found += _backwards(graph, item) if volts is None else _links(graph, item, volts)
    return tuple(found)


def _backwards(graph: Graph, item: Device) -> Iterator[Problem]:
    """Find the line on the secondary of a transformer whose primary has none."""
    fed = _volts_at(graph)
    behind = {graph.net(item.id, end) for end in ("X1", "X2")}
    at = [fed[net] for net in behind if net in fed]
    volts = max((abs(one - other) for one in at for other in at), default=0.0)
    if volts > 1.0:
        yield problem(
            graph.circuit,
            "H44",
            "error",
            "transformer_backwards",
            item.id,
            volts=f"{volts:.0f}",
            rated=item.parameters.get("sec") or "120",
        )


def _taps(graph: Graph, item: Device, volts: float) -> Iterator[Problem]:
    """Compare the volts of a tapped primary with those between the taps that the lines are on."""
    taps = {"H1": 0.0, **primary_taps(item.parameters)}
    secondary = float(item.parameters.get("sec") or 120)
    fed = _volts_at(graph)
    known = {end: fed[graph.net(item.id, end)] for end in taps if graph.net(item.id, end) in fed}
    spans = [
        abs(taps[one] - taps[other])
        for one in known
        for other in known
        if known[one] != known[other]
    ]
    # taps bridged by the lines themselves are a short of that section, told by playing
    rated = max(spans, default=0.0)
    if rated and abs(volts / rated - 1) <= _NEAR:
        return
    right = [name for name, own in taps.items() if own and abs(volts / own - 1) <= _NEAR]
    right.sort(key=lambda name: abs(volts / taps[name] - 1))
    yield problem(
        graph.circuit,
        "H44",
        "error",
        "transformer_tap" if right else "transformer_no_tap",
        item.id,
        volts=f"{volts:.0f}",
        rated=f"{rated:g}",
        gives=f"{secondary * volts / rated:.0f}" if rated else "0",
        secondary=f"{secondary:g}",
        tap=right[0] if right else "",
        taps=", ".join(f"{end} {own:g} V" for end, own in taps.items() if own),
    )


def _links(graph: Graph, item: Device, volts: float) -> Iterator[Problem]:
    """Compare the volts of a primary with those that its links make it take."""
    if primary_taps(item.parameters):
        yield from _taps(graph, item, volts)
        return
    half = float(item.parameters.get("prim") or 240)
    secondary = float(item.parameters.get("sec") or 120)
    linked = _linked(graph, item.id)
    if linked == "open":
        yield problem(graph.circuit, "H44", "error", "transformer_unlinked", item.id)
        return
    takes = {"series": 2 * half, "parallel": half}
    rated = takes.get(linked, half)
    if abs(volts / rated - 1) <= _NEAR:
        return
    right = [name for name, own in takes.items() if abs(volts / own - 1) <= _NEAR]
    yield problem(
        graph.circuit,
        "H44",
        "error",
        "transformer_links" if right else "transformer_primary",
        item.id,
        volts=f"{volts:.0f}",
        rated=f"{rated:g}",
        gives=f"{secondary * volts / rated:.0f}",
        secondary=f"{secondary:g}",
        links=_LINKS[right[0]] if right else "",
    )


@once
def misfed_by_transformer(graph: Graph) -> frozenset[str]:
    """Return the coils and lamps whose wrong volts a transformer's connection explains.

    Parameters
    ----------
    graph : Graph
        The circuit.
    """
    sides = {"transformer_backwards": "H1"}
    return frozenset(
        load.id
        for one in transformer_problems(graph)
        for load in on_transformer(
            graph, one.devices[0], sides.get(one.message.id.removeprefix("check."), "X1")
        )
    )
