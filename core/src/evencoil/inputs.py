"""What people give, step by step: the models that are stored and exchanged.

Empty means: nobody said it. What is worked out never stands here. Units are in
the names. Numbers travel as decimal strings, so that no float comes near them.
"""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import (
    Field,
    StringConstraints,
)

from evencoil.accessories import AccessoryKind
from evencoil.circuit.edits import Edit, EditKind
from evencoil.connection import StartMethod
from evencoil.input_types import DecimalText, Inputs
from evencoil.inputs_size import OwnSizeInput, SizeInputs
from evencoil.joinings import Speed
from evencoil.joints import Joint
from evencoil.marks import Style
from evencoil.nameplate import Assumed
from evencoil.rating import RunShape
from evencoil.single_phase import Capacitors, StartSwitch
from evencoil.texts import LongText, Text
from evencoil.winding import WindingKind

__all__ = [
    "STEPS",
    "AccessoryInput",
    "AssumedInput",
    "BenchInputs",
    "BoardInput",
    "ColourInput",
    "ConductorRecord",
    "DeadReadingInput",
    "DecimalText",
    "Direction",
    "EditInput",
    "FollowedInput",
    "HandInput",
    "JointInput",
    "JointMethod",
    "JointWorkInput",
    "JointsInputs",
    "LeadsInputs",
    "MakerDiagramInput",
    "OwnSizeInput",
    "PlateInputs",
    "ReplaceInputs",
    "SinglePhaseInput",
    "SizeInputs",
    "StarterInputs",
    "StepName",
    "SupplyInputs",
    "TouchInput",
    "TrustInputs",
    "TwistRowInput",
    "VoltsInput",
]

StepName = Literal["supply", "leads", "bench", "trust", "replace", "joints", "size", "starter"]
STEPS: tuple[StepName, ...] = (
    "supply",
    "leads",
    "bench",
    "trust",
    "replace",
    "joints",
    "size",
    "starter",
)


Direction = Literal["forward", "reverse"]


class AssumedInput(Inputs):
    """A plate figure that nobody could read, with where it comes from."""

    field: Text
    value: Text
    reason: Text = ""

    def as_core(self) -> Assumed:
        """Return it as the reader takes it."""
        return Assumed(field=self.field, value=self.value, reason=self.reason)


class PlateInputs(Inputs):
    """The plate as stamped, one text; ``photo`` is the digest of a kept picture."""

    text: LongText = ""
    photo: Text = ""
    assumed: tuple[AssumedInput, ...] = Field(default=(), max_length=24)


class SupplyInputs(Inputs):
    """The supply: its system by name, what was measured, and what stands between.

    ``measured_v`` are L1-L2, L2-L3, L3-L1; ``fault_current_a`` the bolted
    three-phase fault current where the motor circuit begins; ``transformer_kva``
    and ``transformer_z_percent`` belong to a transformer of this circuit's own,
    whose secondary the text names.
    """

    text: Text = ""
    territory: Literal["nec", "other"] = "nec"
    measured_v: tuple[DecimalText, ...] = Field(default=(), max_length=3)
    fault_current_a: DecimalText | None = None
    made_leg: Literal["L1", "L2", "L3"] | None = None
    high_leg: Literal["L1", "L2", "L3"] | None = None
    grounded_line: Literal["L1", "L2", "L3"] | None = None
    transformer_kva: DecimalText | None = None
    transformer_z_percent: DecimalText | None = None
    transformer_grounded: bool | None = None
    drive_input_v: DecimalText | None = None


class JointInput(Inputs):
    """Leads that are joined in the box, and the line conductor on them if any.

    The id lasts: a role from the derived answer, a UUID from a person's tap.
    """

    id: Text = Field(min_length=1)
    leads: tuple[Text, ...] = Field(default=(), max_length=12)
    line: Literal["L1", "L2", "L3"] | None = None

    def as_core(self) -> Joint:
        """Return it as the core takes it."""
        return Joint(id=self.id, leads=self.leads, line=self.line)


class AccessoryInput(Inputs):
    """Leads in the box that are no winding: their marks, and what they are."""

    id: Text = Field(min_length=1)
    marks: tuple[Text, ...] = Field(default=(), max_length=6)
    ohms: DecimalText | None = None
    is_open: bool = False
    kind: AccessoryKind = "unknown"


