"""Several motors behind one device or one disconnect.

Units: current [A], power [hp], volts [V].
Rules: NEC 430.53(A) (small motors on one circuit: 1 hp and 6 A each; 20 A up to 125 V, 15 A
above), 430.112 (when one disconnect may serve several motors), 430.110(C) (its rating: the
currents at full load and at locked rotor are added and turned back into horsepower, the
larger counts; 115 % of the full-load sum; six times full load where no table has the motor).
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal
from typing import Annotated, Literal

from pydantic import Field

from evencoil.base import (
    DecimalText,
    Inputs,
    Mark,
    Message,
    MissingError,
    Step,
    Trail,
    plain,
    show,
)
from evencoil.codebook import Edition, judged, worked
from evencoil.sizing import horsepower_at_full_load, horsepower_at_locked_rotor

__all__ = [
    "GroupMotor",
    "SharedDisconnectInput",
    "SharedReason",
    "SmallGroupInput",
    "shared_disconnect",
    "small_group",
]

_SMALL_HP, _SMALL_A = Decimal(1), Decimal(6)
_LOW_V = Decimal(125)
_LEAST = Decimal("1.15")
_LOCKED = 6
#: parts of one machine, small motors on one circuit, or one room in sight of the disconnect
SharedReason = Literal["", "machine", "small_group", "room"]
Amps = Annotated[DecimalText, Field(gt=0, le=10000)]


class SmallGroupInput(Inputs):
    """One fuse or breaker for several small motors, and what their controllers are marked for."""

    device_a: Amps
    controllers_a: Amps | None = None


class SharedDisconnectInput(Inputs):
    """One disconnect for all motors: why that is allowed, and its ratings as marked."""

    reason: SharedReason = ""
    amps_a: Amps | None = None
    rated_hp: Annotated[DecimalText, Field(gt=0, le=10000)] | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class GroupMotor:
    """A motor with power [hp], full-load and locked-rotor current [A]; None where not known."""

    tag: str
    flc_a: Decimal
    power_hp: Decimal | None
    locked_a: Decimal | None
    phases: int = 3


def small_group(
    motors: Sequence[GroupMotor],
    given: SmallGroupInput,
    volts_v: Decimal,
    *,
    edition: Edition,
    trail: Trail,
) -> Step:
    """Return the verdict on small motors on one branch circuit.

    Parameters
    ----------
    motors : sequence of GroupMotor
        All motors of the circuit.
    given : SmallGroupInput
        The device, and the most that the controllers are marked for.
    volts_v : Decimal
        Line volts. [V]
    edition : int
        Edition whose sections are cited.
    trail : Trail
        The step is added to it.

    Returns
    -------
    Step
        ``small_group``.
    """
    most = Decimal(20) if volts_v <= _LOW_V else Decimal(15)
    too_large = next(
        (
            motor
            for motor in motors
            if motor.flc_a > _SMALL_A or motor.power_hp is None or motor.power_hp > _SMALL_HP
        ),
        None,
    )
    said = "holds"
    if too_large is not None:
        said = "motor"
    elif given.device_a > most:
        said = "device"
    elif given.controllers_a is not None and given.device_a > given.controllers_a:
        said = "controllers"
    return judged(
        trail,
        "small_group",
        "holds" if said == "holds" else "fails",
        f"{plain(given.device_a)} A",
        f"several.small.{said}",
        "group_small",
        edition,
        {
            "count": str(len(motors)),
            "amps": plain(given.device_a),
            "most": plain(most),
            "volts": plain(volts_v),
            "marked": "—" if given.controllers_a is None else plain(given.controllers_a),
            "tag": "" if too_large is None else too_large.tag,
            "hp": "—"
            if too_large is None or too_large.power_hp is None
            else show(too_large.power_hp),
            "flc": "" if too_large is None else plain(too_large.flc_a),
        },
    )


def _allowed(
    motors: Sequence[GroupMotor], reason: SharedReason, edition: Edition, trail: Trail
) -> None:
    """Add the verdict on one disconnect serving several motors at all, 430.112."""
    if not reason:
        raise MissingError(
            Message("several.reason"),
            field="feeder.disconnect.reason",
            hint=Message("several.reason.hint"),
        )
    verdict: Literal["holds", "fails"] = "holds"
    said = f"several.allowed.{reason}"
    if reason == "small_group" and (
        "small_group" not in trail or trail["small_group"].verdict == "fails"
    ):
        verdict, said = "fails", "several.allowed.not_small"
    judged(
        trail,
        "shared_disconnect_allowed",
        verdict,
        str(len(motors)),
        said,
        "disconnect_shared",
        edition,
        {"count": str(len(motors))},
        uses=("small_group",),
    )


def shared_disconnect(
    motors: Sequence[GroupMotor],
    given: SharedDisconnectInput,
    *,
    volts_v: Decimal,
    other_a: Decimal,
    edition: Edition,
    trail: Trail,
) -> Step:
    """Return the ratings that one disconnect for several motors needs, and the verdict on it.

    Parameters
    ----------
    motors : sequence of GroupMotor
        All motors behind it that can run together.
    given : SharedDisconnectInput
        Why one serves all, and its ratings where they were read.
    volts_v : Decimal
        Line volts. [V]
    other_a : Decimal
        Resistive and other loads behind it. [A]
    edition : int
        Edition whose sections are cited.
    trail : Trail
        The steps are added to it.

    Returns
    -------
    Step
        ``shared_disconnect`` where its ratings were entered, else ``shared_disconnect_a``.

    Raises
    ------
    MissingError
        If no one said why one disconnect may serve all.
    NotInTableError
        If the sum is beyond the tables.
    """
    _allowed(motors, given.reason, edition, trail)
    phases = max(motor.phases for motor in motors)
    full = sum((motor.flc_a for motor in motors), other_a)
    locked = sum((motor.locked_a or motor.flc_a * _LOCKED for motor in motors), other_a)
    by_full = horsepower_at_full_load(full, volts_v, phases)
    by_locked = horsepower_at_locked_rotor(locked, volts_v, phases)
    power = max(by_full, by_locked)
    worked(
        trail,
        "shared_disconnect_hp",
        power,
        "hp",
        "several.hp",
        "disconnect_several",
        edition,
        {
            "full": show(full),
            "by_full": plain(by_full),
            "locked": show(locked),
            "by_locked": plain(by_locked),
            "value": plain(power),
        },
    )
    least = full * _LEAST
    step = worked(
        trail,
        "shared_disconnect_a",
        least,
        "A",
        "several.amps",
        "disconnect_several",
        edition,
        {"full": show(full), "value": plain(least)},
        rounding="minimum",
    )
    if given.amps_a is None and given.rated_hp is None:
        return step
    said = "holds"
    if given.amps_a is not None and given.amps_a < least:
        said = "amps"
    elif given.rated_hp is not None and given.rated_hp < power:
        said = "power"
    elif given.amps_a is None or given.rated_hp is None:
        said = "half"
    marks: tuple[Mark, ...] = ()
    if said == "half":
        unread = Message("several.disconnect.unread")
        marks = (Mark(kind="doubted", origin="shared_disconnect", message=unread),)
    return judged(
        trail,
        "shared_disconnect",
        "fails" if said in {"amps", "power"} else "holds",
        " · ".join(
            text
            for text in (
                "" if given.amps_a is None else f"{plain(given.amps_a)} A",
                "" if given.rated_hp is None else f"{plain(given.rated_hp)} hp",
            )
            if text
        ),
        f"several.disconnect.{said}",
        "disconnect_several",
        edition,
        {
            "amps": "—" if given.amps_a is None else plain(given.amps_a),
            "hp": "—" if given.rated_hp is None else plain(given.rated_hp),
            "least": show(least, "minimum"),
            "power": plain(power),
        },
        uses=("shared_disconnect_hp", "shared_disconnect_a"),
        marks=marks,
    )
