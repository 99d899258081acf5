"""A machine for another supply: every motor and control transformer of it, one plan."""

from __future__ import annotations

import contextlib
from decimal import Decimal

from django.db import IntegrityError, transaction
from django.http import HttpRequest
from ninja import Router, Schema
from pydantic import BaseModel, Field

from api.problems import ProblemError
from api.schemas import REFUSALS, ConflictOut, VersionOut
from evencoil.base import CoreError, Message, Refusal, plain, say, show
from evencoil.machine import (
    MachineLoad,
    MachineMotor,
    MachineTransformer,
    convert_load,
    convert_motor,
    convert_transformer,
)
from evencoil.plate import SupplyInputs, read_supply
from jobs.box_schemas import JointOut, joint_out
from jobs.models import JobMotor
from jobs.parts import RefusalOut, label, refusal_out
from jobs.store import kept, profile_of, version
from people.access import Caller, caller_in, not_found
from people.actions import Action
from plant.models import Conversion, Machine

__all__ = ["router"]

router = Router(tags=["convert"])


class ConversionInputs(BaseModel):
    """The new supply, and the machine's control transformers."""

    supply: SupplyInputs = SupplyInputs()
    now: SupplyInputs = SupplyInputs()
    transformers: tuple[MachineTransformer, ...] = Field(default=(), max_length=40)
    loads: tuple[MachineLoad, ...] = Field(default=(), max_length=80)


class ConversionIn(Schema):
    """A plan, and the version it was made from."""

    based_on: int
    body: ConversionInputs


class ChangedOut(BaseModel):
    """A figure of a motor's branch circuit before and after."""

    label: str
    before: str
    after: str
    is_larger: bool


class LoadOut(BaseModel):
    """What becomes of a load that is no motor."""

    tag: str
    action: str
    text: str


class ConvertedOut(BaseModel):
    """What becomes of a motor."""

    tag: str
    name: str
    job: int
    answer: str
    before: str
    after: str
    joints: list[JointOut]
    moves: list[str]
    amps_before: str
    amps_after: str
    refusal: RefusalOut | None
    ways_out: list[str]
    load_kva: str
    changed: list[ChangedOut]
    left: str


class TransformerOut(BaseModel):
    """What becomes of a control transformer."""

    tag: str
    action: str
    text: str
    refusal: RefusalOut | None


class PlanOut(BaseModel):
    """A machine's plan: what is kept, and what comes out of it."""

    machine: str
    machines: list[str]
    given: ConversionInputs
    version: VersionOut
    shout: str
    motors: list[ConvertedOut]
    transformers: list[TransformerOut]
    loads: list[LoadOut]
    refusal: RefusalOut | None


def _machine(caller: Caller, name: str) -> Machine:
    found = Machine.objects.filter(works=caller.works, name=name).first()
    if found is None:
        raise not_found("machine")
    return found


def _newest(machine: Machine) -> Conversion | None:
    return machine.conversions.select_related("by").order_by("-n").first()


def _motors(caller: Caller, machine: Machine, given: ConversionInputs) -> list[ConvertedOut]:
    links = (
        JobMotor.objects.select_related("job", "motor", "motor__machine")
        .filter(motor__machine=machine)
        .order_by("motor__tag", "-number")
        .distinct("motor__tag")
    )
    rows = []
    for link in links:
        now = kept(link, caller.works)
        today = given.now if given.now.text.strip() else now.supply
        found = convert_motor(
            MachineMotor(
                tag=link.motor.tag, plate=now.plate, supply=today, leads=now.leads, size=now.size
            ),
            given.supply,
            profile_of(caller.works),
        )
        before, after = found.before.derived, found.after.derived
        rows.append(
            ConvertedOut(
                tag=link.motor.tag,
                name=link.motor.name,
                job=link.number,
                answer=found.answer,
                before="" if before is None else say(Message(f"connection.{before.name}")),
                after="" if after is None else say(Message(f"connection.{after.name}")),
                joints=[] if after is None else [joint_out(joint) for joint in after.joints],
                moves=[say(move) for move in found.moves],
                amps_before="" if found.amps_before is None else plain(found.amps_before),
                amps_after="" if found.amps_after is None else plain(found.amps_after),
                refusal=refusal_out(Refusal.of(found.reason) if found.reason else None),
                ways_out=[say(way) for way in found.ways_out],
                load_kva="" if found.load_kva is None else show(found.load_kva),
                changed=[
                    ChangedOut(
                        label=label(row.figure),
                        before=row.before,
                        after=row.after,
                        is_larger=row.is_larger,
                    )
                    for row in found.changed
                ],
                left="" if found.left is None else say(found.left),
            )
        )
    return rows


