"""Contactors, relays, timers: coils that move contacts.

Source: IEC 60947-4-1 (main poles, mirror contacts), IEC 60947-5-1 (linked
contacts), terminal numbering of IEC 60947-1 annex L.
"""

from __future__ import annotations

from evencoil.circuit.library import DeviceType, Link, Parameter, Parameters, contacts, register

__all__ = ["POLES"]

POLES = (("1L1", "2T1"), ("3L2", "4T2"), ("5L3", "6T3"))
_COIL = (
    Parameter("coil", "number", "120", "V"),
    Parameter("coil_kind", "ac|dc", "ac"),
    Parameter("inrush_va", "number", "60", "VA"),
    Parameter("sealed_va", "number", "10", "VA"),
    Parameter("coil_ohm", "number", "", "Ω"),
)


def _ends(links: tuple[Link, ...]) -> tuple[str, ...]:
    return tuple(dict.fromkeys(end for link in links for end in (link.a, link.b)))


def _contactor(parameters: Parameters) -> tuple[Link, ...]:
    poles = tuple(Link("pole", a, b, f"{a}-{b}") for a, b in POLES)
    return (*poles, Link("coil", "A1", "A2", "A1-A2"), *contacts(parameters.get("aux", "")))


def _relay(parameters: Parameters) -> tuple[Link, ...]:
    return (Link("coil", "A1", "A2", "A1-A2"), *contacts(parameters.get("aux", "")))


def _latch(parameters: Parameters) -> tuple[Link, ...]:
    return (
        Link("coil", "A1", "A2", "A1-A2"),
        Link("coil", "B1", "B2", "B1-B2"),
        *contacts(parameters.get("aux", "")),
    )


def _sdtimer(parameters: Parameters) -> tuple[Link, ...]:
    del parameters
    return (
        Link("coil", "A1", "A2", "A1-A2"),
        Link("timed_nc", "17", "18", "17-18"),
        Link("timed_no", "17", "28", "17-28"),
    )


register(
    DeviceType(
        "contactor",
        "KM",
        "M",
        "both",
        (
            *_COIL,
            Parameter("aux", "contacts", "13-14,21-22"),
            Parameter("mech", "text"),
            Parameter("tpu", "number", "", "s"),
            Parameter("tdo", "number", "", "s"),
            Parameter("ac3_a", "number", "", "A"),
            Parameter("nema_size", "text"),
        ),
        lambda given: _ends(_contactor(given)),
        _contactor,
    ),
    DeviceType(
        "relay",
        "KA",
        "CR",
        "control",
        (
            Parameter("coil", "number", "120", "V"),
            Parameter("coil_kind", "ac|dc", "ac"),
            Parameter("inrush_va", "number", "4", "VA"),
            Parameter("sealed_va", "number", "2", "VA"),
            Parameter("aux", "contacts", "13-14"),
            Parameter("tpu", "number", "", "s"),
            Parameter("tdo", "number", "", "s"),
        ),
        lambda given: _ends(_relay(given)),
        _relay,
    ),
    DeviceType(
        "latch",
        "KA",
        "CR",
        "control",
        (
            Parameter("coil", "number", "120", "V"),
            Parameter("sealed_va", "number", "2", "VA"),
            Parameter("inrush_va", "number", "4", "VA"),
            Parameter("aux", "contacts", "13-14"),
        ),
        lambda given: _ends(_latch(given)),
        _latch,
    ),
    DeviceType(
        "timer",
        "KT",
        "TR",
        "control",
        (
            Parameter("coil", "number", "120", "V"),
            Parameter("sealed_va", "number", "2", "VA"),
            Parameter("fn", "on|off", "on"),
            Parameter("t", "number", "5", "s"),
            Parameter("aux", "contacts", "15-16-18"),
        ),
        lambda given: _ends(_relay(given)),
        _relay,
    ),
    DeviceType(
        "sdtimer",
        "KT",
        "TR",
        "control",
        (
            Parameter("coil", "number", "120", "V"),
            Parameter("sealed_va", "number", "2", "VA"),
            Parameter("t", "number", "8", "s"),
            Parameter("pause", "number", "0.05", "s"),
        ),
        lambda given: _ends(_sdtimer(given)),
        _sdtimer,
    ),
)
