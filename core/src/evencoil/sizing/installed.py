"""What is already there, item by item, and the weakest part of it.

Units: current [A], power [hp], volts [V], temperature [C].
Rules: NEC 430.22 and 110.14(C) (lowest temperature rating of any part), 334.80 and 340.80
(NM and UF cable carry their 60 C ampacity), 430.52 (device), 430.32 (heaters), 430.110
(disconnect), 430.109(F) (plug), 430.24 (other loads on the same circuit).
"""

from __future__ import annotations

from dataclasses import dataclass
from decimal import Decimal
from typing import Literal

from evencoil.base import ConductorSize, Message, NotInTableError, Step, Trail, Verdict, plain, show
from evencoil.codebook import Edition, judged, table, worked
from evencoil.sizing.conductor import INSULATIONS
from evencoil.sizing.protection import Ratings

__all__ = [
    "Cable",
    "CableKind",
    "cable_there",
    "device_there",
    "heaters_there",
    "other_loads_there",
    "plug_there",
    "weakest_part",
]

CableKind = Literal["raceway", "NM", "UF", "AC", "MC", "TC", "cord"]
#: cables that may not carry more than their 60 C ampacity, whatever the wires in them
_HELD_TO_60 = {"NM", "UF"}


@dataclass(frozen=True, slots=True, kw_only=True)
class Cable:
    """Conductors that are there: kind of cable, size, metal, insulation, lugs."""

    kind: CableKind
    size: str
    metal: Literal["cu", "al"]
    insulation: str
    terminal_c: int


def cable_there(cable: Cable, factor: Decimal, *, edition: Edition, trail: Trail) -> Step:
    """Return the verdict on the conductors that are there.

    Parameters
    ----------
    cable : Cable
        What is there.
    factor : Decimal
        Ambient correction times adjustment.
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds ``required_ampacity_a``.

    Returns
    -------
    Step
        ``existing_cable``, with ``existing_cable_a`` before it.

    Raises
    ------
    NotInTableError
        For a flexible cord, whose ampacities are in another table, or a size that is in none.
    """
    if cable.kind == "cord":
        raise NotInTableError(
            Message("existing.cord"),
            field="size.existing.cable",
            hint=Message("existing.cord.hint"),
        )
    column = min(cable.terminal_c, INSULATIONS[cable.insulation])
    if cable.kind in _HELD_TO_60:
        column = 60
    book = table("310_16")
    row = next(
        (
            place
            for place, cells in enumerate(book.rows)
            if cells[0] == cable.size
            and cells[1] == cable.metal
            and book.number(place, f"t{column}") is not None
        ),
        None,
    )
    if row is None:
        raise NotInTableError(
            Message("existing.size", {"size": cable.size[:12]}),
            field="size.existing.cable_size",
            hint=Message("existing.size.hint"),
        )
    own = book.number(row, f"t{INSULATIONS[cable.insulation]}") or Decimal(0)
    found = book.find(row, f"t{column}", edition=edition)
    holds_a = min(found.value, own * factor)
    params = {
        "kind": str(Message(f"cable.{cable.kind}")),
        "size": cable.size,
        "column": str(column),
        "terminal": plain(found.value),
        "own": show(own * factor, "limit"),
    }
    worked(
        trail,
        "existing_cable_a",
        holds_a,
        "A",
        "existing.cable_60" if cable.kind in _HELD_TO_60 else "existing.cable_column",
        "terminals",
        edition,
        params,
        rounding="limit",
        found=found,
        uses=("ambient_factor", "adjustment_factor"),
    )
    needed = trail.number("required_ampacity_a")
    shown = f"{ConductorSize(cable.size)}, {params['kind']}"
    return _held(
        trail,
        "existing_cable",
        holds_a,
        needed,
        shown,
        "existing.cable",
        "conductor",
        edition,
        ("existing_cable_a", "required_ampacity_a"),
    )


def _held(
    trail: Trail,
    step_id: str,
    has: Decimal,
    needs: Decimal,
    shown: str,
    said: str,
    subject: str,
    edition: Edition,
    uses: tuple[str, ...],
) -> Step:
    holds = has >= needs
    return judged(
        trail,
        step_id,
        "holds" if holds else "fails",
        shown,
        f"{said}.{'holds' if holds else 'fails'}",
        subject,
        edition,
        {
            "has": show(has, "limit"),
            "needs": show(needs, "minimum"),
            "short": show(needs - has, "minimum"),
        },
        uses=uses,
    )


def device_there(
    amps_a: Decimal, ratings: Ratings, *, has_no_start: bool, edition: Edition, trail: Trail
) -> Step:
    """Return the verdict on the short-circuit device that is there.

    Parameters
    ----------
    amps_a : Decimal
        Its rating. [A]
    ratings : Ratings
        What the rules give for a device of its kind.
    has_no_start : bool
        That the motor does not start on less was recorded.
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds ``table_flc_a``.

    Returns
    -------
    Step
        ``existing_device``.
    """
    params = {
        "amps": plain(amps_a),
        "next_size_up": plain(ratings.next_size_a),
        "raised": plain(ratings.raised_a),
        "over": show(amps_a - ratings.raised_a),
        "flc": plain(trail.number("table_flc_a")),
    }
    verdict: Verdict = "fails"
    if amps_a > ratings.raised_a:
        said = "existing.device.too_large"
    elif amps_a > ratings.next_size_a:
        verdict = "holds" if has_no_start else "fails"
        said = "existing.device.raised" if has_no_start else "existing.device.no_record"
    elif amps_a < trail.number("table_flc_a"):
        said = "existing.device.too_small"
    else:
        verdict, said = "holds", "existing.device.holds"
    return judged(
        trail,
        "existing_device",
        verdict,
        f"{plain(amps_a)} A",
        said,
        "protection",
        edition,
        params,
        uses=("table_flc_a", "protection_limit_a"),
    )


