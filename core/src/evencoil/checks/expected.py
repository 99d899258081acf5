"""What a circuit must never do, derived from its own wires before it is played.

A contactor that cannot pull in while some contact is open must drop out when that contact
opens: so it is with stop buttons, emergency stops, limits, thermostats, overload and monitor
contacts. A contactor that another way can start with the contact open need not (a float switch
beside HAND).

Source: reachability, least fixed point (textbook topic); NFPA 79 (stop functions, in their
subject).
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

from evencoil.checks.power import exclusive_pairs, moving_of
from evencoil.checks.reach import Graph, Place, once, positions_of
from evencoil.checks.ways import OPENS, contacts_of
from evencoil.circuit import Circuit

__all__ = ["drops_of", "expecting", "with_expectations"]

#: device type to the kinds of contact that open when it stops something
_STOPPING: dict[str, tuple[str, ...]] = {
    "pb": OPENS,
    "estop": OPENS,
    "pilot": OPENS,
    "olr": OPENS,
    "thermostat": OPENS,
    # a healthy monitor is pulled in: its closing contacts open when it trips
    "ptcrelay": ("no",),
    "rtdmon": ("no",),
    "phasemon": ("no",),
    "gfr": ("no",),
}


@once
def drops_of(graph: Graph) -> Mapping[Place, frozenset[str]]:
    """Return each contact with the contactors of motors that must drop out when it opens.

    Parameters
    ----------
    graph : Graph
        The circuit.
    """
    moving = moving_of(graph)
    places = positions_of(graph.circuit)
    starts: set[str] = set().union(*(graph.reached((), turned).coils for turned in places))
    found: dict[Place, frozenset[str]] = {}
    for item in graph.circuit.netlist.devices:
        for link in contacts_of(graph, item, _STOPPING.get(item.type, ())):
            place = (item.id, link.name)
            left: set[str] = set().union(
                *(graph.reached({place}, turned).coils for turned in places)
            )
            if stopped := (moving & starts) - left:
                found[place] = frozenset(stopped)
    return found


def expecting(graph: Graph) -> Graph:
    """Let the circuit of a graph know its pairs and its stops; nets and links stay as they are.

    Parameters
    ----------
    graph : Graph
        The circuit.
    """
    circuit = graph.circuit
    pairs = tuple(dict.fromkeys((*circuit.never_together, *exclusive_pairs(graph))))
    graph.circuit = replace(circuit, never_together=pairs, drops=drops_of(graph))
    return graph


def with_expectations(circuit: Circuit) -> Circuit:
    """Return a circuit that knows what it must never do, to be played and proven.

    Parameters
    ----------
    circuit : Circuit
        As drawn or as found.

    Returns
    -------
    Circuit
        With every pair of contactors that must never close together, and with the contactors
        that each stopping contact must drop.
    """
    return expecting(Graph(circuit)).circuit
