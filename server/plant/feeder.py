"""The feeder of a machine: its motors as sized, other loads, conductor and device."""

from __future__ import annotations

from collections.abc import Iterator
from decimal import Decimal
from typing import Annotated

from django.http import HttpRequest
from ninja import Router, Schema
from pydantic import BaseModel, Field

from api.schemas import REFUSALS
from evencoil.base import CoreError, DecimalText, Message, Refusal, Text, Trail, plain, say, show
from evencoil.codebook import Edition, edition_of
from evencoil.job import Worked
from evencoil.machine import (
    FeederLoads,
    FeederMotor,
    TapTo,
    group_device,
    size_feeder,
    tap_conductor,
)
from evencoil.sizing import LARGE_CIRCUIT_A, ConductorFacts, DeviceKind, Material, kind_in
from jobs.models import JobMotor
from jobs.parts import RefusalOut, StepOut, refusal_out, step_out
from jobs.store import kept, work_out_kept
from people.access import Caller, caller_in, not_found
from plant.models import Machine

__all__ = ["router"]

router = Router(tags=["feeder"])


class TapIn(Schema):
    """A tap to one motor: how long, guarded or not, and what it ends in."""

    tag: Text = Field(min_length=1)
    length_ft: Annotated[DecimalText, Field(gt=0, le=1000)]
    is_protected: bool = True
    to: TapTo = "overload"


#: motors of which only one runs at a time
Group = Annotated[tuple[Text, ...], Field(min_length=2, max_length=20)]


class FeederIn(Schema):
    """What else hangs on the feeder, and what it is made of."""

    supply: str = ""
    continuous_a: DecimalText = Decimal(0)
    noncontinuous_a: DecimalText = Decimal(0)
    material: Material = "cu"
    termination_c: int | None = None
    device_kind: DeviceKind = "inverse_time_breaker"
    interlocked: tuple[Group, ...] = Field(default=(), max_length=12)
    taps: tuple[TapIn, ...] = Field(default=(), max_length=60)
    is_group: bool = False
    group_device_a: Annotated[DecimalText, Field(gt=0, le=10000)] | None = None
    group_listed_a: Annotated[DecimalText, Field(gt=0, le=10000)] | None = None


class TapOut(BaseModel):
    """A tap sized, or why it cannot be."""

    tag: str
    steps: list[StepOut]
    refusal: RefusalOut | None


class FeederMotorOut(BaseModel):
    """A motor on the feeder, or why it does not count yet."""

    tag: str
    name: str
    job: int
    supply: str
    flc_a: str
    device_a: str
    duty_a: str
    is_largest: bool
    share_a: str
    refusal: RefusalOut | None


class FeederOut(BaseModel):
    """The feeder sized, with its evidence."""

    machine: str
    shout: str
    supplies: list[str]
    motors: list[FeederMotorOut]
    steps: list[StepOut]
    taps: list[TapOut]
    refusal: RefusalOut | None


def _taps(
    body: FeederIn, least: dict[str, Decimal], trail: Trail, edition: Edition
) -> Iterator[TapOut]:
    """Size each tap from the feeder as it was sized."""
    facts = ConductorFacts(material=body.material, termination_c=body.termination_c)
    for tap in body.taps:
        if tap.tag not in least or "feeder_device_a" not in trail:
            continue
        own = Trail()
        refusal = None
        needed = trail.number("feeder_ampacity_a")
        try:
            tap_conductor(
                feeder_ampacity_a=Decimal(
                    str(trail["feeder_conductor_size"].working.params["holds"])
                ),
                feeder_device_a=trail.number("feeder_device_a"),
                motor_least_a=least[tap.tag],
                length_ft=tap.length_ft,
                is_protected=tap.is_protected,
                is_group=body.is_group,
                to=tap.to,
                facts=facts,
                terminal_c=body.termination_c or (75 if needed > LARGE_CIRCUIT_A else 60),
                edition=edition,
                trail=own,
            )
        except CoreError as error:
            refusal = refusal_out(Refusal.of(error))
        yield TapOut(tag=tap.tag, steps=[step_out(step) for step in own], refusal=refusal)


def _group(body: FeederIn, motors: list[FeederMotor], trail: Trail, edition: Edition) -> None:
    """Judge one device in front of several motors, 430.53(C)."""
    if not body.is_group or body.group_device_a is None or not motors:
        return
    largest = max(motors, key=lambda motor: motor.device_a)
    others = sum((motor.flc_a for motor in motors if motor is not largest), Decimal(0))
    group_device(
        largest_device_a=largest.device_a,
        other_flc_a=others + body.continuous_a + body.noncontinuous_a,
        listed_most_a=body.group_listed_a,
        device_a=body.group_device_a,
        edition=edition,
        trail=trail,
    )


