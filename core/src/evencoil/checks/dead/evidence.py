"""Which wires the ohm readings confirm, and which they refute.

A reading is evidence of a wire if it would be another one without it: it confirms the wire where
it reads as drawn, and refutes it where it reads as the circuit without that wire would.

Source: the netlist solved with and without each wire (nodal analysis, textbook topic).
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Literal

from evencoil.checks.dead.bench import Bench, Hand, Observed, agrees, can_be_read, fuses_of
from evencoil.checks.dead.faults import missing_wires
from evencoil.circuit import Circuit

__all__ = ["WireEvidence", "wire_evidence"]

WireEvidence = Literal["confirmed", "refuted"]


def wire_evidence(circuit: Circuit, observed: Sequence[Observed]) -> Mapping[str, WireEvidence]:
    """Return the wires for or against which a reading speaks.

    Parameters
    ----------
    circuit : Circuit
        As drawn or as found.
    observed : sequence of Observed
        Readings that were taken on the dead circuit.

    Returns
    -------
    mapping
        Wire id to ``confirmed`` or ``refuted``; refuted where any reading says so. Wires that
        no reading concerns are not in it.
    """
    readings = [one for one in observed if can_be_read(circuit, one)]
    if not readings:
        return {}
    pulled = fuses_of(circuit)
    hands: dict[tuple[Hand, ...], list[float]] = {}
    drawn = Bench(circuit.netlist, pulled, hands).read(readings)
    found: dict[str, WireEvidence] = {}
    for fault in missing_wires(circuit):
        without = Bench(fault.base, pulled, hands).read(readings)
        for one, right, gone in zip(readings, drawn, without, strict=True):
            if agrees(right, gone):
                continue
            if agrees(gone, one.ohms) and not agrees(right, one.ohms):
                found[fault.wire] = "refuted"
            elif agrees(right, one.ohms) and not agrees(gone, one.ohms):
                found.setdefault(fault.wire, "confirmed")
    return found
