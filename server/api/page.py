"""The one page that holds the screens; the address decides which one."""

from __future__ import annotations

from functools import cache
from pathlib import Path

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.views.decorators.csrf import ensure_csrf_cookie
from django.views.decorators.http import require_safe

__all__ = ["description_of_api", "page", "service_worker"]


@cache
def _html() -> str:
    index = settings.WEB_DIST / "index.html"
    return str(index.read_text(encoding="utf-8"))


@require_safe
@ensure_csrf_cookie
def page(request: HttpRequest) -> HttpResponse:
    """Return the page, with the token cookie that every change must carry."""
    del request
    response = HttpResponse(_html())
    response.headers["Cache-Control"] = "no-cache"
    return response


@cache
def _worker() -> str:
    return str((settings.WEB_DIST / "sw.js").read_text(encoding="utf-8"))


@require_safe
def service_worker(request: HttpRequest) -> HttpResponse:
    """Return what keeps the page on a device, from the root: it serves every address there."""
    del request
    response = HttpResponse(_worker(), content_type="text/javascript")
    response.headers["Cache-Control"] = "no-cache"
    return response


@cache
def _description() -> bytes:
    return (Path(__file__).parent / "openapi.json").read_bytes()


@require_safe
def description_of_api(request: HttpRequest) -> HttpResponse:
    """Return the description of the interface for programs: the file that the tests hold true."""
    del request
    return HttpResponse(_description(), content_type="application/json")
