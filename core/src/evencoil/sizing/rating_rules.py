"""Both rating rules side by side, and the ordinary circuit's figure that does not apply.

Units: current [A].
Rules: NEC 430.52(C)(1) (main rule and next size up), 240.4(D) and (G).
"""

from __future__ import annotations

from dataclasses import dataclass

from evencoil.base import Message, Trail, plain, show
from evencoil.codebook import Profile
from evencoil.plate import PlateReading
from evencoil.sizing.conductor import Material
from evencoil.sizing.protection import FUSES, DeviceKind, Machine, ordinary_limit_a, ratings_in

__all__ = ["RatingRuleRow", "rating_rules_of"]


@dataclass(frozen=True, slots=True, kw_only=True)
class RatingRuleRow:
    """One opinion on the device: whose it is, what it gives [A], and why."""

    id: str
    amps_a: str
    is_chosen: bool
    applies: bool
    reason: Message


def rating_rules_of(
    reading: PlateReading,
    profile: Profile,
    trail: Trail,
    *,
    phases: int,
    kind: DeviceKind,
    material: Material,
    machine: Machine = "squirrel_cage",
) -> tuple[RatingRuleRow, ...]:
    """Return what each opinion would put in front of this motor.

    Parameters
    ----------
    reading : PlateReading
        The nameplate, for design letter and efficiency.
    profile : Profile
        The works' own choice.
    trail : Trail
        The branch circuit as calculated.
    phases : int
        1 or 3; 0 for direct current.
    kind : str
        Kind of fuse or breaker.
    material : str
        Of the conductors, ``cu`` or ``al``.
    machine : str
        Wound-rotor and synchronous motors have rows of their own.

    Returns
    -------
    tuple of RatingRuleRow
        Empty while there is no device, and for a setting, which no one rounds.
    """
    if "protection_device_a" not in trail or "protection_limit_a" not in trail:
        return ()
    if kind == "instantaneous_breaker" or "conductor_size" not in trail:
        return ()
    found = ratings_in(
        trail,
        kind=kind,
        phases=phases,
        edition=profile.edition,
        design_letter=reading.plate.design_letter,
        is_premium=reading.plate.is_premium_efficiency,
        machine=machine,
    )
    limit = show(found.limit_a, "limit")
    exam = found.main_rule_a if found.main_rule_a is not None else found.next_size_a
    chosen = profile.rating_rule
    own = Message("rating_rule.works", {"reason": profile.rating_rule_reason or "—"})
    rows = [
        RatingRuleRow(
            id="main_rule",
            amps_a=plain(exam),
            is_chosen=chosen == "main_rule",
            applies=True,
            reason=own
            if chosen == "main_rule" and profile.rating_rule_reason
            else Message("rating_rule.exam", {"limit": limit}),
        ),
        RatingRuleRow(
            id="next_size_up",
            amps_a=plain(found.next_size_a),
            is_chosen=chosen == "next_size_up",
            applies=True,
            reason=own
            if chosen == "next_size_up" and profile.rating_rule_reason
            else Message("rating_rule.field", {"limit": limit}),
        ),
        RatingRuleRow(
            id="raised",
            amps_a=plain(found.raised_a),
            is_chosen="no_start" in trail,
            applies="no_start" in trail,
            reason=Message("rating_rule.raised", {"cap": show(found.cap_a, "limit")}),
        ),
        _ordinary(kind, material, trail),
    ]
    return tuple(rows)


def _ordinary(kind: DeviceKind, material: Material, trail: Trail) -> RatingRuleRow:
    """Name what an ordinary circuit of that wire would have, and why it does not hold here."""
    amps = ordinary_limit_a(material, trail)
    is_fuse = kind in FUSES
    return RatingRuleRow(
        id="ordinary",
        amps_a=show(amps, "limit"),
        is_chosen=False,
        applies=False,
        reason=Message(
            "rating_rule.ordinary_fuse" if is_fuse else "rating_rule.ordinary",
            {"size": trail["conductor_size"].shown},
        ),
    )
