"""Operators and pilot lights.

Source: IEC 60947-5-1 (control circuit devices), IEC 60947-5-5 (emergency
stop), NFPA 79 and IEC 60204-1 (functions and colors).
"""

from __future__ import annotations

from dataclasses import replace

from evencoil.circuit.library import DeviceType, Link, Parameter, Parameters, contacts, register

__all__: list[str] = []


def _listed(parameters: Parameters) -> tuple[Link, ...]:
    return contacts(parameters.get("c", ""))


def _ends(links: tuple[Link, ...]) -> tuple[str, ...]:
    return tuple(dict.fromkeys(end for link in links for end in (link.a, link.b)))


def _lamp(parameters: Parameters) -> tuple[Link, ...]:
    links: tuple[Link, ...] = (Link("lamp", "X1", "X2", "X1-X2"),)
    if parameters.get("ptt") == "1":
        links = (*links, Link("lamp", "T", "X2", "T-X2"))
    return links


def _two(kind: str, a: str, b: str, **more: str) -> DeviceType:
    link = Link("load", a, b, f"{a}-{b}")
    return DeviceType(
        kind,
        more["iec"],
        more["nema"],
        "control",
        (Parameter("v", "number", "120", "V"), Parameter("va", "number", more["va"], "VA")),
        lambda given: (a, b),
        lambda given: (link,),
    )


def _drum(parameters: Parameters) -> tuple[Link, ...]:
    return tuple(replace(link, kind="pole") for link in _listed(parameters))


register(
    # drum and cam switches: a handle, and poles that close in some of its positions
    DeviceType(
        "drum",
        "Q",
        "DS",
        "power",
        (
            Parameter("pos", "words", "OFF,ON"),
            Parameter("init", "text", "OFF"),
            Parameter("c", "contacts", "1-2:ON"),
            Parameter("legend", "text"),
        ),
        lambda given: _ends(_drum(given)),
        _drum,
        3,
    ),
    DeviceType(
        "pb",
        "S",
        "PB",
        "control",
        (Parameter("c", "contacts", "13-14"), Parameter("legend", "text")),
        lambda given: _ends(_listed(given)),
        _listed,
    ),
    DeviceType(
        "estop",
        "ES",
        "ES",
        "control",
        (Parameter("c", "contacts", "11-12"), Parameter("legend", "text")),
        lambda given: _ends(_listed(given)),
        _listed,
    ),
    DeviceType(
        "sel",
        "SS",
        "SS",
        "control",
        (
            Parameter("pos", "words", "OFF,ON"),
            Parameter("init", "text"),
            Parameter("c", "contacts", "13-14:ON"),
            Parameter("legend", "text"),
        ),
        lambda given: _ends(_listed(given)),
        _listed,
    ),
    DeviceType(
        "lamp",
        "H",
        "LT",
        "control",
        (
            Parameter("v", "number", "120", "V"),
            Parameter("va", "number", "2.5", "VA"),
            Parameter("ptt", "0|1", "0"),
            Parameter("kind", "led|filament", "led"),
            Parameter("legend", "text"),
            Parameter("color", "text"),
        ),
        lambda given: _ends(_lamp(given)),
        _lamp,
    ),
    _two("solenoid", "A1", "A2", iec="YV", nema="SOL", va="20"),
    _two("heater", "H1", "H2", iec="EH", nema="HTR", va="50"),
    _two("horn", "X1", "X2", iec="HA", nema="AN", va="10"),
)
