"""Control transformer, its fuses, control conductors."""

from __future__ import annotations

from collections.abc import Iterator
from decimal import Decimal

from evencoil.base import Figure
from evencoil.codebook import assumed, given
from evencoil.sizing.control import (
    ControlCoil,
    TransformerProtection,
    control_conductor,
    control_conductor_holds,
    control_transformer,
    primary_device,
    secondary_by_primary,
    secondary_device,
    without_fuse,
)
from evencoil.sizing.sheet.context import SizeSheet

__all__ = ["figures"]


_USUAL_CONTROL_V = Decimal(120)


def _transformer_devices(
    sheet: SizeSheet,
    protection: TransformerProtection,
    va: Decimal,
    primary_v: Decimal | None,
    secondary_v: Decimal,
) -> Iterator[Figure]:
    """Yield what protects the transformer: fuses on both sides, on the primary, or none."""
    if protection == "inherent":
        yield sheet.figure(
            "transformer_without_fuse",
            "control",
            lambda: without_fuse(va, edition=sheet.edition, trail=sheet.trail),
        )
    elif primary_v is not None:
        yield sheet.figure(
            "primary_fuse_a",
            "control",
            lambda: primary_device(
                va,
                primary_v,
                is_alone=protection == "primary_only",
                edition=sheet.edition,
                trail=sheet.trail,
            ),
        )
    if protection == "both":
        yield sheet.figure(
            "secondary_fuse_a",
            "control",
            lambda: secondary_device(va, secondary_v, edition=sheet.edition, trail=sheet.trail),
        )


def figures(sheet: SizeSheet) -> Iterator[Figure]:
    """Yield the transformer, its fuses and the device of the control conductors."""
    asked = sheet.size.control
    if asked is None:
        return
    coils = [
        ControlCoil(
            label=item.label,
            count=item.count,
            inrush_va=item.inrush_va,
            sealed_va=item.sealed_va,
        )
        for item in asked.coils
    ]
    if coils:
        named = " · ".join(f"{item.count} × {item.label or '—'}" for item in coils)
        if asked.is_drawn:
            assumed(sheet.trail, "coils", named, "", "control.coils_drawn")
        else:
            given(sheet.trail, "coils", named, "", "control.coils")
        yield sheet.figure(
            "transformer_va",
            "control",
            lambda: control_transformer(
                coils, asked.lamps_va or Decimal(0), edition=sheet.edition, trail=sheet.trail
            ),
        )
    if asked.transformer_va is not None:
        given(sheet.trail, "control_va_there", asked.transformer_va, "VA")
    va = asked.transformer_va or (
        sheet.trail.number("transformer_va") if "transformer_va" in sheet.trail else None
    )
    primary = asked.primary_v or (
        sheet.trail.number("supply_volts_v") if "supply_volts_v" in sheet.trail else None
    )
    secondary = asked.volts_v or _USUAL_CONTROL_V
    if asked.volts_v is None:
        assumed(sheet.trail, "control_volts_v", secondary, "V", "control.volts_assumed")
    else:
        given(sheet.trail, "control_volts_v", secondary, "V")
    if va is not None:
        yield from _transformer_devices(sheet, asked.protection, va, primary, secondary)
    yield sheet.figure(
        "control_device_most_a",
        "control",
        lambda: control_conductor(
            asked.conductor,
            asked.metal,
            leaves_enclosure=asked.leaves_enclosure,
            is_tapped=asked.is_tapped and not coils,
            edition=sheet.edition,
            trail=sheet.trail,
        ),
    )
    is_tapped = asked.is_tapped and not coils
    if is_tapped or asked.protection == "both":
        yield sheet.figure(
            "control_conductor",
            "control",
            lambda: control_conductor_holds(
                is_tapped=is_tapped, edition=sheet.edition, trail=sheet.trail
            ),
            "control_device_most_a",
            "protection_device_a" if is_tapped else "secondary_fuse_a",
        )
    elif va is not None and primary is not None:
        # no fuse behind the transformer: what is in front of it protects the secondary too
        device = "primary_fuse_a" if asked.protection == "primary_only" else "protection_device_a"
        yield sheet.figure(
            "secondary_by_primary",
            "control",
            lambda: secondary_by_primary(
                primary, secondary, device, edition=sheet.edition, trail=sheet.trail
            ),
            device,
            "control_device_most_a",
        )
