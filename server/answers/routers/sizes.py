"""Time against current, and the volts along the run, of what is given."""

from __future__ import annotations

from django.http import HttpRequest
from ninja import Router

from answers.given import GivenIn, worked
from answers.schemas.base import Answer, Refused, Sentence
from api.schemas import REFUSALS
from evencoil.base import CoreError, show
from evencoil.sizing import curve_sheet, volts_along
from people.access import caller_in

__all__ = ["router"]

router = Router(tags=["curves"])


class CurvePointOut(Answer):
    """A point of a line: current [A] and time [s]."""

    amps: float
    seconds: float


class CurveOut(Answer):
    """A line of the sheet."""

    id: str
    is_typical: bool
    points: list[CurvePointOut]


class RunPointOut(Answer):
    """Volts at a distance from the starter."""

    distance_ft: str
    running_v: str
    starting_v: str


class CurvesOut(Answer):
    """The whole sheet with what can be read off it, and the run."""

    curves: list[CurveOut]
    findings: list[Sentence]
    rides_through: bool
    run: list[RunPointOut]
    refusal: Refused


@router.post("/w/{works}/curves", response={200: CurvesOut, **REFUSALS})
def curves(request: HttpRequest, works: str, body: GivenIn) -> CurvesOut:
    """Draw time against current for what is given; nothing is saved."""
    done = worked(body, caller_in(request, works).works)
    run = [
        RunPointOut(
            distance_ft=show(point.distance_ft),
            running_v=show(point.running_v),
            starting_v="" if point.starting_v is None else show(point.starting_v),
        )
        for point in volts_along(done.trail)
    ]
    try:
        made = curve_sheet(done.trail, body.size)
    except CoreError as error:
        return CurvesOut(
            curves=[],
            findings=[],
            rides_through=False,
            run=run,
            refusal=error,
        )
    return CurvesOut(
        curves=[
            CurveOut(
                id=curve.id,
                is_typical=curve.is_typical,
                points=[
                    CurvePointOut(amps=amps, seconds=seconds) for amps, seconds in curve.points
                ],
            )
            for curve in made.curves
        ],
        findings=made.findings,
        rides_through=made.rides_through,
        run=run,
        refusal=None,
    )
