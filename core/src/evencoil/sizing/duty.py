"""Conductors of a motor whose duty is not continuous.

Units: current [A], percent of nameplate current.
Rules: NEC 430.22(E). Table: ``nec/430_22_e``. Every motor counts as continuous
until the driven machine makes that impossible, so the reason is saved beside it.
"""

from __future__ import annotations

from typing import Literal

from evencoil.base import Message, MissingError, NotInTableError, Step, Trail, plain
from evencoil.codebook import Edition, Found, table, tips_of, worked

__all__ = ["DutyRating", "Service", "duty_ampacity", "duty_percent"]

Service = Literal["short_time", "intermittent", "periodic", "varying"]
DutyRating = Literal["min5", "min15", "min30_60", "continuous"]
_ROWS = {"short_time": 0, "intermittent": 1, "periodic": 2, "varying": 3}


def duty_percent(service: Service, rating: DutyRating, edition: Edition, field: str) -> Found:
    """Return the table cell of a service and a motor's time rating [percent].

    Parameters
    ----------
    service : str
        How the machine works.
    rating : str
        For how long the motor is rated.
    edition : int
        Edition whose doubts are carried along.
    field : str
        Field that a refusal points at.

    Raises
    ------
    NotInTableError
        If the table gives no percentage for the pair.
    """
    book = table("430_22_e")
    row = _ROWS[service]
    if book.number(row, rating) is None:
        raise NotInTableError(
            Message(
                "duty.none",
                {
                    "service": str(Message(f"service.{service}")),
                    "rating": str(Message(f"rating.{rating}")),
                },
            ),
            field=field,
            hint=Message("duty.none.hint"),
        )
    return book.find(row, rating, edition=edition)


def duty_ampacity(service: Service, rating: DutyRating, *, edition: Edition, trail: Trail) -> Step:
    """Return the least ampacity of the conductors of a motor of other than continuous duty.

    Parameters
    ----------
    service : str
        How the machine works.
    rating : str
        For how long the motor is rated.
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds ``plate_amps_a``: this rule goes by the nameplate, not by the table.

    Returns
    -------
    Step
        ``required_ampacity_a``. [A]

    Raises
    ------
    CoreError
        If the nameplate current is not known or the table gives no percentage.
    """
    if "plate_amps_a" not in trail:
        raise MissingError(
            Message("duty.no_amps"), field="amps_a", hint=Message("overload.no_amps.hint")
        )
    found = duty_percent(service, rating, edition, "size.duty.rating")
    amps = trail.number("plate_amps_a")
    flc = trail.number("table_flc_a")
    return worked(
        trail,
        "required_ampacity_a",
        amps * found.value / 100,
        "A",
        "duty.ampacity",
        "duty",
        edition,
        {
            "amps": plain(amps),
            "percent": plain(found.value),
            "service": str(Message(f"service.{service}")),
            "rating": str(Message(f"rating.{rating}")),
        },
        rounding="minimum",
        uses=("plate_amps_a", "duty"),
        found=found,
        tips=tips_of(
            Message("duty.tip_continuous", {"flc": plain(flc), "value": plain(flc * 5 / 4)})
        ),
    )
