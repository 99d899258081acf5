"""Where the disconnects are, and of which kind."""

from __future__ import annotations

from collections.abc import Iterator
from decimal import Decimal

from evencoil.base import Figure, Message, MissingError
from evencoil.sizing.places import (
    Place,
    controller_rating,
    disconnect_kind,
    disconnect_rating,
    place_of_controller,
    place_of_motor,
)
from evencoil.sizing.sheet.context import SizeSheet

__all__ = ["figures"]


def _place(distance_ft: Decimal, what: str, *, is_visible: bool | None) -> Place:
    """Return a place; whether it can be seen is asked, never supposed."""
    if is_visible is None:
        raise MissingError(
            Message("place.visible_asked"),
            field=f"size.place.{what}_visible",
            hint=Message("place.visible_asked.hint"),
        )
    return Place(distance_ft=distance_ft, is_visible=is_visible)


def figures(sheet: SizeSheet) -> Iterator[Figure]:
    """Yield places, kinds and ratings of the disconnects."""
    asked = sheet.size.place
    if asked is None:
        return
    controller, motor = asked.controller_ft, asked.motor_ft
    if controller is not None:
        yield sheet.figure(
            "controller_disconnect_place",
            "place",
            lambda: place_of_controller(
                _place(controller, "controller", is_visible=asked.controller_visible),
                edition=sheet.edition,
                trail=sheet.trail,
            ),
        )
    if motor is not None:
        yield sheet.figure(
            "motor_disconnect_place",
            "place",
            lambda: place_of_motor(
                _place(motor, "motor", is_visible=asked.motor_visible),
                own=asked.own_at_motor,
                lockable=asked.lockable,
                excuse=asked.excuse,
                edition=sheet.edition,
                trail=sheet.trail,
            ),
        )
    starter = asked.controller_hp
    if starter is not None:
        yield sheet.figure(
            "controller_rating",
            "place",
            lambda: controller_rating(
                starter, rated_v=asked.controller_v, edition=sheet.edition, trail=sheet.trail
            ),
            "power_hp",
            "supply_volts_v",
        )
    kind, amps = asked.kind, asked.amps_a
    if kind is not None:
        yield sheet.figure(
            "disconnect_kind",
            "place",
            lambda: disconnect_kind(
                kind,
                power_hp=sheet.trail.number("power_hp"),
                volts_v=sheet.trail.number("supply_volts_v"),
                phases=sheet.phases,
                amps_a=amps,
                rated_hp=asked.rated_hp,
                is_portable=asked.is_portable,
                edition=sheet.edition,
                trail=sheet.trail,
            ),
            "table_flc_a",
            "power_hp",
            "supply_volts_v",
        )
    if amps is not None:
        yield sheet.figure(
            "disconnect_rating",
            "place",
            lambda: disconnect_rating(
                amps,
                is_unfused_by_hp=kind == "unfused_switch"
                and sheet.trail["disconnect_kind"].verdict == "holds",
                edition=sheet.edition,
                trail=sheet.trail,
            ),
            "disconnect_least_a",
            *(("disconnect_kind",) if kind == "unfused_switch" else ()),
        )
