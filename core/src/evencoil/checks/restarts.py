"""Which starts a circuit makes by itself: when power comes back, after a reset, after an E-stop.

A coil that can pull in with no button held, in some position of the selectors, follows a
maintained contact: it comes back with the power. What drops while an overload contact or an
emergency stop is open, and pulls in when it closes again, starts by the reset.

Source: NEC 430.43 and 430.8x in their subject, NFPA 79 and IEC 60204-1 (start only by
intent, reset of an emergency stop never starts).
"""

from __future__ import annotations

from typing import Literal

from evencoil.checks.power import moving_of
from evencoil.checks.reach import Graph, Place, positions_of
from evencoil.circuit import Circuit, links_of

__all__ = ["Restart", "restarts_of"]

Restart = Literal["power_back", "overload_reset", "estop_release"]
_BY_RESET: dict[str, Restart] = {"olr": "overload_reset", "estop": "estop_release"}


def restarts_of(circuit: Circuit) -> tuple[Restart, ...]:
    """Return the ways in which a motor starts that no one asked for.

    Parameters
    ----------
    circuit : Circuit
        As drawn or as found.
    """
    graph = Graph(circuit)
    moving = moving_of(graph)
    held: set[Place] = {
        (item.id, link.name)
        for item in graph.of_type("pb")
        for link in links_of(item)
        if link.kind.startswith("no")
    }
    by_hand = [item.id for item in graph.of_type("mms", "manual", "drum") if _feeds(graph, item.id)]
    found: list[Restart] = []
    for turned in positions_of(circuit):
        if graph.reached(held, turned).coils & moving:
            found.append("power_back")
        runs = graph.reached(held, turned, holds=True).coils
        for kind, name in _BY_RESET.items():
            for item in graph.of_type(kind):
                opened = {
                    (item.id, link.name) for link in links_of(item) if link.kind.startswith("nc")
                }
                # what drops while it is open, and pulls in again when it closes
                left = graph.reached({*held, *opened}, turned, holds=True, inside=runs).coils
                back = graph.reached(held, turned, inside=left).coils
                if (back - left) & moving:
                    found.append(name)
    if by_hand:
        found.append("power_back")
    return tuple(dict.fromkeys(found))


def _feeds(graph: Graph, switch: str) -> bool:
    """Tell whether a hand-operated starter switches a motor itself."""
    nets = {
        net
        for edge in graph.edges
        if edge.device.id == switch and edge.link.kind == "pole"
        for net in (edge.one, edge.other)
    }
    motors = {
        graph.net(item.id, end)
        for item in graph.circuit.netlist.devices
        if item.type.startswith("motor")
        for end in item.terminals
    }
    return bool(
        graph.spread(
            nets,
            lambda edge: edge.device.type in {"isolator", "drum"} and edge.link.kind == "pole",
        )
        & motors
    )
