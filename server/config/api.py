"""The API object: routers, error answers, strict JSON in and out."""

from __future__ import annotations

import json
from collections.abc import Callable
from functools import wraps
from typing import Any

from django.conf import settings
from django.http import Http404, HttpRequest, HttpResponse
from ninja import NinjaAPI
from ninja.errors import AuthenticationError, HttpError, ValidationError
from ninja.parser import Parser
from ninja.renderers import JSONRenderer
from ninja.responses import NinjaJSONEncoder
from ninja.security import SessionAuth

from answers.routers.checks import router as checks
from answers.routers.circuit import router as circuits
from answers.routers.dead_check import router as dead
from answers.routers.leads import router as rooms
from answers.routers.probes import router as probes
from answers.routers.program import router as program
from answers.routers.run_up import router as running
from answers.routers.sensors import router as sensors
from answers.routers.sizes import router as curves
from answers.routers.starter import router as choosing
from api.middleware import SAID
from api.problems import ProblemError, problem
from api.rates import ByPerson
from audits.router import router as auditing
from demo.router import router as demo
from desk.answer import nobody_waits
from desk.router import router as questions
from desk.seat import GoneError
from drills.hidden import router as hiding
from drills.panels import router as paneling
from drills.router import router as drilling
from evencoil.base import CoreError
from hunts.router import router as hunting
from jobs.routers.enter import router as enter
from jobs.routers.files import router as files
from jobs.routers.job import router as jobs
from office.joining import router as joining
from office.mine import router as mine
from office.plant_data import router as plant_data
from office.router import router as office
from panel.router import router as panel
from paper.router import router as paper
from people.bearer import Bearer
from people.router import router as people
from plant.heaters import router as heaters
from proving.router import router as proving
from schedules.router import router as scheduling
from yard.convert import router as convert
from yard.export import router as exporting
from yard.feeder import router as feeder
from yard.photos import router as photos
from yard.router import router as plant
from yard.words import router as photo_words

__all__ = ["api", "signed_in"]


class _Renderer(JSONRenderer):
    """JSON without NaN and infinities: sending one is a bug, not an answer."""

    encoder_class = NinjaJSONEncoder
    json_dumps_params = {"allow_nan": False, "ensure_ascii": False}


class _Parser(Parser):
    """JSON as the standard says: no NaN, no infinity, no lone surrogate."""

    def parse_body(self, request: HttpRequest) -> Any:
        """Return the body; anything else is a ValueError, told as 400."""

        def refuse(name: str) -> Any:
            raise ValueError(f"{name} is no number")

        try:
            body = json.loads(request.body, parse_constant=refuse)
            json.dumps(body, ensure_ascii=False).encode()
        except RecursionError as deep:
            raise ValueError("nested too deeply") from deep
        return body


class _Session(SessionAuth):
    """The session cookie, with the CSRF check on every change."""

    def authenticate(self, request: HttpRequest, key: str | None) -> Any:
        """Return the signed-in person, or None."""
        del key
        return request.user if request.user.is_authenticated else None


def signed_in(view: Callable[..., HttpResponse]) -> Callable[..., HttpResponse]:
    """Give the description of the API to whoever is signed in, and on a developer's machine."""

    @wraps(view)
    def asked(request: HttpRequest, *args: Any, **more: Any) -> HttpResponse:
        if settings.DEBUG or request.user.is_authenticated:
            return view(request, *args, **more)
        return _nobody(request, AuthenticationError())

    return asked


api = NinjaAPI(
    title="Even Coil",
    version="1",
    description=(
        "The stable address is `/api/v1/`. Sign in at the screen, or send a token of your account"
        " as `Authorization: Bearer`. Lists come in pages; every GET has an ETag; a change may"
        " carry an `Idempotency-Key`. Refusals are `code, detail, field, hint`."
    ),
    docs_url="/docs",
    docs_decorator=signed_in,
    auth=[Bearer(), _Session(csrf=True)],
    renderer=_Renderer(),
    parser=_Parser(),
)
#: of one person; a screen that looks how far something is asks 90 times a minute
FILES, PEOPLE = ByPerson("300/m", "files"), ByPerson("120/m", "people")
api.add_router("", people)
api.add_router("", office, throttle=PEOPLE)
api.add_router("", joining)
api.add_router("", mine, throttle=PEOPLE)
api.add_router("", plant_data, throttle=PEOPLE)
api.add_router("", demo)
api.add_router("", plant)
api.add_router("", jobs)
api.add_router("", enter)
api.add_router("", circuits)
api.add_router("", rooms)
api.add_router("", photos)
api.add_router("", photo_words)
api.add_router("", convert)
api.add_router("", feeder)
api.add_router("", heaters)
api.add_router("", curves)
api.add_router("", running)
api.add_router("", program)
api.add_router("", sensors)
api.add_router("", dead)
api.add_router("", probes)
api.add_router("", checks)
api.add_router("", questions)
api.add_router("", choosing)
api.add_router("", files)
api.add_router("", panel)
api.add_router("", hunting)
api.add_router("", drilling)
api.add_router("", paneling)
api.add_router("", hiding)
api.add_router("", scheduling, throttle=FILES)
api.add_router("", auditing, throttle=FILES)
api.add_router("", exporting, throttle=FILES)
api.add_router("", proving)
api.add_router("", paper, throttle=FILES)

Answer = Callable[[HttpRequest, Any], HttpResponse]


@api.exception_handler(ProblemError)
def _told(request: HttpRequest, error: ProblemError) -> HttpResponse:
    del request
    return problem(error.status, error.body)


@api.exception_handler(GoneError)
def _gone(request: HttpRequest, error: GoneError) -> HttpResponse:
    del request, error
    return nobody_waits()


@api.exception_handler(CoreError)
def _core(request: HttpRequest, error: CoreError) -> HttpResponse:
    del request
    return problem(422, dict(error.problem()))


@api.exception_handler(ValidationError)
def _invalid(request: HttpRequest, error: ValidationError) -> HttpResponse:
    del request
    first = error.errors[0] if error.errors else {"loc": (), "msg": "The request is wrong."}
    place = list(first["loc"])
    # ninja puts where it came from, and for a body its parameter's name, before the path
    del place[: 2 if place[:1] == ["body"] else 1]
    field = ".".join(str(part) for part in place)
    body = {
        "code": "invalid",
        "detail": str(first["msg"]).removeprefix("Value error, ")[:300],
        "field": field[:120],
        "hint": "Correct this field; nothing was saved.",
    }
    return problem(422, body)


@api.exception_handler(AuthenticationError)
def _nobody(request: HttpRequest, error: AuthenticationError) -> HttpResponse:
    del request, error
    body = {
        "code": "sign_in",
        "detail": "You are not signed in.",
        "field": "",
        "hint": "Sign in and try again.",
    }
    return problem(401, body)


@api.exception_handler(Http404)
def _nothing(request: HttpRequest, error: Http404) -> HttpResponse:
    del request, error
    body = {
        "code": "not_found",
        "detail": "There is nothing at this address.",
        "field": "",
        "hint": "Go back to Motors.",
    }
    return problem(404, body)


@api.exception_handler(HttpError)
def _http(request: HttpRequest, error: HttpError) -> HttpResponse:
    del request
    if error.status_code == 429:
        return problem(429, dict(zip(("code", "detail", "hint"), SAID[429], strict=True), field=""))
    body = {
        "code": "bad_request",
        "detail": "The request cannot be read: it is not JSON.",
        "field": "body",
        "hint": "Reload the page and try again.",
    }
    return problem(error.status_code, body)
