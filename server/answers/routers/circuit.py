"""The Starter, Drawings and Rehearse steps: catalogue, drawn circuit, rehearsal."""

from __future__ import annotations

from collections import Counter
from typing import Annotated, Any, Literal

from django.core import signing
from django.http import HttpRequest, HttpResponse
from ninja import Router
from pydantic import Field, StringConstraints

from answers.given import GivenIn, worked
from answers.schemas.circuit import (
    CatalogueOut,
    CircuitOut,
    StandardPictureOut,
    TraceOut,
    catalogue_out,
    circuit_out,
    trace_out,
)
from answers.stage import lent_stage
from api.answers import JSON, as_json
from api.kept import kept_or_made, key_for
from api.recent import Recent
from api.schemas import REFUSALS, Schema
from evencoil.base import Message, RefusedError, Text, say
from evencoil.circuit import number_nets, types
from evencoil.drawing import draw_ladder, draw_power
from evencoil.rehearsal import MOST_ACTS, ScenarioAct
from evencoil.starters import catalogue, draw
from people.access import caller_in, not_found
from plant.profile import rules_of

__all__ = ["MOST_US", "ActIn", "router"]

router = Router(tags=["circuits"])
SALT = "evencoil.rehearsal"
Word = Annotated[Text, StringConstraints(max_length=60)]
#: the catalogue in the names of a plant
_catalogues: Recent[str, bytes] = Recent(16)
#: standard circuits as drawn, by the names of a plant, circuit and standard of the symbols
_pictures: Recent[tuple[str, str, str], bytes] = Recent(128)
MOST_US = 4 * 3600 * 1_000_000


class ActIn(Schema):
    """One act: when in microseconds, what, on which device, with which word."""

    t: int = Field(ge=0, le=MOST_US)
    do: Word
    on: Word = ""
    word: Word = ""


class RehearseIn(Schema):
    """What to play, on the drawing as the screen holds it, from a snapshot or the start."""

    given: GivenIn
    snapshot: Annotated[str, StringConstraints(max_length=60_000)] = ""
    actions: list[ActIn] = Field(default=[], max_length=MOST_ACTS)
    until: int | None = Field(default=None, ge=0, le=MOST_US)


@router.get("/w/{works}/catalogue", response={200: CatalogueOut, **REFUSALS})
def circuits(request: HttpRequest, works: str) -> HttpResponse:
    """Return every starter of the catalogue with what it is for."""
    place = caller_in(request, works).works
    rules = rules_of(place)
    text = _catalogues.get(rules)
    if text is None:
        text = as_json(catalogue_out(list(catalogue().values())))
        _catalogues.keep(rules, text)
    return HttpResponse(text, content_type=JSON)


@router.get(
    "/w/{works}/catalogue/{circuit}/picture", response={200: StandardPictureOut, **REFUSALS}
)
def standard_picture(
    request: HttpRequest, works: str, circuit: Word, style: Literal["nema", "iec"] = "nema"
) -> HttpResponse:
    """Return a standard circuit with its usual options, drawn, to choose by its picture."""
    place = caller_in(request, works).works
    if circuit not in catalogue():
        raise not_found("circuit")
    # devices are called what this plant calls them
    key = (rules_of(place), circuit, style)
    text = _pictures.get(key)
    if text is None:
        drawn = draw(circuit).circuit
        numbered = number_nets(drawn)
        ladder = draw_ladder(drawn, numbered, style).picture
        kinds = Counter(
            say(Message(f"type.{item.type}"))
            for item in drawn.netlist.devices
            if item.type in types() and item.type != "joint"
        )
        text = as_json(
            StandardPictureOut(
                ladder=ladder,
                power=draw_power(drawn, numbered, style, with_volts=False),
                wires=len(drawn.netlist.wires),
                devices=[f"{count} × {kind}" for kind, count in sorted(kinds.items())],
            )
        )
        _pictures.keep(key, text)
    return HttpResponse(text, content_type=JSON)


@router.post("/w/{works}/circuit", response={200: CircuitOut, **REFUSALS})
def circuit(request: HttpRequest, works: str, body: GivenIn) -> HttpResponse:
    """Draw the starter of what is given; nothing is saved."""
    place = caller_in(request, works).works
    return HttpResponse(
        kept_or_made(
            key_for("circuit", rules_of(place), body.model_dump_json()),
            lambda: as_json(circuit_out(worked(body, place).starter)),
        ),
        content_type=JSON,
    )


def _opened(sealed: str) -> dict[str, Any] | None:
    """Return a snapshot that this server sealed; the stage checks that it is its own."""
    if not sealed:
        return None
    try:
        kept: dict[str, Any] = signing.loads(sealed, salt=SALT)
    except signing.BadSignature as forged:
        raise RefusedError(
            Message("scenario.stale"), field="snapshot", hint=Message("scenario.stale.hint")
        ) from forged
    return kept


@router.post("/w/{works}/rehearse", response={200: TraceOut, **REFUSALS})
def rehearse(request: HttpRequest, works: str, body: RehearseIn) -> TraceOut:
    """Play acts on the drawn starter and return ten seconds ahead."""
    caller = caller_in(request, works)
    acts = [
        ScenarioAct(at_us=item.t, do=item.do, on=item.on, word=item.word) for item in body.actions
    ]
    with lent_stage(body.given, caller.works) as (stage, moved):
        trace = stage.play(
            acts, until_us=body.until, snapshot=_opened(body.snapshot), with_programs=True
        )
        sealed = [signing.dumps(item, salt=SALT, compress=True) for item in trace.snapshots]
        return trace_out(trace, stage.circuit, sealed, moved)
