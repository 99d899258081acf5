"""Saving what was entered: one route for each step, made from the models of the core.

A new step of `JobInputs` gets its route, its checked body and its place in the OpenAPI file
without a line here.
"""

from typing import Any

from django.http import HttpRequest
from ninja import Router
from pydantic import BaseModel, create_model

from api.schemas import REFUSALS, ConflictOut, VersionOut
from evencoil.base import Inputs
from evencoil.job import STEPS, JobInputs, step_model, work_out
from jobs.actions import GiveInputs, ReadPlate
from jobs.checked import check_calculable
from jobs.models import JobMotor
from jobs.routers.place import JOB, Number
from jobs.stamps import Stamper, stamped
from jobs.store import motor_job, version
from people.access import Caller, caller_in

__all__ = ["router"]

router = Router(tags=["jobs"])


def _save(caller: Caller, link: JobMotor, step: str, body: Any) -> tuple[VersionOut, Inputs]:
    given: Inputs = body.body
    if step == "plate":
        work_out(JobInputs.model_validate({"plate": given}))
        check_calculable(link, caller.works, step, given)
        return version(ReadPlate(caller, link, body.body, body.based_on).run(), caller.works), given
    own = stamped(step, given, Stamper(link, caller))
    check_calculable(link, caller.works, step, own)
    row = GiveInputs(caller, link, step, own, body.based_on).run()
    return version(row, caller.works), own


def _add_route(step: str, model: type[Inputs]) -> None:
    """Add the route that saves one step, and tells what differs if it was stale."""
    name = step.capitalize()
    entered = create_model(
        f"{name}In",
        __doc__=f"Inputs of the {step} step, and the version they were made from.",
        based_on=(int, ...),
        body=(model, ...),
    )
    saved: type[BaseModel] = create_model(
        f"Saved{name}",
        __base__=VersionOut,
        __doc__=f"The version saved, and the inputs of the {step} step as stored.",
        body=(model, ...),
    )

    def save(request: HttpRequest, works: str, tag: str, number: Number, body: Any) -> Any:
        caller = caller_in(request, works)
        kept, stored = _save(caller, motor_job(caller, tag, number), step, body)
        return saved.model_validate({**kept.dict(), "body": stored})

    save.__doc__ = f"Save the inputs of the {step} step; a stale version is told what differs."
    save.__annotations__["body"] = entered
    router.put(
        f"{JOB}/{step}",
        response={200: saved, 409: ConflictOut, **REFUSALS},
        operation_id=f"save_{step}",
    )(save)


for _step in STEPS:
    _add_route(_step, step_model(_step))
