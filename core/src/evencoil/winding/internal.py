"""Every other connection of a winding: what volts it suits, and whether the motor must be opened.

Six half-coils of a three-phase winding can be put in series or in parallel, in
wye or in delta. Some of these connections reach the leads, some need the casing
open. With one speed the poles do not change, and neither does the rotation of a given line
order. One winding of two speeds can be reconnected for one of its two numbers of poles; two
windings each by themselves. Their rotation is proven by a bump.

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
from evencoil.winding.connections import Connection, Speed, run_joinings
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
        None where speed or frequency is not known.
    speed : str
        ``low`` or ``high`` of a two-speed winding, which then runs at that speed alone.
    note : Message or None
        What else must be so.
    keeps_rotation : bool
        Whether a line order turns it as before; else a bump shows it.
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
    speed: Speed = ""
    keeps_rotation: bool = True
    note: Message | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class _HalfCoils:
    """Six half-coils that work at one speed, and how they are joined now.

    ``half_v`` are the rated volts of one half [V]; ``now`` and ``box`` the topologies that the
    nameplate and the leads have.
    """

    half_v: float
    now: frozenset[str]
    box: frozenset[str]
    speed: Speed = ""
    rpm: Decimal | None = None
    amps: tuple[float, float] | None = None


#: what the named connections of two speeds and of part winding are, of six half-coils
_TOPOLOGY_OF = {
    "low_delta": "series_delta",
    "high_delta": "series_delta",
    "low_wye": "series_wye",
    "low_double_wye": "parallel_wye",
    "high_double_wye": "parallel_wye",
    "part_winding_run": "parallel_wye",
    "low_winding": "series_wye",
    "high_winding": "series_wye",
}


def _topology(known: Connection) -> str:
    """Return a connection as one of the four; whole phases count as two halves in series."""
    name = known.name.removesuffix("_crossed")
    return _TOPOLOGY_OF.get(name, name if "_" in name else f"series_{name}")


def _half_volts(winding: Winding, known: Connection, rating: Rating) -> float:
    """Return the rated volts of one half in a connection that the nameplate gives volts for [V]."""
    whole = winding.halves == 1 or winding.kind == "2-speed-2-winding"
    return rating.line_band(known)[1] / known.factor / (2 if whole else 1)


def _sets(winding: Winding, rating: Rating, plate: Nameplate) -> list[_HalfCoils]:
    """Return the half-coils of each speed; one set where the winding has one speed."""
    runs = run_joinings(winding.kind)
    if not winding.is_two_speed:
        stamped = {_topology(known) for known in runs if known.name in rating.stamped}
        return [
            _HalfCoils(
                half_v=_half_volts(winding, runs[0], rating),
                now=frozenset(stamped),
                box=frozenset(map(_topology, runs)),
                rpm=next(iter(plate.speed_rpm), None),
                amps=_amps(plate),
            )
        ]
    rpm = sorted(plate.speed_rpm)
    places = {"low": 0, "high": -1}
    return [
        _HalfCoils(
            half_v=_half_volts(winding, known, rating),
            now=frozenset({_topology(known)}),
            box=frozenset(),
            speed=known.speed,
            rpm=rpm[places[known.speed]] if len(rpm) == 2 and known.speed else None,
            amps=_speed_amps(plate, known.speed, rating.line_band(known)[1]),
        )
        for known in runs
    ]


def inside_changes(
    winding: Winding, rating: Rating, plate: Nameplate, supply_v: Decimal | None
) -> tuple[InsideChange, ...]:
    """Return every connection of the half-coils, for the supply given or any other.

    Parameters
    ----------
    winding : Winding
        Three-phase.
    rating : Rating
        What the nameplate makes it for.
    plate : Nameplate
        Amps, speed and frequency.
    supply_v : Decimal or None
        Volts between the lines of the supply in mind. [V]

    Returns
    -------
    tuple of InsideChange
        By speed, each from the lowest line volts to the highest.

    Raises
    ------
    RefusedError
        If the winding has one phase: its coils serve other ends.
    """
    if winding.phases == 1:
        raise RefusedError(
            Message("inside.kind", {"kind": str(Message(f"kind_name.{winding.kind}"))}),
            field="leads.winding",
            hint=Message("inside.kind.hint"),
        )
    hertz = plate.frequency_hz[0] if plate.frequency_hz else None
    return tuple(
        _change(winding, coils, name, factor, hertz, supply_v)
        for coils in _sets(winding, rating, plate)
        for name, factor in _TOPOLOGIES
    )


def _change(
    winding: Winding,
    coils: _HalfCoils,
    name: str,
    factor: float,
    hertz: Decimal | None,
    supply_v: Decimal | None,
) -> InsideChange:
    """Return one connection of a set of half-coils."""
    line = coils.half_v * factor
    place: Literal["now", "box", "opened"] = (
        "now" if name in coils.now else "box" if name in coils.box else "opened"
    )
    percent = None if supply_v is None else float(supply_v) / line * 100
    is_opened = place == "opened"
    return InsideChange(
        name=name,
        place=place,
        line_volts_v=line,
        volts_per_hertz=None if hertz is None else line / float(hertz),
        amps_a=None if coils.amps is None else coils.amps[0] * coils.amps[1] / line,
        poles=None if coils.rpm is None or hertz is None else poles_of(coils.rpm, hertz),
        percent=percent,
        suits=percent is not None and abs(percent - 100) <= _WITHIN * 100,
        needs_polarity=name.startswith("parallel") and is_opened,
        labels=_labels(winding) if is_opened else (),
        speed=coils.speed,
        keeps_rotation=not (coils.speed and is_opened),
        note=_note(winding, name) if is_opened else None,
    )


def _note(winding: Winding, name: str) -> Message | None:
    """Say what a change of a two-speed winding needs besides its joints."""
    if winding.kind == "2-speed-2-winding":
        # a closed delta at rest is a short circuit for what the running winding induces
        return Message("inside.idle_delta") if name.endswith("delta") else None
    return Message("inside.one_speed_left") if winding.is_two_speed else None


def _speed_amps(plate: Nameplate, speed: str, line_v: float) -> tuple[float, float] | None:
    """Return amps of a speed and their line volts [A], [V], as stamped beside its rpm."""
    if len(plate.amps_a) != 2 or len(plate.speed_rpm) != 2:
        return None
    wanted = min(plate.speed_rpm) if speed == "low" else max(plate.speed_rpm)
    return float(plate.amps_a[plate.speed_rpm.index(wanted)].high), line_v


def _amps(plate: Nameplate) -> tuple[float, float] | None:
    """Return amps and line volts of the highest column [A], [V]."""
    if not plate.amps_a or len(plate.amps_a) != len(plate.volts_v):
        return None
    at = max(range(len(plate.volts_v)), key=lambda place: plate.volts_v[place].high)
    return float(plate.amps_a[at].high), float(plate.volts_v[at].high)


def _labels(winding: Winding) -> tuple[str, ...]:
    """Return the leads of a twelve-lead winding that this motor does not bring out."""
    if winding.is_two_speed:
        # its leads are marked for two speeds; reconnected for one it is marked anew
        return KINDS["12"].leads
    return tuple(lead for lead in KINDS["12"].leads if lead not in winding.leads)
