"""Short-circuit and ground-fault device of one motor's branch circuit.

The device lets the motor start and clears faults; it does not protect against
overload, and the conductor's ordinary overcurrent limit does not hold for it
(240.4(G)). Two readings differ: `main_rule` stays at the main rule (largest standard
rating not above the figure), `next_size_up` takes the next standard rating up.

Units: current [A], percent of table full-load current.
Rules: NEC 430.52, 240.6(A). Tables: ``nec/430_52_c_1``, ``nec/240_6_a``.
Left out: several motors on one device (``feeder``, ``taps``).
"""

from __future__ import annotations

from dataclasses import dataclass
from decimal import Decimal
from functools import cache, lru_cache
from typing import Literal

from evencoil.base import Message, NotInTableError, Step, Tip, Trail, plain, show
from evencoil.codebook import Edition, RatingRule, rule, table
from evencoil.sizing.conductor import Material

__all__ = [
    "FUSES",
    "DeviceKind",
    "Machine",
    "Ratings",
    "largest_not_above",
    "next_up",
    "ordinary_limit_a",
    "protection_device",
    "protection_ratings",
    "ratings_in",
    "standard_ratings",
]

DeviceKind = Literal[
    "dual_element_fuse",
    "nontime_delay_fuse",
    "class_cc_fuse",
    "inverse_time_breaker",
    "instantaneous_breaker",
]
Machine = Literal[
    "squirrel_cage",
    "wound_rotor",
    "synchronous",
    "high_torque",
    "torque",
    "listed_appliance",
    "marked_fan",
]
FUSES = frozenset({"dual_element_fuse", "nontime_delay_fuse", "class_cc_fuse"})
#: time-delay fuses of class CC go by the column without time delay, and end at 30 A
_COLUMN = {"class_cc_fuse": "nontime_delay_fuse"}
_LARGEST_CC_A = Decimal(30)
_LARGEST_FUSE_CLASS_A = Decimal(600)
_SMALL_MOTOR_A = Decimal(100)


@dataclass(frozen=True, slots=True, kw_only=True)
class Ratings:
    """What the rules give for one device.

    Attributes
    ----------
    limit_a : Decimal
        Table percentage times table current. [A]
    main_rule_a : Decimal or None
        Largest standard rating not above it; None where none is so small. [A]
    next_size_a : Decimal
        The figure itself if standard, else the next standard rating up. [A]
    cap_a : Decimal
        The absolute limit if the motor does not start. [A]
    raised_a : Decimal
        Largest standard rating not above the cap, at least ``next_size_a``. [A]
    """

    limit_a: Decimal
    main_rule_a: Decimal | None
    next_size_a: Decimal
    cap_a: Decimal
    raised_a: Decimal


@cache
def standard_ratings(kind: DeviceKind, edition: Edition) -> tuple[Decimal, ...]:
    """Return the standard ratings of a kind of device in amps, smallest first.

    Parameters
    ----------
    kind : str
        Fuses have a few small ratings that breakers lack.
    edition : int
        10 A became a standard rating of breakers in 2023.

    Returns
    -------
    tuple of Decimal
        Ratings of 240.6(A). [A]
    """
    book = table("240_6_a")
    found = set()
    for amps, sort, since, until in book.rows:
        if (since and edition < int(since)) or (until and edition > int(until)):
            continue
        if sort == "standard" or kind in FUSES:
            found.add(Decimal(amps))
    return tuple(sorted(found))


def largest_not_above(limit_a: Decimal, kind: DeviceKind, edition: Edition) -> Decimal | None:
    """Return the largest standard rating not above a limit, or None.

    Parameters
    ----------
    limit_a : Decimal
        The limit. [A]
    kind : str
        Kind of device.
    edition : int
        Edition whose ratings hold.
    """
    return max((amps for amps in standard_ratings(kind, edition) if amps <= limit_a), default=None)


