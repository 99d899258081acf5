"""The dead check of a netlist, calculated once for screen and paper."""

from __future__ import annotations

from collections import OrderedDict
from threading import Lock

from evencoil.checks import DeadChecks, dead_checks
from evencoil.circuit import Circuit, netlist_fingerprint

__all__ = ["dead_checks_of"]

_KEPT = 48
_known: OrderedDict[tuple[str, tuple[str, ...]], DeadChecks] = OrderedDict()
_lock = Lock()


def dead_checks_of(circuit: Circuit) -> DeadChecks:
    """Return the checks of a netlist; the same netlist under the same tags is kept."""
    key = (netlist_fingerprint(circuit), tuple(circuit.tags.values()))
    with _lock:
        found = _known.get(key)
    if found is None:
        found = dead_checks(circuit)
        with _lock:
            _known[key] = found
            while len(_known) > _KEPT:
                _known.popitem(last=False)
    return found