def _transformers(given: ConversionInputs) -> list[TransformerOut]:
    to = read_supply(given.supply.text).line_volts_v
    now = read_supply(given.now.text).line_volts_v if given.now.text.strip() else to
    rows = []
    for item in given.transformers:
        try:
            found = convert_transformer(item, now, to)
            rows.append(
                TransformerOut(
                    tag=item.tag, action=found.action, text=say(found.message), refusal=None
                )
            )
        except CoreError as error:
            rows.append(
                TransformerOut(
                    tag=item.tag, action="", text="", refusal=refusal_out(Refusal.of(error))
                )
            )
    return rows


def _loads(given: ConversionInputs) -> list[LoadOut]:
    to = read_supply(given.supply.text).line_volts_v
    now = read_supply(given.now.text).line_volts_v if given.now.text.strip() else to
    secondaries: dict[str, Decimal | None] = {}
    for item in given.transformers:
        with contextlib.suppress(CoreError):
            secondaries[item.tag] = convert_transformer(item, now, to).secondary_after_v
    found = [convert_load(load, to, secondaries) for load in given.loads]
    return [LoadOut(tag=row.tag, action=row.action, text=say(row.message)) for row in found]


def _plan(caller: Caller, machine: Machine, given: ConversionInputs) -> PlanOut:
    newest = _newest(machine)
    motors: list[ConvertedOut] = []
    transformers: list[TransformerOut] = []
    loads: list[LoadOut] = []
    refusal: RefusalOut | None = None
    shout = Message("convert.shout.open")
    try:
        if given.supply.text.strip():
            motors = _motors(caller, machine, given)
            transformers = _transformers(given)
            loads = _loads(given)
            answers = [row.answer for row in motors]
            shout = Message(
                "convert.shout_missing" if "open" in answers else "convert.shout",
                {name: str(answers.count(name)) for name in ("can", "cannot", "open")},
            )
    except CoreError as error:
        refusal = refusal_out(Refusal.of(error))
    return PlanOut(
        machine=machine.name,
        machines=list(
            Machine.objects.filter(works=caller.works)
            .order_by("name")
            .values_list("name", flat=True)
        ),
        given=given,
        version=version(newest, caller.works),
        shout=say(shout),
        motors=motors,
        transformers=transformers,
        loads=loads,
        refusal=refusal,
    )


class KeepConversion(Action[Conversion]):
    """Keep a machine's plan for another supply."""

    name = "plan conversion"

    def __init__(
        self, caller: Caller, machine: Machine, body: ConversionInputs, based_on: int
    ) -> None:
        super().__init__(caller)
        self.machine, self.body, self.based_on = machine, body, based_on

    @property
    def target(self) -> str:
        """Return the machine's name."""
        return self.machine.name

    def perform(self) -> Conversion:
        """Add the version.

        Raises
        ------
        ProblemError
            409 if a newer version exists, with what it says.
        """
        newest = _newest(self.machine)
        given = self.body.model_dump(mode="json")
        if newest is not None and newest.body == given:
            return newest
        n = newest.n if newest else 0
        if n != self.based_on and newest is not None:
            raise self._conflict(newest)
        try:
            with transaction.atomic():
                return Conversion.objects.create(
                    machine=self.machine, n=n + 1, body=given, by=self.caller.user
                )
        except IntegrityError as race:
            first = Conversion.objects.select_related("by").get(machine=self.machine, n=n + 1)
            raise self._conflict(first) from race

    def _conflict(self, theirs: Conversion) -> ProblemError:
        said = version(theirs, self.caller.works)
        return ProblemError(
            409,
            code="conflict",
            detail=f"{said.by} changed this plan at {said.at}, after you opened it.",
            field="conversion",
            hint="Look at both and keep one; nothing of either is lost.",
            theirs=said.dict(),
            body=theirs.body,
        )


@router.get("/w/{works}/convert/{machine}", response={200: PlanOut, **REFUSALS})
def plan(request: HttpRequest, works: str, machine: str) -> PlanOut:
    """Return a machine's plan as kept."""
    caller = caller_in(request, works)
    found = _machine(caller, machine)
    newest = _newest(found)
    given = ConversionInputs.model_validate(newest.body) if newest else ConversionInputs()
    return _plan(caller, found, given)


@router.post("/w/{works}/convert/{machine}", response={200: PlanOut, **REFUSALS})
def try_plan(request: HttpRequest, works: str, machine: str, body: ConversionInputs) -> PlanOut:
    """Work a plan out without keeping it."""
    caller = caller_in(request, works)
    return _plan(caller, _machine(caller, machine), body)


@router.put("/w/{works}/convert/{machine}", response={200: PlanOut, 409: ConflictOut, **REFUSALS})
def keep_plan(request: HttpRequest, works: str, machine: str, body: ConversionIn) -> PlanOut:
    """Keep a machine's plan; a stale one is told what differs."""
    caller = caller_in(request, works)
    found = _machine(caller, machine)
    KeepConversion(caller, found, body.body, body.based_on).run()
    return _plan(caller, found, body.body)
