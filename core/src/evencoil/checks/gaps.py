"""How long a motor is without volts at a change-over, over the whole band of contactor times.

The times of a contactor differ from piece to piece and with its age. The gap is played with
contactors that drop out late and pull in early, and the other way round: the shortest gap must
not close, or two lines meet through both contactors.

Units: time [us]. Source: IEC 60947-4-1 gives no operating times; the band is a judgment of
practice (data sheets give a factor of about two between the ends) and is said with the result.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import replace

from evencoil.base import CoreError
from evencoil.checks.model import Problem, problem
from evencoil.checks.reach import Graph
from evencoil.checks.watch import SECOND_US, Watched, watch
from evencoil.circuit import Circuit, Device, Netlist, device
from evencoil.rehearsal import ScenarioAct, Stage
from evencoil.solver import constants

__all__ = ["LATE", "QUICK", "gap_problems"]

#: parts of a contactor's usual times: the quickest and the latest
QUICK, LATE = 0.7, 1.5


def gap_problems(
    graph: Graph, seen: Sequence[Watched], opening: Sequence[ScenarioAct]
) -> Iterator[Problem]:
    """Go through H25: each start in which a motor is parted from the lines and fed again.

    Parameters
    ----------
    graph : Graph
        The circuit.
    seen : sequence of Watched
        The starts as they were played with usual times.
    opening : sequence of ScenarioAct
        Every main device closed.
    """
    circuit = graph.circuit
    for one in seen:
        usual = _gaps(one)
        if not usual:
            continue
        played: list[Watched] = []
        for pull_in, drop_out in ((QUICK, LATE), (LATE, QUICK)):
            try:
                played.append(watch(Stage(_timed(circuit, pull_in, drop_out)), one.acts, opening))
            except CoreError:
                continue
        met = sorted({name for other in played for pair in other.met for name in pair})
        if met and not one.met:
            yield problem(circuit, "H25", "error", "gap_closes", *one.last, *met)
            return
        every = [*usual, *(gap for other in played for gap in _gaps(other))]
        yield problem(
            circuit,
            "H25",
            "note",
            "gap",
            *one.last,
            milliseconds=f"{max(usual) / 1000:.0f}",
            least=f"{min(every) / 1000:.0f}",
            most=f"{max(every) / 1000:.0f}",
        )
        return


def _gaps(found: Watched) -> list[int]:
    return [gap for gap in found.gaps_us if gap < SECOND_US]


def _timed(circuit: Circuit, pull_in: float, drop_out: float) -> Circuit:
    """Return a circuit whose contactors take other times than usual."""
    known = constants()

    def timed(item: Device) -> Device:
        if item.type != "contactor":
            return item
        tpu = float(item.parameters.get("tpu") or known["contactor_in_us"] / 1e6)
        tdo = float(item.parameters.get("tdo") or known["contactor_out_us"] / 1e6)
        times = {"tpu": f"{tpu * pull_in:g}", "tdo": f"{tdo * drop_out:g}"}
        return device(item.type, item.id, {**item.parameters, **times})

    devices = tuple(timed(item) for item in circuit.netlist.devices)
    return replace(circuit, netlist=Netlist(devices, circuit.netlist.wires))
