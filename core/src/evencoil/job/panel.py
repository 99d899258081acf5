"""What hands do at the panel of one job: sources to lock, points to prove dead, wires to land.

All of it follows from the netlist, so a change of the drawing is a new revision. What no
netlist tells (a back-feed, a heater supply from elsewhere) is listed at the panel itself.
Stages of energizing are laid out as well; none opens until a rehearsal is on record.

Units: waits [s], readings [V], [ohm].
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from decimal import Decimal
from itertools import combinations
from typing import Literal

from evencoil.acts import Rules, Source, Wire, Work
from evencoil.base import CoreError, Message, MissingError, say
from evencoil.checks import SWITCHES, DeadChecks, Graph, said_hand
from evencoil.circuit import Circuit, Device
from evencoil.circuit import Wire as DrawnWire
from evencoil.job.inputs import JobInputs
from evencoil.job.panel_items import PanelItem, expected_of, panel_items
from evencoil.job.panel_rows import PanelRow, as_row, bounds_of, has_coil, panel_rows, row_id
from evencoil.job.panel_stages import PanelStage, expected_results, panel_stages, stage_works
from evencoil.job.panel_swap import PanelSwap, roll_of, swap_of
from evencoil.job.panel_trips import PanelDevice, panel_devices, starts_in_a_row
from evencoil.job.run_up import JobRunUp, run_up_of
from evencoil.job.worked import Worked

__all__ = [
    "NOT_CALCULATED",
    "PanelAsks",
    "PanelCoil",
    "PanelPoint",
    "PanelRow",
    "PanelSource",
    "PanelWire",
    "PanelWork",
    "WhichWires",
    "panel_roll",
    "panel_swap",
    "panel_work",
]

#: judgment: until what is stored in a capacitor of a motor has gone; its label wins [s]
_CAPACITOR_S = 300.0
_DEAD_V = "1.0"
#: stands among the items while the ohm readings are not calculated
NOT_CALCULATED = "dead_check"


@dataclass(frozen=True, slots=True, kw_only=True)
class PanelPoint:
    """Where a meter is put to prove a source dead: two terminals, as they are said."""

    id: str
    source: str
    one: str
    other: str


@dataclass(frozen=True, slots=True, kw_only=True)
class PanelSource:
    """A source by name, what isolates it, and what stays live when that is open."""

    id: str
    said: Message
    isolator: str
    isolator_said: str
    stays_live: tuple[str, ...]
    can_pull_in: tuple[str, ...]
    wait_s: float


@dataclass(frozen=True, slots=True, kw_only=True)
class PanelWire:
    """A wire to land, as its two ends are said; ``number``, color and size as on the wire list."""

    id: str
    number: str
    start: str
    end: str
    start_said: str
    end_said: str
    color: str
    size: str
    way: str
    net: str
    does: str


#: which wires a plant rule is about
WhichWires = Literal["none", "power", "all"]


@dataclass(frozen=True, slots=True, kw_only=True)
class PanelAsks:
    """What the plant asks for at a panel, and what is known of this job besides its drawing.

    Attributes
    ----------
    torque, second_person : str
        Wires whose screws are torqued on record, and whose landing another person checks.
    asks : PanelAsks
        Of the plant, and what is known of this job besides its drawing.
    coil_ohms : mapping
        Ohms read on coils of this job, by device. [ohm]
    """

    torque: WhichWires = "none"
    second_person: WhichWires = "none"
    two_sign: bool = True
    has_license: bool = True
    is_rehearsed: bool = False
    coil_ohms: Mapping[str, Decimal] = field(default_factory=dict)


@dataclass(frozen=True, slots=True, kw_only=True)
class PanelCoil:
    """A coil that can be read on the bench, and what was read."""

    id: str
    said: str
    ohms: str


@dataclass(frozen=True, slots=True, kw_only=True)
class PanelWork:
    """Everything to be done at one panel, and the same as entries are judged by it.

    ``asides`` are said for all ohm readings: what is taken apart meanwhile. ``line_side`` are
    the wires ahead of the first switch: locking it leaves them live, so they are not landed
    under this lock.
    """

    work: Work
    sources: tuple[PanelSource, ...]
    points: tuple[PanelPoint, ...]
    wires: tuple[PanelWire, ...]
    rows: tuple[PanelRow, ...]
    items: tuple[PanelItem, ...]
    coils: tuple[PanelCoil, ...]
    stages: tuple[PanelStage, ...]
    devices: tuple[PanelDevice, ...]
    starts: tuple[str, ...]
    swap: PanelSwap | None
    roll: PanelSwap | None
    asides: tuple[str, ...]
    line_side: tuple[str, ...]


def panel_work(
    inputs: JobInputs,
    worked: Worked,
    dead: DeadChecks | None,
    asks: PanelAsks = PanelAsks(),
) -> PanelWork:
    """Return what is to be done at the panel of a job.

    Parameters
    ----------
    inputs : JobInputs
        As entered.
    worked : Worked
        The same, calculated.
    dead : DeadChecks or None
        The ohm readings of its circuit; None while they are not calculated: then an item that
        no one can read stands open in their place.
    asks : PanelAsks
        Of the plant, and what is known of this job besides its drawing.

    Raises
    ------
    CoreError
        If there is no circuit, or nothing in it can be locked.
    """
    circuit = worked.starter.required()
    graph = Graph(circuit)
    found = [
        *_line(graph),
        *_separate(graph),
        *_capacitors(inputs, graph),
        *_buses(graph),
    ]
    if not found:
        raise MissingError(
            Message("panel.no_isolator"),
            field="starter.standard_circuit",
            hint=Message("panel.no_isolator.hint"),
        )
    live = _live_ends(graph)
    ahead = {wire.id for wire in circuit.netlist.wires if {wire.start, wire.end} & live}
    drawn = {wire.id: wire for wire in circuit.netlist.wires}
    does = worked.starter.nets()
    wires = tuple(
        PanelWire(
            id=row.id,
            number=row.number,
            # terminals by their ids: a tag is a label and may change
            start=drawn[row.id].start,
            end=drawn[row.id].end,
            start_said=circuit.said(drawn[row.id].start),
            end_said=circuit.said(drawn[row.id].end),
            color=row.color,
            size=row.size,
            way=row.way,
            net=row.net,
            does=say(does[row.net]) if row.net in does else "",
        )
        for row in sorted(
            worked.starter.rows(), key=lambda one: _by_hand(circuit, drawn[one.id], one.way)
        )
        if not row.is_maker and row.id not in ahead
    )
    known = {wire.id for wire in wires}
    rows = {} if dead is None else {row_id(check): check for check in dead.checks}
    bounds = {} if dead is None else bounds_of(circuit, dead, asks.coil_ohms)
    points = tuple(point for _, _, points in found for point in points)
    near_zero = {end for one in rows.values() if one.kind == "zero" for end in (one.start, one.end)}
    items = panel_items(inputs, worked, circuit, near_zero)
    separate = tuple(source.isolator for source, kind, _ in found if kind == "control")
    everything = tuple(dict.fromkeys(source.isolator for source, _, _ in found))
    stages = panel_stages(circuit, separate)
    ready = _ready(inputs, worked)
    return PanelWork(
        work=Work(
            sources={
                source.id: Source(
                    kind=kind,
                    isolator=source.isolator,
                    points=tuple(point.id for point in points),
                    wait_s=source.wait_s,
                )
                for source, kind, points in found
            },
            wires={
                wire.id: Wire(
                    ends=(wire.start, wire.end),
                    scope="power" if wire.way == "power" else "control",
                )
                for wire in wires
            },
            rows={
                name: as_row(bounds[name], tuple(one for one in check.covers if one in known))
                for name, check in rows.items()
            },
            items=(*(one.id for one in items), *(() if dead is not None else (NOT_CALCULATED,))),
            expect={**expected_of(items, worked), **expected_results(worked, ready)},
            stages=stage_works(stages, separate, everything),
            rules=Rules(
                dead_limit_v=_DEAD_V,
                torque=_which(wires, asks.torque),
                two_person=_which(wires, asks.second_person),
                two_sign=asks.two_sign,
                has_license=asks.has_license,
                is_rehearsed=asks.is_rehearsed,
            ),
        ),
        sources=tuple(source for source, _, _ in found),
        points=points,
        wires=wires,
        rows=() if dead is None else panel_rows(circuit, dead, bounds),
        items=items,
        coils=tuple(
            PanelCoil(
                id=one.id,
                said=circuit.tags.get(one.id, one.id),
                ohms=f"{asks.coil_ohms[one.id]:f}" if one.id in asks.coil_ohms else "",
            )
            for one in circuit.netlist.devices
            if has_coil(one)
        ),
        stages=stages,
        devices=panel_devices(circuit),
        starts=starts_in_a_row(ready),
        swap=panel_swap(worked, "swap"),
        roll=panel_roll(worked, "roll"),
        asides=() if dead is None else tuple(str(said_hand(circuit, hand)) for hand in dead.apart),
        line_side=tuple(
            f"{circuit.said(wire.start)} – {circuit.said(wire.end)}"
            for wire in circuit.netlist.wires
            if wire.id in ahead
        ),
    )


def panel_swap(worked: Worked, prefix: str) -> PanelSwap | None:
    """Return what to exchange where the shaft turns the other way; None where nothing can be.

    Parameters
    ----------
    worked : Worked
        A job, calculated; the plant says which two lines.
    prefix : str
        Start of the ids of its edits.

    Raises
    ------
    CoreError
        If there is no circuit.
    """
    circuit = worked.starter.required()
    switch = _main_switch(Graph(circuit))
    return swap_of(circuit, switch, worked.profile.swap_lines, prefix)


def panel_roll(worked: Worked, prefix: str) -> PanelSwap | None:
    """Return how to move three lines on by one lead; None where there are no three.

    Parameters
    ----------
    worked : Worked
        A job, calculated.
    prefix : str
        Start of the ids of its edits.

    Raises
    ------
    CoreError
        If there is no circuit.
    """
    circuit = worked.starter.required()
    return roll_of(circuit, _main_switch(Graph(circuit)), prefix)


def _ready(inputs: JobInputs, worked: Worked) -> JobRunUp | None:
    """Return the motor of a job, ready to run; None where something is missing for it."""
    try:
        return run_up_of(inputs, worked)
    except CoreError:
        return None


#: on the door: their wires go through the loom, and are landed last
_DOOR = {"pb", "sel", "lamp", "estop", "horn"}


def _by_hand(circuit: Circuit, wire: DrawnWire, way: str) -> int:
    """Return the place in the order of the hand: grounds, power, control, the door."""
    ends = (wire.start, wire.end)
    if _is_ground(*ends):
        return 0
    kinds = {item.id: item.type for item in circuit.netlist.devices}
    if any(kinds.get(end.rpartition(".")[0]) in _DOOR for end in ends):
        return 3
    return 1 if way == "power" else 2


def _which(wires: tuple[PanelWire, ...], which: WhichWires) -> frozenset[str]:
    """Return the wires that a plant rule is about; a ground is as grave as a line."""
    if which == "none":
        return frozenset()
    return frozenset(
        one.id
        for one in wires
        if which == "all" or one.way == "power" or _is_ground(one.start, one.end)
    )


def _is_ground(*ends: str) -> bool:
    return any(end.endswith(".PE") for end in ends)


def _live_ends(graph: Graph) -> set[str]:
    """Return the terminals that stay live with the first switch open: the line's own."""
    switch = _main_switch(graph)
    lines = graph.line_nets()
    return {terminal for terminal, net in graph.nets.items() if net in lines and switch is not None}


