"""The fingerprint of a netlist."""

from __future__ import annotations

import hashlib
import json

from evencoil.circuit.text import Circuit

__all__ = ["netlist_fingerprint"]


def netlist_fingerprint(circuit: Circuit) -> str:
    """Return the SHA-256 of a netlist: devices, parameters, wires.

    Parameters
    ----------
    circuit : Circuit
        Labels do not count.
    """
    body = {
        "devices": [
            [item.id, item.type, sorted(item.parameters.items())]
            for item in circuit.netlist.devices
        ],
        "wires": sorted([wire.id, wire.start, wire.end] for wire in circuit.netlist.wires),
        "never": sorted(sorted(pair) for pair in circuit.never_together),
    }
    text = json.dumps(body, sort_keys=True, ensure_ascii=False, separators=(",", ":"))
    return hashlib.sha256(text.encode()).hexdigest()
