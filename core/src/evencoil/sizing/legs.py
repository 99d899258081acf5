"""Conductors and overloads that carry a part of the motor's current.

Between a wye-start delta-run controller and the motor each of the six leads
carries the winding current; behind a part-winding controller each set carries
half.

Units: current [A].
Rules: NEC 430.22(C) (58 % times 125 % is 72 %), 430.22(D) (50 % times 125 % is
62.5 %), 430.32 for an overload where the heaters lie.
"""

from __future__ import annotations

from decimal import Decimal
from typing import Literal

from evencoil.base import Message, MissingError, Step, Trail, plain, show
from evencoil.codebook import Edition, rule
from evencoil.sizing.conductor import ConductorFacts
from evencoil.sizing.part import part_conductor

__all__ = ["LegStart", "leg_conductor", "leg_overload"]

LegStart = Literal["wye_delta", "part_winding"]
_AMPACITY_PERCENT = {"wye_delta": Decimal(72), "part_winding": Decimal("62.5")}
_SHARE_PERCENT = {"wye_delta": Decimal(58), "part_winding": Decimal(50)}


def leg_conductor(
    start: LegStart, facts: ConductorFacts, *, edition: Edition, trail: Trail
) -> Step:
    """Return the smallest conductor between controller and motor leads.

    Parameters
    ----------
    start : str
        ``wye_delta`` or ``part_winding``.
    facts : ConductorFacts
        Material, insulation, number of conductors, as for the line side.
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds ``table_flc_a``, ``terminal_temperature_c`` and the factors.

    Returns
    -------
    Step
        ``leg_conductor_size``, with ``leg_ampacity_a`` before it.

    Raises
    ------
    NotInTableError
        If one conductor cannot carry the current.
    """
    flc = trail.number("table_flc_a")
    percent = _AMPACITY_PERCENT[start]
    needed = flc * percent / 100
    params = {
        "flc": plain(flc),
        "percent": plain(percent),
        "share": plain(_SHARE_PERCENT[start]),
        "value": plain(needed),
    }
    subject = f"leg_{start}"
    trail.add(
        Step(
            id="leg_ampacity_a",
            value=needed,
            unit="A",
            kind="calculated",
            shown=show(needed, "minimum"),
            working=Message("leg.ampacity", params),
            rule=rule(subject, edition),
            uses=("table_flc_a",),
        )
    )
    return part_conductor(
        trail,
        "leg_conductor_size",
        "leg_ampacity_a",
        facts,
        edition,
        said="leg.size",
        subject=subject,
        uses=("conductor_material", "insulation"),
    )


def leg_overload(start: LegStart, *, edition: Edition, trail: Trail) -> Step:
    """Return the overload setting where the heaters carry a part of the current.

    Parameters
    ----------
    start : str
        ``wye_delta``: heaters in the winding legs, 58 %; ``part_winding``: one
        overload for each half, 50 %.
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds ``overload_setting_a`` for the whole current.

    Returns
    -------
    Step
        ``leg_overload_setting_a``. [A]

    Raises
    ------
    MissingError
        If the setting for the whole current is not known.
    """
    if "overload_setting_a" not in trail:
        raise MissingError(
            Message("overload.no_amps"), field="amps_a", hint=Message("overload.no_amps.hint")
        )
    whole, share = trail.number("overload_setting_a"), _SHARE_PERCENT[start]
    value = whole * share / 100
    return trail.add(
        Step(
            id="leg_overload_setting_a",
            value=value,
            unit="A",
            kind="calculated",
            shown=show(value, "limit"),
            working=Message(
                f"leg.overload_{start}",
                {"whole": show(whole, "limit"), "share": plain(share), "value": plain(value)},
            ),
            rule=rule("overload", edition),
            uses=("overload_setting_a",),
        )
    )