_Found = tuple[PanelSource, str, tuple[PanelPoint, ...]]


def _points(
    graph: Graph, source: str, ends: list[str], ground: str | None
) -> tuple[PanelPoint, ...]:
    """Return every pair of some terminals, and each of them to ground."""
    pairs = list(combinations(ends, 2)) + [(end, ground) for end in ends if ground is not None]
    return tuple(
        PanelPoint(
            id=f"{source}:{one}-{other}",
            source=source,
            one=graph.circuit.said(one),
            other=graph.circuit.said(str(other)),
        )
        for one, other in pairs
    )


def _ground(graph: Graph) -> str | None:
    """Return the ground terminal of the supply, where the circuit has one."""
    return next((f"{one.id}.PE" for one in graph.of_type("supply") if "PE" in one.terminals), None)


def _main_switch(graph: Graph) -> Device | None:
    """Return the switch that the supply's lines go to first."""
    lines = graph.line_nets()
    for item in graph.circuit.netlist.devices:
        if item.type not in SWITCHES:
            continue
        poles = [edge.link for edge in graph.edges if edge.device.id == item.id]
        if any(
            link.kind == "pole" and {graph.net(item.id, link.a), graph.net(item.id, link.b)} & lines
            for link in poles
        ):
            return item
    return None


def _line(graph: Graph) -> Iterator[_Found]:
    """Return the line itself, isolated by the switch that it goes to first."""
    switch = _main_switch(graph)
    if switch is None:
        return
    circuit, lines = graph.circuit, graph.line_nets()
    load = []
    for edge in graph.edges:
        link = edge.link
        if edge.device.id != switch.id or link.kind != "pole":
            continue
        ends = (link.a, link.b)
        load += [f"{switch.id}.{end}" for end in ends if graph.net(switch.id, end) not in lines][:1]
    open_ = {(switch.id, edge.link.name) for edge in graph.edges if edge.device.id == switch.id}
    reached = graph.reached(open_)
    live = [
        terminal
        for terminal, net in graph.nets.items()
        if net in reached.hot and graph.is_wired(terminal)
    ]
    own = [one for one in live if one.startswith(f"{switch.id}.")]
    rest = [
        one
        for one in live
        if one not in own and graph.kinds[one.rpartition(".")[0]].type not in {"supply", "source"}
    ]
    yield (
        PanelSource(
            id="main",
            said=Message("panel.source.main"),
            isolator=switch.id,
            isolator_said=circuit.tags.get(switch.id, switch.id),
            stays_live=tuple(circuit.said(one) for one in (*own, *rest)),
            can_pull_in=tuple(circuit.tags.get(one, one) for one in sorted(reached.coils)),
            wait_s=0.0,
        ),
        "main",
        _points(graph, "main", load, _ground(graph)),
    )


