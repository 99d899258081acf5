"""What people give on the Size step, part by part.

Empty means: no one said it. Units are in the names.
"""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from evencoil.base import DecimalText, Inputs, Insulation, Text
from evencoil.codebook import Edition, RatingRule
from evencoil.sizing.control import TransformerProtection
from evencoil.sizing.drop import Conduit, DropMethod
from evencoil.sizing.duty import DutyRating, Service
from evencoil.sizing.installed import CableKind
from evencoil.sizing.places import DisconnectKind
from evencoil.sizing.protection import DeviceKind, Machine
from evencoil.sizing.raceway import RacewayKind
from evencoil.sizing.rotor import ResistorDuty

__all__ = [
    "DEFAULT_TRIP_CLASS",
    "CoilInput",
    "ControlInput",
    "DriveInput",
    "DutyInput",
    "ExistingInput",
    "FaultInput",
    "HeaterInput",
    "HeaterRowInput",
    "HeaterTableInput",
    "MakerLimitInput",
    "MeasuredStartInput",
    "NoStartInput",
    "OverloadInput",
    "OwnSizeInput",
    "PlaceInput",
    "RacewayInput",
    "RotorInput",
    "SiteInput",
    "SizeInputs",
    "SpeedsInput",
    "StartInput",
]

#: trip class assumed until one is entered
DEFAULT_TRIP_CLASS = 20
Amps = Annotated[DecimalText, Field(gt=0, le=10000)]
Feet = Annotated[DecimalText, Field(ge=0, le=20000)]
Volts = Annotated[DecimalText, Field(gt=0, le=15000)]
Power = Annotated[DecimalText, Field(gt=0, le=10000)]
Apparent = Annotated[DecimalText, Field(ge=0, le=100000)]


class OwnSizeInput(Inputs):
    """A size that a person brings, with where it comes from."""

    figure: Text = Field(min_length=1)
    value: Text = Field(min_length=1)
    source: Text = Field(min_length=1)


class DutyInput(Inputs):
    """Why the driven machine cannot run continuously, and for how long the motor is rated."""

    service: Service
    rating: DutyRating
    reason: Text = ""


DcSource = Literal[
    "battery", "three_phase_rectifier", "full_wave_single_phase", "half_wave_single_phase"
]


class SpeedsInput(Inputs):
    """Several speeds: every winding has overload, conductors and controller of its own."""

    each_protected: bool = False


class RotorInput(Inputs):
    """The rotor side of a wound-rotor motor."""

    secondary_a: Amps
    resistor: ResistorDuty | None = None


class NoStartInput(Inputs):
    """That the motor did not start on the device the rules give first: recorded, by whom."""

    reason: Text = Field(min_length=1)
    by: Text = ""
    at: Text = ""


class MakerLimitInput(Inputs):
    """The largest device printed by the maker of starter or overload."""

    amps_a: Amps
    source: Text = Field(min_length=1)


class OverloadInput(Inputs):
    """Where the heaters lie and what they are.

    ``ct_primary_a`` and ``ct_secondary_a`` belong to current transformers;
    ``capacitor_percent`` is by how much a capacitor behind the overload lowers
    the line current; ``low_a`` and ``high_a`` are the ends of the dial.
    """

    place: Literal["line", "leg", "half"] = "line"
    units: Literal[1, 2, 3] = 3
    ct_primary_a: Amps | None = None
    ct_secondary_a: Amps | None = None
    capacitor_percent: Annotated[DecimalText, Field(ge=0, le=50)] | None = None
    trip_class: Literal[5, 10, 20, 30] | None = None
    accelerates_s: Annotated[DecimalText, Field(gt=0, le=120)] | None = None
    low_a: Amps | None = None
    high_a: Amps | None = None
    dial_has_125: bool | None = None
    protector_trip_a: Amps | None = None


class SiteInput(Inputs):
    """How high the motor is, and the part of its nameplate current that it may carry there.

    The part comes from the motor's maker; it also holds for an ambient above the nameplate's.
    """

    altitude_ft: Annotated[DecimalText, Field(ge=-1500, le=20000)] | None = None
    load_percent: Annotated[DecimalText, Field(gt=0, le=100)] | None = None
    source: Text = ""


class StartInput(Inputs):
    """The tap of an autotransformer that is used at first."""

    tap_percent: Annotated[DecimalText, Field(ge=30, le=100)]


class MeasuredStartInput(Inputs):
    """Current with the rotor held, or of the first instant of a start, and the volts then."""

    amps_a: Amps
    volts_v: Volts


class RacewayInput(Inputs):
    """What the conductors lie in, and what else does."""

    kind: RacewayKind = "EMT"
    trade_size: Text = ""
    is_nipple: bool = False
    control_count: int = Field(default=0, ge=0, le=60)
    control_size: Text = "14"


class FaultInput(Inputs):
    """What is marked on device, starter and panel about short circuits."""

    device_ka: Annotated[DecimalText, Field(gt=0, le=300)] | None = None
    starter_ka: Annotated[DecimalText, Field(gt=0, le=300)] | None = None
    device_volts: Text = ""


class DriveInput(Inputs):
    """A drive in front of the motor.

    Without ``input_a`` it is one that the drawing brought: its nameplate was not read yet.
    """

    input_a: Amps | None
    has_bypass: bool = False
    has_overload: bool = True
    output_v: Volts | None = None


