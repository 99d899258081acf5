"""Contacts on the way to a coil, and what stays fed with some of them open.

Source: paths and reachability in graphs (textbook topics).
"""

from __future__ import annotations

from evencoil.checks.reach import LINE_ENDS, Graph, Place
from evencoil.circuit import CONTACTS, Device, Link, links_of

__all__ = [
    "CLOSES",
    "HOT",
    "OPENS",
    "closing_buttons",
    "contacts_of",
    "fed_with",
    "stops_opened",
    "ways_to",
]

OPENS = ("nc", "nc_late")
CLOSES = ("no", "no_early")
#: where the hot side of a control circuit begins
HOT = {
    "xfmr": ("X1",),
    "source": ("L",),
    "psu": ("+",),
    "rect": ("+",),
    "drive": ("+",),
    "supply": LINE_ENDS,
}


def contacts_of(graph: Graph, item: Device, kinds: tuple[str, ...] = CONTACTS) -> list[Link]:
    """Return the contacts of a device that are wired on both sides.

    Parameters
    ----------
    graph : Graph
        The circuit.
    item : Device
        Whose contacts.
    kinds : tuple of str
        Which of them.
    """
    return [
        link
        for link in links_of(item)
        if link.kind in kinds
        and graph.is_wired(f"{item.id}.{link.a}")
        and graph.is_wired(f"{item.id}.{link.b}")
    ]


def closing_buttons(graph: Graph) -> set[Place]:
    """Return the closing contacts of every button: with them open no hand asks for a start.

    Parameters
    ----------
    graph : Graph
        The circuit.
    """
    return {
        (item.id, link.name)
        for item in graph.of_type("pb")
        for link in contacts_of(graph, item, CLOSES)
    }


def stops_opened(graph: Graph) -> set[Place]:
    """Return the opening contacts of every emergency stop: what is open with all of them pressed.

    Parameters
    ----------
    graph : Graph
        The circuit.
    """
    return {
        (item.id, link.name)
        for item in graph.of_type("estop")
        for link in contacts_of(graph, item, OPENS)
    }


def fed_with(graph: Graph, opened: set[Place], turned: dict[str, str]) -> frozenset[str]:
    """Return the coils that can pull in, or stay in, with some contacts open.

    Parameters
    ----------
    graph : Graph
        The circuit.
    opened : set of (str, str)
        Contacts held open: device and contact.
    turned : dict
        Selector to its position.
    """
    held = graph.reached(opened, turned, holds=True).coils
    return graph.reached(opened, turned).coils | held


def ways_to(graph: Graph, coil: str, turned: dict[str, str]) -> set[Place]:
    """Return every contact that lies on some way from the hot side to a coil.

    Parameters
    ----------
    graph : Graph
        The circuit.
    coil : str
        Device with the coil.
    turned : dict
        Selector to its position.
    """
    known = graph.reached((), turned, holds=True)
    hot_ends = set()
    for item in graph.circuit.netlist.devices:
        hot_ends |= {
            graph.net(item.id, end) for end in HOT.get(item.type, ()) if end in item.terminals
        }
    found: set[Place] = set()
    common = graph.returns()
    for end in ("A1", "A2"):
        start = graph.net(coil, end)
        if start in common:
            continue
        for way in graph.paths(
            start,
            hot_ends,
            lambda edge: (
                graph.closes(edge, known.coils, (), turned) and not {edge.one, edge.other} & common
            ),
        ):
            found |= {edge.place for edge in way}
    return found
