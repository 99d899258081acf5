"""What watches a motor: ohms of an element, leads taken off, what a pair of leads is."""

from __future__ import annotations

from typing import Annotated, Literal

from django.http import HttpRequest
from ninja import Router
from pydantic import Field

from api.schemas import REFUSALS, Schema
from evencoil.acts import OPEN, FigureError, figure
from evencoil.base import Message, OutOfRangeError, Text, say
from evencoil.sensors import (
    ELEMENTS,
    BearingEnd,
    LeadReadings,
    celsius_of,
    element_ohms,
    loop_flows,
    ohms_of,
    what_is_it,
)

__all__ = ["router"]

router = Router(tags=["sensors"])
Ohms = Annotated[float, Field(ge=0, le=1e9, allow_inf_nan=False)]
Celsius = Annotated[float, Field(ge=-100, le=400, allow_inf_nan=False)]


class WhatIn(Schema):
    """A reading as typed, and what is known of the motor."""

    ohms: Text
    ambient_c: Celsius = 20.0
    heater_v: Annotated[float, Field(gt=0, le=1000)] | None = None
    heater_w: Annotated[float, Field(gt=0, le=10000)] | None = None


class FitOut(Schema):
    """A kind that fits, and between which ohms it would read."""

    kind: str
    least_ohm: float
    most_ohm: float | None


class WhatOut(Schema):
    """Every kind that fits, and what tells them apart."""

    fits: list[FitOut]
    next: list[str]


class ElementIn(Schema):
    """Readings between the leads of an element."""

    element: Text
    wires: Literal[2, 3, 4]
    ac: Ohms
    bc: Ohms | None = None
    ad: Ohms | None = None
    bd: Ohms | None = None
    ab: Ohms | None = None
    cd: Ohms | None = None
    loop: Ohms | None = None


class ElementOut(Schema):
    """Ohms of the element alone, how they were found, its temperature."""

    ohms: float
    arithmetic: str
    celsius: float
    at_20_ohm: float
    is_doubted: bool


class EndIn(Schema):
    """One end of a motor."""

    bearing: Literal["plain", "housing", "outer ring", "inner ring", "ceramic"]
    probe: Literal["none", "plain", "insulated", "failed"] = "none"


class LoopIn(Schema):
    """Both ends of a motor."""

    drive_end: EndIn
    other_end: EndIn


class LoopOut(Schema):
    """Whether shaft current flows."""

    flows: bool


@router.post("/sensors/what", response={200: WhatOut, **REFUSALS})
def what(request: HttpRequest, body: WhatIn) -> WhatOut:
    """Return what a pair of leads may be by its ohms; OL is an open circuit."""
    del request
    try:
        value = figure(body.ohms)
    except FigureError:
        raise OutOfRangeError(
            Message("sensor.no_figure", {"value": body.ohms[:40]}),
            field="ohms",
            hint=Message("sensor.no_figure.hint"),
        ) from None
    ohms = float("inf") if value == OPEN else float(value)
    told = what_is_it(ohms, body.ambient_c, body.heater_v, body.heater_w)
    return WhatOut(
        fits=[
            FitOut(
                kind=one.kind,
                least_ohm=one.least_ohm,
                most_ohm=None if one.most_ohm == float("inf") else one.most_ohm,
            )
            for one in told.fits
        ],
        next=[say(one) for one in told.next],
    )


@router.post("/sensors/element", response={200: ElementOut, **REFUSALS})
def element(request: HttpRequest, body: ElementIn) -> ElementOut:
    """Return the temperature of an element with its leads taken off."""
    del request
    told = body.dict()
    name = told.pop("element")
    ohms, arithmetic = element_ohms(LeadReadings(**told))
    celsius = celsius_of(name, ohms)
    return ElementOut(
        ohms=ohms,
        arithmetic=arithmetic,
        celsius=celsius,
        at_20_ohm=ohms_of(name, 20.0),
        is_doubted=ELEMENTS[name].is_doubted,
    )


@router.post("/sensors/loop", response={200: LoopOut, **REFUSALS})
def loop(request: HttpRequest, body: LoopIn) -> LoopOut:
    """Return whether a probe closes the loop of shaft current."""
    del request
    ends = (BearingEnd(**one.dict()) for one in (body.drive_end, body.other_end))
    return LoopOut(flows=loop_flows(*ends))
