"""Running up: every way to start a motor on its load, the timer, a lost phase."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse
from ninja import Router
from pydantic import BaseModel

from answers.given import GivenIn, worked
from answers.schemas.run_up import (
    AdviceOut,
    RunUpOut,
    StartsInARowOut,
    advice_out,
    restart_out,
    run_up_out,
)
from api.answers import as_json
from api.schemas import HEAVY
from desk.answer import Tell, answer
from evencoil.base import CoreError
from evencoil.job import run_up_of
from evencoil.run_up import Method
from people.access import caller_in
from people.models import Works

__all__ = ["router"]

router = Router(tags=["run-up"])


class _Asked(BaseModel):
    """What decides a timer's advice."""

    given: GivenIn
    method: Method


def _none(refusal: CoreError) -> RunUpOut:
    return RunUpOut(
        refusal=refusal,
        kind="",
        facts=[],
        low_facts=[],
        is_guessed=False,
        is_poor=False,
        rated_lb_ft=0.0,
        limit_c=0.0,
        load=None,
        own="",
        ways=[],
        others=[],
        faults=[],
        fault_says=[],
        expected=[],
    )


def ran(given: GivenIn, works: Works, tell: Tell) -> bytes:
    """Return the run-up sheet of what is given, or why there is none."""
    del tell
    try:
        return as_json(run_up_out(run_up_of(given, worked(given, works))))
    except CoreError as refusal:
        return as_json(_none(refusal))


def advised(given: GivenIn, method: Method, works: Works, tell: Tell) -> bytes:
    """Return the timer's setting for one way to start."""
    del tell
    return as_json(advice_out(run_up_of(given, worked(given, works)).advice(method)))


@router.post("/w/{works}/run-up", response={200: RunUpOut, **HEAVY})
def run_up(request: HttpRequest, works: str, body: GivenIn) -> HttpResponse:
    """Run the motor up in every way it can be started; nothing is saved."""
    caller = caller_in(request, works)
    return answer(request, caller, ran, body, caller.works, decided_by=body)


def restarted(given: GivenIn, works: Works, tell: Tell) -> bytes:
    """Return how often the job's own way to start can be gone."""
    del tell
    return as_json(restart_out(run_up_of(given, worked(given, works)).restart()))


@router.post("/w/{works}/starts-in-a-row", response={200: StartsInARowOut, **HEAVY})
def starts_in_a_row(request: HttpRequest, works: str, body: GivenIn) -> HttpResponse:
    """Start the motor again and again, with what the starts before left; nothing is saved."""
    caller = caller_in(request, works)
    return answer(request, caller, restarted, body, caller.works, decided_by=body)


@router.post("/w/{works}/run-up/{method}", response={200: AdviceOut, **HEAVY})
def advice(request: HttpRequest, works: str, method: Method, body: GivenIn) -> HttpResponse:
    """Find the setting of the timer of one way to start; nothing is saved."""
    caller = caller_in(request, works)
    asked = _Asked(given=body, method=method)
    return answer(request, caller, advised, body, method, caller.works, decided_by=asked)