class SinglePhaseInput(Inputs):
    """What starts a single-phase motor, as found; empty is not yet looked at."""

    capacitors: Capacitors = ""
    switch: StartSwitch = ""
    start_uf: DecimalText | None = Field(default=None, gt=0, le=10_000)
    run_uf: DecimalText | None = Field(default=None, gt=0, le=10_000)
    protector_leads: Literal[0, 2, 3] = 0


class BoardInput(Inputs):
    """A stud board: its rows from top to bottom, the bars and nuts that are there."""

    rows: tuple[tuple[Text, ...], ...] = Field(default=(), max_length=6)
    bars: int = Field(default=3, ge=0, le=24)
    nuts_per_stud: int = Field(default=3, ge=0, le=8)


class MakerDiagramInput(Inputs):
    """Joints as drawn by the maker, for one voltage, speed and direction."""

    id: Text = Field(min_length=1)
    state: Literal["run", "start", "low", "high"] = "run"
    volts: Text = ""
    direction: Direction = "forward"
    source: Text = ""
    photo: Text = ""
    joints: tuple[JointInput, ...] = Field(default=(), max_length=12)


class FollowedInput(Inputs):
    """Whom a named person follows where maker and derivation differ, and why."""

    side: Literal["maker", "derived"]
    reason: Text = Field(min_length=1)
    by: Text = ""
    at: Text = ""


class LeadsInputs(Inputs):
    """Which winding it is, how it is to run, and what is joined in the box.

    ``groups`` holds how many leads ring together, where that was read;
    ``names`` the mark found on a lead, by T number.
    """

    winding: WindingKind | None = None
    groups: tuple[int, ...] = Field(default=(), max_length=8)
    run_shape: RunShape | None = None
    start_method: StartMethod = "full_voltage"
    speed: Speed = ""
    direction: Direction = "forward"
    style: Style = "T"
    names: dict[Text, Text] = Field(default={}, max_length=12)
    joints: tuple[JointInput, ...] = Field(default=(), max_length=12)
    accessories: tuple[AccessoryInput, ...] = Field(default=(), max_length=12)
    single: SinglePhaseInput | None = None
    board: BoardInput | None = None
    maker: tuple[MakerDiagramInput, ...] = Field(default=(), max_length=12)
    followed: FollowedInput | None = None

    def others(self) -> dict[str, str]:
        """Return the marks of leads that are no winding, and what each is."""
        return {mark: item.kind for item in self.accessories for mark in item.marks}


JointMethod = Literal["split_bolt", "set_screw_tap", "ring_bolt", "crimp", "twist_on"]


class JointWorkInput(Inputs):
    """How one joint is made, and what was recorded when it was: torque or tug."""

    joint: Text = Field(min_length=1)
    method: JointMethod | None = None
    rubber: int = Field(default=2, ge=0, le=8)
    vinyl: int = Field(default=2, ge=0, le=8)
    torque_in_lb: DecimalText | None = None
    tug_held: bool | None = None
    by: Text = ""
    at: Text = ""


class ColourInput(Inputs):
    """The colour found on an incoming conductor where it lands."""

    line: Literal["L1", "L2", "L3", "N", "G"]
    colour: Text = ""
    remarked: Text = ""


class TwistRowInput(Inputs):
    """One row of a twist-on connector's own table: how many of a size it takes."""

    size: Text = Field(min_length=1)
    least: int = Field(ge=1, le=12)
    most: int = Field(ge=1, le=12)


class JointsInputs(Inputs):
    """How the joints are made and whether they fit in the housing.

    The line conductor is the one of the Size step unless said otherwise.
    """

    method: JointMethod = "ring_bolt"
    line_size: Text = ""
    lead_size: Text = ""
    work: tuple[JointWorkInput, ...] = Field(default=(), max_length=24)
    usable_volume_in3: DecimalText | None = None
    opening_in: DecimalText | None = None
    is_over_11_in: bool | None = None
    raceway: Text = ""
    knockout: Text = ""
    is_flexible: bool = False
    is_machine: bool = True
    colours: tuple[ColourInput, ...] = Field(default=(), max_length=8)
    twist_rows: tuple[TwistRowInput, ...] = Field(default=(), max_length=24)


#: two leads by their sleeves; a list of two on the wire
TwoSleeves = Annotated[tuple[Text, ...], Field(min_length=2, max_length=2)]


