"""Which line of the supply a power net belongs to, for the color of its conductors.

Ahead of a contactor and behind it a conductor keeps its line. Behind a reversing contactor the
lines of the forward direction count: they are the ones that the overload relay and the motor
are marked by.

Source: terminal marking of IEC 60947-1 annex L and NEMA ICS 19 (1L1-2T1 is the first line).
"""

from __future__ import annotations

from collections.abc import Mapping

from evencoil.circuit.text import Circuit

__all__ = ["lines_of_nets"]

_ENDS: Mapping[str, Mapping[str, str]] = {
    "supply": {"L1": "L1", "L2": "L2", "L3": "L3"},
    "poles": {"1": "L1", "2": "L1", "3": "L2", "4": "L2", "5": "L3", "6": "L3"},
    "marked": {
        "1L1": "L1",
        "2T1": "L1",
        "3L2": "L2",
        "4T2": "L2",
        "5L3": "L3",
        "6T3": "L3",
    },
}
_GROUPS = {
    "supply": "supply",
    **dict.fromkeys(("cb3", "fdisc", "isolator", "mms", "manual"), "poles"),
    "olr": "marked",
    "contactor": "marked",
}
#: whose marking goes before whose where a net has several
_FIRST = ("supply", "cb3", "fdisc", "isolator", "mms", "manual", "olr", "contactor")


def lines_of_nets(circuit: Circuit) -> Mapping[int, str]:
    """Return the line, L1 to L3, of each power net that a device marks.

    Parameters
    ----------
    circuit : Circuit
        As drawn or as found.
    """
    nets = circuit.netlist.nets()
    found: dict[int, str] = {}
    # of two contactors the one drawn first is the forward one
    for kind in _FIRST:
        for item in circuit.netlist.devices:
            if item.type != kind:
                continue
            for end, line in _ENDS[_GROUPS[kind]].items():
                terminal = f"{item.id}.{end}"
                if terminal in nets:
                    found.setdefault(nets[terminal], line)
    return found
