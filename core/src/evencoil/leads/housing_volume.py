"""Joints in the terminal housing: how each is made, and whether they fit.

Two claims that are never mixed: the volume that the code asks for is a rule,
the bulk of taped joints is an estimate.

Units: volume [in3], length [in], torque [in-lb].
Rules: NEC 430.12(B) and its table (wire-to-wire), 110.14 (listed as used),
200.7, 110.15, 250.119 (colors). Conductor areas: Chapter 9 Table 5;
the estimate takes a folded conductor from Table 314.16(B).
"""

from __future__ import annotations

from decimal import Decimal

from evencoil.base import Message, NotInTableError, Step, Trail, plain
from evencoil.codebook import Edition, rule, table

__all__ = ["housing_volume"]


def housing_volume(
    *,
    power_hp: Decimal,
    flc_a: Decimal,
    is_over_11_in: bool,
    edition: Edition,
    trail: Trail,
) -> Step:
    """Return the usable volume that a wire-to-wire motor housing needs [in3].

    Parameters
    ----------
    power_hp : Decimal
        Of the nameplate. [hp]
    flc_a : Decimal
        Table full-load current, for motors over 11 in. [A]
    is_over_11_in : bool
        Whether the motor is more than 11 in across.
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds ``power_hp`` and ``table_flc_a``.

    Returns
    -------
    Step
        ``housing_volume_in3``; the opening's least dimension is in the working.

    Raises
    ------
    NotInTableError
        If the motor is beyond the table.
    """
    name = "430_12_b_large" if is_over_11_in else "430_12_b_small"
    book = table(name)
    column = "max_flc_a" if is_over_11_in else "hp_max"
    wanted = flc_a if is_over_11_in else power_hp
    rows = [
        place
        for place, text in enumerate(book.column(column))
        if not is_over_11_in or book.column("motor_kind")[place].startswith("ac")
        if wanted <= Decimal(text)
    ]
    if not rows:
        raise NotInTableError(
            Message(
                "housing.beyond",
                {"what": f"{plain(wanted)} {'A' if is_over_11_in else 'hp'}"},
            ),
            field="joints.usable_volume_in3",
            hint=Message("housing.beyond.hint"),
        )
    row = rows[0]
    found = book.find(row, "usable_volume_in3", edition=edition)
    opening = "box_min_dimension_in" if is_over_11_in else "cover_opening_min_dimension_in"
    return trail.add(
        Step(
            id="housing_volume_in3",
            value=found.value,
            unit="in³",
            kind="calculated",
            shown=plain(found.value),
            working=Message(
                "housing.volume_large" if is_over_11_in else "housing.volume_small",
                {
                    "what": plain(wanted),
                    "row": book.column(column)[row],
                    "volume": plain(found.value),
                    "opening": book.column(opening)[row],
                },
            ),
            rule=rule("housing", edition),
            uses=("table_flc_a",) if is_over_11_in else ("power_hp",),
            cell=found.cell,
            marks=found.marks,
        )
    )