class TouchInput(Inputs):
    """A touch with the ohmmeter; ``ohms`` empty where only ringing was heard."""

    what: Literal["touch"] = "touch"
    pair: TwoSleeves
    rings: bool
    ohms: DecimalText | None = None


class VoltsInput(Inputs):
    """One voltage of an induction test."""

    what: Literal["volts"] = "volts"
    feed: tuple[Text, ...] = Field(min_length=2, max_length=3)
    feed_v: DecimalText
    joined: tuple[TwoSleeves, ...] = Field(default=(), max_length=6)
    read: TwoSleeves
    volts: DecimalText


class BenchInputs(Inputs):
    """Leads whose tags are gone: how many, and what was read on them.

    ``mystery`` is the seed of a practice motor that answers in place of a real
    one, and ``mystery_kind`` its winding.
    """

    leads: Literal[0, 3, 6, 9, 12] = 0
    groups: tuple[tuple[Text, ...], ...] = Field(default=(), max_length=8)
    readings: tuple[Annotated[TouchInput | VoltsInput, Field(discriminator="what")], ...] = Field(
        default=(), max_length=120
    )
    feed_v: DecimalText | None = None
    mystery: int | None = Field(default=None, ge=0, le=1_000_000)
    mystery_kind: WindingKind | None = None


class TrustInputs(Inputs):
    """What was read on a motor whose plate nobody trusts."""

    is_doubted: bool = False
    reason: Text = ""
    power_hp: DecimalText | None = None
    earlier_supply_v: DecimalText | None = None
    winding_ohm: DecimalText | None = None
    test_v: DecimalText | None = None
    test_a: DecimalText | None = None


class ConductorRecord(Inputs):
    """One conductor taken off the old motor: where it was, as tagged and coloured."""

    conductor: Text = Field(min_length=1)
    terminal: Text = ""
    tag: Text = ""
    colour: Text = ""


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


ShortText = Annotated[Text, StringConstraints(max_length=120)]


class EditInput(Inputs):
    """One change of the drawn circuit: what, by whom, when and why."""

    id: ShortText = Field(min_length=1)
    kind: EditKind
    wire: Text = ""
    start: ShortText = ""
    end: ShortText = ""
    device: ShortText = ""
    type: ShortText = ""
    parameters: dict[ShortText, ShortText] = Field(default={}, max_length=24)
    tag: ShortText = ""
    by: ShortText = ""
    at: ShortText = ""
    why: Text = ""

    def as_core(self) -> Edit:
        """Return it as the core takes it."""
        return Edit(**self.model_dump())


class AcceptedInput(Inputs):
    """A hazard of the chosen circuit that somebody takes on, by name and with a reason."""

    hazard: Literal["power_back", "overload_reset", "plugged"]
    why: Text = Field(min_length=3)
    by: ShortText = ""
    at: ShortText = ""


class HandInput(Inputs):
    """What is held or set while a reading is taken."""

    verb: Literal["press", "trip", "on", "turn"]
    device: ShortText = Field(min_length=1)
    word: ShortText = ""


class DeadReadingInput(Inputs):
    """A reading on the dead circuit; ``ohms`` is empty where it was open."""

    start: ShortText = Field(min_length=1)
    end: ShortText = Field(min_length=1)
    hands: tuple[HandInput, ...] = Field(default=(), max_length=4)
    ohms: DecimalText | None = None


class StarterInputs(Inputs):
    """Which starter, with which options, and what was changed on its drawing.

    ``frozen`` holds the wire numbers of the last issue for wiring, by terminal:
    later changes add numbers and never renumber. The recipe ``found`` is an empty panel:
    the edits are what was traced in it. ``load`` is how the machine starts.
    """

    recipe: ShortText = ""
    options: dict[ShortText, ShortText] = Field(default={}, max_length=40)
    naming: Literal["iec", "nema"] | None = None
    symbols: Literal["nema", "iec"] | None = None
    edits: tuple[EditInput, ...] = Field(default=(), max_length=500)
    frozen: dict[ShortText, ShortText] = Field(default={}, max_length=4000)
    readings: tuple[DeadReadingInput, ...] = Field(default=(), max_length=400)
    load: Literal["unknown", "empty", "loaded"] = "unknown"
    accepted: tuple[AcceptedInput, ...] = Field(default=(), max_length=12)
