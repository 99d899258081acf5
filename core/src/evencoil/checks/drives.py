"""Checks of a drive: what reaches its output, what is switched behind it, what stops it.

Source: NEC 430 Part X, IEC 61800-5-1 and IEC 60204-1 in their sense; trade practice of drives.
"""

from __future__ import annotations

from collections.abc import Iterator

from evencoil.checks.model import Level, Problem, problem
from evencoil.checks.power import lines_behind_drive
from evencoil.checks.reach import Graph, Place
from evencoil.checks.ways import CLOSES, stops_opened
from evencoil.circuit import CONTACTS, DRIVE_OUTPUT, Device, links_of

__all__ = ["drive_problems"]

_ASKS = ("FWD", "REV")
#: what may stand between a drive and its motor and open
_SWITCHED = {"contactor", "drum", "isolator", "fdisc", "cb3", "manual", "mms"}


def drive_problems(graph: Graph) -> Iterator[Problem]:
    """Go through D01 to D05.

    Parameters
    ----------
    graph : Graph
        The circuit.
    """
    for drive in graph.of_type("drive"):
        yield from _fed_from_behind(graph, drive)
        yield from _switched_behind(graph, drive)
        yield from _stops(graph, drive)
        yield from _asked_always(graph, drive)
        yield from _never_runs(graph, drive)


def _fed_from_behind(graph: Graph, drive: Device) -> Iterator[Problem]:
    """D01: the lines reach the output at rest, or with one contactor in."""
    for closed in (set[str](), *({item.id} for item in graph.of_type("contactor"))):
        if drive.id in lines_behind_drive(graph, closed):
            name = "drive_backfed_in" if closed else "drive_backfed"
            yield problem(graph.circuit, "D01", "error", name, drive.id, *closed)
            return


def _behind(graph: Graph, drive: Device) -> list[Device]:
    """Return the devices that open between a drive and a motor."""
    near = {graph.net(drive.id, end) for end in DRIVE_OUTPUT}
    motors = {
        graph.net(item.id, end)
        for item in graph.circuit.netlist.devices
        if item.type.startswith("motor")
        for end in item.terminals
        if end != "PE"
    }

    def reached(but: str = "") -> bool:
        nets = graph.spread(
            near,
            lambda edge: edge.link.kind in {"pole", "heat", "fuse"} and edge.device.id != but,
        )
        return bool(nets & motors)

    # without its poles no way is left from the drive to a motor
    return [item for item in graph.of_type(*_SWITCHED) if not reached(item.id)] if reached() else []


def _permits(graph: Graph, drive: Device, open_: set[Place]) -> bool:
    """Tell whether a drive may still give torque with some contacts open."""
    if drive.parameters.get("enable", "1") == "0":
        return any(_is_on(graph, drive, name, open_) for name in _ASKS)
    return _is_on(graph, drive, "ENA", open_)


def _is_on(graph: Graph, drive: Device, name: str, open_: set[Place]) -> bool:
    """Tell whether an input can be fed from the drive's own supply, whatever a coil does."""
    nets = graph.spread(
        {graph.net(drive.id, "+")},
        lambda edge: edge.place not in open_ and edge.link.kind in {*CONTACTS, "fuse"},
    )
    return graph.is_wired(f"{drive.id}.{name}") and graph.net(drive.id, name) in nets


def _switched_behind(graph: Graph, drive: Device) -> Iterator[Problem]:
    """D02: what opens behind a drive has to take its torque away first."""
    for item in _behind(graph, drive):
        own = {
            (item.id, link.name) for link in links_of(item) if link.kind in {*CLOSES, "timed_no"}
        }
        if not own or _permits(graph, drive, own):
            level: Level = "error" if item.type in {"contactor", "drum"} else "doubt"
            yield problem(graph.circuit, "D02", level, "drive_switched", item.id, drive.id)


def _stops(graph: Graph, drive: Device) -> Iterator[Problem]:
    """D03: an emergency stop takes the lines off or the torque away."""
    stops = graph.of_type("estop")
    if not stops:
        return
    opened = stops_opened(graph)
    permits = drive.parameters.get("enable") == "0" or _permits(graph, drive, opened)
    lines = graph.reached(opened).lines
    has_lines = any(lines.get(graph.net(drive.id, end)) for end in ("L1", "L2", "L3"))
    if permits and has_lines:
        yield problem(graph.circuit, "D03", "error", "drive_estop", stops[0].id, drive.id)
    elif has_lines:
        yield problem(graph.circuit, "D03", "note", "drive_by_enable", stops[0].id, drive.id)


def _asked_always(graph: Graph, drive: Device) -> Iterator[Problem]:
    """D04: asked to run as soon as it has power: whoever closes its lines starts it."""
    every = {edge.place for edge in graph.edges if edge.link.kind in CONTACTS}
    always = [name for name in _ASKS if _is_on(graph, drive, name, every)]
    if always and drive.parameters.get("wires") != "3":
        level: Level = "error" if drive.parameters.get("restart") == "1" else "doubt"
        yield problem(graph.circuit, "D04", level, "drive_always", drive.id, point=always[0])


def _never_runs(graph: Graph, drive: Device) -> Iterator[Problem]:
    """D05: nothing can ever ask it, or permit it, to run."""
    needs = [] if drive.parameters.get("enable", "1") == "0" else ["ENA"]
    if drive.parameters.get("wires") == "3":
        needs.append("HLD")
    missing = [name for name in needs if not _is_on(graph, drive, name, set())]
    if not any(_is_on(graph, drive, name, set()) for name in _ASKS):
        missing.append("FWD")
    if missing:
        yield problem(
            graph.circuit, "D05", "doubt", "drive_never", drive.id, points=", ".join(missing)
        )
