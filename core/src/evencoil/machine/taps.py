"""Taps from a feeder to one motor, and motors behind one device.

Units: current [A], length [ft].
Rules: NEC 430.28 (feeder taps: in an enclosure or raceway up to 10 ft with at least a tenth of
the feeder's device, protected up to 25 ft with at least a third of the feeder's ampacity,
else the feeder's own ampacity), 430.53(D) (the same thoughts behind a branch device).
"""

from __future__ import annotations

from decimal import Decimal
from typing import Literal

from evencoil.base import Message, OutOfRangeError, Step, Trail, plain, show
from evencoil.codebook import Edition, given, judged, tips_of, worked
from evencoil.sizing import ConductorFacts, fit_conductor

__all__ = ["TapTo", "group_device", "tap_conductor"]

TapTo = Literal["overload", "listed_controller"]


def tap_conductor(
    *,
    feeder_ampacity_a: Decimal,
    feeder_device_a: Decimal,
    motor_least_a: Decimal,
    length_ft: Decimal,
    is_protected: bool,
    is_group: bool,
    to: TapTo,
    facts: ConductorFacts,
    terminal_c: int,
    edition: Edition,
    trail: Trail,
) -> Step:
    """Return the smallest conductor of a tap to one motor.

    Parameters
    ----------
    feeder_ampacity_a : Decimal
        Ampacity of the conductors that are tapped. [A]
    feeder_device_a : Decimal
        Rating of the device in front of them. [A]
    motor_least_a : Decimal
        Least ampacity of the motor's own conductors. [A]
    length_ft : Decimal
        From the tap to the device it ends in. [ft]
    is_protected : bool
        In a raceway or guarded otherwise.
    is_group : bool
        Tapped behind one branch device (430.53(D)) instead of a feeder (430.28).
    to : str
        ``overload`` or ``listed_controller``, one listed for tap conductors.
    facts : ConductorFacts
        Material and insulation.
    terminal_c : int
        Column that the terminals allow. [C]
    edition : int
        Edition whose sections are cited.
    trail : Trail
        The steps are added to it.

    Returns
    -------
    Step
        ``tap_conductor_size``, with ``tap_least_a`` before it.

    Raises
    ------
    CoreError
        If the length cannot be or no single conductor carries it.
    """
    if not 0 < length_ft <= 1000:
        raise OutOfRangeError(
            Message("tap.length", {"feet": plain(length_ft)}),
            field="tap.length_ft",
            hint=Message("tap.length.hint"),
        )
    given(trail, "tap_length_ft", length_ft, "ft")
    third, tenth = feeder_ampacity_a / 3, feeder_device_a / 10
    short_ok = length_ft <= 10 and is_protected and (not is_group or to == "listed_controller")
    if short_ok:
        part, said = tenth, "tap.tenth"
    elif length_ft <= 25 and is_protected:
        part, said = third, "tap.third"
    else:
        part, said = feeder_ampacity_a, "tap.full"
    needed = max(part, motor_least_a)
    worked(
        trail,
        "tap_least_a",
        needed,
        "A",
        said,
        "tap_group" if is_group else "tap",
        edition,
        {
            "feet": plain(length_ft),
            "part": show(part, "minimum"),
            "motor": show(motor_least_a),
            "feeder": plain(feeder_ampacity_a),
            "device": plain(feeder_device_a),
        },
        rounding="minimum",
        uses=("tap_length_ft",),
        tips=tips_of(
            Message(
                "tap.tip",
                {
                    "third": show(max(third, motor_least_a), "minimum"),
                    "tenth": show(max(tenth, motor_least_a), "minimum"),
                    "full": plain(max(feeder_ampacity_a, motor_least_a)),
                },
            ),
        ),
    )
    return fit_conductor(
        trail,
        "tap_conductor_size",
        "tap_least_a",
        facts,
        edition,
        terminal_c=terminal_c,
        field="tap",
    ).step


def group_device(
    *,
    largest_device_a: Decimal,
    other_flc_a: Decimal,
    listed_most_a: Decimal | None,
    device_a: Decimal,
    edition: Edition,
    trail: Trail,
) -> Step:
    """Return the verdict on one device in front of several motors.

    Parameters
    ----------
    largest_device_a : Decimal
        Device that the largest motor alone may have. [A]
    other_flc_a : Decimal
        Table currents of the other motors and loads together. [A]
    listed_most_a : Decimal or None
        The most that controllers and overloads are listed for in a group, where marked. [A]
    device_a : Decimal
        What stands there. [A]
    edition : int
        Edition whose sections are cited.
    trail : Trail
        The steps are added to it.

    Returns
    -------
    Step
        ``group_device``.
    """
    most = largest_device_a + other_flc_a
    said = "group.sum"
    if listed_most_a is not None and listed_most_a < most:
        most, said = listed_most_a, "group.listed"
    worked(
        trail,
        "group_most_a",
        most,
        "A",
        said,
        "group",
        edition,
        {"largest": plain(largest_device_a), "others": plain(other_flc_a)},
        rounding="limit",
    )
    holds = device_a <= most
    return judged(
        trail,
        "group_device",
        "holds" if holds else "fails",
        f"{plain(device_a)} A",
        "group.holds" if holds else "group.fails",
        "group",
        edition,
        {"amps": plain(device_a), "most": show(most, "limit"), "over": show(device_a - most)},
        uses=("group_most_a",),
    )
