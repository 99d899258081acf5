"""A change that is sent again, because its answer was lost, is done once.

A request that changes something may carry a header ``Idempotency-Key``. The first answer is kept
for a day and given again to the same sender with the same key; the same key with another body is
refused, and so is one whose first request never came to an end: whether that was done, only a
look can tell.
"""

from __future__ import annotations

import hashlib
import re
from collections.abc import Callable
from datetime import timedelta

from django.db import IntegrityError, transaction
from django.http import HttpRequest, HttpResponse, HttpResponseBase
from django.utils import timezone

from api.problems import problem
from people.models import GivenAnswer, Works
from people.tokens import live_token

__all__ = ["OnceMiddleware"]

_CHANGES = ("POST", "PUT", "PATCH", "DELETE")
_KEY = re.compile(r"[\x21-\x7e]{8,100}")
#: an answer larger than this is not kept [bytes]
_MOST = 1_000_000
_KEPT = timedelta(days=1)


class OnceMiddleware:
    """Do a change with a key once, and give its first answer again."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponseBase]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        """Answer, or give the answer that was given before."""
        key = request.headers.get("Idempotency-Key", "")
        if not key or request.method not in _CHANGES or not request.path_info.startswith("/api/w/"):
            return self.get_response(request)
        if not _KEY.fullmatch(key):
            return _said(
                422,
                "idempotency_key",
                "A key is 8 to 100 plain characters without blanks.",
                "Make a new one for each change, such as a UUID.",
            )
        works = _works(request)
        if works is None:
            # whoever is not let in is refused where everybody is
            return self.get_response(request)
        # whoever is signed in by a session or a token: keys of one are nothing to another
        sender = request.headers.get("Authorization") or request.COOKIES.get("sessionid", "")
        own = hashlib.sha256(f"{sender}\x00{key}".encode()).hexdigest()
        asked = hashlib.sha256(
            f"{request.method} {request.get_full_path()}\n".encode() + request.body
        ).hexdigest()
        GivenAnswer.objects.filter(at__lt=timezone.now() - _KEPT).delete()
        try:
            with transaction.atomic():
                row = GivenAnswer.objects.create(key=own, works=works, asked=asked)
        except IntegrityError:
            return _again(GivenAnswer.objects.filter(key=own).first(), asked)
        response = self.get_response(request)
        if not isinstance(response, HttpResponse) or response.status_code in {401, 429}:
            # nothing was done, or it cannot be kept: it may be tried again
            row.delete()
        elif response.status_code < 500 and len(response.content) <= _MOST:
            row.status = response.status_code
            row.kind = response.headers.get("Content-Type", "")[:100]
            row.body = response.content
            row.save(update_fields=["status", "kind", "body"])
        return response


def _works(request: HttpRequest) -> Works | None:
    """Return the plant that is asked, if whoever asks is let in there now."""
    scheme, _, token = request.headers.get("Authorization", "").partition(" ")
    user = request.user.pk
    if scheme:
        found = live_token(token.strip())
        user = None if found is None else found.user_id
    slug = request.path_info.split("/")[3]
    return Works.objects.filter(slug=slug, erased_at=None, memberships__user=user).first()


def _again(row: GivenAnswer | None, asked: str) -> HttpResponse:
    if row is not None and row.asked != asked:
        return _said(
            422,
            "idempotency_key",
            "This key came before with another request.",
            "Make a new key for each change; use one again only to send the same again.",
        )
    if row is None or row.status is None:
        return _said(
            409,
            "not_known",
            "A request with this key came before and has no answer yet.",
            "Wait, then look whether it was done before you send it with a new key.",
        )
    response = HttpResponse(bytes(row.body), status=row.status, content_type=row.kind)
    response.headers["Idempotent-Replay"] = "true"
    return response


def _said(status: int, code: str, detail: str, hint: str) -> HttpResponse:
    return problem(
        status, {"code": code, "detail": detail, "field": "Idempotency-Key", "hint": hint}
    )
