"""Logs as one JSON object a line, one line for each request; no address holds a secret."""

from __future__ import annotations

import json
import logging
import re
import time
import uuid
from collections.abc import Callable
from contextvars import ContextVar

from django.http import HttpRequest, HttpResponseBase

__all__ = ["JsonFormatter", "RequestMiddleware", "request_id", "route_of"]

_ID: ContextVar[str] = ContextVar("request_id", default="")
_GIVEN = re.compile(r"[A-Za-z0-9._-]{1,64}")
_log = logging.getLogger("evencoil.requests")


def request_id() -> str:
    """Return the id of the request that is answered now; empty outside of one."""
    return _ID.get()


def route_of(request: HttpRequest) -> str:
    """Return the pattern of an address: no tag, no name, no secret is in it."""
    match = request.resolver_match
    return "none" if match is None else f"/{match.route}".replace("//", "/")


class JsonFormatter(logging.Formatter):
    """A log record as JSON: when, how bad, from where, what, in which request."""

    def format(self, record: logging.LogRecord) -> str:
        """Return the line."""
        line: dict[str, object] = {
            "at": time.strftime("%Y-%m-%dT%H:%M:%S", time.gmtime(record.created))
            + f".{int(record.msecs):03}Z",
            "level": record.levelname.lower(),
            "logger": record.name,
            "said": record.getMessage(),
        }
        if request_id():
            line["request"] = request_id()
        line |= getattr(record, "more", {})
        if record.exc_info:
            line["error"] = self.formatException(record.exc_info)
        return json.dumps(line, ensure_ascii=False, default=str)


class RequestMiddleware:
    """Give each request an id, say it in the answer, and log one line for it."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponseBase]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        """Answer, then log."""
        given = request.headers.get("X-Request-Id", "")
        own = given if _GIVEN.fullmatch(given) else uuid.uuid4().hex
        token = _ID.set(own)
        begun = time.perf_counter()
        try:
            response = self.get_response(request)
            response.headers["X-Request-Id"] = own
            _log.info(
                "%s %s %s",
                request.method,
                route_of(request),
                response.status_code,
                extra={
                    "more": {
                        "method": request.method,
                        "route": route_of(request),
                        "status": response.status_code,
                        "ms": round((time.perf_counter() - begun) * 1000, 1),
                        "person": getattr(getattr(request, "user", None), "pk", None),
                    }
                },
            )
            return response
        finally:
            _ID.reset(token)
