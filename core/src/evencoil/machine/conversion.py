"""A machine goes to another voltage: what becomes of every motor and control transformer.

For a motor: the new joints, or "cannot" with the reason and the ways out. For a
control transformer: which taps or links, and what its secondary gives then.

Units: volts [V], power [kVA].
Source: as `connection`; transformer volts go with the turns (textbook).
"""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from decimal import Decimal
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from evencoil.base import (
    ConductorSize,
    CoreError,
    DecimalText,
    Message,
    OutOfRangeError,
    Text,
    Trail,
    plain,
    show,
)
from evencoil.codebook import Profile
from evencoil.job import JobInputs, Worked, work_out
from evencoil.leads import Box, LeadsInputs
from evencoil.plate import PlateInputs, SupplyInputs, read_supply
from evencoil.sizing import SizeInputs
from evencoil.winding import Joint, groups_of

__all__ = [
    "ChangedSize",
    "ConvertedMotor",
    "ConvertedTransformer",
    "MachineMotor",
    "MachineTransformer",
    "TapInput",
    "convert_motor",
    "convert_transformer",
]

_WITHIN = Decimal("0.10")


class TapInput(BaseModel):
    """One primary voltage of a transformer, and the taps or links that make it."""

    model_config = ConfigDict(extra="forbid", frozen=True)
    volts_v: DecimalText
    links: Text = ""


class MachineTransformer(BaseModel):
    """A control transformer of a machine: its primary taps, its secondary."""

    model_config = ConfigDict(extra="forbid", frozen=True)
    tag: Text = Field(min_length=1)
    taps: Annotated[tuple[TapInput, ...], Field(max_length=12)] = ()
    secondary_v: DecimalText
    now_v: DecimalText | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class MachineMotor:
    """A motor of a machine, as its job has it today."""

    tag: str
    plate: PlateInputs
    supply: SupplyInputs
    leads: LeadsInputs
    size: SizeInputs = field(default_factory=SizeInputs)

    def on(self, supply: SupplyInputs) -> MachineMotor:
        """Return the motor on another present supply."""
        return replace(self, supply=supply)


@dataclass(frozen=True, slots=True, kw_only=True)
class ChangedSize:
    """A figure of the branch circuit before and after; ``is_larger`` where more is needed."""

    figure: str
    before: str
    after: str
    is_larger: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class ConvertedMotor:
    """What becomes of a motor.

    Attributes
    ----------
    answer : str
        ``can``; ``cannot``; or ``open`` where a fact is missing.
    before, after : Box
        Calculated on the supply of today and on the new one.
    moves : tuple of Message
        Joints to open and to make, and what to look at first; empty if nothing moves.
    amps_before, amps_after : Decimal or None
        Plate current of the column in use. [A]
    changed : tuple of ChangedSize
        Heater, overload, device, wire, switch: what each was and what it is to be.
    left : Message or None
        What happens if the old heaters stay in.
    load_kva : Decimal or None
        What a transformer of its own would carry, where it cannot. [kVA]
    """

    tag: str
    answer: Literal["can", "cannot", "open"]
    before: Box
    after: Box
    moves: tuple[Message, ...]
    amps_before: Decimal | None
    amps_after: Decimal | None
    reason: CoreError | None
    ways_out: tuple[Message, ...]
    load_kva: Decimal | None
    changed: tuple[ChangedSize, ...] = ()
    left: Message | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class ConvertedTransformer:
    """What becomes of a control transformer.

    ``secondary_left_v`` is what it would give if no one moved the links. [V]
    """

    tag: str
    action: Literal["keep", "retap", "replace"]
    tap: TapInput | None
    secondary_after_v: Decimal | None
    secondary_left_v: Decimal | None
    message: Message


