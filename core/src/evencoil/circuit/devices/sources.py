"""Supplies, transformers, rectifiers, terminal blocks, joints.

Source: IEC 61558 and NEMA ST 1 (H1 to H4, X1 to X4), NEMA ICS 19.
"""

from __future__ import annotations

import cmath
import itertools
from math import pi, sqrt

from evencoil.circuit.library import DeviceType, Link, Parameter, Parameters, register
from evencoil.circuit.netlist import Device

__all__ = ["line_phasors", "primary_taps", "taps_of"]


def line_phasors(supply: Device) -> dict[str, complex]:
    """Return the volts of each line and of N and PE to ground, as phasors [V].

    Parameters
    ----------
    supply : Device
        Of type ``supply``: its volts between lines and its system.

    Returns
    -------
    dict
        A delta and an ungrounded system float: their lines are given about the middle.
    """
    line_v = float(supply.parameters.get("v") or 480)
    ground = {"N": 0j, "PE": 0j}
    if supply.parameters.get("split") == "1":
        return {"L1": complex(line_v / 2), "L2": complex(-line_v / 2), **ground}
    volts = [line_v / sqrt(3) * cmath.exp(-2j * pi / 3 * place) for place in range(3)]
    system = supply.parameters.get("system", "wye")
    middle = {"corner": volts[1], "high_leg": (volts[0] + volts[2]) / 2}.get(system, 0j)
    lines = (one for one in ("L1", "L2", "L3") if one in supply.terminals)
    return {**dict(zip(lines, (volt - middle for volt in volts), strict=False)), **ground}


def primary_taps(parameters: Parameters) -> dict[str, float]:
    """Return the taps of a transformer with one tapped primary: terminal to volts from H1 [V].

    Parameters
    ----------
    parameters : mapping
        ``taps`` as read off its plate, in rising volts, for example ``208,240,480``; without it
        the primary is two equal windings and there are no taps.
    """
    read = {part.strip() for part in parameters.get("taps", "").split(",")}
    volts = sorted(int(part) for part in read if part.isdigit() and int(part) > 0)
    return {f"H{place}": float(one) for place, one in enumerate(volts, 2)}


def _transformer(parameters: Parameters) -> tuple[Link, ...]:
    secondary = Link("secondary", "X1", "X2", "X1-X2")
    taps = primary_taps(parameters)
    if taps:
        pairs = itertools.pairwise(("H1", *taps))
        return (*(Link("primary", low, high, f"{low}-{high}") for low, high in pairs), secondary)
    return (
        Link("primary", "H1", "H2", "H1-H2"),
        Link("primary", "H3", "H4", "H3-H4"),
        secondary,
    )


def _transformer_ends(parameters: Parameters) -> tuple[str, ...]:
    taps = primary_taps(parameters)
    return ("H1", *(taps or ("H2", "H3", "H4")), "X1", "X2")


def _legs(parameters: Parameters) -> str:
    return parameters.get("legs", "ABC") or "ABC"


def taps_of(parameters: Parameters) -> tuple[str, ...]:
    """Return the taps of an autotransformer in rising order, both ends among them [percent].

    Parameters
    ----------
    parameters : mapping
        ``taps`` as read off its plate, for example ``50,65,80``; whole percents from 1 to 99.
    """
    read = {part.strip() for part in parameters.get("taps", "").split(",")}
    whole = {int(part) for part in read if part.isdigit() and 0 < int(part) < 100}
    return ("0", *map(str, sorted(whole)), "100")


def _auto(parameters: Parameters) -> tuple[Link, ...]:
    return tuple(
        Link("winding", f"{leg}{low}", f"{leg}{high}", f"{leg}{low}-{leg}{high}")
        for leg in _legs(parameters)
        for low, high in itertools.pairwise(taps_of(parameters))
    )


def _supply_ends(parameters: Parameters) -> tuple[str, ...]:
    if parameters.get("split") == "1":
        return ("L1", "L2", "N", "PE")
    return ("L1", "L2", "L3", "N", "PE")


def _numbered(parameters: Parameters) -> tuple[str, ...]:
    count = min(40, max(1, int(parameters.get("n", "1") or "1")))
    return tuple(str(number) for number in range(1, count + 1))


register(
    DeviceType(
        "supply",
        "SUP",
        "SUP",
        "power",
        (
            Parameter("v", "number", "480", "V"),
            Parameter("split", "0|1", "0"),
            Parameter("system", "wye|delta|corner|high_leg|ungrounded", "wye"),
            Parameter("fault_ka", "number", "50", "kA"),
            Parameter("hz", "50|60", "60", "Hz"),
        ),
        _supply_ends,
        lambda given: (),
        4,
    ),
    DeviceType(
        "source",
        "SUP",
        "SUP",
        "control",
        (Parameter("v", "number", "120", "V"), Parameter("kind", "ac|dc", "ac")),
        lambda given: ("L", "N"),
        lambda given: (Link("source", "L", "N", "L-N"),),
        4,
    ),
    DeviceType(
        "xfmr",
        "T",
        "CPT",
        "both",
        (
            Parameter("prim", "number", "240", "V"),
            # volts of each tap from H1; empty is two equal windings of ``prim``
            Parameter("taps", "numbers", "", "V"),
            Parameter("sec", "number", "120", "V"),
            Parameter("va", "number", "", "VA"),
        ),
        _transformer_ends,
        _transformer,
        3,
    ),
    DeviceType(
        "autox",
        "TA",
        "AT",
        "power",
        (
            Parameter("legs", "ABC|AC", "ABC"),
            Parameter("taps", "numbers", "50,65,80", "%"),
            Parameter("v", "number", "480", "V"),
            # reactance of a whole leg at no load; empty is that of the constant set
            Parameter("mag", "number", "", "Ω"),
        ),
        lambda given: tuple(f"{leg}{tap}" for leg in _legs(given) for tap in taps_of(given)),
        _auto,
        3,
    ),
    DeviceType(
        "psu",
        "PSU",
        "PS",
        "control",
        (Parameter("v", "number", "120", "V"), Parameter("vdc", "number", "24", "V")),
        lambda given: ("L", "N", "+", "-"),
        lambda given: (Link("load", "L", "N", "L-N"), Link("source", "+", "-", "+--")),
    ),
    DeviceType(
        "rect",
        "VB",
        "REC",
        "both",
        (Parameter("v", "number", "120", "V"), Parameter("vdc", "number", "108", "V")),
        lambda given: ("~1", "~2", "+", "-"),
        lambda given: (Link("rectifier", "~1", "~2", "~1-~2"), Link("source", "+", "-", "+--")),
    ),
    DeviceType(
        "resistor",
        "R",
        "R",
        "power",
        (Parameter("r", "number", "20", "Ω"),),
        lambda given: ("1", "2"),
        lambda given: (Link("resistor", "1", "2", "1-2"),),
    ),
    DeviceType(
        "tb",
        "X",
        "TB",
        "both",
        (Parameter("n", "count", "1", "", 1, 40),),
        _numbered,
        lambda given: (),
    ),
    # where a traced wire goes on and no one knows where to
    DeviceType("unknown_end", "?", "?", "both", (), lambda given: ("?",), lambda given: ()),
)
