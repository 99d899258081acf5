"""Several speeds on one branch circuit: which current decides what.

Units: current [A].
Rules: NEC 430.22(B) (line side by the highest plate current, each speed's own
conductors by its own), 430.52(C)(4) (one device by the smallest winding, or by
the largest where every winding is protected by itself), 430.32 for each speed.
The tables are not for such motors, 430.6(A)(1): the nameplate governs.
"""

from __future__ import annotations

from collections.abc import Sequence
from decimal import Decimal

from evencoil.base import Message, MissingError, Step, Trail, plain
from evencoil.codebook import Edition, given, tips_of, worked
from evencoil.sizing.conductor import ConductorFacts
from evencoil.sizing.part import part_conductor

__all__ = ["device_current", "highest_current", "speed_conductor", "speed_overload"]


def highest_current(
    powers_hp: Sequence[Decimal], amps_a: Sequence[Decimal], *, edition: Edition, trail: Trail
) -> Step:
    """Return the current that decides line conductors and disconnect.

    Parameters
    ----------
    powers_hp : sequence of Decimal
        Power at each speed, as stamped. [hp]
    amps_a : sequence of Decimal
        Plate current at each speed, in the same order. [A]
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Gets ``speed_1_amps_a`` and so on, and the step.

    Returns
    -------
    Step
        ``table_flc_a``, which here is a nameplate current. [A]

    Raises
    ------
    MissingError
        If there is not one current for each power.
    """
    if len(amps_a) != len(powers_hp):
        raise MissingError(
            Message("speeds.amps", {"powers": str(len(powers_hp)), "amps": str(len(amps_a))}),
            field="amps_a",
            hint=Message("speeds.amps.hint"),
        )
    names = []
    for place, (power, amps) in enumerate(zip(powers_hp, amps_a, strict=True), start=1):
        names.append(f"speed_{place}_amps_a")
        given(trail, names[-1], amps, "A", "speeds.read", {"hp": plain(power)})
    most = max(amps_a)
    return worked(
        trail,
        "table_flc_a",
        most,
        "A",
        "speeds.highest",
        "multispeed",
        edition,
        {"all": " · ".join(plain(amps) for amps in amps_a)},
        uses=tuple(names),
    )


def device_current(*, each_protected: bool, edition: Edition, trail: Trail) -> Step:
    """Return the current from which the one short-circuit device is sized.

    Parameters
    ----------
    each_protected : bool
        Every winding has its own overload, conductors for the largest current
        and a controller of the highest power.
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds the current of each speed.

    Returns
    -------
    Step
        ``device_current_a``. [A]
    """
    currents = {step.id: step.value for step in trail if step.id.startswith("speed_")}
    pick = max if each_protected else min
    amps = pick(value for value in currents.values() if isinstance(value, Decimal))
    return worked(
        trail,
        "device_current_a",
        amps,
        "A",
        "speeds.device_most" if each_protected else "speeds.device_least",
        "multispeed_device",
        edition,
        uses=tuple(currents),
        tips=tips_of(
            None
            if each_protected
            else Message(
                "speeds.tip_protected",
                {"most": plain(max(v for v in currents.values() if isinstance(v, Decimal)))},
            )
        ),
    )


def speed_conductor(
    place: int,
    facts: ConductorFacts,
    *,
    follows_largest: bool = False,
    edition: Edition,
    trail: Trail,
) -> Step:
    """Return the smallest conductor between controller and the winding of one speed.

    Parameters
    ----------
    place : int
        Speed, counted from 1 in the order of the nameplate.
    facts : ConductorFacts
        Material, insulation, number of conductors.
    follows_largest : bool
        One device sized by the largest speed serves all windings: every winding's conductors
        are then sized by it too.
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds the current of that speed.

    Returns
    -------
    Step
        ``speed_1_conductor_size`` and so on.

    Raises
    ------
    NotInTableError
        If no single conductor carries it.
    """
    amps = trail.number("table_flc_a" if follows_largest else f"speed_{place}_amps_a")
    worked(
        trail,
        f"speed_{place}_ampacity_a",
        amps * 5 / 4,
        "A",
        "speeds.ampacity",
        "multispeed",
        edition,
        {"amps": plain(amps)},
        rounding="minimum",
        uses=(f"speed_{place}_amps_a",),
    )
    return part_conductor(
        trail, f"speed_{place}_conductor_size", f"speed_{place}_ampacity_a", facts, edition
    )


def speed_overload(place: int, percent: Decimal, *, edition: Edition, trail: Trail) -> Step:
    """Return the largest overload setting for one speed.

    Parameters
    ----------
    place : int
        Speed, counted from 1 in the order of the nameplate.
    percent : Decimal
        125 or 115, from service factor and temperature rise.
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds the current of that speed.

    Returns
    -------
    Step
        ``speed_1_overload_a`` and so on. [A]
    """
    amps = trail.number(f"speed_{place}_amps_a")
    return worked(
        trail,
        f"speed_{place}_overload_a",
        amps * percent / 100,
        "A",
        "speeds.overload",
        "overload",
        edition,
        {"amps": plain(amps), "percent": plain(percent)},
        rounding="limit",
        uses=(f"speed_{place}_amps_a",),
    )
