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

from evencoil.base import (
    Message,
    MissingError,
    NotInTableError,
    Step,
    Tip,
    Trail,
    plain,
    show,
)
from evencoil.codebook import Edition, rule
from evencoil.sizing.conductor import ConductorFacts, adjustment_for
from evencoil.sizing.part import fit_conductor
from evencoil.sizing.protection import DeviceKind, largest_not_above

__all__ = ["LegStart", "half_device", "leg_conductor", "leg_overload"]

_SIX = 6

LegStart = Literal["wye_delta", "part_winding"]
_AMPACITY_PERCENT = {"wye_delta": Decimal(72), "part_winding": Decimal("62.5")}
_SHARE_PERCENT = {"wye_delta": Decimal(58), "part_winding": Decimal(50)}


def leg_conductor(
    start: LegStart,
    facts: ConductorFacts,
    *,
    are_apart: bool = False,
    edition: Edition,
    trail: Trail,
) -> Step:
    """Return the smallest conductor between controller and motor leads.

    Parameters
    ----------
    start : str
        ``wye_delta`` or ``part_winding``.
    facts : ConductorFacts
        Material, insulation, number of conductors, as for the line side.
    are_apart : bool
        The six leads run in two raceways, three in each.
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
    # all six leads carry current while the motor runs
    count = facts.current_carrying if are_apart else max(facts.current_carrying, _SIX)
    factor = adjustment_for(count, edition, trail, "leg_adjustment_factor")
    return fit_conductor(
        trail,
        "leg_conductor_size",
        "leg_ampacity_a",
        facts,
        edition,
        terminal_c=int(trail.number("terminal_temperature_c")),
        factor=trail.number("ambient_factor") * factor.number,
        said="leg.size",
        subject=subject,
        uses=(
            "terminal_temperature_c",
            "ambient_factor",
            "leg_adjustment_factor",
            "conductor_material",
            "insulation",
        ),
    ).step


def half_device(kind: DeviceKind, *, edition: Edition, trail: Trail) -> Step:
    """Return the largest rating in front of each half of a part-winding motor.

    Parameters
    ----------
    kind : str
        Kind of fuse or breaker.
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds ``protection_limit_a`` and ``table_flc_a``.

    Returns
    -------
    Step
        ``half_device_a``: at most half of the limit by percentage, 430.4. [A]

    Raises
    ------
    NotInTableError
        If no standard rating is so small.
    """
    limit = trail.number("protection_limit_a") / 2
    value = limit if kind == "instantaneous_breaker" else largest_not_above(limit, kind, edition)
    if value is None:
        raise NotInTableError(
            Message("leg.no_half_device", {"limit": show(limit, "limit")}),
            field="size.protection_kind",
            hint=Message("leg.no_half_device.hint"),
        )
    most = trail.number("table_flc_a") * 3 / 2
    one = largest_not_above(most, "dual_element_fuse", edition)
    return trail.add(
        Step(
            id="half_device_a",
            value=value,
            unit="A",
            kind="calculated",
            shown=plain(value),
            working=Message(
                "leg.half_device",
                {
                    "whole": show(trail.number("protection_limit_a"), "limit"),
                    "limit": show(limit, "limit"),
                    "value": plain(value),
                },
            ),
            rule=rule("part_winding", edition),
            uses=("protection_limit_a",),
            tips=(
                Tip(
                    message=Message(
                        "leg.half_device.one",
                        {"most": show(most, "limit"), "one": "—" if one is None else plain(one)},
                    )
                ),
            ),
        )
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
