"""A drive in front of the motor: what its rated input current decides.

Units: current [A], volts [V], power [hp].
Rules: NEC Article 430 Part X: 430.122(A) input conductors 125 % of the drive's rated
input current; 430.122(B) with a bypass also 125 % of the motor's; 430.124 overload in
the drive or apart, 430.126 no overtemperature by fan speed alone, 430.128 disconnect
115 % of the rated input current, 430.130 device by the maker's instructions.
A drive never gives out more volts than it gets in.
"""

from __future__ import annotations

from decimal import Decimal

from evencoil.base import Step, Trail, plain, show
from evencoil.codebook import Edition, given, judged, worked
from evencoil.sizing.conductor import ConductorFacts
from evencoil.sizing.part import part_conductor

__all__ = ["drive_conductor", "drive_disconnect", "drive_output", "drive_overload"]


def drive_conductor(
    input_a: Decimal, facts: ConductorFacts, *, has_bypass: bool, edition: Edition, trail: Trail
) -> Step:
    """Return the smallest conductor in front of the drive.

    Parameters
    ----------
    input_a : Decimal
        The drive's rated input current. [A]
    facts : ConductorFacts
        Material, insulation, number of conductors.
    has_bypass : bool
        The motor may also run across the line.
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds ``table_flc_a``, ``terminal_temperature_c`` and the factors.

    Returns
    -------
    Step
        ``drive_conductor_size``, with ``drive_ampacity_a`` before it.

    Raises
    ------
    NotInTableError
        If no single conductor carries it.
    """
    given(trail, "drive_input_a", input_a, "A")
    flc = trail.number("table_flc_a")
    needed = input_a * 5 / 4
    said = "drive.ampacity"
    if has_bypass and flc * 5 / 4 > needed:
        needed, said = flc * 5 / 4, "drive.ampacity_bypass"
    worked(
        trail,
        "drive_ampacity_a",
        needed,
        "A",
        said,
        "drive_conductor",
        edition,
        {"input": plain(input_a), "flc": plain(flc)},
        rounding="minimum",
        uses=("drive_input_a", "table_flc_a") if has_bypass else ("drive_input_a",),
    )
    return part_conductor(trail, "drive_conductor_size", "drive_ampacity_a", facts, edition)


def drive_disconnect(*, edition: Edition, trail: Trail) -> Step:
    """Return the least rating of the disconnect in front of the drive [A].

    Parameters
    ----------
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds ``drive_input_a``.
    """
    amps = trail.number("drive_input_a")
    return worked(
        trail,
        "drive_disconnect_a",
        amps * Decimal("1.15"),
        "A",
        "drive.disconnect",
        "drive_disconnect",
        edition,
        {"input": plain(amps)},
        rounding="minimum",
        uses=("drive_input_a",),
    )


def drive_overload(*, has_overload: bool, edition: Edition, trail: Trail) -> Step:
    """Return what the overload of a motor behind a drive is set to [A].

    Parameters
    ----------
    has_overload : bool
        The drive is listed as motor overload protection.
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds ``overload_setting_a`` and ``plate_amps_a``.
    """
    plate, setting = trail.number("plate_amps_a"), trail.number("overload_setting_a")
    return worked(
        trail,
        "drive_overload_a",
        setting,
        "A",
        "drive.overload" if has_overload else "drive.overload_apart",
        "drive_overload",
        edition,
        {"plate": plain(plate), "setting": show(setting, "limit")},
        rounding="limit",
        uses=("overload_setting_a", "plate_amps_a"),
    )


#: a motor takes its rated volts within this part, NEMA MG 1 12.44
_TOLERANCE = Decimal("0.1")


def drive_output(
    output_v: Decimal,
    connection_v: tuple[Decimal, Decimal] | None,
    input_v: Decimal | None,
    *,
    edition: Edition,
    trail: Trail,
) -> Step:
    """Return the verdict on the volts that the drive is set to give out.

    Parameters
    ----------
    output_v : Decimal
        As set, at the motor's rated frequency. [V]
    connection_v : tuple of Decimal or None
        Ends of the voltage band that the motor is connected for. [V]
    input_v : Decimal or None
        What feeds the drive; None where no one entered it. [V]
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds ``supply_volts_v``.
    """
    given(trail, "drive_output_v", output_v, "V")
    low, high = connection_v or (output_v, output_v)
    said = "drive.output" if input_v is not None else "drive.output_input_unknown"
    if input_v is not None and output_v > input_v:
        said = "drive.output_above"
    elif output_v < low * (1 - _TOLERANCE):
        said = "drive.output_low"
    elif output_v > high * (1 + _TOLERANCE):
        said = "drive.output_high"
    band = plain(low) if low == high else f"{plain(low)}-{plain(high)}"
    return judged(
        trail,
        "drive_output",
        "holds" if said in {"drive.output", "drive.output_input_unknown"} else "fails",
        f"{plain(output_v)} V",
        said,
        "drive_conductor",
        edition,
        {
            "output": plain(output_v),
            "supply": "—" if input_v is None else plain(input_v),
            "joined": band,
        },
        uses=("drive_output_v", "supply_volts_v", "plate_volts"),
    )
