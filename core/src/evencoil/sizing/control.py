"""Control power: the transformer from coils and lamps, its fuses, its conductors.

Units: apparent power [VA], volts [V], current [A].
Rules: NEC 430.72(C) and 450.3(B) (fuses of the transformer), 430.72(B) (devices
in front of control conductors). Transformer size: textbook, the inrush of the largest coil
that pulls in while all others are held, and 25 % above the sealed load for continuous use.
Tables: ``nec/430_72_b``, ``nec/240_6_a``, ``nec/310_16``.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal
from typing import Literal

from evencoil.base import Message, NotInTableError, RefusedError, Step, Trail, plain, show
from evencoil.codebook import Edition, given, judged, table, tips_of, worked
from evencoil.sizing.protection import standard_ratings

__all__ = [
    "USUAL_VA",
    "ControlCoil",
    "TransformerProtection",
    "control_conductor",
    "control_conductor_holds",
    "control_transformer",
    "primary_device",
    "secondary_by_primary",
    "secondary_device",
    "without_fuse",
]

#: fuses on both sides, on the primary alone, or no fuse of its own
TransformerProtection = Literal["both", "primary_only", "inherent"]
#: below this a transformer in the controller's enclosure needs no fuse, 430.72(C)(3) [VA]
_INHERENT_BELOW_VA = Decimal(50)

USUAL_VA = tuple(
    Decimal(value)
    for value in (25, 50, 75, 100, 150, 200, 250, 300, 350, 500, 750, 1000, 1500, 2000, 3000, 5000)
)
_SECOND = Decimal("1.25")
#: at the moment of inrush the secondary may sag to about 95 % of its volts; a lagging
#: inrush and a lagging sealed load are added as if in phase, which is never too small
_SAGS = Decimal("0.95")


@dataclass(frozen=True, slots=True, kw_only=True)
class ControlCoil:
    """A coil on the control transformer: how many, and what each takes [VA]."""

    label: str
    count: int
    inrush_va: Decimal
    sealed_va: Decimal


def control_transformer(
    coils: Sequence[ControlCoil], lamps_va: Decimal, *, edition: Edition, trail: Trail
) -> Step:
    """Return the smallest usual transformer that pulls every coil in and holds all.

    Parameters
    ----------
    coils : sequence of ControlCoil
        Every coil that can be held at once.
    lamps_va : Decimal
        Lamps and other steady load together. [VA]
    edition : int
        Edition whose sections are cited.
    trail : Trail
        The steps are added to it.

    Returns
    -------
    Step
        ``transformer_va``, with ``sealed_va`` and ``inrush_va`` before it. [VA]

    Raises
    ------
    CoreError
        If there is no coil, or no usual transformer is so large.
    """
    if not any(coil.count for coil in coils):
        raise RefusedError(
            Message("control.no_coil"),
            field="size.control.coils",
            hint=Message("control.no_coil.hint"),
        )
    sealed = sum((coil.sealed_va * coil.count for coil in coils), lamps_va)
    largest = max((coil for coil in coils if coil.count), key=lambda coil: coil.inrush_va)
    inrush = sealed - largest.sealed_va + largest.inrush_va
    said = " + ".join(f"{coil.count} × {plain(coil.sealed_va)}" for coil in coils if coil.count)
    worked(
        trail,
        "sealed_va",
        sealed,
        "VA",
        "control.sealed",
        "control_transformer",
        edition,
        {"said": said, "lamps": plain(lamps_va)},
        rounding="minimum",
        uses=("coils",),
    )
    worked(
        trail,
        "inrush_va",
        inrush,
        "VA",
        "control.inrush",
        "control_transformer",
        edition,
        {
            "label": largest.label or "—",
            "inrush": plain(largest.inrush_va),
            "held": plain(sealed - largest.sealed_va),
        },
        rounding="minimum",
        uses=("sealed_va", "coils"),
    )
    # usual machine-tool transformers give about five times their rating for a moment at 95 % volts
    needed = max(sealed * _SECOND, inrush / 5 / _SAGS)
    size = next((usual for usual in USUAL_VA if usual >= needed), None)
    if size is None:
        raise NotInTableError(
            Message("control.too_large", {"va": show(needed, "minimum")}),
            field="size.control.coils",
            hint=Message("control.too_large.hint"),
        )
    burst = inrush / 5 / _SAGS
    return worked(
        trail,
        "transformer_va",
        size,
        "VA",
        "control.transformer",
        "control_transformer",
        edition,
        {"sealed": show(sealed * _SECOND, "minimum"), "inrush": show(burst, "minimum")},
        uses=("sealed_va", "inrush_va"),
        tips=tips_of(
            Message("control.tip_spare", {"left": show(size / _SECOND - sealed, "limit")})
        ),
    )


def _limit(amps: Decimal, *, is_alone: bool) -> tuple[Decimal, bool]:
    """Return the percentage of 450.3(B) that governs, and whether the next size up is allowed.

    ``is_alone`` is a secondary fuse, or a primary fuse without one behind the transformer.
    """
    if is_alone:
        return (Decimal(125), True) if amps >= 9 else (Decimal(167), False)
    return Decimal(250), False


def without_fuse(va: Decimal, *, edition: Edition, trail: Trail) -> Step:
    """Return whether a control transformer may do without a fuse of its own.

    Parameters
    ----------
    va : Decimal
        Rating. [VA]
    edition : int
        Edition whose sections are cited.
    trail : Trail
        The step is added to it.

    Returns
    -------
    Step
        ``transformer_without_fuse``: below 50 VA, part of the controller and inside its
        enclosure, 430.72(C)(3).
    """
    holds = va < _INHERENT_BELOW_VA
    return judged(
        trail,
        "transformer_without_fuse",
        "holds" if holds else "fails",
        f"{plain(va)} VA",
        f"control.inherent.{'holds' if holds else 'fails'}",
        "control_inherent",
        edition,
        {"va": plain(va), "below": plain(_INHERENT_BELOW_VA)},
        uses=("transformer_va", "control_va_there"),
    )


def primary_device(
    va: Decimal, primary_v: Decimal, *, is_alone: bool = False, edition: Edition, trail: Trail
) -> Step:
    """Return the largest fuse in front of a motor control transformer.

    Parameters
    ----------
    va : Decimal
        Rating. [VA]
    primary_v : Decimal
        Primary volts. [V]
    is_alone : bool
        There is no fuse on the secondary.
    edition : int
        Edition whose sections are cited.
    trail : Trail
        The steps are added to it.

    Returns
    -------
    Step
        ``primary_fuse_a``, with ``primary_a`` and ``primary_limit_a`` before it. [A]

    Raises
    ------
    CoreError
        If the volts are not above zero.
    """
    amps = _current(va, primary_v, "size.control.primary_v")
    worked(
        trail,
        "primary_a",
        amps,
        "A",
        "control.primary",
        "control_transformer",
        edition,
        {"va": plain(va), "volts": plain(primary_v)},
        uses=("transformer_va", "control_va_there"),
        shown=plain(amps.quantize(Decimal("0.0001"))),
    )
    percent, said, subject = Decimal(500), "control.primary_small", "control_primary"
    may_rise = False
    if amps >= 2:
        percent, may_rise = _limit(amps, is_alone=is_alone)
        said = "control.primary_alone" if is_alone else "control.primary_limit"
        subject = "transformer_device"
    most = amps * percent / 100
    worked(
        trail,
        "primary_limit_a",
        most,
        "A",
        said,
        subject,
        edition,
        {"amps": show(amps), "percent": plain(percent)},
        rounding="limit",
        uses=("primary_a",),
    )
    rating = _fuse(most, may_rise=may_rise, edition=edition)
    return worked(
        trail,
        "primary_fuse_a",
        rating,
        "A",
        "control.fuse_up" if may_rise and rating > most else "control.fuse",
        subject,
        edition,
        {"most": show(most, "limit")},
        uses=("primary_limit_a",),
    )


#: midget fuses between the standard ratings of 240.6(A), as made everywhere
SMALL_FUSES_A = tuple(
    Decimal(text)
    for text in (
        "0.25",
        "0.5",
        "0.75",
        "1",
        "1.25",
        "1.5",
        "1.6",
        "2",
        "2.5",
        "3",
        "3.5",
        "4",
        "5",
        "6",
        "7",
        "8",
        "10",
        "12",
        "15",
    )
)


def secondary_device(va: Decimal, secondary_v: Decimal, *, edition: Edition, trail: Trail) -> Step:
    """Return the largest fuse behind a motor control transformer.

    Parameters
    ----------
    va : Decimal
        Rating. [VA]
    secondary_v : Decimal
        Secondary volts. [V]
    edition : int
        Edition whose sections are cited.
    trail : Trail
        The steps are added to it.

    Returns
    -------
    Step
        ``secondary_fuse_a``, with ``secondary_control_a`` and its limit before it. [A]

    Raises
    ------
    CoreError
        If the volts are not above zero.
    """
    amps = _current(va, secondary_v, "size.control.volts_v")
    percent, may_rise = _limit(amps, is_alone=True)
    most = amps * percent / 100
    worked(
        trail,
        "secondary_control_a",
        amps,
        "A",
        "control.secondary",
        "control_transformer",
        edition,
        {"va": plain(va), "volts": plain(secondary_v)},
        uses=("transformer_va", "control_va_there", "control_volts_v"),
    )
    worked(
        trail,
        "secondary_limit_a",
        most,
        "A",
        "control.secondary_limit",
        "transformer_device",
        edition,
        {"amps": show(amps), "percent": plain(percent)},
        rounding="limit",
        uses=("secondary_control_a",),
    )
    rating = _fuse(most, may_rise=may_rise, edition=edition)
    return worked(
        trail,
        "secondary_fuse_a",
        rating,
        "A",
        "control.fuse_up" if may_rise and rating > most else "control.fuse",
        "transformer_device",
        edition,
        {"most": show(most, "limit")},
        uses=("secondary_limit_a",),
    )


def _fuse(most: Decimal, *, may_rise: bool, edition: Edition) -> Decimal:
    """Return the largest fuse not above a limit, or the next size up where that is allowed [A]."""
    standard = standard_ratings("dual_element_fuse", edition)
    if may_rise:
        above = min((size for size in standard if size >= most), default=None)
        if above is None:
            raise NotInTableError(
                Message(
                    "control.fuse_beyond",
                    {"amps": show(most, "limit"), "most": plain(max(standard))},
                ),
                field="size.control",
                hint=Message("control.fuse_beyond.hint"),
            )
        return above
    found = max((size for size in {*SMALL_FUSES_A, *standard} if size <= most), default=None)
    if found is None:
        raise NotInTableError(
            Message("control.no_fuse", {"amps": show(most, "limit")}),
            field="size.control.transformer_va",
            hint=Message("control.no_fuse.hint"),
        )
    return found


def _current(va: Decimal, volts: Decimal, field: str) -> Decimal:
    if volts <= 0 or va <= 0:
        raise RefusedError(
            Message("control.volts", {"volts": plain(volts), "va": plain(va)}),
            field=field,
            hint=Message("control.volts.hint"),
        )
    return va / volts


def control_conductor(
    size: str,
    metal: str,
    *,
    leaves_enclosure: bool,
    is_tapped: bool,
    edition: Edition,
    trail: Trail,
) -> Step:
    """Return the largest device that may stand in front of a control conductor.

    Parameters
    ----------
    size : str
        AWG of the control conductor.
    metal : str
        ``cu`` or ``al``.
    leaves_enclosure : bool
        It runs to stations outside the enclosure.
    is_tapped : bool
        Only the motor's own short-circuit device stands in front of it; else it
        has a fuse of its own.
    edition : int
        Edition whose sections are cited.
    trail : Trail
        The step is added to it.

    Returns
    -------
    Step
        ``control_device_most_a``. [A]

    Raises
    ------
    NotInTableError
        If the table gives nothing for such a conductor.
    """
    letter = "a" if not is_tapped else "c" if leaves_enclosure else "b"
    column = f"column_{letter}_{metal}"
    book = table("430_72_b")
    sizes = list(book.column("size"))
    given(trail, "control_size", size, "AWG")
    params = {
        "size": size,
        "column": letter.upper(),
        "place": str(Message(f"control.place_{letter}")),
    }
    if size in sizes and book.number(sizes.index(size), column) is not None:
        found = book.find(sizes.index(size), column, edition=edition)
        return worked(
            trail,
            "control_device_most_a",
            found.value,
            "A",
            "control.most",
            "control_conductor",
            edition,
            params,
            uses=("control_size",),
            found=found,
        )
    ampacities = table("310_16")
    rows = [
        place
        for place, row in enumerate(ampacities.rows)
        if row[0] == size and row[1] == metal and ampacities.number(place, "t60") is not None
    ]
    if not rows or letter == "b":
        raise NotInTableError(
            Message("control.no_row", params),
            field="size.control.conductor",
            hint=Message("control.no_row.hint"),
        )
    found = ampacities.find(rows[0], "t60", edition=edition)
    times = 3 if letter == "c" else 1
    return worked(
        trail,
        "control_device_most_a",
        found.value * times,
        "A",
        "control.most_c" if times == 3 else "control.most_ampacity",
        "control_conductor",
        edition,
        {**params, "ampacity": plain(found.value)},
        uses=("control_size",),
        found=found,
    )


def control_conductor_holds(*, is_tapped: bool, edition: Edition, trail: Trail) -> Step:
    """Return the verdict on a control conductor against the device in front of it.

    Parameters
    ----------
    is_tapped : bool
        Only the motor's own fuse or breaker stands in front of it.
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds ``control_device_most_a`` and the device.

    Returns
    -------
    Step
        ``control_conductor``.
    """
    name = "protection_device_a" if is_tapped else "secondary_fuse_a"
    device, most = trail[name], trail["control_device_most_a"]
    verdict: Literal["holds", "fails"] = "holds" if device.number <= most.number else "fails"
    return judged(
        trail,
        "control_conductor",
        verdict,
        f"{trail['control_size'].shown} AWG",
        f"control.conductor.{verdict}",
        "control_conductor",
        edition,
        {"device": device.shown, "most": most.shown},
        uses=(name, "control_device_most_a"),
    )


def secondary_by_primary(
    primary_v: Decimal, secondary_v: Decimal, device: str, *, edition: Edition, trail: Trail
) -> Step:
    """Return whether the device on the primary protects a two-wire secondary conductor.

    Parameters
    ----------
    primary_v : Decimal
        Primary volts. [V]
    secondary_v : Decimal
        Secondary volts. [V]
    device : str
        ``primary_fuse_a``, or ``protection_device_a`` of a transformer without a fuse.
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds the device and ``control_device_most_a``.

    Returns
    -------
    Step
        ``secondary_by_primary``: the conductor's limit times the ratio of the volts against
        the primary fuse, 430.72(B) exception 2 and 240.4(F).
    """
    most = trail.number("control_device_most_a") * secondary_v / primary_v
    fuse = trail[device]
    verdict: Literal["holds", "fails"] = "holds" if fuse.number <= most else "fails"
    return judged(
        trail,
        "secondary_by_primary",
        verdict,
        f"{fuse.shown} A",
        f"control.by_primary.{verdict}",
        "control_two_wire",
        edition,
        {
            "limit": trail["control_device_most_a"].shown,
            "secondary": plain(secondary_v),
            "primary": plain(primary_v),
            "most": show(most, "limit"),
            "fuse": fuse.shown,
        },
        uses=(device, "control_device_most_a", "control_volts_v"),
    )
