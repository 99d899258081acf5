"""A practice panel: a circuit wired by hand, with a meter on it, silent until asked.

What it does when it is energized is the rehearsal's own answer; the meter reads the same solver
at the same instant. Asked, what was wired is laid over the circuit: a contact or a button of the
same kind is as good as the drawn one.

Source: nodal analysis (textbook topic); how a meter reads is judgment of the trade.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from evencoil.base import Message, OutOfRangeError
from evencoil.checks import OPEN_OHM, Problem, check_circuit
from evencoil.circuit import Circuit, links_of, nearest
from evencoil.rehearsal import ScenarioAct, Stage
from evencoil.solver import Positions, Run, pairs_at

__all__ = ["Asked", "MeterKind", "Metered", "ask_panel", "bare_edits", "meter_at"]

MeterKind = Literal["volts", "ohms", "amps"]
#: what on a dead circuit no meter takes for live [V]
_DEAD_V = 3.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Asked:
    """What is said of a wired panel.

    Attributes
    ----------
    missing : tuple of Message
        Joins that the circuit has and the panel has not.
    extra : tuple of Message
        Joins and contacts that the panel has and the circuit has not.
    problems : tuple of Problem
        What the checks find in what was wired.
    """

    missing: tuple[Message, ...]
    extra: tuple[Message, ...]
    problems: tuple[Problem, ...]

    @property
    def is_right(self) -> bool:
        """Tell whether it is the circuit, by whatever like contacts."""
        return not self.missing and not self.extra


@dataclass(frozen=True, slots=True, kw_only=True)
class Metered:
    """A reading: its figure, or that there were volts where ohms were asked for.

    Attributes
    ----------
    kind : str
        ``volts``, ``ohms`` or ``amps``.
    value : float
        [V], [ohm] or [A]; ohms of an open circuit are infinite.
    is_live : bool
        True if ohms were asked for where there are volts: then ``value`` is those volts.
    """

    kind: MeterKind
    value: float
    is_live: bool = False


def bare_edits(circuit: Circuit, *, with_power: bool) -> tuple[str, ...]:
    """Return the wires that are taken off before a panel is wired by hand.

    Parameters
    ----------
    circuit : Circuit
        As the catalogue draws it.
    with_power : bool
        True leaves what is on the nets of supply, main poles and motors; maker's links and what
        is inside a motor's box stay in any case.
    """
    nets = circuit.netlist.nets()
    kinds = {item.id: item.type for item in circuit.netlist.devices}

    def kind(terminal: str) -> str:
        return kinds[terminal.rpartition(".")[0]]

    power = {
        nets[f"{item.id}.{end}"]
        for item in circuit.netlist.devices
        if item.type in {"supply", "joint"} or item.type.startswith("motor")
        for end in item.terminals
    }
    # from the lines and the motor on, through whatever has main poles
    poles = [
        (nets[f"{item.id}.{link.a}"], nets[f"{item.id}.{link.b}"])
        for item in circuit.netlist.devices
        for link in links_of(item)
        if link.kind == "pole"
    ]
    before = 0
    while before != len(power):
        before = len(power)
        for ends in poles:
            if power.intersection(ends):
                power.update(ends)
    return tuple(
        wire.id
        for wire in circuit.netlist.wires
        if wire.id not in circuit.makers
        and not _inside(kind(wire.start), kind(wire.end))
        and not (with_power and nets[wire.start] in power)
    )


def _inside(one: str, other: str) -> bool:
    """Tell whether a wire lies in a motor's box: the lead step is about that."""
    return all(kind == "joint" or kind.startswith("motor") for kind in (one, other))


def ask_panel(circuit: Circuit, wanted: Circuit) -> Asked:
    """Return what is missing, what is too much, and what the checks find.

    Parameters
    ----------
    circuit : Circuit
        As it was wired.
    wanted : Circuit
        As the catalogue draws it.
    """
    [near] = nearest(circuit, {"wanted": wanted}, 1)
    return Asked(missing=near.lacking, extra=near.against, problems=tuple(check_circuit(circuit)))


def meter_at(
    stage: Stage,
    acts: Sequence[ScenarioAct],
    at_us: int,
    kind: MeterKind,
    start: str,
    end: str,
) -> Metered:
    """Return what a meter shows at an instant of a rehearsal.

    Parameters
    ----------
    stage : Stage
        The panel as it is wired.
    acts : sequence of ScenarioAct
        What was done so far.
    at_us : int
        The instant. [us]
    kind : str
        ``volts`` between two terminals, ``ohms`` between them, ``amps`` of what hangs on the
        first.
    start : str
        Terminal of the first probe.
    end : str
        Terminal of the second; empty for amps.

    Raises
    ------
    OutOfRangeError
        If a terminal is none of this panel, or both are one.
    """
    nodes = stage.plant.node_of
    asked = [start] if kind == "amps" else [start, end]
    for name in asked:
        if name not in nodes:
            raise OutOfRangeError(
                Message("practice.no_terminal", {"terminal": name[:60]}),
                field="start" if name == start else "end",
                hint=Message("practice.no_terminal.hint"),
            )
    if kind != "amps" and start == end:
        raise OutOfRangeError(
            Message("practice.one_terminal"),
            field="end",
            hint=Message("practice.one_terminal.hint"),
        )
    run = Run(stage.plant)
    for action in stage.actions(acts):
        if action.time > at_us:
            break
        run.advance(action.time)
        run.act(action)
    run.advance(at_us)
    run.look(at_us)
    if kind == "amps":
        return Metered(kind=kind, value=_amps(run, start))
    volts = _volts(run, start, end)
    if kind == "volts":
        return Metered(kind=kind, value=volts)
    most = max(volts, *(abs(run.solution.volts[nodes[name]]) for name in (start, end)))
    if most > _DEAD_V:
        return Metered(kind=kind, value=most, is_live=True)
    held = list(run.conductance)
    read = Positions(stage.plant, [start, end], pairs_at([(0, 1)]), lambda _: held)
    ohms = float(read.ohms([0], None)[0, 0])
    return Metered(kind=kind, value=float("inf") if ohms >= OPEN_OHM else ohms)


def _volts(run: Run, start: str, end: str) -> float:
    """Return the volts between two terminals, direct current with the rest [V]."""
    nodes, solved = run.plant.node_of, run.solution
    found = abs(solved.volts[nodes[start]] - solved.volts[nodes[end]])
    if solved.steady is not None:
        found = max(found, abs(solved.steady[nodes[start]] - solved.steady[nodes[end]]))
    return float(found)


def _amps(run: Run, terminal: str) -> float:
    """Return the most current in a branch of a device at one of its terminals [A]."""
    owner, _, end = terminal.rpartition(".")
    part = run.plant.part_of.get(owner)
    volts = run.solution.volts
    found = [0.0]
    if part is None:
        return 0.0
    for link in part.links:
        if end not in {link.a, link.b} or link.name not in part.branches:
            continue
        branch = part.branches[link.name]
        one, other = run.plant.ends[branch]
        found.append(abs((volts[one] - volts[other]) * run.admittance[branch]))
    return float(max(found))
