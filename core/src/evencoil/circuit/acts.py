"""What people did at a wire, and whether it still counts.

An act keeps the wire's id and both terminals as they were. If either end is
another one now, or the wire is gone, the act is stale: it shows, and counts as
not done.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from evencoil.circuit.netlist import Netlist

__all__ = ["WireAct", "standing"]


@dataclass(frozen=True, slots=True, kw_only=True)
class WireAct:
    """A landing, a torque, a tug at one wire, as the wire was then."""

    wire: str
    start: str
    end: str
    kind: str
    by: str = ""
    at: str = ""


def standing(act: WireAct, netlist: Netlist) -> Literal["counts", "stale", "gone"]:
    """Tell whether an act still counts for the netlist as it is now.

    Parameters
    ----------
    act : WireAct
        What was done, with the ends as they were.
    netlist : Netlist
        As it is now.

    Returns
    -------
    str
        ``counts`` only if the wire is there with the very same two ends.
    """
    wire = next((item for item in netlist.wires if item.id == act.wire), None)
    if wire is None:
        return "gone"
    return "counts" if {wire.start, wire.end} == {act.start, act.end} else "stale"
