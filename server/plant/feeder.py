"""The feeder of a machine: its motors as sized, other loads, conductor and device."""

from __future__ import annotations

from decimal import Decimal

from django.http import HttpRequest
from ninja import Router, Schema
from pydantic import BaseModel

from api.schemas import REFUSALS
from evencoil.editions import edition_of
from evencoil.errors import CoreError
from evencoil.evidence import Trail
from evencoil.figures import Refusal
from evencoil.inputs import DecimalText
from evencoil.quantities import plain
from evencoil.sizing.conductor import ConductorFacts, Material
from evencoil.sizing.feeder import FeederLoads, FeederMotor, highest_rated, size_feeder
from evencoil.sizing.protection import DeviceKind
from evencoil.words import Message, say
from evencoil.work import Worked
from jobs.models import JobMotor
from jobs.parts import RefusalOut, StepOut, refusal_out, step_out
from jobs.store import kept, work_out_kept
from people.access import Caller, caller_in, not_found
from plant.models import Machine

__all__ = ["router"]

router = Router(tags=["feeder"])


class FeederIn(Schema):
    """What else hangs on the feeder, and what it is made of."""

    supply: str = ""
    continuous_a: DecimalText = Decimal(0)
    noncontinuous_a: DecimalText = Decimal(0)
    material: Material = "cu"
    termination_c: int | None = None
    device_kind: DeviceKind = "inverse_time_breaker"


class FeederMotorOut(BaseModel):
    """A motor on the feeder, or why it does not count yet."""

    tag: str
    name: str
    job: int
    supply: str
    flc_a: str
    device_a: str
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
    refusal: RefusalOut | None


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
    kind: DeviceKind = str(steps["protection_kind"].value)  # type: ignore[assignment]  # of DeviceKind
    return FeederMotor(
        tag=tag,
        flc_a=Decimal(str(flc.value)),
        device_a=Decimal(str(device.value)),
        device_kind=kind,
        phases=worked.reading.plate.phases or 3,
        marks=(*flc.marks, *(mark for mark in device.marks if mark not in flc.marks)),
    )


def _rows(
    caller: Caller, machine: Machine, supply: str
) -> tuple[list[FeederMotorOut], list[FeederMotor], list[str]]:
    links = (
        JobMotor.objects.select_related("job", "motor", "motor__machine")
        .filter(motor__machine=machine)
        .order_by("motor__tag", "-number")
        .distinct("motor__tag")
    )
    rows, motors, supplies = [], [], []
    for link in links:
        now = kept(link, caller.works)
        if now.supply.text and now.supply.text not in supplies:
            supplies.append(now.supply.text)
        if supply and now.supply.text != supply:
            continue
        found = _motor(link.motor.tag, work_out_kept(now, caller.works))
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
                is_largest=False,
                share_a="",
                refusal=None if is_motor else refusal_out(found),  # type: ignore[arg-type]  # a Refusal here
            )
        )
    return rows, motors, supplies


@router.post("/w/{works}/feeder/{machine}", response={200: FeederOut, **REFUSALS})
def feeder(request: HttpRequest, works: str, machine: str, body: FeederIn) -> FeederOut:
    """Size the feeder of a machine from its motors as they are sized today."""
    caller = caller_in(request, works)
    found = Machine.objects.filter(works=caller.works, name=machine).first()
    if found is None:
        raise not_found("machine")
    rows, motors, supplies = _rows(caller, found, body.supply)
    trail = Trail()
    refusal: RefusalOut | None = None
    shout = Message("feeder.shout_open")
    try:
        step = size_feeder(
            motors,
            FeederLoads(continuous_a=body.continuous_a, noncontinuous_a=body.noncontinuous_a),
            ConductorFacts(material=body.material, termination_c=body.termination_c),
            device_kind=body.device_kind,
            edition=edition_of(caller.works.edition),
            trail=trail,
        )
        shout = Message(
            "feeder.shout", {"size": trail["feeder_conductor_size"].shown, "device": step.shown}
        )
    except CoreError as error:
        refusal = refusal_out(Refusal.of(error))
    if motors:
        largest = highest_rated(motors)
        for row in rows:
            flc = next((motor.flc_a for motor in motors if motor.tag == row.tag), None)
            if flc is not None:
                row.is_largest = row.tag == largest.tag
                row.share_a = plain(flc * (Decimal("1.25") if row.is_largest else 1))
    return FeederOut(
        machine=found.name,
        shout=say(shout),
        supplies=supplies,
        motors=rows,
        steps=[step_out(item) for item in trail],
        refusal=refusal,
    )