class CoilInput(Inputs):
    """Coils of one kind on the control transformer."""

    label: Text = ""
    count: int = Field(default=1, ge=0, le=60)
    inrush_va: Apparent
    sealed_va: Apparent


class ControlInput(Inputs):
    """Control power: volts, coils, lamps, conductors.

    ``is_drawn`` tells that the coils were taken off the drawn starter and no one has read
    their apparent power yet; ``protection`` what protects the transformer: fuses on both
    sides, on the primary alone, or none of its own (under 50 VA inside the controller).
    """

    primary_v: Volts | None = None
    volts_v: Volts | None = None
    coils: tuple[CoilInput, ...] = Field(default=(), max_length=24)
    lamps_va: Apparent | None = None
    transformer_va: Annotated[DecimalText, Field(gt=0, le=100000)] | None = None
    conductor: Text = "14"
    metal: Literal["cu", "al"] = "cu"
    leaves_enclosure: bool = True
    is_tapped: bool = True
    is_drawn: bool = False
    protection: TransformerProtection = "both"


class PlaceInput(Inputs):
    """Where the disconnects are, and of which kind.

    ``has_no_fuse`` tells that the disconnect holds no fuse although fuses protect the circuit:
    they are elsewhere.
    """

    controller_ft: Feet | None = None
    controller_visible: bool | None = None
    controller_hp: Power | None = None
    controller_v: Volts | None = None
    motor_ft: Feet | None = None
    motor_visible: bool | None = None
    own_at_motor: bool = False
    lockable: bool = False
    excuse: Literal["", "impracticable", "procedures"] = ""
    kind: DisconnectKind | None = None
    amps_a: Amps | None = None
    rated_hp: Power | None = None
    is_portable: bool = False
    has_no_fuse: bool = False


class ExistingInput(Inputs):
    """What is already there."""

    cable: CableKind | None = None
    cable_size: Text = ""
    cable_metal: Literal["cu", "al"] = "cu"
    cable_insulation: Insulation = "THWN"
    terminal_c: Literal[60, 75] = 60
    other_loads_a: Amps | None = None
    device_a: Amps | None = None
    trip_a: Amps | None = None
    plug_a: Amps | None = None
    plug_v: Volts | None = None
    plug_hp: Power | None = None


class HeaterRowInput(Inputs):
    """One heater of one relay, as printed in the door."""

    relay_type: Text = Field(min_length=1)
    starter_size: Text = ""
    elements: Literal[2, 3]
    basis: Text = ""
    code: Text = Field(min_length=1)
    low_a: Amps
    high_a: Amps


class HeaterTableInput(Inputs):
    """The heater table that this job was worked with; it travels with the job."""

    name: Text = Field(min_length=1)
    source: Text = ""
    factor: Annotated[DecimalText, Field(gt=0, le=1.5)]
    rows: tuple[HeaterRowInput, ...] = Field(min_length=1, max_length=400)


class HeaterInput(Inputs):
    """Which part of the heater table holds, and the code of what is there."""

    table: HeaterTableInput
    relay_type: Text = Field(min_length=1)
    starter_size: Text = ""
    elements: Literal[2, 3] = 3
    basis: Text = ""
    code: Text = ""


class SizeInputs(Inputs):
    """What decides the sizes besides plate and supply."""

    edition: Edition | None = None
    rating_rule: RatingRule | None = None
    conductor_material: Literal["cu", "al"] | None = None
    insulation: Insulation | None = None
    termination_c: Literal[60, 75] | None = None
    ambient_c: DecimalText | None = None
    current_carrying: int | None = Field(default=None, ge=1, le=100)
    protection_kind: DeviceKind | None = None
    parallel_sets: int = Field(default=1, ge=1, le=12)
    motor_leads_apart: bool = False
    between_rows: Literal["ask", "next_row_up"] = "ask"
    run_length_ft: DecimalText | None = None
    run_length_m: Annotated[DecimalText, Field(gt=0, le=6000)] | None = None
    feeder_drop_percent: Annotated[DecimalText, Field(ge=0, le=20)] | None = None
    drop_limit_percent: DecimalText | None = None
    drop_method: DropMethod = "table_9"
    conduit: Conduit = "steel"
    own: tuple[OwnSizeInput, ...] = Field(default=(), max_length=24)
    machine: Machine = "squirrel_cage"
    power_factor: Literal[100, 90, 80] = 100
    dc_source: DcSource | None = None
    duty: DutyInput | None = None
    speeds: SpeedsInput | None = None
    rotor: RotorInput | None = None
    no_start: NoStartInput | None = None
    maker_limit: MakerLimitInput | None = None
    overload: OverloadInput | None = None
    start: StartInput | None = None
    site: SiteInput | None = None
    measured_start: MeasuredStartInput | None = None
    raceway: RacewayInput | None = None
    fault: FaultInput | None = None
    drive: DriveInput | None = None
    control: ControlInput | None = None
    place: PlaceInput | None = None
    existing: ExistingInput | None = None
    heater: HeaterInput | None = None

    @property
    def asks_more(self) -> bool:
        """Tell whether anything is asked for beside the branch circuit itself."""
        parts = (
            self.rotor,
            self.overload,
            self.start,
            self.raceway,
            self.fault,
            self.drive,
            self.control,
            self.place,
            self.existing,
            self.heater,
        )
        return any(part is not None for part in parts)
