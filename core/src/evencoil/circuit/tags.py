"""Tags in the two styles of naming; the id of a device never changes with them.

Source: NEMA ICS 19 and the older IEC letters, as commonly used on drawings.
"""

from __future__ import annotations

from collections.abc import Mapping

from evencoil.circuit.library import types
from evencoil.circuit.text import Circuit

__all__ = ["renamed"]

_NEMA = {
    "main": "M",
    "main_2": "2M",
    "main_3": "3M",
    "forward_contactor": "F",
    "reverse_contactor": "R",
    "star": "S",
    "delta": "2M",
    "transition": "A",
    "low_contactor": "L",
    "high_contactor": "H",
    "bridge": "HS",
    "first_half": "1M",
    "second_half": "2M",
    "supply_contactor": "1S",
    "brake": "B",
    "overload": "OL",
    "stop": "STOP",
    "start": "START",
    "forward": "FWD",
    "reverse": "REV",
    "low": "LOW",
    "high": "HIGH",
    "jog": "JOG",
    "reset": "RESET",
    "master": "MCR",
    "run_relay": "CR",
    "control_transformer": "CPT",
    "motor": "MTR",
    "lamp_run": "RUN LT",
    "lamp_off": "OFF LT",
    "lamp_trip": "OL LT",
    "timer": "TR",
    "selector": "SEL",
    "control_fuse": "3FU",
    "control_fuse_1": "1FU",
    "control_fuse_2": "2FU",
}


def renamed(circuit: Circuit, style: str) -> Mapping[str, str]:
    """Return the tags of a circuit in a style.

    Parameters
    ----------
    circuit : Circuit
        With its tags as the catalogue gives them.
    style : str
        ``iec`` keeps them; ``nema`` gives the letters usual in North America.

    Returns
    -------
    mapping
        Device id to tag, no tag twice.
    """
    if style != "nema":
        return circuit.tags
    found: dict[str, str] = {}
    for item in circuit.netlist.devices:
        tag = _NEMA.get(item.id)
        if tag is None or tag in found.values():
            kind = types().get(item.type)
            if kind is None:
                tag = circuit.tags.get(item.id, item.id)
            else:
                letters = kind.letter_nema
                place = 1
                while f"{place}{letters}" in found.values():
                    place += 1
                alone = sum(other.type == item.type for other in circuit.netlist.devices) == 1
                tag = letters if alone else f"{place}{letters}"
        found[item.id] = tag
    return found
