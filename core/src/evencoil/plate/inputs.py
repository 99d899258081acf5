"""The inputs of the nameplate and supply steps.

Empty means: no one entered it. Units are in the names; numbers travel as decimal strings.
"""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from evencoil.base import DecimalText, Inputs, LongText, Text
from evencoil.plate.model import Assumed

__all__ = [
    "AssumedInput",
    "ConductorRecord",
    "PlateInputs",
    "ReplaceInputs",
    "SupplyInputs",
    "TrustInputs",
]


#: a share of a length
Share = Annotated[float, Field(ge=0, le=1, allow_inf_nan=False)]


class AssumedInput(Inputs):
    """A nameplate figure that no one could read, with where it comes from."""

    field: Text
    value: Text
    reason: Text = ""

    def as_core(self) -> Assumed:
        """Return it as the reader takes it."""
        return Assumed(field=self.field, value=self.value, reason=self.reason)


class SeenInput(Inputs):
    """A word taken from a photo: as a person confirmed it, and where it stands.

    ``place`` is left, top, right, bottom as shares of the straightened picture.
    """

    text: Text = Field(max_length=60)
    place: tuple[Share, ...] = Field(min_length=4, max_length=4)


class PlateInputs(Inputs):
    """The nameplate as stamped, one text; ``photo`` is the digest of a kept picture.

    ``corners`` are those of the plate on it, x and y in turn from the upper left clockwise, as
    shares of the picture; ``seen`` are the words taken from it.
    """

    text: LongText = ""
    photo: Text = ""
    corners: tuple[Share, ...] = Field(default=(), max_length=8)
    seen: tuple[SeenInput, ...] = Field(default=(), max_length=200)
    assumed: tuple[AssumedInput, ...] = Field(default=(), max_length=24)


class SupplyInputs(Inputs):
    """The supply: its system by name, what was measured, and what stands between.

    ``measured_v`` are L1-L2, L2-L3, L3-L1; ``measured_a`` the running amps of L1, L2, L3;
    ``fault_current_a`` the bolted three-phase fault current where the motor circuit begins;
    ``transformer_kva`` and ``transformer_z_percent`` belong to a transformer of this
    circuit's own, whose secondary the text names.
    """

    text: Text = ""
    territory: Literal["nec", "other"] = "nec"
    measured_v: tuple[DecimalText, ...] = Field(default=(), max_length=3)
    measured_a: tuple[DecimalText, ...] = Field(default=(), max_length=3)
    fault_current_a: DecimalText | None = None
    made_leg: Literal["L1", "L2", "L3"] | None = None
    high_leg: Literal["L1", "L2", "L3"] | None = None
    grounded_line: Literal["L1", "L2", "L3"] | None = None
    transformer_kva: DecimalText | None = None
    transformer_z_percent: DecimalText | None = None
    transformer_grounded: bool | None = None
    drive_input_v: DecimalText | None = None


class TrustInputs(Inputs):
    """What was read on a motor whose plate no one trusts."""

    is_doubted: bool = False
    reason: Text = ""
    power_hp: DecimalText | None = None
    earlier_supply_v: DecimalText | None = None
    winding_ohm: DecimalText | None = None
    test_v: DecimalText | None = None
    test_a: DecimalText | None = None


class ConductorRecord(Inputs):
    """One conductor taken off the old motor: where it was, as tagged and colored."""

    conductor: Text = Field(min_length=1)
    terminal: Text = ""
    tag: Text = ""
    color: Text = ""


class ReplaceInputs(Inputs):
    """The disconnect record of a motor that is replaced."""

    old_plate: LongText = ""
    conductors: tuple[ConductorRecord, ...] = Field(default=(), max_length=40)
    rotation: Literal["clockwise", "counter-clockwise", "unknown"] = "unknown"
    seen_from: Literal["", "shaft", "fan"] = ""
    amps_a: tuple[DecimalText, ...] = Field(default=(), max_length=3)
    heater: Text = ""
    settings: LongText = ""
    rotation_after: Literal["clockwise", "counter-clockwise", "unknown"] = "unknown"
    seen_from_after: Literal["", "shaft", "fan"] = ""