def _motor(tag: str, worked: Worked) -> FeederMotor | Refusal | None:
    """Return a motor as its own branch circuit was sized, or why it was not."""
    steps = {step.id: step for step in worked.steps}
    refused = next(
        (
            figure.refusal
            for figure in worked.figures
            if figure.id in {"table_flc_a", "protection_device_a"} and figure.refusal
        ),
        None,
    )
    if refused is not None:
        return refused
    flc, device = steps["table_flc_a"], steps["protection_device_a"]
    return FeederMotor(
        tag=tag,
        flc_a=Decimal(str(flc.value)),
        device_a=Decimal(str(device.value)),
        device_kind=kind_in(worked.trail),
        phases=worked.reading.plate.phases or 3,
        duty_a=Decimal(str(steps["required_ampacity_a"].value)) if "duty" in steps else None,
        marks=(*flc.marks, *(mark for mark in device.marks if mark not in flc.marks)),
    )


def _rows(
    caller: Caller, machine: Machine, supply: str
) -> tuple[list[FeederMotorOut], list[FeederMotor], list[str], dict[str, Decimal]]:
    links = (
        JobMotor.objects.select_related("job", "motor", "motor__machine")
        .filter(motor__machine=machine)
        .order_by("motor__tag", "-number")
        .distinct("motor__tag")
    )
    rows, motors, supplies = [], [], []
    least: dict[str, Decimal] = {}
    for link in links:
        now = kept(link, caller.works)
        if now.supply.text and now.supply.text not in supplies:
            supplies.append(now.supply.text)
        if supply and now.supply.text != supply:
            continue
        worked = work_out_kept(now, caller.works)
        found = _motor(link.motor.tag, worked)
        if "required_ampacity_a" in worked.trail:
            least[link.motor.tag] = worked.trail.number("required_ampacity_a")
        is_motor = isinstance(found, FeederMotor)
        if isinstance(found, FeederMotor):
            motors.append(found)
        rows.append(
            FeederMotorOut(
                tag=link.motor.tag,
                name=link.motor.name,
                job=link.number,
                supply=now.supply.text,
                flc_a=plain(found.flc_a) if isinstance(found, FeederMotor) else "",
                device_a=plain(found.device_a) if isinstance(found, FeederMotor) else "",
                duty_a=show(found.duty_a, "minimum")
                if isinstance(found, FeederMotor) and found.duty_a is not None
                else "",
                is_largest=False,
                share_a="",
                refusal=None if is_motor else refusal_out(found),  # type: ignore[arg-type]  # a Refusal here
            )
        )
    return rows, motors, supplies, least


@router.post("/w/{works}/feeder/{machine}", response={200: FeederOut, **REFUSALS})
def feeder(request: HttpRequest, works: str, machine: str, body: FeederIn) -> FeederOut:
    """Size the feeder of a machine from its motors as they are sized today."""
    caller = caller_in(request, works)
    found = Machine.objects.filter(works=caller.works, name=machine).first()
    if found is None:
        raise not_found("machine")
    rows, motors, supplies, least = _rows(caller, found, body.supply)
    trail = Trail()
    refusal: RefusalOut | None = None
    shout = Message("feeder.shout_open")
    try:
        step = size_feeder(
            motors,
            FeederLoads(
                continuous_a=body.continuous_a,
                noncontinuous_a=body.noncontinuous_a,
                interlocked=tuple(frozenset(group) for group in body.interlocked),
            ),
            ConductorFacts(material=body.material, termination_c=body.termination_c),
            device_kind=body.device_kind,
            edition=edition_of(caller.works.edition),
            trail=trail,
        )
        shout = Message(
            "feeder.shout", {"size": trail["feeder_conductor_size"].shown, "device": step.shown}
        )
        _group(body, motors, trail, edition_of(caller.works.edition))
    except CoreError as error:
        refusal = refusal_out(Refusal.of(error))
    for row in rows:
        said = trail["feeder_ampacity_a"].working.params if "feeder_ampacity_a" in trail else {}
        row.is_largest = bool(said) and row.tag == said["largest"]
        if row.is_largest:
            row.share_a = plain(Decimal(str(said["flc"])) * Decimal(str(said["factor"])))
    return FeederOut(
        machine=found.name,
        shout=say(shout),
        supplies=supplies,
        motors=rows,
        steps=[step_out(item) for item in trail],
        taps=list(_taps(body, least, trail, edition_of(caller.works.edition))),
        refusal=refusal,
    )
