"""What the start takes from the line and what it gives at the shaft.

Units: current [A], speed [rpm], torque [lb-ft], slip [percent].
Rules: textbook topics: full-load torque = 5252 x hp / rpm; a wye start takes a third
of current and torque; an autotransformer takes the square of the tap from the
line and gives its square in torque; a part-winding start about two thirds.
"""

from __future__ import annotations

from decimal import Decimal
from typing import Literal

from evencoil.base import Step, Trail, plain, show
from evencoil.codebook import Edition, worked
from evencoil.sizing.locked_rotor import locked_rotor_name

__all__ = ["Start", "full_load_torque", "slip", "start_current", "start_shares", "start_torque"]

Start = Literal["full_voltage", "wye_delta", "part_winding", "autotransformer"]
_LB_FT = Decimal(5252)
_PART = Decimal("0.65")


def start_shares(start: Start, tap_percent: Decimal) -> tuple[Decimal, Decimal, Decimal]:
    """Return the parts of locked-rotor current at motor and line, and of torque.

    Parameters
    ----------
    start : str
        How the motor starts.
    tap_percent : Decimal
        Tap of the autotransformer. [percent]
    """
    tap = tap_percent / 100
    return {
        "full_voltage": (Decimal(1), Decimal(1), Decimal(1)),
        "wye_delta": (Decimal(1) / 3, Decimal(1) / 3, Decimal(1) / 3),
        "part_winding": (_PART, _PART, Decimal("0.45")),
        "autotransformer": (tap, tap * tap, tap * tap),
    }[start]


def slip(speed_rpm: Decimal, frequency_hz: Decimal, *, edition: Edition, trail: Trail) -> Step:
    """Return the slip at full load [percent], from the nearest synchronous speed above.

    Parameters
    ----------
    speed_rpm : Decimal
        Rated speed. [rpm]
    frequency_hz : Decimal
        Supply frequency. [Hz]
    edition : int
        Edition cited beside.
    trail : Trail
        Gets ``synchronous_rpm`` and ``slip_percent``.
    """
    poles = 2
    while 120 * frequency_hz / (poles + 2) >= speed_rpm and poles < 48:
        poles += 2
    synchronous = 120 * frequency_hz / poles
    worked(
        trail,
        "synchronous_rpm",
        synchronous,
        "rpm",
        "start.synchronous",
        "textbook",
        edition,
        {"hz": plain(frequency_hz), "poles": str(poles)},
        uses=("speed_rpm",),
    )
    return worked(
        trail,
        "slip_percent",
        (synchronous - speed_rpm) / synchronous * 100,
        "%",
        "start.slip",
        "textbook",
        edition,
        {"rpm": plain(speed_rpm), "synchronous": plain(synchronous)},
        uses=("synchronous_rpm",),
    )


def full_load_torque(
    power_hp: Decimal, speed_rpm: Decimal, *, edition: Edition, trail: Trail
) -> Step:
    """Return the torque at full load [lb-ft].

    Parameters
    ----------
    power_hp : Decimal
        Rated power. [hp]
    speed_rpm : Decimal
        Rated speed. [rpm]
    edition : int
        Edition cited beside.
    trail : Trail
        Gets ``full_load_torque_lbft``.
    """
    return worked(
        trail,
        "full_load_torque_lbft",
        power_hp * _LB_FT / speed_rpm,
        "lb-ft",
        "start.torque_full",
        "textbook",
        edition,
        {"hp": plain(power_hp), "rpm": plain(speed_rpm)},
        uses=("power_hp", "speed_rpm"),
    )


def start_current(
    start: Start,
    tap_percent: Decimal,
    *,
    letter_is_wye: bool = False,
    edition: Edition,
    trail: Trail,
) -> Step | None:
    """Return the current from the line at the first moment [A], or None if nothing tells it.

    Parameters
    ----------
    start : str
        How the motor starts.
    tap_percent : Decimal
        Tap of the autotransformer. [percent]
    letter_is_wye : bool
        The nameplate is made for wye start: its code letter then stands for the wye connection
        (430.7(B)(2)), and is not divided again.
    edition : int
        Edition cited beside.
    trail : Trail
        Holds ``locked_rotor_code_a`` or ``locked_rotor_table_a``.
    """
    name = locked_rotor_name(trail)
    if name is None:
        return None
    locked = trail.number(name)
    motor, line, _ = start_shares(start, tap_percent)
    said = f"start.line_{start}"
    if start == "wye_delta" and letter_is_wye and name == "locked_rotor_code_a":
        line, said = Decimal(1), "start.line_wye_letter"
    params = {"locked": show(locked), "tap": plain(tap_percent)}
    if start == "autotransformer":
        worked(
            trail,
            "motor_start_a",
            locked * motor,
            "A",
            "start.motor",
            "textbook",
            edition,
            params,
            uses=(name,),
        )
    return worked(
        trail,
        "line_start_a",
        locked * line,
        "A",
        said,
        "textbook",
        edition,
        params,
        uses=(name,),
    )


def start_torque(start: Start, tap_percent: Decimal, *, edition: Edition, trail: Trail) -> Step:
    """Return which part of the locked-rotor torque is left [percent].

    Parameters
    ----------
    start : str
        How the motor starts.
    tap_percent : Decimal
        Tap of the autotransformer. [percent]
    edition : int
        Edition cited beside.
    trail : Trail
        The step is added to it.
    """
    share = start_shares(start, tap_percent)[2] * 100
    return worked(
        trail,
        "start_torque_percent",
        share,
        "%",
        f"start.torque_{start}",
        "textbook",
        edition,
        {"tap": plain(tap_percent)},
    )
