"""The feeder of a machine: its motors as sized, other loads, conductor and device."""

from __future__ import annotations

from typing import Annotated

from django.http import HttpRequest, HttpResponse
from ninja import Router
from pydantic import BeforeValidator

from answers.schemas.base import Answer, Plain, Refused, Sentence
from answers.schemas.parts import StepOut
from api.answers import as_json
from api.problems import NeedsRepairError
from api.schemas import HEAVY
from desk.answer import Tell, answer
from evencoil.base import Message, Refusal, Trail, show
from evencoil.codebook import edition_of
from evencoil.machine import FeederInputs, FeederMember, FeederRow, feeder_sheet
from jobs.models import JobMotor
from jobs.store import kept, work_out_kept
from people.access import Caller, caller_in, not_found
from plant.models import Machine

__all__ = ["router"]

router = Router(tags=["feeder"])
#: every step of a trail, in order
Steps = Annotated[list[StepOut], BeforeValidator(list)]


class TapOut(Answer):
    """A tap sized, or why it cannot be."""

    tag: str
    steps: Steps
    refusal: Refused


class FeederMotorOut(Answer):
    """A motor on the feeder, or why it does not count yet."""

    tag: str
    name: str
    job: int
    supply: str
    flc_a: Plain
    device_a: Plain
    duty_a: str
    is_largest: bool
    share_a: Plain
    refusal: Refused


class FeederOut(Answer):
    """The feeder sized, with its evidence."""

    machine: str
    headline: Sentence
    supplies: list[str]
    motors: list[FeederMotorOut]
    steps: Steps
    taps: list[TapOut]
    refusal: Refused
    several: Steps
    several_refusal: Refused


def _members(
    caller: Caller, machine: Machine, supply: str, tell: Tell
) -> tuple[list[tuple[JobMotor, str, FeederMember]], list[str], list[tuple[JobMotor, Refusal]]]:
    """Return the motors on a supply calculated, every supply there is, and what needs repair."""
    links = (
        JobMotor.objects.select_related("job", "motor", "motor__machine")
        .filter(motor__machine=machine)
        .order_by("motor__tag", "-number")
        .distinct("motor__tag")
    )
    members, supplies = [], []
    broken: list[tuple[JobMotor, Refusal]] = []
    for place, link in enumerate(links):
        tell(place, len(links))
        try:
            now = kept(link, caller.works)
        except NeedsRepairError as wrong:
            broken.append((link, _unreadable(wrong)))
            continue
        text = now.inputs.supply.text
        if text and text not in supplies:
            supplies.append(text)
        if not supply or text == supply:
            worked = work_out_kept(now, caller.works)
            members.append((link, text, FeederMember(link.motor.tag, worked)))
    return members, supplies, broken


def _unreadable(wrong: NeedsRepairError) -> Refusal:
    """Return why a motor whose job needs repair does not count yet."""
    said = wrong.body
    return Refusal(code="refused", detail=said["detail"], field=said["field"], hint=said["hint"])


def _broken_row(link: JobMotor, refusal: Refusal) -> FeederMotorOut:
    return FeederMotorOut(
        tag=link.motor.tag,
        name=link.motor.name,
        job=link.number,
        supply="",
        flc_a=None,
        device_a=None,
        duty_a="",
        is_largest=False,
        share_a=None,
        refusal=refusal,
    )


def _row(link: JobMotor, supply: str, row: FeederRow) -> FeederMotorOut:
    motor = row.motor
    return FeederMotorOut(
        tag=link.motor.tag,
        name=link.motor.name,
        job=link.number,
        supply=supply,
        flc_a=None if motor is None else motor.flc_a,
        device_a=None if motor is None else motor.device_a,
        duty_a="" if motor is None or motor.duty_a is None else show(motor.duty_a, "minimum"),
        is_largest=row.share_a is not None,
        share_a=row.share_a,
        refusal=row.refusal,
    )


def sized(caller: Caller, found: Machine, body: FeederInputs, tell: Tell) -> bytes:
    """Return the feeder of a machine, sized from its motors as they are today."""
    members, supplies, broken = _members(caller, found, body.supply, tell)
    sheet = feeder_sheet(
        [member for _, _, member in members], body, edition_of(caller.works.edition)
    )
    # a feeder without one of its motors is no feeder: nothing is sized until it can be read
    is_whole = not broken
    said = FeederOut(
        machine=found.name,
        headline=sheet.headline if is_whole else Message("feeder.headline_open"),
        supplies=supplies,
        motors=[
            _row(link, supply, row)
            for (link, supply, _), row in zip(members, sheet.rows, strict=True)
        ]
        + [_broken_row(link, refusal) for link, refusal in broken],
        steps=sheet.trail if is_whole else Trail(),
        taps=[TapOut(tag=tap.tag, steps=tap.trail, refusal=tap.refusal) for tap in sheet.taps]
        if is_whole
        else [],
        refusal=sheet.refusal if is_whole else broken[0][1],
        several=sheet.several if is_whole else Trail(),
        several_refusal=sheet.several_refusal,
    )
    return as_json(said)


@router.post("/w/{works}/feeder/{machine}", response={200: FeederOut, **HEAVY})
def feeder(request: HttpRequest, works: str, machine: str, body: FeederInputs) -> HttpResponse:
    """Size the feeder of a machine from its motors as they are sized today."""
    caller = caller_in(request, works)
    found = Machine.objects.filter(works=caller.works, name=machine).first()
    if found is None:
        raise not_found("machine")
    return answer(request, caller, sized, caller, found, body)
