"""Conductors on the rotor side of a wound-rotor motor.

Units: current [A], percent of full-load secondary current.
Rules: NEC 430.23(A), (B) and (C); the primary overload protects the secondary,
430.32(E). Tables: ``nec/430_22_e`` and the seven percentages of 430.23(C).
"""

from __future__ import annotations

from decimal import Decimal
from typing import Literal, get_args

from evencoil.base import Message, Step, Trail, plain
from evencoil.codebook import Edition, given, worked
from evencoil.sizing.conductor import ConductorFacts
from evencoil.sizing.duty import DutyRating, Service, duty_percent
from evencoil.sizing.part import part_conductor

__all__ = ["ResistorDuty", "resistor_conductor", "secondary_conductor"]

ResistorDuty = Literal[
    "light_starting",
    "heavy_starting",
    "extra_heavy_starting",
    "light_intermittent",
    "medium_intermittent",
    "heavy_intermittent",
    "continuous",
]
_RESISTOR_PERCENT = dict(zip(get_args(ResistorDuty), (35, 45, 55, 65, 75, 85, 110), strict=True))


def secondary_conductor(
    secondary_a: Decimal,
    facts: ConductorFacts,
    *,
    edition: Edition,
    trail: Trail,
    service: Service | None = None,
    rating: DutyRating = "continuous",
) -> Step:
    """Return the smallest conductor between slip rings and controller.

    Parameters
    ----------
    secondary_a : Decimal
        Full-load secondary current of the nameplate. [A]
    facts : ConductorFacts
        Material, insulation, number of conductors, as for the line side.
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds ``terminal_temperature_c`` and the factors.
    service : str or None
        How the machine works; None for continuous duty.
    rating : str
        For how long the motor is rated.

    Returns
    -------
    Step
        ``secondary_conductor_size``, with ``secondary_ampacity_a`` before it.

    Raises
    ------
    CoreError
        If the table gives no percentage or no conductor carries it.
    """
    given(trail, "secondary_a", secondary_a, "A")
    if service is None:
        percent, subject = Decimal(125), "secondary"
    else:
        percent = duty_percent(service, rating, edition, "size.duty.rating").value
        subject = "secondary_duty"
    worked(
        trail,
        "secondary_ampacity_a",
        secondary_a * percent / 100,
        "A",
        "secondary.ampacity",
        subject,
        edition,
        {"amps": plain(secondary_a), "percent": plain(percent)},
        rounding="minimum",
        uses=("secondary_a", "duty"),
    )
    return part_conductor(trail, "secondary_conductor_size", "secondary_ampacity_a", facts, edition)


def resistor_conductor(
    duty: ResistorDuty, facts: ConductorFacts, *, edition: Edition, trail: Trail
) -> Step:
    """Return the smallest conductor between controller and a resistor that stands apart.

    Parameters
    ----------
    duty : str
        Duty class of the resistor.
    facts : ConductorFacts
        Material, insulation, number of conductors.
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds ``secondary_a``.

    Returns
    -------
    Step
        ``resistor_conductor_size``, with ``resistor_ampacity_a`` before it.

    Raises
    ------
    NotInTableError
        If no single conductor carries it.
    """
    secondary, percent = trail.number("secondary_a"), Decimal(_RESISTOR_PERCENT[duty])
    worked(
        trail,
        "resistor_ampacity_a",
        secondary * percent / 100,
        "A",
        "resistor.ampacity",
        "secondary_resistor",
        edition,
        {
            "amps": plain(secondary),
            "percent": plain(percent),
            "duty": str(Message(f"resistor.{duty}")),
        },
        rounding="minimum",
        uses=("secondary_a",),
    )
    return part_conductor(trail, "resistor_conductor_size", "resistor_ampacity_a", facts, edition)