def next_up(limit_a: Decimal, kind: DeviceKind, edition: Edition) -> Decimal | None:
    """Return the smallest standard rating not below a figure, or None.

    Parameters
    ----------
    limit_a : Decimal
        The figure. [A]
    kind : str
        Kind of device.
    edition : int
        Edition whose ratings hold.
    """
    return min((amps for amps in standard_ratings(kind, edition) if amps >= limit_a), default=None)


@cache
def _row(phases: int, design_letter: str | None, *, is_premium: bool, machine: Machine) -> int:
    motor = "squirrel cage, other than Design B energy-efficient (or premium-efficiency)"
    if phases == 0:
        motor = "dc constant voltage"
    elif phases == 1:
        motor = "single-phase"
    elif machine in {"wound_rotor", "synchronous"}:
        motor = machine.replace("_", "-")
    elif design_letter == "B" and is_premium:
        motor = "squirrel cage, Design B energy-efficient (or premium-efficiency)"
    return table("430_52_c_1").column("motor_type").index(motor)


def _cap_percent(kind: DeviceKind, flc_a: Decimal, *, is_premium_b: bool) -> Decimal:
    if kind in {"nontime_delay_fuse", "class_cc_fuse"}:
        return Decimal(400)
    if kind == "dual_element_fuse":
        return Decimal(225)
    if kind == "inverse_time_breaker":
        return Decimal(400) if flc_a <= _SMALL_MOTOR_A else Decimal(300)
    return Decimal(1700) if is_premium_b else Decimal(1300)


@lru_cache(maxsize=8192)
def protection_ratings(
    *,
    flc_a: Decimal,
    kind: DeviceKind,
    phases: int,
    edition: Edition,
    design_letter: str | None = None,
    is_premium: bool = False,
    machine: Machine = "squirrel_cage",
    most_percent: Decimal | None = None,
) -> Ratings:
    """Return the ratings that main rule, next-size step and raised limit give.

    Parameters
    ----------
    flc_a : Decimal
        Table full-load current. [A]
    kind : str
        One of the four kinds.
    phases : int
        1 or 3.
    edition : int
        Edition whose standard ratings hold.
    design_letter : str or None
        Design letter of the nameplate.
    is_premium : bool
        Stamped as energy-efficient or premium-efficiency.
    machine : str
        Wound-rotor and synchronous motors have rows of their own.
    most_percent : Decimal or None
        What the place allows at most, where that is less than the table. [percent]

    Returns
    -------
    Ratings
        For an instantaneous breaker, a setting: nothing is rounded.

    Raises
    ------
    NotInTableError
        If no standard rating is as large as the figure.
    """
    book = table("430_52_c_1")
    row = _row(phases, design_letter, is_premium=is_premium, machine=machine)
    percent = book.number(row, _COLUMN.get(kind, kind)) or Decimal(0)
    if most_percent is not None:
        percent = min(percent, most_percent)
    limit = flc_a * percent / 100
    premium_b = design_letter == "B" and is_premium
    cap = flc_a * _cap_percent(kind, flc_a, is_premium_b=premium_b) / 100
    if kind == "instantaneous_breaker":
        return Ratings(limit_a=limit, main_rule_a=limit, next_size_a=limit, cap_a=cap, raised_a=cap)
    up = next_up(limit, kind, edition)
    if kind == "class_cc_fuse" and up is not None and up > _LARGEST_CC_A:
        raise NotInTableError(
            Message("protection.class_cc", {"amps": show(limit)}),
            field="size.protection_kind",
            hint=Message("protection.none.hint"),
        )
    if up is None:
        raise NotInTableError(
            Message("protection.none", {"amps": show(limit)}),
            field="size.protection_kind",
            hint=Message("protection.none.hint"),
        )
    if kind in FUSES and up > _LARGEST_FUSE_CLASS_A:
        cap = max(flc_a * 3, limit)
    highest = largest_not_above(cap, kind, edition) or up
    if kind == "nontime_delay_fuse" and up <= _LARGEST_FUSE_CLASS_A:
        highest = min(highest, _LARGEST_FUSE_CLASS_A)
    if kind == "class_cc_fuse":
        highest = min(highest, _LARGEST_CC_A)
    return Ratings(
        limit_a=limit,
        main_rule_a=largest_not_above(limit, kind, edition),
        next_size_a=up,
        cap_a=cap,
        raised_a=max(highest, up),
    )