def _amps(worked: Worked) -> Decimal | None:
    """Return the nameplate's amps at the volts in use [A], in stamped order."""
    verdict, plate = worked.verdict, worked.reading.plate
    if verdict is None or len(plate.amps_a) != len(plate.volts_v):
        return None
    return plate.amps_at(verdict.column, verdict.used_volts_v)


def _said(joint: Joint, names: Box) -> str:
    leads = "-".join(names.names.get(lead, lead) for lead in joint.leads)
    return f"{joint.line} to {leads}" if joint.line else leads


def _moves(motor: MachineMotor, before: Box, after: Worked) -> tuple[Message, ...]:
    """Return what to open, what to make, and what to look at, from the box as it is joined."""
    box = after.box
    if box.derived is None:
        return ()
    made_now = tuple(joint.as_core() for joint in motor.leads.joints)
    found: list[Message] = []
    if not made_now:
        if before.derived is None:
            return ()
        made_now = before.derived.joints
        found.append(Message("convert.box_unread"))
    elif before.derived is not None and groups_of(made_now) != before.derived.partition:
        found.append(Message("convert.box_differs"))
    old = groups_of(made_now)
    new = box.derived.partition
    found += [
        Message("convert.open", {"joint": _said(joint, before)})
        for joint in made_now
        if (joint.line or len(joint.leads) > 1) and (joint.line, frozenset(joint.leads)) not in new
    ]
    found += [
        Message("convert.make", {"joint": _said(joint, box)})
        for joint in box.derived.joints
        if (joint.line, frozenset(joint.leads)) not in old
    ]
    if after.verdict is not None:
        found += [one.message for one in after.verdict.findings if one.level == "doubt"]
    return tuple(found)


_JOINED = (
    "conductor_size",
    "protection_device_a",
    "overload_setting_a",
    "heater_code",
    "disconnect_switch_a",
)


def _changed(before: Trail, after: Trail) -> tuple[ChangedSize, ...]:
    """Return the figures of the branch circuit that stand in both, before and after."""
    rows = []
    for name in _JOINED:
        if name not in before or name not in after:
            continue
        old, new = before[name], after[name]
        larger = False
        if (isinstance(old.value, ConductorSize) and isinstance(new.value, ConductorSize)) or (
            isinstance(old.value, Decimal) and isinstance(new.value, Decimal)
        ):
            larger = new.value > old.value
        rows.append(ChangedSize(figure=name, before=old.said, after=new.said, is_larger=larger))
    return tuple(rows)


def _left(motor: MachineMotor, after: Trail) -> Message | None:
    """Say what the heaters that are in now would do on the new supply."""
    if "overload_setting_a" not in after or "plate_amps_a" not in after:
        return None
    amps = after.number("plate_amps_a")
    existing = motor.size.existing
    if existing is None or existing.trip_a is None:
        most = show(after.number("overload_setting_a"), "limit")
        return Message("convert.heaters_unread", {"amps": plain(amps), "most": most})
    trip = existing.trip_a
    params = {"trip": show(trip, "limit"), "amps": plain(amps), "percent": show(trip / amps * 100)}
    if "overload_ceiling_a" in after and trip > after.number("overload_ceiling_a"):
        return Message("convert.left_large", params)
    return Message("convert.left_small", params) if trip < amps else None


