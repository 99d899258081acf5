"""Every other connection of a winding: what volts it suits, and whether the motor must be opened.

Six half-coils of a three-phase winding can be put in series or in parallel, in
wye or in delta. Some of these connections reach the leads, some need the casing
open. Poles do not change, and neither does the rotation of a given line order.

Units: volts [V], frequency [Hz], amps [A].
Source: equal volts per coil in every connection (textbook machine windings).
"""

from __future__ import annotations

from dataclasses import dataclass
from decimal import Decimal
from math import sqrt
from typing import Literal

from evencoil.base import Message, RefusedError
from evencoil.plate import Nameplate, poles_of
from evencoil.winding.coils import KINDS, Winding
from evencoil.winding.connections import run_joinings
from evencoil.winding.rating import Rating

__all__ = ["InsideChange", "inside_changes"]

_TOPOLOGIES = (
    ("parallel_delta", 1.0),
    ("parallel_wye", sqrt(3)),
    ("series_delta", 2.0),
    ("series_wye", 2 * sqrt(3)),
)
_WITHIN = 0.10


@dataclass(frozen=True, slots=True, kw_only=True)
class InsideChange:
    """One connection of the six half-coils.

    Attributes
    ----------
    place : str
        ``now`` as the nameplate has it, ``box`` by the leads that come out,
        ``opened`` only with the casing open.
    line_volts_v : float
        That give each half its rated volts. [V]
    volts_per_hertz : float
        Of those line volts.
    amps_a : float or None
        At the same power; None where the nameplate gives no amps. [A]
    poles : int or None
        Unchanged; None where speed or frequency is not known.
    percent : float or None
        Of rated volts that each half gets on the supply given.
    suits : bool
        Whether that supply is within 10 %.
    needs_polarity : bool
        Whether halves come in parallel, so that each half's sense must be
        proven by induction first; resistance cannot see it.
    labels : tuple of str
        Leads that must be brought out and marked, or taken away.
    """

    name: str
    place: Literal["now", "box", "opened"]
    line_volts_v: float
    volts_per_hertz: float | None
    amps_a: float | None
    poles: int | None
    percent: float | None
    suits: bool
    needs_polarity: bool
    labels: tuple[str, ...]


def inside_changes(
    winding: Winding, rating: Rating, plate: Nameplate, supply_v: Decimal | None
) -> tuple[InsideChange, ...]:
    """Return every connection of the half-coils, for the supply given or any other.

    Parameters
    ----------
    winding : Winding
        Three-phase, one speed.
    rating : Rating
        What the nameplate makes it for.
    plate : Nameplate
        Amps, speed and frequency.
    supply_v : Decimal or None
        Volts between the lines of the supply in mind. [V]

    Returns
    -------
    tuple of InsideChange
        From the lowest line volts to the highest.

    Raises
    ------
    RefusedError
        If the winding has two speeds or one phase: its coils serve other ends.
    """
    if winding.is_two_speed or winding.phases == 1 or winding.kind == "part-winding":
        raise RefusedError(
            Message("inside.kind", {"kind": str(Message(f"kind_name.{winding.kind}"))}),
            field="leads.winding",
            hint=Message("inside.kind.hint"),
        )
    here = {known.name for known in run_joinings(winding.kind)}
    if winding.halves == 1:
        # whole phases: as they are, taken as two halves in series inside
        here = {f"series_{name}" for name in here}
    stamped = {name if "_" in name else f"series_{name}" for name in rating.stamped}
    known = run_joinings(winding.kind)[0]
    half_v = rating.line_band(known)[1] / known.factor / (2 if winding.halves == 1 else 1)
    hertz = float(plate.frequency_hz[0]) if plate.frequency_hz else None
    poles = (
        poles_of(plate.speed_rpm[0], plate.frequency_hz[0])
        if plate.speed_rpm and plate.frequency_hz
        else None
    )
    base = _amps(plate)
    found = []
    for name, factor in _TOPOLOGIES:
        line = half_v * factor
        place: Literal["now", "box", "opened"] = (
            "now" if name in stamped else "box" if name in here else "opened"
        )
        percent = None if supply_v is None else float(supply_v) / line * 100
        found.append(
            InsideChange(
                name=name,
                place=place,
                line_volts_v=line,
                volts_per_hertz=None if hertz is None else line / hertz,
                amps_a=None if base is None else base[0] * base[1] / line,
                poles=poles,
                percent=percent,
                suits=percent is not None and abs(percent - 100) <= _WITHIN * 100,
                needs_polarity=name.startswith("parallel") and place == "opened",
                labels=_labels(winding) if place == "opened" else (),
            )
        )
    return tuple(found)


def _amps(plate: Nameplate) -> tuple[float, float] | None:
    """Return amps and line volts of the highest column [A], [V]."""
    if not plate.amps_a or len(plate.amps_a) != len(plate.volts_v):
        return None
    at = max(range(len(plate.volts_v)), key=lambda place: plate.volts_v[place].high)
    return float(plate.amps_a[at].high), float(plate.volts_v[at].high)


def _labels(winding: Winding) -> tuple[str, ...]:
    """Return the leads of a twelve-lead winding that this motor does not bring out."""
    return tuple(lead for lead in KINDS["12"].leads if lead not in winding.leads)
