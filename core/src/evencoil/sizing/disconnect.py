"""Disconnecting means of one motor: amperes, horsepower, and the usual switch.

Units: current [A], power [hp].
Rules: NEC 430.110(A), 430.109(A). Safety switches are made for 30, 60, 100,
200, 400, 600, 800 and 1200 A (NEMA KS 1).
Left out: where it stands (430.102), cord and plug, motors of 2 hp or less on a
general-use switch.
"""

from __future__ import annotations

from decimal import Decimal

from evencoil.base import Message, NotInTableError, Step, Tip, Trail, plain, show
from evencoil.codebook import Edition, rule

__all__ = ["SWITCHES_A", "disconnect", "usual_switch_a"]

DISCONNECT_FACTOR = Decimal("1.15")
SWITCHES_A = tuple(Decimal(amps) for amps in (30, 60, 100, 200, 400, 600, 800, 1200))


def usual_switch_a(least_a: Decimal) -> Decimal | None:
    """Return the smallest usual safety switch, or None beyond the largest [A].

    Parameters
    ----------
    least_a : Decimal
        Least ampere rating. [A]
    """
    return next((size for size in SWITCHES_A if size >= least_a), None)


def disconnect(*, fuse_a: Decimal | None, edition: Edition, trail: Trail) -> Step:
    """Return the usual safety switch, with its least amperes and horsepower.

    Parameters
    ----------
    fuse_a : Decimal or None
        Rating of the fuses that the switch has to hold, or None. [A]
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds ``table_flc_a`` and ``power_hp``; the steps are added to it.

    Returns
    -------
    Step
        ``disconnect_switch_a``, with ``disconnect_least_a`` before it. [A]

    Raises
    ------
    NotInTableError
        If no usual switch is so large.
    """
    flc = trail.number("table_flc_a")
    changed = "amendment_disconnect_percent" in trail
    factor = trail.number("amendment_disconnect_percent") / 100 if changed else DISCONNECT_FACTOR
    least = flc * factor
    is_torque = trail["table_flc_a"].rule == rule("torque_currents", edition)
    trail.add(
        Step(
            id="disconnect_least_a",
            value=least,
            unit="A",
            kind="calculated",
            shown=show(least, "minimum"),
            working=Message(
                "disconnect.least",
                {"flc": plain(flc), "factor": plain(factor), "value": plain(least)},
            ),
            rule=rule("torque_disconnect" if is_torque else "disconnect", edition),
            uses=("table_flc_a", *(("amendment_disconnect_percent",) if changed else ())),
        )
    )
    by_amps = usual_switch_a(least)
    by_fuse = None if fuse_a is None else usual_switch_a(fuse_a)
    if by_amps is None or (fuse_a is not None and by_fuse is None):
        raise NotInTableError(
            Message("disconnect.none", {"amps": show(least, "minimum")}),
            field="size.protection_kind",
            hint=Message("disconnect.none.hint"),
        )
    size = by_amps if by_fuse is None else max(by_amps, by_fuse)
    power = plain(trail.number("power_hp")) if "power_hp" in trail else "—"
    clips = by_fuse is not None and by_fuse > by_amps
    return trail.add(
        Step(
            id="disconnect_switch_a",
            value=size,
            unit="A",
            kind="calculated",
            shown=plain(size),
            working=Message(
                "disconnect.clips" if clips else "disconnect.switch",
                {
                    "least": show(least, "minimum"),
                    "size": plain(size),
                    "small": plain(by_amps),
                    "fuse": "" if fuse_a is None else plain(fuse_a),
                    "hp": power,
                },
            ),
            rule=rule("disconnect_type", edition),
            uses=(
                "disconnect_least_a",
                *(("protection_device_a",) if fuse_a is not None else ()),
                *(("power_hp",) if "power_hp" in trail else ()),
            ),
            tips=(
                Tip(
                    message=Message(
                        "disconnect.tip",
                        {
                            "size": plain(by_amps),
                            "flc": show(by_amps / factor, "limit"),
                        },
                    )
                ),
            ),
        )
    )
