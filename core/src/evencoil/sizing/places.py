"""Where the disconnects are, of which kind, and whether that is allowed.

Units: distance [ft], current [A], power [hp].
Rules: NEC 430.102(A) and (B), Article 100 "in sight" (visible and within 50 ft), 110.25
(lockable), 430.109 (kinds, cord and plug), 430.110(A) (115 %; a listed unfused switch marked
with the motor's power is not held to it), 430.107.
"""

from __future__ import annotations

from dataclasses import dataclass
from decimal import Decimal
from typing import Literal

from evencoil.base import Step, Trail, plain, show
from evencoil.codebook import Edition, given, judged

__all__ = [
    "IN_SIGHT_FT",
    "DisconnectKind",
    "Place",
    "controller_rating",
    "disconnect_kind",
    "disconnect_rating",
    "place_of_controller",
    "place_of_motor",
]

IN_SIGHT_FT = Decimal(50)
#: above this a stationary motor may have an isolating switch, alternating and direct current [hp]
_ISOLATING_ABOVE_HP = (Decimal(100), Decimal(40))
DisconnectKind = Literal[
    "motor_circuit_switch",
    "unfused_switch",
    "isolating_switch",
    "breaker",
    "molded_case_switch",
    "manual_controller",
    "general_use_switch",
    "snap_switch",
    "plug",
]


@dataclass(frozen=True, slots=True, kw_only=True)
class Place:
    """How far something is from the disconnect [ft], and whether it can be seen from there."""

    distance_ft: Decimal
    is_visible: bool

    @property
    def in_sight(self) -> bool:
        """Tell whether the code calls it in sight."""
        return self.is_visible and self.distance_ft <= IN_SIGHT_FT


def place_of_controller(place: Place, *, edition: Edition, trail: Trail) -> Step:
    """Return the verdict on the disconnect of the controller.

    Parameters
    ----------
    place : Place
        Controller, from its disconnect.
    edition : int
        Edition whose sections are cited.
    trail : Trail
        The step is added to it.

    Returns
    -------
    Step
        ``controller_disconnect_place``.
    """
    given(trail, "controller_distance_ft", place.distance_ft, "ft")
    return _placed(
        trail,
        "controller_disconnect_place",
        place,
        "place.controller",
        "disconnect_controller",
        edition,
        "controller_distance_ft",
    )


def place_of_motor(
    place: Place,
    *,
    own: bool,
    lockable: bool,
    excuse: Literal["", "impracticable", "procedures"],
    edition: Edition,
    trail: Trail,
) -> Step:
    """Return the verdict on the disconnect of the motor.

    Parameters
    ----------
    place : Place
        Motor and driven machine, from the nearest disconnect.
    own : bool
        That disconnect stands at the motor and is not the controller's.
    lockable : bool
        The controller's disconnect can be locked open, the provision staying in place.
    excuse : str
        Why none stands at the motor: ``impracticable`` or a hazard there, or
        ``procedures`` of an industrial site with qualified people only.
    edition : int
        Edition whose sections are cited.
    trail : Trail
        The step is added to it.

    Returns
    -------
    Step
        ``motor_disconnect_place``.
    """
    given(trail, "motor_distance_ft", place.distance_ft, "ft")
    if place.in_sight:
        return _placed(
            trail,
            "motor_disconnect_place",
            place,
            "place.motor_own" if own else "place.motor",
            "disconnect_motor",
            edition,
            "motor_distance_ft",
        )
    if lockable and excuse:
        return judged(
            trail,
            "motor_disconnect_place",
            "holds",
            f"{plain(place.distance_ft)} ft, lockable",
            f"place.motor_{excuse}",
            "disconnect_motor_exception",
            edition,
            {"feet": plain(place.distance_ft)},
            uses=("motor_distance_ft",),
        )
    said = "place.motor_no_excuse" if lockable else "place.motor_no_lock"
    return judged(
        trail,
        "motor_disconnect_place",
        "fails",
        f"{plain(place.distance_ft)} ft",
        said,
        "disconnect_motor",
        edition,
        {"feet": plain(place.distance_ft), "over": _over(place)},
        uses=("motor_distance_ft",),
    )


def _over(place: Place) -> str:
    return show(max(place.distance_ft - IN_SIGHT_FT, Decimal(0)))


def _placed(
    trail: Trail, step_id: str, place: Place, said: str, subject: str, edition: Edition, uses: str
) -> Step:
    ending = "holds" if place.in_sight else "far" if place.is_visible else "hidden"
    return judged(
        trail,
        step_id,
        "holds" if place.in_sight else "fails",
        f"{plain(place.distance_ft)} ft",
        f"{said}.{ending}",
        subject,
        edition,
        {"feet": plain(place.distance_ft), "over": _over(place)},
        uses=(uses,),
    )


