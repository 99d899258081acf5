"""Side rooms of the terminal box: unmarked leads, other connections, a motor replaced."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from django.http import HttpRequest
from ninja import Router
from pydantic import Field

from answers.given import GivenIn, worked
from answers.schemas.base import Answer, Label, Refused, Sentence
from answers.schemas.terminal_box import JointOut, connection_name
from api.schemas import REFUSALS, Schema
from evencoil.base import CoreError, Message, MissingError, say
from evencoil.leads import (
    BenchInputs,
    Guided,
    PracticeBench,
    TwoSleeves,
    guide,
    guide_bench,
    lead_letters,
)
from evencoil.plate import PlateInputs, ReplaceInputs, compare_plates, read, read_supply
from evencoil.sizing import SizeInputs
from evencoil.winding import KINDS, inside_changes, run_joinings
from people.access import caller_in

__all__ = ["router"]

router = Router(tags=["rooms"])


class AskOut(Answer):
    """The next reading: a touch, or one voltage of an induction test."""

    what: Literal["touch", "volts"]
    pair: list[str]
    feed: list[str]
    joined: list[list[str]]


class SettledOut(Answer):
    """Two lead letters whose ringing follows from the groups."""

    one: str
    other: str
    rings: bool


class NamedOut(Answer):
    """A connection of the leads by their lead letters."""

    said: str
    joints: list[JointOut]


class GuidedOut(Answer):
    """Where the search stands."""

    stage: str
    lead_letters: list[str]
    groups: list[list[str]]
    left: int
    ask: AskOut | None
    about: int
    taken: int
    kinds: list[str]
    kind_names: list[str]
    numbers: dict[str, str]
    doubtful: list[int]
    notes: list[Sentence]
    settled: list[SettledOut]
    joinings: list[NamedOut]
    refusal: Refused


class ReadIn(Schema):
    """A reading asked of the practice motor."""

    bench: BenchInputs
    what: Literal["touch", "volts"]
    pair: TwoSleeves
    feed: list[str] = []
    joined: list[TwoSleeves] = []


class ReadOut(Answer):
    """What the practice motor's meter shows; empty ohms are open."""

    rings: bool
    ohms: str
    volts: str


class InsideOut(Answer):
    """One connection of the half-coils."""

    name: str
    place: str
    line_volts_v: float
    volts_per_hertz: float | None
    amps_a: float | None
    poles: int | None
    percent: float | None
    suits: bool
    needs_polarity: bool
    labels: list[str]
    speed: str
    keeps_rotation: bool
    note: Sentence


class InsideRowsOut(Answer):
    """Every connection of the half-coils, or why there is none."""

    rows: list[InsideOut]
    refusal: Refused


class ReplacedIn(Schema):
    """A disconnect record, and the nameplate of the motor that goes in."""

    replace: ReplaceInputs
    plate: PlateInputs


class PlateLineOut(Answer):
    """One field of both nameplates."""

    field: str
    label: Label = Field(validation_alias="field")
    old: str
    new: str
    is_same: bool
    takes_down: list[str]


class ReplacedOut(Answer):
    """What a replacement changes, and what is still to be proven."""

    lines: list[PlateLineOut]
    takes_down: list[str]
    rotation: Literal["equal", "different", "unproven"]
    open_points: list[Sentence]


def _two(pair: tuple[str, ...]) -> tuple[str, str]:
    one, other = pair
    return one, other


def _settled(found: Guided, names: tuple[str, ...]) -> list[SettledOut]:
    """Return every pair of lead letters whose ringing follows from the groups."""
    group_of = {lead: place for place, group in enumerate(found.groups) for lead in group}
    return [
        SettledOut(one=one, other=other, rings=group_of[one] == group_of[other])
        for at, one in enumerate(names)
        for other in names[at + 1 :]
        if one in group_of and other in group_of
    ]


def _joinings(found: Guided) -> list[NamedOut]:
    """Return the connections by lead letters, once every lead has its number."""
    if found.stage != "done" or not found.kinds:
        return []
    letter_of = {lead: letter for letter, lead in found.numbers.items()}
    return [
        NamedOut(
            said=connection_name(known.name),
            joints=[
                replace(joint, leads=tuple(letter_of[lead] for lead in joint.leads))
                for joint in known.joints
            ],
        )
        for known in run_joinings(found.kinds[0])
    ]


