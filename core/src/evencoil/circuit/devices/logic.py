"""The programmable relay: supply, inputs against its common, outputs as contacts.

Source: IEC 61131-2 (inputs of type 1, relay outputs); terminal names as usual in the trade, the
two ends of an output as ``Q1_1`` and ``Q1_2``, read as Q1.1 and Q1.2.
"""

from __future__ import annotations

from functools import lru_cache

from evencoil.circuit.library import DeviceType, Link, Parameter, Parameters, register
from evencoil.circuit.netlist import Device
from evencoil.logic import Checked, LogicError, Points, looked_through

__all__ = ["commons_of", "points_of", "program_of"]


def points_of(parameters: Parameters) -> Points:
    """Return the points of a programmable relay.

    Parameters
    ----------
    parameters : mapping
        Of the device.
    """
    return Points(
        inputs=int(parameters.get("in") or 8),
        outputs=int(parameters.get("out") or 4),
        analog=int(parameters.get("analog") or 0),
    )


def commons_of(parameters: Parameters) -> tuple[str, str]:
    """Return the two supply terminals of a programmable relay, the common second.

    Parameters
    ----------
    parameters : mapping
        Of the device.
    """
    return ("+", "-") if parameters.get("supply") == "dc" else ("L", "N")


@lru_cache(maxsize=64)
def _looked_through(text: str, points: Points) -> tuple[Checked | None, tuple[LogicError, ...]]:
    return looked_through(text, points)


def program_of(item: Device) -> Checked:
    """Return the program of a programmable relay; of one without a program an empty one.

    Parameters
    ----------
    item : Device
        Of the library.

    Raises
    ------
    LogicError
        If it is none: the library refuses such a device.
    """
    text, points = item.parameters.get("program", ""), points_of(item.parameters)
    checked, wrong = _looked_through(text, points)
    if checked is None:
        raise wrong[0]
    return checked


def _links(parameters: Parameters) -> tuple[Link, ...]:
    points, (hot, common) = points_of(parameters), commons_of(parameters)
    inputs = [f"I{number + 1}" for number in range(points.inputs)]
    inputs += [f"AI{number + 1}" for number in range(points.analog)]
    outputs = [f"Q{number + 1}" for number in range(points.outputs)]
    return (
        Link("load", hot, common, f"{hot}-{common}"),
        *(Link("input", name, common, name) for name in inputs),
        *(Link("no", f"{name}_1", f"{name}_2", name) for name in outputs),
    )


def _terminals(parameters: Parameters) -> tuple[str, ...]:
    return tuple(dict.fromkeys(end for link in _links(parameters) for end in (link.a, link.b)))


def _refused(parameters: Parameters) -> LogicError | None:
    """Return what is wrong with the program of a device first; None if nothing."""
    _, wrong = _looked_through(parameters.get("program", ""), points_of(parameters))
    return wrong[0] if wrong else None


register(
    DeviceType(
        "plc",
        "KF",
        "PR",
        "control",
        (
            Parameter("in", "count", "8", "", 1, 24),
            Parameter("out", "count", "4", "", 1, 16),
            Parameter("analog", "count", "", "", 0, 4),
            Parameter("supply", "ac|dc", "ac"),
            Parameter("v", "number", "120", "V"),
            # how long an input has to hold its level, how long a scan takes [ms]
            Parameter("filter", "count", "", "ms", 0, 1000),
            Parameter("scan", "count", "10", "ms", 1, 1000),
            Parameter("program", "program"),
        ),
        _terminals,
        _links,
        refused=_refused,
    )
)
