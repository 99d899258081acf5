"""Taking the leads of a resistance thermometer off a reading.

Leads a and b hang on one end of the element, c and d on the other.

Units: [ohm].
Source: two-, three- and four-wire measurement (textbook topic).
"""

from __future__ import annotations

from dataclasses import dataclass

from evencoil.base import Message, MissingError

__all__ = ["LeadReadings", "element_ohms"]


@dataclass(frozen=True, slots=True, kw_only=True)
class LeadReadings:
    """Readings between the leads; None where not read [ohm].

    Attributes
    ----------
    wires : int
        2, 3 or 4.
    ac, bc, ad, bd : float or None
        Through the element. [ohm]
    ab, cd : float or None
        Between like wires: near zero. [ohm]
    loop : float or None
        Of two wires joined at the far end, or by their length. [ohm]
    """

    wires: int
    ac: float
    bc: float | None = None
    ad: float | None = None
    bd: float | None = None
    ab: float | None = None
    cd: float | None = None
    loop: float | None = None


def element_ohms(read: LeadReadings) -> tuple[float, str]:
    """Return the ohms of the element alone, and how they were found [ohm].

    Parameters
    ----------
    read : LeadReadings
        Readings between the leads [ohm].

    Raises
    ------
    MissingError
        If a reading is missing without which the leads cannot be taken off.
    """
    if read.wires == 2:
        loop = _needed(read.loop, "loop")
        return read.ac - loop, f"{read.ac:g} - {loop:g}"
    if read.wires == 3:
        like = _needed(read.ab, "ab")
        if read.bc is None:
            return read.ac - like, f"{read.ac:g} - {like:g}"
        found = (read.ac + read.bc) / 2 - like
        return found, f"({read.ac:g} + {read.bc:g}) / 2 - {like:g}"
    bc, ad, bd = _needed(read.bc, "bc"), _needed(read.ad, "ad"), _needed(read.bd, "bd")
    ab, cd = _needed(read.ab, "ab"), _needed(read.cd, "cd")
    found = (read.ac + ad + bc + bd) / 4 - (ab + cd) / 2
    said = f"({read.ac:g} + {ad:g} + {bc:g} + {bd:g}) / 4 - ({ab:g} + {cd:g}) / 2"
    return found, said


def _needed(value: float | None, name: str) -> float:
    if value is None:
        raise MissingError(
            Message("sensor.reading", {"name": name}),
            field=name,
            hint=Message("sensor.reading.hint"),
        )
    return value