def disconnect_kind(
    kind: DisconnectKind,
    *,
    power_hp: Decimal,
    volts_v: Decimal,
    phases: int,
    amps_a: Decimal | None,
    rated_hp: Decimal | None,
    is_portable: bool,
    edition: Edition,
    trail: Trail,
) -> Step:
    """Return the verdict on the kind of disconnect, cord and plug among them.

    Parameters
    ----------
    kind : str
        What it is.
    power_hp : Decimal
        Power of the motor. [hp]
    volts_v : Decimal
        Volts of the circuit. [V]
    phases : int
        1 or 3; 0 for direct current.
    amps_a : Decimal or None
        Its rating as marked. [A]
    rated_hp : Decimal or None
        Its power rating at this voltage, as marked. [hp]
    is_portable : bool
        The motor is portable.
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds ``table_flc_a``.

    Returns
    -------
    Step
        ``disconnect_kind``.
    """
    flc = trail.number("table_flc_a")
    small = power_hp <= 2 and volts_v <= 300
    hp_ok = rated_hp is not None and rated_hp >= power_hp
    above_hp = _ISOLATING_ABOVE_HP[phases == 0]
    params = {
        "above": plain(above_hp),
        "hp": plain(power_hp),
        "volts": plain(volts_v),
        "rated": "—" if rated_hp is None else plain(rated_hp),
        "twice": plain(flc * 2),
        "flc": plain(flc),
        "most": "—" if amps_a is None else show(amps_a * Decimal("0.8"), "limit"),
        "amps": "—" if amps_a is None else plain(amps_a),
    }
    why: str = kind
    holds, subject = False, "disconnect_type"
    if kind in {"breaker", "molded_case_switch"}:
        holds = True
    elif kind in {"motor_circuit_switch", "unfused_switch", "manual_controller"}:
        holds = hp_ok
    elif kind == "isolating_switch":
        subject = "disconnect_isolating"
        holds = power_hp > above_hp
    elif kind == "general_use_switch":
        subject = "disconnect_small"
        holds = small and amps_a is not None and amps_a >= flc * 2
    elif kind == "snap_switch":
        subject = "disconnect_small"
        holds = small and amps_a is not None and flc <= amps_a * Decimal("0.8")
    else:
        subject = "disconnect_plug"
        holds = hp_ok or (is_portable and power_hp <= Decimal("0.3334"))
        why = "plug_portable" if holds and not hp_ok else "plug"
    return judged(
        trail,
        "disconnect_kind",
        "holds" if holds else "fails",
        kind.replace("_", " "),
        f"place.{why}.{'holds' if holds else 'fails'}",
        subject,
        edition,
        params,
        uses=("table_flc_a", "power_hp"),
    )


def disconnect_rating(
    amps_a: Decimal, *, is_unfused_by_hp: bool = False, edition: Edition, trail: Trail
) -> Step:
    """Return the verdict on the amperes of a disconnect that is there.

    Parameters
    ----------
    amps_a : Decimal
        Its rating as marked. [A]
    is_unfused_by_hp : bool
        A listed unfused switch marked with at least the motor's power [hp]: its amperes are
        not held to 115 %, 430.110(A) exception.
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds ``table_flc_a`` and ``disconnect_least_a``.

    Returns
    -------
    Step
        ``disconnect_rating``.
    """
    given(trail, "disconnect_there_a", amps_a, "A")
    flc, least = trail.number("table_flc_a"), trail.number("disconnect_least_a")
    said = "holds" if amps_a >= least else "unfused" if is_unfused_by_hp else "fails"
    return judged(
        trail,
        "disconnect_rating",
        "fails" if said == "fails" else "holds",
        f"{plain(amps_a)} A",
        f"place.rating.{said}",
        "disconnect_unfused" if said == "unfused" else "disconnect",
        edition,
        {
            "amps": plain(amps_a),
            "flc": plain(flc),
            "factor": plain(least / flc),
            "least": show(least, "minimum"),
            "short": show(least - amps_a, "minimum"),
        },
        uses=("disconnect_least_a", "disconnect_there_a"),
    )


def controller_rating(
    rated_hp: Decimal, *, rated_v: Decimal | None, edition: Edition, trail: Trail
) -> Step:
    """Return the verdict on the power rating of the controller.

    Parameters
    ----------
    rated_hp : Decimal
        As marked for the volts of this circuit. [hp]
    rated_v : Decimal or None
        Volts at which it is marked so; None where no one read them. [V]
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds ``power_hp`` and ``supply_volts_v``.

    Returns
    -------
    Step
        ``controller_rating``.
    """
    power, volts = trail.number("power_hp"), trail.number("supply_volts_v")
    said = "holds"
    if rated_v is not None and abs(rated_v - volts) > volts / 10:
        said = "volts"
    elif rated_hp < power:
        said = "power"
    return judged(
        trail,
        "controller_rating",
        "holds" if said == "holds" else "fails",
        f"{plain(rated_hp)} hp",
        f"place.controller_rating.{said}",
        "controller_power",
        edition,
        {
            "rated": plain(rated_hp),
            "hp": plain(power),
            "volts": plain(volts),
            "at": "—" if rated_v is None else plain(rated_v),
            "short": plain(power - rated_hp),
        },
        uses=("power_hp", "supply_volts_v"),
    )
