"""The inputs of the leads, joints and lead identification steps.

Empty means: no one entered it. Units are in the names; numbers travel as decimal strings.
"""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from evencoil.base import DecimalText, Inputs, Text
from evencoil.winding import (
    AccessoryKind,
    Capacitors,
    Joint,
    RunShape,
    Speed,
    StartMethod,
    StartSwitch,
    Style,
    WindingKind,
)

__all__ = [
    "AccessoryInput",
    "BenchInputs",
    "BoardInput",
    "ColorInput",
    "Direction",
    "FollowedInput",
    "GroundLanding",
    "JointInput",
    "JointMethod",
    "JointWorkInput",
    "JointsInputs",
    "KickInput",
    "LeadsInputs",
    "MakerDiagramInput",
    "SinglePhaseInput",
    "TouchInput",
    "TwistRowInput",
    "TwoSleeves",
    "VoltsInput",
]

Direction = Literal["forward", "reverse"]


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
    """A stud board: its rows from top to bottom, and the loose parts that are there.

    Studs may be written with or without T. Without a number of bars the board is taken to have
    as many as its largest connection needs; without insulators, one for each stud.
    """

    rows: tuple[tuple[Text, ...], ...] = Field(default=(), max_length=6)
    bars: int | None = Field(default=None, ge=0, le=60)
    jumpers: int = Field(default=0, ge=0, le=24)
    nuts_per_stud: int = Field(default=3, ge=0, le=8)
    insulators: int | None = Field(default=None, ge=0, le=60)


class MakerDiagramInput(Inputs):
    """Joints as drawn by the maker, for one voltage, speed and direction.

    ``text`` is the diagram as printed, such as ``1-7 L1, 2-8 L2, 3-9 L3, 4-5-6``; it stands for
    the joints where those are empty, so it can be entered before the winding is known.
    """

    id: Text = Field(min_length=1)
    state: Literal["run", "start", "low", "high"] = "run"
    volts: Text = ""
    direction: Direction = "forward"
    source: Text = ""
    photo: Text = ""
    text: Text = ""
    joints: tuple[JointInput, ...] = Field(default=(), max_length=12)


class FollowedInput(Inputs):
    """Whom a named person follows where maker and derivation differ, and why."""

    side: Literal["maker", "derived"]
    reason: Text = Field(min_length=1)
    by: Text = ""
    at: Text = ""


class LeadsInputs(Inputs):
    """Which winding it is, how it is to run, and what is joined in the box.

    ``lead_count`` is how many leads were counted in the box, where the nameplate does not say;
    ``groups`` holds how many leads ring together, where that was read;
    ``names`` the mark found on a lead, by T number.
    """

    winding: WindingKind | None = None
    lead_count: int | None = Field(default=None, ge=2, le=12)
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


class ColorInput(Inputs):
    """The color found on an incoming conductor where it lands."""

    line: Literal["L1", "L2", "L3", "N", "G"]
    color: Text = ""
    remarked: Text = ""


class TwistRowInput(Inputs):
    """One row of a twist-on connector's own table: how many of a size it takes."""

    size: Text = Field(min_length=1)
    least: int = Field(ge=1, le=12)
    most: int = Field(ge=1, le=12)


#: where the equipment grounding conductor lands; empty is not yet looked at
GroundLanding = Literal["", "terminal", "frame_bolt", "none"]


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
    colors: tuple[ColorInput, ...] = Field(default=(), max_length=8)
    ground_landing: GroundLanding = ""
    twist_rows: tuple[TwistRowInput, ...] = Field(default=(), max_length=24)


#: two leads by their lead letters; a list of two on the wire
TwoSleeves = Annotated[tuple[Text, ...], Field(min_length=2, max_length=2)]
#: two pairs of leads; a list of two on the wire
TwoPairs = Annotated[tuple[TwoSleeves, ...], Field(min_length=2, max_length=2)]


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


class KickInput(Inputs):
    """The kick of a battery: plus and minus lead of each pair, and where the needle went."""

    what: Literal["kick"] = "kick"
    feed: TwoSleeves
    read: TwoSleeves
    needle: Literal["up", "down", "still"]


class BenchInputs(Inputs):
    """Leads whose tags are gone: how many, and what was read on them.

    ``known`` gives the number of letters whose tag is still there, ``corners`` letters known to
    be T1, T2 or T3, ``same_phase`` two pairs known to be halves of one phase. ``probe_ohm`` is
    what the meter shows with its tips together; it is taken off every reading. ``mystery`` is
    the seed of a practice motor that answers in place of a real one, ``mystery_kind`` its
    winding.
    """

    leads: Literal[0, 3, 6, 9, 12] = 0
    groups: tuple[tuple[Text, ...], ...] = Field(default=(), max_length=8)
    readings: tuple[
        Annotated[TouchInput | VoltsInput | KickInput, Field(discriminator="what")], ...
    ] = Field(default=(), max_length=120)
    known: dict[Text, Text] = Field(default={}, max_length=12)
    corners: tuple[Text, ...] = Field(default=(), max_length=3)
    same_phase: tuple[TwoPairs, ...] = Field(default=(), max_length=3)
    probe_ohm: DecimalText | None = Field(default=None, ge=0, le=10)
    feed_v: DecimalText | None = None
    mystery: int | None = Field(default=None, ge=0, le=1_000_000)
    mystery_kind: WindingKind | None = None
