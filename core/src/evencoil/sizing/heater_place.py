"""The overload where it lies: line, winding leg, half winding, behind transformers.

Units: current [A], time [s], percent.
Rules: NEC 430.32(A)(1) with the share of the motor's current that flows where the
heaters lie; 430.32(A)(2) integral protectors (170, 156, 140 % of table current);
430.37 (three units on three phases); trip class: NEMA and IEC, seconds at six times.
"""

from __future__ import annotations

import math
from decimal import Decimal
from typing import Literal

from evencoil.base import Step, Trail, plain, show
from evencoil.codebook import Edition, given, judged, worked
from evencoil.sizing.curves import class_time_s
from evencoil.sizing.locked_rotor import locked_rotor_name

__all__ = [
    "SHARE_PERCENT",
    "HeaterPlace",
    "acceleration_fits",
    "dial_range",
    "overload_units",
    "protector",
    "set_where_it_lies",
]

HeaterPlace = Literal["line", "leg", "half"]
SHARE_PERCENT = {"line": Decimal(100), "leg": Decimal(58), "half": Decimal(50)}
_NINE, _TWENTY = Decimal(9), Decimal(20)


def set_where_it_lies(
    place: HeaterPlace,
    *,
    ct_ratio: Decimal | None,
    capacitor_percent: Decimal | None,
    dial_has_125: bool,
    edition: Edition,
    trail: Trail,
) -> Step:
    """Return what the overload relay itself is set to.

    Parameters
    ----------
    place : str
        ``line``, ``leg`` of a delta that is started in wye, or ``half`` of a part winding.
    ct_ratio : Decimal or None
        Primary to secondary of current transformers, for example 100 : 5 is 20.
    capacitor_percent : Decimal or None
        By how much a capacitor behind the overload lowers the current through it. [percent]
    dial_has_125 : bool
        The dial shows motor amps and contains the 125 % already.
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds ``plate_amps_a`` and ``overload_setting_a``.

    Returns
    -------
    Step
        ``relay_setting_a``. [A]
    """
    base = "plate_amps_a" if dial_has_125 else "overload_setting_a"
    start = trail.number(base)
    share = SHARE_PERCENT[place]
    trip = Decimal(100)
    if dial_has_125 and start:
        trip = trail.number("overload_setting_a") / start * 100
    left = 100 - (capacitor_percent or Decimal(0))
    value = start * share / 100 * left / 100
    if ct_ratio is not None:
        value /= ct_ratio
    return worked(
        trail,
        "relay_setting_a",
        value,
        "A",
        "relay.setting_dial" if dial_has_125 else "relay.setting",
        "overload",
        edition,
        {
            "start": show(start, "limit"),
            "share": plain(share),
            "left": plain(left),
            "ratio": "1" if ct_ratio is None else show(ct_ratio),
            "trip": show(value * trip / 100, "limit"),
        },
        rounding="limit",
        uses=(base,),
    )


def dial_range(low_a: Decimal, high_a: Decimal, *, edition: Edition, trail: Trail) -> Step:
    """Return the verdict on a relay's dial.

    Parameters
    ----------
    low_a : Decimal
        Least setting. [A]
    high_a : Decimal
        Most setting. [A]
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds ``relay_setting_a``.

    Returns
    -------
    Step
        ``relay_dial``.
    """
    setting = trail.number("relay_setting_a")
    said = "above" if setting < low_a else "below" if setting > high_a else "holds"
    # a setting below what is allowed is safe, so a dial that ends lower only trips early
    return judged(
        trail,
        "relay_dial",
        "holds" if said == "holds" else "fails",
        f"{plain(low_a)} to {plain(high_a)} A",
        f"relay.dial.{said}",
        "overload",
        edition,
        {"setting": show(setting, "limit"), "low": plain(low_a), "high": plain(high_a)},
        uses=("relay_setting_a",),
    )


def acceleration_fits(
    trip_class: int, accelerates_s: Decimal, *, edition: Edition, trail: Trail
) -> Step | None:
    """Return whether a class lets the motor come up to speed, or None if no one can tell.

    Parameters
    ----------
    trip_class : int
        5, 10, 20 or 30.
    accelerates_s : Decimal
        Time to full speed. [s]
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds a locked-rotor current and ``plate_amps_a``.

    Returns
    -------
    Step or None
        ``trip_class``.
    """
    name = locked_rotor_name(trail)
    if name is None or "plate_amps_a" not in trail:
        return None
    multiple = trail.number(name) / trail.number("plate_amps_a")
    trips = class_time_s(float(multiple), trip_class, is_hot=False)
    given(trail, "accelerates_s", accelerates_s, "s")
    holds = math.isinf(trips) or float(accelerates_s) < trips
    return judged(
        trail,
        "trip_class",
        "holds" if holds else "fails",
        f"class {trip_class}",
        "relay.class.holds" if holds else "relay.class.fails",
        "overload",
        edition,
        {
            "class": str(trip_class),
            "start": plain(accelerates_s),
            "trips": f"{trips:.1f}",
            "multiple": show(multiple),
        },
        uses=(name, "plate_amps_a", "accelerates_s"),
    )


def overload_units(units: int, phases: int, *, edition: Edition, trail: Trail) -> Step:
    """Return the verdict on how many overload units there are.

    Parameters
    ----------
    units : int
        Heaters or sensors that are there.
    phases : int
        1 or 3; 0 for direct current.
    edition : int
        Edition whose sections are cited.
    trail : Trail
        The step is added to it.

    Returns
    -------
    Step
        ``overload_units``.
    """
    least = 3 if phases == 3 else 1
    holds = units >= least
    said = "holds" if holds else "two" if units == 2 else "one"
    return judged(
        trail,
        "overload_units",
        "holds" if holds else "fails",
        str(units),
        f"relay.units.{said}",
        "overload_units",
        edition,
        {"units": str(units), "least": str(least)},
        uses=("phases",),
    )


def protector(trip_a: Decimal, *, edition: Edition, trail: Trail) -> Step:
    """Return the verdict on a thermal protector that is part of the motor.

    Parameters
    ----------
    trip_a : Decimal
        Current at which it opens in the end. [A]
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds ``table_flc_a``.

    Returns
    -------
    Step
        ``protector``.
    """
    flc = trail.number("table_flc_a")
    percent = Decimal(170) if flc <= _NINE else Decimal(156) if flc <= _TWENTY else Decimal(140)
    most = flc * percent / 100
    holds = trip_a <= most
    return judged(
        trail,
        "protector",
        "holds" if holds else "fails",
        f"opens at {plain(trip_a)} A",
        "relay.protector.holds" if holds else "relay.protector.fails",
        "protector",
        edition,
        {
            "trip": plain(trip_a),
            "flc": plain(flc),
            "percent": plain(percent),
            "most": show(most, "limit"),
        },
        uses=("table_flc_a",),
    )
