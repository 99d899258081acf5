"""A machine for another supply: every motor and control transformer of it, one plan."""

from __future__ import annotations

from django.db import IntegrityError, transaction
from django.http import HttpRequest, HttpResponse
from ninja import Router
from pydantic import Field, ValidationError

from answers.schemas.base import Answer, Label, Plain, Refused, Sentence
from answers.schemas.terminal_box import JointOut, connection_name
from api.answers import as_json
from api.problems import NeedsRepairError, ProblemError
from api.schemas import HEAVY, ConflictOut, Schema, VersionOut
from desk.answer import Tell, answer
from evencoil.base import CoreError, Message, say, show
from evencoil.machine import (
    ConversionInputs,
    ConvertedMotor,
    MachineMotor,
    MachinePlan,
    PlannedTransformer,
    plan_machine,
)
from jobs.models import JobMotor
from jobs.store import kept, version
from people.access import Caller, caller_in, not_found
from people.actions import Action
from plant.models import Conversion, Machine
from plant.profile import profile_of

__all__ = ["router"]

router = Router(tags=["convert"])


class ConversionIn(Schema):
    """A plan, and the version it was made from."""

    based_on: int
    body: ConversionInputs


class ChangedOut(Answer):
    """A figure of a motor's branch circuit before and after."""

    label: Label = Field(validation_alias="figure")
    before: str
    after: str
    is_larger: bool


class LoadOut(Answer):
    """What becomes of a load that is no motor."""

    tag: str
    action: str
    text: Sentence = Field(validation_alias="message")


class ConvertedOut(Answer):
    """What becomes of a motor."""

    tag: str
    name: str
    job: int
    answer: str
    before: str
    after: str
    joints: list[JointOut]
    moves: list[Sentence]
    amps_before: Plain
    amps_after: Plain
    refusal: Refused
    ways_out: list[Sentence]
    load_kva: str
    changed: list[ChangedOut]
    left: Sentence


class TransformerOut(Answer):
    """What becomes of a control transformer."""

    tag: str
    action: str
    text: str
    refusal: Refused


class NamedMotorOut(Answer):
    """Which motor a starter without a tag belongs to."""

    label: str
    tag: str
    fits: list[str]
    text: Sentence = Field(validation_alias="message")


class PlanOut(Answer):
    """A machine's plan: what is saved, and what comes out of it."""

    machine: str
    machines: list[str]
    given: ConversionInputs
    version: VersionOut
    headline: Sentence
    motors: list[ConvertedOut]
    transformers: list[TransformerOut]
    loads: list[LoadOut]
    named: list[NamedMotorOut]
    refusal: Refused


def _machine(caller: Caller, name: str) -> Machine:
    found = Machine.objects.filter(works=caller.works, name=name).first()
    if found is None:
        raise not_found("machine")
    return found


def _newest(machine: Machine) -> Conversion | None:
    return machine.conversions.select_related("by").order_by("-n").first()


def _links(caller: Caller, machine: Machine, tell: Tell) -> list[tuple[JobMotor, MachineMotor]]:
    """Return every motor of a machine with its newest job, as the core takes it."""
    links = (
        JobMotor.objects.select_related("job", "motor", "motor__machine")
        .filter(motor__machine=machine)
        .order_by("motor__tag", "-number")
        .distinct("motor__tag")
    )
    found = []
    for place, link in enumerate(links):
        tell(place, len(links))
        now = kept(link, caller.works).inputs
        motor = MachineMotor(
            tag=link.motor.tag, plate=now.plate, supply=now.supply, leads=now.leads, size=now.size
        )
        found.append((link, motor))
    return found


def _motor(link: JobMotor, found: ConvertedMotor) -> ConvertedOut:
    before, after = found.before.derived, found.after.derived
    return ConvertedOut(
        tag=link.motor.tag,
        name=link.motor.name,
        job=link.number,
        answer=found.answer,
        before="" if before is None else connection_name(before.name),
        after="" if after is None else connection_name(after.name),
        joints=() if after is None else after.joints,
        moves=found.moves,
        amps_before=found.amps_before,
        amps_after=found.amps_after,
        refusal=found.reason,
        ways_out=found.ways_out,
        load_kva="" if found.load_kva is None else show(found.load_kva),
        changed=found.changed,
        left=found.left,
    )


def _transformer(item: PlannedTransformer) -> TransformerOut:
    done = item.converted
    return TransformerOut(
        tag=item.tag,
        action="" if done is None else done.action,
        text="" if done is None else say(done.message),
        refusal=item.refusal,
    )


def planned(caller: Caller, machine: Machine, given: ConversionInputs, tell: Tell) -> bytes:
    """Return a machine's plan for another supply, calculated from the motors as they are."""
    links = _links(caller, machine, tell)
    refusal: CoreError | None = None
    made = MachinePlan(headline=Message("convert.headline_open"))
    try:
        made = plan_machine([motor for _, motor in links], given, profile_of(caller.works))
    except CoreError as error:
        refusal = error
    said = PlanOut(
        machine=machine.name,
        machines=list(
            Machine.objects.filter(works=caller.works)
            .order_by("name")
            .values_list("name", flat=True)
        ),
        given=given,
        version=version(_newest(machine), caller.works),
        headline=made.headline,
        motors=[_motor(link, found) for (link, _), found in zip(links, made.motors, strict=False)],
        transformers=[_transformer(item) for item in made.transformers],
        loads=made.loads,
        named=made.named,
        refusal=refusal,
    )
    return as_json(said)


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
            hint="Compare both and keep one; nothing is lost.",
            theirs=said.dict(),
            body=theirs.body,
        )


@router.get("/w/{works}/convert/{machine}", response={200: PlanOut, **HEAVY})
def plan(request: HttpRequest, works: str, machine: str) -> HttpResponse:
    """Return a machine's plan as kept."""
    caller = caller_in(request, works)
    found = _machine(caller, machine)
    newest = _newest(found)
    return answer(request, caller, planned, caller, found, _read(newest, found.name))


def _read(row: Conversion | None, machine: str) -> ConversionInputs:
    """Return a plan as kept, or refuse one that cannot be read any more."""
    if row is None:
        return ConversionInputs()
    try:
        return ConversionInputs.model_validate(row.body)
    except ValidationError as wrong:
        first = wrong.errors()[0]
        raise NeedsRepairError(
            detail=f"Version {row.n} of the plan of {machine} cannot be read any more:"
            f" {first['msg']}",
            field="conversion." + ".".join(str(part) for part in first["loc"]),
            hint="Enter the plan anew; what is stored stays as it is.",
            step="conversion",
            n=row.n,
            body=row.body,
        ) from wrong


@router.post("/w/{works}/convert/{machine}", response={200: PlanOut, **HEAVY})
def try_plan(
    request: HttpRequest, works: str, machine: str, body: ConversionInputs
) -> HttpResponse:
    """Calculate a plan without saving it."""
    caller = caller_in(request, works)
    return answer(request, caller, planned, caller, _machine(caller, machine), body)


@router.put("/w/{works}/convert/{machine}", response={200: PlanOut, 409: ConflictOut, **HEAVY})
def keep_plan(request: HttpRequest, works: str, machine: str, body: ConversionIn) -> HttpResponse:
    """Save a machine's plan; a stale one gets what differs."""
    caller = caller_in(request, works)
    found = _machine(caller, machine)
    KeepConversion(caller, found, body.body, body.based_on).run()
    return answer(request, caller, planned, caller, found, body.body)
