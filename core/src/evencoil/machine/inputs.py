"""The inputs of a machine: its feeder, and its change to another voltage.

Units are in the names; numbers travel as decimal strings.
"""

from __future__ import annotations

from decimal import Decimal
from typing import Annotated

from pydantic import Field

from evencoil.base import DecimalText, Inputs, Text
from evencoil.machine.conversion import MachineTransformer
from evencoil.machine.loads import MachineLoad
from evencoil.machine.name_motors import UnnamedMotor
from evencoil.machine.several import SharedDisconnectInput, SmallGroupInput
from evencoil.machine.taps import TapTo
from evencoil.plate import SupplyInputs
from evencoil.sizing import DeviceKind, Material

__all__ = ["ConversionInputs", "FeederInputs", "TapRunInput"]

#: motors of which only one runs at a time
Group = Annotated[tuple[Text, ...], Field(min_length=2, max_length=20)]


class TapRunInput(Inputs):
    """A tap to one motor: how long, protected or not, and what it ends in."""

    tag: Text = Field(min_length=1)
    length_ft: Annotated[DecimalText, Field(gt=0, le=1000)]
    is_protected: bool = True
    to: TapTo = "overload"


class FeederInputs(Inputs):
    """Other loads on the feeder, and what it is made of."""

    supply: str = ""
    continuous_a: DecimalText = Decimal(0)
    noncontinuous_a: DecimalText = Decimal(0)
    material: Material = "cu"
    termination_c: int | None = None
    device_kind: DeviceKind = "inverse_time_breaker"
    interlocked: tuple[Group, ...] = Field(default=(), max_length=12)
    taps: tuple[TapRunInput, ...] = Field(default=(), max_length=60)
    is_group: bool = False
    group_device_a: Annotated[DecimalText, Field(gt=0, le=10000)] | None = None
    group_listed_a: Annotated[DecimalText, Field(gt=0, le=10000)] | None = None
    small_group: SmallGroupInput | None = None
    disconnect: SharedDisconnectInput | None = None


class ConversionInputs(Inputs):
    """The new supply, the present one, and the machine's transformers and other loads.

    ``unnamed`` holds what was read on starters whose tags are gone.
    """

    supply: SupplyInputs = SupplyInputs()
    now: SupplyInputs = SupplyInputs()
    transformers: tuple[MachineTransformer, ...] = Field(default=(), max_length=40)
    loads: tuple[MachineLoad, ...] = Field(default=(), max_length=80)
    unnamed: tuple[UnnamedMotor, ...] = Field(default=(), max_length=40)