def heaters_there(
    trip_a: Decimal,
    other_columns_a: tuple[Decimal, ...],
    *,
    edition: Edition,
    trail: Trail,
    share_percent: Decimal = Decimal(100),
) -> Step:
    """Return the verdict on heaters or a dial that are there.

    Parameters
    ----------
    trip_a : Decimal
        Current at which they trip in the end. [A]
    other_columns_a : tuple of Decimal
        Plate currents at the other voltages of the nameplate. [A]
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds ``plate_amps_a``, ``overload_setting_a`` and ``overload_ceiling_a``.
    share_percent : Decimal
        Part of the line current that flows where they lie. [percent]

    Returns
    -------
    Step
        ``existing_heaters``.
    """
    marked = plain(trip_a)
    trip_a = trip_a * 100 / share_percent
    plate, most = trail.number("plate_amps_a"), trail.number("overload_setting_a")
    ceiling = trail.number("overload_ceiling_a")
    percent = most / plate
    left = next(
        (
            amps
            for amps in other_columns_a
            if amps != plate and abs(trip_a / percent - amps) <= amps / 8
        ),
        None,
    )
    params = {
        "trip": marked
        if share_percent == 100
        else str(Message("existing.heaters.share", {"trip": marked, "line": show(trip_a)})),
        "plate": plain(plate),
        "most": show(most, "limit"),
        "ceiling": show(ceiling, "limit"),
        "other": "—" if left is None else plain(left),
        "percent": show(trip_a / plate * 100),
    }
    verdict: Verdict = "fails"
    if trip_a > ceiling:
        said = "existing.heaters.left" if left is not None else "existing.heaters.too_large"
    elif trip_a > most:
        said = "existing.heaters.ceiling"
    elif trip_a < plate:
        said = "existing.heaters.left_small" if left is not None else "existing.heaters.too_small"
    else:
        verdict, said = "holds", "existing.heaters.holds"
    return judged(
        trail,
        "existing_heaters",
        verdict,
        f"trips at {marked} A",
        said,
        "overload",
        edition,
        params,
        uses=("plate_amps_a", "overload_setting_a", "overload_ceiling_a"),
    )


def other_loads_there(
    other_a: Decimal, cable_a: Decimal, *, edition: Edition, trail: Trail
) -> Step:
    """Return the verdict on other loads that hang on the same conductors.

    Parameters
    ----------
    other_a : Decimal
        Their current together. [A]
    cable_a : Decimal
        What the conductors carry. [A]
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds ``required_ampacity_a``.

    Returns
    -------
    Step
        ``there_other_loads``.
    """
    needed = trail.number("required_ampacity_a") + other_a
    return _held(
        trail,
        "there_other_loads",
        cable_a,
        needed,
        f"{plain(other_a)} A beside",
        "existing.others",
        "feeder",
        edition,
        ("required_ampacity_a", "existing_cable_a"),
    )


def plug_there(
    *, amps_a: Decimal, volts_v: Decimal, rated_hp: Decimal | None, edition: Edition, trail: Trail
) -> Step:
    """Return the verdict on plug and receptacle.

    Parameters
    ----------
    amps_a : Decimal
        Rating of the configuration. [A]
    volts_v : Decimal
        Its volts. [V]
    rated_hp : Decimal or None
        Power rating as marked. [hp]
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds ``table_flc_a``, ``supply_volts_v`` and ``power_hp``.

    Returns
    -------
    Step
        ``existing_plug``.
    """
    flc, supply = trail.number("table_flc_a"), trail.number("supply_volts_v")
    power = trail.number("power_hp")
    params = {
        "amps": plain(amps_a),
        "volts": plain(volts_v),
        "flc": plain(flc),
        "supply": plain(supply),
        "hp": plain(power),
        "rated": "—" if rated_hp is None else plain(rated_hp),
    }
    said = "holds"
    if volts_v < supply:
        said = "volts"
    elif amps_a < flc:
        said = "amps"
    elif rated_hp is None or rated_hp < power:
        said = "power"
    return judged(
        trail,
        "existing_plug",
        "holds" if said == "holds" else "fails",
        f"{plain(amps_a)} A {plain(volts_v)} V",
        f"existing.plug.{said}",
        "disconnect_plug",
        edition,
        params,
        uses=("table_flc_a", "supply_volts_v", "power_hp"),
    )


def weakest_part(*, edition: Edition, trail: Trail) -> Step | None:
    """Return what governs of all that is there: the first part that fails, or none.

    Parameters
    ----------
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds the verdicts, each named ``there_...``.
    """
    seen = [step for step in trail if step.verdict]
    if not seen:
        return None
    failing = [step for step in seen if step.verdict == "fails"]
    if not failing:
        said, names = "existing.all_hold", ""
    else:
        said = "existing.weakest"
        names = " · ".join(str(Message(f"label.{step.id}")) for step in failing)
    return judged(
        trail,
        "weakest_part",
        "fails" if failing else "holds",
        names.split(" · ")[0] or str(Message("existing.nothing")),
        said,
        "terminals",
        edition,
        {
            "all": names,
            "count": str(len(seen)),
            "first": names.split(" · ")[0],
            "failing": str(len(failing)),
        },
        uses=tuple(step.id for step in seen),
    )
