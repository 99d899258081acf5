"""Pilot devices and protective relays that watch a motor or a supply.

Source: IEC 60034-11 and IEC 60947-8 (thermistors), IEC 60751 (RTDs), NEMA MG 1
2.67 (thermostat leads P1, P2), IEC 60034-8 (resistance thermometer leads R1 to R3).
"""

from __future__ import annotations

from evencoil.circuit.library import DeviceType, Link, Parameter, Parameters, contacts, register

__all__: list[str] = []

_COIL = (Parameter("coil", "number", "120", "V"), Parameter("sealed_va", "number", "2", "VA"))

_ELEMENT = Parameter("element", "Pt100|Pt1000|Ni120|Cu10", "Pt100")


def _ends(links: tuple[Link, ...]) -> tuple[str, ...]:
    return tuple(dict.fromkeys(end for link in links for end in (link.a, link.b)))


def _listed(parameters: Parameters) -> tuple[Link, ...]:
    return contacts(parameters.get("c", ""))


def _speed(parameters: Parameters) -> tuple[Link, ...]:
    del parameters
    return contacts("13-14,23-24,11-12,21-22")


def _thermostat(parameters: Parameters) -> tuple[Link, ...]:
    a, b = parameters.get("c", "P1-P2").split("-")[:2]
    kind = parameters.get("fn", "nc")
    return (Link("no" if kind == "no" else "nc", a, b, f"{a}-{b}"),)


def _ptc_relay(parameters: Parameters) -> tuple[Link, ...]:
    del parameters
    return (
        Link("coil", "A1", "A2", "A1-A2"),
        Link("sensor", "T1", "T2", "T1-T2"),
        *contacts("11-12-14"),
    )


def _rtd(parameters: Parameters) -> tuple[Link, ...]:
    """Return the element between R1 and R2; R3 is the second lead of R2."""
    del parameters
    return (Link("sensor", "R1", "R2", "R1-R2"), Link("sensor", "R2", "R3", "R2-R3"))


def _rtd_monitor(parameters: Parameters) -> tuple[Link, ...]:
    del parameters
    return (
        Link("coil", "A1", "A2", "A1-A2"),
        Link("sensor", "T1", "T2", "T1-T2"),
        Link("sensor", "T2", "T3", "T2-T3"),
        *contacts("11-12-14,21-22-24"),
    )


def _ground_fault(parameters: Parameters) -> tuple[Link, ...]:
    del parameters
    return (Link("coil", "A1", "A2", "A1-A2"), *contacts("11-12-14"))


def _phase_monitor(parameters: Parameters) -> tuple[Link, ...]:
    del parameters
    return contacts("11-12-14")


register(
    DeviceType(
        "pilot",
        "PS",
        "PS",
        "control",
        (
            Parameter("c", "contacts", "13-14"),
            Parameter("senses", "text", "pressure"),
            Parameter("legend", "text"),
        ),
        lambda given: _ends(_listed(given)),
        _listed,
    ),
    DeviceType(
        "zss",
        "ZSS",
        "ZSS",
        "control",
        (Parameter("motor", "tag"),),
        lambda given: _ends(_speed(given)),
        _speed,
    ),
    DeviceType(
        "thermostat",
        "TH",
        "TH",
        "control",
        (
            Parameter("motor", "tag"),
            # 9999: on something the model does not heat, worked by hand only
            Parameter("t", "number", "145", "°C", -60, 9999),
            Parameter("fn", "nc|no", "nc"),
            Parameter("c", "contact", "P1-P2"),
        ),
        lambda given: _ends(_thermostat(given)),
        _thermostat,
    ),
    DeviceType(
        "ptc",
        "BT",
        "BT",
        "control",
        (Parameter("motor", "tag"), Parameter("t", "number", "150", "°C")),
        lambda given: ("TP1", "TP2"),
        lambda given: (Link("sensor", "TP1", "TP2", "TP1-TP2"),),
    ),
    DeviceType(
        "ptcrelay",
        "PR",
        "TPR",
        "control",
        (*_COIL, Parameter("reset", "manual|auto", "manual")),
        lambda given: ("A1", "A2", "T1", "T2", "11", "12", "14"),
        _ptc_relay,
    ),
    DeviceType(
        "rtd",
        "RT",
        "RTD",
        "control",
        (Parameter("motor", "tag"), _ELEMENT),
        lambda given: _ends(_rtd(given)),
        _rtd,
    ),
    DeviceType(
        "rtdmon",
        "RM",
        "RTM",
        "control",
        (
            *_COIL,
            Parameter("motor", "tag"),
            _ELEMENT,
            Parameter("alarm", "number", "130", "°C"),
            Parameter("trip", "number", "155", "°C"),
        ),
        lambda given: ("A1", "A2", "T1", "T2", "T3", "11", "12", "14", "21", "22", "24"),
        _rtd_monitor,
    ),
    DeviceType(
        "phasemon",
        "PM",
        "PFR",
        "control",
        (
            Parameter("v", "number", "", "V"),
            # percent of rated volts below and above which it trips; empty above is not watched
            Parameter("under", "count", "85", "%", 40, 99),
            Parameter("over", "count", "", "%", 101, 140),
            # negative over positive sequence
            Parameter("unbalance", "count", "8", "%", 2, 30),
            Parameter("trip_s", "number", "0.1", "s", 0, 30),
            Parameter("close_s", "number", "0.3", "s", 0, 600),
            # watches the sequence (1), or takes either (0)
            Parameter("order", "0|1", "1"),
        ),
        lambda given: ("L1", "L2", "L3", "11", "12", "14"),
        _phase_monitor,
    ),
    DeviceType(
        "gfr",
        "FR",
        "GFR",
        "control",
        (
            *_COIL,
            # whose conductors pass its window, and what of their sum trips it
            Parameter("around", "tag"),
            Parameter("a", "number", "5", "A", 0.01, 1200),
            Parameter("t", "number", "0.1", "s", 0, 10),
            Parameter("reset", "manual|auto", "manual"),
        ),
        lambda given: ("A1", "A2", "11", "12", "14"),
        _ground_fault,
    ),
)
