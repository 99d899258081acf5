"""One shape for every refusal under ``/api/``: code, detail, field, hint."""

from __future__ import annotations

import json
from typing import Any

from django.http import HttpRequest, HttpResponse

__all__ = ["CONTENT_TYPE", "NeedsRepairError", "ProblemError", "csrf_failure", "problem"]

CONTENT_TYPE = "application/problem+json"


class ProblemError(Exception):
    """A refusal with its HTTP status and, for a conflict, what stands against it."""

    def __init__(
        self, status: int, *, code: str, detail: str, field: str, hint: str, **more: Any
    ) -> None:
        super().__init__(detail)
        self.status = status
        self.body = {"code": code, "detail": detail, "field": field, "hint": hint, **more}


class NeedsRepairError(ProblemError):
    """409: a stored version cannot be read any more; which one, and what is stored."""

    def __init__(
        self, *, detail: str, field: str, hint: str, step: str, n: int, body: object
    ) -> None:
        super().__init__(
            409,
            code="needs_repair",
            detail=detail,
            field=field,
            hint=hint,
            step=step,
            n=n,
            body=body,
        )


def problem(status: int, body: dict[str, Any]) -> HttpResponse:
    """Return a refusal as an HTTP response."""
    text = json.dumps(body, ensure_ascii=False, allow_nan=False, default=str)
    return HttpResponse(text, status=status, content_type=CONTENT_TYPE)


def csrf_failure(request: HttpRequest, reason: str = "") -> HttpResponse:
    """Answer a request that does not carry the page's own token."""
    del request, reason
    return problem(
        403,
        {
            "code": "csrf",
            "detail": "This request did not come from the page you opened.",
            "field": "",
            "hint": "Reload the page and try again.",
        },
    )