def protection_device(
    *,
    kind: DeviceKind,
    rating_rule: RatingRule,
    phases: int,
    edition: Edition,
    trail: Trail,
    design_letter: str | None = None,
    is_premium: bool = False,
    machine: Machine = "squirrel_cage",
    no_start: str | None = None,
    maker_limit: tuple[Decimal, str] | None = None,
    material: Material = "cu",
) -> Step:
    """Return the rating of the short-circuit and ground-fault device.

    Parameters
    ----------
    kind : str
        One of the four kinds.
    rating_rule : str
        ``main_rule`` or ``field``.
    phases : int
        1 or 3.
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds ``table_flc_a``, or ``device_current_a`` where several speeds decide; the
        steps are added to it.
    design_letter : str or None
        Design letter of the nameplate.
    is_premium : bool
        Stamped as energy-efficient or premium-efficiency.
    machine : str
        Wound-rotor and synchronous motors have rows of their own.
    no_start : str or None
        Who recorded, and why, that the motor does not start on less.
    maker_limit : tuple or None
        The largest device printed by the maker [A], and where it is printed.
    material : str
        Of the conductors, for the figure of an ordinary circuit.

    Returns
    -------
    Step
        ``protection_device_a``; a breaker's setting for the instantaneous kind. [A]

    Raises
    ------
    NotInTableError
        If no standard rating is as large as the figure.
    """
    most = None
    if "amendment_device_percent" in trail:
        most = trail.number("amendment_device_percent")
    if "amendment_no_next_size_up" in trail:
        rating_rule = "main_rule"
    basis = _basis(trail)
    flc = trail.number(basis)
    found = ratings_in(
        trail,
        kind=kind,
        phases=phases,
        edition=edition,
        design_letter=design_letter,
        is_premium=is_premium,
        machine=machine,
    )
    row = _row(phases, design_letter, is_premium=is_premium, machine=machine)
    cell = table("430_52_c_1").find(row, _COLUMN.get(kind, kind), edition=edition)
    named = ("protection_kind", "amendment_device_percent")
    kinds = tuple(name for name in named if name in trail)
    trail.add(
        Step(
            id="protection_limit_a",
            value=found.limit_a,
            unit="A",
            kind="calculated",
            shown=show(found.limit_a, "limit"),
            working=Message(
                "protection.limit",
                {
                    "flc": plain(flc),
                    "percent": plain(cell.value if most is None else min(cell.value, most)),
                    "value": plain(found.limit_a),
                    "kind": str(Message(f"kind.{kind}")),
                },
            ),
            rule=rule("protection", edition),
            uses=(basis, *kinds),
            cell=cell.cell,
            marks=cell.marks,
        )
    )
    choice, said = _choice(found, kind, rating_rule)
    if no_start is not None and found.raised_a > choice:
        choice, said = found.raised_a, "protection.raised"
    if maker_limit is not None and maker_limit[0] < choice:
        choice, said = maker_limit[0], "protection.maker"
    return trail.add(
        Step(
            id="protection_device_a",
            value=choice,
            unit="A",
            kind="calculated",
            shown=show(choice, "limit"),
            working=Message(
                said,
                {
                    "limit": show(found.limit_a, "limit"),
                    "value": plain(choice),
                    "cap": show(found.cap_a, "limit"),
                    "percent": show(found.cap_a / flc * 100),
                    "reason": no_start or "",
                    "source": maker_limit[1] if maker_limit else "",
                    "kind": str(Message(f"kind.{kind}")),
                },
            ),
            rule=rule(_SUBJECTS.get(said, "protection"), edition),
            uses=(
                "protection_limit_a",
                *(
                    name
                    for name in ("no_start", "maker_limit_a", "amendment_no_next_size_up")
                    if name in trail
                ),
            ),
            tips=_tips(found, kind, material, trail),
        )
    )


