"""Answers of the framework, put into the one problem shape under ``/api/``."""

from __future__ import annotations

import json
from collections.abc import Callable
from typing import Any
from urllib.parse import unquote

from django.core.exceptions import RequestDataTooBig
from django.http import HttpRequest, HttpResponse, HttpResponseBase
from django.utils.cache import patch_vary_headers

from api.problems import CONTENT_TYPE, problem
from evencoil.base import Names, speaking

__all__ = ["SAID", "NamesMiddleware", "PrivateMiddleware", "ProblemMiddleware", "VersionMiddleware"]

SAID = {
    400: ("bad_request", "The request cannot be read.", "Reload the page and try again."),
    401: ("sign_in", "You are not signed in.", "Sign in and try again."),
    403: ("not_allowed", "You may not do this.", "Ask an administrator of your plant."),
    404: ("not_found", "There is nothing at this address.", "Go back to Motors."),
    405: ("method", "This address does not take that kind of request.", "Reload the page."),
    409: (
        "conflict",
        "Someone changed this in the meantime.",
        "Reload and look at the difference.",
    ),
    413: ("too_large", "The request is too large.", "The limit is about 1 MB."),
    429: ("too_many", "Too many attempts in a short time.", "Wait a few minutes and try again."),
}


def _refused_sign_in(body: bytes) -> tuple[str, str]:
    """Return detail and field out of the sign-in package's own error list."""
    try:
        errors: list[dict[str, Any]] = json.loads(body).get("errors") or []
    except (ValueError, AttributeError):
        errors = []
    if not errors:
        return "", ""
    return str(errors[0].get("message", "")), str(errors[0].get("param", ""))


#: of the sign-in package, what the screens use; its own sign-up is not part of this
_SIGN_IN = "/api/auth/browser/v1/"
_OPEN = {
    "config",
    "auth/login",
    "auth/session",
    "auth/sessions",
    "auth/reauthenticate",
    "auth/password/request",
    "auth/password/reset",
    "auth/webauthn/login",
    "auth/webauthn/reauthenticate",
    "account/password/change",
    "account/authenticators",
    "account/authenticators/webauthn",
}


def _is_open(request: HttpRequest) -> bool:
    """Tell whether there can be anything at an address: no NUL in it, no closed part of sign-in."""
    if "\x00" in request.path_info or "\x00" in unquote(request.META.get("QUERY_STRING", "")):
        return False
    path = request.path_info
    return not path.startswith("/api/auth/") or (
        path.startswith(_SIGN_IN) and path.removeprefix(_SIGN_IN) in _OPEN
    )


#: the address for programs; what stands behind it is what stands behind `/api/`
_VERSION = "/api/v1/"


class VersionMiddleware:
    """Answer the stable address of the interface for programs."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponseBase]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        """Answer; an address without a version is the newest."""
        if request.path_info.startswith(_VERSION):
            request.path_info = "/api/" + request.path_info.removeprefix(_VERSION)
        return self.get_response(request)


class ProblemMiddleware:
    """Rewrite every refusal under ``/api/`` that is not in the one shape yet."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponseBase]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        """Answer, with refusals in the one shape."""
        if request.path_info.startswith("/api/") and not _is_open(request):
            code, detail, hint = SAID[404]
            return problem(404, {"code": code, "detail": detail, "field": "", "hint": hint})
        response = self.get_response(request)
        if not request.path_info.startswith("/api/") or response.status_code < 400:
            return response
        if response.headers.get("Content-Type", "").startswith(CONTENT_TYPE):
            return response
        code, detail, hint = SAID.get(
            response.status_code,
            (
                "failed",
                "The server could not answer.",
                "Try again; if it happens again, tell an administrator.",
            ),
        )
        content = response.content if isinstance(response, HttpResponse) else b""
        said, field = _refused_sign_in(content)
        again = problem(
            response.status_code,
            {"code": code, "detail": said or detail, "field": field, "hint": hint},
        )
        for cookie in response.cookies.values():
            again.cookies[cookie.key] = cookie
        return again

    def process_exception(self, request: HttpRequest, error: Exception) -> HttpResponse | None:
        """Tell an oversized body as what it is."""
        if isinstance(error, RequestDataTooBig) and request.path_info.startswith("/api/"):
            code, detail, hint = SAID[413]
            return problem(413, {"code": code, "detail": detail, "field": "body", "hint": hint})
        return None


class NamesMiddleware:
    """Begin every answer in the usual names: a plant's own hold for its own answers only."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponseBase]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        """Answer; what the plant's names were is forgotten afterwards."""
        with speaking(Names()):
            return self.get_response(request)


class PrivateMiddleware:
    """Say of every answer under ``/api/`` that it is for one person and is to be asked again."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponseBase]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        """Answer; a browser may keep it and ask whether it still holds, a proxy may not."""
        response = self.get_response(request)
        if request.path_info.startswith("/api/"):
            if not response.has_header("Cache-Control"):
                response["Cache-Control"] = "private, no-cache"
            patch_vary_headers(response, ["Cookie"])
        return response
