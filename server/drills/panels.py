"""A practice panel: begun bare, metered as it is wired, judged when it is asked for."""

from __future__ import annotations

import math
from typing import Annotated, Literal

from django.http import HttpRequest, HttpResponse
from ninja import Router
from pydantic import Field as Limit

from answers.given import GivenIn, worked
from answers.routers.circuit import MOST_US, ActIn
from answers.schemas.base import Answer as Out
from answers.schemas.base import Sentence
from answers.stage import lent_stage
from api.answers import as_json
from api.schemas import HEAVY, REFUSALS, Schema
from desk.answer import Tell, answer
from evencoil.base import Message, say
from evencoil.practice import ask_panel, bare_edits, meter_at
from evencoil.rehearsal import MOST_ACTS, ScenarioAct
from evencoil.starters import catalogue, draw, entry_of
from people.access import caller_in, not_found
from people.models import Works

__all__ = ["router"]

router = Router(tags=["practice"])
Place = Annotated[str, Limit(max_length=120)]


class PanelBeginOut(Out):
    """A circuit of the catalogue with its wires taken off."""

    circuit: str
    title: str
    #: a job whose starter is the circuit with the wires off that are to be landed by hand
    given: GivenIn
    #: so many are to be landed
    off: int


class PanelFoundOut(Out):
    """What a check finds in what was wired."""

    level: str
    level_label: str
    text: str
    change: str


class PanelAskedOut(Out):
    """What is missing, what is too much, what the checks find."""

    is_right: bool
    missing: list[Sentence]
    extra: list[Sentence]
    problems: list[PanelFoundOut]


class PanelAskIn(Schema):
    """The panel as it is wired."""

    given: GivenIn


class PanelMeterIn(Schema):
    """Where the probes are, and what was done until then."""

    given: GivenIn
    actions: list[ActIn] = Limit(default=[], max_length=MOST_ACTS)
    at_us: int = Limit(ge=0, le=MOST_US)
    kind: Literal["volts", "ohms", "amps"]
    start: Place
    end: Place = ""


class PanelMeterOut(Out):
    """What the meter shows."""

    kind: str
    shown: str
    is_live: bool


@router.get("/w/{works}/practice/panel", response={200: PanelBeginOut, **REFUSALS})
def begin_panel(
    request: HttpRequest,
    works: str,
    circuit: Annotated[str, Limit(max_length=20)] = "3A",
    start: Literal["bare", "power"] = "bare",
) -> PanelBeginOut:
    """Return a circuit of the catalogue, and which of its wires are to be landed by hand."""
    caller_in(request, works)
    if circuit not in catalogue():
        raise not_found("circuit")
    off = bare_edits(draw(circuit).circuit, with_power=start == "power")
    edits = [
        {"id": f"off.{at}", "kind": "remove_wire", "wire": wire} for at, wire in enumerate(off)
    ]
    given = GivenIn.model_validate({"starter": {"standard_circuit": circuit, "edits": edits}})
    return PanelBeginOut(
        circuit=circuit,
        title=entry_of(circuit).title,
        given=given,
        off=len(off),
    )


def _asked(body: PanelAskIn, works: Works, tell: Tell) -> bytes:
    """Lay what was wired over the circuit that it is to be."""
    del tell
    wired = worked(body.given, works).starter.required()
    wanted = worked(_unedited(body.given), works).starter.required()
    found = ask_panel(wired, wanted)
    return as_json(
        PanelAskedOut(
            is_right=found.is_right,
            missing=list(found.missing),
            extra=list(found.extra),
            problems=[
                PanelFoundOut(
                    level=one.level,
                    level_label=say(Message(f"checks.level.{one.level}")),
                    text=say(one.message),
                    change=say(one.change),
                )
                for one in found.problems
            ],
        )
    )


def _unedited(given: GivenIn) -> GivenIn:
    """Return what is given without any edit of its circuit."""
    return given.model_copy(update={"starter": given.starter.model_copy(update={"edits": ()})})


@router.post("/w/{works}/practice/panel/ask", response={200: PanelAskedOut, **HEAVY})
def asked_panel(request: HttpRequest, works: str, body: PanelAskIn) -> HttpResponse:
    """Say whether the panel is wired as its circuit; until then nothing is said."""
    caller = caller_in(request, works)
    return answer(request, caller, _asked, body, caller.works)


@router.post("/w/{works}/practice/panel/meter", response={200: PanelMeterOut, **REFUSALS})
def metered(request: HttpRequest, works: str, body: PanelMeterIn) -> PanelMeterOut:
    """Return what a meter shows on the panel at an instant of its rehearsal."""
    caller = caller_in(request, works)
    acts = [ScenarioAct(at_us=one.t, do=one.do, on=one.on, word=one.word) for one in body.actions]
    with lent_stage(body.given, caller.works) as (stage, _):
        found = meter_at(stage, acts, body.at_us, body.kind, body.start, body.end)
    if found.is_live:
        shown = say(Message("practice.meter.live", {"volts": f"{found.value:.0f}"}))
    elif math.isinf(found.value):
        shown = say(Message("practice.meter.open"))
    else:
        unit = {"volts": "V", "ohms": "Ω", "amps": "A"}[found.kind]
        shown = f"{found.value:.3g} {unit}" if found.value < 1000 else f"{found.value:.0f} {unit}"
    return PanelMeterOut(kind=found.kind, shown=shown, is_live=found.is_live)
