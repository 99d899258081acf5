"""Tags in the two styles of naming; the id of a device never changes with them.

Source: NEMA ICS 19 and the older IEC letters, as commonly used on drawings.
"""

from __future__ import annotations

from collections.abc import Mapping
from itertools import count

from evencoil.circuit.library import types
from evencoil.circuit.text import Circuit

__all__ = ["renamed"]

#: letters of the older IEC practice, where only the contactors differ
_K = {
    "main": "K1",
    "main_2": "K2",
    "main_3": "K3",
    "forward_contactor": "K1",
    "reverse_contactor": "K2",
    "star": "K3",
    "delta": "K2",
    "transition": "K4",
    "low_contactor": "K1",
    "high_contactor": "K2",
    "bridge": "K3",
    "first_half": "K1",
    "second_half": "K2",
}

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
        ``iec`` keeps them; ``iec_k`` numbers the contactors K1, K2 and on; ``nema`` gives the
        letters usual in North America.

    Returns
    -------
    mapping
        Device id to tag, no tag twice.
    """
    if style == "iec_k":
        return _with_k(circuit)
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


def _with_k(circuit: Circuit) -> Mapping[str, str]:
    """Return the tags with contactors as K and a number: the usual one of its role if free."""
    contactors = [item.id for item in circuit.netlist.devices if item.type == "contactor"]
    found = {name: tag for name, tag in circuit.tags.items() if name not in contactors}
    for name in contactors:
        tag = _K.get(name, "")
        if tag and tag not in found.values():
            found[name] = tag
    for name in contactors:
        numbers = (f"K{place}" for place in count(1))
        if name not in found:
            found[name] = next(tag for tag in numbers if tag not in found.values())
    return found
