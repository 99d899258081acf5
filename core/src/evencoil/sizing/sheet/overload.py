"""The overload where its heaters are: setting, dial, units, class, protector."""

from __future__ import annotations

from collections.abc import Iterator

from evencoil.base import Figure, Message, MissingError, Step, say
from evencoil.codebook import given
from evencoil.sizing.heater_place import (
    acceleration_fits,
    dial_range,
    overload_units,
    protector,
    set_where_it_lies,
)
from evencoil.sizing.inputs import DEFAULT_TRIP_CLASS
from evencoil.sizing.sheet.context import SizeSheet

__all__ = ["figures"]


def _dial_asked() -> Step:
    """Refuse a dial setting while no one has read what the dial's figures mean."""
    raise MissingError(
        Message("relay.dial_asked"),
        field="size.overload.dial_has_125",
        hint=Message("relay.dial_asked.hint"),
    )


def figures(sheet: SizeSheet) -> Iterator[Figure]:
    """Yield the overload setting where its heaters are, its dial, class and number."""
    asked = sheet.size.overload
    if asked is None:
        return
    shown = say(Message(f"heaters_lie.{asked.place}"))
    given(sheet.trail, "heater_place", asked.place, "", shown=shown)
    has_125 = asked.dial_has_125
    ratio = None
    if asked.ct_primary_a is not None and asked.ct_secondary_a is not None:
        ratio = asked.ct_primary_a / asked.ct_secondary_a
    yield sheet.figure(
        "relay_setting_a",
        "overload",
        lambda: (
            _dial_asked()
            if has_125 is None
            else set_where_it_lies(
                asked.place,
                ct_ratio=ratio,
                capacitor_percent=asked.capacitor_percent,
                dial_has_125=has_125,
                edition=sheet.edition,
                trail=sheet.trail,
            )
        ),
        "plate_amps_a",
        "overload_setting_a",
    )
    low, high = asked.low_a, asked.high_a
    if low is not None and high is not None:
        yield sheet.figure(
            "relay_dial",
            "overload",
            lambda: dial_range(low, high, edition=sheet.edition, trail=sheet.trail),
            "relay_setting_a",
        )
    yield sheet.figure(
        "overload_units",
        "overload",
        lambda: overload_units(
            asked.units,
            sheet.phases,
            edition=sheet.edition,
            trail=sheet.trail,
        ),
    )
    seconds = asked.accelerates_s
    if seconds is not None:
        yield sheet.figure(
            "trip_class",
            "overload",
            lambda: acceleration_fits(
                asked.trip_class or DEFAULT_TRIP_CLASS,
                seconds,
                edition=sheet.edition,
                trail=sheet.trail,
            ),
        )
    trip = asked.protector_trip_a
    if trip is not None:
        yield sheet.figure(
            "protector",
            "overload",
            lambda: protector(trip, edition=sheet.edition, trail=sheet.trail),
            "table_flc_a",
        )
