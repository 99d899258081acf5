"""Whether this process is there, whether it can answer, and its figures for whoever watches it."""

from __future__ import annotations

import hmac
from collections.abc import Callable
from datetime import timedelta
from functools import cache

from django.conf import settings
from django.core.cache import caches
from django.db import DatabaseError, connection
from django.db.migrations.loader import MigrationLoader
from django.db.migrations.recorder import MigrationRecorder
from django.http import HttpRequest, HttpResponse, JsonResponse
from django.utils import timezone
from django.views.decorators.http import require_safe

from jobs.models import WorkerSeen
from operation.metrics import exposition

__all__ = ["health", "metrics", "ready"]

#: a worker says every ten seconds that it is there [s]
WORKER_S = 60
_OWN = {"127.0.0.1", "::1"}


@require_safe
def health(request: HttpRequest) -> JsonResponse:
    """Answer that the process is there; nothing else is asked."""
    del request
    return JsonResponse({"status": "ok"})


def _database() -> str:
    with connection.cursor() as cursor:
        cursor.execute("SELECT 1")
    return ""


@cache
def _steps() -> frozenset[tuple[str, str]]:
    """Return the migrations of this release; reading them takes longer than all else here."""
    return frozenset(MigrationLoader(None).graph.nodes)


def _tables() -> str:
    left = _steps() - set(MigrationRecorder(connection).applied_migrations())
    return f"{len(left)} migrations are not applied: run manage.py migrate" if left else ""


def _cache() -> str:
    caches["default"].get("ready")
    return ""


def _workers() -> str:
    since = timezone.now() - timedelta(seconds=WORKER_S)
    if WorkerSeen.objects.filter(at__gte=since).exists():
        return ""
    return f"no worker was seen for {WORKER_S} s: audits, imports and exports wait"


#: each by its name; what it says is what is wrong, nothing is good
PARTS: dict[str, Callable[[], str]] = {
    "database": _database,
    "tables": _tables,
    "cache": _cache,
}


@require_safe
def ready(request: HttpRequest) -> JsonResponse:
    """Answer whether requests can be sent here: 200, or 503 and what is wrong.

    A missing worker is told and does not take the pages away: they answer without one.
    """
    del request
    said: dict[str, str] = {}
    for name, part in PARTS.items():
        try:
            said[name] = part() or "ok"
        except DatabaseError as lost:
            said[name] = f"does not answer: {type(lost).__name__}"
    is_ready = set(said.values()) == {"ok"}
    if is_ready:
        said["workers"] = _workers() or "ok"
    body = {"status": "ready" if is_ready else "not ready", **said}
    return JsonResponse(body, status=200 if is_ready else 503)


@require_safe
def metrics(request: HttpRequest) -> HttpResponse:
    """Return the figures, to this machine or to whoever has the token; else 404."""
    token = settings.METRICS_TOKEN
    given = request.headers.get("Authorization", "").removeprefix("Bearer ")
    if token:
        is_let_in = hmac.compare_digest(given.encode(), token.encode())
    else:
        # behind a proxy every request comes from this machine: there a token is needed
        is_let_in = request.META.get("REMOTE_ADDR") in _OWN and not settings.IS_HTTPS
    if not is_let_in:
        return HttpResponse(status=404)
    body, kind = exposition()
    return HttpResponse(body, content_type=kind)
