"""Which starts a circuit makes by itself: on power, a reset, an E-stop or an isolator.

A coil that can pull in with no button held, in some position of the selectors, follows a
maintained contact: it comes back with the power. What drops while an overload contact or an
emergency stop is open, and pulls in when it closes again, starts by the reset.

Source: NEC 430.43 and 430.8x in their subject, NFPA 79 and IEC 60204-1 (start only by
intent, reset of an emergency stop never starts).
"""

from __future__ import annotations

from collections.abc import Collection

from evencoil.checks.power import motion_of, moving_of
from evencoil.checks.programs import Restart, needs_play, played_restarts
from evencoil.checks.reach import Graph, Place, once, positions_of
from evencoil.checks.ways import closing_buttons
from evencoil.circuit import Circuit, links_of

__all__ = ["Restart", "restarts_of", "waiting_isolators"]

_BY_RESET: dict[str, Restart] = {"olr": "overload_reset", "estop": "estop_release"}


def restarts_of(circuit: Circuit) -> tuple[Restart, ...]:
    """Return the ways in which a motor starts that no one asked for.

    Parameters
    ----------
    circuit : Circuit
        As drawn or as found.
    """
    graph = Graph(circuit)
    if needs_play(circuit):
        # only the program, or the drive, tells what comes back without an act
        waits: tuple[Restart, ...] = ("isolator_back",) if waiting_isolators(graph) else ()
        return (*played_restarts(circuit), *waits)
    return _by_contacts(circuit, graph)


def _by_contacts(circuit: Circuit, graph: Graph) -> tuple[Restart, ...]:
    """Return what restarts in a circuit of contacts alone."""
    moving = moving_of(graph)
    held = closing_buttons(graph)
    found: list[Restart] = []
    for turned in positions_of(circuit):
        if graph.reached(held, turned).coils & moving:
            found.append("power_back")
        # a separate control source holds the contactor in while the lines are off
        started = graph.reached((), turned).coils
        if graph.reached(held, turned, holds=True, inside=started, lines_on=False).coils & moving:
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
    if _run_by_hand(graph):
        found.append("power_back")
    if waiting_isolators(graph):
        found.append("isolator_back")
    return tuple(dict.fromkeys(found))


@once
def waiting_isolators(graph: Graph) -> tuple[str, ...]:
    """Return the isolators behind which a contactor can be in and wait for the isolator.

    With the isolator open a start is pressed: if the contactor pulls in and stays, the motor
    starts as soon as the isolator is closed. An auxiliary of the isolator that opens ahead of
    its poles, in series with the coil, cures it.

    Parameters
    ----------
    graph : Graph
        The circuit.
    """
    feeding = motion_of(graph)
    buttons = closing_buttons(graph)
    found = []
    for item in graph.of_type("cb3", "fdisc", "isolator"):
        open_: set[Place] = {
            (item.id, link.name) for link in links_of(item) if link.kind in {"pole", "no"}
        }
        for turned in positions_of(graph.circuit):
            pressed = graph.reached(open_, turned).coils
            stays = graph.reached(open_ | buttons, turned, holds=True, inside=pressed).coils
            if any(
                stays & contactors and _parts(graph, motor, item.id, stays & contactors)
                for motor, contactors in feeding.items()
            ):
                found.append(item.id)
                break
    return tuple(found)


def _parts(graph: Graph, motor: str, switch: str, contactors: Collection[str]) -> bool:
    """Tell whether a switch takes the lines off a motor whose contactors are in."""
    lines = graph.line_nets()

    def spread(left_out: str) -> set[int]:
        return graph.spread(
            lines,
            lambda edge: (
                edge.link.kind in {"pole", "heat", "fuse"}
                and edge.device.id != left_out
                and (edge.device.type != "contactor" or edge.device.id in contactors)
            ),
        )

    ends = {graph.net(motor, end) for end in graph.kinds[motor].terminals if end != "PE"}
    return bool(ends & spread("")) and not ends & spread(switch)


def _run_by_hand(graph: Graph) -> bool:
    """Tell whether a hand-operated starter alone, without a contactor, lies ahead of a motor."""
    if not graph.of_type("mms", "manual", "drum"):
        return False
    lines = graph.line_nets()
    fed = graph.spread(
        lines,
        lambda edge: (
            edge.link.kind in {"pole", "heat", "fuse", "resistor"}
            and edge.device.type not in {"contactor", "relay"}
        ),
    )
    return any(
        graph.net(item.id, end) in fed
        for item in graph.circuit.netlist.devices
        if item.type.startswith("motor")
        for end in item.terminals
        if end != "PE"
    )