def _separate(graph: Graph) -> Iterator[_Found]:
    """Return each separate control source: its own breaker is elsewhere, and named by it."""
    circuit = graph.circuit
    for item in graph.of_type("source"):
        tag = circuit.tags.get(item.id, item.id)
        ends = [f"{item.id}.{end}" for end in item.terminals if end in {"L", "N", "+", "-"}]
        yield (
            PanelSource(
                id=item.id,
                said=Message("panel.source.control", {"tag": tag}),
                isolator=item.id,
                isolator_said=tag,
                stays_live=(),
                can_pull_in=(),
                wait_s=0.0,
            ),
            "control",
            _points(graph, item.id, ends, _ground(graph)),
        )


def _capacitors(inputs: JobInputs, graph: Graph) -> Iterator[_Found]:
    """Return the capacitors of a single-phase motor: stored energy behind the main switch."""
    single, switch = inputs.leads.single, _main_switch(graph)
    if single is None or switch is None or single.capacitors in {"", "none"}:
        return
    yield (
        PanelSource(
            id="capacitor",
            said=Message("panel.source.capacitor"),
            isolator=switch.id,
            isolator_said=graph.circuit.tags.get(switch.id, switch.id),
            stays_live=(),
            can_pull_in=(),
            wait_s=_CAPACITOR_S,
        ),
        "capacitor",
        (
            PanelPoint(
                id="capacitor:terminals",
                source="capacitor",
                one=str(Message("panel.capacitor_one")),
                other=str(Message("panel.capacitor_other")),
            ),
        ),
    )


def _buses(graph: Graph) -> Iterator[_Found]:
    """Return the bus of each drive: it stays charged behind the main switch, by its label."""
    switch = _main_switch(graph)
    if switch is None:
        return
    for item in graph.of_type("drive"):
        tag = graph.circuit.tags.get(item.id, item.id)
        minutes = item.parameters.get("wait") or "5"
        yield (
            PanelSource(
                id=item.id,
                said=Message("panel.source.bus", {"tag": tag, "minutes": minutes}),
                isolator=switch.id,
                isolator_said=graph.circuit.tags.get(switch.id, switch.id),
                stays_live=(),
                can_pull_in=(),
                wait_s=float(minutes) * 60,
            ),
            "capacitor",
            (
                PanelPoint(
                    id=f"{item.id}:bus",
                    source=item.id,
                    one=str(Message("panel.bus_one", {"tag": tag})),
                    other=str(Message("panel.bus_other", {"tag": tag})),
                ),
            ),
        )
