"""Motors: their terminals are their leads, their inside is a table of coils.

The types with a fixed kind serve circuits that have no plate; `motor` takes
its kind from the Leads step. Source: NEMA MG 1 part 2 terminal marking.
"""

from __future__ import annotations

from evencoil.circuit.library import DeviceType, Link, Parameter, Parameters, register
from evencoil.winding import Coil, Winding, winding_of

__all__ = ["ALIASES", "coils_of", "winding_of_type"]

_RATING = (
    Parameter("v", "number", "", "V"),
    Parameter("fla", "number", "10", "A"),
    Parameter("r", "number", "1.0", "Ω"),
    Parameter("hp", "number", "", "hp"),
)
ALIASES = {
    "motor3": {"T1": "U1", "T2": "V1", "T3": "W1"},
    "motor6": {"T1": "U1", "T2": "V1", "T3": "W1", "T4": "U2", "T5": "V2", "T6": "W2"},
}
_KINDS = {
    "motor3": "3-wye",
    "motor6": "6",
    "motorpw": "part-winding",
    "motor2w": "2-speed-2-winding",
    "motor1": "1-phase",
}
_TWO_SPEED = {"ct": "2-speed-ct", "vt": "2-speed-vt", "cp": "2-speed-cp"}


def winding_of_type(kind: str, parameters: Parameters) -> Winding:
    """Return the winding of a motor type.

    Parameters
    ----------
    kind : str
        ``motor3`` ... or ``motor``.
    parameters : mapping
        With ``kind`` for `motor`, ``type`` for `motor2s`.

    Returns
    -------
    Winding
        The coils, with leads as T numbers.
    """
    if kind == "motor2s":
        return winding_of(_TWO_SPEED[parameters.get("type", "ct")])
    return winding_of(_KINDS.get(kind) or parameters.get("kind", "3-wye"))


def coils_of(kind: str, parameters: Parameters) -> tuple[Coil, ...]:
    """Return the coils with their ends named as the device's terminals are.

    Parameters
    ----------
    kind : str
        Device type.
    parameters : mapping
        Its parameters.
    """
    names = ALIASES.get(kind, {})
    return tuple(
        Coil(
            coil.name,
            names.get(coil.start, coil.start),
            names.get(coil.end, coil.end),
            coil.axis_deg,
            coil.turns,
            coil.low_axis_deg,
            coil.field,
        )
        for coil in winding_of_type(kind, parameters).coils
    )


def _leads(kind: str, parameters: Parameters) -> tuple[str, ...]:
    names = ALIASES.get(kind, {})
    return tuple(names.get(lead, lead) for lead in winding_of_type(kind, parameters).leads)


#: the grounding terminal of a motor's frame
FRAME = "PE"


def _type(kind: str, *more: Parameter) -> DeviceType:
    return DeviceType(
        kind,
        "M",
        "MTR",
        "power",
        (*_RATING, *more),
        lambda given: (*_leads(kind, given), FRAME),
        lambda given: tuple(
            Link("winding", coil.start, coil.end, coil.name) for coil in coils_of(kind, given)
        ),
    )


register(
    *(_type(kind) for kind in _KINDS),
    _type("motor2s", Parameter("type", "ct|vt|cp", "ct")),
    _type(
        "motor",
        Parameter("kind", "text", "3-wye"),
        Parameter("coil_v", "number", "", "V"),
        Parameter("coil_low_v", "number", "", "V"),
    ),
)
