"""Which motor is which, by running amps and heaters, where the tags in the panel are gone.

Units: current [A].
Rules: a motor runs at a quarter (no load) to 115 % of its nameplate amps; its heaters trip
between its nameplate amps and 140 % of them, NEC 430.32(C). What one reading leaves open is
settled where all readings together leave one way only. Odds, not proof: a conductor that is
followed, or a bump, proves it.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from decimal import Decimal
from typing import Annotated

from pydantic import Field

from evencoil.base import DecimalText, Inputs, Message, Text, plain

__all__ = ["NamedMotor", "UnnamedMotor", "name_motors"]

_RUNNING = (Decimal("0.25"), Decimal("1.15"))
_TRIPS = (Decimal(1), Decimal("1.4"))
Amps = Annotated[DecimalText, Field(gt=0, le=10000)]


class UnnamedMotor(Inputs):
    """A starter or a pair of conductors whose tag is gone, and what was read on it."""

    label: Text = Field(min_length=1)
    running_a: Amps | None = None
    heater_trip_a: Amps | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class NamedMotor:
    """The motors of the machine that readings fit; ``tag`` the only one left, or empty."""

    label: str
    fits: tuple[str, ...]
    tag: str
    message: Message


def _fits(one: UnnamedMotor, amps_a: Decimal | None) -> bool:
    """Tell whether readings fit a motor's nameplate amps; unknown amps exclude nothing."""
    if amps_a is None:
        return True
    checks = ((one.running_a, _RUNNING), (one.heater_trip_a, _TRIPS))
    return all(
        read is None or amps_a * low <= read <= amps_a * high for read, (low, high) in checks
    )


def _can_place(fits: Mapping[int, tuple[str, ...]], first: int, first_tag: str) -> bool:
    """Tell whether all readings find a motor of their own while one of them has a given motor."""
    owner = {first_tag: first}

    def place(one: int, tried: set[str]) -> bool:
        for tag in fits[one]:
            if tag in tried or tag == first_tag:
                continue
            tried.add(tag)
            if tag not in owner or place(owner[tag], tried):
                owner[tag] = one
                return True
        return False

    return all(place(one, set()) for one in fits if one != first)


def name_motors(
    unnamed: Sequence[UnnamedMotor], amps_a: Mapping[str, Decimal | None]
) -> tuple[NamedMotor, ...]:
    """Return which motor each set of readings belongs to, or which it may.

    Parameters
    ----------
    unnamed : sequence of UnnamedMotor
        What was read, each under a label of its own.
    amps_a : mapping
        Nameplate amps of every motor at the present supply, by tag; None where the job does
        not give them. [A]
    """
    fits = {
        place: tuple(tag for tag in amps_a if _fits(one, amps_a[tag]))
        for place, one in enumerate(unnamed)
        if one.running_a or one.heater_trip_a
    }
    # a reading that fits none takes no motor from the others
    fits = {place: tags for place, tags in fits.items() if tags}
    found = []
    for place, one in enumerate(unnamed):
        own = fits.get(place, ())
        together = tuple(tag for tag in own if _can_place(fits, place, tag))
        found.append(_said(one, own, together, amps_a))
    return tuple(found)


def _said(
    one: UnnamedMotor,
    own: tuple[str, ...],
    together: tuple[str, ...],
    amps_a: Mapping[str, Decimal | None],
) -> NamedMotor:
    """Say what the readings leave."""
    amps = None if len(together) != 1 else amps_a[together[0]]
    params = {
        "running": "—" if one.running_a is None else plain(one.running_a),
        "trip": "—" if one.heater_trip_a is None else plain(one.heater_trip_a),
        "tags": " · ".join(together or own),
        "amps": "—" if amps is None else plain(amps),
    }
    if one.running_a is None and one.heater_trip_a is None:
        code = "unread"
    elif not own:
        code = "none"
    elif not together:
        code = "clash"
    elif len(together) > 1:
        code = "several"
    else:
        code = "alone" if len(own) == 1 else "left"
    return NamedMotor(
        label=one.label,
        fits=together or own,
        tag=together[0] if len(together) == 1 else "",
        message=Message(f"named.{code}", params),
    )