def convert_motor(
    motor: MachineMotor, supply: SupplyInputs, profile: Profile | None = None
) -> ConvertedMotor:
    """Return what becomes of a motor on another supply.

    Parameters
    ----------
    motor : MachineMotor
        As its job has it.
    supply : SupplyInputs
        The new supply.
    profile : Profile, optional
        The works' own rules.

    Returns
    -------
    ConvertedMotor
        New joints, or the reason and the ways out.

    Raises
    ------
    CoreError
        If the new supply cannot be read.
    """
    to = read_supply(supply.text)
    size = motor.size
    before = work_out(
        JobInputs(plate=motor.plate, supply=motor.supply, size=size, leads=motor.leads), profile
    )
    asked = motor.leads.model_copy(update={"joints": (), "maker": (), "followed": None})
    after = work_out(JobInputs(plate=motor.plate, supply=supply, size=size, leads=asked), profile)
    can = after.box.derived is not None
    amps = [band.high for band in after.reading.plate.amps_a]
    paired = len(amps) == len(after.reading.plate.volts_v)
    # a transformer makes no third phase
    is_made = after.reading.plate.phases == 3 and to.phases == 1
    reason = None if can else after.box.derived_error
    ways: tuple[Message, ...] = ()
    load = None
    answer: Literal["can", "cannot", "open"] = "can"
    if reason is not None:
        answer = "open" if reason.code == "missing" else "cannot"
    if answer == "cannot":
        ways = tuple(
            Message(f"convert.way.{name}", {"supply": plain(to.line_volts_v)})
            for name in (
                ("converter", "replace", "keep")
                if is_made
                else ("transformer", "replace", "rewind", "keep")
            )
        )
        plate = after.reading.plate
        if plate.volts_v and (paired or len(plate.volts_v) == 1) and amps:
            # of two speeds on one voltage the larger current decides
            used = amps[-1] if paired else max(amps)
            root = Decimal(1) if plate.phases == 1 else Decimal(3).sqrt()
            load = plate.volts_v[-1].high * used * root / 1000
    return ConvertedMotor(
        tag=motor.tag,
        answer=answer,
        before=before.box,
        after=after.box,
        moves=_moves(motor, before.box, after),
        amps_before=_amps(before),
        amps_after=_amps(after),
        reason=reason,
        ways_out=ways,
        load_kva=load,
        changed=_changed(before.trail, after.trail),
        left=_left(motor, after.trail),
    )


def convert_transformer(
    transformer: MachineTransformer, now_v: Decimal, to_v: Decimal
) -> ConvertedTransformer:
    """Return which taps a control transformer uses on another supply.

    Parameters
    ----------
    transformer : MachineTransformer
        Its primary voltages with their taps or links, and its secondary.
    now_v : Decimal
        Line volts of today. [V]
    to_v : Decimal
        Line volts of the new supply. [V]

    Returns
    -------
    ConvertedTransformer
        Keep, re-tap or replace, with the secondary volts before and after.

    Raises
    ------
    OutOfRangeError
        If it has no tap, or volts that cannot be.
    """
    figures = [tap.volts_v for tap in transformer.taps]
    if not figures or min(*figures, transformer.secondary_v) <= 0 or max(figures) > 15000:
        raise OutOfRangeError(
            Message("convert.taps", {"tag": transformer.tag}),
            field="transformers",
            hint=Message("convert.taps.hint"),
        )

    def nearest(volts: Decimal) -> TapInput:
        return min(transformer.taps, key=lambda tap: abs(volts / tap.volts_v - 1))

    today = next(
        (tap for tap in transformer.taps if tap.volts_v == transformer.now_v), nearest(now_v)
    )
    left = transformer.secondary_v * to_v / today.volts_v
    best = nearest(to_v)
    after = transformer.secondary_v * to_v / best.volts_v
    params = {
        "tag": transformer.tag,
        "tap": plain(best.volts_v),
        "links": best.links or "—",
        "today": plain(today.volts_v),
        "after": show(after),
        "left": show(left),
        "rated": plain(transformer.secondary_v),
        "supply": plain(to_v),
    }
    if abs(to_v / best.volts_v - 1) > _WITHIN:
        return ConvertedTransformer(
            tag=transformer.tag,
            action="replace",
            tap=None,
            secondary_after_v=None,
            secondary_left_v=left,
            message=Message("convert.replace", params),
        )
    action: Literal["keep", "retap"] = "keep" if best == today else "retap"
    return ConvertedTransformer(
        tag=transformer.tag,
        action=action,
        tap=best,
        secondary_after_v=after,
        secondary_left_v=left,
        message=Message(f"convert.{action}", params),
    )
