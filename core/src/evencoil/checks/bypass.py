"""Protection and contacts that wires lead past: opening them opens nothing.

A fuse, a pole, a heater or a contact is bypassed if its two ends are joined by wires alone,
or by wires and fuses, switches and normally closed contacts of hand and guard. Wire numbers
play no part, so a panel that was traced without any is judged as well.

Source: nets as connected components (textbook topic); NEC 240.4, 430.37, 430.74 and NFPA 79
in their subject (each needs its device in series to do anything).
"""

from __future__ import annotations

from collections.abc import Iterator

from evencoil.checks.model import Problem, problem
from evencoil.checks.reach import COILED, SWITCHES, Edge, Graph
from evencoil.circuit import CONTACTS, TURNED, Edit, Wire

__all__ = ["bypass_problems"]

_POWER = {"pole", "heat", "fuse"}
_AT_REST = {"nc", "nc_late"}
#: link kind to what is lost with it
_LOST = {
    "fuse": "fuse",
    "heat": "heat",
    "pole": "pole",
    **dict.fromkeys(CONTACTS, "contact"),
}


def bypass_problems(graph: Graph) -> Iterator[Problem]:
    """Go through E04: each wired link whose opening opens nothing.

    Parameters
    ----------
    graph : Graph
        The circuit.
    """
    for edge in graph.edges:
        ends = [f"{edge.device.id}.{end}" for end in (edge.link.a, edge.link.b)]
        if edge.link.kind not in _LOST or not all(graph.is_wired(end) for end in ends):
            continue
        if not _is_passed(graph, edge):
            continue
        yield problem(
            graph.circuit,
            "E04",
            "error",
            f"bypassed_{_LOST[edge.link.kind]}",
            *ends,
            edits=_without_jumper(graph, *ends),
            tag=graph.circuit.tags.get(edge.device.id, edge.device.id),
            contact=edge.link.name,
        )


def _is_passed(graph: Graph, edge: Edge) -> bool:
    """Tell whether the ends of a link are joined without it."""
    if edge.one == edge.other:
        return True
    if edge.device.type in TURNED:
        return False  # its contacts stand side by side for other positions

    def is_closed(other: Edge) -> bool:
        if other.place == edge.place:
            return False
        kind = other.link.kind
        if edge.link.kind in _POWER and (
            kind in {"heat", "fuse"} or (kind == "pole" and other.device.type in SWITCHES)
        ):
            return True
        if edge.link.kind in {"pole", "heat"}:
            return False
        # beside a coil's contact another contact may stand by purpose: it is logic, no bypass
        is_plain = other.device.type not in {*TURNED, *COILED}
        return kind == "fuse" or (kind in _AT_REST and is_plain)

    return edge.other in graph.spread({edge.one}, is_closed)


def _without_jumper(graph: Graph, one: str, other: str) -> tuple[Edit, ...]:
    """Return the removal of the one wire that joins two terminals; nothing if there is none."""
    found: list[Wire] = [
        wire for wire in graph.circuit.netlist.wires if {wire.start, wire.end} == {one, other}
    ]
    if len(found) != 1:
        return ()
    return (Edit(id=f"fix.{found[0].id}", kind="remove_wire", wire=found[0].id),)
