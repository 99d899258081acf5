"""Switches, breakers, fuses, overload relays, manual starters.

Source: IEC 60947-2, -3 and -4-1 (terminals and auxiliary positions), NEMA ICS 2.
"""

from __future__ import annotations

from evencoil.circuit.devices.relays import POLES
from evencoil.circuit.library import DeviceType, Link, Parameter, Parameters, contacts, register

__all__: list[str] = []

_PLAIN = (("1", "2"), ("3", "4"), ("5", "6"), ("7", "8"), ("9", "10"), ("11", "12"))


def _count(parameters: Parameters) -> int:
    return min(6, max(1, int(parameters.get("poles", "3") or "3")))


def _poles(parameters: Parameters) -> tuple[Link, ...]:
    return tuple(Link("pole", a, b, f"{a}-{b}") for a, b in _PLAIN[: _count(parameters)])


def _with_aux(parameters: Parameters) -> tuple[Link, ...]:
    return (*_poles(parameters), *contacts(parameters.get("aux", "")))


def _ends(links: tuple[Link, ...]) -> tuple[str, ...]:
    return tuple(dict.fromkeys(end for link in links for end in (link.a, link.b)))


def _overload(parameters: Parameters) -> tuple[Link, ...]:
    heats = POLES if parameters.get("heaters", "3") == "3" else (POLES[0], POLES[2])
    plain = () if parameters.get("heaters", "3") == "3" else (Link("pole", *POLES[1], "3L2-4T2"),)
    return (
        *(Link("heat", a, b, f"{a}-{b}") for a, b in heats),
        *plain,
        Link("nc", "95", "96", "95-96"),
        Link("no", "97", "98", "97-98"),
    )


def _overload_ends(parameters: Parameters) -> tuple[str, ...]:
    del parameters
    return ("1L1", "2T1", "3L2", "4T2", "5L3", "6T3", "95", "96", "97", "98")


def _fuse(parameters: Parameters) -> tuple[Link, ...]:
    del parameters
    return (Link("fuse", "1", "2", "1-2"),)


_HEAT = (
    Parameter("iset", "number", "10", "A"),
    Parameter("diff", "0|1", "0"),
)
register(
    DeviceType(
        "cb3",
        "QF",
        "CB",
        "power",
        (
            Parameter("a", "number", "", "A"),
            Parameter("mag", "number", "250", "A"),
            Parameter("poles", "1|2|3", "3"),
            Parameter("init", "on|off", "off"),
            Parameter("aux", "contacts"),
        ),
        lambda given: _ends(_with_aux(given)),
        _with_aux,
    ),
    DeviceType(
        "fdisc",
        "QS",
        "DISC",
        "power",
        (
            Parameter("a", "number", "30", "A"),
            Parameter("poles", "1|2|3", "3"),
            Parameter("init", "on|off", "off"),
            Parameter("aux", "contacts"),
        ),
        lambda given: _ends(_with_aux(given)),
        _with_aux,
    ),
    DeviceType(
        "isolator",
        "QS",
        "DISC",
        "power",
        (
            Parameter("poles", "1|2|3|6", "3"),
            Parameter("init", "on|off", "on"),
            Parameter("aux", "contacts"),
        ),
        lambda given: _ends(_with_aux(given)),
        _with_aux,
    ),
    DeviceType(
        "mms",
        "Q",
        "MS",
        "power",
        (*_HEAT, Parameter("mag", "number", "150", "A"), Parameter("aux", "contacts")),
        lambda given: _ends(_with_aux(given)),
        _with_aux,
    ),
    DeviceType(
        "manual",
        "Q",
        "MS",
        "power",
        (*_HEAT, Parameter("poles", "1|2|3", "2"), Parameter("init", "on|off", "off")),
        lambda given: _ends(_poles(given)),
        _poles,
    ),
    DeviceType(
        "fuse",
        "FU",
        "FU",
        "both",
        (Parameter("a", "number", "2", "A"), Parameter("class", "text")),
        lambda given: _ends(_fuse(given)),
        _fuse,
    ),
    DeviceType(
        "olr",
        "OL",
        "OL",
        "both",
        (
            *_HEAT,
            Parameter("reset", "manual|auto", "manual"),
            Parameter("heaters", "2|3", "3"),
            Parameter("class", "text"),
        ),
        _overload_ends,
        _overload,
    ),
)
