"""A whole machine on another supply: motors, control transformers, other loads.

Units: volts [V].
"""

from __future__ import annotations

import contextlib
from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal

from evencoil.base import CoreError, Message
from evencoil.codebook import Profile
from evencoil.machine.conversion import (
    ConvertedMotor,
    ConvertedTransformer,
    MachineMotor,
    convert_motor,
    convert_transformer,
)
from evencoil.machine.inputs import ConversionInputs
from evencoil.machine.loads import ConvertedLoad, convert_load
from evencoil.machine.name_motors import NamedMotor, name_motors
from evencoil.plate import read_supply

__all__ = ["MachinePlan", "PlannedTransformer", "plan_machine"]


@dataclass(frozen=True, slots=True, kw_only=True)
class PlannedTransformer:
    """What becomes of a control transformer, or why that cannot be said."""

    tag: str
    converted: ConvertedTransformer | None
    refusal: CoreError | None


@dataclass(frozen=True, slots=True, kw_only=True)
class MachinePlan:
    """What becomes of every part of a machine, with the headline that counts its motors.

    ``named`` tells which motor each starter without a tag belongs to, at the present supply.
    """

    headline: Message
    motors: tuple[ConvertedMotor, ...] = ()
    transformers: tuple[PlannedTransformer, ...] = ()
    loads: tuple[ConvertedLoad, ...] = ()
    named: tuple[NamedMotor, ...] = ()


def _transformers(
    inputs: ConversionInputs, now_v: Decimal, to_v: Decimal
) -> tuple[PlannedTransformer, ...]:
    found = []
    for item in inputs.transformers:
        try:
            done = convert_transformer(item, now_v, to_v)
            found.append(PlannedTransformer(tag=item.tag, converted=done, refusal=None))
        except CoreError as error:
            found.append(PlannedTransformer(tag=item.tag, converted=None, refusal=error))
    return tuple(found)


def plan_machine(
    motors: Sequence[MachineMotor], inputs: ConversionInputs, profile: Profile | None = None
) -> MachinePlan:
    """Return what becomes of a machine on another supply.

    Parameters
    ----------
    motors : sequence of MachineMotor
        As their jobs have them; the present supply that was entered goes before the job's own.
    inputs : ConversionInputs
        New and present supply, transformers, other loads.
    profile : Profile, optional
        The plant rules.

    Raises
    ------
    CoreError
        If a supply cannot be read.
    """
    if not inputs.supply.text.strip():
        return MachinePlan(headline=Message("convert.headline_open"))
    to_v = read_supply(inputs.supply.text).line_volts_v
    has_present = bool(inputs.now.text.strip())
    now_v = read_supply(inputs.now.text).line_volts_v if has_present else to_v
    done = tuple(
        convert_motor(motor.on(inputs.now) if has_present else motor, inputs.supply, profile)
        for motor in motors
    )
    secondaries: dict[str, Decimal | None] = {}
    for item in inputs.transformers:
        with contextlib.suppress(CoreError):
            secondaries[item.tag] = convert_transformer(item, now_v, to_v).secondary_after_v
    answers = [one.answer for one in done]
    counts = {name: str(answers.count(name)) for name in ("can", "cannot", "open")}
    return MachinePlan(
        headline=Message(
            "convert.headline_missing" if "open" in answers else "convert.headline", counts
        ),
        motors=done,
        transformers=_transformers(inputs, now_v, to_v),
        loads=tuple(convert_load(load, to_v, secondaries) for load in inputs.loads),
        named=name_motors(inputs.unnamed, {one.tag: one.amps_before for one in done}),
    )