def ratings_in(
    trail: Trail,
    *,
    kind: DeviceKind,
    phases: int,
    edition: Edition,
    design_letter: str | None,
    is_premium: bool,
    machine: Machine,
) -> Ratings:
    """Return what the rules give for the motor of a trail, local amendments counted.

    Parameters
    ----------
    trail : Trail
        Holds ``table_flc_a``, or ``device_current_a`` where several speeds decide.
    kind : str
        Kind of device.
    phases : int
        1 or 3; 0 for direct current.
    edition : int
        Edition whose standard ratings hold.
    design_letter : str or None
        Design letter of the nameplate.
    is_premium : bool
        Stamped as energy-efficient or premium-efficiency.
    machine : str
        Wound-rotor and synchronous motors have rows of their own.
    """
    most = "amendment_device_percent"
    return protection_ratings(
        flc_a=trail.number(_basis(trail)),
        kind=kind,
        phases=phases,
        edition=edition,
        design_letter=design_letter,
        is_premium=is_premium,
        machine=machine,
        most_percent=trail.number(most) if most in trail else None,
    )


def _basis(trail: Trail) -> str:
    """Return the current that the maximum is a percentage of."""
    named = ("device_current_a", "flc_for_maximum_a")
    return next((name for name in named if name in trail), "table_flc_a")


_SUBJECTS = {
    "protection.next_size_up": "protection_step_up",
    "protection.raised": "protection_raised",
    "protection.maker": "protection_maker",
}


def _choice(found: Ratings, kind: DeviceKind, rating_rule: RatingRule) -> tuple[Decimal, str]:
    """Return the rating that a rating rule takes, and the message that says why."""
    if kind == "instantaneous_breaker":
        return found.limit_a, "protection.setting"
    if found.next_size_a == found.limit_a:
        return found.next_size_a, "protection.exact"
    if rating_rule == "main_rule" and found.main_rule_a is not None:
        return found.main_rule_a, "protection.exam"
    return (
        found.next_size_a,
        "protection.next_size_up" if rating_rule == "next_size_up" else "protection.no_smaller",
    )


def _tips(found: Ratings, kind: DeviceKind, material: Material, trail: Trail) -> tuple[Tip, ...]:
    """Return what would change the rating, and what does not apply."""
    flc_a = trail.number(_basis(trail))
    said = []
    if kind != "instantaneous_breaker":
        exam = "—" if found.main_rule_a is None else plain(found.main_rule_a)
        if exam != plain(found.next_size_a):
            said.append(
                Message(
                    "protection.tip_rules",
                    {"main_rule": exam, "next_size_up": plain(found.next_size_a)},
                )
            )
        if found.raised_a > found.next_size_a:
            said.append(
                Message(
                    "protection.tip_no_start",
                    {
                        "cap": show(found.cap_a, "limit"),
                        "percent": show(found.cap_a / flc_a * 100),
                        "value": plain(found.raised_a),
                    },
                )
            )
    else:
        said.append(Message("protection.tip_setting", {"cap": show(found.cap_a, "limit")}))
    if "conductor_size" in trail:
        said.append(_ordinary(material, trail))
    return tuple(Tip(message=message) for message in said)


def ordinary_limit_a(material: Material, trail: Trail) -> Decimal:
    """Return the largest device of an ordinary circuit on this conductor [A].

    Motor circuits are released from it by 240.4(G); it is named so that no one takes it
    for theirs. 240.4(D) for small conductors, else the ampacity.

    Parameters
    ----------
    material : str
        ``cu`` or ``al``.
    trail : Trail
        Holds ``conductor_size`` and ``ampacity_a``.
    """
    size = trail.size("conductor_size").size
    rows = [row for row in table("240_4_d").rows if row[0] == size and row[1] == material]
    return Decimal(rows[0][2]) if rows else trail.number("ampacity_a")


def _ordinary(material: Material, trail: Trail) -> Message:
    amps = show(ordinary_limit_a(material, trail), "limit")
    return Message("protection.tip_ordinary", {"size": trail["conductor_size"].shown, "amps": amps})
