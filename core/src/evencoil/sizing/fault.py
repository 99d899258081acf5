"""Fault current where the motor circuit begins, against what stands there.

Units: fault current [A], ratings [kA], volts [V].
Rules: NEC 110.9 (interrupting rating), 110.10 with 430.83(F) and 409.110 (short-circuit
current rating of starter and panel), 240.85 and 430.83(E) (slash ratings only on
solidly grounded systems). What is not marked counts as 5 kA for a breaker,
240.83(C), and 10 kA for a fuse, 240.60(C).
"""

from __future__ import annotations

import re
from decimal import Decimal

from evencoil.base import Message, RefusedError, Step, Trail, plain, show
from evencoil.codebook import Edition, assumed, given, judged
from evencoil.plate import Supply

__all__ = [
    "FUSE_UNMARKED_KA",
    "fault_current",
    "interrupting",
    "short_circuit_rating",
    "slash_rating",
]

BREAKER_UNMARKED_KA = Decimal(5)
FUSE_UNMARKED_KA = Decimal(10)
_VOLTS = re.compile(r"^\s*(\d{2,4})\s*(?:[Yy]?\s*/\s*(\d{2,3}))?\s*[Vv]?\s*$")


def fault_current(
    given_a: Decimal | None, by_transformer_a: Decimal | None, *, trail: Trail
) -> Step:
    """Return the fault current that devices are held against.

    Parameters
    ----------
    given_a : Decimal or None
        As told by whoever studied the supply. [A]
    by_transformer_a : Decimal or None
        The most a transformer of the circuit's own can feed. [A]
    trail : Trail
        The step is added to it.

    Returns
    -------
    Step
        ``fault_current_a``; an assumption of 10 kA where no one knows. [A]
    """
    if given_a is not None:
        return given(trail, "fault_current_a", given_a, "A", "fault.given")
    if by_transformer_a is not None:
        return given(
            trail,
            "fault_current_a",
            by_transformer_a,
            "A",
            "fault.transformer",
            shown=show(by_transformer_a),
        )
    return assumed(trail, "fault_current_a", Decimal(10000), "A", "fault.assumed")


def interrupting(
    rating_ka: Decimal | None, *, is_fuse: bool, edition: Edition, trail: Trail
) -> Step:
    """Return the verdict on the interrupting rating of the short-circuit device.

    Parameters
    ----------
    rating_ka : Decimal or None
        As marked; None where nothing is. [kA]
    is_fuse : bool
        Fuses and breakers without a mark count differently.
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds ``fault_current_a``.

    Returns
    -------
    Step
        ``device_interrupting``.
    """
    amps = trail.number("fault_current_a")
    if rating_ka is None:
        unmarked = FUSE_UNMARKED_KA if is_fuse else BREAKER_UNMARKED_KA
        rating = assumed(trail, "device_interrupting_ka", unmarked, "kA", "fault.unmarked")
    else:
        rating = given(trail, "device_interrupting_ka", rating_ka, "kA")
    return _against(
        trail, "device_interrupting", rating, amps, "fault.interrupting", "interrupting", edition
    )


def short_circuit_rating(
    rating_ka: Decimal | None, *, power_hp: Decimal | None, edition: Edition, trail: Trail
) -> Step:
    """Return the verdict on the short-circuit current rating of starter or panel.

    Parameters
    ----------
    rating_ka : Decimal or None
        As marked; None where nothing is. [kA]
    power_hp : Decimal or None
        What is not marked counts as 5 kA up to 50 hp and 10 kA up to 200 hp,
        as product standards test small controllers. [hp]
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds ``fault_current_a``.

    Returns
    -------
    Step
        ``starter_short_circuit``.
    """
    amps = trail.number("fault_current_a")
    if rating_ka is None:
        small = power_hp is None or power_hp <= 50
        rating = assumed(
            trail,
            "starter_short_circuit_ka",
            Decimal(5) if small else Decimal(10),
            "kA",
            "fault.starter_unmarked",
        )
    else:
        rating = given(trail, "starter_short_circuit_ka", rating_ka, "kA")
    return _against(
        trail,
        "starter_short_circuit",
        rating,
        amps,
        "fault.withstand",
        "short_circuit_rating",
        edition,
    )


def _against(
    trail: Trail,
    step_id: str,
    rating: Step,
    amps: Decimal,
    said: str,
    subject: str,
    edition: Edition,
) -> Step:
    most = rating.number * 1000
    holds = most >= amps
    return judged(
        trail,
        step_id,
        "holds" if holds else "fails",
        f"{rating.shown} kA",
        f"{said}.{'holds' if holds else 'fails'}",
        subject,
        edition,
        {"rating": plain(most), "amps": show(amps), "short": show(amps - most)},
        uses=("fault_current_a", rating.id),
    )


def slash_rating(marked: str, supply: Supply, *, edition: Edition, trail: Trail) -> Step:
    """Return the verdict on the voltage rating of the device.

    Parameters
    ----------
    marked : str
        ``480``, or a slash rating such as ``480Y/277``.
    supply : Supply
        Whether it is solidly grounded decides on slash ratings.
    edition : int
        Edition whose sections are cited.
    trail : Trail
        The steps are added to it.

    Returns
    -------
    Step
        ``device_volts``.

    Raises
    ------
    RefusedError
        If the text is no voltage rating.
    """
    found = _VOLTS.match(marked)
    if found is None:
        raise RefusedError(
            Message("fault.volts", {"text": marked[:20]}),
            field="size.fault.device_volts",
            hint=Message("fault.volts.hint"),
        )
    given(trail, "device_volts_marked", marked, "V")
    high, low = Decimal(found[1]), Decimal(found[2]) if found[2] else None
    line, ground = supply.line_volts_v, supply.ground_volts_v
    why = "straight"
    holds = line <= high
    if not holds:
        why = "low"
    elif low is not None:
        is_solid = supply.system == "wye" and ground is not None
        holds = is_solid and ground is not None and ground <= low
        why = "slash" if holds else "slash_ground" if is_solid else "slash_system"
    return judged(
        trail,
        "device_volts",
        "holds" if holds else "fails",
        f"{marked.strip()} V",
        f"fault.volts.{why}",
        "slash_rating",
        edition,
        {
            "marked": marked.strip(),
            "line": plain(line),
            "ground": "—" if ground is None else plain(ground),
            "system": str(Message(f"system.{supply.system}")),
        },
        uses=("device_volts_marked", "supply_volts_v"),
    )
