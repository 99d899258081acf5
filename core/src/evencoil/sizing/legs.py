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

from evencoil.editions import Edition, rule
from evencoil.errors import MissingError, NotInTableError
from evencoil.evidence import Step, Trail
from evencoil.quantities import plain, show
from evencoil.sizing.conductor import ConductorFacts, pick_conductor
from evencoil.tables import table
from evencoil.words import Message

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
            kind="worked",
            shown=show(needed, "minimum"),
            working=Message("leg.ampacity", params),
            rule=rule(subject, edition),
            uses=("table_flc_a",),
        )
    )
    degrees = int(trail.number("terminal_temperature_c"))
    factor = trail.number("ambient_factor") * trail.number("adjustment_factor")
    pick = pick_conductor(required_a=needed, facts=facts, terminal_c=degrees, factor=factor)
    if pick is None:
        raise NotInTableError(
            Message("conductor.none", {"amps": show(needed, "minimum")}),
            field="size.parallel_sets",
            hint=Message("conductor.none.hint"),
        )
    found = table("310_16").find(pick.row, f"t{degrees}", edition=edition)
    return trail.add(
        Step(
            id="leg_conductor_size",
            value=pick.size.size,
            unit=pick.size.unit,
            kind="worked",
            shown=str(pick.size),
            working=Message(
                "leg.size",
                {
                    "size": str(pick.size),
                    "holds": show(pick.holds_a, "limit"),
                    "needed": show(needed, "minimum"),
                    "degrees": str(degrees),
                },
            ),
            rule=rule(subject, edition),
            uses=(
                "leg_ampacity_a",
                "terminal_temperature_c",
                "ambient_factor",
                "adjustment_factor",
                "conductor_material",
                "insulation",
            ),
            cell=found.cell,
            marks=found.marks,
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
            kind="worked",
            shown=show(value, "limit"),
            working=Message(
                f"leg.overload_{start}",
                {"whole": show(whole, "limit"), "share": plain(share), "value": plain(value)},
            ),
            rule=rule("overload", edition),
            uses=("overload_setting_a",),
        )
    )
