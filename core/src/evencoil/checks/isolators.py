"""For each isolator: what stays live when it is open, and what can still pull in.

Source: NEC 430.74 and 430.75 (control circuits on their own feed), NFPA 79 (excepted
circuits), OSHA 1910.147 in its subject: every source has to be found.
"""

from __future__ import annotations

from dataclasses import dataclass

from evencoil.checks.reach import SWITCHES, Graph, positions_of
from evencoil.circuit import CONTACTS

__all__ = ["Isolation", "isolations"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Isolation:
    """One isolator, opened.

    Attributes
    ----------
    device : str
        Its id.
    live : tuple of str
        Terminals that still have volts, one for each net, its own line side left out.
    control : tuple of str
        Of these, the ones of the control circuit: a foreign source.
    coils : tuple of str
        Devices whose coils can still pull in.
    motors : tuple of str
        Motors that can still get volts.
    """

    device: str
    live: tuple[str, ...]
    control: tuple[str, ...]
    coils: tuple[str, ...]
    motors: tuple[str, ...]


def isolations(graph: Graph) -> tuple[Isolation, ...]:
    """Return what each isolator leaves live.

    Parameters
    ----------
    graph : Graph
        The circuit.
    """
    return tuple(
        _opened(graph, item.id) for item in graph.circuit.netlist.devices if item.type in SWITCHES
    )


def _opened(graph: Graph, device: str) -> Isolation:
    links = [edge.link for edge in graph.edges if edge.device.id == device]
    open_ = {
        (device, link.name)
        for link in links
        if link.kind in {"pole", *CONTACTS} - {"nc", "nc_late"}
    }
    # a selector stands at one position at a time: what any of them leaves live counts
    found = [graph.reached(open_, turned) for turned in positions_of(graph.circuit)]
    hot = frozenset().union(*(one.hot for one in found))
    lines: dict[int, frozenset[str]] = {}
    for one in found:
        for net, names in one.lines.items():
            lines[net] = lines.get(net, frozenset()) | names
    own = {
        graph.net(device, end) for link in links if link.kind == "pole" for end in (link.a, link.b)
    }
    sources = {
        graph.net(one.id, end) for one in graph.of_type("supply", "source") for end in one.terminals
    }
    told: dict[int, str] = {}
    for terminal, net in graph.nets.items():
        owner = terminal.rpartition(".")[0]
        if net not in hot or net in told or net in sources or net in own & hot:
            continue
        if not graph.is_wired(terminal) or graph.kinds[owner].type in {"supply", "source"}:
            continue
        told[net] = terminal
    control = tuple(terminal for net, terminal in told.items() if not lines.get(net))
    motors = tuple(
        motor.id
        for motor in graph.circuit.netlist.devices
        if motor.type.startswith("motor")
        and any(lines.get(graph.net(motor.id, end)) for end in motor.terminals)
    )
    coils = tuple(sorted(set().union(*(one.coils for one in found))))
    return Isolation(
        device=device, live=tuple(told.values()), control=control, coils=coils, motors=motors
    )