@router.post("/w/{works}/bench", response={200: GuidedOut, **REFUSALS})
def bench(request: HttpRequest, works: str, body: BenchInputs) -> GuidedOut:
    """Return what the readings on unmarked leads tell, and the next one to take."""
    caller_in(request, works)
    if not body.leads:
        guide_bench(body)  # says that there is nothing to identify
    names = lead_letters(body.leads)
    refusal: CoreError | None = None
    try:
        found = guide_bench(body)
    except CoreError as error:
        refusal = error
        found = guide(names, [])
    ask = found.ask
    return GuidedOut(
        stage=found.stage,
        lead_letters=list(names),
        groups=[list(group) for group in found.groups],
        left=found.left,
        ask=None
        if ask is None or refusal is not None
        else AskOut(
            what=ask.what,
            pair=list(ask.pair),
            feed=list(ask.feed),
            joined=[list(pair) for pair in ask.joined],
        ),
        about=found.about,
        taken=len(body.readings),
        kinds=list(found.kinds),
        kind_names=[say(Message(f"kind_name.{kind}")) for kind in found.kinds],
        numbers=dict(found.numbers),
        doubtful=list(found.doubtful),
        notes=found.notes,
        settled=_settled(found, names),
        joinings=_joinings(found),
        refusal=refusal,
    )


@router.post("/w/{works}/bench/read", response={200: ReadOut, **REFUSALS})
def read_bench(request: HttpRequest, works: str, body: ReadIn) -> ReadOut:
    """Read the practice motor: seeded, and off by up to two percent like a meter."""
    caller_in(request, works)
    kind, seed = body.bench.mystery_kind, body.bench.mystery
    if kind is None or seed is None or KINDS[kind].phases != 3:
        raise MissingError(
            Message("unmarked.no_mystery"),
            field="bench.mystery",
            hint=Message("unmarked.no_mystery.hint"),
        )
    motor = PracticeBench(kind, seed)
    if body.what == "touch":
        ohms = motor.ohms(_two(body.pair))
        return ReadOut(rings=ohms is not None, ohms="" if ohms is None else f"{ohms:.3g}", volts="")
    feed_v = float(body.bench.feed_v or 10)
    volts = motor.volts(
        tuple(body.feed), feed_v, tuple(_two(pair) for pair in body.joined), _two(body.pair)
    )
    return ReadOut(rings=False, ohms="", volts=f"{volts:.3g}")


@router.post("/w/{works}/inside", response={200: InsideRowsOut, **REFUSALS})
def inside(request: HttpRequest, works: str, body: GivenIn) -> InsideRowsOut:
    """Return every other connection of the half-coils, for the supply given."""
    given = body.model_copy(update={"size": SizeInputs()})
    done = worked(given, caller_in(request, works).works)
    box = done.box
    try:
        if box.winding is None or box.rating is None:
            raise box.derived_error or MissingError(
                Message("leads.no_count"), field="leads", hint=Message("leads.no_count.hint")
            )
        volts = read_supply(body.supply.text).line_volts_v if body.supply.text.strip() else None
        rows = inside_changes(box.winding, box.rating, done.reading.plate, volts)
    except CoreError as error:
        return InsideRowsOut(rows=[], refusal=error)
    return InsideRowsOut(
        rows=[
            InsideOut(
                name=say(Message(f"connection.{row.name}")),
                place=say(Message(f"inside.{row.place}")),
                line_volts_v=round(row.line_volts_v),
                volts_per_hertz=None
                if row.volts_per_hertz is None
                else round(row.volts_per_hertz, 2),
                amps_a=None if row.amps_a is None else round(row.amps_a, 1),
                poles=row.poles,
                percent=None if row.percent is None else round(row.percent),
                suits=row.suits,
                needs_polarity=row.needs_polarity,
                labels=list(row.labels),
                speed=say(Message(f"state.{row.speed}")) if row.speed else "",
                keeps_rotation=row.keeps_rotation,
                note=row.note,
            )
            for row in rows
        ],
        refusal=None,
    )


@router.post("/w/{works}/replaced", response={200: ReplacedOut, **REFUSALS})
def replaced(request: HttpRequest, works: str, body: ReplacedIn) -> ReplacedOut:
    """Hold a disconnect record against the nameplate of the motor that goes in."""
    caller_in(request, works)
    new = read(body.plate.text, [item.as_core() for item in body.plate.assumed])
    found = compare_plates(body.replace, new.plate)
    return ReplacedOut.model_validate(found)
