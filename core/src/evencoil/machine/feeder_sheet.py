"""The feeder of a machine from its jobs: motors as sized, other loads, taps, group device.

Units: current [A]. Rules: `machine.feeder` (430.24, 430.62), `machine.taps` (430.28, 430.53).
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from decimal import Decimal

from evencoil.base import CoreError, Message, MissingError, Refusal, RefusedError, Trail, plain
from evencoil.codebook import Edition
from evencoil.job import Worked
from evencoil.machine.feeder import FeederLoads, FeederMotor, SizedFeeder, size_feeder
from evencoil.machine.inputs import FeederInputs
from evencoil.machine.several import GroupMotor, shared_disconnect, small_group
from evencoil.machine.taps import group_device, tap_conductor
from evencoil.sizing import LARGE_CIRCUIT_A, ConductorFacts

__all__ = ["FeederMember", "FeederRow", "FeederSheet", "SizedTap", "feeder_sheet"]

#: figures of a branch circuit without which its motor cannot count
_NEEDED = ("table_flc_a", "hermetic_current_a", "protection_device_a")


@dataclass(frozen=True, slots=True)
class FeederMember:
    """A motor of the machine with its job, calculated."""

    tag: str
    worked: Worked


@dataclass(frozen=True, slots=True, kw_only=True)
class FeederRow:
    """A motor on the feeder, or why it does not count yet.

    ``share_a`` is what the highest rated motor counts, None for all others. [A]
    """

    tag: str
    motor: FeederMotor | None
    refusal: Refusal | None
    share_a: Decimal | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class SizedTap:
    """A tap with its steps, or why it cannot be sized."""

    tag: str
    trail: Trail
    refusal: CoreError | None


@dataclass(frozen=True, slots=True, kw_only=True)
class FeederSheet:
    """A feeder sized, with its evidence.

    Attributes
    ----------
    headline : Message
        Conductor and device, or that there is no motor yet.
    refusal : CoreError or None
        Why there is no feeder.
    several : Trail
        One device or one disconnect for several motors; ``several_refusal`` why there is none.
    """

    headline: Message
    rows: tuple[FeederRow, ...]
    trail: Trail
    taps: tuple[SizedTap, ...]
    refusal: CoreError | None
    several: Trail
    several_refusal: CoreError | None


def _motor(member: FeederMember) -> FeederMotor | Refusal:
    """Return a motor as its own branch circuit was sized, or why it was not."""
    worked = member.worked
    refused = next(
        (one.refusal for one in worked.figures if one.id in _NEEDED and one.refusal), None
    )
    if refused is not None:
        return refused
    trail = worked.trail
    name = "hermetic_current_a" if "hermetic_current_a" in trail else "table_flc_a"
    if name not in trail:
        return Refusal.of(
            MissingError(
                Message("size.waits"), field="table_flc_a", hint=Message("size.waits.hint")
            )
        )
    flc, device = trail[name], trail["protection_device_a"]
    if worked.kind is None:
        raise RuntimeError("a sized fuse or breaker has a kind")
    return FeederMotor(
        tag=member.tag,
        flc_a=flc.number,
        device_a=device.number,
        device_kind=worked.kind,
        phases=worked.reading.plate.phases or 3,
        duty_a=trail.number("required_ampacity_a") if "duty" in trail else None,
        power_hp=trail.number("power_hp") if "power_hp" in trail else None,
        locked_a=trail.number("locked_rotor_table_a") if "locked_rotor_table_a" in trail else None,
        marks=(*flc.marks, *(mark for mark in device.marks if mark not in flc.marks)),
    )


def _other_volts(member: FeederMember, members: Sequence[FeederMember]) -> Refusal | None:
    """Return why a motor of another supply voltage does not count, None if it does.

    The feeder has the volts of most of its motors.
    """
    volts = [one.worked.supply.line_volts_v for one in members if one.worked.supply is not None]
    own = member.worked.supply
    if own is None or not volts:
        return None
    most = max(volts, key=volts.count)
    if own.line_volts_v == most:
        return None
    return Refusal.of(
        RefusedError(
            Message("feeder.other_volts", {"own": plain(own.line_volts_v), "feeder": plain(most)}),
            field="supply.text",
            hint=Message("feeder.other_volts.hint"),
        )
    )


def _taps(
    inputs: FeederInputs,
    members: Sequence[FeederMember],
    feeder: SizedFeeder,
    trail: Trail,
    edition: Edition,
) -> Iterator[SizedTap]:
    """Size each tap from the feeder as it was sized."""
    facts = ConductorFacts(material=inputs.material, termination_c=inputs.termination_c)
    needed = trail.number("feeder_ampacity_a")
    least = {
        one.tag: one.worked.trail.number("required_ampacity_a")
        for one in members
        if "required_ampacity_a" in one.worked.trail
    }
    for tap in inputs.taps:
        if tap.tag not in least:
            continue
        own = Trail()
        refusal = None
        try:
            tap_conductor(
                feeder_ampacity_a=feeder.holds_a,
                feeder_device_a=feeder.device.number,
                motor_least_a=least[tap.tag],
                length_ft=tap.length_ft,
                is_protected=tap.is_protected,
                is_group=inputs.is_group,
                to=tap.to,
                facts=facts,
                terminal_c=inputs.termination_c or (75 if needed > LARGE_CIRCUIT_A else 60),
                edition=edition,
                trail=own,
            )
        except CoreError as error:
            refusal = error
        yield SizedTap(tag=tap.tag, trail=own, refusal=refusal)


def _group(
    inputs: FeederInputs, motors: Sequence[FeederMotor], edition: Edition, trail: Trail
) -> None:
    """Add the verdict on one device ahead of several motors, 430.53(C)."""
    if not inputs.is_group or inputs.group_device_a is None or not motors:
        return
    largest = max(motors, key=lambda motor: motor.device_a)
    others = sum((motor.flc_a for motor in motors if motor is not largest), Decimal(0))
    group_device(
        largest_device_a=largest.device_a,
        other_flc_a=others + inputs.continuous_a + inputs.noncontinuous_a,
        listed_most_a=inputs.group_listed_a,
        device_a=inputs.group_device_a,
        edition=edition,
        trail=trail,
    )


def _several(
    inputs: FeederInputs,
    members: Sequence[FeederMember],
    motors: Sequence[FeederMotor],
    edition: Edition,
) -> tuple[Trail, CoreError | None]:
    """Return what holds for several motors behind one device or one disconnect."""
    trail = Trail()
    volts = [one.worked.supply.line_volts_v for one in members if one.worked.supply is not None]
    if not motors or (inputs.small_group is None and inputs.disconnect is None):
        return trail, None
    line_v = max(volts, key=volts.count)
    group = [
        GroupMotor(
            tag=one.tag,
            flc_a=one.flc_a,
            power_hp=one.power_hp,
            locked_a=one.locked_a,
            phases=one.phases,
        )
        for one in motors
    ]
    try:
        if inputs.small_group is not None:
            small_group(group, inputs.small_group, line_v, edition=edition, trail=trail)
        if inputs.disconnect is not None:
            shared_disconnect(
                group,
                inputs.disconnect,
                volts_v=line_v,
                other_a=inputs.continuous_a + inputs.noncontinuous_a,
                edition=edition,
                trail=trail,
            )
    except CoreError as error:
        return trail, error
    return trail, None


def feeder_sheet(
    members: Sequence[FeederMember], inputs: FeederInputs, edition: Edition
) -> FeederSheet:
    """Return the feeder of a machine.

    Parameters
    ----------
    members : sequence of FeederMember
        Its motors on this supply, as their jobs are calculated today.
    inputs : FeederInputs
        Other loads, conductors, taps.
    edition : int
        Edition whose sections are cited.
    """
    counted = {one.tag: _other_volts(one, members) or _motor(one) for one in members}
    motors = [one for one in counted.values() if isinstance(one, FeederMotor)]
    trail = Trail()
    refusal: CoreError | None = None
    feeder: SizedFeeder | None = None
    headline = Message("feeder.headline_open")
    try:
        feeder = size_feeder(
            motors,
            FeederLoads(
                continuous_a=inputs.continuous_a,
                noncontinuous_a=inputs.noncontinuous_a,
                interlocked=tuple(frozenset(group) for group in inputs.interlocked),
            ),
            ConductorFacts(material=inputs.material, termination_c=inputs.termination_c),
            device_kind=inputs.device_kind,
            edition=edition,
            trail=trail,
        )
        headline = Message(
            "feeder.headline", {"size": feeder.conductor.shown, "device": feeder.device.shown}
        )
        _group(inputs, motors, edition, trail)
    except CoreError as error:
        refusal = error
    largest = None if feeder is None else feeder.largest
    several, several_refusal = _several(inputs, members, motors, edition)
    return FeederSheet(
        headline=headline,
        rows=tuple(
            FeederRow(
                tag=tag,
                motor=one if isinstance(one, FeederMotor) else None,
                refusal=one if isinstance(one, Refusal) else None,
                share_a=feeder.share_a if feeder is not None and one is largest else None,
            )
            for tag, one in counted.items()
        ),
        trail=trail,
        taps=() if feeder is None else tuple(_taps(inputs, members, feeder, trail, edition)),
        refusal=refusal,
        several=several,
        several_refusal=several_refusal,
    )
